// job/what_helps.h
//
// What helps: a job that cannot be ready when it is wanted, or whose masks cannot come off inside their window, changed
// in one thing at a time, each planned in full: a coat that cures sooner, a clear coat less, the least waits, a decal
// instead of a mask, masks painted and lifted one by one, a fan, two hours more on one day, another pair of hands. Kept
// are those that gain time or keep a window that was not kept, and bring no stop that was not there.
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
    Minutes gained{0};                    ///< sooner than as it is
    Minutes hands_on{0};                  ///< more than as it is; negative for less
    std::optional<std::int64_t> cents{};  ///< that its film costs more; nothing where a price is not known
    bool in_time = false;
    bool in_window = false;  ///< masks that could not come off inside their window then can
    friend bool operator==(const Help&, const Help&) = default;
};

/// Those that keep a window first, then those that make it in time, then the ones that cost the least work, then the
/// least money, then those that gain the most. Nothing for a job without open work, or when `stop` was requested.
std::vector<Help> what_helps(const Job& job, const Shop& shop, const Library& library, const Present& present,
                             const std::stop_token& stop = {});

}  // namespace skarvel
