// clock/fitting.h
//
// Fitting: the work of a job put on the maker's hours. Tasks that a short window binds together are one block, and so
// are those of a round; a block is done in one go, inside one sitting. Waits run day and night.
//
// Two ways: `forward` takes of the blocks that may begin the one that can begin first, the longer chain on a tie, and
// where that breaks a long window, begins later with what opens it; `best` looks on from there, within counted steps,
// through all orders in which no block could begin before another is over without delaying it (Giffler and Thompson,
// 1960: among these is a best one where no long window matters), and leaves those out that cannot be ready sooner.
// `bound` is what no order can beat.
//
// Lies inside the clock: what it is asked for, and what comes of it, is in clock/schedule.h.
#pragma once

#include <algorithm>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "clock/schedule.h"

namespace skarvel {

/// Blocks on the hours.
struct Fitted {
    std::vector<Slot> slots;         ///< in order of time; empty where the hours hold no room
    Moment end{};                    ///< of the last
    std::vector<StepId> not_pinned;  ///< that could not begin when they were pinned to
    std::vector<StepId> missed;      ///< that begin after their window closed
    bool all_seen = false;           ///< no order is left that could be ready sooner
};

class Fitting {
  public:
    /// `rounds`: tasks of one kind on several signs are done one after the other where none waits for another.
    Fitting(const ClockInput& in, bool rounds);

    [[nodiscard]] Fitted forward(Moment from) const;
    /// At least as good as `forward`. With one pair of hands; with more it is `forward`.
    [[nodiscard]] Fitted best(Moment from, const std::optional<Moment>& deadline) const;
    /// Whether there is a way, found within the steps, to be ready by then.
    [[nodiscard]] bool meets(Moment from, Moment deadline) const;
    /// No order can be ready before this.
    [[nodiscard]] Moment bound(Moment from) const;

    /// When each task may begin at the earliest if nothing else wanted the hands, and at the latest where the deadline
    /// is to be met; by place.
    [[nodiscard]] std::vector<Leeway> leeway(Moment from, const std::optional<Moment>& deadline) const;

    /// What keeps a task from beginning at `wanted`, where it begins at `got`.
    [[nodiscard]] Reason stopped_by(StepId task, Moment wanted, const Fitted& got) const;

    /// Open work that must be done in one go and is longer than any sitting: its first task, and how long it takes.
    struct TooLong {
        std::size_t first;
        Minutes length;
        bool alone;
    };
    [[nodiscard]] std::vector<TooLong> too_long() const;

  private:
    // A task with those that a window or a round binds to it, each at a fixed offset from its start.
    struct Block {
        struct Part {
            std::size_t task;
            Minutes offset, length;
        };
        std::vector<Part> tasks;
        Minutes length{0};
        int people = 1;
        std::optional<Moment> pin;
    };
    // A task of a block begins so long after one of another block is over, or so long at most.
    struct Edge {
        std::size_t from;
        Minutes end, wait;  // from the start of that block to the end of its task, and from then on
        bool dries;
        Minutes offset;  // of the task that waits, in its own block
        std::optional<Minutes> most;
        std::size_t task, after;  // whose wait it is
    };
    // It begins no earlier than that, for what is done already or is still held.
    struct Floor {
        Moment from{};
        std::optional<Moment> until;
        std::size_t task = 0, after = 0;
    };
    struct Open;      // the open hours from some day on
    struct Deciding;  // a search under way

    [[nodiscard]] Fitted search(Moment from, const std::optional<Moment>& deadline, std::int64_t looks) const;
    void make_blocks();
    void make_rounds();
    void make_edges();
    [[nodiscard]] bool done(std::size_t block) const { return open_[block] == 0; }
    /// Where the block that it is from begins at `start`: when what waits may begin, and until when.
    [[nodiscard]] Moment from_then(const Edge& e, Moment start) const {
        return passing_.after(start + e.end, e.wait, e.dries) - e.offset;
    }
    [[nodiscard]] Moment until(const Edge& e, Moment start) const {
        return std::max(from_then(e, start), passing_.after(start + e.end, *e.most, false) - e.offset);
    }
    [[nodiscard]] Fitted pass(Moment from, std::vector<Moment> not_before, const std::vector<bool>& pinned) const;
    [[nodiscard]] Fitted from_starts(const std::vector<std::optional<Moment>>& starts) const;
    [[nodiscard]] Moment fixed_from(std::size_t block, Moment from) const;
    [[nodiscard]] std::vector<Moment> earliest(Moment from, const Open& hours,
                                               const std::vector<Minutes>& lengths) const;

    const ClockInput& in_;
    bool rounds_;
    Passing passing_;
    Moment latest_{};  // of what was done, is held or pinned
    Minutes longest_sitting_{0};
    std::vector<Interval> taken_;
    std::vector<Minutes> tail_;  // by task: from its start to the end of the longest chain that hangs on it
    std::vector<Block> blocks_;
    std::vector<std::size_t> block_of_;           // by task
    std::vector<std::size_t> open_;               // by block: tasks that are not done
    std::vector<Minutes> block_tail_;             // by block
    std::vector<std::vector<Edge>> edges_;        // by block: what it waits for
    std::vector<std::vector<std::size_t>> next_;  // by block: what waits for it
    std::vector<std::vector<Floor>> floors_;      // by block
    std::vector<bool> windowed_;
    bool long_windows_ = false;
};

}  // namespace skarvel
