// The tray of Method: how a colour is made, the coats of its face, and where makers differ.
#include <QHBoxLayout>
#include <set>

#include "stations/form.h"
#include "theme/words.h"

namespace skarvel {
namespace {

using FaceForm = Form<Face>;
using ColourForm = Form<Colour>;

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
        form.on_refresh([colour, coat](const T& t) {
            const CoatChoice* now = coat.now(t);
            colour->setEnabled(now != nullptr);
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

CoatOf<Face> coat_of_face(std::optional<CoatChoice> Finish::*which, const CoatChoice& usual) {
    const auto place = lens(&Face::finish, which);
    return {[place](const Face& f) { return *place.in(f) ? &**place.in(f) : nullptr; },
            [place, usual](Face& f, const std::string& id) { coat_with(*place.in(f), id, usual); },
            [place](Face& f) { return *place.in(f) ? &**place.in(f) : nullptr; }};
}

class MethodTray : public Tray {
  public:
    MethodTray(Desk& desk, QWidget* parent)
        : Tray(desk, parent),
          face_form_(
              *this, [this] { return &face(); },
              [this](const FaceForm::Change& change, const QString& merge) { edit_face(change, merge); }),
          colour_form_(
              *this, [this] { return &desk_.colour(); },
              [this](const ColourForm::Change& change, const QString& merge) {
                  edit_face([&](Face& f) { change(f.colours[desk_.colour_at()]); }, merge);
              }) {
        add_colour_choice();
        title(in_words("word.how-it-is-made"));
        build_making();
        gap();
        title(in_words("tray.coats"));
        build_coats();
        gap();
        title(in_words("tray.where-makers-differ"));
        build_schools();
    }

    void refresh() override {
        show_colour_choice();
        colour_form_.refresh();
        face_form_.refresh();
        follow();
    }

  private:
    static bool is_mask(const Colour& colour) { return colour.making.way == Way::PaintThrough; }

    void build_making() {
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

    void build_coats() {
        const NewJob& usual = desk_.library().trade.new_job;
        coat_fields(face_form_, in_words("tray.ground"), {"paint", "wash", "stain", "chalkboard"}, true, true,
                    coat_of_face(&Finish::ground, usual.ground));
        const auto paint = lens(&Colour::paint);
        coat_fields<Colour>(
            colour_form_, in_words("tray.colour-of-the-lettering"), {"paint"}, false, true,
            {[paint](const Colour& c) { return paint.in(c); },
             [](Colour& c, const std::string& id) { lens(&Colour::paint, &CoatChoice::coat).put(c, id); },
             [paint](Colour& c) { return paint.in(c); }},
            is_mask);
        coat_fields(face_form_, in_words("tray.clear"), {"clear"}, true, false,
                    coat_of_face(&Finish::clear, usual.clear));
        const auto outdoors = lens(&Face::finish, &Finish::outdoors);
        face_form_.segmented(
            in_words("tray.it-will-hang"), {in_words("tray.outdoors"), in_words("tray.indoors")},
            [outdoors](const Face& f) { return *outdoors.in(f) ? 0 : 1; },
            [outdoors](Face& f, int i) { outdoors.put(f, i == 0); });
    }

    void build_schools() {
        const auto lift = lens(&Face::finish, &Finish::lift);
        const auto seal = lens(&Face::finish, &Finish::seal);
        const auto over = lens(&Face::finish, &Finish::clear_over);
        auto* lifted = face_form_.segmented(
            in_words("tray.lift-the-mask"), {in_words("tray.wet"), in_words("tray.soft"), in_words("tray.dry")},
            [lift](const Face& f) { return static_cast<int>(*lift.in(f)); },
            [lift](Face& f, int i) { lift.put(f, static_cast<Lift>(i)); });
        auto* sealed = face_form_.segmented(
            in_words("tray.seal-its-edges"), {in_words("tray.ground"), in_words("tray.clear"), in_words("word.none")},
            [seal](const Face& f) { return static_cast<int>(*seal.in(f)); },
            [seal](Face& f, int i) { seal.put(f, static_cast<Seal>(i)); });
        face_form_.segmented(
            in_words("tray.clear-coat"), {in_words("tray.under"), in_words("tray.over-all")},
            [over](const Face& f) { return *over.in(f) ? 1 : 0; }, [over](Face& f, int i) { over.put(f, i == 1); });
        face_form_.tick(in_words("tray.sanded-before-the-first"), lens(&Face::finish, &Finish::sanded));
        QLabel* note = label({}, "small", this);
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
            good(in_words("tray.read-and-signed", {{"proof", desk_.job().proof->at}}));
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
        heading(in_words("tray.take-care"));
        std::set<std::string> said;
        for (const Step& step : desk_.plan().bench->steps) {
            for (const Reason& caution : step.cautions) {
                if (said.insert(caution.id).second) why(say(caution));
            }
        }
        end_follows();
    }

    FaceForm face_form_;
    ColourForm colour_form_;
};

}  // namespace

Tray* make_method_tray(Desk& desk, QWidget* parent) { return new MethodTray(desk, parent); }

}  // namespace skarvel
