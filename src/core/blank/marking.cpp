#include "blank/marking.h"

#include <cmath>

namespace skarvel {
namespace {

Length far(Point p, bool across) { return from_grid(across ? p.x : p.y); }

void pin(Marking& m, const char* what, Point at, Length string, Point to) {
    m.pins.push_back({{what, {}}, at, string, to});
    m.steps.push_back({"marking.set-pin",
                       {{"pin", std::vector<Reason>{{what, {}}}},
                        {"left", far(at, true)},
                        {"up", far(at, false)},
                        {"string", string}}});
}

void arch(Marking& m, const Blank& blank, const BlankPlan& plan) {
    const Box box = plan.face;
    const Length span = plan.width;
    const Length rise = blank.arch.style == ArchStyle::HalfRound ? span / 2 : blank.arch.rise.value;
    const std::int64_t spring = box.high.y - to_grid(rise);
    const std::int64_t middle = (box.low.x + box.high.x) / 2;
    m.lines.push_back({{"marking.springing", {}}, {box.low.x, spring}, {box.high.x, spring}});
    m.steps.push_back({"marking.draw-springing", {{"up", from_grid(spring)}}});
    if (blank.arch.style == ArchStyle::Pointed) {
        const Length off = pointed_pin(span, rise);
        const Length string = off + span / 2;
        // Each draws its own side of the arch, from the springing line to the point: half of that angle up.
        const double half = std::atan2(rise.in_mm(), off.in_mm()) / 2;
        const Point way{std::llround(std::cos(half) * static_cast<double>(to_grid(string))),
                        std::llround(std::sin(half) * static_cast<double>(to_grid(string)))};
        const Point left{middle - to_grid(off), spring};
        const Point right{middle + to_grid(off), spring};
        pin(m, "marking.pin-right-arc", left, string, left + way);
        pin(m, "marking.pin-left-arc", right, string, right + Point{-way.x, way.y});
    } else {
        const Length string = blank.arch.style == ArchStyle::HalfRound ? span / 2 : arc_radius(span, rise);
        pin(m, "marking.pin", {middle, box.high.y - to_grid(string)}, string, {middle, box.high.y});
    }
    m.steps.push_back({"marking.swing-arc", {}});
}

}  // namespace

Marking marking_out(const Blank& blank, const BlankPlan& plan) {
    Marking m;
    if (plan.face.empty()) return m;
    const Point middle{(plan.face.low.x + plan.face.high.x) / 2, (plan.face.low.y + plan.face.high.y) / 2};
    if (blank.kind == Kind::Arch) arch(m, blank, plan);
    if (blank.kind == Kind::Round) {
        pin(m, "marking.pin", middle, plan.length / 2, {middle.x, plan.face.high.y});
        m.steps.push_back({"marking.swing-round", {}});
    }
    const bool framed = blank.frame.kind != FrameKind::None;
    bool handles = false;
    for (const ClearZone& zone : blank.clear) handles = handles || zone.reason == ZoneReason::Handle;
    if (framed || handles || blank.kind == Kind::Round || blank.kind == Kind::Arch) {
        m.lines.push_back({{"marking.centre-up", {}}, {middle.x, plan.face.low.y}, {middle.x, plan.face.high.y}});
        if (blank.kind != Kind::Arch)
            m.lines.push_back(
                {{"marking.centre-across", {}}, {plan.face.low.x, middle.y}, {plan.face.high.x, middle.y}});
        m.steps.push_back({"marking.centre-marks", {{"left", from_grid(middle.x)}, {"up", from_grid(middle.y)}}});
    }
    for (std::size_t i = 0; i < blank.clear.size() && i < plan.zones.size(); ++i) {
        if (blank.clear[i].reason != ZoneReason::Handle && blank.clear[i].reason != ZoneReason::Hole) continue;
        for (const Region& part : islands(plan.zones[i])) {
            const Box b = part.bounds();
            m.steps.push_back({"marking.mark-zone",
                               {{"name", blank.clear[i].name},
                                {"left", from_grid((b.low.x + b.high.x) / 2)},
                                {"up", from_grid((b.low.y + b.high.y) / 2)}}});
        }
    }
    return m;
}

}  // namespace skarvel
