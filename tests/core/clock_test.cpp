#include "clock/schedule.h"

#include <set>

#include "job/commands.h"
#include "support.h"
#include "support_clock.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

// Tasks as a schedule takes them.
Shared<std::vector<Task>> all_of(std::vector<Task> tasks) { return {std::move(tasks)}; }

Hours evenings() { return usual_shop().hours; }

bool inside(const Hours& hours, Moment from, Moment to) {
    const auto day = std::chrono::floor<std::chrono::days>(from);
    for (const auto& s : hours.days.at(std::chrono::weekday{day}.c_encoding())) {
        if (from >= day + Minutes(s.from) && to <= day + Minutes(s.to)) return true;
    }
    return false;
}

const Slot& slot_of(const Schedule& s, std::size_t i) {
    for (const Slot& slot : s.slots) {
        if (slot.task == i) return slot;
    }
    throw std::runtime_error("no slot");
}

std::vector<Task> random_tasks() {
    const auto n = *rc::gen::inRange(1, 12);
    std::vector<Task> tasks;
    for (int i = 0; i < n; ++i) {
        std::vector<Wait> waits;
        for (int j = 0; j < i; ++j) {
            if (*rc::gen::inRange(0, 3) == 0)
                waits.push_back(after(static_cast<std::size_t>(j), *rc::gen::inRange(0, 2000)));
        }
        tasks.push_back(task("t" + std::to_string(i), *rc::gen::inRange(1, 150), waits));
    }
    return tasks;
}

}  // namespace

TEST_CASE("waits run at night, hands only on the hours") {
    // Monday 21:00: twenty minutes fit before half past nine, the next coat two hours later must wait for Tuesday.
    const ClockInput in{all_of({task("ground", 20), task("second", 20, {after(0, 120)})}),
                        evenings(),
                        {},
                        {},
                        {},
                        moment("2026-05-04T21:00")};
    const Schedule s = schedule(in);
    CHECK(slot_of(s, 0).start == moment("2026-05-04T21:00"));
    CHECK(slot_of(s, 1).start == moment("2026-05-05T18:30"));
    CHECK(s.ready == moment("2026-05-05T18:50"));
    CHECK(s.chain_waits == Minutes(120));
    CHECK(s.hands_on == Minutes(40));
}

TEST_CASE("work without a wait fills the waits of other work") {
    const ClockInput in{all_of({task("ground", 20), task("second", 20, {after(0, 60)}), task("weed", 40)}),
                        evenings(),
                        {},
                        {},
                        {},
                        moment("2026-05-04T18:00")};
    const Schedule s = schedule(in);
    CHECK(slot_of(s, 0).start == moment("2026-05-04T18:30"));
    CHECK(slot_of(s, 2).start == moment("2026-05-04T18:50"));
    CHECK(slot_of(s, 1).start == moment("2026-05-04T19:50"));
}

TEST_CASE("a lift window binds the last coat and the lift into one sitting") {
    Task lift = task("lift", 10, {after(0, 15)});
    lift.waits.front().at_most = Minutes(60);
    // Forty minutes and a quarter of an hour do not fit after 21:00: the coat moves with the lift.
    const ClockInput in{all_of({task("colour", 40), lift}), evenings(), {}, {}, {}, moment("2026-05-04T20:40")};
    const Schedule s = schedule(in);
    CHECK(slot_of(s, 0).start == moment("2026-05-05T18:30"));
    CHECK(slot_of(s, 1).start - slot_of(s, 0).end == Minutes(15));
}

TEST_CASE("random work: on the hours, one thing at a time, every wait kept") {
    CHECK(rc::check([] {
        const ClockInput in{
            random_tasks(), evenings(), {}, {}, {}, moment("2026-05-04T12:00") + Minutes(*rc::gen::inRange(0, 10'000))};
        const Schedule s = schedule(in);
        RC_ASSERT(s.slots.size() == in.tasks->size());
        for (std::size_t i = 0; i < s.slots.size(); ++i) {
            const Slot& slot = s.slots[i];
            RC_ASSERT(slot.start >= in.now);
            RC_ASSERT(slot.end - slot.start == (*in.tasks)[slot.task].hands_on);
            RC_ASSERT(inside(in.hours, slot.start, slot.end));
            if (i > 0) RC_ASSERT(slot.start >= s.slots[i - 1].end);
            for (const Wait& w : (*in.tasks)[slot.task].waits)
                RC_ASSERT(slot.start - slot_of(s, w.after).end >= w.at_least);
        }
    }));
}

TEST_CASE("the latest start meets the deadline, and five minutes of sittings later does not") {
    CHECK(rc::check([] {
        ClockInput in{random_tasks(), evenings(), moment("2026-05-30T12:00"), {}, {}, moment("2026-05-01T12:00")};
        const Schedule s = schedule(in);
        RC_PRE(s.start_by.has_value());
        in.now = *s.start_by;
        RC_ASSERT(schedule(in).ready <= *in.deadline);
        in.now = *s.start_by + Minutes(6);
        const Schedule later = schedule(in);
        RC_ASSERT(later.ready > *in.deadline || later.begin - *s.start_by >= Minutes(6));
        in.now = moment("2026-05-30T12:00");
        RC_ASSERT(schedule(in).late);
    }));
}

TEST_CASE("what is done stands where it was done, and the rest follows from there") {
    ClockInput in{all_of({task("ground", 20), task("second", 20, {after(0, 120)})}),
                  evenings(),
                  {},
                  {{StepId{"ground"}, moment("2026-05-04T18:40")}},
                  {},
                  moment("2026-05-04T18:45")};
    Schedule s = schedule(in);
    CHECK(slot_of(s, 0).done);
    CHECK(slot_of(s, 1).start == moment("2026-05-04T20:40"));
    in.held[StepId{"ground"}] = moment("2026-05-04T21:00");  // not dry yet
    s = schedule(in);
    CHECK(slot_of(s, 1).start == moment("2026-05-04T21:00"));
}

TEST_CASE("a deadline that has passed is told as that, and the work is planned all the same") {
    Job job = porch_board();
    job.deadline = moment("2026-05-01T12:00");
    const Plan plan = plan_of(job);
    CHECK(plan.clock->ready > moment("2026-05-08T12:00"));
    CHECK_FALSE(plan.clock->start_by);
    REQUIRE_FALSE(plan.clock->problems.empty());
    CHECK(plan.clock->problems.front().what.id == "clock.passed");
}

TEST_CASE("no hours, a task too long, no tasks: said, not guessed") {
    const Schedule none =
        schedule({all_of({task("a", 10)}), {}, moment("2026-05-09T12:00"), {}, {}, moment("2026-05-04T12:00")});
    REQUIRE(none.problems.size() == 1);
    CHECK(none.problems.front().what.id == "clock.no-hours");
    const Schedule long_task = schedule({all_of({task("a", 300)}), evenings(), {}, {}, {}, moment("2026-05-04T12:00")});
    REQUIRE_FALSE(long_task.problems.empty());
    CHECK(long_task.problems.front().what.id == "clock.longer-than-sitting");
    CHECK(long_task.slots.front().start == moment("2026-05-04T18:30"));
    CHECK(schedule({all_of({}), evenings(), {}, {}, {}, moment("2026-05-04T12:00")}).slots.empty());
}

TEST_CASE("masks come off in the reverse order of laying") {
    const Plan plan = plan_of(porch_board());
    std::vector<std::string> laid, lifted;
    for (const Step& s : plan.bench->steps) {
        if (s.work == Work::Lay) laid.push_back(s.id.name.substr(s.id.name.rfind('/') + 1));
        if (s.work == Work::Lift) lifted.push_back(s.id.name.substr(s.id.name.rfind('/') + 1));
    }
    CHECK(laid == std::vector<std::string>{"BOAT", "HOUS", "E"});
    CHECK(lifted == std::vector<std::string>(laid.rbegin(), laid.rend()));
}

TEST_CASE("a decal is covered with clear after 72 hours, or laid on it") {  // common practice
    const auto wait_before_clear = [](const Job& job) {
        Minutes longest{0};
        const Plan plan = plan_of(job);
        for (const Task& t : *plan.tasks) {
            if (t.work != Work::Clear || t.number != 1) continue;
            for (const Wait& w : t.waits) longest = std::max(longest, w.at_least);
        }
        return longest;
    };
    Job job = long_board();
    CHECK(wait_before_clear(job) == Minutes(72 * 60));
    turn_clear(job);
    CHECK(wait_before_clear(job) == Minutes(0));
    const Plan plan = plan_of(job);
    std::vector<std::string> kinds;
    for (const Step& s : plan.bench->steps) kinds.emplace_back(word_of(s.work));
    CHECK(std::find(kinds.begin(), kinds.end(), "clear-under") < std::find(kinds.begin(), kinds.end(), "lay"));
}

TEST_CASE("ticking moves the clock, survives a new plan, and a vanished step is kept and listed") {
    const Shop shop = usual_shop();
    Job job = porch_board();
    const Plan first = plan_of(job);
    job = tick(job, first, StepId{"1/sand"}, moment("2026-05-05T19:00"));
    job = tick(job, first, StepId{"1/ground/1"}, moment("2026-05-06T19:30"));
    const Plan later = plan_of(job, "2026-05-06T19:30");
    CHECK(later.bench->done() == 2);
    CHECK(later.clock->ready > first.clock->ready);
    job.title = "other";
    finish_of(job).lift = Lift::Dry;
    CHECK(plan_of(job, "2026-05-06T19:30").bench->done() == 2);
    without(job, ground_coat);
    finish_of(job).seal = Seal::None;
    const Plan bare = plan_of(job, "2026-05-06T19:30");
    CHECK(bare.bench->orphans == std::vector<StepId>{{"1/ground/1"}});
    CHECK(bare.mark_of(Station::Bench) == Mark::Look);
    CHECK(job.bench.ticks.size() == 2);

    CHECK(tick(job, first, StepId{"1/no-such-step"}, moment("2026-05-06T19:30")) == job);
    CHECK_FALSE(untick(job, StepId{"1/sand"}).bench.ticks.contains(StepId{"1/sand"}));
}

TEST_CASE("every step has an instruction, a check, and the cautions of its tools and tins") {
    Job job = porch_board();
    coat_in(job, ground_coat).coat = "gloss-enamel";
    making(job).tool = "spray";
    const Plan plan = plan_of(job);
    std::map<std::string, std::set<std::string>> care;
    for (const Step& s : plan.bench->steps) {
        CHECK(library().catalogue.has(s.instruction.id));
        CHECK(library().catalogue.has(s.check.id));
        for (const Reason& c : s.cautions) care[word_of(s.work)].insert(c.id);
    }
    CHECK(care["sand"].contains("care.lead"));
    CHECK(care["cut"].contains("care.blade"));
    CHECK(care["ground"].contains("care.rags"));
    CHECK(care["colour"].contains("care.spray"));
    CHECK(care["hang"].contains("care.hang"));
    CHECK(care["saw"].contains("care.saw"));
}

TEST_CASE("painted fields and frames are work of their own, where they belong in the order") {
    Job job = porch_board();
    Blank& b = job.signs.front().blank;
    b.kind = Kind::Panel;
    b.width = measure("16");
    b.frame.kind = FrameKind::Butt;
    b.fields.push_back({.middle = measure("30"), .depth = measure("4")});
    const auto place = [&](const std::string& id) {
        const Plan p = plan(job, usual_shop(), library(), moment("2026-05-04T18:00"));
        const auto at = std::find_if(p.tasks->begin(), p.tasks->end(), [&](const Task& t) { return t.id.name == id; });
        REQUIRE(at != p.tasks->end());
        return at - p.tasks->begin();
    };
    CHECK(place("1/ground/2") < place("1/field/1"));
    CHECK(place("1/frame") > place("1/clear/2"));
    b.frame.before = true;
    CHECK(place("1/frame") < place("1/ground/1"));
    const Plan p = plan(job, usual_shop(), library(), moment("2026-05-04T18:00"));
    const Task& field = (*p.tasks)[static_cast<std::size_t>(place("1/field/1"))];
    REQUIRE(field.waits.size() == 1);
    CHECK(field.waits.front().at_least == coat_of(library().trade, "chalk-paint").paint_over);  // tape on dry paint
}

TEST_CASE("coats cover edges and back where those are finished") {
    Job job = porch_board();
    const auto ground_minutes = [&] {
        const Plan p = plan(job, usual_shop(), library(), moment("2026-05-04T18:00"));
        return std::find_if(p.tasks->begin(), p.tasks->end(), [](const Task& t) { return t.id.name == "1/ground/1"; })
            ->hands_on;
    };
    const Minutes face = ground_minutes();
    job.signs.front().blank.finished = Coated::FaceEdges;
    const Minutes edges = ground_minutes();
    job.signs.front().blank.finished = Coated::All;
    CHECK(face < edges);
    CHECK(edges < ground_minutes());
}

TEST_CASE("many tasks are laid as fast as few, and each that is too long is told once") {
    std::vector<Task> tasks;
    for (int i = 0; i < 3000; ++i) tasks.push_back(task("t" + std::to_string(i), i % 2 == 0 ? 7 : 11));
    const Schedule s = schedule({tasks, evenings(), std::nullopt, {}, {}, moment("2026-05-04T18:00")});
    REQUIRE(s.slots.size() == 3000);
    for (std::size_t i = 1; i < s.slots.size(); ++i) CHECK(s.slots[i].start >= s.slots[i - 1].start);
    tasks = {task("long", 400, {}), task("longer", 500, {})};
    const Schedule too_long = schedule({tasks, evenings(), std::nullopt, {}, {}, moment("2026-05-04T18:00")});
    CHECK(too_long.problems.size() >= 1);
    CHECK(too_long.problems.size() <= 2);
}

namespace {

// A coat of a sign, with the setting up that a round needs once.
Task coat(const std::string& id, int minutes, std::vector<Wait> waits = {}, const std::string& round = "ground/1") {
    Task t = task(id, minutes, std::move(waits));
    t.of = id;
    t.round = round;
    t.setup = Minutes(10);
    return t;
}

}  // namespace

TEST_CASE("coats of several signs share one setting up, and keep to every wait") {
    // Four signs: sand (own work), then a coat. Twenty minutes each, ten of them setting up.
    std::vector<Task> tasks;
    for (int i = 0; i < 4; ++i) {
        tasks.push_back(task("sand" + std::to_string(i), 15));
        tasks.push_back(coat("coat" + std::to_string(i), 20, {after(tasks.size() - 1, 0)}));
    }
    const ClockInput in{all_of(tasks), evenings(), moment("2026-05-09T12:00"), {}, {}, moment("2026-05-04T18:00")};
    const Schedule s = schedule(in);
    CHECK(s.setup_saved == Minutes(30));
    CHECK(s.hands_on == Minutes(4 * 15 + 20 + 3 * 10));
    // One after the other, without a gap.
    std::vector<Slot> coats;
    for (const Slot& slot : s.slots) {
        if (slot.task % 2 == 1) coats.push_back(slot);
    }
    for (std::size_t i = 1; i < coats.size(); ++i) CHECK(coats[i].start == coats[i - 1].end);
    // Where a round would come too late, single tasks are taken: two signs may begin only on Wednesday and Saturday.
    std::vector<Task> apart = {coat("first", 20), coat("second", 20, {after(0, 7 * 24 * 60)}, "other")};
    apart.push_back(coat("third", 20, {after(1, 0)}));
    const Schedule late = schedule({all_of(apart), evenings(), {}, {}, {}, moment("2026-05-04T18:00")});
    CHECK(late.setup_saved == Minutes(0));  // the third hangs on the second, which hangs on the first
}

TEST_CASE("property: rounds break no wait, no hour and no pair of hands, and never cost work") {
    CHECK(rc::check([] {
        const auto signs = *rc::gen::inRange(1, 5);
        const auto coats = *rc::gen::inRange(1, 4);
        std::vector<Task> tasks;
        for (int i = 0; i < signs; ++i) {
            for (int n = 0; n < coats; ++n) {
                std::vector<Wait> waits;
                if (n > 0) waits.push_back(after(tasks.size() - 1, *rc::gen::inRange(0, 600)));
                const int kind = *rc::gen::inRange(0, 3);  // so that rounds may cross one another
                tasks.push_back(coat(std::to_string(i) + "." + std::to_string(n), *rc::gen::inRange(10, 60), waits,
                                     "round" + std::to_string(kind)));
            }
        }
        const ClockInput in{all_of(tasks), evenings(), {}, {}, {}, moment("2026-05-04T12:00")};
        const Schedule s = schedule(in);
        RC_ASSERT(s.slots.size() == tasks.size());
        Minutes all{0};
        for (std::size_t i = 0; i < s.slots.size(); ++i) {
            RC_ASSERT(inside(in.hours, s.slots[i].start, s.slots[i].end));
            if (i > 0) RC_ASSERT(s.slots[i].start >= s.slots[i - 1].end);
            for (const Wait& w : tasks[s.slots[i].task].waits)
                RC_ASSERT(s.slots[i].start >= slot_of(s, w.after).end + w.at_least);
            all += tasks[i].hands_on;
        }
        RC_ASSERT(s.hands_on + s.setup_saved == all);
    }));
}

TEST_CASE("a changed day, a later beginning and a margin move what they must, and nothing earlier") {
    ClockInput in{all_of({task("ground", 60), task("second", 60, {after(0, 12 * 60)})}),
                  evenings(),
                  moment("2026-05-09T12:00"),
                  {},
                  {},
                  moment("2026-05-04T17:00")};
    CHECK(schedule(in).ready == moment("2026-05-05T19:30"));
    in.changed = {{moment("2026-05-05T00:00"), 9 * 60, 11 * 60}};  // Tuesday morning instead of the evening
    CHECK(schedule(in).ready == moment("2026-05-05T10:00"));       // twelve hours after 19:30 is 7:30
    in.changed = {{moment("2026-05-05T00:00"), 0, 0}};             // off
    CHECK(schedule(in).ready == moment("2026-05-06T19:30"));
    in.changed.clear();
    const auto latest = schedule(in).start_by;
    in.margin = Minutes(24 * 60);
    REQUIRE(latest);
    CHECK(*schedule(in).start_by <= *latest - std::chrono::hours(12));
    in.begin_on = moment("2026-05-06T00:00");
    CHECK(schedule(in).begin == moment("2026-05-06T18:30"));
}

TEST_CASE("cold or damp slows water-based coats by the table, and what is laid as film not") {
    const auto& table = library().trade.slowing;
    CHECK(slowed_by(table, 20, 50) == 1);
    CHECK(slowed_by(table, 15, 50) == 1.5);
    CHECK(slowed_by(table, 20, 75) == 1.5);
    CHECK(slowed_by(table, 10, 50) == 2);
    CHECK(slowed_by(table, 20, 90) == 2);
    Shop shop = usual_shop();
    const auto waits = [&](const Job& job) {
        return plan(job, shop, library(), moment("2026-05-04T18:00")).clock->chain_waits;
    };
    const Minutes usual = waits(porch_board());
    shop.room_celsius = 10;
    // All waits of the porch board are for water-based coats, but for the time until soft, which is told by touch.
    CHECK(waits(porch_board()) == (usual - Minutes(15)) * 2 + Minutes(15));
}

TEST_CASE("a coat that takes longer than its masks may wait is told as the chain that it is") {
    const auto told = [](const Job& job) {
        const Plan plan = plan_of(job);
        return std::count_if(plan.problems.begin(), plan.problems.end(),
                             [](const Problem& p) { return p.what.id == "clock.window-too-short"; });
    };
    Job job = porch_board();
    CHECK(told(job) == 0);  // nine letters in eighteen minutes, within an hour
    finish_of(job).lift = Lift::Wet;
    CHECK(told(job) == 1);  // eighteen minutes, within ten
    lettering(job).words = "BOAT";
    CHECK(told(job) == 0);  // eight
}
