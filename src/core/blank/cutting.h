// blank/cutting.h
//
// Cutting plan: which lengths are sawn from which boards of the stock, so that the fewest boards are used, and of those
// the shortest that do.
//
// Every way to fill a board is listed once (a pattern), and a mixed-integer program chooses how often each is sawn (the
// packaged solver). The relaxed program gives a bound that no plan can beat: a plan that meets it is proved. Past
// `most_patterns` ways the longest pieces are laid first instead, and the plan is proved only where a simple bound is
// met. Each cut takes the saw's kerf; what is left is named as an offcut.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "measure/length.h"
#include "text/reason.h"

namespace skarvel {

struct Wanted {
    Length length;
    int count = 1;
    friend bool operator==(const Wanted&, const Wanted&) = default;
};

/// Boards alike: which of the wanted lengths are sawn from each (places in the list, repeated), and what is left.
struct SawnBoard {
    Length from;
    int boards = 1;
    std::vector<std::size_t> pieces;
    Length offcut;
    friend bool operator==(const SawnBoard&, const SawnBoard&) = default;
};

struct CuttingPlan {
    std::vector<SawnBoard> boards;
    int used = 0;   ///< boards in all
    int least = 0;  ///< no plan can use fewer
    bool proved = false;
    std::vector<Problem> problems;  ///< pieces longer than any board, which are left out
    friend bool operator==(const CuttingPlan&, const CuttingPlan&) = default;
};

/// `stock`: the lengths that boards are sold in, as many of each as it takes.
CuttingPlan cutting_plan(const std::vector<Wanted>& wanted, std::vector<Length> stock, Length kerf);

}  // namespace skarvel
