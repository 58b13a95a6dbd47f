// How a blank is built and how it holds: what the tape says of it, painted fields, frame and backing, guides.
#include <cmath>

#include "job/blank_commands.h"
#include "stations/blank_parts.h"
#include "theme/words.h"

namespace skarvel {
namespace {

// Every list is made anew when it grows or shrinks.
std::string plain(const Blank&) { return {}; }

QString nth(const char* key, std::size_t i) { return in_words(key, {{"number", i + 1}}); }

}  // namespace

void tape_readings(BlankForm& form) {
    form.tray().add_decision(label(in_words("blank-tray.as-many-as-you"), Role::Small, form.parent()));
    for (std::size_t i = 0; i < reading_count; ++i) {
        const QString name = shown(form.desk().say({name_of(static_cast<Reading>(i)), {}}));
        form.measure(
            name, lens(&Blank::tape, &Readings::taken, Nth{i}), [] { return in_words("blank-tray.not-measured"); },
            is_four_sided);
    }
    form.measure(in_words("blank-tray.the-tape-is-good"), lens(&Blank::tape, &Readings::tolerance));
}

void painted_fields(BlankForm& form) {
    form.rows(
        plain, [](const Blank& b) { return b.fields.size(); },
        [&form](std::size_t i) {
            const auto there = [i](const Blank& b) { return i < b.fields.size(); };
            form.nth_choice(
                nth("blank-tray.field", i),
                {in_words("blank-tray.band-across"), in_words("blank-tray.band-upwards"),
                 in_words("blank-tray.border-all-round")},
                [i, there](const Blank& b) { return there(b) ? static_cast<int>(runs_of(b.fields[i])) : 0; },
                [i](Blank& b, int n) { run_field(b, i, static_cast<FieldRuns>(n)); });
            form.measure(nth("blank-tray.depth-of-field", i), lens(&Blank::fields, Nth{i}, &PaintedField::depth));
            form.measure(nth("blank-tray.middle-of-field", i), lens(&Blank::fields, Nth{i}, &PaintedField::middle),
                         [i, there](const Blank& b) { return there(b) && !b.fields[i].border; });
            form.colour(nth("blank-tray.colour-of-field", i), lens(&Blank::fields, Nth{i}, &PaintedField::colour),
                        lens(&Blank::fields, Nth{i}, &PaintedField::colour_name));
            form.tick(nth("blank-tray.lettering-stays-inside-field", i),
                      lens(&Blank::fields, Nth{i}, &PaintedField::lettered));
            form.offer(nth("blank-tray.remove-field", i),
                       [&form, i] { form.change([i](Blank& b) { remove_field(b, i); }); });
        });
    form.offer(in_words("blank-tray.add-a-painted-field"), [&form] {
        const ColourPlan* plan = form.desk().face_plan();
        const skarvel::Box face = plan == nullptr ? skarvel::Box{} : plan->face->blank->face;
        form.change([&](Blank& b) { add_field(b, face, in_words("blank-tray.brick-red").toStdString()); });
    });
}

void frame_and_backing(BlankForm& form) {
    const auto framed = [](const Blank& b) { return b.frame.kind != FrameKind::None; };
    const auto mitred = [](const Blank& b) { return b.frame.kind == FrameKind::Mitred; };
    form.choice(in_words("blank-tray.frame"),
                {in_words("word.none"), in_words("blank-tray.butt-round-the-edge"),
                 in_words("blank-tray.mitred-round-the-edge"), in_words("blank-tray.trim-on-the-face"),
                 in_words("blank-tray.battens-at-top-and"), in_words("blank-tray.edging-strip")},
                lens(&Blank::frame, &Frame::kind));
    form.choice(in_words("blank-tray.length-and-width-are"),
                {in_words("blank-tray.over-all-frame-on"), in_words("blank-tray.of-the-bare-panel"),
                 in_words("blank-tray.free-inside-the-frame")},
                lens(&Blank::frame, &Frame::size_is), framed);
    BlankForm::Ids stocks;
    for (const StockSize& s : form.desk().library().trade.stock)
        stocks.emplace_back(s.name, text_of(shown_name(s.name)));
    form.choice(in_words("blank-tray.cut-from"), stocks, lens(&Blank::frame, &Frame::stock), framed);
    form.measure(in_words("blank-tray.seen-from-the-front"), lens(&Blank::frame, &Frame::seen), framed);
    form.measure(
        in_words("blank-tray.from-front-to-back"), lens(&Blank::frame, &Frame::depth),
        [] { return in_words("blank-tray.as-its-stock"); }, framed);
    form.measure(in_words("blank-tray.rebate"), lens(&Blank::frame, &Frame::rebate), mitred);
    form.measure(in_words("blank-tray.clearance-in-the-rebate"), lens(&Blank::frame, &Frame::clearance), mitred);
    form.tick(in_words("blank-tray.stands-above-the-face"), lens(&Blank::frame, &Frame::raised), framed);
    form.tick(in_words("blank-tray.goes-on-before-the"), lens(&Blank::frame, &Frame::before), framed);
    const auto backed = [](const Blank& b) { return b.backing.has_value(); };
    form.tick_of(in_words("blank-tray.glued-on-a-larger"), backed, [&form](Blank& b, bool on) {
        const ColourPlan* plan = form.desk().face_plan();
        const BlankPlan* p = plan == nullptr ? nullptr : plan->face->blank.get();
        put_on_backing(b, on, p == nullptr ? 24_in : p->length, p == nullptr ? 12_in : p->width);
    });
    form.measure(in_words("blank-tray.length-of-the-backing"), lens(&Blank::backing, &Backing::length), backed);
    form.measure(in_words("blank-tray.width-of-the-backing"), lens(&Blank::backing, &Backing::width), backed);
    form.measure(in_words("blank-tray.thickness-of-the-backing"), lens(&Blank::backing, &Backing::thickness), backed);
}

void hang_or_stand(BlankForm& form) {
    const auto on_feet = [](const Blank& b) { return b.holding.way == Holds::Legs || b.holding.way == Holds::Stake; };
    form.choice(
        in_words("blank-tray.it-is-held"),
        {in_words("blank-tray.hung-on-a-wall"), in_words("blank-tray.on-legs-or-feet"), in_words("blank-tray.leaning"),
         in_words("blank-tray.on-a-stake-in"), in_words("blank-tray.where-it-is")},
        lens(&Blank::holding, &Holding::way));
    form.measure(in_words("blank-tray.depth-of-its-base"), lens(&Blank::holding, &Holding::base),
                 [on_feet](const Blank& b) { return on_feet(b) || b.holding.way == Holds::Leaning; });
    form.measure(in_words("blank-tray.lower-edge-above-the"), lens(&Blank::holding, &Holding::under), on_feet);
    const bool pounds = form.desk().shop().display.unit == Unit::Inch;
    const double each = pounds ? 453.59237 : 1000.0;
    form.number_of(
        in_words("blank-tray.weight-laid-low-down"),
        {0, 2000, pounds ? in_words("blank-tray.lb") : in_words("blank-tray.kg")},
        [each](const Blank& b) { return static_cast<int>(std::lround(b.holding.ballast_grams / each)); },
        [each](Blank& b, int n) { b.holding.ballast_grams = static_cast<int>(std::lround(n * each)); }, on_feet);
}

void guides(BlankForm& form) {
    form.rows(
        plain, [](const Blank& b) { return b.guides.size(); },
        [&form](std::size_t i) {
            form.choice(nth("blank-tray.guide-runs", i), {in_words("word.across"), in_words("blank-tray.upwards")},
                        lens(&Blank::guides, Nth{i}, &Guide::along));
            form.measure(nth("blank-tray.guide-lies-at", i), lens(&Blank::guides, Nth{i}, &Guide::where));
            form.offer(nth("blank-tray.remove-guide", i),
                       [&form, i] { form.change([i](Blank& b) { remove_guide(b, i); }); });
        });
    form.offer(in_words("blank-tray.add-a-guide"), [&form] {
        form.change([](Blank& b) { add_guide(b, in_words("blank-tray.glue-line").toStdString()); });
    });
}

}  // namespace skarvel
