// drawing/scale.h
//
// Distances that the parts of the drawing share.
#pragma once

#include "geometry/region.h"

namespace skarvel {

constexpr double paper_side = 24;    // paper left and right of the board
constexpr int load_words = 220;      // wide, under a load
constexpr double beside_board = 60;  // between a board and loads that stand beside it
constexpr double units_per_inch = 25'400'000.0 / grid_nm;
constexpr double units_per_mm = 1'000'000.0 / grid_nm;

}  // namespace skarvel
