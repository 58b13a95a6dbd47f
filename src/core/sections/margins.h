// sections/margins.h
//
// Margins: film wherever a tool reaches. A seam cuts a mask's margin off; where the neighbour is shorter, or its
// letters lower, no film lies beyond. Such a spot is given to the film that takes it with the least: a neighbour's,
// made longer, or the mask's own, past the seam and around the neighbour's film. For this folder alone.
#pragma once

#include "sections/draft.h"

namespace skarvel::dividing {

/// Makes the films of `division` larger until they meet the margins of all its ink, as far as the room holds them; what
/// stays bare is added up in `division.bare_mm2`. `boxes`: of all pieces, face frame. Nothing is done for decals, and
/// for masks that keep their whole margins.
void meet_margins(Division& division, const std::vector<Box>& boxes, const Context& context);

}  // namespace skarvel::dividing
