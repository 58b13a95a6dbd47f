// Blanks against formulas with worked numbers, tables and solvers outside the project.
#include <geos_c.h>

#include <cmath>
#include <numbers>

#include "blank/blank.h"
#include "blank/cutting.h"
#include "blank/marking.h"
#include "blank/room.h"
#include "support_blank.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

// A second solver for small cases: every way to put each piece into one of the boards.
int fewest_by_force(std::vector<std::int64_t> pieces, std::int64_t board, std::vector<std::int64_t> rooms = {}) {
    if (pieces.empty()) return static_cast<int>(rooms.size());
    const std::int64_t piece = pieces.back();
    pieces.pop_back();
    int best = 1000;
    for (std::size_t i = 0; i < rooms.size(); ++i) {
        if (rooms[i] < piece) continue;
        auto next = rooms;
        next[i] -= piece;
        best = std::min(best, fewest_by_force(pieces, board, next));
    }
    rooms.push_back(board - piece);
    return std::min(best, fewest_by_force(pieces, board, rooms));
}

}  // namespace

TEST_CASE("chord, sagitta and pins of arcs") {
    // The chord 2 sqrt(r^2 - d^2): an 18 in round with a band of 5 in through its middle leaves 17.29 in.
    CHECK(chord(9_in, 2.5_in).in_inches() == Approx(17.29).margin(0.005));
    Blank round = blank_of(Kind::Round, "18", "18");
    round.fields.push_back({.middle = measure("9"), .depth = measure("5")});
    CHECK(from_grid(measured(round).rooms.front().box.width()).in_inches() == Approx(17.29).margin(0.01));
    // The sagitta r - sqrt(r^2 - s^2/4) gives the rise back: span 48, rise 12 has the radius 30.
    CHECK(arc_radius(48_in, 12_in) == 30_in);
    CHECK(30 - std::sqrt(30. * 30 - 24. * 24) == Approx(12));
    // An equilateral pointed arch (rise = span * sqrt(3)/2) has its pins at the springing points.
    CHECK(pointed_pin(48_in, Length::from_mm(48 * 25.4 * std::sqrt(3) / 2)).in_inches() == Approx(24).margin(1e-6));
}

TEST_CASE("the pin of a half round arch is the height less half the width up") {  // common practice
    const Blank arch = blank_of(Kind::Arch, "84", "48");
    const Marking m = marking_out(arch, measured(arch));
    REQUIRE(m.pins.size() == 1);
    CHECK(from_grid(m.pins[0].at.y) == 60_in);
    CHECK(from_grid(m.pins[0].at.x) == 24_in);
    CHECK(m.pins[0].string == 24_in);
}

TEST_CASE("every pin's string reaches the outline that it draws") {
    for (const auto& [style, rise] :
         {std::pair{ArchStyle::HalfRound, "24"}, {ArchStyle::Segmental, "9"}, {ArchStyle::Pointed, "40"}}) {
        Blank arch = blank_of(Kind::Arch, "84", "48");
        arch.arch = {style, measure(rise)};
        const BlankPlan p = measured(arch);
        for (const Pin& pin : marking_out(arch, p).pins) {
            int on_arc = 0;
            for (const Point& q : p.outline.rings().front()) {
                const double mm = std::hypot(grid_to_mm(q.x - pin.at.x), grid_to_mm(q.y - pin.at.y));
                on_arc += std::abs(mm - pin.string.in_mm()) < 0.02 ? 1 : 0;
            }
            CHECK(on_arc > 20);
        }
    }
}

TEST_CASE("areas by formula and by GEOS") {
    const auto in2 = [](const BlankPlan& p) { return p.outline.area_mm2() / 645.16; };
    constexpr double pi = std::numbers::pi;
    CHECK(in2(measured(blank_of(Kind::Round, "18", "18"))) == Approx(pi * 81).epsilon(1e-4));
    CHECK(in2(measured(blank_of(Kind::Arch, "84", "48"))) == Approx(48 * 60 + pi * 24 * 24 / 2).epsilon(1e-4));
    Blank arch = blank_of(Kind::Arch, "84", "48");
    arch.arch = {ArchStyle::Pointed, measure("41.5692193816531")};
    // An equilateral pointed arch of span s: two sectors of 60 degrees less the triangle between them.
    CHECK(in2(measured(arch)) == Approx(48 * (84 - 41.56921938) + 48 * 48 * (pi / 3 - std::sqrt(3) / 4)).epsilon(1e-4));
    Blank arrow = blank_of(Kind::Arrow, "9 1/4", "3");
    arrow.head.overlap = measure("1/4");
    // Body and head, less where they lie over each other: by GEOS.
    GEOSContextHandle_t geos = GEOS_init_r();
    GEOSWKTReader* reader = GEOSWKTReader_create_r(geos);
    GEOSGeometry* body = GEOSWKTReader_read_r(geos, reader, "POLYGON((0 0.75,9.25 0.75,9.25 3.75,0 3.75,0 0.75))");
    GEOSGeometry* head = GEOSWKTReader_read_r(geos, reader, "POLYGON((9 0,11.75 2.25,9 4.5,9 0))");
    GEOSGeometry* both = GEOSUnion_r(geos, body, head);
    double area = 0;
    GEOSArea_r(geos, both, &area);
    CHECK(in2(measured(arrow)) == Approx(area).epsilon(1e-4));
    for (GEOSGeometry* g : {body, head, both}) GEOSGeom_destroy_r(geos, g);
    GEOSWKTReader_destroy_r(geos, reader);
    GEOS_finish_r(geos);
}

TEST_CASE("the square in a circle is its largest rectangle") {  // geometry: half the product of the diagonals
    const Box box = largest_rectangle(circle({0, 0}, 9_in));
    CHECK(from_grid(box.width()).in_inches() == Approx(18 / std::sqrt(2)).epsilon(0.01));
    const double best = 162;
    CHECK(from_grid(box.width()).in_inches() * from_grid(box.height()).in_inches() == Approx(best).epsilon(0.005));
}

FramePlan cut(const Frame& frame, Length across, Length up) {
    FramePlan plan = frame_sizes(frame, across, up);
    cut_frame(plan, frame);
    return plan;
}

TEST_CASE("a butt frame of 3/4 stock round a panel of 42 by 16") {  // common practice
    Frame f;
    f.kind = FrameKind::Butt;
    FramePlan p = cut(f, 42_in, 16_in);
    REQUIRE(p.cuts.size() == 2);
    CHECK(p.cuts[0].length == 16_in);
    CHECK(p.cuts[1].length == 43.5_in);
    // The same frame from its outside and from its inside.
    f.size_is = SizeIs::OverAll;
    p = cut(f, 43.5_in, 17.5_in);
    CHECK(p.bare_across == 42_in);
    CHECK(p.bare_up == 16_in);
    // Mitred: panel + 2 x seen - 2 x rebate + clearance.
    f = {FrameKind::Mitred, "1x2", measure("1 1/2"), measure("1/4"), measure("1/8"), SizeIs::Bare, false, false};
    p = cut(f, 24_in, 17_in);
    CHECK(p.cuts[1].length == 24_in + 3_in - 0.5_in + 0.125_in);
    CHECK(p.cuts[1].angle == 45);
    CHECK(p.free_across == p.over_across - 3_in);
    f.size_is = SizeIs::Free;
    CHECK(frame_sizes(f, p.free_across, p.free_up).bare_across == 24_in);
}

TEST_CASE("the paper-roll example needs 73 rolls") {  // a published worked example of cutting stock; from memory
    std::vector<Wanted> wanted;
    for (const auto& [width, count] : {std::pair{1380, 22},
                                       {1520, 25},
                                       {1560, 12},
                                       {1710, 14},
                                       {1820, 18},
                                       {1880, 18},
                                       {1930, 20},
                                       {2000, 10},
                                       {2050, 12},
                                       {2100, 14},
                                       {2140, 16},
                                       {2150, 18},
                                       {2200, 20}}) {
        wanted.push_back({Length::millimetres(width), count});
    }
    const CuttingPlan plan = cutting_plan(wanted, {Length::millimetres(5600)}, {});
    CHECK(plan.used == 73);
    CHECK(plan.least == 73);
    CHECK(plan.proved);
    std::vector<int> sawn(wanted.size());
    for (const SawnBoard& board : plan.boards) {
        Length used;
        for (const std::size_t i : board.pieces) {
            used += wanted[i].length;
            sawn[i] += board.boards;
        }
        CHECK(used + board.offcut == board.from);
    }
    for (std::size_t i = 0; i < wanted.size(); ++i) CHECK(sawn[i] == wanted[i].count);
}

TEST_CASE("no other way to saw uses fewer boards") {
    CHECK(rc::check([] {
        const auto kinds = *rc::gen::inRange<std::size_t>(1, 4);
        std::vector<Wanted> wanted;
        std::vector<std::int64_t> pieces;
        for (std::size_t i = 0; i < kinds; ++i) {
            const int inches = *rc::gen::inRange(8, 60);
            const int count = *rc::gen::inRange(1, 4);
            wanted.push_back({Length::inches(inches), count});
            // In eighths, with the kerf of each cut.
            pieces.insert(pieces.end(), static_cast<std::size_t>(count), inches * 8 + 1);
        }
        const CuttingPlan plan = cutting_plan(wanted, {72_in}, 0.125_in);
        RC_ASSERT(plan.used == fewest_by_force(pieces, 72 * 8 + 1));
        RC_ASSERT(plan.proved);
    }));
}

TEST_CASE("densities are specific gravity at 12 % moisture, and that moisture") {
    // Wood Handbook, USDA Forest Products Laboratory, mechanical properties of woods grown in the United States; from
    // memory.
    for (const auto& [id, gravity] : {std::pair{"white-pine", 0.35},
                                      {"pine", 0.40},
                                      {"cedar", 0.32},
                                      {"poplar", 0.42},
                                      {"oak", 0.63},
                                      {"maple", 0.63}}) {
        const auto& all = library().trade.densities;
        const auto at =
            std::find_if(all.begin(), all.end(), [id = std::string(id)](const Density& d) { return d.material == id; });
        REQUIRE(at != all.end());
        CHECK(at->kg_m3 == Approx(gravity * 1.12 * 1000).margin(0.6));
    }
    // A 1x12 of six feet in ponderosa pine: 0.75 x 11.25 x 72 in^3 is 9.955 l.
    Blank b = blank_of(Kind::Board, "72", "11 1/4");
    CHECK(measured(b).weight.grams == Approx(9.955 * 448).epsilon(0.001));
}

TEST_CASE("centre of gravity of a half disc and of a triangle") {
    // A half disc's lies 4 r / (3 pi) from its straight side.
    const Region half = subtract(circle({0, 0}, 9_in), Region::rectangle({at(-10_in, -10_in), at(10_in, 0_in)}));
    CHECK(from_grid(centroid(half).y).in_inches() == Approx(4 * 9 / (3 * std::numbers::pi)).epsilon(1e-4));
    const Region triangle = Region::from_rings({{at(0_in, 0_in), at(6_in, 0_in), at(0_in, 9_in)}});
    CHECK(from_grid(centroid(triangle).x).in_inches() == Approx(2).epsilon(1e-5));
    CHECK(from_grid(centroid(triangle).y).in_inches() == Approx(3).epsilon(1e-5));
}

TEST_CASE("tipping by moments") {
    // 10 kg with its centre 1 m up over a base of 0.5 m: 14.04 degrees; a push at 2 m: 10 x 9.80665 x 0.25 / 2.
    const Tipping t = tipping(10, 1000_mm, 250_mm, 2000_mm, 0);
    CHECK(t.angle_degrees == Approx(14.036).margin(0.001));
    CHECK(t.push_newton == Approx(12.258).margin(0.001));
    // Weight laid on the feet until a push of 20 N is held: (m + m') g a = F H.
    CHECK((10 + t.needed_grams / 1000.0) * 9.80665 * 0.25 == Approx(20 * 2).epsilon(1e-3));
    CHECK(tipping(10, 1000_mm, 250_mm, 2000_mm, t.needed_grams / 1000.0).push_newton == Approx(20).epsilon(1e-3));
}
