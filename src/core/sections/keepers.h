// sections/keepers.h
//
// Keepers, told: which letters have them, how many, and how large, so that none is lost among the waste.
#pragma once

#include "sections/sections.h"

namespace skarvel {

/// One row for the keepers of each letter, in the order in which letters first come; of several the smallest is
/// measured, across and up.
std::vector<Reason> keepers_told(const std::vector<Section>& sections);

}  // namespace skarvel
