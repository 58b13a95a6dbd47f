#include "sheets/sheets.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>

#include "job/naming.h"
#include "sheets/sheet_parts.h"

namespace skarvel {
namespace {

using namespace sheet_parts;

std::string name_of(const Section& section, std::size_t i) { return fmt::format("{}  {}", i + 1, section.letters); }

// What a page is about, where a job has several signs or a sign a back.
std::string titled(const Job& job, const ColourPlan& colour, const std::string& title) {
    std::string all = title;
    if (job.signs.size() > 1) all += ", " + label_of(job.signs[colour.face->at.sign]);
    if (colour.face->at.face > 0) all += ", back";
    if (!colour.first || !colour.last) {
        const CoatChoice& paint =
            job.signs[colour.face->at.sign].faces[colour.face->at.face].colours[colour.colour].paint;
        all += ", " + (paint.colour_name.empty() ? fmt::format("colour {}", colour.colour + 1) : paint.colour_name);
    }
    return all;
}

std::vector<Page> placement_sheet(const Job& job, const ColourPlan& colour, const Shop& shop, Paper paper) {
    Sheet sheet(job, titled(job, colour, "Placement"), paper);
    const BlankPlan& blank = *colour.face->blank;
    const bool upright = blank.face.height() * 5 > blank.face.width() * 6;
    const Length wide = from_grid(blank.face.width());
    const Length high = from_grid(blank.face.height());
    const double room_width = upright ? 60 : sheet.right() - margin_mm - 8;
    const double room_height = upright ? sheet.bottom() - sheet.y - 12 : 70;
    const int scale = scale_for(wide, high, room_width, room_height);
    const double drawn_high = high.in_mm() / scale;
    const Drawn frame = frame_for(scale, margin_mm + 6, sheet.y + 6 + drawn_high);
    sheet.text(margin_mm, sheet.y, fmt::format("drawn 1:{}, every distance from the board's own edges", scale), small);

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
    const std::int64_t middle = upright ? blank.face.width() / 2 : blank.face.height() / 2;
    sheet.line(upright ? std::vector{frame.at({middle, 0}), frame.at({middle, blank.face.high.y})}
                       : std::vector{frame.at({0, middle}), frame.at({blank.face.high.x, middle})},
               0.12, false, true, 0.4);
    dimension(sheet, {frame.at({0, 0}).x, frame.bottom + 3.5}, {frame.at(blank.face.high).x, frame.bottom + 3.5},
              show(wide, shop.display));
    const double beside = frame.at(blank.face.high).x + 4;
    if (upright) {
        for (std::size_t i = 0; i < colour.cut.loads->sections.size(); ++i) {
            const Box film = colour.cut.loads->sections[i].film.bounds();
            dimension(sheet, {beside, frame.at(film.low).y}, {beside, frame.at(film.high).y}, std::to_string(i + 1));
        }
    } else {
        dimension(sheet, {beside, frame.at(blank.face.high).y}, {beside, frame.bottom}, show(high, shop.display));
    }

    if (upright) {
        const double outer = beside + 9;
        dimension(sheet, {outer, frame.at(blank.face.high).y}, {outer, frame.bottom}, show(high, shop.display));
    }

    double x = upright ? beside + 32 : margin_mm;
    if (!upright) sheet.y = frame.bottom + 12;
    const double top = sheet.y;
    const auto measure_text = [&](Length l) { return show_number(l, shop.display); };
    sheet.y = top + 8;
    sheet.text(x, sheet.y, "Laying order and distances", large, true);
    sheet.y += 6;
    sheet.text(x, sheet.y,
               fmt::format("{}; lower left corner of the film, then upper right",
                           shop.display.unit == Unit::Inch ? "inches" : "millimetres"),
               small);
    sheet.y += 6;
    std::vector<Page> pages;
    for (const Lay& lay : lays_of(colour.cut.loads->sections)) {
        if (sheet.full(40)) {
            pages.push_back(sheet.take());
            sheet = Sheet(job, titled(job, colour, "Placement, continued"), paper);
            x = margin_mm;
        }
        const Section& section = colour.cut.loads->sections[lay.section];
        const auto [low, high_corner] = corners(section, blank.face, lay.move);
        std::string name = name_of(section, lay.section);
        if (lay.time > 0) name += fmt::format(", laid again ({})", lay.time + 1);
        if (const std::string turned = turned_words(lay.move); !turned.empty()) name += ", " + turned;
        if (colour.cut.loads->passes > 1) name += fmt::format(", pass {}", lay.pass);
        sheet.text(x, sheet.y, name, body, true);
        sheet.y += 4.8;
        sheet.text(x + 4, sheet.y,
                   fmt::format("from the left {}, from the bottom {}", measure_text(low.from_left),
                               measure_text(low.from_bottom)));
        sheet.y += 4.6;
        sheet.text(x + 4, sheet.y,
                   fmt::format("from the right {}, from the top {}", measure_text(high_corner.from_right),
                               measure_text(high_corner.from_top)));
        sheet.y += 6.4;
    }
    if (colour.cut.loads->passes > 1)
        sheet.paragraph(x, "Each pass is laid, painted and lifted before the next, and dry before film goes over it.");
    if (colour.face->mirrored)
        sheet.paragraph(x, "Seen from the back, where it is laid: mirror writing, read through from the front.");
    const Length half = from_grid(middle);
    sheet.paragraph(x, fmt::format("Centre line at {} from {}.", measure_text(half),
                                   upright ? "the left edge" : "the bottom edge"));
    if (colour.cut.loads->spans_face)
        sheet.paragraph(x,
                        "Masks are as wide as the board: bring their edges to its edges. Wipe paint off the edges "
                        "before it dries.");
    sheet.paragraph(x, colour.cut.making.way == Way::PaintThrough
                           ? "Lay in this order; lift in the reverse order, across the grain."
                           : "Lay in this order; tape off at 180 degrees, slowly.");
    pages.push_back(sheet.take());
    return pages;
}

std::vector<Page> load_sheets(const Job& job, const ColourPlan& colour, const Shop& shop, Paper paper) {
    std::vector<Page> pages;
    Sheet sheet(job, titled(job, colour, "Loads"), paper);
    const double room_width = (sheet.right() - margin_mm) / 2 - 12;
    const Mat& bed = colour.cut.bed;
    // Of a roll only as much as the longest load takes.
    Length longest = bed.roll ? Length{} : bed.length;
    for (const Load& load : colour.cut.loads->loads) longest = std::max(longest, load.film_length);
    const int scale = scale_for(bed.width, longest, room_width, 100);
    sheet.text(margin_mm, sheet.y, fmt::format("drawn 1:{} on {} {}", scale, bed.roll ? "the" : "mat", bed.name),
               small);
    sheet.y += 6;
    const double drawn_high = std::min(bed.usable.along, longest).in_mm() / scale;
    int column = 0;
    for (std::size_t i = 0; i < colour.cut.loads->loads.size(); ++i) {
        const Load& load = colour.cut.loads->loads[i];
        if (column == 0 && sheet.full(drawn_high + 20)) {
            pages.push_back(sheet.take());
            sheet = Sheet(job, titled(job, colour, "Loads"), paper);
        }
        const double left = margin_mm + column * (room_width + 16);
        sheet.text(left, sheet.y + 4, fmt::format("Load {}{}", i + 1, load.cut ? ", cut" : ""), large, true);
        sheet.text(left, sheet.y + 9,
                   !load.carried_by.empty() ? std::string("cut with another colour's load")
                   : !load.from.empty()
                       ? fmt::format("from the drawer: {}", load.from)
                       : fmt::format("cut {} off the roll, {:.0f} % used{}", show(load.film_length, shop.display),
                                     load.share * 100,
                                     load.rest ? fmt::format("; keep {} x {}", show(load.rest->across, shop.display),
                                                             show(load.rest->along, shop.display))
                                               : std::string()),
                   small);
        const Drawn frame = frame_for(scale, left, sheet.y + 13 + drawn_high);
        sheet.line(frame.box({{0, 0}, at(bed.usable.across, std::min(bed.usable.along, longest))}), 0.3, true, true);
        sheet.text(left, frame.bottom + 3.4, "this end goes into the machine first", small);
        if (const auto piece = leftover_on_bed(shop.drawer, load, colour.cut.loads->sections, bed)) {
            sheet.line(frame.box(*piece), 0.5, true);
            sheet.text(left, frame.bottom + 7, "the thick line is where the leftover lies", small);
        }
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
                       fmt::format("{}, {}", g.section.letters, name_of_colour(job, g.of)), small);
        }
        if (++column == 2 || i + 1 == colour.cut.loads->loads.size()) {
            column = 0;
            sheet.y += drawn_high + 24;
        }
    }
    sheet.text(margin_mm, sheet.y, fmt::format("Keepers: {}", colour.cut.loads->keepers), body, true);
    sheet.y += 5;
    std::string keepers;
    for (const Section& section : colour.cut.loads->sections) {
        for (const Keeper& k : section.keepers) keepers += (keepers.empty() ? "" : ", ") + k.letters;
    }
    if (!keepers.empty()) sheet.paragraph(margin_mm, "leave in while weeding: " + keepers);
    pages.push_back(sheet.take());
    return pages;
}

std::vector<Page> shopping_sheets(const Job& job, const Plan& plan, const Shop& shop, const Library& library,
                                  Paper paper) {
    std::vector<Page> pages;
    Sheet sheet(job, "What to buy", paper);
    const auto say = [&](const Reason& r) { return library.catalogue.say(r, shop.display); };
    for (const ColourPlan& colour : plan.colours) {
        for (const ShoppingItem& item : colour.shopping) {
            if (sheet.full(7)) {
                pages.push_back(sheet.take());
                sheet = Sheet(job, "What to buy", paper);
            }
            sheet.line({{margin_mm, sheet.y - 3},
                        {margin_mm + 3.4, sheet.y - 3},
                        {margin_mm + 3.4, sheet.y + 0.4},
                        {margin_mm, sheet.y + 0.4}},
                       0.25, true);
            sheet.text(margin_mm + 7, sheet.y, say(item.what));
            sheet.text(sheet.right(), sheet.y, say(item.how_much), body, false, Align::Right);
            sheet.y += 7;
        }
    }
    pages.push_back(sheet.take());
    return pages;
}

std::vector<Page> schedule_sheets(const Job& job, const Plan& plan, const Shop& shop, const Library& library,
                                  Paper paper) {
    std::vector<Page> pages;
    Sheet sheet(job, "Schedule", paper);
    const auto say = [&](const Reason& r) { return library.catalogue.say(r, shop.display); };
    if (plan.clock->start_by) {
        sheet.text(margin_mm, sheet.y,
                   fmt::format("start by {}, ready {}, {} hands-on", show_moment(*plan.clock->start_by, true),
                               show_moment(plan.clock->ready, true), show_minutes(plan.clock->hands_on)));
        sheet.y += 8;
    }
    for (const Step& step : plan.bench->steps) {
        if (sheet.full(14)) {
            pages.push_back(sheet.take());
            sheet = Sheet(job, "Schedule", paper);
        }
        sheet.text(margin_mm, sheet.y, show_moment(step.start), body, true);
        sheet.text(margin_mm + 24, sheet.y, say(step.name) + (step.done ? "  (done)" : ""));
        sheet.text(sheet.right(), sheet.y, show_minutes(step.hands_on), body, false, Align::Right);
        sheet.y += 4.6;
        if (step.wait_after.count() > 0) {
            sheet.text(margin_mm + 24, sheet.y,
                       fmt::format("then {}: {}", show_minutes(step.wait_after), say(step.wait_why)), small, false,
                       Align::Left, 0.35);
            sheet.y += 4.4;
        }
        sheet.y += 1.2;
    }
    pages.push_back(sheet.take());

    Sheet care(job, "Cautions", paper);
    std::vector<std::string> said;
    for (const ColourPlan& colour : plan.colours) {
        for (const Finding& f : colour.method->findings) {
            if (f.mark == Mark::None) continue;
            if (care.full(20)) {
                pages.push_back(care.take());
                care = Sheet(job, "Cautions", paper);
            }
            care.paragraph(margin_mm, fmt::format("{}: {}; {}.", f.mark == Mark::Stop ? "Stop" : "Look", say(f.why),
                                                  say(f.remedy)));
        }
    }
    for (const Step& step : plan.bench->steps) {
        for (const Reason& caution : step.cautions) {
            const std::string words = say(caution);
            if (std::find(said.begin(), said.end(), words) != said.end()) continue;
            said.push_back(words);
            if (care.full(20)) {
                pages.push_back(care.take());
                care = Sheet(job, "Cautions", paper);
            }
            care.paragraph(margin_mm, words);
        }
    }
    care.paragraph(margin_mm, "Labels, local codes and licensed trades come before anything printed here.");
    pages.push_back(care.take());
    return pages;
}

Page proof_sheet(const Job& job, const Plan& plan, Paper paper) {
    Sheet sheet(job, "Proof", paper);
    sheet.text(margin_mm, sheet.y, "Read every word, name and date before anything is cut.");
    sheet.y += 18;
    const std::string words = wording(job);
    std::size_t from = 0;
    std::size_t longest = 1;
    for (std::size_t i = 0; i <= words.size(); ++i) {
        if (i < words.size() && words[i] != '\n') continue;
        longest = std::max(longest, letters_of(words.substr(from, i - from)).size());
        from = i + 1;
    }
    const double size = std::clamp((sheet.right() - margin_mm) / (static_cast<double>(longest) * 0.75), 5.0, 16.0);
    from = 0;
    for (std::size_t i = 0; i <= words.size() && !sheet.full(size + 40); ++i) {
        if (i < words.size() && words[i] != '\n') continue;
        sheet.text(margin_mm, sheet.y, words.substr(from, i - from), size, true);
        sheet.y += size * 1.3;
        from = i + 1;
    }
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
    sheet.text(margin_mm, at + 5, "read and right", small);
    sheet.line({{margin_mm + 105, at}, {margin_mm + 150, at}}, 0.3);
    sheet.text(margin_mm + 105, at + 5, "date", small);
    return sheet.take();
}

}  // namespace

std::string turned_words(const Motion& move) {
    static constexpr std::array turns = {"", "a quarter turn to the left", "half a turn",
                                         "a quarter turn to the right"};
    const auto quarters = static_cast<std::size_t>(move.quarters % 4);
    if (!move.over) return turns.at(quarters);
    if (quarters == 0) return "turned over, left to right";
    if (quarters == 2) return "turned over, top to bottom";
    return std::string("turned over, then ") + turns.at(quarters);
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
    static constexpr std::array scales = {1, 2, 3, 4, 5, 6, 8, 10, 12, 16, 20, 24, 32, 48};
    for (const int scale : scales) {
        if (width.in_mm() / scale <= room_width_mm && height.in_mm() / scale <= room_height_mm) return scale;
    }
    return scales.back();
}

std::vector<Page> sheets(const Job& job, const Plan& plan, const Shop& shop, const Library& library, Paper paper) {
    std::vector<Page> pages;
    for (const ColourPlan& colour : plan.colours) {
        if (colour.face->blank->face.empty()) continue;
        for (Page& page : placement_sheet(job, colour, shop, paper)) pages.push_back(std::move(page));
        for (Page& page : load_sheets(job, colour, shop, paper)) pages.push_back(std::move(page));
    }
    for (Page& page : building_sheets(job, plan, shop, library, paper)) pages.push_back(std::move(page));
    for (Page& page : shopping_sheets(job, plan, shop, library, paper)) pages.push_back(std::move(page));
    for (Page& page : schedule_sheets(job, plan, shop, library, paper)) pages.push_back(std::move(page));
    pages.push_back(proof_sheet(job, plan, paper));
    return pages;
}

}  // namespace skarvel
