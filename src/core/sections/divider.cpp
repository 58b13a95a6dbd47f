#include "sections/divider.h"

#include "sections/crossing.h"
#include "values/searches.h"
#include "values/stop.h"

#include <algorithm>
#include <cmath>
#include <iterator>
#include <tuple>

namespace skarvel::dividing {
namespace {

constexpr std::size_t most_per_seam = searches::ways_per_seam.most;
constexpr std::size_t few_per_seam = searches::few_ways_per_seam.most;
constexpr std::size_t most_between = searches::ways_between_seams.most;
constexpr long most_steps = searches::division_steps.most;
constexpr std::size_t few_gaps = searches::gaps_in_every_set.most;
constexpr std::size_t most_sets = searches::sets_of_gaps.most;
constexpr std::size_t looked_every = 64;  // pairs of places, for whether the search is wanted still

std::vector<std::vector<std::size_t>> seam_sets(std::size_t gaps, const std::vector<std::size_t>& known) {
    std::vector<std::vector<std::size_t>> sets;
    if (gaps <= few_gaps) {
        for (unsigned mask = 1; mask < (1U << gaps); ++mask) {
            std::vector<std::size_t> set;
            for (std::size_t i = 0; i < gaps; ++i) {
                if ((mask >> i & 1U) != 0) set.push_back(i);
            }
            sets.push_back(std::move(set));
        }
        std::stable_sort(sets.begin(), sets.end(), [](const auto& a, const auto& b) { return a.size() < b.size(); });
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

void keep_best(std::vector<Draft>& drafts, std::size_t most) {
    std::stable_sort(drafts.begin(), drafts.end(), [](const Draft& a, const Draft& b) { return a.score < b.score; });
    if (drafts.size() > most) drafts.resize(most);
}

Score score_of(const Place& seam, bool part_words) {
    Score score;
    if (seam.is_end) return score;
    score.stepped = seam.stepped ? 1 : 0;
    (part_words ? score.words_last : score.in_words) = seam.in_words;
    score.off_lines = seam.stepped ? 4 : off_line(seam.where);
    return score;
}

// Words, sections and seams of each kind; film and lines aside.
auto cost(const Score& score) {
    return std::tie(score.letters, score.crossings, score.crossed, score.in_words, score.sections, score.stepped);
}

// Whether the two together come to more than that.
bool cost_more(const Score& a, const Score& b, const Score& than) {
    return std::tuple(a.letters + b.letters, a.crossings + b.crossings, a.crossed + b.crossed, a.in_words + b.in_words,
                      a.sections + b.sections, a.stepped + b.stepped) > cost(than);
}

Box cut_back(Box film, const Box& room, Axis axis) {
    set_range(axis, film, std::max(low(axis, room), low(axis, film)), std::min(high(axis, room), high(axis, film)));
    return film;
}

// A division found in a wider room, in one that is narrower along `axis` and holds the same ink; and what it comes to.
Draft cut_back(Draft draft, const Score& score, const Box& room, Axis axis) {
    draft.score = score;
    for (Part& part : draft.parts) part.film = cut_back(part.film, room, axis);
    for (Seam& seam : draft.seams) {
        if (seam.axis == axis) continue;
        seam.from = std::max(low(axis, room), seam.from);
        seam.to = std::min(high(axis, room), seam.to);
    }
    return draft;
}
Score cut_back_score(const Draft& draft, const Box& room, Axis axis) {
    Score score = draft.score;
    score.film = 0;
    for (const Part& part : draft.parts) score.film += dividing::score_of(cut_back(part.film, room, axis)).film;
    return score;
}

}  // namespace

Divider::Divider(const std::vector<Piece>& pieces, Context context) : pieces_(pieces), context_(std::move(context)) {
    for (const Piece& piece : pieces) boxes_.push_back(piece.shape.bounds());
}

std::vector<Draft> Divider::divide_all(const std::vector<std::size_t>& part, const Box& available) {
    cross_small_ = false;
    std::vector<Draft> found = solve(part, available, 0, std::nullopt);
    if (!found.empty()) return found;
    cross_small_ = true;
    return solve(part, available, 0, std::nullopt);
}

std::vector<Draft> Divider::every_set(const std::vector<std::size_t>& part, const Box& cell, Axis axis,
                                      const Draft& base) {
    const std::vector<std::size_t> order = in_order(part, axis);
    std::vector<Place> gaps;
    std::vector<std::size_t> known;
    for (const Place& c : places_along(pieces_, boxes_, order, cell, axis, context_)) {
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
        look_for_stop();
        if (auto draft = divided_at(set, gaps, order, cell, axis)) drafts.push_back(std::move(*draft));
    }
    return drafts;
}

Box Divider::ink_box(const std::vector<std::size_t>& part) const {
    Box box;
    for (const std::size_t i : part) box = around(box, boxes_[i]);
    return box;
}

std::optional<Draft> Divider::as_one(const std::vector<std::size_t>& part, const Box& cell) const {
    const Box film = context_.film_for(ink_box(part), cell);
    if (!context_.fits(film.width(), film.height())) return std::nullopt;
    Draft draft;
    draft.score = score_of(film);
    draft.parts.push_back({part, film, std::nullopt});
    return draft;
}

std::optional<Draft> Divider::divided_at(const std::vector<std::size_t>& set, const std::vector<Place>& gaps,
                                         const std::vector<std::size_t>& order, const Box& cell, Axis axis) const {
    Draft draft;
    std::size_t first = 0;
    std::int64_t from = low(axis, cell);
    for (std::size_t n = 0; n <= set.size(); ++n) {
        const Place* end = n < set.size() ? &gaps[set[n]] : nullptr;
        const std::size_t last = end != nullptr ? end->before : order.size();
        const std::vector<std::size_t> pieces(order.begin() + static_cast<long>(first),
                                              order.begin() + static_cast<long>(last));
        Box own = cell;
        set_range(axis, own, from, end != nullptr ? end->lower_end : high(axis, cell));
        const Box film = context_.film_for(ink_box(pieces), own);
        if (!context_.fits(film.width(), film.height())) return std::nullopt;
        draft.parts.push_back({pieces, film, std::nullopt});
        draft.score = draft.score + score_of(film);
        if (end == nullptr) break;
        (context_.part_words() ? draft.score.words_last : draft.score.in_words) += end->in_words;
        draft.score.off_lines += off_line(end->where);
        draft.seams.push_back(seam_at(*end, cell, axis));
        first = last;
        from = end->upper_start;
    }
    return draft;
}

std::vector<Draft> Divider::solve(const std::vector<std::size_t>& part, const Box& cell, int depth,
                                  std::optional<Axis> not_along) {
    if (part.empty()) return {Draft{}};
    std::vector<Draft> found;
    if (auto one = as_one(part, cell)) return {std::move(*one)};
    for (const Axis axis : {Axis::Y, Axis::X}) {
        if (axis == not_along) continue;
        std::vector<Draft> chains = chain(part, cell, axis, depth);
        // Neither axis crowds out what may pack better along the other.
        if (depth == 0) keep_best(chains, most_along);
        std::move(chains.begin(), chains.end(), std::back_inserter(found));
    }
    if (found.empty() && part.size() == 1) {
        if (auto cut = crossed_in(part, cell)) found.push_back(std::move(*cut));
    } else if (found.empty()) {
        found = enclosed(part, cell, depth);
    }
    keep_best(found, depth == 0 ? most_choices : most_between);
    return found;
}

std::vector<std::size_t> Divider::in_order(std::vector<std::size_t> part, Axis axis) const {
    std::stable_sort(part.begin(), part.end(), [&](std::size_t a, std::size_t b) {
        return low(axis, boxes_[a]) + high(axis, boxes_[a]) < low(axis, boxes_[b]) + high(axis, boxes_[b]);
    });
    return part;
}

std::vector<Draft> Divider::chain(const std::vector<std::size_t>& part, const Box& cell, Axis axis, int depth) {
    const std::vector<std::size_t> order = in_order(part, axis);
    const std::vector<Place> seams = places_along(pieces_, boxes_, order, cell, axis, context_);
    if (seams.size() == 2) return {};
    std::vector<std::vector<Step>> best(seams.size());
    best[0].push_back({});
    std::vector<Draft> middles;
    BetweenGaps known;
    const std::int64_t longest = context_.longest();
    for (std::size_t to = 1; to < seams.size(); ++to) {
        // At the end no more than are wanted are kept.
        const bool last = to + 1 == seams.size();
        const std::size_t most = depth == 0 ? (last ? most_along : most_per_seam) : last ? most_between : few_per_seam;
        const Score seam = score_of(seams[to], context_.part_words());
        const std::size_t row = row_before(seams, to);
        Box ink;
        std::size_t reached = seams[to].before;
        look_for_stop();
        for (std::size_t from = to; from-- > 0;) {
            if (from % looked_every == 0) look_for_stop();
            for (; reached > seams[from].before; --reached) ink = around(ink, boxes_[order[reached - 1]]);
            const bool whole = from == 0 && last;
            if (seams[from].before == seams[to].before || best[from].empty() || whole) continue;
            ++steps_;
            Box own = cell;
            set_range(axis, own, seams[from].upper_start, seams[to].lower_end);
            const Box film = context_.film_for(ink, own);
            if (context_.fits(film.width(), film.height())) {
                extend(best[to], most, best[from], {seam + score_of(film), from, 0, as_one_section});
                continue;
            }
            const std::size_t count = seams[to].before - seams[from].before;
            const std::int64_t length = high(axis, ink) - low(axis, ink);
            // What is more than twice too long is better parted on this axis first.
            if (length > 2 * longest && count > 1) break;
            if (may_divide(seams, from, to, row, depth)) {
                for (Middle& found : divided_between(known, seams, from, to, order, own, axis, depth)) {
                    if (!extend(best[to], most, best[from], {seam + found.score, from, 0, middles.size()})) continue;
                    middles.push_back(found.known != nullptr ? cut_back(*found.known, found.score, own, axis)
                                                             : std::move(found.own));
                }
            }
        }
        keep_few(best[to]);
    }
    std::vector<Draft> drafts;
    for (const Step& last : best.back()) drafts.push_back(followed(last, best, seams, middles, order, cell, axis));
    return drafts;
}

// What stands before the last straight seam that lies before that place, in another gap.
std::size_t Divider::row_before(const std::vector<Place>& seams, std::size_t to) {
    for (std::size_t i = to; i-- > 0;) {
        if (!seams[i].stepped && seams[i].before < seams[to].before) return seams[i].before;
    }
    return 0;
}

// A part that fits no way as one may be divided along the other axis: when it is a single piece, or all that lies
// between straight seams.
bool Divider::may_divide(const std::vector<Place>& seams, std::size_t from, std::size_t to, std::size_t row,
                         int depth) const {
    if (depth >= 2) return false;
    if (seams[to].before - seams[from].before == 1) return true;
    if (seams[from].stepped || seams[to].stepped) return false;
    if (steps_ <= most_steps) return true;
    // Single rows are divided even then, so that a large sign is never left without any division.
    return row <= seams[from].before;
}

// What lies between the seams of two gaps is divided alike wherever in their gaps these run, unless the room for film
// decides how: it is searched in the narrowest room and in the widest, and where both come to as much, the others take
// over what was found in the widest, with their film cut back. `own`: the room between `from` and `to`.
std::vector<Divider::Middle> Divider::divided_between(BetweenGaps& known, const std::vector<Place>& seams,
                                                      std::size_t from, std::size_t to,
                                                      const std::vector<std::size_t>& order, const Box& own, Axis axis,
                                                      int depth) {
    const std::size_t first = seams[from].before;
    const std::size_t end = seams[to].before;
    const auto searched = [&](const Box& room) {
        return solve({order.begin() + static_cast<long>(first), order.begin() + static_cast<long>(end)}, room,
                     depth + 1, axis);
    };
    const auto in_own = [&] {
        std::vector<Middle> out;
        for (Draft& draft : searched(own)) out.push_back({draft.score, nullptr, std::move(draft)});
        return out;
    };
    if (end - first == 1) return in_own();
    const auto [at, fresh] = known.try_emplace({first, end});
    if (fresh) {
        auto [latest, earliest] = std::pair(low(axis, own), low(axis, own));
        auto [lowest, highest] = std::pair(high(axis, own), high(axis, own));
        for (const Place& p : seams) {
            if (p.stepped) continue;
            if (p.before == first) {
                latest = std::max(latest, p.upper_start);
                earliest = std::min(earliest, p.upper_start);
            } else if (p.before == end) {
                lowest = std::min(lowest, p.lower_end);
                highest = std::max(highest, p.lower_end);
            }
        }
        Box narrow = own;
        Box wide = own;
        set_range(axis, narrow, latest, lowest);
        set_range(axis, wide, earliest, highest);
        const std::vector<Draft> least = searched(narrow);
        at->second.never = least.empty();
        if (!least.empty() && least.front().score.crossings == 0) {
            std::vector<Draft> most = searched(wide);
            if (!most.empty() && cost(most.front().score) == cost(least.front().score))
                at->second.drafts = std::move(most);
        }
    }
    if (at->second.never) return {};
    if (at->second.drafts.empty()) return in_own();
    std::vector<Middle> found;
    for (const Draft& draft : at->second.drafts) {
        if (context_.whole_margins())
            found.push_back({draft.score, nullptr, draft});
        else
            found.push_back({cut_back_score(draft, own, axis), &draft, {}});
    }
    std::stable_sort(found.begin(), found.end(), [](const Middle& a, const Middle& b) { return a.score < b.score; });
    return found;
}

// `added`: what comes to each chain that leads here. Whether any of them is kept.
bool Divider::extend(std::vector<Step>& kept, std::size_t most, const std::vector<Step>& before, Step added) {
    const Score more = added.score;
    bool any = false;
    for (added.rank = 0; added.rank < before.size(); ++added.rank) {
        // What leads here is sorted, and stays so with the same added, as far as whole numbers go.
        if (kept.size() == most && cost_more(before[added.rank].score, more, kept.back().score)) break;
        added.score = before[added.rank].score + more;
        const auto better = [](const Step& a, const Step& b) { return a.score < b.score; };
        if (kept.size() == most && !better(added, kept.back())) continue;
        kept.insert(std::upper_bound(kept.begin(), kept.end(), added, better), added);
        if (kept.size() > most) kept.pop_back();
        any = true;
    }
    return any;
}

// None with more than one section over the fewest of those that part as few words.
void Divider::keep_few(std::vector<Step>& steps) {
    if (steps.empty()) return;
    const int fewest = steps.front().score.sections;
    std::erase_if(steps, [&](const Step& s) { return s.score.sections > fewest + 1; });
}

Draft Divider::followed(const Step& last, const std::vector<std::vector<Step>>& best, const std::vector<Place>& seams,
                        const std::vector<Draft>& middles, const std::vector<std::size_t>& order, const Box& cell,
                        Axis axis) const {
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
            draft.parts.push_back({pieces, context_.film_for(ink_box(pieces), own), std::nullopt});
        } else {
            const Draft& middle = middles[step.middle];
            draft.parts.insert(draft.parts.end(), middle.parts.begin(), middle.parts.end());
            draft.seams.insert(draft.seams.end(), middle.seams.begin(), middle.seams.end());
        }
        const Place& end = seams[to];
        if (!end.is_end) draft.seams.push_back(seam_at(end, cell, axis));
        to = from;
        if (to > 0) step = best[from][step.rank];
    }
    return draft;
}

// What no gap parts, since larger ink lies around it or outlines interlock deeply. Either the same lines cut all of it,
// through the gaps of what stands within; or the larger ink is crossed where that shows least, and what stands within
// is divided for itself and laid into it. The first is laid faster and places everything at once, so it is taken where
// it crosses hardly more and parts no more words.
std::vector<Draft> Divider::enclosed(const std::vector<std::size_t>& part, const Box& cell, int depth) {
    constexpr std::int64_t hardly = (0.25_in).nm();
    std::vector<std::size_t> outer;
    std::vector<std::size_t> inner;
    for (const std::size_t i : part) {
        const Box film = context_.film_for(boxes_[i], cell);
        (context_.fits(film.width(), film.height()) ? inner : outer).push_back(i);
    }
    if (outer.empty() && !cross_small_) return {};
    std::vector<Draft> found;
    if (auto all = crossed_in(part, cell)) found.push_back(std::move(*all));
    // Masks that are placed by the board's edges have nothing beside them.
    const bool spans = context_.mask && (context_.span_x || context_.span_y);
    if (outer.empty() || inner.empty() || spans) return found;
    std::optional<Draft> around_it = crossed_in(outer, cell);
    if (!around_it) return found;
    for (Draft& within : solve(inner, cell, std::min(depth, 1), std::nullopt)) {
        Draft both = *around_it;
        if (context_.mask) lay_into(both, within, outer, inner);
        both.score = both.score + within.score;
        std::move(within.parts.begin(), within.parts.end(), std::back_inserter(both.parts));
        std::move(within.seams.begin(), within.seams.end(), std::back_inserter(both.seams));
        const bool as_good = !found.empty() && found.front().score.letters <= both.score.letters &&
                             found.front().score.crossings <= both.score.crossings &&
                             found.front().score.in_words <= both.score.in_words &&
                             found.front().score.crossed <= both.score.crossed + hardly;
        if (as_good) break;
        found.push_back(std::move(both));
    }
    return found;
}

// Masks within others: the films around them are open where they lie, but for the lap, as far as there is no ink.
void Divider::lay_into(Draft& around_it, Draft& within, const std::vector<std::size_t>& outer,
                       const std::vector<std::size_t>& inner) {
    // Piece by piece, since the same ones come again and again.
    const auto on_ink = [&](const Box& hole) {
        return std::any_of(outer.begin(), outer.end(), [&](std::size_t i) {
            if (!grown(boxes_[i], off_neighbour).meets(hole)) return false;
            const auto known = kept_off_.find(i);
            const Region& keep = known != kept_off_.end()
                                     ? known->second
                                     : kept_off_.emplace(i, grow(pieces_[i].shape, off_neighbour)).first->second;
            return !intersect(keep, Region::rectangle(hole)).empty();
        });
    };
    for (Part& inside : within.parts) {
        inside.around.insert(inside.around.end(), outer.begin(), outer.end());
        const Box hole = grown(inside.film, Length{} - context_.making.lap);
        if (hole.empty() || on_ink(hole)) continue;
        for (Part& part : around_it.parts) {
            if (!common(part.film, hole).empty()) part.without.push_back(hole);
        }
    }
    for (Part& part : around_it.parts) part.around.insert(part.around.end(), inner.begin(), inner.end());
}

std::optional<Draft> Divider::crossed_in(const std::vector<std::size_t>& part, const Box& cell) {
    // The same pieces come again for every pair of seams around them. A few are searched; beyond, what was found in as
    // much film as there can be is cut back.
    constexpr std::size_t few_searched = searches::films_crossed_in.most;
    const Box ink = ink_box(part);
    const Box film = context_.film_for(ink, cell);
    std::vector<Crossed>& known = crossed_[part];
    const auto found_in = [&](const Box& wanted) -> const std::optional<Draft>& {
        const auto at = std::find_if(known.begin(), known.end(), [&](const Crossed& c) { return c.film == wanted; });
        if (at != known.end()) return at->draft;
        known.push_back({wanted, cross(pieces_, part, wanted, context_)});
        if (!known.back().draft) hopeless.insert(hopeless.end(), part.begin(), part.end());
        return known.back().draft;
    };
    const bool again = std::any_of(known.begin(), known.end(), [&](const Crossed& c) { return c.film == film; });
    if (again || known.size() < few_searched) return found_in(film);
    std::optional<Draft> draft = found_in(context_.film_for(ink, context_.available));
    if (!draft) return std::nullopt;
    for (const Axis axis : {Axis::X, Axis::Y}) draft = cut_back(*draft, cut_back_score(*draft, film, axis), film, axis);
    // Strips of margin alone may lie outside of the smaller film.
    const bool bare =
        std::any_of(draft->parts.begin(), draft->parts.end(), [](const Part& p) { return p.film.empty(); });
    return bare ? std::nullopt : draft;
}

}  // namespace skarvel::dividing
