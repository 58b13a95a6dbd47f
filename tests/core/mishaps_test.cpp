// What goes wrong at the bench: its mending is a step of its own, the clock moves, nothing is a dead end.
#include <rapidcheck.h>

#include <set>

#include "files/job_file.h"
#include "job/commands.h"
#include "job/spoiling.h"
#include "picture/step_picture.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

const Step& step_called(const Plan& plan, const std::string& id) {
    for (const Step& s : plan.bench->steps) {
        if (s.id == StepId{id}) return s;
    }
    throw std::runtime_error("no step " + id);
}

// Every wait of every task is kept but what is dry by touch, by hands that do one thing at a time.
bool keeps_every_rule(const Plan& plan, const Job& job) {
    std::map<std::size_t, const Slot*> at;
    for (const Slot& s : plan.clock->slots) at[s.task] = &s;
    if (at.size() != plan.tasks->size()) return false;
    for (std::size_t i = 0; i < plan.tasks->size(); ++i) {
        if (at[i]->done) continue;
        for (const Wait& w : (*plan.tasks)[i].waits) {
            if (w.after >= i) return false;
            if (job.bench.dry.contains((*plan.tasks)[w.after].id)) continue;
            // What a machine does is over with its tick.
            const Minutes least = at[w.after]->done ? w.left_when_done() : w.at_least;
            if (at[i]->start < at[w.after]->end + least) return false;
        }
    }
    std::vector<const Slot*> open;
    for (const Slot& s : plan.clock->slots) {
        if (!s.done) open.push_back(&s);
    }
    for (std::size_t i = 1; i < open.size(); ++i) {
        if (open[i]->start < open[i - 1]->end) return false;
    }
    return true;
}

}  // namespace

TEST_CASE("film that does not hold is mended before paint; what bled, once the masks are off") {
    const Job job = porch_board();
    const Plan plan = plan_of(job);
    const Moment now = moment("2026-05-06T19:00");
    const Job loose = happened(job, plan, StepId{"1/lay/BOAT"}, "does-not-hold", now, library().trade, "B, upper edge");
    const Plan then = plan_of(loose);
    CHECK(step_called(then, "1/mend/1").start >= step_called(then, "1/lay/BOAT").start);
    CHECK(step_called(then, "1/lay/HOUS").start >= step_called(then, "1/mend/1").start);
    CHECK(then.clock->hands_on == plan.clock->hands_on + Minutes(10));
    CHECK(keeps_every_rule(then, loose));
    CHECK(loose.bench.mishaps.front().note == "B, upper edge");
    CHECK(*read_job(write_job(loose)) == loose);

    const Job bled = happened(loose, then, StepId{"1/colour/1"}, "bled", now, library().trade);
    const Plan after = plan_of(bled);
    const Step& mending = step_called(after, "1/mend/2");
    for (const char* lift : {"1/lift/BOAT", "1/lift/HOUS", "1/lift/E"})
        CHECK(mending.start >= step_called(after, lift).start);
    CHECK(step_called(after, "1/clear/1").start >= mending.start + mending.hands_on + Minutes(60));
    CHECK(keeps_every_rule(after, bled));
    // What another shop's program wrote, or whose step has gone, is kept and told.
    Job foreign = bled;
    foreign.bench.mishaps.push_back({7, "flood", StepId{"1/lay/BOAT"}, now, {}});
    foreign.bench.mishaps.push_back({8, "bled", StepId{"1/lay/NOBODY"}, now, {}});
    const Plan kept = plan_of(foreign);
    CHECK(std::count_if(kept.problems.begin(), kept.problems.end(),
                        [](const Problem& p) { return p.what.id == "bench.not-mended"; }) == 2);
    CHECK(kept.bench->steps.size() == after.bench->steps.size());
    // What is not known changes nothing; a wrong word takes the signature back.
    CHECK(happened(job, plan, StepId{"1/lay/NOBODY"}, "bled", now, library().trade) == job);
    CHECK(happened(job, plan, StepId{"1/lay/BOAT"}, "flood", now, library().trade) == job);
    const Job signed_job = tick(job, plan, StepId{"1/proof"}, now);
    REQUIRE(signed_job.proof);
    CHECK_FALSE(happened(signed_job, plan, StepId{"1/cut/E"}, "wrong-word", now, library().trade).proof);
}

TEST_CASE("dry already ends a wait, not dry yet after it goes on; a step left out keeps its reason until taken back") {
    Job job = porch_board();
    job = tick(job, plan_of(job), StepId{"1/sand"}, moment("2026-05-04T18:40"));
    job = tick(job, plan_of(job), StepId{"1/ground/1"}, moment("2026-05-04T19:00"));
    const auto second = [&] { return step_called(plan_of(job, "2026-05-04T19:30"), "1/ground/2").start; };
    CHECK(second() >= moment("2026-05-04T21:00"));
    job = dry_already(job, StepId{"1/ground/1"}, moment("2026-05-04T19:30"));
    CHECK(plan_of(job, "2026-05-04T19:30").bench->timers.front().from == moment("2026-05-04T19:30"));
    CHECK(second() < moment("2026-05-04T21:00"));
    job = hold(job, StepId{"1/ground/1"}, moment("2026-05-04T20:45"));
    CHECK(second() >= moment("2026-05-04T20:45"));
    CHECK(*read_job(write_job(job)) == job);

    job = skip(job, plan_of(job), StepId{"1/seal"}, "rough edges are wanted", moment("2026-05-04T20:00"));
    REQUIRE(job.bench.skipped.size() == 1);
    CHECK(step_called(plan_of(job), "1/seal").done);
    CHECK(*read_job(write_job(job)) == job);
    job = untick(job, StepId{"1/seal"});
    CHECK(job.bench.skipped.empty());
    // Nobody signs by leaving out, and what is left out at the cutter is not cut.
    CHECK(skip(job, plan_of(job), StepId{"1/proof"}, "in a hurry", moment("2026-05-04T20:00")) == job);
    CHECK(skip(job, plan_of(job), StepId{"1/cut/E"}, "a leftover does", moment("2026-05-04T20:00")).bench.cut.empty());
}

TEST_CASE("a coat more is a coat more of what the step puts on") {
    const Job job = porch_board();
    const Plan plan = plan_of(job);
    const Job ground = another_coat(job, step_called(plan, "1/ground/1"));
    CHECK(plan_of(ground).bench->steps.size() == plan.bench->steps.size() + 1);
    CHECK(step_called(plan_of(ground), "1/ground/3").work == Work::Ground);
    const Job colour = another_coat(job, step_called(plan, "1/colour/2"));
    CHECK(step_called(plan_of(colour), "1/colour/3").work == Work::Colour);
    CHECK(another_coat(job, step_called(plan, "1/sand")) == job);
    Job many = job;
    for (int i = 0; i < 30; ++i) many = another_coat(many, step_called(plan, "1/ground/1"));
    CHECK(*read_job(write_job(many)) == many);  // never more than a file holds
}

TEST_CASE("property: whatever happens at the bench, in any order, the clock keeps every rule and the file keeps all") {
    Planner planner;
    CHECK(rc::check([&planner] {
        Job job = porch_board();
        Moment now = moment("2026-05-04T18:00");
        for (int i = 0; i < 12; ++i) {
            const Plan plan = *planner.plan(job, usual_shop(), library(), now);
            RC_ASSERT(keeps_every_rule(plan, job));
            const auto& steps = plan.bench->steps;
            const Step& s = steps[*rc::gen::inRange<std::size_t>(0, steps.size())];
            switch (*rc::gen::inRange(0, 6)) {
                case 0:
                case 1: {
                    const Step* next = plan.bench->next();
                    if (next != nullptr) job = tick(job, plan, next->id, now);
                    break;
                }
                case 2: {
                    const auto& kinds = library().trade.mishaps;
                    job = happened(job, plan, s.id, kinds[*rc::gen::inRange<std::size_t>(0, kinds.size())].id, now,
                                   library().trade);
                    break;
                }
                case 3:
                    if (s.done) job = untick(job, s.id);
                    break;
                case 4:
                    if (s.done) job = hold(job, s.id, now + Minutes(30));
                    break;
                default:
                    job = s.done ? dry_already(job, s.id, now) : skip(job, plan, s.id, "left out", now);
            }
            now += Minutes(*rc::gen::inRange(1, 600));
        }
        RC_ASSERT(*read_job(write_job(job)) == job);
    }));
}

TEST_CASE("a spoilt section is cut again from what is there, and what that comes to is told beforehand") {
    Job job = long_board();
    const Moment now = moment("2026-05-04T18:00");
    const auto step_at = [&](const Plan& plan, Work work) {
        for (const Step& s : plan.bench->steps) {
            if (s.work == work && !s.done) return s;
        }
        throw std::runtime_error("no such step");
    };
    const Shop shop = usual_shop();
    Plan planned = plan(job, shop, library(), now);
    CHECK(cut_in_hand(job, planned, step_at(planned, Work::Weed)).empty());  // nothing is cut yet
    for (const Work work : {Work::Proof, Work::Cut}) {
        job = tick(job, planned, step_at(planned, work).id, now);
        planned = plan(job, shop, library(), now);
    }
    const Step weed = step_at(planned, Work::Weed);
    const auto in_hand = cut_in_hand(job, planned, weed);
    REQUIRE(in_hand.size() == job.bench.cut.front().sections.size());
    CHECK(cut_in_hand(job, planned, step_at(planned, Work::Sand)).empty());
    const auto spoilt = what_spoiling_costs(job, planned, shop, library(), now, in_hand.front());
    REQUIRE(spoilt);
    CHECK(spoilt->letters == job.bench.cut.front().sections.front().letters);
    CHECK(spoilt->film > Length{});
    CHECK(spoilt->hands_on > Minutes(0));
    CHECK_FALSE(spoilt->from.empty());
    // The plan of the job as it then is says the same.
    const Plan then = plan(spoilt->job, shop, library(), now);
    CHECK(then.clock->hands_on - planned.clock->hands_on == spoilt->hands_on);
    CHECK(then.clock->ready - planned.clock->ready == spoilt->later);
    CHECK_FALSE(what_spoiling_costs(job, planned, shop, library(), now, {7, 0}));
    // A section that is laid is known as well.
    for (const Step& s : planned.bench->steps) {
        if (s.work != Work::Lay || s.number < 1) continue;
        const auto laid = cut_in_hand(job, planned, s);
        if (laid.empty()) continue;
        CHECK(job.bench.cut[laid.front().load].sections[laid.front().section].letters ==
              planned.colours.front().cut.loads->sections[static_cast<std::size_t>(s.number) - 1].letters);
    }
}

TEST_CASE("a mishap is noted with its place and the letter there, in the file and on the pictures") {
    Job job = porch_board();
    const Plan planned = plan_of(job);
    StepId colour;
    for (const Task& t : *planned.tasks) {
        if (t.work == Work::Colour || t.work == Work::Lay) colour = t.id;
    }
    job = happened(job, planned, colour, "ran-out", moment("2026-05-05T19:00"), library().trade);
    const Piece& piece = planned.colours.front().ink->back();
    const Box box = piece.shape.bounds();
    const Point place = piece.shape.rings().front().front();
    job = place_mishap(job, plan_of(job), 1, place);
    REQUIRE(job.bench.mishaps.size() == 1);
    CHECK(job.bench.mishaps.front().letter == piece.letters);
    CHECK(box.holds({*job.bench.mishaps.front().place, *job.bench.mishaps.front().place}));
    CHECK(read_job(write_job(job)).value() == job);
    CHECK(place_mishap(job, plan_of(job), 9, place) == job);
    const Plan then = plan_of(job);
    const auto marks = marks_of_bench(first_face, job, then, nullptr);
    REQUIRE(marks.size() == 1);
    CHECK(marks.front().shows == Shows::Spot);
    for (const Step& s : then.bench->steps) {
        const StepPicture picture = picture_of(s, job, then, usual_shop(), library().trade);
        const bool shown = std::any_of(picture.marks.begin(), picture.marks.end(),
                                       [](const PictureMark& m) { return m.shows == Shows::Spot; });
        CHECK(shown == (!picture.on_bed && (s.work == Work::Mend || s.id == colour)));
    }
    // Of a face that is parted for a trial both halves are shown.
    const Job split = try_two_ways(porch_board(), planned, {colour, Halves::LeftRight, "wet", "dry", Better::NotYet});
    const auto halves = marks_of_bench(first_face, split, plan_of(split), nullptr);
    REQUIRE(halves.size() == 3);
    CHECK(halves[0].shows == Shows::Split);
    CHECK(halves[1].from.x < halves[0].from.x);
    CHECK(halves[2].from.x > halves[0].from.x);
}

TEST_CASE("a photograph belongs to the step that was at the bench when it was taken") {
    Job job = porch_board();
    const Plan before = plan_of(job);
    std::vector<StepId> ids;
    for (const Step& s : before.bench->steps) ids.push_back(s.id);
    job.bench.ticks[ids[0]] = moment("2026-05-04T18:10");
    job.bench.ticks[ids[1]] = moment("2026-05-04T19:00");
    const Plan then = plan_of(job, "2026-05-04T20:00");
    const auto at = [&](const char* when) { return at_bench(*then.bench, job.bench.ticks, moment(when))->id; };
    CHECK(at("2026-05-04T18:05") == ids[0]);
    CHECK(at("2026-05-04T18:30") == ids[1]);
    CHECK(at("2026-05-04T19:30") == then.bench->next()->id);
}
