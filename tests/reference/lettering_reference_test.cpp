// Lettering against outside opinions: the accessible-design standard, WCAG, fontTools, librsvg, GEOS, and arithmetic.
#include <geos_c.h>

#include <boost/polygon/polygon.hpp>
#include <boost/polygon/voronoi.hpp>
#include <cmath>
#include <fstream>
#include <numbers>
#include <sstream>

#include "artwork/art.h"
#include "artwork/thin.h"
#include "drawing/drawing_file.h"
#include "lettering/legibility.h"
#include "method/contrast.h"
#include "rapidcheck.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

TEST_CASE("heights of visual characters by the rows of table 703.5.5") {  // 2010 ADA Standards, 703.5.5; from memory
    struct Row {
        double floor_in, distance_ft, least_in;
    };
    for (const auto& [floor, distance, least] : std::vector<Row>{{40, 6, 0.625},
                                                                 {60, 3, 0.625},
                                                                 {60, 10, 1.125},
                                                                 {70, 6, 0.625},
                                                                 {71, 15, 2},
                                                                 {80, 25, 3.25},
                                                                 {120, 15, 2},
                                                                 {121, 21, 3},
                                                                 {150, 29, 4}}) {
        INFO(floor << " in above the floor, " << distance << " ft away");
        CHECK(least_height(Length::from_mm(floor * 25.4), Length::from_mm(distance * 304.8)).in_inches() ==
              Approx(least));
    }
    CHECK(least_height(30_in, 72_in) == Length{});
}

TEST_CASE("an inch of letter for every ten feet, twenty-five at most") {  // sign makers' rule, from memory
    CHECK(reach_of(1_in).comfortable == 120_in);
    CHECK(reach_of(3_in).most == 900_in);
}

TEST_CASE("equal angles of sight: 1 in at 10 ft is 1/5 in on a screen 24 in away") {  // similar triangles
    CHECK(on_screen(1_in, 120_in, 24_in).in_inches() == Approx(0.2));
}

TEST_CASE("contrast as the examples of WCAG have it, said in words") {  // WCAG 2.1, 1.4.3; #777777 from memory
    Text t;
    t.words = "QUAY";
    t.typeface = typeface("League Spartan", "Bold");
    t.arrangement = Arrangement::Level;
    t.sizing = Sizing::CapHeight;
    t.size = measure("2");
    const Box box = box_in(0, 0, 30, 10);
    const Lettering l{{t}, false};
    const LetteringPlan plan = place(t, box, library().typefaces);
    const auto verdict = [&](const char* a, const char* b) {
        const Legibility read = judge_reading(l, plan, {}, contrast(a, b), library().typefaces);
        for (const Verdict& v : read.verdicts) {
            if (v.basis.starts_with("WCAG")) return v.says;
        }
        return Verdict::Says::Poor;
    };
    CHECK(verdict("#000000", "#ffffff") == Verdict::Says::Good);
    CHECK(verdict("#777777", "#ffffff") == Verdict::Says::Fair);  // 4.48
    CHECK(verdict("#999999", "#ffffff") == Verdict::Says::Poor);  // 2.85
}

TEST_CASE("x-heights and proportions are those that fontTools reads") {
    Folder folder;
    for (const Typeface& t : library().typefaces) {
        std::ofstream(folder / "face.ttf", std::ios::binary) << *t.bytes;
        const Ran ran = run(std::string(SKARVEL_PYTHON) +
                            " -c \"from fontTools.ttLib import TTFont; from fontTools.pens.boundsPen import BoundsPen\n"
                            "f=TTFont('" +
                            (folder / "face.ttf").string() +
                            "'); g=f.getGlyphSet(); c=f.getBestCmap()\n"
                            "def b(x):\n p=BoundsPen(g); g[c[ord(x)]].draw(p); return p.bounds\n"
                            "x=b('x'); i=b('I'); o=b('O'); print(x[3]-x[1], (o[2]-o[0])/(i[3]-i[1]))\"");
        INFO(t.name.family << ran.out);
        REQUIRE(ran.code == 0);
        double x_height = 0;
        double o = 0;
        REQUIRE(std::sscanf(ran.out.c_str(), "%lf %lf", &x_height, &o) == 2);
        CHECK(t.x_height == Approx(x_height).margin(0.6));
        CHECK(proportions_of(t).width_of_o == Approx(o).epsilon(0.005));
    }
}

TEST_CASE("a 72 in board hung 8 in up ends at 80 in") {  // common practice
    const HeightRuler r;
    CHECK(ruler_range(r, 72_in) == std::pair(8, 80));
    const Box face = box_in(0, 0, 11, 72);
    Art art;
    art.kind = HeightRuler{};
    std::get<HeightRuler>(art.kind).numbers = false;
    const LetteringRoom room{face, {}, face, false, {}, {}};
    const ArtPlan plan = make_art({art}, room, Region::rectangle(face), library().typefaces);
    REQUIRE(plan.parts[0].size() == 73);
    int feet = 0;
    int thirds = 0;
    for (const ArtPart& p : plan.parts[0]) {
        const Box b = p.shape.bounds();
        const double height = inches(b.low.y + b.high.y) / 2 + 8;
        const double reach = inches(b.width());
        const int n = static_cast<int>(std::lround(height));
        if (n > 8 && n < 80) CHECK(height == Approx(n).margin(1e-4));
        CHECK(reach == Approx(n % 12 == 0 ? 4 : n % 3 == 0 ? 2.5 : 1.25).margin(1e-4));
        feet += n % 12 == 0 ? 1 : 0;
        thirds += n % 3 == 0 && n % 12 != 0 ? 1 : 0;
    }
    CHECK(feet == 6);     // 12 to 72
    CHECK(thirds == 18);  // 9 to 78, without the feet
    std::get<HeightRuler>(art.kind).metric = true;
    CHECK(ruler_range(std::get<HeightRuler>(art.kind), 72_in) == std::pair(21, 203));  // 20.32 to 203.2 cm
}

TEST_CASE("six rows of seven days hold every month, and the columns add up") {  // common practice; Gregorian calendar
    for (int year = 2000; year < 2028; ++year) {
        for (unsigned month = 1; month <= 12; ++month) {
            using namespace std::chrono;
            const year_month_day first{std::chrono::year{year}, std::chrono::month{month}, day{1}};
            const unsigned lead = weekday{sys_days{first}}.iso_encoding() - 1;
            const auto days =
                static_cast<unsigned>(year_month_day_last{first.year(), month_day_last{first.month()}}.day());
            CHECK(lead + days <= 42);
        }
    }
    MonthBoard m;
    m.typeface = typeface("League Spartan", "Bold");
    m.boxes = true;
    Art art;
    art.kind = m;
    const Box usable = box_in(1, 1, 21.3, 28.7);
    const ArtPlan plan = make_art({art}, {usable, {}, box_in(0, 0, 22.3, 29.7), false, {}, {}},
                                  Region::rectangle(usable), library().typefaces);
    std::vector<Box> cells;
    for (const ArtPart& p : plan.parts[0]) {
        if (p.name.empty()) cells.push_back(p.shape.bounds());
    }
    REQUIRE(cells.size() == 42);
    std::int64_t across = 0;
    for (int c = 0; c < 7; ++c) across += cells[static_cast<std::size_t>(c)].width();
    CHECK(across + 6 * to_grid(m.gap.value) == usable.width());
    CHECK(cells[6].high.x == usable.high.x);
}

TEST_CASE("drawings come out as librsvg draws them") {
    Folder folder;
    const std::string head =
        "<svg xmlns='http://www.w3.org/2000/svg' xmlns:xlink='http://www.w3.org/1999/xlink' width='100mm' "
        "height='60mm' viewBox='0 0 200 120'>";
    const std::vector<std::string> drawings{
        "<path d='M20 90 C20 10 90 70 90 90 S150 110 180 40 L120 115 Z'/>",
        "<g transform='translate(60 60) rotate(30)'><rect x='-30' y='-10' width='60' height='20' rx='6'/></g>",
        "<ellipse cx='100' cy='60' rx='80' ry='40'/><circle cx='100' cy='60' r='20' fill='white'/>",
        "<defs><g id='gull'><path d='M0 0 q20 -20 40 0 q20 -20 40 0 l-40 12z'/></g></defs><use xlink:href='#gull' "
        "x='10' y='40'/><use xlink:href='#gull' transform='translate(100 90) scale(1 -1)'/>",
        "<polygon points='20,110 100,10 180,110 20,40 180,40' fill-rule='evenodd'/>",
        "<path d='M30 30 A40 25 20 1 1 120 80 L60 100z'/>",
        "<path d='M20 20 H180 V100 H20' fill='none' stroke='black' stroke-width='9' stroke-linejoin='round'/>",
        "<rect x='10%' y='25%' width='50%' height='0.5in' rx='5%'/><circle cx='80%' cy='50%' r='10%'/>",
        "<svg x='50%' y='10' width='80' height='100' viewBox='0 0 40 20' overflow='visible'><ellipse cx='20' cy='10' "
        "rx='50%' ry='50%'/></svg>",
        "<svg x='9' y='10' width='80' height='90' viewBox='5 5 40 20' preserveAspectRatio='none' "
        "overflow='visible'><path d='M5 5H45L25 25z'/></svg>",
        "<svg width='150' height='50' viewBox='0 0 40 20' preserveAspectRatio='xMinYMax' overflow='visible'><rect "
        "width='40' height='20'/></svg>",
        "<symbol id='s' viewBox='0 0 10 10' overflow='visible'><circle cx='5' cy='5' r='5'/></symbol><use href='#s' "
        "x='20' y='20' width='60' height='80' fill='black'/>",
        "<a href='x'><rect x='20' y='20' width='60' height='80'/></a>",
        "<rect x='50' y='30' width='80' height='50' fill='black' stroke='black' stroke-width='12'/>",
        "<path d='M20 100 L70 20 L120 100' fill='none' stroke='black' stroke-width='10'/>",
        "<path d='M20 60H180' fill='none' stroke='black' stroke-width='10' stroke-dasharray='20 8 4'/>",
        "<path d='M20 30C60 0 90 120 180 60' fill='none' stroke='black' stroke-width='6' stroke-linecap='round' "
        "stroke-dasharray='10,12' stroke-dashoffset='5'/>",
        "<rect x='20' y='20' width='150' height='80' fill='none' stroke='black' stroke-width='4' "
        "stroke-dasharray='5%' stroke-linecap='square'/>",
        "<g transform='scale(2)'><path d='M20 20H70' stroke='black' stroke-width='3mm' stroke-linecap='square'/></g>",
        "<rect width='200' height='120' opacity='0'/><g visibility='hidden'><rect width='90' height='90'/><rect x='30' "
        "y='30' width='70' height='40' visibility='visible'/></g>",
        "<rect x='30' y='30' width='70' height='40' fill-opacity='0' stroke='rgb(0,0,0)' stroke-width='5'/>",
        "<path d='M20 20h40v40zm80 40h30v30z l-20 0 0 -20z'/>",
        "<path d='M30 100 L70 30 L90 100 L150 100 L150 40' fill='none' stroke='black' stroke-width='22' "
        "stroke-linejoin='bevel'/>",
        "<path d='M30 90 L100 30 L170 90Z' fill='none' stroke='black' stroke-width='24' stroke-linejoin='bevel'/>",
        "<path d='M30 100 L40 25 L55 100 L150 100 L150 40' fill='none' stroke='black' stroke-width='12' "
        "stroke-linecap='round'/>",
        "<path d='M30 90 L100 30 L170 90Z' fill='none' stroke='black' stroke-width='24' stroke-miterlimit='1.5'/>",
        "<path d='M40 30H150V90' fill='none' stroke='black' stroke-width='30' stroke-miterlimit='1' "
        "stroke-linecap='square'/>",
        "<path d='M50 90 L60 30 L70 90' fill='none' stroke='black' stroke-width='8' stroke-miterlimit='20'/>",
        "<path d='M30 60H170H90' fill='none' stroke='black' stroke-width='20'/>"};
    constexpr double dots_per_mm = 12;
    for (const std::string& drawing : drawings) {
        std::ofstream(folder / "a.svg") << head << drawing << "</svg>";
        const auto read = read_drawing_file(head + drawing + "</svg>", "a.svg");
        INFO(drawing);
        REQUIRE(read);
        const Ran ran =
            run("rsvg-convert --background-color white -z " + std::to_string(dots_per_mm * 25.4 / 96) + " " +
                (folder / "a.svg").string() + " -o " + (folder / "a.png").string() + " && convert " +
                (folder / "a.png").string() + " -alpha off -colorspace Gray -format '%w %h %[fx:mean] %@' info:");
        REQUIRE(ran.code == 0);
        double w = 0, h = 0, mean = 0, bw = 0, bh = 0, bx = 0, by = 0;
        REQUIRE(std::sscanf(ran.out.c_str(), "%lf %lf %lf %lfx%lf+%lf+%lf", &w, &h, &mean, &bw, &bh, &bx, &by) == 7);
        const double dark = (1 - mean) * w * h / (dots_per_mm * dots_per_mm);
        const double scale = read->width.in_mm() / grid_to_mm(bounds_of(read->drawing).width());
        Region ink;
        for (const DrawingPart& p : read->drawing.parts)
            ink = p.colour == "#ffffff" ? subtract(ink, p.shape) : merge(ink, p.shape);
        const double area = ink.area_mm2() * scale * scale;
        CHECK(area == Approx(dark).epsilon(0.004));
        CHECK(read->width.in_mm() == Approx(bw / dots_per_mm).margin(0.25));
    }
}

TEST_CASE("a waist between two arcs is as wide as it was drawn, however fine the arcs are") {
    for (const int chords : {8, 16, 60, 240}) {
        Ring ring;
        for (const double side : {-1.0, 1.0}) {
            for (int i = 0; i <= chords; ++i) {
                const double angle = -1 + 2.0 * i / chords;
                // Circles of 10 mm beside the waist, 1.00 mm apart.
                ring.push_back({std::llround(8000 * side * (10.5 - 10 * std::cos(angle))),
                                std::llround(8000 * -side * 10 * std::sin(-angle))});
            }
        }
        CHECK(thinnest(Region::from_rings({ring})).in_mm() == Approx(1).margin(0.0005));
    }
}

TEST_CASE("stroke widths agree with the inner buffers of GEOS") {
    // GEOS's own verdict: where a shape shrunk by half the width falls apart or vanishes, a stroke is no wider.
    const auto geos = GEOS_init_r();
    CHECK(rc::check([&] {
        // Two discs joined by a bar of known width.
        const std::int64_t bar = *rc::gen::inRange<std::int64_t>(4'000, 30'000);
        const std::vector<Region> parts{circle({0, 0}, from_grid(80'000)), circle({400'000, 0}, from_grid(80'000)),
                                        Region::rectangle({{0, -bar / 2}, {400'000, bar - bar / 2}})};
        const Region shape = merge(parts);
        const double width = thinnest(shape).in_mm();
        RC_ASSERT(width == Approx(grid_to_mm(bar)).margin(0.03));
        GEOSCoordSequence* points = GEOSCoordSeq_create_r(geos, static_cast<unsigned>(shape.rings()[0].size()) + 1, 2);
        for (std::size_t i = 0; i <= shape.rings()[0].size(); ++i) {
            const Point p = shape.rings()[0][i % shape.rings()[0].size()];
            GEOSCoordSeq_setXY_r(geos, points, static_cast<unsigned>(i), grid_to_mm(p.x), grid_to_mm(p.y));
        }
        GEOSGeometry* polygon = GEOSGeom_createPolygon_r(geos, GEOSGeom_createLinearRing_r(geos, points), nullptr, 0);
        GEOSGeometry* less = GEOSBuffer_r(geos, polygon, -(width / 2 - 0.03), 16);
        GEOSGeometry* more = GEOSBuffer_r(geos, polygon, -(width / 2 + 0.03), 16);
        const int whole = GEOSGetNumGeometries_r(geos, less);
        const int apart = GEOSGetNumGeometries_r(geos, more);
        for (GEOSGeometry* g : {polygon, less, more}) GEOSGeom_destroy_r(geos, g);
        RC_ASSERT(whole == 1);
        RC_ASSERT(apart == 2);
    }));
    GEOS_finish_r(geos);
}

namespace {

// The least width inside a shape by the Voronoi diagram of its edges: of points with two nearest places on the outline
// on opposite sides, as far from corners that are sharp as the width there is wide, five times over.
double thinnest_by_voronoi(const Region& shape) {
    namespace bp = boost::polygon;
    using Site = bp::point_data<int>;
    using Side = bp::segment_data<int>;
    struct At {
        double x, y;
    };
    std::vector<Side> sides;
    std::vector<At> sharp;
    for (const Ring& ring : shape.rings()) {
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point a = ring[i];
            const Point b = ring[(i + 1) % ring.size()];
            const Point c = ring[(i + 2) % ring.size()];
            const Point d = ring[(i + 3) % ring.size()];
            sides.emplace_back(Site(static_cast<int>(a.x), static_cast<int>(a.y)),
                               Site(static_cast<int>(b.x), static_cast<int>(b.y)));
            const auto cosine = [](Point u, Point v) {
                const auto dot = static_cast<double>(u.x * v.x + u.y * v.y);
                return dot / std::sqrt(static_cast<double>(u.x * u.x + u.y * u.y)) /
                       std::sqrt(static_cast<double>(v.x * v.x + v.y * v.y));
            };
            if (cosine(a - b, c - b) > 0.5) sharp.push_back({double(b.x), double(b.y)});
            // A tip that is cut off, by no more than 3 mm, between sides that run together by 8 degrees and more.
            const double tip = cosine(a - b, d - c);
            const Point cut = c - b;
            if (std::hypot(double(cut.x), double(cut.y)) <= 24'000 && tip > 0.5 && tip < 0.99)
                sharp.push_back({double(b.x + c.x) / 2, double(b.y + c.y) / 2});
        }
    }
    bp::voronoi_diagram<double> diagram;
    bp::construct_voronoi(sides.begin(), sides.end(), &diagram);
    const auto nearest = [&](const auto& cell, double x, double y) -> At {
        const Side& e = sides[cell.source_index()];
        if (cell.contains_point()) {
            const bool start = cell.source_category() == bp::SOURCE_CATEGORY_SEGMENT_START_POINT;
            return start ? At{double(e.low().x()), double(e.low().y())}
                         : At{double(e.high().x()), double(e.high().y())};
        }
        const double dx = e.high().x() - e.low().x();
        const double dy = e.high().y() - e.low().y();
        const double t = std::clamp(((x - e.low().x()) * dx + (y - e.low().y()) * dy) / (dx * dx + dy * dy), 0.0, 1.0);
        return {e.low().x() + t * dx, e.low().y() + t * dy};
    };
    double least = 0;
    for (const auto& edge : diagram.edges()) {
        if (!edge.is_primary() || !edge.is_finite() || &edge > edge.twin()) continue;
        for (int k = 0; k <= 8; ++k) {
            const double x = edge.vertex0()->x() + (edge.vertex1()->x() - edge.vertex0()->x()) * k / 8;
            const double y = edge.vertex0()->y() + (edge.vertex1()->y() - edge.vertex0()->y()) * k / 8;
            const At p = nearest(*edge.cell(), x, y);
            const At q = nearest(*edge.twin()->cell(), x, y);
            const double width = std::hypot(p.x - x, p.y - y) + std::hypot(q.x - x, q.y - y);
            if (width < 4) continue;
            const double cosine = ((p.x - x) * (q.x - x) + (p.y - y) * (q.y - y)) /
                                  (std::hypot(p.x - x, p.y - y) * std::hypot(q.x - x, q.y - y));
            if (cosine > -0.8 || (least > 0 && width >= least)) continue;
            const Point here{std::llround(x), std::llround(y)};
            if (!touch(shape, Region::rectangle({here, here + Point{1, 1}}))) continue;
            if (std::none_of(sharp.begin(), sharp.end(),
                             [&](const At& c) { return std::hypot(c.x - x, c.y - y) < 5 * width; }))
                least = width;
        }
    }
    return least * grid_nm * 1e-6;
}

}  // namespace

TEST_CASE("the thinnest strokes of letters agree with the Voronoi diagram of Boost.Polygon") {
    int compared = 0;
    for (const char* family : {"League Spartan", "Lobster Two", "Dancing Script"}) {
        const TypefaceName name = typeface(family, "Bold");
        const Typeface& face = *find_typeface(library().typefaces, name);
        for (const char* letter : {"B", "O", "n", "s", "m"}) {
            CAPTURE(family, letter);
            const Region shape = flatten(skarvel::shape(face, letter).front().outline, 0.05, 0.05);
            const double theirs = thinnest_by_voronoi(shape);
            // None where all of a letter is near a sharp corner of it; beside one, where it ends hangs on the steps.
            CHECK(thinnest(shape).in_mm() == Approx(theirs).epsilon(0.04).margin(0.001));
            compared += theirs > 0 ? 1 : 0;
        }
    }
    CHECK(compared >= 8);
}

TEST_CASE("drawings in DXF have the area and the extent that ezdxf gives them") {  // reference package: ezdxf
    const Folder folder;
    const Ran written =
        run(std::string(SKARVEL_PYTHON) + " " SKARVEL_SOURCE "/tests/reference/drawn_dxf.py " + folder.path().string());
    INFO(written.out);
    REQUIRE(written.code == 0);
    std::istringstream lines(written.out);
    std::string name;
    double area = 0;
    double wide = 0;
    double high = 0;
    int drawings = 0;
    for (std::string line; std::getline(lines, line) && !line.starts_with("colour");) {
        std::istringstream(line) >> name >> area >> wide >> high;
        INFO(name);
        ++drawings;
        const auto bytes = read_file(folder / (name + ".dxf"));
        REQUIRE(bytes);
        const auto read = read_drawing_file(*bytes, name + ".dxf");
        REQUIRE(read);
        const Box box = bounds_of(read->drawing);
        const double scale = wide / grid_to_mm(box.width());
        double here = 0;
        for (const DrawingPart& p : read->drawing.parts) here += p.shape.area_mm2() * scale * scale;
        CHECK(read->width.in_mm() == Approx(wide).margin(0.02));
        CHECK(grid_to_mm(box.height()) * scale == Approx(high).margin(0.02));
        CHECK(here == Approx(area).epsilon(1e-3));
    }
    CHECK(drawings == 8);
    // The moon of the plane seen from behind lies the other way round: its tip, at 70, is now the leftmost point.
    const auto moon = read_drawing_file(*read_file(folder / "mirrored.dxf"), "mirrored.dxf");
    REQUIRE(moon->drawing.parts.size() == 1);
    const Region shape = moon->drawing.parts[0].shape;
    const auto low = edges_on(shape, Axis::Y, {shape.bounds().high.y - shape.bounds().height() / 50}).front();
    CHECK(low[0] < static_cast<double>(shape.bounds().width()) * 0.2);

    // Colours, what is nested, what crosses, what is drawn twice, and all that is left out is said.
    const auto read = read_drawing_file(*read_file(folder / "coloured.dxf"), "coloured.dxf");
    REQUIRE(read);
    lines = std::istringstream(written.out.substr(written.out.find("colour #")));
    int colours = 0;
    std::string rgb;
    const double mm = read->width.in_mm() / grid_to_mm(bounds_of(read->drawing).width());
    while (lines >> name >> rgb >> area) {
        INFO(rgb);
        ++colours;
        double here = 0;
        for (const DrawingPart& part : read->drawing.parts) here += part.colour == rgb ? part.shape.area_mm2() : 0;
        CHECK(here * mm * mm == Approx(area).epsilon(1e-3));
    }
    CHECK(colours == 3);
    CHECK(read->width.in_mm() == Approx(140).margin(0.05));  // nothing of what is off, frozen, tilted or on paper
    std::set<std::string> said;
    for (const Problem& note : read->notes) said.insert(note.what.id);
    CHECK(said == std::set<std::string>{"drawing.dxf-text", "drawing.dxf-layers-off", "drawing.dxf-paper",
                                        "drawing.dxf-tilted", "drawing.dxf-smooth", "drawing.dxf-other"});
    // The curve through points alone is one closed shape of its own colour.
    CHECK(std::count_if(read->drawing.parts.begin(), read->drawing.parts.end(),
                        [](const DrawingPart& part) { return part.colour == "#0000ff"; }) == 1);
}
