// drawing/nested.h
//
// Closed paths of one colour made one shape: a path that lies inside of another is its hole, one inside of that is ink
// again; paths that cross are one shape, and what was drawn twice counts once.
#pragma once

#include <optional>
#include <vector>

#include "geometry/region.h"

namespace skarvel {

/// The corners of its rings.
std::size_t corners_of(const Region& shape);

/// `looks`: how many corners may be looked at, less what was; nothing where that is not enough. Throws Tangled, and
/// looks for a stop.
std::optional<Region> nested(std::vector<Region> paths, double& looks);

}  // namespace skarvel
