#include "stations/art_fields.h"

#include <QLineEdit>

namespace skarvel {

ArtFields::ArtFields(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
    layout_ = new QVBoxLayout(this);
    layout_->setContentsMargins(0, 0, 0, 0);
    layout_->setSpacing(4);
}

void ArtFields::edit(const std::function<void(Art&)>& change, const QString& merge) {
    const auto at = desk_.art_at();
    if (!at) return;
    Job job = desk_.job();
    change(job.signs[desk_.sign_at()].faces[desk_.face_at()].art[*at]);
    desk_.apply(std::move(job), merge);
}

template <class T>
T* ArtFields::field(const QString& name, T* widget) {
    into_->addWidget(label(name, "small", this));
    into_->addWidget(widget);
    return widget;
}

template <class Kind>
MeasureField* ArtFields::measure(const QString& name, Measure Kind::*what, bool may_be_empty,
                                 const QString& otherwise) {
    auto* made = field(name, new MeasureField(desk_, name, this));
    const auto set = [this, what](const Measure& m) {
        edit([&](Art& a) {
            if (auto* k = std::get_if<Kind>(&a.kind)) k->*what = m;
        });
    };
    connect(made, &MeasureField::decided, this, set);
    if (may_be_empty) {
        made->allow_empty();
        connect(made, &MeasureField::emptied, this, [set] { set({}); });
    }
    refreshers_[building_].push_back([this, made, what, may_be_empty, otherwise] {
        if (const Kind* k = at_hand<Kind>()) {
            const bool none = may_be_empty && (k->*what).value == Length{};
            made->show_value(none ? std::nullopt : std::optional(k->*what), none ? otherwise : QString());
        }
    });
    return made;
}

template <class Kind>
void ArtFields::check(const QString& name, bool Kind::*what) {
    auto* made = new Check(name, this);
    made->setObjectName(name);
    into_->addWidget(made);
    connect(made, &QCheckBox::clicked, this, [this, what](bool on) {
        edit([&](Art& a) {
            if (auto* k = std::get_if<Kind>(&a.kind)) k->*what = on;
        });
    });
    refreshers_[building_].push_back([this, made, what] {
        if (const Kind* k = at_hand<Kind>()) made->setChecked(k->*what);
    });
}

template <class Kind, class E>
void ArtFields::choice(const QString& name, E Kind::*what, const QStringList& words) {
    auto* made = field(name, new Choice(name, this));
    made->addItems(words);
    connect(made, &QComboBox::activated, this, [this, what](int i) {
        edit([&](Art& a) {
            if (auto* k = std::get_if<Kind>(&a.kind)) k->*what = static_cast<E>(i);
        });
    });
    refreshers_[building_].push_back([this, made, what] {
        if (const Kind* k = at_hand<Kind>()) made->setCurrentIndex(static_cast<int>(k->*what));
    });
}

template <class Kind>
void ArtFields::typeface(TypefaceName Kind::*what) {
    auto* made = field(tr("typeface"), new Choice(tr("typeface of the numbers"), this));
    connect(made, &QComboBox::activated, this, [this, what](int i) {
        edit([&](Art& a) {
            if (auto* k = std::get_if<Kind>(&a.kind))
                k->*what = desk_.library().typefaces.at(static_cast<std::size_t>(i)).name;
        });
    });
    refreshers_[building_].push_back([this, made, what] {
        const auto& typefaces = desk_.library().typefaces;
        if (made->count() != static_cast<int>(typefaces.size())) {
            made->clear();
            for (const Typeface& t : typefaces) made->addItem(text_of(t.name.family + " " + t.name.style));
        }
        if (const Kind* k = at_hand<Kind>()) {
            const Typeface* known = find_typeface(typefaces, k->*what);
            made->setCurrentIndex(known == nullptr ? -1 : static_cast<int>(known - typefaces.data()));
        }
    });
}

template <class Kind>
void ArtFields::line(const QString& name, const std::function<QString(const Kind&)>& get,
                     const std::function<void(Kind&, const QString&)>& set) {
    auto* made = field(name, new QLineEdit(this));
    made->setAccessibleName(name);
    made->setObjectName(name);
    connect(made, &QLineEdit::textEdited, this, [this, set, name](const QString& words) {
        edit(
            [&](Art& a) {
                if (auto* k = std::get_if<Kind>(&a.kind)) set(*k, words);
            },
            name);
    });
    connect(made, &QLineEdit::editingFinished, this, [this] { desk_.settle(); });
    refreshers_[building_].push_back([this, made, get] {
        const Kind* k = at_hand<Kind>();
        if (k != nullptr && !made->hasFocus()) made->setText(get(*k));
    });
}

void ArtFields::build(std::size_t kind) {
    building_ = kind;
    const QString usable = tr("the usable width");
    switch (kind) {
        case 0: {
            measure(tr("inside the edge by"), &Border::inset);
            measure(tr("thickness of the line"), &Border::thickness);
            auto* corner =
                field(tr("corners"), new Segmented(tr("corners"), {tr("square"), tr("round"), tr("notched")}, this));
            connect(corner, &Segmented::chosen, this, [this](int i) {
                edit([&](Art& a) {
                    if (auto* b = std::get_if<Border>(&a.kind)) b->corner = static_cast<Corner>(i);
                });
            });
            refreshers_[building_].push_back([this, corner] {
                if (const auto* b = at_hand<Border>()) corner->show_choice(static_cast<int>(b->corner));
            });
            measure(tr("size of the corners"), &Border::corner_size);
            check(tr("a second line inside"), &Border::twice);
            break;
        }
        case 1:
            measure(tr("inside the edge by"), &Corners::inset);
            measure(tr("size"), &Corners::size);
            measure(tr("thickness of the line"), &Corners::thickness);
            choice(tr("drawn as"), &Corners::style, {tr("an angle"), tr("steps"), tr("a fan")});
            break;
        case 2:
            measure(tr("length"), &RuledLine::length, true, usable);
            measure(tr("thickness"), &RuledLine::thickness);
            choice(tr("its ends"), &RuledLine::ends, {tr("plain"), tr("pointed"), tr("with dots")});
            break;
        case 3:
            measure(tr("length"), &Banner::length, true, usable);
            measure(tr("height of the band"), &Banner::height);
            measure(tr("length of the tails"), &Banner::tails);
            break;
        case 4:
            choice(tr("shape"), &Figure::shape,
                   {tr("rectangle"), tr("oval"), tr("diamond"), tr("star"), tr("heart"), tr("pennant")});
            measure(tr("width"), &Figure::width);
            measure(tr("height"), &Figure::height);
            measure(tr("only its outline, this thick"), &Figure::line, true, tr("filled"));
            break;
        case 5:
            measure(tr("lower edge above the floor"), &HeightRuler::above_floor);
            check(tr("in centimetres"), &HeightRuler::metric);
            check(tr("marks start at the right edge"), &HeightRuler::right);
            measure(tr("long marks"), &HeightRuler::long_mark);
            measure(tr("middle marks"), &HeightRuler::middle_mark);
            measure(tr("short marks"), &HeightRuler::short_mark);
            measure(tr("thickness of the marks"), &HeightRuler::thickness);
            check(tr("numbers at the long marks"), &HeightRuler::numbers);
            measure(tr("height of the numbers"), &HeightRuler::number_height);
            typeface(&HeightRuler::typeface);
            break;
        case 6:
            line<MonthBoard>(
                tr("title"), [](const MonthBoard& m) { return text_of(m.title); },
                [](MonthBoard& m, const QString& w) { m.title = w.toStdString(); });
            line<MonthBoard>(
                tr("day names, with spaces between"),
                [](const MonthBoard& m) {
                    QStringList all;
                    for (const std::string& d : m.days) all << text_of(d);
                    return all.join(' ');
                },
                [](MonthBoard& m, const QString& w) {
                    m.days.clear();
                    for (const QString& d : w.split(' ', Qt::SkipEmptyParts).mid(0, 7))
                        m.days.push_back(d.toStdString());
                });
            typeface(&MonthBoard::typeface);
            measure(tr("height of the title"), &MonthBoard::title_height);
            measure(tr("height of the day names"), &MonthBoard::day_height);
            measure(tr("gaps"), &MonthBoard::gap);
            measure(tr("thickness of the lines"), &MonthBoard::line);
            check(tr("each day a box of its own"), &MonthBoard::boxes);
            break;
        default:
            build_drawing();
    }
    // What every kind has.
    auto* locked = new Check(tr("locked in place"), this);
    into_->addWidget(locked);
    connect(locked, &QCheckBox::clicked, this, [this](bool on) { edit([&](Art& a) { a.locked = on; }); });
    auto* back = button(tr("Back where it stands by itself"), nullptr, this);
    into_->addWidget(back);
    connect(back, &QPushButton::clicked, this,
            [this] { desk_.apply(unhang_thing(desk_.job(), desk_.at(), desk_.thing_at())); });
    auto* front = button(tr("Nearer to the front"), nullptr, this);
    into_->addWidget(front);
    connect(front, &QPushButton::clicked, this, [this] {
        if (const auto at = desk_.art_at(); at && *at + 1 < desk_.face().art.size()) {
            desk_.apply(raise_art(desk_.job(), desk_.at(), *at, true));
            desk_.select_art(*at + 1);
        }
    });
    refreshers_[building_].push_back([this, locked, back, front] {
        const auto at = desk_.art_at();
        if (!at) return;
        const Art& a = desk_.face().art[*at];
        locked->setChecked(a.locked);
        back->setVisible(a.across || a.up);
        front->setVisible(*at + 1 < desk_.face().art.size());
    });
}

void ArtFields::build_drawing() {
    auto* source = label({}, "small", this);
    into_->addWidget(source);
    auto* by = field(tr("sized by"), new Segmented(tr("sized by"), {tr("width"), tr("height")}, this));
    connect(by, &Segmented::chosen, this, [this](int i) {
        edit([&](Art& a) {
            if (auto* d = std::get_if<PlacedDrawing>(&a.kind)) d->by_width = i == 0;
        });
    });
    measure(tr("its width or height"), &PlacedDrawing::size);
    check(tr("mirrored"), &PlacedDrawing::mirrored);
    measure(tr("a kept picture is cut this far outside"), &PlacedDrawing::around);
    check(tr("mirrored copies in all four corners"), &PlacedDrawing::four_corners);
    line<PlacedDrawing>(
        tr("licence, and where it is from"), [](const PlacedDrawing& d) { return text_of(d.drawing->licence); },
        [](PlacedDrawing& d, const QString& w) {
            FileDrawing drawing = *d.drawing;
            drawing.licence = w.toStdString();
            d.drawing = std::move(drawing);
        });
    auto* parts =
        label(tr("Point at a part with Ctrl to drop it, with Shift to give it the next colour."), "small", this);
    into_->addWidget(parts);
    auto* all = button(tr("All parts back"), nullptr, this);
    into_->addWidget(all);
    connect(all, &QPushButton::clicked, this, [this] {
        edit([&](Art& a) {
            if (auto* d = std::get_if<PlacedDrawing>(&a.kind)) {
                d->dropped.clear();
                d->colours.clear();
            }
        });
    });
    refreshers_[building_].push_back([this, source, by, all] {
        const auto* d = at_hand<PlacedDrawing>();
        if (d == nullptr) return;
        source->setText(
            tr("%1, %n part(s)", nullptr, static_cast<int>(d->drawing->parts.size())).arg(text_of(d->drawing->source)));
        by->show_choice(d->by_width ? 0 : 1);
        all->setVisible(!d->dropped.empty() || !d->colours.empty());
    });
}

void ArtFields::refresh() {
    const auto at = desk_.art_at();
    if (!at) return;
    const std::size_t kind = desk_.face().art[*at].kind.index();
    if (!parts_.contains(kind)) {
        auto* part = new QWidget(this);
        into_ = new QVBoxLayout(part);
        into_->setContentsMargins(0, 0, 0, 0);
        into_->setSpacing(4);
        layout_->addWidget(part);
        parts_[kind] = part;
        build(kind);
    }
    for (const auto& [k, part] : parts_) part->setVisible(k == kind);
    for (const auto& show : refreshers_[kind]) show();
}

}  // namespace skarvel
