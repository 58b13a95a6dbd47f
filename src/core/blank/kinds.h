// blank/kinds.h
//
// What a blank becomes when the maker says that it is of another kind: measures that make sense to begin with (common
// practice), and nothing left over that the new kind cannot have.
#pragma once

#include "blank/blank.h"

namespace skarvel {

/// The same blank where it is of that kind already.
Blank as_kind(Blank blank, Kind kind);

/// The arch with another top; its rise is changed only where the new top cannot have it.
Blank with_top(Blank arch, ArchStyle style);

}  // namespace skarvel
