// values/work.h
//
// Work: the kinds of things that hands do, and what one piece of it is called. A step's name says for which face or
// colour, what, and which: "1/ground/2" the second ground coat of a face, "1.2/lay/BOAT" a section of a colour,
// "1/lay.3/BOAT" the same laid for the third time, "1/colour.2/1" the first coat of the second pass. It is made of ids
// and of the maker's letters alone, so it stays when the order, the language or the rest of the plan changes.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <string_view>

#include "values/id.h"
#include "values/words.h"

namespace skarvel {

enum class Work {
    Proof,
    Saw,
    Sand,
    Frame,
    Ground,
    ClearUnder,
    Field,
    Cut,
    Weed,
    Tape,
    Stack,
    Lay,
    Seal,
    Colour,
    Lift,
    Clear,
    Final,
    Hang,
    Wipe,
    DryBrush,
    Distress,
    Chalk,
    Hardware,
    Decorate,
    Trial,
    Turn,
    Mend
};
constexpr auto words_of(Work) {
    return std::array{"proof", "saw",       "sand",     "frame", "ground",   "clear-under", "field", "cut",   "weed",
                      "tape",  "stack",     "lay",      "seal",  "colour",   "lift",        "clear", "final", "hang",
                      "wipe",  "dry-brush", "distress", "chalk", "hardware", "decorate",    "trial", "turn",  "mend"};
}

/// Done once for a whole face; the rest is done for one of its colours.
bool is_of_face(Work work);
/// Done away from the blank: nothing on it has to dry first.
bool is_beside_blank(Work work);

/// `time`: which lay of a section, or which pass; 1 is left out.
StepId step_id(const FaceId& of, Work work, const std::string& which = {});
StepId step_id(const ColourId& of, Work work, const std::string& which = {}, int time = 1);

/// A step's name taken apart again; nothing where it is none.
struct StepName {
    std::string of;  ///< the id of its face or its colour
    Work work = Work::Proof;
    int time = 1;
    std::string which;
    friend bool operator==(const StepName&, const StepName&) = default;
};
std::optional<StepName> name_of(const StepId& step);

}  // namespace skarvel
