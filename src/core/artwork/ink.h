// artwork/ink.h
//
// Ink: the outlines of one colour that will be vinyl or paint, as a list of pieces that know where they came from.
// Letters that touch are one piece, since they are cut as one; everything else stays apart. The union of the pieces is
// the ink.
//
// A rim lies behind its ink in another colour: all of it (overlay), or cut out under the ink but for an overlap, so
// that no ground shows between them (knock-out). An inner rim lies inside the outline, over its ink or instead of it.
#pragma once

#include <string>
#include <vector>

#include "artwork/art.h"
#include "geometry/region.h"
#include "lettering/lettering.h"

namespace skarvel {

struct Piece {
    Region shape;         ///< face frame
    std::string letters;  ///< "B", or "Boat" when joined; what steps and sheets call it
    int first = 0;        ///< number of its first letter on the face
    bool starts_word = false;
    int line = 0;
    bool art = false;    ///< no letters of a text: `letters` is only its name
    bool alone = false;  ///< of a stack: no word is parted beside it
    friend bool operator==(const Piece&, const Piece&) = default;
};

/// Of all letters, whatever their colour.
std::vector<Piece> pieces_of(const LetteringPlan& lettering);

/// The pieces of one colour of the face: letters, rims and art.
std::vector<Piece> ink_of(const Lettering& lettering, const LetteringPlan& placed, const std::vector<Art>& art,
                          const ArtPlan& made, const ColourId& colour);

/// Pieces of several colours that are cut as one, as where they are printed: what touches is one piece, and letters
/// that come in two colours, as with a rim, are named once.
std::vector<Piece> cut_together(const std::vector<const std::vector<Piece>*>& inks);

/// The colours that anything on the face is in, in the order of `colours`; the first of them where nothing is.
std::vector<ColourId> colours_used(const Lettering& lettering, const std::vector<Art>& art,
                                   const std::vector<ColourId>& colours);
/// What is in a colour that the face does not have, or no longer: it is kept, and not made.
std::vector<ThingId> without_colour(const Lettering& lettering, const std::vector<Art>& art,
                                    const std::vector<ColourId>& colours);

}  // namespace skarvel
