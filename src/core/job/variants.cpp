#include "job/variants.h"

#include <algorithm>
#include <numeric>

namespace skarvel {
namespace {

constexpr double worth_telling = 0.1;  // a likelihood that differs by less is as good
constexpr Minutes worth_working{30};   // and so is an evening that is as long within that

Variant figures(Way way, Job job, Plan plan, const ColourId& id) {
    Variant v;
    v.way = way;
    v.job = std::move(job);
    v.hands_on = plan.clock->hands_on;
    if (!plan.clock->slots.empty()) v.ready = plan.clock->ready;
    std::int64_t cents = 0;
    bool priced = true;
    for (const FilmCost& film : plan.film) {
        v.film += film.needed;
        priced = priced && film.worth_cents.has_value();
        cents += film.worth_cents.value_or(0);
    }
    if (priced && !plan.film.empty()) v.cents = cents;
    if (const ColourPlan* colour = plan.of(id)) {
        v.worst = colour->method->worst();
        for (const Finding& f : colour->method->findings) {
            v.stops += f.mark == Mark::Stop ? 1 : 0;
            v.looks += f.mark == Mark::Look ? 1 : 0;
        }
        v.risks = colour->risks;
        const Facts& facts = colour->method->facts;
        const bool outdoors = std::get<bool>(facts.at("outdoors"));
        const bool cleared = std::get<bool>(facts.at("clear.over"));
        const std::string& film = colour->cut.making.film.kind;
        v.look = {way == Way::Decal ? "variant.look-film" : "variant.look-paint", {}};
        v.life = !outdoors                  ? Reason{"variant.life-indoors", {}}
                 : way == Way::PaintThrough ? Reason{cleared ? "variant.life-paint" : "variant.life-bare-paint", {}}
                 : film == "removable"      ? Reason{"variant.life-removable", {}}
                                            : Reason{cleared ? "variant.life-sealed-film" : "variant.life-film", {}};
    }
    v.plan = Shared<Plan>(std::move(plan));
    return v;
}

// What one list has and the other has not.
std::vector<Reason> only_in(const Plan& plan, const Plan& other, const ColourId& id) {
    std::vector<Reason> more;
    const ColourPlan* here = plan.of(id);
    const ColourPlan* there = other.of(id);
    if (here == nullptr || there == nullptr) return more;
    for (const ShoppingItem& item : here->shopping) {
        const bool both = std::any_of(there->shopping.begin(), there->shopping.end(),
                                      [&](const ShoppingItem& i) { return i.what == item.what; });
        if (!both) more.push_back(item.what);
    }
    return more;
}

double worst_risk(const Variant& v) { return std::max(v.risks.bleed.likely, v.risks.lift.likely); }

void suggest(Comparison& c) {
    const Variant& decal = c.ways[0];
    const Variant& paint = c.ways[1];
    const auto take = [&](bool first, const char* why) {
        c.suggested = first ? Way::Decal : Way::PaintThrough;
        c.why = {why, {}};
    };
    if (decal.worst != paint.worst) return take(decal.worst < paint.worst, "variant.fewer-doubts");
    if (std::abs(worst_risk(decal) - worst_risk(paint)) > worth_telling)
        return take(worst_risk(decal) < worst_risk(paint), "variant.less-risk");
    if (std::chrono::abs(decal.hands_on - paint.hands_on) > worth_working)
        return take(decal.hands_on < paint.hands_on, "variant.less-work");
    // As good as alike: on wood most makers paint, elsewhere film.
    const ColourPlan* colour = decal.plan->colours.empty() ? nullptr : &decal.plan->colours.front();
    const bool slick = colour != nullptr && std::get<bool>(colour->method->facts.at("material.slick"));
    take(slick, slick ? "variant.alike-on-sheet" : "variant.alike-on-wood");
}

}  // namespace

std::optional<Comparison> compare_ways(const Job& job, const ColourId& colour, const Shop& shop, const Library& library,
                                       const Present& present, const std::stop_token& stop) {
    const auto at = place_of(job, colour);
    if (!at) return std::nullopt;
    Comparison c;
    Planner planner;
    planner.only_tries();
    for (const Way way : {Way::Decal, Way::PaintThrough}) {
        Job changed = job;
        make_as(changed.signs[at->face.sign].faces[at->face.face].colours[at->colour].making, way, library.trade);
        auto plan = planner.plan(changed, shop, library, present, stop);
        if (!plan) return std::nullopt;
        c.ways[way == Way::Decal ? 0 : 1] = figures(way, std::move(changed), std::move(*plan), colour);
    }
    c.ways[0].buy = only_in(*c.ways[0].plan, *c.ways[1].plan, colour);
    c.ways[1].buy = only_in(*c.ways[1].plan, *c.ways[0].plan, colour);
    suggest(c);
    return c;
}

}  // namespace skarvel
