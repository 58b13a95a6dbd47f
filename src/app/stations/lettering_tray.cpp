// The tray of Lettering: the texts and the art of a face, one at hand at a time.
#include <QCheckBox>
#include <QFileDialog>
#include <QFocusEvent>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QSpinBox>

#include "lettering/setting.h"
#include "stations/art_fields.h"
#include "stations/compose_part.h"
#include "stations/samples.h"
#include "stations/tray.h"
#include "theme/theme.h"

namespace skarvel {
namespace {

class WordsEdit : public QPlainTextEdit {
  public:
    using QPlainTextEdit::QPlainTextEdit;
    std::function<void()> left;

  protected:
    void focusOutEvent(QFocusEvent* event) override {
        QPlainTextEdit::focusOutEvent(event);
        if (left) left();
    }
};

class LetteringTray : public Tray {
  public:
    LetteringTray(Desk& desk, QWidget* parent) : Tray(desk, parent) {
        title(tr("On this face"));
        things_ = column();
        auto* row = new QWidget(widget());
        auto* across = new QHBoxLayout(row);
        across->setContentsMargins(0, 0, 0, 0);
        add_text_ = button(tr("Another text"), nullptr, row);
        add_text_->setObjectName("add text");
        remove_ = button(tr("Remove"), nullptr, row);
        remove_->setObjectName("remove thing");
        across->addWidget(add_text_);
        across->addWidget(remove_);
        across->addStretch(1);
        add_decision(row);
        connect(add_text_, &QPushButton::clicked, this, [this] {
            desk_.apply(skarvel::add_text(desk_.job(), desk_.at()));
            desk_.select_text(face().lettering.texts.size() - 1);
            words_->setFocus();
        });
        connect(remove_, &QPushButton::clicked, this, [this] { remove(); });
        build_text();
        art_ = column();
        build_groups();
    }

    void refresh() override {
        refresh_things();
        const bool art = desk_.art_at().has_value();
        text_part_->setVisible(!art);
        art_->setVisible(art);
        if (art) {
            if (art_fields_ == nullptr) {
                art_fields_ = new ArtFields(desk_, art_);
                art_->layout()->addWidget(art_fields_);
            }
            art_fields_->refresh();
        } else {
            refresh_words();
        }
        for (std::size_t i = 0; i < refreshers_.size(); ++i) {
            const auto show = refreshers_[i];
            show();
        }
        say_groups();
        follow();
    }

  private:
    const Text& text() const { return face().lettering.texts[desk_.text_at()]; }
    const PlacedText* placed() const {
        if (plan() == nullptr || desk_.text_at() >= plan()->face->lettering->texts.size()) return nullptr;
        return &plan()->face->lettering->texts[desk_.text_at()];
    }
    void edit_text(const std::function<void(Text&)>& change, const QString& merge = {}) {
        edit_face([&](Face& f) { change(f.lettering.texts[desk_.text_at()]); }, merge);
    }

    // A dimension is tried first: what cannot be is not taken.
    void type_text(const std::function<void(Text&, const Measure&)>& set, const std::optional<Measure>& was,
                   const Measure& typed) {
        desk_.type_dimension(set, was.value_or(Measure{}), typed);
    }

    QWidget* column() {
        auto* made = new QWidget(widget());
        auto* layout = new QVBoxLayout(made);
        layout->setContentsMargins(0, 0, 0, 0);
        layout->setSpacing(4);
        add_decision(made);
        return made;
    }

    // ---- what is on the face

    void remove() {
        if (const auto art = desk_.art_at()) {
            desk_.apply(remove_art(desk_.job(), desk_.at(), *art));
            desk_.select_text(0);
        } else {
            desk_.apply(remove_text(desk_.job(), desk_.at(), desk_.text_at(), plan()));
        }
    }

    void refresh_things() {
        QStringList names;
        for (const Text& t : face().lettering.texts) {
            QString words = text_of(t.words).replace('\n', " / ");
            names << (words.isEmpty() ? tr("no words yet") : words);
        }
        for (const Art& a : face().art) names << say({std::string("art.") + kind_of(a), {}});
        things_->setVisible(names.size() > 1);
        remove_->setVisible(desk_.art_at() || face().lettering.texts.size() > 1);
        if (names.size() != static_cast<int>(buttons_.size())) {
            for (QPushButton* b : buttons_) b->deleteLater();
            buttons_.clear();
            for (int i = 0; i < names.size(); ++i) {
                QPushButton* b = button({}, "thing", things_);
                b->setCheckable(true);
                b->setObjectName(QString("thing %1").arg(i + 1));
                things_->layout()->addWidget(b);
                connect(b, &QPushButton::clicked, this, [this, i] {
                    const auto at = static_cast<std::size_t>(i);
                    const std::size_t texts = face().lettering.texts.size();
                    if (at < texts) {
                        desk_.select_text(at);
                    } else {
                        desk_.select_art(at - texts);
                    }
                    refresh();
                });
                buttons_.push_back(b);
            }
        }
        const std::size_t at = desk_.art_at() ? face().lettering.texts.size() + *desk_.art_at() : desk_.text_at();
        const QFontMetrics m(things_->font());
        for (int i = 0; i < names.size(); ++i) {
            QPushButton* b = buttons_[static_cast<std::size_t>(i)];
            b->setText(m.elidedText(names[i], Qt::ElideRight, std::max(120, width() - 90)));
            b->setAccessibleName(names[i]);
            b->setChecked(static_cast<std::size_t>(i) == at);
        }
    }

    // ---- one text

    void build_text() {
        text_part_ = column();
        inside(static_cast<QVBoxLayout*>(text_part_->layout()), [this] {
            words_ = new WordsEdit(widget());
            words_->setAccessibleName(tr("words"));
            words_->setObjectName("words");
            words_->setTabChangesFocus(true);
            words_->setFixedHeight(Theme::px(84));
            words_->setPlaceholderText(tr("Type the words, a line for each line"));
            add_decision(words_);
            connect(words_, &QPlainTextEdit::textChanged, this, [this] {
                edit_text([&](Text& t) { t.words = words_->toPlainText().toStdString(); },
                          "words" + text_of(text().id.name));
            });
            words_->left = [this] { desk_.settle(); };
            build_typeface();
            build_alternates();
            arrangement_ = field(tr("arranged"),
                                 new Segmented(tr("arranged"), {tr("stack"), tr("level lines"), tr("arc")}, widget()));
            connect(arrangement_, &Segmented::chosen, this, [this](int i) { arrange(static_cast<Arrangement>(i)); });
            build_size();
            measure(
                tr("letter gap"), [](const Text& t) { return std::optional(t.letter_gap); },
                [](Text& t, const Measure& m) { t.letter_gap = m; });
            line_gap_ = measure(
                tr("line gap"), [](const Text& t) { return std::optional(t.line_gap); },
                [](Text& t, const Measure& m) { t.line_gap = m; });
            check(
                tr("gaps evened to the eye"), [](const Text& t) { return t.even; },
                [](Text& t, bool on) { t.even = on; });
            group(tr("Shape of the letters"), [this] { build_letters(); });
            arc_holder_ = column();
            inside(static_cast<QVBoxLayout*>(arc_holder_->layout()),
                   [this] { group(tr("The arc"), [this] { build_arc(); }); });
            group(tr("Where it stands"), [this] { build_standing(); });
        });
    }

    void build_typeface() {
        typeface_ = field(tr("typeface"), new Choice(tr("typeface"), widget()));
        connect(typeface_, &QComboBox::activated, this, [this](int) {
            const auto i = static_cast<std::size_t>(typeface_->currentData().toInt());
            edit_text([&](Text& t) { t.typeface = desk_.library().typefaces.at(i).name; });
        });
        group(tr("Your words in each typeface"), [this] {
            favourite_ = new Check(tr("one of my favourites"), widget());
            favourite_->setObjectName("favourite");
            add_decision(favourite_);
            connect(favourite_, &QCheckBox::clicked, this, [this](bool on) {
                Shop shop = desk_.shop();
                const std::string name = full_name(text().typeface);
                std::erase(shop.favourites, name);
                if (on) shop.favourites.push_back(name);
                desk_.set_shop(shop);
            });
            samples_ = new Samples(desk_, widget());
            add_decision(samples_);
            connect(samples_, &Samples::picked, this, [this](int i) {
                edit_text(
                    [&](Text& t) { t.typeface = desk_.library().typefaces.at(static_cast<std::size_t>(i)).name; });
            });
            installed_ = field(tr("installed on this computer"), new Choice(tr("installed typefaces"), widget()));
            installed_->setPlaceholderText(tr("pick one to use it"));
            for (const TypefaceName& n : desk_.installed()) installed_->addItem(text_of(full_name(n)));
            installed_->setCurrentIndex(-1);
            connect(installed_, &QComboBox::activated, this, [this](int i) {
                const auto name = desk_.use_installed(desk_.installed().at(static_cast<std::size_t>(i)));
                if (name) edit_text([&](Text& t) { t.typeface = *name; });
                installed_->setCurrentIndex(-1);
            });
            refreshers_.push_back([this] {
                const auto& f = desk_.shop().favourites;
                favourite_->setChecked(std::find(f.begin(), f.end(), full_name(text().typeface)) != f.end());
                samples_->show_words(text());
            });
        });
    }

    // Ticks for what the typeface offers for these words.
    void build_alternates() {
        alternates_ = column();
        inside(static_cast<QVBoxLayout*>(alternates_->layout()), [this] {
            group(tr("Other forms of letters"), [this] {
                ticks_ = column();
                ticks_->setObjectName("alternates");
                refreshers_.push_back([this] { tick_alternates(); });
            });
        });
        refreshers_.push_back([this] {
            const Typeface* typeface = find_typeface(desk_.library().typefaces, text().typeface);
            offered_ = typeface == nullptr ? std::vector<Alternate>{} : alternates_of(*typeface, text().words);
            alternates_->setVisible(!offered_.empty());
        });
    }

    void tick_alternates() {
        if (ticked_ != offered_) {
            ticked_ = offered_;
            qDeleteAll(ticks_->findChildren<QWidget*>(Qt::FindDirectChildrenOnly));
            for (const Alternate& a : offered_) {
                auto* tick = new Check(name_of(a), ticks_);
                tick->setObjectName("alternate " + text_of(a.feature));
                tick->setProperty("feature", text_of(a.feature));
                ticks_->layout()->addWidget(tick);
                connect(tick, &QCheckBox::clicked, this, [this, a](bool on) {
                    edit_text([&](Text& t) {
                        std::erase(t.alternates, a.feature);
                        if (on) t.alternates.push_back(a.feature);
                    });
                });
            }
        }
        const auto& chosen = text().alternates;
        for (auto* tick : ticks_->findChildren<QCheckBox*>(Qt::FindDirectChildrenOnly)) {
            const std::string feature = tick->property("feature").toString().toStdString();
            tick->setChecked(std::find(chosen.begin(), chosen.end(), feature) != chosen.end());
        }
    }

    QString name_of(const Alternate& a) const {
        if (!a.name.empty()) return text_of(a.name);
        const std::string id = "alternate." + a.feature;
        if (desk_.library().catalogue.has(id)) return say({id, {}});
        if (a.feature.starts_with("ss") && a.feature.find_first_not_of("0123456789", 2) == std::string::npos)
            return say({"alternate.set", {{"number", std::int64_t{std::stoi(a.feature.substr(2))}}}});
        return say({"alternate.other", {{"feature", a.feature}}});
    }

    static std::string full_name(const TypefaceName& n) { return n.family + " " + n.style; }

    void build_size() {
        sizing_ = field(tr("size"), new Choice(tr("size"), widget()));
        sizing_->setObjectName("size");
        for (const QString& name :
             {tr("snug"), tr("by cap height"), tr("by height of x"), tr("by height over all"), tr("by width")})
            sizing_->addItem(name);
        connect(sizing_, &QComboBox::activated, this, [this](int i) { size_by(static_cast<Sizing>(i)); });
        cap_ = field(tr("cap height"), new MeasureField(desk_, tr("cap height"), widget()));
        size_caption_ =
            qobject_cast<QLabel*>(text_part_->layout()->itemAt(text_part_->layout()->count() - 2)->widget());
        connect(cap_, &MeasureField::decided, this, [this](const Measure& m) {
            const bool snug = text().sizing == Sizing::Snug;
            const Length now = placed() != nullptr ? placed()->cap_height : Length{};
            type_text(
                [](Text& t, const Measure& typed) {
                    if (t.sizing == Sizing::Snug) t.sizing = Sizing::CapHeight;
                    t.size = typed;
                },
                snug ? measure_of(now, {Unit::Inch, 64}) : text().size, m);
        });
    }

    // Begins where the text is now, on a sixteenth.
    void size_by(Sizing sizing) {
        edit_text([&](Text& t) {
            if (t.sizing == sizing) return;
            t.sizing = sizing;
            const PlacedText* p = placed();
            if (sizing == Sizing::Snug || p == nullptr || p->ink.empty()) return;
            const Length now = sizing == Sizing::CapHeight ? p->cap_height
                               : sizing == Sizing::XHeight ? p->x_height
                               : sizing == Sizing::Overall ? from_grid(p->ink.height())
                                                           : from_grid(p->ink.width());
            const Length sixteenth = 0.0625_in;
            t.size = measure_of(std::max(sixteenth, sixteenth * (now.nm() / sixteenth.nm())), {});
        });
    }

    // A stack's gap is far too much between letters on a line, and the other way round.
    void arrange(Arrangement arrangement) {
        edit_text([&](Text& t) {
            if (t.arrangement == arrangement) return;
            const bool was_stack = t.arrangement == Arrangement::Stack;
            t.arrangement = arrangement;
            if (was_stack != (arrangement == Arrangement::Stack))
                t.letter_gap = skarvel::measure(arrangement == Arrangement::Stack ? "9/16" : "0");
            if (arrangement == Arrangement::Arc) {
                t.arc.follow = sign().blank.kind == Kind::Round;
                t.slope_tenths = 0;
            }
        });
    }

    void build_letters() {
        number(
            tr("width of the letters, %"), 50, 200, [](const Text& t) { return t.width_percent; },
            [](Text& t, int v) { t.width_percent = v; });
        MeasureField* bolder = measure(
            tr("bolder by (outline grown)"), [](const Text& t) { return t.bolder; },
            [](Text& t, const Measure& m) { t.bolder = m; });
        bolder->allow_empty();
        connect(bolder, &MeasureField::emptied, this, [this] { edit_text([](Text& t) { t.bolder.reset(); }); });
        measure(
            tr("least distance when evened"), [](const Text& t) { return std::optional(t.least_gap); },
            [](Text& t, const Measure& m) { t.least_gap = m; });
        auto* slope = new QDoubleSpinBox(widget());
        slope->setRange(-80, 80);
        slope->setDecimals(1);
        slope->setSuffix(tr(" °"));
        slope->setAccessibleName(tr("slope"));
        slope->setObjectName("slope");
        field(tr("lines rise to the right by"), slope);
        connect(slope, &QDoubleSpinBox::valueChanged, this, [this](double v) {
            edit_text([&](Text& t) { t.slope_tenths = static_cast<int>(std::lround(v * 10)); }, "slope");
        });
        refreshers_.push_back([this, slope] {
            const QSignalBlocker quiet(slope);
            slope->setValue(text().slope_tenths / 10.0);
            slope->setEnabled(text().arrangement == Arrangement::Level);
        });
    }

    void build_arc() {
        auto* side = new Segmented(tr("reads"), {tr("above"), tr("below")}, widget());
        field(tr("reads along"), side);
        connect(side, &Segmented::chosen, this, [this](int i) { edit_text([&](Text& t) { t.arc.below = i == 1; }); });
        refreshers_.push_back([this, side] { side->show_choice(text().arc.below ? 1 : 0); });
        check(
            tr("follows the edge of the round"), [](const Text& t) { return t.arc.follow; },
            [](Text& t, bool on) { t.arc.follow = on; });
        MeasureField* distance = measure(
            tr("distance from the edge"), [](const Text& t) { return std::optional(t.arc.distance); },
            [](Text& t, const Measure& m) { t.arc.distance = m; });
        MeasureField* radius = measure(
            tr("radius of its circle"), [](const Text& t) { return std::optional(t.arc.radius); },
            [](Text& t, const Measure& m) { t.arc.radius = m; });
        QSpinBox* sweep = number(
            tr("degrees that a snug arc fills"), 10, 340, [](const Text& t) { return t.arc.sweep; },
            [](Text& t, int v) { t.arc.sweep = v; });
        refreshers_.push_back([this, distance, radius, sweep] {
            const bool follows = text().arc.follow && sign().blank.kind == Kind::Round;
            distance->setEnabled(follows);
            radius->setEnabled(!follows);
            sweep->setEnabled(text().sizing == Sizing::Snug);
        });
    }

    void build_standing() {
        build_hanging([this]() -> const std::optional<Hang>& { return text().across; },
                      [this]() -> const std::optional<Hang>& { return text().up; });
        check(
            tr("locked in place"), [](const Text& t) { return t.locked; }, [](Text& t, bool on) { t.locked = on; });
        check(
            tr("each line as wide as the shape is there"), [](const Text& t) { return t.to_shape; },
            [](Text& t, bool on) { t.to_shape = on; });
        auto* optical = new Check(tr("column a little above the middle"), widget());
        add_decision(optical);
        connect(optical, &QCheckBox::clicked, this,
                [this](bool on) { edit_face([&](Face& f) { f.lettering.optical_centre = on; }); });
        refreshers_.push_back([this, optical] { optical->setChecked(face().lettering.optical_centre); });
    }

    // Where the thing at hand hangs, axis by axis, and a distance for it.
    void build_hanging(const std::function<const std::optional<Hang>&()>& across,
                       const std::function<const std::optional<Hang>&()>& up) {
        struct Way {
            QString name;
            std::optional<Hang> hang;
        };
        const auto ways = [this](Axis axis) {
            const bool x = axis == Axis::X;
            std::vector<Way> all{
                {x ? tr("in the middle") : tr("in the column"), std::nullopt},
                {x ? tr("from the left edge") : tr("from the bottom edge"), lined_up(on_face, Side::Low)},
                {x ? tr("from the right edge") : tr("from the top edge"), lined_up(on_face, Side::High)},
                {tr("from the centre line"), lined_up(on_face, Side::Middle)},
                {x ? tr("from the left margin") : tr("from the bottom margin"), lined_up(on_usable, Side::Low)},
                {x ? tr("from the right margin") : tr("from the top margin"), lined_up(on_usable, Side::High)}};
            for (const Text& t : face().lettering.texts) {
                if (t.id == text().id) continue;
                const QString name = text_of(t.words.substr(0, t.words.find('\n')));
                if (x) {
                    all.push_back({tr("flush left with %1").arg(name), lined_up(t.id, Side::Low)});
                    all.push_back({tr("flush right with %1").arg(name), lined_up(t.id, Side::High)});
                } else {
                    all.push_back({tr("under %1").arg(name),
                                   Hang{t.id, Side::Low, Side::High, Measure{"-1/2 in", Length::sixtyfourths(-32)}}});
                    all.push_back({tr("over %1").arg(name),
                                   Hang{t.id, Side::High, Side::Low, Measure{"1/2 in", Length::sixtyfourths(32)}}});
                }
            }
            return all;
        };
        for (const Axis axis : {Axis::X, Axis::Y}) {
            const bool x = axis == Axis::X;
            const auto get = x ? across : up;
            auto* choice = new Choice(x ? tr("across") : tr("up"), widget());
            choice->setObjectName(x ? "hang across" : "hang up");
            field(x ? tr("across") : tr("up and down"), choice);
            auto* by = new MeasureField(desk_, x ? tr("distance across") : tr("distance up"), widget());
            field(x ? tr("distance, to the right") : tr("distance, upwards"), by);
            connect(choice, &QComboBox::activated, this, [this, ways, axis](int i) {
                const auto all = ways(axis);
                if (i < 0 || static_cast<std::size_t>(i) >= all.size()) return;
                edit_text(
                    [&](Text& t) { (axis == Axis::X ? t.across : t.up) = all[static_cast<std::size_t>(i)].hang; });
            });
            connect(by, &MeasureField::decided, this, [this, axis](const Measure& m) {
                const auto& now = axis == Axis::X ? text().across : text().up;
                if (!now) return;
                type_text([axis](Text& t, const Measure& typed) { (axis == Axis::X ? t.across : t.up)->by = typed; },
                          now->by, m);
            });
            refreshers_.push_back([this, choice, by, ways, axis, get] {
                const auto all = ways(axis);
                const QSignalBlocker quiet(choice);
                choice->clear();
                int at = -1;
                for (std::size_t i = 0; i < all.size(); ++i) {
                    choice->addItem(all[i].name);
                    const auto& now = get();
                    if (!now && !all[i].hang) at = static_cast<int>(i);
                    if (now && all[i].hang && now->on == all[i].hang->on && now->its == all[i].hang->its &&
                        now->mine == all[i].hang->mine)
                        at = static_cast<int>(i);
                }
                choice->setCurrentIndex(at);
                by->setEnabled(get().has_value());
                by->show_value(get() ? std::optional(get()->by) : std::nullopt);
            });
        }
        auto* row = new QWidget(widget());
        auto* layout = new QHBoxLayout(row);
        layout->setContentsMargins(0, 4, 0, 0);
        for (const Axis axis : {Axis::X, Axis::Y}) {
            QPushButton* b = button(axis == Axis::X ? tr("Equal gaps across") : tr("Equal gaps up"), nullptr, row);
            layout->addWidget(b);
            connect(b, &QPushButton::clicked, this, [this, axis] {
                if (plan() != nullptr)
                    desk_.apply(spread_things(desk_.job(), desk_.at(), *plan(), axis, desk_.shop().display));
            });
        }
        add_decision(row);
        QPushButton* back = button(tr("Back where it stands by itself"), nullptr, widget());
        add_decision(back);
        connect(back, &QPushButton::clicked, this,
                [this] { desk_.apply(unhang_thing(desk_.job(), desk_.at(), desk_.thing_at())); });
    }

    // ---- groups for the whole face

    void build_groups() {
        group(tr("Compose a saying"), [this] {
            auto* part = new ComposePart(desk_, widget());
            add_decision(part);
            refreshers_.push_back([part] { part->refresh(); });
        });
        group(tr("Colours and rims"), [this] { build_colours(); });
        group(tr("Add to the face"), [this] { build_add(); });
        group(tr("Read from where"), [this] { build_reading(); });
    }

    void build_colours() {
        text_colour_ = field(tr("this text or drawing is in"), new Choice(tr("colour of this"), widget()));
        connect(text_colour_, &QComboBox::activated, this, [this](int i) {
            const ColourId& colour = face().colours.at(static_cast<std::size_t>(i)).id;
            desk_.apply(put_in_colour(desk_.job(), desk_.at(), desk_.thing_at(), colour));
        });
        rim_ = field(tr("rim"), new Segmented(tr("rim"), {tr("none"), tr("behind"), tr("inside")}, widget()));
        connect(rim_, &Segmented::chosen, this, [this](int i) { choose_rim(i); });
        rim_part_ = column();
        inside(static_cast<QVBoxLayout*>(rim_part_->layout()), [this] {
            measure(
                tr("width of the rim"),
                [](const Text& t) { return t.rim ? std::optional(t.rim->width) : std::nullopt; },
                [](Text& t, const Measure& m) {
                    if (t.rim) t.rim->width = m;
                });
            rim_colour_ = field(tr("colour of the rim"), new Choice(tr("colour of the rim"), widget()));
            connect(rim_colour_, &QComboBox::activated, this, [this](int i) {
                const ColourId& colour = face().colours.at(static_cast<std::size_t>(i)).id;
                desk_.apply(put_rim_in_colour(desk_.job(), desk_.at(), desk_.text_at(), colour));
            });
            check(
                tr("runs on under the letters"), [](const Text& t) { return t.rim && t.rim->under; },
                [](Text& t, bool on) {
                    if (t.rim) t.rim->under = on;
                });
            measure(
                tr("overlap where it is cut out"),
                [](const Text& t) { return t.rim ? std::optional(t.rim->overlap) : std::nullopt; },
                [](Text& t, const Measure& m) {
                    if (t.rim) t.rim->overlap = m;
                });
        });
        add_decision(label(tr("Colours in the order of laying"), "small", widget()));
        colours_ = column();
        QPushButton* add = button(tr("Another colour"), nullptr, widget());
        add->setObjectName("add colour");
        add_decision(add);
        connect(add, &QPushButton::clicked, this,
                [this] { desk_.apply(skarvel::add_colour(desk_.job(), desk_.at())); });
        refreshers_.push_back([this] { refresh_colours(); });
    }

    void choose_rim(int which) {
        desk_.apply(set_rim(desk_.job(), desk_.at(), desk_.text_at(),
                            which == 0   ? RimIs::None
                            : which == 1 ? RimIs::Behind
                                         : RimIs::Inside));
    }

    QString colour_name(std::size_t i) const {
        const CoatChoice& c = face().colours[i].paint;
        return c.colour_name.empty() ? text_of(c.colour) : text_of(c.colour_name);
    }

    void refresh_colours() {
        const auto fill = [&](Choice* choice, const ColourId& at) {
            const QSignalBlocker quiet(choice);
            choice->clear();
            for (std::size_t i = 0; i < face().colours.size(); ++i) choice->addItem(colour_name(i));
            choice->setCurrentIndex(static_cast<int>(place_of(face(), at)));
        };
        const bool art = desk_.art_at().has_value();
        fill(text_colour_, art ? face().art[*desk_.art_at()].colour : text().colour);
        rim_->setEnabled(!art);
        const bool rim = !art && text().rim.has_value();
        rim_->show_choice(!rim ? 0 : text().rim->inner ? 2 : 1);
        rim_part_->setVisible(rim);
        if (rim) fill(rim_colour_, text().rim->colour);
        if (rows_for_ != face().colours.size()) {
            rows_for_ = face().colours.size();
            for (QWidget* r : colour_rows_) r->deleteLater();
            colour_rows_.clear();
            swatches_.clear();
            for (std::size_t i = 0; i < rows_for_; ++i) colour_row(i);
        }
        for (std::size_t i = 0; i < swatches_.size(); ++i)
            swatches_[i]->show_colour(face().colours[i].paint.colour, face().colours[i].paint.colour_name);
    }

    void colour_row(std::size_t i) {
        auto* row = new QWidget(colours_);
        auto* layout = new QHBoxLayout(row);
        layout->setContentsMargins(0, 0, 0, 0);
        auto* swatch = new ColourButton(tr("colour %1").arg(i + 1), row);
        layout->addWidget(swatch, 1);
        connect(swatch, &ColourButton::decided, this, [this, i](const QString& colour, const QString& name) {
            edit_face([&](Face& f) {
                if (i >= f.colours.size()) return;
                f.colours[i].paint.colour = colour.toStdString();
                f.colours[i].paint.colour_name = name.toStdString();
            });
        });
        QPushButton* earlier = button(tr("Earlier"), nullptr, row);
        earlier->setEnabled(i > 0);
        layout->addWidget(earlier);
        connect(earlier, &QPushButton::clicked, this,
                [this, i] { desk_.apply(lay_earlier(desk_.job(), desk_.at(), i)); });
        QPushButton* gone = button(tr("Remove"), nullptr, row);
        gone->setEnabled(rows_for_ > 1);
        layout->addWidget(gone);
        connect(gone, &QPushButton::clicked, this,
                [this, i] { desk_.apply(remove_colour(desk_.job(), desk_.at(), i)); });
        colours_->layout()->addWidget(row);
        colour_rows_.push_back(row);
        swatches_.push_back(swatch);
    }

    void build_add() {
        auto* holder = new QWidget(widget());
        auto* grid = new QGridLayout(holder);
        grid->setContentsMargins(0, 0, 0, 0);
        grid->setSpacing(4);
        int n = 0;
        const auto kind = [&](const QString& name, const ArtKind& made) {
            QPushButton* b = button(name, nullptr, holder);
            b->setObjectName("add " + name);
            grid->addWidget(b, n / 2, n % 2);
            ++n;
            connect(b, &QPushButton::clicked, this, [this, made] {
                desk_.apply(skarvel::add_art(desk_.job(), desk_.at(), made, desk_.library().typefaces));
                desk_.select_art(face().art.size() - 1);
            });
        };
        kind(tr("Border"), Border{});
        kind(tr("Corner pieces"), Corners{});
        kind(tr("Ruled line"), RuledLine{});
        kind(tr("Ribbon"), Banner{});
        kind(tr("Shape"), Figure{});
        kind(tr("Height ruler"), HeightRuler{});
        kind(tr("Month board"), MonthBoard{});
        QPushButton* from_file = button(tr("Drawing from a file"), nullptr, holder);
        from_file->setObjectName("add drawing");
        grid->addWidget(from_file, n / 2, n % 2);
        connect(from_file, &QPushButton::clicked, this, [this] { read_drawing(); });
        add_decision(holder);
    }

    void read_drawing() {
        const QString path = QFileDialog::getOpenFileName(this, tr("A drawing"), {},
                                                          tr("Drawings and pictures (*.svg *.dxf *.png *.jpg *.jpeg)"));
        if (path.isEmpty()) return;
        if (desk_.read_drawing(path.toStdString())) desk_.select_art(face().art.size() - 1);
    }

    void build_reading() {
        const auto seen = [this](const QString& name, Measure Seen::*what) {
            auto* made = new MeasureField(desk_, name, widget());
            field(name, made);
            connect(made, &MeasureField::decided, this,
                    [this, what](const Measure& m) { edit_face([&](Face& f) { f.seen.*what = m; }); });
            refreshers_.push_back([this, made, what] { made->show_value(face().seen.*what); });
        };
        seen(tr("read from a distance of"), &Seen::distance);
        seen(tr("its base line above the floor"), &Seen::above_floor);
        reading_ = column();
        refreshers_.push_back([this] { refresh_reading(); });
    }

    void refresh_reading() {
        if (plan() == nullptr || !plan()->face->reading) return;
        auto* fresh = new QWidget(reading_);
        auto* layout = new QVBoxLayout(fresh);
        layout->setContentsMargins(0, 4, 0, 0);
        for (const Verdict& v : plan()->face->reading->verdicts) {
            const char* role = v.says == Verdict::Says::Good ? "good" : v.says == Verdict::Says::Fair ? "look" : "stop";
            QLabel* words = label(say(v.why), role, fresh);
            words->setToolTip(text_of(v.basis));
            layout->addWidget(words);
        }
        delete reading_now_;
        reading_now_ = fresh;
        reading_->layout()->addWidget(fresh);
    }

    // ---- showing

    void refresh_words() {
        const Text& t = text();
        const QString words = text_of(t.words);
        if (words_->toPlainText() != words) {
            const QSignalBlocker quiet(words_);
            words_->setPlainText(words);
        }
        refresh_typefaces(t);
        arrangement_->show_choice(static_cast<int>(t.arrangement));
        sizing_->setCurrentIndex(static_cast<int>(t.sizing));
        const PlacedText* p = placed();
        const bool snug = t.sizing == Sizing::Snug;
        static const char* captions[] = {QT_TR_NOOP("cap height"), QT_TR_NOOP("cap height"), QT_TR_NOOP("height of x"),
                                         QT_TR_NOOP("height over all"), QT_TR_NOOP("width")};
        if (size_caption_ != nullptr) size_caption_->setText(tr(captions[static_cast<std::size_t>(t.sizing)]));
        cap_->setEnabled(!snug);
        cap_->show_value(snug ? std::nullopt : std::optional(t.size),
                         snug && p != nullptr ? tr("%1, follows").arg(length(p->cap_height)) : QString());
        line_gap_->setEnabled(t.arrangement != Arrangement::Stack || face().lettering.texts.size() > 1);
        arc_holder_->setVisible(t.arrangement == Arrangement::Arc);
    }

    void refresh_typefaces(const Text& t) {
        const auto& typefaces = desk_.library().typefaces;
        const auto& favourites = desk_.shop().favourites;
        if (shown_typefaces_ != typefaces.size() || shown_favourites_ != favourites) {
            shown_typefaces_ = typefaces.size();
            shown_favourites_ = favourites;
            const QSignalBlocker quiet(typeface_);
            typeface_->clear();
            for (const bool first : {true, false}) {
                for (std::size_t i = 0; i < typefaces.size(); ++i) {
                    const std::string name = full_name(typefaces[i].name);
                    const bool liked = std::find(favourites.begin(), favourites.end(), name) != favourites.end();
                    if (liked == first)
                        typeface_->addItem(liked ? "★ " + text_of(name) : text_of(name), static_cast<int>(i));
                }
            }
        }
        const Typeface* known = find_typeface(typefaces, t.typeface);
        if (known != nullptr) {
            typeface_->setCurrentIndex(typeface_->findData(static_cast<int>(known - typefaces.data())));
        } else {
            typeface_->setCurrentIndex(-1);
            typeface_->setPlaceholderText(text_of(full_name(t.typeface)) + tr(" (not here)"));
        }
    }

    void say_groups() {
        const Text& t = text();
        group_says(tr("Shape of the letters"), t.bolder                 ? tr("bolder")
                                               : t.width_percent != 100 ? tr("%1 % wide").arg(t.width_percent)
                                                                        : QString());
        group_says(tr("Where it stands"), t.locked           ? tr("locked")
                                          : t.across || t.up ? tr("placed by hand")
                                                             : tr("in the column"));
        group_says(tr("Compose a saying"), QString());
        group_says(tr("Colours and rims"),
                   face().colours.size() == 1 ? colour_name(0) : tr("%1 colours").arg(face().colours.size()));
        group_says(tr("Add to the face"), face().art.empty() ? QString() : QString::number(face().art.size()));
        group_says(tr("Read from where"), length(face().seen.distance.value));
        group_says(tr("Your words in each typeface"), QString());
        group_says(tr("The arc"), t.arc.below ? tr("below") : tr("above"));
    }

    void follow() {
        begin_follows(tr("What follows"));
        if (const auto& denied = desk_.denied()) {
            problem({desk_.denied_reason(), Station::Lettering, {}, Mark::Look});
            offer(tr("Take %1").arg(length(denied->tried.nearest.value)), [this] {
                desk_.apply(Job(desk_.denied()->nearest));
            })->setObjectName("take nearest");
            offer(tr("Use %1 all the same").arg(length(denied->typed.value)), [this] {
                desk_.apply(Job(desk_.denied()->all_the_same));
            })->setObjectName("use all the same");
        }
        if (plan() != nullptr) {
            const LetteringPlan& p = *plan()->face->lettering;
            const PlacedText* now = placed();
            if (!p.letters.empty() && now != nullptr && !now->ink.empty() && !desk_.art_at()) {
                fact(tr("letters"), QString::number(p.letters.size()));
                fact(tr("cap height"), length(now->cap_height));
                if (p.texts.size() == 1) {
                    if (p.free_across > 0.03125_in) fact(tr("free across"), length(p.free_across));
                    if (p.free_up > 0.03125_in) fact(tr("free up"), length(p.free_up));
                }
            }
            if (plan()->cut.thin && plan()->cut.thin->thinnest_stroke > Length{})
                fact(tr("thinnest stroke"), length(plan()->cut.thin->thinnest_stroke));
            for (const Reason& note : p.notes) why(say(note));
            for (const Reason& note : plan()->face->art->notes) why(say(note));
            for (const TypefaceName& t : p.offers) {
                offer(tr("Use %1 %2").arg(text_of(t.family), text_of(t.style)),
                      [this, t] { edit_text([&](Text& x) { x.typeface = t; }); });
            }
            if (plan()->cut.thin && plan()->cut.thin->bolder > Length{} && !desk_.art_at()) {
                const Length by = plan()->cut.thin->bolder;
                offer(tr("Make the letters bolder by %1").arg(length(by)), [this, by] {
                    edit_text([&](Text& t) {
                        t.bolder = measure_of((t.bolder ? t.bolder->value : Length{}) + by, {Unit::Inch, 64});
                    });
                });
            }
            if (plan()->face->reading && !plan()->face->reading->verdicts.empty()) {
                heading(tr("Can it be read"));
                for (const Verdict& v : plan()->face->reading->verdicts) {
                    if (v.basis == "from memory" || v.says != Verdict::Says::Good) {
                        if (v.says == Verdict::Says::Good) {
                            good(say(v.why));
                        } else {
                            problem({v.why,
                                     Station::Lettering,
                                     {},
                                     v.says == Verdict::Says::Poor ? Mark::Look : Mark::None});
                        }
                    }
                }
            }
        }
        problems(Station::Lettering);
        end_follows();
    }

    // ---- small makers

    MeasureField* measure(const QString& name, const std::function<std::optional<Measure>(const Text&)>& get,
                          const std::function<void(Text&, const Measure&)>& set) {
        auto* made = field(name, new MeasureField(desk_, name, widget()));
        connect(made, &MeasureField::decided, this,
                [this, set, get](const Measure& m) { type_text(set, get(text()), m); });
        refreshers_.push_back([this, made, get] { made->show_value(get(text())); });
        return made;
    }
    void check(const QString& name, const std::function<bool(const Text&)>& get,
               const std::function<void(Text&, bool)>& set) {
        auto* made = new Check(name, widget());
        made->setObjectName(name);
        add_decision(made);
        connect(made, &QCheckBox::clicked, this, [this, set](bool on) { edit_text([&](Text& t) { set(t, on); }); });
        refreshers_.push_back([this, made, get] { made->setChecked(get(text())); });
    }
    QSpinBox* number(const QString& name, int least, int most, const std::function<int(const Text&)>& get,
                     const std::function<void(Text&, int)>& set) {
        auto* made = new QSpinBox(widget());
        made->setRange(least, most);
        made->setAccessibleName(name);
        made->setObjectName(name);
        field(name, made);
        connect(made, &QSpinBox::valueChanged, this,
                [this, set, name](int v) { edit_text([&](Text& t) { set(t, v); }, name); });
        refreshers_.push_back([this, made, get] {
            const QSignalBlocker quiet(made);
            made->setValue(get(text()));
        });
        return made;
    }

    std::vector<std::function<void()>> refreshers_;
    QWidget *alternates_ = nullptr, *ticks_ = nullptr;
    std::vector<Alternate> offered_, ticked_;
    QWidget *things_ = nullptr, *text_part_ = nullptr, *art_ = nullptr, *arc_holder_ = nullptr;
    std::vector<QPushButton*> buttons_;
    QPushButton *add_text_ = nullptr, *remove_ = nullptr;
    ArtFields* art_fields_ = nullptr;
    WordsEdit* words_ = nullptr;
    Choice *typeface_ = nullptr, *sizing_ = nullptr, *installed_ = nullptr;
    std::size_t shown_typefaces_ = 0;
    std::vector<std::string> shown_favourites_;
    Segmented* arrangement_ = nullptr;
    QLabel* size_caption_ = nullptr;
    MeasureField *cap_ = nullptr, *line_gap_ = nullptr;
    Check* favourite_ = nullptr;
    Samples* samples_ = nullptr;
    // colours
    Choice *text_colour_ = nullptr, *rim_colour_ = nullptr;
    Segmented* rim_ = nullptr;
    QWidget *rim_part_ = nullptr, *colours_ = nullptr;
    std::vector<QWidget*> colour_rows_;
    std::vector<ColourButton*> swatches_;
    std::size_t rows_for_ = 0;
    QWidget *reading_ = nullptr, *reading_now_ = nullptr;
};

}  // namespace

Tray* make_lettering_tray(Desk& desk, QWidget* parent) { return new LetteringTray(desk, parent); }

}  // namespace skarvel
