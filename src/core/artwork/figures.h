// artwork/figures.h
//
// Figures: simple shapes by number, each with its lower left corner (or, for corner pieces, its corner) at 0, 0.
#pragma once

#include <string>

#include "geometry/region.h"

namespace skarvel {

/// rectangle, oval, diamond, star, heart or pennant, exactly as wide and high as asked; empty for any other word.
Region figure(const std::string& shape, Length width, Length height);
/// `ends`: plain, pointed or dots.
Region ruled_line(Length length, Length thickness, const std::string& ends);
/// A band with two folded tails, `length` over all.
Region ribbon(Length length, Length height, Length tails);
/// For the lower left corner: angle, steps or fan.
Region corner_piece(const std::string& style, Length size, Length thickness);

}  // namespace skarvel
