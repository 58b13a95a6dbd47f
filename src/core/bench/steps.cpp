#include "bench/steps.h"

#include <algorithm>
#include <set>

namespace skarvel {
namespace {

void add_cautions(const std::map<std::string, std::vector<std::string>>& table, const std::string& key,
                  std::set<std::string>& ids) {
    if (const auto at = table.find(key); at != table.end()) ids.insert(at->second.begin(), at->second.end());
}

std::vector<Reason> cautions_for(const Task& task, const BenchInput& in, const Trade& trade) {
    std::set<std::string> ids;
    add_cautions(trade.step_cautions, task.kind, ids);
    for (const BuildUp& m : in.methods) {
        if (task.kind == "ground") add_cautions(trade.product_cautions, m.ground.base, ids);
        if (task.kind == "colour") {
            add_cautions(trade.product_cautions, m.colour.base, ids);
            if (const auto tool = m.facts.find("tool");
                tool != m.facts.end() && tool->second == Fact{std::string("spray")}) {
                add_cautions(trade.product_cautions, "spray", ids);
            }
        }
        if (task.kind == "clear" || task.kind == "clear-under") add_cautions(trade.product_cautions, m.clear.base, ids);
    }
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
    std::set<std::string> known;
    std::vector<const Wait*> longest(in.tasks.size(), nullptr);  // of the waits after each task
    for (const Task& task : in.tasks) {
        for (const Wait& w : task.waits) {
            const Minutes least = longest[w.after] != nullptr ? longest[w.after]->at_least : Minutes(0);
            if (w.at_least > least) longest[w.after] = &w;
        }
    }
    for (const Slot& slot : in.clock.slots) {
        const Task& task = in.tasks[slot.task];
        const bool turns = in.decal && (task.kind == "weed" || task.kind == "lay");
        const std::string suffix = turns ? "-decal" : "";
        Step step;
        step.id = task.id;
        step.kind = task.kind;
        step.name = full_name(task);
        step.instruction = {"step." + task.kind + suffix, task.name.arguments};
        step.check = {"check." + task.kind + suffix, task.name.arguments};
        step.cautions = cautions_for(task, in, trade);
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
    for (const auto& [id, at] : in.record.ticks) {
        if (!known.contains(id)) plan.orphans.push_back(id);
    }
    return plan;
}

}  // namespace skarvel
