#include "bench/calls.h"

#include <algorithm>
#include <set>

namespace skarvel {

std::vector<Call> calls_between(const BenchPlan& bench, Moment since, Moment now) {
    constexpr Minutes lead{10};
    std::vector<Call> calls;
    for (const Timer& t : bench.timers) {
        const auto call = [&](Calling why, Moment at) {
            if (at <= since || at > now) return;
            calls.push_back(
                {why, t.before, {std::string("call.") + word_of(why), {{"what", std::vector<Reason>{t.what}}}}, at});
        };
        if (t.from > t.since) call(Calling::Ready, t.from);
        if (!t.until) continue;
        const Minutes open = std::chrono::duration_cast<Minutes>(*t.until - t.from);
        call(Calling::Closing, *t.until - std::min(lead, open / 2));
        call(Calling::Closed, *t.until);
    }
    std::stable_sort(calls.begin(), calls.end(), [](const Call& a, const Call& b) { return a.at < b.at; });
    return calls;
}

std::vector<std::size_t> fits_meanwhile(const BenchPlan& bench, const std::vector<Task>& tasks, Moment now,
                                        Moment until) {
    std::set<StepId> open;
    for (const Step& s : bench.steps) {
        if (!s.done) open.insert(s.id);
    }
    std::set<StepId> waiting;
    for (const Task& t : tasks) {
        const bool waits = std::any_of(t.waits.begin(), t.waits.end(),
                                       [&](const Wait& w) { return open.contains(tasks[w.after].id); });
        if (waits) waiting.insert(t.id);
    }
    for (const Timer& t : bench.timers) {
        if (t.from > now) waiting.insert(t.before);
    }
    std::vector<std::size_t> fits;
    for (std::size_t i = 0; i < bench.steps.size(); ++i) {
        const Step& s = bench.steps[i];
        if (!s.done && !waiting.contains(s.id) && now + s.hands_on <= until) fits.push_back(i);
    }
    return fits;
}

}  // namespace skarvel
