#include "clock/network.h"

#include <algorithm>

namespace skarvel {
namespace {

// `to` no later than `most` after `from`: what both halves of a bound come to.
struct Link {
    std::size_t from, to;
    Minutes most;
    std::size_t bound;
};

std::vector<Link> edges_of(const std::vector<Bound>& bounds) {
    std::vector<Link> edges;
    for (std::size_t i = 0; i < bounds.size(); ++i) {
        if (bounds[i].at_most) edges.push_back({bounds[i].from, bounds[i].to, *bounds[i].at_most, i});
        if (bounds[i].at_least) edges.push_back({bounds[i].to, bounds[i].from, -*bounds[i].at_least, i});
    }
    return edges;
}

// Bellman and Ford: whether no chain comes back to where it began with less than nothing.
bool consistent(std::size_t events, const std::vector<Link>& edges) {
    std::vector<Minutes> least(events, Minutes(0));
    for (std::size_t round = 0; round <= events; ++round) {
        bool changed = false;
        for (const Link& e : edges) {
            if (least[e.from] + e.most >= least[e.to]) continue;
            least[e.to] = least[e.from] + e.most;
            changed = true;
        }
        if (!changed) return true;
    }
    return false;
}

}  // namespace

std::optional<MinimalNetwork> minimal_network(std::size_t events, const std::vector<Bound>& bounds) {
    MinimalNetwork most(events, std::vector<std::optional<Minutes>>(events));
    for (std::size_t i = 0; i < events; ++i) most[i][i] = Minutes(0);
    for (const Link& e : edges_of(bounds)) {
        auto& there = most[e.from][e.to];
        if (!there || e.most < *there) there = e.most;
    }
    for (std::size_t k = 0; k < events; ++k) {
        for (std::size_t i = 0; i < events; ++i) {
            if (!most[i][k]) continue;
            for (std::size_t j = 0; j < events; ++j) {
                if (!most[k][j]) continue;
                const Minutes through = *most[i][k] + *most[k][j];
                if (!most[i][j] || through < *most[i][j]) most[i][j] = through;
            }
        }
    }
    for (std::size_t i = 0; i < events; ++i) {
        if (*most[i][i] < Minutes(0)) return std::nullopt;
    }
    return most;
}

std::vector<std::size_t> contradiction(std::size_t events, const std::vector<Bound>& bounds) {
    const std::vector<Link> edges = edges_of(bounds);
    if (consistent(events, edges)) return {};
    // Ways of one edge more each time, from every event: the first that comes back with less than nothing is as short
    // as any.
    constexpr std::size_t none = static_cast<std::size_t>(-1);
    struct Way {
        std::optional<Minutes> most;
        std::size_t last = none;  // its last edge
    };
    std::vector<std::vector<std::vector<Way>>> ways;  // by length, where it begins, where it ends
    ways.emplace_back(events, std::vector<Way>(events));
    for (std::size_t i = 0; i < events; ++i) ways.front()[i][i].most = Minutes(0);
    for (std::size_t length = 1; length <= events; ++length) {
        ways.emplace_back(events, std::vector<Way>(events));
        const auto& before = ways[length - 1];
        auto& now = ways[length];
        for (std::size_t from = 0; from < events; ++from) {
            for (std::size_t i = 0; i < edges.size(); ++i) {
                const Link& e = edges[i];
                if (!before[from][e.from].most) continue;
                const Minutes most = *before[from][e.from].most + e.most;
                Way& way = now[from][e.to];
                if (!way.most || most < *way.most) way = {most, i};
            }
        }
        for (std::size_t from = 0; from < events; ++from) {
            if (!now[from][from].most || *now[from][from].most >= Minutes(0)) continue;
            std::vector<std::size_t> chain;
            std::size_t at = from;
            for (std::size_t step = length; step > 0; --step) {
                const Link& e = edges[ways[step][from][at].last];
                chain.push_back(e.bound);
                at = e.from;
            }
            std::reverse(chain.begin(), chain.end());
            return chain;
        }
    }
    return {};
}

}  // namespace skarvel
