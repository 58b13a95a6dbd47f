#include "loads/sharing.h"

#include <algorithm>
#include <map>

#include "loads/lying.h"
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

// What is in the drawer is used first, and what is left of each load is told.
void look_in_drawer(const std::vector<Sharer>& sharers, std::vector<FilmStock> drawer, SharedLoads& out) {
    for (std::size_t s = 0; s < sharers.size(); ++s) {
        LoadsPlan plan = *out.plans[s];
        for (Load& load : plan.loads) {
            if (load.cut || !load.carried_by.empty()) continue;
            const Box needs = lies_on(load, plan);
            if (const auto at = leftover_for(drawer, sharers[s].film, sharers[s].colour, from_grid(needs.width()),
                                             from_grid(needs.height()))) {
                load.from = drawer[*at].name;
                drawer.erase(drawer.begin() + static_cast<long>(*at));
            } else if (!sharers[s].bed.roll) {
                load.rest = rest_of(load, plan.sections, sharers[s].bed);
            }
        }
        if (plan != *out.plans[s]) out.plans[s] = Shared<LoadsPlan>(std::move(plan));
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
