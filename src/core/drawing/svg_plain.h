// drawing/svg_plain.h
//
// An SVG put in plain terms, before its shapes are read: see drawing/drawing_file.h. Works on the parsed tree.
#pragma once

#include <libxml/tree.h>

#include <string>
#include <vector>

namespace skarvel {

struct PlainShape {
    std::string fill = "#000000";  ///< as "#rrggbb"
    std::string name;
    bool even_odd = false;
    double stroke = 0;  ///< width, where only the stroke is drawn
};

struct PlainSvg {
    std::vector<PlainShape> shapes;  ///< in the order of the tree
    std::vector<std::string> texts;  ///< typefaces of texts that are still text
    std::vector<std::string> rules;  ///< selectors that were not followed
    int pictures = 0;
    double width = 0, height = 0;  ///< millimetres over all, 0 where not given
    double mm = 25.4 / 96;         ///< for one unit of the drawing
    bool too_many = false;
};

PlainSvg make_plain(xmlDoc* document, std::size_t most_shapes);

/// "#rrggbb" from any colour word or notation of CSS; empty for none.
std::string css_colour(std::string word);

}  // namespace skarvel
