#include "loads/repeats.h"

#include <algorithm>
#include <map>
#include <numeric>
#include <set>
#include <tuple>

#include "loads/alike.h"
#include "values/searches.h"

namespace skarvel {
namespace {

constexpr std::int64_t least_step = to_grid(2_in);  // closer together, they are one pattern and cut as one
constexpr std::size_t most_steps_tried = searches::steps_of_repeat.most;
constexpr std::size_t most_turns_tried = searches::turns_of_repeat.most;
constexpr std::size_t most_in_class = searches::pieces_of_a_kind.most;

class ShiftSearch {
  public:
    ShiftSearch(const std::vector<Piece>& pieces, const Room& room, Length margin)
        : pieces_(pieces), room_(room), margin_(margin) {
        for (std::size_t i = 0; i < pieces.size(); ++i) {
            kind_.push_back(kinds_.of(pieces[i].shape));
            boxes_.push_back(pieces[i].shape.bounds());
            at_[kind_.back()].emplace_back(boxes_.back().low, i);
        }
        for (auto& [kind, places] : at_) std::sort(places.begin(), places.end());
    }

    std::optional<Repeat> run(bool turned_over) {
        for (const Point step : steps()) consider(by_step(step));
        for (const Motion& turn : turns({{{}, 1, false}, {{}, 2, false}})) consider(by_turn(everything(), turn));
        if (turned_over) mirrored();
        return std::move(best_);
    }

  private:
    using Places = std::vector<std::size_t>;

    void consider(std::optional<Repeat> found) {
        if (!found) return;
        std::set<std::size_t> used;
        for (const Places& unit : found->units) used.insert(unit.begin(), unit.end());
        found->rest.clear();
        for (std::size_t i = 0; i < pieces_.size(); ++i) {
            if (!used.contains(i)) found->rest.push_back(i);
        }
        // Half of all there is; or of the art, where letters stand beside it.
        const auto is_art = [&](std::size_t i) { return pieces_[i].art; };
        const auto art = static_cast<std::size_t>(
            std::count_if(pieces_.begin(), pieces_.end(), [](const Piece& p) { return p.art; }));
        const bool of_art = std::all_of(used.begin(), used.end(), is_art) && used.size() * 2 >= art;
        if ((used.size() * 2 < pieces_.size() && !of_art) || !fits(*found)) return;
        const bool better =
            !best_ || used.size() > covered_ || (used.size() == covered_ && found->units.size() < best_->units.size());
        if (!better) return;
        covered_ = used.size();
        best_ = std::move(found);
    }

    [[nodiscard]] bool fits(const Repeat& found) const {
        Box unit;
        for (const std::size_t i : found.units.front()) unit = around(unit, boxes_[i]);
        const Box film = grown(unit, margin_);
        const std::int64_t a = to_grid(room_.across);
        const std::int64_t b = to_grid(room_.along);
        return (film.width() <= a && film.height() <= b) || (room_.turns && film.width() <= b && film.height() <= a);
    }

    [[nodiscard]] Places everything() const {
        Places all(pieces_.size());
        std::iota(all.begin(), all.end(), std::size_t{0});
        return all;
    }

    // The piece of that kind with its lower left corner there.
    [[nodiscard]] std::optional<std::size_t> piece_at(std::size_t kind, Point low) const {
        const auto places = at_.find(kind);
        if (places == at_.end()) return std::nullopt;
        const Point from{low.x - same_within, low.y - same_within};
        const auto& all = places->second;
        for (auto it = std::lower_bound(all.begin(), all.end(), std::pair(from, std::size_t{0}));
             it != all.end() && it->first.x <= low.x + same_within; ++it) {
            if (near(it->first, low)) return it->second;
        }
        return std::nullopt;
    }

    // ---- moves

    // Level or upright moves between pieces of one shape, those that most pieces make first.
    [[nodiscard]] std::vector<Point> steps() const {
        std::map<Point, std::size_t> votes;
        for (const auto& [kind, places] : at_) {
            const std::size_t count = std::min(places.size(), most_in_class);
            for (std::size_t a = 0; a < count; ++a) {
                for (std::size_t b = a + 1; b < count; ++b) {
                    const Point move = places[b].first - places[a].first;
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

    [[nodiscard]] std::optional<Repeat> by_step(Point step) const {
        std::map<std::size_t, std::size_t> lengths;  // of chains: how many pieces start one of that length
        std::vector<Places> chains;
        for (std::size_t i = 0; i < pieces_.size(); ++i) {
            if (piece_at(kind_[i], boxes_[i].low - step)) continue;
            Places chain{i};
            while (const auto n = piece_at(kind_[i], boxes_[chain.back()].low + step)) chain.push_back(*n);
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
        if (count < 2) return std::nullopt;
        Repeat found{{}, std::vector<Places>(count), {}};
        for (std::size_t k = 0; k < count; ++k) {
            const auto times = static_cast<std::int64_t>(k);
            found.lays.push_back({{step.x * times, step.y * times}, 0, false});
        }
        Box unit;
        for (const auto& chain : chains) {
            if (chain.size() < count) continue;
            for (std::size_t k = 0; k < count; ++k) found.units[k].push_back(chain[k]);
            unit = around(unit, boxes_[chain.front()]);
        }
        // A unit that reaches over the next one cannot be painted beside it.
        const std::int64_t reach = step.x != 0 ? unit.width() : unit.height();
        return reach > std::max(step.x, step.y) ? std::nullopt : std::optional(std::move(found));
    }

    // ---- turns and mirrors

    // The motions, of those turns, that most pairs of pieces propose.
    std::vector<Motion> turns(const std::vector<Motion>& about_origin) {
        std::vector<Motion> out;
        for (const Motion& turn : about_origin) {
            std::map<std::pair<std::int64_t, std::int64_t>, std::pair<std::size_t, Point>> votes;
            for (std::size_t i = 0; i < std::min(pieces_.size(), 4 * most_in_class); ++i) {
                const auto places = at_.find(turned_kind(kind_[i], turn, i));
                if (places == at_.end()) continue;
                const Point low = turn(boxes_[i]).low;
                for (std::size_t k = 0; k < std::min(places->second.size(), most_in_class); ++k) {
                    const Point by = places->second[k].first - low;
                    // A mirror that also shifts along itself is no mirror.
                    if (turn.over && std::abs(turn.quarters == 0 ? by.y : by.x) > same_within) continue;
                    auto& [count, first] = votes[{by.x / (4 * same_within), by.y / (4 * same_within)}];
                    if (count++ == 0) first = by;
                }
            }
            std::vector<std::pair<std::size_t, Point>> ranked;
            for (const auto& [cell, vote] : votes) ranked.push_back(vote);
            std::sort(ranked.begin(), ranked.end(), [](const auto& a, const auto& b) {
                return a.first != b.first ? a.first > b.first : a.second < b.second;
            });
            for (std::size_t i = 0; i < std::min(ranked.size(), most_turns_tried); ++i)
                out.push_back({ranked[i].second, turn.quarters, turn.over});
        }
        return out;
    }

    std::size_t turned_kind(std::size_t kind, const Motion& turn, std::size_t piece) {
        const auto [at, fresh] = turned_.try_emplace({kind, turn.quarters, turn.over}, 0);
        if (fresh) at->second = kinds_.of(pieces_[piece].shape.laid(Motion{{}, turn.quarters, turn.over}));
        return at->second;
    }

    // Pieces of `among` that `turn` brings onto one another until it is back where it began.
    std::optional<Repeat> by_turn(const Places& among, const Motion& turn) {
        const std::size_t order = !turn.over && turn.quarters % 2 == 1 ? 4 : 2;
        const std::set<std::size_t> here(among.begin(), among.end());
        Box all;
        for (const std::size_t i : among) all = around(all, boxes_[i]);
        Repeat found{{}, std::vector<Places>(order), {}};
        std::set<std::size_t> used;
        for (const std::size_t i : among) {
            if (used.contains(i) || !leads(i, turn, all)) continue;
            Places orbit{i};
            while (orbit.size() < order) {
                const std::size_t last = orbit.back();
                const auto next = piece_at(turned_kind(kind_[last], turn, last), turn(boxes_[last]).low);
                const bool fresh = next && here.contains(*next) && !used.contains(*next) &&
                                   std::find(orbit.begin(), orbit.end(), *next) == orbit.end();
                if (!fresh) break;
                orbit.push_back(*next);
            }
            if (orbit.size() < order) continue;
            for (std::size_t k = 0; k < order; ++k) {
                found.units[k].push_back(orbit[k]);
                used.insert(orbit[k]);
            }
        }
        if (used.empty()) return std::nullopt;
        found.lays.push_back({});
        while (found.lays.size() < order) found.lays.push_back(turn * found.lays.back());
        return found;
    }

    // Whether a piece belongs to the first unit: the lower or left half, the lower left quarter.
    [[nodiscard]] bool leads(std::size_t i, const Motion& turn, const Box& all) const {
        const Box& box = boxes_[i];
        const Box there = turn(box);
        const Point from = box.low + box.high;
        const Point to = there.low + there.high;
        if (!turn.over && turn.quarters % 2 == 1) {
            // Twice the centre of the turn is midway between a place and where two quarters bring it.
            const Box across = turn(there);
            const Point centre = from + across.low + across.high;
            return 2 * from.x < centre.x && 2 * from.y <= centre.y;
        }
        if (turn.over) return turn.quarters == 0 ? from.x < to.x : from.y < to.y;
        const bool level = all.width() >= all.height();
        return level ? from.x < to.x : from.y < to.y;
    }

    // About an upright line, about a level one, and about both: the corner of a border.
    void mirrored() {
        const std::vector<Motion> level = turns({{{}, 2, true}});
        for (const Motion& about : turns({{{}, 0, true}})) {
            const auto halves = by_turn(everything(), about);
            if (!halves) continue;
            for (const Motion& upon : level) {
                auto quarter = by_turn(halves->units.front(), upon);
                if (!quarter) continue;
                Repeat all{{}, {}, {}};
                for (std::size_t k = 0; k < 2; ++k) {
                    for (std::size_t h = 0; h < 2; ++h) {
                        all.lays.push_back((h == 0 ? Motion{} : about) * quarter->lays[k]);
                        Places unit;
                        for (const std::size_t i : quarter->units[k]) {
                            const auto place = std::find(halves->units[0].begin(), halves->units[0].end(), i);
                            unit.push_back(
                                halves->units[h].at(static_cast<std::size_t>(place - halves->units[0].begin())));
                        }
                        all.units.push_back(std::move(unit));
                    }
                }
                consider(std::move(all));
            }
            consider(halves);
        }
        for (const Motion& upon : level) consider(by_turn(everything(), upon));
    }

    const std::vector<Piece>& pieces_;
    Room room_;
    Length margin_;
    Kinds kinds_;
    std::vector<std::size_t> kind_;
    std::vector<Box> boxes_;
    std::map<std::size_t, std::vector<std::pair<Point, std::size_t>>> at_;  // of each kind, by place
    std::map<std::tuple<std::size_t, int, bool>, std::size_t> turned_;      // kinds
    std::optional<Repeat> best_;
    std::size_t covered_ = 0;
};

}  // namespace

std::optional<Repeat> repeat_in(const std::vector<Piece>& pieces, const Room& room, Length margin, bool turned_over) {
    if (pieces.size() < 2) return std::nullopt;
    return ShiftSearch(pieces, room, margin).run(turned_over);
}

}  // namespace skarvel
