// drawing/drawing_file.h
//
// Drawing files: SVG and DXF read into a FileDrawing, from bytes.
//
// An SVG is first put in plain terms on its own tree: `use` is replaced by a copy of what it points at, drawings within
// the drawing and symbols become groups that are moved and scaled, lengths become plain numbers, the style sheet's
// simple rules (element, .class, #id, alone or as `element.class`) and `style` attributes become attributes, and what
// is not drawn goes (definitions, what is hidden, not displayed or clear as glass, fill none). Each filled shape is one
// part; a stroke becomes its outline, with its ends, corners and dashes. Copies are counted before any is made. The
// package for SVG then reads shapes, paths and transforms. Sizes: width and height of the file over its viewBox;
// without units one pixel is 1/96 in. Curves are flattened with chords no farther off than 0.01 mm at the file's size
// or at 600 mm, whichever is larger, so that drawings may be made larger.
//
// A DXF has parts by colour (an entity's own, its layer's, or its insert's): closed paths, holes where one lies inside
// another, one shape where they cross. Planes seen from behind are mirrored as the format has it. Curves that are given
// by nothing but points on them are drawn smoothly through these, which is said.
//
// Named in `notes`, and left out: text that is still text (with its typeface), pictures, style rules that are more than
// simple, clipping, masks, filters, gradients, markers; of a DXF what is on layers that are off or frozen, on paper
// beside the model, in tilted planes, and entities that no knife follows (hatches, dimensions, solids, points).
// Refused, each with its reason: what is neither SVG nor text DXF, entities and inner document types, files over 64 MB,
// more than a million nodes, coordinates that the grid does not hold, nothing that could be cut. Nothing outside the
// bytes is ever read.
#pragma once

#include <functional>
#include <stop_token>

#include "drawing/file_drawing.h"
#include "text/reason.h"

namespace skarvel {

struct ReadDrawing {
    FileDrawing drawing;
    Length width;  ///< as the file gives it; zero where it gives none
    std::vector<Problem> notes;
};

/// `progress` is called with 0 to 1. Refused as "stopped" when `stop` was requested.
Expected<ReadDrawing> read_drawing_file(const std::string& bytes, const std::string& name,
                                        const std::stop_token& stop = {},
                                        const std::function<void(double)>& progress = {});

/// A picture in grey: 0 black to 255 white, rows from the top.
struct GreyPicture {
    int width = 0, height = 0;
    std::vector<unsigned char> pixels;
};

struct TraceWish {
    int threshold = 128;    ///< darker than this is ink
    int speckles = 4;       ///< pixels: smaller spots are dropped
    int corners = 100;      ///< 0 keeps corners sharp, 133 rounds all of them (potrace's alphamax in hundredths)
    bool inverted = false;  ///< light is ink
    friend bool operator==(const TraceWish&, const TraceWish&) = default;
};

/// Outlines of the dark parts (Potrace, Selinger 2003), one part for each island, `width` over all.
Expected<FileDrawing> trace(const GreyPicture& picture, const TraceWish& wish, Length width);

}  // namespace skarvel
