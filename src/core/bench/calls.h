// bench/calls.h
//
// Calls: when the maker is to be called to the bench. What waits is dry; a window is about to close, or has closed.
// Between two looks at the clock none is lost, however long the machine slept. And what else can be done meanwhile.
#pragma once

#include <vector>

#include "bench/steps.h"

namespace skarvel {

enum class Calling { Ready, Closing, Closed };
constexpr auto words_of(Calling) { return std::array{"ready", "closing", "closed"}; }

struct Call {
    Calling why = Calling::Ready;
    StepId before;  ///< the step that may begin, or must
    Reason what;    ///< in words
    Moment at{};
    friend bool operator==(const Call&, const Call&) = default;
};

/// Those after `since` and up to `now`, in the order of time. A window is about to close ten minutes before it does, or
/// when half of it is gone.
std::vector<Call> calls_between(const BenchPlan& bench, Moment since, Moment now);

/// Steps that can be done while something else dries: all that comes before them is done, nothing of theirs is still
/// drying, and hands are done with them by `until`. Places in `bench.steps`, in their order.
std::vector<std::size_t> fits_meanwhile(const BenchPlan& bench, const std::vector<Task>& tasks, Moment now,
                                        Moment until);

}  // namespace skarvel
