#include "blank/edges.h"

#include <algorithm>
#include <cmath>

namespace skarvel {
namespace {

std::vector<Point>& of(Edges& edges, Edge edge) { return edges[static_cast<std::size_t>(edge)]; }

double long_mm(Point a, Point b) { return std::hypot(grid_to_mm(b.x - a.x), grid_to_mm(b.y - a.y)); }

Point moved(Point p, double along_x, double along_y, double by) {
    return p + Point{std::llround(along_x * by), std::llround(along_y * by)};
}

}  // namespace

Edges edges_of(const Box& box) {
    const Point right_low{box.high.x, box.low.y};
    const Point left_high{box.low.x, box.high.y};
    Edges edges;
    of(edges, Edge::Bottom) = {box.low, right_low};
    of(edges, Edge::Right) = {right_low, box.high};
    of(edges, Edge::Top) = {box.high, left_high};
    of(edges, Edge::Left) = {left_high, box.low};
    return edges;
}

Edges edges_of(const TapePlan& tape, bool level) {
    auto corner = tape.corners;
    const auto middle = [&](std::size_t a, std::size_t b, std::int64_t outwards) {
        return Point{(corner[a].x + corner[b].x) / 2 + outwards, (corner[a].y + corner[b].y) / 2};
    };
    const std::int64_t half_bow = to_grid(tape.bow / 2);
    std::vector<Point> right{corner[1], corner[2]};
    std::vector<Point> left{corner[3], corner[0]};
    // The tape measures no finer than its tolerance: what is less is no bow.
    if (tape.bows) {
        right.insert(right.begin() + 1, middle(1, 2, half_bow));
        left.insert(left.begin() + 1, middle(3, 0, -half_bow));
    }
    Edges edges;
    of(edges, level ? Edge::Left : Edge::Bottom) = {corner[0], corner[1]};
    of(edges, level ? Edge::Bottom : Edge::Right) = right;
    of(edges, level ? Edge::Right : Edge::Top) = {corner[2], corner[3]};
    of(edges, level ? Edge::Top : Edge::Left) = left;
    Point low{grid_end, grid_end};
    for (auto& edge : edges) {
        for (Point& p : edge) {
            if (level) p = {p.y, -p.x};
            low = {std::min(low.x, p.x), std::min(low.y, p.y)};
        }
    }
    for (auto& edge : edges) {
        for (Point& p : edge) p = p - low;
    }
    return edges;
}

Region within(const Edges& edges) {
    Ring ring;
    for (const Edge edge : {Edge::Bottom, Edge::Right, Edge::Top, Edge::Left}) {
        const auto& points = edges[static_cast<std::size_t>(edge)];
        ring.insert(ring.end(), points.begin(), points.end() - 1);
    }
    return Region::from_rings({ring});
}

Region strip_along(const Edges& edges, Edge edge, std::int64_t depth) {
    if (depth <= 0) return {};
    const auto& points = edges[static_cast<std::size_t>(edge)];
    std::vector<Region> strips;
    for (std::size_t i = 0; i + 1 < points.size(); ++i) {
        const Point by = points[i + 1] - points[i];
        const double length = std::hypot(static_cast<double>(by.x), static_cast<double>(by.y));
        if (length == 0) continue;
        const double x = static_cast<double>(by.x) / length;
        const double y = static_cast<double>(by.y) / length;
        // Past the corners and beyond the edge, so that nothing of the face is left over; at a waist, hardly past it.
        const auto far = static_cast<double>(depth) + length / 4;
        const Point from = moved(points[i], x, y, i == 0 ? -far : -static_cast<double>(depth));
        const Point to = moved(points[i + 1], x, y, i + 2 == points.size() ? far : static_cast<double>(depth));
        strips.push_back(Region::from_rings(
            {{moved(from, y, -x, far), moved(to, y, -x, far), moved(to, -y, x, static_cast<double>(depth)),
              moved(from, -y, x, static_cast<double>(depth))}}));
    }
    return merge(strips);
}

Length length_of(const std::vector<Point>& edge) {
    double mm = 0;
    for (std::size_t i = 0; i + 1 < edge.size(); ++i) mm += long_mm(edge[i], edge[i + 1]);
    return Length::from_mm(mm);
}

}  // namespace skarvel
