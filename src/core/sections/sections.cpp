#include "sections/sections.h"

#include "sections/lines.h"
#include "sections/ties.h"
#include "sections/wishes.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <map>
#include <numbers>
#include <numeric>
#include <optional>
#include <set>
#include <tuple>

namespace skarvel {
namespace {

constexpr double most_sections = 500;  // more than a year of evenings: a size is wrong
constexpr std::size_t most_choices = 48;
constexpr std::size_t most_per_seam = 8;
constexpr long most_steps = 200'000;    // of all chains together; beyond, rows are no longer divided the other way
constexpr std::size_t few_pieces = 24;  // up to here every sixteenth of a gap is tried as a seam
constexpr int most_interlocked = 12;    // outlines that a stepped seam may run around
constexpr Length wide_gap = 4_in;       // film between ink farther apart is wasted (memory)
constexpr std::size_t most_groups = 24;
constexpr std::size_t few_gaps = 10;  // up to here every set of them is tried as seams
constexpr std::size_t most_sets = 200;
constexpr int most_refined = 8;         // sections; beyond, the search would cost more than a load that it saves
constexpr std::size_t few_apart = 8;    // divisions into groups that are packed beside the others
constexpr std::size_t most_cuts = 400;  // candidate cuts across one piece
constexpr std::int64_t deepest_step = to_grid(2_in);  // how far two neighbours may interlock at a stepped seam

std::int64_t low(Axis axis, const Box& box) { return along(axis, box.low); }
std::int64_t high(Axis axis, const Box& box) { return along(axis, box.high); }

void set_range(Axis axis, Box& box, std::int64_t from, std::int64_t to) {
    (axis == Axis::X ? box.low.x : box.low.y) = from;
    (axis == Axis::X ? box.high.x : box.high.y) = to;
}

struct Context {
    Box face;
    Room room;
    MakingPlan making;
    bool mask = false;
    bool span_x = false, span_y = false;  // masks run from edge to edge on this axis
    Box available;
    std::vector<NoSeam> never;
    std::stop_token stop;

    [[nodiscard]] bool forbidden(Axis axis, std::int64_t where, const Box& cell) const {
        return std::any_of(never.begin(), never.end(), [&](const NoSeam& n) {
            return n.at(axis, where, low(other(axis), cell), high(other(axis), cell));
        });
    }

    [[nodiscard]] bool fits(std::int64_t width, std::int64_t height) const {
        const std::int64_t a = to_grid(room.across);
        const std::int64_t b = to_grid(room.along);
        return (width <= a && height <= b) || (room.turns && width <= b && height <= a) ||
               slant_for(width, height, room).has_value();
    }
    // No section is longer than that.
    [[nodiscard]] std::int64_t longest() const {
        const std::int64_t a = to_grid(room.across);
        const std::int64_t b = to_grid(room.along);
        return room.slants ? std::llround(std::hypot(static_cast<double>(a), static_cast<double>(b))) : std::max(a, b);
    }
};

constexpr double inch_of_roll = static_cast<double>(to_grid(1_in)) * static_cast<double>(to_grid(12_in));

struct Score {
    int crossings = 0;
    std::int64_t crossed = 0;
    int sections = 0;
    int stepped = 0;
    int in_words = 0;
    double film = 0;
    int off_lines = 0;
    // Words are parted rather than an inch of roll spent, and not for less.
    friend bool operator<(const Score& a, const Score& b) {
        const auto rank = [](const Score& s) {
            return std::tuple(s.crossings, s.crossed, s.sections, s.stepped, std::floor(s.film / inch_of_roll),
                              s.in_words, s.film, s.off_lines);
        };
        return rank(a) < rank(b);
    }
    friend Score operator+(Score a, const Score& b) {
        a.crossings += b.crossings;
        a.crossed += b.crossed;
        a.sections += b.sections;
        a.stepped += b.stepped;
        a.in_words += b.in_words;
        a.film += b.film;
        a.off_lines += b.off_lines;
        return a;
    }
};

struct Draft {
    Score score;
    std::vector<Part> parts;
    std::vector<Seam> seams;
};

// How coarse the line is that a seam lies on: 0 for whole half inches, 4 for anything finer than 1/16.
int off_line(std::int64_t where) {
    static constexpr std::array steps = {to_grid(0.5_in), to_grid(0.25_in), to_grid(0.125_in), to_grid(0.0625_in)};
    const auto* at = std::find_if(steps.begin(), steps.end(), [&](std::int64_t step) { return where % step == 0; });
    return static_cast<int>(at - steps.begin());
}

// The coarsest measurable line in [from, to], the one nearest the middle.
std::int64_t nearest_line(std::int64_t from, std::int64_t to) {
    const std::int64_t middle = (from + to) / 2;
    for (const Length step : {0.5_in, 0.25_in, 0.125_in, 0.0625_in}) {
        const std::int64_t s = to_grid(step);
        const std::int64_t line = (middle + s / 2) / s * s;
        for (const std::int64_t candidate : {line, line - s, line + s}) {
            if (candidate >= from && candidate <= to) return candidate;
        }
    }
    return middle;
}

class Divider {
  public:
    Divider(const std::vector<Piece>& pieces, Context context) : pieces_(pieces), context_(std::move(context)) {
        for (const Piece& piece : pieces) boxes_.push_back(piece.shape.bounds());
    }

    std::vector<Draft> divide_all(const std::vector<std::size_t>& part, const Box& available) {
        return solve(part, available, 0, std::nullopt);
    }

    // Every set of gaps along one axis as seams, the fewest first: in case more sections come to fewer loads. Where
    // there are many gaps, only those of `base` and one or two more.
    std::vector<Draft> every_set(const std::vector<std::size_t>& part, const Box& cell, Axis axis, const Draft& base) {
        const std::vector<std::size_t> order = in_order(part, axis);
        std::vector<Candidate> gaps;
        std::vector<std::size_t> known;
        for (const Candidate& c : candidates(order, cell, axis)) {
            const bool used = std::any_of(base.seams.begin(), base.seams.end(),
                                          [&](const Seam& s) { return s.axis == axis && s.where == c.where; });
            if (c.is_end || c.stepped) continue;
            if (gaps.empty() || gaps.back().before != c.before) {
                gaps.push_back(c);
            } else if (used) {
                gaps.back() = c;
            }
            if (used && (known.empty() || known.back() != gaps.size() - 1)) known.push_back(gaps.size() - 1);
        }
        std::vector<Draft> drafts;
        for (const std::vector<std::size_t>& set : seam_sets(gaps.size(), known)) {
            if (context_.stop.stop_requested()) return {};
            if (auto draft = divided_at(set, gaps, order, cell, axis)) drafts.push_back(std::move(*draft));
        }
        return drafts;
    }

    // Pieces that no cut makes small enough.
    std::vector<std::size_t> hopeless;

  private:
    [[nodiscard]] Box ink_box(const std::vector<std::size_t>& part) const {
        Box box;
        for (const std::size_t i : part) box = around(box, boxes_[i]);
        return box;
    }

    // The film that a part gets inside its cell. Cells already hold the laps at their seams.
    [[nodiscard]] Box film_for(const Box& ink, const Box& cell) const {
        const bool whole = context_.mask && context_.making.wishes.whole_margins;
        Box film = common(grown(ink, context_.making.margin), whole ? context_.available : cell);
        if (film.empty()) return ink;  // ink off the board: Lettering says so, and there is still something to show
        if (context_.span_x && cell.low.x == context_.face.low.x && cell.high.x == context_.face.high.x) {
            set_range(Axis::X, film, cell.low.x, cell.high.x);
        }
        if (context_.span_y && cell.low.y == context_.face.low.y && cell.high.y == context_.face.high.y) {
            set_range(Axis::Y, film, cell.low.y, cell.high.y);
        }
        return film;
    }

    static Score score_of(const Box& film) {
        Score score;
        score.sections = 1;
        score.film = static_cast<double>(film.width()) * static_cast<double>(film.height());
        return score;
    }

    [[nodiscard]] std::optional<Draft> as_one(const std::vector<std::size_t>& part, const Box& cell) const {
        const Box film = film_for(ink_box(part), cell);
        if (!context_.fits(film.width(), film.height())) return std::nullopt;
        Draft draft;
        draft.score = score_of(film);
        draft.parts.push_back({part, film, std::nullopt});
        return draft;
    }

    static std::vector<std::vector<std::size_t>> seam_sets(std::size_t gaps, const std::vector<std::size_t>& known) {
        std::vector<std::vector<std::size_t>> sets;
        if (gaps <= few_gaps) {
            for (unsigned mask = 1; mask < (1U << gaps); ++mask) {
                std::vector<std::size_t> set;
                for (std::size_t i = 0; i < gaps; ++i) {
                    if ((mask >> i & 1U) != 0) set.push_back(i);
                }
                sets.push_back(std::move(set));
            }
            std::stable_sort(sets.begin(), sets.end(),
                             [](const auto& a, const auto& b) { return a.size() < b.size(); });
            return sets;
        }
        std::vector<std::size_t> free;
        for (std::size_t i = 0; i < gaps; ++i) {
            if (std::find(known.begin(), known.end(), i) == known.end()) free.push_back(i);
        }
        const auto with = [&](std::vector<std::size_t> more) {
            more.insert(more.end(), known.begin(), known.end());
            std::sort(more.begin(), more.end());
            sets.push_back(std::move(more));
        };
        for (const std::size_t a : free) with({a});
        for (std::size_t a = 0; a < free.size(); ++a) {
            for (std::size_t b = a + 1; b < free.size() && sets.size() < most_sets; ++b) with({free[a], free[b]});
        }
        return sets;
    }

    // A place where a chain along `axis` may be parted, before piece `before` of the order.
    struct Candidate {
        std::size_t before = 0;
        std::int64_t where = 0;
        std::int64_t lower_end = 0;    // how far the film on the lower side reaches
        std::int64_t upper_start = 0;  // where the film on the upper side begins
        bool stepped = false;
        Length lap;
        const char* why = "";
        bool is_end = false;
        int in_words = 0;  // words that it parts
    };

    // At straight seams in those gaps; nothing where a part does not fit.
    [[nodiscard]] std::optional<Draft> divided_at(const std::vector<std::size_t>& set,
                                                  const std::vector<Candidate>& gaps,
                                                  const std::vector<std::size_t>& order, const Box& cell,
                                                  Axis axis) const {
        Draft draft;
        std::size_t first = 0;
        std::int64_t from = low(axis, cell);
        for (std::size_t n = 0; n <= set.size(); ++n) {
            const Candidate* end = n < set.size() ? &gaps[set[n]] : nullptr;
            const std::size_t last = end != nullptr ? end->before : order.size();
            const std::vector<std::size_t> pieces(order.begin() + static_cast<long>(first),
                                                  order.begin() + static_cast<long>(last));
            Box own = cell;
            set_range(axis, own, from, end != nullptr ? end->lower_end : high(axis, cell));
            const Box film = film_for(ink_box(pieces), own);
            if (!context_.fits(film.width(), film.height())) return std::nullopt;
            draft.parts.push_back({pieces, film, std::nullopt});
            draft.score = draft.score + score_of(film);
            if (end == nullptr) break;
            draft.score.in_words += end->in_words;
            draft.score.off_lines += off_line(end->where);
            draft.seams.push_back({axis,
                                   end->where,
                                   low(other(axis), cell),
                                   high(other(axis), cell),
                                   false,
                                   end->lap,
                                   {},
                                   {end->why, {{"lap", end->lap}, {"off", off_neighbour}}}});
            first = last;
            from = end->upper_start;
        }
        return draft;
    }

    std::vector<Draft> solve(const std::vector<std::size_t>& part, const Box& cell, int depth,
                             std::optional<Axis> not_along) {
        if (part.empty()) return {Draft{}};
        std::vector<Draft> found;
        if (auto one = as_one(part, cell)) return {std::move(*one)};
        for (const Axis axis : {Axis::Y, Axis::X}) {
            if (axis == not_along || context_.stop.stop_requested()) continue;
            for (Draft& draft : chain(part, cell, axis, depth)) found.push_back(std::move(draft));
        }
        if (found.empty() && part.size() == 1) {
            if (auto cut = cross(part.front(), cell)) found.push_back(std::move(*cut));
        }
        keep_best(found, most_choices);
        return found;
    }

    static void keep_best(std::vector<Draft>& drafts, std::size_t most) {
        std::stable_sort(drafts.begin(), drafts.end(),
                         [](const Draft& a, const Draft& b) { return a.score < b.score; });
        if (drafts.size() > most) drafts.resize(most);
    }

    [[nodiscard]] std::vector<std::size_t> in_order(std::vector<std::size_t> part, Axis axis) const {
        std::stable_sort(part.begin(), part.end(), [&](std::size_t a, std::size_t b) {
            return low(axis, boxes_[a]) + high(axis, boxes_[a]) < low(axis, boxes_[b]) + high(axis, boxes_[b]);
        });
        return part;
    }

    [[nodiscard]] std::vector<Candidate> candidates(const std::vector<std::size_t>& order, const Box& cell, Axis axis) {
        every_line_ = order.size() <= few_pieces;
        std::vector<Candidate> out{{0, low(axis, cell), low(axis, cell), low(axis, cell), false, {}, "", true}};
        std::vector<std::int64_t> next_low(order.size() + 1, std::numeric_limits<std::int64_t>::max());
        for (std::size_t i = order.size(); i-- > 0;)
            next_low[i] = std::min(next_low[i + 1], low(axis, boxes_[order[i]]));
        std::int64_t last_high = std::numeric_limits<std::int64_t>::min();
        for (std::size_t i = 1; i < order.size(); ++i) {
            last_high = std::max(last_high, high(axis, boxes_[order[i - 1]]));
            if (next_low[i] < last_high && interlocked(order, axis, next_low[i], last_high, i) > most_interlocked)
                continue;
            const std::size_t first = out.size();
            add_candidates(out, i, last_high, next_low[i]);
            out.erase(std::remove_if(out.begin() + static_cast<long>(first), out.end(),
                                     [&](const Candidate& c) { return context_.forbidden(axis, c.where, cell); }),
                      out.end());
            const int in_words = out.size() > first ? words_parted(order, axis, i) : 0;
            for (std::size_t k = first; k < out.size(); ++k) out[k].in_words = in_words;
        }
        out.push_back({order.size(), high(axis, cell), high(axis, cell), high(axis, cell), false, {}, "", true});
        return out;
    }

    // On how many lines a seam before piece `before` of the order comes between letters of one word.
    [[nodiscard]] int words_parted(const std::vector<std::size_t>& order, Axis axis, std::size_t before) const {
        std::map<int, std::pair<std::int64_t, bool>> next;  // of each line: where its next piece begins; starts a word
        for (std::size_t k = before; k < order.size(); ++k) {
            const Piece& p = pieces_[order[k]];
            if (p.art) continue;
            const std::int64_t at = low(axis, boxes_[order[k]]);
            const auto known = next.find(p.line);
            if (known == next.end() || at < known->second.first) next[p.line] = {at, p.starts_word};
        }
        std::set<int> parted;
        for (std::size_t k = 0; k < before; ++k) {
            const Piece& p = pieces_[order[k]];
            const auto known = next.find(p.line);
            if (!p.art && known != next.end() && !known->second.second) parted.insert(p.line);
        }
        return static_cast<int>(parted.size());
    }

    // How many outlines reach into the strip where the two sides of a seam overlap.
    [[nodiscard]] int interlocked(const std::vector<std::size_t>& order, Axis axis, std::int64_t from, std::int64_t to,
                                  std::size_t around_here) const {
        int count = 0;
        constexpr std::size_t window = 64;  // enough to pass the limit where letters stand that close
        const std::size_t first = around_here > window ? around_here - window : 0;
        for (std::size_t i = first; i < std::min(order.size(), around_here + window); ++i) {
            const Box& box = boxes_[order[i]];
            if (low(axis, box) < to && high(axis, box) > from) ++count;
        }
        return count;
    }

    // Seams in the gap between ink that ends at `from` and ink that begins at `to`.
    void add_candidates(std::vector<Candidate>& out, std::size_t before, std::int64_t from, std::int64_t to) const {
        const std::int64_t off = to_grid(off_neighbour);
        const std::int64_t margin = to_grid(context_.making.margin);
        const std::int64_t gap = to - from;
        if (gap < 0) {
            if (-gap <= deepest_step) {
                // Each side keeps its whole margin, and is cut back around the other's outlines.
                out.push_back({before, (from + to) / 2, from + margin, to - margin, true, {}, "seam.stepped"});
            }
            return;
        }
        if (!context_.mask) {
            const std::int64_t where = nearest_line(from, to);
            out.push_back({before, where, where, where, false, {}, "seam.free-film"});
            return;
        }
        const std::int64_t lap = to_grid(context_.making.lap);
        if (gap < lap + 2 * off || lap == 0) {
            const std::int64_t where = gap < 2 * off ? (from + to) / 2 : nearest_line(from + off, to - off);
            out.push_back({before, where, where, where, false, {}, lap == 0 ? "seam.butt" : "seam.narrow-gap"});
            return;
        }
        // Where the gap is narrower than two margins both films must reach the seam, so that paint meets film all the
        // way; where it is wider each must get its whole margin.
        std::int64_t first = from + off + lap / 2;
        std::int64_t last = to - off - lap / 2;
        if (gap <= 2 * margin - lap) {
            first = std::max(first, to - margin + lap / 2);
            last = std::min(last, from + margin - lap / 2);
        } else {
            first = std::max(first, from + margin - lap / 2);
            last = std::min(last, to - margin + lap / 2);
        }
        if (first > last) first = last = (from + to) / 2;
        const std::int64_t sixteenth = to_grid(0.0625_in);
        const auto line_up = [&](std::int64_t at) { return (at + sixteenth - 1) / sixteenth * sixteenth; };
        const std::int64_t middle = line_up((first + last) / 2);
        std::vector<std::int64_t> places{nearest_line(first, last), std::min(last, line_up(first)),
                                         std::max(first, last / sixteenth * sixteenth),
                                         std::clamp(middle, first, last)};
        if (every_line_) {
            for (std::int64_t at = line_up(first); at <= last; at += sixteenth) places.push_back(at);
        }
        std::sort(places.begin(), places.end());
        places.erase(std::unique(places.begin(), places.end()), places.end());
        for (const std::int64_t where : places) {
            out.push_back({before, where, where + lap / 2, where - lap / 2, false, from_grid(lap), "seam.in-gap"});
        }
    }

    // How one state of a chain was reached: from which state of an earlier seam, and what lies between.
    struct Step {
        Score score;
        std::size_t from = 0, rank = 0;
        std::size_t middle = as_one_section;  // else a place in the list of divided middles
    };
    static constexpr std::size_t as_one_section = std::numeric_limits<std::size_t>::max();

    // The best chains of sections along `axis`: a shortest path over candidate seams, the best few kept at each.
    std::vector<Draft> chain(const std::vector<std::size_t>& part, const Box& cell, Axis axis, int depth) {
        const std::vector<std::size_t> order = in_order(part, axis);
        const std::vector<Candidate> seams = candidates(order, cell, axis);
        if (seams.size() == 2) return {};
        std::vector<std::vector<Step>> best(seams.size());
        best[0].push_back({});
        std::vector<Draft> middles;
        const std::int64_t longest = context_.longest();
        for (std::size_t to = 1; to < seams.size(); ++to) {
            Box ink;
            std::size_t reached = seams[to].before;
            for (std::size_t from = to; from-- > 0;) {
                if (context_.stop.stop_requested()) return {};
                for (; reached > seams[from].before; --reached) ink = around(ink, boxes_[order[reached - 1]]);
                const bool whole = from == 0 && to + 1 == seams.size();
                if (seams[from].before == seams[to].before || best[from].empty() || whole) continue;
                ++steps_;
                Box own = cell;
                set_range(axis, own, seams[from].upper_start, seams[to].lower_end);
                const Box film = film_for(ink, own);
                if (context_.fits(film.width(), film.height())) {
                    extend(best, from, to, seams[to], score_of(film), as_one_section);
                    continue;
                }
                const std::size_t count = seams[to].before - seams[from].before;
                const std::int64_t length = high(axis, ink) - low(axis, ink);
                const bool too_long = length > longest;
                // What is more than twice too long is better parted on this axis first.
                if (length > 2 * longest && count > 1) break;
                if (may_divide(seams, from, to, ink, axis, depth)) {
                    const std::vector<std::size_t> between(order.begin() + static_cast<long>(seams[from].before),
                                                           order.begin() + static_cast<long>(seams[to].before));
                    std::vector<Draft> found = solve(between, own, depth + 1, axis);
                    keep_best(found, 2);
                    for (Draft& draft : found) {
                        middles.push_back(std::move(draft));
                        extend(best, from, to, seams[to], middles.back().score, middles.size() - 1);
                    }
                } else if (too_long && count > 1) {
                    break;  // chains that begin further down are longer still
                }
            }
            keep_few(best[to]);
        }
        std::vector<Draft> drafts;
        for (const Step& last : best.back()) drafts.push_back(followed(last, best, seams, middles, order, cell, axis));
        return drafts;
    }

    // A part that fits no way as one may be divided along the other axis: when it is a single piece, or a row between
    // straight seams that is longer than the mat; and only while the search has steps left.
    [[nodiscard]] bool may_divide(const std::vector<Candidate>& seams, std::size_t from, std::size_t to, const Box& ink,
                                  Axis axis, int depth) const {
        if (depth >= 2) return false;
        if (seams[to].before - seams[from].before == 1) return true;
        if (seams[from].stepped || seams[to].stepped || steps_ > most_steps) return false;
        const std::int64_t longest = context_.longest();
        return high(other(axis), ink) - low(other(axis), ink) > longest;
    }

    static void extend(std::vector<std::vector<Step>>& best, std::size_t from, std::size_t to, const Candidate& end,
                       const Score& middle, std::size_t which) {
        Score seam;
        if (!end.is_end) {
            seam.stepped = end.stepped ? 1 : 0;
            seam.in_words = end.in_words;
            seam.off_lines = end.stepped ? 4 : off_line(end.where);
        }
        // Kept in order, no more than may be wanted.
        const std::size_t most = to + 1 == best.size() ? most_choices : most_per_seam;
        std::vector<Step>& kept = best[to];
        for (std::size_t rank = 0; rank < best[from].size(); ++rank) {
            Step step{best[from][rank].score + middle + seam, from, rank, which};
            const auto before = [](const Step& a, const Step& b) { return a.score < b.score; };
            if (kept.size() == most && !before(step, kept.back())) continue;
            kept.insert(std::upper_bound(kept.begin(), kept.end(), step, before), std::move(step));
            if (kept.size() > most) kept.pop_back();
        }
    }

    // None with more than one section over the fewest.
    static void keep_few(std::vector<Step>& steps) {
        if (steps.empty()) return;
        const int fewest = steps.front().score.sections;
        std::erase_if(steps, [&](const Step& s) { return s.score.sections > fewest + 1; });
    }

    [[nodiscard]] Draft followed(const Step& last, const std::vector<std::vector<Step>>& best,
                                 const std::vector<Candidate>& seams, const std::vector<Draft>& middles,
                                 const std::vector<std::size_t>& order, const Box& cell, Axis axis) const {
        Draft draft;
        draft.score = last.score;
        Step step = last;
        for (std::size_t to = best.size() - 1; to > 0;) {
            const std::size_t from = step.from;
            if (step.middle == as_one_section) {
                const std::vector<std::size_t> pieces(order.begin() + static_cast<long>(seams[from].before),
                                                      order.begin() + static_cast<long>(seams[to].before));
                Box own = cell;
                set_range(axis, own, seams[from].upper_start, seams[to].lower_end);
                draft.parts.push_back({pieces, film_for(ink_box(pieces), own), std::nullopt});
            } else {
                const Draft& middle = middles[step.middle];
                draft.parts.insert(draft.parts.end(), middle.parts.begin(), middle.parts.end());
                draft.seams.insert(draft.seams.end(), middle.seams.begin(), middle.seams.end());
            }
            const Candidate& end = seams[to];
            if (!end.is_end) {
                const Reason why{end.why, {{"lap", end.lap}, {"off", off_neighbour}}};
                draft.seams.push_back(
                    {axis, end.where, low(other(axis), cell), high(other(axis), cell), end.stepped, end.lap, {}, why});
            }
            to = from;
            if (to > 0) step = best[from][step.rank];
        }
        return draft;
    }

    // One piece larger than the room: the fewest straight cuts, where they meet least ink.
    std::optional<Draft> cross(std::size_t piece, const Box& cell) {
        // The same piece comes again for every pair of seams around it; a few of them are enough.
        constexpr int most_tries = 6;
        if (++crossings_tried_[piece] > most_tries) return std::nullopt;
        const Box film = film_for(boxes_[piece], cell);
        auto best = cross_both_ways(piece, film, film, 0);
        if (!best) hopeless.push_back(piece);
        return best;
    }

    // `own`: the part of the piece that is divided here. What is too large both ways is cut one way, then the other.
    [[nodiscard]] std::optional<Draft> cross_both_ways(std::size_t piece, const Box& film, const Box& own,
                                                       int depth) const {
        const std::int64_t short_side = std::min(to_grid(context_.room.across), to_grid(context_.room.along));
        const std::int64_t long_side = std::max(to_grid(context_.room.across), to_grid(context_.room.along));
        std::optional<Draft> best;
        for (const Axis axis : {Axis::Y, Axis::X}) {
            const std::int64_t wide = high(other(axis), film) - low(other(axis), film);
            // Film with a direction has one room for each axis.
            const std::int64_t most_wide = context_.room.turns ? long_side
                                           : axis == Axis::Y   ? to_grid(context_.room.across)
                                                               : to_grid(context_.room.along);
            const std::int64_t longest = !context_.room.turns
                                             ? to_grid(axis == Axis::Y ? context_.room.along : context_.room.across)
                                         : wide > short_side && wide <= long_side ? short_side
                                                                                  : long_side;
            if (wide > most_wide && depth > 0) continue;
            auto cut = cross_along(piece, film, own, axis, longest);
            if (cut && wide > most_wide) cut = crossed_again(*cut, depth);
            if (cut && (!best || cut->score < best->score)) best = std::move(cut);
        }
        return best;
    }

    [[nodiscard]] std::optional<Draft> crossed_again(const Draft& strips, int depth) const {
        Draft all = strips;
        all.parts.clear();
        all.score.sections = 0;
        for (const Part& strip : strips.parts) {
            const auto cut = cross_both_ways(strip.pieces.front(), strip.film, *strip.cell, depth + 1);
            if (!cut) return std::nullopt;
            all.score = all.score + cut->score;
            all.parts.insert(all.parts.end(), cut->parts.begin(), cut->parts.end());
            all.seams.insert(all.seams.end(), cut->seams.begin(), cut->seams.end());
        }
        return all;
    }

    [[nodiscard]] std::optional<Draft> cross_along(std::size_t piece, const Box& film, const Box& own, Axis axis,
                                                   std::int64_t longest) const {
        const Region ink_here = intersect(pieces_[piece].shape, Region::rectangle(own));
        const std::int64_t half_lap = to_grid(context_.making.lap) / 2;
        const std::int64_t start = low(axis, film);
        const std::int64_t end = high(axis, film);
        const std::int64_t step = std::max(to_grid(0.125_in), (end - start) / static_cast<std::int64_t>(most_cuts));
        std::vector<std::int64_t> where{start};
        for (std::int64_t at = (start / step + 1) * step; at < end; at += step) {
            if (!context_.forbidden(axis, at, film)) where.push_back(at);
        }
        where.push_back(end);
        struct Best {
            Score score;
            std::size_t from = 0;
            bool reached = false;
        };
        std::vector<Best> best(where.size());
        best[0].reached = true;
        const std::vector<Length> inks = crossed(ink_here, axis, where);
        for (std::size_t to = 1; to < where.size(); ++to) {
            const bool last = to + 1 == where.size();
            const Length ink = last ? Length{} : inks[to];
            for (std::size_t from = to; from-- > 0;) {
                const std::int64_t length =
                    where[to] - where[from] + (last ? 0 : half_lap) + (from == 0 ? 0 : half_lap);
                if (length > longest) break;
                if (!best[from].reached) continue;
                Score score = best[from].score;
                ++score.sections;
                score.crossings += ink > Length{} ? 1 : 0;
                score.crossed += ink.nm();
                // Even sections, other things equal.
                score.film += static_cast<double>(length) * static_cast<double>(length);
                const bool fewer = score.sections < best[to].score.sections;
                const bool same = score.sections == best[to].score.sections;
                if (!best[to].reached || fewer || (same && score < best[to].score)) best[to] = {score, from, true};
            }
        }
        if (!best.back().reached) return std::nullopt;
        Draft draft;
        draft.score = best.back().score;
        draft.score.film = static_cast<double>(film.width()) * static_cast<double>(film.height());
        for (std::size_t to = where.size() - 1; to > 0; to = best[to].from) {
            const std::size_t from = best[to].from;
            Box cell = own;  // only the ink in here is this part's own
            set_range(axis, cell, from == 0 ? low(axis, own) : where[from],
                      to + 1 == where.size() ? high(axis, own) : where[to]);
            Box with_lap = film;
            set_range(axis, with_lap, from == 0 ? where[from] : where[from] - half_lap,
                      to + 1 == where.size() ? where[to] : where[to] + half_lap);
            draft.parts.insert(draft.parts.begin(), {{piece}, with_lap, cell});
            if (from == 0) continue;
            const Length ink = inks[from];
            draft.seams.insert(draft.seams.begin(),
                               {axis,
                                where[from],
                                low(other(axis), film),
                                high(other(axis), film),
                                false,
                                context_.making.lap,
                                ink,
                                {"seam.crosses", {{"letters", pieces_[piece].letters}, {"ink", ink}}}});
        }
        return draft;
    }

    const std::vector<Piece>& pieces_;
    std::vector<Box> boxes_;
    Context context_;
    long steps_ = 0;
    std::map<std::size_t, int> crossings_tried_;
    bool every_line_ = false;  // seams on every sixteenth of a gap, not only the most useful ones
};

Section section_of(const Part& part, const std::vector<Piece>& pieces, bool mask, Region film) {
    Section section;
    section.film = std::move(film);
    std::vector<std::size_t> order = part.pieces;
    std::sort(order.begin(), order.end(),
              [&](std::size_t a, std::size_t b) { return pieces[a].first < pieces[b].first; });
    std::vector<Region> openings;
    for (const std::size_t i : order) {
        Piece piece = pieces[i];
        if (part.cell) piece.shape = intersect(intersect(piece.shape, Region::rectangle(*part.cell)), section.film);
        const Region opening = part.cell ? intersect(pieces[i].shape, section.film) : piece.shape;
        // A lap may reach over ink that is all another part's: there, too, the mask is open.
        if (piece.shape.empty()) {
            if (!opening.empty()) openings.push_back(opening);
            continue;
        }
        if (mask) {
            for (Region& hole : holes(opening)) section.keepers.push_back({piece.letters, std::move(hole)});
        }
        // Marks without a name (of a ruler, a grid) are not spelt out one by one.
        if (!section.letters.empty() && !piece.letters.empty()) {
            section.letters += piece.line != section.pieces.back().line ? " / " : piece.starts_word ? " " : "";
        }
        section.letters += piece.letters;
        section.letter_count += static_cast<int>(letters_of(piece.letters).size());
        openings.push_back(opening);
        section.pieces.push_back(std::move(piece));
    }
    // Film that only covers, where a margin is larger than the bed, is laid as well.
    if (section.letters.empty()) section.letters = section.pieces.empty() ? "cover" : "marks";
    section.cut = merge(openings);
    return section;
}

// From the top down, then left to right: the order in which sections are numbered and laid.
void number(std::vector<Part>& parts) {
    std::stable_sort(parts.begin(), parts.end(),
                     [](const Part& a, const Part& b) { return a.film.high.y > b.film.high.y; });
    // Rows: what overlaps the highest one by more than half stands beside it.
    for (auto row = parts.begin(); row != parts.end();) {
        const Box top = row->film;
        const auto end = std::stable_partition(row, parts.end(), [&](const Part& p) {
            const std::int64_t shared = std::min(top.high.y, p.film.high.y) - std::max(top.low.y, p.film.low.y);
            return shared > std::min(top.height(), p.film.height()) / 2;
        });
        std::stable_sort(row, end, [](const Part& a, const Part& b) { return a.film.low.x < b.film.low.x; });
        row = std::max(end, std::next(row));
    }
}

// Where seams are stepped, films reach past their neighbours' outlines and are cut back around them. A neighbour's eyes
// are waste here: film inside them would hang loose.
Region neighbours_of(const Part& part, const std::vector<Piece>& pieces) {
    std::vector<Region> near;
    std::vector<Region> own;
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        const bool mine = std::find(part.pieces.begin(), part.pieces.end(), i) != part.pieces.end();
        if (mine) {
            own.push_back(pieces[i].shape);
        } else if (pieces[i].shape.bounds().meets(part.film)) {
            const Region kept_off = grow(pieces[i].shape, off_neighbour);
            near.push_back(kept_off);
            for (Region& eye : holes(kept_off)) near.push_back(std::move(eye));
        }
    }
    return subtract(merge(near), merge(own));
}

void in_order_of_place(std::vector<Seam>& seams) {
    std::stable_sort(seams.begin(), seams.end(), [](const Seam& a, const Seam& b) {
        return a.axis == Axis::Y && b.axis == Axis::Y ? a.where > b.where : a.where < b.where;
    });
}

Division finish(Draft draft, const Context& context) {
    Division division;
    division.parts = std::move(draft.parts);
    number(division.parts);
    division.seams = std::move(draft.seams);
    in_order_of_place(division.seams);
    division.off_lines = draft.score.off_lines;
    division.in_words = draft.score.in_words;
    division.crossings = draft.score.crossings;
    division.crossed = Length::nanometres(draft.score.crossed);
    division.spans_face = (context.span_x || context.span_y) && context.mask;
    return division;
}

// A lower bound, for telling a slip of the hand from a large sign before any search.
double least_sections(const std::vector<Piece>& pieces, const Room& room) {
    const double area = grid_to_mm(std::max<std::int64_t>(1, to_grid(room.across))) *
                        grid_to_mm(std::max<std::int64_t>(1, to_grid(room.along)));
    double boxes = 0;
    for (const Piece& piece : pieces) {
        const Box box = piece.shape.bounds();
        boxes += std::max(0.0, grid_to_mm(box.width()) * grid_to_mm(box.height()) / area - 1);
    }
    return boxes;
}

// Choices for each cell put together: the best few of all ways.
std::vector<Division> together(const std::vector<std::vector<Division>>& cells) {
    if (cells.size() == 1) return cells.front();
    constexpr std::size_t few = 6;
    std::vector<Division> all{Division{}};
    for (const std::vector<Division>& cell : cells) {
        std::vector<Division> longer;
        for (const Division& a : all) {
            for (std::size_t i = 0; i < std::min(few, cell.size()); ++i) {
                const Division& b = cell[i];
                Division both = a;
                both.parts.insert(both.parts.end(), b.parts.begin(), b.parts.end());
                both.seams.insert(both.seams.end(), b.seams.begin(), b.seams.end());
                both.off_lines += b.off_lines;
                both.in_words += b.in_words;
                both.crossings += b.crossings;
                both.crossed += b.crossed;
                both.spans_face = both.spans_face || b.spans_face;
                longer.push_back(std::move(both));
            }
        }
        std::stable_sort(longer.begin(), longer.end(), [](const Division& a, const Division& b) {
            return std::tuple(a.crossings, a.crossed, a.parts.size(), a.in_words, a.off_lines) <
                   std::tuple(b.crossings, b.crossed, b.parts.size(), b.in_words, b.off_lines);
        });
        if (longer.size() > most_choices) longer.resize(most_choices);
        all = std::move(longer);
    }
    return all;
}

// From a cell's own pieces to those of the face; ink beyond the wanted seams belongs to others, but the film is open
// there as well.
void name_pieces(Division& division, const WishedCell& cell, const std::vector<Piece>& pieces) {
    for (Part& part : division.parts) {
        std::vector<std::size_t> of;
        for (const std::size_t i : part.pieces) of.insert(of.end(), cell.of[i].begin(), cell.of[i].end());
        if (cell.own) {
            // Beyond the seam everything is open that lies under the lap.
            part.cell = part.cell ? common(*part.cell, *cell.own) : *cell.own;
            const Region film = Region::rectangle(part.film);
            const Region own = Region::rectangle(*part.cell);
            for (std::size_t i = 0; i < pieces.size(); ++i) {
                const Box box = pieces[i].shape.bounds();
                if (std::find(of.begin(), of.end(), i) != of.end() || !box.meets(part.film)) continue;
                if (intersect(pieces[i].shape, own).empty() && !intersect(pieces[i].shape, film).empty())
                    of.push_back(i);
            }
        }
        part.pieces = std::move(of);
    }
}

// Film that any division needs: the strip of the face between the outer margins, or the ink itself.
double least_film(const std::vector<Piece>& pieces, const Box& available, const Context& context) {
    double ink = 0;
    Box box;
    for (const Piece& piece : pieces) {
        ink += piece.shape.area_mm2();
        box = around(box, piece.shape.bounds());
    }
    if (!context.mask || pieces.empty()) return ink;
    const Box strip = common(grown(box, context.making.margin), available);
    if (context.span_x != context.span_y) {
        const double length = grid_to_mm(context.span_x ? strip.height() : strip.width());
        // Gaps wider than two margins need no film; narrower ones are covered.
        const Axis axis = context.span_x ? Axis::Y : Axis::X;
        std::vector<std::pair<std::int64_t, std::int64_t>> spans;
        for (const Piece& piece : pieces)
            spans.emplace_back(low(axis, piece.shape.bounds()), high(axis, piece.shape.bounds()));
        std::sort(spans.begin(), spans.end());
        double free = 0;
        std::int64_t reach = spans.front().second;
        for (const auto& [from, to] : spans) {
            free += std::max(0.0, grid_to_mm(from - reach - 2 * to_grid(context.making.margin)));
            reach = std::max(reach, to);
        }
        return (length - free) * grid_to_mm(context.span_x ? context.face.width() : context.face.height());
    }
    return ink;
}

Divisions divide_close(const std::vector<Piece>& pieces, Context context, const std::stop_token& stop) {
    Divisions out;
    if (pieces.empty()) {
        out.choices.push_back({});
        return out;
    }
    if (const double least = least_sections(pieces, context.room); least > most_sections) {
        out.problems.push_back({{"sections.too-many", {{"sections", static_cast<std::int64_t>(least)}}},
                                "sections",
                                {"sections.larger-mat", {}},
                                Mark::Stop});
        return out;
    }
    Divider divider(pieces, context);
    std::vector<std::size_t> part(pieces.size());
    std::iota(part.begin(), part.end(), 0);
    std::vector<Draft> drafts = divider.divide_all(part, context.available);
    // Without the pieces that fit no way, the others can still be planned.
    std::set<std::size_t> left_out;
    while (drafts.empty() && left_out.size() < pieces.size() && !stop.stop_requested()) {
        const std::size_t before = left_out.size();
        left_out.insert(divider.hopeless.begin(), divider.hopeless.end());
        if (left_out.size() == before) break;
        std::erase_if(part, [&](std::size_t i) { return left_out.contains(i); });
        drafts = divider.divide_all(part, context.available);
    }
    for (const std::size_t i : left_out) {
        out.problems.push_back(
            {{"sections.piece-too-large",
              {{"letters", pieces[i].letters}, {"across", context.room.across}, {"along", context.room.along}}},
             "sections",
             {"sections.larger-mat", {}},
             Mark::Stop});
    }
    if (drafts.empty()) {
        if (out.problems.empty() && !stop.stop_requested()) {
            out.problems.push_back(
                {{"sections.no-division", {{"across", context.room.across}, {"along", context.room.along}}},
                 "sections",
                 {"sections.larger-mat", {}},
                 Mark::Stop});
        }
        return out;
    }
    const int fewest = drafts.front().score.sections;
    const int crossings = drafts.front().score.crossings;
    if (crossings == 0 && fewest > 1 && fewest <= most_refined) {
        const Draft base = drafts.front();
        for (const Axis axis : {Axis::Y, Axis::X}) {
            for (Draft& finer : divider.every_set(part, context.available, axis, base)) {
                if (finer.score.sections > fewest) out.finer.push_back(finish(std::move(finer), context));
            }
        }
        std::stable_sort(out.finer.begin(), out.finer.end(),
                         [](const Division& a, const Division& b) { return a.parts.size() < b.parts.size(); });
    }
    for (Draft& draft : drafts) {
        const bool worse = draft.score.crossings > crossings || draft.score.sections > fewest + 1;
        if (!worse) out.choices.push_back(finish(std::move(draft), context));
    }
    out.least_film_mm2 = least_film(pieces, context.available, context);
    return out;
}

// Pieces whose films lie far apart, in groups: the film between them would be wasted.
std::vector<std::vector<std::size_t>> far_groups(const std::vector<Piece>& pieces, const Context& context) {
    const Length apart = std::max(context.making.margin, wide_gap / 2);
    std::vector<Box> films;
    for (const Piece& p : pieces) {
        Box film = grown(p.shape.bounds(), apart);
        // Masks that run to the edges lie side by side nowhere.
        if (context.span_x) set_range(Axis::X, film, context.face.low.x, context.face.high.x);
        if (context.span_y) set_range(Axis::Y, film, context.face.low.y, context.face.high.y);
        films.push_back(film);
    }
    std::vector<std::vector<std::size_t>> groups;
    std::vector<Box> around_groups;
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        std::vector<std::size_t> group{i};
        Box box = films[i];
        // What it touches joins it, and what that touches then.
        for (std::size_t g = 0; g < groups.size();) {
            if (!around_groups[g].meets(box)) {
                ++g;
                continue;
            }
            group.insert(group.end(), groups[g].begin(), groups[g].end());
            box = around(box, around_groups[g]);
            groups.erase(groups.begin() + static_cast<long>(g));
            around_groups.erase(around_groups.begin() + static_cast<long>(g));
            g = 0;
        }
        groups.push_back(std::move(group));
        around_groups.push_back(box);
    }
    for (auto& group : groups) std::sort(group.begin(), group.end());
    return groups;
}

// Without what the maker wishes, but for seams that may not be. Beside the divisions into fewest sections there are
// those in which groups that lie far apart never share film.
Divisions divide_found(const std::vector<Piece>& pieces, const Context& context, const std::stop_token& stop) {
    Divisions out = divide_close(pieces, context, stop);
    if (out.choices.empty() || !out.problems.empty() || stop.stop_requested()) return out;
    const auto groups = far_groups(pieces, context);
    if (groups.size() < 2 || groups.size() > most_groups) return out;
    std::vector<std::vector<Division>> each;
    for (const auto& group : groups) {
        std::vector<Piece> some;
        for (const std::size_t i : group) some.push_back(pieces[i]);
        Divisions part = divide_close(some, context, stop);
        if (part.choices.empty()) return out;
        for (Division& d : part.choices) {
            for (Part& p : d.parts) {
                for (std::size_t& i : p.pieces) i = group[i];
            }
        }
        each.push_back(std::move(part.choices));
    }
    const int crossings = out.choices.front().crossings;
    for (Division& d : together(each)) {
        if (d.crossings > crossings || out.choices.size() >= most_choices + few_apart) break;
        number(d.parts);
        in_order_of_place(d.seams);
        out.choices.push_back(std::move(d));
    }
    return out;
}

}  // namespace

Divisions divide(const std::vector<Piece>& pieces, const Box& face, const Box& available, const Room& room,
                 const MakingPlan& making, const std::stop_token& stop) {
    Context context{face, room, making, making.way == Way::PaintThrough, false, false, available, {}, stop};
    const std::int64_t short_side = std::min(to_grid(room.across), to_grid(room.along));
    // A mask as wide as the board is placed by the board's own edges; only worth it across the shorter side.
    const bool spans = context.mask && making.edges_place;
    context.span_x = spans && face.width() <= face.height() && face.width() <= short_side;
    context.span_y = spans && !context.span_x && face.height() <= short_side;
    if (!making.wishes.any() || pieces.empty()) return divide_found(pieces, std::move(context), stop);

    Wished wished = with_wishes(pieces, face, available, room, making);
    Divisions out;
    const auto take = [&](const WishedCell& cell) {
        Context here = context;
        here.never = wished.never;
        if (!making.wishes.whole_margins) here.available = cell.available;
        Divisions found = divide_found(cell.pieces, here, stop);
        const bool cannot = found.choices.empty() || std::any_of(found.problems.begin(), found.problems.end(),
                                                                 [](const Problem& p) { return p.mark == Mark::Stop; });
        if (cannot && !wished.never.empty() && !stop.stop_requested()) {
            // The nearest thing that can be is the division without what was asked.
            here.never.clear();
            Divisions without = divide_found(cell.pieces, here, stop);
            if (!without.choices.empty() && without.problems.size() < found.problems.size() + 1) {
                found = std::move(without);
                out.problems.push_back({{"wish.never-impossible", {{"along", std::max(room.along, room.across)}}},
                                        "sections",
                                        {"wish.never-remedy", {}},
                                        Mark::Look});
            }
        }
        for (Division& d : found.choices) name_pieces(d, cell, pieces);
        if (wished.cells.size() == 1 && wished.apart.empty() && !cell.own) {
            for (Division& d : found.finer) name_pieces(d, cell, pieces);
            out.finer = std::move(found.finer);
        }
        out.problems.insert(out.problems.end(), found.problems.begin(), found.problems.end());
        out.least_film_mm2 += found.least_film_mm2;
        return std::move(found.choices);
    };
    std::vector<std::vector<Division>> cells;
    for (const WishedCell& cell : wished.cells) {
        if (!cell.pieces.empty()) cells.push_back(take(cell));
    }
    for (const std::size_t i : wished.apart) {
        context.span_x = context.span_y = false;
        cells.push_back(take({available, std::nullopt, {pieces[i]}, {{i}}}));
    }
    std::erase_if(cells, [](const std::vector<Division>& c) { return c.empty(); });
    if (stop.stop_requested() || cells.empty()) {
        out.choices.clear();
        return out;
    }
    out.choices = together(cells);
    out.problems.insert(out.problems.end(), wished.problems.begin(), wished.problems.end());
    for (Division& d : out.choices) {
        for (const Seam& s : wished.seams) {
            d.crossings += s.crossed > Length{} ? 1 : 0;
            d.crossed += s.crossed;
        }
        d.seams.insert(d.seams.end(), wished.seams.begin(), wished.seams.end());
        number(d.parts);
        in_order_of_place(d.seams);
    }
    return out;
}

std::optional<int> slant_for(std::int64_t width, std::int64_t height, const Room& room) {
    if (!room.slants || !room.turns) return std::nullopt;
    const auto a = static_cast<double>(to_grid(room.across)) - 2;  // rounded corners
    const auto b = static_cast<double>(to_grid(room.along)) - 2;
    const auto w = static_cast<double>(width);
    const auto h = static_cast<double>(height);
    constexpr int step = 50;
    for (int slant = step; slant < 90'000; slant += step) {
        const double angle = slant * (std::numbers::pi / 180'000);
        const double c = std::cos(angle);
        const double s = std::sin(angle);
        if (w * c + h * s <= a && w * s + h * c <= b) return slant;
    }
    return std::nullopt;
}

std::vector<Lay> lays_of(const std::vector<Section>& sections) {
    std::vector<Lay> lays;
    for (std::size_t i = 0; i < sections.size(); ++i) {
        lays.push_back({i, 0, {}, sections[i].pass});
        for (std::size_t k = 0; k < sections[i].again.size(); ++k)
            lays.push_back({i, k + 1, sections[i].again[k], sections[i].pass + static_cast<int>(k) + 1});
    }
    std::stable_sort(lays.begin(), lays.end(), [](const Lay& a, const Lay& b) { return a.pass < b.pass; });
    return lays;
}

std::vector<Section> sections_of(const Division& division, const std::vector<Piece>& pieces, const MakingPlan& making) {
    const bool interlocked = !making.wishes.whole_margins && std::any_of(division.seams.begin(), division.seams.end(),
                                                                         [](const Seam& s) { return s.stepped; });
    std::vector<Section> sections;
    const bool mask = making.way == Way::PaintThrough;
    for (const Part& part : division.parts) {
        const Region film = Region::rectangle(part.film);
        if (!interlocked) {
            sections.push_back(section_of(part, pieces, mask, film));
            continue;
        }
        // Cut back around a neighbour's outlines, film may fall apart. What holds none of its own ink is no part of it,
        // and what does is a section by itself.
        std::set<std::size_t> left(part.pieces.begin(), part.pieces.end());
        for (Region& own : islands(subtract(film, neighbours_of(part, pieces)))) {
            Part here = part;
            std::erase_if(here.pieces, [&](std::size_t i) {
                // A piece that is itself divided may lie in several; any other in the first that it touches.
                const bool in = (part.cell || left.contains(i)) && own.bounds().meets(pieces[i].shape.bounds()) &&
                                touch(own, pieces[i].shape);
                return !in;
            });
            for (const std::size_t i : here.pieces) left.erase(i);
            if (!here.pieces.empty()) sections.push_back(section_of(here, pieces, mask, std::move(own)));
        }
        // A strip of a divided piece may be all margin, and then nothing that its neighbours do not cover.
        if (part.cell) {
            std::erase_if(left, [&](std::size_t i) {
                return intersect(pieces[i].shape, Region::rectangle(common(*part.cell, part.film))).empty();
            });
        }
        if (left.empty()) continue;
        Part off = part;  // ink that no film lies under: Lettering says that it is off the board
        off.pieces.assign(left.begin(), left.end());
        sections.push_back(section_of(off, pieces, mask, film));
    }
    for (Section& section : sections) {
        section.lines = weeding_lines(section, making.way, weeding_apart);
        if (making.way != Way::PaintThrough || making.tie <= Length{} || section.keepers.empty()) continue;
        Tied tied = tie_keepers(section.cut, section.keepers, making.tie);
        section.cut = std::move(tied.cut);
        section.ties = std::move(tied.ties);
        section.keepers = std::move(tied.loose);
    }
    const auto marks = match_marks(sections, division.seams, pieces);
    for (std::size_t i = 0; i < sections.size(); ++i)
        sections[i].lines.insert(sections[i].lines.end(), marks[i].begin(), marks[i].end());
    return sections;
}

}  // namespace skarvel
