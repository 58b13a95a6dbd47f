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

// One sentence, then another.
Reason both(Reason first, Reason then) {
    return {"step.both",
            {{"first", std::vector<Reason>{std::move(first)}}, {"then", std::vector<Reason>{std::move(then)}}}};
}

// By what it goes to its place, then how it is put down.
Reason laying_told(const PlacedLay& lay, const LayingPlan& plan, bool decal, const Reason& task) {
    Reason to{std::string("step.lay-") + word_of(lay.on), task.arguments};
    if (lay.against) {
        to.id += "-against";
        to.arguments.emplace_back("against", static_cast<std::int64_t>(plan.lays[*lay.against].lay.section + 1));
    }
    Reason down{decal ? "step.put-down-decal" : lay.ink_edges_only ? "step.put-down-tender" : "step.put-down", {}};
    if (lay.hinge) {
        down.id = decal ? "step.hinge-decal" : lay.ink_edges_only ? "step.hinge-tender" : "step.hinge";
        down.arguments = {{"half", std::vector<Reason>{{std::string("half.") + word_of(lay.hinge->half), {}}}}};
    } else if (lay.slip_sheet) {
        down.id += "-slip";
    }
    return both(std::move(to), std::move(down));
}

Reason lifting_told(const PlacedLay& lay, Lift lift, const Reason& task) {
    Reason told{std::string("step.lift-") + word_of(lift), task.arguments};
    if (!lay.across_grain) told.id += "-plain";
    told.arguments.emplace_back("corner", std::vector<Reason>{{std::string("corner.") + word_of(lay.corner), {}}});
    return told;
}

// How the section that is laid or lifted lies, as far as that is known.
const PlacedLay* placed(const Task& task, const BenchInput& in, int time) {
    const auto laid = in.laying.find(task.colour);
    if ((task.work != Work::Lay && task.work != Work::Lift) || laid == in.laying.end() || !laid->second.laying)
        return nullptr;
    return lay_of(*laid->second.laying, static_cast<std::size_t>(std::max(1, task.number)) - 1,
                  static_cast<std::size_t>(time) - 1);
}

// Where that is known, laying and lifting are told with their places.
Reason instruction_of(const Task& task, const BenchInput& in, const Reason& usual, int time) {
    const PlacedLay* lay = placed(task, in, time);
    if (lay == nullptr) return usual;
    const auto laid = in.laying.find(task.colour);
    const LayingPlan& plan = *laid->second.laying;
    if (task.work == Work::Lift) return lifting_told(*lay, laid->second.lift, task.name);
    Reason told = laying_told(*lay, plan, task.decal, task.name);
    const auto lent = laid->second.lent.find(lay->lay.section);
    if (lent == laid->second.lent.end() || time > 1) return told;
    return both({"step.mask-of", {{"sign", lent->second.sign}, {"letters", lent->second.letters}}}, std::move(told));
}

// Waits after what is done that hold up what is not.
std::vector<Timer> timers_of(const BenchInput& in) {
    std::vector<Timer> timers;
    const Passing passing(in.changes, in.slow_days);
    std::vector<const Slot*> slot_of(in.tasks->size(), nullptr);
    for (const Slot& slot : in.clock->slots) slot_of[slot.task] = &slot;
    for (std::size_t i = 0; i < in.tasks->size(); ++i) {
        if (slot_of[i] == nullptr || slot_of[i]->done) continue;
        for (const Wait& w : (*in.tasks)[i].waits) {
            const Slot* earlier = slot_of[w.after];
            if (earlier == nullptr || !earlier->done || (w.left_when_done().count() == 0 && !w.at_most)) continue;
            // Masks of one coat come off one after the other: the next one's window counts.
            const auto told = [&](const Timer& t) { return t.until && t.after == (*in.tasks)[w.after].id; };
            if (w.at_most && std::any_of(timers.begin(), timers.end(), told)) continue;
            const Task& after = (*in.tasks)[w.after];
            Timer timer{
                after.id,
                (*in.tasks)[i].id,
                {"timer.what",
                 {{"why", std::vector<Reason>{w.why}}, {"then", std::vector<Reason>{full_name((*in.tasks)[i])}}}},
                earlier->end,
                passing.after(earlier->end, w.left_when_done(), w.dries),
                std::nullopt};
            if (const auto dry = in.dry.find(after.id); dry != in.dry.end())
                timer.from = std::min(timer.from, std::max(earlier->end, dry->second));
            if (const auto held = in.held.find(after.id); held != in.held.end())
                timer.from = std::max(timer.from, held->second);
            if (w.at_most) timer.until = std::max(timer.from, passing.after(earlier->end, *w.closes(), false));
            timers.push_back(std::move(timer));
        }
    }
    std::stable_sort(timers.begin(), timers.end(), [](const Timer& a, const Timer& b) {
        return std::pair(a.from, a.before) < std::pair(b.from, b.before);
    });
    return timers;
}

}  // namespace

std::size_t BenchPlan::done() const {
    return static_cast<std::size_t>(std::count_if(steps.begin(), steps.end(), [](const Step& s) { return s.done; }));
}

const Step* BenchPlan::next() const {
    const auto at = std::find_if(steps.begin(), steps.end(), [](const Step& s) { return !s.done; });
    return at == steps.end() ? nullptr : &*at;
}

const Step* at_bench(const BenchPlan& bench, const std::map<StepId, Moment>& ticks, Moment moment) {
    const Step* found = bench.next();
    Moment soonest = Moment::max();
    for (const Step& step : bench.steps) {
        const auto ticked = ticks.find(step.id);
        if (ticked == ticks.end() || ticked->second < moment || ticked->second >= soonest) continue;
        soonest = ticked->second;
        found = &step;
    }
    return found;
}

std::vector<std::size_t> round_of(const BenchPlan& bench, std::size_t step) {
    const std::vector<Step>& steps = bench.steps;
    if (step >= steps.size() || steps[step].round.empty() || steps[step].of.empty()) return {};
    const auto with = [&](std::size_t i) {
        return steps[i].round == steps[step].round && std::chrono::floor<std::chrono::days>(steps[i].start) ==
                                                          std::chrono::floor<std::chrono::days>(steps[step].start);
    };
    std::size_t first = step, last = step;
    while (first > 0 && with(first - 1)) --first;
    while (last + 1 < steps.size() && with(last + 1)) ++last;
    std::vector<std::size_t> round;
    for (std::size_t i = first; i <= last; ++i) round.push_back(i);
    return round.size() > 1 ? round : std::vector<std::size_t>{};
}

BenchPlan bench(const BenchInput& in, const Trade& trade) {
    BenchPlan plan;
    std::set<StepId> known;
    std::vector<const Wait*> longest(in.tasks->size(), nullptr);  // of the waits after each task
    for (const Task& task : *in.tasks) {
        for (const Wait& w : task.waits) {
            if (w.by_machine) continue;
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
        const auto name = name_of(task.id);
        step.time = name ? name->time : 1;
        step.layer = task.layer;
        step.instruction = instruction_of(task, in, {"step." + suffix, task.name.arguments}, step.time);
        step.check = {"check." + suffix, task.name.arguments};
        step.at_hand = {"hand." + suffix, task.name.arguments};
        if (const PlacedLay* lay = placed(task, in, step.time); lay != nullptr && task.work == Work::Lay)
            step.at_hand.id += lay->hinge ? "-hinge" : lay->slip_sheet ? "-slip" : "";
        step.cautions = cautions_for(task, trade);
        for (const MishapKind& kind : trade.mishaps) {
            const bool here = kind.works.empty() ||
                              std::find(kind.works.begin(), kind.works.end(), word_of(task.work)) != kind.works.end();
            if (here && task.work != Work::Mend) step.may_happen.push_back(kind.id);
        }
        step.number = task.number;
        step.section = task.section;
        step.round = task.round;
        step.of = task.of;
        step.hands_on = slot.done ? task.hands_on : std::chrono::duration_cast<Minutes>(slot.end - slot.start);
        step.start = slot.start;
        step.done = slot.done;
        if (const Wait* wait = longest[slot.task]) {
            step.wait_after = wait->at_least;
            step.wait_why = wait->why;
        }
        for (const SplitTrial& t : in.trials) {
            if (t.step == step.id) step.trial = t;
        }
        step.perhaps_cut = std::find(in.perhaps_cut.begin(), in.perhaps_cut.end(), step.id) != in.perhaps_cut.end();
        if (step.perhaps_cut) step.check = both({"check.perhaps-cut", {}}, std::move(step.check));
        for (const Took& t : in.took) {
            if (t.step == step.id) step.took = Minutes(t.minutes);
        }
        known.insert(step.id);
        plan.steps.push_back(std::move(step));
    }
    for (const auto& [id, at] : in.ticks) {
        if (!known.contains(id)) plan.orphans.push_back(id);
    }
    plan.timers = timers_of(in);
    return plan;
}

}  // namespace skarvel
