// lettering/yielding.h
//
// Yielding: what becomes of a dimension that was typed. Free space, and what is snug, give way by themselves when the
// face is placed again. What cannot be (ink would leave the room, or come to lie in a clear zone, where it did not
// before) is not taken: the old value stays, and the nearest one on the tape's marks that can be is found by halving
// the way between the two, as room that was used up does not come back on the way.
#pragma once

#include <functional>
#include <optional>

#include "lettering/lettering.h"

namespace skarvel {

struct TriedDimension {
    bool fits = true;
    Measure nearest;               ///< where it does not fit: between the old and the typed value
    Length over;                   ///< by how much the typed one is too far
    std::optional<Problem> hurts;  ///< what stands against it
    friend bool operator==(const TriedDimension&, const TriedDimension&) = default;
};

/// `set` puts a value into a text; `was` is the value as it is now set or follows.
TriedDimension try_dimension(const Lettering& lettering, std::size_t text, const LetteringRoom& room,
                             const std::vector<Typeface>& typefaces,
                             const std::function<void(Text&, const Measure&)>& set, const Measure& was,
                             const Measure& typed, const Display& display);

}  // namespace skarvel
