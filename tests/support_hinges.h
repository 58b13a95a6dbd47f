// support_hinges.h
// A job and a shop in which films may be so long that they take a hinge.
#pragma once

#include "support.h"

namespace skarvel::testing {

/// The porch board of 78 in, an inch between its letters: four of them make a film that takes a hinge, on a mat that is
/// long enough.
inline Job longer_board() {
    Job job = porch_board();
    job.signs.front().blank.length = measure("78");
    lettering(job).letter_gap = measure("1");
    return job;
}

/// The usual shop with a mat of 12 x 30 in.
inline Shop shop_of_long_mats() {
    Shop shop = usual_shop();
    Mat& mat = shop.mat;
    mat.name = "12 × 30";
    mat.length = 30_in;
    mat.usable.along = 29.5_in;
    return shop;
}

}  // namespace skarvel::testing
