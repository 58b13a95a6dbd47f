// files/calendar.h
//
// The clock of a job for other programs: as an iCalendar file (RFC 5545), and as rows for a spreadsheet. Times are the
// maker's own, without a zone (docs/decisions/wall-clock-time.md).
#pragma once

#include <string>

#include "job/plan.h"

namespace skarvel {

/// An event for each task that is still to be done, named by its step, so that a file that is read again replaces what
/// was read before; with an alarm where a wait ends or a window opens. `stamp`: when it was written, as the format
/// asks.
std::string calendar_of(const Job& job, const Plan& plan, const Catalogue& catalogue, const Display& display,
                        Moment stamp);

/// Day, from, to, minutes at hand, the task, what it must wait for, and until when a window is open.
std::string days_csv(const Plan& plan, const Catalogue& catalogue, const Display& display);

}  // namespace skarvel
