#include "sections/crossing.h"

#include "sections/showing.h"

#include <algorithm>
#include <tuple>

namespace skarvel::dividing {
namespace {

constexpr std::size_t most_cuts = 400;  // candidate cuts across one piece

std::optional<Draft> cross_both_ways(const Piece& piece, std::size_t index, const Box& film, const Box& own,
                                     const Context& context, int depth);

std::optional<Draft> cross_along(const Piece& piece, std::size_t index, const Box& film, const Box& own, Axis axis,
                                 std::int64_t longest, const Context& context) {
    const Region ink_here = intersect(piece.shape, Region::rectangle(own));
    const std::int64_t half_lap = to_grid(context.making.lap) / 2;
    const std::int64_t start = low(axis, film);
    const std::int64_t end = high(axis, film);
    const std::int64_t step = std::max(to_grid(0.125_in), (end - start) / static_cast<std::int64_t>(most_cuts));
    std::vector<std::int64_t> where{start};
    for (std::int64_t at = (start / step + 1) * step; at < end; at += step) {
        if (!context.forbidden(axis, at, film)) where.push_back(at);
    }
    where.push_back(end);
    struct Best {
        Score score;
        Length shows{};
        std::size_t from = 0;
        bool reached = false;
        [[nodiscard]] auto rank() const { return std::tuple(score.sections, score.crossings, shows, score); }
    };
    std::vector<Best> best(where.size());
    best[0].reached = true;
    const std::vector<CutAcross> cuts = cuts_across(ink_here, axis, where, context.mask);
    for (std::size_t to = 1; to < where.size(); ++to) {
        const bool last = to + 1 == where.size();
        const CutAcross cut = last ? CutAcross{} : cuts[to];
        for (std::size_t from = to; from-- > 0;) {
            const std::int64_t length = where[to] - where[from] + (last ? 0 : half_lap) + (from == 0 ? 0 : half_lap);
            if (length > longest) break;
            if (!best[from].reached) continue;
            Best here{best[from].score, best[from].shows + cut.shows, from, true};
            ++here.score.sections;
            here.score.crossings += cut.ink > Length{} ? 1 : 0;
            here.score.crossed += cut.ink.nm();
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
        draft.parts.insert(draft.parts.begin(), {{index}, with_lap, cell});
        if (from == 0) continue;
        const Length ink = cuts[from].ink;
        Reason why{"seam.within", {{"letters", piece.letters}}};
        if (ink > Length{}) why = {"seam.crosses", {{"letters", piece.letters}, {"ink", ink}}};
        draft.seams.insert(draft.seams.begin(), {axis, where[from], low(other(axis), film), high(other(axis), film),
                                                 false, context.making.lap, ink, std::move(why)});
    }
    return draft;
}

std::optional<Draft> crossed_again(const Draft& strips, const Piece& piece, std::size_t index, const Context& context,
                                   int depth) {
    Draft all = strips;
    all.parts.clear();
    all.score.sections = 0;
    for (const Part& strip : strips.parts) {
        const auto cut = cross_both_ways(piece, index, strip.film, *strip.cell, context, depth + 1);
        if (!cut) return std::nullopt;
        all.score = all.score + cut->score;
        all.parts.insert(all.parts.end(), cut->parts.begin(), cut->parts.end());
        all.seams.insert(all.seams.end(), cut->seams.begin(), cut->seams.end());
    }
    return all;
}

// `own`: the part of the piece that is divided here. What is too large both ways is cut one way, then the other.
std::optional<Draft> cross_both_ways(const Piece& piece, std::size_t index, const Box& film, const Box& own,
                                     const Context& context, int depth) {
    const std::int64_t short_side = std::min(to_grid(context.room.across), to_grid(context.room.along));
    const std::int64_t long_side = std::max(to_grid(context.room.across), to_grid(context.room.along));
    std::optional<Draft> best;
    for (const Axis axis : {Axis::Y, Axis::X}) {
        const std::int64_t wide = high(other(axis), film) - low(other(axis), film);
        // Film with a direction has one room for each axis.
        const std::int64_t most_wide = context.room.turns ? long_side
                                       : axis == Axis::Y  ? to_grid(context.room.across)
                                                          : to_grid(context.room.along);
        const std::int64_t longest = !context.room.turns
                                         ? to_grid(axis == Axis::Y ? context.room.along : context.room.across)
                                     : wide > short_side && wide <= long_side ? short_side
                                                                              : long_side;
        if (wide > most_wide && depth > 0) continue;
        auto cut = cross_along(piece, index, film, own, axis, longest, context);
        if (cut && wide > most_wide) cut = crossed_again(*cut, piece, index, context, depth);
        if (cut && (!best || cut->score < best->score)) best = std::move(cut);
    }
    return best;
}

// The film around a decal is waste: each part takes as much as its ink needs. One without ink is not cut, and what
// would lie beside it has no seam there.
void leave_out_bare(Draft& draft, const Piece& piece, const Length margin) {
    std::erase_if(draft.parts,
                  [&](const Part& part) { return intersect(piece.shape, Region::rectangle(*part.cell)).empty(); });
    for (Part& part : draft.parts) {
        const Box ink = intersect(piece.shape, Region::rectangle(part.film)).bounds();
        part.film = common(part.film, grown(ink, margin));
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
}

}  // namespace

std::optional<Draft> cross(const Piece& piece, std::size_t index, const Box& film, const Context& context) {
    std::optional<Draft> draft = cross_both_ways(piece, index, film, film, context, 0);
    if (draft && !context.mask) leave_out_bare(*draft, piece, context.making.margin);
    return draft;
}

}  // namespace skarvel::dividing
