#include "blank/building.h"

#include <algorithm>
#include <cmath>

#include "geometry/stroke.h"

namespace skarvel {
namespace {

const std::vector<Point>& edge_of(const Edges& edges, Edge edge) { return edges[static_cast<std::size_t>(edge)]; }

// Grown with sharp corners, as wood is.
Region squared_out(const Region& shape, Length by) {
    if (by <= Length{}) return by < Length{} ? grow(shape, by) : shape;
    std::vector<Ring> rings = shape.rings();
    const std::vector<bool> closed(rings.size(), true);
    return merge(shape, stroked(rings, closed, {.width = by * 2, .corners = Stroke::Corners::Sharp}));
}

Region middle_of(const Box& face, const Backing& backing, bool upright) {
    const Point size =
        upright ? at(backing.width.value, backing.length.value) : at(backing.length.value, backing.width.value);
    const Point twice = face.low + face.high;
    const Point low{(twice.x - size.x) / 2, (twice.y - size.y) / 2};
    return Region::rectangle({low, low + size});
}

std::optional<Sides> sides_of(const ToBuild& what) {
    if (!what.edges || !what.out_of_true) return std::nullopt;
    return Sides{length_of(edge_of(*what.edges, Edge::Bottom)), length_of(edge_of(*what.edges, Edge::Right)),
                 length_of(edge_of(*what.edges, Edge::Top)), length_of(edge_of(*what.edges, Edge::Left))};
}

// Corner to corner in a mitre; where a side meets the pieces that run through in all others.
std::vector<std::pair<Point, Point>> joints_of(const Frame& frame, const Box& outside) {
    std::vector<std::pair<Point, Point>> joints;
    if (frame.kind == FrameKind::Battens || frame.kind == FrameKind::None) return joints;
    const std::int64_t seen = to_grid(frame.seen.value);
    for (const bool right : {false, true}) {
        for (const bool top : {false, true}) {
            const Point corner{right ? outside.high.x : outside.low.x, top ? outside.high.y : outside.low.y};
            const Point inner{corner.x + (right ? -seen : seen), corner.y + (top ? -seen : seen)};
            joints.emplace_back(frame.kind == FrameKind::Mitred ? corner : Point{corner.x, inner.y}, inner);
        }
    }
    return joints;
}

double volume(const FramePlan& plan, const Frame& frame, Length depth, Length panel) {
    double cm3 = 0;
    for (const Cut& cut : plan.cuts) {
        if (!cut.what.id.starts_with("frame.")) continue;
        // At 45 degrees the inner edge is shorter by the width at both ends.
        const Length mean = cut.angle == 45 ? cut.length - frame.seen.value : cut.length;
        double each = frame.seen.value.in_mm() * depth.in_mm();
        if (frame.kind == FrameKind::Mitred) each -= frame.rebate.value.in_mm() * std::min(panel, depth).in_mm();
        cm3 += cut.count * std::max(0.0, mean.in_mm() * each) * 1e-3;
    }
    return cm3;
}

}  // namespace

bool goes_round(FrameKind kind) {
    return kind == FrameKind::Butt || kind == FrameKind::Mitred || kind == FrameKind::Edging;
}

Length depth_of(const Frame& frame, const std::vector<StockSize>& sizes) {
    if (frame.depth) return frame.depth->value;
    const StockSize* stock = find_stock(sizes, frame.stock);
    if (stock == nullptr) return frame.seen.value;
    return frame.seen.value <= stock->thickness ? stock->width : stock->thickness;
}

Length round_edge(const Region& shape) {
    double mm = 0;
    for (const Ring& ring : shape.rings()) {
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point by = ring[(i + 1) % ring.size()] - ring[i];
            mm += std::hypot(grid_to_mm(by.x), grid_to_mm(by.y));
        }
    }
    return Length::from_mm(mm);
}

Built build_up_blank(const ToBuild& what, FramePlan& plan, const std::vector<StockSize>& sizes) {
    Built built;
    const Box face = what.outline.bounds();
    Region held = what.outline;
    if (what.backing) {
        built.backing.where = middle_of(face, *what.backing, what.upright);
        built.backing.material = what.backing->material;
        built.backing.cm3 = built.backing.where.area_mm2() * what.backing->thickness.value.in_mm() * 1e-3;
        if (plan.on_backing) held = built.backing.where;
    }
    const Frame& frame = what.frame;
    if (what.edges || plan.on_backing) {
        cut_frame(plan, frame, plan.on_backing ? std::nullopt : sides_of(what));
    } else {
        // A strip follows the outer edge alone.
        std::vector<Region> filled = holes(held);
        filled.push_back(held);
        held = merge(filled);
        plan = edge_up(frame, from_grid(face.width()), from_grid(face.height()), round_edge(held));
    }
    built.frame.material = "pine";
    built.frame.cm3 = volume(plan, frame, depth_of(frame, sizes), what.thickness);
    const bool followed = what.edges || plan.on_backing || frame.kind == FrameKind::Edging;
    if (frame.kind != FrameKind::None && followed) {
        const bool round = goes_round(frame.kind);
        const Length play = frame.kind == FrameKind::Mitred ? frame.clearance.value / 2 : Length{};
        const Length lap = frame.kind == FrameKind::Mitred ? frame.rebate.value : Length{};
        const Region outside = round ? squared_out(held, frame.seen.value - lap + play) : held;
        built.frame.where = subtract(outside, squared_out(outside, -frame.seen.value));
        if (frame.kind == FrameKind::Battens && what.edges) {
            const std::int64_t wide = to_grid(frame.seen.value);
            built.frame.where = intersect(
                merge(strip_along(*what.edges, Edge::Top, wide), strip_along(*what.edges, Edge::Bottom, wide)), held);
        }
        if (what.edges || plan.on_backing) built.joints = joints_of(frame, outside.bounds());
    }
    built.whole = around(face, around(built.backing.where.bounds(), built.frame.where.bounds()));
    return built;
}

}  // namespace skarvel
