// geometry/tangle.h
//
// Tangles: lines from outside that cross one another so often that the boolean library would not come to an end with
// them: it takes the square of the crossings, and the cube where edges lie on edges.
#pragma once

#include <vector>

#include "geometry/region.h"

namespace skarvel {

/// Throws Tangled where more pairs of edges meet than a drawing has that a knife could follow: half a million, and 12
/// more for each edge. Up to a thousand edges are never too many. `closed`: each ring ends where it began.
void look_for_tangles(const std::vector<Ring>& rings, bool closed = true);

/// The same for shapes that are to be made one.
void look_for_tangles(const std::vector<Region>& shapes);

}  // namespace skarvel
