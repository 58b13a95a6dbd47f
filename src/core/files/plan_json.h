// files/plan_json.h
//
// The whole plan as JSON, for other programs: described in docs/plan-json.md. Lengths in millimetres as numbers,
// moments as local time, sentences in words.
#pragma once

#include <string>

#include "job/plan.h"

namespace skarvel {

std::string write_plan(const Job& job, const Plan& plan, const Shop& shop, const Library& library);

}  // namespace skarvel
