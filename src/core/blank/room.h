// blank/room.h
//
// Room: the largest upright rectangle inside a region.
//
// The region is cut into level strips at the heights of its corners. In a strip, what lies between neighbouring edges
// is free over the strip's whole height as far as both edges allow; running a set of free stretches upwards from each
// strip finds the best rectangle that begins there. Exact for outlines of straight level and upright edges, and else as
// fine as the strips: where a region has more corners than `most_strips`, strips between them are taken together, which
// never gives a rectangle that leaves the region. Ties go to the lowest, then the leftmost.
#pragma once

#include "geometry/region.h"

namespace skarvel {

/// Empty for an empty region. A result nearly as large that lies even about the region's middle is preferred.
Box largest_rectangle(const Region& region);

/// Whether all of `box` lies in the region, but for slivers where slanted edges were rounded to the grid.
bool lies_in(const Box& box, const Region& region);

}  // namespace skarvel
