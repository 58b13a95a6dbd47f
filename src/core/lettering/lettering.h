// lettering/lettering.h
//
// Lettering: words placed on the face at true size.
//
// A stack sets one letter per line, each centred on its ink; all letters share one factor for width and one for height.
// Level lines keep the typeface's own proportions and are centred on their ink. Snug fills the usable area: a stack may
// be stretched up to 15 % either way, and where that is not enough it stops, says how much room stays free, and names
// typefaces that would fill it. Gaps are kept as typed; what rounding to the grid leaves over is spread among them.
#pragma once

#include <string>
#include <vector>

#include "blank/blank.h"
#include "lettering/typeface.h"

namespace skarvel {

enum class Arrangement { Stack, Level };
enum class Sizing { Snug, CapHeight };

struct Lettering {
    std::string words;  ///< UTF-8, lines divided by \n
    TypefaceName typeface;
    Arrangement arrangement = Arrangement::Stack;
    Sizing sizing = Sizing::Snug;
    Measure cap_height;  ///< used when sized by it
    Measure letter_gap;  ///< in a stack from ink to ink; on level lines added to the typeface's own spacing
    Measure line_gap;    ///< from the ink of one line to the ink of the next
    friend bool operator==(const Lettering&, const Lettering&) = default;
};

struct PlacedLetter {
    std::string text;
    int line = 0;   ///< of level lines; a stack counts as one
    int index = 0;  ///< counts the letters of the face
    bool starts_word = false;
    Region ink;  ///< face frame
    friend bool operator==(const PlacedLetter&, const PlacedLetter&) = default;
};

struct LetteringPlan {
    std::vector<PlacedLetter> letters;
    Box ink;                           ///< around all of it
    Length cap_height;                 ///< of a flat capital, as set
    double stretch = 1;                ///< width factor over height factor
    Length free_across;                ///< usable width that the ink leaves
    Length free_up;                    ///< usable height that it leaves
    std::vector<TypefaceName> offers;  ///< typefaces that would fill the room, best first; empty when it is filled
    std::vector<Reason> notes;
    std::vector<Problem> problems;
    friend bool operator==(const LetteringPlan&, const LetteringPlan&) = default;
};

/// Widest change of a letter's proportions that still looks right (common practice: 15 to 20 %).
constexpr double stretch_limit = 1.15;

/// Letters that the typeface lacks are named and left out. Ink that leaves `usable` is a problem that says by how much.
LetteringPlan place(const Lettering& lettering, const Box& usable, const std::vector<Typeface>& typefaces);

}  // namespace skarvel
