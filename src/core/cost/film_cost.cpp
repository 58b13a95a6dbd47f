#include "cost/film_cost.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

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

// Loads that take film of their own from a roll.
std::vector<Length> loads_from_roll(const LoadsPlan& plan) {
    std::vector<Length> lengths;
    for (const Load& load : plan.loads) {
        if (!load.cut && load.carried_by.empty() && load.from.empty()) lengths.push_back(load.film_length);
    }
    return lengths;
}

}  // namespace

std::vector<FilmUse> uses_of(const std::vector<FilmUser>& users) {
    std::vector<FilmUse> uses;
    for (const FilmUser& user : users) {
        auto use = std::find_if(uses.begin(), uses.end(),
                                [&](const FilmUse& u) { return u.film == user.film && u.colour == user.colour; });
        if (use == uses.end()) use = uses.insert(uses.end(), {user.film, user.name, user.colour, {}});
        const std::vector<Length> loads = loads_from_roll(*user.loads);
        use->loads.insert(use->loads.end(), loads.begin(), loads.end());
    }
    return uses;
}

std::optional<std::int64_t> worth_of(const std::vector<FilmCost>& costs, const FilmUser& user) {
    Length own;
    for (const Length load : loads_from_roll(*user.loads)) own += load;
    for (const FilmCost& cost : costs) {
        if (cost.film != user.film || cost.colour != user.colour || !cost.worth_cents) continue;
        return std::llround(static_cast<double>(*cost.worth_cents) * own.in_mm() / cost.needed.in_mm());
    }
    return std::nullopt;
}

std::vector<FilmCost> film_costs(const std::vector<FilmUse>& uses, const std::vector<FilmStock>& drawer) {
    std::vector<Length> left;  // of each in the drawer, as uses are served
    for (const FilmStock& f : drawer) left.push_back(f.left);
    std::vector<FilmUse> order = uses;
    std::stable_sort(order.begin(), order.end(),
                     [](const FilmUse& a, const FilmUse& b) { return !a.colour.empty() && b.colour.empty(); });
    std::vector<FilmCost> costs;
    for (const FilmUse& use : order) {
        FilmCost cost{use.film, use.name, use.colour, {}, {}, false, {}, 0, {}, {}};
        for (const Length load : use.loads) cost.needed += load;
        if (cost.needed <= Length{}) continue;
        const FilmStock* from = nullptr;
        Length lacking = cost.needed;
        for (std::size_t i = 0; i < drawer.size(); ++i) {
            const FilmStock& f = drawer[i];
            if (f.film != use.film || (!use.colour.empty() && !f.colour.empty() && f.colour != use.colour)) continue;
            const auto rank = [](const FilmStock& s) { return std::tuple(s.roll, s.price_cents > 0, s.width); };
            if (from == nullptr || rank(f) > rank(*from)) from = &f;
            if (!f.roll) continue;
            cost.left += left[i];
            const Length taken = std::min(lacking, left[i]);
            left[i] = left[i] - taken;
            lacking = lacking - taken;
        }
        if (from != nullptr) {
            cost.kept = true;
            cost.sold_by = from->sold_by;
            if (from->roll) {
                cost.to_buy = units(lacking, from->sold_by);
            } else {
                // Each load is cut from a sheet of its own, or more where it is longer.
                for (const Length load : use.loads) cost.to_buy += units(load, from->sold_by);
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
