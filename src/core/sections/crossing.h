// sections/crossing.h
//
// Crossing: one piece larger than the room is divided by the fewest straight cuts, where they show least (showing.h): a
// shortest path over lines an eighth of an inch apart. What is too large both ways is cut one way, then the other. For
// this folder alone.
#pragma once

#include <optional>

#include "sections/draft.h"

namespace skarvel::dividing {

/// `index`: the place of `piece` in the list that drafts speak of. Nothing where no cut makes it small enough.
std::optional<Draft> cross(const Piece& piece, std::size_t index, const Box& film, const Context& context);

}  // namespace skarvel::dividing
