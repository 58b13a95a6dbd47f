#include "loads/sharing.h"

#include <algorithm>
#include <map>

#include "loads/lying.h"
#include "loads/scraps.h"
#include "values/work.h"

namespace skarvel {
namespace {

struct Item {
    std::size_t sharer = 0, section = 0;
};

std::string name_of(const std::vector<Placement>& placements, const LoadsPlan& plan) {
    std::string name;
    for (const Placement& p : placements) name += (name.empty() ? "" : "+") + plan.sections[p.section].letters;
    return name;
}

// The loads of one group packed together, put in place of those that each had alone.
void pack_group(const std::vector<Sharer>& sharers, const std::vector<std::size_t>& group, SharedLoads& out) {
    std::vector<Item> items;
    std::vector<Box> films;
    std::size_t loads_apart = 0;
    Length film_apart;
    for (const std::size_t s : group) {
        for (const Load& load : sharers[s].loads->loads) {
            if (load.cut) continue;
            ++loads_apart;
            film_apart += load.film_length;
            for (const Placement& p : load.placements) {
                items.push_back({s, p.section});
                films.push_back(sharers[s].loads->sections[p.section].film.bounds());
            }
        }
    }
    const Mat& bed = sharers[group.front()].bed;
    const Packed packed = pack(films, room_on(bed), sharers[group.front()].gap);
    const std::vector<Length> skips = skips_for(packed, films, bed);
    Length film_together;
    for (const Length skip : skips) film_together += skip;
    for (const auto& placements : packed.loads) film_together += film_for(placements, films, bed);
    const bool better =
        packed.loads.size() < loads_apart || (packed.loads.size() == loads_apart && film_together < film_apart);
    if (!packed.left_over.empty() || !better) return;
    out.loads_saved += static_cast<int>(loads_apart - packed.loads.size());

    std::vector<const LoadsPlan*> apart;
    for (const std::size_t s : group) apart.push_back(sharers[s].loads.get());
    const int least = least_loads_for(apart, room_on(bed));
    std::map<std::size_t, LoadsPlan> plans;
    for (const std::size_t s : group) {
        plans[s] = *sharers[s].loads;
        std::erase_if(plans[s].loads, [](const Load& l) { return !l.cut; });
    }
    std::size_t number = 0;
    for (const auto& placements : packed.loads) {
        std::map<std::size_t, Load> of;
        double used = 0;
        for (const Placement& p : placements) {
            const Item& item = items[p.section];
            of[item.sharer].placements.push_back({item.section, p.turned, p.at, p.slant});
            used += sharers[item.sharer].loads->sections[item.section].film.area_mm2();
        }
        const std::size_t host = of.begin()->first;
        for (auto& [s, load] : of) {
            load.name = load.key = name_of(load.placements, plans[s]);
            if (s != host) {
                load.carried_by = step_id(sharers[host].of, Work::Cut, of[host].key);
                for (const Placement& p : load.placements)
                    of[host].guests.push_back({sharers[s].of, plans[s].sections[p.section], p});
            }
        }
        Load& carries = of[host];
        carries.skip = skips[number++];
        carries.film_length = film_for(placements, films, bed) + carries.skip;
        carries.share = used / (carries.film_length.in_mm() * bed.width.in_mm());
        for (auto& [s, load] : of) plans[s].loads.push_back(std::move(load));
    }
    for (auto& [s, plan] : plans) {
        plan.film_total = {};
        double film_area = 0;
        double used = 0;
        for (const Load& load : plan.loads) {
            plan.film_total += load.film_length;
            film_area += load.film_length.in_mm() * bed.width.in_mm();
            used += load.share * load.film_length.in_mm() * bed.width.in_mm();
        }
        plan.share = film_area > 0 ? used / film_area : 0;
        const bool shares = std::any_of(plan.loads.begin(), plan.loads.end(),
                                        [](const Load& l) { return !l.guests.empty() || !l.carried_by.empty(); });
        if (!shares) continue;
        // The bound of this colour alone gives way to that of all that share.
        const auto loads = static_cast<int>(packed.loads.size());
        const bool whole =
            std::all_of(group.begin(), group.end(), [&](std::size_t g) { return sharers[g].loads->problems.empty(); });
        plan.proved = whole && loads == least;
        std::erase_if(plan.why, [](const Reason& r) {
            return r.id == "loads.proved" || r.id == "loads.one-proved" || r.id == "loads.why-film" ||
                   r.id == "loads.bound";
        });
        plan.why.push_back(bound_said(loads, least, plan.proved));
        plan.why.push_back({"loads.why-together",
                            {{"loads", static_cast<std::int64_t>(packed.loads.size())},
                             {"apart", static_cast<std::int64_t>(loads_apart)},
                             {"film", film_together}}});
    }
    for (auto& [s, plan] : plans) {
        check_lying(plan, bed);
        out.plans[s] = Shared<LoadsPlan>(std::move(plan));
    }
}

Box lies_on(const Load& load, const LoadsPlan& plan) {
    Box all;
    for (const Placement& p : load.placements) all = around(all, box_on_mat(plan.sections[p.section].film.bounds(), p));
    for (const Guest& g : load.guests) all = around(all, box_on_mat(g.section.film.bounds(), g.placement));
    return all;
}

// The load's sections on several leftovers; those of other colours that it carries follow in their plans.
void put_on_scraps(const std::vector<Sharer>& sharers, std::size_t s, std::size_t which, std::vector<FilmStock>& drawer,
                   std::vector<LoadsPlan>& plans) {
    LoadsPlan& plan = plans[s];
    Load& load = plan.loads[which];
    std::vector<Box> films;
    for (const Placement& p : load.placements) films.push_back(plan.sections[p.section].film.bounds());
    for (const Guest& g : load.guests) films.push_back(g.section.film.bounds());
    const bool slanted =
        std::any_of(load.placements.begin(), load.placements.end(), [](const Placement& p) { return p.slant != 0; }) ||
        std::any_of(load.guests.begin(), load.guests.end(), [](const Guest& g) { return g.placement.slant != 0; });
    if (films.size() < 2 || slanted) return;
    auto on = on_scraps(films, drawer, sharers[s].film, sharers[s].colour, room_on(sharers[s].bed), sharers[s].gap);
    if (!on) return;
    const auto move = [](Placement& p, const Placement& to) {
        p.turned = to.turned;
        p.at = to.at;
    };
    for (std::size_t i = 0; i < load.placements.size(); ++i) move(load.placements[i], on->placements[i]);
    const StepId step = step_id(sharers[s].of, Work::Cut, load.key);
    for (std::size_t i = 0; i < load.guests.size(); ++i) {
        Guest& guest = load.guests[i];
        move(guest.placement, on->placements[load.placements.size() + i]);
        for (std::size_t t = 0; t < sharers.size(); ++t) {
            if (sharers[t].of != guest.of) continue;
            for (Load& carried : plans[t].loads) {
                if (carried.carried_by != step) continue;
                for (Placement& p : carried.placements) {
                    if (p.section == guest.placement.section) move(p, guest.placement);
                }
            }
        }
    }
    load.from = on->scraps.front().name;
    load.scraps = std::move(on->scraps);
    std::sort(on->taken.rbegin(), on->taken.rend());
    for (const std::size_t i : on->taken) drawer.erase(drawer.begin() + static_cast<long>(i));
}

// What is in the drawer is used first, and what is left of each load is told.
void look_in_drawer(const std::vector<Sharer>& sharers, std::vector<FilmStock> drawer, SharedLoads& out) {
    std::vector<LoadsPlan> plans;
    for (const Shared<LoadsPlan>& plan : out.plans) plans.push_back(*plan);
    const auto each = [&](const auto& act) {
        for (std::size_t s = 0; s < sharers.size(); ++s) {
            for (std::size_t i = 0; i < plans[s].loads.size(); ++i) {
                const Load& load = plans[s].loads[i];
                if (!load.cut && load.carried_by.empty() && load.from.empty()) act(s, i);
            }
        }
    };
    each([&](std::size_t s, std::size_t i) {
        Load& load = plans[s].loads[i];
        const Box needs = lies_on(load, plans[s]);
        const auto at = leftover_for(drawer, sharers[s].film, sharers[s].colour, from_grid(needs.width()),
                                     from_grid(needs.height()));
        if (!at) return;
        load.from = drawer[*at].name;
        drawer.erase(drawer.begin() + static_cast<long>(*at));
    });
    // After those that one piece does for; a page to print on is one piece.
    each([&](std::size_t s, std::size_t i) {
        if (!sharers[s].bed.print && !sharers[s].bed.roll) put_on_scraps(sharers, s, i, drawer, plans);
    });
    each([&](std::size_t s, std::size_t i) {
        if (!sharers[s].bed.roll)
            plans[s].loads[i].rest = rest_of(plans[s].loads[i], plans[s].sections, sharers[s].bed);
    });
    for (std::size_t s = 0; s < sharers.size(); ++s) {
        if (plans[s] == *out.plans[s]) continue;
        if (std::any_of(plans[s].loads.begin(), plans[s].loads.end(), [](const Load& l) { return !l.scraps.empty(); }))
            check_lying(plans[s], sharers[s].bed);
        out.plans[s] = Shared<LoadsPlan>(std::move(plans[s]));
    }
}

}  // namespace

SharedLoads share_loads(const std::vector<Sharer>& sharers, const std::vector<FilmStock>& drawer) {
    SharedLoads out;
    for (const Sharer& s : sharers) out.plans.push_back(s.loads);
    std::map<std::string, std::vector<std::size_t>> groups;
    for (std::size_t i = 0; i < sharers.size(); ++i) {
        const bool any = std::any_of(sharers[i].loads->loads.begin(), sharers[i].loads->loads.end(),
                                     [](const Load& l) { return !l.cut; });
        const Sharer& s = sharers[i];
        if (any)
            groups[s.film + "/" + (s.mask ? "mask" : s.colour) + "/" + s.bed.machine + "/" + s.bed.name].push_back(i);
    }
    for (const auto& [key, group] : groups) {
        if (group.size() > 1) pack_group(sharers, group, out);
    }
    look_in_drawer(sharers, drawer, out);
    return out;
}

}  // namespace skarvel
