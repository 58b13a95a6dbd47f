// job/on_the_rack.h
//
// What a planned job brings to the week of the rack (clock/week.h), and what of that week is to be done on one day.
#pragma once

#include "clock/week.h"
#include "job/plan.h"

namespace skarvel {

/// A job that is not finished, with the clock that its plan was made by.
RackJob on_the_rack(const Job& job, const Plan& plan, const Shop& shop, Moment now);

/// Places in `week.slots` that begin on the day of `now`.
std::vector<std::size_t> of_the_day(const RackWeek& week, Moment now);

}  // namespace skarvel
