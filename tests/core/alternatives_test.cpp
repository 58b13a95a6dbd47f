// Other ways to cut a colour: each is a job of its own that can be done.
#include "job/alternatives.h"
#include "proof/proof.h"

#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

TEST_CASE("alternatives are whole plans: taking one gives the figures it promised") {
    const Job job = porch_board();
    const Shop shop = usual_shop();
    const auto at = moment("2026-05-04T18:00");
    const CutFigures base = figures_of(plan_of(job), first_colour);
    const auto all = alternatives(job, first_colour, shop, library(), at);
    REQUIRE(all.size() >= 3);
    for (const Alternative& a : all) {
        INFO(library().catalogue.say(a.what, shop.display));
        CHECK(a.job != job);
        CHECK_FALSE(a.figures == base);
        const Plan p = plan(a.job, shop, library(), at);
        CHECK(figures_of(p, first_colour) == a.figures);
        CHECK(p.mark_of(Station::Sections) != Mark::Stop);
    }
    for (std::size_t i = 1; i < all.size(); ++i)
        CHECK(std::tuple(all[i - 1].figures.crossings, all[i - 1].figures.loads) <=
              std::tuple(all[i].figures.crossings, all[i].figures.loads));
    // A roll takes all three columns in one go, which the mat cannot.
    const bool one_load =
        std::any_of(all.begin(), all.end(), [&](const Alternative& a) { return a.figures.loads < base.loads; });
    CHECK(one_load);
    std::stop_source stopped;
    stopped.request_stop();
    CHECK(alternatives(job, first_colour, shop, library(), at, stopped.get_token()).empty());
}

TEST_CASE("letters are made smaller by the least that saves a load") {
    Job job = panel_job("OAR", "30", "14");
    Text& t = lettering(job);
    t.sizing = Sizing::Width;
    t.size = measure("24");  // with its margins too long for the mat, in one piece or in two
    making(job).margin = measure("3/4");
    const auto all = alternatives(job, first_colour, usual_shop(), library(), moment("2026-05-04T18:00"));
    const auto smaller =
        std::find_if(all.begin(), all.end(), [](const Alternative& a) { return a.what.id == "alternative.smaller"; });
    const Plan drawn = plan_of(job);
    REQUIRE(figures_of(drawn, first_colour).loads > 1);
    REQUIRE(smaller != all.end());
    CHECK(smaller->figures.loads < figures_of(drawn, first_colour).loads);
    const auto percent = std::get<std::int64_t>(smaller->what.arguments.front().second);
    CHECK(percent <= 12);
}

TEST_CASE("a letter is crossed where that saves a load, only beside the plan, and the crossed one goes together") {
    Job job = panel_job("HHH", "24", "12");
    lettering(job).sizing = Sizing::CapHeight;
    lettering(job).size = measure("8");
    making(job).way = Way::Decal;
    making(job).film = "permanent-gloss";
    making(job).bed = "12-inch cutter / 12 × 12";
    const Shop shop = usual_shop();
    const Plan now = plan_of(job);
    const CutFigures as_drawn = figures_of(now, first_colour);
    REQUIRE(as_drawn.loads == 3);  // no two of these letters go on one mat
    CHECK(as_drawn.crossings == 0);
    const auto all = alternatives(job, first_colour, shop, library(), moment("2026-05-04T18:00"));
    const auto crossed =
        std::find_if(all.begin(), all.end(), [](const Alternative& a) { return a.what.id == "alternative.cross"; });
    REQUIRE(crossed != all.end());
    CHECK(crossed->figures.loads == 2);
    CHECK(crossed->figures.crossings == 1);
    CHECK(crossed->figures.crossed > Length{});
    REQUIRE(crossed->plan);
    CHECK(*crossed->plan == plan_of(crossed->job));
    const FileSet files = files_of(crossed->job, *crossed->plan, shop);
    CHECK(prove(*crossed->plan, shop, files, CutFormat::Dxf).good());
}

TEST_CASE("what repeats is offered cut once, with what that costs in passes") {
    auto job = read_job(*read_file(std::filesystem::path(SKARVEL_SOURCE) / "demo/crew-height-ruler.skarvel"));
    REQUIRE(job);
    making(*job).wishes = {};
    const CutFigures as_drawn = figures_of(plan_of(*job), first_colour);
    const auto all = alternatives(*job, first_colour, usual_shop(), library(), moment("2026-05-04T18:00"));
    const auto once =
        std::find_if(all.begin(), all.end(), [](const Alternative& a) { return a.what.id == "alternative.again"; });
    REQUIRE(once != all.end());
    CHECK(once->figures.film < as_drawn.film);
    CHECK(once->figures.hands_on > as_drawn.hands_on);
}
