// From loads to cut files: packing in full, ties, lines, the knife's way, shared loads, and files that are noticed when
// they are spoilt.
#include <cmath>
#include <regex>

#include "files/cut_file.h"
#include "job/commands.h"
#include "proof/proof.h"
#include "sections/ties.h"
#include "support_panel.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

Job long_decal() {
    Job job = long_board();
    making(job).way = Way::Decal;
    making(job).film = "permanent-gloss";
    return job;
}

// A ring with an eye, `size` across.
Region letter_o(double size, double stroke) {
    return subtract(square_in(0, 0, size), square_in(stroke, stroke, size - 2 * stroke));
}

}  // namespace

TEST_CASE("a rectangle of 33 x 32 is packed from nine squares without any waste") {  // Moron, 1925; sizes from memory
    std::vector<Box> squares;
    for (const double side : {18, 15, 14, 10, 9, 8, 7, 4, 1}) squares.push_back(box_in(0, 0, side, side));
    const Packed p = pack(squares, {33_in, 32_in}, Length{});
    CHECK(p.loads.size() == 1);
    CHECK(p.left_over.empty());
}

TEST_CASE("ties hold every keeper of a mask that is used again") {
    CHECK(rc::check("no keeper hangs loose, ties lie in the ink, at most two for each", [] {
        const double size = *rc::gen::inRange(2, 12) / 4.0 + 0.5;
        const double stroke = size * (*rc::gen::inRange(15, 35)) / 100;
        const Region o = letter_o(size, stroke);
        const auto eyes = holes(o);
        RC_ASSERT(eyes.size() == 1);
        const Tied tied = tie_keepers(o, {{"O", eyes.front()}}, Length::sixtyfourths(*rc::gen::inRange(2, 10)));
        RC_ASSERT(tied.loose.empty());
        RC_ASSERT(holes(tied.cut).empty());
        RC_ASSERT(tied.ties.size() >= 1);
        RC_ASSERT(tied.ties.size() <= 2);
        for (const Region& tie : tied.ties) RC_ASSERT(subtract(tie, o).area_mm2() < 0.05);
    }));
    Job job = porch_board();
    making(job).film = "reusable-sheet";
    making(job).tie = measure("1/8");
    const Plan plan = plan_of(job);
    CHECK(plan.colours.front().cut.loads->keepers == 0);  // B, O, A, O all held
    CHECK(plan.colours.front().cut.loads->sections.front().ties.size() >= 3);
    const Evidence e = prove(plan, usual_shop(), files_of(job, plan, usual_shop()), CutFormat::Svg);
    CHECK(e.good());
}

TEST_CASE("weeding lines divide the waste of a decal and cross no ink; marks of neighbours lie on one another") {
    const Job job = long_decal();
    const Plan plan = plan_of(job);
    const LoadsPlan& loads = *plan.colours.front().cut.loads;
    int weeding = 0;
    for (const Section& s : loads.sections) {
        for (const KnifeLine& l : s.lines) {
            weeding += l.kind == KnifeLine::Kind::Weeding ? 1 : 0;
            const Box box{{std::min(l.from.x, l.to.x) - 1, std::min(l.from.y, l.to.y) - 1},
                          {std::max(l.from.x, l.to.x) + 1, std::max(l.from.y, l.to.y) + 1}};
            CHECK(intersect(s.cut, Region::rectangle(box)).empty());
            CHECK(subtract(Region::rectangle(box), grow(s.film, 0.01_in)).empty());
        }
    }
    CHECK(weeding > 0);
    const Plan masks = plan_of(porch_board());
    int marks = 0;
    for (const Section& s : masks.colours.front().cut.loads->sections) {
        for (const KnifeLine& l : s.lines) {
            CHECK(l.kind == KnifeLine::Kind::Match);
            ++marks;
        }
    }
    CHECK(marks >= 4);
}

TEST_CASE("colours of one film share loads, and what one step cuts is kept for all of them") {
    Job job = porch_board();
    job = copy_sign(job, 0, "OAR");
    job = copy_sign(job, 0, "TEA");
    const Plan plan = plan_of(job);
    int carried = 0;
    int own = 0;
    for (const ColourPlan& f : plan.colours) {
        for (const Load& l : f.cut.loads->loads) {
            (l.carried_by.empty() ? own : carried) += 1;
            if (!l.carried_by.empty()) {
                const bool cuts = std::any_of(plan.tasks->begin(), plan.tasks->end(),
                                              [&](const Task& t) { return t.id == l.carried_by; });
                CHECK(cuts);
            }
        }
    }
    CHECK(carried > 0);
    CHECK(plan.loads_saved > 0);
    CHECK(loads_to_cut(plan, usual_shop()).size() == static_cast<std::size_t>(own));
    // Nothing overlaps on a shared load.
    for (const LoadToCut& load : loads_to_cut(plan, usual_shop())) {
        for (std::size_t i = 0; i < load.sections.size(); ++i) {
            CHECK(load.sections[i].laid.film.bounds().high.x <= to_grid(load.bed.usable.across));
            CHECK(load.sections[i].laid.film.bounds().high.y <= to_grid(load.bed.usable.along));
            for (std::size_t k = i + 1; k < load.sections.size(); ++k)
                CHECK(common(load.sections[i].laid.film.bounds(), load.sections[k].laid.film.bounds()).empty());
        }
    }
    for (const CutFormat format : {CutFormat::Svg, CutFormat::Dxf, CutFormat::Hpgl})
        CHECK(prove(plan, usual_shop(), files_of(job, plan, usual_shop()), format).good());
}

TEST_CASE("what is in the drawer is used first, the smallest piece that does") {
    Shop shop = usual_shop();
    const std::string film = making(const_cast<Job&>(static_cast<const Job&>(porch_board()))).film;
    shop.drawer = {{film, "", "big piece", 12_in, 20_in, false, false, 0},
                   {film, "", "odd piece", 12_in, 9_in, false, false, 0},
                   {"other", "", "wrong film", 12_in, 9_in, false, false, 0}};
    const Plan p = plan(porch_board(), shop, library(), moment("2026-05-04T18:00"));
    std::string from;
    for (const Load& l : p.colours.front().cut.loads->loads) from += l.from + ";";
    CHECK(from.find("odd piece") != std::string::npos);
    CHECK(from.find("wrong") == std::string::npos);
    // A roll that is narrower than the mat narrows the loads.
    shop.drawer = {{film, "", "narrow roll", 9_in, 120_in, true, false, 0}};
    const Plan narrow = plan(porch_board(), shop, library(), moment("2026-05-04T18:00"));
    CHECK(narrow.colours.front().cut.bed.usable.across == 8.5_in);
}

TEST_CASE("files that are spoilt are always noticed") {
    const Shop shop = usual_shop();
    for (const Job& job : {porch_board(), long_decal()}) {
        const Plan plan = plan_of(job);
        const FileSet good = files_of(job, plan, shop);
        REQUIRE(prove(plan, shop, good, CutFormat::Svg).good());
        REQUIRE(prove(plan, shop, good, CutFormat::Dxf).good());
        REQUIRE(prove(plan, shop, good, CutFormat::Hpgl).good());
        std::string first;
        for (const auto& [name, bytes] : good) {
            if (first.empty() && name.ends_with(".svg")) first = name;
        }
        const auto noticed = [&](const char* what, const std::function<void(FileSet&)>& spoil) {
            FileSet files = good;
            spoil(files);
            INFO(what);
            REQUIRE(files != good);
            CHECK_FALSE(prove(plan, shop, files, CutFormat::Svg).good());
        };
        const auto edit = [](std::string& text, const std::string& pattern, const std::string& by) {
            text = std::regex_replace(text, std::regex(pattern), by, std::regex_constants::format_first_only);
        };
        noticed("mirrored",
                [&](FileSet& f) { edit(f[first], "<g fill", "<g transform=\"translate(292.1 0) scale(-1 1)\" fill"); });
        noticed("scaled", [&](FileSet& f) { edit(f[first], "<g fill", "<g transform=\"scale(1.001)\" fill"); });
        noticed("wrong unit", [&](FileSet& f) { edit(f[first], "width=\"([0-9.]+)mm\"", "width=\"$1in\""); });
        noticed("a path dropped",
                [&](FileSet& f) { edit(f[first], "class=\"ink\" d=\"M[^Z]*Z", "class=\"ink\" d=\""); });
        noticed("a file missing", [&](FileSet& f) { f.erase(first); });
        noticed("a file cut short", [&](FileSet& f) { f[first].resize(f[first].size() / 2); });
        noticed("turned by half", [&](FileSet& f) {
            edit(f[first], "<g id=\"section-1-white\">", "<g id=\"section-1-white\" transform=\"rotate(180 60 300)\">");
        });
        noticed("one distance wrong by 1/8 in", [&](FileSet& f) {
            edit(f["manifest.json"], "\"fromLeft\": \"[^\"]*\"", "\"fromLeft\": \"1/8\"");
            const bool was_there = good.at("manifest.json").find("\"fromLeft\": \"1/8\"") != std::string::npos;
            if (was_there) edit(f["manifest.json"], "\"fromLeft\": \"1/8\"", "\"fromLeft\": \"1/4\"");
        });
        noticed("two swapped", [&](FileSet& f) {
            std::string& m = f["manifest.json"];
            const std::regex moved("\"moved\": \\{[^}]*\\}");
            std::vector<std::string> found;
            for (std::sregex_iterator it(m.begin(), m.end(), moved), end; it != end; ++it) found.push_back(it->str());
            if (found.size() < 2) {
                m.clear();
                return;
            }
            const std::size_t a = m.find(found[0]);
            m.replace(a, found[0].size(), found[1]);
            const std::size_t b = m.rfind(found[1]);
            m.replace(b, found[1].size(), found[0]);
        });
    }
}

TEST_CASE("a keeper filled and a lap taken away are noticed") {
    const Job job = porch_board();
    const Shop shop = usual_shop();
    const Plan plan = plan_of(job);
    FileSet files = files_of(job, plan, shop);
    std::string& svg =
        files.begin()->second.find("<svg") != std::string::npos ? files.begin()->second : files.at("01-BOAT+HOUS.svg");
    // The second path of the ink is the eye of a letter or its outline: either way the ink is another.
    const std::size_t at = svg.find(" M", svg.find("class=\"ink\""));
    REQUIRE(at != std::string::npos);
    svg.erase(at, svg.find('Z', at) - at + 1);
    const Evidence filled = prove(plan, shop, files, CutFormat::Svg);
    CHECK_FALSE(filled.good());
    // Without the lap: films that end at the seam itself.
    Job butt = job;
    making(butt).lap = measure("0");
    const Plan without = plan_of(butt);
    const Evidence e = prove(plan, shop, files_of(butt, without, shop), CutFormat::Svg);
    CHECK_FALSE(e.good());
}

TEST_CASE("laid by hand, a butt opens more often than a lap, and the same every time") {
    Job job = porch_board();
    const Shop shop = usual_shop();
    const auto tried = [&](const char* lap) {
        making(job).lap = measure(lap);
        const Plan plan = plan_of(job);
        return prove(plan, shop, files_of(job, plan, shop), CutFormat::Svg).by_hand;
    };
    const auto butt = tried("0");
    const auto lapped = tried("1/8");
    REQUIRE(butt.size() == 2);
    REQUIRE(lapped.size() == 2);
    CHECK(butt[0].share_open > 0.4);
    CHECK(lapped[0].share_open < 0.1);
    CHECK(butt[0].safer_lap > Length{});
    CHECK(tried("0") == butt);
}

TEST_CASE("seams fall between words where that costs nothing") {
    const Job job = panel_job("TERN QUAY ROWING", "42", "8");
    const Plan plan = plan_of(job);
    const LoadsPlan& loads = *plan.colours.front().cut.loads;
    REQUIRE(loads.sections.size() > 1);
    for (const Section& s : loads.sections) {
        INFO(s.letters);
        CHECK(s.pieces.front().starts_word);
    }
}

TEST_CASE("files of any sign go together again, and its sections cover the ink once outside laps") {
    CHECK(rc::check([] {
        const Job job = any_panel();
        const Shop shop = usual_shop();
        const Plan p = plan(job, shop, library(), moment("2026-05-04T18:00"));
        RC_PRE(p.mark_of(Station::Sections) != Mark::Stop && p.mark_of(Station::Lettering) != Mark::Stop);
        // Letters of a few plotter units are no letters any more, and the proof says so.
        RC_PRE(!p.colours.front().cut.loads->sections.empty() &&
               p.colours.front().face->lettering->cap_height > 0.5_in);
        RC_LOG() << write_job(job) << "\n";
        const FileSet files = files_of(job, p, shop);
        for (const CutFormat format : {CutFormat::Svg, CutFormat::Dxf, CutFormat::Hpgl}) {
            // A cut across ink, rounded to the plotter's unit, is looked at by itself above.
            if (format == CutFormat::Hpgl && p.colours.front().cut.loads->crossings > 0) continue;
            const Evidence e = prove(p, shop, files, format);
            log_wrong(e);
            RC_ASSERT(e.good());
        }
        // Every piece of ink lies in the sections, and in one alone but for what laps carry through a cut piece.
        double ink = 0;
        for (const Piece& piece : *p.colours.front().cut.pieces) ink += piece.shape.area_mm2();
        double carried = 0;
        for (const Section& s : p.colours.front().cut.loads->sections) {
            for (const Piece& piece : s.pieces) carried += piece.shape.area_mm2();
        }
        RC_ASSERT(std::abs(ink - carried) < 0.01 + 1e-6 * ink);
    }));
}
