// drawing/svg_plain.h
//
// An SVG put in plain terms, before its shapes are read: see drawing/drawing_file.h. Works on the parsed tree.
#pragma once

#include <libxml/tree.h>

#include <set>
#include <string>
#include <vector>

namespace skarvel {

struct PlainShape {
    std::string fill = "#000000";  ///< as "#rrggbb"
    std::string name;
    bool even_odd = false;
    double stroke = 0;                         ///< width, where it is the stroke that is drawn
    std::string cap = "butt", join = "miter";  ///< of the stroke, as SVG names them
    double miter = 4;
    std::vector<double> dashes{};  ///< drawn, left out, drawn; empty: one line
    double dash_from = 0;
    bool edge_again = false;  ///< the stroke of the filled shape before it
};

struct PlainSvg {
    std::vector<PlainShape> shapes;  ///< in the order of the tree
    std::vector<std::string> texts;  ///< typefaces of texts that are still text
    std::vector<std::string> rules;  ///< selectors that were not followed
    std::set<std::string>
        left_out;  ///< the rest that was not: "clip-path", "mask", "filter", "gradient", "crop", "marker"
    int pictures = 0;
    double width = 0, height = 0;  ///< millimetres over all, 0 where not given
    double mm = 25.4 / 96;         ///< for one unit of the drawing
    bool too_many = false;
};

PlainSvg make_plain(xmlDoc* document, std::size_t most_shapes);

}  // namespace skarvel
