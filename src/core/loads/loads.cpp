#include "loads/loads.h"

#include "loads/repeats.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>
#include <tuple>

namespace skarvel {
namespace {

struct Choice {
    const Division* division = nullptr;
    Packed packed;
    std::tuple<int, std::size_t, Length, Length, std::size_t, int, int, std::int64_t> rank;
};

// What of a bed sections are divided for and packed on, as the maker asks.
Room room_on(const Mat& mat, const MakingPlan& making) {
    Room room = mat.usable;
    room.slants = making.wishes.any_angle;
    return room;
}

Choice tried(const Division& division, const Mat& mat, const MakingPlan& making) {
    Choice choice{&division, {}, {}};
    std::vector<Box> films;
    for (const Part& part : division.parts) films.push_back(part.film);
    choice.packed = pack(films, room_on(mat, making), load_gap, false);
    Length film;
    for (const auto& load : choice.packed.loads) film += film_for(load, films, mat);
    std::int64_t longest = 0;
    for (const Box& f : films) longest = std::max({longest, f.width(), f.height()});
    choice.rank = {division.crossings,    choice.packed.loads.size(), division.crossed,   film,
                   division.parts.size(), division.in_words,          division.off_lines, longest};
    return choice;
}

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

struct Remaining {
    std::vector<Piece> pieces;
    std::vector<bool> parts;          // which of them are the rest of a piece that is cut in part
    std::vector<std::string> around;  // letters divided both ways, of which parts are cut
    std::vector<Misfit> misfits;
};

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
            const Length crossing = crossed(here, axis, at);
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

// Pieces left over, in runs that no cut section parts, each with the part of the face where its film may lie.
struct Run {
    std::vector<Piece> pieces;
    Box ink, available;
    bool part = false;  // with the rest of a piece that is cut in part
};

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

// The film of a new mask is cut back around ink of other runs, and of what was cut before, that it would cover. `runs`:
// of each section, in order; what is cut has none.
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

void add_run(LoadsPlan& plan, const Run& run, const Box& face, const Mat& mat, const MakingPlan& making,
             double& least_film, std::vector<Box>& films, const std::stop_token& stop) {
    const Divisions divisions = divide(run.pieces, face, run.available, room_on(mat, making), making, stop);
    plan.problems.insert(plan.problems.end(), divisions.problems.begin(), divisions.problems.end());
    least_film += divisions.least_film_mm2;
    if (divisions.choices.empty()) return;
    Choice best = tried(divisions.choices.front(), mat, making);
    // Large signs are packed for the best few divisions only.
    constexpr std::size_t many_parts = 60;
    constexpr std::size_t few_tries = 4;
    const std::size_t tries =
        divisions.choices.front().parts.size() > many_parts ? few_tries : divisions.choices.size();
    for (std::size_t i = 1; i < std::min(tries, divisions.choices.size()) && !stop.stop_requested(); ++i) {
        Choice other = tried(divisions.choices[i], mat, making);
        if (other.rank < best.rank) best = std::move(other);
    }
    // More sections, where they come to fewer loads; never to fewer than the film of all of them needs.
    const double room = mat.usable.across.in_mm() * mat.usable.along.in_mm();
    const auto least = static_cast<std::size_t>(std::max(1.0, std::ceil(divisions.least_film_mm2 / room - 1e-9)));
    for (const Division& finer : divisions.finer) {
        const std::size_t now = best.packed.loads.size();
        if (now <= least || best.division->crossings > 0 || stop.stop_requested()) break;
        std::vector<Box> boxes;
        for (const Part& part : finer.parts) boxes.push_back(part.film);
        if (!fits_on(boxes, room_on(mat, making), load_gap, now - 1)) continue;
        if (Choice other = tried(finer, mat, making); other.rank < best.rank) best = std::move(other);
    }
    for (Section& section : sections_of(*best.division, run.pieces, making)) {
        films.push_back(section.film.bounds());
        plan.sections.push_back(std::move(section));
    }
    plan.seams.insert(plan.seams.end(), best.division->seams.begin(), best.division->seams.end());
    plan.crossings += best.division->crossings;
    plan.spans_face = plan.spans_face || best.division->spans_face;
}

double covered(const std::vector<Placement>& placements, const std::vector<Section>& sections) {
    double area = 0;
    for (const Placement& p : placements) area += sections[p.section].film.area_mm2();
    return area;
}

// Sections in another order, with all that counts in them.
template <class Before>
void reorder(LoadsPlan& plan, Before before) {
    std::vector<std::size_t> order(plan.sections.size());
    for (std::size_t i = 0; i < order.size(); ++i) order[i] = i;
    std::stable_sort(order.begin(), order.end(),
                     [&](std::size_t a, std::size_t b) { return before(plan.sections[a], plan.sections[b]); });
    std::vector<std::size_t> place(order.size());
    std::vector<Section> sections;
    for (std::size_t i = 0; i < order.size(); ++i) {
        place[order[i]] = i;
        sections.push_back(plan.sections[order[i]]);
    }
    plan.sections = std::move(sections);
    for (Load& load : plan.loads) {
        for (Placement& p : load.placements) p.section = place[p.section];
    }
}

// Numbers sections from the top down again once cut and new ones stand together.
void order_sections(LoadsPlan& plan) {
    reorder(plan, [](const Section& a, const Section& b) {
        const int first_a = a.pieces.empty() ? 0 : a.pieces.front().first;
        const int first_b = b.pieces.empty() ? 0 : b.pieces.front().first;
        return first_a < first_b;
    });
}

// Masks for a film that sticks to nothing may be turned over.
bool turned_over(const MakingPlan& making) { return making.film.kind == "reusable"; }

// What repeats is cut so often, and each copy laid again and again: with three copies for twelve feet the first is laid
// on feet 1 to 4, so that no two of one pass lie side by side. Gives the pieces that are left.
std::vector<Piece> lay_again(LoadsPlan& plan, const std::vector<Piece>& pieces, const Box& face, const Mat& mat,
                             const MakingPlan& making, std::vector<Box>& films) {
    // Copies that are cut are laid as they were.
    const auto cut_before = static_cast<int>(
        std::count_if(plan.sections.begin(), plan.sections.end(), [](const Section& s) { return !s.again.empty(); }));
    const std::optional<Repeat> repeat = repeat_in(pieces, mat.usable, making.margin, turned_over(making));
    if (!repeat && cut_before > 0) return pieces;
    if (!repeat) {
        plan.problems.push_back({{"wish.no-repeat", {}}, "sections", {"wish.forget", {}}, Mark::Look});
        return pieces;
    }
    const std::size_t units = repeat->units.size();
    const auto copies = std::min(static_cast<std::size_t>(std::max(1, making.wishes.copies - cut_before)), units);
    const std::size_t each = (units + copies - 1) / copies;
    const std::size_t first = plan.sections.size();
    const auto all_move = [&](Axis along_it) {
        return std::all_of(repeat->lays.begin(), repeat->lays.end(), [&](const Motion& m) {
            return m.quarters == 0 && !m.over && along(other(along_it), m.by) == 0;
        });
    };
    for (std::size_t from = 0; from < units; from += each) {
        const std::size_t end = std::min(from + each, units);
        Part part{repeat->units[from], {}, std::nullopt};
        std::vector<Motion> again;
        Box board = face;  // as all lays of this copy see it: where it may hang over, since they are one size
        for (std::size_t k = from + 1; k < end; ++k) {
            again.push_back(repeat->lays[k] * inverse(repeat->lays[from]));
            board = around(board, inverse(again.back())(face));
        }
        Box ink;
        for (const std::size_t i : part.pieces) ink = around(ink, pieces[i].shape.bounds());
        part.film = common(grown(ink, making.margin), board);
        if (all_move(Axis::X) || all_move(Axis::Y)) {
            // Its sides run to the board's edges, and place it.
            const Axis side = all_move(Axis::X) ? Axis::Y : Axis::X;
            const std::int64_t wide = along(side, face.high) - along(side, face.low);
            if (making.edges_place && wide <= std::min(to_grid(mat.usable.across), to_grid(mat.usable.along))) {
                (side == Axis::X ? part.film.low.x : part.film.low.y) = along(side, face.low);
                (side == Axis::X ? part.film.high.x : part.film.high.y) = along(side, face.high);
                plan.spans_face = true;
            }
        }
        Division one;
        one.parts.push_back(std::move(part));
        for (Section& section : sections_of(one, pieces, making)) {
            section.again = again;
            films.push_back(section.film.bounds());
            plan.sections.push_back(std::move(section));
        }
    }
    Reason why{"sections.why-again-turned",
               {{"copies", static_cast<std::int64_t>(plan.sections.size() - first)},
                {"lays", static_cast<std::int64_t>(units)}}};
    if (all_move(Axis::X) || all_move(Axis::Y)) {
        why.id = "sections.why-again";
        const Point step = repeat->lays.at(1).by;
        why.arguments.emplace_back("step", from_grid(std::max(step.x, step.y)));
    } else if (std::any_of(repeat->lays.begin(), repeat->lays.end(), [](const Motion& m) { return m.over; })) {
        why.id = "sections.why-again-over";
    }
    plan.why.push_back(std::move(why));
    std::vector<Piece> left;
    for (const std::size_t i : repeat->rest) left.push_back(pieces[i]);
    return left;
}

// Masks whose film would lie over ink that is painted in the same pass go to a later one.
void set_passes(LoadsPlan& plan) {
    constexpr double speck_mm2 = 0.05;
    struct Laid {
        Region solid, open;
        int pass = 1;
    };
    std::vector<Laid> laid;
    const auto over = [](const Region& solid, const Region& open) {
        return solid.bounds().meets(open.bounds()) && intersect(solid, open).area_mm2() > speck_mm2;
    };
    for (Section& section : plan.sections) {
        const Region solid = subtract(section.film, section.cut);
        const std::vector<Lay> lays = lays_of({section});
        const auto clashes = [&](int pass) {
            return std::any_of(lays.begin(), lays.end(), [&](const Lay& lay) {
                const int here = lay.pass - section.pass + pass;
                const Region film = solid.laid(lay.move);
                const Region open = section.cut.laid(lay.move);
                return std::any_of(laid.begin(), laid.end(), [&](const Laid& l) {
                    return l.pass == here && (over(film, l.open) || over(l.solid, open));
                });
            });
        };
        int pass = 1;
        while (clashes(pass)) ++pass;
        for (const Lay& lay : lays)
            laid.push_back({solid.laid(lay.move), section.cut.laid(lay.move), lay.pass - section.pass + pass});
        section.pass = pass;
    }
    reorder(plan, [](const Section& a, const Section& b) { return a.pass < b.pass; });
    for (const Lay& lay : lays_of(plan.sections)) plan.passes = std::max(plan.passes, lay.pass);
    if (plan.passes > 1) plan.why.push_back({"sections.why-passes", {{"passes", std::int64_t{plan.passes}}}});
}

// Where a section lies on the pattern otherwise than the others of its load.
void say_where_pattern_breaks(LoadsPlan& plan, std::size_t first_new, const Room& room) {
    if (room.repeat_across <= Length{} && room.repeat_along <= Length{}) return;
    std::optional<std::int64_t> across;
    std::size_t laid = 0;
    for (const Load& load : plan.loads) {
        for (const Placement& p : load.placements) {
            if (p.section < first_new) continue;
            ++laid;
            const std::int64_t shift = p.at.x - plan.sections[p.section].film.bounds().low.x;
            if (!across) across = shift;
            if (room.repeat_across <= Length{} || (shift - *across) % to_grid(room.repeat_across) == 0) continue;
            plan.problems.push_back({{"loads.pattern-breaks", {{"letters", plan.sections[p.section].letters}}},
                                     "sections",
                                     {"loads.pattern-breaks-remedy", {}},
                                     Mark::Look});
        }
    }
    if (laid > 1)
        plan.why.push_back({"loads.why-pattern", {{"repeat", std::max(room.repeat_along, room.repeat_across)}}});
}

// Steps are named after what is on a section: the second of the same name is told apart, and what is cut keeps its
// name.
void tell_apart(LoadsPlan& plan) {
    std::set<std::string> used;
    for (const Load& load : plan.loads) {
        if (!load.cut) continue;
        for (const Placement& p : load.placements) used.insert(plan.sections[p.section].letters);
    }
    std::vector<bool> cut(plan.sections.size());
    for (const Load& load : plan.loads) {
        for (const Placement& p : load.placements) cut[p.section] = load.cut;
    }
    for (std::size_t i = 0; i < plan.sections.size(); ++i) {
        if (cut[i]) continue;
        std::string& letters = plan.sections[i].letters;
        const std::string base = letters;
        for (int n = 2; !used.insert(letters).second; ++n) letters = base + " " + std::to_string(n);
    }
}

void explain(LoadsPlan& plan, const Mat& mat, double least_film) {
    const auto count = [](std::size_t n) { return static_cast<std::int64_t>(n); };
    if (plan.sections.empty()) return;
    if (plan.sections.size() == 1) {
        plan.why.push_back({"sections.why-one", {}});
    } else if (plan.crossings == 0) {
        plan.why.push_back(
            {"sections.why-gaps", {{"sections", count(plan.sections.size())}, {"along", mat.usable.along}}});
    } else {
        plan.why.push_back({"sections.why-crossed", {{"crossings", std::int64_t{plan.crossings}}}});
    }
    if (plan.spans_face) plan.why.push_back({"sections.why-spans", {}});
    std::size_t side_by_side = 0;
    for (const Load& load : plan.loads) side_by_side = std::max(side_by_side, load.placements.size());
    if (side_by_side > 1) {
        plan.why.push_back({"loads.why-shared",
                            {{"sections", count(side_by_side)}, {"across", mat.usable.across}, {"gap", load_gap}}});
    }
    if (plan.loads.size() > 1) {
        constexpr double sq_in = 645.16;
        plan.why.push_back(
            {"loads.why-area",
             {{"needed", least_film / sq_in}, {"room", mat.usable.across.in_inches() * mat.usable.along.in_inches()}}});
    }
    plan.why.push_back(bound_said(static_cast<int>(plan.loads.size()), plan.least_loads, plan.proved));
    plan.why.push_back({"loads.why-film", {{"film", plan.film_total}}});
}

}  // namespace

Box box_on_mat(const Box& film, const Placement& placement) {
    Point size = placement.turned ? Point{film.height(), film.width()} : Point{film.width(), film.height()};
    if (placement.slant != 0) {
        const Box lies = Region::rectangle({{0, 0}, {film.width(), film.height()}}).rotated(placement.slant).bounds();
        size = {lies.width(), lies.height()};
    }
    return {placement.at, placement.at + size};
}

Length page_for(Length used, const PrintArea& area) {
    constexpr Length sheet = 11_in;
    return std::min(area.page.along, std::max(used + (area.margin + area.mark) * 2, sheet));
}

Length film_for(const std::vector<Placement>& placements, const std::vector<Box>& films, const Mat& bed) {
    std::int64_t top = 0;
    for (const Placement& p : placements) top = std::max(top, box_on_mat(films[p.section], p).high.y);
    return bed.print ? page_for(from_grid(top), *bed.print) : film_to_cut(from_grid(top));
}

Reason bound_said(int loads, int least, bool proved) {
    if (!proved) return {"loads.bound", {{"least", std::int64_t{least}}, {"loads", std::int64_t{loads}}}};
    return {loads == 1 ? "loads.one-proved" : "loads.proved", {{"less", std::int64_t{loads} - 1}}};
}

int least_loads_for(const std::vector<const LoadsPlan*>& plans, const Room& room) {
    const double room_mm2 = room.across.in_mm() * room.along.in_mm();
    double film = 0;
    std::vector<Box> whole;
    std::int64_t aside = 0;  // so that ink of another plan is never taken for the same place
    for (const LoadsPlan* plan : plans) {
        film += plan->least_film_mm2;
        Box all;
        for (const Load& load : plan->loads) {
            for (const Placement& p : load.placements) {
                if (load.cut || plan->crossings > 0 || p.slant != 0) continue;
                for (const Piece& piece : plan->sections[p.section].pieces) {
                    const Box box = piece.shape.bounds();
                    whole.push_back({{box.low.x + aside, box.low.y}, {box.high.x + aside, box.high.y}});
                    all = around(all, whole.back());
                }
            }
        }
        if (!all.empty()) aside = all.high.x + to_grid(1_in) - std::min<std::int64_t>(0, all.low.x);
    }
    return std::max(static_cast<int>(std::ceil(film / room_mm2 - 1e-9)), least_mats(whole, room));
}

AsFound as_found(const LoadsPlan& plan) {
    AsFound out{plan.sections.size(), plan.loads.size(), plan.crossings, plan.passes, plan.film_total, {}};
    for (const Seam& s : plan.seams) out.crossed += s.crossed;
    return out;
}

LaidSection lay_on_mat(const Section& section, const Placement& placement) {
    const auto as_it_lies = [&](const Region& shape) {
        return placement.slant != 0 ? shape.rotated(placement.slant) : placement.turned ? shape.turned() : shape;
    };
    const Region film = as_it_lies(section.film);
    const Region cut = as_it_lies(section.cut);
    const Point by = placement.at - film.bounds().low;
    std::vector<KnifeLine> lines = section.lines;
    const auto laid = [&](Point p) {
        return (placement.slant != 0 ? rotated(p, placement.slant) : placement.turned ? Point{-p.y, p.x} : p) + by;
    };
    for (KnifeLine& line : lines) line = {line.kind, laid(line.from), laid(line.to)};
    return {film.moved(by), cut.moved(by), std::move(lines)};
}

LoadsPlan plan_loads(const std::vector<Piece>& pieces, const Box& face, const Mat& mat, const MakingPlan& making,
                     const std::vector<CutLoad>& cut, const std::stop_token& stop) {
    LoadsPlan plan;
    Remaining remaining = without_cut(pieces, cut, making.lap);
    plan.misfits = std::move(remaining.misfits);
    for (const std::string& letters : remaining.around) {
        plan.problems.push_back(
            {{"loads.cut-around", {{"letters", letters}}}, "sections", {"loads.cut-around-remedy", {}}, Mark::Look});
    }
    for (const CutLoad& load : cut) {
        Load done{"", load.placements, load.film_length, 0, true, {}, load.carried_by, {}, {}};
        for (Placement& p : done.placements) p.section += plan.sections.size();
        plan.sections.insert(plan.sections.end(), load.sections.begin(), load.sections.end());
        plan.loads.push_back(std::move(done));
    }
    const std::size_t first_new = plan.sections.size();
    double least_film = 0;
    std::vector<Box> films;
    if (making.way == Way::PaintThrough && !face.empty()) {
        if (const auto repeat = repeat_in(pieces, mat.usable, making.margin, turned_over(making)))
            plan.repeats = static_cast<int>(repeat->units.size());
    }
    if (making.wishes.copies > 0 && !remaining.pieces.empty() && !face.empty()) {
        remaining.pieces = lay_again(plan, remaining.pieces, face, mat, making, films);
        remaining.parts.assign(remaining.pieces.size(), false);
    }
    if (!remaining.pieces.empty() && !face.empty()) {
        std::vector<int> runs(plan.sections.size(), 0);
        int number = 0;
        for (const Run& run : runs_between(remaining, face, cut, making.lap)) {
            add_run(plan, run, face, mat, making, least_film, films, stop);
            runs.resize(plan.sections.size(), ++number);
        }
        if (making.way == Way::PaintThrough && (number > 1 || !cut.empty())) keep_apart(plan, runs, films);
    }
    const Packed packed = pack(films, room_on(mat, making), load_gap);
    const std::vector<Length> skips = skips_for(packed, films, mat);
    for (const auto& placements : packed.loads) {
        Load load{"", placements, film_for(placements, films, mat), 0, false};
        load.skip = skips[plan.loads.size() - cut.size()];
        load.film_length += load.skip;
        for (Placement& p : load.placements) p.section += first_new;
        plan.loads.push_back(std::move(load));
    }
    say_where_pattern_breaks(plan, first_new, mat.usable);
    plan.least_film_mm2 = least_film;
    const auto cut_count = static_cast<int>(cut.size());
    plan.least_loads = cut_count + least_loads_for({&plan}, mat.usable);
    plan.proved = static_cast<int>(plan.loads.size()) == plan.least_loads && plan.problems.empty();
    double film_area = 0;
    double used_area = 0;
    for (Load& load : plan.loads) {
        const double area = load.film_length.in_mm() * mat.width.in_mm();
        const double used = covered(load.placements, plan.sections);
        load.share = area > 0 ? used / area : 0;
        film_area += area;
        used_area += used;
        plan.film_total += load.film_length;
    }
    plan.share = film_area > 0 ? used_area / film_area : 0;
    if (!cut.empty()) order_sections(plan);
    const bool overlaid = making.wishes.whole_margins || making.wishes.copies > 0 || !making.wishes.apart.empty();
    if (overlaid && making.way == Way::PaintThrough) set_passes(plan);
    tell_apart(plan);
    for (std::size_t i = 0; i < plan.loads.size(); ++i) {
        std::string letters;
        for (const Placement& p : plan.loads[i].placements)
            letters += (letters.empty() ? "" : "+") + plan.sections[p.section].letters;
        plan.loads[i].name = letters;
    }
    for (const Section& section : plan.sections) plan.keepers += static_cast<int>(section.keepers.size());
    for (const Misfit& misfit : plan.misfits) {
        if (misfit.kept) continue;
        plan.problems.push_back(
            {{"loads.misfit", {{"letters", misfit.letters}}}, "sections", {"loads.keep-or-again", {}}, Mark::Look});
    }
    explain(plan, mat, least_film);
    if (making.wishes.any() && !stop.stop_requested()) {
        MakingPlan as_it_comes = making;
        as_it_comes.wishes = {};
        plan.without_wishes = as_found(plan_loads(pieces, face, mat, as_it_comes, cut, stop));
    }
    return plan;
}

}  // namespace skarvel
