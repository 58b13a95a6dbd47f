// drawing/svg_tree.h
//
// The shapes of a parsed SVG, in the order of the tree.
#pragma once

#include <libxml/tree.h>

#include "drawing/outline_file.h"

namespace skarvel {

/// Every path with the number of the shape that it belongs to; units of the drawing, y upwards.
Expected<std::vector<DrawnPath>> paths_of_tree(xmlNode* root, const std::string& name);

}  // namespace skarvel
