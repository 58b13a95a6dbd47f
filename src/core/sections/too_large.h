// sections/too_large.h
//
// Too large: which pieces no load holds whole, so that seams cross them or their film comes in parts, and what would
// help: a smaller margin, another bed of the shop, or smaller letters.
#pragma once

#include <string>
#include <vector>

#include "sections/sections.h"

namespace skarvel {

/// A bed of the shop with the film that is asked for on it.
struct OtherBed {
    std::string bed, machine;
    Room room;
    bool roll = false;
    friend bool operator==(const OtherBed&, const OtherBed&) = default;
};

/// At most two problems to look at: pieces that are too large by themselves, and pieces that are too large for their
/// margin alone. Of `others` the smallest is named that holds all of them. Only seams that were found count: where the
/// maker asks for one across ink, nothing is too large.
std::vector<Problem> too_large(const std::vector<Seam>& seams, const std::vector<Piece>& pieces, const Box& face,
                               const Room& room, const MakingPlan& making, const std::vector<OtherBed>& others);

}  // namespace skarvel
