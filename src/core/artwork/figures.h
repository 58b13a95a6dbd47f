// artwork/figures.h
//
// Figures: simple shapes by number, each with its lower left corner (or, for corner pieces, its corner) at 0, 0.
#pragma once

#include <array>

#include "geometry/region.h"
#include "values/words.h"

namespace skarvel {

/// rectangle, oval, diamond, star, heart or pennant, exactly as wide and high as asked; empty for any other word.
enum class FigureShape { Rectangle, Oval, Diamond, Star, Heart, Pennant };
constexpr auto words_of(FigureShape) { return std::array{"rectangle", "oval", "diamond", "star", "heart", "pennant"}; }

/// How a ruled line ends.
enum class LineEnds { Plain, Pointed, Dots };
constexpr auto words_of(LineEnds) { return std::array{"plain", "pointed", "dots"}; }

/// What stands in a corner.
enum class CornerStyle { Angle, Steps, Fan };
constexpr auto words_of(CornerStyle) { return std::array{"angle", "steps", "fan"}; }

Region figure(FigureShape shape, Length width, Length height);
/// `ends`: plain, pointed or dots.
Region ruled_line(Length length, Length thickness, LineEnds ends);
/// A band with two folded tails, `length` over all.
Region ribbon(Length length, Length height, Length tails);
/// For the lower left corner: angle, steps or fan.
Region corner_piece(CornerStyle style, Length size, Length thickness);

}  // namespace skarvel
