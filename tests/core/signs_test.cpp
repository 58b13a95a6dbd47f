// Jobs that the slice's window does not show yet, and that the core already plans: several signs, boards of both ways,
// and what is cut on each.
#include <set>

#include "files/cut_file.h"
#include "job/commands.h"
#include "sheets/sheets.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

Job two_signs() {
    Job job = porch_board();
    Job other = long_board();
    Sign sign = other.signs.front();
    make_new(job, sign);
    job.signs.push_back(sign);
    return job;
}

// Every section of a plan, film and ink, as the cut files have them.
double ink_of(const Plan& plan) {
    double area = 0;
    for (const ColourPlan& face : plan.colours) {
        for (const Load& load : face.cut.loads->loads) {
            for (const Placement& p : load.placements)
                area += lay_on_mat(face.cut.loads->sections[p.section], p).cut.area_mm2();
        }
    }
    return area;
}

}  // namespace

TEST_CASE("a job of two signs plans both, on one pair of hands") {
    const Plan plan = plan_of(two_signs());
    REQUIRE(plan.colours.size() == 2);
    CHECK(plan.colours[0].cut.making.way == Way::PaintThrough);
    CHECK(plan.colours[1].cut.making.way == Way::Decal);
    std::set<StepId> ids;
    for (const Task& task : *plan.tasks) ids.insert(task.id);
    CHECK(ids.size() == plan.tasks->size());
    CHECK(ids.contains(StepId{"1/sand"}));
    CHECK(ids.contains(StepId{"2/sand"}));
    for (std::size_t i = 1; i < plan.clock->slots.size(); ++i) {
        CHECK(plan.clock->slots[i].start >= plan.clock->slots[i - 1].end);
    }
    const auto files = cut_files(plan, usual_shop());
    std::set<std::string> names;
    for (const CutFile& f : files) names.insert(f.name);
    CHECK(names.size() == files.size());
    CHECK(files.size() == plan.colours[0].cut.loads->loads.size() + plan.colours[1].cut.loads->loads.size());
}

TEST_CASE("a job file holds several signs") {
    const Job job = two_signs();
    CHECK(*read_job(write_job(job)) == job);
}

TEST_CASE("what is laid on the mats is the ink, all of it, once") {
    for (const Job& job : {porch_board(), long_board(), two_signs()}) {
        const Plan plan = plan_of(job);
        double ink = 0;
        for (const ColourPlan& face : plan.colours) {
            for (const Piece& p : *face.cut.pieces) ink += p.shape.area_mm2();
        }
        CHECK(ink_of(plan) == Approx(ink).epsilon(1e-6));
    }
}

TEST_CASE("loads keep inside the mat's usable area, whichever way the sections are turned") {
    const Shop shop = usual_shop();
    for (const char* words : {"BOATHOUSE", "TEA", "I", "MMMMMMMM", "SLIPWAY"}) {
        Job job = porch_board();
        lettering(job).words = words;
        const Plan plan = plan_of(job);
        const LoadsPlan& loads = *plan.colours.front().cut.loads;
        INFO(words);
        CHECK(loads.problems.empty());
        for (const Load& load : loads.loads) {
            std::vector<Region> lying;
            for (const Placement& p : load.placements) {
                const LaidSection laid = lay_on_mat(loads.sections[p.section], p);
                const Box box = laid.film.bounds();
                CHECK(box.low.x >= 0);
                CHECK(box.low.y >= 0);
                CHECK(box.high.x <= to_grid(shop.mat.usable.across));
                CHECK(box.high.y <= to_grid(shop.mat.usable.along));
                for (const Region& other : lying) {
                    CHECK(intersect(grow(laid.film, section_gap - 0.015625_in), other).empty());
                }
                lying.push_back(laid.film);
                CHECK(from_grid(box.high.y) + 0.5_in <= load.film_length);
            }
            CHECK(load.share > 0);
            CHECK(load.share <= 1);
        }
    }
}

TEST_CASE("another mat, another number of loads") {
    Shop shop = usual_shop();
    const auto loads = [&](Length across, Length along) {
        shop.mat.usable = {across, along};
        shop.mat.width = across + 0.5_in;
        shop.mat.length = along + 0.5_in;
        const Plan p = plan(porch_board(), shop, library(), moment("2026-05-04T18:00"));
        return std::pair{p.colours.front().cut.loads->sections.size(), p.colours.front().cut.loads->loads.size()};
    };
    CHECK(loads(11.5_in, 23.5_in) == std::pair<std::size_t, std::size_t>{3, 2});
    CHECK(loads(11.5_in, 60_in) == std::pair<std::size_t, std::size_t>{1, 1});
    CHECK(loads(11.5_in, 11.5_in).second >= 3);
    CHECK(loads(4_in, 4_in).first > 9);  // smaller than a letter: they are crossed
}

TEST_CASE("a mat smaller than a letter crosses it, and says so") {
    Shop shop = usual_shop();
    shop.mat.usable = {4_in, 4_in};
    const Plan p = plan(porch_board(), shop, library(), moment("2026-05-04T18:00"));
    const LoadsPlan& loads = *p.colours.front().cut.loads;
    CHECK(loads.crossings > 0);
    bool said = false;
    for (const Seam& s : loads.seams) said = said || (s.why.id == "seam.crosses" && s.crossed > Length{});
    CHECK(said);
    CHECK(std::any_of(loads.why.begin(), loads.why.end(),
                      [](const Reason& r) { return r.id == "sections.why-crossed"; }));
}

TEST_CASE("on a level board what is cut is planned around as well") {
    const Shop shop = usual_shop();
    Job job = long_board();
    const Plan before = plan_of(job);
    const LoadsPlan& loads = *before.colours.front().cut.loads;
    REQUIRE(loads.loads.size() > 1);
    job = tick(job, before, StepId{"1/cut/" + loads.loads.front().name}, moment("2026-05-04T19:00"));
    REQUIRE(job.bench.cut.size() == 1);
    const Plan after = plan_of(job);
    const LoadsPlan& rest = *after.colours.front().cut.loads;
    CHECK(rest.misfits.empty());
    std::multiset<std::string> letters_before, letters_after;
    for (const Section& s : loads.sections) {
        for (const Piece& p : s.pieces) letters_before.insert(p.letters);
    }
    for (const Section& s : rest.sections) {
        for (const Piece& p : s.pieces) letters_after.insert(p.letters);
    }
    CHECK(letters_before == letters_after);
    CHECK(cut_files(after, shop).size() == rest.loads.size() - 1);
}

TEST_CASE("section names and file names say the letters, safely") {
    CHECK(file_word("BOAT+HOUS") == "BOAT+HOUS");
    CHECK(file_word("THE BELL / ERRY HO") == "THE-BELL-ERRY-HO");
    CHECK(file_word("../../etc") == "etc");
    CHECK(file_word("   ") == "job");
    CHECK(file_word("ÅÉ") == "ÅÉ");
    CHECK(file_word(std::string(500, 'x')).size() <= 60);
    Job job = porch_board();
    lettering(job).words = "A/B<&\"";
    for (const CutFile& f : cut_files(plan_of(job), usual_shop())) {
        CHECK(f.name.find('/') == std::string::npos);
        CHECK(f.bytes.find("<title>") != std::string::npos);
        CHECK(f.bytes.find("B<&") == std::string::npos);
    }
}

TEST_CASE("what to buy follows what is planned, and film already cut is not bought twice") {
    const Shop shop = usual_shop();
    Job job = porch_board();
    const auto film = [&](const Plan& plan) {
        for (const ShoppingItem& item : plan.colours.front().shopping) {
            if (item.what.id == "buy.film") return std::get<Length>(item.how_much.arguments.front().second);
        }
        return Length{};
    };
    const Plan all = plan_of(job);
    CHECK(film(all) == all.colours.front().cut.loads->film_total);
    job = tick(job, all, StepId{"1/cut/BOAT+HOUS"}, moment("2026-05-04T19:00"));
    CHECK(film(plan_of(job)) == 6_in);
    std::set<std::string> things;
    for (const ShoppingItem& item : all.colours.front().shopping) things.insert(item.what.id);
    CHECK(things == std::set<std::string>{"buy.board", "buy.film", "buy.tape", "buy.ground", "buy.colour", "buy.clear",
                                          "buy.tool", "buy.paper", "buy.put-on-brush"});
}

TEST_CASE("the longest chain of waits is the longest of all paths") {
    CHECK(rc::check([] {
        const auto n = *rc::gen::inRange<std::size_t>(1, 9);
        std::vector<Task> tasks;
        for (std::size_t i = 0; i < n; ++i) {
            Task t;
            t.id.name = std::to_string(i);
            t.hands_on = Minutes(*rc::gen::inRange(1, 60));
            for (std::size_t j = 0; j < i; ++j) {
                if (*rc::gen::arbitrary<bool>())
                    t.waits.push_back({j, Minutes(*rc::gen::inRange(0, 600)), std::nullopt, {}});
            }
            tasks.push_back(t);
        }
        // Every path, by brute force: its length with hands-on times, and its waits alone.
        std::pair<long, long> best{0, 0};
        const std::function<void(std::size_t, long, long)> walk = [&](std::size_t at, long length, long waits) {
            length += tasks[at].hands_on.count();
            if (length > best.first) best = {length, waits};
            for (const Wait& w : tasks[at].waits)
                walk(w.after, length + w.at_least.count(), waits + w.at_least.count());
        };
        for (std::size_t i = 0; i < n; ++i) walk(i, 0, 0);
        const Schedule s = schedule({tasks, usual_shop().hours, {}, {}, {}, moment("2026-05-04T12:00")});
        long total = 0;
        for (const Wait& w : s.chain) total += w.at_least.count();
        RC_ASSERT(total == s.chain_waits.count());
        RC_ASSERT(s.ready - s.begin >= Minutes(best.first));
        // Ties between paths may have other waits; the length is what decides.
        RC_ASSERT(s.chain_waits.count() <= best.first);
    }));
}

TEST_CASE("no order of few tasks is ready long before the planned one") {
    // Brute force over orders on small batches: the forward rule may lose to the best order by a sitting, not by days.
    CHECK(rc::check([] {
        const auto n = *rc::gen::inRange<std::size_t>(2, 6);
        std::vector<Task> tasks;
        for (std::size_t i = 0; i < n; ++i) {
            Task t;
            t.id.name = std::to_string(i);
            t.hands_on = Minutes(*rc::gen::inRange(10, 90));
            for (std::size_t j = 0; j < i; ++j) {
                if (*rc::gen::inRange(0, 2) == 0)
                    t.waits.push_back({j, Minutes(*rc::gen::inRange(0, 300)), std::nullopt, {}});
            }
            tasks.push_back(t);
        }
        Hours all_day;
        for (auto& day : all_day.days) day = {{0, 24 * 60}};
        const Moment now = moment("2026-05-04T00:00");
        std::vector<std::size_t> order(n);
        for (std::size_t i = 0; i < n; ++i) order[i] = i;
        Moment best = now + std::chrono::days(100);
        do {
            std::vector<std::optional<Moment>> end(n);
            Moment free = now;
            bool possible = true;
            for (const std::size_t i : order) {
                Moment start = free;
                for (const Wait& w : tasks[i].waits) {
                    if (!end[w.after]) {
                        possible = false;
                        break;
                    }
                    start = std::max(start, *end[w.after] + w.at_least);
                }
                if (!possible) break;
                free = start + tasks[i].hands_on;
                end[i] = free;
            }
            if (possible) best = std::min(best, free);
        } while (std::next_permutation(order.begin(), order.end()));
        const Schedule s = schedule({tasks, all_day, {}, {}, {}, now});
        RC_ASSERT(s.ready >= best);
        RC_ASSERT(s.ready - best <= Minutes(24 * 60));
    }));
}
