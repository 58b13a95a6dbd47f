// drawing/file_drawing.h
//
// Drawing: what a file held, as a value: parts (a filled path each, with its colour and name), at the size that the
// file gives them, and where it came from. A job carries its drawings whole, so it opens on any machine.
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "geometry/region.h"

namespace skarvel {

struct DrawingPart {
    Region shape;        ///< lower left corner of the whole drawing at 0, 0; y upwards
    std::string colour;  ///< "#rrggbb" as the file has it, or empty
    std::string name;    ///< the file's id of it, or empty
    friend bool operator==(const DrawingPart&, const DrawingPart&) = default;
};

/// A full-colour picture, kept as it came, for printing and then cutting round it.
struct KeptPicture {
    std::shared_ptr<const std::string> bytes;  ///< PNG or JPEG; none for a plain drawing
    Box frame;                                 ///< where the whole picture lies in the drawing's own frame
    friend bool operator==(const KeptPicture& a, const KeptPicture& b) {
        return a.frame == b.frame && (a.bytes == b.bytes || (a.bytes && b.bytes && *a.bytes == *b.bytes));
    }
};

struct FileDrawing {
    std::vector<DrawingPart> parts;  ///< back to front
    std::string source;              ///< the file's name
    std::string licence;             ///< what the maker knows of it
    std::string checksum;            ///< of the file's bytes
    KeptPicture picture;
    friend bool operator==(const FileDrawing&, const FileDrawing&) = default;
};

/// Of all parts, back to front.
std::vector<Region> shapes_of(const FileDrawing& drawing);
/// Round all parts.
Box bounds_of(const FileDrawing& drawing);

}  // namespace skarvel
