// cost/film_cost.h
//
// What film a job takes, which roll of the drawer each load is cut from, what it is worth at the prices there, and what
// has to be bought: whole units, as film is sold by the inch, the yard, the roll or the sheet.
//
// A load is cut in one length from one roll that is wide enough: 30 in and 60 in do not make 83 in. The longest loads
// are served first, each by the narrowest roll that does and of those by the one it leaves least of; what no roll holds
// is to be bought.
#pragma once

#include <optional>

#include "loads/machines.h"
#include "values/shared.h"

namespace skarvel {

/// What one load takes, in one piece.
struct FilmPiece {
    Length along, across;
    std::size_t user = 0, load = 0;  ///< places in what was asked
    friend bool operator==(const FilmPiece&, const FilmPiece&) = default;
};

/// What is still to be cut from one film, load by load; loads on leftovers are not in it.
struct FilmUse {
    std::string film, name;  ///< as Making names it, and as it is called
    std::string colour;      ///< "#rrggbb" of a decal; empty: any does
    std::vector<FilmPiece> loads;
    friend bool operator==(const FilmUse&, const FilmUse&) = default;
};

/// A colour of the job and its loads, once they are shared.
struct FilmUser {
    std::string film, name;
    std::string colour;  ///< as in FilmUse
    Shared<LoadsPlan> loads;
    Length edge{};  ///< of the bed's film that is never cut, both sides together
    friend bool operator==(const FilmUser&, const FilmUser&) = default;
};
/// What each film is still needed for. Film already cut, leftovers, and what another colour's load carries, count for
/// nothing.
std::vector<FilmUse> uses_of(const std::vector<FilmUser>& users);

struct FilmCost {
    std::string film, name, colour;
    Length needed;
    Length left;                                         ///< of it in the drawer, on rolls
    Length longest_lacking{};                            ///< the longest load that no roll holds
    bool kept = false;                                   ///< the drawer knows a roll or a sheet of it
    Length sold_by;                                      ///< what is bought at a time
    int to_buy = 0;                                      ///< so many of that
    std::optional<std::int64_t> worth_cents, buy_cents;  ///< where a price is known
    friend bool operator==(const FilmCost&, const FilmCost&) = default;
};

/// The roll that a load is cut from.
struct FilmFrom {
    std::string roll;     ///< as it is called in the drawer; empty: there is none
    bool bought = false;  ///< it has to be bought
    friend bool operator==(const FilmFrom&, const FilmFrom&) = default;
};

struct FilmPlan {
    std::vector<FilmCost> costs;              ///< one for each film and colour that something is cut from
    std::vector<std::vector<FilmFrom>> from;  ///< for each user and load; nothing where it takes no film of its own
    friend bool operator==(const FilmPlan&, const FilmPlan&) = default;
};

/// Masks, which take any colour, are served after decals.
FilmPlan plan_film(const std::vector<FilmUser>& users, const std::vector<FilmStock>& drawer);
std::vector<FilmCost> film_costs(const std::vector<FilmUse>& uses, const std::vector<FilmStock>& drawer,
                                 FilmPlan* plan = nullptr);

/// What one colour's film is worth, as its share of all that comes from the same; nothing where no price is known.
std::optional<std::int64_t> worth_of(const std::vector<FilmCost>& costs, const FilmUser& user);

/// "3.60"
std::string money(std::int64_t cents);

}  // namespace skarvel
