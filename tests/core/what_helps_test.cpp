#include "job/what_helps.h"

#include <set>

#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

TEST_CASE("what would help a late job is tried, gains what it says, and the cheapest that is in time comes first") {
    Job job = porch_board();
    job.deadline = moment("2026-05-07T22:00");
    const Shop shop = usual_shop();
    const Moment now = moment("2026-05-04T18:00");
    const Plan as_it_is = plan(job, shop, library(), now);
    REQUIRE(as_it_is.clock->late);
    const std::vector<Help> helps = what_helps(job, shop, library(), now);
    REQUIRE(helps.size() >= 2);
    std::set<std::string> kinds;
    for (const Help& h : helps) {
        INFO(h.what.id);
        kinds.insert(h.what.id);
        const Plan then = plan(h.job, h.shop, library(), now);
        CHECK(then.clock->ready == h.ready);
        CHECK(h.gained > Minutes(0));
        CHECK(as_it_is.clock->ready - h.ready == h.gained);
        CHECK(then.clock->hands_on - as_it_is.clock->hands_on == h.hands_on);
        CHECK(h.in_time == !then.clock->late);
        CHECK((h.of_shop ? h.job == job : h.shop == shop));
        CHECK(library().catalogue.say(h.what, {}).find(h.what.id) == std::string::npos);
    }
    CHECK(kinds.contains("help.clear-less"));
    CHECK(kinds.contains("help.hours"));
    CHECK(std::count_if(helps.begin(), helps.end(), [](const Help& h) { return h.what.id == "help.hours"; }) <= 1);
    for (std::size_t i = 1; i < helps.size(); ++i) {
        CHECK(helps[i - 1].in_time >= helps[i].in_time);
        if (helps[i - 1].in_time == helps[i].in_time) CHECK(helps[i - 1].hands_on <= helps[i].hands_on);
    }
    CHECK(what_helps(new_job(library()), shop, library(), now).empty());
    std::stop_source stopped;
    stopped.request_stop();
    CHECK(what_helps(job, shop, library(), now, stopped.get_token()).empty());
}

TEST_CASE("a late decal under clear is helped by clear below it, three days sooner") {
    Job job = long_board();
    job.deadline = moment("2026-05-08T22:00");
    const std::vector<Help> helps = what_helps(job, usual_shop(), library(), moment("2026-05-04T18:00"));
    const auto under =
        std::find_if(helps.begin(), helps.end(), [](const Help& h) { return h.what.id == "help.clear-under"; });
    REQUIRE(under != helps.end());
    CHECK(under->gained >= std::chrono::hours(48));
    CHECK(std::none_of(helps.begin(), helps.end(), [](const Help& h) { return h.what.id == "help.decal"; }));
}
