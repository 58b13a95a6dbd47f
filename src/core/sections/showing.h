// sections/showing.h
//
// Showing: how much a straight cut across ink would show. It shows as long as it is in the ink; more where it parts a
// thin stroke, whose halves never line up and whose ends lift; more where it meets an outline at a slant or along a
// curve, since a lap out of place then steps the edge; most where it parts a keeper, which is then two loose bits.
#pragma once

#include <vector>

#include "geometry/region.h"

namespace skarvel {

struct CutAcross {
    Length ink;    ///< of its length within the ink
    Length shows;  ///< the same with what it parts added: as bad as a cut of that length across a thick straight stroke
    friend bool operator==(const CutAcross&, const CutAcross&) = default;
};

constexpr Length thin_stroke = 0.25_in;  ///< below, a stroke that is parted counts for more (memory)

/// Straight cuts where `axis` equals each of `where`, in ascending order. `keepers`: the eyes of the ink are loose
/// parts of a mask.
std::vector<CutAcross> cuts_across(const Region& ink, Axis axis, const std::vector<std::int64_t>& where, bool keepers);

}  // namespace skarvel
