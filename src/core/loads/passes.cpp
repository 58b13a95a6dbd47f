#include "loads/passes.h"

#include <algorithm>

#include "values/searches.h"
#include "values/stop.h"

namespace skarvel {
namespace {

constexpr int most_colourings = searches::colourings_of_passes.most;

class PassSearch {
  public:
    PassSearch(const std::vector<int>& spans, const std::vector<Clash>& clashes) : spans_(spans), with_(spans.size()) {
        for (const Clash& c : clashes) {
            with_[c.a].push_back({c.b, c.later});
            with_[c.b].push_back({c.a, -c.later});
        }
        for (std::size_t i = 0; i < spans.size(); ++i) order_.push_back(i);
    }

    std::vector<int> earliest() {
        of_.assign(spans_.size(), 0);
        for (std::size_t i = 0; i < spans_.size(); ++i) {
            int pass = 1;
            while (!fits(i, pass)) ++pass;
            of_[i] = pass;
        }
        return of_;
    }

    [[nodiscard]] int last(const std::vector<int>& of) const {
        int most = 1;
        for (std::size_t i = 0; i < of.size(); ++i) most = std::max(most, of[i] + spans_[i] - 1);
        return most;
    }

    enum class Found { Yes, No, Unknown };
    // Those that clash most are set first.
    Found within(int most) {
        most_ = most;
        of_.assign(spans_.size(), 0);
        steps_ = 0;
        std::stable_sort(order_.begin(), order_.end(),
                         [&](std::size_t a, std::size_t b) { return with_[a].size() > with_[b].size(); });
        if (set(0)) return Found::Yes;
        return steps_ > most_colourings ? Found::Unknown : Found::No;
    }
    [[nodiscard]] const std::vector<int>& of() const { return of_; }

  private:
    [[nodiscard]] bool fits(std::size_t i, int pass) const {
        return std::none_of(with_[i].begin(), with_[i].end(), [&](const auto& clash) {
            return of_[clash.first] > 0 && of_[clash.first] - pass == clash.second;
        });
    }
    bool set(std::size_t place) {
        if (place == order_.size()) return true;
        if (++steps_ > most_colourings) return false;
        if (steps_ % 1'000 == 0) look_for_stop();
        const std::size_t i = order_[place];
        for (int pass = 1; pass + spans_[i] - 1 <= most_; ++pass) {
            if (!fits(i, pass)) continue;
            of_[i] = pass;
            if (set(place + 1)) return true;
            of_[i] = 0;
        }
        return false;
    }

    const std::vector<int>& spans_;
    std::vector<std::vector<std::pair<std::size_t, int>>> with_;
    std::vector<std::size_t> order_;
    std::vector<int> of_;
    int most_ = 1, steps_ = 0;
};

}  // namespace

Passes fewest_passes(const std::vector<int>& spans, const std::vector<Clash>& clashes) {
    PassSearch search(spans, clashes);
    Passes best;
    best.of = search.earliest();
    best.count = search.last(best.of);
    while (best.count > 1) {
        const auto found = search.within(best.count - 1);
        best.proved = found == PassSearch::Found::No;
        if (found != PassSearch::Found::Yes) break;
        best.of = search.of();
        best.count = search.last(best.of);
        best.proved = true;
    }
    return best;
}

}  // namespace skarvel
