// blank/marking.h
//
// Marking out: what a maker draws on the wood before cutting it: where the pin goes, how long the string is, the
// springing line, and centre marks for frames and handles. Positions from the left and the bottom edge of the sheet.
#pragma once

#include <vector>

#include "blank/blank.h"

namespace skarvel {

struct Pin {
    Reason what;
    Point at;       ///< face frame; may lie outside the blank
    Length string;  ///< from the pin to the line it draws
    Point to;       ///< on that line, in the middle of what the string draws
    friend bool operator==(const Pin&, const Pin&) = default;
};

struct MarkLine {
    Reason what;
    Point from, to;
    friend bool operator==(const MarkLine&, const MarkLine&) = default;
};

struct Marking {
    std::vector<Pin> pins;
    std::vector<MarkLine> lines;
    std::vector<Reason> steps;  ///< how to go about it, in order
    [[nodiscard]] bool empty() const { return pins.empty() && lines.empty(); }
    friend bool operator==(const Marking&, const Marking&) = default;
};

/// Nothing for a blank that could not be measured up.
Marking marking_out(const Blank& blank, const BlankPlan& plan);

}  // namespace skarvel
