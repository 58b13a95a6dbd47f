#include "loads/loads.h"

#include "loads/lying.h"
#include "loads/passes.h"
#include "loads/repeats.h"
#include "loads/round_cut.h"
#include "values/searches.h"

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
    // What counts, in this order: letters crossed though they fit whole, seams across ink, ink crossed, words parted,
    // loads, margin that stays bare, film where words may be parted for it, sections, stepped seams, minutes of laying
    // unless the maker would rather save film, film, words that may be parted, minutes, lines to measure to.
    std::tuple<int, int, Length, int, std::size_t, std::int64_t, Length, int, std::int64_t, std::int64_t, Length, int,
               std::int64_t, int, std::int64_t>
        rank;
};

// As the maker asks.
Room room_on(const Mat& mat, const MakingPlan& making) {
    Room room = room_on(mat);
    room.slants = making.wishes.any_angle;
    return room;
}

Length least_side(const Room& room) { return std::min(room.across, room.along); }

// How many rooms hold so much film at least. A roll may leave no room between the edges of a mat, or a hair of it: then
// nothing lies in any, and no more are counted than can be.
int least_rooms(double film_mm2, const Room& room) {
    constexpr double most = 1e6;
    if (least_side(room) <= Length{}) return 0;
    const double room_mm2 = room.across.in_mm() * room.along.in_mm();
    return static_cast<int>(std::min(most, std::ceil(film_mm2 / room_mm2 - 1e-9)));
}

Choice tried(const Division& division, const Mat& mat, const MakingPlan& making, Effort effort) {
    Choice choice{&division, {}, {}};
    std::vector<Box> films;
    for (const Part& part : division.parts) films.push_back(part.film);
    choice.packed = pack(films, room_on(mat, making), making.gap, effort);
    Length film;
    for (const auto& load : choice.packed.loads) film += film_for(load, films, mat);
    std::int64_t longest = 0;
    // As sections are counted: by the groups of ink in them.
    double minutes = division.groups * making.laying.plain;
    for (const Box& f : films) {
        longest = std::max({longest, f.width(), f.height()});
        minutes += making.laying.minutes(from_grid(std::max(f.width(), f.height()))) - making.laying.plain;
    }
    choice.rank = {division.letters,
                   division.crossings,
                   division.crossed,
                   making.wishes.part_words ? 0 : division.in_words,
                   choice.packed.loads.size(),
                   std::llround(division.bare_mm2),
                   making.wishes.part_words ? film : Length{},
                   division.groups,
                   std::count_if(division.seams.begin(), division.seams.end(), [](const Seam& s) { return s.stepped; }),
                   making.wishes.laid_soonest ? std::llround(minutes * 100) : 0,
                   film,
                   division.in_words,
                   std::llround(minutes * 100),
                   division.off_lines,
                   longest};
    return choice;
}

// Within the margin of a mask, what no film lies over. Beside stepped seams films are cut back around outlines, so
// there only their exact shapes tell.
double bare_margin(const Division& division, const std::vector<Section>& sections, const Run& run,
                   const MakingPlan& making) {
    const bool stepped =
        std::any_of(division.seams.begin(), division.seams.end(), [](const Seam& s) { return s.stepped; });
    if (making.way != Way::PaintThrough || !stepped) return division.bare_mm2;
    // Piece by piece, and of each only the ink near what its films leave of the box round its margin: growing all of a
    // script costs more than all the rest of its plan.
    std::vector<Region> bare;
    for (const Piece& piece : run.pieces) {
        const Box reach = common(grown(piece.shape.bounds(), making.margin), run.available);
        if (reach.empty()) continue;
        std::vector<Region> films;
        for (const Section& s : sections) {
            if (s.film.bounds().meets(reach)) films.push_back(s.film);
        }
        for (const Region& left : islands(subtract(Region::rectangle(reach), merge(films)))) {
            const Box near = grown(left.bounds(), making.margin);
            const Region ink = intersect(piece.shape, Region::rectangle(near));
            if (!ink.empty()) bare.push_back(intersect(grow(ink, making.margin), left));
        }
    }
    return merge(bare).area_mm2();
}

void add_run(LoadsPlan& plan, const Run& run, const Box& face, const Mat& mat, const MakingPlan& making,
             std::vector<Box>& films) {
    const Divisions divisions = divide(run.pieces, face, run.available, room_on(mat, making), making);
    plan.problems.insert(plan.problems.end(), divisions.problems.begin(), divisions.problems.end());
    plan.least_film_mm2 += divisions.least_film_mm2;
    if (divisions.choices.empty()) return;
    // Every division is packed by the quick rules, and the best few of them with more care. Of large signs only a few.
    constexpr std::size_t many_parts = searches::sections_of_large_sign.most;
    constexpr std::size_t few_of_large = searches::divisions_of_large_sign.most;
    constexpr std::size_t few_with_care = searches::divisions_with_care.most;
    constexpr std::size_t few_parts = searches::sections_quickly_packed.most;
    constexpr std::size_t more_with_care = searches::more_divisions_with_care.most;
    const bool large = divisions.choices.front().parts.size() > many_parts;
    const std::size_t tries = std::min(divisions.choices.size(), large ? few_of_large : divisions.choices.size());
    std::vector<Choice> choices;
    for (std::size_t i = 0; i < tries; ++i) choices.push_back(tried(divisions.choices[i], mat, making, Effort::Quick));
    std::stable_sort(choices.begin(), choices.end(), [](const Choice& a, const Choice& b) { return a.rank < b.rank; });
    Choice best = choices.front();
    const bool few = divisions.choices.front().parts.size() <= few_parts;
    const std::size_t with_care = few ? more_with_care : few_with_care;
    const Effort effort = few ? Effort::Thorough : Effort::Usual;
    for (std::size_t i = 0; i < std::min(choices.size(), with_care); ++i) {
        Choice other = tried(*choices[i].division, mat, making, effort);
        if (other.rank < best.rank) best = std::move(other);
    }
    // More sections, where they come to fewer loads; never to fewer than the film of all of them needs.
    const auto least = static_cast<std::size_t>(std::max(1, least_rooms(divisions.least_film_mm2, room_on(mat))));
    for (const Division& finer : divisions.finer) {
        const std::size_t now = best.packed.loads.size();
        // Once some are found, others as fine may do with less film.
        const bool as_fine = finer.parts.size() == best.division->parts.size();
        if ((now <= least && !as_fine) || best.division->crossings > 0) break;
        std::vector<Box> boxes;
        for (const Part& part : finer.parts) boxes.push_back(part.film);
        if (!fits_on(boxes, room_on(mat, making), making.gap, as_fine ? now : now - 1)) continue;
        if (Choice other = tried(finer, mat, making, effort); other.rank < best.rank) best = std::move(other);
    }
    std::vector<Section> sections = sections_of(*best.division, run.pieces, making);
    const double bare = bare_margin(*best.division, sections, run, making);
    for (Section& section : sections) {
        films.push_back(section.film.bounds());
        plan.sections.push_back(std::move(section));
    }
    plan.seams.insert(plan.seams.end(), best.division->seams.begin(), best.division->seams.end());
    plan.crossings += best.division->crossings;
    plan.words_parted += best.division->in_words;
    plan.spans_face = plan.spans_face || best.division->spans_face;
    constexpr double mm2_per_square_inch = 25.4 * 25.4;
    constexpr double told_mm2 = mm2_per_square_inch / 10;
    if (bare > told_mm2) {
        plan.problems.push_back({{"sections.bare-margin",
                                  {{"inches", static_cast<std::int64_t>(std::ceil(bare / mm2_per_square_inch))},
                                   {"margin", making.margin}}},
                                 Station::Sections,
                                 {"sections.tape-margin", {}},
                                 Mark::Look});
    }
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
    const std::optional<Repeat> repeat = repeat_in(pieces, room_on(mat), making.margin, turned_over(making));
    if (!repeat && cut_before > 0) return pieces;
    if (!repeat) {
        plan.problems.push_back({{"wish.no-repeat", {}}, Station::Sections, {"wish.forget", {}}, Mark::Look});
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

// Masks whose film would lie over ink that is painted in the same pass go to another one.
void set_passes(LoadsPlan& plan) {
    constexpr double speck_mm2 = 0.05;
    struct Laid {
        std::size_t section;
        int pass;  // of the section's own
        Region solid, open;
    };
    std::vector<Laid> laid;
    std::vector<int> spans;
    for (std::size_t i = 0; i < plan.sections.size(); ++i) {
        const Section& section = plan.sections[i];
        const Region solid = subtract(section.film, section.cut);
        int last = 0;
        for (const Lay& lay : lays_of({section})) {
            last = lay.pass - section.pass;
            laid.push_back({i, last, solid.laid(lay.move), section.cut.laid(lay.move)});
        }
        spans.push_back(last + 1);
    }
    const auto over = [](const Region& solid, const Region& open) {
        return solid.bounds().meets(open.bounds()) && intersect(solid, open).area_mm2() > speck_mm2;
    };
    std::vector<Clash> clashes;
    for (std::size_t a = 0; a < laid.size(); ++a) {
        for (std::size_t b = a + 1; b < laid.size(); ++b) {
            if (laid[a].section == laid[b].section) continue;
            if (over(laid[a].solid, laid[b].open) || over(laid[b].solid, laid[a].open))
                clashes.push_back({laid[a].section, laid[b].section, laid[a].pass - laid[b].pass});
        }
    }
    const Passes passes = fewest_passes(spans, clashes);
    for (std::size_t i = 0; i < plan.sections.size(); ++i) plan.sections[i].pass = passes.of[i];
    reorder(plan, [](const Section& a, const Section& b) { return a.pass < b.pass; });
    plan.passes = passes.count;
    if (plan.passes > 1) {
        plan.why.push_back({passes.proved ? "sections.why-passes-proved" : "sections.why-passes",
                            {{"passes", std::int64_t{plan.passes}}, {"less", std::int64_t{plan.passes} - 1}}});
    }
}

// Sections are found from the top down; a maker may begin elsewhere, and numbers and loads follow. Those of one row
// keep their order, from left to right.
void begin_from(LoadsPlan& plan, LayFrom from, const Box& face) {
    if (from == LayFrom::Top || plan.sections.size() < 2) return;
    const auto middle = [](const Section& s) {
        const Box b = s.film.bounds();
        return Point{(b.low.x + b.high.x) / 2, (b.low.y + b.high.y) / 2};
    };
    // Rows from the bottom up: what lies beside the middle of the row below belongs to it.
    std::vector<std::size_t> upwards;
    for (std::size_t i = 0; i < plan.sections.size(); ++i) upwards.push_back(i);
    std::stable_sort(upwards.begin(), upwards.end(), [&](std::size_t a, std::size_t b) {
        return middle(plan.sections[a]).y < middle(plan.sections[b]).y;
    });
    std::map<const Section*, int> row;
    std::int64_t top = 0;
    int rows = -1;
    for (const std::size_t i : upwards) {
        if (rows < 0 || middle(plan.sections[i]).y > top) {
            ++rows;
            top = plan.sections[i].film.bounds().high.y;
        }
        row[&plan.sections[i]] = rows;
    }
    const Point centre{(face.low.x + face.high.x) / 2, (face.low.y + face.high.y) / 2};
    const auto away = [&](const Section& s) {
        const Point m = middle(s) - centre;
        return std::hypot(static_cast<double>(m.x), static_cast<double>(m.y));
    };
    reorder(plan, [&](const Section& a, const Section& b) {
        if (a.pass != b.pass) return a.pass < b.pass;
        if (from == LayFrom::Base) return row.at(&a) < row.at(&b);
        return from == LayFrom::Centre ? away(a) < away(b) : away(a) > away(b);
    });
}

// Loads in the order in which what they hold is laid, those that are cut before the others. Where one begins further up
// the roll for the sake of a pattern, the order that was found costs less film and stays.
void number_loads(LoadsPlan& plan) {
    if (std::any_of(plan.loads.begin(), plan.loads.end(), [](const Load& l) { return l.skip > Length{}; })) return;
    const auto first_on = [](const Load& load) {
        std::size_t first = load.placements.empty() ? 0 : load.placements.front().section;
        for (const Placement& p : load.placements) first = std::min(first, p.section);
        return first;
    };
    const auto to_cut =
        std::stable_partition(plan.loads.begin(), plan.loads.end(), [](const Load& l) { return l.cut; });
    std::stable_sort(to_cut, plan.loads.end(), [&](const Load& a, const Load& b) { return first_on(a) < first_on(b); });
}

// Where a section lies on the pattern otherwise than the others of its load.
void say_where_pattern_breaks(LoadsPlan& plan, const Room& room) {
    if (room.repeat_across <= Length{} && room.repeat_along <= Length{}) return;
    std::optional<std::int64_t> across;
    std::size_t laid = 0;
    for (const Load& load : plan.loads) {
        if (load.cut) continue;
        for (const Placement& p : load.placements) {
            ++laid;
            const std::int64_t shift = p.at.x - plan.sections[p.section].film.bounds().low.x;
            if (!across) across = shift;
            if (room.repeat_across <= Length{} || (shift - *across) % to_grid(room.repeat_across) == 0) continue;
            plan.problems.push_back({{"loads.pattern-breaks", {{"letters", plan.sections[p.section].letters}}},
                                     Station::Sections,
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

void explain(LoadsPlan& plan, const Mat& mat, const MakingPlan& making) {
    const auto count = [](std::size_t n) { return static_cast<std::int64_t>(n); };
    if (plan.sections.empty()) return;
    // What the maker wants has no other reason.
    const auto wished = [](const Seam& s) { return s.why.id.starts_with("seam.wished"); };
    const auto own = std::count_if(plan.seams.begin(), plan.seams.end(), wished);
    const auto own_across = std::count_if(plan.seams.begin(), plan.seams.end(),
                                          [&](const Seam& s) { return wished(s) && s.crossed > Length{}; });
    const std::int64_t others_across = std::max<std::int64_t>(0, plan.crossings - own_across);
    if (plan.sections.size() == 1) {
        plan.why.push_back({"sections.why-one", {}});
    } else if (plan.seams.empty() && !making.wishes.whole_margins) {
        plan.why.push_back({making.wishes.apart.empty() ? "sections.why-apart" : "sections.why-set-apart",
                            {{"sections", count(plan.sections.size())}}});
    } else if (plan.crossings == 0 && own > 0) {
        plan.why.push_back(
            {own == static_cast<std::int64_t>(plan.seams.size()) ? "sections.why-wished" : "sections.why-some-wished",
             {{"wished", std::int64_t{own}}, {"along", mat.usable.along}}});
    } else if (plan.crossings == 0) {
        plan.why.push_back(
            {"sections.why-gaps", {{"sections", count(plan.sections.size())}, {"along", mat.usable.along}}});
    } else {
        if (others_across > 0) plan.why.push_back({"sections.why-crossed", {{"crossings", others_across}}});
        if (own_across > 0)
            plan.why.push_back({"sections.why-wished-across", {{"crossings", std::int64_t{own_across}}}});
    }
    if (plan.spans_face) plan.why.push_back({"sections.why-spans", {}});
    std::size_t side_by_side = 0;
    for (const Load& load : plan.loads) side_by_side = std::max(side_by_side, load.placements.size());
    if (side_by_side > 1) {
        plan.why.push_back({"loads.why-shared",
                            {{"sections", count(side_by_side)}, {"across", mat.usable.across}, {"gap", making.gap}}});
    }
    if (plan.loads.size() > 1) {
        constexpr double sq_in = 645.16;
        plan.why.push_back({"loads.why-area",
                            {{"needed", plan.least_film_mm2 / sq_in},
                             {"room", mat.usable.across.in_inches() * mat.usable.along.in_inches()}}});
    }
    plan.why.push_back(bound_said(static_cast<int>(plan.loads.size()), plan.least_loads, plan.proved));
    plan.why.push_back({"loads.why-film", {{"film", plan.film_total}}});
}

// Names, film and shares of the loads, and the sums over all of them.
void add_up(LoadsPlan& plan, const Mat& mat) {
    double film_area = 0;
    double used_area = 0;
    for (Load& load : plan.loads) {
        const double area = load.film_length.in_mm() * mat.width.in_mm();
        const double used = covered(load.placements, plan.sections);
        load.share = area > 0 ? used / area : 0;
        film_area += area;
        used_area += used;
        plan.film_total += load.film_length;
        load.name.clear();
        for (const Placement& p : load.placements)
            load.name += (load.name.empty() ? "" : "+") + plan.sections[p.section].letters;
        if (!load.cut) load.key = load.name;
    }
    plan.share = film_area > 0 ? used_area / film_area : 0;
    for (const Section& section : plan.sections) plan.keepers += static_cast<int>(section.keepers.size());
}

// How the sections are loaded that are not cut, in the order of `which`.
void pack_rest(LoadsPlan& plan, const std::vector<std::size_t>& which, const Mat& mat, const MakingPlan& making) {
    std::vector<Box> films;
    for (const std::size_t i : which) films.push_back(plan.sections[i].film.bounds());
    const Packed packed = pack(films, room_on(mat, making), making.gap);
    const std::vector<Length> skips = skips_for(packed, films, mat);
    for (std::size_t n = 0; n < packed.loads.size(); ++n) {
        Load load{"", "", packed.loads[n], film_for(packed.loads[n], films, mat), 0, false};
        load.skip = skips[n];
        load.film_length += load.skip;
        for (Placement& p : load.placements) p.section = which[p.section];
        plan.loads.push_back(std::move(load));
    }
}

// Sections and loads, those that are cut before the others; names, passes and sums follow.
LoadsPlan divided(const std::vector<Piece>& pieces, const Box& face, const Mat& mat, const MakingPlan& making,
                  const std::vector<CutLoad>& cut) {
    LoadsPlan plan;
    Remaining remaining = without_cut(pieces, cut, making.lap);
    plan.misfits = std::move(remaining.misfits);
    for (const std::string& letters : remaining.around) {
        plan.problems.push_back({{"loads.cut-around", {{"letters", letters}}},
                                 Station::Sections,
                                 {"loads.cut-around-remedy", {}},
                                 Mark::Look});
    }
    for (const CutLoad& load : cut) {
        Load done = load_of(load);
        for (Placement& p : done.placements) p.section += plan.sections.size();
        plan.sections.insert(plan.sections.end(), load.sections.begin(), load.sections.end());
        plan.loads.push_back(std::move(done));
    }
    std::vector<std::size_t> fresh;
    const std::size_t first_new = plan.sections.size();
    std::vector<Box> films;
    if (making.way == Way::PaintThrough && !face.empty()) {
        if (const auto repeat = repeat_in(pieces, room_on(mat), making.margin, turned_over(making)))
            plan.repeats = static_cast<int>(repeat->units.size());
    }
    if (const Room room = room_on(mat); !remaining.pieces.empty() && least_side(room) <= Length{}) {
        const bool across = room.across <= Length{};
        plan.problems.push_back(
            {{across ? "loads.no-room" : "loads.no-room-along",
              {{"film", making.film.name}, {"of", across ? mat.width : mat.length}, {"bed", mat.name}}},
             Station::Sections,
             {"loads.no-room-remedy", {}},
             Mark::Stop});
        remaining = {};
    }
    if (making.wishes.copies > 0 && !remaining.pieces.empty() && !face.empty()) {
        remaining.pieces = lay_again(plan, remaining.pieces, face, mat, making, films);
        remaining.parts.assign(remaining.pieces.size(), false);
    }
    if (!remaining.pieces.empty() && !face.empty()) {
        std::vector<int> runs(plan.sections.size(), 0);
        int number = 0;
        for (const Run& run : runs_between(remaining, face, cut, making.lap)) {
            add_run(plan, run, face, mat, making, films);
            runs.resize(plan.sections.size(), ++number);
        }
        if (making.way == Way::PaintThrough && (number > 1 || !cut.empty())) keep_apart(plan, runs, films);
    }
    for (std::size_t i = first_new; i < plan.sections.size(); ++i) fresh.push_back(i);
    pack_rest(plan, fresh, mat, making);
    if (!cut.empty()) order_sections(plan);
    const bool overlaid = making.wishes.whole_margins || making.wishes.copies > 0 || !making.wishes.apart.empty();
    if (overlaid && making.way == Way::PaintThrough) set_passes(plan);
    tell_apart(plan);
    return plan;
}

// Where what is cut is part of the plan as it was found, nothing else changes: loads without any of it stay as they
// are, and what else lay on the others is packed again. Whether that is so.
bool keep_cut_in(LoadsPlan& plan, const std::vector<CutLoad>& cut, const Mat& mat, const MakingPlan& making) {
    std::optional<Kept> kept = kept_in(plan.sections, cut, making);
    if (!kept) return false;
    const std::size_t as_found = plan.sections.size();
    plan.sections = std::move(kept->sections);
    double cut_mm2 = 0;
    for (std::size_t i = 0; i < plan.sections.size(); ++i)
        cut_mm2 += kept->cut[i] ? plan.sections[i].film.area_mm2() : 0;
    plan.least_film_mm2 = std::max(0.0, plan.least_film_mm2 - cut_mm2);
    std::vector<Load> loads = std::move(kept->loads);
    std::vector<std::size_t> rest;
    for (Load& load : plan.loads) {
        const auto is_cut = [&](const Placement& p) { return kept->cut[p.section]; };
        if (std::none_of(load.placements.begin(), load.placements.end(), is_cut)) {
            loads.push_back(std::move(load));
            continue;
        }
        for (const Placement& p : load.placements) {
            if (!kept->cut[p.section]) rest.push_back(p.section);
        }
    }
    for (std::size_t i = as_found; i < plan.sections.size(); ++i) {
        if (!kept->cut[i]) rest.push_back(i);
    }
    plan.loads = std::move(loads);
    std::sort(rest.begin(), rest.end());
    if (!rest.empty()) pack_rest(plan, rest, mat, making);
    if (plan.sections.size() > as_found) tell_apart(plan);
    return true;
}

}  // namespace

Room room_on(const Mat& bed) {
    Room room = bed.usable;
    room.inset = bed.swing;
    room.across = std::max(Length{}, room.across - bed.swing * 2);
    room.along = std::max(Length{}, room.along - bed.swing * 2);
    return room;
}

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
    return std::max(least_rooms(film, room), least_mats(whole, room));
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
                     const std::vector<CutLoad>& cut) {
    LoadsPlan plan = divided(pieces, face, mat, making, {});
    if (!cut.empty() && !keep_cut_in(plan, cut, mat, making)) plan = divided(pieces, face, mat, making, cut);
    begin_from(plan, making.lay_from, face);
    number_loads(plan);
    say_where_pattern_breaks(plan, mat.usable);
    const auto cut_count = static_cast<int>(cut.size());
    plan.least_loads = cut_count + least_loads_for({&plan}, room_on(mat));
    plan.proved = static_cast<int>(plan.loads.size()) == plan.least_loads && plan.problems.empty();
    add_up(plan, mat);
    check_lying(plan, mat);
    for (const Misfit& misfit : plan.misfits) {
        if (misfit.kept) continue;
        plan.problems.push_back({{"loads.misfit", {{"letters", misfit.letters}}},
                                 Station::Sections,
                                 {"loads.keep-or-again", {}},
                                 Mark::Look});
    }
    explain(plan, mat, making);
    return plan;
}

}  // namespace skarvel
