// How waits pass where the clock on the wall is changed, and on days on which things dry slowly.
#include "clock/passing.h"

#include <rapidcheck.h>

#include "clock/schedule.h"
#include "files/moment.h"
#include "files/weather.h"
#include "support.h"
#include "support_clock.h"

using namespace skarvel;
using namespace skarvel::testing;
using std::chrono::hours;

namespace {

const ClockChange spring{moment("2026-03-29T02:00"), Minutes(60)};
const ClockChange autumn{moment("2026-10-25T03:00"), Minutes(-60)};

Hours all_day() {
    Hours open;
    for (auto& day : open.days) day = {{0, 24 * 60}};
    return open;
}

}  // namespace

TEST_CASE("a wait through the night in which clocks are changed ends an hour later or sooner on the wall") {
    const Passing passing({spring, autumn}, {});
    CHECK(passing.after(moment("2026-03-28T22:00"), hours(12), true) == moment("2026-03-29T11:00"));
    CHECK(passing.after(moment("2026-10-24T22:00"), hours(12), false) == moment("2026-10-25T09:00"));
    CHECK(passing.after(moment("2026-03-29T08:00"), hours(12), true) == moment("2026-03-29T20:00"));
    CHECK(passing.before(moment("2026-03-29T11:00"), hours(12), true) == moment("2026-03-28T22:00"));
    CHECK(passing.put_back(moment("2026-01-01"), moment("2026-12-31")) == Minutes(60));
    CHECK(Passing().after(moment("2026-03-28T22:00"), hours(12), true) == moment("2026-03-29T10:00"));
}

TEST_CASE("on a cold day what dries counts for less, and other waits run as ever") {
    const Passing passing({}, {{moment("2026-05-05"), 2}});
    // Two hours are left of Monday, then each hour of Tuesday counts for half.
    CHECK(passing.after(moment("2026-05-04T22:00"), hours(6), true) == moment("2026-05-05T08:00"));
    CHECK(passing.after(moment("2026-05-04T22:00"), hours(6), false) == moment("2026-05-05T04:00"));
    CHECK(passing.after(moment("2026-05-05T20:00"), hours(6), true) == moment("2026-05-06T04:00"));
}

TEST_CASE("clocks are changed when the law has it (last Sunday of March and of October, at 01:00 UTC)") {
    // European Union, Directive 2000/84/EC, articles 2 and 3; the zone's own hour is one more than UTC, two in summer.
    const auto year = clock_changes(moment("2026-01-01"), moment("2026-12-31"), "Europe/Berlin");
    REQUIRE(year.size() == 2);
    CHECK(year[0] == spring);
    CHECK(year[1] == autumn);
    CHECK(clock_changes(moment("2026-01-01"), moment("2026-12-31"), "UTC").empty());
    CHECK(clock_changes(moment("2026-01-01"), moment("2026-12-31"), "No/Such_Place").empty());
}

TEST_CASE("any wait, through changed clocks and slow days, can be parted, and is found back from its end") {
    CHECK(rc::check([] {
        const Moment monday = moment("2026-03-23");
        std::vector<SlowDay> days;
        for (int d = 0; d < 10; ++d) {
            if (*rc::gen::inRange(0, 2) == 1)
                days.push_back({monday + std::chrono::days(d), *rc::gen::inRange(2, 9) / 4.0});
        }
        const Passing passing({spring}, days);
        const Moment from = monday + Minutes(*rc::gen::inRange(0, 9 * 24 * 60));
        const Minutes wait(*rc::gen::inRange(0, 3000)), more(*rc::gen::inRange(0, 3000));
        const bool dries = *rc::gen::inRange(0, 2) == 1;
        const Moment end = passing.after(from, wait, dries);
        RC_ASSERT(end >= from + passing.least(wait, dries));
        RC_ASSERT(passing.after(from + Minutes(1), wait, dries) >= end);
        // Each part ends on a full minute.
        const Minutes apart = passing.after(end, more, dries) - passing.after(from, wait + more, dries);
        RC_ASSERT(apart >= Minutes(0));
        RC_ASSERT(apart <= Minutes(3));
        const Moment back = passing.before(end, wait, dries);
        RC_ASSERT(back >= from);
        RC_ASSERT(passing.after(back, wait, dries) <= end);
        RC_ASSERT(wait == Minutes(0) || passing.after(back + Minutes(1), wait, dries) > end - Minutes(1));
    }));
}

TEST_CASE("the schedule keeps its waits through changed clocks and cold days, and ends no sooner for them") {
    CHECK(rc::check([] {
        std::vector<Task> tasks;
        const int n = *rc::gen::inRange(2, 7);
        for (int i = 0; i < n; ++i) {
            std::vector<Wait> waits;
            for (int k = 0; k < i; ++k) {
                if (*rc::gen::inRange(0, 3) != 0) continue;
                Wait w = after(static_cast<std::size_t>(k), *rc::gen::inRange(0, 1500));
                w.dries = *rc::gen::inRange(0, 2) == 1;
                waits.push_back(w);
            }
            tasks.push_back(task("t" + std::to_string(i), *rc::gen::inRange(5, 90), waits));
        }
        ClockInput in{Shared<std::vector<Task>>(tasks), all_day(), {}, {}, {}, moment("2026-03-28T12:00")};
        const Schedule plain = schedule(in);
        in.changes = {spring};
        in.slow_days = {{moment("2026-03-29"), 2}, {moment("2026-03-30"), 1.5}};
        const Schedule slow = schedule(in);
        const Passing passing(in.changes, in.slow_days);
        RC_ASSERT(slow.ready >= plain.ready);
        std::vector<const Slot*> of(tasks.size(), nullptr);
        for (const Slot& s : slow.slots) of[s.task] = &s;
        for (std::size_t i = 0; i < tasks.size(); ++i) {
            for (const Wait& w : tasks[i].waits)
                RC_ASSERT(of[i]->start >= passing.after(of[w.after]->end, w.at_least, w.dries));
        }
    }));
}

TEST_CASE("a cold day in the shop moves the job that dries on it, and a fan gains time but cures nothing") {
    const Job job = porch_board();
    const Moment now = moment("2026-05-04T18:00");
    Shop shop = usual_shop();
    const Plan usual = plan(job, shop, library(), now);
    for (int d = 4; d < 10; ++d) shop.weather.push_back({moment("2026-05-0" + std::to_string(d)), 8, 90});
    const Plan cold = plan(job, shop, library(), now);
    CHECK(cold.clock->ready > usual.clock->ready);
    shop.weather.clear();
    shop.room_celsius = 8;
    CHECK(plan(job, shop, library(), now).clock->ready > usual.clock->ready);
    // A day warmer than a cold room makes it quicker there.
    Shop warmed = shop;
    for (int d = 4; d < 10; ++d) warmed.weather.push_back({moment("2026-05-0" + std::to_string(d)), 20, 50});
    CHECK(plan(job, warmed, library(), now).clock->ready < plan(job, shop, library(), now).clock->ready);
    Shop fan = usual_shop();
    fan.fan = true;
    const Plan moved = plan(job, fan, library(), now);
    Minutes coats{0}, coats_fanned{0};
    for (std::size_t i = 0; i < usual.tasks->size(); ++i) {
        const Task& was = (*usual.tasks)[i];
        const Task& is = (*moved.tasks)[i];
        REQUIRE(was.id == is.id);
        for (std::size_t k = 0; k < was.waits.size(); ++k) {
            const Wait& w = was.waits[k];
            if (w.why.id == "wait.film-on-ground" || w.why.id == "wait.before-outdoors")
                CHECK(is.waits[k].at_least == w.at_least);
            if (w.why.id == "wait.next-coat" && w.dries) {
                coats += w.at_least;
                coats_fanned += is.waits[k].at_least;
            }
        }
    }
    CHECK(coats_fanned < coats);
}

TEST_CASE("a week of weather is read as thermometers and spreadsheets write it") {
    const Moment now = moment("2026-05-04T18:00");
    const auto days =
        read_weather("day,temp,humidity\n2026-05-05,14.4,80\n2026-05-05,15.6,90 %\n2026-05-06,20 C,50\n", now);
    REQUIRE(days);
    REQUIRE(days->size() == 2);
    CHECK((*days)[0] == DayRoom{moment("2026-05-05"), 15, 85});
    CHECK((*days)[1] == DayRoom{moment("2026-05-06"), 20, 50});
    // Decimal commas beside semicolons, days as they are typed, and Fahrenheit by heading or behind the figure.
    const auto other = read_weather("Tag;Grad;Feuchte\n6 May;14,5;80\n\n7.5.;59F;40\n", now);
    REQUIRE(other);
    CHECK((*other)[0] == DayRoom{moment("2026-05-06"), 15, 80});
    CHECK((*other)[1] == DayRoom{moment("2026-05-07"), 15, 40});
    CHECK(read_weather("day\tF\thumidity\n2026-05-05\t50\t30\n", now)->front().celsius == 10);
    for (const char* wrong :
         {"", "day,temp,humidity\n", "2026-05-05,14\n", "2026-05-05,warm,80\n", "2026-05-05,14,180\n",
          "2026-05-05,nan,50\n", "x,1,2\ny,1,2\n", "2026-05-05,\"14,80\n", "2026-05-05,900,80\n"}) {
        const auto refused = read_weather(wrong, now);
        INFO(wrong);
        REQUIRE_FALSE(refused);
        CHECK(refused.error().what.id.starts_with("weather."));
    }
}
