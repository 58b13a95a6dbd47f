// blank/sound.h
//
// Sound: a blank as it can be. What was typed that no blank has is said, and left out or taken as nothing.
#pragma once

#include <vector>

#include "blank/blank.h"

namespace skarvel {

/// The blank without what cannot be; why goes into `problems`. Its length and width stay as they are: without them
/// there is no face, which is said where the face is made.
Blank sound(Blank blank, const std::vector<StockSize>& sizes, std::vector<Problem>& problems);

}  // namespace skarvel
