// job/on_the_rack.h
//
// What a planned job brings to the week of the rack (clock/week.h), and what of that week is to be done on one day.
#pragma once

#include "clock/week.h"
#include "job/plan.h"

namespace skarvel {

/// A job that is not finished, with the clock that its plan was made by.
RackJob on_the_rack(const Job& job, const Plan& plan, const Shop& shop, Moment now);

/// How far the work of a planned job can be moved; nothing for what is done or is not there.
std::optional<Moved> move_work(const Job& job, const Plan& plan, const Shop& shop, const Present& present,
                               const StepId& step, Moment to);

/// Hours that other jobs have taken before a job that is wanted by `deadline`: those wanted sooner, on the hours that
/// their own plans take from `now` on; of a job that is wanted at no time, all that are wanted at some.
std::vector<Interval> hours_of_others(const std::vector<RackJob>& others, const std::optional<Moment>& deadline,
                                      const Shop& shop, Moment now);

/// Places in `week.slots` that begin on the day of `now`.
std::vector<std::size_t> of_the_day(const RackWeek& week, Moment now);

}  // namespace skarvel
