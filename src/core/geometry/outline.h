// geometry/outline.h
//
// Outline: lines and Bezier curves in the units of where they come from (a typeface's em), before they are flattened.
// `flatten` scales to final size, replaces curves by chords no farther off than 0.01 mm (the number of chords follows
// from the second differences of the control points: Wang's bound), rounds once to the grid about the outline's own
// origin, and makes the Region valid.
#pragma once

#include <vector>

#include "geometry/region.h"

namespace skarvel {

struct Outline {
    struct Node {
        double x = 0, y = 0;
        friend bool operator==(const Node&, const Node&) = default;
    };
    /// Curve of degree nodes.size(): 1 a line, 2 a quadratic, 3 a cubic, from where the last one ended.
    struct Contour {
        Node start;
        std::vector<std::vector<Node>> curves;
        friend bool operator==(const Contour&, const Contour&) = default;
    };
    std::vector<Contour> contours;
    friend bool operator==(const Outline&, const Outline&) = default;
};

/// The exact extent of the curves, in the outline's units.
struct Extent {
    double x0 = 0, y0 = 0, x1 = 0, y1 = 0;
    [[nodiscard]] bool empty() const { return x1 <= x0 || y1 <= y0; }
};

/// Ends and turning points (roots of the derivative) of each curve; all zero for an empty outline.
Extent extent_of(const Outline& outline);

/// Chords that a curve needs whose bend makes for `wanted` of them: at least one, at most 400. Throws OffGrid where
/// `wanted` is no number.
int chords_within(double wanted);

/// `x_mm` and `y_mm`: millimetres for one unit of the outline, across and up.
Region flatten(const Outline& outline, double x_mm, double y_mm);

}  // namespace skarvel
