// The tray of Method: how a colour is made, the coats of its face, and where makers differ.
#include <QHBoxLayout>
#include <set>

#include "job/layer_commands.h"
#include "job/method_reads.h"

#include "stations/form.h"
#include "stations/method_parts.h"
#include "stations/views.h"
#include "theme/words.h"

namespace skarvel {
namespace {

using FaceForm = Form<Face>;
using ColourForm = Form<Colour>;
using LayerForm = Form<Layer>;

constexpr int longest_wording = 200;

// A coat: which, in what colour, how many times.
template <class T>
struct CoatOf {
    std::function<const CoatChoice*(const T&)> now;    ///< nullptr where there is none
    std::function<void(T&, const std::string&)> take;  ///< an empty id: none
    std::function<CoatChoice*(T&)> change;
};

template <class T>
void coat_fields(Form<T>& form, const QString& name, const std::set<std::string>& kinds, bool may_be_none,
                 bool coloured, const CoatOf<T>& coat, const typename Form<T>::When& painted = {}) {
    typename Form<T>::Ids ids;
    if (may_be_none) ids.emplace_back("", in_words("word.none"));
    for (const Coat& c : form.desk().library().trade.coats) {
        if (kinds.contains(c.kind)) ids.emplace_back(c.id, text_of(c.name));
    }
    form.choice_of(
        name, ids, [coat](const T& t) { return coat.now(t) == nullptr ? std::string() : coat.now(t)->coat; }, coat.take,
        painted);
    auto* second = new QWidget(form.parent());
    auto* layout = new QHBoxLayout(second);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(4);
    if (coloured) {
        auto* colour = new ColourButton(in_words("tray.colour-of-the", {{"name", name}}), second);
        QObject::connect(colour, &ColourButton::decided, &form.tray(),
                         [&form, coat](const QString& shade, const QString& called) {
                             form.change([&](T& t) {
                                 if (CoatChoice* c = coat.change(t)) {
                                     c->colour = shade.toStdString();
                                     c->colour_name = called.toStdString();
                                 }
                             });
                         });
        form.on_refresh([&form, colour, coat](const T& t) {
            const CoatChoice* now = coat.now(t);
            colour->setEnabled(now != nullptr);
            colour->setVisible(now != nullptr && coat_of(form.desk().library().trade, now->coat).kind != "clear");
            colour->show_colour(now == nullptr ? "" : now->colour, now == nullptr ? "" : now->colour_name);
        });
        layout->addWidget(colour, 2);
    }
    auto* coats = new QSpinBox(second);
    coats->setRange(1, 9);
    coats->setAccessibleName(in_words("tray.coats-of", {{"name", name}}));
    coats->setObjectName(coats->accessibleName());
    coats->setButtonSymbols(QAbstractSpinBox::NoButtons);
    coats->setKeyboardTracking(false);
    QObject::connect(coats, &QSpinBox::valueChanged, &form.tray(), [&form, coat](int n) {
        form.change([&](T& t) {
            if (CoatChoice* c = coat.change(t)) c->coats = n;
        });
    });
    form.on_refresh([coats, coat, painted](const T& t) {
        const CoatChoice* now = coat.now(t);
        coats->setVisible(!painted || painted(t));
        coats->setEnabled(now != nullptr);
        const QSignalBlocker quiet(coats);
        if (now != nullptr) {
            coats->setValue(now->coats);
            coats->setSuffix(now->coats == 1 ? in_words("tray.coat") : in_words("tray.coats-suffix"));
        }
    });
    layout->addWidget(coats, 1);
    form.tray().add_decision(second);
}

const QStringList& places() {
    static const QStringList names{in_words("place.indoors"), in_words("place.porch"), in_words("place.weather"),
                                   in_words("place.kitchen"), in_words("place.floor"), in_words("place.child"),
                                   in_words("place.wet")};
    return names;
}

class MethodTray : public Tray {
  public:
    MethodTray(Desk& desk, QWidget* parent)
        : Tray(Station::Method, desk, parent),
          face_form_(
              *this, [this] { return &face(); },
              [this](const FaceForm::Change& change, const QString& merge) { edit_face(change, merge); }),
          colour_form_(
              *this, [this] { return &desk_.colour(); },
              [this](const ColourForm::Change& change, const QString& merge) {
                  edit_face([&](Face& f) { change(f.colours[desk_.colour_at()]); }, merge);
              }),
          layer_form_(
              *this, [this] { return layer_ ? &*layer_ : nullptr; },
              [this](const LayerForm::Change& change, const QString& merge) {
                  const LayerId id = desk_.layer_at();
                  edit_face([&](Face& f) { change_layer(f, id, change, desk_.library().trade); }, merge);
              }) {
        add_colour_choice();
        title(in_words("word.how-it-is-made"));
        build_making();
        gap();
        title(in_words("tray.layer-at-hand"));
        build_layer();
        gap();
        title(in_words("tray.where-makers-differ"));
        build_schools();
        group(in_words("both-ways.title"), [this] { add_part<BothWays>(); });
        group(in_words("rules.title"), [this] { add_part<RulesPart>(); });
    }

    void refresh() override {
        show_colour_choice();
        colour_form_.refresh();
        face_form_.refresh();
        const std::vector<Layer> all = desk_.layers();
        const std::size_t at = place_of(all, desk_.layer_at());
        layer_ = at < all.size() ? std::optional(all[at]) : std::nullopt;
        layer_form_.refresh();
        show_layers(all, at);
        first_->setEnabled(sign().faces.size() > 1);
        first_->show_choice(sign().front_first ? 1 : 0);
        refresh_parts();
        follow();
    }

  private:
    static bool is_mask(const Colour& colour) { return colour.making.way == Way::PaintThrough; }

    void build_making() {
        face_form_.choice(in_words("tray.where-it-will-be"), places(), lens(&Face::finish, &Finish::place));
        auto* way =
            new Segmented(in_words("tray.made-as"), {in_words("word.decal"), in_words("word.paint-through")}, this);
        add_decision(way);
        connect(way, &Segmented::chosen, this, [this](int i) {
            colour_form_.change([&](Colour& c) { make_as(c.making, static_cast<Way>(i), desk_.library().trade); });
        });
        colour_form_.on_refresh([way](const Colour& c) { way->show_choice(static_cast<int>(c.making.way)); });
        ColourForm::Ids films;
        for (const Film& f : desk_.library().trade.films) films.emplace_back(f.id, text_of(f.name));
        Choice* film = colour_form_.choice(in_words("word.film"), films, lens(&Colour::making, &Making::film));
        film->setAccessibleName(in_words("tray.film-of-the-method"));
        film->setObjectName(film->accessibleName());
    }

    // The layer that is picked in the cut, or here: what it is, and where it goes.
    void build_layer() {
        pick_ = new Choice(in_words("tray.layer-at-hand"), this);
        add_decision(pick_);
        connect(pick_, &QComboBox::activated, this,
                [this] { desk_.select_layer({pick_->currentData().toString().toStdString()}); });
        const auto coat = [](const Layer& l) { return is_coat(l); };
        const auto of_kind = [](LayerKind kind) { return [kind](const Layer& l) { return l.kind == kind; }; };
        coat_fields<Layer>(layer_form_, in_words("tray.coat-of-the-layer"),
                           {"paint", "wash", "stain", "chalkboard", "primer", "filler", "glaze", "clear"}, false, true,
                           {[](const Layer& l) { return is_coat(l) ? &l.coat : nullptr; },
                            [](Layer& l, const std::string& id) { l.coat.coat = id; },
                            [](Layer& l) { return is_coat(l) ? &l.coat : nullptr; }},
                           coat);
        const QStringList ways{in_words("put-on.brush"), in_words("put-on.roller"), in_words("put-on.sponge"),
                               in_words("put-on.spray"), in_words("put-on.cloth")};
        layer_form_.choice(in_words("tray.put-on-with"), ways, lens(&Layer::how), of_kind(LayerKind::Coat));
        const QStringList sides{in_words("on.face"), in_words("on.edges"), in_words("on.back"), in_words("on.field"),
                                in_words("on.openings")};
        layer_form_.choice(in_words("tray.where-it-goes"), sides, lens(&Layer::on), of_kind(LayerKind::Coat));
        layer_form_.number(in_words("tray.which-field"), {1, 99, {}, {}}, lens(&Layer::field),
                           [](const Layer& l) { return l.kind == LayerKind::Coat && l.on == On::Field; });
        layer_form_.number(in_words("tray.wiped-after"),
                           {0, 120, in_words("tray.minutes-suffix"), in_words("tray.left-on")},
                           lens(&Layer::wiped_after), of_kind(LayerKind::Coat));
        layer_form_.number(in_words("tray.grit"), {0, 2000, {}, in_words("tray.usual-grit")}, lens(&Layer::grit),
                           [](const Layer& l) { return l.kind == LayerKind::Sand || l.kind == LayerKind::Distress; });
        build_done();
        auto* moves = new QWidget(this);
        auto* row = new QHBoxLayout(moves);
        row->setContentsMargins(0, 4, 0, 0);
        const auto act = [&](const char* words, QPushButton*& made, const std::function<void(Face&)>& how) {
            made = button(in_words(words), Role::Plain, moves);
            row->addWidget(made);
            connect(made, &QPushButton::clicked, this, [this, how] { edit_face(how); });
        };
        act("tray.lay-it-later", later_,
            [this](Face& f) { move_layer(f, desk_.layer_at(), true, desk_.library().trade); });
        act("tray.lay-it-earlier", earlier_,
            [this](Face& f) { move_layer(f, desk_.layer_at(), false, desk_.library().trade); });
        act("tray.take-it-out", gone_, [this](Face& f) { take_out(f, desk_.layer_at(), desk_.library().trade); });
        add_decision(moves);
        build_put_in();
        coat_fields<Colour>(
            colour_form_, in_words("tray.colour-of-the-lettering"), {"paint"}, false, true,
            {[](const Colour& c) { return &c.paint; },
             [](Colour& c, const std::string& id) { lens(&Colour::paint, &CoatChoice::coat).put(c, id); },
             [](Colour& c) { return &c.paint; }},
            is_mask);
    }

    void build_done() {
        layer_form_.tick_of(
            in_words("tray.there-already"), [](const Layer& l) { return l.done.has_value(); },
            [this](Layer& l, bool there) { l.done = there ? std::optional(desk_.now()) : std::nullopt; },
            [](const Layer& l) { return l.kind != LayerKind::Lettering; });
        layer_form_.moment_of(
            in_words("tray.there-since"), "there-since", [](const Layer& l) { return l.done; },
            [this](Layer& l, Moment at) { l.done = std::min(at, desk_.now()); });
    }

    // What may be put in: each tin that the tables have, and what is done to a surface.
    void build_put_in() {
        auto* kind = new Choice(in_words("tray.layer-to-put-in"), this);
        for (const Coat& c : desk_.library().trade.coats) kind->addItem(text_of(c.name), text_of("coat/" + c.id));
        for (const LayerKind k : {LayerKind::DryBrush, LayerKind::Wipe, LayerKind::Sand, LayerKind::Distress,
                                  LayerKind::Chalk, LayerKind::Hardware, LayerKind::Decorate, LayerKind::Trial}) {
            const std::string word = word_of(k);
            kind->addItem(in_words(("layer-kind." + word).c_str()), text_of(word));
        }
        QPushButton* put = button(in_words("tray.put-it-in-above"), Role::Plain, this);
        field(in_words("tray.layer-to-put-in"), kind);
        add_decision(put);
        connect(put, &QPushButton::clicked, this, [this, kind] {
            const std::string chosen = kind->currentData().toString().toStdString();
            const bool tin = chosen.starts_with("coat/");
            const LayerKind is = tin ? LayerKind::Coat : from_word<LayerKind>(chosen).value_or(LayerKind::Sand);
            const Trade& trade = desk_.library().trade;
            const std::size_t above = place_of(desk_.layers(), desk_.layer_at()) + 1;
            Job job = desk_.job();
            const Layer layer = new_layer(job, is, tin ? chosen.substr(5) : std::string(), trade);
            put_in(job.signs[desk_.sign_at()].faces[desk_.face_at()], layer, above, trade);
            desk_.apply(std::move(job));
            desk_.select_layer(layer.id);
        });
        QPushButton* again = button(in_words("tray.suggest-again"), Role::Plain, this);
        add_decision(again);
        connect(again, &QPushButton::clicked, this,
                [this] { edit_face([this](Face& f) { suggest_layers(f, sign().blank, desk_.library().trade); }); });
    }

    void show_layers(const std::vector<Layer>& all, std::size_t at) {
        const QSignalBlocker quiet(pick_);
        pick_->clear();
        for (std::size_t i = all.size(); i-- > 0;) pick_->addItem(name_of_layer(all[i]), text_of(all[i].id.name));
        pick_->setCurrentIndex(at < all.size() ? static_cast<int>(all.size() - 1 - at) : -1);
        const bool any = at < all.size();
        later_->setEnabled(any && at + 1 < all.size());
        earlier_->setEnabled(any && at > 0);
        gone_->setEnabled(any && all[at].kind != LayerKind::Lettering);
    }

    [[nodiscard]] QString name_of_layer(const Layer& layer) const {
        if (layer.kind == LayerKind::Lettering) {
            const Colour* colour = find_colour(face(), layer.colour);
            return in_words("tray.lettering-in",
                            {{"colour", colour == nullptr ? std::string() : colour->paint.colour_name}});
        }
        if (!is_coat(layer)) return in_words((std::string("layer-kind.") + word_of(layer.kind)).c_str());
        const std::string& tin = coat_of(desk_.library().trade, layer).name;
        const std::string name = layer.coat.colour_name.empty() ? tin : tin + ", " + layer.coat.colour_name;
        if (layer.kind == LayerKind::DryBrush) return in_words("tray.dry-brushed", {{"what", name}});
        return text_of(name);
    }

    void build_schools() {
        const auto lift = lens(&Face::finish, &Finish::lift);
        const auto seal = lens(&Face::finish, &Finish::seal);
        auto* lifted = face_form_.segmented(
            in_words("tray.lift-the-mask"), {in_words("tray.wet"), in_words("tray.soft"), in_words("tray.dry")},
            [lift](const Face& f) { return static_cast<int>(*lift.in(f)); },
            [lift](Face& f, int i) { lift.put(f, static_cast<Lift>(i)); });
        auto* sealed = face_form_.segmented(
            in_words("tray.seal-its-edges"), {in_words("tray.ground"), in_words("tray.clear"), in_words("word.none")},
            [seal](const Face& f) { return static_cast<int>(*seal.in(f)); },
            [seal](Face& f, int i) { seal.put(f, static_cast<Seal>(i)); });
        colour_form_.segmented(
            in_words("tray.laying-begins"),
            {in_words("tray.at-the-top"), in_words("tray.at-the-base"), in_words("tray.in-the-middle"),
             in_words("tray.outside")},
            [](const Colour& c) { return static_cast<int>(c.making.lay_from); },
            [](Colour& c, int i) { c.making.lay_from = static_cast<LayFrom>(i); });
        face_form_.segmented(
            in_words("tray.clear-coat"), {in_words("tray.under"), in_words("tray.over-all")},
            [this](const Face& f) { return clear_lies_over(f, desk_.library().trade) ? 1 : 0; },
            [this](Face& f, int i) { lay_clear(f, i == 1, desk_.library().trade); });
        face_form_.tick(in_words("tray.stacked-on-the-tape"), lens(&Face::finish, &Finish::stacked),
                        [](const Face& f) { return f.colours.size() > 1; });
        first_ =
            new Segmented(in_words("tray.done-first"), {in_words("tray.the-back"), in_words("tray.the-front")}, this);
        field(in_words("tray.done-first"), first_);
        connect(first_, &Segmented::chosen, this, [this](int i) {
            Job job = desk_.job();
            job.signs[desk_.sign_at()].front_first = i == 1;
            desk_.apply(std::move(job));
        });
        QLabel* note = label({}, Role::Small, this);
        add_decision(note);
        colour_form_.on_refresh([lifted, sealed, note](const Colour& c) {
            lifted->setEnabled(is_mask(c));
            sealed->setEnabled(is_mask(c));
            note->setText(is_mask(c) ? in_words("tray.soft-is-our-default") : in_words("tray.decal-then-clear-over"));
        });
    }

    void follow() {
        begin_follows(in_words("tray.proof-of-the-wording"));
        if (desk_.plan().proof_signed) {
            const std::string& by = desk_.job().proof->by;
            good(by.empty()
                     ? in_words("tray.read-and-signed", {{"proof", desk_.job().proof->at}})
                     : in_words("tray.read-and-signed-by", {{"proof", desk_.job().proof->at}, {"who", text_of(by)}}));
        } else {
            QString words = text_of(wording(desk_.job()));
            if (words.size() > longest_wording) words = words.left(longest_wording) + "…";
            why(in_words("tray.quoted", {{"words", words}}));
            QPushButton* sign = offer(in_words("tray.i-have-read-every"), [this] {
                const StepId step = step_id(desk_.face().id, Work::Proof);
                desk_.apply(tick(desk_.job(), desk_.plan(), step, desk_.now()));
            });
            sign->setEnabled(!face().lettering.main().words.empty());
        }
        offer_remedies();
        heading(in_words("tray.take-care"));
        std::set<std::string> said;
        for (const Step& step : desk_.plan().bench->steps) {
            for (const Reason& caution : step.cautions) {
                if (said.insert(caution.id).second) why(say(caution));
            }
        }
        end_follows();
    }

    // What was found, the gravest first, with what mends it: the same as in the cut, for hands at the keyboard.
    void offer_remedies() {
        if (plan() == nullptr || !desk_.current()) return;
        const std::vector<Finding>& findings = plan()->method->findings;
        const std::vector<Remedy> all =
            remedies(desk_.job(), desk_.shop(), desk_.plan(), desk_.colour().id, desk_.library().trade);
        for (std::size_t i = 0; i < findings.size(); ++i) {
            if (findings[i].mark == Mark::None) continue;
            problem({findings[i].why, Station::Method, findings[i].remedy, findings[i].mark});
            for (const Remedy& r : all) {
                if (r.finding != findings[i]) continue;
                offer(says(r), [this, r] { take_remedy(desk_, r); });
            }
        }
    }

    FaceForm face_form_;
    ColourForm colour_form_;
    LayerForm layer_form_;
    std::optional<Layer> layer_;
    Choice* pick_ = nullptr;
    Segmented* first_ = nullptr;
    QPushButton* later_ = nullptr;
    QPushButton* earlier_ = nullptr;
    QPushButton* gone_ = nullptr;
};

}  // namespace

Tray* make_method_tray(Desk& desk, QWidget* parent) { return new MethodTray(desk, parent); }

}  // namespace skarvel
