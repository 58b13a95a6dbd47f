#include "sections/lines.h"

#include <algorithm>
#include <array>
#include <cstdlib>

#include "values/searches.h"

namespace skarvel {
namespace {

constexpr std::int64_t off_ink = to_grid(0.0625_in);
constexpr std::int64_t shortest_line = to_grid(0.5_in);
constexpr std::int64_t half_mark = to_grid(0.25_in);
constexpr std::array half_marks{half_mark, to_grid(0.1875_in), to_grid(0.125_in)};  // smaller where ink is close
constexpr std::int64_t tick = to_grid(0.125_in);
constexpr std::int64_t reach = half_mark + off_ink;
constexpr std::int64_t between_films = to_grid(0.0625_in);  // films that run around outlines lie so far apart at most
constexpr std::int64_t most_tries = searches::places_for_mark.most;

Point point_on(Axis axis, std::int64_t where, std::int64_t along_it) {
    return axis == Axis::X ? Point{where, along_it} : Point{along_it, where};
}

// The stretches [from, to] on the line where `axis` equals `where` that stay off all rings of `shape`.
std::vector<std::pair<std::int64_t, std::int64_t>> free_stretches(const Region& shape, Axis axis, std::int64_t where,
                                                                  std::int64_t from, std::int64_t to) {
    const Box strip = axis == Axis::X ? Box{{where - off_ink, from}, {where + off_ink, to}}
                                      : Box{{from, where - off_ink}, {to, where + off_ink}};
    std::vector<std::pair<std::int64_t, std::int64_t>> taken;
    for (const Region& part : islands(intersect(shape, Region::rectangle(strip)))) {
        const Box box = part.bounds();
        taken.emplace_back(along(other(axis), box.low) - off_ink, along(other(axis), box.high) + off_ink);
    }
    std::sort(taken.begin(), taken.end());
    std::vector<std::pair<std::int64_t, std::int64_t>> stretches;
    std::int64_t at = from;
    for (const auto& [low, high] : taken) {
        if (low > at) stretches.emplace_back(at, std::min(low, to));
        at = std::max(at, high);
    }
    if (at < to) stretches.emplace_back(at, to);
    return stretches;
}

Box with_room(const Box& mark) { return {mark.low - Point{off_ink, off_ink}, mark.high + Point{off_ink, off_ink}}; }

bool clear_of(const Region& ink, const Box& mark) { return intersect(ink, Region::rectangle(with_room(mark))).empty(); }

std::optional<KnifeLine> clipped(const KnifeLine& line, const Box& film) {
    KnifeLine out = line;
    const auto clip = [](std::int64_t& a, std::int64_t low, std::int64_t high) { a = std::clamp(a, low, high); };
    if (line.from.x == line.to.x) {
        if (line.from.x < film.low.x || line.from.x > film.high.x) return std::nullopt;
        clip(out.from.y, film.low.y, film.high.y);
        clip(out.to.y, film.low.y, film.high.y);
    } else {
        if (line.from.y < film.low.y || line.from.y > film.high.y) return std::nullopt;
        clip(out.from.x, film.low.x, film.high.x);
        clip(out.to.x, film.low.x, film.high.x);
    }
    return out.from == out.to ? std::nullopt : std::optional(out);
}

}  // namespace

std::vector<KnifeLine> weeding_lines(const Section& section, Way way, Length apart) {
    std::vector<KnifeLine> lines;
    const Box film = section.film.bounds();
    const std::int64_t step = to_grid(apart);
    if (way != Way::Decal || step <= 0) return lines;
    const Axis axis = film.width() >= film.height() ? Axis::X : Axis::Y;
    const std::int64_t low = along(axis, film.low);
    const std::int64_t high = along(axis, film.high);
    const std::int64_t from = along(other(axis), film.low);
    const std::int64_t to = along(other(axis), film.high);
    const std::int64_t count = (high - low - 1) / step;
    const std::int64_t each = (high - low) / (count + 1);
    for (std::int64_t i = 1; i <= count; ++i) {
        // Of a number of places about there, the one with the longest free stretches; the nearest of equals.
        std::vector<std::pair<std::int64_t, std::int64_t>> best;
        std::int64_t best_free = 0;
        std::int64_t best_where = 0;
        for (std::int64_t k = 0; k <= 12; ++k) {
            const std::int64_t where = low + each * i + (k % 2 == 0 ? 1 : -1) * ((k + 1) / 2) * each / 20;
            const auto stretches = free_stretches(section.cut, axis, where, from, to);
            std::int64_t free = 0;
            for (const auto& [a, b] : stretches) free += b - a;
            if (free > best_free) {
                best = stretches;
                best_free = free;
                best_where = where;
            }
        }
        for (const auto& [a, b] : best) {
            if (b - a >= shortest_line)
                lines.push_back(
                    {KnifeLine::Kind::Weeding, point_on(axis, best_where, a), point_on(axis, best_where, b)});
        }
    }
    return lines;
}

namespace {

// What a film takes up on the line across a seam at `at`, as stretches along the seam's axis.
std::vector<std::pair<std::int64_t, std::int64_t>> across_at(const Region& film, Axis axis, std::int64_t at) {
    const Box box = film.bounds();
    std::vector<std::pair<std::int64_t, std::int64_t>> stretches;
    if (at < along(other(axis), box.low) || at > along(other(axis), box.high)) return stretches;
    const Box strip = axis == Axis::X ? Box{{box.low.x, at - 1}, {box.high.x, at + 1}}
                                      : Box{{at - 1, box.low.y}, {at + 1, box.high.y}};
    for (const Region& part : islands(intersect(film, Region::rectangle(strip))))
        stretches.emplace_back(along(axis, part.bounds().low), along(axis, part.bounds().high));
    return stretches;
}

// Where two films meet on the line across a seam: which two, and where each of them ends.
struct Meeting {
    std::size_t below = 0, above = 0;
    std::int64_t ends = 0, begins = 0;
    [[nodiscard]] std::int64_t middle() const { return ends + (begins - ends) / 2; }
};

// Of a seam that runs around outlines: where it is at `at`. The meeting nearest to the seam's middle.
std::optional<Meeting> meeting_at(const std::vector<Section>& sections, const Seam& seam, std::int64_t at) {
    struct Stretch {
        std::size_t of;
        std::int64_t low, high;
    };
    std::vector<Stretch> all;
    for (std::size_t i = 0; i < sections.size(); ++i) {
        for (const auto& [low, high] : across_at(sections[i].film, seam.axis, at)) {
            if (high - low >= 2 * half_marks.back()) all.push_back({i, low, high});
        }
    }
    std::optional<Meeting> best;
    for (const Stretch& a : all) {
        for (const Stretch& b : all) {
            if (a.of == b.of || a.low >= b.low || std::abs(b.low - a.high) > between_films) continue;
            const Meeting m{a.of, b.of, a.high, b.low};
            if (!best || std::abs(m.middle() - seam.where) < std::abs(best->middle() - seam.where)) best = m;
        }
    }
    return best;
}

// Ink that a mark must keep off, in parts with their boxes.
using Inks = std::vector<std::pair<Box, Region>>;

bool keeps_off(const Inks& near, const Box& mark) {
    return std::all_of(near.begin(), near.end(), [&](const auto& part) {
        return !part.first.meets(with_room(mark)) || clear_of(part.second, mark);
    });
}

// The first and the last place along a seam where a mark fits, with room between them.
template <class Fits>
std::vector<std::int64_t> ends_where(const Seam& seam, std::int64_t step, const Fits& fits) {
    std::vector<std::int64_t> places;
    const std::int64_t inset = tick + off_ink;
    for (std::int64_t at = seam.from + inset; places.empty() && at <= seam.to - inset; at += step) {
        if (fits(at)) places.push_back(at);
    }
    if (places.empty()) return places;
    for (std::int64_t at = seam.to - inset; places.size() < 2 && at > places.front() + 4 * half_mark; at -= step) {
        if (fits(at)) places.push_back(at);
    }
    return places;
}

}  // namespace

std::vector<std::vector<KnifeLine>> match_marks(const std::vector<Section>& sections, const std::vector<Seam>& seams,
                                                const std::vector<Piece>& pieces) {
    std::vector<std::vector<KnifeLine>> marks(sections.size());
    std::vector<Box> boxes;
    std::vector<Box> films;
    for (const Piece& p : pieces) boxes.push_back(p.shape.bounds());
    for (const Section& s : sections) films.push_back(s.film.bounds());
    for (const Seam& seam : seams) {
        // Ink beside the seam, in parts.
        Inks near;
        Box strip{{seam.from, seam.where - reach}, {seam.to, seam.where + reach}};
        if (seam.axis == Axis::X) strip = {{strip.low.y, strip.low.x}, {strip.high.y, strip.high.x}};
        const Region beside_seam = Region::rectangle(strip);
        for (std::size_t i = 0; i < pieces.size() && !seam.stepped; ++i) {
            if (!boxes[i].meets(strip)) continue;
            for (Region& part : islands(intersect(pieces[i].shape, beside_seam)))
                near.emplace_back(part.bounds(), std::move(part));
        }
        // Across the seam, with a tick along it where the films lap.
        const auto across = [&](std::int64_t where, std::int64_t at, std::int64_t half) {
            return KnifeLine{KnifeLine::Kind::Match, point_on(seam.axis, where - half, at),
                             point_on(seam.axis, where + half, at)};
        };
        const auto along_it = [&](std::int64_t at) {
            return KnifeLine{KnifeLine::Kind::Match, point_on(seam.axis, seam.where, at - tick),
                             point_on(seam.axis, seam.where, at + tick)};
        };
        const auto box_of = [&](std::int64_t where, std::int64_t at, std::int64_t half) {
            const Point low = point_on(seam.axis, where - half, at - tick);
            const Point high = point_on(seam.axis, where + half, at + tick);
            return Box{low, high};
        };
        std::vector<std::int64_t> places;
        std::int64_t half = 0;
        const std::int64_t step = seam.stepped ? std::max(tick, (seam.to - seam.from) / most_tries) : tick;
        for (const std::int64_t size : half_marks) {
            const auto fits = [&](std::int64_t at) {
                if (!seam.stepped) return keeps_off(near, box_of(seam.where, at, size));
                const auto meeting = meeting_at(sections, seam, at);
                if (!meeting) return false;
                const Box mark = box_of(meeting->middle(), at, size);
                for (std::size_t i = 0; i < pieces.size(); ++i) {
                    if (boxes[i].meets(with_room(mark)) && !clear_of(pieces[i].shape, mark)) return false;
                }
                return true;
            };
            const std::vector<std::int64_t> found = ends_where(seam, step, fits);
            if (found.size() <= places.size()) continue;
            places = found;
            half = size;
            if (places.size() == 2) break;
        }
        for (const std::int64_t at : places) {
            if (seam.stepped) {
                const Meeting m = *meeting_at(sections, seam, at);
                const KnifeLine line = across(m.middle(), at, half);
                KnifeLine low = line, high = line;
                low.to = point_on(seam.axis, m.ends, at);
                high.from = point_on(seam.axis, m.begins, at);
                marks[m.below].push_back(low);
                marks[m.above].push_back(high);
                continue;
            }
            // The two sections whose films reach the mark, one from either side of the seam.
            for (std::size_t i = 0; i < sections.size(); ++i) {
                const Box& film = films[i];
                const bool reaches =
                    along(other(seam.axis), film.low) <= at && along(other(seam.axis), film.high) >= at;
                const bool meets =
                    along(seam.axis, film.low) <= seam.where && along(seam.axis, film.high) >= seam.where;
                if (!reaches || !meets) continue;
                if (const auto line = clipped(across(seam.where, at, half), film)) marks[i].push_back(*line);
                if (seam.lap >= 0.125_in) {
                    if (const auto line = clipped(along_it(at), film)) marks[i].push_back(*line);
                }
            }
        }
    }
    return marks;
}

}  // namespace skarvel
