// job/undo_line.h
//
// The job at hand with its undo line: every step is the job as it was before, and what two steps have in common they
// share. Knows also which job was saved last.
#pragma once

#include <cstddef>
#include <string>
#include <vector>

#include "job/job.h"

namespace skarvel {

class UndoLine {
  public:
    /// How many steps can be taken back; the oldest goes first.
    static constexpr std::size_t longest = 500;

    UndoLine() = default;
    explicit UndoLine(Job job) { restart(std::move(job)); }

    [[nodiscard]] const Job& job() const { return job_; }
    /// Another job, as it was just opened or saved: nothing can be taken back.
    void restart(Job job);
    /// One step. Steps with the same non-empty `merge` that follow one another are one. False where nothing changes.
    bool take(Job job, const std::string& merge = {});
    bool undo();
    bool redo();
    /// The next step is one of its own, whatever it merges with.
    void settle() { merge_.clear(); }
    [[nodiscard]] bool can_undo() const { return !undo_.empty(); }
    [[nodiscard]] bool can_redo() const { return !redo_.empty(); }

    /// The job as its file has it.
    [[nodiscard]] const Job& saved() const { return saved_; }
    void mark_saved() { saved_ = job_; }
    /// What its file holds is another job: one that was recovered.
    void mark_saved_as(Job on_disk) { saved_ = std::move(on_disk); }
    [[nodiscard]] bool unsaved() const { return !(job_ == saved_); }

  private:
    Job job_, saved_;
    std::vector<Job> undo_, redo_;
    std::string merge_;
};

}  // namespace skarvel
