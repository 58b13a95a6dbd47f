// Contrast is judged against what really lies below the ink.
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

double contrast_of(const Plan& plan) { return std::get<double>(plan.colours.front().method->facts.at("contrast")); }

bool told(const Plan& plan, const char* where) {
    return std::any_of(plan.problems.begin(), plan.problems.end(), [&](const Problem& p) {
        return p.what.id == "rule.low-contrast" && library().catalogue.say(p.what, {}).find(where) != std::string::npos;
    });
}

}  // namespace

TEST_CASE("ink on a painted band is judged against the band, on several grounds against the worst, which is named") {
    Job job = panel_job("TERN", "30", "12");
    coat_in(job, ground_coat).colour = "#f4f1ea";  // light ground
    job.signs.front().faces.front().colours.front().paint.colour = "#ffffff";
    CHECK(contrast_of(plan_of(job)) < 2);
    CHECK(told(plan_of(job), "the ground"));
    // A dark band as high as the letters and more: white stands out, though nobody said that the words belong to it.
    Blank& b = job.signs.front().blank;
    b.fields.push_back(
        {.middle = measure("6"), .depth = measure("11"), .colour = "#12263a", .colour_name = "night blue"});
    CHECK(contrast_of(plan_of(job)) > 7);
    // A narrow band crosses them: the light ground above and below it is the worst.
    b.fields.front().depth = measure("1");
    CHECK(contrast_of(plan_of(job)) < 2);
    CHECK(told(plan_of(job), "the ground"));
    // Dark letters on it the other way round: the band is the worst, and named.
    job.signs.front().faces.front().colours.front().paint.colour = "#101010";
    CHECK(contrast_of(plan_of(job)) < 3);
    CHECK(told(plan_of(job), "night blue"));
    // A band that the letters do not touch changes nothing.
    b.fields.front().middle = measure("1/4");
    b.fields.front().depth = measure("1/4");
    CHECK(contrast_of(plan_of(job)) > 7);
}
