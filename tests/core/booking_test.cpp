// Film in the drawer: what loads take and leave, what has a direction, what is not enough; and cuts in the logbook.
#include "job/commands.h"
#include "job/summary.h"
#include "logbook/logbook.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

const Moment now = moment("2026-05-04T18:00");

FilmStock roll(Length left) { return {"removable-matt", "", "roll", 12_in, left, true, false, 5}; }

}  // namespace

TEST_CASE("a load that is cut takes its film from the drawer once, and leaves what is worth keeping") {
    Shop shop = usual_shop();
    shop.drawer = {roll(60_in)};
    Job job = porch_board();
    const Plan plan = skarvel::plan(job, shop, library(), now);
    const Load& load = plan.colours.front().cut.loads->loads.back();
    REQUIRE(load.rest);
    job = tick(job, plan, StepId{"1/cut/" + load.name}, now);
    REQUIRE(job.bench.cut.size() == 1);
    CHECK(job.bench.cut.front().rest == load.rest);
    CHECK(*read_job(write_job(job)) == job);
    const Booked once = book_film(job, shop, 0);
    REQUIRE(once.shop.drawer.size() == 2);
    CHECK(once.shop.drawer[0].left == 60_in - load.film_length);
    CHECK(once.shop.drawer[1].width == load.rest->across);
    CHECK(once.shop.drawer[1].left == load.rest->along);
    CHECK_FALSE(once.shop.drawer[1].roll);
    const Booked twice = book_film(once.job, once.shop, 0);
    CHECK(twice.shop == once.shop);
    // What it left is used first by the next small job.
    Job small = panel_job("OAR", "5", "4");
    making(small).film = "removable-matt";
    making(small).margin = measure("1/4");
    const Plan next = skarvel::plan(small, once.shop, library(), now);
    CHECK(next.colours.front().cut.loads->loads.front().from == once.shop.drawer[1].name);
}

TEST_CASE("film that is spoilt is lost, told, and taken from the drawer once") {
    Shop shop = usual_shop();
    shop.drawer = {roll(100_in)};
    Job job = porch_board();
    Plan plan = skarvel::plan(job, shop, library(), now);
    const Load& load = plan.colours.front().cut.loads->loads.front();
    job = tick(job, plan, StepId{"1/cut/" + load.name}, now);
    // A whole load, before its film was booked.
    const Job again = cut_again(job, 0);
    REQUIRE(again.bench.spoilt.size() == 1);
    CHECK(spoilt_film(again.bench) == load.film_length);
    const Booked lost = book_spoilt(again, shop, 0);
    CHECK(lost.shop.drawer.front().left == 100_in - load.film_length);
    CHECK(book_spoilt(lost.job, lost.shop, 0).shop == lost.shop);
    CHECK(*read_job(write_job(lost.job)) == lost.job);
    // One section of a load: its film is taken with the load, and what is lost is its own part.
    const auto& sections = job.bench.cut.front().sections;
    REQUIRE(sections.size() == 2);
    const Job one = cut_section_again(job, 0, 1);
    CHECK(spoilt_film(one.bench) > Length{});
    CHECK(spoilt_film(one.bench) < load.film_length);
    CHECK(book_spoilt(one, shop, 0).shop == shop);
    CHECK(book_film(one, shop, 0).shop.drawer.front().left == 100_in - load.film_length);
    // The logbook's record says it.
    CHECK(record_of(one, skarvel::plan(one, shop, library(), now), shop).film_length.ends_with("spoilt"));
    CHECK_FALSE(record_of(job, plan, shop).film_length.ends_with("spoilt"));
}

TEST_CASE("a roll too short is told, with how much to buy") {
    Shop shop = usual_shop();
    shop.drawer = {roll(20_in)};
    const Plan plan = skarvel::plan(porch_board(), shop, library(), now);
    const auto said = std::find_if(plan.problems.begin(), plan.problems.end(),
                                   [](const Problem& p) { return p.what.id == "film.short"; });
    REQUIRE(said != plan.problems.end());
    // What is left on it does for a short load; the longer ones are bought, each in one length.
    Length lacking, served;
    for (const Load& load : plan.colours.front().cut.loads->loads)
        (load.film_length > 20_in ? lacking : served) += load.film_length;
    CHECK(served <= 20_in);
    CHECK(std::get<Length>(said->remedy.arguments.front().second) == lacking);
    shop.drawer = {roll(20_in), roll(30_in)};
    const Plan enough = skarvel::plan(porch_board(), shop, library(), now);
    CHECK(std::none_of(enough.problems.begin(), enough.problems.end(),
                       [](const Problem& p) { return p.what.id == "film.short"; }));
}

TEST_CASE("on film with a direction no section of a decal is turned") {
    Shop shop = usual_shop();
    shop.drawer = {{"removable-matt", "", "striped", 12_in, 300_in, true, true, 0}};
    for (Job job : {porch_board(), long_board(), panel_job("SLIPWAY", "40", "9")}) {
        making(job).way = Way::Decal;  // a mask does not show its film
        making(job).film = "removable-matt";
        const Plan plan = skarvel::plan(job, shop, library(), now);
        const ColourPlan& face = plan.colours.front();
        REQUIRE_FALSE(face.cut.loads->loads.empty());
        for (const Load& load : face.cut.loads->loads) {
            for (const Placement& p : load.placements) {
                CHECK_FALSE(p.turned);
                const Box lies = box_on_mat(face.cut.loads->sections[p.section].film.bounds(), p);
                CHECK(lies.high.x <= to_grid(face.cut.bed.usable.across));
                CHECK(lies.high.y <= to_grid(face.cut.bed.usable.along));
            }
        }
    }
}

TEST_CASE("where it is asked for, a section longer than the mat lies on it at a slant") {
    Shop shop = usual_shop();
    Job job = panel_job("PLEASE RING THE BELL", "27", "6");
    lettering(job).sizing = Sizing::Width;
    lettering(job).size = measure("24");
    making(job).way = Way::Decal;
    making(job).film = "permanent-gloss";
    const Plan straight = skarvel::plan(job, shop, library(), now);
    REQUIRE(straight.colours.front().cut.loads->sections.size() > 1);
    making(job).wishes.any_angle = true;
    const Plan slanted = skarvel::plan(job, shop, library(), now);
    const LoadsPlan& loads = *slanted.colours.front().cut.loads;
    REQUIRE(loads.sections.size() == 1);
    const Placement& p = loads.loads.front().placements.front();
    CHECK(p.slant > 0);
    const LaidSection laid = lay_on_mat(loads.sections.front(), p);
    CHECK(laid.film.bounds().high.x <= to_grid(shop.mat.usable.across));
    CHECK(laid.film.bounds().high.y <= to_grid(shop.mat.usable.along));
    CHECK(laid.cut.area_mm2() == Approx(loads.sections.front().cut.area_mm2()).epsilon(1e-5));
}

TEST_CASE("cuts are written into the logbook, the newest first") {
    const Folder folder;
    auto book = Logbook::open(folder / "logbook.sqlite");
    REQUIRE(book);
    CHECK(book->cuts()->empty());
    const CutRecord test{0, "2026-05-04T18:00", "Porch board", "", "12-inch cutter", "stencil film", 70, 60, "good", 4};
    CutRecord load = test;
    load.what = "BOAT+HOUS";
    load.outcome = "not-through";
    REQUIRE(book->add_cut(test));
    REQUIRE(book->add_cut(load));
    const auto cuts = book->cuts();
    REQUIRE(cuts->size() == 2);
    load.id = 2;
    CHECK(cuts->front() == load);
    CHECK(book->all()->empty());
}

TEST_CASE("a roll of which the edges of its mat leave nothing is told, and a hair more is room for nothing as well") {
    Shop shop = usual_shop();
    shop.machines.clear();
    shop.mat.usable.across = 4.5_in;
    const auto told = [&](Length width) {
        shop.drawer = {roll(96_in)};
        shop.drawer.front().width = width;
        const Plan plan = skarvel::plan(porch_board(), shop, library(), now);
        CHECK(plan.colours.front().cut.loads->loads.empty());
        const auto line = summary(porch_board(), plan, 0).at(static_cast<std::size_t>(Station::Sections));
        CHECK(line.first.id == "ticket.cannot-be-cut");
        return std::count_if(plan.problems.begin(), plan.problems.end(), [](const Problem& p) {
            return p.what.id == "loads.no-room" && p.mark == Mark::Stop && p.what.arguments[1].second == Argument{6_in};
        });
    };
    CHECK(told(6_in) == 1);
    CHECK(told(7.50001_in) == 0);
}

TEST_CASE("a shop without a machine, or a bed that none takes, is told, and planned as usual all the same") {
    const auto said = [](const Plan& plan, const char* id) {
        return std::count_if(plan.problems.begin(), plan.problems.end(),
                             [&](const Problem& p) { return p.what.id == id && p.mark == Mark::Look; });
    };
    Shop shop = usual_shop();
    Job job = porch_board();
    const Plan usual = skarvel::plan(job, shop, library(), now);
    CHECK(said(usual, "loads.no-machine") + said(usual, "loads.no-bed") == 0);
    making(job).bed = "sold last year / 24 × 24";
    const Plan other = skarvel::plan(job, shop, library(), now);
    CHECK(said(other, "loads.no-bed") == 1);
    CHECK(other.colours.front().cut.loads->sections == usual.colours.front().cut.loads->sections);
    making(job).bed.clear();
    shop.machines.clear();
    const Plan none = skarvel::plan(job, shop, library(), now);
    CHECK(said(none, "loads.no-machine") == 1);
    CHECK_FALSE(none.colours.front().cut.loads->loads.empty());
}
