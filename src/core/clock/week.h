// clock/week.h
//
// The week of the rack: all jobs in work on one pair of hands. They are laid on the hours one after the other, those
// wanted soonest first; what an earlier one has taken is kept free, so the order says whose hours give way. Each job
// keeps its own waits and windows; a job that would be ready by itself and is late among the others is told apart from
// one that is late anyway.
#pragma once

#include <string>
#include <utility>
#include <vector>

#include "clock/schedule.h"

namespace skarvel {

/// One job on the rack: what its own clock reads.
struct RackJob {
    std::string name;
    ClockInput clock;
    std::optional<int> rank{};  ///< where its maker put it in line; otherwise its deadline counts
    std::string file{};         ///< that it is kept in
    friend bool operator==(const RackJob&, const RackJob&) = default;
};

struct RackSlot {
    std::size_t job = 0;  ///< place in the list that was given
    Slot slot;            ///< its task counts in that job
    friend bool operator==(const RackSlot&, const RackSlot&) = default;
};

/// How one job stands among the others.
struct Standing {
    std::size_t job = 0;
    bool open = false;         ///< there is work left, and hours for it
    Moment ready{};            ///< among the others
    Moment ready_alone{};      ///< if it had all the hours
    bool late = false;         ///< after its deadline, among the others
    bool crowded_out = false;  ///< late among the others alone
    friend bool operator==(const Standing&, const Standing&) = default;
};

struct RackWeek {
    std::vector<RackSlot> slots;      ///< open work, in order of time
    std::vector<Standing> standings;  ///< in the order in which they take their hours
    friend bool operator==(const RackWeek&, const RackWeek&) = default;
};

/// `first`: places of jobs that take their hours before the others, in that order; the rest follow by deadline, then as
/// they were given.
RackWeek rack_week(const std::vector<RackJob>& jobs, const std::vector<std::size_t>& first = {});

/// What another order of the jobs does to one of them.
struct Shifted {
    std::size_t job = 0;
    Moment before{}, after{};  ///< ready
    bool late = false;         ///< then
    friend bool operator==(const Shifted&, const Shifted&) = default;
};
/// Jobs that are ready at another time in `after` than in `before`: those that lose most come first.
std::vector<Shifted> shifts_between(const RackWeek& before, const RackWeek& after);

/// Slots of all tasks when some of the hands' time is taken; empty when the hours hold no room. In clock/schedule.cpp.
std::vector<Slot> forward_around(const ClockInput& input, const std::vector<Interval>& taken);

}  // namespace skarvel
