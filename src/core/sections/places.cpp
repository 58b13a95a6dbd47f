#include "sections/places.h"

#include <algorithm>
#include <array>
#include <limits>
#include <map>
#include <set>

#include "values/searches.h"

namespace skarvel::dividing {
namespace {

constexpr std::size_t few_pieces = searches::pieces_tried_finely.most;
constexpr int most_interlocked = searches::interlocked.most;
constexpr std::int64_t deepest_step = to_grid(2_in);  // how far two neighbours may interlock at a stepped seam

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

// On how many lines a seam before piece `before` of the order comes between letters of one word.
int words_parted(const std::vector<Piece>& pieces, const std::vector<Box>& boxes, const std::vector<std::size_t>& order,
                 Axis axis, std::size_t before) {
    std::map<int, std::pair<std::int64_t, bool>> next;  // of each line: where its next piece begins; starts a word
    for (std::size_t k = before; k < order.size(); ++k) {
        const Piece& p = pieces[order[k]];
        if (p.art) continue;
        const std::int64_t at = low(axis, boxes[order[k]]);
        const auto known = next.find(p.line);
        if (known == next.end() || at < known->second.first) next[p.line] = {at, p.starts_word || p.alone};
    }
    std::set<int> parted;
    for (std::size_t k = 0; k < before; ++k) {
        const Piece& p = pieces[order[k]];
        const auto known = next.find(p.line);
        if (!p.art && known != next.end() && !known->second.second) parted.insert(p.line);
    }
    return static_cast<int>(parted.size());
}

// How many outlines reach into the strip where the two sides of a seam overlap.
int interlocked(const std::vector<Box>& boxes, const std::vector<std::size_t>& order, Axis axis, std::int64_t from,
                std::int64_t to, std::size_t around_here) {
    int count = 0;
    constexpr std::size_t window = searches::outlines_around_seam.most;
    const std::size_t first = around_here > window ? around_here - window : 0;
    for (std::size_t i = first; i < std::min(order.size(), around_here + window); ++i) {
        const Box& box = boxes[order[i]];
        if (low(axis, box) < to && high(axis, box) > from) ++count;
    }
    return count;
}

// Seams in the gap between ink that ends at `from` and ink that begins at `to`.
void add_places(std::vector<Place>& out, std::size_t before, std::int64_t from, std::int64_t to, bool every_line,
                const Context& context) {
    const std::int64_t off = to_grid(off_neighbour);
    const std::int64_t margin = to_grid(context.making.margin);
    const std::int64_t gap = to - from;
    if (gap < 0) {
        if (-gap <= deepest_step) {
            // Each side keeps its whole margin, and is cut back around the other's outlines.
            out.push_back({before, (from + to) / 2, from + margin, to - margin, true, {}, "seam.stepped"});
        }
        return;
    }
    if (!context.mask) {
        const std::int64_t where = nearest_line(from, to);
        out.push_back({before, where, where, where, false, {}, "seam.free-film"});
        return;
    }
    const std::int64_t lap = to_grid(context.making.lap);
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
                                     std::max(first, last / sixteenth * sixteenth), std::clamp(middle, first, last)};
    if (every_line) {
        for (std::int64_t at = line_up(first); at <= last; at += sixteenth) places.push_back(at);
    }
    std::sort(places.begin(), places.end());
    places.erase(std::unique(places.begin(), places.end()), places.end());
    for (const std::int64_t where : places) {
        out.push_back({before, where, where + lap / 2, where - lap / 2, false, from_grid(lap), "seam.in-gap"});
    }
}

}  // namespace

std::vector<Place> places_along(const std::vector<Piece>& pieces, const std::vector<Box>& boxes,
                                const std::vector<std::size_t>& order, const Box& cell, Axis axis,
                                const Context& context) {
    const bool every_line = order.size() <= few_pieces;
    std::vector<Place> out{{0, low(axis, cell), low(axis, cell), low(axis, cell), false, {}, "", true}};
    std::vector<std::int64_t> next_low(order.size() + 1, std::numeric_limits<std::int64_t>::max());
    for (std::size_t i = order.size(); i-- > 0;) next_low[i] = std::min(next_low[i + 1], low(axis, boxes[order[i]]));
    std::int64_t last_high = std::numeric_limits<std::int64_t>::min();
    for (std::size_t i = 1; i < order.size(); ++i) {
        last_high = std::max(last_high, high(axis, boxes[order[i - 1]]));
        if (next_low[i] < last_high && interlocked(boxes, order, axis, next_low[i], last_high, i) > most_interlocked)
            continue;
        const std::size_t first = out.size();
        add_places(out, i, last_high, next_low[i], every_line, context);
        out.erase(std::remove_if(out.begin() + static_cast<long>(first), out.end(),
                                 [&](const Place& c) { return context.forbidden(axis, c.where, cell); }),
                  out.end());
        const int in_words = out.size() > first ? words_parted(pieces, boxes, order, axis, i) : 0;
        for (std::size_t k = first; k < out.size(); ++k) out[k].in_words = in_words;
    }
    out.push_back({order.size(), high(axis, cell), high(axis, cell), high(axis, cell), false, {}, "", true});
    return out;
}

int off_line(std::int64_t where) {
    static constexpr std::array steps = {to_grid(0.5_in), to_grid(0.25_in), to_grid(0.125_in), to_grid(0.0625_in)};
    const auto* at = std::find_if(steps.begin(), steps.end(), [&](std::int64_t step) { return where % step == 0; });
    return static_cast<int>(at - steps.begin());
}

Seam seam_at(const Place& place, const Box& cell, Axis axis) {
    return {axis,
            place.where,
            low(other(axis), cell),
            high(other(axis), cell),
            place.stepped,
            place.lap,
            {},
            {place.why, {{"lap", place.lap}, {"off", off_neighbour}}}};
}

}  // namespace skarvel::dividing
