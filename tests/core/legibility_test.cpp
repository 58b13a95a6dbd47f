// What is said about reading, and what generated art comes to in a whole plan.
#include "lettering/legibility.h"

#include <set>

#include "job/commands.h"
#include "job/face_commands.h"
#include "job/summary.h"
#include "rapidcheck.h"
#include "support.h"
#include "support_blank.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

Job read_from(const char* words, const char* cap, const char* distance) {
    Job job = porch_board();
    job.signs.front().blank = blank_of(Kind::Panel, "60", "24");
    job.signs.front().blank.stands = Stands::Level;
    Text& t = lettering(job);
    t.words = words;
    t.arrangement = Arrangement::Level;
    t.letter_gap = measure("1/4");
    t.sizing = Sizing::CapHeight;
    t.size = measure(cap);
    job.signs.front().faces.front().seen.distance = measure(distance);
    return job;
}

std::set<std::string> said(const Job& job) {
    std::set<std::string> ids;
    const auto reading = plan_of(job).colours.front().face->reading;
    for (const Verdict& v : reading->verdicts) {
        ids.insert(v.why.id);
        CHECK_FALSE(library().catalogue.say(v.why, {}).empty());
        CHECK_FALSE(v.basis.empty());
    }
    return ids;
}

}  // namespace

TEST_CASE("letters are judged by how far away they are read, in words and never a refusal") {
    CHECK(said(read_from("SLIPWAY", "3", "20 ft")).contains("reading.comfortable"));
    CHECK(said(read_from("SLIPWAY", "3", "50 ft")).contains("reading.at-most"));
    const Job far = read_from("SLIPWAY", "3", "200 ft");
    CHECK(said(far).contains("reading.too-far"));
    CHECK(plan_of(far).mark_of(Station::Lettering) != Mark::Stop);
    const Verdict poorest = plan_of(far).colours.front().face->reading->verdicts.front();
    CHECK(poorest.says == Verdict::Says::Poor);
    CHECK(library().catalogue.say(poorest.why, {}).find("200 ft") != std::string::npos);
    CHECK(library().catalogue.say(poorest.why, {Unit::Millimetre, 2}).find(" m") != std::string::npos);
}

TEST_CASE("the smallest text is the one that is judged") {
    Job job = read_from("SLIPWAY", "6", "20 ft");
    job = add_text(job, {0, 0});
    Text& small = job.signs.front().faces.front().lettering.texts[1];
    small.words = "this way";
    small.sizing = Sizing::CapHeight;
    small.size = measure("1/2");
    CHECK(plan_of(job).colours.front().face->reading->smallest == 0.5_in);
    CHECK(said(job).contains("reading.too-far"));
}

TEST_CASE("narrow typefaces, scripts, tight letters and close lines are named") {
    Job job = read_from("SLIPWAY\nTEA ROOM", "3", "20 ft");
    lettering(job).line_gap = measure("1/4");
    CHECK(said(job).contains("reading.lines-close"));
    lettering(job).line_gap = measure("4");
    CHECK(said(job).contains("reading.lines-far"));
    lettering(job).letter_gap = measure("0");
    CHECK(said(job).contains("reading.tight"));  // pairs of this typeface are nearer than a tenth of their height
    lettering(job).letter_gap = measure("5/8");
    CHECK_FALSE(said(job).contains("reading.tight"));
    lettering(job).letter_gap = measure("2");
    CHECK(said(job).contains("reading.loose"));
    lettering(job).typeface = typeface("Bebas Neue");
    CHECK(said(job).contains("reading.narrow"));
    lettering(job).typeface = typeface("Dancing Script", "Bold");
    CHECK(said(job).contains("reading.script"));
}

TEST_CASE("nearer is never harder to read, and larger neither") {
    CHECK(rc::check([] {
        const Length far = Length::inches(*rc::gen::inRange(12, 2000));
        const Length near = far - Length::inches(*rc::gen::inRange(0, 12));
        const Length floor = Length::inches(*rc::gen::inRange(40, 200));
        RC_ASSERT(least_height(floor, near) <= least_height(floor, far));
        RC_ASSERT(least_height(floor, far) <= least_height(floor + 40_in, far + Length::inches(120)));
        const Length cap = Length::sixtyfourths(*rc::gen::inRange(1, 1000));
        RC_ASSERT(reach_of(cap).comfortable < reach_of(cap).most);
        RC_ASSERT(on_screen(cap, far, 24_in) <= on_screen(cap, near, 24_in));
    }));
}

TEST_CASE("a ruler or a month board alone is a whole job: cut, scheduled, and every step named once") {
    for (const ArtKind& kind : std::vector<ArtKind>{HeightRuler{}, MonthBoard{}}) {
        Job job = porch_board();
        job.signs.front().blank = blank_of(Kind::Panel, "72", "22");
        lettering(job).words.clear();
        job = add_art(job, {0, 0}, kind, library().typefaces);
        const Plan plan = plan_of(job);
        CHECK(plan.mark_of(Station::Lettering) != Mark::Stop);
        CHECK_FALSE(plan.colours.front().cut.loads->sections.empty());
        std::set<StepId> names;
        for (const Task& t : *plan.tasks) CHECK(names.insert(t.id).second);
        CHECK(plan.clock->ready > moment("2026-05-04T18:00"));
        const auto lines = summary(job, plan, 0);
        CHECK(lines[1].first.id == "ticket.art");
        // It fits again when the blank changes.
        Job smaller = job;
        smaller.signs.front().blank.length = measure("40");
        const ColourPlan after = plan_of(smaller).colours.front();
        for (const Piece& p : *after.cut.pieces) CHECK(after.face->blank->face.holds(p.shape.bounds()));
    }
}

TEST_CASE("the words of a month board are on the proof") {
    Job job = porch_board();
    job.signs.front().blank = blank_of(Kind::Panel, "30", "22");
    lettering(job).words.clear();
    MonthBoard m;
    m.title = "TIDES";
    job = add_art(job, {0, 0}, m, library().typefaces);
    CHECK(wording(job) == "TIDES\nMON TUE WED THU FRI SAT SUN");
    const Job signed_off = tick(job, plan_of(job), StepId{"1/proof"}, moment("2026-05-04T18:31"));
    CHECK(plan_of(signed_off).proof_signed);
    Job changed = signed_off;
    std::get<MonthBoard>(changed.signs[0].faces[0].art[0].kind).title = "TIDE";
    CHECK_FALSE(plan_of(changed).proof_signed);
}

TEST_CASE("two colours are painted one after the other: the second mask waits for the first paint") {
    Job job = porch_board();
    job = add_colour(job, {0, 0});
    const ColourId second = job.signs[0].faces[0].colours[1].id;
    lettering(job).colour = second;
    lettering(job).rim = Rim{measure("1/4"), first_colour, true, measure("1/16"), false};
    const Plan plan = plan_of(job);
    REQUIRE(plan.colours.size() == 2);
    std::size_t first_lift = 0;
    std::size_t second_lay = 0;
    for (std::size_t i = 0; i < plan.tasks->size(); ++i) {
        if ((*plan.tasks)[i].id.name.starts_with("1/lift/")) first_lift = i;
        if ((*plan.tasks)[i].id.name.starts_with("1.2/lay/") && second_lay == 0) second_lay = i;
    }
    REQUIRE(second_lay > first_lift);
    const auto& waits = (*plan.tasks)[second_lay].waits;
    CHECK(std::any_of(waits.begin(), waits.end(), [&](const Wait& w) {
        return w.after == first_lift && w.at_least >= std::chrono::hours(24) && w.why.id == "wait.film-on-colour";
    }));
    // A later colour is contrasted with what lies under it, not with the ground.
    CHECK(std::get<double>(plan.of(second)->method->facts.at("contrast")) !=
          std::get<double>(plan.of(first_colour)->method->facts.at("contrast")));
    CHECK(plan.of(step_id(second, Work::Lay, plan.colours[1].cut.loads->sections[0].letters))->id == second);
    // Lying earlier, it is planned earlier; nothing loses its colour.
    const Job swapped = lay_earlier(job, {0, 0}, 1);
    CHECK(swapped.signs[0].faces[0].colours[0] == job.signs[0].faces[0].colours[1]);
    CHECK(swapped.signs[0].faces[0].lettering.main().colour == second);
}
