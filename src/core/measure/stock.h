// measure/stock.h
//
// Stock sizes: boards are bought by a nominal size and measure less. The table is trade data (assets/trade/stock.json:
// American Softwood Lumber Standard PS 20, dressed dry); the shop can add its own.
#pragma once

#include <algorithm>
#include <string>
#include <string_view>
#include <vector>

#include "measure/length.h"

namespace skarvel {

struct StockSize {
    std::string name;  ///< "1x6"
    Length nominal_thickness, nominal_width;
    Length thickness, width;  ///< as it really is
    friend bool operator==(const StockSize&, const StockSize&) = default;
};

/// "1×6": the name as it is shown.
inline std::string shown_name(std::string name) {
    if (const auto x = name.find('x'); x != std::string::npos) name.replace(x, 1, "×");
    return name;
}

/// nullptr when no size has that name.
inline const StockSize* find_stock(const std::vector<StockSize>& sizes, std::string_view name) {
    const auto at = std::find_if(sizes.begin(), sizes.end(), [&](const StockSize& s) { return s.name == name; });
    return at == sizes.end() ? nullptr : &*at;
}

}  // namespace skarvel
