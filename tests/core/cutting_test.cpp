// From loads to cut files: packing in full, ties, lines, the knife's way, shared loads, and files that are noticed when
// they are spoilt.
#include <cmath>
#include <regex>

#include "files/cut_file.h"
#include "job/commands.h"
#include "proof/proof.h"
#include "sections/ties.h"
#include "support.h"

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
    CHECK(plan.faces.front().loads->keepers == 0);  // B, O, A, O all held
    CHECK(plan.faces.front().loads->sections.front().ties.size() >= 3);
    const Evidence e = prove(job, plan, usual_shop(), files_of(job, plan, usual_shop()), CutFormat::Svg);
    CHECK(e.good());
}

TEST_CASE("the knife cuts what lies inside before what lies around it, section by section, lines last") {
    for (const Job& job : {porch_board(), long_decal()}) {
        const Plan plan = plan_of(job);
        for (const LoadToCut& load : loads_to_cut(job, plan, usual_shop())) {
            std::vector<int> parts(load.sections.size());
            std::size_t at = load.sections.size();
            std::set<std::size_t> seen;
            CutOf kind = CutOf::Ink;
            double ink = 0;
            for (const KnifePath& path : load.way.paths) {
                if (path.section != at) {
                    CHECK(seen.insert(path.section).second);
                    at = path.section;
                    kind = CutOf::Ink;
                }
                CHECK(path.of >= kind);
                kind = path.of;
                if (path.of == CutOf::Ink) CHECK(path.closed());
                ink += path.of == CutOf::Ink ? 1 : 0;
            }
            double rings = 0;
            for (const OnMat& s : load.sections) rings += static_cast<double>(s.laid.cut.rings().size());
            CHECK(ink == rings);
            CHECK(load.way.travel < load.way.cut);
            CHECK(load.way.seconds > 0);
        }
    }
}

TEST_CASE(
    "the lifted knife's way is within three times the least tree that joins all paths") {  // spanning tree: lower bound
    CHECK(rc::check([] {
        std::vector<Region> dots;
        const int n = *rc::gen::inRange(2, 25);
        for (int i = 0; i < n; ++i) {
            const double x = (i % 5) * 2 + *rc::gen::inRange(0, 8) / 10.0;
            const double y = (i / 5) * 2 + *rc::gen::inRange(0, 8) / 10.0;
            dots.push_back(square_in(x, y, 0.5));
        }
        OnMat section{"dots", "1", 0, {Region::rectangle(box_in(-1, -1, 12, 12)), merge(dots), {}}, {}, {}};
        const KnifeWay way = knife_way({section}, {});
        RC_ASSERT(way.paths.size() == dots.size() + 1);
        double tree = 0;
        std::vector<bool> in(dots.size());
        in[0] = true;
        for (std::size_t k = 1; k < dots.size(); ++k) {
            double best = 1e18;
            std::size_t next = 0;
            for (std::size_t i = 0; i < dots.size(); ++i) {
                for (std::size_t j = 0; in[i] && j < dots.size(); ++j) {
                    if (in[j]) continue;
                    for (const Point a : dots[i].rings()[0]) {
                        for (const Point b : dots[j].rings()[0]) {
                            const double d = std::hypot(grid_to_mm(a.x - b.x), grid_to_mm(a.y - b.y));
                            if (d < best) {
                                best = d;
                                next = j;
                            }
                        }
                    }
                }
            }
            in[next] = true;
            tree += best;
        }
        double travel = 0;
        for (std::size_t i = 1; i + 1 < way.paths.size(); ++i) {
            const Point a = way.paths[i - 1].points.back();
            const Point b = way.paths[i].points.front();
            travel += std::hypot(grid_to_mm(a.x - b.x), grid_to_mm(a.y - b.y));
        }
        RC_ASSERT(travel >= tree - 0.01);
        RC_ASSERT(travel <= 3 * tree + 0.01);
    }));
}

TEST_CASE("a trailing knife's edge follows the path when its pivot swings about the corners") {
    const KnifePath square{{{0, 0}, {80'000, 0}, {80'000, 80'000}, {0, 80'000}, {0, 0}}, CutOf::Ink, 0};
    const Length offset = Length::from_mm(0.25);
    const auto pivot = pivot_way(square, offset, Length::from_mm(1));
    // The edge is drawn behind its pivot on a rod: small steps towards the pivot, always `offset` away from it.
    double ex = 0;
    double ey = 0;
    double worst = 0;
    const double r = static_cast<double>(to_grid(offset));
    const auto off_square = [](double x, double y) {
        const double side = 80'000;
        const double outside = std::max({0.0, -x, -y, x - side, y - side});
        const double inside = std::min({x, y, side - x, side - y});
        return std::max(outside, std::max(0.0, inside));
    };
    for (std::size_t i = 1; i < pivot.size(); ++i) {
        for (int k = 1; k <= 200; ++k) {
            const double px = pivot[i - 1].x + (pivot[i].x - pivot[i - 1].x) * k / 200.0;
            const double py = pivot[i - 1].y + (pivot[i].y - pivot[i - 1].y) * k / 200.0;
            const double d = std::hypot(px - ex, py - ey);
            if (d < 1e-9) continue;
            ex = px - (px - ex) / d * r;
            ey = py - (py - ey) / d * r;
            worst = std::max(worst, off_square(ex, ey));
        }
    }
    CHECK(worst * grid_nm * 1e-6 < 0.03);
    CHECK(pivot_way(square, {}, {}) == square.points);
}

TEST_CASE("weeding lines divide the waste of a decal and cross no ink; marks of neighbours lie on one another") {
    const Job job = long_decal();
    const Plan plan = plan_of(job);
    const LoadsPlan& loads = *plan.faces.front().loads;
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
    for (const Section& s : masks.faces.front().loads->sections) {
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
    for (const FacePlan& f : plan.faces) {
        for (const Load& l : f.loads->loads) {
            (l.carried_by.empty() ? own : carried) += 1;
            if (!l.carried_by.empty()) {
                const bool cuts = std::any_of(plan.tasks.begin(), plan.tasks.end(),
                                              [&](const Task& t) { return t.id == l.carried_by; });
                CHECK(cuts);
            }
        }
    }
    CHECK(carried > 0);
    CHECK(plan.loads_saved > 0);
    CHECK(loads_to_cut(job, plan, usual_shop()).size() == static_cast<std::size_t>(own));
    // Nothing overlaps on a shared load.
    for (const LoadToCut& load : loads_to_cut(job, plan, usual_shop())) {
        for (std::size_t i = 0; i < load.sections.size(); ++i) {
            CHECK(load.sections[i].laid.film.bounds().high.x <= to_grid(load.bed.usable.across));
            CHECK(load.sections[i].laid.film.bounds().high.y <= to_grid(load.bed.usable.along));
            for (std::size_t k = i + 1; k < load.sections.size(); ++k)
                CHECK(common(load.sections[i].laid.film.bounds(), load.sections[k].laid.film.bounds()).empty());
        }
    }
    for (const CutFormat format : {CutFormat::Svg, CutFormat::Dxf, CutFormat::Hpgl})
        CHECK(prove(job, plan, usual_shop(), files_of(job, plan, usual_shop()), format).good());
}

TEST_CASE("what is in the drawer is used first, the smallest piece that does") {
    Shop shop = usual_shop();
    const std::string film = making(const_cast<Job&>(static_cast<const Job&>(porch_board()))).film;
    shop.drawer = {{film, "", "big piece", 12_in, 20_in, false, false, 0},
                   {film, "", "odd piece", 12_in, 9_in, false, false, 0},
                   {"other", "", "wrong film", 12_in, 9_in, false, false, 0}};
    const Plan p = plan(porch_board(), shop, library(), moment("2026-05-04T18:00"));
    std::string from;
    for (const Load& l : p.faces.front().loads->loads) from += l.from + ";";
    CHECK(from.find("odd piece") != std::string::npos);
    CHECK(from.find("wrong") == std::string::npos);
    // A roll that is narrower than the mat narrows the loads.
    shop.drawer = {{film, "", "narrow roll", 9_in, 120_in, true, false, 0}};
    const Plan narrow = plan(porch_board(), shop, library(), moment("2026-05-04T18:00"));
    CHECK(narrow.faces.front().bed.usable.across == 8.5_in);
}

TEST_CASE("files that are spoilt are always noticed") {
    const Shop shop = usual_shop();
    for (const Job& job : {porch_board(), long_decal()}) {
        const Plan plan = plan_of(job);
        const FileSet good = files_of(job, plan, shop);
        REQUIRE(prove(job, plan, shop, good, CutFormat::Svg).good());
        REQUIRE(prove(job, plan, shop, good, CutFormat::Dxf).good());
        REQUIRE(prove(job, plan, shop, good, CutFormat::Hpgl).good());
        std::string first;
        for (const auto& [name, bytes] : good) {
            if (first.empty() && name.ends_with(".svg")) first = name;
        }
        const auto noticed = [&](const char* what, const std::function<void(FileSet&)>& spoil) {
            FileSet files = good;
            spoil(files);
            INFO(what);
            REQUIRE(files != good);
            CHECK_FALSE(prove(job, plan, shop, files, CutFormat::Svg).good());
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
            edit(f[first], "<g id=\"section-1\">", "<g id=\"section-1\" transform=\"rotate(180 60 300)\">");
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
    const Evidence filled = prove(job, plan, shop, files, CutFormat::Svg);
    CHECK_FALSE(filled.good());
    // Without the lap: films that end at the seam itself.
    Job butt = job;
    making(butt).lap = measure("0");
    const Plan without = plan_of(butt);
    const Evidence e = prove(job, plan, shop, files_of(butt, without, shop), CutFormat::Svg);
    CHECK_FALSE(e.good());
}

TEST_CASE("laid by hand, a butt opens more often than a lap, and the same every time") {
    Job job = porch_board();
    const Shop shop = usual_shop();
    const auto tried = [&](const char* lap) {
        making(job).lap = measure(lap);
        const Plan plan = plan_of(job);
        return prove(job, plan, shop, files_of(job, plan, shop), CutFormat::Svg).by_hand;
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

TEST_CASE("one spoilt section is cut again alone, and what was ticked of the others stays") {
    Job job = porch_board();
    Plan plan = plan_of(job);
    const auto at = moment("2026-05-04T19:00");
    job = tick(job, plan, "1/cut/BOAT+HOUS", at);
    job = tick(job, plan_of(job), "1/weed/BOAT+HOUS", at);
    REQUIRE(job.bench.cut.size() == 1);
    const Job again = cut_section_again(job, 0, 1);
    CHECK(again.bench.cut.front().sections.size() == 1);
    CHECK(again.bench.spoilt.size() == 1);
    CHECK(again.bench.spoilt.front().sections.front().letters == job.bench.cut.front().sections[1].letters);
    plan = plan_of(again);
    const LoadsPlan& loads = *plan.faces.front().loads;
    CHECK(plan.bench->orphans.empty());
    int cut = 0;
    std::string to_cut;
    for (const Load& l : loads.loads) {
        cut += l.cut ? 1 : 0;
        if (!l.cut) to_cut += l.name;
    }
    CHECK(cut == 1);
    for (const char c : std::string("HOUSE")) CHECK(to_cut.find(c) != std::string::npos);
    CHECK(to_cut.find("BOAT") == std::string::npos);
    CHECK(cut_section_again(again, 0, 0).bench.cut.empty());
    CHECK(cut_section_again(again, 7, 0) == again);
}

TEST_CASE("seams fall between words where that costs nothing") {
    const Job job = panel_job("TERN QUAY ROWING", "42", "8");
    const Plan plan = plan_of(job);
    const LoadsPlan& loads = *plan.faces.front().loads;
    REQUIRE(loads.sections.size() > 1);
    for (const Section& s : loads.sections) {
        INFO(s.letters);
        CHECK(s.pieces.front().starts_word);
    }
}

namespace {

// A panel with words of any size, cut in any way on any bed of the usual shop.
Job any_panel() {
    Job job = panel_job("");
    Blank& b = job.signs.front().blank;
    b.length = measure_of(Length::sixtyfourths(*rc::gen::inRange(64 * 8, 64 * 60)), {Unit::Inch, 64});
    b.width = measure_of(Length::sixtyfourths(*rc::gen::inRange(64 * 5, 64 * 20)), {Unit::Inch, 64});
    b.stands = *rc::gen::element(Stands::Level, Stands::Upright);
    b.margin = measure("3/4");
    Text& t = lettering(job);
    t.words = *rc::gen::element<std::string>("OAR", "BOATHOUSE", "TEA ROOM", "Low Tide\nSlipway", "A8B%");
    t.typeface =
        *rc::gen::element(typeface("League Spartan", "Bold"), typeface("Lobster Two", "Bold"), typeface("Bebas Neue"));
    t.arrangement = *rc::gen::element(Arrangement::Level, Arrangement::Stack);
    t.letter_gap = measure(t.arrangement == Arrangement::Stack ? "1/2" : "0");
    t.line_gap = measure("1/2");
    making(job).way = *rc::gen::element(Way::Decal, Way::PaintThrough);
    making(job).lap = measure(*rc::gen::element("0", "1/8", "1/4"));
    if (*rc::gen::arbitrary<bool>()) making(job).tie = measure("1/8");
    const auto beds = beds_of(usual_shop().machines);
    making(job).bed = bed_name(beds.at(*rc::gen::inRange<std::size_t>(0, beds.size())));
    return job;
}

void log_wrong(const Evidence& e) {
    for (const Problem& problem : e.problems) RC_LOG() << library().catalogue.say(problem.what, {}) << "\n";
    for (const ColourProof& c : e.as_cut) {
        for (const Reason& why : c.wrong) RC_LOG() << library().catalogue.say(why, {}) << "\n";
    }
}

}  // namespace

TEST_CASE("files of any sign go together again, and its sections cover the ink once outside laps") {
    CHECK(rc::check([] {
        const Job job = any_panel();
        const Shop shop = usual_shop();
        const Plan p = plan(job, shop, library(), moment("2026-05-04T18:00"));
        RC_PRE(p.mark_of("sections") != Mark::Stop && p.mark_of("lettering") != Mark::Stop);
        // Letters of a few plotter units are no letters any more, and the proof says so.
        RC_PRE(!p.faces.front().loads->sections.empty() && p.faces.front().lettering->cap_height > 0.5_in);
        RC_LOG() << write_job(job) << "\n";
        const FileSet files = files_of(job, p, shop);
        for (const CutFormat format : {CutFormat::Svg, CutFormat::Dxf, CutFormat::Hpgl}) {
            // A cut across ink, rounded to the plotter's unit, is looked at by itself above.
            if (format == CutFormat::Hpgl && p.faces.front().loads->crossings > 0) continue;
            const Evidence e = prove(job, p, shop, files, format);
            log_wrong(e);
            RC_ASSERT(e.good());
        }
        // Every piece of ink lies in the sections, and in one alone but for what laps carry through a cut piece.
        double ink = 0;
        for (const Piece& piece : *p.faces.front().pieces) ink += piece.shape.area_mm2();
        double carried = 0;
        for (const Section& s : p.faces.front().loads->sections) {
            for (const Piece& piece : s.pieces) carried += piece.shape.area_mm2();
        }
        RC_ASSERT(std::abs(ink - carried) < 0.01 + 1e-6 * ink);
    }));
}

TEST_CASE("of a letter that a seam crosses one part is cut and the other is still to come") {
    Job job = panel_job("TEA", "40", "30");
    making(job).margin = measure("3/4");
    const Shop shop = usual_shop();
    const Plan drawn = plan_of(job);
    const LoadsPlan& before = *drawn.faces.front().loads;
    REQUIRE(before.crossings > 0);
    for (const Load& load : before.loads) {
        CAPTURE(load.name);
        const Job cut = tick(job, drawn, "1/cut/" + load.name, moment("2026-05-04T19:00"));
        REQUIRE(cut.bench.cut.size() == 1);
        const Plan plan = plan_of(cut);
        CHECK(plan.faces.front().loads->misfits.empty());
        CHECK(plan.faces.front().loads->sections.size() <= before.sections.size() + 1);
        for (const CutFormat format : {CutFormat::Svg, CutFormat::Dxf}) {
            const Evidence evidence = prove(cut, plan, shop, files_of(cut, plan, shop), format);
            for (const ColourProof& c : evidence.as_cut) CHECK(c.missing_mm2 < 1);
            CHECK(evidence.good());
        }
    }
    // Drawn anew, what was cut agrees no longer, and that is asked about.
    Job changed = tick(job, drawn, "1/cut/" + before.loads.back().name, moment("2026-05-04T19:00"));
    lettering(changed).words = "TAR";
    CHECK_FALSE(plan_of(changed).faces.front().loads->misfits.empty());
}

TEST_CASE("ticking a load as cut changes nothing of the others") {
    CHECK(rc::check([] {
        Job job = any_panel();
        Blank& b = job.signs.front().blank;
        b.length = measure_of(Length::sixtyfourths(*rc::gen::inRange(64 * 24, 64 * 60)), {Unit::Inch, 64});
        const Plan drawn = plan_of(job);
        RC_PRE(drawn.mark_of("sections") != Mark::Stop && drawn.mark_of("lettering") != Mark::Stop);
        const LoadsPlan& before = *drawn.faces.front().loads;
        RC_PRE(before.loads.size() > 1 && before.loads.size() < 20);
        const std::size_t which = *rc::gen::inRange<std::size_t>(0, before.loads.size());
        const Job cut = tick(job, drawn, "1/cut/" + before.loads[which].name, moment("2026-05-04T19:00"));
        const Plan after_plan = plan_of(cut);
        const LoadsPlan& after = *after_plan.faces.front().loads;
        RC_ASSERT(after.sections == before.sections);
        RC_ASSERT(after.seams == before.seams);
        RC_ASSERT(after.film_total == before.film_total);
        RC_ASSERT(after.misfits.empty());
        for (std::size_t i = 0; i < before.loads.size(); ++i) {
            const auto same = std::find_if(after.loads.begin(), after.loads.end(),
                                           [&](const Load& l) { return l.name == before.loads[i].name; });
            RC_ASSERT(same != after.loads.end());
            RC_ASSERT(same->cut == (i == which));
            RC_ASSERT(same->placements == before.loads[i].placements);
            RC_ASSERT(same->film_length == before.loads[i].film_length);
        }
    }));
}

TEST_CASE("the knife's way past few paths is near the shortest of all orders") {
    CHECK(rc::check([] {
        std::vector<Region> dots;
        const int n = *rc::gen::inRange(2, 7);
        for (int i = 0; i < n; ++i) {
            const double x = 1 + (i % 3) * 3 + *rc::gen::inRange(0, 20) / 10.0;
            const double y = 1 + (i / 3) * 3 + *rc::gen::inRange(0, 20) / 10.0;
            dots.push_back(square_in(x, y, 0.25));
        }
        const Region film = Region::rectangle(box_in(0, 0, 12, 12));
        const KnifeWay way = knife_way({{"dots", "1", 0, {film, merge(dots), {}}, {}, {}}}, {});
        const auto far = [](Point a, Point b) { return std::hypot(grid_to_mm(a.x - b.x), grid_to_mm(a.y - b.y)); };
        double found = 0;
        Point at{};
        std::vector<Point> middles;
        for (const KnifePath& path : way.paths) {
            found += far(at, path.points.front());
            at = path.points.back();
            if (path.of != CutOf::Ink) continue;
            Point middle{};
            for (std::size_t k = 0; k < 4; ++k) middle = middle + path.points[k];
            middles.push_back({middle.x / 4, middle.y / 4});
        }
        // In the end to the film's outline. From corner to corner no way is shorter than from middle to middle less a
        // diagonal for each dot.
        std::sort(middles.begin(), middles.end());
        double shortest = 1e18;
        do {
            double length = far({}, middles.front());
            for (std::size_t k = 1; k < middles.size(); ++k) length += far(middles[k - 1], middles[k]);
            double to_film = 1e18;
            for (const Point corner : film.rings().front()) to_film = std::min(to_film, far(middles.back(), corner));
            length += to_film;
            shortest = std::min(shortest, length);
        } while (std::next_permutation(middles.begin(), middles.end()));
        const double diagonal = 0.25 * 25.4 * std::sqrt(2.0);
        RC_ASSERT(found >= shortest - diagonal * n);
        RC_ASSERT(found <= 1.25 * shortest + diagonal * n);
    }));
}

TEST_CASE("whatever is cut first, the rest is planned around it, and all of it goes together") {
    CHECK(rc::check([] {
        Job job = any_panel();
        // Large enough for more than one load.
        Blank& b = job.signs.front().blank;
        b.length = measure_of(Length::sixtyfourths(*rc::gen::inRange(64 * 30, 64 * 70)), {Unit::Inch, 64});
        b.width = measure_of(Length::sixtyfourths(*rc::gen::inRange(64 * 8, 64 * 24)), {Unit::Inch, 64});
        making(job).bed = *rc::gen::element<std::string>("", "12-inch cutter / 12 × 12");
        const Shop shop = usual_shop();
        const auto planned = [&] { return plan(job, shop, library(), moment("2026-05-04T18:00")); };
        Plan p = planned();
        RC_PRE(p.mark_of("sections") != Mark::Stop && p.mark_of("lettering") != Mark::Stop);
        RC_PRE(p.faces.front().lettering->cap_height > 0.5_in);
        const std::size_t loads = p.faces.front().loads->loads.size();
        RC_PRE(loads > 1 && loads < 20);
        // One load after the other, in any order, each as it is planned by then.
        for (int n = *rc::gen::inRange(1, 4); n > 0; --n) {
            std::vector<std::string> left;
            for (const Load& l : p.faces.front().loads->loads) {
                if (!l.cut) left.push_back(l.name);
            }
            if (left.empty()) break;
            job = tick(job, p, "1/cut/" + left.at(*rc::gen::inRange<std::size_t>(0, left.size())),
                       moment("2026-05-04T19:00"));
            // Something else than what it was planned for, so that the rest is planned anew.
            if (*rc::gen::inRange(0, 2) == 0)
                making(job).bed =
                    *rc::gen::element<std::string>("12-inch cutter / 12 × 24", "12-inch cutter / 12 × 12");
            p = planned();
        }
        RC_LOG() << write_job(job) << "\n";
        const LoadsPlan& plan = *p.faces.front().loads;
        RC_ASSERT(plan.misfits.empty());
        // A letter divided both ways and cut in part is told, and left to the maker's eye.
        if (std::any_of(plan.problems.begin(), plan.problems.end(),
                        [](const Problem& q) { return q.what.id == "loads.cut-around"; }))
            return;
        RC_ASSERT(plan.problems.empty());
        for (const CutLoad& cut : job.bench.cut) {
            for (const Section& s : cut.sections)
                RC_ASSERT(std::find(plan.sections.begin(), plan.sections.end(), s) != plan.sections.end());
        }
        const Evidence e = prove(job, p, shop, files_of(job, p, shop), CutFormat::Svg);
        log_wrong(e);
        RC_ASSERT(e.good());
    }));
}
