// loads/round_cut.h
//
// What is cut stays: planning round it. Pieces that a cut section covers are done; of a letter that a seam crossed and
// of which a part is cut, the rest remains, with as much of the seam as the lap takes. What is left is planned in runs,
// each with the part of the face where its film may lie; where films of two runs would still cover each other's ink
// they are cut back.
#pragma once

#include "loads/loads.h"

namespace skarvel {

struct Remaining {
    std::vector<Piece> pieces;
    std::vector<bool> parts;          ///< which of them are the rest of a piece that is cut in part
    std::vector<std::string> around;  ///< letters divided both ways, of which parts are cut
    std::vector<Misfit> misfits;
};
Remaining without_cut(const std::vector<Piece>& pieces, const std::vector<CutLoad>& cut, Length lap);

/// Pieces left over, in runs that no cut section parts.
struct Run {
    std::vector<Piece> pieces;
    Box ink, available;
    bool part = false;  ///< with the rest of a piece that is cut in part
};
std::vector<Run> runs_between(const Remaining& remaining, const Box& face, const std::vector<CutLoad>& cut, Length lap);

/// The film of a new mask is cut back around ink of other runs, and of what was cut before, that it would cover.
/// `runs`: of each section, in order; what is cut has none. `films`: of the new sections, the last ones of the plan.
void keep_apart(LoadsPlan& plan, const std::vector<int>& runs, std::vector<Box>& films);

}  // namespace skarvel
