// job/remarks.h
//
// Remarks: what is found across stages, where the shop or several colours have a say; each is added to the plan's
// problems, once however many signs share it.
#pragma once

#include "job/plan.h"

namespace skarvel {

/// What is too thin to cut or to weed, one remark for each kind, on the faces of the plan from `first` on.
void say_thin(Plan& plan, std::size_t first);

/// No machine at all, or none that takes the bed that is asked for: planned for what the shop says is usual.
void say_no_bed(Plan& plan, const Shop& shop, const Making& making, const Mat& bed);

/// Pieces that no load of their bed holds whole, and what of the shop would. `colour`: as the film is seen.
void say_too_large(Plan& plan, const Shop& shop, const Making& making, const std::string& colour, const FacePlan& fp);

/// Rolls in the drawer that do not hold what is still to be cut from that film.
void say_short(Plan& plan);

}  // namespace skarvel
