// files/moment.h
//
// Moments as files hold them: local wall-clock time to the minute.
#pragma once

#include <string>
#include <vector>

#include "clock/passing.h"
#include "text/reason.h"

namespace skarvel {

/// "2026-05-09T12:00"; also "2026-05-09" as its midnight.
Expected<Moment> read_moment(const std::string& text);
std::string write_moment(Moment moment);

/// When the clock on the wall is put forward or back between the two, in a time zone by its name ("UTC"), or in the
/// machine's own. By the rules of ICU.
std::vector<ClockChange> clock_changes(Moment from, Moment until, const std::string& zone = {});

}  // namespace skarvel
