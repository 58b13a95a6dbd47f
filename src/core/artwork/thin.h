// artwork/thin.h
//
// Thin: strokes, gaps and keepers too thin for the film or the hand, where they are.
//
// The width of a stroke at a point is what the medial axis says: twice the distance to the nearest edge, for points
// that have two nearest points of the outline on opposite sides. Such points are found from the outline: the largest
// circle that touches it at a place, and holds nothing of it (as Ma, Bae and Choi shrink theirs, 2012; here against
// straight edges, so in closed form). Of each piece alone; inside the ink it measures strokes, outside it gaps in one
// piece. Circles in a corner are left out: there the two nearest points lie side by side, not opposite. Between two
// pieces the gap is the shortest distance of their outlines. A keeper is as large as the largest circle in it.
//
// Equal pieces are measured once.
#pragma once

#include "artwork/ink.h"
#include "values/words.h"

namespace skarvel {

struct CutLimits {
    Length stroke = 0.0625_in;  ///< of ink; from memory
    Length gap = 0.0625_in;     ///< of film that stays between ink; from memory
    Length keeper = 0.125_in;   ///< across; from memory
    friend bool operator==(const CutLimits&, const CutLimits&) = default;
};

enum class Thin { Stroke, Gap, Keeper };
constexpr auto words_of(Thin) { return std::array{"stroke", "gap", "keeper"}; }

struct ThinPlace {
    Thin what = Thin::Stroke;
    std::size_t piece = 0;
    std::string letters;
    Point at;      ///< the middle of the thinnest spot, face frame
    Length width;  ///< there
    Length cure;   ///< by how much growing the outline would cure it (a gap: shrinking), up to the next 1/64 in
    friend bool operator==(const ThinPlace&, const ThinPlace&) = default;
};

struct ThinPlan {
    std::vector<ThinPlace> places;  ///< by piece, the thinnest first in each
    Length thinnest_stroke;         ///< of all pieces; zero where there is none
    int strokes = 0, gaps = 0, keepers = 0;
    Length bolder;  ///< growing by this would cure all strokes
    friend bool operator==(const ThinPlan&, const ThinPlan&) = default;
};

ThinPlan thin_places(const std::vector<Piece>& pieces, const CutLimits& limits);

/// The least width of strokes of one shape, by the medial axis; zero for an empty one.
Length thinnest(const Region& shape);

}  // namespace skarvel
