#include "drawing/outline_file.h"

#include <numbers>

#include "blank/blank.h"
#include "drawing/drawing_file.h"
#include "proof/reading.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

std::string svg(const std::string& inside) {
    return "<?xml version=\"1.0\"?><svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 100 100\">" + inside +
           "</svg>";
}

std::string outline_refusal(const std::string& bytes) {
    const auto read = read_outline_file(bytes, "gull.svg");
    return read ? "read" : read.error().what.id;
}

// Area over the square of the longer side: free of the scale.
double share(const Region& region) {
    const Box b = region.bounds();
    const double side = grid_to_mm(std::max(b.width(), b.height()));
    return region.area_mm2() / (side * side);
}

}  // namespace

TEST_CASE("an outline is read from SVG, with holes, groups and transforms") {
    auto read = read_outline_file(svg("<rect width='40' height='20'/>"), "a.svg");
    REQUIRE(read);
    CHECK(share(*read) == Approx(0.5));
    read = read_outline_file(svg("<g transform='rotate(90) scale(2 1)'><path d='M0 0 h40 v20 h-40 z'/></g>"), "a.svg");
    REQUIRE(read);
    CHECK(read->bounds().height() == Approx(4 * read->bounds().width()).epsilon(1e-6));
    read = read_outline_file(svg("<circle cx='50' cy='50' r='30'/><circle cx='50' cy='50' r='10'/>"), "a.svg");
    REQUIRE(read);
    CHECK(read->rings().size() == 2);
    // The package turns a circle into one cubic for each quarter: its radius is right within 0.03 %.
    CHECK(share(*read) == Approx(std::numbers::pi / 4 * (1 - 1. / 9)).epsilon(3e-4));
}

TEST_CASE("paths in one another are holes and islands; one drawn twice counts once") {
    const std::string disc = "<circle cx='50' cy='50' r='30'/>";
    const std::string hole = "<circle cx='50' cy='50' r='10'/>";
    const auto once = read_outline_file(svg(disc + hole), "a.svg");
    REQUIRE(once);
    // As a maker's drawing comes that was copied over itself.
    const auto twice = read_outline_file(svg(disc + hole + disc + hole + hole), "a.svg");
    REQUIRE(twice);
    CHECK(*twice == *once);
    // What stands in a hole is a shape of its own.
    CHECK(outline_refusal(svg(disc + hole + "<circle cx='50' cy='50' r='4'/>")) == "outline.several");
}

TEST_CASE("a board full of holes is read; lines that cross without end are refused, and do not hold the work up") {
    const auto number = [](double n) { return std::to_string(n); };
    std::string holes = "<rect width='4000' height='4000'/>";
    std::string ripples;
    for (int i = 0; i < 1600; ++i) {
        holes += "<rect x='" + number(5 + i % 40 * 99) + "' y='" + number(5 + i / 40 * 99) + "' width='9' height='9'/>";
        ripples += "M" + number(i) + " 0h50000v100h-50000z ";
    }
    const auto pegboard = read_outline_file(svg(holes), "a.svg");
    REQUIRE(pegboard);
    CHECK(pegboard->rings().size() == 1601);
    CHECK(read_drawing_file(svg("<path d='" + ripples + "'/>"), "a.svg").error().what.id == "outline.tangled");
    // Each by itself is sound, and so are a few; the whole is one long board.
    std::string each;
    for (int i = 0; i < 300; ++i) each += "<rect x='" + number(100 * i) + "' width='50000' height='100'/>";
    const auto board = read_outline_file(svg(each), "a.svg");
    REQUIRE(board);
    CHECK(board->rings().front().size() == 4);
    std::string star = "M";
    constexpr int points = 4001;
    for (int i = 0; i < points; ++i) {
        const double turn = 2 * std::numbers::pi * i * (points / 2) / points;
        star += number(50 + 50 * std::cos(turn)) + " " + number(50 + 50 * std::sin(turn)) + " ";
    }
    CHECK(outline_refusal(svg("<path d='" + star + "Z'/>")) == "outline.tangled");
    CHECK(outline_refusal(svg("<path fill='none' stroke='black' d='" + star + "Z'/>")) == "outline.tangled");
    std::string cut = "IN;SP1;PU40000,20000;";
    for (int i = 1; i <= points; ++i) {
        const double turn = 2 * std::numbers::pi * i * (points / 2) / points;
        cut += "PD" + std::to_string(std::lround(20000 + 20000 * std::cos(turn))) + "," +
               std::to_string(std::lround(20000 + 20000 * std::sin(turn))) + ";";
    }
    const auto proved = read_cut_file(cut + "PU;SP0;", "cut", CutFormat::Hpgl, {});
    CHECK((proved ? "read" : proved.error().what.id) == "outline.tangled");
    std::string rings;
    for (int i = 0; i < 4000; ++i) rings += "<circle cx='0' cy='0' r='" + number(9000 - i) + "'/>";
    CHECK(outline_refusal(svg(rings)) == "outline.over-one-another");
}

TEST_CASE("an outline is scaled by its one known dimension") {
    const auto read = read_outline_file(svg("<path d='M10 90 C 40 10 65 10 95 90 Z'/>"), "a.svg");
    REQUIRE(read);
    Blank b;
    b.kind = Kind::Drawn;
    b.margin = measure("0");
    b.outline = DrawnOutline{*read, true, measure("14"), "a.svg"};
    const BlankPlan p = measure_up(b, {}, {});
    CHECK(from_grid(p.face.width()).in_inches() == Approx(14).epsilon(1e-6));
    // A cubic with these controls stands three quarters of its controls' height.
    CHECK(from_grid(p.face.height()).in_inches() == Approx(14.0 * 60 / 85).epsilon(1e-4));
}

TEST_CASE("lines and arcs of a DXF file are joined, in whatever order and direction they come") {
    const auto line = [](double x1, double y1, double x2, double y2) {
        return "0\nLINE\n8\n0\n10\n" + std::to_string(x1) + "\n20\n" + std::to_string(y1) + "\n11\n" +
               std::to_string(x2) + "\n21\n" + std::to_string(y2) + "\n";
    };
    const std::string head = "0\nSECTION\n2\nENTITIES\n";
    const std::string tail = "0\nENDSEC\n0\nEOF\n";
    // A half disc on a square: an arch 10 wide and 15 high.
    const std::string arc = "0\nARC\n8\n0\n10\n5\n20\n10\n40\n5\n50\n0\n51\n180\n";
    const auto read =
        read_outline_file(head + line(0, 10, 0, 0) + arc + line(10, 0, 0, 0) + line(10, 0, 10, 10) + tail, "arch.dxf");
    REQUIRE(read);
    CHECK(share(*read) == Approx((100 + std::numbers::pi * 12.5) / 225).epsilon(1e-4));
    CHECK(outline_refusal(head + line(0, 10, 0, 0) + arc + line(10, 0, 0, 0) + tail) == "outline.open");
    CHECK(outline_refusal(head + "0\nSPLINE\n8\n0\n70\n8\n71\n3\n" + tail) == "outline.curves-unread");
    // Words beside it are no part of the outline, and that is said.
    const auto labelled = read_outline(
        head + "0\nCIRCLE\n8\n0\n10\n3\n20\n4\n40\n2\n" + "0\nTEXT\n8\n0\n10\n1\n20\n1\n40\n1\n1\nOARS\n" + tail,
        "labelled.dxf");
    REQUIRE(labelled);
    REQUIRE(labelled->notes.size() == 1);
    CHECK(labelled->notes.front().what.id == "drawing.dxf-text");
    const auto round = read_outline_file(head + "0\nCIRCLE\n8\n0\n10\n3\n20\n4\n40\n2\n" + tail, "round.dxf");
    REQUIRE(round);
    CHECK(share(*round) == Approx(std::numbers::pi / 4).epsilon(1e-4));
}

TEST_CASE("an outline that cannot be one is refused with its reason") {
    CHECK(outline_refusal("") == "outline.empty-file");
    CHECK(outline_refusal("a photograph") == "outline.neither");
    CHECK(outline_refusal(svg("")) == "outline.no-path");
    CHECK(outline_refusal(svg("<path d='M0 0 L10 0 L10 10'/>")) == "outline.open");
    CHECK(outline_refusal(svg("<path d='M0 0 L10 10 L10 0 L0 10 Z'/>")) == "outline.crosses");
    CHECK(outline_refusal(svg("<rect width='4' height='4'/><rect x='20' width='4' height='4'/>")) == "outline.several");
    CHECK(outline_refusal("<!DOCTYPE svg [<!ENTITY x SYSTEM \"file:///etc/hostname\">]>" + svg("<text>&x;</text>")) ==
          "outline.document-type");
    CHECK(outline_refusal("<svg><path d='M0 0") == "outline.not-svg");
    CHECK(outline_refusal(svg("<path d='M0 0 L nonsense'/>")) != "read");
    CHECK(outline_refusal("<svg>" + std::string(65'000'000, ' ') + "</svg>") == "outline.huge");
    std::string many = "M0 0";
    for (int i = 1; i < 210'000; ++i) many += " L" + std::to_string(i) + " " + std::to_string(i % 2);
    CHECK(outline_refusal(svg("<path d='" + many + " Z'/>")) == "outline.huge");
}

TEST_CASE("whatever the bytes, an outline is read or refused") {
    CHECK(rc::check([](const std::string& noise) {
        for (const std::string& bytes : {noise, svg(noise), svg("<path d='" + noise + "'/>"), "0\nSECTION\n" + noise}) {
            const auto read = read_outline_file(bytes, "noise");
            RC_ASSERT(!read || !read->empty());
        }
    }));
}
