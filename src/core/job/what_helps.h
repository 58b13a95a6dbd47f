// job/what_helps.h
//
// What helps: a job that cannot be ready when it is wanted, changed in one thing at a time, each planned in full: a
// coat that cures sooner, a clear coat less, the least waits, a decal instead of a mask, two hours more on one day.
// Kept are those that gain time and bring no stop that was not there.
#pragma once

#include <stop_token>

#include "job/plan.h"

namespace skarvel {

struct Help {
    Reason what;
    Job job;
    Shop shop;
    bool of_shop = false;  ///< it changes the shop's hours, not the job
    Moment ready{};
    Minutes gained{0};    ///< sooner than as it is
    Minutes hands_on{0};  ///< more than as it is; negative for less
    bool in_time = false;
    friend bool operator==(const Help&, const Help&) = default;
};

/// Those that make it in time first, then the ones that cost the least work, then those that gain the most. Nothing for
/// a job without open work, or when `stop` was requested.
std::vector<Help> what_helps(const Job& job, const Shop& shop, const Library& library, Moment moment,
                             const std::stop_token& stop = {});

}  // namespace skarvel
