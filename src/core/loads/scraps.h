// loads/scraps.h
//
// Scraps: a load on several leftovers of the drawer that lie side by side on its bed, where none is large enough alone.
#pragma once

#include <optional>
#include <vector>

#include "loads/machines.h"

namespace skarvel {

struct OnScraps {
    std::vector<Placement> placements;  ///< of each film, in their order; `section` counts in what was asked
    std::vector<ScrapOnBed> scraps;
    std::vector<std::size_t> taken;  ///< their places in the drawer
    friend bool operator==(const OnScraps&, const OnScraps&) = default;
};

/// How films lie on at most three scraps, the smallest that do, and those whole on the bed beside one another; nothing
/// where they do not. `colour` empty: any. `gap` between films, grid units of their bounds.
std::optional<OnScraps> on_scraps(const std::vector<Box>& films, const std::vector<FilmStock>& drawer,
                                  const std::string& film, const std::string& colour, const Room& bed, Length gap);

}  // namespace skarvel
