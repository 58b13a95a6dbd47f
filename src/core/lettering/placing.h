// lettering/placing.h
//
// Placing by hand: where a thing that is dragged comes to hang, and lining things up.
//
// A dragged thing snaps to lines near it, per axis: centre lines and edges of the face, edges and middle of the usable
// room, edges and middles of other things, and the place half way between two neighbours (equal gaps). What it snaps to
// is what it hangs on; where nothing is near, it keeps a typed distance from the nearest side of the face, on the
// tape's marks.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "lettering/hang.h"
#include "measure/reading.h"

namespace skarvel {

struct PlacedThing {
    ThingId id;
    Box box;
    friend bool operator==(const PlacedThing&, const PlacedThing&) = default;
};

struct Snap {
    Hang across, up;
    Point move;                           ///< from where the thing stood
    bool on_x = false, on_y = false;      ///< snapped, in either direction
    std::int64_t line_x = 0, line_y = 0;  ///< the lines it snapped to
    bool equal_gaps = false;
};

struct SnapInput {
    PlacedThing thing;
    std::vector<PlacedThing> others;
    Box face, usable;
    Point by;                ///< how far it was dragged
    std::int64_t reach = 0;  ///< how near a line must be, grid units
    Display display;         ///< distances are rounded to its marks
};

Snap snap(const SnapInput& input);

/// Where a thing hangs after it was moved by exactly `by`: on what it hung on before, or on the nearest side of the
/// face.
Hang moved_by(const std::optional<Hang>& now, const Box& box, const Box& face, Axis axis, Length by,
              const Display& display);

/// So that it lines up with that side of the face's usable room or of another thing.
Hang lined_up(const ThingId& on, Side side);

/// Things in the order given, each hung on the one before, so that all gaps along the axis are equal while the first
/// and the last stay. Empty with fewer than three.
std::vector<std::optional<Hang>> spread(const std::vector<PlacedThing>& things, Axis axis, const Display& display);

}  // namespace skarvel
