#include "files/save.h"

#include <fcntl.h>
#include <fmt/format.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>

#include <algorithm>
#include <cerrno>
#include <cstring>
#include <fstream>
#include <sstream>

namespace skarvel {

namespace fs = std::filesystem;

namespace {

tl::unexpected<Problem> failed(const char* id, const fs::path& path, int error) {
    const char* remedy = error == ENOSPC || error == EDQUOT                    ? "file.full-remedy"
                         : error == EACCES || error == EROFS || error == EPERM ? "file.read-only-remedy"
                                                                               : "file.save-elsewhere";
    return refused({id, {{"file", path.string()}, {"detail", std::string(std::strerror(error))}}}, path.string(),
                   {remedy, {}});
}

class File {
  public:
    explicit File(int handle) : handle_(handle) {}
    ~File() {
        if (handle_ >= 0) ::close(handle_);
    }
    File(const File&) = delete;
    File& operator=(const File&) = delete;
    [[nodiscard]] int get() const { return handle_; }

  private:
    int handle_;
};

bool write_all(int handle, const std::string& bytes) {
    std::size_t done = 0;
    while (done < bytes.size()) {
        const ssize_t n = ::write(handle, bytes.data() + done, bytes.size() - done);
        if (n < 0 && errno == EINTR) continue;
        if (n <= 0) return false;
        done += static_cast<std::size_t>(n);
    }
    return true;
}

std::string read_all(const fs::path& path) {
    std::ifstream in(path, std::ios::binary);
    std::ostringstream out;
    out << in.rdbuf();
    return std::move(out).str();
}

}  // namespace

std::optional<FileStamp> stamp_of(const fs::path& path) {
    struct stat s {};
    if (::stat(path.c_str(), &s) != 0) return std::nullopt;
    return FileStamp{s.st_size, static_cast<std::int64_t>(s.st_mtim.tv_sec) * 1'000'000'000 + s.st_mtim.tv_nsec,
                     s.st_ino};
}

Expected<FileStamp> save_file(const fs::path& path, const std::string& bytes, const std::optional<FileStamp>& opened) {
    if (opened && stamp_of(path) != opened) {
        return refused({"file.changed", {{"file", path.string()}}}, path.string(), {"file.changed-remedy", {}});
    }
    // A link is followed; where that leads nowhere, writing says so.
    std::error_code error;
    fs::path target = path;
    if (fs::is_symlink(path, error)) target = fs::weakly_canonical(path, error);
    if (error || target.empty()) target = path;
    const fs::path folder = target.has_parent_path() ? target.parent_path() : fs::path(".");
    const fs::path beside = folder / fmt::format(".{}.{}.part", target.filename().string(), ::getpid());
    const char* id = "file.cannot-save";
    {
        const File file(::open(beside.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC, 0644));
        if (file.get() < 0) return failed(id, path, errno);
        struct stat old {};
        if (::stat(target.c_str(), &old) == 0) (void)::fchmod(file.get(), old.st_mode & 0777U);
        if (!write_all(file.get(), bytes) || ::fsync(file.get()) != 0) {
            const int error = errno;
            ::unlink(beside.c_str());
            return failed(id, path, error);
        }
    }
    if (::rename(beside.c_str(), target.c_str()) != 0) {
        const int error = errno;
        ::unlink(beside.c_str());
        return failed(id, path, error);
    }
    const File directory(::open(folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC));
    if (directory.get() >= 0) ::fsync(directory.get());
    const auto stamp = stamp_of(target);
    if (!stamp) return failed(id, path, errno);
    return *stamp;
}

Recovery::Recovery(fs::path folder) : folder_(std::move(folder)) {
    std::error_code error;
    fs::create_directories(folder_, error);
    for (int n = 0; lock_ < 0 && n < 1000; ++n) {
        lock_path_ = folder_ / fmt::format("{}-{}.lock", ::getpid(), n);
        const int handle = ::open(lock_path_.c_str(), O_RDWR | O_CREAT | O_CLOEXEC, 0600);
        if (handle < 0) return;
        if (::flock(handle, LOCK_EX | LOCK_NB) == 0) {
            lock_ = handle;
        } else {
            ::close(handle);
        }
    }
    copy_ = fs::path(lock_path_).replace_extension(".unsaved");
    // A copy that an earlier program with this number left keeps its own name.
    if (fs::exists(copy_, error)) fs::rename(copy_, folder_ / fmt::format("left-{}", copy_.filename().string()), error);
}

Recovery::~Recovery() {
    std::error_code error;
    if (!fs::exists(copy_, error)) fs::remove(lock_path_, error);
    if (lock_ >= 0) ::close(lock_);
}

Expected<FileStamp> Recovery::keep(const fs::path& path, const std::string& job_text) {
    return save_file(copy_, path.string() + "\n" + job_text);
}

void Recovery::discard() {
    std::error_code error;
    fs::remove(copy_, error);
}

std::vector<Recovery::Leftover> Recovery::leftovers() const {
    std::vector<Leftover> found;
    std::error_code error;
    for (const auto& entry : fs::directory_iterator(folder_, error)) {
        if (entry.path().extension() != ".unsaved" || entry.path() == copy_) continue;
        const fs::path lock = fs::path(entry.path()).replace_extension(".lock");
        const File file(::open(lock.c_str(), O_RDWR | O_CLOEXEC));
        if (file.get() >= 0 && ::flock(file.get(), LOCK_EX | LOCK_NB) != 0) continue;  // its program is running
        const std::string text = read_all(entry.path());
        const std::size_t line = text.find('\n');
        if (line == std::string::npos) continue;
        found.push_back({entry.path(), text.substr(0, line), text.substr(line + 1)});
    }
    std::sort(found.begin(), found.end(), [](const Leftover& a, const Leftover& b) { return a.copy < b.copy; });
    return found;
}

void Recovery::forget(const Leftover& leftover) {
    std::error_code error;
    fs::remove(leftover.copy, error);
    fs::remove(fs::path(leftover.copy).replace_extension(".lock"), error);
}

}  // namespace skarvel
