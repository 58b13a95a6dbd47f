// Other ways to cut a colour: each is a job of its own that can be done.
#include "job/alternatives.h"
#include "proof/proof.h"

#include "support_hinges.h"

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

TEST_CASE("films so short that none takes a hinge come first; the least film is told beside them") {
    const Job job = longer_board();
    const Shop shop = shop_of_long_mats();
    const auto at = moment("2026-05-04T18:00");
    const CutFigures base = figures_of(plan(job, shop, library(), at), first_colour);
    const auto all = alternatives(job, first_colour, shop, library(), at);
    const auto found =
        std::find_if(all.begin(), all.end(), [](const Alternative& a) { return a.what.id == "alternative.less-film"; });
    REQUIRE(found != all.end());
    CHECK(found->figures.hands_on > base.hands_on);
    CHECK(found->figures.film < base.film);
    // Letters of a stack stand alone: no word of theirs is parted.
    CHECK(std::none_of(all.begin(), all.end(),
                       [](const Alternative& a) { return a.what.id == "alternative.words-parted"; }));
    // On the usual mat no film is so long.
    const auto usual = alternatives(porch_board(), first_colour, usual_shop(), library(), at);
    CHECK(std::none_of(usual.begin(), usual.end(),
                       [](const Alternative& a) { return a.what.id == "alternative.less-film"; }));
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
    Plan then = plan_of(crossed->job);
    REQUIRE(then.colours.front().cut.without_wishes);
    CHECK(then.colours.front().cut.without_wishes->loads == 3);
    then.colours.front().cut.without_wishes.reset();  // what is only tried does without
    CHECK(*crossed->plan == then);
    const FileSet files = files_of(crossed->job, *crossed->plan, shop);
    CHECK(prove(*crossed->plan, shop, files, CutFormat::Dxf).good());
}

TEST_CASE(
    "another film is offered where it lies in the drawer and the one wanted does not, with what speaks against it") {
    Job job = panel_job("OAR", "20", "8");
    making(job).way = Way::Decal;
    making(job).film = "permanent-gloss";
    Shop shop = usual_shop();
    const auto offers = [&] {
        std::vector<Alternative> out;
        for (Alternative& a : alternatives(job, first_colour, shop, library(), moment("2026-05-04T18:00"))) {
            if (a.what.id.starts_with("alternative.film-at-hand")) out.push_back(std::move(a));
        }
        return out;
    };
    shop.drawer = {{"removable-matt", "", "matt, white", 12_in, 200_in}, {"permanent-gloss", "", "gloss", 12_in, 2_in}};
    const auto found = offers();
    REQUIRE(found.size() == 1);
    CHECK(found.front().figures.to_buy == Length{});
    Job taken = found.front().job;
    CHECK(making(taken).film == "removable-matt");
    CHECK(figures_of(plan(job, shop, library(), moment("2026-05-04T18:00")), first_colour).to_buy > Length{});
    // Enough of it, and there is nothing to offer; nor is a film offered of which there is too little.
    shop.drawer[1].left = 200_in;
    CHECK(offers().empty());
    shop.drawer[1].left = 2_in;
    shop.drawer[0].left = 2_in;
    CHECK(offers().empty());
}

TEST_CASE("a size is offered that saves a crossing, though it saves no load") {
    Job job = panel_job("MOW", "40", "24");
    lettering(job).sizing = Sizing::CapHeight;
    lettering(job).size = measure("12 1/4");  // the widest letter is a little larger than the mat both ways
    making(job).way = Way::Decal;
    making(job).film = "permanent-gloss";
    const CutFigures base = figures_of(plan_of(job), first_colour);
    REQUIRE(base.crossings > 0);
    const auto all = alternatives(job, first_colour, usual_shop(), library(), moment("2026-05-04T18:00"));
    CHECK(std::any_of(all.begin(), all.end(), [&](const Alternative& a) {
        return a.what.id == "alternative.smaller" && a.figures.crossings < base.crossings &&
               a.figures.loads <= base.loads;
    }));
}

TEST_CASE("one line of a text is offered smaller alone, where that is enough, and its neighbours stay as they are") {
    Job job = panel_job("TEA\nAFTERNOON\nCAKE", "40", "20");
    Text& t = lettering(job);
    t.arrangement = Arrangement::Level;
    t.sizing = Sizing::CapHeight;
    t.size = measure("3");  // the long line is a little longer than the mat
    making(job).way = Way::Decal;
    making(job).film = "permanent-gloss";
    const auto split = split_off_line(job, {}, 0, 1);
    REQUIRE(split.signs[0].faces[0].lettering.texts.size() == 3);
    // Only taken apart, every letter stands where it stood.
    const auto before = plan_of(job).colours.front().face->lettering;
    const auto after = plan_of(split).colours.front().face->lettering;
    REQUIRE(before->letters.size() == after->letters.size());
    for (std::size_t i = 0; i < before->letters.size(); ++i)
        CHECK(before->letters[i].ink.bounds() == after->letters[i].ink.bounds());
    const CutFigures base = figures_of(plan_of(job), first_colour);
    const auto all = alternatives(job, first_colour, usual_shop(), library(), moment("2026-05-04T18:00"));
    const auto one = std::find_if(all.begin(), all.end(),
                                  [](const Alternative& a) { return a.what.id == "alternative.smaller-line"; });
    REQUIRE(one != all.end());
    CHECK(base.words == 1);
    CHECK(one->figures.words == 0);
    CHECK(one->figures.loads <= base.loads);
    const auto& texts = one->plan->colours.front().face->lettering->texts;
    REQUIRE(texts.size() == 3);
    CHECK(texts[0].cap_height == texts[2].cap_height);
    CHECK(texts[1].cap_height < texts[0].cap_height);
    // A text that hangs, or has one line, is left whole.
    Job hung = job;
    lettering(hung).up = Hang{};
    CHECK(split_off_line(hung, {}, 0, 1) == hung);
    CHECK(split_off_line(job, {}, 0, 3) == job);
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
