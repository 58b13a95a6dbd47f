#include "clock/fitting.h"

#include <algorithm>
#include <set>
#include <tuple>

#include "values/searches.h"
#include "values/stop.h"

namespace skarvel {
namespace {

using std::chrono::days;
using std::chrono::floor;

constexpr Minutes one_sitting{12 * 60};  // windows shorter than this bind tasks together
constexpr int farthest_days = searches::days_ahead.most;
constexpr int most_days_off = searches::days_off_ahead.most;
constexpr int most_delays = searches::delays_of_window.most;
constexpr std::size_t most_blocks = searches::blocks_searched.most;
// Looks at blocks in one search: of a few all orders can be seen; of more a plan is bettered while a key is struck, and
// a start is only asked about.
constexpr std::size_t few_blocks = searches::blocks_in_every_order.most;
constexpr std::int64_t looks_at_few = searches::looks_at_few.most, looks_at_many = searches::looks_at_many.most,
                       looks_for_start = searches::looks_for_start.most;

// Kept in order, and joined where one ends as the next begins: an evening's work is one interval.
void occupy(std::vector<Interval>& busy, Interval work) {
    if (work.from >= work.to) return;
    auto at =
        std::upper_bound(busy.begin(), busy.end(), work.from, [](Moment m, const Interval& i) { return m < i.from; });
    if (at != busy.begin() && std::prev(at)->to >= work.from) {
        at = std::prev(at);
        at->to = std::max(at->to, work.to);
    } else {
        at = busy.insert(at, work);
    }
    while (std::next(at) != busy.end() && std::next(at)->from <= at->to) {
        at->to = std::max(at->to, std::next(at)->to);
        busy.erase(std::next(at));
    }
}

}  // namespace

// Sittings from the day of `from` on, without what is taken.
struct Fitting::Open {
    std::vector<Interval> free;
    std::vector<Minutes> before;  // open minutes before each
    Minutes longest{0};

    // `latest`: of what is known already, which may lie far off where a clock was wrong.
    Open(const ClockInput& in, Moment from, Moment latest, const std::vector<Interval>& taken, Minutes longest_sitting)
        : longest(longest_sitting) {
        auto busy = taken.begin();
        const auto first = floor<days>(from);
        const auto known = std::clamp((floor<days>(latest) - first).count(), days::rep{0}, days::rep{most_days_off});
        for (int d = 0; d < farthest_days + static_cast<int>(known); ++d) {
            const auto day = first + days(d);
            for (const auto& sitting : sittings_on(in.hours, in.changed, day)) {
                Interval open{day + Minutes(sitting.from), day + Minutes(sitting.to)};
                for (; busy != taken.end() && busy->from < open.to; ++busy) {
                    if (busy->from > open.from) free.push_back({open.from, busy->from});
                    open.from = std::max(open.from, busy->to);
                    if (busy->to > open.to) break;
                }
                if (open.from < open.to) free.push_back(open);
            }
        }
        Minutes sum{0};
        for (const Interval& i : free) {
            before.push_back(sum);
            sum += i.to - i.from;
        }
    }

    [[nodiscard]] std::vector<Interval>::const_iterator at(Moment from) const {
        return std::upper_bound(free.begin(), free.end(), from, [](Moment m, const Interval& i) { return m < i.to; });
    }

    // Where so much work has room at once; work longer than any sitting begins with one and runs over.
    [[nodiscard]] std::optional<Moment> room(Moment from, Minutes length) const {
        for (auto i = at(from); i != free.end(); ++i) {
            const Moment start = std::max(from, i->from);
            if (start + length <= i->to || (length > longest && start == i->from)) return start;
        }
        return std::nullopt;
    }

    // When so much work is over that may be parted anywhere.
    [[nodiscard]] Moment after_work(Moment from, Minutes work) const {
        auto i = at(from);
        if (i == free.end()) return from;
        const Minutes gone = std::max(Minutes(0), from - i->from);
        const Minutes wanted = before[static_cast<std::size_t>(i - free.begin())] + gone + work;
        const auto last = std::upper_bound(before.begin(), before.end(), wanted - Minutes(1));
        if (last == before.begin()) return std::max(from, free.front().from);
        const auto place = static_cast<std::size_t>(last - before.begin()) - 1;
        return work.count() > 0 ? free[place].from + (wanted - before[place]) : from;
    }

    // The latest moment at which so much work can begin and be over by `by`.
    [[nodiscard]] std::optional<Moment> last_room(Moment by, Minutes length) const {
        auto i = std::lower_bound(free.begin(), free.end(), by, [](const Interval& a, Moment m) { return a.from < m; });
        while (i != free.begin()) {
            --i;
            const Moment start = std::min(by, i->to) - length;
            if (start >= i->from) return start;
            if (length > longest && i->from + length <= by) return i->from;
        }
        return std::nullopt;
    }
};

Fitting::Fitting(const ClockInput& in, bool rounds)
    : in_(in), rounds_(rounds), passing_(in.changes, in.slow_days), tail_(in.tasks->size(), Minutes(0)) {
    for (const Interval& taken : in.taken) occupy(taken_, taken);
    latest_ = in.now;
    for (const auto* known : {&in.done, &in.held, &in.pinned}) {
        for (const auto& [step, at] : *known) latest_ = std::max(latest_, at);
    }
    if (in.begin_on) latest_ = std::max(latest_, *in.begin_on);
    for (const auto& day : in.hours.days) {
        for (const auto& s : day) longest_sitting_ = std::max(longest_sitting_, Minutes(s.to - s.from));
    }
    for (const ChangedDay& d : in.changed) longest_sitting_ = std::max(longest_sitting_, Minutes(d.to - d.from));
    for (std::size_t i = in.tasks->size(); i-- > 0;) {
        tail_[i] += (*in.tasks)[i].hands_on;
        for (const Wait& w : (*in.tasks)[i].waits)
            tail_[w.after] = std::max(tail_[w.after], tail_[i] + passing_.least(w.at_least, w.dries));
    }
    make_blocks();
    if (rounds) make_rounds();
    make_edges();
}

void Fitting::make_blocks() {
    const std::vector<Task>& tasks = *in_.tasks;
    block_of_.resize(tasks.size());
    for (std::size_t i = 0; i < tasks.size(); ++i) {
        const Task& task = tasks[i];
        std::optional<std::size_t> joined;
        for (const Wait& w : task.waits) {
            const bool lifts_on = task.work == Work::Lift && tasks[w.after].work == Work::Lift && windowed_[w.after];
            const bool binds = (w.at_most && *w.closes() < one_sitting) || lifts_on;
            if (binds && !in_.done.contains(tasks[w.after].id)) joined = block_of_[w.after];
        }
        windowed_.push_back(joined.has_value());
        if (!joined) {
            block_of_[i] = blocks_.size();
            blocks_.push_back({{{i, Minutes(0), task.hands_on}}, task.hands_on, task.people, std::nullopt});
            continue;
        }
        Block& block = blocks_[*joined];
        Minutes offset = block.length;
        for (const Wait& w : task.waits) {
            for (const Block::Part& part : block.tasks) {
                if (part.task == w.after) offset = std::max(offset, part.offset + part.length + w.at_least);
            }
        }
        block.tasks.push_back({i, offset, task.hands_on});
        block.length = offset + task.hands_on;
        block.people = std::max(block.people, task.people);
        block_of_[i] = *joined;
    }
}

// Single tasks of one kind are joined, as many as a sitting holds, where none of them waits for another by any way.
void Fitting::make_rounds() {
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
        if (at == round.end() || blocks_[at->second].length + length > longest_sitting_ || hangs_on(own, at->second) ||
            hangs_on(at->second, own)) {
            round[task.round] = own;
            continue;
        }
        Block& block = blocks_[at->second];
        block.tasks.push_back({i, block.length, length});
        block.length += length;
        block.people = std::max(block.people, task.people);
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

void Fitting::make_edges() {
    const std::vector<Task>& tasks = *in_.tasks;
    const std::size_t n = blocks_.size();
    edges_.resize(n);
    next_.resize(n);
    floors_.resize(n);
    open_.assign(n, 0);
    block_tail_.assign(n, Minutes(0));
    std::vector<std::pair<Minutes, Minutes>> within(tasks.size());  // from the block's start to its own start and end
    for (std::size_t b = 0; b < n; ++b) {
        for (const auto& [task, offset, length] : blocks_[b].tasks) {
            within[task] = {offset, offset + length};
            block_tail_[b] = std::max(block_tail_[b], tail_[task]);
            if (in_.done.contains(tasks[task].id)) continue;
            ++open_[b];
            if (const auto pin = in_.pinned.find(tasks[task].id); pin != in_.pinned.end() && !blocks_[b].pin)
                blocks_[b].pin = pin->second - offset;
        }
    }
    for (std::size_t b = 0; b < n; ++b) {
        for (const Block::Part& part : blocks_[b].tasks) {
            if (in_.done.contains(tasks[part.task].id)) continue;
            for (const Wait& w : tasks[part.task].waits) {
                const StepId& id = tasks[w.after].id;
                const auto dry = in_.dry.find(id);
                const auto held = in_.held.find(id);
                const auto closes = w.closes();
                if (const auto done = in_.done.find(id); done != in_.done.end()) {
                    Moment free = passing_.after(done->second, w.left_when_done(), w.dries);
                    if (dry != in_.dry.end()) free = std::min(free, std::max(done->second, dry->second));
                    if (held != in_.held.end()) free = std::max(free, held->second);
                    Floor floor{free - part.offset, std::nullopt, part.task, w.after};
                    if (closes) floor.until = passing_.after(done->second, *closes, false) - part.offset;
                    floors_[b].push_back(floor);
                    continue;
                }
                const std::size_t before = block_of_[w.after];
                if (before == b) continue;
                const Minutes end = within[w.after].second;
                Edge edge{before,    end,         dry != in_.dry.end() ? Minutes(0) : w.at_least,
                          w.dries,   part.offset, closes,
                          part.task, w.after};
                long_windows_ = long_windows_ || closes;
                edges_[b].push_back(edge);
                next_[before].push_back(b);
                if (held != in_.held.end())
                    floors_[b].push_back({held->second - part.offset, std::nullopt, part.task, w.after});
            }
        }
    }
    for (auto& next : next_) {
        std::sort(next.begin(), next.end());
        next.erase(std::unique(next.begin(), next.end()), next.end());
    }
}

Moment Fitting::fixed_from(std::size_t block, Moment from) const {
    for (const Floor& f : floors_[block]) from = std::max(from, f.from);
    return from;
}

Fitted Fitting::from_starts(const std::vector<std::optional<Moment>>& starts) const {
    const std::vector<Task>& tasks = *in_.tasks;
    Fitted out;
    for (std::size_t i = 0; i < tasks.size(); ++i) {
        if (const auto done = in_.done.find(tasks[i].id); done != in_.done.end())
            out.slots.push_back({i, done->second - tasks[i].hands_on, done->second, true});
    }
    for (std::size_t b = 0; b < blocks_.size(); ++b) {
        if (!starts[b]) continue;
        for (const auto& [task, offset, length] : blocks_[b].tasks) {
            if (in_.done.contains(tasks[task].id)) continue;
            out.slots.push_back({task, *starts[b] + offset, *starts[b] + offset + length, false});
        }
        for (const Edge& e : edges_[b]) {
            if (e.most && starts[e.from] && *starts[b] > until(e, *starts[e.from]))
                out.missed.push_back(tasks[e.task].id);
        }
        for (const Floor& f : floors_[b]) {
            if (f.until && *starts[b] > *f.until) out.missed.push_back(tasks[f.task].id);
        }
    }
    std::stable_sort(out.slots.begin(), out.slots.end(), [](const Slot& a, const Slot& b) {
        return std::tie(a.start, a.task) < std::tie(b.start, b.task);
    });
    if (!out.slots.empty()) out.end = end_of(out.slots);
    return out;
}

Fitted Fitting::pass(Moment from, std::vector<Moment> not_before, const std::vector<bool>& pinned) const {
    const auto hands = static_cast<std::size_t>(std::clamp(in_.hands, 1, 8));
    const Open hours(in_, from, latest_, {}, longest_sitting_);
    std::vector<std::vector<Interval>> busy(hands);
    // One hand's first room.
    const auto room_of = [&](const std::vector<Interval>& own, Moment at, Minutes length) -> std::optional<Moment> {
        for (auto open = hours.at(at); open != hours.free.end(); ++open) {
            Moment start = std::max(at, open->from);
            auto b =
                std::upper_bound(own.begin(), own.end(), start, [](Moment m, const Interval& i) { return m < i.to; });
            for (; b != own.end() && b->from < start + length && length.count() > 0; ++b) start = b->to;
            const bool too_long = length > longest_sitting_ && start == open->from;
            if (start < open->to && (start + length <= open->to || too_long)) return start;
        }
        return std::nullopt;
    };
    // As many at once as it wants.
    const auto first_room = [&](Moment at, Minutes length, int people) -> std::optional<Moment> {
        if (hands == 1) return room_of(busy.front(), at, length);
        const auto wanted = std::min(static_cast<std::size_t>(std::max(1, people)), hands);
        while (true) {
            std::vector<Moment> each;
            for (const auto& own : busy) {
                if (const auto room = room_of(own, at, length)) each.push_back(*room);
            }
            if (each.size() < wanted) return std::nullopt;
            std::sort(each.begin(), each.end());
            if (each[wanted - 1] == at) return at;
            at = each[wanted - 1];
        }
    };
    const auto take = [&](Moment start, Minutes length, int people) {
        auto wanted = std::min(static_cast<std::size_t>(std::max(1, people)), hands);
        for (auto& own : busy) {
            if (wanted == 0) break;
            if (hands > 1 && room_of(own, start, length) != start) continue;
            occupy(own, {start, start + length});
            --wanted;
        }
    };
    for (const Interval& t : taken_) {
        const auto free = std::find_if(busy.begin(), busy.end(), [&](const auto& own) {
            return std::none_of(own.begin(), own.end(),
                                [&](const Interval& i) { return i.from < t.to && t.from < i.to; });
        });
        if (free != busy.end()) occupy(*free, t);
    }
    const std::size_t n = blocks_.size();
    std::vector<bool> kept(n, false);
    std::vector<StepId> not_pinned;
    const auto pin_lost = [&](std::size_t b) {
        for (const auto& part : blocks_[b].tasks) {
            const StepId& id = (*in_.tasks)[part.task].id;
            if (in_.pinned.contains(id) && !in_.done.contains(id)) return not_pinned.push_back(id);
        }
    };
    for (std::size_t b = 0; b < n; ++b) {
        const auto& pin = blocks_[b].pin;
        if (!pin || done(b) || !pinned[b]) continue;
        if (*pin >= from && first_room(*pin, blocks_[b].length, blocks_[b].people) == *pin) {
            take(*pin, blocks_[b].length, blocks_[b].people);
            kept[b] = true;
        } else {
            pin_lost(b);
        }
    }

    // Whose turn it is among blocks that can begin at one moment: the longer chain that hangs on it, then the older
    // one.
    struct Turn {
        Minutes less_tail{0};
        std::size_t turn = 0;
        std::size_t block = 0;
        bool operator<(const Turn& other) const {
            return std::tie(less_tail, turn, block) < std::tie(other.less_tail, other.turn, other.block);
        }
    };
    // Blocks of one length that can begin at one moment stand together. Room only gets less, so a start once found can
    // only move later: it is looked up again, for all of them at once, when its turn comes.
    using Key = std::tuple<Moment, Minutes, int>;
    std::map<Key, std::set<Turn>> ready;
    std::vector<std::optional<Moment>> starts(n);
    std::vector<std::size_t> missing(n, 0);
    std::size_t turn = 0;
    std::vector<std::size_t> free;  // wait for nothing without a place
    const auto placed = [&](std::size_t b, Moment start) {
        starts[b] = start;
        for (const std::size_t waiting : next_[b]) {
            if (--missing[waiting] == 0) free.push_back(waiting);
        }
    };
    for (std::size_t b = 0; b < n; ++b) {
        if (done(b)) continue;
        for (const std::size_t waiting : next_[b]) ++missing[waiting];
    }
    for (std::size_t b = 0; b < n; ++b) {
        if (!done(b) && missing[b] == 0) free.push_back(b);
    }
    const auto make_ready = [&] {
        for (std::size_t i = 0; i < free.size(); ++i) {
            const std::size_t b = free[i];
            Moment at = std::max(fixed_from(b, from), not_before[b]);
            for (const Edge& e : edges_[b]) {
                if (starts[e.from]) at = std::max(at, from_then(e, *starts[e.from]));
            }
            if (kept[b] && at <= *blocks_[b].pin) {
                placed(b, *blocks_[b].pin);
                continue;
            }
            if (kept[b]) pin_lost(b);
            ready[{at, blocks_[b].length, blocks_[b].people}].insert({-block_tail_[b], ++turn, b});
        }
        free.clear();
    };
    make_ready();
    while (!ready.empty()) {
        look_for_stop();
        const Moment start = std::get<Moment>(ready.begin()->first);
        auto first = ready.end();
        for (auto at = ready.begin(); at != ready.end() && std::get<Moment>(at->first) == start;) {
            const auto [from_then, length, people] = at->first;
            const auto room = first_room(start, length, people);
            if (!room) return {};
            if (*room != start) {
                auto later = ready.extract(at++);
                auto& there = ready[{*room, length, people}];
                if (there.size() < later.mapped().size()) there.swap(later.mapped());
                there.merge(later.mapped());
                continue;
            }
            if (first == ready.end() || *at->second.begin() < *first->second.begin()) first = at;
            ++at;
        }
        if (first == ready.end()) continue;
        const std::size_t b = first->second.begin()->block;
        first->second.erase(first->second.begin());
        if (first->second.empty()) ready.erase(first);
        take(start, blocks_[b].length, blocks_[b].people);
        placed(b, start);
        make_ready();
    }
    Fitted out = from_starts(starts);
    out.not_pinned = std::move(not_pinned);
    return out;
}

Fitted Fitting::forward(Moment from) const {
    std::vector<Moment> not_before(blocks_.size(), from);
    std::vector<bool> pinned(blocks_.size(), true);
    std::vector<StepId> lost;
    Fitted out;
    for (int i = 0; i < most_delays; ++i) {
        out = pass(from, not_before, pinned);
        if (!out.not_pinned.empty()) {
            // Without the room that was kept for what cannot be there: it begins as soon after that as it may.
            for (const StepId& id : out.not_pinned) {
                for (std::size_t b = 0; b < blocks_.size(); ++b) {
                    for (const auto& part : blocks_[b].tasks) {
                        if ((*in_.tasks)[part.task].id != id) continue;
                        pinned[b] = false;
                        not_before[b] = std::max(from, *blocks_[b].pin);
                    }
                }
                lost.push_back(id);
            }
            continue;
        }
        if (out.missed.empty()) break;
        // What opens a window begins later, so that it is still open.
        std::vector<std::optional<Moment>> starts(blocks_.size());
        for (const Slot& slot : out.slots) {
            if (slot.done) continue;
            const std::size_t b = block_of_[slot.task];
            for (const auto& part : blocks_[b].tasks) {
                if (part.task == slot.task) starts[b] = slot.start - part.offset;
            }
        }
        bool later = false;
        for (std::size_t b = 0; b < blocks_.size() && !later; ++b) {
            for (const Edge& e : edges_[b]) {
                if (!e.most || !starts[b] || !starts[e.from] || *starts[b] <= until(e, *starts[e.from])) continue;
                if (blocks_[e.from].pin && pinned[e.from]) continue;
                not_before[e.from] =
                    std::max(not_before[e.from], passing_.before(*starts[b] + e.offset, *e.most, false) - e.end);
                later = true;
                break;
            }
        }
        if (!later) break;
    }
    out.not_pinned = std::move(lost);
    return out;
}

// Branches over orders of blocks, in the order of time.
struct Fitting::Deciding {
    const Fitting& f;
    const Open hours;
    const Moment from;
    const Minutes put_back;  // clocks, as long as it may last
    std::vector<std::optional<Moment>> starts;
    std::vector<std::size_t> missing;
    std::vector<std::size_t> eligible;
    Minutes work_left{0};
    Moment best_end;
    std::vector<std::optional<Moment>> found{};
    std::int64_t looks;
    bool given_up = false;

    Deciding(const Fitting& fitting, Moment begin, const std::vector<Interval>& taken, Moment sooner_than,
             std::int64_t most_looks)
        : f(fitting),
          hours(fitting.in_, begin, fitting.latest_, taken, fitting.longest_sitting_),
          from(begin),
          put_back(fitting.passing_.put_back(begin, sooner_than)),
          starts(fitting.blocks_.size()),
          missing(fitting.blocks_.size(), 0),
          best_end(sooner_than),
          looks(most_looks) {
        for (std::size_t b = 0; b < f.blocks_.size(); ++b) {
            if (f.done(b)) continue;
            work_left += f.blocks_[b].length;
            for (const std::size_t waiting : f.next_[b]) ++missing[waiting];
        }
        for (std::size_t b = 0; b < f.blocks_.size(); ++b) {
            if (!f.done(b) && missing[b] == 0) eligible.push_back(b);
        }
    }

    struct Candidate {
        Moment start;
        Minutes less_tail;
        std::size_t block;
        bool operator<(const Candidate& o) const {
            return std::tie(start, less_tail, block) < std::tie(o.start, o.less_tail, o.block);
        }
    };

    void go(Moment free, Moment end) {
        if (eligible.empty()) {
            if (end < best_end) {
                best_end = end;
                found = starts;
            }
            return;
        }
        look_for_stop();
        looks -= static_cast<std::int64_t>(eligible.size());
        if (looks < 0) {
            given_up = true;
            return;
        }
        std::vector<Candidate> all;
        Moment first_end = Moment::max(), first_start = Moment::max();
        for (const std::size_t b : eligible) {
            Moment at = std::max(free, f.fixed_from(b, from));
            for (const Edge& e : f.edges_[b]) {
                if (starts[e.from]) at = std::max(at, f.from_then(e, *starts[e.from]));
            }
            const Block& block = f.blocks_[b];
            if (block.pin && at > *block.pin) return;
            const auto start = block.pin ? block.pin : hours.room(at, block.length);
            if (!start) return;
            for (const Edge& e : f.edges_[b]) {
                if (e.most && starts[e.from] && *start > f.until(e, *starts[e.from])) return;
            }
            for (const Floor& floor : f.floors_[b]) {
                if (floor.until && *start > *floor.until) return;
            }
            if (*start + f.block_tail_[b] - put_back >= best_end) return;
            all.push_back({*start, -f.block_tail_[b], b});
            first_end = std::min(first_end, *start + block.length);
            first_start = std::min(first_start, *start);
        }
        if (hours.after_work(first_start, work_left) >= best_end) return;
        std::sort(all.begin(), all.end());
        const std::vector<std::size_t> before = eligible;
        for (const Candidate& c : all) {
            const Minutes length = f.blocks_[c.block].length;
            if (c.start >= first_end && !(length.count() == 0 && c.start == first_end)) break;
            starts[c.block] = c.start;
            std::erase(eligible, c.block);
            for (const std::size_t waiting : f.next_[c.block]) {
                if (--missing[waiting] == 0) eligible.push_back(waiting);
            }
            work_left -= length;
            go(std::max(free, c.start + length), std::max(end, c.start + length));
            work_left += length;
            eligible = before;
            for (const std::size_t waiting : f.next_[c.block]) ++missing[waiting];
            starts[c.block].reset();
            if (given_up) return;
        }
    }
};

Fitted Fitting::best(Moment from, const std::optional<Moment>& deadline) const {
    return search(from, deadline, blocks_.size() <= few_blocks ? looks_at_few : looks_at_many);
}

Fitted Fitting::search(Moment from, const std::optional<Moment>& deadline, std::int64_t looks) const {
    Fitted first = forward(from);
    const bool kept = first.missed.empty() && first.not_pinned.empty();
    const bool too_much = blocks_.size() > most_blocks || in_.hands > 1 || !too_long().empty();
    if (first.slots.empty() || too_much || !first.not_pinned.empty()) return first;
    if (kept && !rounds_ && first.end <= bound(from)) {
        first.all_seen = true;
        return first;
    }
    std::vector<Interval> taken = taken_;
    for (std::size_t b = 0; b < blocks_.size(); ++b) {
        if (blocks_[b].pin && !done(b)) occupy(taken, {*blocks_[b].pin, *blocks_[b].pin + blocks_[b].length});
    }
    // What is done already ends when it ended.
    Moment done_end = Moment::min();
    for (const Slot& slot : first.slots) {
        if (slot.done) done_end = std::max(done_end, slot.end);
    }
    const Moment no_better = kept ? first.end : Moment::max();
    const auto look = [&](Moment sooner_than) {
        Deciding deciding(*this, from, taken, sooner_than, looks);
        deciding.go(from, done_end);
        return deciding;
    };
    const bool late = deadline && (!kept || first.end > *deadline);
    if (late) {
        // In time first, then as soon as may be.
        Deciding in_time = look(*deadline + Minutes(1));
        if (!in_time.found.empty()) {
            first = from_starts(in_time.found);
            first.all_seen = !in_time.given_up && !long_windows_;
            return first;
        }
    }
    Deciding sooner = look(no_better);
    if (!sooner.found.empty()) first = from_starts(sooner.found);
    first.all_seen = !sooner.given_up && !long_windows_;
    return first;
}

bool Fitting::meets(Moment from, Moment deadline) const {
    if (!rounds_ && bound(from) > deadline) return false;
    const Fitted first = forward(from);
    if (first.slots.empty()) return false;
    if (first.end <= deadline) return true;
    const Fitted sought = search(from, deadline, blocks_.size() <= few_blocks ? looks_at_few : looks_for_start);
    return !sought.slots.empty() && sought.end <= deadline;
}

// Blocks one after another as their waits ask, each as early as the hours let it, as many at once as like.
std::vector<Moment> Fitting::earliest(Moment from, const Open& hours, const std::vector<Minutes>& lengths) const {
    const std::size_t n = blocks_.size();
    std::vector<Moment> start(n, from);
    std::vector<std::size_t> missing(n, 0), free;
    for (std::size_t b = 0; b < n; ++b) {
        for (const std::size_t waiting : next_[b]) ++missing[waiting];
    }
    for (std::size_t b = 0; b < n; ++b) {
        if (missing[b] == 0) free.push_back(b);
    }
    for (std::size_t i = 0; i < free.size(); ++i) {
        const std::size_t b = free[i];
        if (!done(b)) {
            Moment at = fixed_from(b, from);
            for (const Edge& e : edges_[b]) {
                if (done(e.from)) continue;
                // Shorter than planned where a round saves setting up.
                at = std::max(at, from_then(e, start[e.from] - (blocks_[e.from].length - lengths[e.from])));
            }
            if (blocks_[b].pin) at = std::max(at, *blocks_[b].pin);
            start[b] = hours.room(at, lengths[b]).value_or(at);
        }
        for (const std::size_t waiting : next_[b]) {
            if (--missing[waiting] == 0) free.push_back(waiting);
        }
    }
    return start;
}

Moment Fitting::bound(Moment from) const {
    // What a round could save is taken off, and added once.
    std::vector<Minutes> lengths;
    std::map<std::string, Minutes> once;
    std::map<std::string, int> many;
    const auto in_round = [&](std::size_t b) -> const Task* {
        const Task& task = (*in_.tasks)[blocks_[b].tasks.front().task];
        return blocks_[b].tasks.size() == 1 && !task.round.empty() && !done(b) ? &task : nullptr;
    };
    for (std::size_t b = 0; b < blocks_.size(); ++b) {
        if (const Task* task = in_round(b)) ++many[task->round];
    }
    for (std::size_t b = 0; b < blocks_.size(); ++b) {
        Minutes length = blocks_[b].length;
        const Task& task = (*in_.tasks)[blocks_[b].tasks.front().task];
        if (in_round(b) != nullptr && many[task.round] > 1) {
            length -= task.setup;
            auto& least = once.try_emplace(task.round, task.setup).first->second;
            least = std::min(least, task.setup);
        }
        lengths.push_back(length);
    }
    const Open hours(in_, from, latest_, in_.hands == 1 ? taken_ : std::vector<Interval>{}, longest_sitting_);
    const std::vector<Moment> start = earliest(from, hours, lengths);
    std::vector<std::size_t> order;
    Moment bound = from;
    for (std::size_t b = 0; b < blocks_.size(); ++b) {
        if (done(b)) continue;
        order.push_back(b);
        bound = std::max(bound, start[b] + lengths[b]);
    }
    // All that cannot begin before some moment has to be done after it, on the hours but for what runs over them.
    if (!too_long().empty()) order.clear();
    std::sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return start[a] > start[b]; });
    Minutes work{0};
    for (std::size_t i = 0; i < order.size(); ++i) {
        work += lengths[order[i]];
        Minutes all = work;
        if (i + 1 == order.size()) {
            for (const auto& [round, setup] : once) all += setup;
        }
        if (i + 1 < order.size() && start[order[i + 1]] == start[order[i]]) continue;
        const Minutes each = (all + Minutes(in_.hands - 1)) / std::max(1, in_.hands);
        bound = std::max(bound, hours.after_work(start[order[i]], each));
    }
    for (const Task& task : *in_.tasks) {
        if (const auto done = in_.done.find(task.id); done != in_.done.end()) bound = std::max(bound, done->second);
    }
    return bound;
}

std::vector<Leeway> Fitting::leeway(Moment from, const std::optional<Moment>& deadline) const {
    const std::size_t n = blocks_.size();
    std::vector<Minutes> lengths;
    for (const Block& b : blocks_) lengths.push_back(b.length);
    const Open hours(in_, from, latest_, {}, longest_sitting_);
    const std::vector<Moment> start = earliest(from, hours, lengths);
    std::vector<std::optional<Moment>> latest(n);
    if (deadline) {
        // Backwards from the deadline: whatever waits for it must still be able to begin.
        std::vector<std::size_t> waiting(n, 0), free;
        for (std::size_t b = 0; b < n; ++b) waiting[b] = next_[b].size();
        for (std::size_t b = 0; b < n; ++b) {
            if (waiting[b] == 0) free.push_back(b);
        }
        std::vector<Moment> by(n, Moment::max());
        for (std::size_t i = 0; i < free.size(); ++i) {
            const std::size_t b = free[i];
            const Moment end = std::min(*deadline, by[b] == Moment::max() ? *deadline : by[b] + lengths[b]);
            latest[b] = hours.last_room(end, lengths[b]);
            std::set<std::size_t> before;
            for (const Edge& e : edges_[b]) {
                if (latest[b])
                    by[e.from] = std::min(by[e.from], passing_.before(*latest[b] + e.offset, e.wait, e.dries) - e.end);
                before.insert(e.from);
            }
            for (const std::size_t earlier : before) {
                if (--waiting[earlier] == 0) free.push_back(earlier);
            }
        }
    }
    std::vector<Leeway> out(in_.tasks->size());
    for (std::size_t b = 0; b < n; ++b) {
        for (const auto& [task, offset, length] : blocks_[b].tasks) {
            out[task].earliest = start[b] + offset;
            if (latest[b]) out[task].latest = *latest[b] + offset;
        }
    }
    return out;
}

Reason Fitting::stopped_by(StepId id, Moment wanted, const Fitted& got) const {
    const std::vector<Task>& tasks = *in_.tasks;
    const auto task = static_cast<std::size_t>(
        std::find_if(tasks.begin(), tasks.end(), [&](const Task& t) { return t.id == id; }) - tasks.begin());
    const std::size_t block = block_of_[task];
    Minutes offset{0};
    for (const auto& part : blocks_[block].tasks) {
        if (part.task == task) offset = part.offset;
    }
    const Moment at = wanted - offset;
    if (at < in_.now) return {"clock.stopped-by-now", {}};
    const auto waits_for = [&](std::size_t after, Moment until) {
        return Reason{"clock.stopped-by-wait",
                      {{"task", std::vector{full_name(tasks[after])}}, {"until", until + offset}}};
    };
    for (const Floor& f : floors_[block]) {
        if (f.from > at) return waits_for(f.after, f.from);
    }
    for (const Edge& e : edges_[block]) {
        for (const Slot& slot : got.slots) {
            if (slot.task != e.after) continue;
            // From the start of its block.
            Moment start = slot.start;
            for (const auto& part : blocks_[e.from].tasks) {
                if (part.task == e.after) start -= part.offset;
            }
            if (from_then(e, start) > at) return waits_for(e.after, from_then(e, start));
        }
    }
    const Open hours(in_, at, latest_, {}, longest_sitting_);
    if (hours.room(at, blocks_[block].length) != at) return {"clock.stopped-by-hours", {}};
    return {"clock.stopped-by-other-work", {}};
}

std::vector<Fitting::TooLong> Fitting::too_long() const {
    std::vector<TooLong> out;
    for (const Block& block : blocks_) {
        const auto open = std::find_if(block.tasks.begin(), block.tasks.end(),
                                       [&](const auto& t) { return !in_.done.contains((*in_.tasks)[t.task].id); });
        if (open == block.tasks.end() || block.length - open->offset <= longest_sitting_) continue;
        out.push_back({open->task, block.length - open->offset, std::next(open) == block.tasks.end()});
    }
    return out;
}

}  // namespace skarvel
