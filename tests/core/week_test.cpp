// The week of the rack: all jobs on one pair of hands.
#include "clock/week.h"

#include <rapidcheck.h>

#include "job/on_the_rack.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

const Moment week_monday = moment("2026-05-04T18:00");

RackJob on_rack(const Job& job, const std::string& name) {
    Job named = job;
    named.title = name;
    return on_the_rack(named, plan(named, usual_shop(), library(), week_monday), week_monday);
}

}  // namespace

TEST_CASE("what is wanted soonest takes its hours first, and what it crowds out is told") {
    Job soon = porch_board();
    soon.deadline = moment("2026-05-09T12:00");
    Job later = long_board();
    later.deadline = moment("2026-05-12T12:00");
    const std::vector<RackJob> jobs = {on_rack(later, "later"), on_rack(soon, "soon")};
    const RackWeek week = rack_week(jobs);
    REQUIRE(week.standings.size() == 2);
    CHECK(week.standings[0].job == 1);
    CHECK(week.standings[0].ready == week.standings[0].ready_alone);
    CHECK_FALSE(week.standings[0].late);
    CHECK(week.standings[1].ready >= week.standings[1].ready_alone);
    // The other way round the porch board gives way.
    const RackWeek turned = rack_week(jobs, {0});
    CHECK(turned.standings[0].job == 0);
    CHECK(turned.standings[1].ready > week.standings[0].ready);
    CHECK(turned.standings[1].late);
    CHECK(turned.standings[1].crowded_out);
    // Today is Monday evening: sanding comes first.
    const auto today = of_the_day(week, week_monday);
    REQUIRE_FALSE(today.empty());
    CHECK(week.slots[today.front()].job == 1);
    CHECK(rack_week({}).slots.empty());
    // What is wanted sooner keeps its hours free of the other, from now on and on the hours as they are now.
    const Shop shop = usual_shop();
    const auto kept = hours_of_others(jobs, {later.deadline, {}}, shop, week_monday);
    REQUIRE_FALSE(kept.empty());
    CHECK(hours_of_others(jobs, {soon.deadline, {}}, shop, week_monday).empty());
    const Moment wednesday = moment("2026-05-06T12:00");
    const auto moved = hours_of_others(jobs, {later.deadline, {}}, shop, wednesday);
    CHECK(std::all_of(moved.begin(), moved.end(), [&](const Interval& i) { return i.from >= wednesday; }));
    Shop mornings = shop;
    for (auto& day : mornings.hours.days) day = {{8 * 60, 11 * 60}};
    for (const Interval& i : hours_of_others(jobs, {later.deadline, {}}, mornings, week_monday))
        CHECK(i.from - std::chrono::floor<std::chrono::days>(i.from) < std::chrono::hours(11));
    CHECK(rack_week(jobs, {7}).standings.size() == 2);  // a job that is not there
}

TEST_CASE("property: no two jobs want the hands at once, and every job keeps its own waits and hours") {
    CHECK(rc::check([] {
        std::vector<RackJob> jobs;
        const auto count = *rc::gen::inRange(1, 5);
        for (int j = 0; j < count; ++j) {
            std::vector<Task> tasks;
            const auto n = *rc::gen::inRange<std::size_t>(1, 8);
            for (std::size_t i = 0; i < n; ++i) {
                Task t;
                t.id.name = std::to_string(i);
                t.hands_on = Minutes(*rc::gen::inRange(5, 90));
                if (i > 0 && *rc::gen::arbitrary<bool>())
                    t.waits.push_back(
                        {*rc::gen::inRange<std::size_t>(0, i), Minutes(*rc::gen::inRange(0, 900)), {}, {}});
                tasks.push_back(t);
            }
            ClockInput clock{Shared<std::vector<Task>>(tasks), usual_shop().hours, {}, {}, {}, week_monday};
            if (*rc::gen::arbitrary<bool>()) clock.deadline = week_monday + std::chrono::days(*rc::gen::inRange(1, 9));
            jobs.push_back({"job", clock});
        }
        const RackWeek week = rack_week(jobs);
        std::size_t all = 0;
        for (const RackJob& j : jobs) all += j.clock.tasks->size();
        RC_ASSERT(week.slots.size() == all);
        for (std::size_t i = 0; i < week.slots.size(); ++i) {
            const Slot& s = week.slots[i].slot;
            if (i > 0) RC_ASSERT(s.start >= week.slots[i - 1].slot.end);
            const Task& task = (*jobs[week.slots[i].job].clock.tasks)[s.task];
            for (const Wait& w : task.waits) {
                const auto before = std::find_if(week.slots.begin(), week.slots.end(), [&](const RackSlot& o) {
                    return o.job == week.slots[i].job && o.slot.task == w.after;
                });
                RC_ASSERT(s.start >= before->slot.end + w.at_least);
            }
        }
        for (const Standing& s : week.standings) {
            const auto& deadline = jobs[s.job].clock.deadline;
            RC_ASSERT(s.late == (deadline && s.ready > *deadline));
            RC_ASSERT(!s.crowded_out || s.ready_alone <= *deadline);
        }
    }));
}
