// cost/film_cost.h
//
// What film a job takes, what that is worth at the prices of the drawer, and what has to be bought: whole units, as
// film is sold by the inch, the yard, the roll or the sheet.
#pragma once

#include <optional>

#include "loads/machines.h"
#include "values/shared.h"

namespace skarvel {

/// What is still to be cut from one film, load by load; loads on leftovers are not in it.
struct FilmUse {
    std::string film, name;     ///< as Making names it, and as it is called
    std::string colour;         ///< "#rrggbb" of a decal; empty: any does
    std::vector<Length> loads;  ///< lengths of film
    friend bool operator==(const FilmUse&, const FilmUse&) = default;
};

/// A colour of the job and its loads, once they are shared.
struct FilmUser {
    std::string film, name;
    std::string colour;  ///< as in FilmUse
    Shared<LoadsPlan> loads;
    friend bool operator==(const FilmUser&, const FilmUser&) = default;
};
/// What each film is still needed for. Film already cut, leftovers, and what another colour's load carries, count for
/// nothing.
std::vector<FilmUse> uses_of(const std::vector<FilmUser>& users);

struct FilmCost {
    std::string film, name, colour;
    Length needed;
    Length left;                                         ///< of it in the drawer, on rolls
    bool kept = false;                                   ///< the drawer knows a roll or a sheet of it
    Length sold_by;                                      ///< what is bought at a time
    int to_buy = 0;                                      ///< so many of that
    std::optional<std::int64_t> worth_cents, buy_cents;  ///< where a price is known
    friend bool operator==(const FilmCost&, const FilmCost&) = default;
};

/// One for each film and colour that something is cut from. Masks, which take any colour, are served after decals.
std::vector<FilmCost> film_costs(const std::vector<FilmUse>& uses, const std::vector<FilmStock>& drawer);

/// What one colour's film is worth, as its share of all that comes from the same; nothing where no price is known.
std::optional<std::int64_t> worth_of(const std::vector<FilmCost>& costs, const FilmUser& user);

/// "3.60"
std::string money(std::int64_t cents);

}  // namespace skarvel
