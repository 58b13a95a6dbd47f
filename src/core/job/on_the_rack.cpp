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
                 Minutes(shop.margin_hours * 60)}};
    for (const Slot& slot : plan.clock->slots) {
        if (slot.done) out.clock.done[(*plan.tasks)[slot.task].id] = slot.end;
    }
    return out;
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
