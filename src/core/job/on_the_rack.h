// job/on_the_rack.h
//
// What a planned job brings to the week of the rack (clock/week.h), and what of that week is to be done on one day.
#pragma once

#include "clock/week.h"
#include "job/plan.h"

namespace skarvel {

/// A job that is not finished, with the clock that its plan was made by.
RackJob on_the_rack(const Job& job, const Plan& plan, Moment now);

/// How far the work of a planned job can be moved; nothing for what is done or is not there.
std::optional<Moved> move_work(const Plan& plan, const Present& present, const StepId& step, Moment to);

/// What a job can say for itself when hours are given out: where its maker put it in line, and when it is wanted.
struct Claim {
    std::optional<Moment> deadline;
    std::optional<int> rank;  ///< smaller is sooner
};
/// Jobs that their maker put in line come first, in that order, then by deadline.
bool comes_before(const Claim& a, const Claim& b);

/// Hours that other jobs have taken before a job with that claim, as their own plans take them from `now` on.
std::vector<Interval> hours_of_others(const std::vector<RackJob>& others, const Claim& own, const Shop& shop,
                                      Moment now);

/// What is to be done today at one bench for all jobs, in the order of time: those that come before take their hours
/// first. `job`: place in the list that was given.
struct OfToday {
    std::size_t job = 0;
    StepId step;
    Reason what;
    Moment start{};
    friend bool operator==(const OfToday&, const OfToday&) = default;
};
std::vector<OfToday> today_over_all(const std::vector<RackJob>& jobs, Moment now);

/// Places in `week.slots` that begin on the day of `now`.
std::vector<std::size_t> of_the_day(const RackWeek& week, Moment now);

}  // namespace skarvel
