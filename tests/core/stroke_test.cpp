#include <rapidcheck.h>

#include <numbers>

#include "geometry/stroke.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

Point mm(double x, double y) { return {std::llround(x * 8000), std::llround(y * 8000)}; }

double area(const Ring& line, bool closed, const Stroke& stroke) {
    return stroked({line}, {closed}, stroke).area_mm2();
}

}  // namespace

TEST_CASE("corners are sharp, cut or round as they are asked for, by their areas") {  // plane geometry
    // Two arms of 10 mm at a right angle, 2 mm wide: 2 x 20 sq mm, less the square in both, and the corner outside.
    const Ring angle{mm(10, 0), mm(0, 0), mm(0, 10)};
    const double arms = 2 * 20 - 1;
    const Length wide = Length::from_mm(2);
    CHECK(area(angle, false, {wide, {}, Stroke::Corners::Cut}) == Approx(arms + 0.5).epsilon(1e-4));
    CHECK(area(angle, false, {wide, {}, Stroke::Corners::Sharp}) == Approx(arms + 1).epsilon(1e-4));
    CHECK(area(angle, false, {wide, {}, Stroke::Corners::Round}) == Approx(arms + std::numbers::pi / 4).epsilon(1e-3));
    // A right angle reaches the square root of two: beyond a limit below that it is cut.
    CHECK(area(angle, false, {wide, {}, Stroke::Corners::Sharp, 1.4}) == Approx(arms + 0.5).epsilon(1e-4));
    CHECK(area(angle, false, {wide, {}, Stroke::Corners::Sharp, 1.42}) == Approx(arms + 1).epsilon(1e-4));
    // A square frame: sharp all round, or with its four corners cut off.
    const Ring square{mm(0, 0), mm(20, 0), mm(20, 20), mm(0, 20)};
    CHECK(area(square, true, {wide}) == Approx(22 * 22 - 18 * 18).epsilon(1e-4));
    CHECK(area(square, true, {wide, {}, Stroke::Corners::Cut}) == Approx(22 * 22 - 18 * 18 - 4 * 0.5).epsilon(1e-4));
    // Ends: flat, square, round.
    const Ring line{mm(0, 0), mm(10, 0)};
    CHECK(area(line, false, {wide}) == Approx(20).epsilon(1e-4));
    CHECK(area(line, false, {wide, Stroke::Ends::Square}) == Approx(24).epsilon(1e-4));
    CHECK(area(line, false, {wide, Stroke::Ends::Round}) == Approx(20 + std::numbers::pi).epsilon(3e-3));
    // Back the way it came: as wide as one way, whatever the corner.
    for (const auto corner : {Stroke::Corners::Cut, Stroke::Corners::Sharp})
        CHECK(area({mm(0, 0), mm(10, 0), mm(4, 0)}, false, {wide, {}, corner}) == Approx(20).epsilon(1e-4));
    // A line without length is a dot where its ends stand out, and nothing where they are flat.
    CHECK(area({mm(3, 3)}, false, {wide}) == 0);
    CHECK(area({mm(3, 3), mm(3, 3)}, true, {wide, Stroke::Ends::Square}) == Approx(4).epsilon(1e-4));
    CHECK(area({mm(3, 3)}, false, {wide, Stroke::Ends::Round}) == Approx(std::numbers::pi).epsilon(2e-2));
}

TEST_CASE("a cut corner lies within the sharp one, and both hold the line's own width") {
    REQUIRE(rc::check([] {
        Ring line;
        const int n = *rc::gen::inRange(2, 7);
        for (int i = 0; i < n; ++i) line.push_back(mm(*rc::gen::inRange(0, 60), *rc::gen::inRange(0, 60)));
        const bool closed = *rc::gen::arbitrary<bool>();
        const Length wide = Length::from_mm(*rc::gen::inRange(1, 6));
        const Region cut = stroked({line}, {closed}, {wide, {}, Stroke::Corners::Cut});
        const Region sharp = stroked({line}, {closed}, {wide, {}, Stroke::Corners::Sharp, 1000});
        const Region round = stroked({line}, {closed}, {wide, {}, Stroke::Corners::Round});
        constexpr double rounding_mm2 = 0.5;  // arcs are within 0.01 mm
        RC_ASSERT(subtract(cut, round).area_mm2() < rounding_mm2);
        RC_ASSERT(subtract(cut, sharp).area_mm2() < rounding_mm2);
    }));
}
