// cost/shopping.h
//
// What to buy or take from the drawer for a job: film by the inch of roll, coats by the area they cover, tape.
#pragma once

#include <optional>
#include <vector>

#include "blank/cutting.h"
#include "loads/loads.h"
#include "method/build_up.h"
#include "values/shared.h"

namespace skarvel {

struct ShoppingInput {
    std::string board;  ///< as sold, or empty
    Length length, width;
    double area_sqft = 0;
    Shared<LoadsPlan> loads;
    MakingPlan making;
    Shared<BuildUp> method;
    std::vector<Layer> layers;  ///< of the face
    Length film_width;
    Length rope;                               ///< that turns of rope take
    bool first = true;                         ///< colour of its face: the blank and its coats are bought once
    std::optional<std::int64_t> film_cents{};  ///< what its film is worth, where a price is known
    friend bool operator==(const ShoppingInput&, const ShoppingInput&) = default;
};

struct ShoppingItem {
    Reason what, how_much;
    friend bool operator==(const ShoppingItem&, const ShoppingItem&) = default;
};

/// Boards for frames and the like, by what is sawn from one stock. Nothing where only blanks are: the board of a blank
/// is on its own list already.
std::optional<ShoppingItem> boards_to_buy(const std::string& stock, const std::vector<Cut>& cuts,
                                          const CuttingPlan& cutting);

/// Film already cut is not on the list.
std::vector<ShoppingItem> shopping(const ShoppingInput& input, const Trade& trade);

}  // namespace skarvel
