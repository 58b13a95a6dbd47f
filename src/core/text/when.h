// text/when.h
//
// Moments as makers type them: "Sat noon", "in 5 days", "9 May 14:00", "tomorrow 6pm", "14:00", "9", "9.5.",
// "2026-05-09 14:00". What is not said follows from now: a weekday is the next one, a day without a year the next such
// day, an hour the next such hour, a day without an hour its noon. Nothing is guessed that could be two things: 5/9 is
// refused, and so is a weekday that is not the day's.
#pragma once

#include <string_view>

#include <tl/expected.hpp>

#include "text/reason.h"

namespace skarvel {

/// Refused with the id of a sentence of the catalogue: when.unread, when.two-days, when.no-such-day,
/// when.wrong-weekday.
tl::expected<Moment, Reason> read_when(std::string_view text, Moment now);

}  // namespace skarvel
