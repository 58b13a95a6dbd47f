#include "clock/schedule.h"

#include "clock/fitting.h"
#include "clock/network.h"
#include "clock/week.h"

#include <algorithm>
#include <map>
#include <set>

#include "values/stop.h"

namespace skarvel {
namespace {

using std::chrono::days;
using std::chrono::floor;

constexpr Minutes try_step{5};

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

// A window opens with the first stroke of what it is for. Bounds between the work of one face that cannot hold together
// are told as the chain that they are.
void say_contradictions(const ClockInput& in, std::vector<Problem>& problems) {
    const std::vector<Task>& tasks = *in.tasks;
    std::map<FaceId, std::vector<std::size_t>> of_face;
    for (std::size_t i = 0; i < tasks.size(); ++i) of_face[tasks[i].face].push_back(i);
    for (const auto& [face, places] : of_face) {
        const auto windowed = [&](std::size_t i) {
            return !in.done.contains(tasks[i].id) &&
                   std::any_of(tasks[i].waits.begin(), tasks[i].waits.end(), [](const Wait& w) { return w.at_most; });
        };
        if (std::none_of(places.begin(), places.end(), windowed)) continue;
        std::map<std::size_t, std::size_t> event;
        for (const std::size_t i : places) event.emplace(i, event.size());
        // Between the beginnings of two tasks: one comes after the other is over, and inside its window.
        std::vector<Bound> bounds;
        std::vector<std::pair<std::size_t, const Wait*>> of;
        for (const std::size_t i : places) {
            if (in.done.contains(tasks[i].id)) continue;
            for (const Wait& w : tasks[i].waits) {
                if (!event.contains(w.after) || in.done.contains(tasks[w.after].id)) continue;
                const Minutes work = tasks[w.after].hands_on;
                Bound bound{event[w.after], event[i], work, std::nullopt};
                // What waits to be dry enough is ready where the window closes: it opened with what was put on first.
                if (!w.at_most) bound.at_least = work + w.at_least;
                bounds.push_back(bound);
                of.emplace_back(i, &w);
                if (!w.at_most) continue;
                bounds.push_back({event[w.after], event[i], std::nullopt, work + *w.at_most - w.opened});
                of.emplace_back(i, &w);
            }
        }
        const std::vector<std::size_t> chain = contradiction(event.size(), bounds);
        if (chain.empty()) continue;
        // The window, and all that has to happen inside of it.
        for (const std::size_t b : chain) {
            const auto& [i, wait] = of[b];
            if (!bounds[b].at_most) continue;
            const Task& coat = tasks[wait->after];
            Minutes inside = wait->opened;
            std::vector<Reason> lifts;
            for (const std::size_t other : chain) {
                const Task& between = tasks[of[other].second->after];
                if (other == b || of[other].second->after == wait->after) continue;
                inside += between.hands_on;
                lifts.push_back(between.name);
            }
            problems.push_back({{lifts.empty() ? "clock.window-too-short" : "clock.window-too-short-lifts",
                                 {{"task", std::vector{full_name(coat)}},
                                  {"lift", std::vector{full_name(tasks[i])}},
                                  {"lifts", static_cast<std::int64_t>(lifts.size())},
                                  {"time", inside},
                                  {"window", *wait->at_most}}},
                                Station::Clock,
                                {"clock.window-too-short-remedy", {}},
                                Mark::Look});
            break;
        }
    }
}

std::optional<Moment> latest_start(const Fitting& fitting, const ClockInput& in) {
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
        return !fitting.meets(sitting.from, deadline);
    });
    if (first == sittings.end()) return std::nullopt;
    Moment low = first->from;
    Moment high = first->to;
    while (high - low > try_step) {
        const auto steps = (high - low) / try_step;
        const Moment middle = low + try_step * (steps / 2);
        (fitting.meets(middle, deadline) ? low : high) = middle;
        if (steps <= 1) break;
    }
    // Hands may have room only a little after the moment that was tried.
    for (const Slot& slot : fitting.forward(low).slots) {
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
bool better_in_rounds(const Fitted& rounds, const Fitted& singly, const ClockInput& in) {
    if (rounds.slots.empty() || singly.slots.empty()) return singly.slots.empty();
    const Moment end = rounds.end, other_end = singly.end;
    const Minutes work = work_in(rounds.slots), other_work = work_in(singly.slots);
    if (rounds.missed.size() != singly.missed.size()) return rounds.missed.size() < singly.missed.size();
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

bool may_share_rounds(const std::vector<Task>& tasks) {
    return std::any_of(tasks.begin(), tasks.end(), [](const Task& t) { return !t.of.empty(); });
}

Moment first_moment(const ClockInput& in) { return in.begin_on ? std::max(in.now, *in.begin_on) : in.now; }

// By single tasks or in rounds, whichever is the better plan.
struct Ways {
    Fitting singly;
    std::optional<Fitting> together;
    Fitted fitted;
    bool in_rounds = false;

    explicit Ways(const ClockInput& in) : singly(in, false), fitted(singly.best(first_moment(in), in.deadline)) {
        if (!may_share_rounds(*in.tasks)) return;
        together.emplace(in, true);
        Fitted rounds = together->best(first_moment(in), in.deadline);
        if (!better_in_rounds(rounds, fitted, in)) return;
        fitted = std::move(rounds);
        in_rounds = true;
    }
    [[nodiscard]] const Fitting& chosen() const { return in_rounds ? *together : singly; }
};

const Task* find_task(const std::vector<Task>& tasks, const StepId& id) {
    const auto at = std::find_if(tasks.begin(), tasks.end(), [&](const Task& t) { return t.id == id; });
    return at == tasks.end() ? nullptr : &*at;
}

// Windows that close before there are hours, and what could not begin where it was pinned.
void say_not_kept(const ClockInput& in, const Ways& ways, std::vector<Problem>& problems) {
    const auto start_of = [&](const StepId& id) {
        for (const Slot& slot : ways.fitted.slots) {
            if ((*in.tasks)[slot.task].id == id) return slot.start;
        }
        return Moment{};
    };
    for (const StepId& id : ways.fitted.missed) {
        const Task* task = find_task(*in.tasks, id);
        problems.push_back({{"clock.window-missed", {{"task", std::vector{full_name(*task)}}, {"start", start_of(id)}}},
                            Station::Clock,
                            {"clock.window-missed-remedy", {}},
                            Mark::Stop});
    }
    for (const StepId& id : ways.fitted.not_pinned) {
        const Task* task = find_task(*in.tasks, id);
        problems.push_back({{"clock.not-pinned",
                             {{"task", std::vector{full_name(*task)}},
                              {"pinned", in.pinned.at(id)},
                              {"start", start_of(id)},
                              {"why", std::vector{ways.chosen().stopped_by(id, in.pinned.at(id), ways.fitted)}}}},
                            Station::Clock,
                            {"clock.not-pinned-remedy", {}},
                            Mark::Look});
    }
}

}  // namespace

std::vector<Slot> forward_around(const ClockInput& in, const std::vector<Interval>& taken) {
    if (in.tasks->empty()) return {};
    ClockInput around = in;
    around.taken.insert(around.taken.end(), taken.begin(), taken.end());
    return Ways(around).fitted.slots;
}

std::optional<Moved> how_far(const ClockInput& in, const StepId& task, Moment to) {
    if (find_task(*in.tasks, task) == nullptr || in.done.contains(task)) return std::nullopt;
    ClockInput moved = in;
    moved.pinned[task] = to;
    const Ways ways(moved);
    for (const Slot& slot : ways.fitted.slots) {
        if ((*in.tasks)[slot.task].id != task) continue;
        Moved out{slot.start, std::nullopt, ways.fitted.end};
        if (slot.start != to) out.stopped_by = ways.chosen().stopped_by(task, to, ways.fitted);
        return out;
    }
    return std::nullopt;
}

Schedule schedule(const ClockInput& in) {
    Schedule out;
    find_chain(*in.tasks, out);
    if (in.tasks->empty()) return out;
    const Ways ways(in);
    out.slots = ways.fitted.slots;
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
    out.ready = ways.fitted.end;
    out.bound = std::min(out.ready, ways.singly.bound(first_moment(in)));
    out.best = out.bound == out.ready || (ways.fitted.all_seen && !ways.together);
    if (out.best) out.bound = out.ready;
    out.leeway = ways.singly.leeway(first_moment(in), in.deadline);
    for (const auto& [task, length, alone] : ways.chosen().too_long()) {
        out.problems.push_back({{alone ? "clock.longer-than-sitting" : "clock.longer-in-one-go",
                                 {{"task", std::vector{full_name((*in.tasks)[task])}}, {"time", length}}},
                                Station::Clock,
                                {"clock.set-hours", {}},
                                Mark::Look});
    }
    say_contradictions(in, out.problems);
    say_not_kept(in, ways, out.problems);
    if (in.deadline) {
        out.late = out.ready > *in.deadline;
        const bool all_done = open == out.slots.end();
        // A day that has passed is met by no beginning.
        const bool passed = *in.deadline < in.now;
        if (!all_done && !passed) {
            out.start_by = latest_start(ways.singly, in);
            if (ways.together) {
                // What is planned then is planned in the better way.
                if (const auto later = latest_start(*ways.together, in);
                    later && (!out.start_by || *later > *out.start_by))
                    out.start_by = later;
            }
            if (out.start_by && *out.start_by >= out.begin)
                out.slack = std::chrono::duration_cast<Minutes>(*out.start_by - out.begin);
        }
        if (out.late && !all_done) {
            out.problems.push_back({{passed ? "clock.passed" : "clock.late",
                                     {{"ready", out.ready},
                                      {"deadline", *in.deadline},
                                      {"by", std::chrono::duration_cast<Minutes>(out.ready - *in.deadline)}}},
                                    Station::Clock,
                                    {passed ? "clock.passed-remedy" : "clock.late-remedy", {}},
                                    Mark::Stop});
        }
    }
    return out;
}

}  // namespace skarvel
