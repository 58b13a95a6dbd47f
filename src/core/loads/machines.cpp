#include "loads/machines.h"

#include <algorithm>

namespace skarvel {

Mat as_moved(const Mat& bed, const Machine& machine) {
    Mat out = bed;
    out.swing = machine.knife.offset;
    if (machine.longest_units > 0) {
        // What is longer is divided.
        const Length reach = Length::nanometres(std::int64_t{machine.longest_units} * 25'000);
        out.usable.across = std::min(out.usable.across, reach);
        out.usable.along = std::min(out.usable.along, reach);
    }
    return out;
}

std::vector<Mat> beds_of(const std::vector<Machine>& machines) {
    std::vector<Mat> all;
    std::vector<Mat> taped;
    for (const Machine& machine : machines) {
        for (Mat bed : machine.beds) {
            bed.machine = machine.name;
            if (!bed.roll && bed.count > 1 && bed.length <= bed.width) {
                Mat two = bed;
                two.name = bed.name + ", two taped together";
                two.length = bed.length * 2;
                // The edge that is not cut stays at the far ends alone.
                two.usable.along = bed.usable.along + bed.length;
                two.taped = true;
                taped.push_back(as_moved(two, machine));
            }
            all.push_back(as_moved(bed, machine));
        }
    }
    all.insert(all.end(), taped.begin(), taped.end());
    for (const Machine& machine : machines) {
        if (!machine.prints) continue;
        Mat page{"printed page", machine.prints->page.across, machine.prints->page.along,
                 between_marks(*machine.prints)};
        page.machine = machine.name;
        page.print = machine.prints;
        all.push_back(as_moved(page, machine));
    }
    return all;
}

Room between_marks(const PrintArea& area) {
    const Length border = (area.margin + area.mark) * 2;
    return {std::max(Length{}, area.page.across - border), std::max(Length{}, area.page.along - border)};
}

Mat narrowed(const Mat& bed, const std::optional<FilmStock>& film, bool seen) {
    if (!film) return bed;
    Mat out = bed;
    // A pattern has a direction.
    out.usable.turns = !(film->patterned && seen);
    if (film->patterned && seen) {
        out.usable.repeat_across = film->repeat_across;
        out.usable.repeat_along = film->repeat_along;
    }
    if (bed.print || film->width <= Length{}) return out;
    const Length edge = bed.width - bed.usable.across;
    out.width = std::min(bed.width, film->width);
    out.usable.across = std::max(Length{}, std::min(bed.usable.across, film->width - edge));
    if (!film->roll) {
        const Length end = bed.length - bed.usable.along;
        out.length = std::min(bed.length, film->left);
        out.usable.along = std::max(Length{}, std::min(bed.usable.along, film->left - end));
    }
    return out;
}

std::vector<Machine> usual_machines() {
    const auto mat = [](const char* name, Length width, Length length, Room usable, int count = 1) {
        Mat m{name, width, length, usable};
        m.count = count;
        return m;
    };
    const auto roll = [](Length width, Length across, Length longest) {
        Mat m{"roll", width, longest, {across, longest}};
        m.roll = true;
        return m;
    };
    Machine twelve{"12-inch cutter", {}, {}, 0, {}, 0, {}};
    twelve.beds = {mat("12 × 24", 12_in, 24_in, {11.5_in, 23.5_in}),
                   mat("12 × 12", 12_in, 12_in, {11.5_in, 11.5_in}, 2), roll(12_in, 11.75_in, 144_in)};
    twelve.prints = PrintArea{{8.5_in, 11_in}};
    Machine narrow{"narrow cutter", {}, {}, 0, {}, 0, {}};
    narrow.beds = {mat("4 1/2 × 12", 4.5_in, 12_in, {4.25_in, 11.5_in}), roll(4.5_in, 4.25_in, 48_in)};
    Machine wide{"16-inch cutter", {}, {80, 300, 100, {}, {}}, 0, {}, 0, {}};
    wide.beds = {roll(16_in, 15.5_in, 72_in)};
    wide.prints = PrintArea{{15_in, 47.25_in}, 0.75_in, 0.375_in};
    return {twelve, narrow, wide};
}

std::optional<std::size_t> leftover_for(const std::vector<FilmStock>& drawer, const std::string& film,
                                        const std::string& colour, Length across, Length along) {
    std::optional<std::size_t> best;
    const auto area = [&](std::size_t i) { return drawer[i].width.in_mm() * drawer[i].left.in_mm(); };
    for (std::size_t i = 0; i < drawer.size(); ++i) {
        const FilmStock& piece = drawer[i];
        if (piece.roll || piece.film != film) continue;
        if (!colour.empty() && !piece.colour.empty() && piece.colour != colour) continue;
        // Of a decal the pattern is seen; nobody knows where on it a leftover begins.
        const bool seen = !colour.empty() && piece.patterned;
        if (seen && std::max(piece.repeat_across, piece.repeat_along) > Length{}) continue;
        const bool straight = across <= piece.width && along <= piece.left;
        const bool turned = along <= piece.width && across <= piece.left && !seen;
        if (!straight && !turned) continue;
        if (!best || area(i) < area(*best)) best = i;
    }
    return best;
}

std::vector<Box> leftovers_on_bed(const std::vector<FilmStock>& drawer, const Load& load,
                                  const std::vector<Section>& sections, const Mat& bed) {
    if (!load.scraps.empty()) {
        std::vector<Box> all;
        for (const ScrapOnBed& s : load.scraps) all.push_back(s.at);
        return all;
    }
    const auto at =
        std::find_if(drawer.begin(), drawer.end(), [&](const FilmStock& f) { return !f.roll && f.name == load.from; });
    if (load.from.empty() || at == drawer.end()) return {};
    Box lies;
    for (const Placement& p : load.placements) lies = around(lies, box_on_mat(sections[p.section].film.bounds(), p));
    for (const Guest& g : load.guests) lies = around(lies, box_on_mat(g.section.film.bounds(), g.placement));
    std::int64_t across = to_grid(at->width);
    std::int64_t along = to_grid(at->left);
    if (lies.width() > across || lies.height() > along) std::swap(across, along);
    // What is cut begins at the corner of the usable area; the piece may reach out to the edge of the bed.
    const std::int64_t edge = std::min((to_grid(bed.width) - to_grid(bed.usable.across)) / 2, across - lies.high.x);
    const Point low{-std::max<std::int64_t>(0, edge), -std::max<std::int64_t>(0, std::min(edge, along - lies.high.y))};
    return {{low, {low.x + across, low.y + along}}};
}

std::string leftovers_of(const CutLoad& load) {
    std::string names = load.from;
    for (const std::string& also : load.also_from) names += ", " + also;
    return names;
}

std::string leftovers_of(const Load& load) {
    if (load.scraps.empty()) return load.from;
    std::string names;
    for (const ScrapOnBed& s : load.scraps) names += (names.empty() ? "" : ", ") + s.name;
    return names;
}

// As a maker writes a leftover down: rounded down, so that it is all there.
static Length in_eighths(std::int64_t units) {
    constexpr Length eighth = 0.125_in;
    return eighth * (from_grid(units).nm() / eighth.nm());
}

std::optional<Room> rest_of(const Load& load, const std::vector<Section>& sections, const Mat& bed) {
    constexpr Length least = 2_in;
    const std::int64_t across = to_grid(bed.width);
    const std::int64_t along = to_grid(load.film_length);
    if (across <= 0 || along <= 0) return std::nullopt;
    std::vector<Box> taken;
    const Point edge{(across - to_grid(bed.usable.across)) / 2, 0};
    const auto take = [&](const Section& section, const Placement& p) {
        const Box lies = box_on_mat(section.film.bounds(), p);
        taken.push_back({lies.low + edge, lies.high + edge});
    };
    for (const Placement& p : load.placements) take(sections[p.section], p);
    for (const Guest& g : load.guests) take(g.section, g.placement);
    // Every largest free rectangle has its sides on those of what lies there, or of the film.
    std::vector<std::int64_t> xs{0, across};
    std::vector<std::int64_t> ys{0, along};
    for (const Box& b : taken) {
        xs.insert(xs.end(), {b.low.x, b.high.x});
        ys.insert(ys.end(), {b.low.y, b.high.y});
    }
    std::sort(xs.begin(), xs.end());
    std::sort(ys.begin(), ys.end());
    std::optional<Room> best;
    double best_area = 0;
    for (std::size_t a = 0; a < xs.size(); ++a) {
        for (std::size_t b = a + 1; b < xs.size(); ++b) {
            for (std::size_t c = 0; c < ys.size(); ++c) {
                for (std::size_t d = c + 1; d < ys.size(); ++d) {
                    const Box box{{xs[a], ys[c]}, {xs[b], ys[d]}};
                    if (box.width() < to_grid(least) || box.height() < to_grid(least)) continue;
                    const double area = static_cast<double>(box.width()) * static_cast<double>(box.height());
                    if (area <= best_area) continue;
                    if (std::any_of(taken.begin(), taken.end(), [&](const Box& t) { return !common(box, t).empty(); }))
                        continue;
                    best_area = area;
                    best = Room{in_eighths(box.width()), in_eighths(box.height())};
                }
            }
        }
    }
    return best;
}

}  // namespace skarvel
