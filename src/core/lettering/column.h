// lettering/column.h
//
// Column: sizes of lines that stand one below the other in a room.
//
// In a rectangle each snug line takes the full width; where they are then too tall together, all of them shrink by one
// factor. In a shape each snug line is as wide as the free stretch at the height where it stands: heights are found by
// going back and forth between where lines stand and how wide it is there, which settles quickly since both change
// slowly; at the end every line is held to the width of its place, so that none leaves the shape.
#pragma once

#include <vector>

#include "geometry/region.h"

namespace skarvel {

struct ColumnLine {
    double fixed = 0;                   ///< mm, of a line whose size is decided; 0 for a snug one
    double widest = 0, tall = 0;        ///< units
    double gap_across = 0, gap_up = 0;  ///< mm, which do not scale
    double gap_before = 0;              ///< mm, to the line above
    bool to_shape = false;
};

struct Column {
    std::vector<ColumnLine> lines;
};

struct ColumnSlot {
    double scale = 0;                              ///< millimetres for one unit
    std::int64_t top = 0, height = 0, middle = 0;  ///< grid units, face frame
};

/// `free`: the shape; empty for just the rectangle.
std::vector<ColumnSlot> fit_column(const Column& column, const Box& usable, const Region& free);

/// The widest stretch of `free` over the whole height from `low` to `high`; empty where there is none.
Box stretch_at(const Region& free, std::int64_t low, std::int64_t high);

}  // namespace skarvel
