// blank/edges.h
//
// Edges: where the edges of a four-sided face really run. A margin, or a band that is kept clear, is measured square to
// the edge itself: along a side that leans, it leans with it.
#pragma once

#include <array>
#include <string>
#include <vector>

#include "blank/tape.h"
#include "geometry/region.h"

namespace skarvel {

enum class Edge { Top, Bottom, Left, Right };
constexpr auto words_of(Edge) { return std::array{"top", "bottom", "left", "right"}; }

/// By Edge: its points in order, counter-clockwise round the face (which lies to the left of them). Face frame.
using Edges = std::array<std::vector<Point>, 4>;

/// Of an upright rectangle.
Edges edges_of(const Box& box);
/// Of a board as the tape found it, its lower left corner at the origin; one that bows has its waist in the middle of
/// either side, half of the bow each.
Edges edges_of(const TapePlan& tape, bool level);

/// The face within edges.
Region within(const Edges& edges);
/// All that lies less than `depth` from one edge, and what is beyond it.
Region strip_along(const Edges& edges, Edge edge, std::int64_t depth);
/// How long an edge is.
Length length_of(const std::vector<Point>& edge);

}  // namespace skarvel
