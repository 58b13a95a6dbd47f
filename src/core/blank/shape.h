// blank/shape.h
//
// Shape: the exact face of each kind of blank. Curves are flattened with chords no farther off than 0.01 mm.
//
// Arcs from span s and rise h have the radius s^2/(8h) + h/2; a pointed arch has two arcs whose pins lie on the
// springing line at (h^2 - s^2/4)/s from the middle, with the radius h^2/s + s/4 (both by Pythagoras).
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "geometry/region.h"
#include "measure/reading.h"
#include "text/reason.h"

namespace skarvel {

enum class Kind { Board, Panel, Canvas, Round, Arrow, Arch, Field, Drawn };
constexpr auto words_of(Kind) {
    return std::array{"board", "panel", "canvas", "round", "arrow", "arch", "field", "drawn"};
}
enum class Stands { Upright, Level };
constexpr auto words_of(Stands) { return std::array{"upright", "level"}; }

/// The triangular head of an arrow; its body is the blank's length and width.
struct ArrowHead {
    Measure length{"2 3/4 in", Length::sixtyfourths(176)};
    Measure height{"4 1/2 in", Length::sixtyfourths(288)};
    Measure overlap{"0 in", {}};  ///< by how much it lies over the body
    bool right = true;            ///< where it points
    friend bool operator==(const ArrowHead&, const ArrowHead&) = default;
};

enum class ArchStyle { HalfRound, Segmental, Pointed };
constexpr auto words_of(ArchStyle) { return std::array{"half-round", "segmental", "pointed"}; }
struct ArchTop {
    ArchStyle style = ArchStyle::HalfRound;
    Measure rise{"12 in", Length::inches(12)};  ///< of a segmental or pointed top above its springing line
    friend bool operator==(const ArchTop&, const ArchTop&) = default;
};

/// An outline read from a file, at the file's own size, and the one dimension that is known of it.
struct DrawnOutline {
    Region drawn;
    bool by_width = true;  ///< `known` is the width over all, otherwise the height
    Measure known{};
    std::string source{};  ///< the file's name, to say where it came from
    friend bool operator==(const DrawnOutline&, const DrawnOutline&) = default;
};

/// The measures of a face, resolved: `length` along the grain's way, `width` across.
struct FaceSize {
    Kind kind = Kind::Board;
    Length length, width;
    Stands stands = Stands::Upright;
    ArrowHead head;
    ArchTop arch;
    std::optional<DrawnOutline> outline;
};

/// The face with its lower left corner at the origin, or why there can be none.
Expected<Region> shape_of(const FaceSize& size);

/// The radius of an arc from its span and rise.
Length arc_radius(Length span, Length rise);
/// How far the pins of a pointed arch lie from the middle of its springing line.
Length pointed_pin(Length span, Length rise);
/// Width of a circle at a distance from its middle; zero outside.
Length chord(Length radius, Length from_middle);

/// A circle as a region.
Region circle(Point middle, Length radius);

}  // namespace skarvel
