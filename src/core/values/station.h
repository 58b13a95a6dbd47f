// values/station.h
//
// The stations of a job, in the order of the work.
#pragma once

#include <array>

namespace skarvel {

enum class Station { Blank, Lettering, Sections, Method, Clock, Bench, Logbook };
constexpr auto words_of(Station) {
    return std::array{"blank", "lettering", "sections", "method", "clock", "bench", "logbook"};
}

}  // namespace skarvel
