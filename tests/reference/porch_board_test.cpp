// The slice's job against arithmetic of the test's own.
#include "job/commands.h"
#include "sheets/sheets.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

TEST_CASE("the porch board: 3 sections, 2 loads, no ink crossed, 5 keepers, at most 38 in of film") {
    const Plan plan = plan_of(porch_board());
    const ColourPlan& face = plan.colours.front();
    const LoadsPlan& loads = *face.cut.loads;
    CHECK(loads.sections.size() == 3);
    CHECK(loads.loads.size() == 2);
    CHECK(loads.crossings == 0);
    CHECK(loads.keepers == 5);  // B two, O, A, O
    // Three masks of three letters would need twice 3 x 5 1/8 and 2 gaps, with a margin: 19 in each.
    CHECK(loads.film_total <= 38_in);

    // Masks must cover 51 in of ink and its margins of 1 in, 5 1/2 wide: 291 1/2 sq in; a mat holds 11 1/2 x 23 1/2 =
    // 270 1/4.
    CHECK((51 + 2 * 1) * 5.5 > 11.5 * 23.5);
    CHECK(loads.least_loads == 2);
    CHECK(loads.proved);

    // Two columns of 5 1/2 side by side with 1/4 between: 11 1/4 of 11 1/2.
    REQUIRE(loads.loads.front().placements.size() == 2);
    CHECK(5.5 + 0.25 + 5.5 <= 11.5);
    CHECK(loads.loads.front().placements[0].at.y == loads.loads.front().placements[1].at.y);
}

TEST_CASE("the porch board: all ink between 4 and 55 in from the bottom") {
    const Plan plan = plan_of(porch_board());
    const Box ink = plan.colours.front().face->lettering->ink;
    CHECK(ink.low.y >= to_grid(4_in));
    CHECK(ink.high.y <= to_grid(55_in));
    CHECK(inches(ink.height()) == Approx(60 - 5 - 4).margin(0.002));
    CHECK(inches(ink.low.x) >= 0.375);
    CHECK(inches(ink.high.x) <= 5.5 - 0.375);
}

TEST_CASE("the porch board: letters and placement distances by hand") {
    const Plan plan = plan_of(porch_board());
    const ColourPlan& face = plan.colours.front();
    // Nine letters and eight gaps of 9/16 fill 51 in; round letters overshoot a little, so flat ones are a little less.
    const double each = (51 - 8 * 0.5625) / 9;
    CHECK(face.face->lettering->cap_height.in_inches() == Approx(each).epsilon(0.02));
    // BOAT ends four letters and three gaps below 55; the seam lies in the gap that follows.
    double gap_from = 1000, gap_to = 0;
    for (const PlacedLetter& letter : face.face->lettering->letters) {
        const Box b = letter.ink.bounds();
        if (letter.index == 3) gap_from = inches(b.low.y);
        if (letter.index == 4) gap_to = inches(b.high.y);
    }
    CHECK(gap_from - gap_to == Approx(0.5625).margin(0.002));
    REQUIRE(face.cut.loads->seams.size() == 2);
    const double seam = inches(face.cut.loads->seams.front().where);
    CHECK(seam < gap_from);
    CHECK(seam > gap_to);
    const auto [low, high] = corners(face.cut.loads->sections.front(), face.face->blank->face);
    CHECK(low.from_bottom.in_inches() == Approx(seam - 0.0625));     // half the lap below the seam
    CHECK(high.from_top.in_inches() == Approx(5 - 1).margin(0.01));  // the margin of a sponge above the ink
    CHECK(low.from_left == Length{});
    CHECK(high.from_right == Length{});
    // 1/16 off the neighbour's ink.
    CHECK(low.from_bottom.in_inches() >= gap_to + 0.0625 - 1e-9);
}

TEST_CASE("the porch board: waits on the deciding chain, added by hand from the table, and the start that follows") {
    const Job job = porch_board();
    const Plan plan = plan_of(job);
    const int waits = 2 * 60      // chalk-type paint, next coat
                      + 12 * 60   // film on chalk-type paint, least
                      + 30        // seal, dry to the touch
                      + 15        // colour through a mask, between two coats
                      + 15        // soft lift, from
                      + 4 * 60    // craft acrylic, paint over it
                      + 2 * 60    // water-based clear, next coat
                      + 24 * 60;  // before use outdoors
    CHECK(plan.clock->chain_waits == Minutes(waits));
    CHECK(plan.clock->chain.size() == 8);
    // By hand, backwards from Saturday noon: it hangs on Saturday morning, so the last clear is over by Friday noon at
    // the latest: Thursday evening. Two clears with two hours between fill Thursday, four hours and more after the
    // lift: Wednesday evening, which lay, seal, two coats and lift fill to the minute (15 + 15 + 8, 19, 30 wait, 28, 15
    // wait, 28, 15 wait, 3 x 2 = 179 of 180 minutes). The second ground coat on Tuesday; the first one late on Monday,
    // since two hours are between: sanding (19 min) and its 24 minutes from 20:47 at the latest, and weeding and
    // cutting on Tuesday.
    REQUIRE(plan.clock->start_by);
    CHECK(std::chrono::floor<std::chrono::days>(*plan.clock->start_by) ==
          std::chrono::floor<std::chrono::days>(moment("2026-05-04")));
    CHECK(*plan.clock->start_by >= moment("2026-05-04T20:40"));
    CHECK_FALSE(plan.clock->late);
    CHECK(plan_of(job, "2026-05-05T18:00").clock->late);
}

TEST_CASE("the porch board: finished, it is in the plan as done") {
    Job job = porch_board();
    const Shop shop = usual_shop();
    for (int i = 0; i < 100; ++i) {
        const Plan plan = plan_of(job);
        const Step* next = plan.bench->next();
        if (next == nullptr) break;
        job = tick(job, plan, next->id, next->start + next->hands_on);
    }
    const Plan done = plan_of(job, "2026-05-09T09:00");
    CHECK(done.bench->next() == nullptr);
    CHECK(done.bench->done() == done.bench->steps.size());
    CHECK(done.clock->hands_on == Minutes(0));
    CHECK(done.colours.front().cut.loads->misfits.empty());
    CHECK(job.bench.cut.size() == 2);
}

TEST_CASE("the second job takes the same path: a 1x10 of 72 in, two level lines, decal") {
    const Plan plan = plan_of(long_board());
    const ColourPlan& face = plan.colours.front();
    CHECK(face.face->blank->width == 9.25_in);  // PS 20: a nominal 10 measures 9 1/4 (from memory)
    const Box ink = face.face->lettering->ink;
    CHECK(inches(ink.low.x) >= 6);
    CHECK(inches(ink.high.x) <= 72 - 6);
    CHECK(inches(ink.width()) == Approx(60).margin(0.01));  // the longer line fills the room
    CHECK(face.cut.loads->crossings == 0);
    CHECK(face.cut.loads->keepers == 0);
    // No section reaches further than the mat, and ink of 60 in needs three lengths of 23 1/2 at least.
    CHECK(face.cut.loads->sections.size() >= 3);
    CHECK(plan.bench->steps.size() == plan.tasks->size());
}
