// files/job_file.h
//
// The job file: JSON with `format: 2`, described in docs/job-format.md and docs/job-format.schema.json. Lengths stand
// as they were typed with their unit, moments as local time to the minute. Unknown keys refuse the file, so that
// nothing a newer program wrote is lost by saving again; unknown materials are kept. What each struct is called there
// is in files/job_description.h.
#pragma once

#include <string>

#include "files/moment.h"
#include "job/job.h"

namespace skarvel {

constexpr int job_format = 2;
constexpr int shop_format = 2;

std::string write_job(const Job& job);

/// Files of format 1, in which colours were known by their places, are read to what they meant (files/format_1.h).
/// Refused, with the place in the file: what is no JSON, a newer format, unknown keys, values of the wrong kind,
/// measures that cannot be read.
Expected<Job> read_job(const std::string& text);

/// The shop's own file; the same rules.
std::string write_shop(const Shop& shop);
/// Two that both began with `base`: what was changed here, and of the rest what was changed there, field by field of
/// the file.
Shop merged_shop(const Shop& base, const Shop& mine, const Shop& theirs);
Expected<Shop> read_shop(const std::string& text);

/// JSON Schemas of both files, made from what reads and writes them.
std::string job_schema();
std::string shop_schema();

}  // namespace skarvel
