#include "loads/machines.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

FilmStock film(const char* width, const char* left, bool roll = false) {
    return {"removable-matt", "", "end", measure(width).value, measure(left).value, roll};
}

}  // namespace

TEST_CASE("beds: every mat and roll by its machine, two short ones taped, pages last") {
    const auto beds = beds_of(usual_machines());
    std::vector<std::string> names;
    for (const Mat& bed : beds) names.push_back(bed.machine + ": " + bed.name);
    CHECK(names == std::vector<std::string>{"12-inch cutter: 12 × 24", "12-inch cutter: 12 × 12",
                                            "12-inch cutter: roll", "narrow cutter: 4 1/2 × 12", "narrow cutter: roll",
                                            "16-inch cutter: roll", "12-inch cutter: 12 × 12, two taped together",
                                            "12-inch cutter: printed page", "16-inch cutter: printed page"});
    // Taped end to end, only the far edges are lost: 12 + 11 1/2 of 24.
    CHECK(beds[6].usable.along == 23.5_in);
    CHECK(beds[6].length == 24_in);
    CHECK(beds[6].taped);
    // A letter page within its marks (common practice).
    CHECK(beds[7].usable.across == 6.75_in);
    CHECK(beds[7].usable.along == 9.25_in);
    CHECK(beds_of({}).empty());
}

TEST_CASE("a film narrows its bed, and no film widens one") {
    CHECK(rc::check([] {
        const Mat bed = *rc::gen::elementOf(beds_of(usual_machines()));
        FilmStock f = film("6", "10");
        f.width = Length::sixtyfourths(*rc::gen::inRange(0, 64 * 20));
        f.left = Length::sixtyfourths(*rc::gen::inRange(0, 64 * 40));
        f.roll = *rc::gen::arbitrary<bool>();
        f.patterned = *rc::gen::arbitrary<bool>();
        const bool seen = *rc::gen::arbitrary<bool>();
        const Mat out = narrowed(bed, f, seen);
        RC_ASSERT(out.usable.across <= bed.usable.across && out.usable.along <= bed.usable.along);
        RC_ASSERT(out.usable.across >= Length{} && out.usable.along >= Length{});
        RC_ASSERT(out.usable.turns == !(f.patterned && seen));
        // How long a roll still is bounds no load; a sheet does.
        if (f.roll || bed.print) RC_ASSERT(out.usable.along == bed.usable.along);
        if (!bed.print && f.width > Length{}) RC_ASSERT(out.usable.across <= f.width);
        if (!bed.print && !f.roll && f.width > Length{}) RC_ASSERT(out.usable.along <= f.left);
        RC_ASSERT(narrowed(out, f, seen) == out);
    }));
}

TEST_CASE("a load is cut from the smallest leftover that holds it, either way round") {
    std::vector<FilmStock> drawer{film("12", "60", true), film("12", "20"), film("8", "6"), film("6", "8")};
    const auto from = [&](Length across, Length along, const std::string& colour = "") {
        return leftover_for(drawer, "removable-matt", colour, across, along);
    };
    CHECK(from(5.5_in, 7.5_in) == 2);  // turned; of two as large the first
    CHECK(from(7.5_in, 5.5_in) == 2);
    CHECK(from(9_in, 6_in) == 1);
    CHECK(from(21_in, 6_in) == std::nullopt);  // a roll is no leftover
    CHECK(leftover_for(drawer, "stencil-smooth", "", 1_in, 1_in) == std::nullopt);
    drawer[2].colour = "#112233";
    CHECK(from(5.5_in, 7.5_in, "#ffffff") == 3);  // another colour does not do for a decal
    CHECK(from(5.5_in, 7.5_in) == 2);             // any colour does for a mask
    drawer[2].colour.clear();
    drawer[2].patterned = drawer[3].patterned = true;
    CHECK(from(5.5_in, 7.5_in, "#ffffff") == 3);  // a pattern that is seen is not turned
    drawer[3].repeat_along = 2_in;
    CHECK(from(5.5_in, 7.5_in, "#ffffff") == 1);  // nor known where it begins
}
