// lettering/gaps.h
//
// Gaps: the open area that the eye sees between neighbouring letters, evened; and the breaks of a script, closed.
//
// The open area of a pair is what lies free between the facing sides of both outlines, over the height of the
// lower-case letters (of capitals where a line is mostly those), reaching into each letter no deeper than a share of
// the cap height. Moving a letter by d changes it by d times that height, so areas are made equal in one step; letters
// that would come nearer than the least distance keep it, and the others share what is left, so that the line stays as
// long as it was. In a stack the same is done downwards. The least distance is that of the outlines themselves, in
// every direction: one letter's outline, grown by it, must not reach into the next.
//
// A typeface whose lower-case letters touch is a script: there every letter is to overlap the next. A pair that stays
// apart is drawn together until its outlines meet.
#pragma once

#include <vector>

#include "lettering/typeface.h"

namespace skarvel {

struct Evened {
    std::vector<double> shift;      ///< for each letter, units, along the line (downwards in a stack)
    double were = 0, are = 0;       ///< largest over smallest open area of all gaps; 0 with fewer than two
    std::vector<std::size_t> held;  ///< second letters of gaps that the least distance keeps
};

/// `extra`: what is added between letters anyhow, and `least`: the least distance between outlines, both in units.
Evened even_line(const std::vector<ShapedLetter>& line, const Typeface& typeface, double extra, double least);

/// `stack`: its letters from the top down, each centred; `gap`: between them as typed; blanks part words.
Evened even_stack(const std::vector<const ShapedLetter*>& stack, const Typeface& typeface, double gap, double least);

struct Joined {
    std::vector<double> shift;  ///< units, for each letter
    int closed = 0;
    std::vector<std::string> open;  ///< pairs that could not be drawn together
};

/// For scripts: `extra` is added between letters anyhow.
Joined join_line(const std::vector<ShapedLetter>& line, const Typeface& typeface, double extra);

}  // namespace skarvel
