// geometry/stroke.h
//
// Strokes: lines drawn with a width, with the ends and corners that drawings ask for.
#pragma once

#include "geometry/region.h"

namespace skarvel {

struct Stroke {
    enum class Ends { Flat, Round, Square };
    enum class Corners { Sharp, Round, Cut };
    Length width;
    Ends ends = Ends::Flat;
    Corners corners = Corners::Sharp;
    double miter = 4;  ///< sharp corners that would reach farther than so many half widths are cut
};

/// What lines cover when they are drawn, corners and ends as SVG 2 has them ("line join shape"); a closed one comes
/// back to its start. A line without length is a dot, where its ends
/// are not flat. Throws Undrawable for what reaches beyond the grid or crosses itself without end.
Region stroked(const std::vector<Ring>& lines, const std::vector<bool>& closed, const Stroke& stroke);

}  // namespace skarvel
