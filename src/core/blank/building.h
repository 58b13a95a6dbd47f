// blank/building.h
//
// Building: what lies round and under a panel, in its true size: the backing it is glued on, the frame as it is seen
// from the front with its joints, and what is to be cut for all of it.
//
// A frame round the edge goes round the backing where there is one, else round the panel as it measures; trim and
// battens lie on the panel's face. A frame's stock is as deep as its other dimension is: a 1x2 that shows its 3/4 in
// reaches 1 1/2 in back.
#pragma once

#include <optional>
#include <utility>
#include <vector>

#include "blank/edges.h"
#include "blank/frame.h"
#include "geometry/region.h"
#include "measure/stock.h"

namespace skarvel {

/// A larger board that a panel is glued on; its edge shows as a border.
struct Backing {
    Measure length{}, width{}, thickness{};
    std::string material = "pine";
    friend bool operator==(const Backing&, const Backing&) = default;
};

/// Wood that is no part of the panel, for its weight.
struct Wood {
    Region where;  ///< seen from the front, face frame
    double cm3 = 0;
    std::string material;
    friend bool operator==(const Wood&, const Wood&) = default;
};

struct Built {
    Wood backing, frame;
    std::vector<std::pair<Point, Point>> joints;  ///< of the frame, face frame
    Box whole;                                    ///< of the face with all that lies round it
    friend bool operator==(const Built&, const Built&) = default;
};

struct ToBuild {
    Region outline;
    std::optional<Edges> edges;  ///< of a four-sided face
    bool out_of_true = false;    ///< as the tape found it
    Length thickness;
    Frame frame;
    std::optional<Backing> backing;
    bool upright = true;  ///< the backing's length lies upwards
};

/// Whether such a frame goes round the edge of what it holds; otherwise it lies on the face.
bool goes_round(FrameKind kind);

/// From front to back, by its own depth or the stock's other dimension.
Length depth_of(const Frame& frame, const std::vector<StockSize>& sizes);

/// Adds its cuts and notes to `plan`, whose sizes are known.
Built build_up_blank(const ToBuild& what, FramePlan& plan, const std::vector<StockSize>& sizes);

/// Length of the edges of a shape, holes too.
Length round_edge(const Region& shape);

}  // namespace skarvel
