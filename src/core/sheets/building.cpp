#include <fmt/format.h>

#include <cmath>

#include "sheets/sheet_parts.h"

namespace skarvel {
namespace {

using namespace sheet_parts;

bool worth_a_page(const Blank& blank, const ColourPlan& colour) {
    return !colour.face->marking.empty() || blank.frame.kind != FrameKind::None || blank.kind != Kind::Board ||
           blank.holding != Holding{} || colour.face->blank->tape || blank.backing || !blank.fields.empty();
}

void cross(Sheet& sheet, PagePoint at, double size) {
    sheet.line({{at.x - size, at.y}, {at.x + size, at.y}}, 0.25);
    sheet.line({{at.x, at.y - size}, {at.x, at.y + size}}, 0.25);
}

std::vector<Page> marking_sheet(const Printing& on, const ColourPlan& colour) {
    const Shop& shop = on.shop;
    const Sign& sign = on.job.signs[colour.face->at.sign];
    std::string title = on.say("sheet.marking-out");
    if (on.job.signs.size() > 1) title += ", " + label_of(sign);
    Sheet sheet(on, title);
    const BlankPlan& b = *colour.face->blank;
    const Length wide = from_grid(b.face.width());
    const Length high = from_grid(b.face.height());
    const double room_high = 105;
    const int scale = scale_for(wide, high, sheet.right() - margin_mm - 24, room_high);
    const Drawn drawn = frame_for(scale, margin_mm + 6, sheet.y + 8 + high.in_mm() / scale);
    sheet.text(margin_mm, sheet.y, on.say("sheet.drawn-distances", {{"scale", scale}}), small);
    for (const FieldPlan& field : b.fields) sheet.fill(drawn.rings(field.region), 0.9);
    for (const auto& ring : drawn.rings(b.outline)) sheet.line(ring, 0.4, true);
    for (const Region& zone : b.zones) {
        for (const auto& ring : drawn.rings(intersect(zone, b.outline))) sheet.line(ring, 0.15, true, true);
    }
    for (const FieldPlan& field : b.fields) {
        for (const auto& [from, to] : field.tape) sheet.line({drawn.at(from), drawn.at(to)}, 0.5);
    }
    for (const MarkLine& line : colour.face->marking.lines)
        sheet.line({drawn.at(line.from), drawn.at(line.to)}, 0.2, false, true);
    for (const Pin& pin : colour.face->marking.pins) {
        cross(sheet, drawn.at(pin.at), 2);
        sheet.line({drawn.at(pin.at), drawn.at(pin.to)}, 0.15, false, true);
    }
    for (const HangPoint& point : b.weight.points) cross(sheet, drawn.at(point.at), 1.4);
    dimension(sheet, {drawn.at(b.face.low).x, drawn.bottom + 4}, {drawn.at(b.face.high).x, drawn.bottom + 4},
              show(wide, shop.display));
    const double beside = drawn.at(b.face.high).x + 5;
    dimension(sheet, {beside, drawn.at(b.face.high).y}, {beside, drawn.bottom}, show(high, shop.display));
    sheet.y = drawn.bottom + 14;
    const auto part = [&](const char* heading) {
        sheet.room(16);
        sheet.y += 2;
        sheet.text(margin_mm, sheet.y, on.say(heading), large, true);
        sheet.y += 6;
    };
    if (!colour.face->marking.steps.empty()) {
        part("sheet.in-this-order");
        for (const Reason& step : colour.face->marking.steps) sheet.paragraph(margin_mm, on.say(step));
    }
    if (b.tape) {
        part("sheet.tape-tells");
        for (const Reason& words : b.tape->words) sheet.paragraph(margin_mm, on.say(words));
    }
    for (const FieldPlan& field : b.fields) {
        for (const auto& [from, to] : field.tape) {
            sheet.paragraph(margin_mm, on.say("sheet.tape-from", {{"left", from_grid(from.x)},
                                                                  {"right", from_grid(to.x)},
                                                                  {"low", from_grid(from.y)},
                                                                  {"high", from_grid(to.y)}}));
        }
    }
    for (const Reason& order : b.order) sheet.paragraph(margin_mm, on.say(order));
    part("sheet.how-it-holds");
    sheet.paragraph(margin_mm, on.say(b.weight.hardware ? "sheet.weighs-with" : "sheet.weighs",
                                      {{"weight", show_weight(b.weight.total(), shop.display)},
                                       {"hardware", b.weight.hardware.value_or(Reason{})}}));
    for (const HangPoint& point : b.weight.points) {
        sheet.paragraph(margin_mm, on.say("sheet.hang-point", {{"what", point.what},
                                                               {"left", from_grid(point.at.x)},
                                                               {"bottom", from_grid(point.at.y)}}));
    }
    if (b.weight.tipping) {
        const Tipping& t = *b.weight.tipping;
        sheet.paragraph(margin_mm,
                        on.say(t.needed_grams > sign.blank.holding.ballast_grams ? "sheet.tips-wants" : "sheet.tips",
                               {{"degrees", std::lround(t.angle_degrees)},
                                {"push", show_force(t.push_newton, shop.display)},
                                {"weight", show_weight(t.needed_grams, shop.display)}}));
    }
    for (const Reason& caution : b.weight.cautions) sheet.paragraph(margin_mm, on.say(caution));
    return sheet.take();
}

void saw_part(Sheet& sheet, const SawPlan& saw, const Printing& on) {
    const Shop& shop = on.shop;
    sheet.text(margin_mm, sheet.y,
               on.say(saw.cutting.proved ? "sheet.sawn-proved" : "sheet.sawn",
                      {{"boards", saw.cutting.used}, {"stock", shown_name(saw.stock)}}),
               large, true);
    sheet.y += 7;
    for (std::size_t i = 0; i < saw.cuts.size(); ++i) {
        const Cut& cut = saw.cuts[i];
        sheet.room(5);
        sheet.text(
            margin_mm + 4, sheet.y,
            fmt::format("{} x {}{}{}", cut.count, saw.of[i].empty() ? "" : saw.of[i] + ": ", on.say(cut.what),
                        cut.angle == 90 ? std::string() : ", " + on.say("sheet.ends-at", {{"degrees", cut.angle}})));
        sheet.text(sheet.right(), sheet.y, show(cut.length, shop.display), body, true, Align::Right);
        sheet.y += 5;
    }
    sheet.y += 4;
    Length longest;
    for (const SawnBoard& board : saw.cutting.boards) longest = std::max(longest, board.from);
    const double per_mm = (sheet.right() - margin_mm) / std::max(1.0, longest.in_mm());
    for (const SawnBoard& board : saw.cutting.boards) {
        sheet.room(20);
        double x = margin_mm;
        constexpr double thick = 8;
        for (const std::size_t i : board.pieces) {
            const double wide = saw.cuts[i].length.in_mm() * per_mm;
            sheet.fill({{{x, sheet.y}, {x + wide, sheet.y}, {x + wide, sheet.y + thick}, {x, sheet.y + thick}}}, 0.9);
            sheet.line({{x, sheet.y}, {x + wide, sheet.y}, {x + wide, sheet.y + thick}, {x, sheet.y + thick}}, 0.25,
                       true);
            sheet.text(x + wide / 2, sheet.y + 5.2, show_number(saw.cuts[i].length, shop.display), body, false,
                       Align::Centre);
            x += wide + shop.kerf.in_mm() * per_mm;
        }
        const double end = margin_mm + board.from.in_mm() * per_mm;
        sheet.line({{margin_mm, sheet.y}, {end, sheet.y}, {end, sheet.y + thick}, {margin_mm, sheet.y + thick}}, 0.25,
                   true);
        sheet.text(margin_mm, sheet.y + thick + 4,
                   on.say("sheet.board-over", {{"boards", board.boards},
                                               {"from", board.from},
                                               {"over", on.length(board.offcut)},
                                               {"kerf", shop.kerf}}),
                   small);
        sheet.y += thick + 10;
    }
    sheet.y += 4;
}

void sheet_goods_part(Sheet& sheet, const std::vector<SheetGood>& goods, const Printing& on) {
    if (goods.empty()) return;
    sheet.room(14);
    sheet.text(margin_mm, sheet.y, on.say("sheet.from-sheets"), large, true);
    sheet.y += 7;
    for (const SheetGood& g : goods) {
        sheet.room(5);
        sheet.text(margin_mm + 4, sheet.y,
                   fmt::format("{}{}, {}", g.of.empty() ? "" : g.of + ": ", on.say(g.cut.what), g.material));
        sheet.text(sheet.right(), sheet.y,
                   show_number(g.cut.length, on.shop.display) + " × " + show(*g.cut.width, on.shop.display), body, true,
                   Align::Right);
        sheet.y += 5;
    }
    sheet.y += 4;
}

}  // namespace

std::vector<Page> building_sheets(const Printing& on) {
    const Job& job = on.job;
    const Plan& plan = on.plan;
    std::vector<Page> pages;
    const auto add = [&](std::vector<Page> more) { std::move(more.begin(), more.end(), std::back_inserter(pages)); };
    for (const ColourPlan& colour : plan.colours) {
        if (colour.face->at.face == 0 && colour.first && !colour.face->blank->face.empty() &&
            worth_a_page(job.signs[colour.face->at.sign].blank, colour))
            add(marking_sheet(on, colour));
    }
    const bool frames =
        !plan.sheet_goods.empty() || std::any_of(plan.saw.begin(), plan.saw.end(), [](const SawPlan& s) {
            return std::any_of(s.cuts.begin(), s.cuts.end(),
                               [](const Cut& c) { return c.what.id.starts_with("frame."); });
        });
    if (!frames && !plan.post) return pages;
    Sheet sheet(on, on.say("sheet.cut-list"));
    if (frames) {
        for (const SawPlan& saw : plan.saw) {
            sheet.room(60);
            saw_part(sheet, saw, on);
        }
        sheet_goods_part(sheet, plan.sheet_goods, on);
    }
    if (plan.post) {
        sheet.room(20);
        sheet.text(margin_mm, sheet.y, on.say("sheet.post", {{"length", plan.post->sawn}}), large, true);
        sheet.y += 7;
        for (const Reason& step : plan.post->steps) sheet.paragraph(margin_mm, on.say(step));
    }
    add(sheet.take());
    return pages;
}

}  // namespace skarvel
