#include "job/spoiling.h"

#include <algorithm>

#include "job/commands.h"

namespace skarvel {
namespace {

// Film, and what it is worth where every price is known.
std::pair<Length, std::optional<std::int64_t>> film_of(const Plan& plan) {
    std::pair<Length, std::optional<std::int64_t>> all{{}, 0};
    for (const FilmCost& f : plan.film) {
        all.first += f.needed;
        all.second = all.second && f.worth_cents ? std::optional(*all.second + *f.worth_cents) : std::nullopt;
    }
    return all;
}

}  // namespace

std::vector<CutAt> cut_in_hand(const Job& job, const Plan& plan, const Step& step) {
    std::vector<CutAt> out;
    const ColourPlan* colour = plan.of(step.colour);
    const bool by_load = step.work == Work::Weed || step.work == Work::Tape;
    const bool held = by_load || step.work == Work::Lay || step.work == Work::Lift;
    if (colour == nullptr || !held || step.number < 1) return out;
    const auto which = static_cast<std::size_t>(step.number) - 1;
    const LoadsPlan& loads = *colour->cut.loads;
    for (std::size_t l = 0; l < job.bench.cut.size(); ++l) {
        const CutLoad& cut = job.bench.cut[l];
        if (cut.of != step.colour) continue;
        const bool own = !by_load || (which < loads.loads.size() && loads.loads[which].key == cut.id.name);
        for (std::size_t s = 0; own && s < cut.sections.size(); ++s) {
            const bool here =
                by_load || (which < loads.sections.size() && loads.sections[which].film == cut.sections[s].film);
            if (here) out.push_back({l, s});
        }
    }
    return out;
}

std::optional<Spoiling> what_spoiling_costs(const Job& job, const Plan& plan, const Shop& shop, const Library& library,
                                            const Present& present, const CutAt& at, const std::stop_token& stop) {
    if (at.load >= job.bench.cut.size() || at.section >= job.bench.cut[at.load].sections.size()) return std::nullopt;
    const CutLoad& cut = job.bench.cut[at.load];
    Spoiling out;
    out.letters = cut.sections[at.section].letters;
    out.job = cut_section_again(job, at.load, at.section);
    const auto then = Planner().plan(out.job, shop, library, present, stop);
    if (!then) return std::nullopt;
    const auto [film, cents] = film_of(plan);
    const auto [film_then, cents_then] = film_of(*then);
    out.film = film_then - film;
    if (cents && cents_then) out.cents = *cents_then - *cents;
    out.hands_on = then->clock->hands_on - plan.clock->hands_on;
    out.later = std::chrono::duration_cast<Minutes>(then->clock->ready - plan.clock->ready);
    out.ready = then->clock->ready;
    if (const ColourPlan* colour = then->of(cut.of)) {
        for (std::size_t i = 0; i < colour->cut.loads->loads.size() && i < colour->cut.film.size(); ++i) {
            if (!colour->cut.loads->loads[i].cut) out.from.push_back(colour->cut.film[i]);
        }
    }
    return out;
}

}  // namespace skarvel
