// cost/film_cost.h
//
// What film a job takes, what that is worth at the prices of the drawer, and what has to be bought: whole units, as
// film is sold by the inch, the yard, the roll or the sheet.
#pragma once

#include <optional>

#include "loads/machines.h"

namespace skarvel {

/// What is still to be cut from one film, load by load; loads on leftovers are not in it.
struct FilmUse {
    std::string film, name;     ///< as Making names it, and as it is called
    std::string colour;         ///< "#rrggbb" of a decal; empty: any does
    std::vector<Length> loads;  ///< lengths of film
    friend bool operator==(const FilmUse&, const FilmUse&) = default;
};

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

/// "3.60"
std::string money(std::int64_t cents);

}  // namespace skarvel
