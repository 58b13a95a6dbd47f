// What comes again by a move, a turn or a mirror: found, cut once or a few times, laid again.
#include <rapidcheck.h>

#include "job/commands.h"
#include "job/wish_commands.h"
#include "loads/repeats.h"
#include "proof/proof.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

const ColourAt first{{0, 0}, 0};
constexpr Room usual_room{11.5_in, 23.5_in};

// A corner that is like none of its turns or mirrors: an L with a long and a short arm, and a dot beside it.
std::vector<Region> corner() {
    const std::vector<Region> arms{Region::rectangle(box_in(0, 0, 3, 0.5)), Region::rectangle(box_in(0, 0, 0.5, 1.5))};
    return {merge(arms), square_in(1, 1, 0.25)};
}

// Each motion applied to all of the shapes.
std::vector<Piece> laid(const std::vector<Region>& shapes, const std::vector<Motion>& motions) {
    std::vector<Piece> pieces;
    for (const Motion& m : motions) {
        for (const Region& shape : shapes)
            pieces.push_back({shape.laid(m), "corner", static_cast<int>(pieces.size()), false, 1000, true});
    }
    return pieces;
}

Motion by(double x, double y, int quarters = 0, bool over = false) { return {box_in(x, y, x, y).low, quarters, over}; }

// Every unit is the first one laid by its motion.
void check_units(const std::vector<Piece>& pieces, const Repeat& repeat) {
    REQUIRE(repeat.lays.size() == repeat.units.size());
    CHECK(repeat.lays.front() == Motion{});
    for (std::size_t k = 0; k < repeat.units.size(); ++k) {
        REQUIRE(repeat.units[k].size() == repeat.units.front().size());
        for (std::size_t i = 0; i < repeat.units[k].size(); ++i) {
            CHECK(pieces[repeat.units[k][i]].shape == pieces[repeat.units.front()[i]].shape.laid(repeat.lays[k]));
        }
    }
}

Job cornered(const char* film) {
    Job job = panel_job("TEA", "40", "30");
    job = add_art(job, {0, 0}, Corners{}, library().typefaces);
    lettering(job).sizing = Sizing::CapHeight;
    lettering(job).size = measure("3");
    making(job).film = film;
    making(job).margin = measure("3/4");
    return job;
}

const LoadsPlan& loads(const Plan& plan) { return *plan.colours.front().cut.loads; }

}  // namespace

TEST_CASE("motions put one after the other act as one, and can be undone") {
    const auto motion = [] {
        return Motion{{*rc::gen::inRange<std::int64_t>(-9'000, 9'000), *rc::gen::inRange<std::int64_t>(-9'000, 9'000)},
                      *rc::gen::inRange(0, 4),
                      *rc::gen::arbitrary<bool>()};
    };
    CHECK(rc::check([&] {
        const Motion a = motion();
        const Motion b = motion();
        const Point p{*rc::gen::inRange<std::int64_t>(-9'000, 9'000), *rc::gen::inRange<std::int64_t>(-9'000, 9'000)};
        RC_ASSERT((a * b)(p) == a(b(p)));
        RC_ASSERT((a * inverse(a)) == Motion{});
        RC_ASSERT((inverse(a) * a) == Motion{});
        const Region shape = corner().front();
        RC_ASSERT(shape.laid(b).laid(a) == shape.laid(a * b));
        RC_ASSERT(shape.laid(a).bounds() == a(shape.bounds()));
        RC_ASSERT(shape.laid(a).area_mm2() == Approx(shape.area_mm2()));
    }));
}

TEST_CASE("a corner that is turned comes again, and a mirrored one only where the film may be turned over") {
    // Turned by quarters about the middle of a square of 14 in.
    const auto turned = laid(corner(), {by(0, 0), by(14, 0, 1), by(14, 14, 2), by(0, 14, 3)});
    const auto four = repeat_in(turned, usual_room, 1_in);
    REQUIRE(four);
    check_units(turned, *four);
    CHECK(four->rest.empty());
    CHECK(std::none_of(four->lays.begin(), four->lays.end(), [](const Motion& m) { return m.over; }));

    // Mirrored from corner to corner of 40 x 30 in: half a turn brings the opposite one only.
    const auto mirrored = laid(corner(), {by(0, 0), by(40, 0, 0, true), by(0, 30, 2, true), by(40, 30, 2)});
    const auto sticky = repeat_in(mirrored, usual_room, 1_in);
    CHECK_FALSE(sticky);  // each pair of corners is too far apart for one load
    const auto sheet = repeat_in(mirrored, usual_room, 1_in, true);
    REQUIRE(sheet);
    check_units(mirrored, *sheet);
    CHECK(sheet->lays.size() == 4);
    CHECK(sheet->rest.empty());
    CHECK(std::count_if(sheet->lays.begin(), sheet->lays.end(), [](const Motion& m) { return m.over; }) == 2);

    // On a smaller board half of them go on one load, and are laid twice: fewer passes of paint.
    const auto near = laid(corner(), {by(0, 0), by(18, 0, 0, true), by(0, 9, 2, true), by(18, 9, 2)});
    const auto halves = repeat_in(near, usual_room, 1_in, true);
    REQUIRE(halves);
    check_units(near, *halves);
    CHECK(halves->lays.size() == 2);
}

TEST_CASE("parts of a drawing that differ by a rounding are the same, and more is not") {
    std::vector<Piece> parts;
    for (int i = 0; i < 5; ++i) {
        // Each corner rounded in its own place, by less than a step of a micrometre or by a tenth of a millimetre.
        std::vector<Ring> rings = square_in(0, 0, 1).moved(box_in(4 * i, 1, 4 * i, 1).low).rings();
        rings.front()[1] = rings.front()[1] + Point{i % 2 == 0 ? 6 : -6, i};
        parts.push_back({Region::from_rings(rings), "wave", i, false, 1000, true});
    }
    const auto repeat = repeat_in(parts, usual_room, 0.5_in);
    REQUIRE(repeat);
    CHECK(repeat->units.size() == 5);
    for (int i = 0; i < 5; ++i) {
        std::vector<Ring> rings = parts[static_cast<std::size_t>(i)].shape.rings();
        rings.front()[1] = rings.front()[1] + Point{800 * i, 0};
        parts[static_cast<std::size_t>(i)].shape = Region::from_rings(rings);
    }
    CHECK_FALSE(repeat_in(parts, usual_room, 0.5_in));
}

TEST_CASE("the corner of a border is cut once, laid four times, and gives the border") {
    Job job = cornered("reusable-sheet");
    const Plan drawn = plan_of(job);
    REQUIRE(loads(drawn).repeats == 4);
    // With film that sticks, a mirrored corner is another corner.
    const int without = loads(plan_of(cornered("removable-matt"))).repeats;
    CAPTURE(without);
    CHECK(without != loads(drawn).repeats);
    for (const int copies : {1, 2}) {
        CAPTURE(copies);
        wishes_of(job, first).copies = copies;
        const Plan plan = plan_of(job);
        CHECK(loads(plan).film_total < loads(drawn).film_total);
        std::size_t lays = 0;
        for (const Section& s : loads(plan).sections) {
            lays += s.again.size();
            CHECK((s.again.empty() || s.film.laid(s.again.back()).area_mm2() == Approx(s.film.area_mm2())));
        }
        CHECK(lays > 0);
        const Shop shop = usual_shop();
        for (const CutFormat format : {CutFormat::Svg, CutFormat::Dxf, CutFormat::Hpgl}) {
            const Evidence evidence = prove(plan, shop, files_of(job, plan, shop), format);
            for (const auto& problem : evidence.problems) WARN(problem.what.id);
            CHECK(evidence.good());
        }
        CHECK(*read_job(write_job(job)) == job);
        // Cut and kept, it is laid as before.
        const std::string step = "1/cut/" + loads(plan).loads.front().name;
        const Job cut = tick(job, plan, StepId{step}, moment("2026-05-04T19:00"));
        REQUIRE(cut.bench.cut.size() == 1);
        CHECK(*read_job(write_job(cut)) == cut);
        CHECK(prove(plan_of(cut), shop, files_of(cut, plan_of(cut), shop), CutFormat::Svg).good());
    }
}
