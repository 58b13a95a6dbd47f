// Facts of the trade about time, against the clock (common practice where no source is named), and batches against
// every order there is.
#include <rapidcheck.h>

#include <numeric>

#include "files/save.h"
#include "job/commands.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

Moment first_of(const Plan& plan, Work work, bool end = false) {
    for (const Step& s : plan.bench->steps) {
        if (s.work == work) return end ? s.start + s.hands_on : s.start;
    }
    throw std::runtime_error("no such work");
}
Moment last_of(const Plan& plan, Work work) {
    Moment at{};
    for (const Step& s : plan.bench->steps) {
        if (s.work == work) at = std::max(at, s.start + s.hands_on);
    }
    return at;
}

}  // namespace

TEST_CASE(
    "laid vinyl, 72 hours, three clear coats two hours apart, 24 hours: at least 100 hours to the porch (common "
    "practice)") {
    Job job = long_board();
    coat_in(job, clear_coat).coats = 3;
    const Plan plan = plan_of(job);
    CHECK(first_of(plan, Work::Clear) - last_of(plan, Work::Lay) >= std::chrono::hours(72));
    CHECK(first_of(plan, Work::Final) - last_of(plan, Work::Lay) >= std::chrono::hours(72 + 2 + 2 + 24));
}

TEST_CASE(
    "what is lifted soft comes off a quarter of an hour to an hour after the last stroke (common practice, from "
    "memory)") {
    const Plan plan = plan_of(porch_board());
    const auto gap = first_of(plan, Work::Lift) - last_of(plan, Work::Colour);
    CHECK(gap >= Minutes(15));
    CHECK(gap <= Minutes(60));
}

TEST_CASE("four arrows in shared rounds take less work than four times one (common practice)") {
    const auto four = read_job(*read_file(std::filesystem::path(SKARVEL_SOURCE) / "demo/four-arrows.skarvel"));
    REQUIRE(four);
    const Schedule together = *plan_of(*four).clock;
    Minutes singly{0};
    for (std::size_t i = 0; i < four->signs.size(); ++i) {
        Job one = *four;
        one.signs = {four->signs[i]};
        one.post.reset();
        singly += plan_of(one).clock->hands_on;
    }
    CHECK(together.setup_saved > Minutes(0));
    CHECK(together.hands_on < singly);
}

// Hours that never close, so that nothing but waits and the one pair of hands counts: then a schedule is an order of
// the tasks, each as early as it may, and all orders of up to six can be tried.
TEST_CASE("on open hours no order of up to six tasks is ready much sooner than the one that is found") {
    int best_found = 0, cases = 0;
    rc::check([&] {
        const auto n = *rc::gen::inRange<std::size_t>(2, 7);
        std::vector<Task> tasks;
        for (std::size_t i = 0; i < n; ++i) {
            Task t;
            t.id.name = "t" + std::to_string(i);
            t.hands_on = Minutes(*rc::gen::inRange(5, 60));
            for (std::size_t k = 0; k < i; ++k) {
                if (*rc::gen::inRange(0, 3) == 0)
                    t.waits.push_back({k, Minutes(*rc::gen::inRange(0, 120)), std::nullopt, {}});
            }
            tasks.push_back(std::move(t));
        }
        Hours open;
        for (auto& day : open.days) day = {{0, 24 * 60}};
        const Moment now = moment("2026-05-04T00:00");
        const Schedule found = schedule({Shared<std::vector<Task>>(tasks), open, {}, {}, {}, now});
        std::vector<std::size_t> order(n);
        std::iota(order.begin(), order.end(), 0);
        Moment best = now + std::chrono::hours(24 * 30);
        do {
            std::vector<Moment> ends(n);
            std::vector<bool> placed(n, false);
            Moment free = now;
            bool can = true;
            for (const std::size_t i : order) {
                Moment start = free;
                for (const Wait& w : tasks[i].waits) {
                    can = can && placed[w.after];
                    start = std::max(start, ends[w.after] + w.at_least);
                }
                ends[i] = free = start + tasks[i].hands_on;
                placed[i] = true;
            }
            if (can) best = std::min(best, free);
        } while (std::next_permutation(order.begin(), order.end()));
        RC_ASSERT(found.ready >= best);  // nothing can be ready before that
        // By the longest chain first it is never a third longer than the best on so few tasks.
        RC_ASSERT((found.ready - now) * 3 <= (best - now) * 4);
        ++cases;
        best_found += found.ready == best ? 1 : 0;
    });
    CHECK(best_found * 10 >= cases * 7);  // and mostly the best itself
}
