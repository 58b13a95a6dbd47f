// job/remarks.h
//
// Remarks: what is found across stages, where the shop or several colours have a say; each is added to the
// problems, once however many signs share it.
#pragma once

#include "job/plan.h"

namespace skarvel {

/// What is too thin to cut or to weed, one remark for each kind over the colours of one face.
void say_thin(std::vector<Problem>& problems, const std::vector<ColourPlan>& colours);

/// Drawings from files that lie on words of their face.
void say_covered(std::vector<Problem>& problems, const Face& face, const ArtPlan& art, const LetteringPlan& lettering);

/// Lengths of a making that are less than nothing, as only a file says them: they count as none.
void say_less_than_none(std::vector<Problem>& problems, const Making& making);

/// No machine at all, or none that takes the bed that is asked for: planned for what the shop says is usual.
void say_no_bed(std::vector<Problem>& problems, const Shop& shop, const Making& making, const Mat& bed);

/// How the mat holds this film: worn, just washed, or of another grip than the film wants.
void say_hold(std::vector<Problem>& problems, const MakingPlan& making, const Mat& bed);

/// Pieces that no load of their bed holds whole, and what of the shop would. `colour`: as the film is seen.
void say_too_large(std::vector<Problem>& problems, const Shop& shop, const Making& making, const std::string& colour,
                   const Box& face, const CutPlan& cut);

/// Rolls in the drawer that do not hold what is still to be cut from that film.
void say_short(std::vector<Problem>& problems, const std::vector<FilmCost>& films);

/// What names a thing that is not in the job, or no longer: it is kept, and told. Texts and art in a colour that their
/// face does not have; loads cut for a colour that has gone; arms of a post whose sign has gone.
void say_gone(std::vector<Problem>& problems, const Job& job);

}  // namespace skarvel
