#include "drawing/file_drawing.h"

namespace skarvel {

std::vector<Region> shapes_of(const FileDrawing& drawing) {
    std::vector<Region> shapes;
    for (const DrawingPart& part : drawing.parts) shapes.push_back(part.shape);
    return shapes;
}

Box bounds_of(const FileDrawing& drawing) {
    Box box;
    for (const DrawingPart& p : drawing.parts) box = around(box, p.shape.bounds());
    return box;
}

}  // namespace skarvel
