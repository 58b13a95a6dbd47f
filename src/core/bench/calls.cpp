#include "bench/calls.h"

#include <algorithm>

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

}  // namespace skarvel
