#include <set>

#include "blank/blank.h"
#include "job/commands.h"
#include "job/summary.h"
#include "sheets/sheets.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

// One edit of the kinds that a maker makes, chosen at random.
void edit(Job& job, int kind, int amount) {
    static const char* const words[] = {"BOATHOUSE", "TEA", "SLIPWAY\nTEA ROOM", "O", "", "LOST OARS"};
    static const char* const films[] = {"removable-matt", "permanent-gloss", "stencil-smooth", "unheard of"};
    switch (kind) {
        case 0:
            lettering(job).words = words[amount % 6];
            break;
        case 1:
            lettering(job).letter_gap = measure_of(Length::sixtyfourths(8 + amount), {});
            break;
        case 2:
            job.signs.front().blank.length = measure_of(Length::inches(30 + amount), {});
            break;
        case 3:
            making(job).film = films[amount % 4];
            break;
        case 4:
            making(job).way = amount % 2 == 0 ? Way::Decal : Way::PaintThrough;
            break;
        case 5:
            if (place_of(face_of(job).layers, clear_coat) < face_of(job).layers.size()) turn_clear(job);
            break;
        case 6:
            lettering(job).arrangement = amount % 2 == 0 ? Arrangement::Level : Arrangement::Stack;
            break;
        case 7:
            job.signs.front().blank.stock = amount % 2 == 0 ? "1x8" : "1x6";
            break;
        case 8: {
            Blank& b = job.signs.front().blank;
            b.kind = static_cast<Kind>(amount % 7);
            b.width = measure("11");
            b.frame.kind = static_cast<FrameKind>(amount % 6);
            break;
        }
        case 9:
            job.signs.front().blank.tape.taken[static_cast<std::size_t>(amount % 7)] =
                measure_of(Length::sixtyfourths(640 + amount), {});
            break;
        case 10:
            job = amount % 3 == 0 ? remove_sign(job, 0) : set_on_post(copy_sign(job, 0, "TEA"));
            break;
        case 11:
            job = amount % 2 == 0 ? letter_back(job, 0) : bare_back(job, 0);
            break;
        default:
            job.bench.ticks[StepId{"1/sand"}] = moment("2026-05-04T19:00") + Minutes(amount);
    }
}

}  // namespace

TEST_CASE("any series of edits through one planner gives the plan of the last job") {
    CHECK(rc::check([] {
        Planner planner;
        Job job = porch_board();
        const Shop shop = usual_shop();
        Moment now = moment("2026-05-04T18:00");
        const auto edits = *rc::gen::inRange(1, 6);
        for (int i = 0; i < edits; ++i) {
            edit(job, *rc::gen::inRange(0, 13), *rc::gen::inRange(0, 20));
            now += Minutes(*rc::gen::inRange(0, 300));
            const auto stepwise = planner.plan(job, shop, library(), now);
            RC_ASSERT(stepwise.has_value());
            RC_ASSERT(*stepwise == plan(job, shop, library(), now));
        }
    }));
}

TEST_CASE("a new moment re-runs the clock alone, and a new paint leaves the sections alone") {
    Planner planner;
    Job job = porch_board();
    const Shop shop = usual_shop();
    const auto run_at = [&](const char* at) {
        const auto p = planner.plan(job, shop, library(), moment(at));
        return std::pair{planner.ran().size(), p->colours.front().cut.loads};
    };
    const auto [all, loads] = run_at("2026-05-04T18:00");
    CHECK(all == 15);
    CHECK(run_at("2026-05-04T18:00").first == 0);
    const auto [later, same_loads] = run_at("2026-05-04T18:20");
    CHECK(later <= 2);
    CHECK(same_loads == loads);
    job.signs.front().faces.front().colours.front().paint.colour = "#e9dcc0";
    const auto [painted, still] = run_at("2026-05-04T18:20");
    CHECK(still == loads);
    CHECK(painted < 5);
}

TEST_CASE("a run that is stopped leaves no trace") {
    Planner planner;
    std::stop_source stop;
    stop.request_stop();
    CHECK_FALSE(planner.plan(porch_board(), usual_shop(), library(), moment("2026-05-04T18:00"), stop.get_token()));
    CHECK(*planner.plan(porch_board(), usual_shop(), library(), moment("2026-05-04T18:00")) == plan_of(porch_board()));
}

TEST_CASE("it is told how far a plan has come, face by face") {
    Planner planner;
    std::vector<std::pair<std::size_t, std::size_t>> told;
    Job job = copy_sign(porch_board(), 0, "SLIP");
    (void)planner.plan(job, usual_shop(), library(), moment("2026-05-04T18:00"), {},
                       [&](std::size_t done, std::size_t of) { told.emplace_back(done, of); });
    CHECK(told == std::vector<std::pair<std::size_t, std::size_t>>{{1, 2}, {2, 2}});
}

TEST_CASE("the real width counts, the nominal one asks") {
    Blank b = porch_board().signs.front().blank;
    BlankPlan p = measure_up(b, library().trade.stock, library().trade.densities);
    CHECK(p.width == 5.5_in);
    CHECK(p.thickness == 0.75_in);
    CHECK(p.face == box_in(0, 0, 5.5, 60));
    CHECK(p.usable == box_in(0.375, 4, 5.125, 55));
    CHECK(p.problems.empty());
    b.width = measure("6");
    p = measure_up(b, library().trade.stock, library().trade.densities);
    CHECK(p.width == 6_in);
    REQUIRE(p.problems.size() == 1);
    CHECK(p.problems.front().what.id == "blank.nominal-typed");
}

TEST_CASE("what is wider than a stock size is called is not called that, nor sawn or bought as that") {
    Job job = porch_board();
    job.signs.front().blank.width = measure("11");
    const Plan p = plan_of(job);
    CHECK(std::any_of(p.problems.begin(), p.problems.end(),
                      [](const Problem& q) { return q.what.id == "blank.not-that-stock"; }));
    CHECK(library().catalogue.say(summary(job, p, 0)[0].first, {}).find("1×6") == std::string::npos);
    CHECK(p.saw.empty());
    for (const ShoppingItem& item : p.colours.front().shopping)
        CHECK(library().catalogue.say(item.what, {}).find("1×6") == std::string::npos);
    // Ripped to 4 in it is still from a 1x6, and swollen by an eighth it is one.
    for (const char* width : {"4", "5 5/8"}) {
        job.signs.front().blank.width = measure(width);
        CHECK(library().catalogue.say(summary(job, plan_of(job), 0)[0].first, {}).find("1×6") != std::string::npos);
    }
}

TEST_CASE("a blank that cannot be is said so at the blank, and later stations say nothing wrong") {
    const auto [change, id] = GENERATE(table<std::function<void(Blank&)>, std::string>({
        {[](Blank& b) { b.length = measure("0"); }, "blank.no-length"},
        {[](Blank& b) { b.stock.clear(); }, "blank.no-width"},
        {[](Blank& b) { b.stock = "1x77"; }, "blank.unknown-stock"},
        {[](Blank& b) { b.length = measure("60 ft"); }, "blank.very-long"},
        {[](Blank& b) { b.margin = measure("3"); }, "blank.no-room"},
        {[](Blank& b) { b.clear.front().depth = measure("58"); }, "blank.no-room"},
    }));
    Job job = porch_board();
    change(job.signs.front().blank);
    const Plan plan = plan_of(job);
    CHECK(std::any_of(plan.problems.begin(), plan.problems.end(),
                      [&](const Problem& p) { return p.what.id == id && p.where == Station::Blank; }));
    CHECK_FALSE(library().catalogue.say(plan.problems.front().what, {}).empty());
}

TEST_CASE("the proof lapses when the words change") {
    Job job = porch_board();
    job = tick(job, plan_of(job), StepId{"1/proof"}, moment("2026-05-04T18:31"));
    CHECK(plan_of(job).proof_signed);
    CHECK(plan_of(job).bench->done() == 1);
    lettering(job).words = "BOTHOUSE";
    const Plan plan = plan_of(job);
    CHECK_FALSE(plan.proof_signed);
    CHECK(plan.bench->done() == 0);
    CHECK(plan.problems.front().what.id == "proof.lapsed");
    lettering(job).words = "BOATHOUSE";
    CHECK(plan_of(job).proof_signed);
    CHECK_FALSE(plan_of(untick(job, StepId{"1/proof"})).proof_signed);
}

TEST_CASE("the ticket says each station in a line") {
    const Job job = porch_board();
    const auto lines = summary(job, plan_of(job), 0);
    const auto say = [&](Station s, bool second = false) {
        const StationLine& line = lines.at(static_cast<std::size_t>(s));
        return library().catalogue.say(second ? line.second : line.first, {});
    };
    CHECK(say(Station::Blank) == "60 in × 5 1/2 in, a 1×6");
    CHECK(say(Station::Blank, true) == "5 in, 4 in kept clear");
    CHECK(say(Station::Sections) == "3 in 2 loads");
    CHECK(say(Station::Method, true) == "5 keepers, all sound");
    CHECK(say(Station::Bench, true) == "none done");
}

TEST_CASE("the ticket names every kind of blank by its size") {
    const auto says = [](Kind kind, const char* length, const char* width) {
        Job job = panel_job("TEA", length, width);
        job.signs.front().blank.kind = kind;
        return library().catalogue.say(summary(job, plan_of(job), 0).front().first, {});
    };
    CHECK(says(Kind::Board, "30", "20") == "30 in × 20 in");
    CHECK(says(Kind::Panel, "30", "20") == "panel, 30 in × 20 in");
    CHECK(says(Kind::Canvas, "30", "20") == "canvas, 30 in × 20 in");
    CHECK(says(Kind::Field, "30", "20") == "field, 30 in × 20 in");
    CHECK(says(Kind::Arch, "30", "20") == "arch, 30 in × 20 in");
    CHECK(says(Kind::Round, "18", "18") == "18 in round");
    CHECK(says(Kind::Arrow, "30", "8") == "arrow, 32 3/4 in × 8 in");  // with its head
}

TEST_CASE("the ticket tells where there is nothing, and what was done") {
    Job job = porch_board();
    const auto second = [&](Station s) {
        return library().catalogue.say(summary(job, plan_of(job), 3).at(static_cast<std::size_t>(s)).second, {});
    };
    const auto first = [&](Station s) {
        return library().catalogue.say(summary(job, plan_of(job), 3).at(static_cast<std::size_t>(s)).first, {});
    };
    CHECK(first(Station::Logbook) == "not finished");
    CHECK(second(Station::Logbook) == "3 records");
    job = tick(job, plan_of(job), StepId{"1/sand"}, moment("2026-05-04T18:31"));
    CHECK(second(Station::Bench) == "1 done");
    job.deadline.reset();
    CHECK(first(Station::Clock).starts_with("ready "));
    CHECK(second(Station::Clock).ends_with("by hand"));
    job.deadline = moment("2026-05-30T12:00");
    CHECK(second(Station::Clock).starts_with("begun now, "));
    CHECK(second(Station::Clock).ends_with("to spare"));
    Job all_done = job;
    for (Plan now = plan_of(all_done); now.bench->next() != nullptr; now = plan_of(all_done))
        all_done = tick(all_done, now, now.bench->next()->id, moment("2026-05-08T20:00"));
    const auto over = summary(all_done, plan_of(all_done), 0).at(static_cast<std::size_t>(Station::Clock));
    CHECK(library().catalogue.say(over.first, {}) == "ready since Fri 8 May 20:00");
    CHECK(library().catalogue.say(over.second, {}) == "all work is done");
    // Words that have no place are there all the same.
    lettering(job).words = std::string(120, 'W');
    CHECK(first(Station::Lettering) == "the words do not fit");
    CHECK_FALSE(second(Station::Lettering).empty());
    lettering(job).words.clear();
    CHECK(first(Station::Lettering) == "no words yet");
    CHECK(first(Station::Sections) == "nothing to cut yet");
    CHECK(first(Station::Clock) == "nothing to plan yet");
    job.signs.front().blank.clear.clear();
    CHECK(second(Station::Blank) == "nothing kept clear");
}

TEST_CASE("an empty job plans to nothing, without a stop anywhere but at the words") {
    Job job = porch_board();
    lettering(job).words.clear();
    const Plan plan = plan_of(job);
    CHECK(plan.tasks->empty());
    CHECK(plan.bench->steps.empty());
    CHECK(plan.mark_of(Station::Lettering) == Mark::Stop);
    CHECK(plan.mark_of(Station::Sections) == Mark::None);
    CHECK_FALSE(sheets(job, plan, usual_shop(), library()).empty());
}

TEST_CASE("sheets: distances of two corners from the board's edges, at a stated scale") {
    const Job job = porch_board();
    const Plan plan = plan_of(job);
    const ColourPlan& face = plan.colours.front();
    for (const Section& s : face.cut.loads->sections) {
        const auto [low, high] = corners(s, face.face->blank->face);
        const Box film = s.film.bounds();
        CHECK(low.from_left + low.from_right == face.face->blank->width);
        CHECK(low.from_bottom == from_grid(film.low.y));
        CHECK(high.from_top == face.face->blank->length - from_grid(film.high.y));
    }
    const std::vector<Page> pages = sheets(job, plan, usual_shop(), library());
    std::set<std::string> titles;
    for (const Page& page : pages) {
        titles.insert(page.title);
        for (const auto& mark : page.marks) {
            if (const auto* text = std::get_if<TextRun>(&mark)) {
                CHECK(text->at.x >= 0);
                CHECK(text->at.x <= page.width_mm);
                CHECK(text->at.y <= page.height_mm);
            }
        }
    }
    CHECK(titles == std::set<std::string>{"Placement", "Loads", "What to buy", "Schedule", "Cautions", "Proof"});
    CHECK(scale_for(5.5_in, 60_in, 60, 220) == 8);
    CHECK(scale_for(1_in, 1_in, 100, 100) == 1);
}

TEST_CASE("nothing runs off a sheet, whatever the sign") {
    Job job = long_board();
    lettering(job).words = "A\nVERY\nLONG\nLIST\nOF\nSHORT\nLINES\nTHAT\nGO\nON\nAND\nON";
    for (const Paper paper : {Paper::A4, Paper::Letter}) {
        for (const Page& page : sheets(job, plan_of(job), usual_shop(), library(), paper)) {
            for (const auto& mark : page.marks) {
                if (const auto* text = std::get_if<TextRun>(&mark)) {
                    INFO(page.title << ": " << text->text);
                    CHECK(text->at.y <= page.height_mm);
                }
            }
        }
    }
}
