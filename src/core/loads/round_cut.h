// loads/round_cut.h
//
// What is cut stays. Where it is part of the plan as it is found, everything else is, too. Where something has changed
// since, the rest is planned round it: pieces that a cut section covers are done; of a letter that a seam crossed and
// of which a part is cut, the rest remains, with as much of the seam as the lap takes. What is left is planned in runs,
// each with the part of the face where its film may lie; where films of two runs would still cover each other's ink
// they are cut back.
#pragma once

#include "loads/loads.h"

namespace skarvel {

/// What is cut, as a load of the plan: its placements count in the sections that it was cut with.
Load load_of(const CutLoad& cut);

/// What is cut, found among sections that were divided as if nothing were.
struct Kept {
    std::vector<Section> sections;  ///< as they are cut, the others as they were; at the end letters to be cut alone
    std::vector<bool> cut;          ///< which of them are
    std::vector<Load> loads;        ///< the cut ones
};
/// Nothing where some of what is cut is not among them: something has changed since. Of a decal single letters may be
/// spoilt; what is left of its section counts as that section, and each such letter comes again in one of its own.
std::optional<Kept> kept_in(const std::vector<Section>& sections, const std::vector<CutLoad>& cut,
                            const MakingPlan& making);

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
