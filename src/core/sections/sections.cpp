#include "sections/sections.h"

#include "sections/divider.h"
#include "sections/margins.h"
#include "sections/wishes.h"
#include "values/searches.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <numeric>
#include <optional>
#include <set>
#include <tuple>

namespace skarvel {

using namespace dividing;

namespace {

constexpr double most_sections = 500;  // more than a year of evenings: a size is wrong
constexpr Length wide_gap = 4_in;      // film between ink farther apart is wasted (memory)
constexpr std::size_t most_groups = searches::groups_of_pieces.most;
constexpr int most_refined = searches::sections_refined.most;
constexpr std::size_t few_apart = searches::groups_apart.most;

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
    division.in_words = draft.score.in_words + draft.score.words_last;
    division.letters = draft.score.letters;
    division.crossings = draft.score.crossings;
    division.crossed = Length::nanometres(draft.score.crossed);
    division.spans_face = (context.span_x || context.span_y) && context.mask;
    return division;
}

// A lower bound, for telling a slip of the hand from a large sign before any search: film as well, since a margin much
// larger than the bed is laid in as many parts as ink would be.
double least_sections(const std::vector<Piece>& pieces, const Context& context) {
    const Room& room = context.room;
    const double area = grid_to_mm(std::max<std::int64_t>(1, to_grid(room.across))) *
                        grid_to_mm(std::max<std::int64_t>(1, to_grid(room.along)));
    double boxes = 0;
    for (const Piece& piece : pieces) {
        const Box box = context.film_for(piece.shape.bounds(), context.available);
        boxes += std::max(0.0, grid_to_mm(box.width()) * grid_to_mm(box.height()) / area - 1);
    }
    return boxes;
}

// Choices for each cell put together: the best few of all ways.
std::vector<Division> together(const std::vector<std::vector<Division>>& cells, bool part_words) {
    if (cells.size() == 1) return cells.front();
    constexpr std::size_t few = searches::choices_per_cell.most;
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
                both.letters += b.letters;
                both.crossings += b.crossings;
                both.crossed += b.crossed;
                both.spans_face = both.spans_face || b.spans_face;
                longer.push_back(std::move(both));
            }
        }
        const auto cost = [&](const Division& d) {
            return std::tuple(d.letters, d.crossings, d.crossed, part_words ? 0 : d.in_words, d.parts.size(),
                              d.in_words, d.off_lines);
        };
        std::stable_sort(longer.begin(), longer.end(),
                         [&](const Division& a, const Division& b) { return cost(a) < cost(b); });
        if (longer.size() > most_choices) longer.resize(most_choices);
        all = std::move(longer);
    }
    return all;
}

// From a cell's own pieces to those of the face; ink beyond the wanted seams belongs to others, but the film is open
// there as well.
void name_pieces(Division& division, const WishedCell& cell, const std::vector<Piece>& pieces) {
    for (Part& part : division.parts) {
        const auto in_face = [&](const std::vector<std::size_t>& in_cell) {
            std::vector<std::size_t> of;
            for (const std::size_t i : in_cell) of.insert(of.end(), cell.of[i].begin(), cell.of[i].end());
            return of;
        };
        part.around = in_face(part.around);
        std::vector<std::size_t> of = in_face(part.pieces);
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

Divisions divide_close(const std::vector<Piece>& pieces, Context context) {
    Divisions out;
    if (pieces.empty()) {
        out.choices.push_back({});
        return out;
    }
    if (const double least = least_sections(pieces, context); least > most_sections) {
        out.problems.push_back({{"sections.too-many",
                                 {{"sections", static_cast<std::int64_t>(least)},
                                  {"across", context.room.across},
                                  {"along", context.room.along}}},
                                Station::Sections,
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
    while (drafts.empty() && left_out.size() < pieces.size()) {
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
             Station::Sections,
             {"sections.larger-mat", {}},
             Mark::Stop});
    }
    if (drafts.empty()) {
        if (out.problems.empty()) {
            out.problems.push_back(
                {{"sections.no-division", {{"across", context.room.across}, {"along", context.room.along}}},
                 Station::Sections,
                 {"sections.larger-mat", {}},
                 Mark::Stop});
        }
        return out;
    }
    const int fewest = drafts.front().score.sections;
    const int crossings = drafts.front().score.crossings;
    const int letters = drafts.front().score.letters;
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
        const bool worse =
            draft.score.letters > letters || draft.score.crossings > crossings || draft.score.sections > fewest + 1;
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

// Two groups that lie far apart in one section save no section: where that is all that is saved, film decides.
int groups_in(const Division& division, const std::vector<Piece>& pieces, const Context& context) {
    std::size_t groups = 0;
    for (const Part& part : division.parts) {
        std::vector<Piece> held;
        for (const std::size_t i : part.pieces) held.push_back(pieces[i]);
        groups += part.cell || held.empty() ? 1 : far_groups(held, context).size();
    }
    return static_cast<int>(groups);
}

// Without what the maker wishes, but for seams that may not be. Beside the divisions into fewest sections there are
// those in which groups that lie far apart never share film.
Divisions divide_found(const std::vector<Piece>& pieces, const Context& context) {
    Divisions out = divide_close(pieces, context);
    if (out.choices.empty() || !out.problems.empty()) return out;
    const auto groups = far_groups(pieces, context);
    if (groups.size() < 2 || groups.size() > most_groups) return out;
    std::vector<std::vector<Division>> each;
    for (const auto& group : groups) {
        std::vector<Piece> some;
        for (const std::size_t i : group) some.push_back(pieces[i]);
        Divisions part = divide_close(some, context);
        if (part.choices.empty()) return out;
        for (Division& d : part.choices) {
            for (Part& p : d.parts) {
                for (std::size_t& i : p.pieces) i = group[i];
                for (std::size_t& i : p.around) i = group[i];
            }
        }
        each.push_back(std::move(part.choices));
    }
    const int crossings = out.choices.front().crossings;
    for (Division& d : together(each, context.part_words())) {
        if (d.crossings > crossings || out.choices.size() >= most_choices + few_apart) break;
        number(d.parts);
        in_order_of_place(d.seams);
        out.choices.push_back(std::move(d));
    }
    return out;
}

}  // namespace

Divisions divide(const std::vector<Piece>& pieces, const Box& face, const Box& available, const Room& room,
                 const MakingPlan& making) {
    Context context{face, room, making, making.way == Way::PaintThrough, false, false, available, {}};
    const std::int64_t short_side = std::min(to_grid(room.across), to_grid(room.along));
    // A mask as wide as the board is placed by the board's own edges; only worth it across the shorter side.
    const bool spans = context.mask && making.edges_place;
    context.span_x = spans && face.width() <= face.height() && face.width() <= short_side;
    context.span_y = spans && !context.span_x && face.height() <= short_side;
    std::vector<Box> boxes;
    for (const Piece& piece : pieces) boxes.push_back(piece.shape.bounds());
    const auto met = [&boxes, &pieces, context](Divisions found) {
        for (std::vector<Division>* divisions : {&found.choices, &found.finer}) {
            for (Division& d : *divisions) {
                meet_margins(d, boxes, context);
                d.groups = groups_in(d, pieces, context);
            }
        }
        return found;
    };
    if (!making.wishes.any() || pieces.empty()) return met(divide_found(pieces, std::move(context)));

    Wished wished = with_wishes(pieces, face, available, room, making);
    Divisions out;
    const auto take = [&](const WishedCell& cell) {
        Context here = context;
        here.never = wished.never;
        if (!making.wishes.whole_margins) here.available = cell.available;
        Divisions found = divide_found(cell.pieces, here);
        // A letter that fits whole is not crossed to keep seams out of gaps.
        const bool cannot = found.choices.empty() || found.choices.front().letters > 0 ||
                            std::any_of(found.problems.begin(), found.problems.end(),
                                        [](const Problem& p) { return p.mark == Mark::Stop; });
        if (cannot && !wished.never.empty()) {
            // The nearest thing that can be is the division without what was asked.
            here.never.clear();
            Divisions without = divide_found(cell.pieces, here);
            const bool better = found.choices.empty() || found.choices.front().letters == 0 ||
                                (!without.choices.empty() && without.choices.front().letters == 0);
            if (!without.choices.empty() && better && without.problems.size() < found.problems.size() + 1) {
                found = std::move(without);
                out.problems.push_back({{"wish.never-impossible", {{"along", std::max(room.along, room.across)}}},
                                        Station::Sections,
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
    if (cells.empty()) {
        out.choices.clear();
        return out;
    }
    out.choices = together(cells, making.wishes.part_words);
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
    return met(std::move(out));
}

std::optional<int> slant_for(std::int64_t width, std::int64_t height, const Room& room) {
    if (!room.slants || !room.turns) return std::nullopt;
    const auto a = static_cast<double>(to_grid(room.across)) - 2;  // rounded corners
    const auto b = static_cast<double>(to_grid(room.along)) - 2;
    const auto w = static_cast<double>(width);
    const auto h = static_cast<double>(height);
    constexpr int step = 50;
    constexpr int quarter = 90'000;
    constexpr double to_radians = std::numbers::pi / 180'000;
    const auto lies = [&](int slant) {
        const double c = std::cos(slant * to_radians);
        const double s = std::sin(slant * to_radians);
        return w * c + h * s <= a && w * s + h * c <= b;
    };
    // Across, the rectangle reaches r cos(angle - phi), along, r cos(angle - (90 degrees - phi)): what fits is between
    // angles, and the least of them is 0 or where one of the two begins to fit.
    const double r = std::hypot(w, h);
    const double phi = std::atan2(h, w);
    std::array<double, 3> begins{0, 0, 0};
    if (a < r) begins[1] = phi + std::acos(a / r);
    if (b < r) begins[2] = std::numbers::pi / 2 - phi + std::acos(b / r);
    std::optional<int> least;
    for (const double begin : begins) {
        const int first = static_cast<int>(begin / to_radians) / step * step;
        for (int slant = first - step; slant <= first + 2 * step; slant += step) {
            if (slant < step || slant >= quarter || (least && slant >= *least) || !lies(slant)) continue;
            least = slant;
        }
    }
    return least;
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

}  // namespace skarvel
