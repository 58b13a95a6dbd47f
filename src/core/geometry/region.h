// geometry/region.h
//
// Region: a flat shape on a grid of 125 nm, which holds 1/64 in, 1 um and the plotter's unit exactly. A Region is
// always valid: closed rings that do not cross, outer ones counter-clockwise, holes clockwise, y upwards. It can only
// be made by the functions below, which run every shape through the boolean library once (integer, exact). Shapes up to
// 134 m; what lies beyond throws OffGrid, also where outlines are flattened. It never changes: copies share its rings,
// so that a job, its undo steps and its plan hold one drawing once.
//
// Merging works per cluster of shapes whose boxes meet: one huge input slows the library badly.
#pragma once

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <memory>
#include <span>
#include <stdexcept>
#include <vector>

#include "measure/length.h"

namespace skarvel {

constexpr std::int64_t grid_nm = 125;

/// Grid units, rounded to the nearest.
constexpr std::int64_t to_grid(Length length) {
    const std::int64_t nm = length.nm();
    return (nm >= 0 ? nm + grid_nm / 2 : nm - grid_nm / 2) / grid_nm;
}
constexpr Length from_grid(std::int64_t units) { return Length::nanometres(units * grid_nm); }
inline std::int64_t mm_to_grid(double mm) { return std::llround(mm * (1e6 / grid_nm)); }
constexpr double grid_to_mm(std::int64_t units) { return static_cast<double>(units) * (grid_nm * 1e-6); }

/// No shape reaches farther from the origin: 134 m.
constexpr std::int64_t grid_end = std::int64_t{1} << 30;
/// What no Region can be made from.
struct Undrawable : std::range_error {
    using std::range_error::range_error;
};
/// Coordinates beyond the grid, or none at all.
struct OffGrid : Undrawable {
    OffGrid() : Undrawable("a coordinate lies beyond what can be drawn") {}
};
/// Lines that cross one another too often (geometry/tangle.h).
struct Tangled : Undrawable {
    Tangled() : Undrawable("lines cross one another more often than can be sorted out") {}
};
/// Millimetres in grid units, rounded to the nearest. Throws OffGrid.
std::int64_t grid_from_mm(double mm);

/// A point in grid units.
struct Point {
    std::int64_t x = 0;
    std::int64_t y = 0;
    friend constexpr Point operator+(Point a, Point b) { return {a.x + b.x, a.y + b.y}; }
    friend constexpr Point operator-(Point a, Point b) { return {a.x - b.x, a.y - b.y}; }
    friend constexpr auto operator<=>(const Point&, const Point&) = default;
};

constexpr Point at(Length x, Length y) { return {to_grid(x), to_grid(y)}; }

/// An upright rectangle from `low` to `high`; empty when high is not beyond low.
struct Box {
    Point low, high;
    [[nodiscard]] constexpr std::int64_t width() const { return high.x - low.x; }
    [[nodiscard]] constexpr std::int64_t height() const { return high.y - low.y; }
    [[nodiscard]] constexpr bool empty() const { return width() <= 0 || height() <= 0; }
    [[nodiscard]] constexpr bool holds(const Box& other) const {
        return other.low.x >= low.x && other.low.y >= low.y && other.high.x <= high.x && other.high.y <= high.y;
    }
    [[nodiscard]] constexpr bool meets(const Box& other) const {
        return low.x <= other.high.x && other.low.x <= high.x && low.y <= other.high.y && other.low.y <= high.y;
    }
    friend bool operator==(const Box&, const Box&) = default;
};

constexpr Point middle_of(const Box& box) { return {(box.low.x + box.high.x) / 2, (box.low.y + box.high.y) / 2}; }

/// About the origin, counterclockwise, rounded to the grid.
Point rotated(Point p, int thousandths_of_a_degree);

/// The smallest box that holds both; an empty one counts for nothing.
constexpr Box around(const Box& a, const Box& b) {
    if (a.empty()) return b;
    if (b.empty()) return a;
    return {{std::min(a.low.x, b.low.x), std::min(a.low.y, b.low.y)},
            {std::max(a.high.x, b.high.x), std::max(a.high.y, b.high.y)}};
}
constexpr Box common(const Box& a, const Box& b) {
    return {{std::max(a.low.x, b.low.x), std::max(a.low.y, b.low.y)},
            {std::min(a.high.x, b.high.x), std::min(a.high.y, b.high.y)}};
}
constexpr Box grown(const Box& box, Length by) {
    const std::int64_t d = to_grid(by);
    return {{box.low.x - d, box.low.y - d}, {box.high.x + d, box.high.y + d}};
}

/// A rigid motion on the grid: turned over about the upright axis, then by quarter turns counter-clockwise, both about
/// the origin, then moved.
struct Motion {
    Point by;
    int quarters = 0;   ///< 0 to 3
    bool over = false;  ///< turned over: x becomes -x
    [[nodiscard]] Point operator()(Point p) const;
    [[nodiscard]] Box operator()(const Box& box) const;
    friend constexpr auto operator<=>(const Motion&, const Motion&) = default;
};
/// `first`, then `second`.
Motion operator*(const Motion& second, const Motion& first);
Motion inverse(const Motion& motion);

using Ring = std::vector<Point>;

class Region {
  public:
    Region() = default;
    static Region rectangle(const Box& box);
    /// From rings as they come, filled by the non-zero winding rule, as typefaces are. Throws Undrawable.
    static Region from_rings(const std::vector<Ring>& rings);
    /// Filled where an odd number of rings lie round a point, as drawings may ask.
    static Region from_rings_even_odd(const std::vector<Ring>& rings);

    [[nodiscard]] const std::vector<Ring>& rings() const;
    [[nodiscard]] bool empty() const { return !held_; }
    [[nodiscard]] Box bounds() const { return held_ ? held_->bounds : Box{}; }
    [[nodiscard]] double area_mm2() const;
    [[nodiscard]] Region moved(Point by) const;
    [[nodiscard]] Region laid(const Motion& motion) const;
    /// Left and right changed: x becomes `twice_middle` - x.
    [[nodiscard]] Region mirrored(std::int64_t twice_middle) const;
    /// A quarter turn counter-clockwise about the origin.
    [[nodiscard]] Region turned() const;
    /// By any angle about the origin, counterclockwise; every corner is rounded to the grid.
    [[nodiscard]] Region rotated(int thousandths_of_a_degree) const;

    friend bool operator==(const Region& a, const Region& b) { return a.held_ == b.held_ || a.rings() == b.rings(); }

  private:
    friend struct RegionAccess;
    struct Held {
        std::vector<Ring> rings;
        Box bounds;
    };
    std::shared_ptr<const Held> held_;  ///< none where there is no ring
};

Region merge(std::span<const Region> shapes);
Region merge(const Region& a, const Region& b);
Region subtract(const Region& from, const Region& what);
Region intersect(const Region& a, const Region& b);
/// Grown outwards by `by`, inwards when negative, with round corners; arcs keep within 0.01 mm.
Region grow(const Region& shape, Length by);

/// The connected parts, each with its holes, ordered from top to bottom, then left to right.
std::vector<Region> islands(const Region& shape);
/// The holes as shapes of their own, in the order of `islands`.
std::vector<Region> holes(const Region& shape);
/// How far `shape` reaches over the edge of `within`; nothing but rounding counts as zero.
Length reach_over(const Region& shape, const Region& within);
/// The shortest way from one to the other, between their outlines; nothing where they meet. Both must hold something.
Length apart(const Region& a, const Region& b);
/// Whether the two overlap or meet in a line or a point.
bool touch(const Region& a, const Region& b);

enum class Axis { X, Y };
constexpr auto words_of(Axis) { return std::array{"across", "up"}; }
constexpr Axis other(Axis axis) { return axis == Axis::X ? Axis::Y : Axis::X; }
constexpr std::int64_t along(Axis axis, Point p) { return axis == Axis::X ? p.x : p.y; }

/// Where outlines meet lines at `where` on `axis`, given in ascending order: coordinates on the other axis, sorted, in
/// grid units. Between the first two lies ink, then none up to the third, and so on.
std::vector<std::vector<double>> edges_on(const Region& shape, Axis axis, const std::vector<std::int64_t>& where);

/// How much of `shape` lies on the line where `axis` equals `where`: the length of ink that a seam there would cut.
Length crossed(const Region& shape, Axis axis, std::int64_t where);
/// The same at many places, in ascending order, for about the price of one.
std::vector<Length> crossed(const Region& shape, Axis axis, const std::vector<std::int64_t>& where);

}  // namespace skarvel
