// loads/passes.h
//
// Passes: masks whose film would lie over ink that is painted at the same time are laid, painted and lifted one after
// the other. Who may not go with whom is a graph; the fewest passes are its colouring with the fewest colours, where a
// mask that is laid again takes several passes in a row. Three masks that each lie over another's ink need three: such
// a ring is broken by doing them in turn.
#pragma once

#include <cstddef>
#include <vector>

namespace skarvel {

/// `b` may not begin `later` passes after `a`.
struct Clash {
    std::size_t a = 0, b = 0;
    int later = 0;
    friend bool operator==(const Clash&, const Clash&) = default;
};

struct Passes {
    std::vector<int> of;  ///< the pass in which each begins, from 1
    int count = 1;
    bool proved = true;  ///< no fewer do
    friend bool operator==(const Passes&, const Passes&) = default;
};

/// `spans`: how many passes each takes. By taking the earliest first in their order; then fewer are looked for in full,
/// within a bound of counted steps.
Passes fewest_passes(const std::vector<int>& spans, const std::vector<Clash>& clashes);

}  // namespace skarvel
