// Laying: distances by arithmetic of the test's own, hinge, tape, lifting, the order, and the fewest passes against
// every way there is.
#include "laying/laying.h"

#include <rapidcheck.h>

#include <cmath>
#include <numbers>
#include <set>

#include "job/face_commands.h"
#include "loads/passes.h"
#include "support_hinges.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

const LayingPlan& laying_of(const Plan& plan) { return *plan.colours.front().laying; }

// A plain level board of that size in inches, and sections on it as films.
LayingInput board(double length, double width, const std::vector<Box>& films) {
    LayingInput in;
    BlankPlan blank;
    blank.face = box_in(0, 0, length, width);
    blank.outline = Region::rectangle(blank.face);
    in.blank = Shared<BlankPlan>(blank);
    LoadsPlan loads;
    for (const Box& film : films) {
        Section s;
        s.film = Region::rectangle(film);
        s.letters = "A";
        loads.sections.push_back(s);
    }
    in.loads = Shared<LoadsPlan>(loads);
    return in;
}

std::vector<std::string> letters_in_order(const Job& job) {
    std::vector<std::string> letters;
    const Plan plan = plan_of(job);
    for (const Section& s : plan.colours.front().cut.loads->sections) letters.push_back(s.letters);
    return letters;
}

}  // namespace

TEST_CASE("a section of a straight board is measured from its nearest sides, to the tape's fraction") {
    // Lower left corner 3 1/3 in from the left, 1 1/2 from below; upper right 9 2/3 from the right, 2 1/2 from above.
    LayingInput in = board(30, 10, {box_in(10.0 / 3, 1.5, 30 - 29.0 / 3, 7.5)});
    const LayingPlan plan = lay_out(in, library().trade.laying);
    REQUIRE(plan.lays.size() == 1);
    const PlacedLay& l = plan.lays.front();
    CHECK(l.low.across.from == MeasuredFrom::Left);
    CHECK(l.low.up.from == MeasuredFrom::Bottom);
    CHECK(l.high.across.from == MeasuredFrom::Right);
    CHECK(l.high.up.from == MeasuredFrom::Top);
    CHECK(l.low.across.exact.in_inches() == Approx(10.0 / 3).margin(1e-5));
    CHECK(l.low.across.marked == 3.3125_in);  // 3 5/16 is the nearest sixteenth
    CHECK(l.low.up.marked == 1.5_in);
    CHECK(l.high.across.marked == 9.6875_in);
    CHECK(l.high.up.marked == 2.5_in);
    CHECK(l.off.in_inches() == Approx(10.0 / 3 - 3.3125).margin(1e-5));
    CHECK(l.turn_hundredths < 15);
    // In millimetres to the millimetre.
    in.fraction = 1_mm;
    CHECK(lay_out(in, library().trade.laying).lays.front().low.across.marked == 85_mm);
}

TEST_CASE("masks as wide as the board go by its sides, and are measured along it alone") {
    const Plan plan = plan_of(porch_board());
    const LayingPlan& laying = laying_of(plan);
    REQUIRE(laying.lays.size() == 3);
    for (const PlacedLay& l : laying.lays) {
        CHECK(l.on == Registers::Sides);
        CHECK_FALSE(l.across_counts);
        CHECK(distances_told(l).size() == 2);
    }
    CHECK(laying.lays[0].high.up.from == MeasuredFrom::Top);
    CHECK(laying.lays[0].high.up.exact.in_inches() == Approx(5 - 1).margin(0.01));  // the clear zone less the margin
    // The second meets the first one's marks at its upper end.
    REQUIRE(laying.lays[1].against == std::optional<std::size_t>(0));
    CHECK(laying.lays[1].at_edge == Edge::Top);
    // What fits the usual mat takes no hinge, but a slip sheet to slide it into place.
    CHECK_FALSE(laying.lays[1].hinge);
    CHECK(laying.lays[1].slip_sheet);
    const auto at_hand = [](const Plan& p) {
        const auto is = [](const Step& s) { return s.id == StepId{"1/lay/HOUS"}; };
        return std::find_if(p.bench->steps.begin(), p.bench->steps.end(), is)->at_hand.id;
    };
    CHECK(at_hand(plan) == "hand.lay-slip");
    // A shop that hinges earlier: the same sections, two of them with a hinge and its minutes.
    Shop careful = usual_shop();
    careful.hands.hinge_from = 20_in;
    Job as_before = porch_board();
    making(as_before).wishes.laid_soonest = false;
    const Plan hinged = skarvel::plan(as_before, careful, library(), moment("2026-05-04T18:00"));
    REQUIRE(laying_of(hinged).lays.size() == 3);
    CHECK(laying_of(hinged).lays[1].hinge);
    CHECK(at_hand(hinged) == "hand.lay-hinge");
    CHECK(hinged.clock->hands_on == plan.clock->hands_on + Minutes(14));
    // Lifted in reverse, across the grain: the grain runs up the board, so the pull is level.
    for (std::size_t i = 0; i < 3; ++i) {
        CHECK(laying.lays[i].lifted == 3 - static_cast<int>(i));
        CHECK(laying.lays[i].across_grain);
        CHECK(laying.lays[i].pull_from.y == laying.lays[i].pull_to.y);
        CHECK(laying.lays[i].pull_from.x != laying.lays[i].pull_to.x);
    }
}

TEST_CASE("a long film is hinged across its middle, where its tape lies over no ink") {
    Job job = longer_board();
    making(job).wishes.laid_soonest = false;
    const Plan plan = skarvel::plan(job, shop_of_long_mats(), library(), moment("2026-05-04T18:00"));
    const LayingPlan& laying = laying_of(plan);
    REQUIRE(laying.lays.size() == 3);
    // That half of it goes down first that meets the one before.
    REQUIRE(laying.lays[1].hinge);
    CHECK(laying.lays[1].hinge->half == Edge::Top);
    CHECK(laying.lays[1].two_people);
    const Section& section = plan.colours.front().cut.loads->sections[1];
    const Box film = section.film.bounds();
    const std::int64_t at = laying.lays[1].hinge->from.y;
    CHECK(at >= film.low.y + film.height() / 3 - 1);
    CHECK(at <= film.low.y + film.height() * 2 / 3 + 1);
    CHECK(crossed(section.cut, Axis::Y, at) == Length{});
    CHECK_FALSE(laying.lays[2].hinge);  // E alone is short
}

TEST_CASE("where no side runs straight or true, a snapped line is measured from") {
    Job round = panel_job("OAR", "20", "20");
    round.signs.front().blank.kind = Kind::Round;
    const Plan round_plan = plan_of(round);
    const PlacedLay& on_round = laying_of(round_plan).lays.front();
    CHECK(on_round.low.across.from == MeasuredFrom::UprightMiddle);
    CHECK(on_round.low.up.from == MeasuredFrom::LevelMiddle);
    CHECK(on_round.low.across.exact < Length{});
    CHECK(on_round.high.across.exact > Length{});
    CHECK(from_grid(on_round.low.at.x) - 10_in == on_round.low.across.exact);

    // 1/2 in narrower at the top: across it from the middle line, along it from the lower edge.
    Job leaning = panel_job("OAR", "40", "10");
    Blank& blank = leaning.signs.front().blank;
    blank.kind = Kind::Board;
    blank.stands = Stands::Upright;
    blank.tape.taken[static_cast<std::size_t>(Reading::Bottom)] = measure("10");
    blank.tape.taken[static_cast<std::size_t>(Reading::Top)] = measure("9 1/2");
    const Plan plan = plan_of(leaning);
    REQUIRE(plan.colours.front().face->blank->tape);
    REQUIRE(plan.colours.front().face->blank->tape->from_centre);
    const LayingPlan& laying = laying_of(plan);
    for (const PlacedLay& l : laying.lays) {
        CHECK(l.on == Registers::Corners);
        CHECK(l.low.across.from == MeasuredFrom::UprightMiddle);
        CHECK(l.high.across.from == MeasuredFrom::UprightMiddle);
        CHECK(l.low.up.from == MeasuredFrom::Bottom);
    }
    CHECK(std::any_of(laying.why.begin(), laying.why.end(),
                      [](const Reason& r) { return r.id == "laying.out-of-true"; }));
}

TEST_CASE("tender grounds ask for little tape; decals are not lifted; what repeats goes by its painted marks") {
    Job job = porch_board();
    const Plan tender = plan_of(job);
    CHECK(laying_of(tender).lays.front().close);  // chalk-type paint after its least wait
    finish_of(job).safe_waits = true;
    const Plan safe = plan_of(job);
    CHECK_FALSE(laying_of(safe).lays.front().close);
    CHECK(laying_of(safe).lays.front().tape == safe.colours.front().cut.loads->sections.front().film.bounds());

    const Plan decals = plan_of(long_board());
    for (const PlacedLay& l : laying_of(decals).lays) CHECK(l.lifted == 0);
    // The cut tape is never smaller than what it must hold, nor by more than the tape's fraction larger.
    for (const PlacedLay& l : laying_of(decals).lays) {
        CHECK(l.tape_across >= from_grid(l.tape.width()));
        CHECK(l.tape_across - from_grid(l.tape.width()) < 0.0625_in);
    }

    LayingInput again = board(40, 6, {box_in(1, 1, 5, 5)});
    LoadsPlan loads = *again.loads;
    loads.sections.front().again = {{at(10_in, {}), 0, false}};
    again.loads = Shared<LoadsPlan>(loads);
    const LayingPlan twice = lay_out(again, library().trade.laying);
    REQUIRE(twice.lays.size() == 2);
    CHECK(twice.lays[1].on == Registers::PaintedMark);
    CHECK(twice.lays[1].down.empty());  // the first lay has been lifted by then
    CHECK(twice.lays[1].low.across.marked == 11_in);
}

TEST_CASE("laying may begin elsewhere: sections and loads are the same, numbered another way") {
    Job job = porch_board();
    const std::vector<std::string> down = letters_in_order(job);
    REQUIRE(down == std::vector<std::string>{"BOAT", "HOUS", "E"});
    making(job).lay_from = LayFrom::Base;
    CHECK(letters_in_order(job) == std::vector<std::string>{"E", "HOUS", "BOAT"});
    making(job).lay_from = LayFrom::Centre;
    CHECK(letters_in_order(job).front() == "HOUS");
    making(job).lay_from = LayFrom::Outer;
    CHECK(letters_in_order(job).back() == "HOUS");
    const Plan outer = plan_of(job);
    CHECK(outer.colours.front().cut.loads->loads.size() == 2);
    CHECK(outer.colours.front().cut.loads->film_total == plan_of(porch_board()).colours.front().cut.loads->film_total);
    CHECK(*read_job(write_job(job)) == job);
}

TEST_CASE(
    "property: measured corners are where the film's corners are, and rounding moves and turns as little as told") {
    CHECK(rc::check([] {
        const auto inch = [](int least, int most) { return *rc::gen::inRange(least * 1000, most * 1000) / 1000.0; };
        const double length = inch(12, 60), width = inch(8, 30);
        const double x = inch(0, 4), y = inch(0, 3);
        const double w = inch(2, 7), h = inch(1, 4);
        LayingInput in = board(length, width, {box_in(x, y, x + w, y + h)});
        in.fraction = *rc::gen::element(0.0625_in, 0.03125_in, 0.015625_in, 1_mm);
        in.grain = *rc::gen::element(Grain::Length, Grain::Across, Grain::None);
        const LayingPlan plan = lay_out(in, library().trade.laying);
        RC_ASSERT(plan.lays.size() == 1U);
        const PlacedLay& l = plan.lays.front();
        const Box film = in.loads->sections.front().film.bounds();
        const auto place = [&](const MeasuredCorner& c, bool marked) {
            const auto one = [&](const Distance& d, std::int64_t side) {
                const double by = (marked ? d.marked : d.exact).in_mm();
                return d.from == MeasuredFrom::Right || d.from == MeasuredFrom::Top ? grid_to_mm(side) - by : by;
            };
            return std::pair(one(c.across, in.blank->face.high.x), one(c.up, in.blank->face.high.y));
        };
        for (const auto& [corner, at] : {std::pair(&l.low, film.low), std::pair(&l.high, film.high)}) {
            RC_ASSERT(std::abs(place(*corner, false).first - grid_to_mm(at.x)) < 1e-6);
            RC_ASSERT(std::abs(place(*corner, false).second - grid_to_mm(at.y)) < 1e-6);
            for (const Distance* d : {&corner->across, &corner->up}) {
                RC_ASSERT(d->marked.nm() % in.fraction.nm() == 0);
                RC_ASSERT(2 * std::abs((d->marked - d->exact).nm()) <= in.fraction.nm());
                RC_ASSERT(std::abs((d->marked - d->exact).nm()) <= l.off.nm());
            }
        }
        // The turn, from the directions of the two diagonals.
        const auto direction = [&](bool marked) {
            const auto a = place(l.low, marked), b = place(l.high, marked);
            return std::atan2(b.second - a.second, b.first - a.first);
        };
        const double turn = std::abs(direction(true) - direction(false)) * 18'000 / std::numbers::pi;
        RC_ASSERT(std::abs(turn - l.turn_hundredths) <= 0.5 + turn * 0.05);
        // Pulled off from corner to corner of the film, square to the grain.
        const bool level_pull = l.pull_from.y == l.pull_to.y;
        if (in.grain != Grain::None) RC_ASSERT(level_pull == ((in.grain == Grain::Length) != (length >= width)));
        for (const Point& p : {l.pull_from, l.pull_to})
            RC_ASSERT((p.x == film.low.x || p.x == film.high.x) && (p.y == film.low.y || p.y == film.high.y));
    }));
}

TEST_CASE("property: no fewer passes are to be had than are found, against every way there is") {
    CHECK(rc::check([] {
        const auto n = *rc::gen::inRange<std::size_t>(1, 6);
        std::vector<int> spans;
        for (std::size_t i = 0; i < n; ++i) spans.push_back(*rc::gen::element(1, 1, 1, 2));
        std::vector<Clash> clashes;
        for (std::size_t a = 0; a < n; ++a) {
            for (std::size_t b = a + 1; b < n; ++b) {
                // Each lay of one over each of the other, or none.
                if (!*rc::gen::arbitrary<bool>()) continue;
                for (int i = 0; i < spans[a]; ++i) {
                    for (int k = 0; k < spans[b]; ++k) clashes.push_back({a, b, i - k});
                }
            }
        }
        const auto allowed = [&](const std::vector<int>& of) {
            return std::none_of(clashes.begin(), clashes.end(),
                                [&](const Clash& c) { return of[c.b] - of[c.a] == c.later; });
        };
        const Passes found = fewest_passes(spans, clashes);
        RC_ASSERT(allowed(found.of));
        RC_ASSERT(found.proved);
        int fewest = 2 * static_cast<int>(n);
        std::vector<int> of(n, 1);
        for (bool more = true; more;) {
            if (allowed(of)) {
                int last = 0;
                for (std::size_t i = 0; i < n; ++i) last = std::max(last, of[i] + spans[i] - 1);
                fewest = std::min(fewest, last);
            }
            more = false;
            for (std::size_t i = 0; i < n && !more; ++i) {
                more = of[i] < 2 * static_cast<int>(n);
                of[i] = more ? of[i] + 1 : 1;
            }
        }
        RC_ASSERT(found.count == fewest);
    }));
}

TEST_CASE("three masks that each lie over another's ink are done in turn") {
    const Passes ring = fewest_passes({1, 1, 1}, {{0, 1, 0}, {1, 2, 0}, {2, 0, 0}});
    CHECK(ring.count == 3);
    CHECK(ring.proved);
    // Taken in their order these need three, begun at the right one two.
    const Passes path = fewest_passes({1, 1, 1, 1}, {{0, 2, 0}, {2, 3, 0}, {3, 1, 0}});
    CHECK(path.count == 2);
}
