// job/drawing_commands.h
//
// Commands on a drawing from a file that was put on a face: the colours it came with, its parts, and a place where it
// covers no words. Each returns the new job and leaves the old one alone; art that is not there, or no drawing, changes
// nothing.
#pragma once

#include "job/plan.h"

namespace skarvel {

/// Parts of one colour of the file, back to front.
struct FoundColour {
    std::string colour;  ///< "#rrggbb" as the file has it; empty for what has none
    std::vector<std::size_t> parts;
    double mm2 = 0;  ///< of the drawing's own size
    friend bool operator==(const FoundColour&, const FoundColour&) = default;
};
/// The largest first.
std::vector<FoundColour> colours_found(const FileDrawing& drawing);

/// Each colour of the file becomes one of the face: the one that looks the same, else a new one made like the last.
/// `names`: what such colours are called.
Job take_over_colours(const Job& job, FaceAt at, std::size_t art, const std::vector<ShelfColour>& names = {});
/// All parts in the colour of the art.
Job make_one_colour(const Job& job, FaceAt at, std::size_t art);
/// Parts left out, or brought back.
Job leave_out_parts(const Job& job, FaceAt at, std::size_t art, const std::vector<std::size_t>& parts, bool out);
/// Parts in a colour of the face.
Job colour_parts(const Job& job, FaceAt at, std::size_t art, const std::vector<std::size_t>& parts,
                 const ColourId& colour);

/// Hung where it covers no words and no other art, smaller where it has to be, but not under an inch; where there is no
/// such place it stays where it is.
Job place_clear(const Job& job, FaceAt at, std::size_t art, const ColourPlan& plan, const Display& display);

}  // namespace skarvel
