// loads/repeats.h
//
// Repeats: ink that comes again, as the foot of a ruler does at even distances, or the corner of a border turned, and
// mirrored where the film may be turned over. One mask of it may be cut once, or a few times, and laid again: less film
// against more passes of paint. Found by voting: pieces of one shape, under a move, a turn or a mirror, propose the
// motions between them; the one kept is that by which most ink comes again, and of those the one with fewest lays,
// whose unit fits a load. What counts as equal: loads/alike.h.
#pragma once

#include <optional>

#include "sections/sections.h"

namespace skarvel {

struct Repeat {
    std::vector<Motion> lays;                     ///< from the first unit to each; the first of them does nothing
    std::vector<std::vector<std::size_t>> units;  ///< places of pieces, unit by unit; all alike but for their motion
    std::vector<std::size_t> rest;                ///< pieces that do not come again
    friend bool operator==(const Repeat&, const Repeat&) = default;
};

/// Nothing where less than half of the pieces, or of the art among them, come again, or no unit with its margin fits
/// `room`. `turned_over`: the film may be, so that what is mirrored comes again as well.
std::optional<Repeat> repeat_in(const std::vector<Piece>& pieces, const Room& room, Length margin,
                                bool turned_over = false);

}  // namespace skarvel
