#include "job/undo_line.h"

#include <utility>

namespace skarvel {

void UndoLine::restart(Job job) {
    job_ = std::move(job);
    saved_ = job_;
    undo_.clear();
    redo_.clear();
    merge_.clear();
}

bool UndoLine::take(Job job, const std::string& merge) {
    if (job == job_) return false;
    const bool joins = !merge.empty() && merge == merge_ && !undo_.empty();
    if (!joins) undo_.push_back(std::move(job_));
    if (undo_.size() > longest) undo_.erase(undo_.begin());
    merge_ = merge;
    redo_.clear();
    job_ = std::move(job);
    return true;
}

bool UndoLine::undo() {
    if (undo_.empty()) return false;
    redo_.push_back(std::exchange(job_, std::move(undo_.back())));
    undo_.pop_back();
    merge_.clear();
    return true;
}

bool UndoLine::redo() {
    if (redo_.empty()) return false;
    undo_.push_back(std::exchange(job_, std::move(redo_.back())));
    redo_.pop_back();
    merge_.clear();
    return true;
}

}  // namespace skarvel
