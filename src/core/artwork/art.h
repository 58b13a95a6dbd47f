// artwork/art.h
//
// Art: what stands on a face beside its texts. Most of it is made by number (a border, a height ruler, a month board)
// and made anew whenever the blank or a number changes, so it stays editable and keeps fitting; drawings come from
// files (drawing/picture_file.h) and are scaled to an exact width or height.
//
// `make_art` works in whole grid steps: where parts must fill a whole (seven columns, the inches of a foot), what
// rounding leaves over is spread among them, so that the parts always add up.
#pragma once

#include <map>
#include <string>
#include <variant>
#include <vector>

#include "artwork/figures.h"
#include "drawing/file_drawing.h"
#include "lettering/lettering.h"
#include "values/shared.h"

namespace skarvel {

enum class Corner { Square, Round, Notched };
constexpr auto words_of(Corner) { return std::array{"square", "round", "notched"}; }

/// A line round the face, `inset` from its edges, or from the edge of a round or arch in the same way.
struct Border {
    Measure inset{"1/2 in", Length::sixtyfourths(32)};
    Measure thickness{"1/4 in", Length::sixtyfourths(16)};
    Corner corner = Corner::Square;
    Measure corner_size{"3/4 in", Length::sixtyfourths(48)};
    bool twice = false;  ///< a second, thinner line inside
    friend bool operator==(const Border&, const Border&) = default;
};

/// The same piece in all four corners, each mirrored to fit.
struct Corners {
    Measure inset{"1/2 in", Length::sixtyfourths(32)};
    Measure size{"2 in", Length::inches(2)};
    Measure thickness{"1/4 in", Length::sixtyfourths(16)};
    CornerStyle style = CornerStyle::Angle;
    friend bool operator==(const Corners&, const Corners&) = default;
};

struct RuledLine {
    Measure length{};  ///< nothing: the usable width
    Measure thickness{"1/8 in", Length::sixtyfourths(8)};
    LineEnds ends = LineEnds::Plain;
    friend bool operator==(const RuledLine&, const RuledLine&) = default;
};

struct Banner {
    Measure length{};  ///< over all; nothing: the usable width
    Measure height{"3 in", Length::inches(3)};
    Measure tails{"2 in", Length::inches(2)};
    friend bool operator==(const Banner&, const Banner&) = default;
};

struct Figure {
    FigureShape shape = FigureShape::Star;
    Measure width{"3 in", Length::inches(3)};
    Measure height{"3 in", Length::inches(3)};
    Measure line{};  ///< only its outline, that thick; nothing: filled
    friend bool operator==(const Figure&, const Figure&) = default;
};

/// Marks up one side of an upright board that hangs above the floor.
struct HeightRuler {
    Measure above_floor{"8 in", Length::inches(8)};
    bool metric = false;
    bool right = false;                                          ///< marks start at the right edge
    Measure long_mark{"4 in", Length::inches(4)};                ///< feet, or tens of centimetres
    Measure middle_mark{"2 1/2 in", Length::sixtyfourths(160)};  ///< 3 and 6 in, or fives
    Measure short_mark{"1 1/4 in", Length::sixtyfourths(80)};
    Measure thickness{"3/16 in", Length::sixtyfourths(12)};
    bool numbers = true;
    TypefaceName typeface;
    Measure number_height{"2 in", Length::inches(2)};
    friend bool operator==(const HeightRuler&, const HeightRuler&) = default;
};

/// Seven columns and six rows of days under a row of day names and a title.
struct MonthBoard {
    std::string title = "MONTH";
    std::vector<std::string> days{"MON", "TUE", "WED", "THU", "FRI", "SAT", "SUN"};
    TypefaceName typeface;
    Measure title_height{"2 in", Length::inches(2)};
    Measure day_height{"3/4 in", Length::sixtyfourths(48)};
    Measure gap{"3/8 in", Length::sixtyfourths(24)};  ///< between title, names and days; and between boxes
    Measure line{"1/8 in", Length::sixtyfourths(8)};
    bool boxes = false;  ///< each day a box of its own; otherwise ruled lines
    friend bool operator==(const MonthBoard&, const MonthBoard&) = default;
};

/// A drawing from a file, at a typed size.
struct PlacedDrawing {
    Shared<FileDrawing> drawing{FileDrawing{}};
    bool by_width = true;
    Measure size{"4 in", Length::inches(4)};  ///< its width or height over all
    bool mirrored = false;
    bool four_corners = false;                          ///< mirrored copies in all corners
    std::map<std::size_t, ColourId> colours;            ///< part -> colour of the face, where it differs from the art's
    std::vector<std::size_t> dropped;                   ///< parts left out
    Measure around{"1/8 in", Length::sixtyfourths(8)};  ///< a kept picture is cut this far outside what it shows
    friend bool operator==(const PlacedDrawing&, const PlacedDrawing&) = default;
};

using ArtKind = std::variant<Border, Corners, RuledLine, Banner, Figure, HeightRuler, MonthBoard, PlacedDrawing>;

struct Art {
    ThingId id{"art1"};
    ArtKind kind;
    ColourId colour = first_colour;
    std::optional<Hang> across, up;  ///< nothing: in the middle of the usable room; borders and rulers keep their place
    bool locked = false;
    friend bool operator==(const Art&, const Art&) = default;
};

struct ArtPart {
    Region shape;      ///< face frame
    std::string name;  ///< what steps and sheets call it; may be empty
    ColourId colour = first_colour;
    std::size_t of_drawing = 0;  ///< part of a drawing that it was
    friend bool operator==(const ArtPart&, const ArtPart&) = default;
};

struct ArtPlan {
    std::vector<std::vector<ArtPart>> parts;  ///< for each art of the face, in its order
    std::vector<Box> boxes;                   ///< round each
    std::vector<Box> pictures;                ///< where a kept picture lies, whole; empty for other art
    std::vector<Reason> notes;
    std::vector<Problem> problems;
    friend bool operator==(const ArtPlan&, const ArtPlan&) = default;
};

/// The art of a face. `outline`: the face itself, which borders follow.
ArtPlan make_art(const std::vector<Art>& art, const LetteringRoom& room, const Region& outline,
                 const std::vector<Typeface>& typefaces);

/// A short name of its kind: "border", "height-ruler".
const char* kind_of(const Art& art);

/// The last and the first height, in whole inches or centimetres above the floor, that a ruler on a board of this
/// height marks.
std::pair<int, int> ruler_range(const HeightRuler& ruler, Length board);

}  // namespace skarvel
