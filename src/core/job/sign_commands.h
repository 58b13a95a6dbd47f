// job/sign_commands.h
//
// Several signs from one: one for each line of words, and all of them lettered alike.
#pragma once

#include <string>
#include <vector>

#include "job/plan.h"

namespace skarvel {

/// The sign gets the words of the first line, and for each line after it there is one more like it, in their order.
/// Empty lines count for nothing; without any words nothing changes.
Job signs_for_lines(const Job& job, std::size_t sign, const std::vector<std::string>& lines);

/// All faces with words get the cap height of the one whose letters came out smallest. `plan`: of that job; nothing
/// changes where it has no letters.
Job at_one_cap_height(const Job& job, const Plan& plan, const Display& display);

}  // namespace skarvel
