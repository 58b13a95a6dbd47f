// The network of least and greatest distances, and the fitting of blocks on the hours.
#include "clock/network.h"

#include <rapidcheck.h>
#include <random>

#include "clock/schedule.h"
#include "job/what_helps.h"
#include "support.h"
#include "support_clock.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

Minutes m(int minutes) { return Minutes(minutes); }

ClockInput on_evenings(std::vector<Task> tasks, const std::string& now = "2026-05-04T18:00") {
    return {Shared<std::vector<Task>>(std::move(tasks)), usual_shop().hours, {}, {}, {}, moment(now)};
}

const Slot& slot_of(const Schedule& s, std::size_t i) {
    return *std::find_if(s.slots.begin(), s.slots.end(), [&](const Slot& slot) { return slot.task == i; });
}

}  // namespace

TEST_CASE("bounds that cannot hold together are told as the shortest chain, and others are none") {
    CHECK(contradiction(2, {{0, 1, m(10), m(20)}}).empty());
    CHECK(contradiction(2, {{0, 1, m(30), std::nullopt}, {0, 1, std::nullopt, m(20)}}).size() == 2);
    // A long way round that is as tight as it can be, and one bound too many beside it.
    const std::vector<Bound> bounds = {{0, 1, m(10), m(10)},
                                       {1, 2, m(10), m(10)},
                                       {2, 3, m(10), m(10)},
                                       {0, 3, m(30), m(30)},
                                       {1, 3, m(25), std::nullopt}};
    const auto chain = contradiction(4, bounds);
    CHECK(chain.size() == 3);
    CHECK(std::count(chain.begin(), chain.end(), 4) == 1);
    CHECK_FALSE(minimal_network(4, bounds));
    CHECK(contradiction(0, {}).empty());
}

TEST_CASE("property: a network drawn from real moments holds, and its minimal bounds hold these moments") {
    CHECK(rc::check([] {
        const auto n = *rc::gen::inRange<std::size_t>(2, 8);
        std::vector<int> at;
        for (std::size_t i = 0; i < n; ++i) at.push_back(*rc::gen::inRange(0, 500));
        std::vector<Bound> bounds;
        for (std::size_t i = 0; i < n * 2; ++i) {
            const auto a = *rc::gen::inRange<std::size_t>(0, n), b = *rc::gen::inRange<std::size_t>(0, n);
            if (a == b) continue;
            bounds.push_back(
                {a, b, m(at[b] - at[a] - *rc::gen::inRange(0, 50)), m(at[b] - at[a] + *rc::gen::inRange(0, 50))});
        }
        RC_ASSERT(contradiction(n, bounds).empty());
        const auto minimal = minimal_network(n, bounds);
        RC_ASSERT(minimal.has_value());
        for (std::size_t i = 0; i < n; ++i) {
            for (std::size_t j = 0; j < n; ++j) RC_ASSERT(!(*minimal)[i][j] || *(*minimal)[i][j] >= m(at[j] - at[i]));
        }
        // Asking for more than the most breaks it.
        const auto i = *rc::gen::inRange<std::size_t>(0, n), j = *rc::gen::inRange<std::size_t>(0, n);
        if (i == j || !(*minimal)[i][j]) return;
        bounds.push_back({i, j, *(*minimal)[i][j] + m(1), std::nullopt});
        RC_ASSERT(!contradiction(n, bounds).empty());
    }));
}

TEST_CASE("a window longer than a night is kept by beginning later with what opens it") {
    // A coat of ten minutes late in the evening; a lift two to twelve hours after it falls into the night, so that the
    // coat waits for a day with a morning: Saturday.
    const ClockInput in = on_evenings({task("coat", 10), task("lift", 10, {after(0, 240, 12 * 60)})});
    const Schedule s = schedule(in);
    const auto apart = slot_of(s, 1).start - slot_of(s, 0).end;
    CHECK(apart >= Minutes(240));
    CHECK(apart <= Minutes(12 * 60));
    CHECK(slot_of(s, 0).start >= moment("2026-05-08T18:30"));
    // Where the coat is done already nothing can be done: it is told.
    ClockInput done = in;
    done.done[StepId{"coat"}] = moment("2026-05-04T19:00");
    const Schedule missed = schedule(done);
    REQUIRE(missed.problems.size() == 1);
    CHECK(missed.problems.front().what.id == "clock.window-missed");
}

TEST_CASE("pinned work stays, the rest goes round it, and what stops it is told") {
    ClockInput in = on_evenings({task("ground", 60), task("second", 60, {after(0, 60)}), task("weed", 60)});
    const Schedule free = schedule(in);
    CHECK(free.problems.empty());
    in.pinned[StepId{"weed"}] = moment("2026-05-05T19:00");
    Schedule s = schedule(in);
    CHECK(slot_of(s, 2).start == moment("2026-05-05T19:00"));
    CHECK(slot_of(s, 0).start == slot_of(free, 0).start);
    CHECK(s.problems.empty());
    const auto stopped = [&](const char* step, const std::string& to) { return how_far(in, StepId{step}, moment(to)); };
    // It waits for the ground, which cannot be done before half past seven.
    const auto second = stopped("second", "2026-05-04T19:00");
    REQUIRE(second);
    CHECK(second->at >= moment("2026-05-04T20:30"));
    REQUIRE(second->stopped_by);
    CHECK(second->stopped_by->id == "clock.stopped-by-wait");
    CHECK(stopped("ground", "2026-05-04T12:00")->stopped_by->id == "clock.stopped-by-now");
    CHECK(stopped("ground", "2026-05-05T12:00")->stopped_by->id == "clock.stopped-by-hours");
    CHECK_FALSE(stopped("ground", "2026-05-06T18:30")->stopped_by);
    CHECK(stopped("ground", "2026-05-06T18:30")->ready > free.ready);
    CHECK_FALSE(stopped("nothing", "2026-05-06T18:30"));
    in.pinned[StepId{"second"}] = moment("2026-05-04T19:00");
    s = schedule(in);
    REQUIRE(s.problems.size() == 1);
    CHECK(s.problems.front().what.id == "clock.not-pinned");
    in.done[StepId{"second"}] = moment("2026-05-04T18:30");
    CHECK(schedule(in).problems.empty());  // what is done is not pinned any more
}

TEST_CASE("property: pins, taken hours and two pairs of hands break no wait, no hour and no hand") {
    CHECK(rc::check([] {
        std::vector<Task> tasks;
        const auto n = *rc::gen::inRange<std::size_t>(1, 9);
        for (std::size_t i = 0; i < n; ++i) {
            std::vector<Wait> waits;
            if (i > 0 && *rc::gen::arbitrary<bool>())
                waits.push_back(after(*rc::gen::inRange<std::size_t>(0, i), *rc::gen::inRange(0, 900)));
            tasks.push_back(task(std::to_string(i), *rc::gen::inRange(5, 150), waits));
            tasks.back().people = *rc::gen::inRange(1, 3);
        }
        ClockInput in = on_evenings(tasks);
        in.hands = *rc::gen::inRange(1, 3);
        const Moment monday = moment("2026-05-04T00:00");
        for (int i = 0; i < 2; ++i) {
            const Moment from = monday + Minutes(*rc::gen::inRange(0, 5 * 1440));
            in.taken.push_back({from, from + Minutes(*rc::gen::inRange(1, 120))});
            in.pinned[StepId{std::to_string(*rc::gen::inRange<std::size_t>(0, n))}] =
                monday + Minutes(5 * *rc::gen::inRange(0, 5 * 288));
        }
        const Schedule s = schedule(in);
        RC_ASSERT(s.slots.size() == n);
        RC_ASSERT(s.bound <= s.ready);
        std::vector<std::pair<Moment, int>> changes;
        for (const Slot& slot : s.slots) {
            const Task& t = tasks[slot.task];
            bool inside = false;
            for (const auto& sit : sittings_on(in.hours, {}, std::chrono::floor<std::chrono::days>(slot.start))) {
                const auto day = std::chrono::floor<std::chrono::days>(slot.start);
                inside = inside || (slot.start >= day + Minutes(sit.from) && slot.end <= day + Minutes(sit.to));
            }
            RC_ASSERT(inside);
            for (const Wait& w : t.waits) RC_ASSERT(slot.start >= slot_of(s, w.after).end + w.at_least);
            RC_ASSERT(slot.start >= s.leeway[slot.task].earliest);
            const int people = std::min(t.people, in.hands);
            changes.emplace_back(slot.start, people);
            changes.emplace_back(slot.end, -people);
            if (in.hands == 1) {
                for (const Interval& taken : in.taken) RC_ASSERT(slot.end <= taken.from || slot.start >= taken.to);
            }
            const auto pin = in.pinned.find(t.id);
            const bool told = std::any_of(s.problems.begin(), s.problems.end(),
                                          [](const Problem& p) { return p.what.id == "clock.not-pinned"; });
            if (pin != in.pinned.end()) RC_ASSERT(slot.start == pin->second || told);
        }
        std::sort(changes.begin(), changes.end());
        int at_work = 0;
        for (const auto& [at, change] : changes) {
            at_work += change;
            RC_ASSERT(at_work <= in.hands);
        }
    }));
}

TEST_CASE("masks painted and lifted one by one keep a window that all at once would miss, and that is offered") {
    Job job = porch_board();
    finish_of(job).lift = Lift::Wet;
    const auto told = [](const Plan& plan) {
        return std::any_of(plan.problems.begin(), plan.problems.end(),
                           [](const Problem& p) { return p.what.id == "clock.window-too-short"; });
    };
    REQUIRE(told(plan_of(job)));
    const auto helps = what_helps(job, usual_shop(), library(), moment("2026-05-04T18:00"));
    const auto help =
        std::find_if(helps.begin(), helps.end(), [](const Help& h) { return h.what.id == "help.mask-by-mask"; });
    REQUIRE(help != helps.end());
    CHECK(help->in_window);
    const Plan apart = plan_of(help->job);
    CHECK_FALSE(told(apart));
    std::vector<std::string> order;
    for (const Step& s : apart.bench->steps) {
        if (s.section > 0) order.push_back("paint " + std::to_string(s.section));
        if (s.work == Work::Lift) order.push_back("lift " + std::to_string(s.number));
    }
    CHECK(order == std::vector<std::string>{"paint 3", "lift 3", "paint 2", "lift 2", "paint 1", "lift 1"});
    CHECK(std::any_of(helps.begin(), helps.end(), [](const Help& h) { return h.what.id == "help.lift-soft"; }));
}
