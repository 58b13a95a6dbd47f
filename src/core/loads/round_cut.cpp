#include "loads/round_cut.h"

#include <algorithm>
#include <map>
#include <set>

namespace skarvel {
namespace {

// A piece of the design is covered by a cut one when it is the same, or stands where that one does.
bool covers(const Piece& cut, const Piece& now) {
    if (cut == now) return true;
    // Parts of a drawing share their name.
    const bool lettered = !cut.art && !now.art && !cut.letters.empty();
    if (lettered && cut.letters == now.letters && cut.first == now.first) return true;
    return intersect(cut.shape, now.shape).area_mm2() > 0.5 * std::min(cut.shape.area_mm2(), now.shape.area_mm2());
}

// What corners rounded to the grid come to along a seam.
constexpr double a_rounding_mm2 = 0.05;

// A rectangle of a piece, and which of its sides are seams.
struct Cell {
    Box box;
    bool left = false, right = false, bottom = false, top = false;
};

// Around what is cut of a piece the rest is parted into rectangles, at sides of cut ones where least ink is crossed.
void part_around(const Region& ink, const Cell& cell, const std::vector<Box>& cut, std::vector<Cell>& out) {
    const Region here = intersect(ink, Region::rectangle(cell.box));
    if (here.area_mm2() < a_rounding_mm2) return;
    std::optional<std::tuple<Length, Axis, std::int64_t>> best;
    for (const Box& box : cut) {
        if (common(box, cell.box).empty()) continue;
        for (const auto& [axis, at] : {std::pair(Axis::X, box.low.x), std::pair(Axis::X, box.high.x),
                                       std::pair(Axis::Y, box.low.y), std::pair(Axis::Y, box.high.y)}) {
            if (at <= along(axis, cell.box.low) || at >= along(axis, cell.box.high)) continue;
            // Along a seam that is cut already ink lies on one side only, but for a rounding.
            constexpr std::int64_t beside = to_grid(Length::nanometres(2'000));
            const Length crossing = std::min(crossed(here, axis, at - beside), crossed(here, axis, at + beside));
            if (!best || crossing < std::get<Length>(*best)) best = {crossing, axis, at};
        }
    }
    if (!best) {
        out.push_back(cell);
        return;
    }
    const auto [crossing, axis, at] = *best;
    Cell below = cell;
    Cell above = cell;
    (axis == Axis::X ? below.box.high.x : below.box.high.y) = at;
    (axis == Axis::X ? above.box.low.x : above.box.low.y) = at;
    (axis == Axis::X ? below.right : below.top) = true;
    (axis == Axis::X ? above.left : above.bottom) = true;
    part_around(ink, below, cut, out);
    part_around(ink, above, cut, out);
}

// What of a piece is still to be cut, where only parts of it were: seams cross it. With as much of them as the lap
// takes. Empty where nothing is left, or where the cut ones are no parts of it.
std::vector<Piece> rest_of_piece(const Piece& now, const std::vector<const Piece*>& cut, Length lap) {
    std::vector<Region> parts;
    std::vector<Box> boxes;
    for (const Piece* p : cut) {
        // A part is all of the piece within its own box; anything else was another shape.
        const Box box = p->shape.bounds();
        const Region here = intersect(now.shape, Region::rectangle(box));
        if (subtract(p->shape, now.shape).area_mm2() > 0.01 || subtract(here, p->shape).area_mm2() > 0.01) return {};
        boxes.push_back(box);
        parts.push_back(Region::rectangle(box));
    }
    std::vector<Cell> cells;
    part_around(subtract(now.shape, merge(parts)), {now.shape.bounds(), false, false, false, false}, boxes, cells);
    const std::int64_t half = to_grid(lap) / 2;
    std::vector<Piece> pieces;
    for (const Cell& cell : cells) {
        const Box reach{{cell.box.low.x - (cell.left ? half : 0), cell.box.low.y - (cell.bottom ? half : 0)},
                        {cell.box.high.x + (cell.right ? half : 0), cell.box.high.y + (cell.top ? half : 0)}};
        pieces.push_back(now);
        pieces.back().shape = intersect(now.shape, Region::rectangle(reach));
    }
    return pieces;
}

// On which axis two boxes lie apart, or overlap least, and whether the first one is below or to the left.
std::pair<Axis, bool> side_of(const Box& taken, const Box& ink) {
    const auto gap = [&](Axis axis) {
        return std::max(along(axis, ink.low) - along(axis, taken.high), along(axis, taken.low) - along(axis, ink.high));
    };
    const Axis axis = gap(Axis::Y) >= gap(Axis::X) ? Axis::Y : Axis::X;
    const auto middle = [&](const Box& b) { return along(axis, b.low) + along(axis, b.high); };
    return {axis, middle(taken) < middle(ink)};
}

// Whether the rest of a piece lies beside one cut part and above or below another.
bool both_ways(const Piece& rest, const std::vector<const Piece*>& cut) {
    std::set<Axis> ways;
    for (const Piece* p : cut) ways.insert(side_of(p->shape.bounds(), rest.shape.bounds()).first);
    for (std::size_t i = 0; i < cut.size(); ++i) {
        for (std::size_t k = i + 1; k < cut.size(); ++k)
            ways.insert(side_of(cut[i]->shape.bounds(), cut[k]->shape.bounds()).first);
    }
    return ways.size() > 1;
}

// Butted, the rest of a piece begins where the other part ends, but for a rounding.
constexpr std::int64_t slack_at_seams = 4;

// A section that is cut: its film and its ink.
struct Taken {
    Box film, ink;
};

// Films may overlap what is laid beside them by the lap, as at any seam, if they keep off its ink; where the seam
// crosses a piece they end with its ink, so that nothing covers the part that is cut.
Box room_beside(const std::vector<Taken>& taken, const Box& ink, bool part, const Box& face, Length lap) {
    Box available = face;
    for (const auto& [t, cut] : taken) {
        const auto [axis, below] = side_of(t, ink);
        auto& low = axis == Axis::X ? available.low.x : available.low.y;
        auto& high = axis == Axis::X ? available.high.x : available.high.y;
        const bool crosses = part && (below ? along(axis, ink.low) <= along(axis, t.high) + slack_at_seams
                                            : along(axis, ink.high) >= along(axis, t.low) - slack_at_seams);
        if (crosses) {
            (below ? low : high) = below ? std::max(low, along(axis, ink.low)) : std::min(high, along(axis, ink.high));
            continue;
        }
        const std::int64_t off = to_grid(off_neighbour);
        const std::int64_t over = to_grid(lap);
        if (below) {
            const std::int64_t end =
                std::clamp(along(axis, cut.high) + off, along(axis, t.high) - over, along(axis, t.high));
            std::int64_t least = along(axis, ink.low) - off;
            if (along(axis, cut.high) < along(axis, ink.low)) least = std::max(least, along(axis, cut.high));
            low = std::max(low, std::min(end, least));
        } else {
            const std::int64_t end =
                std::clamp(along(axis, cut.low) - off, along(axis, t.low), along(axis, t.low) + over);
            std::int64_t least = along(axis, ink.high) + off;
            if (along(axis, cut.low) > along(axis, ink.high)) least = std::min(least, along(axis, cut.low));
            high = std::min(high, std::max(end, least));
        }
    }
    return available;
}

// Of a decal single letters may be spoilt: what is left of its section is as it was, without them.
bool is_what_is_left_of(const Section& cut, const Section& whole, const MakingPlan& making) {
    if (cut == whole) return true;
    return making.way == Way::Decal && cut.letters == whole.letters && cut.film == whole.film &&
           std::all_of(cut.pieces.begin(), cut.pieces.end(), [&](const Piece& p) {
               return std::find(whole.pieces.begin(), whole.pieces.end(), p) != whole.pieces.end();
           });
}

// The letters that are missing, each in a section of its own.
std::vector<Section> cut_again_alone(const Section& whole, const Section& left, const MakingPlan& making) {
    std::vector<Piece> missing;
    Division division;
    for (const Piece& p : whole.pieces) {
        if (std::find(left.pieces.begin(), left.pieces.end(), p) != left.pieces.end()) continue;
        const Box film = common(grown(p.shape.bounds(), making.margin), whole.film.bounds());
        division.parts.push_back({{missing.size()}, film, std::nullopt});
        missing.push_back(p);
    }
    return sections_of(division, missing, making);
}

}  // namespace

Load load_of(const CutLoad& cut) {
    Load load;
    load.key = cut.id.name;
    load.placements = cut.placements;
    load.film_length = cut.film_length;
    load.cut = true;
    load.carried_by = cut.carried_by;
    return load;
}

std::optional<Kept> kept_in(const std::vector<Section>& sections, const std::vector<CutLoad>& cut,
                            const MakingPlan& making) {
    Kept out{sections, std::vector<bool>(sections.size()), {}};
    std::vector<std::pair<Placement*, const Section*>> elsewhere;
    for (const CutLoad& load : cut) out.loads.push_back(load_of(load));
    for (std::size_t n = 0; n < cut.size(); ++n) {
        for (Placement& p : out.loads[n].placements) {
            const Section& section = cut[n].sections[p.section];
            std::size_t i = 0;
            while (i < sections.size() && (out.cut[i] || !is_what_is_left_of(section, sections[i], making))) ++i;
            if (i == sections.size()) {
                elsewhere.emplace_back(&p, &section);
                continue;
            }
            out.cut[i] = true;
            out.sections[i] = section;
            p.section = i;
        }
    }
    for (std::size_t i = 0; i < sections.size(); ++i) {
        if (out.sections[i] == sections[i]) continue;
        for (Section& s : cut_again_alone(sections[i], out.sections[i], making)) out.sections.push_back(std::move(s));
    }
    out.cut.resize(out.sections.size());
    for (const auto& [placement, section] : elsewhere) {
        // By what it is: its name may have been told apart from another.
        std::size_t i = sections.size();
        while (i < out.sections.size() &&
               (out.cut[i] || out.sections[i].pieces != section->pieces || out.sections[i].film != section->film ||
                out.sections[i].cut != section->cut))
            ++i;
        if (i == out.sections.size()) return std::nullopt;
        out.cut[i] = true;
        out.sections[i] = *section;
        placement->section = i;
    }
    return out;
}

Remaining without_cut(const std::vector<Piece>& pieces, const std::vector<CutLoad>& cut, Length lap) {
    Remaining out;
    std::vector<Piece> all_laid;
    for (std::size_t i = 0; i < cut.size(); ++i) {
        for (const Section& section : cut[i].sections) {
            std::vector<Piece> laid;
            for (const Lay& lay : lays_of({section})) {
                for (Piece p : section.pieces) {
                    p.shape = p.shape.laid(lay.move);
                    // Only the first lay carries the letters that it was cut for.
                    p.art = p.art || lay.time > 0;
                    laid.push_back(std::move(p));
                }
            }
            const bool fits = std::all_of(laid.begin(), laid.end(), [&](const Piece& p) {
                return std::any_of(pieces.begin(), pieces.end(), [&](const Piece& now) {
                    return now == p ||
                           (now.letters == p.letters && subtract(p.shape, now.shape).area_mm2() < a_rounding_mm2);
                });
            });
            if (!fits) out.misfits.push_back({i, section.letters, cut[i].keep});
            all_laid.insert(all_laid.end(), laid.begin(), laid.end());
        }
    }
    for (const Piece& now : pieces) {
        std::vector<const Piece*> by;
        for (const Piece& p : all_laid) {
            const bool part = p.shape.bounds().meets(now.shape.bounds()) && p.letters == now.letters &&
                              p.first == now.first && p.art == now.art;
            if (covers(p, now) || part) by.push_back(&p);
        }
        if (by.empty()) {
            out.pieces.push_back(now);
            out.parts.push_back(false);
            continue;
        }
        std::vector<Piece> rest = rest_of_piece(now, by, lap);
        // Divided both ways, what is left reaches round what is cut: its own parts meet in seams without a lap.
        if (rest.size() > 1 || std::any_of(rest.begin(), rest.end(), [&](const Piece& p) { return both_ways(p, by); }))
            out.around.push_back(now.letters);
        for (Piece& piece : rest) {
            out.pieces.push_back(std::move(piece));
            out.parts.push_back(true);
        }
    }
    return out;
}

std::vector<Run> runs_between(const Remaining& remaining, const Box& face, const std::vector<CutLoad>& cut,
                              Length lap) {
    const std::vector<Piece>& pieces = remaining.pieces;
    std::vector<Taken> taken;
    for (const CutLoad& load : cut) {
        for (const Section& section : load.sections) {
            // What is laid again has passes of its own.
            if (section.again.empty()) taken.push_back({section.film.bounds(), section.cut.bounds()});
        }
    }
    if (taken.empty()) return {{pieces, {}, face, false}};
    std::map<std::vector<std::pair<Axis, bool>>, Run> by_side;
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        const Box ink = pieces[i].shape.bounds();
        std::vector<std::pair<Axis, bool>> sides;
        for (const Taken& t : taken) sides.push_back(side_of(t.film, ink));
        Run& run = by_side[sides];
        run.pieces.push_back(pieces[i]);
        run.ink = around(run.ink, ink);
        run.part = run.part || remaining.parts[i];
    }
    std::vector<Run> runs;
    for (auto& [sides, run] : by_side) runs.push_back(std::move(run));
    // Runs that can be laid as one, since nothing that is cut lies between them.
    const auto free = [&](const Box& ink) {
        return std::none_of(taken.begin(), taken.end(), [&](const Taken& t) {
            return !common(grown(t.film, Length{} - lap), grown(ink, off_neighbour)).empty();
        });
    };
    for (std::size_t a = 0; a < runs.size(); ++a) {
        for (std::size_t b = a + 1; b < runs.size();) {
            const Box both = around(runs[a].ink, runs[b].ink);
            if (!free(both)) {
                ++b;
                continue;
            }
            runs[a].pieces.insert(runs[a].pieces.end(), runs[b].pieces.begin(), runs[b].pieces.end());
            runs[a].ink = both;
            runs[a].part = runs[a].part || runs[b].part;
            runs.erase(runs.begin() + static_cast<long>(b));
            b = a + 1;
        }
    }
    for (Run& run : runs) {
        std::stable_sort(run.pieces.begin(), run.pieces.end(),
                         [](const Piece& x, const Piece& y) { return x.first < y.first; });
        run.available = room_beside(taken, run.ink, run.part, face, lap);
    }
    // Between two runs lies a seam, in the middle of what is free.
    for (Run& run : runs) {
        for (const Run& beside : runs) {
            const auto [axis, below] = side_of(beside.ink, run.ink);
            const std::int64_t from = along(axis, below ? beside.ink.high : run.ink.high);
            const std::int64_t to = along(axis, below ? run.ink.low : beside.ink.low);
            if (&run == &beside) continue;
            // Parts of one piece, that meet in a seam across it.
            const bool met = run.part && beside.part && from > to && from - to <= to_grid(lap) + slack_at_seams;
            if (from > to && !met) continue;
            const bool laps = to - from >= to_grid(lap) + 2 * to_grid(off_neighbour);
            const std::int64_t over = met ? (from - to) / 2 : laps ? to_grid(lap) / 2 : 0;
            auto& low = axis == Axis::X ? run.available.low.x : run.available.low.y;
            auto& high = axis == Axis::X ? run.available.high.x : run.available.high.y;
            if (below) {
                low = std::max(low, (from + to) / 2 - over);
            } else {
                high = std::min(high, (from + to) / 2 + over);
            }
        }
    }
    return runs;
}

void keep_apart(LoadsPlan& plan, const std::vector<int>& runs, std::vector<Box>& films) {
    constexpr Length hair = Length::nanometres(50'000);  // thinner, it is a rounding
    const std::size_t first_new = plan.sections.size() - films.size();
    for (std::size_t n = first_new; n < plan.sections.size(); ++n) {
        Section& section = plan.sections[n];
        std::vector<Region> open;
        const Region ties = merge(section.ties);
        for (std::size_t i = 0; i < plan.sections.size(); ++i) {
            const Section& beside = plan.sections[i];
            if (runs[i] == runs[n] || !beside.again.empty() || !section.again.empty() ||
                !beside.film.bounds().meets(section.film.bounds()))
                continue;
            for (const Piece& piece : beside.pieces) {
                const bool same = std::any_of(section.pieces.begin(), section.pieces.end(), [&](const Piece& p) {
                    return p.letters == piece.letters && p.first == piece.first && p.art == piece.art;
                });
                // Parts of one piece meet in a lap that is open in both; round another one the film beside is enough.
                const Region inside = subtract(subtract(piece.shape, section.cut), ties);
                open.push_back(same ? grow(grow(inside, Length{} - hair), hair)
                                    : merge(piece.shape, intersect(grow(piece.shape, off_neighbour), beside.film)));
            }
        }
        const Region over = merge(open);
        if (intersect(section.film, over).area_mm2() < a_rounding_mm2) continue;
        std::vector<Region> kept;
        for (Region& part : islands(subtract(section.film, over))) {
            if (section.cut.empty() || intersect(part, section.cut).area_mm2() > 0) kept.push_back(std::move(part));
        }
        if (kept.empty()) continue;
        section.film = merge(kept);
        section.cut = intersect(section.cut, section.film);
        films[n - first_new] = section.film.bounds();
    }
}

}  // namespace skarvel
