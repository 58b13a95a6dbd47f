#include "artwork/figures.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <vector>

#include "blank/shape.h"
#include "geometry/outline.h"

namespace skarvel {
namespace {

using Node = Outline::Node;

// A shape drawn in a unit square, stretched to the size; curves keep within the chord error at that size.
Region stretched(const Outline& outline, Length width, Length height) {
    const Extent e = extent_of(outline);
    Outline moved = outline;
    for (auto& c : moved.contours) {
        const auto move = [&](Node& n) { n = {n.x - e.x0, n.y - e.y0}; };
        move(c.start);
        for (auto& curve : c.curves) std::for_each(curve.begin(), curve.end(), move);
    }
    return flatten(moved, width.in_mm() / (e.x1 - e.x0), height.in_mm() / (e.y1 - e.y0));
}

Outline polygon(const std::vector<Node>& nodes) {
    Outline out;
    out.contours.push_back({nodes.front(), {}});
    for (std::size_t i = 1; i < nodes.size(); ++i) out.contours.back().curves.push_back({nodes[i]});
    return out;
}

Outline star() {
    std::vector<Node> nodes;
    for (int i = 0; i < 10; ++i) {
        // The inner points of a five-pointed star whose arms run straight on into one another.
        const double r = i % 2 == 0 ? 1 : (3 - std::sqrt(5.0)) / 2;
        const double a = std::numbers::pi * (0.5 + i / 5.0);
        nodes.push_back({r * std::cos(a), r * std::sin(a)});
    }
    return polygon(nodes);
}

Outline heart() {
    Outline out;
    out.contours.push_back({{0, -1},
                            {{{-0.4, -0.55}, {-1, -0.2}, {-1, 0.35}},
                             {{-1, 0.75}, {-0.72, 0.95}, {-0.5, 0.95}},
                             {{-0.25, 0.95}, {-0.08, 0.8}, {0, 0.6}},
                             {{0.08, 0.8}, {0.25, 0.95}, {0.5, 0.95}},
                             {{0.72, 0.95}, {1, 0.75}, {1, 0.35}},
                             {{1, -0.2}, {0.4, -0.55}, {0, -1}}}});
    return out;
}

Ring box_ring(std::int64_t x0, std::int64_t y0, std::int64_t x1, std::int64_t y1) {
    return {{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}};
}

}  // namespace

Region figure(FigureShape shape, Length width, Length height) {
    if (width <= Length{} || height <= Length{}) return {};
    const std::int64_t w = to_grid(width);
    const std::int64_t h = to_grid(height);
    if (shape == FigureShape::Rectangle) return Region::rectangle({{0, 0}, {w, h}});
    if (shape == FigureShape::Diamond) return Region::from_rings({{{w / 2, 0}, {w, h / 2}, {w / 2, h}, {0, h / 2}}});
    if (shape == FigureShape::Pennant) return Region::from_rings({{{0, 0}, {w, h / 2}, {0, h}}});
    if (shape == FigureShape::Oval) {
        std::vector<Node> nodes;
        const double larger = std::max(width.in_mm(), height.in_mm()) / 2;
        // Chords no farther off than 0.01 mm.
        const int n =
            std::max(24, static_cast<int>(std::ceil(std::numbers::pi / std::acos(1 - 0.01 / larger) / 4)) * 4);
        for (int i = 0; i < n; ++i) {
            const double a = 2 * std::numbers::pi * i / n;
            nodes.push_back({std::cos(a), std::sin(a)});
        }
        return stretched(polygon(nodes), width, height);
    }
    if (shape == FigureShape::Star) return stretched(star(), width, height);
    if (shape == FigureShape::Heart) return stretched(heart(), width, height);
    return {};
}

Region ruled_line(Length length, Length thickness, LineEnds ends) {
    const std::int64_t l = to_grid(length);
    const std::int64_t t = to_grid(thickness);
    if (l <= 0 || t <= 0) return {};
    if (ends == LineEnds::Pointed) {
        const std::int64_t point = std::min(l / 2, 6 * t);
        return Region::from_rings({{{0, t / 2}, {point, 0}, {l - point, 0}, {l, t / 2}, {l - point, t}, {point, t}}});
    }
    if (ends == LineEnds::Dots) {
        const Length r = thickness + thickness / 2;
        const std::int64_t reach = 2 * to_grid(r) + 2 * t;
        if (l <= 2 * reach) return Region::rectangle({{0, 0}, {l, t}});
        const std::vector<Region> all{Region::rectangle({{reach, 0}, {l - reach, t}}), circle({to_grid(r), t / 2}, r),
                                      circle({l - to_grid(r), t / 2}, r)};
        return merge(all);
    }
    return Region::rectangle({{0, 0}, {l, t}});
}

Region ribbon(Length length, Length height, Length tails) {
    const std::int64_t l = to_grid(length);
    const std::int64_t h = to_grid(height);
    const std::int64_t t = std::min(to_grid(tails), l / 3);
    if (l <= 0 || h <= 0) return {};
    const std::int64_t drop = h / 4;                   // tails hang lower than the band
    const std::int64_t notch = t / 3;                  // swallow-tail
    const std::int64_t gap = std::min(h / 16, t / 6);  // between band and tail, so that they read apart
    const Region band = Region::rectangle({{t * 2 / 3, drop}, {l - t * 2 / 3, drop + h}});
    const Region left = Region::from_rings({{{0, 0},
                                             {t, 0},
                                             {t, drop - gap},
                                             {t * 2 / 3 - gap, drop - gap},
                                             {t * 2 / 3 - gap, h},
                                             {0, h},
                                             {notch, h / 2}}});
    const std::vector<Region> all{band, left, left.mirrored(l)};
    return merge(all);
}

Region corner_piece(CornerStyle style, Length size, Length thickness) {
    const std::int64_t s = to_grid(size);
    const std::int64_t t = std::min(to_grid(thickness), s / 2);
    if (s <= 0 || t <= 0) return {};
    if (style == CornerStyle::Steps) {
        return Region::from_rings({box_ring(0, 0, s, t), box_ring(0, 0, t, s), box_ring(2 * t, 2 * t, s * 3 / 4, 3 * t),
                                   box_ring(2 * t, 2 * t, 3 * t, s * 3 / 4)});
    }
    if (style == CornerStyle::Fan) {
        std::vector<Region> arcs;
        const Region quarter = Region::rectangle({{0, 0}, {s, s}});
        for (std::int64_t r = s; r > 2 * t; r -= 2 * t) {
            arcs.push_back(subtract(circle({0, 0}, from_grid(r)), circle({0, 0}, from_grid(r - t))));
        }
        return arcs.empty() ? Region() : intersect(merge(arcs), quarter);
    }
    return Region::from_rings({box_ring(0, 0, s, t), box_ring(0, 0, t, s)});
}

}  // namespace skarvel
