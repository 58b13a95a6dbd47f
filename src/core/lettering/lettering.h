// lettering/lettering.h
//
// Lettering: words placed on the face at true size.
//
// A face carries texts. Each is level lines, a stack (one letter below the other, each centred on its ink) or an arc.
// Texts stand in one column, from the top down and centred, unless they hang somewhere (lettering/hang.h) or follow a
// round's edge. What is snug fills the room: a level line takes its width, several of them share its height in
// proportion, a stack alone may be stretched up to 15 % either way, and where that is not enough it stops, says how
// much room stays free, and names typefaces that would fill it. Gaps are kept as typed or evened (lettering/gaps.h);
// what rounding to the grid leaves over is spread among them.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "blank/blank.h"
#include "lettering/hang.h"
#include "lettering/typeface.h"

namespace skarvel {

enum class Arrangement { Stack, Level, Arc };
constexpr auto words_of(Arrangement) { return std::array{"stack", "level", "arc"}; }
enum class Sizing { Snug, CapHeight, XHeight, Overall, Width };
constexpr auto words_of(Sizing) { return std::array{"snug", "capHeight", "xHeight", "overall", "width"}; }

/// The curve of an arc. Letters stand on the circle (above) or hang from it with their tops to its middle (below).
struct Arc {
    bool below = false;
    bool follow = true;  ///< along the edge of a round, `distance` inside it; otherwise a circle of its own `radius`
    Measure distance{"1 in", Length::inches(1)};
    Measure radius{"6 in", Length::inches(6)};  ///< of the base line
    int sweep = 140;                            ///< degrees that a snug arc fills
    friend bool operator==(const Arc&, const Arc&) = default;
};

/// A letter moved by hand, from where it would stand.
struct Nudge {
    int letter = 0;  ///< counts the letters of its text
    Length x, y;
    friend bool operator==(const Nudge&, const Nudge&) = default;
};

/// A rim behind the ink, in another colour.
struct Rim {
    Measure width;
    ColourId colour = first_colour;
    bool under = true;  ///< it runs on under the ink; otherwise it is cut out there, all but `overlap`
    Measure overlap{"1/16 in", Length::sixtyfourths(4)};
    bool inner = false;  ///< inside the outline of the ink instead of around it
    friend bool operator==(const Rim&, const Rim&) = default;
};

struct Text {
    ThingId id{"a"};    ///< others hang on it
    std::string words;  ///< UTF-8, lines divided by \n
    TypefaceName typeface;
    Arrangement arrangement = Arrangement::Stack;
    Sizing sizing = Sizing::Snug;
    Measure size;                         ///< cap height, x-height, height or width over all, by `sizing`
    int width_percent = 100;              ///< of the typeface's own proportions
    std::vector<std::string> alternates;  ///< features of the typeface, as `shape` takes them
    std::optional<Measure> bolder;        ///< the outline is grown by this
    Measure letter_gap;  ///< in a stack from ink to ink; on level lines added to the typeface's own spacing
    Measure line_gap;    ///< from the ink of one line to the ink of the next, and to the text before
    bool even = false;   ///< gaps evened to the eye
    Measure least_gap{"1/16 in", Length::sixtyfourths(4)};  ///< that evening leaves between outlines
    int slope_tenths = 0;                                   ///< tenths of a degree that level lines rise to the right
    Arc arc;
    bool to_shape = false;  ///< a snug line is as wide as the shape is where it stands
    std::optional<Hang> across, up;
    bool keeps_place = false;  ///< hung somewhere else, its place in the column stays free and its size as it was there
    bool locked = false;
    std::vector<Nudge> nudges;
    ColourId colour = first_colour;  ///< of the face's colours
    std::optional<Rim> rim;
    friend bool operator==(const Text&, const Text&) = default;
};

struct Lettering {
    std::vector<Text> texts{Text{}};  ///< at least one
    bool optical_centre = false;      ///< the column stands a little above the middle
    [[nodiscard]] const Text& main() const { return texts.front(); }
    [[nodiscard]] Text& main() { return texts.front(); }
    friend bool operator==(const Lettering&, const Lettering&) = default;
};

/// Where lettering may stand.
struct LetteringRoom {
    struct Zone {
        std::string name;
        Region region;
        friend bool operator==(const Zone&, const Zone&) = default;
    };
    Box usable;   ///< what a column fills
    Region free;  ///< where ink may lie; empty: the usable box
    Box face;
    bool in_field = false;       ///< the column keeps to a painted field; what hangs elsewhere need not
    std::optional<Length> edge;  ///< radius of a round face, whose middle is that of `face`
    std::vector<Zone> zones;
    Region outline{};          ///< of the face itself; empty: the box
    bool cut_at_edge = false;  ///< ink over the edge is cut off there, as the maker asks
    friend bool operator==(const LetteringRoom&, const LetteringRoom&) = default;
};

LetteringRoom room_of(const Blank& blank, const BlankPlan& plan);

struct PlacedLetter {
    std::string text;
    int line = 0;   ///< of level lines, counted over all texts; a stack counts as one
    int index = 0;  ///< counts the letters of the face
    bool starts_word = false;
    Region ink;          ///< face frame
    int of = 0;          ///< place of its text
    int in_text = 0;     ///< counts the letters of its text
    bool alone = false;  ///< of a stack: it stands by itself, whatever word it is of
    friend bool operator==(const PlacedLetter&, const PlacedLetter&) = default;
};

/// What became of one text.
struct PlacedText {
    ThingId id;
    Box ink;
    Length cap_height, x_height;         ///< as set
    double stretch = 1;                  ///< width factor over height factor
    double gaps_were = 0, gaps_are = 0;  ///< largest over smallest open area; 0 where nothing was evened
    std::vector<std::string> gaps_held;  ///< pairs of letters that the least gap holds further apart
    int closed = 0;                      ///< breaks in a script that were closed
    int slivers = 0;                     ///< stray bits of the typeface that were dropped
    bool in_column = true;               ///< stands there
    friend bool operator==(const PlacedText&, const PlacedText&) = default;
};

struct LetteringPlan {
    std::vector<PlacedLetter> letters;
    std::vector<PlacedText> texts;     ///< one for each text of the lettering
    Box ink;                           ///< around all of it
    Length cap_height;                 ///< of a flat capital, as set, in the first text
    double stretch = 1;                ///< width factor over height factor, in the first text
    Length free_across;                ///< usable width that the ink leaves
    Length free_up;                    ///< usable height that it leaves
    std::vector<TypefaceName> offers;  ///< typefaces that would fill the room, best first; empty when it is filled
    std::vector<Reason> notes;
    std::vector<Problem> problems;
    friend bool operator==(const LetteringPlan&, const LetteringPlan&) = default;
};

/// Widest change of a letter's proportions that still looks right (common practice: 15 to 20 %).
constexpr double stretch_limit = 1.15;

/// Letters that the typeface lacks are named and left out. Ink that leaves the room is a problem that says by how much,
/// and into which clear zone.
LetteringPlan place(const Lettering& lettering, const LetteringRoom& room, const std::vector<Typeface>& typefaces);
/// One text in a rectangle.
LetteringPlan place(const Text& text, const Box& usable, const std::vector<Typeface>& typefaces);

/// Texts that one would touch if it were moved by so much from where it stands, by their place in `plan`.
std::vector<std::size_t> touched_by(const LetteringPlan& plan, const ThingId& moved, Point by);

/// An id that no text of the lettering has yet.
ThingId unused_text_id(const Lettering& lettering);

}  // namespace skarvel
