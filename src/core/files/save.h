// files/save.h
//
// Saving: a file is written beside its place, forced to the disk, and renamed over the old one, so that at any kill the
// old or the new file is there whole. A stamp taken when a file was opened tells whether another program has changed it
// since.
#pragma once

#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "text/reason.h"

namespace skarvel {

/// Size, time of change and number of a file: enough to notice another program's save.
struct FileStamp {
    std::int64_t size = 0, changed_ns = 0;
    std::uint64_t number = 0;
    friend bool operator==(const FileStamp&, const FileStamp&) = default;
};

/// Nothing when there is no such file.
std::optional<FileStamp> stamp_of(const std::filesystem::path& path);

/// Saves `bytes`; gives the stamp of the new file. Refused, with the old file as it was: a full disk, a folder that is
/// missing or read-only, and, when `opened` is given, a file that is not as it was then.
Expected<FileStamp> save_file(const std::filesystem::path& path, const std::string& bytes,
                              const std::optional<FileStamp>& opened = std::nullopt);

/// Copies of jobs with unsaved changes, one per running window, in a folder of their own.
class Recovery {
  public:
    explicit Recovery(std::filesystem::path folder);
    ~Recovery();
    Recovery(const Recovery&) = delete;
    Recovery& operator=(const Recovery&) = delete;

    /// Keeps the job's text; `path` is where it belongs, empty for an untitled job.
    Expected<FileStamp> keep(const std::filesystem::path& path, const std::string& job_text);
    void discard();

    struct Leftover {
        std::filesystem::path copy;
        std::filesystem::path belongs_to;
        std::string job_text;
    };
    /// Copies that no running program holds: what a crash left. Damaged ones are passed over, not deleted.
    [[nodiscard]] std::vector<Leftover> leftovers() const;
    static void forget(const Leftover& leftover);

  private:
    std::filesystem::path folder_, copy_, lock_path_;
    int lock_ = -1;
};

}  // namespace skarvel
