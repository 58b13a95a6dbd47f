// sections/ties.h
//
// Ties: narrow bridges of film that hold the keepers of a mask which is used again. Each keeper gets the fewest that
// hold it well: one where it is small, two where it is taller than half an inch, at top and bottom where the strokes
// beside it are short to cross, else at its sides. A tie is straight and upright or level, as wide as asked, and takes
// the shortest way through the ink; where ties would leave a keeper loose it is told.
#pragma once

#include "sections/sections.h"

namespace skarvel {

struct Tied {
    Region cut;                 ///< what is still cut out
    std::vector<Region> ties;   ///< of film, across the ink, each an upright rectangle
    std::vector<Keeper> loose;  ///< that no tie could hold
    friend bool operator==(const Tied&, const Tied&) = default;
};

Tied tie_keepers(const Region& cut, const std::vector<Keeper>& keepers, Length width);

}  // namespace skarvel
