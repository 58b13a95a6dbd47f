// files/photographs.h
//
// Photographs of the work: copies beside the job, in a folder of its name, called by a checksum of their bytes, so that
// the same picture is kept once and a changed one is noticed. The bytes are never changed; they are turned upright when
// they are shown. When a picture was taken is read from its own data (Exif 2.32, DateTimeOriginal), by libexif.
#pragma once

#include <filesystem>
#include <string>

#include "bench/steps.h"
#include "values/limits.h"

namespace skarvel {

inline constexpr std::size_t most_photograph_bytes = limits::file_bytes;

/// "job.photographs" beside the job's file.
std::filesystem::path photographs_of(const std::filesystem::path& job_file);

/// Copies a picture beside the job. `now`: for one that does not say when it was taken, or says a time that has not
/// been yet. Refused: what is neither JPEG nor PNG, more than 64 MB, a job without a file, and what cannot be written.
Expected<Photograph> keep_photograph(const std::filesystem::path& job_file, const std::string& bytes,
                                     const StepId& step, Moment now);

/// The bytes as they were kept. Refused: a file that is missing, and one that is no longer what was kept.
Expected<std::string> photograph_bytes(const std::filesystem::path& job_file, const Photograph& photograph);

}  // namespace skarvel
