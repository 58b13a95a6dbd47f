// drawing/outline_file.h
//
// Outline files: the outline of a blank from an SVG or DXF file, read from bytes. Every closed path of the file counts;
// paths inside others are holes. Sizes in such files are seldom to be trusted: the result is scaled to 2 m along its
// longer side, and one dimension that the maker knows gives it its size.
//
// Circles and arcs become cubics of less than an eighth of a turn, with a radius right within 0.001 %.
//
// Refused, each with its reason: what is neither SVG nor DXF, document types with declarations and entities (they can
// pull in other files or grow without end), files over 8 MB or outlines over 200 000 points, open paths, paths that
// cross themselves, more than one shape, and files without any path. Nothing outside the bytes is ever read.
#pragma once

#include <string>

#include "geometry/outline.h"
#include "text/reason.h"

namespace skarvel {

struct ReadOutline {
    Region outline;
    std::vector<Problem> notes;  ///< what the file holds besides, and is left out
};

/// `name` is only told back in problems.
Expected<ReadOutline> read_outline(const std::string& bytes, const std::string& name);
/// The outline alone.
Expected<Region> read_outline_file(const std::string& bytes, const std::string& name);

/// A path of a drawing: a contour, y upwards, and whether it ends where it began.
struct DrawnPath {
    Outline::Contour contour;
    bool closed = false;
    std::size_t shape = 0;  ///< of an SVG: which of its shapes it belongs to; of a DXF its place in `colours`
};

/// What the model of a DXF draws, and what it holds besides.
struct DxfDrawing {
    std::vector<DrawnPath> paths;      ///< millimetres
    std::vector<std::string> colours;  ///< "#rrggbb"; empty for black, which is white on a dark ground
    std::vector<Reason> left_out;
};
Expected<DxfDrawing> drawing_of_dxf(const std::string& bytes, const std::string& name);

/// The paths of either kind of file, before they are judged: of an SVG in its own units, of a DXF in millimetres.
Expected<std::vector<DrawnPath>> paths_of_svg(const std::string& bytes, const std::string& name,
                                              std::size_t most_shapes);
Expected<std::vector<DrawnPath>> paths_of_dxf(const std::string& bytes, const std::string& name);

}  // namespace skarvel
