#include "proof/proof.h"

#include <fmt/format.h>

#include <algorithm>
#include <boost/geometry.hpp>
#include <boost/geometry/geometries/point_xy.hpp>
#include <boost/geometry/geometries/segment.hpp>
#include <boost/geometry/index/rtree.hpp>
#include <cmath>
#include <functional>
#include <nlohmann/json.hpp>
#include <numbers>
#include <random>
#include <set>
#include <utility>

#include "proof/reading.h"
#include "sheets/sheets.h"

namespace skarvel {
namespace {

namespace bg = boost::geometry;
using Json = nlohmann::json;

// Rounding to a plotter's 1/40 mm is off by half of that in both directions; everything else is exact but for the grid.
constexpr Length exact_tolerance = Length::nanometres(10'000);
constexpr Length hpgl_tolerance = Length::nanometres(20'000);
constexpr double speck_mm2 = 0.01;
constexpr std::int64_t found_within = to_grid(0.0625_in);  // of where the manifest says a section lies

std::int64_t grid_of(const Json& millimetres) {
    return std::llround(std::stod(millimetres.get<std::string>()) * (1e6 / grid_nm));
}

// ---- the design

struct Design {
    ColourId of;
    const ColourPlan* colour = nullptr;
    bool mask = true;
    Region ink;
    double overlap_mm2 = 0;
};

// What is laid, pass by pass: masks of a later one may lie over what an earlier one left.
using ByPass = std::map<int, std::vector<Region>>;

double overlap_of(const std::vector<Region>& films) {
    double sum = 0;
    for (const Region& f : films) sum += f.area_mm2();
    return sum - merge(films).area_mm2();
}

double overlap_of(const ByPass& films) {
    double sum = 0;
    for (const auto& [pass, each] : films) sum += overlap_of(each);
    return sum;
}

// As the knife goes round it: a hole in a film, left for a neighbour's letter, is cut out like any other opening.
Region without_holes(const Region& film) {
    std::vector<Region> each;
    for (const Ring& ring : film.rings()) each.push_back(Region::from_rings_even_odd({ring}));
    return merge(each);
}

std::vector<Design> designs_of(const Plan& plan) {
    std::vector<Design> all;
    for (const ColourPlan& colour : plan.colours) {
        if (colour.cut.loads->sections.empty()) continue;
        Design d{colour.id, &colour, colour.cut.making.way == Way::PaintThrough, {}, 0};
        std::vector<Region> ink;
        for (const Piece& p : *colour.cut.pieces) ink.push_back(p.shape);
        d.ink = merge(ink);
        ByPass ties;
        ByPass films;
        ByPass open;
        for (const Lay& lay : lays_of(colour.cut.loads->sections)) {
            const Section& s = colour.cut.loads->sections[lay.section];
            for (const Region& tie : s.ties) ties[lay.pass].push_back(tie.laid(lay.move));
            films[lay.pass].push_back(without_holes(s.film).laid(lay.move));
            open[lay.pass].push_back(s.cut.laid(lay.move));
        }
        // A tie keeps paint off, but for where another pass paints it: in a lap.
        for (const auto& [pass, each] : ties) {
            Region off = merge(each);
            for (const auto& [other_pass, cuts] : open) {
                if (other_pass != pass) off = subtract(off, merge(cuts));
            }
            d.ink = subtract(d.ink, off);
        }
        d.overlap_mm2 = overlap_of(films);
        all.push_back(std::move(d));
    }
    return all;
}

// ---- cutting, weeding, laying

// A section after the knife: all of its film, and what is out of it (an opening, or the ink of a decal).
struct CutSection {
    ColourId of;
    std::string letters;
    std::size_t section = 0;
    Region film, out;       // on the face, as laid exactly
    Point exact, measured;  // where its lower left corner is to lie, and does by the sheet
    int pass = 1;
    std::vector<std::pair<Point, Point>> lines{};  // on the face, of its first lay
    bool first = true, from_file = true;
};

struct Cutter {
    const Plan& plan;
    const Shop& shop;
    const FileSet& files;
    CutFormat format;
    Evidence& evidence;
    std::vector<CutSection> cuts;

    void problem(Reason what) { evidence.problems.push_back({std::move(what), Station::Sections, {}, Mark::Stop}); }

    void run() {
        const auto manifest = files.find("manifest.json");
        const Json all =
            manifest == files.end() ? Json(Json::value_t::discarded) : Json::parse(manifest->second, nullptr, false);
        if (all.is_discarded() || !all.contains("loads")) return problem({"proof.no-manifest", {}});
        try {
            for (const Json& load : all.at("loads")) cut(load);
        } catch (const std::exception& e) {
            problem({"proof.manifest-damaged", {{"detail", std::string(e.what())}}});
        }
        already_cut();
    }

    [[nodiscard]] Knife knife_for(const Json& load) const {
        if (load.at("sections").empty()) return {};
        const ColourPlan* colour = plan.of(ColourId{load.at("sections").front().at("of").get<std::string>()});
        return colour == nullptr ? Knife{} : machine_of(shop, colour->cut.bed).knife;
    }

    void cut(const Json& load) {
        static const std::map<CutFormat, const char*> endings{
            {CutFormat::Svg, ".svg"}, {CutFormat::Dxf, ".dxf"}, {CutFormat::Hpgl, ".plt"}};
        const std::string name = load.at("files").get<std::string>() + endings.at(format);
        const auto file = files.find(name);
        if (file == files.end()) return problem({"proof.no-file", {{"file", name}}});
        const auto paths = read_cut_file(file->second, name, format, knife_for(load));
        if (!paths) return problem(paths.error().what);
        std::vector<Ring> rings;
        std::vector<Region> each;
        std::vector<Ring> lines;
        for (const ReadPath& p : *paths) {
            if (!p.closed) {
                lines.push_back(p.points);
                continue;
            }
            rings.push_back(p.points);
            each.push_back(Region::from_rings_even_odd({p.points}));
        }
        // Everything inside an outermost path is a piece of film that comes off; of it stays what an odd number of
        // paths goes round, counted from outside.
        const Region pieces = merge(each);
        const Region stays = Region::from_rings_even_odd(rings);
        std::vector<Region> found = islands(pieces);
        // Where a path closes, an edge that is pulled along may cross itself by a hair.
        constexpr double hair_mm2 = 0.05;
        if (format == CutFormat::Hpgl)
            std::erase_if(found, [](const Region& piece) { return piece.area_mm2() < hair_mm2; });
        std::vector<bool> taken(found.size());
        std::vector<bool> line_taken(lines.size());
        for (const Json& s : load.at("sections")) {
            const Point at{grid_of(s.at("mat").at("x")), grid_of(s.at("mat").at("y"))};
            std::size_t here = found.size();
            for (std::size_t i = 0; i < found.size(); ++i) {
                const Point low = found[i].bounds().low;
                if (!taken[i] && std::abs(low.x - at.x) <= found_within && std::abs(low.y - at.y) <= found_within)
                    here = i;
            }
            const std::string letters = s.at("letters").get<std::string>();
            if (here == found.size()) {
                problem({"proof.section-missing", {{"letters", letters}, {"file", name}}});
                continue;
            }
            taken[here] = true;
            Region film = found[here];
            Region out = subtract(film, stays);
            for (const Ring& line : lines) {
                if (crosses(line, out)) problem({"proof.line-crosses-ink", {{"letters", letters}, {"file", name}}});
            }
            std::vector<std::pair<Point, Point>> own_lines;
            for (std::size_t i = 0; i < lines.size(); ++i) {
                const Point middle{(lines[i].front().x + lines[i].back().x) / 2,
                                   (lines[i].front().y + lines[i].back().y) / 2};
                const Box spot{middle - Point{8, 8}, middle + Point{8, 8}};
                if (line_taken[i] || !spot.meets(film.bounds()) || intersect(film, Region::rectangle(spot)).empty())
                    continue;
                line_taken[i] = true;
                own_lines.emplace_back(lines[i].front(), lines[i].back());
            }
            // Back from the mat to the face: what was turned a quarter is turned three more.
            const Point back = Point{} - Point{grid_of(s.at("moved").at("x")), grid_of(s.at("moved").at("y"))};
            film = film.moved(back);
            out = out.moved(back);
            if (const int slant = s.at("slant").get<int>(); slant != 0) {
                film = film.rotated(-slant);
                out = out.rotated(-slant);
            }
            for (int k = 0; k < 3 && s.at("turned").get<bool>(); ++k) {
                film = film.turned();
                out = out.turned();
            }
            for (auto& [from, to] : own_lines) {
                for (Point* p : {&from, &to}) {
                    *p = *p + back;
                    if (const int slant = s.at("slant").get<int>(); slant != 0) *p = rotated(*p, -slant);
                    if (s.at("turned").get<bool>()) *p = {p->y, -p->x};
                }
            }
            CutSection c{s.at("of").get<std::string>(),
                         letters,
                         s.at("section").get<std::size_t>() - 1,
                         std::move(film),
                         std::move(out),
                         {},
                         {},
                         s.at("pass").get<int>(),
                         std::move(own_lines)};
            // Masks that are laid again on other signs lie there as they did on the first, wherever that is.
            const Point first = box_of_lays(s).low;
            std::vector<CutSection> elsewhere;
            for (const Json& other : s.at("onOtherSigns")) {
                CutSection there = c;
                there.of = ColourId{other.at("of").get<std::string>()};
                there.section = other.at("section").get<std::size_t>() - 1;
                there.pass = other.at("pass").get<int>();
                there.first = false;
                const Point by = box_of_lays(other).low - first;
                there.film = c.film.moved(by);
                there.out = c.out.moved(by);
                elsewhere.push_back(std::move(there));
            }
            lay_all(std::move(c), s);
            for (std::size_t i = 0; i < elsewhere.size(); ++i)
                lay_all(std::move(elsewhere[i]), s.at("onOtherSigns").at(i));
        }
        if (std::find(taken.begin(), taken.end(), false) != taken.end() ||
            std::find(line_taken.begin(), line_taken.end(), false) != line_taken.end())
            problem({"proof.stray-path", {{"file", name}}});
    }

    // Where the manifest has the film of a section, on its first lay.
    static Box box_of_lays(const Json& section) {
        const Json& face = section.at("lays").front().at("face");
        return {{grid_of(face.at("x")), grid_of(face.at("y"))},
                {grid_of(section.at("film").at("right")), grid_of(section.at("film").at("top"))}};
    }

    // As often as it is laid. Where the file's film lies in the box that the manifest gives it: turned, it lies there
    // the same way.
    void lay_all(CutSection c, const Json& section) {
        const Region first_film = c.film;
        const Region first_out = c.out;
        const Box box = box_of_lays(section);
        for (const Json& lay : section.at("lays")) {
            c.exact = {grid_of(lay.at("face").at("x")), grid_of(lay.at("face").at("y"))};
            c.measured = {measured(lay.at("sheet").at("fromLeft").get<std::string>()),
                          measured(lay.at("sheet").at("fromBottom").get<std::string>())};
            Motion turn{{}, lay.at("quarters").get<int>(), lay.at("over").get<bool>()};
            turn.by = c.exact - turn(box).low;
            c.film = first_film.laid(turn);
            c.out = first_out.laid(turn);
            cuts.push_back(c);
            ++c.pass;
            c.first = false;
        }
    }

    // A distance as the sheet prints it.
    [[nodiscard]] std::int64_t measured(std::string text) const {
        for (const char* sign : {"≈ ", "≈"}) {
            if (text.starts_with(sign)) text = text.substr(std::string(sign).size());
        }
        const auto read = read_measure(text, shop.display.unit);
        if (!read) throw std::runtime_error(text);
        return to_grid(read->value);
    }

    static bool crosses(const Ring& line, const Region& out) {
        for (std::size_t i = 1; i < line.size(); ++i) {
            const Point a = line[i - 1];
            const Point b = line[i];
            const Box box{{std::min(a.x, b.x) - 8, std::min(a.y, b.y) - 8},
                          {std::max(a.x, b.x) + 8, std::max(a.y, b.y) + 8}};
            if (!box.meets(out.bounds())) continue;
            if (!intersect(out, Region::rectangle(box)).empty()) return true;
        }
        return false;
    }

    // What was cut before stands as it was kept, on other signs too.
    void already_cut() {
        for (const ColourPlan& colour : plan.colours) {
            for (const Load& load : colour.cut.loads->loads) {
                if (!load.cut) continue;
                for (const Placement& p : load.placements) {
                    const Section& s = colour.cut.loads->sections[p.section];
                    lay_kept(s, colour, p.section);
                    for (const ColourPlan& other : plan.colours) {
                        for (const Lent& lent : other.cut.loads->lent) {
                            if (lent.of == colour.id && lent.mask == p.section) lay_kept(s, other, lent.section);
                        }
                    }
                }
            }
        }
    }

    // `kept`, where the section of that colour lies.
    void lay_kept(const Section& kept, const ColourPlan& colour, std::size_t section) {
        const Section& wanted = colour.cut.loads->sections[section];
        const Point by = wanted.film.bounds().low - kept.film.bounds().low;
        const Region film = without_holes(kept.film).moved(by);
        const Region open = subtract(film, subtract(kept.film, kept.cut).moved(by));
        for (const Lay& lay : lays_of({wanted})) {
            const auto [corner, high] = corners(wanted, colour.face->blank->face, lay.move);
            cuts.push_back({colour.id,
                            wanted.letters,
                            section,
                            film.laid(lay.move),
                            open.laid(lay.move),
                            lay.move(wanted.film.bounds()).low,
                            {measured(show_number(corner.from_left, shop.display)),
                             measured(show_number(corner.from_bottom, shop.display))},
                            lay.pass,
                            {},
                            false,
                            false});
        }
    }
};

// ---- comparing

using Spot = bg::model::d2::point_xy<double>;
using Stretch = bg::model::segment<Spot>;

// The farthest that any corner of one outline, or middle between two, lies from the other outline; points that `skip`
// says are left out.
double farthest(const Region& from, const Region& to, const std::function<bool(const Spot&)>& skip = {}) {
    if (from.empty()) return 0;
    std::vector<Stretch> segments;
    for (const Ring& ring : to.rings()) {
        for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++)
            segments.emplace_back(Spot(static_cast<double>(ring[j].x), static_cast<double>(ring[j].y)),
                                  Spot(static_cast<double>(ring[i].x), static_cast<double>(ring[i].y)));
    }
    if (segments.empty()) return std::hypot(from.bounds().width(), from.bounds().height());
    const bg::index::rtree<Stretch, bg::index::rstar<16>> tree(segments);
    double most = 0;
    std::vector<Stretch> nearest;
    const auto look = [&](const Spot& spot) {
        // What the last one was nearest to is mostly near this one too: then it is no farther off, and changes nothing.
        if (!nearest.empty() && bg::distance(spot, nearest.front()) <= most) return;
        if (skip && skip(spot)) return;
        nearest.clear();
        tree.query(bg::index::nearest(spot, 1), std::back_inserter(nearest));
        most = std::max(most, bg::distance(spot, nearest.front()));
    };
    for (const Ring& ring : from.rings()) {
        for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++) {
            look({static_cast<double>(ring[i].x), static_cast<double>(ring[i].y)});
            look({static_cast<double>(ring[i].x + ring[j].x) / 2, static_cast<double>(ring[i].y + ring[j].y) / 2});
        }
    }
    return most;
}

// Lines that part no ink, piece by piece: as many as the plan has, where it has them.
void compare_lines(const CutSection& cut, const Section& planned, Evidence& evidence) {
    constexpr std::int64_t near = to_grid(Length::nanometres(60'000));
    const auto close = [](Point a, Point b) { return std::abs(a.x - b.x) <= near && std::abs(a.y - b.y) <= near; };
    std::vector<std::pair<Point, Point>> left = cut.lines;
    std::int64_t missing = 0;
    for (const KnifeLine& line : planned.lines) {
        const auto at = std::find_if(left.begin(), left.end(), [&](const auto& l) {
            return (close(l.first, line.from) && close(l.second, line.to)) ||
                   (close(l.first, line.to) && close(l.second, line.from));
        });
        if (at == left.end()) {
            ++missing;
        } else {
            left.erase(at);
        }
    }
    const auto say = [&](const char* id, std::int64_t lines) {
        evidence.problems.push_back(
            {{id, {{"letters", cut.letters}, {"lines", lines}}}, Station::Sections, {}, Mark::Stop});
    };
    if (missing > 0) say("proof.lines-missing", missing);
    if (!left.empty()) say("proof.lines-extra", static_cast<std::int64_t>(left.size()));
}

double perimeter_mm(const Region& region) {
    double sum = 0;
    for (const Ring& ring : region.rings()) {
        for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++)
            sum += std::hypot(grid_to_mm(ring[i].x - ring[j].x), grid_to_mm(ring[i].y - ring[j].y));
    }
    return sum;
}

// Distances to the eighth, sixteenth or whatever the tape has are off by half of that at most.
MeasuredProof measured(const Design& design, const std::vector<const CutSection*>& cuts, const Display& display) {
    MeasuredProof out{design.of, {}, {}};
    for (const CutSection* c : cuts) {
        const Point off = c->measured - c->exact;
        out.largest_shift = std::max({out.largest_shift, from_grid(std::abs(off.x)), from_grid(std::abs(off.y))});
    }
    const Length half = (display.unit == Unit::Inch ? Length::inches(1) / display.denominator : Length::from_mm(1)) / 2;
    if (out.largest_shift > half + Length::nanometres(2 * grid_nm))
        out.wrong.push_back({"proof.wrong-distance", {{"shift", out.largest_shift}, {"half", half}}});
    return out;
}

ColourProof compared(const Design& design, const std::vector<const CutSection*>& cuts, Length tolerance) {
    ColourProof out;
    out.of = design.of;
    ByPass films;
    ByPass open;
    ByPass stays;
    for (const CutSection* c : cuts) {
        films[c->pass].push_back(c->film);
        open[c->pass].push_back(c->out);
        stays[c->pass].push_back(subtract(c->film, c->out));
    }
    // Paint passes where a mask is open and no other mask lies over the opening; a decal is all that was laid.
    std::vector<Region> painted;
    for (const auto& [pass, each] : open)
        painted.push_back(design.mask ? subtract(merge(each), merge(stays[pass])) : merge(each));
    const Region ink = merge(painted);
    out.missing = subtract(design.ink, ink);
    out.surplus = subtract(ink, design.ink);
    out.missing_mm2 = out.missing.area_mm2();
    out.surplus_mm2 = out.surplus.area_mm2();
    // A notch narrower than the plotter's unit closes, and then no edge of the result is near its bottom: there the
    // area tells what is missing.
    const bool both_ways = tolerance <= exact_tolerance;
    // Where a butt crosses ink, rounding leaves a slit no wider than is allowed between its halves.
    const auto in_slit = [&](const Spot& spot) {
        return std::any_of(
            design.colour->cut.loads->seams.begin(), design.colour->cut.loads->seams.end(), [&](const Seam& s) {
                const double off = (s.axis == Axis::X ? spot.x() : spot.y()) - static_cast<double>(s.where);
                return s.lap <= Length{} && s.crossed > Length{} &&
                       std::abs(off) <= static_cast<double>(to_grid(tolerance));
            });
    };
    const auto farthest_edge = [&](const Region& laid, const Region& wanted) {
        return from_grid(std::llround(both_ways ? std::max(farthest(laid, design.ink), farthest(wanted, ink))
                                                : farthest(laid, design.ink, in_slit)));
    };
    out.deviation = farthest_edge(ink, design.ink);
    // Where outlines of film and ink run together, rounding to the grid can leave hairs and slits of a step or two,
    // which no knife cuts: an edge that is too far off is looked at again with those closed, and the design's likewise.
    const auto without_hairs = [](const Region& shape) {
        constexpr Length hair = Length::nanometres(2 * grid_nm);
        return grow(grow(grow(shape, Length{} - hair), hair * 2), Length{} - hair);
    };
    Region clean = ink;
    if (out.deviation > tolerance) {
        clean = without_hairs(ink);
        out.deviation = farthest_edge(clean, without_hairs(design.ink));
    }
    // The same slit would open a keeper's hole that a butt crosses.
    out.keepers_lost = std::max(0, static_cast<int>(holes(design.ink).size()) -
                                       static_cast<int>(holes(both_ways ? clean : grow(clean, tolerance)).size()));
    out.overlap_mm2 = overlap_of(films);
    out.overlap_planned_mm2 = design.overlap_mm2;
    const auto say = [&](Reason why) { out.wrong.push_back(std::move(why)); };
    if (design.mask) {
        ByPass planned;
        ByPass inks;
        const std::vector<Section>& sections = design.colour->cut.loads->sections;
        for (const Lay& lay : lays_of(sections)) {
            planned[lay.pass].push_back(without_holes(sections[lay.section].film).laid(lay.move));
            inks[lay.pass].push_back(sections[lay.section].cut.laid(lay.move));
        }
        for (const auto& [pass, each] : planned) {
            const Region margin = intersect(grow(merge(inks[pass]), design.colour->cut.making.margin),
                                            Region::rectangle(design.colour->face->blank->face));
            // Where the plan itself has no film, as beyond a stepped seam, none is missed.
            out.bare_mm2 += subtract(intersect(margin, merge(each)), merge(films[pass])).area_mm2();
        }
    }
    if (out.deviation > tolerance)
        say({"proof.deviates",
             {{"by", fmt::format("{:.3f} mm", out.deviation.in_mm())},
              {"allowed", fmt::format("{:.2f} mm", tolerance.in_mm())}}});
    // Edges that are off by no more than is allowed come to so much.
    const double speck = speck_mm2 + perimeter_mm(design.ink) * tolerance.in_mm();
    // Whatever is wider than two edges can be off is no rounding, however small.
    const auto thick = [&](const Region& region) { return !grow(region, Length{} - tolerance).empty(); };
    if (out.missing_mm2 > speck || thick(out.missing)) say({"proof.missing", {{"area", out.missing_mm2}}});
    if (out.surplus_mm2 > speck || thick(out.surplus)) say({"proof.surplus", {{"area", out.surplus_mm2}}});
    if (out.keepers_lost > 0) say({"proof.keepers-lost", {{"keepers", std::int64_t{out.keepers_lost}}}});
    double edges = 0;
    for (const auto& [pass, each] : films) {
        for (const Region& f : each) edges += perimeter_mm(f);
    }
    if (std::abs(out.overlap_mm2 - out.overlap_planned_mm2) >
        1 + 0.02 * out.overlap_planned_mm2 + edges * (tolerance > exact_tolerance ? tolerance.in_mm() : 0))
        say({"proof.laps", {{"planned", out.overlap_planned_mm2}, {"found", out.overlap_mm2}}});
    if (out.bare_mm2 > 1 + 2 * speck) say({"proof.bare", {{"area", out.bare_mm2}}});
    return out;
}

// ---- by hand

// The same numbers on every machine: the library's own distributions differ between makers.
class Random {
  public:
    explicit Random(std::uint64_t seed) : engine_(seed) {}
    double normal() {
        const double u = (static_cast<double>(engine_() >> 11U) + 0.5) / 9007199254740992.0;
        const double v = static_cast<double>(engine_() >> 11U) / 9007199254740992.0;
        return std::sqrt(-2 * std::log(u)) * std::cos(2 * std::numbers::pi * v);
    }

  private:
    std::mt19937_64 engine_;
};

struct Laid {
    double dx = 0, dy = 0, turn = 0, stretch = 0;
    double cx = 0, cy = 0;
    bool long_up = true;
    [[nodiscard]] std::pair<double, double> off(double x, double y) const {
        const double rx = x - cx;
        const double ry = y - cy;
        return {dx - turn * ry + (long_up ? 0 : stretch * rx), dy + turn * rx + (long_up ? stretch * ry : 0)};
    }
};

// The sections on either side of a seam: those whose films reach it and lie mostly on that side.
std::pair<std::optional<std::size_t>, std::optional<std::size_t>> beside(const Seam& seam, const LoadsPlan& plan,
                                                                         const Length margin) {
    std::pair<std::optional<std::size_t>, std::optional<std::size_t>> out;
    const Axis other = seam.axis == Axis::X ? Axis::Y : Axis::X;
    double low_best = 0;
    double high_best = 0;
    for (std::size_t i = 0; i < plan.sections.size(); ++i) {
        const Box film = plan.sections[i].film.bounds();
        const std::int64_t shared =
            std::min(seam.to, along(other, film.high)) - std::max(seam.from, along(other, film.low));
        if (shared <= 0) continue;
        constexpr Length deepest = 2_in;  // films reach past a stepped seam as far as outlines interlock, and a margin
        const std::int64_t reach =
            to_grid(seam.lap) + to_grid(0.0625_in) + (seam.stepped ? to_grid(deepest + margin) : 0);
        const std::int64_t middle = (along(seam.axis, film.low) + along(seam.axis, film.high)) / 2;
        const bool low = middle < seam.where;
        const std::int64_t edge = low ? along(seam.axis, film.high) : along(seam.axis, film.low);
        if (std::abs(edge - seam.where) > reach) continue;
        double& best = low ? low_best : high_best;
        if (static_cast<double>(shared) <= best) continue;
        best = static_cast<double>(shared);
        (low ? out.first : out.second) = i;
    }
    return out;
}

// How far two films may part before anything shows: by their lap, or at a stepped seam by what keeps off outlines.
Length spare(const Seam& seam) { return seam.stepped ? off_neighbour : seam.lap; }

void by_hand(const Design& design, const Hands& hands, Evidence& evidence) {
    std::vector<SeamByHand>& out = evidence.by_hand;
    std::vector<std::pair<double, std::vector<Laid>>> tries_made;
    const LoadsPlan& plan = *design.colour->cut.loads;
    std::vector<std::vector<double>> opened(plan.seams.size());
    std::vector<std::vector<double>> out_of_line(plan.seams.size());
    Random random(1);
    for (int n = 0; n < hand_tries; ++n) {
        std::vector<Laid> laid;
        for (const Section& s : plan.sections) {
            const Box b = s.film.bounds();
            Laid l;
            l.dx = random.normal() * hands.shift.in_mm();
            l.dy = random.normal() * hands.shift.in_mm();
            l.turn = random.normal() * hands.turn_hundredths / 100.0 * std::numbers::pi / 180;
            l.stretch = random.normal() * hands.stretch_per_mille10 / 10'000.0;
            l.cx = grid_to_mm(b.low.x + b.high.x) / 2;
            l.cy = grid_to_mm(b.low.y + b.high.y) / 2;
            l.long_up = b.height() >= b.width();
            laid.push_back(l);
        }
        double worst = -1e9;
        for (std::size_t i = 0; i < plan.seams.size(); ++i) {
            const Seam& seam = plan.seams[i];
            const auto [low, high] = beside(seam, plan, design.colour->cut.making.margin);
            if (!low || !high) continue;
            double widest = -1e9;
            double sideways = 0;
            for (const std::int64_t at : {seam.from, (seam.from + seam.to) / 2, seam.to}) {
                const double x = grid_to_mm(seam.axis == Axis::X ? seam.where : at);
                const double y = grid_to_mm(seam.axis == Axis::X ? at : seam.where);
                const auto a = laid[*low].off(x, y);
                const auto b = laid[*high].off(x, y);
                const double open = seam.axis == Axis::X ? b.first - a.first : b.second - a.second;
                const double aside = seam.axis == Axis::X ? b.second - a.second : b.first - a.first;
                // Around outlines films meet from every side.
                widest = std::max(widest, seam.stepped ? std::hypot(open, aside) : open);
                sideways = std::max(sideways, std::abs(aside));
            }
            if (seam.crossed > Length{}) out_of_line[i].push_back(sideways);
            opened[i].push_back(widest);
            worst = std::max(worst, widest - spare(seam).in_mm());
        }
        tries_made.emplace_back(worst, std::move(laid));
    }
    const auto shown = tries_made.begin() + static_cast<long>(tries_made.size()) * 19 / 20;
    std::nth_element(tries_made.begin(), shown, tries_made.end(),
                     [](const auto& a, const auto& b) { return a.first < b.first; });
    for (std::size_t i = 0; i < shown->second.size(); ++i) {
        const Laid& l = shown->second[i];
        evidence.one_try.push_back({design.of, i, l.dx, l.dy, l.turn});
    }
    for (std::size_t i = 0; i < plan.seams.size(); ++i) {
        auto& tries = opened[i];
        if (tries.empty()) continue;
        std::sort(tries.begin(), tries.end());
        const double lap = spare(plan.seams[i]).in_mm();
        const auto at = [&](double share) {
            return tries[std::min(tries.size() - 1,
                                  static_cast<std::size_t>(share * static_cast<double>(tries.size())))];
        };
        const auto [low, high] = beside(plan.seams[i], plan, design.colour->cut.making.margin);
        SeamByHand s;
        s.of = design.of;
        s.seam = i;
        s.lower = plan.sections[*low].letters;
        s.upper = plan.sections[*high].letters;
        s.lap = plan.seams[i].lap;
        s.median = Length::from_mm(std::max(0.0, at(0.5) - lap));
        s.often = Length::from_mm(std::max(0.0, at(0.95) - lap));
        s.share_open =
            static_cast<double>(std::count_if(tries.begin(), tries.end(), [&](double t) { return t > lap; })) /
            static_cast<double>(tries.size());
        const Length sixteenth = Length::sixtyfourths(4);
        const auto steps = static_cast<std::int64_t>(std::ceil(std::max(0.0, at(0.95)) / sixteenth.in_mm() - 1e-9));
        s.safer_lap = sixteenth * steps;
        s.stepped = plan.seams[i].stepped;
        if (auto& steps_aside = out_of_line[i]; !steps_aside.empty()) {
            std::sort(steps_aside.begin(), steps_aside.end());
            s.step = Length::from_mm(steps_aside[steps_aside.size() * 19 / 20]);
        }
        constexpr double minute = std::numbers::pi / (180 * 60);
        s.seen_from = Length::from_mm(std::max(s.often, s.step).in_mm() / minute);
        out.push_back(std::move(s));
    }
}

// The manifest comes as a table as well: both say the same.
void compare_tables(const FileSet& files, Evidence& evidence) {
    const auto json = files.find("manifest.json");
    const auto csv = files.find("manifest.csv");
    const auto say = [&](const char* id, const std::string& detail) {
        evidence.problems.push_back({{id, {{"detail", detail}}}, Station::Sections, {}, Mark::Stop});
    };
    if (json == files.end()) return;
    if (csv == files.end()) return say("proof.no-table", "");
    const Json all = Json::parse(json->second, nullptr, false);
    if (all.is_discarded() || !all.contains("loads")) return;
    std::vector<std::vector<std::string>> rows;
    std::vector<std::string> row{""};
    bool quoted = false;
    for (const char c : csv->second) {
        if (c == '"') {
            quoted = !quoted;
        } else if (c == ',' && !quoted) {
            row.emplace_back();
        } else if (c == '\n' && !quoted) {
            rows.push_back(std::exchange(row, {""}));
        } else if (c != '\r') {
            row.back() += c;
        }
    }
    if (rows.empty()) return say("proof.table-differs", "");
    const std::vector<std::string> head = std::move(rows.front());
    rows.erase(rows.begin());
    std::size_t next = 0;
    try {
        for (const Json& load : all.at("loads")) {
            std::vector<std::pair<Json, Json>> laid;  // a section as it is cut, and where it is laid
            for (const Json& s : load.at("sections")) {
                laid.emplace_back(s, s);
                for (const Json& other : s.at("onOtherSigns")) laid.emplace_back(s, other);
            }
            for (const auto& [s, there] : laid) {
                int number = 0;
                for (const Json& lay : there.at("lays")) {
                    const std::map<std::string, std::string> expected{
                        {"file", load.at("files").get<std::string>()},
                        {"of", there.at("of").get<std::string>()},
                        {"section", std::to_string(there.at("section").get<int>())},
                        {"mat_x_mm", s.at("mat").at("x").get<std::string>()},
                        {"mat_y_mm", s.at("mat").at("y").get<std::string>()},
                        {"lay", std::to_string(++number)},
                        {"quarters", std::to_string(lay.at("quarters").get<int>())},
                        {"over", lay.at("over").get<bool>() ? "1" : "0"},
                        {"face_x_mm", lay.at("face").at("x").get<std::string>()},
                        {"face_y_mm", lay.at("face").at("y").get<std::string>()},
                        {"from_left", lay.at("sheet").at("fromLeft").get<std::string>()},
                        {"from_bottom", lay.at("sheet").at("fromBottom").get<std::string>()}};
                    if (next >= rows.size() || rows[next].size() != head.size())
                        return say("proof.table-differs", s.at("letters").get<std::string>());
                    for (std::size_t i = 0; i < head.size(); ++i) {
                        const auto at = expected.find(head[i]);
                        if (at != expected.end() && at->second != rows[next][i])
                            return say("proof.table-differs", s.at("letters").get<std::string>());
                    }
                    ++next;
                }
            }
        }
    } catch (const Json::exception& e) {
        return;  // said where the manifest was read
    }
    if (next != rows.size()) say("proof.table-differs", "");
}

}  // namespace

bool Evidence::good() const {
    const auto fine = [](const auto& all) {
        return std::all_of(all.begin(), all.end(), [](const auto& c) { return c.good(); });
    };
    return problems.empty() && fine(as_cut) && fine(as_measured);
}

FileSet files_of(const Job& job, const Plan& plan, const Shop& shop) {
    FileSet files;
    for (const CutFormat format : {CutFormat::Svg, CutFormat::Dxf, CutFormat::Hpgl}) {
        for (CutFile& f : cut_files(plan, shop, format)) files[f.name] = std::move(f.bytes);
    }
    for (CutFile& f : manifests(job, plan, shop)) files[f.name] = std::move(f.bytes);
    return files;
}

Evidence prove(const Plan& plan, const Shop& shop, const FileSet& files, CutFormat format) {
    Evidence out;
    Cutter cutter{plan, shop, files, format, out, {}};
    cutter.run();
    for (const CutSection& c : cutter.cuts) {
        const ColourPlan* colour = plan.of(c.of);
        if (!c.first || !c.from_file || colour == nullptr || c.section >= colour->cut.loads->sections.size()) continue;
        compare_lines(c, colour->cut.loads->sections[c.section], out);
    }
    compare_tables(files, out);
    for (const Design& design : designs_of(plan)) {
        const Knife knife = machine_of(shop, design.colour->cut.bed).knife;
        Length tolerance = format == CutFormat::Hpgl ? hpgl_tolerance : exact_tolerance;
        // A pivot that is rounded to the plotter's unit pulls the edge behind it aside: by half a unit over a chord of
        // a curve as short as five of them, times what it trails.
        if (format == CutFormat::Hpgl) tolerance += knife.offset / 5;
        std::vector<const CutSection*> own;
        for (const CutSection& c : cutter.cuts) {
            if (c.of == design.of) own.push_back(&c);
        }
        out.as_cut.push_back(compared(design, own, tolerance));
        out.as_measured.push_back(measured(design, own, shop.display));
        by_hand(design, shop.hands, out);
    }
    return out;
}

}  // namespace skarvel
