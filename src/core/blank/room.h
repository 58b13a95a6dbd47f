// blank/room.h
//
// Room: the largest upright rectangle inside a region.
//
// Between two neighbouring heights of corners the region is a row of trapezoids. A rectangle whose lower side lies in
// one row and whose upper side lies in another is as wide as the upright walls between them and the slanted edges of
// those two rows allow: the width is a concave function of both heights, so that the area has one maximum for each pair
// of trapezoids, found by a golden section over the lower side with the upper one solved exactly. Pairs that cannot
// beat the best so far are not looked at. Exact to the grid for polygons with holes of up to `most_heights` different
// heights of corners; with more, the rows between them are taken together, which never gives a rectangle that leaves
// the region. Ties go to the lowest, then the leftmost.
#pragma once

#include "geometry/region.h"

namespace skarvel {

/// Empty for an empty region. A result nearly as large that lies even about the region's middle is preferred.
Box largest_rectangle(const Region& region);

/// Whether all of `box` lies in the region, but for slivers where slanted edges were rounded to the grid.
bool lies_in(const Box& box, const Region& region);

}  // namespace skarvel
