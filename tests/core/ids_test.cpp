#include <nlohmann/json.hpp>
#include <set>

#include "job/commands.h"
#include "job/face_commands.h"
#include "job/stages.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

Colour& colour(Job& job, std::size_t i) { return job.signs.front().faces.front().colours.at(i); }

// Letters painted through a mask, over a decal rim.
Job mask_over_decal() {
    Job job = set_rim(panel_job("OAR", "20", "10"), {}, 0, RimIs::Behind);
    colour(job, 0).making.way = Way::Decal;
    colour(job, 0).making.film = "permanent-gloss";
    return job;
}

Job two_panels() { return copy_sign(panel_job("OAR", "20", "10"), 0, "SLIP"); }

std::vector<std::string> words_at(const Plan& plan, Work work) {
    std::vector<std::string> ids;
    for (const Step& s : plan.bench->steps) {
        if (s.work == work) ids.push_back(s.instruction.id);
    }
    return ids;
}

std::set<std::string> cautions_at(const Plan& plan, const FaceId& face, Work work) {
    std::set<std::string> ids;
    for (const Step& s : plan.bench->steps) {
        if (s.face != face || s.work != work) continue;
        for (const Reason& c : s.cautions) ids.insert(c.id);
    }
    return ids;
}

Job cut_all(Job job) {
    const Plan plan = plan_of(job);
    for (const Task& t : *plan.tasks) {
        if (t.work == Work::Cut) job = tick(job, plan, t.id, moment("2026-05-04T19:00"));
    }
    return job;
}

// What an edit makes a planner work out anew, after the plan of `before`.
std::multiset<std::string> anew(const Job& before, const Job& after, const Shop& shop = usual_shop()) {
    Planner planner;
    (void)planner.plan(before, usual_shop(), library(), moment("2026-05-04T18:00"));
    const auto plan = planner.plan(after, shop, library(), moment("2026-05-04T18:00"));
    CHECK(*plan == skarvel::plan(after, shop, library(), moment("2026-05-04T18:00")));
    std::multiset<std::string> stages;
    for (const WorkedOut& row : planner.ran()) stages.insert(row.stage);
    return stages;
}

using Stages = std::multiset<std::string>;

// All ids of things in a job.
std::set<std::string> ids_in(const Job& job) {
    std::set<std::string> ids;
    for (const Sign& sign : job.signs) {
        ids.insert("sign " + sign.id.name);
        for (const Face& face : sign.faces) {
            ids.insert("face " + face.id.name);
            for (const Colour& c : face.colours) ids.insert("colour " + c.id.name);
            for (const Art& a : face.art) ids.insert("thing " + face.id.name + " " + a.id.name);
        }
    }
    return ids;
}

}  // namespace

TEST_CASE("beside a decal a mask is still weeded as a mask: its ink goes, the rest stays") {  // common practice
    const Plan plan = plan_of(mask_over_decal());
    CHECK(words_at(plan, Work::Weed) == std::vector<std::string>{"step.weed-decal", "step.weed"});
    // Burnished as film that stays, and along the ink of a mask.
    std::vector<std::string> put_down;
    for (const Step& s : plan.bench->steps) {
        if (s.work == Work::Lay)
            put_down.push_back(std::get<std::vector<Reason>>(s.instruction.arguments.back().second).front().id);
    }
    REQUIRE(put_down.size() == 2);
    CHECK(put_down[0].find("-decal") != std::string::npos);
    CHECK(put_down[1].find("-decal") == std::string::npos);
}

TEST_CASE("what is in the tins of one sign is warned of at its own steps, and at no other's") {
    Job job = two_panels();
    auto& layers = job.signs[1].faces[0].layers;
    layers.at(place_of(layers, ground_coat)).coat.coat = "oil-stain";
    const Plan plan = plan_of(job);
    CHECK(cautions_at(plan, job.signs[1].faces[0].id, Work::Ground).contains("care.rags"));
    CHECK_FALSE(cautions_at(plan, job.signs[0].faces[0].id, Work::Ground).contains("care.rags"));
    job.signs[0].faces[0].colours[0].making.tool = "spray";
    const Plan sprayed = plan_of(job);
    CHECK(cautions_at(sprayed, job.signs[0].faces[0].id, Work::Colour).contains("care.spray"));
    CHECK_FALSE(cautions_at(sprayed, job.signs[1].faces[0].id, Work::Colour).contains("care.spray"));
}

TEST_CASE("what was cut stays with its colour when colours are moved, removed, or given a rim") {
    const Job job = cut_all(mask_over_decal());
    const ColourId letters = colour(const_cast<Job&>(job), 1).id;
    const auto is_cut = [&](const Job& j, const ColourId& id) {
        const Plan plan = plan_of(j);
        const ColourPlan* c = plan.of(id);
        REQUIRE(c != nullptr);
        CHECK(c->cut.loads->misfits.empty());
        const auto& loads = c->cut.loads->loads;
        return !loads.empty() && std::all_of(loads.begin(), loads.end(), [](const Load& l) { return l.cut; });
    };
    CHECK(is_cut(job, letters));
    CHECK(is_cut(lay_earlier(job, {}, 1), letters));
    CHECK(is_cut(put_in_colour(remove_colour(job, {}, 0), {}, lettering(const_cast<Job&>(job)).id, letters), letters));
    // The colour that went is told of, and its record kept.
    const Job without = remove_colour(job, {}, 0);
    CHECK(without.bench.cut == job.bench.cut);
    const Plan plan = plan_of(without);
    CHECK(std::any_of(plan.problems.begin(), plan.problems.end(),
                      [](const Problem& p) { return p.what.id == "gone.cut" && p.mark == Mark::Look; }));
    // Given a rim, the letters keep their colour and their record.
    Job plain = cut_all(panel_job("OAR", "20", "10"));
    const Job rimmed = set_rim(plain, {}, 0, RimIs::Behind);
    CHECK(rimmed.bench.cut.front().of == lettering(plain).colour);
    CHECK(is_cut(rimmed, lettering(plain).colour));
}

TEST_CASE("what names a thing that is not there is kept and told") {
    Job job = panel_job("OAR", "20", "10");
    lettering(job).colour = ColourId{"9.9"};
    job.post = Post{};
    job.post->arms.push_back({SignId{"7"}, measure("1")});
    const Plan plan = plan_of(job);
    for (const char* id : {"gone.colour", "gone.arm"})
        CHECK(std::any_of(plan.problems.begin(), plan.problems.end(), [&](const Problem& p) {
            return p.what.id == id && !library().catalogue.say(p.what, {}).empty();
        }));
    CHECK(*read_job(write_job(job)) == job);
}

TEST_CASE("film is counted once loads are shared: four arrows, each load once") {
    const auto job = read_job(*read_file(std::filesystem::path(SKARVEL_SOURCE) / "demo/four-arrows.skarvel"));
    REQUIRE(job);
    const Plan plan = plan_of(*job);
    REQUIRE(plan.loads_saved > 0);
    Length cut, needed;
    for (const ColourPlan& c : plan.colours) {
        for (const Load& l : c.cut.loads->loads) cut += l.carried_by.empty() ? l.film_length : Length{};
    }
    for (const FilmCost& f : plan.film) needed += f.needed;
    CHECK(needed == cut);
    Plan other = plan;
    ++other.loads_saved;
    CHECK_FALSE(other == plan);
}

TEST_CASE("a mask waits for a painted band to be dry enough for film, with a ground or without") {  // common practice
    Job job = panel_job("OAR", "20", "10");
    job.signs.front().blank.fields.push_back({.middle = measure("5"), .depth = measure("3")});
    for (const bool ground : {true, false}) {
        if (!ground) without(job, ground_coat);
        finish_of(job).seal = Seal::None;
        const Plan plan = plan_of(job);
        Minutes longest{0};
        for (const Task& t : *plan.tasks) {
            for (const Wait& w : t.waits)
                if (t.work == Work::Lay && (*plan.tasks)[w.after].work == Work::Field)
                    longest = std::max(longest, w.at_least);
        }
        CHECK(longest >= coat_of(library().trade, ground ? "chalk-paint" : "craft-acrylic").film_least);
    }
}

TEST_CASE("on a bare blank contrast is reckoned against what the blank is made of") {
    Job job = panel_job("OAR", "20", "10");
    without(job, ground_coat);
    std::set<double> ratios;
    for (const char* material : {"pine", "hardboard", "maple"}) {
        job.signs.front().blank.material = material;
        ratios.insert(std::get<double>(plan_of(job).colours.front().method->facts.at("contrast")));
    }
    CHECK(ratios.size() == 3);
    // White letters stand out more on dark hardboard than on pale maple; a canvas is cloth whatever it is made of.
    job.signs.front().blank.kind = Kind::Canvas;
    job.signs.front().blank.material = "hardboard";
    const double on_canvas = std::get<double>(plan_of(job).colours.front().method->facts.at("contrast"));
    CHECK(on_canvas < *ratios.begin());
}

TEST_CASE("an edit works out anew what reads what it changed, and nothing else") {
    const Job one = panel_job("OAR", "20", "10");
    const Job two = two_panels();
    const Stages job_wide{"sharing", "film", "tasks", "clock", "bench"};
    const auto with = [](Job job, const std::function<void(Job&)>& change) {
        change(job);
        return job;
    };
    // Nothing, and what nothing is planned from.
    CHECK(anew(one, one).empty());
    CHECK(anew(one, with(one, [](Job& j) { j.title = "other"; })).empty());
    // Taking a sign out leaves the rows of the others alone, whichever it is.
    CHECK(anew(two, remove_sign(two, 0)) == job_wide);
    CHECK(anew(two, remove_sign(two, 1)) == job_wide);
    // Moving one changes the order of work alone.
    const Stages moved = anew(two, with(two, [](Job& j) { std::swap(j.signs[0], j.signs[1]); }));
    CHECK(moved.count("lettering") + moved.count("loads") + moved.count("method") == 0);
    // A copy is worked out itself, the others are not.
    const Stages copied = anew(two, copy_sign(two, 0, "TEA"));
    for (const char* stage : {"blank", "lettering", "ink", "loads", "method", "reading"})
        CHECK(copied.count(stage) == 1);
    // A colour more, that nothing is in; and one that is laid earlier.
    CHECK(anew(one, add_colour(one, {})).empty());
    const Job rim = set_rim(one, {}, 0, RimIs::Behind);
    const Stages earlier = anew(rim, lay_earlier(rim, {}, 1));
    CHECK(earlier.count("ink") + earlier.count("loads") + earlier.count("thin") == 0);
    // A first wish has what would be found without it beside it; the next one does not ask for that again.
    const Job wished = with(one, [](Job& j) { making(j).wishes.any_angle = true; });
    CHECK(anew(one, wished).count("as found") == 1);
    const Stages next = anew(wished, with(wished, [](Job& j) { making(j).wishes.laid_soonest = false; }));
    CHECK(next.count("loads") == 1);
    CHECK(next.count("as found") == 0);
    // Paint and finish are Method's and the clock's.
    const Stages painted = anew(one, with(one, [](Job& j) { coat_in(j, clear_coat).coats = 3; }));
    CHECK(painted == Stages{"method", "tasks", "clock", "bench"});
    CHECK(anew(one, with(one, [](Job& j) { j.deadline = moment("2026-06-01T12:00"); })) == Stages{"clock", "bench"});
    CHECK(anew(one, tick(one, plan_of(one), StepId{"1/sand"}, moment("2026-05-04T18:30"))) == Stages{"clock", "bench"});
    Shop shop = usual_shop();
    shop.hours.days[0] = {{600, 700}};
    CHECK(anew(one, one, shop) == Stages{"clock"});  // a Sunday that is not needed changes no step
}

TEST_CASE("a plan that is stopped anywhere leaves no trace, and the next one is as if nothing had been") {
    const Shop shop = usual_shop();
    const Moment at = moment("2026-05-04T18:00");
    Job job = two_panels();
    std::size_t looks = 0;
    {
        const WhileStoppable count([&] {
            ++looks;
            return false;
        });
        (void)Planner().plan(job, shop, library(), at);
    }
    REQUIRE(looks > 100);
    CHECK(rc::check([&] {
        Planner planner;
        if (*rc::gen::arbitrary<bool>()) (void)planner.plan(panel_job("TEA", "20", "10"), shop, library(), at);
        auto left = *rc::gen::inRange<std::size_t>(1, looks);
        {
            const WhileStoppable stops([&] { return left-- == 0; });
            RC_ASSERT_FALSE(planner.plan(job, shop, library(), at).has_value());
        }
        const auto again = planner.plan(job, shop, library(), at);
        RC_ASSERT(again.has_value());
        RC_ASSERT(*again == plan(job, shop, library(), at));
    }));
}

TEST_CASE("an id is made once: what comes later never has the name of what has gone") {
    CHECK(rc::check([] {
        Job job = two_panels();
        std::set<std::string> gone;
        for (int i = *rc::gen::inRange(1, 14); i > 0; --i) {
            const std::set<std::string> before = ids_in(job);
            const auto which = *rc::gen::inRange<std::size_t>(0, 3);
            switch (*rc::gen::inRange(0, 8)) {
                case 0:
                    job = copy_sign(job, which % job.signs.size(), "TEA");
                    break;
                case 1:
                    job = remove_sign(job, which);
                    break;
                case 2:
                    job = add_colour(job, {});
                    break;
                case 3:
                    job = remove_colour(job, {}, which);
                    break;
                case 4:
                    job = letter_back(job, 0);
                    break;
                case 5:
                    job = bare_back(job, 0);
                    break;
                case 6:
                    job = add_art(job, {}, Border{}, library().typefaces);
                    break;
                default:
                    job = remove_art(job, {}, which);
            }
            const std::set<std::string> after = ids_in(job);
            for (const std::string& id : before) {
                if (!after.contains(id)) gone.insert(id);
            }
            for (const std::string& id : after) RC_ASSERT_FALSE(gone.contains(id));
            RC_ASSERT(*read_job(write_job(job)) == job);
        }
    }));
}

TEST_CASE("job files of format 1 are read to what they meant") {
    const std::filesystem::path fixtures = std::filesystem::path(SKARVEL_SOURCE) / "tests/fixtures/format-1";
    int read = 0;
    for (const auto& entry : std::filesystem::directory_iterator(fixtures)) {
        INFO(entry.path().filename().string());
        const std::string text = *read_file(entry.path());
        const auto was = nlohmann::json::parse(text);
        REQUIRE(was["format"] == 1);
        const auto job = read_job(text);
        REQUIRE(job);
        ++read;
        CHECK(*read_job(write_job(*job)) == *job);
        const Plan plan = plan_of(*job);
        CHECK(plan.bench->orphans.empty());
        CHECK(std::none_of(plan.problems.begin(), plan.problems.end(),
                           [](const Problem& p) { return p.what.id.starts_with("gone."); }));
        // Every text is in the colour that its place named.
        for (std::size_t s = 0; s < job->signs.size(); ++s) {
            const auto& face = was["signs"][s]["faces"][0];
            const auto& texts = face["lettering"]["texts"];
            for (std::size_t t = 0; t < texts.size(); ++t)
                CHECK(place_of(job->signs[s].faces[0], job->signs[s].faces[0].lettering.texts[t].colour) ==
                      texts[t].value("colour", std::size_t{0}));
        }
    }
    CHECK(read == 9);
}

TEST_CASE("ticks and records of format 1 go on meaning the same step and the same colour") {
    const std::string text =
        *read_file(std::filesystem::path(SKARVEL_SOURCE) / "tests/fixtures/at-the-bench.format-1.skarvel");
    const auto job = read_job(text);
    REQUIRE(job);
    std::set<StepId> ticked;
    for (const auto& [step, at] : job->bench.ticks) ticked.insert(step);
    CHECK(ticked.contains(StepId{"1.2/lay/OAR"}));
    CHECK(job->bench.held.contains(StepId{"1.2/colour.2/1"}));
    CHECK(ticked.contains(StepId{"1.2/lift.3/OAR"}));
    CHECK(ticked.contains(StepId{"1.2/seal.2"}));
    CHECK(ticked.contains(StepId{"1.2/colour.2/1"}));
    CHECK(ticked.contains(StepId{"1b/ground/1"}));
    REQUIRE(job->bench.cut.size() == 1);
    CHECK(job->bench.cut.front().of == ColourId{"1.2"});
    CHECK(job->bench.cut.front().id == CutId{"OAR"});
    CHECK(job->signs[0].faces[0].colours[1].id == ColourId{"1.2"});
    CHECK(job->signs[0].faces[1].id == FaceId{"1b"});
    CHECK(job->made >= 4);  // a tick for a sign that has gone: its number is not given again
}
