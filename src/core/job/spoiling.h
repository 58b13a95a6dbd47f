// job/spoiling.h
//
// Spoiling: what it comes to when a section that was cut is of no use: the job with that section to cut again, from
// which film, and what it costs in film, money and time. Found by planning it, so that nothing is guessed.
#pragma once

#include <stop_token>

#include "job/plan.h"

namespace skarvel {

/// A section of a load that was cut, by their places in the bench record.
struct CutAt {
    std::size_t load = 0, section = 0;
    friend bool operator==(const CutAt&, const CutAt&) = default;
};
/// What a step of weeding, laying or lifting has in hand and was cut already; nothing at other steps.
std::vector<CutAt> cut_in_hand(const Job& job, const Plan& plan, const Step& step);

struct Spoiling {
    Job job;
    std::string letters;         ///< of the section
    std::vector<FilmFrom> from;  ///< of the loads that cut it again
    Length film;                 ///< that they take
    std::optional<std::int64_t> cents;
    Minutes hands_on{0}, later{0};  ///< more work, and so much later ready
    Moment ready{};
};

/// By its place in the bench record. Nothing where it is not there, or where `stop` was requested.
std::optional<Spoiling> what_spoiling_costs(const Job& job, const Plan& plan, const Shop& shop, const Library& library,
                                            const Present& present, const CutAt& at, const std::stop_token& stop = {});

}  // namespace skarvel
