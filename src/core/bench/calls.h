// bench/calls.h
//
// Calls: when the maker is to be called to the bench. What waits is dry; a window is about to close, or has closed.
// Between two looks at the clock none is lost, however long the machine slept.
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

}  // namespace skarvel
