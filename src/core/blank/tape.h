// blank/tape.h
//
// Tape: what the tape measure says about a board, and the board that follows from it.
//
// A face with four corners has five unknowns (four sides and one diagonal); the second diagonal and the width in the
// middle are checks. The corners are fitted to all readings by least squares (Gauss-Newton on a QR decomposition), each
// reading good to the tape's tolerance. Where the readings cannot all be right, each is left out in turn: the one whose
// absence leaves the most likely board (sides nearly parallel, ends nearly square: common practice) is named, others
// that explain it nearly as well are named beside it. Readings that still cannot be without that one, or that make a
// board a quarter off the size it goes by, are refused: the board is then taken as it is called. How far a side is
// skewed shows only as far as its readings fix it: on a long narrow board an error of the diagonal is magnified by
// length over width, and one diagonal alone cannot be checked.
#pragma once

#include <array>
#include <optional>
#include <vector>

#include "geometry/region.h"
#include "measure/reading.h"
#include "text/reason.h"

namespace skarvel {

/// Readings in the frame of an upright board; of a level one the left end counts as the bottom.
enum class Reading { Bottom, Middle, Top, Left, Right, Rising, Falling };
constexpr auto words_of(Reading) { return std::array{"bottom", "middle", "top", "left", "right", "rising", "falling"}; }
constexpr std::size_t reading_count = 7;

/// By Reading: widths at the bottom, middle and top, lengths of the left and right side, the diagonal that rises to the
/// right and the one that falls.
struct Readings {
    std::array<std::optional<Measure>, reading_count> taken;
    Measure tolerance{"1/16 in", Length::sixtyfourths(4)};  ///< how far off one reading may be
    [[nodiscard]] bool any() const;
    friend bool operator==(const Readings&, const Readings&) = default;
};

struct TapePlan {
    std::array<Point, 4> corners;     ///< lower left, lower right, upper right, upper left; lower side level
    Length bow;                       ///< by how much the middle is wider than its ends make it; narrower when negative
    bool bows = false;                ///< more than the tape's tolerance
    bool refused = false;             ///< no board has these readings: the corners are those of the size it goes by
    Length worst;                     ///< the largest difference between a reading and the board that was found
    std::vector<Reading> cannot_be;   ///< most likely first; empty when all readings agree
    std::optional<Length> should_be;  ///< what the first of them would read
    Length taper;                     ///< top width less bottom width
    Length out_of_square;             ///< right length less left length
    Length skew;                      ///< how far the top lies to the right of square over the bottom
    bool from_centre = false;         ///< lay out from the centre line rather than from an edge
    std::vector<Reason> words;        ///< what is the matter with it, and where to lay out from
    std::vector<Problem> problems;    ///< what the readings leave open, or why they are refused
    friend bool operator==(const TapePlan&, const TapePlan&) = default;
};

/// `length` and `width` stand for what was not measured. One reading that no four-sided board can have is named, and
/// the corners are those of the others.
TapePlan reconstruct(const Readings& readings, Length length, Length width);

/// The name of a reading as a sentence of the catalogue.
std::string name_of(Reading reading);

}  // namespace skarvel
