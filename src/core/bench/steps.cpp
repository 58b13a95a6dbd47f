#include "bench/steps.h"

#include <algorithm>
#include <set>

namespace skarvel {
namespace {

void add_cautions(const std::map<std::string, std::vector<std::string>>& table, const std::string& key,
                  std::set<std::string>& ids) {
    if (const auto at = table.find(key); at != table.end()) ids.insert(at->second.begin(), at->second.end());
}

// Of the kind of work, and of what is in the tins and cans that this very step uses.
std::vector<Reason> cautions_for(const Task& task, const Trade& trade) {
    std::set<std::string> ids;
    add_cautions(trade.step_cautions, word_of(task.work), ids);
    for (const std::string& product : task.products) add_cautions(trade.product_cautions, product, ids);
    std::vector<Reason> reasons;
    for (const std::string& id : ids) reasons.push_back({id, {}});
    return reasons;
}

}  // namespace

std::size_t BenchPlan::done() const {
    return static_cast<std::size_t>(std::count_if(steps.begin(), steps.end(), [](const Step& s) { return s.done; }));
}

const Step* BenchPlan::next() const {
    const auto at = std::find_if(steps.begin(), steps.end(), [](const Step& s) { return !s.done; });
    return at == steps.end() ? nullptr : &*at;
}

BenchPlan bench(const BenchInput& in, const Trade& trade) {
    BenchPlan plan;
    std::set<StepId> known;
    std::vector<const Wait*> longest(in.tasks->size(), nullptr);  // of the waits after each task
    for (const Task& task : *in.tasks) {
        for (const Wait& w : task.waits) {
            const Minutes least = longest[w.after] != nullptr ? longest[w.after]->at_least : Minutes(0);
            if (w.at_least > least) longest[w.after] = &w;
        }
    }
    for (const Slot& slot : in.clock->slots) {
        const Task& task = (*in.tasks)[slot.task];
        // Of a decal the film stays and the rest goes; of a mask the ink goes and the rest stays.
        const bool turns = task.decal && (task.work == Work::Weed || task.work == Work::Lay);
        const std::string suffix = task.saying + (turns ? "-decal" : "");
        Step step;
        step.id = task.id;
        step.work = task.work;
        step.face = task.face;
        step.colour = task.colour;
        step.name = full_name(task);
        step.instruction = {"step." + suffix, task.name.arguments};
        step.check = {"check." + suffix, task.name.arguments};
        step.cautions = cautions_for(task, trade);
        step.number = task.number;
        step.hands_on = task.hands_on;
        step.start = slot.start;
        step.done = slot.done;
        if (const Wait* wait = longest[slot.task]) {
            step.wait_after = wait->at_least;
            step.wait_why = wait->why;
        }
        known.insert(step.id);
        plan.steps.push_back(std::move(step));
    }
    for (const auto& [id, at] : in.ticks) {
        if (!known.contains(id)) plan.orphans.push_back(id);
    }
    return plan;
}

}  // namespace skarvel
