#include "sections/crossing.h"

#include "sections/showing.h"
#include "values/searches.h"

#include <algorithm>
#include <map>
#include <tuple>

namespace skarvel::dividing {
namespace {

constexpr std::size_t most_cuts = searches::cuts_across.most;

// Straight cuts across the ink of some pieces.
class Crossing {
  public:
    Crossing(const std::vector<Piece>& pieces, std::vector<std::size_t> which, const Context& context)
        : pieces_(pieces), which_(std::move(which)), context_(context) {
        std::vector<Region> shapes;
        for (const std::size_t i : which_) shapes.push_back(pieces_[i].shape);
        ink_ = shapes.size() == 1 ? shapes.front() : merge(shapes);
        find_words();
    }

    std::optional<Draft> run(const Box& film) {
        std::optional<Draft> draft = both_ways(film, film, 0);
        if (draft && !context_.mask) leave_out_bare(*draft);
        return draft;
    }

  private:
    /// What a cut parts beside the ink that is larger than the room.
    struct Parts {
        int letters = 0;  ///< that would fit whole
        int words = 0;
        std::string names{};  ///< of all that it crosses
    };

    void find_words();
    [[nodiscard]] std::vector<std::int64_t> lines_across(const Box& film, const Box& own, Axis axis) const;
    [[nodiscard]] std::vector<Parts> parted(const Box& own, Axis axis, const std::vector<std::int64_t>& where) const;
    [[nodiscard]] std::vector<std::size_t> pieces_in(const Box& cell, const Box& film) const;
    [[nodiscard]] std::optional<Draft> along_one(const Box& film, const Box& own, Axis axis,
                                                 std::int64_t longest) const;
    [[nodiscard]] std::optional<Draft> crossed_again(const Draft& strips, int depth) const;
    [[nodiscard]] std::optional<Draft> both_ways(const Box& film, const Box& own, int depth) const;
    void leave_out_bare(Draft& draft) const;

    const std::vector<Piece>& pieces_;
    std::vector<std::size_t> which_;
    const Context& context_;
    Region ink_;
    std::vector<std::size_t> whole_;       // pieces that need not be crossed
    std::vector<std::vector<Box>> words_;  // the letters of each
};

// Letters follow each other in the order of their places on the face.
void Crossing::find_words() {
    if (which_.size() == 1) return;
    std::vector<std::size_t> order;
    for (const std::size_t i : which_) {
        const Box film = grown(pieces_[i].shape.bounds(), context_.making.margin);
        if (!context_.fits(film.width(), film.height())) continue;
        whole_.push_back(i);
        if (!pieces_[i].art) order.push_back(i);
    }
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
        return std::tie(pieces_[a].line, pieces_[a].first) < std::tie(pieces_[b].line, pieces_[b].first);
    });
    const Piece* before = nullptr;
    for (const std::size_t i : order) {
        const Piece& piece = pieces_[i];
        if (before == nullptr || before->line != piece.line || piece.starts_word || piece.alone) words_.emplace_back();
        words_.back().push_back(piece.shape.bounds());
        before = &piece;
    }
}

// Eighths of an inch, and between letters the lines in their gaps.
std::vector<std::int64_t> Crossing::lines_across(const Box& film, const Box& own, Axis axis) const {
    const std::int64_t start = low(axis, film);
    const std::int64_t end = high(axis, film);
    const std::int64_t step = std::max(to_grid(0.125_in), (end - start) / static_cast<std::int64_t>(most_cuts));
    std::vector<std::int64_t> lines;
    const auto add = [&](std::int64_t at) {
        if (at > start && at < end && !context_.forbidden(axis, at, film)) lines.push_back(at);
    };
    for (std::int64_t at = (start / step + 1) * step; at < end; at += step) add(at);
    std::vector<std::pair<std::int64_t, std::int64_t>> spans;
    for (const std::size_t i : whole_) {
        const Box box = common(pieces_[i].shape.bounds(), own);
        if (!box.empty()) spans.emplace_back(low(axis, box), high(axis, box));
    }
    std::sort(spans.begin(), spans.end());
    for (std::size_t i = 1; i < spans.size(); ++i) {
        spans[i].second = std::max(spans[i].second, spans[i - 1].second);
        if (spans[i].first >= spans[i - 1].second) add((spans[i].first + spans[i - 1].second) / 2);
    }
    lines.push_back(start);
    lines.push_back(end);
    std::sort(lines.begin(), lines.end());
    lines.erase(std::unique(lines.begin(), lines.end()), lines.end());
    return lines;
}

std::vector<Crossing::Parts> Crossing::parted(const Box& own, Axis axis, const std::vector<std::int64_t>& where) const {
    std::vector<Parts> parts(where.size());
    const auto within = [&](std::int64_t from, std::int64_t to) {
        const auto first = std::upper_bound(where.begin(), where.end(), from);
        return std::pair(first - where.begin(), std::lower_bound(first, where.end(), to) - where.begin());
    };
    for (const std::size_t i : which_) {
        const Box box = common(pieces_[i].shape.bounds(), own);
        if (box.empty()) continue;
        const auto [first, end] = within(low(axis, box), high(axis, box));
        if (first == end) continue;
        const bool fits = std::find(whole_.begin(), whole_.end(), i) != whole_.end();
        const Region shape = intersect(pieces_[i].shape, Region::rectangle(own));
        const std::vector<Length> ink = crossed(shape, axis, {where.begin() + first, where.begin() + end});
        for (auto at = first; at < end; ++at) {
            if (ink[static_cast<std::size_t>(at - first)] <= Length{}) continue;
            Parts& here = parts[static_cast<std::size_t>(at)];
            here.letters += fits ? 1 : 0;
            if (pieces_[i].letters.empty()) continue;
            here.names += (here.names.empty() ? "" : ", ") + pieces_[i].letters;
        }
    }
    for (const std::vector<Box>& word : words_) {
        Box all;
        for (const Box& letter : word) all = around(all, common(letter, own));
        if (all.empty()) continue;
        const auto [first, end] = within(low(axis, all), high(axis, all));
        for (auto at = first; at < end; ++at) ++parts[static_cast<std::size_t>(at)].words;
    }
    return parts;
}

// A mask is open over all ink that its film reaches; a decal holds no ink of its neighbour's but what is crossed.
std::vector<std::size_t> Crossing::pieces_in(const Box& cell, const Box& film) const {
    std::vector<std::size_t> in;
    for (const std::size_t i : which_) {
        const Box box = pieces_[i].shape.bounds();
        const Box& reach = context_.mask ? film : cell;
        if (common(box, reach).empty()) continue;
        if (reach.holds(box) || !intersect(pieces_[i].shape, Region::rectangle(reach)).empty()) in.push_back(i);
    }
    return in;
}

std::optional<Draft> Crossing::along_one(const Box& film, const Box& own, Axis axis, std::int64_t longest) const {
    const Region ink_here = intersect(ink_, Region::rectangle(own));
    const std::int64_t half_lap = to_grid(context_.making.lap) / 2;
    const std::vector<std::int64_t> where = lines_across(film, own, axis);
    struct Best {
        Score score;
        Length shows{};
        std::size_t from = 0;
        bool reached = false;
        /// No letter that fits whole is crossed to spare a section, and no word parted to cross a little less ink.
        [[nodiscard]] auto rank() const {
            return std::tuple(score.letters, score.sections, score.crossings, score.in_words, shows, score);
        }
    };
    std::vector<Best> best(where.size());
    best[0].reached = true;
    const std::vector<CutAcross> cuts = cuts_across(ink_here, axis, where, context_.mask);
    const std::vector<Parts> parts = parted(own, axis, where);
    for (std::size_t to = 1; to < where.size(); ++to) {
        const bool last = to + 1 == where.size();
        const CutAcross cut = last ? CutAcross{} : cuts[to];
        const Parts& here_parted = parts[to];
        for (std::size_t from = to; from-- > 0;) {
            const std::int64_t length = where[to] - where[from] + (last ? 0 : half_lap) + (from == 0 ? 0 : half_lap);
            if (length > longest) break;
            if (!best[from].reached) continue;
            Best here{best[from].score, best[from].shows + cut.shows, from, true};
            ++here.score.sections;
            here.score.crossings += cut.ink > Length{} ? 1 : 0;
            here.score.crossed += cut.ink.nm();
            if (!last) {
                here.score.letters += here_parted.letters;
                (context_.part_words() ? here.score.words_last : here.score.in_words) += here_parted.words;
            }
            // Even sections, other things equal.
            here.score.film += static_cast<double>(length) * static_cast<double>(length);
            if (!best[to].reached || here.rank() < best[to].rank()) best[to] = here;
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
        draft.parts.insert(draft.parts.begin(), {pieces_in(cell, with_lap), with_lap, cell});
        if (from == 0) continue;
        const Length ink = cuts[from].ink;
        std::string names = parts[from].names;
        if (names.empty()) names = pieces_[which_.front()].letters;
        Reason why{"seam.within", {{"letters", names}}};
        if (ink > Length{}) why = {"seam.crosses", {{"letters", names}, {"ink", ink}}};
        draft.seams.insert(draft.seams.begin(), {axis, where[from], low(other(axis), film), high(other(axis), film),
                                                 false, context_.making.lap, ink, std::move(why)});
    }
    return draft;
}

std::optional<Draft> Crossing::crossed_again(const Draft& strips, int depth) const {
    Draft all = strips;
    all.parts.clear();
    all.score.sections = 0;
    for (const Part& strip : strips.parts) {
        const auto cut = both_ways(strip.film, *strip.cell, depth + 1);
        if (!cut) return std::nullopt;
        all.score = all.score + cut->score;
        all.parts.insert(all.parts.end(), cut->parts.begin(), cut->parts.end());
        all.seams.insert(all.seams.end(), cut->seams.begin(), cut->seams.end());
    }
    return all;
}

// `own`: the part of the ink that is divided here. What is too large both ways is cut one way, then the other.
std::optional<Draft> Crossing::both_ways(const Box& film, const Box& own, int depth) const {
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
        auto cut = along_one(film, own, axis, longest);
        if (cut && wide > most_wide) cut = crossed_again(*cut, depth);
        if (cut && (!best || cut->score < best->score)) best = std::move(cut);
    }
    return best;
}

// The film around a decal is waste: each part takes as much as its ink needs. One without ink is not cut, and what
// would lie beside it has no seam there.
void Crossing::leave_out_bare(Draft& draft) const {
    std::erase_if(draft.parts,
                  [&](const Part& part) { return intersect(ink_, Region::rectangle(*part.cell)).empty(); });
    for (Part& part : draft.parts) {
        const Box ink = intersect(ink_, Region::rectangle(part.film)).bounds();
        part.film = common(part.film, grown(ink, context_.making.margin));
    }
    std::erase_if(draft.seams, [&](const Seam& seam) {
        const auto lies_at = [&](const Part& part, std::int64_t edge) {
            return edge == seam.where && low(other(seam.axis), *part.cell) < seam.to &&
                   seam.from < high(other(seam.axis), *part.cell);
        };
        const bool below = std::any_of(draft.parts.begin(), draft.parts.end(),
                                       [&](const Part& p) { return lies_at(p, high(seam.axis, *p.cell)); });
        const bool above = std::any_of(draft.parts.begin(), draft.parts.end(),
                                       [&](const Part& p) { return lies_at(p, low(seam.axis, *p.cell)); });
        return !below || !above;
    });
    draft.score.sections = static_cast<int>(draft.parts.size());
    draft.score.film = 0;
    for (const Part& part : draft.parts) draft.score.film += score_of(part.film).film;
}

}  // namespace

std::optional<Draft> cross(const std::vector<Piece>& pieces, const std::vector<std::size_t>& which, const Box& film,
                           const Context& context) {
    return Crossing(pieces, which, context).run(film);
}

}  // namespace skarvel::dividing
