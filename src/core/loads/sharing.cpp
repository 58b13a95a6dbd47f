#include "loads/sharing.h"

#include <algorithm>
#include <map>

#include "loads/alike.h"
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

// Film over its loads, after they have changed.
void sum_up(LoadsPlan& plan, const Mat& bed) {
    plan.film_total = {};
    double film_area = 0;
    double used = 0;
    for (const Load& load : plan.loads) {
        plan.film_total += load.film_length;
        film_area += load.film_length.in_mm() * bed.width.in_mm();
        used += load.share * load.film_length.in_mm() * bed.width.in_mm();
    }
    plan.share = film_area > 0 ? used / film_area : 0;
}

void forget_bound(LoadsPlan& plan) {
    std::erase_if(plan.why, [](const Reason& r) {
        return r.id == "loads.proved" || r.id == "loads.one-proved" || r.id == "loads.why-film" ||
               r.id == "loads.bound";
    });
}

// A mask that is cut, where it is wanted again.
struct MaskCut {
    std::size_t from = 0, section = 0;  // the sharer that cuts it, and its section there
    StepId lifted;                      // the last time, as far as it is planned
    std::size_t last = 0;               // the sharer that lays it last
};

// Whether the mask of one section does for the other: film, openings and lines, wherever they lie.
bool does_for(const Section& mask, const Section& wanted, Kinds& kinds) {
    const Point by = wanted.film.bounds().low - mask.film.bounds().low;
    const auto same_line = [&](const KnifeLine& a, const KnifeLine& b) {
        return a.kind == b.kind && near(a.from + by, b.from) && near(a.to + by, b.to);
    };
    return mask.letter_count == wanted.letter_count && mask.keepers.size() == wanted.keepers.size() &&
           near(mask.cut.bounds().low + by, wanted.cut.bounds().low) && kinds.of(mask.film) == kinds.of(wanted.film) &&
           kinds.of(mask.cut) == kinds.of(wanted.cut) &&
           std::equal(mask.lines.begin(), mask.lines.end(), wanted.lines.begin(), wanted.lines.end(), same_line);
}

// What a plan comes to without the sections that it borrows.
void borrow(LoadsPlan& plan, std::vector<Lent> lent, const Mat& bed) {
    const auto borrowed = [&](const Placement& p) {
        return std::any_of(lent.begin(), lent.end(), [&](const Lent& l) { return l.section == p.section; });
    };
    std::vector<Box> films;
    for (const Section& s : plan.sections) films.push_back(s.film.bounds());
    for (Load& load : plan.loads) {
        if (load.cut || std::erase_if(load.placements, borrowed) == 0 || load.placements.empty()) continue;
        load.name = load.key = name_of(load.placements, plan);
        load.film_length = film_for(load.placements, films, bed) + load.skip;
        double used = 0;
        for (const Placement& p : load.placements) used += plan.sections[p.section].film.area_mm2();
        load.share = used / (load.film_length.in_mm() * bed.width.in_mm());
    }
    std::erase_if(plan.loads, [](const Load& l) { return l.placements.empty(); });
    for (const Lent& l : lent) plan.least_film_mm2 -= plan.sections[l.section].film.area_mm2();
    plan.least_film_mm2 = std::max(0.0, plan.least_film_mm2);
    plan.lent = std::move(lent);
    sum_up(plan, bed);
    const auto cut =
        static_cast<int>(std::count_if(plan.loads.begin(), plan.loads.end(), [](const Load& l) { return l.cut; }));
    const auto loads = static_cast<int>(plan.loads.size());
    plan.least_loads = cut + least_loads_for({&plan}, room_on(bed));
    plan.proved = loads == plan.least_loads && plan.problems.empty();
    forget_bound(plan);
    if (loads > 0) plan.why.push_back(bound_said(loads, plan.least_loads, plan.proved));
    plan.why.push_back({"loads.why-lent", {{"masks", static_cast<std::int64_t>(plan.lent.size())}}});
}

// Masks that a sign before has as well. Each does for one section of every colour after it, wherever that asks for it.
void lend(const std::vector<Sharer>& sharers, SharedLoads& out) {
    Kinds kinds;
    std::vector<MaskCut> masks;
    for (std::size_t s = 0; s < sharers.size(); ++s) {
        const Sharer& sharer = sharers[s];
        if (!sharer.mask || sharer.bed.print) continue;
        const LoadsPlan& plan = *out.plans[s];
        std::vector<Lent> lent;
        int had_before = 0;
        std::vector<MaskCut> own;
        for (const Load& load : plan.loads) {
            for (const Placement& p : load.placements) {
                const Section& section = plan.sections[p.section];
                const StepId lifted =
                    step_id(sharer.of, Work::Lift, section.letters, static_cast<int>(section.again.size()) + 1);
                const auto mask = std::find_if(masks.begin(), masks.end(), [&](const MaskCut& m) {
                    const Sharer& lender = sharers[m.from];
                    return lender.film == sharer.film && lender.sign != sharer.sign && m.last != s &&
                           does_for(out.plans[m.from]->sections[m.section], section, kinds);
                });
                const bool had = !load.cut && mask != masks.end();
                had_before += had ? 1 : 0;
                if (had && sharer.masks_again) {
                    lent.push_back({p.section, sharers[mask->from].of, mask->section, mask->lifted});
                    mask->lifted = lifted;
                    mask->last = s;
                } else {
                    own.push_back({s, p.section, lifted, s});
                }
            }
        }
        masks.insert(masks.end(), own.begin(), own.end());
        const bool in_vain = sharer.masks_again && lent.empty() &&
                             std::any_of(plan.loads.begin(), plan.loads.end(), [](const Load& l) { return !l.cut; });
        if (had_before == 0 && !in_vain) continue;
        LoadsPlan then = plan;
        then.had_before = had_before;
        if (in_vain) {
            then.problems.push_back({{"wish.no-mask-before", {}}, Station::Sections, {"wish.forget", {}}, Mark::Look});
        }
        if (!lent.empty()) borrow(then, std::move(lent), sharer.bed);
        out.plans[s] = Shared<LoadsPlan>(std::move(then));
    }
}

// The loads of one group packed together, put in place of those that each had alone.
void pack_group(const std::vector<Sharer>& sharers, const std::vector<std::size_t>& group, SharedLoads& out) {
    std::vector<Item> items;
    std::vector<Box> films;
    std::size_t loads_apart = 0;
    Length film_apart;
    for (const std::size_t s : group) {
        for (const Load& load : out.plans[s]->loads) {
            if (load.cut) continue;
            ++loads_apart;
            film_apart += load.film_length;
            for (const Placement& p : load.placements) {
                items.push_back({s, p.section});
                films.push_back(out.plans[s]->sections[p.section].film.bounds());
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
    // By sharing: a colour of which some is laid again is packed anew all by itself.
    if (group.size() > 1) out.loads_saved += static_cast<int>(loads_apart - packed.loads.size());

    std::vector<const LoadsPlan*> apart;
    for (const std::size_t s : group) apart.push_back(out.plans[s].get());
    const int least = least_loads_for(apart, room_on(bed));
    std::map<std::size_t, LoadsPlan> plans;
    for (const std::size_t s : group) {
        plans[s] = *out.plans[s];
        std::erase_if(plans[s].loads, [](const Load& l) { return !l.cut; });
    }
    std::size_t number = 0;
    for (const auto& placements : packed.loads) {
        std::map<std::size_t, Load> of;
        double used = 0;
        for (const Placement& p : placements) {
            const Item& item = items[p.section];
            of[item.sharer].placements.push_back({item.section, p.turned, p.at, p.slant});
            used += plans[item.sharer].sections[item.section].film.area_mm2();
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
        sum_up(plan, bed);
        const bool shares = std::any_of(plan.loads.begin(), plan.loads.end(),
                                        [](const Load& l) { return !l.guests.empty() || !l.carried_by.empty(); });
        if (!shares) continue;
        // The bound of this colour alone gives way to that of all that share.
        const auto loads = static_cast<int>(packed.loads.size());
        const bool whole =
            std::all_of(apart.begin(), apart.end(), [](const LoadsPlan* p) { return p->problems.empty(); });
        plan.proved = whole && loads == least;
        forget_bound(plan);
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
    lend(sharers, out);
    std::map<std::string, std::vector<std::size_t>> groups;
    for (std::size_t i = 0; i < sharers.size(); ++i) {
        const bool any =
            std::any_of(out.plans[i]->loads.begin(), out.plans[i]->loads.end(), [](const Load& l) { return !l.cut; });
        const Sharer& s = sharers[i];
        if (any)
            groups[s.film + "/" + (s.mask ? "mask" : s.colour) + "/" + s.bed.machine + "/" + s.bed.name].push_back(i);
    }
    for (const auto& [key, group] : groups) {
        if (group.size() > 1 || !out.plans[group.front()]->lent.empty()) pack_group(sharers, group, out);
    }
    look_in_drawer(sharers, drawer, out);
    return out;
}

}  // namespace skarvel
