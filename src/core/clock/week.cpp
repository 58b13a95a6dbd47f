#include "clock/week.h"

#include <algorithm>

#include "values/stop.h"

namespace skarvel {
namespace {

bool any_open(const std::vector<Slot>& slots) {
    return std::any_of(slots.begin(), slots.end(), [](const Slot& s) { return !s.done; });
}

}  // namespace

Moment end_of(const std::vector<Slot>& slots) {
    Moment end{};
    for (const Slot& s : slots) end = std::max(end, s.end);
    return end;
}

RackWeek rack_week(const std::vector<RackJob>& jobs, const std::vector<std::size_t>& first) {
    std::vector<std::size_t> order = first;
    std::erase_if(order, [&](std::size_t i) { return i >= jobs.size(); });
    std::vector<std::size_t> rest;
    for (std::size_t i = 0; i < jobs.size(); ++i) {
        if (std::find(order.begin(), order.end(), i) == order.end()) rest.push_back(i);
    }
    const auto due = [&](std::size_t i) { return jobs[i].clock.deadline.value_or(Moment::max()); };
    std::stable_sort(rest.begin(), rest.end(), [&](std::size_t a, std::size_t b) { return due(a) < due(b); });
    order.insert(order.end(), rest.begin(), rest.end());

    RackWeek week;
    std::vector<Interval> taken;
    for (const std::size_t i : order) {
        look_for_stop();
        const ClockInput& clock = jobs[i].clock;
        const std::vector<Slot> alone = forward_around(clock, {});
        const std::vector<Slot> among = taken.empty() ? alone : forward_around(clock, taken);
        Standing standing;
        standing.job = i;
        standing.open = any_open(among);
        if (standing.open) {
            standing.ready = end_of(among);
            standing.ready_alone = end_of(alone);
            standing.late = clock.deadline && standing.ready > *clock.deadline;
            standing.crowded_out = standing.late && standing.ready_alone <= *clock.deadline;
        }
        for (const Slot& slot : among) {
            if (slot.done || slot.start == slot.end) continue;
            week.slots.push_back({i, slot});
            taken.push_back({slot.start, slot.end});
        }
        week.standings.push_back(standing);
    }
    std::stable_sort(week.slots.begin(), week.slots.end(),
                     [](const RackSlot& a, const RackSlot& b) { return a.slot.start < b.slot.start; });
    return week;
}

std::vector<Shifted> shifts_between(const RackWeek& before, const RackWeek& after) {
    std::vector<Shifted> shifts;
    for (const Standing& then : after.standings) {
        const auto now = std::find_if(before.standings.begin(), before.standings.end(),
                                      [&](const Standing& s) { return s.job == then.job; });
        if (now == before.standings.end() || !then.open || !now->open || now->ready == then.ready) continue;
        shifts.push_back({then.job, now->ready, then.ready, then.late});
    }
    std::stable_sort(shifts.begin(), shifts.end(),
                     [](const Shifted& a, const Shifted& b) { return a.after - a.before > b.after - b.before; });
    return shifts;
}

}  // namespace skarvel
