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
#include <map>
#include <numbers>
#include <numeric>
#include <polyclipping/clipper.hpp>

#include "geometry/tangle.h"
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

constexpr double grown_arc_units = 80;  // 0.01 mm

void within_grid(const Ring& ring) {
    for (const Point& p : ring) {
        constexpr std::int64_t most = RegionAccess::most_units;
        if (std::max(p.x, p.y) > most || std::min(p.x, p.y) < -most) throw OffGrid();
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

// Products of distances between points anywhere on the grid: twice 36 bits.
__extension__ using Wide = __int128;

bool below(const cl::IntPoint& a, const cl::IntPoint& b) { return std::tie(a.Y, a.X) < std::tie(b.Y, b.X); }

// Where a ring comes back to one of its own points along an edge: the edge that ends with the point of that number, and
// the corner on it. A sweep upwards over the edges. `first_only`: one is enough; a corner met twice then counts, too.
std::vector<std::pair<std::size_t, cl::IntPoint>> corners_on_edges(const cl::Path& path, bool first_only) {
    struct Edge {
        cl::IntPoint low, high;
        std::size_t end;
        cl::cInt left = std::min(low.X, high.X), right = std::max(low.X, high.X);
    };
    std::vector<Edge> edges;
    edges.reserve(path.size());
    std::vector<cl::IntPoint> points(path);
    for (std::size_t i = 0; i < path.size(); ++i) {
        const std::size_t end = (i + 1) % path.size();
        const auto& a = path[i];
        const auto& b = path[end];
        edges.push_back(below(a, b) ? Edge{a, b, end} : Edge{b, a, end});
    }
    std::vector<std::pair<std::size_t, cl::IntPoint>> found;
    std::sort(points.begin(), points.end(), below);
    if (const auto twice = std::adjacent_find(points.begin(), points.end()); first_only && twice != points.end())
        return {{0, *twice}};
    points.erase(std::unique(points.begin(), points.end()), points.end());
    std::sort(edges.begin(), edges.end(), [&](const Edge& a, const Edge& b) { return below(a.low, b.low); });
    std::vector<Edge> open;
    auto next = edges.begin();
    for (const auto& p : points) {
        std::erase_if(open, [&](const Edge& e) { return !below(p, e.high); });
        for (const Edge& e : open) {
            if (p.X < e.left || p.X > e.right) continue;
            if (Wide{e.high.X - e.low.X} * (p.Y - e.low.Y) != Wide{p.X - e.low.X} * (e.high.Y - e.low.Y)) continue;
            found.emplace_back(e.end, p);
            if (first_only) return found;
        }
        for (; next != edges.end() && next->low == p; ++next) open.push_back(*next);
    }
    return found;
}

bool meets_itself(const cl::Path& path) { return !corners_on_edges(path, true).empty(); }

// A ring that meets itself, parted at every point where it does: walked along, what has come back to a point is a ring
// of its own. (The library parts rings only by comparing every point with every other.)
void part(const cl::Path& path, cl::Paths& out) {
    auto on_edges = corners_on_edges(path, false);
    // In the order in which they are met along the way.
    std::sort(on_edges.begin(), on_edges.end(), [&](const auto& a, const auto& b) {
        if (a.first != b.first) return a.first < b.first;
        const auto& from = path[(a.first + path.size() - 1) % path.size()];
        const auto off = [&](const cl::IntPoint& p) {
            return std::max(std::abs(p.X - from.X), std::abs(p.Y - from.Y));
        };
        return off(a.second) < off(b.second);
    });
    cl::Path way;
    std::map<std::pair<cl::cInt, cl::cInt>, std::size_t> place;
    const auto go = [&](const cl::IntPoint& p) {
        const auto [at, fresh] = place.try_emplace({p.X, p.Y}, way.size());
        if (fresh) return way.push_back(p);
        const cl::Path loop(way.begin() + static_cast<long>(at->second), way.end());
        if (loop.size() >= 3) out.push_back(loop);
        for (std::size_t i = at->second + 1; i < way.size(); ++i) place.erase({way[i].X, way[i].Y});
        way.resize(at->second + 1);
    };
    auto next = on_edges.begin();
    for (std::size_t i = 0; i < path.size(); ++i) {
        for (; next != on_edges.end() && next->first == i; ++next) go(next->second);
        go(path[i]);
    }
    if (way.size() >= 3) out.push_back(way);
}

// Work of the library, whose refusals are ours.
template <class Work>
auto by_library(const Work& work) {
    try {
        return work();
    } catch (const cl::clipperException&) {
        throw OffGrid();
    }
}

cl::Paths parted(const cl::Paths& paths) {
    cl::Paths apart;
    for (const cl::Path& path : paths) {
        if (meets_itself(path))
            part(path, apart);
        else
            apart.push_back(path);
    }
    return apart;
}

Region run(cl::ClipType type, const cl::Paths& subject, const cl::Paths& clip, cl::PolyFillType fill) {
    look_for_stop();
    return by_library([&] {
        cl::Clipper clipper;
        clipper.AddPaths(subject, cl::ptSubject, true);
        if (!clip.empty()) clipper.AddPaths(clip, cl::ptClip, true);
        cl::Paths out;
        clipper.Execute(type, out, fill, fill);
        return to_region(parted(out));
    });
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

// Rings that do not meet themselves: each outer one with the holes that lie in it and in no smaller one.
std::vector<Region> islands_of(const cl::Paths& rings) {
    struct Outer {
        double area;
        Box box;
        cl::Paths paths;
    };
    const auto box_of = [](const cl::Path& path) {
        Box box{{path.front().X, path.front().Y}, {path.front().X, path.front().Y}};
        for (const auto& corner : path) {
            const Point p{corner.X, corner.Y};
            box.low = {std::min(box.low.x, p.x), std::min(box.low.y, p.y)};
            box.high = {std::max(box.high.x, p.x), std::max(box.high.y, p.y)};
        }
        return box;
    };
    std::vector<Outer> outers;
    for (const cl::Path& path : rings) {
        if (const double area = cl::Area(path); area > 0) outers.push_back({area, box_of(path), {path}});
    }
    std::stable_sort(outers.begin(), outers.end(), [](const Outer& a, const Outer& b) { return a.area < b.area; });
    for (const cl::Path& path : rings) {
        if (cl::Area(path) >= 0) continue;
        const Box box = box_of(path);
        const auto around = std::find_if(outers.begin(), outers.end(), [&](const Outer& o) {
            if (!o.box.holds(box)) return false;
            // A corner that lies on the outer ring does not tell.
            for (const auto& p : path) {
                if (const int inside = cl::PointInPolygon(p, o.paths.front()); inside >= 0) return inside == 1;
            }
            return true;
        });
        if (around != outers.end()) around->paths.push_back(path);
    }
    std::vector<Region> out;
    out.reserve(outers.size());
    for (const Outer& o : outers) out.push_back(to_region(o.paths));
    return out;
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
    look_for_tangles(rings);
    return run(cl::ctUnion, to_paths(rings), {}, cl::pftNonZero);
}

Region Region::from_rings_even_odd(const std::vector<Ring>& rings) {
    for (const Ring& ring : rings) within_grid(ring);
    look_for_tangles(rings);
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
        within_grid(ring);
    }
    // Sound before, it holds no tangle now: boxes that overlap only when it is askew are none.
    return run(cl::ctUnion, to_paths(rotated), {}, cl::pftNonZero);
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

namespace {

// Many are merged by halves, side by side: the library takes the cube of the edges that lie on one another.
std::vector<Ring> merged_cluster(std::span<const Region> shapes, std::vector<std::size_t> group) {
    constexpr std::size_t at_once = 64;
    if (group.size() <= at_once) {
        cl::Paths paths;
        for (const std::size_t i : group) {
            for (cl::Path& path : to_paths(shapes[i])) paths.push_back(std::move(path));
        }
        return run(cl::ctUnion, paths, {}, cl::pftNonZero).rings();
    }
    Box all;
    for (const std::size_t i : group) all = around(all, shapes[i].bounds());
    const Axis axis = all.width() >= all.height() ? Axis::X : Axis::Y;
    const auto half = group.begin() + static_cast<long>(group.size() / 2);
    const auto place = [&](std::size_t i) { return std::pair(along(axis, middle_of(shapes[i].bounds())), i); };
    std::nth_element(group.begin(), half, group.end(),
                     [&](std::size_t a, std::size_t b) { return place(a) < place(b); });
    std::vector<Ring> both = merged_cluster(shapes, {group.begin(), half});
    std::vector<Ring> high = merged_cluster(shapes, {half, group.end()});
    std::move(high.begin(), high.end(), std::back_inserter(both));
    return run(cl::ctUnion, to_paths(both), {}, cl::pftNonZero).rings();
}

}  // namespace

Region merge(std::span<const Region> shapes) {
    std::vector<Ring> rings;
    for (const std::vector<std::size_t>& group : clusters(shapes)) {
        if (group.size() == 1) {
            const auto& own = shapes[group.front()].rings();
            rings.insert(rings.end(), own.begin(), own.end());
            continue;
        }
        const std::vector<Ring> joined = merged_cluster(shapes, group);
        rings.insert(rings.end(), joined.begin(), joined.end());
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
    cl::Paths out = by_library([&] {
        cl::ClipperOffset offset(2.0, grown_arc_units);
        offset.AddPaths(to_paths(shape), cl::jtRound, cl::etClosedPolygon);
        cl::Paths grown;
        offset.Execute(grown, static_cast<double>(units));
        return grown;
    });
    return run(cl::ctUnion, out, {}, cl::pftNonZero);
}

std::vector<Region> islands(const Region& shape) {
    look_for_stop();
    if (shape.rings().size() == 1) return {shape};
    std::vector<Region> out = by_library([&] {
        cl::Clipper clipper;
        clipper.AddPaths(to_paths(shape), cl::ptSubject, true);
        cl::PolyTree tree;
        clipper.Execute(cl::ctUnion, tree, cl::pftNonZero, cl::pftNonZero);
        cl::Paths rings;
        cl::PolyTreeToPaths(tree, rings);
        if (std::any_of(rings.begin(), rings.end(), meets_itself)) return islands_of(parted(rings));
        std::vector<Region> each;
        collect_islands(tree, each);
        return each;
    });
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
