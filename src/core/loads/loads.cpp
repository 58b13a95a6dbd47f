#include "loads/loads.h"

#include "loads/repeats.h"

#include <algorithm>
#include <cmath>
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

struct Remaining {
    std::vector<Piece> pieces;
    std::vector<Misfit> misfits;
};

Remaining without_cut(const std::vector<Piece>& pieces, const std::vector<CutLoad>& cut) {
    Remaining out{pieces, {}};
    for (std::size_t i = 0; i < cut.size(); ++i) {
        for (const Section& section : cut[i].sections) {
            std::vector<Piece> laid;
            for (const Lay& lay : lays_of({section})) {
                for (Piece p : section.pieces) {
                    p.shape = p.shape.moved(lay.move);
                    // Only the first lay carries the letters that it was cut for.
                    p.art = p.art || lay.time > 0;
                    laid.push_back(std::move(p));
                }
            }
            const bool fits = std::all_of(laid.begin(), laid.end(), [&](const Piece& p) {
                return std::any_of(pieces.begin(), pieces.end(), [&](const Piece& now) {
                    return now == p || (now.letters == p.letters && subtract(p.shape, now.shape).empty());
                });
            });
            if (!fits) out.misfits.push_back({i, section.letters, cut[i].keep});
            std::erase_if(out.pieces, [&](const Piece& now) {
                return std::any_of(laid.begin(), laid.end(), [&](const Piece& p) { return covers(p, now); });
            });
        }
    }
    return out;
}

// Pieces left over, in runs that no cut section parts, each with the part of the face where its film may lie.
struct Run {
    std::vector<Piece> pieces;
    Box available;
};

std::vector<Run> runs_between(const std::vector<Piece>& pieces, const Box& face, const std::vector<CutLoad>& cut,
                              Length lap) {
    if (cut.empty()) return {{pieces, face}};
    const Axis axis = face.height() >= face.width() ? Axis::Y : Axis::X;
    std::vector<std::pair<std::int64_t, std::int64_t>> taken;
    for (const CutLoad& load : cut) {
        for (const Section& section : load.sections) {
            const Box film = section.film.bounds();
            taken.emplace_back(along(axis, film.low), along(axis, film.high));
        }
    }
    std::sort(taken.begin(), taken.end());
    std::vector<Run> runs;
    for (const Piece& piece : pieces) {
        const Box box = piece.shape.bounds();
        const std::int64_t middle = (along(axis, box.low) + along(axis, box.high)) / 2;
        Box available = face;
        // Films may overlap what is laid beside them by the lap, as at any seam.
        for (const auto& [from, to] : taken) {
            if ((from + to) / 2 < middle) {
                auto& low = axis == Axis::X ? available.low.x : available.low.y;
                low = std::max(low, std::min(to - to_grid(lap), along(axis, box.low) - to_grid(off_neighbour)));
            } else {
                auto& high = axis == Axis::X ? available.high.x : available.high.y;
                high = std::min(high, std::max(from + to_grid(lap), along(axis, box.high) + to_grid(off_neighbour)));
            }
        }
        const auto same = std::find_if(runs.begin(), runs.end(), [&](const Run& run) {
            return std::none_of(taken.begin(), taken.end(), [&](const auto& t) {
                const std::int64_t c = (t.first + t.second) / 2;
                const Box first = run.pieces.front().shape.bounds();
                const std::int64_t m = (along(axis, first.low) + along(axis, first.high)) / 2;
                return (c > middle) != (c > m);
            });
        });
        if (same == runs.end()) {
            runs.push_back({{piece}, available});
        } else {
            same->pieces.push_back(piece);
            same->available = around(same->available, available);
        }
    }
    return runs;
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

// What repeats is cut so often, and each copy laid again and again: with three copies for twelve feet the first is laid
// on feet 1 to 4, so that no two of one pass lie side by side. Gives the pieces that are left.
std::vector<Piece> lay_again(LoadsPlan& plan, const std::vector<Piece>& pieces, const Box& face, const Mat& mat,
                             const MakingPlan& making, std::vector<Box>& films) {
    const std::optional<Repeat> repeat = repeat_in(pieces, mat.usable, making.margin);
    if (!repeat) {
        plan.problems.push_back({{"wish.no-repeat", {}}, "sections", {"wish.forget", {}}, Mark::Look});
        return pieces;
    }
    const std::size_t units = repeat->units.size();
    const auto copies = std::min(static_cast<std::size_t>(making.wishes.copies), units);
    const std::size_t each = (units + copies - 1) / copies;
    const std::size_t first = plan.sections.size();
    for (std::size_t from = 0; from < units; from += each) {
        Part part{repeat->units[from], {}, std::nullopt};
        Box ink;
        for (const std::size_t i : part.pieces) ink = around(ink, pieces[i].shape.bounds());
        part.film = grown(ink, making.margin);
        // Over the ends of the board it may hang, since all its lays are one size; its sides run to the edges.
        const bool level = repeat->step.x != 0;
        const std::int64_t side = level ? face.height() : face.width();
        const bool spans =
            making.edges_place && side <= std::min(to_grid(mat.usable.across), to_grid(mat.usable.along));
        if (level) {
            part.film.low.y = spans ? face.low.y : std::max(face.low.y, part.film.low.y);
            part.film.high.y = spans ? face.high.y : std::min(face.high.y, part.film.high.y);
        } else {
            part.film.low.x = spans ? face.low.x : std::max(face.low.x, part.film.low.x);
            part.film.high.x = spans ? face.high.x : std::min(face.high.x, part.film.high.x);
        }
        plan.spans_face = plan.spans_face || spans;
        Division one;
        one.parts.push_back(std::move(part));
        for (Section& section : sections_of(one, pieces, making)) {
            for (std::size_t k = 1; k < std::min(each, units - from); ++k)
                section.again.push_back(
                    {repeat->step.x * static_cast<std::int64_t>(k), repeat->step.y * static_cast<std::int64_t>(k)});
            films.push_back(section.film.bounds());
            plan.sections.push_back(std::move(section));
        }
    }
    plan.why.push_back({"sections.why-again",
                        {{"copies", static_cast<std::int64_t>(plan.sections.size() - first)},
                         {"lays", static_cast<std::int64_t>(units)},
                         {"step", from_grid(std::max(repeat->step.x, repeat->step.y))}}});
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
                const Region film = solid.moved(lay.move);
                const Region open = section.cut.moved(lay.move);
                return std::any_of(laid.begin(), laid.end(), [&](const Laid& l) {
                    return l.pass == here && (over(film, l.open) || over(l.solid, open));
                });
            });
        };
        int pass = 1;
        while (clashes(pass)) ++pass;
        for (const Lay& lay : lays)
            laid.push_back({solid.moved(lay.move), section.cut.moved(lay.move), lay.pass - section.pass + pass});
        section.pass = pass;
    }
    reorder(plan, [](const Section& a, const Section& b) { return a.pass < b.pass; });
    for (const Lay& lay : lays_of(plan.sections)) plan.passes = std::max(plan.passes, lay.pass);
    if (plan.passes > 1) plan.why.push_back({"sections.why-passes", {{"passes", std::int64_t{plan.passes}}}});
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
    if (plan.proved)
        plan.why.push_back(
            {plan.loads.size() == 1 ? "loads.one-proved" : "loads.proved", {{"less", count(plan.loads.size() - 1)}}});
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
    Remaining remaining = without_cut(pieces, cut);
    plan.misfits = std::move(remaining.misfits);
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
        if (const auto repeat = repeat_in(pieces, mat.usable, making.margin))
            plan.repeats = static_cast<int>(repeat->units.size());
    }
    if (making.wishes.copies > 0 && !remaining.pieces.empty() && !face.empty())
        remaining.pieces = lay_again(plan, remaining.pieces, face, mat, making, films);
    if (!remaining.pieces.empty() && !face.empty()) {
        for (const Run& run : runs_between(remaining.pieces, face, cut, making.lap)) {
            add_run(plan, run, face, mat, making, least_film, films, stop);
        }
    }
    const Packed packed = pack(films, room_on(mat, making), load_gap);
    for (const auto& placements : packed.loads) {
        Load load{"", placements, film_for(placements, films, mat), 0, false};
        for (Placement& p : load.placements) p.section += first_new;
        plan.loads.push_back(std::move(load));
    }
    const double room_mm2 = mat.usable.across.in_mm() * mat.usable.along.in_mm();
    const auto cut_count = static_cast<int>(cut.size());
    plan.least_loads = cut_count + static_cast<int>(std::ceil(least_film / room_mm2 - 1e-9));
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
