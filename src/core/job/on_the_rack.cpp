#include "job/on_the_rack.h"

#include <algorithm>
#include <numeric>

namespace skarvel {

bool comes_before(const Claim& a, const Claim& b) {
    if (a.rank || b.rank) return a.rank && (!b.rank || *a.rank < *b.rank);
    return a.deadline && (!b.deadline || *a.deadline < *b.deadline);
}

RackJob on_the_rack(const Job& job, const Plan& plan, Moment now) {
    RackJob out{job.title, plan.clock_reads, std::nullopt};
    out.clock.now = now;
    out.clock.taken.clear();
    return out;
}

std::optional<Moved> move_work(const Plan& plan, const Present& present, const StepId& step, Moment to) {
    ClockInput clock = plan.clock_reads;
    clock.now = present.now;
    clock.taken = present.taken;
    return how_far(clock, step, to);
}

std::vector<Interval> hours_of_others(const std::vector<RackJob>& others, const Claim& own, const Shop& shop,
                                      Moment now) {
    std::vector<RackJob> sooner;
    std::copy_if(others.begin(), others.end(), std::back_inserter(sooner), [&](const RackJob& other) {
        return comes_before({other.clock.deadline, other.rank}, own);
    });
    std::stable_sort(sooner.begin(), sooner.end(), [](const RackJob& a, const RackJob& b) {
        return comes_before({a.clock.deadline, a.rank}, {b.clock.deadline, b.rank});
    });
    // They were read some time ago; the hours may have changed since, and some are gone.
    for (RackJob& job : sooner) {
        job.clock.now = now;
        job.clock.hours = shop.hours;
        job.clock.changed = shop.changed_days;
        job.clock.hands = shop.pairs_of_hands;
    }
    std::vector<Interval> hours;
    std::vector<std::size_t> in_order(sooner.size());
    std::iota(in_order.begin(), in_order.end(), std::size_t{0});
    for (const RackSlot& s : rack_week(sooner, in_order).slots) hours.push_back({s.slot.start, s.slot.end});
    return hours;
}

std::vector<OfToday> today_over_all(const std::vector<RackJob>& jobs, Moment now) {
    std::vector<std::size_t> order(jobs.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
        return comes_before({jobs[a].clock.deadline, jobs[a].rank}, {jobs[b].clock.deadline, jobs[b].rank});
    });
    const RackWeek week = rack_week(jobs, order);
    std::vector<OfToday> today;
    for (const std::size_t i : of_the_day(week, now)) {
        const RackSlot& s = week.slots[i];
        const Task& task = (*jobs[s.job].clock.tasks)[s.slot.task];
        today.push_back({s.job, task.id, full_name(task), s.slot.start});
    }
    return today;
}

std::vector<std::size_t> of_the_day(const RackWeek& week, Moment now) {
    const auto day = std::chrono::floor<std::chrono::days>(now);
    std::vector<std::size_t> today;
    for (std::size_t i = 0; i < week.slots.size(); ++i) {
        if (std::chrono::floor<std::chrono::days>(week.slots[i].slot.start) == day) today.push_back(i);
    }
    return today;
}

}  // namespace skarvel
