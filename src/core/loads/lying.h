// loads/lying.h
//
// Lying: the last look at what lies on a mat. Whatever packed it, by real outlines: what is beyond the bed, or on a
// neighbour, whoever's that is, stops the job.
#pragma once

#include "loads/loads.h"

namespace skarvel {

/// Adds a Problem for each pair of sections, own or guests, whose films lie on one another, and for each that reaches
/// beyond the usable area of its bed. Loads that are cut are not looked at.
void check_lying(LoadsPlan& plan, const Mat& mat);

}  // namespace skarvel
