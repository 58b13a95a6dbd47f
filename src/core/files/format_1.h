// files/format_1.h
//
// Job files of format 1 are read for good. There a face, a colour and a cut load were known by their places, and the
// steps of the bench were named after them: "1b" the back of sign 1, "1.2" the second colour of its face, "1/lay/BOAT
// again 1". Each gets the id that its place was written as, so that every tick and every record of what was cut goes
// on meaning what it meant; from then on it keeps that id wherever it is moved.
#pragma once

#include <nlohmann/json.hpp>

namespace skarvel {

/// Turns a job of format 1 into one of format 2. What is damaged is left as it is, for the reader to name.
void job_from_format_1(nlohmann::ordered_json& job);

}  // namespace skarvel
