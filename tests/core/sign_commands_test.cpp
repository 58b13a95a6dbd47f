// Signs for lines, and one cap height for all of them.
#include "job/sign_commands.h"

#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

TEST_CASE("four lines make four signs in their order, and all of them get the smallest cap height") {
    Job job = panel_job("", "24", "6");
    job = signs_for_lines(job, 0, {"SLIPWAY", "", "  TEA ROOM ", "CHANDLERY", "LOST OARS\r"});
    REQUIRE(job.signs.size() == 4);
    std::vector<std::string> words;
    std::set<SignId> ids;
    for (const Sign& s : job.signs) {
        words.push_back(s.faces.front().lettering.main().words);
        ids.insert(s.id);
    }
    CHECK(words == std::vector<std::string>{"SLIPWAY", "TEA ROOM", "CHANDLERY", "LOST OARS"});
    CHECK(ids.size() == 4);
    const auto caps = [](const Plan& plan) {
        std::vector<Length> all;
        for (const ColourPlan& c : plan.colours) all.push_back(c.face->lettering->cap_height);
        return all;
    };
    const Plan before = plan_of(job);
    const auto own = caps(before);
    CHECK(*std::min_element(own.begin(), own.end()) < *std::max_element(own.begin(), own.end()));
    const Job alike = at_one_cap_height(job, before, {});
    const auto same = caps(plan_of(alike));
    for (const Length cap : same) CHECK(cap == same.front());
    CHECK(same.front() <= *std::min_element(own.begin(), own.end()));
    CHECK(same.front() > *std::min_element(own.begin(), own.end()) - 0.125_in);
    // Without words, or on a sign that is not there, nothing changes.
    CHECK(signs_for_lines(job, 0, {"", " "}) == job);
    CHECK(signs_for_lines(job, 9, {"A"}) == job);
    const Job bare = panel_job("", "24", "6");
    CHECK(at_one_cap_height(bare, plan_of(bare), {}) == bare);
}
