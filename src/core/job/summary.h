// job/summary.h
//
// What each station says of itself in one or two lines: the job ticket.
#pragma once

#include <array>

#include "job/plan.h"

namespace skarvel {

constexpr std::size_t station_count = 7;

struct StationLine {
    Reason first, second;
    Mark mark = Mark::None;
    friend bool operator==(const StationLine&, const StationLine&) = default;
};

/// Of one face where stations belong to one face; of the first that was planned where that one was not.
std::array<StationLine, station_count> summary(const Job& job, const Plan& plan, std::size_t records,
                                               const FaceAt& at = {});

/// What follows from the decisions of a station: of the Blank the room for lettering, of others what the ticket says.
StationLine what_follows(Station station, const Job& job, const Plan& plan, std::size_t records, const FaceAt& at);

}  // namespace skarvel
