// loads/repeats.h
//
// Repeats: ink that comes again at even distances, as the foot of a ruler does. One mask of it may be cut once, or a
// few times, and laid again: less film against more passes of paint. Found by voting: pieces of one shape propose the
// moves between them; the move kept is the one by which most ink comes again, and of those the one with fewest lays,
// whose unit fits a load.
#pragma once

#include <optional>

#include "sections/sections.h"

namespace skarvel {

struct Repeat {
    Point step;                                   ///< from one lay to the next
    std::vector<std::vector<std::size_t>> units;  ///< places of pieces, unit by unit; all alike but for their place
    std::vector<std::size_t> rest;                ///< pieces that do not come again
    friend bool operator==(const Repeat&, const Repeat&) = default;
};

/// Nothing where less than half of the ink comes again, or no unit with its margin fits `room`.
std::optional<Repeat> repeat_in(const std::vector<Piece>& pieces, const Room& room, Length margin);

}  // namespace skarvel
