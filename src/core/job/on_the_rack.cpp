#include "job/on_the_rack.h"

namespace skarvel {

RackJob on_the_rack(const Job& job, const Plan& plan, const Shop& shop, Moment now) {
    RackJob out{job.title,
                {plan.tasks,
                 shop.hours,
                 job.deadline,
                 {},
                 job.bench.held,
                 now,
                 shop.changed_days,
                 job.begin_on,
                 job.bench.dry,
                 Minutes(shop.margin_hours * 60),
                 job.pinned,
                 {},
                 shop.pairs_of_hands}};
    for (const Slot& slot : plan.clock->slots) {
        if (slot.done) out.clock.done[(*plan.tasks)[slot.task].id] = slot.end;
    }
    return out;
}

std::optional<Moved> move_work(const Job& job, const Plan& plan, const Shop& shop, const Present& present,
                               const StepId& step, Moment to) {
    ClockInput clock = on_the_rack(job, plan, shop, present.now).clock;
    clock.taken = present.taken;
    return how_far(clock, step, to);
}

std::vector<Interval> hours_of_others(const std::vector<RackJob>& others, const std::optional<Moment>& deadline,
                                      const Shop& shop, Moment now) {
    std::vector<RackJob> sooner;
    std::copy_if(others.begin(), others.end(), std::back_inserter(sooner), [&](const RackJob& other) {
        return other.clock.deadline && (!deadline || *other.clock.deadline < *deadline);
    });
    // They were read some time ago; the hours may have changed since, and some are gone.
    for (RackJob& job : sooner) {
        job.clock.now = now;
        job.clock.hours = shop.hours;
        job.clock.changed = shop.changed_days;
        job.clock.hands = shop.pairs_of_hands;
    }
    std::vector<Interval> hours;
    for (const RackSlot& s : rack_week(sooner).slots) hours.push_back({s.slot.start, s.slot.end});
    return hours;
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
