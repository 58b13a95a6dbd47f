// lettering/hang.h
//
// Hang: what decides where a thing stands along one axis. A thing hangs on at most one other for each axis: with its
// own low side, middle or high side at a typed distance from that of the face, of the usable room, or of another thing.
// So relations form a tree for each axis, and one pass from the roots places everything; nothing is solved.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "geometry/region.h"
#include "measure/reading.h"
#include "values/id.h"

namespace skarvel {

/// Left or bottom, middle, right or top.
enum class Side { Low, Middle, High };
constexpr auto words_of(Side) { return std::array{"low", "middle", "high"}; }

/// What is always there to hang on.
inline const ThingId on_face{"face"};
inline const ThingId on_usable{"usable"};

struct Hang {
    ThingId on = on_face;     ///< the face, the usable room, or another thing
    Side its = Side::Middle;  ///< that line of what it hangs on
    Side mine = Side::Middle;
    Measure by{"0 in", {}};  ///< from its line to mine, to the right or upwards
    friend bool operator==(const Hang&, const Hang&) = default;
};

struct Hanging {
    ThingId id;
    Box box;  ///< where it stands before it is hung
    std::optional<Hang> across, up;
};

struct Hung {
    std::vector<Point> moves;      ///< for each thing, by how much it moves to hang as decided
    std::vector<ThingId> circles;  ///< things that hang on themselves by way of others: left where they stood
    std::vector<ThingId> lost;     ///< things that hang on what is not there
};

Hung hang(const std::vector<Hanging>& things, const Box& face, const Box& usable);

std::int64_t side_of(const Box& box, Axis axis, Side side);

}  // namespace skarvel
