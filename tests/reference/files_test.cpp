// Files read back by independent programs: fontTools, librsvg, poppler.
#include <fstream>
#include <nlohmann/json.hpp>
#include <regex>
#include <sstream>

#include "files/cut_file.h"
#include "files/exporting.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

Ran python(const Folder& folder, const std::string& program, const std::string& arguments) {
    const auto path = folder / "program.py";
    std::ofstream(path) << program;
    return run(std::string(SKARVEL_PYTHON) + " " + path.string() + " " + arguments);
}

// The box of the black pixels of a rendered file, and their share of the page, in page millimetres.
struct Rendered {
    double left = 1e9, top = 1e9, right = -1e9, bottom = -1e9, area = 0, width = 0, height = 0;
};

Rendered render(const Folder& folder, const std::string& svg, double dots_per_mm) {
    std::ofstream(folder / "in.svg") << svg;
    const Ran ran =
        run("rsvg-convert -d " + std::to_string(dots_per_mm * 25.4) + " -p " + std::to_string(dots_per_mm * 25.4) +
            " -b white " + (folder / "in.svg").string() + " -o " + (folder / "out.png").string() + " && convert " +
            (folder / "out.png").string() + " -colorspace gray -depth 8 " + (folder / "out.pgm").string());
    INFO(ran.out);
    REQUIRE(ran.code == 0);
    std::ifstream in(folder / "out.pgm", std::ios::binary);
    std::string magic;
    int w = 0, h = 0, most = 0;
    in >> magic >> w >> h >> most;
    in.get();
    std::string pixels(static_cast<std::size_t>(w) * static_cast<std::size_t>(h), '\0');
    in.read(pixels.data(), static_cast<std::streamsize>(pixels.size()));
    Rendered r;
    r.width = w / dots_per_mm;
    r.height = h / dots_per_mm;
    for (int y = 0; y < h; ++y) {
        for (int x = 0; x < w; ++x) {
            const double dark =
                1 -
                static_cast<unsigned char>(
                    pixels[static_cast<std::size_t>(y) * static_cast<std::size_t>(w) + static_cast<std::size_t>(x)]) /
                    255.0;
            r.area += dark / (dots_per_mm * dots_per_mm);
            if (dark < 0.5) continue;
            r.left = std::min(r.left, x / dots_per_mm);
            r.right = std::max(r.right, (x + 1) / dots_per_mm);
            r.top = std::min(r.top, y / dots_per_mm);
            r.bottom = std::max(r.bottom, (y + 1) / dots_per_mm);
        }
    }
    return r;
}

std::string replaced(std::string text, const std::string& what, const std::string& with) {
    for (std::size_t at = 0; (at = text.find(what, at)) != std::string::npos; at += with.size())
        text.replace(at, what.size(), with);
    return text;
}

}  // namespace

TEST_CASE("advances and outline boxes agree with fontTools") {
    const Folder folder;
    const std::string program = R"(
import sys, json
from fontTools.ttLib import TTFont
from fontTools.pens.boundsPen import BoundsPen
out = {}
for path in sys.argv[1:]:
    font = TTFont(path)
    glyphs, names = font.getGlyphSet(), font.getBestCmap()
    rows = {}
    for letter in "AHOQ&8":  # no letters that a script changes at the end of a word
        pen = BoundsPen(glyphs)
        glyphs[names[ord(letter)]].draw(pen)
        rows[letter] = [font["hmtx"][names[ord(letter)]][0], pen.bounds]
    out[path] = {"upem": font["head"].unitsPerEm, "rows": rows}
print(json.dumps(out))
)";
    std::string files;
    for (const auto& entry :
         std::filesystem::directory_iterator(std::filesystem::path(SKARVEL_SOURCE) / "assets/fonts/signs")) {
        files += " '" + entry.path().string() + "'";
    }
    const Ran ran = python(folder, program, files);
    INFO(ran.out);
    REQUIRE(ran.code == 0);
    const auto theirs = nlohmann::json::parse(ran.out);
    CHECK(theirs.size() == library().typefaces.size());
    for (const auto& [path, font] : theirs.items()) {
        const auto ours = read_typeface(std::make_shared<const std::string>(read_file(path).value()));
        REQUIRE(ours);
        CHECK(ours->units_per_em == font["upem"].get<double>());
        for (const auto& [letter, row] : font["rows"].items()) {
            INFO(path << " " << letter);
            const auto shaped = shape(*ours, letter);
            REQUIRE(shaped.size() == 1);
            CHECK(shaped.front().advance == row[0].get<double>());
            const Extent e = extent_of(shaped.front().outline);
            CHECK(e.x0 == Approx(row[1][0].get<double>()).margin(0.6));
            CHECK(e.y0 == Approx(row[1][1].get<double>()).margin(0.6));
            CHECK(e.x1 == Approx(row[1][2].get<double>()).margin(0.6));
            CHECK(e.y1 == Approx(row[1][3].get<double>()).margin(0.6));
        }
    }
}

TEST_CASE("a cut file rendered by librsvg has the mat's size, and the ink and film of its sections") {
    const Folder folder;
    for (const Job& job : {porch_board(), long_board()}) {
        const Plan plan = plan_of(job);
        const LoadsPlan& loads = *plan.colours.front().cut.loads;
        const auto files = cut_files(plan, usual_shop());
        REQUIRE(files.size() == loads.loads.size());
        for (std::size_t i = 0; i < files.size(); ++i) {
            INFO(files[i].name);
            double ink = 0;
            Box box, film_box;
            for (const Placement& p : loads.loads[i].placements) {
                const LaidSection laid = lay_on_mat(loads.sections[p.section], p);
                ink += laid.cut.area_mm2();
                box = around(box, laid.cut.bounds());
                film_box = around(film_box, laid.film.bounds());
            }
            // Filled instead of stroked, the ink alone.
            std::string filled =
                replaced(files[i].bytes, "fill=\"none\" stroke=\"#000000\" stroke-width=\"0.1\"", "fill=\"#000000\"");
            filled = replaced(filled, "class=\"film\"", "class=\"film\" fill=\"none\"");
            const Rendered r = render(folder, filled, 4);
            CHECK(r.width == Approx(11.5 * 25.4).margin(0.3));
            CHECK(r.height == Approx(23.5 * 25.4).margin(0.3));
            CHECK(r.area == Approx(ink).epsilon(0.005));
            CHECK(r.left == Approx(grid_to_mm(box.low.x)).margin(0.3));
            CHECK(r.right == Approx(grid_to_mm(box.high.x)).margin(0.3));
            CHECK(r.top == Approx(23.5 * 25.4 - grid_to_mm(box.high.y)).margin(0.3));
            CHECK(r.bottom == Approx(23.5 * 25.4 - grid_to_mm(box.low.y)).margin(0.3));
            CHECK(from_grid(film_box.high.y) <= usual_shop().mat.usable.along);
            // Every knife line is closed, and the sections have their groups.
            const auto count = [&](const std::string& what) {
                const std::regex pattern(what);
                return std::distance(std::sregex_iterator(files[i].bytes.begin(), files[i].bytes.end(), pattern),
                                     std::sregex_iterator());
            };
            CHECK(count(" Z") == count("M[0-9]"));
            CHECK(count("<g id=\"section-") == static_cast<long>(loads.loads[i].placements.size()));
        }
    }
}

TEST_CASE("the sheets are a PDF that poppler reads: pages, paper, words, fractions") {
    const Folder folder;
    const Job job = porch_board();
    REQUIRE(export_job(job, plan_of(job), usual_shop(), library(), folder / "out"));
    const std::string pdf = (folder / "out/sheets.pdf").string();
    const Ran info = run("pdfinfo " + pdf);
    CHECK(info.code == 0);
    CHECK(info.out.find("Pages:           6") != std::string::npos);
    CHECK(info.out.find("612 x 792 pts (letter)") != std::string::npos);
    const Ran text = run("pdftotext -layout " + pdf + " -");
    CHECK(text.code == 0);
    for (const char* words : {"Placement", "BOAT", "HOUS", "from the lower edge", "What to buy", "removable matt vinyl",
                              "Schedule", "sand the board", "Cautions", "Proof"}) {
        INFO(words);
        CHECK(text.out.find(words) != std::string::npos);
    }
    CHECK(text.out.find("5 1⁄2 in") != std::string::npos);  // text stays text, with the fraction slash
    const Ran fonts = run("pdffonts " + pdf);
    CHECK(fonts.out.find("Plex") != std::string::npos);
    CHECK(fonts.out.find("Type 3") == std::string::npos);
}

TEST_CASE("the placement sheet is drawn at the scale that it states") {
    const Folder folder;
    const Job job = porch_board();
    REQUIRE(export_job(job, plan_of(job), usual_shop(), library(), folder / "out"));
    // The board is 5 1/2 x 60 in at 1:8; its outline is the widest closed rectangle of the page that
    // follows the cautions.
    const Ran svg =
        run("pdftocairo -f 2 -l 2 -svg " + (folder / "out/sheets.pdf").string() + " " + (folder / "page.svg").string());
    REQUIRE(svg.code == 0);
    const std::string program = R"(
import re, sys
text = open(sys.argv[1]).read()
best = None
for m in re.finditer(r'<path[^>]*? d="M ([\d.-]+) ([\d.-]+) L ([\d.-]+) ([\d.-]+) L ([\d.-]+) ([\d.-]+) L ([\d.-]+) ([\d.-]+) Z[^"]*"([^>]*)>', text):
    xs, ys = [float(m.group(i)) for i in (1, 3, 5, 7)], [float(m.group(i)) for i in (2, 4, 6, 8)]
    scale = re.search(r'matrix\(([\d.-]+)', m.group(0))
    k = abs(float(scale.group(1))) if scale else 1.0
    size = (k * (max(xs) - min(xs)) / 72, k * (max(ys) - min(ys)) / 72)
    if best is None or size[1] > best[1]:
        best = size
print("%.4f %.4f" % best)
)";
    const Ran measured = python(folder, program, (folder / "page.svg").string());
    INFO(measured.out);
    double w = 0, h = 0;
    std::istringstream(measured.out) >> w >> h;
    CHECK(w == Approx(5.5 / 8).margin(0.005));
    CHECK(h == Approx(60.0 / 8).margin(0.005));
}

TEST_CASE("DXF and plotter files have the extents and lengths that ezdxf and hp2xx read from them") {
    const Folder folder;
    for (const Job& job : {porch_board(), long_board()}) {
        const Plan plan = plan_of(job);
        const auto loads = loads_to_cut(plan, usual_shop());
        const LoadToCut& load = loads.front();
        std::ofstream(folder / "load.dxf") << dxf_of(load);
        std::ofstream(folder / "load.plt") << hpgl_of(load).value();
        const Ran read = run(std::string(SKARVEL_PYTHON) + " " SKARVEL_SOURCE "/tests/reference/cut_lengths.py " +
                             (folder / "load.dxf").string() + " " + (folder / "load.plt").string());
        INFO(read.out);
        REQUIRE(read.code == 0);
        double closed = 0;
        Box box;
        for (const KnifePath& p : load.way.paths) {
            closed += p.closed() ? 1 : 0;
            for (const Point& at : p.points) box = around(box, {at, at + Point{1, 1}});
        }
        std::istringstream lines(read.out);
        std::string kind;
        double paths = 0, wide = 0, high = 0, length = 0;
        int seen = 0;
        while (lines >> kind >> paths >> wide >> high >> length) {
            ++seen;
            const double off = kind == "dxf" ? 0.001 : 0.2;  // hp2xx writes thousandths of a point from its own grid
            CHECK(wide == Approx(grid_to_mm(box.width())).margin(off));
            CHECK(high == Approx(grid_to_mm(box.height())).margin(off));
            CHECK(length == Approx(load.way.cut.in_mm()).epsilon(kind == "dxf" ? 1e-6 : 0.005));
            if (kind == "dxf") CHECK(paths == closed);
        }
        CHECK(seen == 2);
    }
}
