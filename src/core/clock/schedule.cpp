#include "clock/schedule.h"

#include "clock/week.h"

#include <algorithm>
#include <map>
#include <set>

#include "values/stop.h"

namespace skarvel {
namespace {

using std::chrono::days;
using std::chrono::floor;

constexpr Minutes one_sitting{12 * 60};  // windows shorter than this bind tasks together
constexpr int farthest_days = 400;
constexpr Minutes try_step{5};

struct Interval {
    Moment from, to;
};

// A task with those that a window binds to it, each at a fixed offset from its start.
struct Block {
    struct Part {
        std::size_t task;
        Minutes offset, length;
    };
    std::vector<Part> tasks;
    Minutes length{0};
};

// A wait of a block's task, so far into the block, for a task outside it.
struct OuterWait {
    std::size_t task, after;
    Minutes at_least, offset;
};

// Whose turn it is among blocks that can begin at one moment: the longer chain that hangs on it, then the older one.
struct Turn {
    Minutes less_tail{0};
    std::size_t turn = 0;
    std::size_t block = 0;
    friend auto operator<=>(const Turn&, const Turn&) = default;
};

class Planner {
  public:
    Planner(const ClockInput& in, bool rounds, const std::vector<std::pair<Moment, Moment>>& taken = {})
        : in_(in), tail_(in.tasks->size(), Minutes(0)) {
        std::vector<std::pair<Moment, Moment>> in_order = taken;
        std::sort(in_order.begin(), in_order.end());
        for (const auto& [start, end] : in_order) occupy(taken_, {start, end});
        for (const auto& day : in.hours.days) {
            for (const auto& s : day) longest_sitting_ = std::max(longest_sitting_, Minutes(s.to - s.from));
        }
        for (const ChangedDay& d : in.changed) longest_sitting_ = std::max(longest_sitting_, Minutes(d.to - d.from));
        for (std::size_t i = in.tasks->size(); i-- > 0;) {
            tail_[i] += (*in.tasks)[i].hands_on;
            for (const Wait& w : (*in.tasks)[i].waits) tail_[w.after] = std::max(tail_[w.after], tail_[i] + w.at_least);
        }
        make_blocks();
        if (rounds) make_rounds();
        outer_.resize(blocks_.size());
        waiting_for_.resize(in.tasks->size());
        for (std::size_t b = 0; b < blocks_.size(); ++b) {
            for (const auto& [task, offset, length] : blocks_[b].tasks) {
                for (const Wait& w : (*in.tasks)[task].waits) {
                    const bool done = in.done.contains((*in.tasks)[w.after].id);
                    if (block_of_[w.after] == b && !done) continue;
                    outer_[b].push_back({task, w.after, w.at_least, offset});
                    if (!done && (waiting_for_[w.after].empty() || waiting_for_[w.after].back() != b))
                        waiting_for_[w.after].push_back(b);
                }
            }
        }
    }

    // Slots of all tasks when the open ones may begin at `from`; empty when the hours hold no room.
    [[nodiscard]] std::vector<Slot> forward(Moment from) const {
        std::vector<std::optional<Slot>> placed(in_.tasks->size());
        for (std::size_t i = 0; i < in_.tasks->size(); ++i) {
            if (const auto at = in_.done.find((*in_.tasks)[i].id); at != in_.done.end()) {
                placed[i] = Slot{i, at->second - (*in_.tasks)[i].hands_on, at->second, true};
            }
        }
        std::vector<Interval> busy = taken_;
        std::vector<std::size_t> missing(blocks_.size(), 0);  // tasks outside a block that it still waits for
        // Blocks of one length that can begin at one moment stand together. Room only gets less, so a start once found
        // can only move later: it is looked up again, for all of them at once, when its turn comes.
        std::map<std::pair<Moment, Minutes>, std::set<Turn>> ready;
        std::size_t turn = 0;
        const auto make_ready = [&](std::size_t b) {
            if (const auto at = may_begin(b, placed, from))
                ready[{*at, blocks_[b].length}].insert({-tail(b), ++turn, b});
        };
        for (const auto& waiting : waiting_for_) {
            for (const std::size_t b : waiting) ++missing[b];
        }
        for (std::size_t b = 0; b < blocks_.size(); ++b) {
            if (missing[b] == 0) make_ready(b);
        }
        while (!ready.empty()) {
            look_for_stop();
            const Moment start = ready.begin()->first.first;
            auto first = ready.end();
            for (auto at = ready.begin(); at != ready.end() && at->first.first == start;) {
                const auto room = first_room(start, at->first.second, busy);
                if (!room) return {};
                if (*room != start) {
                    auto later = ready.extract(at++);
                    auto& there = ready[{*room, later.key().second}];
                    if (there.size() < later.mapped().size()) there.swap(later.mapped());
                    there.merge(later.mapped());
                    continue;
                }
                if (first == ready.end() || *at->second.begin() < *first->second.begin()) first = at;
                ++at;
            }
            if (first == ready.end()) continue;
            const Block& block = blocks_[first->second.begin()->block];
            first->second.erase(first->second.begin());
            if (first->second.empty()) ready.erase(first);
            for (const auto& [task, offset, length] : block.tasks) {
                if (placed[task]) continue;
                placed[task] = Slot{task, start + offset, start + offset + length, false};
                for (const std::size_t waiting : waiting_for_[task]) {
                    if (--missing[waiting] == 0) make_ready(waiting);
                }
            }
            occupy(busy, {start, start + block.length});
        }
        std::vector<Slot> slots;
        for (const auto& slot : placed) {
            if (slot) slots.push_back(*slot);
        }
        std::stable_sort(slots.begin(), slots.end(), [](const Slot& a, const Slot& b) { return a.start < b.start; });
        return slots;
    }

    // Open work that must be done in one go and is longer than any sitting: its first task, and how long it takes.
    struct TooLong {
        std::size_t first;
        Minutes length;
        bool alone;
    };
    [[nodiscard]] std::vector<TooLong> too_long() const {
        std::vector<TooLong> out;
        for (const Block& block : blocks_) {
            const auto open = std::find_if(block.tasks.begin(), block.tasks.end(),
                                           [&](const auto& t) { return !in_.done.contains((*in_.tasks)[t.task].id); });
            if (open == block.tasks.end() || block.length - open->offset <= longest_sitting_) continue;
            out.push_back({open->task, block.length - open->offset, std::next(open) == block.tasks.end()});
        }
        return out;
    }

  private:
    void make_blocks() {
        block_of_.resize(in_.tasks->size());
        for (std::size_t i = 0; i < in_.tasks->size(); ++i) {
            const Task& task = (*in_.tasks)[i];
            std::optional<std::size_t> joined;
            Minutes offset{0};
            for (const Wait& w : task.waits) {
                const bool lifts_on =
                    task.work == Work::Lift && (*in_.tasks)[w.after].work == Work::Lift && windowed_[w.after];
                const bool binds = (w.at_most && *w.at_most < one_sitting) || lifts_on;
                if (!binds || in_.done.contains((*in_.tasks)[w.after].id)) continue;
                joined = block_of_[w.after];
                offset = blocks_[*joined].length + w.at_least;
            }
            windowed_.push_back(joined.has_value());
            if (joined) {
                blocks_[*joined].tasks.push_back({i, offset, task.hands_on});
                blocks_[*joined].length = offset + task.hands_on;
                block_of_[i] = *joined;
            } else {
                block_of_[i] = blocks_.size();
                blocks_.push_back({{{i, Minutes(0), task.hands_on}}, task.hands_on});
            }
        }
    }

    // Single tasks of one kind are joined, as many as a sitting holds, where none of them waits for another by any way.
    void make_rounds() {
        std::vector<std::vector<std::size_t>> waits(blocks_.size());  // by block: blocks that it waits for
        for (std::size_t i = 0; i < in_.tasks->size(); ++i) {
            for (const Wait& w : (*in_.tasks)[i].waits) waits[block_of_[i]].push_back(block_of_[w.after]);
        }
        std::vector<std::size_t> same(blocks_.size());  // the round that a block has gone into
        for (std::size_t b = 0; b < same.size(); ++b) same[b] = b;
        std::vector<std::vector<std::size_t>> members(blocks_.size());  // of each round, itself too
        for (std::size_t b = 0; b < members.size(); ++b) members[b] = {b};
        const auto root = [&](std::size_t b) {
            while (same[b] != b) b = same[b];
            return b;
        };
        const auto hangs_on = [&](std::size_t later, std::size_t earlier) {
            std::vector<bool> seen(blocks_.size(), false);
            std::vector<std::size_t> open{root(later)};
            while (!open.empty()) {
                const std::size_t at = open.back();
                open.pop_back();
                if (seen[at]) continue;
                seen[at] = true;
                for (const std::size_t b : members[at]) {
                    for (const std::size_t w : waits[b]) {
                        if (root(w) == root(earlier)) return true;
                        open.push_back(root(w));
                    }
                }
            }
            return false;
        };
        std::map<std::string, std::size_t> round;  // the one that still has room
        for (std::size_t i = 0; i < in_.tasks->size(); ++i) {
            const Task& task = (*in_.tasks)[i];
            const std::size_t own = block_of_[i];
            if (task.round.empty() || in_.done.contains(task.id) || blocks_[own].tasks.size() > 1) continue;
            look_for_stop();
            const auto at = round.find(task.round);
            const Minutes length = task.hands_on - task.setup;
            if (at == round.end() || blocks_[at->second].length + length > longest_sitting_ ||
                hangs_on(own, at->second) || hangs_on(at->second, own)) {
                round[task.round] = own;
                continue;
            }
            Block& block = blocks_[at->second];
            block.tasks.push_back({i, block.length, length});
            block.length += length;
            block_of_[i] = at->second;
            same[own] = at->second;
            members[at->second].push_back(own);
            blocks_[own] = {};
        }
        // Without the ones that have gone into others.
        std::vector<std::size_t> place(blocks_.size(), 0);
        std::vector<Block> kept;
        for (std::size_t b = 0; b < blocks_.size(); ++b) {
            if (blocks_[b].tasks.empty()) continue;
            place[b] = kept.size();
            kept.push_back(std::move(blocks_[b]));
        }
        blocks_ = std::move(kept);
        for (std::size_t& b : block_of_) b = place[b];
    }

    [[nodiscard]] Minutes tail(std::size_t block) const {
        Minutes longest{0};
        for (const auto& part : blocks_[block].tasks) longest = std::max(longest, tail_[part.task]);
        return longest;
    }

    // When a block may begin that waits for nothing without a place; nothing where all of it is done.
    [[nodiscard]] std::optional<Moment> may_begin(std::size_t block, const std::vector<std::optional<Slot>>& placed,
                                                  Moment from) const {
        const auto& tasks = blocks_[block].tasks;
        if (std::all_of(tasks.begin(), tasks.end(), [&](const auto& t) { return placed[t.task].has_value(); }))
            return std::nullopt;
        Moment earliest = from;
        for (const OuterWait& w : outer_[block]) {
            if (placed[w.task]) continue;
            Moment free = placed[w.after]->end + w.at_least;
            const StepId& id = (*in_.tasks)[w.after].id;
            if (const auto dry = in_.dry.find(id); dry != in_.dry.end())
                free = std::min(free, std::max(placed[w.after]->end, dry->second));
            if (const auto held = in_.held.find(id); held != in_.held.end()) free = std::max(free, held->second);
            earliest = std::max(earliest, free - w.offset);
        }
        return earliest;
    }

    [[nodiscard]] std::optional<Moment> first_room(Moment from, Minutes length,
                                                   const std::vector<Interval>& busy) const {
        for (int d = 0; d < farthest_days; ++d) {
            const auto day = floor<days>(from) + days(d);
            for (const auto& sitting : sittings_on(in_.hours, in_.changed, day)) {
                const Moment open = day + Minutes(sitting.from);
                const Moment close = day + Minutes(sitting.to);
                Moment start = std::max(from, open);
                auto b = std::upper_bound(busy.begin(), busy.end(), start,
                                          [](Moment m, const Interval& i) { return m < i.to; });
                for (; b != busy.end() && b->from < start + length && length.count() > 0; ++b) start = b->to;
                // Work longer than any sitting begins with one and runs over; a problem says so.
                const bool too_long = length > longest_sitting_ && start == open;
                if (start < close && (start + length <= close || too_long)) return start;
            }
        }
        return std::nullopt;
    }

    // Kept in order, and joined where one ends as the next begins: an evening's work is one interval.
    static void occupy(std::vector<Interval>& busy, Interval work) {
        if (work.from == work.to) return;
        auto at = std::upper_bound(busy.begin(), busy.end(), work.from,
                                   [](Moment m, const Interval& i) { return m < i.from; });
        if (at != busy.begin() && std::prev(at)->to == work.from) {
            at = std::prev(at);
            at->to = work.to;
        } else {
            at = busy.insert(at, work);
        }
        if (const auto later = std::next(at); later != busy.end() && later->from == at->to) {
            at->to = later->to;
            busy.erase(later);
        }
    }

    const ClockInput& in_;
    Minutes longest_sitting_{0};
    std::vector<Interval> taken_;  // by other jobs
    std::vector<Minutes> tail_;
    std::vector<Block> blocks_;
    std::vector<std::size_t> block_of_;                  // by task
    std::vector<std::vector<OuterWait>> outer_;          // by block: its waits for tasks outside it, or done
    std::vector<std::vector<std::size_t>> waiting_for_;  // by task: blocks that wait for it
    std::vector<bool> windowed_;
};

Moment end_of(const std::vector<Slot>& slots) {
    Moment end = slots.front().end;
    for (const Slot& slot : slots) end = std::max(end, slot.end);
    return end;
}

// The longest chain of hands-on times and waits through the tasks, hours left aside.
void find_chain(const std::vector<Task>& tasks, Schedule& out) {
    std::vector<Minutes> reach(tasks.size(), Minutes(0));
    std::vector<const Wait*> through(tasks.size(), nullptr);
    std::size_t last = 0;
    for (std::size_t i = 0; i < tasks.size(); ++i) {
        for (const Wait& w : tasks[i].waits) {
            if (through[i] == nullptr || reach[w.after] + w.at_least > reach[i]) {
                reach[i] = reach[w.after] + w.at_least;
                through[i] = &w;
            }
        }
        reach[i] += tasks[i].hands_on;
        if (reach[i] > reach[last]) last = i;
    }
    for (const Wait* w = tasks.empty() ? nullptr : through[last]; w != nullptr; w = through[w->after]) {
        if (w->at_least.count() == 0) continue;
        out.chain.insert(out.chain.begin(), *w);
        out.chain_waits += w->at_least;
    }
}

// A window opens at the first stroke: where all of the coat takes longer, its first letters are past it at the last.
void say_short_windows(const ClockInput& in, std::vector<Problem>& problems) {
    for (const Task& task : *in.tasks) {
        for (const Wait& w : task.waits) {
            const Task& coat = (*in.tasks)[w.after];
            const Minutes painting = coat.hands_on - coat.setup;
            if (!w.at_most || coat.work != Work::Colour || in.done.contains(task.id) || painting <= *w.at_most)
                continue;
            problems.push_back({{"clock.window-too-short",
                                 {{"task", std::vector{full_name(coat)}}, {"time", painting}, {"window", *w.at_most}}},
                                Station::Clock,
                                {"clock.window-too-short-remedy", {}},
                                Mark::Look});
        }
    }
}

std::optional<Moment> latest_start(const Planner& planner, const ClockInput& in) {
    // No start can be later than the deadline, nor need one be earlier than a chain of two months. A later start never
    // makes an earlier finish, so both searches halve.
    const Moment deadline = *in.deadline - in.margin;
    constexpr int longest_search_days = 60;
    std::vector<Interval> sittings;  // the latest first
    for (int d = 0; d <= longest_search_days; ++d) {
        const auto day = floor<days>(deadline) - days(d);
        const std::vector<Hours::Sitting> of_day = sittings_on(in.hours, in.changed, day);
        for (auto s = of_day.rbegin(); s != of_day.rend(); ++s) {
            if (day + Minutes(s->from) <= deadline) sittings.push_back({day + Minutes(s->from), day + Minutes(s->to)});
        }
    }
    const auto first = std::partition_point(sittings.begin(), sittings.end(), [&](const Interval& sitting) {
        const auto slots = planner.forward(sitting.from);
        return slots.empty() || end_of(slots) > deadline;
    });
    std::optional<Moment> found;
    Moment coarse = deadline;
    if (first != sittings.end()) {
        found = first->from;
        coarse = first->to;
    }
    if (!found) return std::nullopt;
    Moment low = *found;
    Moment high = coarse;
    while (high - low > try_step) {
        const auto steps = (high - low) / try_step;
        const Moment middle = low + try_step * (steps / 2);
        const auto slots = planner.forward(middle);
        if (!slots.empty() && end_of(slots) <= deadline) {
            low = middle;
        } else {
            high = middle;
        }
        if (steps <= 1) break;
    }
    // Hands may have room only a little after the moment that was tried.
    for (const Slot& slot : planner.forward(low)) {
        if (!slot.done) return slot.start;
    }
    return low;
}

Minutes work_in(const std::vector<Slot>& slots) {
    Minutes work{0};
    for (const Slot& slot : slots) {
        if (!slot.done) work += slot.end - slot.start;
    }
    return work;
}

// Whether rounds are the better plan: in time where single tasks are not; else less work where both are, or where it
// costs no day.
bool better_in_rounds(const std::vector<Slot>& rounds, const std::vector<Slot>& singly, const ClockInput& in) {
    if (rounds.empty() || singly.empty()) return singly.empty();
    const Moment end = end_of(rounds), other_end = end_of(singly);
    const Minutes work = work_in(rounds), other_work = work_in(singly);
    if (in.deadline && (end <= *in.deadline) != (other_end <= *in.deadline)) return end <= *in.deadline;
    if (in.deadline && end <= *in.deadline) return work < other_work;
    if (floor<days>(end) != floor<days>(other_end)) return end < other_end;
    return work < other_work || (work == other_work && end < other_end);
}

}  // namespace

std::vector<Hours::Sitting> sittings_on(const Hours& hours, const std::vector<ChangedDay>& changed,
                                        std::chrono::local_days day) {
    std::vector<Hours::Sitting> own;
    bool is_changed = false;
    for (const ChangedDay& c : changed) {
        if (floor<days>(c.day) != day) continue;
        is_changed = true;
        if (c.from < c.to) own.push_back({c.from, c.to});
    }
    if (!is_changed) return hours.days.at(std::chrono::weekday{day}.c_encoding());
    std::sort(own.begin(), own.end(), [](const auto& a, const auto& b) { return a.from < b.from; });
    return own;
}

namespace {

struct Planned {
    std::vector<Slot> slots;
    bool in_rounds = false;
};

bool may_share_rounds(const std::vector<Task>& tasks) {
    return std::any_of(tasks.begin(), tasks.end(), [](const Task& t) { return !t.of.empty(); });
}

Moment first_moment(const ClockInput& in) { return in.begin_on ? std::max(in.now, *in.begin_on) : in.now; }

// By single tasks or in rounds, whichever is the better plan.
Planned the_better(const Planner& singly, const std::optional<Planner>& together, const ClockInput& in) {
    Planned planned{singly.forward(first_moment(in)), false};
    if (!together) return planned;
    std::vector<Slot> rounds = together->forward(first_moment(in));
    if (better_in_rounds(rounds, planned.slots, in)) planned = {std::move(rounds), true};
    return planned;
}

}  // namespace

std::vector<Slot> forward_around(const ClockInput& in, const std::vector<std::pair<Moment, Moment>>& taken) {
    if (in.tasks->empty()) return {};
    const Planner singly(in, false, taken);
    std::optional<Planner> together;
    if (may_share_rounds(*in.tasks)) together.emplace(in, true, taken);
    return the_better(singly, together, in).slots;
}

Schedule schedule(const ClockInput& in) {
    Schedule out;
    find_chain(*in.tasks, out);
    if (in.tasks->empty()) return out;
    const Planner singly(in, false);
    std::optional<Planner> together;
    if (may_share_rounds(*in.tasks)) together.emplace(in, true);
    Planned planned = the_better(singly, together, in);
    out.slots = std::move(planned.slots);
    const Planner& planner = planned.in_rounds ? *together : singly;
    for (const Slot& slot : out.slots) {
        if (!slot.done) out.setup_saved += (*in.tasks)[slot.task].hands_on - (slot.end - slot.start);
    }
    for (const Task& task : *in.tasks) {
        if (!in.done.contains(task.id)) out.hands_on += task.hands_on;
    }
    out.hands_on -= out.setup_saved;
    if (out.slots.empty()) {
        out.problems.push_back({{"clock.no-hours", {}}, Station::Clock, {"clock.set-hours", {}}, Mark::Stop});
        return out;
    }
    const auto open = std::find_if(out.slots.begin(), out.slots.end(), [](const Slot& s) { return !s.done; });
    out.begin = open == out.slots.end() ? out.slots.front().start : open->start;
    out.ready = end_of(out.slots);
    for (const auto& [task, length, alone] : planner.too_long()) {
        out.problems.push_back({{alone ? "clock.longer-than-sitting" : "clock.longer-in-one-go",
                                 {{"task", std::vector{full_name((*in.tasks)[task])}}, {"time", length}}},
                                Station::Clock,
                                {"clock.set-hours", {}},
                                Mark::Look});
    }
    say_short_windows(in, out.problems);
    if (in.deadline) {
        out.late = out.ready > *in.deadline;
        const bool all_done = open == out.slots.end();
        if (!all_done) {
            out.start_by = latest_start(singly, in);
            if (together) {
                // What is planned then is planned in the better way.
                if (const auto later = latest_start(*together, in); later && (!out.start_by || *later > *out.start_by))
                    out.start_by = later;
            }
        }
        if (out.late && !all_done) {
            out.problems.push_back({{"clock.late",
                                     {{"ready", out.ready},
                                      {"deadline", *in.deadline},
                                      {"by", std::chrono::duration_cast<Minutes>(out.ready - *in.deadline)}}},
                                    Station::Clock,
                                    {"clock.late-remedy", {}},
                                    Mark::Stop});
        }
    }
    return out;
}

}  // namespace skarvel
