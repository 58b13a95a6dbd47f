#include "bench/merging.h"

#include <algorithm>

namespace skarvel {
namespace {

template <class Key, class Value>
std::map<Key, Value> merged_map(const std::map<Key, Value>& base, std::map<Key, Value> mine,
                                const std::map<Key, Value>& theirs) {
    for (const auto& [key, value] : theirs) {
        const auto before = base.find(key);
        if (before != base.end() && before->second == value) continue;
        // Changed there: it counts, unless it was changed here as well.
        const auto [own, fresh] = mine.try_emplace(key, value);
        if (!fresh && before != base.end() && own->second == before->second) own->second = value;
    }
    for (const auto& [key, value] : base) {
        const auto own = mine.find(key);
        if (!theirs.contains(key) && own != mine.end() && own->second == value) mine.erase(own);
    }
    return mine;
}

template <class T>
std::vector<T> merged_list(const std::vector<T>& base, std::vector<T> mine, const std::vector<T>& theirs) {
    const auto in = [](const std::vector<T>& all, const T& one) {
        return std::find(all.begin(), all.end(), one) != all.end();
    };
    std::erase_if(mine, [&](const T& one) { return in(base, one) && !in(theirs, one); });
    for (const T& one : theirs) {
        if (!in(base, one) && !in(mine, one)) mine.push_back(one);
    }
    return mine;
}

}  // namespace

BenchRecord merged(const BenchRecord& base, const BenchRecord& mine, const BenchRecord& theirs) {
    BenchRecord out;
    out.ticks = merged_map(base.ticks, mine.ticks, theirs.ticks);
    out.held = merged_map(base.held, mine.held, theirs.held);
    out.dry = merged_map(base.dry, mine.dry, theirs.dry);
    out.cut = merged_list(base.cut, mine.cut, theirs.cut);
    out.spoilt = merged_list(base.spoilt, mine.spoilt, theirs.spoilt);
    out.mishaps = merged_list(base.mishaps, mine.mishaps, theirs.mishaps);
    out.skipped = merged_list(base.skipped, mine.skipped, theirs.skipped);
    out.photographs = merged_list(base.photographs, mine.photographs, theirs.photographs);
    out.took = merged_list(base.took, mine.took, theirs.took);
    out.trials = merged_list(base.trials, mine.trials, theirs.trials);
    out.perhaps_cut = merged_list(base.perhaps_cut, mine.perhaps_cut, theirs.perhaps_cut);
    // Two that happened at once have one number each.
    int number = 0;
    for (Mishap& m : out.mishaps) number = std::max(number, m.number);
    for (auto m = out.mishaps.begin(); m != out.mishaps.end(); ++m) {
        const bool twice = std::any_of(out.mishaps.begin(), m, [&](const Mishap& o) { return o.number == m->number; });
        if (twice) m->number = ++number;
    }
    return out;
}

}  // namespace skarvel
