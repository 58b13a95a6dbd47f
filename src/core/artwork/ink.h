// artwork/ink.h
//
// Ink: the outlines of one colour that will be vinyl or paint, as a list of pieces that know where they came from.
// Letters that touch are one piece, since they are cut as one; everything else stays apart. The union of the pieces is
// the ink.
#pragma once

#include <string>
#include <vector>

#include "geometry/region.h"
#include "lettering/lettering.h"

namespace skarvel {

struct Piece {
    Region shape;         ///< face frame
    std::string letters;  ///< "B", or "Boat" when joined; what steps and sheets call it
    int first = 0;        ///< number of its first letter on the face
    bool starts_word = false;
    int line = 0;
    friend bool operator==(const Piece&, const Piece&) = default;
};

std::vector<Piece> pieces_of(const LetteringPlan& lettering);

}  // namespace skarvel
