// What is printed says what is planned: every number on a sheet can be found in the plan.
#include <map>
#include <set>

#include "job/commands.h"
#include "sheets/page_text.h"
#include "sheets/sheets.h"
#include "support_blank.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

std::string text_of(const std::vector<Page>& pages, const std::string& title) {
    std::string all;
    for (const Page& page : pages) {
        if (page.title != title) continue;
        for (const auto& mark : page.marks) {
            if (const auto* run = std::get_if<TextRun>(&mark)) all += run->text + " ";
        }
    }
    return all;
}

bool says(const std::string& all, const std::string& words) {
    return all.find(with_fraction_slash(words)) != std::string::npos;
}

std::vector<Page> pages_of(const Job& job, const Shop& shop = usual_shop()) {
    return sheets(job, plan(job, shop, library(), moment("2026-05-04T18:00")), shop, library());
}

// The extent of everything filled on a page: the ink as it is drawn.
struct Drawn {
    double left = 1e9, top = 1e9, right = -1e9, bottom = -1e9;
};

Drawn drawn_ink(const Page& page) {
    Drawn d;
    for (const auto& mark : page.marks) {
        const auto* fill = std::get_if<Fill>(&mark);
        if (fill == nullptr) continue;
        for (const auto& ring : fill->rings) {
            for (const PagePoint& p : ring) {
                d = {std::min(d.left, p.x), std::min(d.top, p.y), std::max(d.right, p.x), std::max(d.bottom, p.y)};
            }
        }
    }
    return d;
}

}  // namespace

TEST_CASE("the placement sheet has the distances of every section, the centre line and the order") {
    const Job job = porch_board();
    const Plan plan = plan_of(job);
    const std::string text = text_of(pages_of(job), "Placement");
    for (const Section& s : plan.colours.front().cut.loads->sections) {
        const auto [low, high] = corners(s, plan.colours.front().face->blank->face);
        // As wide as the board: only along it is there anything to measure, to the sixteenth of an inch.
        const auto marked = [](Length l) {
            return show(Length::sixtyfourths(4) * std::llround(l.in_inches() * 16), {});
        };
        CHECK(low.from_left == Length{});
        CHECK(high.from_right == Length{});
        CHECK(says(text, "lower left: " + marked(low.from_bottom) + " from the lower edge"));
        CHECK(says(text, "upper right: " + marked(high.from_top) + " from the upper edge"));
        CHECK(says(text, s.letters));
    }
    CHECK(says(text, "Centre line at 2 3/4"));
    CHECK(says(text, "5 1/2 in"));
    CHECK(says(text, "60 in"));
    CHECK(says(text, "drawn 1:8"));
    CHECK(says(text, "Wipe paint off the edges"));
    CHECK(says(text, "lift in the reverse order"));
}

TEST_CASE("the ink on the placement sheet is drawn at the scale that is stated") {
    for (const Job& job : {porch_board(), long_board()}) {
        const Plan plan = plan_of(job);
        const std::vector<Page> pages = pages_of(job);
        const BlankPlan& blank = *plan.colours.front().face->blank;
        const std::string text = text_of(pages, "Placement");
        const std::size_t at = text.find("drawn 1:");
        REQUIRE(at != std::string::npos);
        const double scale = std::stod(text.substr(at + 8));
        const auto placement =
            std::find_if(pages.begin(), pages.end(), [](const Page& p) { return p.title.starts_with("Placement"); });
        REQUIRE(placement != pages.end());
        const Drawn d = drawn_ink(*placement);
        const Box ink = plan.colours.front().face->lettering->ink;
        CHECK(d.right - d.left == Approx(grid_to_mm(ink.width()) / scale).epsilon(1e-6));
        CHECK(d.bottom - d.top == Approx(grid_to_mm(ink.height()) / scale).epsilon(1e-6));
        CHECK(d.right < placement->width_mm);
        CHECK(blank.length.in_mm() / scale < placement->height_mm);
    }
}

TEST_CASE("loads, shopping, schedule and cautions carry the plan's figures") {
    Job job = porch_board();
    making(job).film = "permanent-gloss";  // something to caution about
    const Plan plan = plan_of(job);
    const std::vector<Page> pages = pages_of(job);
    const std::string loads = text_of(pages, "Loads");
    CHECK(says(loads, "Load 1"));
    CHECK(says(loads, "cut 24 in off the roll"));
    CHECK(says(loads, "Keepers: 5"));
    CHECK(says(loads, "leave in while weeding: B 2 (from"));
    const std::string shopping = text_of(pages, "What to buy");
    CHECK(says(shopping, "1×6 board"));
    CHECK(says(shopping, "permanent gloss vinyl"));
    CHECK(says(shopping, "30 in off a roll of 12 in"));
    const std::string schedule = text_of(pages, "Schedule");
    for (const Step& step : plan.bench->steps) {
        CHECK(says(schedule, library().catalogue.say(step.name, {})));
        CHECK(says(schedule, show_moment(step.start)));
    }
    CHECK(says(schedule, "chalk-type paint cures before film goes on it"));
    const std::string cautions = text_of(pages, "Cautions");
    CHECK(says(cautions, "Stop: permanent film as a mask pulls the coat off"));
    CHECK(says(cautions, "Sanding dust"));
    CHECK(says(cautions, "Labels, local codes and licensed trades"));
}

TEST_CASE("sheets are printed in the unit that is shown") {
    Shop shop = usual_shop();
    shop.display.unit = Unit::Millimetre;
    const std::string text = text_of(pages_of(porch_board(), shop), "Placement");
    CHECK(says(text, "139.7 mm"));
    CHECK(says(text, "1524 mm"));
    CHECK(says(text, "lower left: 826 mm from the lower edge"));
}

TEST_CASE("what is done and what is cut stands on the sheets") {
    Job job = porch_board();
    const Plan first = plan_of(job);
    job = tick(job, first, StepId{"1/cut/BOAT+HOUS"}, moment("2026-05-04T18:00"));
    const std::vector<Page> pages = pages_of(job);
    CHECK(says(text_of(pages, "Loads"), "Load 1, cut"));
    CHECK(says(text_of(pages, "Schedule"), "cut load 1  (done)"));
}

TEST_CASE("the proof shows every word large, with a line to sign") {
    Job job = porch_board();
    lettering(job).words = "LOST OARS\nÅSA & Søn";
    const std::vector<Page> pages = pages_of(job);
    const auto proof = std::find_if(pages.begin(), pages.end(), [](const Page& p) { return p.title == "Proof"; });
    REQUIRE(proof != pages.end());
    std::set<std::string> large;
    for (const auto& mark : proof->marks) {
        const auto* run = std::get_if<TextRun>(&mark);
        if (run != nullptr && run->size_mm >= 8) large.insert(run->text);
    }
    CHECK(large == std::set<std::string>{"LOST OARS", "ÅSA & Søn"});
    CHECK(says(text_of(pages, "Proof"), "read and right"));
}

TEST_CASE("the placement sheet is read standing: words of 11 points at least, distances of 14") {
    for (const bool decal : {false, true}) {
        Job job = porch_board();
        if (decal) making(job).way = Way::Decal;
        for (const Page& page : pages_of(job)) {
            if (!page.title.starts_with("Placement")) continue;
            for (const auto& mark : page.marks) {
                const auto* run = std::get_if<TextRun>(&mark);
                if (run == nullptr) continue;
                INFO(run->text);
                const bool distance = run->text.starts_with("lower left:") || run->text.starts_with("upper right:");
                CHECK(run->size_mm * 72 / 25.4 >= (distance ? 14 : 11));
            }
        }
    }
}

TEST_CASE("of forty signs nothing runs off a page, and none is left out") {
    Job job = porch_board();
    Sign& first = job.signs.front();
    first.blank = blank_of(Kind::Panel, "9", "5");
    first.blank.stands = Stands::Level;
    first.blank.frame.kind = FrameKind::Butt;
    first.blank.holding.way = Holds::Stake;
    first.faces.front().lettering.main().words = "TEA";
    first.faces.front().lettering.main().arrangement = Arrangement::Level;
    for (int i = 1; i < 40; ++i) {
        Sign sign = job.signs.front();
        make_new(job, sign);
        sign.faces.front().lettering.main().words = "QUAY " + std::to_string(i);
        // No two frames alike: each has rows of its own on the cut list.
        sign.blank.length = measure_of(9_in + Length::sixtyfourths(5 * i), {});
        job.signs.push_back(sign);
    }
    const std::vector<Page> pages = pages_of(job);
    const PageText widths(library());
    std::map<std::string, int> of_title;
    std::set<std::string> proof, cuts;
    for (const Page& page : pages) {
        ++of_title[page.title];
        for (const auto& mark : page.marks) {
            const auto* run = std::get_if<TextRun>(&mark);
            if (run == nullptr) continue;
            CHECK(run->at.y < page.height_mm - 5);
            const double wide = widths.width(run->text, run->size_mm, run->bold);
            const double left = run->align == Align::Left    ? run->at.x
                                : run->align == Align::Right ? run->at.x - wide
                                                             : run->at.x - wide / 2;
            INFO(page.title << ": " << run->text);
            CHECK(left > 0);
            CHECK(left + wide < page.width_mm);
            if (page.title.starts_with("Proof")) proof.insert(run->text);
            if (page.title.starts_with("Cut list")) cuts.insert(run->text.substr(0, run->text.find(':')));
        }
    }
    CHECK(of_title["Schedule, continued"] > 4);
    CHECK(of_title["Cut list, continued"] > 0);
    for (int i = 1; i < 40; ++i) {
        const std::string name = "QUAY " + std::to_string(i);
        CHECK(proof.contains(name));
        CHECK(cuts.contains("2 x " + name));
    }
}

TEST_CASE("an arch is marked out on a sheet that a maker can follow") {
    Job job = porch_board();
    Blank& b = job.signs.front().blank;
    b.kind = Kind::Arch;
    b.length = measure("84");
    b.width = measure("48");
    b.clear.clear();
    const std::string all = text_of(pages_of(job), "Marking out");
    CHECK(says(all, "Draw the springing line 60 in up from the bottom."));
    CHECK(says(all, "pin: 24 in from the left, 60 in from the bottom; string 24 in"));
    CHECK(says(all, "Weighs"));
    CHECK(text_of(pages_of(porch_board()), "Marking out").empty());  // a plain board needs none
}

TEST_CASE("a framed panel has its cut list, with every length and what is over") {
    Job job = porch_board();
    Blank& b = job.signs.front().blank;
    b.kind = Kind::Panel;
    b.length = measure("42");
    b.width = measure("16");
    b.stands = Stands::Level;
    b.clear.clear();
    b.frame.kind = FrameKind::Butt;
    const std::string all = text_of(pages_of(job), "Cut list");
    for (const char* words : {"16 in", "43 1/2 in", "From one board of 1×2; no plan uses fewer", "1/2 in over"}) {
        INFO(words << " in: " << all);
        CHECK(says(all, words));
    }
    b.frame.kind = FrameKind::Mitred;
    CHECK(says(text_of(pages_of(job), "Cut list"), "both ends at 45 degrees"));
}

TEST_CASE("sheets of several signs name the sign, its back, and the marks on the post") {
    Job job = set_on_post(letter_back(copy_sign(porch_board(), 0, "SLIPWAY"), 1));
    std::set<std::string> titles;
    for (const Page& page : pages_of(job)) titles.insert(page.title);
    for (const char* title :
         {"Placement, BOATHOUSE", "Placement, SLIPWAY", "Placement, SLIPWAY, back", "Loads, SLIPWAY"})
        CHECK(titles.contains(title));
    CHECK(says(text_of(pages_of(job), "Cut list"), "SLIPWAY: upper edge 62 in down from the top of the post"));
    job.signs.front().blank.material = "acrylic";
    job.signs.front().blank.from_behind = true;
    CHECK(says(text_of(pages_of(job), "Placement, BOATHOUSE"), "Seen from the back"));
}

TEST_CASE("the placement sheet has every lay of every section, on as many pages as that takes") {
    // Sixty feet of board: more sections than one page holds.
    Job job = long_board();
    job.signs.front().blank.length = measure("40 ft");
    job.signs.front().blank.stock.clear();
    job.signs.front().blank.kind = Kind::Panel;
    job.signs.front().blank.width = measure("48");
    const Plan plan = plan_of(job);
    const auto& sections = plan.colours.front().cut.loads->sections;
    REQUIRE(sections.size() > 20);
    const auto pages = pages_of(job);
    const std::string text = text_of(pages, "Placement") + text_of(pages, "Placement, continued");
    for (std::size_t i = 0; i < sections.size(); ++i)
        CHECK(says(text, std::to_string(i + 1) + "  " + sections[i].letters));

    const auto ruler = read_job(*read_file(std::filesystem::path(SKARVEL_SOURCE) / "demo/crew-height-ruler.skarvel"));
    REQUIRE(ruler);
    const auto again = pages_of(*ruler);
    const std::string lays = text_of(again, "Placement") + text_of(again, "Placement, continued");
    for (int lay = 2; lay <= 6; ++lay)
        CHECK(says(lays, "laid again (" + std::to_string(lay) + "), pass " + std::to_string(lay)));
    CHECK(says(lays, "dry before film goes over it"));
}

TEST_CASE("a load sheet says which end goes in first, and where a leftover lies") {
    Shop shop = usual_shop();
    shop.drawer = {{"removable-matt", "", "odd end", 7_in, 9_in, false, false, 0}};
    const auto text = text_of(pages_of(porch_board(), shop), "Loads");
    CHECK(says(text, "this end goes into the machine first"));
    CHECK(says(text, "from the drawer: odd end"));
    CHECK(says(text, "the thick line is where the leftover lies"));
}
