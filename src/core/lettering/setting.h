// lettering/setting.h
//
// Setting: one text at a size, about an origin of its own, before it is placed on the face.
//
// Straight lines and stacks are flattened upright at final size about each letter's own origin and moved by whole grid
// steps, so that equal letters stay equal. Letters of arcs and slopes are turned first, then flattened the same way.
// The text's frame: x to the right from the middle of each line, y upwards from the top of the text's ink at 0.
#pragma once

#include <vector>

#include "lettering/gaps.h"
#include "lettering/lettering.h"

namespace skarvel {

struct SetLine {
    std::vector<ShapedLetter> letters;  ///< shifts of evening and joining are in their x already
    std::vector<Extent> boxes;
    double down = 0;  ///< in an evened stack: units that this letter moves down
};

struct SetText {
    std::vector<SetLine> lines;  ///< of a stack one for each letter
    double gaps_were = 0, gaps_are = 0;
    std::vector<std::string> gaps_held;  ///< pairs that the least gap holds further apart
    int closed = 0;
    std::vector<std::string> open;  ///< pairs of a script that stay apart
    [[nodiscard]] bool lacks() const;
};

/// Shaped as the typeface has it.
SetText shape_text(const Text& text, const Typeface& typeface);
/// Evens the gaps of a text that asks for it, or closes the breaks of a script, at about `mm` millimetres for one unit.
void space_text(SetText& set, const Text& text, const Typeface& typeface, double mm);

struct Factors {
    double x = 0, y = 0;  ///< millimetres for one unit
    friend bool operator==(const Factors&, const Factors&) = default;
};

/// What the lines ask of a room at one unit to the millimetre, and the gaps, which do not scale.
struct Demand {
    double widest = 0;      ///< units
    double tall = 0;        ///< units, all lines together
    double gap_across = 0;  ///< mm, in the line that `widest` is of
    double gap_up = 0;      ///< mm
};
Demand demand(const Text& text, const SetText& set);

/// The largest factor at which every line is no wider than `width` (mm), each with its own gaps.
double scale_for_width(const Text& text, const SetText& set, double width);
/// The largest factor at which no line of an arc goes round more than `most` of its circle; 0 where there is none.
double scale_for_circle(const Text& text, const SetText& set, const Typeface& typeface, double edge, double most);
/// The circle that the first line of an arc stands on, mm; nothing or less where there is none.
double first_radius(const Text& text, const Typeface& typeface, double fy, double edge);
/// For an arc: the factor at which its first line fills the arc's sweep. `edge`: radius of the round, mm, 0 for none.
double scale_for_sweep(const Text& text, const SetText& set, const Typeface& typeface, double edge);

struct BuiltText {
    std::vector<PlacedLetter> letters;  ///< `line` counts from 0
    Box ink;
    int slivers = 0;
    int closed = 0;  ///< joints of a script that the curve opened and that were closed again
    struct Joint {
        std::string letters;
        Length by;
    };
    std::vector<Joint> open;  ///< those that stay open, and how far
    double farthest = 0;      ///< of an arc: how much of its circle its longest line takes; 1 is all of it
    int lost_lines = 0;       ///< of an arc, for which no circle is left
};

/// Letters stand where they would without being nudged by hand. `spare`: grid units to be spread over the gaps between
/// lines. `edge` as above; an arc that follows it has the middle of the round as its origin.
BuiltText build_text(const Text& text, const SetText& set, const Typeface& typeface, Factors f, std::int64_t spare,
                     double edge);

/// Whether an arc lies along the edge of its round.
inline bool follows_edge(const Text& text, double edge) {
    return text.arrangement == Arrangement::Arc && text.arc.follow && edge > 0;
}

}  // namespace skarvel
