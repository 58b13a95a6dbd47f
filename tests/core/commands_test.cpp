// Commands on a face and on the bench, in any order, with what is there and what is not: nothing is lost, the file
// keeps all of it, and one planner that follows along knows what a fresh one finds.
#include "job/commands.h"

#include "job/face_commands.h"
#include "job/wish_commands.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

// A place in a list, or just past its end.
std::size_t any_of_them(std::size_t count) { return *rc::gen::inRange<std::size_t>(0, count + 2); }

ArtKind any_art() {
    switch (*rc::gen::inRange(0, 6)) {
        case 0:
            return Border{};
        case 1:
            return Corners{};
        case 2:
            return RuledLine{};
        case 3:
            return Banner{};
        case 4:
            return Figure{};
        default:
            return HeightRuler{};
    }
}

Job after_any_command(const Job& job, const Plan& plan) {
    const FaceAt at{any_of_them(job.signs.size() - 1), any_of_them(0)};
    const bool there = at.sign < job.signs.size() && at.face < job.signs[at.sign].faces.size();
    const Face& face = there ? job.signs[at.sign].faces[at.face] : job.signs.front().faces.front();
    const ColourPlan& known = there ? *plan.of(face.id) : plan.colours.front();
    const std::vector<PlacedThing> things = things_on(face, known);
    const ThingId id = things.empty() || *rc::gen::inRange(0, 8) == 0
                           ? ThingId{"nothing"}
                           : things[*rc::gen::inRange<std::size_t>(0, things.size())].id;
    const Length by = Length::sixtyfourths(*rc::gen::inRange(-64, 65));
    const Display inches{Unit::Inch, 16};
    switch (*rc::gen::inRange(0, 18)) {
        case 0:
            return add_text(job, at);
        case 1:
            return remove_text(job, at, any_of_them(face.lettering.texts.size()), &known);
        case 2:
            return add_art(job, at, any_art(), library().typefaces);
        case 3:
            return remove_art(job, at, any_of_them(face.art.size()));
        case 4:
            return raise_art(job, at, any_of_them(face.art.size()), *rc::gen::arbitrary<bool>());
        case 5:
            return add_colour(job, at);
        case 6:
            return remove_colour(job, at, any_of_them(face.colours.size()));
        case 7:
            return lay_earlier(job, at, any_of_them(face.colours.size()));
        case 8:
            return nudge_thing(job, at, known, id, by, by, inches);
        case 9:
            return nudge_letter(job, at, any_of_them(face.lettering.texts.size()), *rc::gen::inRange(-1, 12), by, by);
        case 10:
            return spread_things(job, at, known, *rc::gen::element(Axis::X, Axis::Y), inches);
        case 11:
            return hang_thing(job, at, id, Hang{}, std::nullopt);
        case 12:
            return unhang_thing(job, at, id);
        case 13:
            return copy_sign(job, at.sign, "Low tide");
        case 14:
            return remove_sign(job, at.sign);
        case 15: {
            if (plan.tasks->empty()) return job;
            const std::size_t task = any_of_them(plan.tasks->size());
            return tick(job, plan, task < plan.tasks->size() ? (*plan.tasks)[task].id : StepId{"1/no-such-step"},
                        moment("2026-05-04T19:00"));
        }
        case 16:
            return cut_section_again(job, any_of_them(job.bench.cut.size()), any_of_them(2));
        default:
            return cut_letter_again(job, any_of_them(job.bench.cut.size()), any_of_them(2), any_of_them(4));
    }
}

}  // namespace

TEST_CASE("any commands, with what is there and what is not: the file keeps the job, and its plan is whole") {
    CHECK(rc::check([] {
        Job job = *rc::gen::element(porch_board(), long_board(), panel_job("TEA ROOM"));
        const Shop shop = usual_shop();
        const Moment now = moment("2026-05-04T18:00");
        Planner planner;
        Plan plan = *planner.plan(job, shop, library(), now);
        for (int n = *rc::gen::inRange(1, 8); n > 0; --n) {
            const Job before = job;
            job = after_any_command(before, plan);
            RC_ASSERT(!job.signs.empty());
            for (const Sign& sign : job.signs) {
                RC_ASSERT(!sign.faces.empty());
                for (const Face& face : sign.faces) {
                    RC_ASSERT(!face.lettering.texts.empty());
                    RC_ASSERT(!face.colours.empty());
                    // Nothing is in a colour that is not there.
                    for (const Art& art : face.art) RC_ASSERT(find_colour(face, art.colour) != nullptr);
                    for (const Text& text : face.lettering.texts) RC_ASSERT(find_colour(face, text.colour) != nullptr);
                }
            }
            const auto back = read_job(write_job(job));
            if (!back) RC_LOG() << back.error().what.id << " at " << back.error().where.place << "\n" << write_job(job);
            RC_ASSERT(back.has_value());
            RC_ASSERT(*back == job);
            plan = *planner.plan(job, shop, library(), now);
        }
        RC_ASSERT(plan == skarvel::plan(job, shop, library(), now));
    }));
}

TEST_CASE("art comes nearer to the front and goes back, and the ends of the row stay where they are") {
    Job job = porch_board();
    for (const ArtKind& kind : {ArtKind(Border{}), ArtKind(Figure{}), ArtKind(Banner{})})
        job = add_art(job, {}, kind, library().typefaces);
    const auto order = [](const Job& j) {
        std::string kinds;
        for (const Art& a : j.signs.front().faces.front().art) kinds += kind_of(a)[0];
        return kinds;
    };
    CHECK(order(job) == "bfr");
    CHECK(order(raise_art(job, {}, 0, true)) == "fbr");
    CHECK(raise_art(raise_art(job, {}, 0, true), {}, 1, false) == job);
    CHECK(raise_art(job, {}, 0, false) == job);
    CHECK(raise_art(job, {}, 2, true) == job);
    CHECK(order(remove_art(job, {}, 1)) == "br");
    // What is locked is neither nudged nor hung elsewhere.
    job.signs.front().faces.front().art[1].locked = true;
    const ThingId id = job.signs.front().faces.front().art[1].id;
    const Plan plan = plan_of(job);
    CHECK(is_locked(job.signs.front().faces.front(), id));
    CHECK(nudge_thing(job, {}, plan.colours.front(), id, 1_in, 1_in, {Unit::Inch, 16}) == job);
}

TEST_CASE("one letter is nudged from where it would stand, and put back") {
    Job job = panel_job("OAR");
    lettering(job).sizing = Sizing::CapHeight;
    lettering(job).size = measure("4");
    const Job nudged = nudge_letter(job, {}, 0, 1, 0.25_in, 0.5_in);
    // From the first letter: the text as a whole stays in the middle.
    const auto from_first = [](const Job& j, std::size_t i) {
        const Plan p = plan_of(j);
        const auto& pieces = *p.colours.front().cut.pieces;
        return pieces[i].shape.bounds().low - pieces[0].shape.bounds().low;
    };
    CHECK(from_first(nudged, 1) - from_first(job, 1) == at(0.25_in, 0.5_in));
    CHECK(from_first(nudged, 2) == from_first(job, 2));
    CHECK(from_first(nudge_letter(nudged, {}, 0, 1, -0.25_in, -0.5_in), 1) == from_first(job, 1));
}
