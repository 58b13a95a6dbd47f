#include "sections/too_large.h"
#include <rapidcheck/catch.h>
#include "loads/loads.h"
#include "proof/proof.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

bool is_remark(const Problem& p) {
    return p.what.id.starts_with("sections.too-large") || p.what.id == "sections.margin-too-wide";
}

std::vector<Problem> remarks(const Plan& plan) {
    std::vector<Problem> some;
    std::copy_if(plan.problems.begin(), plan.problems.end(), std::back_inserter(some), is_remark);
    return some;
}

std::string said(const Reason& reason) { return library().catalogue.say(reason, {}); }

}  // namespace

TEST_CASE("letters larger than the mat are named, with a bed of the shop that would hold them") {
    Job job = panel_job("EGGS", "72", "20");
    making(job).bed = "narrow cutter / 4 1/2 × 12";
    const auto small = remarks(plan_of(job));
    REQUIRE(small.size() == 1);
    CHECK(small.front().mark == Mark::Look);
    CHECK(said(small.front().what).starts_with("E, G, S: larger than one load holds"));
    // No bed of the shop is 20 in wide: then smaller letters are what is left.
    CHECK(small.front().remedy.id == "sections.whole-smaller");
    job.signs.front().blank.length = measure("40");
    const auto less = remarks(plan_of(job));
    REQUIRE(less.size() == 1);
    CHECK(less.front().remedy.id == "sections.whole-on");
    CHECK(said(less.front().remedy) == "the roll in the 16-inch cutter keeps it whole");
    making(job).bed = "16-inch cutter / roll";
    CHECK(remarks(plan_of(job)).empty());
}

TEST_CASE("a margin larger than the mat is told, with the widest one that needs no film in parts") {
    Job job = panel_job("EGGS", "30", "14");
    making(job).bed = "12-inch cutter / 12 × 12";
    making(job).margin = measure("13");
    const Plan wide = plan_of(job);
    REQUIRE(remarks(wide).size() == 1);
    CHECK(remarks(wide).front().what.id == "sections.margin-too-wide");
    CHECK(wide.colours.front().cut.loads->crossings == 0);
    for (const Seam& seam : wide.colours.front().cut.loads->seams) CHECK(seam.why.id != "seam.crosses");
    const auto most = std::get<Length>(remarks(wide).front().remedy.arguments.front().second);
    making(job).margin = Measure{"", most};
    CHECK(remarks(plan_of(job)).empty());
    making(job).margin = Measure{"", most + 0.125_in};
    CHECK_FALSE(remarks(plan_of(job)).empty());
}

TEST_CASE("margins, laps and ties below nothing count as none, and a mask without its margin stops") {
    Job job = panel_job("JAM");
    making(job).margin = measure("-2");
    making(job).lap = measure("-1/8");
    making(job).tie = measure("-1");
    const Plan plan = plan_of(job);
    CHECK(plan.mark_of(Station::Method) == Mark::Stop);
    making(job).lap = measure("0");
    making(job).margin = making(job).tie = measure("0");
    const Plan none = plan_of(job);
    CHECK(plan.colours.front().cut.loads->sections == none.colours.front().cut.loads->sections);
    CHECK(prove(plan, usual_shop(), files_of(job, plan, usual_shop()), CutFormat::Svg).good());
}

TEST_CASE("where the maker wants a seam across ink, nothing is too large") {
    Job job = panel_job("EGGS", "30", "14");
    making(job).wishes.seams = {{false, Axis::X, measure("4"), {}, {}, {}}};
    const Plan plan = plan_of(job);
    CHECK(plan.colours.front().cut.loads->crossings == 1);
    CHECK(remarks(plan).empty());
}

TEST_CASE("what is told to help keeps every piece whole, and nothing is told where all are") {
    rc::prop("of random pieces, margins and beds", [] {
        const auto length = [](int low, int high) { return 0.25_in * *rc::gen::inRange(low, high); };
        std::vector<Piece> pieces;
        double left = 1;
        for (int i = *rc::gen::inRange(1, 4); i > 0; --i) {
            const double size = length(4, 60).in_inches();
            pieces.push_back({square_in(left, 2, size), std::string(1, static_cast<char>('A' + i)), i, false, 0});
            left += size + length(1, 12).in_inches();
        }
        const Box face = box_in(0, 0, left + 1, 20);
        MakingPlan making;
        making.way = *rc::gen::arbitrary<bool>() ? Way::PaintThrough : Way::Decal;
        making.margin = length(1, 24);
        making.lap = 0.125_in;
        making.edges_place = false;
        const auto planned = [&](const Room& room) {
            return plan_loads(pieces, face, {"a mat", room.across, room.along, room}, making, {});
        };
        const Room room{length(12, 60), length(12, 60)};
        const std::vector<OtherBed> others{{"small", "one", {length(12, 40), length(12, 40)}},
                                           {"large", "two", {length(40, 90), length(40, 90)}}};
        const auto parted = [](const LoadsPlan& plan) {
            return std::any_of(plan.seams.begin(), plan.seams.end(),
                               [](const Seam& s) { return s.why.id == "seam.crosses" || s.why.id == "seam.within"; });
        };
        const LoadsPlan plan = planned(room);
        const auto told = too_large(plan.seams, pieces, face, room, making, others);
        RC_ASSERT(parted(plan) == !told.empty());
        RC_ASSERT(told.size() <= 2);
        for (const Section& s : plan.sections) {
            // Of a decal only what carries ink is cut, with no more film than its margin.
            if (making.way == Way::PaintThrough) break;
            RC_ASSERT(!s.pieces.empty());
            RC_ASSERT(grown(s.cut.bounds(), making.margin).holds(s.film.bounds()));
        }
        for (const Problem& p : told) {
            if (told.size() > 1) break;  // each for its own pieces
            const auto& id = p.remedy.id;
            if (id == "sections.whole-on" || id == "sections.smaller-margin-or-bed") {
                const bool large =
                    p.remedy.arguments.back().second ==
                    Argument(std::vector<Reason>{
                        {"sections.on-bed", {{"bed", std::string("large")}, {"machine", std::string("two")}}}});
                RC_ASSERT(!parted(planned(others[large ? 1 : 0].room)));
            } else if (id != "sections.smaller-margin") {
                const auto across = std::get<Length>(p.remedy.arguments[0].second);
                const auto along = std::get<Length>(p.remedy.arguments[1].second);
                for (const OtherBed& other : others) {
                    const auto [low, high] = std::minmax(other.room.across, other.room.along);
                    RC_ASSERT(std::min(across, along) > low || std::max(across, along) > high);
                }
            }
            if (id.starts_with("sections.smaller-margin")) {
                making.margin = std::get<Length>(p.remedy.arguments.front().second);
                RC_ASSERT(!parted(planned(room)));
            } else if (id == "sections.whole-smaller") {
                const double share = std::get<Percent>(p.remedy.arguments.back().second).of_one;
                for (Piece& piece : pieces) {
                    const Box box = piece.shape.bounds();
                    const double size = inches(box.width()) * share;
                    piece.shape = square_in(inches(box.low.x + box.high.x) / 2 - size / 2,
                                            inches(box.low.y + box.high.y) / 2 - size / 2, size - 1e-4);
                }
                RC_ASSERT(!parted(planned(room)));
            }
        }
    });
}
