#include "job/variants.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

TEST_CASE("a job both ways is this very job but for the way, and the suggestion follows from what was found") {
    const Job job = porch_board();
    const ColourId colour = job.signs[0].faces[0].colours[0].id;
    const Moment at = moment("2026-05-04T18:00");
    const auto both = compare_ways(job, colour, usual_shop(), library(), at);
    REQUIRE(both);
    const Variant& decal = both->ways[0];
    const Variant& paint = both->ways[1];
    CHECK(paint.job == job);
    CHECK(*paint.plan == plan(job, usual_shop(), library(), at));
    Job made = job;
    make_as(making(made), Way::Decal, library().trade);
    CHECK(decal.job == made);
    CHECK(*decal.plan == plan(made, usual_shop(), library(), at));
    CHECK(decal.risks.bleed.likely == 0);
    CHECK(paint.risks.bleed.likely > 0);
    CHECK(decal.hands_on == decal.plan->clock->hands_on);
    // Common practice: 72 hours before clear goes over a decal make it the later one.
    CHECK(*decal.ready > *paint.ready);
    CHECK(std::any_of(paint.buy.begin(), paint.buy.end(), [](const Reason& r) { return r.id == "buy.colour"; }));
    CHECK(std::none_of(decal.buy.begin(), decal.buy.end(), [](const Reason& r) { return r.id == "buy.colour"; }));

    // On oil stain a decal does not hold: a mask does no better; sealed with clear below, both do.
    Job stained = job;
    coat_in(stained, ground_coat).coat = "gel-stain";
    finish_of(stained).seal = Seal::Clear;
    const auto on_stain = compare_ways(stained, colour, usual_shop(), library(), at);
    CHECK(on_stain->ways[0].looks > 0);
    if (on_stain->ways[0].worst != on_stain->ways[1].worst)
        CHECK((on_stain->suggested == Way::Decal) == (on_stain->ways[0].worst < on_stain->ways[1].worst));
    CHECK_FALSE(compare_ways(job, ColourId{"7"}, usual_shop(), library(), at));
    std::stop_source stop;
    stop.request_stop();
    CHECK_FALSE(compare_ways(job, colour, usual_shop(), library(), at, stop.get_token()));
}
