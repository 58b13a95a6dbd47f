#include "cost/film_cost.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <tuple>

namespace skarvel {
namespace {

// What so much film is worth, to the next cent.
std::int64_t worth(Length length, const FilmStock& film) {
    const std::int64_t unit = std::max<std::int64_t>(1, film.sold_by.nm());
    const std::int64_t price = film.price_cents;
    const std::int64_t whole = length.nm() / unit;
    return whole * price + ((length.nm() % unit) * price + unit - 1) / unit;
}

int units(Length length, Length unit) {
    if (length <= Length{} || unit <= Length{}) return 0;
    return static_cast<int>((length.nm() + unit.nm() - 1) / unit.nm());
}

// Units of what is bought at a time, each piece in one of them where one holds it.
int to_buy(std::vector<Length> pieces, Length unit) {
    std::sort(pieces.begin(), pieces.end(), std::greater<>());
    if (pieces.empty()) return 0;
    if (pieces.front() > unit) {
        // Sold by the inch or the yard: cut off in one length for all.
        Length all;
        for (const Length piece : pieces) all += piece;
        return units(all, unit);
    }
    std::vector<Length> open;
    for (const Length piece : pieces) {
        const auto room = std::find_if(open.begin(), open.end(), [&](Length l) { return l >= piece; });
        if (room == open.end())
            open.push_back(unit - piece);
        else
            *room = *room - piece;
    }
    return static_cast<int>(open.size());
}

// Loads that take film of their own from a roll, with how wide that must be.
std::vector<FilmPiece> loads_from_roll(const FilmUser& user, std::size_t place) {
    std::vector<FilmPiece> pieces;
    const LoadsPlan& plan = *user.loads;
    for (std::size_t i = 0; i < plan.loads.size(); ++i) {
        const Load& load = plan.loads[i];
        if (load.cut || !load.carried_by.empty() || !load.from.empty()) continue;
        Box lies;
        for (const Placement& p : load.placements)
            lies = around(lies, box_on_mat(plan.sections[p.section].film.bounds(), p));
        for (const Guest& g : load.guests) lies = around(lies, box_on_mat(g.section.film.bounds(), g.placement));
        pieces.push_back({load.film_length, from_grid(lies.high.x) + user.edge, place, i});
    }
    return pieces;
}

bool serves(const FilmStock& stock, const FilmUse& use) {
    return stock.film == use.film && (use.colour.empty() || stock.colour.empty() || stock.colour == use.colour);
}

// The roll for a piece: the narrowest that is wide enough, and of those the one it leaves least of.
std::optional<std::size_t> roll_for(const FilmPiece& piece, const FilmUse& use, const std::vector<FilmStock>& drawer,
                                    const std::vector<Length>& left) {
    std::optional<std::size_t> best;
    for (std::size_t i = 0; i < drawer.size(); ++i) {
        const FilmStock& f = drawer[i];
        if (!f.roll || !serves(f, use) || left[i] < piece.along) continue;
        if (f.width > Length{} && f.width < piece.across) continue;
        if (!best || std::tuple(f.width, left[i]) < std::tuple(drawer[*best].width, left[*best])) best = i;
    }
    return best;
}

}  // namespace

std::vector<FilmUse> uses_of(const std::vector<FilmUser>& users) {
    std::vector<FilmUse> uses;
    for (std::size_t i = 0; i < users.size(); ++i) {
        const FilmUser& user = users[i];
        auto use = std::find_if(uses.begin(), uses.end(),
                                [&](const FilmUse& u) { return u.film == user.film && u.colour == user.colour; });
        if (use == uses.end()) use = uses.insert(uses.end(), {user.film, user.name, user.colour, {}});
        const std::vector<FilmPiece> loads = loads_from_roll(user, i);
        use->loads.insert(use->loads.end(), loads.begin(), loads.end());
    }
    return uses;
}

std::optional<std::int64_t> worth_of(const std::vector<FilmCost>& costs, const FilmUser& user) {
    Length own;
    for (const FilmPiece& load : loads_from_roll(user, 0)) own += load.along;
    for (const FilmCost& cost : costs) {
        if (cost.film != user.film || cost.colour != user.colour || !cost.worth_cents) continue;
        return std::llround(static_cast<double>(*cost.worth_cents) * own.in_mm() / cost.needed.in_mm());
    }
    return std::nullopt;
}

FilmPlan plan_film(const std::vector<FilmUser>& users, const std::vector<FilmStock>& drawer) {
    FilmPlan plan;
    for (const FilmUser& user : users) plan.from.emplace_back(user.loads->loads.size());
    plan.costs = film_costs(uses_of(users), drawer, &plan);
    return plan;
}

std::vector<FilmCost> film_costs(const std::vector<FilmUse>& uses, const std::vector<FilmStock>& drawer,
                                 FilmPlan* plan) {
    std::vector<Length> left;  // of each in the drawer, as uses are served
    for (const FilmStock& f : drawer) left.push_back(f.left);
    std::vector<FilmUse> order = uses;
    std::stable_sort(order.begin(), order.end(),
                     [](const FilmUse& a, const FilmUse& b) { return !a.colour.empty() && b.colour.empty(); });
    std::vector<FilmCost> costs;
    for (FilmUse& use : order) {
        FilmCost cost{use.film, use.name, use.colour, {}, {}, {}, false, {}, 0, {}, {}};
        for (const FilmPiece& load : use.loads) cost.needed += load.along;
        if (cost.needed <= Length{}) continue;
        const FilmStock* from = nullptr;
        for (std::size_t i = 0; i < drawer.size(); ++i) {
            const FilmStock& f = drawer[i];
            if (!serves(f, use)) continue;
            const auto rank = [](const FilmStock& s) { return std::tuple(s.roll, s.price_cents > 0, s.width); };
            if (from == nullptr || rank(f) > rank(*from)) from = &f;
            if (f.roll) cost.left += left[i];
        }
        std::stable_sort(use.loads.begin(), use.loads.end(),
                         [](const FilmPiece& a, const FilmPiece& b) { return a.along > b.along; });
        std::vector<Length> lacking;
        for (const FilmPiece& load : use.loads) {
            const auto roll = roll_for(load, use, drawer, left);
            if (roll) {
                left[*roll] = left[*roll] - load.along;
            } else {
                lacking.push_back(load.along);
                cost.longest_lacking = std::max(cost.longest_lacking, load.along);
            }
            if (plan != nullptr)
                plan->from[load.user][load.load] = {roll ? drawer[*roll].name : std::string(),
                                                    !roll && !drawer.empty()};
        }
        if (from != nullptr) {
            cost.kept = true;
            cost.sold_by = from->sold_by;
            if (from->roll) {
                cost.to_buy = to_buy(lacking, from->sold_by);
            } else {
                // Each load is cut from a sheet of its own, or more where it is longer.
                for (const FilmPiece& load : use.loads) cost.to_buy += units(load.along, from->sold_by);
            }
            if (from->price_cents > 0) {
                cost.worth_cents = worth(cost.needed, *from);
                cost.buy_cents = std::int64_t{cost.to_buy} * from->price_cents;
            }
        }
        costs.push_back(std::move(cost));
    }
    return costs;
}

std::string money(std::int64_t cents) { return fmt::format("{}.{:02}", cents / 100, cents % 100); }

}  // namespace skarvel
