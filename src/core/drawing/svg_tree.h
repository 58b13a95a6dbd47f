// drawing/svg_tree.h
//
// The shapes of a parsed SVG, in the order of the tree.
#pragma once

#include <libxml/tree.h>

#include <memory>

#include "drawing/outline_file.h"

namespace skarvel {

using SvgDocument = std::unique_ptr<xmlDoc, decltype(&xmlFreeDoc)>;
/// Refused: what is no SVG, and document types with declarations of their own. Nothing outside the bytes is read.
Expected<SvgDocument> svg_document(const std::string& bytes, const std::string& name);

/// Every path with the number of the shape that it belongs to; units of the drawing, y upwards.
Expected<std::vector<DrawnPath>> paths_of_tree(xmlNode* root, const std::string& name);

}  // namespace skarvel
