// files/weather.h
//
// Days and how cold and damp they are, from rows of a text file: day, temperature, humidity, parted by commas,
// semicolons or tabs, as thermometers and spreadsheets write them. A first row without a day is taken for a heading.
// Degrees are Celsius unless an F stands behind them, or in the heading. Several rows of one day come to their mean.
#pragma once

#include <string>
#include <vector>

#include "job/job.h"

namespace skarvel {

inline constexpr std::size_t most_days_of_weather = 1000;

/// In order of days. `now`: for days without a year. Refused with the row that cannot be read.
Expected<std::vector<DayRoom>> read_weather(const std::string& text, Moment now);

}  // namespace skarvel
