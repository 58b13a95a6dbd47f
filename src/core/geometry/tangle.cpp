#include "geometry/tangle.h"

#include <algorithm>
#include <boost/geometry/geometries/box.hpp>
#include <boost/geometry/geometries/point.hpp>
#include <boost/geometry/index/rtree.hpp>
#include <boost/iterator/function_output_iterator.hpp>

#include "values/stop.h"

namespace skarvel {
namespace {

namespace bg = boost::geometry;
using Corner = bg::model::point<std::int64_t, 2, bg::cs::cartesian>;
using Bounds = bg::model::box<Corner>;
using Entry = std::pair<Bounds, std::size_t>;
__extension__ using Wide = __int128;

constexpr std::size_t few = 1000;
constexpr std::size_t most_meetings = 500'000;
constexpr std::size_t most_for_each = 12;
constexpr std::size_t most_looks = 20'000'000;

struct Edge {
    Point from, to;
    std::size_t before, after;  // along the ring
};

int side(const Edge& line, Point p) {
    const Point d = line.to - line.from;
    const Point e = p - line.from;
    const Wide turn = Wide{d.x} * e.y - Wide{d.y} * e.x;
    return turn > 0 ? 1 : turn < 0 ? -1 : 0;
}

// Of edges whose boxes meet.
bool meet(const Edge& a, const Edge& b) {
    return side(a, b.from) * side(a, b.to) <= 0 && side(b, a.from) * side(b, a.to) <= 0;
}

Bounds bounds_of(const Edge& e) {
    const auto [x0, x1] = std::minmax(e.from.x, e.to.x);
    const auto [y0, y1] = std::minmax(e.from.y, e.to.y);
    return {{x0, y0}, {x1, y1}};
}

}  // namespace

void look_for_tangles(const std::vector<Ring>& rings, bool closed) {
    std::size_t count = 0;
    for (const Ring& ring : rings) count += ring.size();
    if (count <= few) return;
    std::vector<Edge> edges;
    edges.reserve(count);
    for (const Ring& ring : rings) {
        const std::size_t n = ring.size();
        const std::size_t first = edges.size();
        for (std::size_t i = 0; i + (closed ? 0 : 1) < n; ++i)
            edges.push_back({ring[i], ring[(i + 1) % n], first + (i + n - 1) % n, first + (i + 1) % n});
    }
    std::vector<Entry> entries;
    entries.reserve(edges.size());
    for (std::size_t i = 0; i < edges.size(); ++i) entries.emplace_back(bounds_of(edges[i]), i);
    const bg::index::rtree<Entry, bg::index::linear<16>> tree(entries);
    std::size_t meetings = 0;
    std::size_t looks = 0;
    for (std::size_t i = 0; i < edges.size(); ++i) {
        if (i % 256 == 0) look_for_stop();
        const Edge& edge = edges[i];
        const auto look = [&](const Entry& hit) {
            const std::size_t k = hit.second;
            if (++looks > most_looks) throw Tangled();
            if (k <= i || k == edge.before || k == edge.after || !meet(edge, edges[k])) return;
            if (++meetings > most_meetings + most_for_each * edges.size()) throw Tangled();
        };
        tree.query(bg::index::intersects(entries[i].first), boost::make_function_output_iterator(look));
    }
}

void look_for_tangles(const std::vector<Region>& shapes) {
    std::vector<Ring> rings;
    for (const Region& shape : shapes) rings.insert(rings.end(), shape.rings().begin(), shape.rings().end());
    look_for_tangles(rings);
}

}  // namespace skarvel
