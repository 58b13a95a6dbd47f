#include "geometry/region.h"

#include <algorithm>
#include <boost/geometry.hpp>
#include <boost/geometry/geometries/box.hpp>
#include <boost/geometry/geometries/point.hpp>
#include <boost/geometry/geometries/segment.hpp>
#include <boost/geometry/index/rtree.hpp>
#include <cmath>
#include <iterator>
#include <limits>
#include <numbers>
#include <numeric>
#include <polyclipping/clipper.hpp>

#include "values/stop.h"

namespace skarvel {

// The boolean library's own types stay in this file.
struct RegionAccess {
    // While shapes are worked on they may reach farther, by a margin or another sign beside.
    static constexpr std::int64_t most_units = 16 * grid_end;
    static Region make(std::vector<Ring> rings) {
        Region region;
        if (rings.empty()) return region;
        Box box{rings.front().front(), rings.front().front()};
        for (const Ring& ring : rings) {
            for (const Point& p : ring) {
                box.low = {std::min(box.low.x, p.x), std::min(box.low.y, p.y)};
                box.high = {std::max(box.high.x, p.x), std::max(box.high.y, p.y)};
            }
        }
        if (std::max({-box.low.x, -box.low.y, box.high.x, box.high.y}) > most_units) throw OffGrid();
        region.held_ = std::make_shared<const Region::Held>(Region::Held{std::move(rings), box});
        return region;
    }
};

namespace {

namespace cl = ClipperLib;

constexpr double arc_tolerance_units = 80;  // 0.01 mm

void within_grid(const Ring& ring) {
    for (const Point& p : ring) {
        if (std::max({p.x, p.y, -p.x, -p.y}) > RegionAccess::most_units) throw OffGrid();
    }
}

cl::Paths to_paths(const std::vector<Ring>& rings) {
    cl::Paths paths;
    paths.reserve(rings.size());
    for (const Ring& ring : rings) {
        cl::Path& path = paths.emplace_back();
        path.reserve(ring.size());
        for (const Point& p : ring) path.emplace_back(p.x, p.y);
    }
    return paths;
}

cl::Paths to_paths(const Region& region) { return to_paths(region.rings()); }

// A ring starts at its lowest point, so that equal shapes are equal values.
Ring to_ring(const cl::Path& path) {
    Ring ring;
    ring.reserve(path.size());
    for (const auto& p : path) ring.push_back({p.X, p.Y});
    std::rotate(ring.begin(), std::min_element(ring.begin(), ring.end()), ring.end());
    return ring;
}

Region to_region(const cl::Paths& paths) {
    std::vector<Ring> rings;
    rings.reserve(paths.size());
    for (const cl::Path& path : paths) {
        if (path.size() >= 3) rings.push_back(to_ring(path));
    }
    std::sort(rings.begin(), rings.end());
    return RegionAccess::make(std::move(rings));
}

// Whether a ring comes back to one of its own points, at a point or along an edge: a sweep upwards over its edges.
bool meets_itself(const cl::Path& path) {
    struct Edge {
        cl::IntPoint low, high;
    };
    std::vector<Edge> edges;
    edges.reserve(path.size());
    std::vector<cl::IntPoint> points(path);
    const auto below = [](const cl::IntPoint& a, const cl::IntPoint& b) {
        return std::tie(a.Y, a.X) < std::tie(b.Y, b.X);
    };
    for (std::size_t i = 0; i < path.size(); ++i) {
        const auto& a = path[i];
        const auto& b = path[(i + 1) % path.size()];
        edges.push_back(below(a, b) ? Edge{a, b} : Edge{b, a});
    }
    std::sort(points.begin(), points.end(), below);
    if (std::adjacent_find(points.begin(), points.end()) != points.end()) return true;
    std::sort(edges.begin(), edges.end(), [&](const Edge& a, const Edge& b) { return below(a.low, b.low); });
    std::vector<Edge> open;
    auto next = edges.begin();
    for (const auto& p : points) {
        std::erase_if(open, [&](const Edge& e) { return !below(p, e.high); });
        const bool on_edge = std::any_of(open.begin(), open.end(), [&](const Edge& e) {
            return (e.high.X - e.low.X) * (p.Y - e.low.Y) == (p.X - e.low.X) * (e.high.Y - e.low.Y);
        });
        if (on_edge) return true;
        for (; next != edges.end() && next->low == p; ++next) open.push_back(*next);
    }
    return false;
}

// The library parts rings that meet themselves only when asked, and then compares every point with every other: asked
// only where a ring does.
template <class Out, class Rings>
void execute(cl::Clipper& clipper, cl::ClipType type, cl::PolyFillType fill, Out& out, const Rings& rings_of) {
    clipper.Execute(type, out, fill, fill);
    const cl::Paths rings = rings_of(out);
    if (std::none_of(rings.begin(), rings.end(), meets_itself)) return;
    clipper.StrictlySimple(true);
    clipper.Execute(type, out, fill, fill);
}

Region run(cl::ClipType type, const cl::Paths& subject, const cl::Paths& clip, cl::PolyFillType fill) {
    look_for_stop();
    cl::Clipper clipper;
    clipper.AddPaths(subject, cl::ptSubject, true);
    if (!clip.empty()) clipper.AddPaths(clip, cl::ptClip, true);
    cl::Paths out;
    execute(clipper, type, fill, out, [](const cl::Paths& paths) { return paths; });
    return to_region(out);
}

// Rings as they are inside of `box`: what runs on beyond one of its sides takes a short cut there. A run of corners
// that all lie beyond one side may be drawn together without touching the box, so nothing in it changes, to the last
// grid unit; but what the boolean library has to look at becomes small.
cl::Paths near_box(const Region& region, const Box& box) {
    const auto beyond = [&](int side, const Point& p) {
        switch (side) {
            case 0:
                return p.x < box.low.x;
            case 1:
                return p.x > box.high.x;
            case 2:
                return p.y < box.low.y;
            default:
                return p.y > box.high.y;
        }
    };
    cl::Paths paths;
    Ring kept;
    for (const Ring& ring : region.rings()) {
        const Ring* now = &ring;
        Ring before;
        for (int side = 0; side < 4 && now->size() > 2; ++side) {
            const std::size_t n = now->size();
            kept.clear();
            for (std::size_t i = 0; i < n; ++i) {
                const bool amid = beyond(side, (*now)[i]) && beyond(side, (*now)[(i + n - 1) % n]) &&
                                  beyond(side, (*now)[(i + 1) % n]);
                if (!amid) kept.push_back((*now)[i]);
            }
            std::swap(before, kept);
            now = &before;
        }
        if (now->size() < 3) continue;
        cl::Path& path = paths.emplace_back();
        path.reserve(now->size());
        for (const Point& p : *now) path.emplace_back(p.x, p.y);
    }
    return paths;
}

// Inside, by the even-odd rule, which a valid region meets.
bool holds(const Region& shape, const Point& point) {
    bool inside = false;
    for (const Ring& ring : shape.rings()) {
        for (std::size_t i = 0, k = ring.size() - 1; i < ring.size(); k = i++) {
            const Point& a = ring[k];
            const Point& b = ring[i];
            if ((a.y > point.y) == (b.y > point.y)) continue;
            const double side = static_cast<double>(b.x - a.x) * static_cast<double>(point.y - a.y) -
                                static_cast<double>(point.x - a.x) * static_cast<double>(b.y - a.y);
            if (side == 0) return true;
            if ((side > 0) == (b.y > a.y)) inside = !inside;
        }
    }
    return inside;
}

bool is_rectangle(const Region& shape) {
    return shape.rings().size() == 1 && shape == Region::rectangle(shape.bounds());
}

void collect_islands(const cl::PolyNode& node, std::vector<Region>& out) {
    for (const cl::PolyNode* outer : node.Childs) {
        cl::Paths paths{outer->Contour};
        for (const cl::PolyNode* hole : outer->Childs) {
            paths.push_back(hole->Contour);
            collect_islands(*hole, out);
        }
        out.push_back(to_region(paths));
    }
}

void order_by_place(std::vector<Region>& shapes) {
    std::stable_sort(shapes.begin(), shapes.end(), [](const Region& a, const Region& b) {
        const Box p = a.bounds();
        const Box q = b.bounds();
        return std::tuple(-p.high.y, p.low.x) < std::tuple(-q.high.y, q.low.x);
    });
}

double ring_area(const Ring& ring) {
    double twice = 0;
    const Point origin = ring.front();  // keeps the products small
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point a = ring[i] - origin;
        const Point b = ring[(i + 1) % ring.size()] - origin;
        twice +=
            static_cast<double>(a.x) * static_cast<double>(b.y) - static_cast<double>(b.x) * static_cast<double>(a.y);
    }
    return twice / 2;
}

// Groups of shapes whose boxes meet, directly or through others.
std::vector<std::vector<std::size_t>> clusters(std::span<const Region> shapes) {
    namespace bgi = boost::geometry::index;
    using Corner = boost::geometry::model::point<std::int64_t, 2, boost::geometry::cs::cartesian>;
    using Bounds = boost::geometry::model::box<Corner>;
    std::vector<std::pair<Bounds, std::size_t>> entries;
    for (std::size_t i = 0; i < shapes.size(); ++i) {
        if (shapes[i].empty()) continue;
        const Box box = shapes[i].bounds();
        entries.emplace_back(Bounds(Corner(box.low.x, box.low.y), Corner(box.high.x, box.high.y)), i);
    }
    const bgi::rtree<std::pair<Bounds, std::size_t>, bgi::quadratic<16>> tree(entries.begin(), entries.end());
    std::vector<std::size_t> parent(shapes.size());
    std::iota(parent.begin(), parent.end(), 0);
    const auto root = [&](std::size_t i) {
        while (parent[i] != i) i = parent[i] = parent[parent[i]];
        return i;
    };
    for (const auto& [bounds, i] : entries) {
        for (auto it = tree.qbegin(bgi::intersects(bounds)); it != tree.qend(); ++it) {
            const std::size_t a = root(i);
            const std::size_t b = root(it->second);
            parent[std::max(a, b)] = std::min(a, b);
        }
    }
    std::vector<std::vector<std::size_t>> groups(shapes.size());
    for (const auto& entry : entries) groups[root(entry.second)].push_back(entry.second);
    std::erase_if(groups, [](const auto& group) { return group.empty(); });
    return groups;
}

}  // namespace

Point rotated(Point p, int thousandths_of_a_degree) {
    const double angle = thousandths_of_a_degree * (std::numbers::pi / 180'000);
    const auto x = static_cast<double>(p.x);
    const auto y = static_cast<double>(p.y);
    return {std::llround(x * std::cos(angle) - y * std::sin(angle)),
            std::llround(x * std::sin(angle) + y * std::cos(angle))};
}

Point Motion::operator()(Point p) const {
    if (over) p.x = -p.x;
    for (int k = 0; k < quarters; ++k) p = {-p.y, p.x};
    return p + by;
}

Box Motion::operator()(const Box& box) const {
    const Point a = (*this)(box.low);
    const Point b = (*this)(box.high);
    return {{std::min(a.x, b.x), std::min(a.y, b.y)}, {std::max(a.x, b.x), std::max(a.y, b.y)}};
}

Motion operator*(const Motion& second, const Motion& first) {
    // Turning over after a turn is the turn the other way after turning over.
    const int turned = second.over ? 4 - first.quarters : first.quarters;
    return {second(first.by), (second.quarters + turned) % 4, second.over != first.over};
}

Motion inverse(const Motion& motion) {
    Motion back{{}, motion.over ? motion.quarters : (4 - motion.quarters) % 4, motion.over};
    back.by = Point{} - back(motion.by);
    return back;
}

Region Region::rectangle(const Box& box) {
    if (box.empty()) return {};
    return RegionAccess::make({{box.low, {box.high.x, box.low.y}, box.high, {box.low.x, box.high.y}}});
}

std::int64_t grid_from_mm(double mm) {
    const double units = mm * (1e6 / grid_nm);
    if (!(std::abs(units) <= static_cast<double>(grid_end))) throw OffGrid();
    return std::llround(units);
}

Region Region::from_rings(const std::vector<Ring>& rings) {
    for (const Ring& ring : rings) within_grid(ring);
    return run(cl::ctUnion, to_paths(rings), {}, cl::pftNonZero);
}

Region Region::from_rings_even_odd(const std::vector<Ring>& rings) {
    for (const Ring& ring : rings) within_grid(ring);
    return run(cl::ctUnion, to_paths(rings), {}, cl::pftEvenOdd);
}

Length apart(const Region& a, const Region& b) {
    if (touch(a, b)) return {};
    // Of two outlines that do not meet, a corner of one is nearest to an edge of the other.
    double least = std::numeric_limits<double>::max();
    const auto from_corners = [&](const Region& corners, const Region& edges) {
        const Box box = corners.bounds();
        for (const Ring& ring : edges.rings()) {
            for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++) {
                const auto ax = static_cast<double>(ring[j].x), ay = static_cast<double>(ring[j].y);
                const auto dx = static_cast<double>(ring[i].x) - ax, dy = static_cast<double>(ring[i].y) - ay;
                const double length = dx * dx + dy * dy;
                const auto off = [](double low, double high, double first, double second) {
                    return std::max({0.0, first - high, low - second});
                };
                if (off(std::min(ax, ax + dx), std::max(ax, ax + dx), static_cast<double>(box.low.x),
                        static_cast<double>(box.high.x)) >= least)
                    continue;
                for (const Ring& other : corners.rings()) {
                    for (const Point& p : other) {
                        const double px = static_cast<double>(p.x) - ax, py = static_cast<double>(p.y) - ay;
                        const double t = length == 0 ? 0 : std::clamp((px * dx + py * dy) / length, 0.0, 1.0);
                        least = std::min(least, std::hypot(px - t * dx, py - t * dy));
                    }
                }
            }
        }
    };
    from_corners(a, b);
    from_corners(b, a);
    return from_grid(std::llround(least));
}

Length reach_over(const Region& shape, const Region& within) {
    constexpr double speck_mm2 = 0.01;
    const Region off = subtract(shape, within);
    if (off.area_mm2() < speck_mm2 || within.empty()) return {};
    namespace bg = boost::geometry;
    using Spot = bg::model::point<double, 2, bg::cs::cartesian>;
    using Stretch = bg::model::segment<Spot>;
    const auto spot = [](const Point& p) { return Spot(static_cast<double>(p.x), static_cast<double>(p.y)); };
    std::vector<Stretch> edges;
    for (const Ring& ring : within.rings()) {
        for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++)
            edges.emplace_back(spot(ring[j]), spot(ring[i]));
    }
    const bg::index::rtree<Stretch, bg::index::rstar<16>> tree(edges);
    // Of a part outside, a corner lies farthest from the edge.
    double farthest = 0;
    for (const Ring& ring : off.rings()) {
        for (const Point& p : ring) {
            std::vector<Stretch> nearest;
            tree.query(bg::index::nearest(spot(p), 1), std::back_inserter(nearest));
            farthest = std::max(farthest, bg::distance(spot(p), nearest.front()));
        }
    }
    return from_grid(std::llround(farthest));
}

const std::vector<Ring>& Region::rings() const {
    static const std::vector<Ring> none;
    return held_ ? held_->rings : none;
}

double Region::area_mm2() const {
    constexpr double mm_per_unit = grid_nm * 1e-6;
    double units = 0;
    for (const Ring& ring : rings()) units += ring_area(ring);
    return units * mm_per_unit * mm_per_unit;
}

Region Region::moved(Point by) const {
    if (empty() || by == Point{}) return *this;
    std::vector<Ring> moved = rings();
    for (Ring& ring : moved) {
        for (Point& p : ring) p = p + by;
    }
    return RegionAccess::make(std::move(moved));  // order and starting points do not change with a move
}

Region Region::laid(const Motion& motion) const {
    Region out = motion.over ? mirrored(0) : *this;
    for (int k = 0; k < motion.quarters; ++k) out = out.turned();
    return out.moved(motion.by);
}

Region Region::turned() const {
    std::vector<Ring> turned = rings();
    for (Ring& ring : turned) {
        for (Point& p : ring) p = {-p.y, p.x};
        std::rotate(ring.begin(), std::min_element(ring.begin(), ring.end()), ring.end());
    }
    std::sort(turned.begin(), turned.end());
    return RegionAccess::make(std::move(turned));
}

Region Region::rotated(int thousandths_of_a_degree) const {
    std::vector<Ring> rotated = rings();
    for (Ring& ring : rotated) {
        for (Point& p : ring) p = skarvel::rotated(p, thousandths_of_a_degree);
    }
    return from_rings(rotated);
}

Region Region::mirrored(std::int64_t twice_middle) const {
    std::vector<Ring> mirrored;
    mirrored.reserve(rings().size());
    for (const Ring& ring : rings()) {
        Ring& other = mirrored.emplace_back();
        for (auto p = ring.rbegin(); p != ring.rend(); ++p) other.push_back({twice_middle - p->x, p->y});
        std::rotate(other.begin(), std::min_element(other.begin(), other.end()), other.end());
    }
    std::sort(mirrored.begin(), mirrored.end());
    return RegionAccess::make(std::move(mirrored));
}

Region merge(std::span<const Region> shapes) {
    std::vector<Ring> rings;
    for (const std::vector<std::size_t>& group : clusters(shapes)) {
        if (group.size() == 1) {
            const auto& own = shapes[group.front()].rings();
            rings.insert(rings.end(), own.begin(), own.end());
            continue;
        }
        cl::Paths paths;
        for (const std::size_t i : group) {
            for (cl::Path& path : to_paths(shapes[i])) paths.push_back(std::move(path));
        }
        const Region joined = run(cl::ctUnion, paths, {}, cl::pftNonZero);
        rings.insert(rings.end(), joined.rings().begin(), joined.rings().end());
    }
    std::sort(rings.begin(), rings.end());
    return RegionAccess::make(std::move(rings));
}

Region merge(const Region& a, const Region& b) {
    const std::vector<Region> both{a, b};
    return merge(both);
}

Region subtract(const Region& from, const Region& what) {
    const Box box = from.bounds();
    if (from.empty() || what.empty() || !box.meets(what.bounds())) return from;
    if (is_rectangle(what) && what.bounds().holds(box)) return {};
    return run(cl::ctDifference, to_paths(from), near_box(what, box), cl::pftNonZero);
}

Region intersect(const Region& a, const Region& b) {
    const Box of_a = a.bounds();
    const Box of_b = b.bounds();
    if (a.empty() || b.empty() || !of_a.meets(of_b)) return {};
    if (is_rectangle(b) && of_b.holds(of_a)) return a;
    if (is_rectangle(a) && of_a.holds(of_b)) return b;
    const Box both = common(of_a, of_b);
    return run(cl::ctIntersection, near_box(a, both), near_box(b, both), cl::pftNonZero);
}

Region grow(const Region& shape, Length by) {
    const std::int64_t units = to_grid(by);
    if (units == 0 || shape.empty()) return shape;
    look_for_stop();
    cl::ClipperOffset offset(2.0, arc_tolerance_units);
    offset.AddPaths(to_paths(shape), cl::jtRound, cl::etClosedPolygon);
    cl::Paths out;
    offset.Execute(out, static_cast<double>(units));
    return run(cl::ctUnion, out, {}, cl::pftNonZero);
}

std::vector<Region> islands(const Region& shape) {
    look_for_stop();
    if (shape.rings().size() == 1) return {shape};
    cl::Clipper clipper;
    clipper.AddPaths(to_paths(shape), cl::ptSubject, true);
    cl::PolyTree tree;
    execute(clipper, cl::ctUnion, cl::pftNonZero, tree, [](const cl::PolyTree& t) {
        cl::Paths paths;
        cl::PolyTreeToPaths(t, paths);
        return paths;
    });
    std::vector<Region> out;
    collect_islands(tree, out);
    order_by_place(out);
    return out;
}

std::vector<Region> holes(const Region& shape) {
    std::vector<Region> out;
    for (const Ring& ring : shape.rings()) {
        if (ring_area(ring) >= 0) continue;
        Ring filled(ring.rbegin(), ring.rend());
        std::rotate(filled.begin(), std::min_element(filled.begin(), filled.end()), filled.end());
        out.push_back(RegionAccess::make({std::move(filled)}));
    }
    order_by_place(out);
    return out;
}

bool touch(const Region& a, const Region& b) {
    if (a.empty() || b.empty() || !a.bounds().meets(b.bounds())) return false;
    // Usually a corner of one tells.
    if (holds(a, b.rings().front().front()) || holds(b, a.rings().front().front())) return true;
    if (!intersect(a, b).empty()) return true;
    // Grown by two grid steps, a shape overlaps what it meets in a line or a point; the part of it that is near is
    // enough.
    const Region near = intersect(a, Region::rectangle(grown(b.bounds(), Length::nanometres(8 * grid_nm))));
    return !intersect(grow(near, Length::nanometres(2 * grid_nm)), b).empty();
}

std::vector<std::vector<double>> edges_on(const Region& shape, Axis axis, const std::vector<std::int64_t>& where) {
    std::vector<std::vector<double>> cuts(where.size());
    for (const Ring& ring : shape.rings()) {
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point a = ring[i];
            const Point b = ring[(i + 1) % ring.size()];
            const std::int64_t p = along(axis, a);
            const std::int64_t q = along(axis, b);
            // From above the lower end up to the upper one.
            const auto first = std::upper_bound(where.begin(), where.end(), std::min(p, q));
            const auto last = std::upper_bound(first, where.end(), std::max(p, q));
            for (auto at = first; at != last; ++at) {
                const double share = static_cast<double>(*at - p) / static_cast<double>(q - p);
                const double there = static_cast<double>(along(other(axis), a)) +
                                     share * static_cast<double>(along(other(axis), b) - along(other(axis), a));
                cuts[static_cast<std::size_t>(at - where.begin())].push_back(there);
            }
        }
    }
    for (std::vector<double>& each : cuts) std::sort(each.begin(), each.end());
    return cuts;
}

std::vector<Length> crossed(const Region& shape, Axis axis, const std::vector<std::int64_t>& where) {
    std::vector<Length> lengths;
    lengths.reserve(where.size());
    for (const std::vector<double>& each : edges_on(shape, axis, where)) {
        double inside = 0;
        for (std::size_t i = 0; i + 1 < each.size(); i += 2) inside += each[i + 1] - each[i];
        lengths.push_back(from_grid(std::llround(inside)));
    }
    return lengths;
}

Length crossed(const Region& shape, Axis axis, std::int64_t where) {
    return crossed(shape, axis, std::vector<std::int64_t>{where}).front();
}

}  // namespace skarvel
