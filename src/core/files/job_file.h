// files/job_file.h
//
// The job file: JSON with `format: 2`, described in docs/job-format.md and docs/job-format.schema.json. Lengths stand
// as they were typed with their unit, moments as local time to the minute. Unknown keys refuse the file, so that
// nothing a newer program wrote is lost by saving again; unknown materials are kept.
#pragma once

#include <string>

#include "job/job.h"

namespace skarvel {

constexpr int job_format = 2;

std::string write_job(const Job& job);

/// Files of format 1, in which colours were known by their places, are read to what they meant (files/format_1.h).
/// Refused, with the place in the file: what is no JSON, a newer format, unknown keys, values of the wrong kind,
/// measures that cannot be read.
Expected<Job> read_job(const std::string& text);

/// "2026-05-09T12:00"; also "2026-05-09" as its midnight.
Expected<Moment> read_moment(const std::string& text);
std::string write_moment(Moment moment);

/// The shop's own file; the same rules.
std::string write_shop(const Shop& shop);
Expected<Shop> read_shop(const std::string& text);

}  // namespace skarvel
