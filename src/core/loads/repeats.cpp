#include "loads/repeats.h"

#include <algorithm>
#include <map>
#include <set>

namespace skarvel {
namespace {

constexpr std::int64_t least_step = to_grid(2_in);  // closer together, they are one pattern and cut as one
constexpr std::size_t most_steps_tried = 40;
constexpr std::size_t most_in_class = 150;  // of each shape this many propose steps

// Pieces by their shape, wherever it lies.
std::vector<std::size_t> classes_of(const std::vector<Piece>& pieces) {
    std::map<std::vector<Ring>, std::size_t> known;
    std::vector<std::size_t> of;
    for (const Piece& p : pieces) {
        std::vector<Ring> rings = p.shape.moved(Point{} - p.shape.bounds().low).rings();
        for (Ring& ring : rings) std::rotate(ring.begin(), std::min_element(ring.begin(), ring.end()), ring.end());
        std::sort(rings.begin(), rings.end());
        of.push_back(known.emplace(std::move(rings), known.size()).first->second);
    }
    return of;
}

class Search {
  public:
    Search(const std::vector<Piece>& pieces, const Room& room, Length margin)
        : pieces_(pieces), room_(room), margin_(margin), class_(classes_of(pieces)) {
        for (std::size_t i = 0; i < pieces.size(); ++i) {
            low_.push_back(pieces[i].shape.bounds().low);
            at_[{class_[i], low_.back()}] = i;
        }
    }

    std::optional<Repeat> run() {
        std::optional<Repeat> best;
        std::size_t best_covered = 0;
        for (const Point step : steps()) {
            std::optional<Repeat> found = by(step);
            if (!found) continue;
            const std::size_t covered = pieces_.size() - found->rest.size();
            const bool better = !best || covered > best_covered ||
                                (covered == best_covered && found->units.size() < best->units.size());
            if (!better) continue;
            best = std::move(found);
            best_covered = covered;
        }
        return best;
    }

  private:
    // Level or upright moves between pieces of one shape, those that most pieces make first.
    [[nodiscard]] std::vector<Point> steps() const {
        std::map<Point, std::size_t> votes;
        std::map<std::size_t, std::vector<Point>> by_class;
        for (std::size_t i = 0; i < pieces_.size(); ++i) {
            auto& places = by_class[class_[i]];
            if (places.size() < most_in_class) places.push_back(low_[i]);
        }
        for (auto& [which, places] : by_class) {
            std::sort(places.begin(), places.end());
            for (std::size_t a = 0; a < places.size(); ++a) {
                for (std::size_t b = a + 1; b < places.size(); ++b) {
                    const Point move = places[b] - places[a];
                    if ((move.x == 0) == (move.y == 0) || std::max(move.x, move.y) < least_step) continue;
                    ++votes[move];
                }
            }
        }
        std::vector<std::pair<std::size_t, Point>> ranked;
        for (const auto& [move, count] : votes) ranked.emplace_back(count, move);
        std::sort(ranked.begin(), ranked.end(), [](const auto& a, const auto& b) {
            return a.first != b.first ? a.first > b.first : a.second < b.second;
        });
        // A longer step is made by fewer pairs than the shorter ones it is made of: both ends of the list are tried.
        std::vector<Point> some;
        for (std::size_t i = 0; i < ranked.size() && i < most_steps_tried; ++i) some.push_back(ranked[i].second);
        std::map<std::int64_t, std::pair<std::size_t, Point>> inches;
        for (const auto& [count, move] : ranked) {
            auto& most = inches[std::max(move.x, move.y) / to_grid(1_in)];
            if (count > most.first) most = {count, move};
        }
        for (const auto& [inch, most] : inches) {
            if (some.size() < 2 * most_steps_tried) some.push_back(most.second);
        }
        return some;
    }

    [[nodiscard]] std::optional<std::size_t> next(std::size_t i, Point step) const {
        const auto at = at_.find({class_[i], low_[i] + step});
        return at == at_.end() ? std::nullopt : std::optional(at->second);
    }

    [[nodiscard]] std::optional<Repeat> by(Point step) const {
        std::map<std::size_t, std::size_t> lengths;  // of chains: how many pieces start one of that length
        std::vector<std::vector<std::size_t>> chains;
        for (std::size_t i = 0; i < pieces_.size(); ++i) {
            if (next(i, Point{} - step)) continue;
            std::vector<std::size_t> chain{i};
            while (const auto n = next(chain.back(), step)) chain.push_back(*n);
            if (chain.size() < 2) continue;
            ++lengths[chain.size()];
            chains.push_back(std::move(chain));
        }
        std::size_t count = 0;
        std::size_t most = 0;
        for (const auto& [length, starts] : lengths) {
            std::size_t covered = 0;
            for (const auto& chain : chains) covered += chain.size() >= length ? length : 0;
            if (covered > most) {
                most = covered;
                count = length;
            }
        }
        if (count < 2 || most * 2 < pieces_.size()) return std::nullopt;
        Repeat found{step, std::vector<std::vector<std::size_t>>(count), {}};
        std::set<std::size_t> used;
        Box unit;
        for (const auto& chain : chains) {
            if (chain.size() < count) continue;
            for (std::size_t k = 0; k < count; ++k) {
                found.units[k].push_back(chain[k]);
                used.insert(chain[k]);
            }
            unit = around(unit, pieces_[chain.front()].shape.bounds());
        }
        const Box film = grown(unit, margin_);
        const std::int64_t a = to_grid(room_.across);
        const std::int64_t b = to_grid(room_.along);
        const bool fits =
            (film.width() <= a && film.height() <= b) || (room_.turns && film.width() <= b && film.height() <= a);
        // A unit that reaches over the next one cannot be painted beside it.
        const std::int64_t reach = step.x != 0 ? unit.width() : unit.height();
        if (!fits || reach > std::max(step.x, step.y)) return std::nullopt;
        for (std::size_t i = 0; i < pieces_.size(); ++i) {
            if (!used.contains(i)) found.rest.push_back(i);
        }
        return found;
    }

    const std::vector<Piece>& pieces_;
    Room room_;
    Length margin_;
    std::vector<std::size_t> class_;
    std::vector<Point> low_;
    std::map<std::pair<std::size_t, Point>, std::size_t> at_;
};

}  // namespace

std::optional<Repeat> repeat_in(const std::vector<Piece>& pieces, const Room& room, Length margin) {
    if (pieces.size() < 2) return std::nullopt;
    return Search(pieces, room, margin).run();
}

}  // namespace skarvel
