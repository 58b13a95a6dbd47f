// sections/places.h
//
// Places: where, along an axis, a chain of sections may be parted between two neighbours. In free film a seam runs
// straight, on a line that a maker can measure to, with its lap clear of the ink on both sides; where outlines
// interlock a little it is stepped around them. For this folder alone.
#pragma once

#include <vector>

#include "sections/draft.h"

namespace skarvel::dividing {

struct Place {
    std::size_t before = 0;  ///< piece of the order that it lies before
    std::int64_t where = 0;
    std::int64_t lower_end = 0;    ///< how far the film on the lower side reaches
    std::int64_t upper_start = 0;  ///< where the film on the upper side begins
    bool stepped = false;
    Length lap;
    const char* why = "";
    bool is_end = false;
    int in_words = 0;  ///< words that it parts
};

/// `boxes`: of all `pieces`; `order`: those of one cell along `axis`. The first and the last place are the cell's ends.
std::vector<Place> places_along(const std::vector<Piece>& pieces, const std::vector<Box>& boxes,
                                const std::vector<std::size_t>& order, const Box& cell, Axis axis,
                                const Context& context);

/// How coarse the line is that a seam lies on: 0 for whole half inches, 4 for anything finer than 1/16.
int off_line(std::int64_t where);

/// A straight or stepped seam at a place, from end to end of its cell.
Seam seam_at(const Place& place, const Box& cell, Axis axis);

}  // namespace skarvel::dividing
