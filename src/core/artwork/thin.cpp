#include "artwork/thin.h"

#include <algorithm>
#include <boost/polygon/polygon.hpp>
#include <boost/polygon/voronoi.hpp>
#include <cmath>
#include <map>
#include <set>

namespace skarvel {
namespace {

namespace bp = boost::polygon;
using Site = bp::point_data<int>;
using Edge2 = bp::segment_data<int>;

constexpr double simplify_grid = 160;  // 0.02 mm
constexpr double opposite = -0.8;      // cosine between the ways to both nearest points: more than 143 degrees apart

double off_line(Point p, Point a, Point b) {
    const double dx = static_cast<double>(b.x - a.x);
    const double dy = static_cast<double>(b.y - a.y);
    const double length = std::hypot(dx, dy);
    const double px = static_cast<double>(p.x - a.x);
    const double py = static_cast<double>(p.y - a.y);
    if (length == 0) return std::hypot(px, py);
    const double t = std::clamp((px * dx + py * dy) / (length * length), 0.0, 1.0);
    return std::hypot(px - t * dx, py - t * dy);
}

// Douglas and Peucker, 1973.
void keep_far(const Ring& ring, std::size_t a, std::size_t b, std::vector<bool>& keep) {
    std::vector<std::pair<std::size_t, std::size_t>> todo{{a, b}};
    while (!todo.empty()) {
        const auto [from, to] = todo.back();
        todo.pop_back();
        double most = 0;
        std::size_t at = from;
        for (std::size_t i = from + 1; i < to; ++i) {
            const double d = off_line(ring[i % ring.size()], ring[from % ring.size()], ring[to % ring.size()]);
            if (d > most) {
                most = d;
                at = i;
            }
        }
        if (most <= simplify_grid) continue;
        keep[at % ring.size()] = true;
        todo.emplace_back(from, at);
        todo.emplace_back(at, to);
    }
}

Ring simplified(const Ring& ring) {
    if (ring.size() < 8) return ring;
    std::vector<bool> keep(ring.size());
    std::size_t far = 0;
    double most = -1;
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const double d =
            std::hypot(static_cast<double>(ring[i].x - ring[0].x), static_cast<double>(ring[i].y - ring[0].y));
        if (d > most) {
            most = d;
            far = i;
        }
    }
    keep[0] = keep[far] = true;
    keep_far(ring, 0, far, keep);
    keep_far(ring, far, ring.size(), keep);
    Ring out;
    for (std::size_t i = 0; i < ring.size(); ++i) {
        if (keep[i]) out.push_back(ring[i]);
    }
    return out.size() >= 3 ? out : ring;
}

// Corners sharper than 60 degrees, pointing either way: strokes and gaps run out to nothing there, as they are drawn
// to.
std::vector<Point> sharp_corners(const std::vector<Ring>& rings) {
    std::vector<Point> sharp;
    for (const Ring& ring : rings) {
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point a = ring[(i + ring.size() - 1) % ring.size()] - ring[i];
            const Point b = ring[(i + 1) % ring.size()] - ring[i];
            const double la = std::hypot(static_cast<double>(a.x), static_cast<double>(a.y));
            const double lb = std::hypot(static_cast<double>(b.x), static_cast<double>(b.y));
            if (la == 0 || lb == 0) continue;
            const double cosine = (static_cast<double>(a.x) * static_cast<double>(b.x) +
                                   static_cast<double>(a.y) * static_cast<double>(b.y)) /
                                  (la * lb);
            if (cosine > 0.5) sharp.push_back(ring[i]);
            // The same with its tip cut off: a short edge between sides that run together.
            const Point next = ring[(i + 1) % ring.size()];
            const Point c = ring[(i + 2) % ring.size()] - next;
            const double lc = std::hypot(static_cast<double>(c.x), static_cast<double>(c.y));
            constexpr double short_edge = 24'000;  // 3 mm
            if (lb > short_edge || lc == 0) continue;
            const double sides = (static_cast<double>(a.x) * static_cast<double>(c.x) +
                                  static_cast<double>(a.y) * static_cast<double>(c.y)) /
                                 (la * lc);
            // Between 8 and 60 degrees: nearer to parallel it is the end of a thin stroke.
            if (sides > 0.5 && sides < 0.99) sharp.push_back({(ring[i].x + next.x) / 2, (ring[i].y + next.y) / 2});
        }
    }
    return sharp;
}

struct Spot {
    double x = 0, y = 0;
    double width = 0;  // grid units
    bool ink = true;
};

bool inside(const std::vector<Ring>& rings, double x, double y) {
    bool in = false;
    for (const Ring& ring : rings) {
        for (std::size_t i = 0, k = ring.size() - 1; i < ring.size(); k = i++) {
            const double ay = static_cast<double>(ring[i].y);
            const double by = static_cast<double>(ring[k].y);
            if ((ay > y) == (by > y)) continue;
            const double ax = static_cast<double>(ring[i].x);
            const double bx = static_cast<double>(ring[k].x);
            if (x < (bx - ax) * (y - ay) / (by - ay) + ax) in = !in;
        }
    }
    return in;
}

// Points of the medial axis with the width there, for one shape about its own corner.
std::vector<Spot> axis(const std::vector<Ring>& rings) {
    std::vector<Edge2> edges;
    for (const Ring& ring : rings) {
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point a = ring[i];
            const Point b = ring[(i + 1) % ring.size()];
            edges.emplace_back(Site(static_cast<int>(a.x), static_cast<int>(a.y)),
                               Site(static_cast<int>(b.x), static_cast<int>(b.y)));
        }
    }
    bp::voronoi_diagram<double> diagram;
    bp::construct_voronoi(edges.begin(), edges.end(), &diagram);
    // The nearest point of a cell's site to a point of the diagram.
    const auto nearest = [&](const bp::voronoi_diagram<double>::cell_type& cell, double x, double y) {
        const Edge2& e = edges[cell.source_index()];
        const double ax = e.low().x();
        const double ay = e.low().y();
        const double bx = e.high().x();
        const double by = e.high().y();
        if (cell.contains_point()) {
            return cell.source_category() == bp::SOURCE_CATEGORY_SEGMENT_START_POINT ? std::pair(ax, ay)
                                                                                     : std::pair(bx, by);
        }
        const double dx = bx - ax;
        const double dy = by - ay;
        const double t = std::clamp(((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy), 0.0, 1.0);
        return std::pair(ax + t * dx, ay + t * dy);
    };
    const std::vector<Point> sharp = sharp_corners(rings);
    const auto runs_out = [&](double x, double y, double width) {
        constexpr double slender = 5;  // times as long as wide: no more than what the corner itself explains
        return std::any_of(sharp.begin(), sharp.end(), [&](Point c) {
            return std::hypot(static_cast<double>(c.x) - x, static_cast<double>(c.y) - y) < slender * width;
        });
    };
    std::vector<Spot> spots;
    for (const auto& edge : diagram.edges()) {
        if (!edge.is_primary() || !edge.is_finite() || &edge > edge.twin()) continue;
        const auto& a = *edge.vertex0();
        const auto& b = *edge.vertex1();
        for (const double t : {0.0, 0.5, 1.0}) {
            const double x = a.x() + (b.x() - a.x()) * t;
            const double y = a.y() + (b.y() - a.y()) * t;
            const auto [px, py] = nearest(*edge.cell(), x, y);
            const auto [qx, qy] = nearest(*edge.twin()->cell(), x, y);
            const double p = std::hypot(px - x, py - y);
            const double q = std::hypot(qx - x, qy - y);
            if (p < 1 || q < 1) continue;
            const double cosine = ((px - x) * (qx - x) + (py - y) * (qy - y)) / (p * q);
            if (cosine > opposite || runs_out(x, y, p + q)) continue;
            spots.push_back({x, y, p + q, inside(rings, x, y)});
        }
    }
    return spots;
}

// Spots under the limit, near ones taken together, each as its thinnest.
std::vector<Spot> thin_spots(const std::vector<Spot>& all, bool ink, double limit) {
    std::vector<Spot> thin;
    for (const Spot& s : all) {
        if (s.ink == ink && s.width < limit) thin.push_back(s);
    }
    std::sort(thin.begin(), thin.end(),
              [](const Spot& a, const Spot& b) { return std::tie(a.width, a.y, a.x) < std::tie(b.width, b.y, b.x); });
    std::vector<Spot> apart;
    for (const Spot& s : thin) {
        const bool known = std::any_of(apart.begin(), apart.end(),
                                       [&](const Spot& k) { return std::hypot(k.x - s.x, k.y - s.y) < 4 * limit; });
        if (!known) apart.push_back(s);
    }
    return apart;
}

struct Measured {
    std::vector<Spot> spots;
};

std::vector<Ring> own_frame(const Region& shape, Point low) {
    std::vector<Ring> rings;
    for (const Ring& ring : shape.rings()) {
        Ring moved;
        for (const Point p : ring) moved.push_back(p - low);
        rings.push_back(simplified(moved));
    }
    return rings;
}

Length cure_for(Length width, Length limit) {
    const Length half = (limit - width) / 2;
    const std::int64_t step = Length::sixtyfourths(1).nm();
    return Length::sixtyfourths((half.nm() + step - 1) / step);
}

// Shortest way between two outlines, and its middle.
std::pair<double, Point> between(const Region& a, const Region& b, const Box& near_a, const Box& near_b) {
    double best = 1e18;
    Point at;
    const auto look = [&](const Region& of, const Region& to, const Box& near_of, const Box& near_to) {
        for (const Ring& ring : of.rings()) {
            for (const Point p : ring) {
                if (!Box{p, p}.meets(near_to)) continue;
                for (const Ring& other : to.rings()) {
                    for (std::size_t i = 0; i < other.size(); ++i) {
                        const Point u = other[i];
                        const Point v = other[(i + 1) % other.size()];
                        const Box box{{std::min(u.x, v.x), std::min(u.y, v.y)},
                                      {std::max(u.x, v.x), std::max(u.y, v.y)}};
                        if (!box.meets(near_of)) continue;
                        const double d = off_line(p, u, v);
                        if (d >= best) continue;
                        best = d;
                        at = {(p.x + std::clamp(p.x, box.low.x, box.high.x)) / 2,
                              (p.y + std::clamp(p.y, box.low.y, box.high.y)) / 2};
                    }
                }
            }
        }
    };
    look(a, b, near_a, near_b);
    look(b, a, near_b, near_a);
    return {best, at};
}

}  // namespace

Length thinnest(const Region& shape) {
    if (shape.empty()) return {};
    double least = 0;
    for (const Spot& s : axis(own_frame(shape, shape.bounds().low))) {
        if (s.ink) least = least == 0 ? s.width : std::min(least, s.width);
    }
    return from_grid(std::llround(least));
}

ThinPlan thin_places(const std::vector<Piece>& pieces, const CutLimits& limits) {
    ThinPlan plan;
    std::map<std::vector<Ring>, Measured> known;
    const double stroke = static_cast<double>(to_grid(limits.stroke));
    const double gap = static_cast<double>(to_grid(limits.gap));
    double thinnest_stroke = 0;
    std::vector<Box> boxes;
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        const Box box = pieces[i].shape.bounds();
        boxes.push_back(box);
        const std::vector<Ring> rings = own_frame(pieces[i].shape, box.low);
        auto [at, fresh] = known.try_emplace(rings);
        if (fresh) at->second.spots = axis(rings);
        const auto add = [&](Thin what, const Spot& s, Length limit) {
            const Length width = from_grid(std::llround(s.width));
            plan.places.push_back({what, i, pieces[i].letters, Point{std::llround(s.x), std::llround(s.y)} + box.low,
                                   width, cure_for(width, limit)});
        };
        for (const Spot& s : at->second.spots) {
            if (s.ink) thinnest_stroke = thinnest_stroke == 0 ? s.width : std::min(thinnest_stroke, s.width);
        }
        for (const Spot& s : thin_spots(at->second.spots, true, stroke)) {
            add(Thin::Stroke, s, limits.stroke);
            ++plan.strokes;
            plan.bolder = std::max(plan.bolder, plan.places.back().cure);
        }
        for (const Spot& s : thin_spots(at->second.spots, false, gap)) {
            add(Thin::Gap, s, limits.gap);
            ++plan.gaps;
        }
        for (const Region& hole : holes(pieces[i].shape)) {
            // The largest circle in it: shrunk by half the limit nothing is left of a keeper that is too small.
            if (!grow(hole, Length{} - limits.keeper / 2).empty()) continue;
            const Box b = hole.bounds();
            Length low;
            Length high = limits.keeper;
            for (int n = 0; n < 12; ++n) {
                const Length middle = (low + high) / 2;
                (grow(hole, Length{} - middle / 2).empty() ? high : low) = middle;
            }
            plan.places.push_back({Thin::Keeper,
                                   i,
                                   pieces[i].letters,
                                   {(b.low.x + b.high.x) / 2, (b.low.y + b.high.y) / 2},
                                   low,
                                   cure_for(low, limits.keeper)});
            ++plan.keepers;
        }
    }
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        const Box near = grown(boxes[i], limits.gap);
        for (std::size_t k = i + 1; k < pieces.size(); ++k) {
            if (!near.meets(boxes[k])) continue;
            const auto [d, at] = between(pieces[i].shape, pieces[k].shape, near, grown(boxes[k], limits.gap));
            if (d >= gap) continue;
            const Length width = from_grid(std::llround(d));
            plan.places.push_back(
                {Thin::Gap, i, pieces[i].letters + " " + pieces[k].letters, at, width, cure_for(width, limits.gap)});
            ++plan.gaps;
        }
    }
    plan.thinnest_stroke = from_grid(std::llround(thinnest_stroke));
    return plan;
}

}  // namespace skarvel
