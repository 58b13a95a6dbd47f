#include "geometry/outline.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

// A few boxes on a coarse grid: enough to make holes, touches and islands.
std::vector<Region> some_boxes() {
    const auto count = *rc::gen::inRange(1, 9);
    std::vector<Region> boxes;
    for (int i = 0; i < count; ++i) {
        const auto x = *rc::gen::inRange(0, 12);
        const auto y = *rc::gen::inRange(0, 12);
        const auto w = *rc::gen::inRange(1, 6);
        const auto h = *rc::gen::inRange(1, 6);
        boxes.push_back(Region::rectangle(box_in(x, y, x + w, y + h)));
    }
    return boxes;
}

double sq_in(const Region& r) { return r.area_mm2() / 645.16; }

}  // namespace

TEST_CASE("the grid holds sixty-fourths, micrometres and the plotter's unit exactly") {
    CHECK(from_grid(to_grid(Length::sixtyfourths(1))) == Length::sixtyfourths(1));
    CHECK(from_grid(to_grid(Length::nanometres(1000))) == Length::nanometres(1000));
    CHECK(from_grid(to_grid(Length::nanometres(25'000))) == Length::nanometres(25'000));
}

TEST_CASE("areas obey inclusion and exclusion") {
    CHECK(rc::check([] {
        const Region a = merge(some_boxes());
        const Region b = merge(some_boxes());
        RC_ASSERT(sq_in(merge(a, b)) == Approx(sq_in(a) + sq_in(b) - sq_in(intersect(a, b))));
        RC_ASSERT(sq_in(subtract(a, b)) == Approx(sq_in(a) - sq_in(intersect(a, b))).margin(1e-9));
    }));
}

TEST_CASE("many shapes merged are the same as all of their rings at once") {
    CHECK(rc::check([] {
        std::vector<Region> many;
        std::vector<Ring> rings;
        while (many.size() < 150) {
            for (const Region& box : some_boxes()) many.push_back(box);
        }
        for (const Region& box : many) rings.insert(rings.end(), box.rings().begin(), box.rings().end());
        RC_ASSERT(merge(many) == Region::from_rings(rings));
    }));
}

TEST_CASE("a moved or turned shape keeps its area, and equal shapes are equal values") {
    CHECK(rc::check([] {
        const std::vector<Region> boxes = some_boxes();
        std::vector<Region> other(boxes.rbegin(), boxes.rend());
        const Region a = merge(boxes);
        RC_ASSERT(a.area_mm2() == Approx(merge(other).area_mm2()));
        RC_ASSERT(a.moved({1000, -77}).moved({-1000, 77}) == a);
        RC_ASSERT(a.turned().turned().turned().turned() == a);
        RC_ASSERT(a.turned().area_mm2() == Approx(a.area_mm2()));
        RC_ASSERT(a.turned().bounds().width() == a.bounds().height());
    }));
}

TEST_CASE("a shape taken apart by a grid of boxes is all there, each part in its box and as it was") {
    // Winding round and round the boxes in its middle, and passing beyond each of their sides.
    std::vector<Region> arms;
    for (int turn = 0; turn < 4; ++turn) {
        const double r = 2 + 2 * turn;
        arms.push_back(Region::rectangle(box_in(-r, r, r + 2, r + 0.75)));
        arms.push_back(Region::rectangle(box_in(r + 1.25, -r - 2, r + 2, r + 0.75)));
        arms.push_back(Region::rectangle(box_in(-r - 2, -r - 2, r + 2, -r - 1.25)));
        arms.push_back(Region::rectangle(box_in(-r - 2, -r - 2, -r - 1.25, r + 2)));
    }
    const Region spiral = merge(arms);
    // Where a slanted edge meets a box its corner is rounded to the grid: 62 nm along two feet of edges.
    constexpr double edges = 62e-6 * 600 / 645.16;
    CHECK(rc::check([&] {
        const Region slanted = merge(some_boxes()).rotated(*rc::gen::inRange(0, 90'000));
        for (const Region& shape : {spiral, slanted}) {
            const int n = *rc::gen::inRange(1, 5);
            const Box all = grown(shape.bounds(), 0.25_in);
            std::vector<Region> parts;
            double area = 0;
            for (int x = 0; x < n; ++x) {
                for (int y = 0; y < n; ++y) {
                    const Box cell{{all.low.x + all.width() * x / n, all.low.y + all.height() * y / n},
                                   {all.low.x + all.width() * (x + 1) / n, all.low.y + all.height() * (y + 1) / n}};
                    const Region part = intersect(shape, Region::rectangle(cell));
                    const Region rest = subtract(shape, Region::rectangle(cell));
                    RC_ASSERT(part.empty() || cell.holds(part.bounds()));
                    RC_ASSERT(sq_in(part) + sq_in(rest) == Approx(sq_in(shape)).margin(edges));
                    RC_ASSERT(sq_in(intersect(part, rest)) == Approx(0).margin(edges));
                    area += sq_in(part);
                    parts.push_back(part);
                }
            }
            RC_ASSERT(area == Approx(sq_in(shape)).margin(edges));
            RC_ASSERT(sq_in(subtract(shape, merge(parts))) == Approx(0).margin(edges));
        }
    }));
    // What holds all of a shape leaves it as it is, to the last point.
    CHECK(intersect(spiral, Region::rectangle(spiral.bounds())) == spiral);
    CHECK(subtract(spiral, Region::rectangle(spiral.bounds())).empty());
    CHECK(intersect(spiral, square_in(-0.5, -0.5, 1)).empty());
    CHECK(subtract(spiral, square_in(100, 100, 1)) == spiral);
}

TEST_CASE("islands and holes are told apart, an island in a hole as well") {
    const Region ring = subtract(square_in(0, 0, 10), square_in(2, 2, 6));
    const Region eye = merge(ring, square_in(4, 4, 2));
    CHECK(islands(ring).size() == 1);
    REQUIRE(holes(ring).size() == 1);
    CHECK(sq_in(holes(ring).front()) == Approx(36));
    CHECK(islands(eye).size() == 2);
    const std::vector<Region> both{square_in(0, 0, 1), square_in(0, 5, 1)};
    CHECK(islands(merge(both)).front().bounds().low.y == to_grid(5_in));  // from the top down
}

TEST_CASE("growing by a margin and back closes what is narrower") {
    const std::vector<Region> pair{square_in(0, 0, 2), square_in(2.25, 0, 2)};
    CHECK(islands(merge(pair)).size() == 2);
    CHECK(islands(grow(merge(pair), 0.125_in)).size() == 1);
    CHECK(sq_in(grow(square_in(0, 0, 4), 1_in)) == Approx(16 + 16 + 3.14159265).epsilon(1e-4));
    CHECK(sq_in(grow(square_in(0, 0, 4), -1_in)) == Approx(4));
    CHECK(grow(square_in(0, 0, 1), -1_in).empty());
}

TEST_CASE("touching is shared points, not nearness") {
    CHECK(touch(square_in(0, 0, 1), square_in(1, 0, 1)));
    CHECK(touch(square_in(0, 0, 1), square_in(1, 1, 1)));
    CHECK_FALSE(touch(square_in(0, 0, 1), square_in(1.001, 0, 1)));
    CHECK_FALSE(touch(square_in(0, 0, 1), Region{}));
}

TEST_CASE("a line through a ring crosses both its walls") {
    const Region ring = subtract(square_in(0, 0, 10), square_in(2, 2, 6));
    CHECK(crossed(ring, Axis::Y, to_grid(5_in)) == 4_in);
    CHECK(crossed(ring, Axis::Y, to_grid(1_in)) == 10_in);
    CHECK(crossed(ring, Axis::X, to_grid(20_in)) == Length{});
}

TEST_CASE("curves are flattened within a hundredth of a millimetre") {
    // A circle of radius 1 from four cubics; their own error is 0.027 % of the radius (from memory).
    constexpr double k = 0.5522847498;
    Outline circle;
    circle.contours.push_back({{1, 0},
                               {{{1, k}, {k, 1}, {0, 1}},
                                {{-k, 1}, {-1, k}, {-1, 0}},
                                {{-1, -k}, {-k, -1}, {0, -1}},
                                {{k, -1}, {1, -k}, {1, 0}}}});
    const double radius = 100;
    const Region flat = flatten(circle, radius, radius);
    double worst = 0;
    for (const Ring& ring : flat.rings()) {
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point a = ring[i];
            const Point b = ring[(i + 1) % ring.size()];
            const double x = grid_to_mm(a.x + b.x) / 2;
            const double y = grid_to_mm(a.y + b.y) / 2;
            worst = std::max(worst, radius - std::hypot(x, y));
        }
    }
    CHECK(worst < 0.01 + radius * 0.00027);
    const Extent extent = extent_of(circle);
    CHECK(extent.x1 == Approx(1));
    CHECK(extent.y0 == Approx(-1));
    CHECK(extent_of(Outline{}).empty());
}

TEST_CASE("rings as typefaces have them become valid regions") {
    const auto ring = [](double l, double b, double r, double t, bool clockwise) {
        const Box box = box_in(l, b, r, t);
        Ring points{box.low, {box.high.x, box.low.y}, box.high, {box.low.x, box.high.y}};
        return clockwise ? Ring(points.rbegin(), points.rend()) : points;
    };
    // Outer ring clockwise with a counter-clockwise hole, as in one outline format; the other way round in the other.
    for (const bool flip : {false, true}) {
        const Region o = Region::from_rings({ring(0, 0, 4, 4, !flip), ring(1, 1, 3, 3, flip)});
        CHECK(sq_in(o) == Approx(12));
        CHECK(holes(o).size() == 1);
    }
    CHECK(Region::from_rings({}).empty());
    CHECK(Region::from_rings({{{0, 0}, {10, 10}, {20, 20}}}).empty());
}
