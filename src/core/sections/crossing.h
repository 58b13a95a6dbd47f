// sections/crossing.h
//
// Crossing: ink larger than the room is divided by the fewest straight cuts, where they show least (showing.h): a
// shortest path over lines an eighth of an inch apart and the gaps between letters. What is too large both ways is cut
// one way, then the other. One piece is crossed by itself; what stands within a border, a ring or a heart may be cut by
// the same lines: between its letters, and between its words where that can be. For this folder alone.
#pragma once

#include <optional>

#include "sections/draft.h"

namespace skarvel::dividing {

/// `which`: places in the list of pieces, of what is cut by the same lines. Nothing where no cut makes it small enough.
std::optional<Draft> cross(const std::vector<Piece>& pieces, const std::vector<std::size_t>& which, const Box& film,
                           const Context& context);

}  // namespace skarvel::dividing
