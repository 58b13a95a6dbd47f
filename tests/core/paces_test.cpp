// How long work takes: what a task's minutes are made of, the maker's own paces, and what finished jobs teach.
#include "clock/tasks.h"

#include <soci/soci.h>
#include <soci/sqlite3/soci-sqlite3.h>
#include <cmath>
#include <filesystem>

#include "files/job_file.h"
#include "job/commands.h"
#include "loads/knife.h"
#include "logbook/logbook.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

const Moment monday = moment("2026-05-04T18:00");

const Task& task_of(const Plan& plan, Work work) {
    for (const Task& t : *plan.tasks) {
        if (t.work == work) return t;
    }
    throw std::runtime_error("no such work");
}

}  // namespace

TEST_CASE("the minutes of every task are made of paces, and of nothing else") {
    const HandsOn& hands = library().trade.hands_on;
    for (const Job& job : {porch_board(), long_board(), panel_job("TEA")}) {
        const Plan plan = plan_of(job);
        for (const Task& t : *plan.tasks) {
            double minutes = 0;
            for (const WorkPart& part : t.parts) {
                CHECK((part.pace.empty() || pace_of(hands, part.pace)));
                minutes += part.amount * pace_of(hands, part.pace).value_or(1);
            }
            INFO(t.id.name);
            CHECK(t.hands_on == Minutes(static_cast<int>(std::ceil(minutes))));
        }
    }
    CHECK_FALSE(pace_of(hands, "no-such-pace"));
}

TEST_CASE("weeding is reckoned from letters, keepers and the length of what is cut") {
    const Plan plan = plan_of(porch_board());
    const Task& weed = task_of(plan, Work::Weed);
    const LoadsPlan& loads = *plan.colours.front().cut.loads;
    double letters = 0, feet = 0;
    for (const Placement& p : loads.loads.front().placements) {
        letters += loads.sections[p.section].letter_count;
        for (const Piece& piece : loads.sections[p.section].pieces) {
            for (const Ring& ring : piece.shape.rings()) {
                for (std::size_t i = 0; i < ring.size(); ++i) {
                    const Point a = ring[i], b = ring[(i + 1) % ring.size()];
                    feet += std::hypot(inches(a.x - b.x), inches(a.y - b.y)) / 12;
                }
            }
        }
    }
    std::map<std::string, double> parts;
    for (const WorkPart& p : weed.parts) parts[p.pace] = p.amount;
    CHECK(parts["weed-small"] + parts["weed-large"] == letters);
    CHECK(parts["weed-ft"] == Approx(feet));
}

TEST_CASE("a pace of the shop's own counts in every plan, and one of a name that is not known does nothing") {
    const Job job = porch_board();
    Shop shop = usual_shop();
    const Plan usual = plan(job, shop, library(), monday);
    shop.paces = {{"lay", 20 * 60}, {"lay-hinged", 20 * 60}, {"sing", 1}};
    const Plan slow = plan(job, shop, library(), monday);
    CHECK(task_of(slow, Work::Lay).hands_on == Minutes(20));
    CHECK(task_of(slow, Work::Weed).hands_on == task_of(usual, Work::Weed).hands_on);
    CHECK(slow.clock->hands_on > usual.clock->hands_on);
}

TEST_CASE("a machine cuts one load after the other, weeding waits for the knife, and hands weed while it cuts") {
    Shop shop = usual_shop();
    for (Machine& m : shop.machines) m.knife.speed_mm_s = 2;
    const Plan plan = skarvel::plan(long_board(), shop, library(), monday);
    std::vector<const Slot*> cuts;
    std::map<std::string, const Slot*> weeds;
    for (const Slot& s : plan.clock->slots) {
        const Task& t = (*plan.tasks)[s.task];
        if (t.work == Work::Cut) cuts.push_back(&s);
        if (t.work == Work::Weed) weeds[name_of(t.id)->which] = &s;
    }
    REQUIRE(cuts.size() > 1);
    const auto& loads = plan.colours.front().cut.loads;
    const Knife knife = machine_of(shop, plan.colours.front().cut.bed).knife;
    bool while_it_cuts = false;
    for (std::size_t i = 0; i < cuts.size(); ++i) {
        const Minutes at_it = knife_time(loads->loads[i], loads->sections, knife);
        CHECK(at_it > Minutes(1));
        CHECK(weeds.at(loads->loads[i].key)->start >= cuts[i]->end + at_it);
        if (i + 1 == cuts.size()) continue;
        CHECK(cuts[i + 1]->start >= cuts[i]->end + at_it);
        for (const Slot& s : plan.clock->slots)
            while_it_cuts = while_it_cuts || (s.start >= cuts[i]->end && s.end <= cuts[i]->end + at_it);
        // Near to what the knife's whole way comes to.
        const double way =
            knife_way(on_mat(loads->loads[i], loads->sections, plan.colours.front().id), knife).seconds / 60.0;
        CHECK(static_cast<double>(at_it.count()) == Approx(way).margin(1 + way * 0.2));
    }
    CHECK(while_it_cuts);
}

TEST_CASE("what a step took is kept where it can be the work, and taught to what follows") {
    Job job = porch_board();
    const Task proof = task_of(plan_of(job), Work::Proof);
    const StepId sand = task_of(plan_of(job), Work::Sand).id;
    const Minutes planned = task_of(plan_of(job), Work::Sand).hands_on;
    // Twice as long as planned; a whole night is a break, and a tick without its beginning says nothing.
    const Job ticked = tick(job, plan_of(job), sand, monday + 2 * planned, monday);
    REQUIRE(ticked.bench.took.size() == 1);
    CHECK(ticked.bench.took.front() == Took{sand, static_cast<int>(2 * planned.count())});
    CHECK(tick(job, plan_of(job), sand, monday + std::chrono::hours(12), monday).bench.took.empty());
    CHECK(tick(job, plan_of(job), sand, monday + planned).bench.took.empty());
    CHECK(untick(ticked, sand).bench.took.empty());
    // Since the tick before, where that is later.
    const Job signed_first = tick(job, plan_of(job), proof.id, monday);
    const Plan after = plan_of(ticked);
    const StepId ground = task_of(after, Work::Ground).id;
    const Job two = tick(ticked, after, ground, monday + 2 * planned + Minutes(10), monday);
    CHECK(two.bench.took.back() == Took{ground, 10});
    CHECK(took(two, ground, 0).bench.took.size() == 1);
    CHECK(took(two, ground, 9999).bench.took.back().minutes == 24 * 60);

    job = finish(ticked, Outcome::Good, "", monday + std::chrono::hours(3));
    const HandsOn& table = library().trade.hands_on;
    const Lessons lessons =
        lessons_of(job, plan_of(job, "2026-05-04T22:00"), table, library().catalogue, usual_shop().display);
    const auto sanded =
        std::find_if(lessons.paces.begin(), lessons.paces.end(), [](const PaceRecord& r) { return r.pace == "sand"; });
    REQUIRE(sanded != lessons.paces.end());
    CHECK(sanded->minutes == Approx(2 * sanded->amount * table.sand_per_sqft).epsilon(0.1));
    // The table is worth three steps: twice as slow once comes to five quarters.
    const auto once = taught({{0, "", "", "", "sand", 2, 2 * 2 * table.sand_per_sqft}}, table);
    REQUIRE(once.size() == 1);
    CHECK(once.front().minutes == Approx(1.25 * table.sand_per_sqft));
    CHECK(once.front().times == 1);
    CHECK(taught({{0, "", "", "", "sing", 2, 9}, {0, "", "", "", "sand", 0, 9}}, table).empty());
}

TEST_CASE("a step done in two ways is kept, judged, and written into the logbook with the rest") {
    Job job = porch_board();
    const Plan plan = plan_of(job);
    const StepId ground = task_of(plan, Work::Ground).id;
    CHECK(try_two_ways(job, plan, {StepId{"gone"}, Halves::LeftRight, "a", "b", Better::NotYet}) == job);
    job = try_two_ways(job, plan, {ground, Halves::TopBottom, "two thin coats", "one thick", Better::NotYet});
    REQUIRE(job.bench.trials.size() == 1);
    job = judge_trial(job, ground, Better::First);
    CHECK(read_job(write_job(job)).value() == job);
    const auto folder = std::filesystem::temp_directory_path() / "skarvel-paces-test";
    std::filesystem::remove_all(folder);
    std::filesystem::create_directories(folder);
    {
        // A logbook as it was before it learned anything is opened, and keeps what it has.
        soci::session old(soci::sqlite3, (folder / "logbook.sqlite").string());
        old << "create table records (id integer primary key autoincrement, finished text not null, title text not "
               "null, customer text not null, words text not null, size text not null, making text not null, film text "
               "not null, paint text not null, film_length text not null, sections integer not null, loads integer not "
               "null, keepers integer not null, hands_on_minutes integer not null, elapsed_minutes integer not null, "
               "outcome text not null, note text not null)";
    }
    auto book = Logbook::open(folder / "logbook.sqlite");
    REQUIRE(book);
    job = tick(job, plan_of(job), ground, monday + Minutes(20), monday);
    const Lessons lessons = lessons_of(job, plan_of(job), library().trade.hands_on, library().catalogue, {});
    REQUIRE(book->add(record_of(job, plan_of(job), usual_shop()), lessons));
    const auto trials = book->trials();
    REQUIRE(trials);
    REQUIRE(trials->size() == 1);
    CHECK(trials->front().first == "two thin coats");
    CHECK(trials->front().better == "first");
    CHECK(trials->front().halves == "top-bottom");
    CHECK(book->paces()->size() == lessons.paces.size());
    CHECK_FALSE(lessons.paces.empty());
    job = try_two_ways(job, plan, {ground, Halves::LeftRight, "", "", Better::NotYet});
    CHECK(job.bench.trials.empty());
    std::filesystem::remove_all(folder);
}
