// How a text is set: a stack, lines or an arc, its sizes and gaps, the shape of its letters, and where it stands.
#include <array>
#include <cmath>

#include "job/text_commands.h"
#include "stations/lettering_parts.h"
#include "theme/words.h"

namespace skarvel {
namespace {

void size(TextForm& form) {
    Desk& desk = form.desk();
    auto* by = new Choice(in_words("word.size"), form.parent());
    form.row(in_words("word.size"), by);
    by->setObjectName("size");
    by->addItems({in_words("lettering-tray.snug"), in_words("lettering-tray.by-cap-height"),
                  in_words("lettering-tray.by-height-of-x"), in_words("lettering-tray.by-height-over-all"),
                  in_words("lettering-tray.by-width")});
    QObject::connect(by, &QComboBox::activated, &form.tray(), [&form, &desk](int i) {
        form.change([&](Text& t) { size_by(t, static_cast<Sizing>(i), placed_at_hand(desk)); });
    });
    auto* typed = new MeasureField(desk, in_words("lettering-tray.cap-height"), form.parent());
    QLabel* caption = form.row(in_words("lettering-tray.cap-height"), typed)->findChild<QLabel*>();
    QObject::connect(typed, &MeasureField::decided, &form.tray(), [&form, &desk](const Measure& m) {
        const Text& t = *form.at_hand();
        const PlacedText* now = placed_at_hand(desk);
        const Measure was = t.sizing != Sizing::Snug
                                ? t.size
                                : measure_of(now == nullptr ? Length{} : now->cap_height, {Unit::Inch, 64});
        desk.type_dimension(type_size, was, m);
    });
    form.on_refresh([&form, &desk, by, typed, caption](const Text& t) {
        by->setCurrentIndex(static_cast<int>(t.sizing));
        static constexpr std::array captions{"lettering-tray.cap-height", "lettering-tray.cap-height",
                                             "lettering-tray.height-of-x", "lettering-tray.height-over-all",
                                             "lettering-tray.width"};
        if (caption != nullptr) caption->setText(in_words(captions.at(static_cast<std::size_t>(t.sizing))));
        const bool snug = t.sizing == Sizing::Snug;
        const PlacedText* p = placed_at_hand(desk);
        typed->setEnabled(!snug);
        typed->show_value(snug ? std::nullopt : std::optional(t.size),
                          snug && p != nullptr
                              ? in_words("lettering-tray.follows", {{"cap_height", form.tray().length(p->cap_height)}})
                              : QString());
    });
}

void letters(TextForm& form) {
    form.number(in_words("lettering-tray.width-of-the-letters"), {50, 200}, lens(&Text::width_percent));
    form.measure(in_words("lettering-tray.bolder-by-outline-grown"), lens(&Text::bolder), [] { return QString(); });
    form.measure(in_words("lettering-tray.least-distance-when-evened"), lens(&Text::least_gap));
    auto* slope = new QDoubleSpinBox(form.parent());
    slope->setRange(-80, 80);
    slope->setDecimals(1);
    slope->setSuffix(in_words("lettering-tray.degrees"));
    slope->setAccessibleName(in_words("lettering-tray.slope"));
    slope->setObjectName("slope");
    form.row(in_words("lettering-tray.lines-rise-to-the"), slope);
    QObject::connect(slope, &QDoubleSpinBox::valueChanged, &form.tray(), [&form](double degrees) {
        form.change([&](Text& t) { t.slope_tenths = static_cast<int>(std::lround(degrees * 10)); }, "slope");
    });
    form.on_refresh([slope](const Text& t) {
        const QSignalBlocker quiet(slope);
        slope->setValue(t.slope_tenths / 10.0);
        slope->setEnabled(t.arrangement == Arrangement::Level);
    });
}

void arc(TextForm& form) {
    form.segmented(
        in_words("lettering-tray.reads-along"), {in_words("lettering-tray.above"), in_words("lettering-tray.below")},
        [](const Text& t) { return t.arc.below ? 1 : 0; },
        [](Text& t, int i) { lens(&Text::arc, &Arc::below).put(t, i == 1); });
    form.tick(in_words("lettering-tray.follows-the-edge-of"), lens(&Text::arc, &Arc::follow));
    auto* distance = form.measure(in_words("lettering-tray.distance-from-the-edge"), lens(&Text::arc, &Arc::distance));
    auto* radius = form.measure(in_words("lettering-tray.radius-of-its-circle"), lens(&Text::arc, &Arc::radius));
    auto* sweep = form.number(in_words("lettering-tray.degrees-that-a-snug"), {10, 340}, lens(&Text::arc, &Arc::sweep));
    Desk& desk = form.desk();
    form.on_refresh([&desk, distance, radius, sweep](const Text& t) {
        const bool follows = t.arc.follow && desk.sign().blank.kind == Kind::Round;
        distance->setEnabled(follows);
        radius->setEnabled(!follows);
        sweep->setEnabled(t.sizing == Sizing::Snug);
    });
}

// How it hangs along one axis, and the distance from there.
void hanging(TextForm& form, Axis axis) {
    Desk& desk = form.desk();
    const bool x = axis == Axis::X;
    const auto place = lens(x ? &Text::across : &Text::up);
    const auto ways = [&desk, axis](const Text& t) { return ways_to_hang(desk.face(), t.id, axis); };
    auto* list = new Choice(x ? in_words("word.across") : in_words("word.up"), form.parent());
    form.row(x ? in_words("word.across") : in_words("lettering-tray.up-and-down"), list);
    list->setObjectName(x ? "hang across" : "hang up");
    QObject::connect(list, &QComboBox::activated, &form.tray(), [&form, ways, place](int i) {
        const auto all = ways(*form.at_hand());
        if (i >= 0 && static_cast<std::size_t>(i) < all.size())
            form.change([&](Text& t) { place.put(t, all[static_cast<std::size_t>(i)].hang); });
    });
    auto* by = new MeasureField(
        desk, x ? in_words("lettering-tray.distance-across") : in_words("lettering-tray.distance-up"), form.parent());
    form.row(x ? in_words("lettering-tray.distance-to-the-right") : in_words("lettering-tray.distance-upwards"), by);
    const auto distance = lens(x ? &Text::across : &Text::up, &Hang::by);
    QObject::connect(by, &MeasureField::decided, &form.tray(), [&form, &desk, distance](const Measure& m) {
        if (const Measure* now = distance.in(*form.at_hand()))
            desk.type_dimension([distance](Text& t, const Measure& typed) { distance.put(t, typed); }, *now, m);
    });
    form.on_refresh([&form, list, by, ways, place, distance](const Text& t) {
        const auto all = ways(t);
        const QSignalBlocker quiet(list);
        list->clear();
        for (const HangWay& way : all) list->addItem(form.tray().say(way.name));
        const auto now = way_of(*place.in(t), all);
        list->setCurrentIndex(now ? static_cast<int>(*now) : -1);
        const Measure* is = distance.in(t);
        by->setEnabled(is != nullptr);
        by->show_value(is == nullptr ? std::nullopt : std::optional(*is));
    });
}

}  // namespace

const PlacedText* placed_at_hand(const Desk& desk) {
    const ColourPlan* plan = desk.face_plan();
    if (plan == nullptr || desk.text_at() >= plan->face->lettering->texts.size()) return nullptr;
    return &plan->face->lettering->texts[desk.text_at()];
}

void how_it_is_set(TextForm& form) {
    Desk& desk = form.desk();
    form.segmented(
        in_words("lettering-tray.arranged"),
        {in_words("lettering-tray.stack"), in_words("lettering-tray.level-lines"), in_words("lettering-tray.arc")},
        [](const Text& t) { return static_cast<int>(t.arrangement); },
        [&desk](Text& t, int i) { arrange(t, static_cast<Arrangement>(i), desk.sign().blank.kind == Kind::Round); });
    size(form);
    form.measure(in_words("lettering-tray.letter-gap"), lens(&Text::letter_gap));
    auto* line_gap = form.measure(in_words("lettering-tray.line-gap"), lens(&Text::line_gap));
    form.on_refresh([&desk, line_gap](const Text& t) {
        line_gap->setEnabled(t.arrangement != Arrangement::Stack || desk.face().lettering.texts.size() > 1);
    });
    form.tick(in_words("lettering-tray.gaps-evened-to-the"), lens(&Text::even));
    form.group(in_words("lettering-tray.shape-of-the-letters"), [&form] { letters(form); });
    QWidget* of_arc = form.column();
    form.inside(of_arc, [&form] { form.group(in_words("lettering-tray.the-arc"), [&form] { arc(form); }); });
    form.on_refresh([of_arc](const Text& t) { of_arc->setVisible(t.arrangement == Arrangement::Arc); });
}

void where_it_stands(TextForm& text, FaceForm& face) {
    hanging(text, Axis::X);
    hanging(text, Axis::Y);
    Desk& desk = text.desk();
    auto* row = new QWidget(text.parent());
    auto* layout = new QHBoxLayout(row);
    layout->setContentsMargins(0, 4, 0, 0);
    for (const Axis axis : {Axis::X, Axis::Y}) {
        QPushButton* even = button(
            axis == Axis::X ? in_words("lettering-tray.equal-gaps-across") : in_words("lettering-tray.equal-gaps-up"),
            Role::Plain, row);
        layout->addWidget(even);
        QObject::connect(even, &QPushButton::clicked, &text.tray(), [&desk, axis] {
            if (const ColourPlan* plan = desk.face_plan())
                desk.apply(spread_things(desk.job(), desk.at(), *plan, axis, desk.shop().display));
        });
    }
    text.tray().add_decision(row);
    text.offer(in_words("word.back-where-it-stands"),
               [&desk] { desk.apply(unhang_thing(desk.job(), desk.at(), desk.thing_at())); });
    text.tick(in_words("lettering-tray.its-place-in-the"), lens(&Text::keeps_place),
              [](const Text& t) { return t.up.has_value(); });
    text.tick(in_words("word.locked-in-place"), lens(&Text::locked));
    text.tick(in_words("lettering-tray.each-line-as-wide"), lens(&Text::to_shape));
    face.tick(in_words("lettering-tray.column-a-little-above"), lens(&Face::lettering, &Lettering::optical_centre));
}

}  // namespace skarvel
