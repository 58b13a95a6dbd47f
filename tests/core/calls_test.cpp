// Calls to the bench, and two programs at one record.
#include "bench/calls.h"

#include <rapidcheck.h>

#include "bench/merging.h"
#include "job/commands.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

BenchPlan with_timer(const char* from, std::optional<const char*> until) {
    BenchPlan bench;
    Timer t{StepId{"coat"}, StepId{"lift"}, {"timer.what", {}}, moment("2026-05-04T19:00"), moment(from), std::nullopt};
    if (until) t.until = moment(*until);
    bench.timers.push_back(t);
    return bench;
}

std::vector<Calling> called(const BenchPlan& bench, const char* since, const char* now) {
    std::vector<Calling> all;
    for (const Call& c : calls_between(bench, moment(since), moment(now))) all.push_back(c.why);
    return all;
}

}  // namespace

TEST_CASE("each end of a wait and each edge of a window is called once, also over a sleeping machine") {
    const BenchPlan bench = with_timer("2026-05-04T19:15", "2026-05-04T20:00");
    CHECK(called(bench, "2026-05-04T19:00", "2026-05-04T19:14").empty());
    CHECK(called(bench, "2026-05-04T19:14", "2026-05-04T19:15") == std::vector{Calling::Ready});
    CHECK(called(bench, "2026-05-04T19:15", "2026-05-04T19:49").empty());
    CHECK(called(bench, "2026-05-04T19:49", "2026-05-04T19:51") == std::vector{Calling::Closing});
    CHECK(called(bench, "2026-05-04T19:51", "2026-05-04T20:30") == std::vector{Calling::Closed});
    // Asleep from the coat to the next morning: all three, in their order.
    CHECK(called(bench, "2026-05-04T19:00", "2026-05-05T07:00") ==
          std::vector{Calling::Ready, Calling::Closing, Calling::Closed});
    // A short window is about to close when half of it is gone.
    const BenchPlan wet = with_timer("2026-05-04T19:01", "2026-05-04T19:11");
    CHECK(called(wet, "2026-05-04T19:05", "2026-05-04T19:06") == std::vector{Calling::Closing});
    // Set back, the clock calls nothing twice.
    CHECK(called(bench, "2026-05-05T07:00", "2026-05-04T19:30").empty());
    for (const char* id : {"call.ready", "call.closing", "call.closed"}) CHECK(library().catalogue.has(id));
}

TEST_CASE("the porch board calls for its lift when its paint is soft") {
    Job job = porch_board();
    Plan plan = plan_of(job);
    Moment at = moment("2026-05-04T18:30");
    while (const Step* next = plan.bench->next()) {
        if (next->work == Work::Lift) break;
        at = std::max(at, next->start + next->hands_on);
        job = tick(job, plan, next->id, at);
        plan = skarvel::plan(job, usual_shop(), library(), at);
    }
    REQUIRE(plan.bench->next() != nullptr);
    const auto calls = calls_between(*plan.bench, at, at + std::chrono::hours(3));
    std::set<Calling> why;
    for (const Call& c : calls) {
        if (c.before == plan.bench->next()->id) why.insert(c.why);
    }
    CHECK(why == std::set{Calling::Ready, Calling::Closing, Calling::Closed});
}

TEST_CASE("property: what either of two did at the bench is in the one record, and what one took back is not") {
    CHECK(rc::check([] {
        const auto record = [](const BenchRecord& from) {
            BenchRecord out = from;
            for (int i = 0; i < 6; ++i) {
                const StepId id{"step" + std::to_string(*rc::gen::inRange(0, 8))};
                const Moment at = moment("2026-05-04T18:00") + Minutes(*rc::gen::inRange(0, 500));
                switch (*rc::gen::inRange(0, 4)) {
                    case 0:
                        out.ticks[id] = at;
                        break;
                    case 1:
                        out.ticks.erase(id);
                        break;
                    case 2:
                        out.mishaps.push_back({static_cast<int>(out.mishaps.size()) + 1, "bled", id, at});
                        break;
                    default:
                        if (std::none_of(out.skipped.begin(), out.skipped.end(),
                                         [&](const Skipped& s) { return s.step == id; }))
                            out.skipped.push_back({id, "no time"});
                }
            }
            return out;
        };
        const BenchRecord base = record({}), mine = record(base), theirs = record(base);
        const BenchRecord both = merged(base, mine, theirs);
        for (const auto& [id, at] : mine.ticks) {
            if (!base.ticks.contains(id)) RC_ASSERT(both.ticks.contains(id));
        }
        for (const auto& [id, at] : theirs.ticks) {
            if (!base.ticks.contains(id)) RC_ASSERT(both.ticks.contains(id));
        }
        for (const auto& [id, at] : both.ticks) RC_ASSERT(mine.ticks.contains(id) || theirs.ticks.contains(id));
        RC_ASSERT(merged(base, base, theirs) == theirs);
        RC_ASSERT(merged(base, mine, base) == mine);
        std::set<int> numbers;
        for (const Mishap& m : both.mishaps) RC_ASSERT(numbers.insert(m.number).second);
    }));
}

TEST_CASE("what fits into a wait waits for nothing itself, and is done before the wait is over") {
    Job job = porch_board();
    for (const char* step : {"1/saw", "1/sand", "1/ground/1"})
        job = tick(job, plan_of(job), StepId{step}, moment("2026-05-04T17:10"));
    const Plan plan = plan_of(job);
    const Moment now = moment("2026-05-04T17:30");
    const auto fits = [&](Moment until) {
        std::vector<std::string> names;
        for (const std::size_t i : fits_meanwhile(*plan.bench, *plan.tasks, now, until))
            names.push_back(plan.bench->steps[i].id.name);
        return names;
    };
    // The proof is open: no load may be cut before it is read, and the next coat has to wait.
    CHECK(fits(moment("2026-05-04T19:10")) == std::vector<std::string>{"1/proof"});
    CHECK(fits(now + Minutes(1)).empty());
    job = tick(job, plan, StepId{"1/proof"}, moment("2026-05-04T17:35"));
    const Plan then = plan_of(job);
    for (const std::size_t i : fits_meanwhile(*then.bench, *then.tasks, now, moment("2026-05-04T19:10")))
        CHECK(then.bench->steps[i].work == Work::Cut);
}
