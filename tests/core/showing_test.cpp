#include "sections/showing.h"
#include <numbers>
#include "loads/loads.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

std::int64_t g(double inches) { return to_grid(Length::from_mm(inches * 25.4)); }

CutAcross cut(const Region& ink, double at, bool keepers = false) {
    return cuts_across(ink, Axis::X, {g(at)}, keepers).front();
}

Region from(const std::vector<std::pair<double, double>>& corners) {
    Ring ring;
    for (const auto& [x, y] : corners) ring.push_back({g(x), g(y)});
    return Region::from_rings({ring});
}

Region disc(double x, double y, double radius) {
    Ring ring;
    constexpr int corners = 720;
    for (int i = 0; i < corners; ++i) {
        const double a = i * 2 * std::numbers::pi / corners;
        ring.push_back({g(x + radius * std::cos(a)), g(y + radius * std::sin(a))});
    }
    return Region::from_rings({ring});
}

// Where a mask of one piece as long as a mat and a half is parted.
double parted_at(const Region& shape, Way way = Way::PaintThrough) {
    MakingPlan making;
    making.way = way;
    making.margin = 0.5_in;
    making.lap = 0.125_in;
    const Box face = grown(shape.bounds(), 3_in);
    const Room room{11.5_in, 23.5_in};
    const LoadsPlan plan = plan_loads({{shape, "J", 0, true, 0}}, face, {"mat", 12_in, 24_in, room}, making, {});
    REQUIRE(plan.seams.size() == 1);
    REQUIRE(plan.crossings == 1);
    return inches(plan.seams.front().where);
}

}  // namespace

TEST_CASE("a cut shows by its length in the ink, and more at thin strokes, slants, curves and keepers") {
    const Region bar = Region::rectangle(box_in(0, 0, 10, 1));
    CHECK(cut(bar, 5) == CutAcross{1_in, 1_in});
    const Region hair = Region::rectangle(box_in(0, 0, 10, 0.125));
    CHECK(cut(hair, 5) == CutAcross{0.125_in, 0.5_in});
    // A bar at 45 degrees, as high where it is cut: both edges step by what the laps are off.
    const Region slanted = from({{0, 0}, {10, 10}, {10, 11}, {0, 1}});
    CHECK(cut(slanted, 5).ink == 1_in);
    CHECK(cut(slanted, 5).shows.in_inches() == Approx(1.25));
    // Near its side a disc's outline runs along the cut.
    const Region round = disc(5, 5, 4);
    CHECK(cut(round, 5).shows.in_inches() == Approx(8).margin(0.02));
    const CutAcross side = cut(round, 1.05);
    CHECK(side.shows - side.ink > 0.4_in);
    const Region ring = subtract(round, disc(5, 5, 3));
    CHECK(cut(ring, 5, true).shows - cut(ring, 5, false).shows == 4_in);
    CHECK(cut(ring, 1.5, true) == cut(ring, 1.5, false));
    CHECK(cut(bar, 20) == CutAcross{});
    // Across a grid rather than along one of its lines: more keepers, far less ink.
    std::vector<Region> lines;
    for (int i = 0; i <= 7; ++i) {
        lines.push_back(Region::rectangle(box_in(0, 3 * i, 21.25, 3 * i + 0.25)));
        lines.push_back(Region::rectangle(box_in(3 * i, 0, 3 * i + 0.25, 21.25)));
    }
    const Region grid = merge(lines);
    CHECK(cut(grid, 10.5, true) == CutAcross{2_in, 12_in});
    CHECK(cut(grid, 9.125, true).shows == 21.25_in);
}

TEST_CASE("what is longer than the mat is parted beside its keeper, its hairs and its curves") {
    // An eye where least ink is, in a bar that is too long: the mask is parted beside it, the decal through it.
    const Region eyed = subtract(Region::rectangle(box_in(0, 0, 36, 3)), Region::rectangle(box_in(16, 0.25, 20, 2.75)));
    const double mask = parted_at(eyed);
    CHECK((mask <= 16 || mask >= 20));
    const double decal = parted_at(eyed, Way::Decal);
    CHECK((decal > 16 && decal < 20));
    // A hair beside a stroke of a quarter of an inch.
    const Region hairy =
        merge(std::vector<Region>{Region::rectangle(box_in(0, 0, 16, 3)), Region::rectangle(box_in(16, 1, 18, 1.0625)),
                                  Region::rectangle(box_in(18, 1, 20, 1.25)), Region::rectangle(box_in(20, 0, 36, 3))});
    const double stroke = parted_at(hairy);
    CHECK((stroke > 18 && stroke < 20));
    // A stroke that runs at a slant is a little shorter to cut than the level one beside it.
    const Region bent =
        merge(std::vector<Region>{Region::rectangle(box_in(0, 0, 18, 0.9)), Region::rectangle(box_in(24, 4, 36, 4.9)),
                                  from({{18, 0}, {24, 4}, {24, 4.8}, {18, 0.8}})});
    const double level = parted_at(bent);
    CHECK(level <= 18);
}
