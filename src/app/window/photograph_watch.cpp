#include "window/photograph_watch.h"

#include <algorithm>

#include "theme/words.h"
#include "window/fields.h"

namespace skarvel {
namespace {

constexpr int settle_ms = 1500;  // a file that is still being written grows
constexpr std::size_t most_in_folder = 20000;

bool is_picture(const std::filesystem::path& path) {
    std::string ending = path.extension().string();
    std::transform(ending.begin(), ending.end(), ending.begin(), [](unsigned char c) { return std::tolower(c); });
    return ending == ".jpg" || ending == ".jpeg" || ending == ".png";
}

}  // namespace

PhotographWatch::PhotographWatch(Desk& desk, QObject* parent) : QObject(parent), desk_(desk) {
    settle_.setSingleShot(true);
    settle_.setInterval(settle_ms);
    connect(&settle_, &QTimer::timeout, this, &PhotographWatch::look);
    connect(&watcher_, &QFileSystemWatcher::directoryChanged, this, [this] { settle_.start(); });
    connect(&desk_, &Desk::shop_changed, this, &PhotographWatch::follow);
    follow();
}

void PhotographWatch::follow() {
    const std::string folder = desk_.shop().photograph_folder;
    if (folder == folder_) return;
    if (!watcher_.directories().isEmpty()) watcher_.removePaths(watcher_.directories());
    folder_ = folder;
    known_.clear();
    coming_.clear();
    if (folder_.empty()) return;
    for (const auto& [path, size] : pictures()) known_.insert(path);
    if (!watcher_.addPath(QString::fromStdString(folder_)))
        Q_EMIT desk_.said(in_words("bench-view.no-such-folder", {{"folder", text_of(folder_)}}), true);
}

std::map<std::filesystem::path, std::uintmax_t> PhotographWatch::pictures() const {
    std::map<std::filesystem::path, std::uintmax_t> found;
    std::error_code error;
    for (std::filesystem::directory_iterator at(folder_, error), end; !error && at != end; at.increment(error)) {
        std::error_code unreadable;
        if (!at->is_regular_file(unreadable) || !is_picture(at->path())) continue;
        const auto size = at->file_size(unreadable);
        if (!unreadable) found[at->path()] = size;
        if (found.size() >= most_in_folder) break;
    }
    return found;
}

void PhotographWatch::look() {
    std::vector<std::filesystem::path> ready;
    std::map<std::filesystem::path, std::uintmax_t> coming;
    for (const auto& [path, size] : pictures()) {
        if (known_.contains(path)) continue;
        const auto before = coming_.find(path);
        if (size > 0 && before != coming_.end() && before->second == size) {
            known_.insert(path);
            ready.push_back(path);
        } else {
            coming[path] = size;
        }
    }
    coming_ = std::move(coming);
    if (!coming_.empty()) settle_.start();
    if (!ready.empty()) desk_.keep_photographs(ready, std::nullopt);
}

}  // namespace skarvel
