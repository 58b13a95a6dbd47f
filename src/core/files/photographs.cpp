#include "files/photographs.h"

#include <fmt/format.h>
#include <libexif/exif-data.h>

#include <boost/uuid/detail/sha1.hpp>
#include <cstdio>
#include <memory>

#include "files/save.h"
#include "job/library.h"

namespace skarvel {
namespace {

namespace fs = std::filesystem;

tl::unexpected<Problem> no(const char* id, const std::string& file = {}) {
    return refused({id, {{"file", file}}}, Station::Bench, {"photograph.another", {}});
}

std::string checksum(const std::string& bytes) {
    boost::uuids::detail::sha1 sha;
    sha.process_bytes(bytes.data(), bytes.size());
    unsigned int digest[5];
    sha.get_digest(digest);
    return fmt::format("{:08x}{:08x}{:08x}{:08x}{:08x}", digest[0], digest[1], digest[2], digest[3], digest[4]);
}

// By how such files begin.
const char* ending_of(const std::string& bytes) {
    if (bytes.starts_with("\xff\xd8\xff")) return ".jpg";
    if (bytes.starts_with("\x89PNG\r\n\x1a\n")) return ".png";
    return nullptr;
}

// "2026:05:04 19:12:30", as cameras write it.
std::optional<Moment> taken_at(const std::string& bytes) {
    const std::unique_ptr<ExifData, decltype(&exif_data_unref)> data(
        exif_data_new_from_data(reinterpret_cast<const unsigned char*>(bytes.data()),
                                static_cast<unsigned int>(bytes.size())),
        exif_data_unref);
    if (!data) return std::nullopt;
    for (const auto& [tag, place] :
         {std::pair(EXIF_TAG_DATE_TIME_ORIGINAL, EXIF_IFD_EXIF), std::pair(EXIF_TAG_DATE_TIME, EXIF_IFD_0)}) {
        const ExifEntry* entry = exif_content_get_entry(data->ifd[place], tag);
        if (entry == nullptr || entry->data == nullptr || entry->size < 19) continue;
        const std::string words(reinterpret_cast<const char*>(entry->data), 19);
        int year = 0, month = 0, day = 0, hour = 0, minute = 0;
        if (std::sscanf(words.c_str(), "%4d:%2d:%2d %2d:%2d", &year, &month, &day, &hour, &minute) != 5) continue;
        const std::chrono::year_month_day date{std::chrono::year{year},
                                               std::chrono::month{static_cast<unsigned>(month)},
                                               std::chrono::day{static_cast<unsigned>(day)}};
        if (!date.ok() || hour < 0 || hour > 23 || minute < 0 || minute > 59) continue;
        return std::chrono::local_days{date} + std::chrono::hours(hour) + Minutes(minute);
    }
    return std::nullopt;
}

}  // namespace

fs::path photographs_of(const fs::path& job_file) {
    return job_file.parent_path() / (job_file.stem().string() + ".photographs");
}

Expected<Photograph> keep_photograph(const fs::path& job_file, const std::string& bytes, const StepId& step,
                                     Moment now) {
    if (job_file.empty()) return no("photograph.no-file");
    if (bytes.size() > most_photograph_bytes) return no("photograph.huge");
    const char* ending = ending_of(bytes);
    if (ending == nullptr) return no("photograph.none");
    Photograph kept;
    kept.checksum = checksum(bytes);
    kept.file = kept.checksum.substr(0, 16) + ending;
    kept.step = step;
    kept.taken = now;
    if (const auto taken = taken_at(bytes); taken && *taken <= now) kept.taken = *taken;
    const fs::path folder = photographs_of(job_file);
    std::error_code error;
    fs::create_directories(folder, error);
    if (photograph_bytes(job_file, kept)) return kept;
    if (const auto saved = save_file(folder / kept.file, bytes); !saved) return tl::unexpected(saved.error());
    return kept;
}

Expected<std::string> photograph_bytes(const fs::path& job_file, const Photograph& photograph) {
    // A name from a job file leads nowhere else.
    const fs::path name = fs::path(photograph.file).filename();
    const auto bytes = read_file(photographs_of(job_file) / name);
    if (name.empty() || name != fs::path(photograph.file) || !bytes) return no("photograph.missing", photograph.file);
    if (checksum(*bytes) != photograph.checksum) return no("photograph.changed", photograph.file);
    return *bytes;
}

}  // namespace skarvel
