// files/moment.h
//
// Moments as files hold them: local wall-clock time to the minute.
#pragma once

#include <string>

#include "text/reason.h"

namespace skarvel {

/// "2026-05-09T12:00"; also "2026-05-09" as its midnight.
Expected<Moment> read_moment(const std::string& text);
std::string write_moment(Moment moment);

}  // namespace skarvel
