// clock/network.h
//
// A simple temporal network: events, and between some of them the least and the most time that may pass. From these
// follow the least and the most between any two, or that it cannot be: then a chain of bounds that closes on itself
// and asks for less than nothing.
//
// Source: R. Dechter, I. Meiri, J. Pearl, Temporal constraint networks, Artificial Intelligence 49 (1991).
#pragma once

#include <optional>
#include <vector>

#include "text/reason.h"

namespace skarvel {

/// `to` comes at least so long after `from`, and at most; negative where it may come before. Nothing: no bound.
struct Bound {
    std::size_t from = 0, to = 0;
    std::optional<Minutes> at_least, at_most;
    friend bool operator==(const Bound&, const Bound&) = default;
};

/// most[i][j]: the most that j can come after i; nothing where it may be ever so late. The least is minus most[j][i].
using MinimalNetwork = std::vector<std::vector<std::optional<Minutes>>>;

/// Nothing where the bounds contradict one another. Floyd and Warshall's all shortest paths: for some hundred events.
std::optional<MinimalNetwork> minimal_network(std::size_t events, const std::vector<Bound>& bounds);

/// Bounds that cannot hold together, as few as make a contradiction, by their places, in the order of the chain; empty
/// where all can hold.
std::vector<std::size_t> contradiction(std::size_t events, const std::vector<Bound>& bounds);

}  // namespace skarvel
