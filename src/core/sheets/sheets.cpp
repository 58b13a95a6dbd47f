#include "sheets/sheets.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <iterator>

#include "job/naming.h"
#include "sections/keepers.h"
#include "sheets/sheet_parts.h"

namespace skarvel {
namespace {

using namespace sheet_parts;

std::string name_of(const Section& section, std::size_t i) { return fmt::format("{}  {}", i + 1, section.letters); }

// What a page is about, where a job has several signs or a sign a back.
std::string titled(const Printing& on, const ColourPlan& colour, const char* title) {
    const Job& job = on.job;
    std::string all = on.say(title);
    if (job.signs.size() > 1) all += ", " + label_of(job.signs[colour.face->at.sign]);
    if (colour.face->at.face > 0) all += ", " + on.say("sheet.back");
    if (!colour.first || !colour.last) {
        const CoatChoice& paint =
            job.signs[colour.face->at.sign].faces[colour.face->at.face].colours[colour.colour].paint;
        all += ", " + (paint.colour_name.empty() ? on.say("sheet.colour", {{"number", colour.colour + 1}})
                                                 : paint.colour_name);
    }
    return all;
}

// The placement sheet lies on the bench and is read standing: words of 11 points, figures of 14.
constexpr double told = 3.9;
constexpr double figures = 5;
constexpr double row_high = 25;  // of one section: its name, two lines of figures, and how it is put down

// Broken where it ends, like a paragraph, in a size of its own.
void figures_at(Sheet& sheet, const Printing& on, double x, const std::string& words, bool bold = false) {
    for (const std::string& line : on.text.lines(words, sheet.right() - x, figures)) {
        sheet.room(figures * 1.25);
        sheet.text(x, sheet.y, line, figures, bold);
        sheet.y += figures * 1.25;
    }
}

std::vector<Page> placement_sheet(const Printing& on, const ColourPlan& colour) {
    const Shop& shop = on.shop;
    Sheet sheet(on, titled(on, colour, "sheet.placement"));
    const BlankPlan& blank = *colour.face->blank;
    const bool upright = blank.face.height() * 5 > blank.face.width() * 6;
    const Length wide = from_grid(blank.face.width());
    const Length high = from_grid(blank.face.height());
    const double room_width = upright ? 60 : sheet.right() - margin_mm - 8;
    // A level sign is drawn as large as its rows leave room for, and never less than a third of the page.
    const double rows = static_cast<double>(lays_of(colour.cut.loads->sections).size()) * row_high + 50;
    const double room_height =
        upright ? sheet.bottom() - sheet.y - 12 : std::clamp(sheet.bottom() - sheet.y - 24 - rows, 80.0, 170.0);
    const int scale = scale_for(wide, high, room_width, room_height);
    const double drawn_high = high.in_mm() / scale;
    const Drawn frame = frame_for(scale, margin_mm + 6, sheet.y + 6 + drawn_high);
    sheet.text(margin_mm, sheet.y, on.say("sheet.drawn-edges", {{"scale", scale}}), told);

    for (const auto& ring : frame.rings(blank.outline)) sheet.line(ring, 0.4, true);
    for (const Section& section : colour.cut.loads->sections) {
        for (const Piece& piece : section.pieces) sheet.fill(frame.rings(piece.shape), 0.55);
    }
    for (const Seam& seam : colour.cut.loads->seams) {
        const bool level = seam.axis == Axis::Y;
        sheet.line({frame.at(level ? Point{seam.from, seam.where} : Point{seam.where, seam.from}),
                    frame.at(level ? Point{seam.to, seam.where} : Point{seam.where, seam.to})},
                   0.35, false, true);
    }
    for (const PlacedLay& lay : colour.laying->lays) {
        if (lay.hinge) sheet.line({frame.at(lay.hinge->from), frame.at(lay.hinge->to)}, 0.7, false, true);
        for (const Point& corner : {lay.low.at, lay.high.at}) {
            const PagePoint c = frame.at(corner);
            constexpr double arm = 1.4;
            sheet.line({{c.x - arm, c.y}, {c.x + arm, c.y}}, 0.3);
            sheet.line({{c.x, c.y - arm}, {c.x, c.y + arm}}, 0.3);
        }
    }
    const std::int64_t middle = upright ? blank.face.width() / 2 : blank.face.height() / 2;
    sheet.line(upright ? std::vector{frame.at({middle, 0}), frame.at({middle, blank.face.high.y})}
                       : std::vector{frame.at({0, middle}), frame.at({blank.face.high.x, middle})},
               0.12, false, true, 0.4);
    dimension(sheet, {frame.at({0, 0}).x, frame.bottom + 6}, {frame.at(blank.face.high).x, frame.bottom + 6},
              show(wide, shop.display), told);
    const double beside = frame.at(blank.face.high).x + 4;
    if (upright) {
        for (std::size_t i = 0; i < colour.cut.loads->sections.size(); ++i) {
            const Box film = colour.cut.loads->sections[i].film.bounds();
            dimension(sheet, {beside, frame.at(film.low).y}, {beside, frame.at(film.high).y}, std::to_string(i + 1),
                      told);
        }
    } else {
        // Each section's number, at the corner of its film that is measured to first.
        for (std::size_t i = 0; i < colour.cut.loads->sections.size(); ++i) {
            const PagePoint corner = frame.at(colour.cut.loads->sections[i].film.bounds().low);
            sheet.text(corner.x + 1.2, corner.y - 1.2, std::to_string(i + 1), figures, true);
        }
        dimension(sheet, {beside, frame.at(blank.face.high).y}, {beside, frame.bottom}, show(high, shop.display), told);
    }

    if (upright) {
        const double outer = beside + 9;
        dimension(sheet, {outer, frame.at(blank.face.high).y}, {outer, frame.bottom}, show(high, shop.display), told);
    }

    double x = upright ? beside + 32 : margin_mm;
    if (!upright) sheet.y = frame.bottom + 12;
    const double top = sheet.y;
    const auto measure_text = [&](Length l) { return show_number(l, shop.display); };
    sheet.y = top + 8;
    sheet.text(x, sheet.y, on.say("sheet.laying-order"), large, true);
    sheet.y += 8;
    for (const PlacedLay& lay : colour.laying->lays) {
        if (sheet.room(row_high)) x = margin_mm;
        const Section& section = colour.cut.loads->sections[lay.lay.section];
        std::string name = name_of(section, lay.lay.section);
        if (lay.lay.time > 0) name += ", " + on.say("sheet.laid-again", {{"time", lay.lay.time + 1}});
        if (const std::string how = on.say(turned(lay.lay.move)); !how.empty()) name += ", " + how;
        if (colour.cut.loads->passes > 1) name += ", " + on.say("sheet.pass", {{"pass", lay.lay.pass}});
        figures_at(sheet, on, x, with_fraction_slash(name), true);
        if (lay.on == Registers::Sides) figures_at(sheet, on, x + 4, on.say("sheet.sides-on-sides"));
        for (const Reason& distance : distances_told(lay)) figures_at(sheet, on, x + 4, on.say(distance));
        std::string how;
        const auto also = [&](const std::string& words) { how += (how.empty() ? "" : "; ") + words; };
        for (const Lent& lent : colour.cut.loads->lent) {
            if (lent.section == lay.lay.section && lay.lay.time == 0)
                also(on.say("sheet.mask-of", {{"sign", name_of_colour(on.job, lent.of)}, {"section", lent.mask + 1}}));
        }
        if (lay.against)
            also(on.say("sheet.marks-on", {{"section", colour.laying->lays[*lay.against].lay.section + 1}}));
        if (lay.hinge)
            also(
                on.say(Reason{"sheet.hinged",
                              {{"half", std::vector<Reason>{{std::string("half.") + word_of(lay.hinge->half), {}}}}}}));
        if (lay.two_people) also(on.say("sheet.two-people"));
        if (lay.slip_sheet) also(on.say("sheet.slip"));
        if (lay.close) also(on.say("sheet.tape-close", {{"across", lay.tape_across}, {"up", lay.tape_up}}));
        also(on.say(Reason{lay.across_grain ? "sheet.off-across" : "sheet.off-from",
                           {{"corner", std::vector<Reason>{{std::string("corner.") + word_of(lay.corner), {}}}}}}));
        const std::string told_how = with_fraction_slash(how);
        for (const std::string& line : on.text.lines(told_how, sheet.right() - x - 4, told)) {
            sheet.room(told * 1.3);
            sheet.text(x + 4, sheet.y, line, told);
            sheet.y += told * 1.3;
        }
        sheet.y += 2;
    }
    const bool by_sides = std::any_of(colour.laying->lays.begin(), colour.laying->lays.end(),
                                      [](const PlacedLay& l) { return l.on == Registers::Sides; });
    if (by_sides && colour.cut.making.way == Way::PaintThrough) sheet.paragraph(x, on.say("sheet.wipe-edges"), told);
    for (const Reason& why : colour.laying->why) sheet.paragraph(x, on.say(why), told);
    if (colour.cut.loads->passes > 1) sheet.paragraph(x, on.say("sheet.passes"), told);
    if (colour.face->mirrored) sheet.paragraph(x, on.say("sheet.from-behind"), told);
    // Of colours that are put together on the tape the lowest alone is measured to its place.
    const auto& tasks = *on.plan.tasks;
    const bool stacked = std::any_of(tasks.begin(), tasks.end(),
                                     [&](const Task& t) { return t.work == Work::Stack && t.face == colour.face->id; });
    const bool laid = std::any_of(tasks.begin(), tasks.end(),
                                  [&](const Task& t) { return t.work == Work::Lay && t.colour == colour.id; });
    if (stacked) sheet.paragraph(x, on.say(laid ? "sheet.stack-lowest" : "sheet.stack-taken-up"), told);
    const Length half = from_grid(middle);
    sheet.paragraph(x, on.say(upright ? "sheet.centre-left" : "sheet.centre-bottom", {{"at", measure_text(half)}}),
                    told);
    sheet.paragraph(x, on.say(colour.cut.making.way == Way::PaintThrough ? "sheet.order-mask" : "sheet.order-decal"),
                    told);
    return sheet.take();
}

// Where the film of a load comes from, and what it leaves.
std::string film_words(const Printing& on, const CutPlan& cut, std::size_t which) {
    const Load& load = cut.loads->loads[which];
    const FilmFrom from = which < cut.film.size() ? cut.film[which] : FilmFrom{};
    if (!load.carried_by.empty()) return on.say("sheet.with-another");
    if (!load.from.empty()) return on.say("sheet.from-drawer", {{"from", leftovers_of(load)}});
    const std::string used =
        on.say(from.bought         ? "sheet.off-a-bought-roll"
               : from.roll.empty() ? "sheet.off-the-roll"
                                   : "sheet.off-that-roll",
               {{"length", load.film_length}, {"share", Percent{load.share}}, {"roll", from.roll}});
    if (!load.rest) return used;
    return used + "; " + on.say("sheet.keep", {{"across", load.rest->across}, {"along", load.rest->along}});
}

std::vector<Page> load_sheets(const Printing& on, const ColourPlan& colour) {
    const Shop& shop = on.shop;
    Sheet sheet(on, titled(on, colour, "sheet.loads"));
    const double room_width = (sheet.right() - margin_mm) / 2 - 12;
    const Mat& bed = colour.cut.bed;
    // Of a roll only as much as the longest load takes.
    Length longest = bed.roll ? Length{} : bed.length;
    for (const Load& load : colour.cut.loads->loads) longest = std::max(longest, load.film_length);
    const int scale = scale_for(bed.width, longest, room_width, 100);
    sheet.text(margin_mm, sheet.y,
               on.say(bed.roll ? "sheet.drawn-roll" : "sheet.drawn-mat", {{"scale", scale}, {"bed", bed.name}}), small);
    sheet.y += 6;
    const double drawn_high = std::min(bed.usable.along, longest).in_mm() / scale;
    int column = 0;
    for (std::size_t i = 0; i < colour.cut.loads->loads.size(); ++i) {
        const Load& load = colour.cut.loads->loads[i];
        if (column == 0) sheet.room(drawn_high + 20);
        const double left = margin_mm + column * (room_width + 16);
        sheet.text(left, sheet.y + 4, on.say(load.cut ? "sheet.load-cut" : "sheet.load", {{"number", i + 1}}), large,
                   true);
        sheet.text(left, sheet.y + 9, film_words(on, colour.cut, i), small);
        const Drawn frame = frame_for(scale, left, sheet.y + 13 + drawn_high);
        sheet.line(frame.box({{0, 0}, at(bed.usable.across, std::min(bed.usable.along, longest))}), 0.3, true, true);
        sheet.text(left, frame.bottom + 3.4, on.say("sheet.this-end"), small);
        const std::vector<Box> leftovers = leftovers_on_bed(shop.drawer, load, colour.cut.loads->sections, bed);
        for (const Box& piece : leftovers) sheet.line(frame.box(piece), 0.5, true);
        if (!leftovers.empty()) sheet.text(left, frame.bottom + 7, on.say("sheet.thick-line"), small);
        for (const Placement& p : load.placements) {
            const LaidSection laid = lay_on_mat(colour.cut.loads->sections[p.section], p);
            for (const auto& ring : frame.rings(laid.film)) sheet.line(ring, 0.3, true);
            sheet.fill(frame.rings(laid.cut), 0.7);
            const PagePoint corner = frame.at({laid.film.bounds().low.x, laid.film.bounds().high.y});
            sheet.text(corner.x + 1.5, corner.y + 4.5, std::to_string(p.section + 1), body, true);
        }
        for (const Guest& g : load.guests) {
            const LaidSection laid = lay_on_mat(g.section, g.placement);
            for (const auto& ring : frame.rings(laid.film)) sheet.line(ring, 0.2, true, true);
            const PagePoint corner = frame.at({laid.film.bounds().low.x, laid.film.bounds().high.y});
            sheet.text(corner.x + 1.5, corner.y + 4,
                       fmt::format("{}, {}", g.section.letters, name_of_colour(on.job, g.of)), small);
        }
        if (++column == 2 || i + 1 == colour.cut.loads->loads.size()) {
            column = 0;
            sheet.y += drawn_high + 24;
        }
    }
    sheet.room(5);
    sheet.text(margin_mm, sheet.y, on.say("sheet.keepers", {{"keepers", colour.cut.loads->keepers}}), body, true);
    sheet.y += 5;
    std::string keepers;
    for (const Reason& row : keepers_told(colour.cut.loads->sections)) {
        if (!keepers.empty()) keepers += "; ";
        keepers += on.say(row);
    }
    if (!keepers.empty()) sheet.paragraph(margin_mm, on.say("sheet.leave-in", {{"keepers", keepers}}));
    return sheet.take();
}

std::vector<Page> shopping_sheets(const Printing& on) {
    const Plan& plan = on.plan;
    Sheet sheet(on, on.say("sheet.what-to-buy"));
    for (const ColourPlan& colour : plan.colours) {
        for (const ShoppingItem& item : colour.shopping) {
            sheet.room(7);
            sheet.line({{margin_mm, sheet.y - 3},
                        {margin_mm + 3.4, sheet.y - 3},
                        {margin_mm + 3.4, sheet.y + 0.4},
                        {margin_mm, sheet.y + 0.4}},
                       0.25, true);
            sheet.text(margin_mm + 7, sheet.y, on.say(item.what));
            sheet.text(sheet.right(), sheet.y, on.say(item.how_much), body, false, Align::Right);
            sheet.y += 7;
        }
    }
    return sheet.take();
}

std::vector<Page> schedule_sheets(const Printing& on) {
    const Plan& plan = on.plan;
    Sheet sheet(on, on.say("sheet.schedule"));
    if (plan.clock->start_by) {
        sheet.text(margin_mm, sheet.y,
                   on.say("sheet.start-ready", {{"start", *plan.clock->start_by},
                                                {"ready", plan.clock->ready},
                                                {"hands_on", plan.clock->hands_on}}));
        sheet.y += 8;
    }
    for (const Step& step : plan.bench->steps) {
        sheet.room(14);
        sheet.text(margin_mm, sheet.y, show_moment(step.start), body, true);
        sheet.text(margin_mm + 24, sheet.y, on.say(step.name) + (step.done ? "  " + on.say("sheet.done") : ""));
        sheet.text(sheet.right(), sheet.y, show_minutes(step.hands_on), body, false, Align::Right);
        sheet.y += 4.6;
        if (step.wait_after.count() > 0) {
            sheet.text(margin_mm + 24, sheet.y,
                       on.say("sheet.then-wait", {{"wait", step.wait_after}, {"why", step.wait_why}}), small, false,
                       Align::Left, 0.35);
            sheet.y += 4.4;
        }
        sheet.y += 1.2;
    }
    return sheet.take();
}

// What can hurt, all of it together, before anything else.
std::vector<Page> caution_sheets(const Printing& on) {
    const Plan& plan = on.plan;
    Sheet care(on, on.say("sheet.cautions"));
    std::vector<std::string> said;
    for (const ColourPlan& colour : plan.colours) {
        for (const Finding& f : colour.method->findings) {
            if (f.mark == Mark::None) continue;
            care.paragraph(margin_mm, on.say(f.mark == Mark::Stop ? "sheet.stop" : "sheet.look",
                                             {{"why", f.why}, {"remedy", f.remedy}}));
        }
    }
    for (const Step& step : plan.bench->steps) {
        for (const Reason& caution : step.cautions) {
            const std::string words = on.say(caution);
            if (std::find(said.begin(), said.end(), words) != said.end()) continue;
            said.push_back(words);
            care.paragraph(margin_mm, words);
        }
    }
    care.paragraph(margin_mm, on.say("sheet.labels"));
    return care.take();
}

// Every word of it, however many: it goes on over as many pages as it takes, and is signed on the last.
std::vector<Page> proof_sheets(const Printing& on) {
    const Job& job = on.job;
    const Plan& plan = on.plan;
    Sheet sheet(on, on.say("sheet.proof"));
    const double wide = sheet.right() - margin_mm;
    sheet.text(margin_mm, sheet.y, on.say("sheet.read-every-word"));
    sheet.y += 18;
    std::vector<std::string> lines(1);
    std::size_t count = 0;
    char before = ' ';
    for (const char c : wording(job)) {
        if (std::isspace(static_cast<unsigned char>(before)) != 0 && std::isspace(static_cast<unsigned char>(c)) == 0)
            ++count;
        before = c;
        c == '\n' ? static_cast<void>(lines.emplace_back()) : lines.back().push_back(c);
    }
    double widest = 0;
    for (const std::string& line : lines) widest = std::max(widest, on.text.width(line, 1, true));
    const double size = std::clamp(wide / std::max(widest, 0.01), 5.0, 16.0);
    for (const std::string& line : lines) {
        for (const std::string& part : on.text.lines(line, wide, size, true)) {
            if (sheet.room(size + 40)) sheet.y += size;
            sheet.text(margin_mm, sheet.y, part, size, true);
            sheet.y += size * 1.3;
        }
    }
    sheet.text(margin_mm, sheet.y, on.say("sheet.word-count", {{"words", count}, {"lines", lines.size()}}), small);
    sheet.y += 8;
    // The signs as they will be, as large as the rest of the page lets them.
    const double room_high = sheet.bottom() - 30 - sheet.y;
    const auto faces = std::count_if(plan.colours.begin(), plan.colours.end(),
                                     [](const ColourPlan& f) { return f.first && !f.face->blank->face.empty(); });
    if (room_high > 25 && faces > 0) {
        const auto across = std::min<std::ptrdiff_t>(faces, 4);
        const double each = (sheet.right() - margin_mm) / static_cast<double>(across) - 4;
        double left = margin_mm;
        int drawn = 0;
        for (const ColourPlan& colour : plan.colours) {
            if (!colour.first || colour.face->blank->face.empty() || drawn++ >= across) continue;
            const Length wide = from_grid(colour.face->blank->face.width());
            const Length high = from_grid(colour.face->blank->face.height());
            const int scale = scale_for(wide, high, each, room_high);
            const Drawn frame = frame_for(scale, left, sheet.y + high.in_mm() / scale);
            for (const auto& ring : frame.rings(colour.face->blank->outline)) sheet.line(ring, 0.3, true);
            const std::int64_t twice = colour.face->blank->face.low.x + colour.face->blank->face.high.x;
            for (const ColourPlan& lane : plan.colours) {
                if (lane.face->at.sign != colour.face->at.sign || lane.face != colour.face) continue;
                // Read from the front, however it is laid; what lies behind is paler.
                for (const Piece& piece : *lane.ink)
                    sheet.fill(frame.rings(lane.face->mirrored ? piece.shape.mirrored(twice) : piece.shape),
                               lane.last ? 0.2 : 0.75);
            }
            left += each + 4;
        }
    }
    const double at = sheet.bottom() - 16;
    sheet.line({{margin_mm, at}, {margin_mm + 90, at}}, 0.3);
    sheet.text(margin_mm, at + 5, on.say("sheet.read-and-right"), small);
    sheet.line({{margin_mm + 105, at}, {margin_mm + 150, at}}, 0.3);
    sheet.text(margin_mm + 105, at + 5, on.say("sheet.date"), small);
    return sheet.take();
}

}  // namespace

Reason turned(const Motion& move) {
    static constexpr std::array turns = {"", "turned.quarter-left", "turned.half", "turned.quarter-right"};
    static constexpr std::array over = {"turned.over-across", "turned.over-quarter-left", "turned.over-up",
                                        "turned.over-quarter-right"};
    return {(move.over ? over : turns).at(static_cast<std::size_t>(move.quarters % 4)), {}};
}

std::pair<CornerDistance, CornerDistance> corners(const Section& section, const Box& face, const Motion& move) {
    const Box film = move(section.film.bounds());
    const auto distances = [&](Point p) {
        return CornerDistance{from_grid(p.x - face.low.x), from_grid(p.y - face.low.y), from_grid(face.high.x - p.x),
                              from_grid(face.high.y - p.y)};
    };
    return {distances(film.low), distances(film.high)};
}

int scale_for(Length width, Length height, double room_width_mm, double room_height_mm) {
    static constexpr std::array scales = {1, 2, 3, 4, 5, 6, 8, 10, 12, 16, 20, 24, 32, 48, 64, 96, 144, 240, 480, 960};
    for (const int scale : scales) {
        if (width.in_mm() / scale <= room_width_mm && height.in_mm() / scale <= room_height_mm) return scale;
    }
    return scales.back();
}

std::vector<Page> sheets(const Job& job, const Plan& plan, const Shop& shop, const Library& library, Paper paper) {
    const sheet_parts::Printing on{job, plan, shop, library, paper};
    std::vector<Page> pages;
    const auto add = [&](std::vector<Page> more) { std::move(more.begin(), more.end(), std::back_inserter(pages)); };
    add(caution_sheets(on));
    for (const ColourPlan& colour : plan.colours) {
        if (colour.face->blank->face.empty()) continue;
        add(placement_sheet(on, colour));
        add(load_sheets(on, colour));
    }
    add(building_sheets(on));
    add(shopping_sheets(on));
    add(schedule_sheets(on));
    add(proof_sheets(on));
    return pages;
}

}  // namespace skarvel
