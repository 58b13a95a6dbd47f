// Facts of the trade about time, against the clock (common practice where no source is named), and batches against
// every order there is.
#include <glpk.h>
#include <rapidcheck.h>

#include <numeric>

#include "clock/network.h"
#include "files/save.h"
#include "job/commands.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

Moment first_of(const Plan& plan, Work work, bool end = false) {
    for (const Step& s : plan.bench->steps) {
        if (s.work == work) return end ? s.start + s.hands_on : s.start;
    }
    throw std::runtime_error("no such work");
}
Moment last_of(const Plan& plan, Work work) {
    Moment at{};
    for (const Step& s : plan.bench->steps) {
        if (s.work == work) at = std::max(at, s.start + s.hands_on);
    }
    return at;
}

}  // namespace

TEST_CASE(
    "laid vinyl, 72 hours, three clear coats two hours apart, 24 hours: at least 100 hours to the porch (common "
    "practice)") {
    Job job = long_board();
    coat_in(job, clear_coat).coats = 3;
    const Plan plan = plan_of(job);
    CHECK(first_of(plan, Work::Clear) - last_of(plan, Work::Lay) >= std::chrono::hours(72));
    CHECK(first_of(plan, Work::Final) - last_of(plan, Work::Lay) >= std::chrono::hours(72 + 2 + 2 + 24));
}

TEST_CASE(
    "what is lifted soft comes off a quarter of an hour to an hour after the last stroke (common practice, from "
    "memory)") {
    const Plan plan = plan_of(porch_board());
    const auto gap = first_of(plan, Work::Lift) - last_of(plan, Work::Colour);
    CHECK(gap >= Minutes(15));
    CHECK(gap <= Minutes(60));
}

TEST_CASE("four arrows in shared rounds take less work than four times one (common practice)") {
    const auto four = read_job(*read_file(std::filesystem::path(SKARVEL_SOURCE) / "demo/four-arrows.skarvel"));
    REQUIRE(four);
    const Schedule together = *plan_of(*four).clock;
    Minutes singly{0};
    for (std::size_t i = 0; i < four->signs.size(); ++i) {
        Job one = *four;
        one.signs = {four->signs[i]};
        one.post.reset();
        singly += plan_of(one).clock->hands_on;
    }
    CHECK(together.setup_saved > Minutes(0));
    CHECK(together.hands_on < singly);
}

namespace {

// Hours that never close, so that nothing but waits and the one pair of hands counts: then a schedule is an order of
// the tasks, each as early as it may, and all orders of up to seven can be tried.
std::vector<Task> random_batch(std::size_t most) {
    const auto n = *rc::gen::inRange<std::size_t>(2, most + 1);
    std::vector<Task> tasks;
    for (std::size_t i = 0; i < n; ++i) {
        Task t;
        t.id.name = "t" + std::to_string(i);
        t.hands_on = Minutes(*rc::gen::inRange(5, 60));
        for (std::size_t k = 0; k < i; ++k) {
            if (*rc::gen::inRange(0, 3) == 0)
                t.waits.push_back({k, Minutes(*rc::gen::inRange(0, 120)), std::nullopt, {}});
        }
        tasks.push_back(std::move(t));
    }
    return tasks;
}

const Moment midnight = moment("2026-05-04T00:00");

Schedule on_open_hours(const std::vector<Task>& tasks) {
    Hours open;
    for (auto& day : open.days) day = {{0, 24 * 60}};
    return schedule({Shared<std::vector<Task>>(tasks), open, {}, {}, {}, midnight});
}

// The same as a mixed-integer programme (GNU Linear Programming Kit): beginnings as numbers, and for each two tasks one
// that says which comes first.
Minutes by_integer_programme(const std::vector<Task>& tasks) {
    const int n = static_cast<int>(tasks.size());
    double far = 0;
    for (const Task& t : tasks) {
        far += static_cast<double>(t.hands_on.count());
        for (const Wait& w : t.waits) far += static_cast<double>(w.at_least.count());
    }
    glp_term_out(GLP_OFF);
    glp_prob* lp = glp_create_prob();
    glp_set_obj_dir(lp, GLP_MIN);
    glp_add_cols(lp, n + 1);
    for (int i = 1; i <= n + 1; ++i) glp_set_col_bnds(lp, i, GLP_LO, 0, 0);
    glp_set_obj_coef(lp, n + 1, 1);
    const auto row = [&](std::vector<int> columns, std::vector<double> values, double least) {
        const int r = glp_add_rows(lp, 1);
        columns.insert(columns.begin(), 0);
        values.insert(values.begin(), 0);
        glp_set_row_bnds(lp, r, GLP_LO, least, 0);
        glp_set_mat_row(lp, r, static_cast<int>(columns.size()) - 1, columns.data(), values.data());
    };
    const auto length = [&](int i) {
        return static_cast<double>(tasks[static_cast<std::size_t>(i - 1)].hands_on.count());
    };
    for (int i = 1; i <= n; ++i) {
        row({n + 1, i}, {1, -1}, length(i));
        for (const Wait& w : tasks[static_cast<std::size_t>(i - 1)].waits) {
            const int before = static_cast<int>(w.after) + 1;
            row({i, before}, {1, -1}, length(before) + static_cast<double>(w.at_least.count()));
        }
        for (int k = i + 1; k <= n; ++k) {
            const int first = glp_add_cols(lp, 1);
            glp_set_col_kind(lp, first, GLP_BV);
            row({k, i, first}, {1, -1, -far}, length(i) - far);
            row({i, k, first}, {1, -1, far}, length(k));
        }
    }
    glp_iocp how;
    glp_init_iocp(&how);
    how.presolve = GLP_ON;
    how.msg_lev = GLP_MSG_OFF;
    REQUIRE(glp_intopt(lp, &how) == 0);
    const double end = glp_mip_obj_val(lp);
    glp_delete_prob(lp);
    return Minutes(std::lround(end));
}

}  // namespace

TEST_CASE("on open hours no order of up to seven tasks is ready sooner than the one that is found, and that is known") {
    CHECK(rc::check([&] {
        const std::vector<Task> tasks = random_batch(7);
        const std::size_t n = tasks.size();
        const Schedule found = on_open_hours(tasks);
        std::vector<std::size_t> order(n);
        std::iota(order.begin(), order.end(), 0);
        Moment best = midnight + std::chrono::hours(24 * 30);
        do {
            std::vector<Moment> ends(n);
            std::vector<bool> placed(n, false);
            Moment free = midnight;
            bool can = true;
            for (const std::size_t i : order) {
                Moment start = free;
                for (const Wait& w : tasks[i].waits) {
                    can = can && placed[w.after];
                    start = std::max(start, ends[w.after] + w.at_least);
                }
                ends[i] = free = start + tasks[i].hands_on;
                placed[i] = true;
            }
            if (can) best = std::min(best, free);
        } while (std::next_permutation(order.begin(), order.end()));
        RC_ASSERT(found.ready == best);
        RC_ASSERT(found.best);
    }));
}

TEST_CASE("a mixed-integer solver finds no sooner end for small batches (GLPK)") {
    int batches = 0;
    CHECK(rc::check([&] {
        if (++batches > 20) return;
        const std::vector<Task> tasks = random_batch(7);
        RC_ASSERT(on_open_hours(tasks).ready - midnight == by_integer_programme(tasks));
    }));
    CHECK(batches >= 10);
}

TEST_CASE(
    "one machine, heads and tails: the seven jobs of Carlier (1982) end at 50, where the longest tail first ends at "
    "53") {
    // J. Carlier, "The one-machine sequencing problem", European Journal of Operational Research 11: when each can
    // begin, how long it takes, and what must pass after it; written from memory. The one pair of hands is his machine.
    struct Given {
        int head, work, tail;
    };
    const std::vector<Given> given = {{10, 5, 7}, {13, 6, 26}, {11, 7, 24}, {20, 4, 21},
                                      {30, 3, 8}, {0, 6, 17},  {30, 2, 0}};
    std::vector<Task> tasks(1);
    tasks[0].id.name = "begin";
    for (const Given& g : given) {
        Task t;
        t.id.name = "job " + std::to_string(tasks.size());
        t.hands_on = Minutes(g.work);
        t.waits.push_back({0, Minutes(g.head), std::nullopt, {}});
        tasks.push_back(t);
    }
    Task over;
    over.id.name = "over";
    for (std::size_t i = 0; i < given.size(); ++i)
        over.waits.push_back({i + 1, Minutes(given[i].tail), std::nullopt, {}});
    tasks.push_back(over);
    const Schedule s = on_open_hours(tasks);
    CHECK(s.ready - midnight == Minutes(50));
    CHECK(s.best);
    // Schrage's rule: of what can begin, the longest tail first.
    std::vector<bool> done(given.size(), false);
    int at = 0, end = 0;
    for (std::size_t n = 0; n < given.size(); ++n) {
        std::optional<std::size_t> next;
        int soonest = 1000;
        for (std::size_t i = 0; i < given.size(); ++i) {
            if (!done[i]) soonest = std::min(soonest, given[i].head);
        }
        at = std::max(at, soonest);
        for (std::size_t i = 0; i < given.size(); ++i) {
            if (!done[i] && given[i].head <= at && (!next || given[i].tail > given[*next].tail)) next = i;
        }
        done[*next] = true;
        at += given[*next].work;
        end = std::max(end, at + given[*next].tail);
    }
    CHECK(end == 53);
}

TEST_CASE("the two commuters: the minimal network of Dechter, Meiri and Pearl (1991)") {
    // Their example 1.1, with John in his car and Fred in the carpool: 0 is seven o'clock, 1 John leaves home, 2 he
    // arrives, 3 Fred leaves home, 4 he arrives. Bounds and distances are theirs, written from memory.
    const auto m = [](int minutes) { return std::optional(Minutes(minutes)); };
    const std::vector<Bound> bounds = {
        {0, 1, m(10), m(20)}, {1, 2, m(30), m(40)}, {3, 2, m(10), m(20)}, {3, 4, m(40), m(50)}, {0, 4, m(60), m(70)}};
    const int published[5][5] = {{0, 20, 50, 30, 70},
                                 {-10, 0, 40, 20, 60},
                                 {-40, -30, 0, -10, 30},
                                 {-20, -10, 20, 0, 50},
                                 {-60, -50, -20, -40, 0}};
    const auto network = minimal_network(5, bounds);
    REQUIRE(network);
    for (std::size_t i = 0; i < 5; ++i) {
        for (std::size_t j = 0; j < 5; ++j) CHECK((*network)[i][j] == Minutes(published[i][j]));
    }
    // By bus, at least an hour, John cannot have come when he did.
    std::vector<Bound> by_bus = bounds;
    by_bus[1] = {1, 2, m(60), std::nullopt};
    CHECK_FALSE(minimal_network(5, by_bus));
    CHECK_FALSE(contradiction(5, by_bus).empty());
}

TEST_CASE("a critical path of waits and work ends where the textbook method has it (forward pass by hand)") {
    // A (3) before B (4) and C (2) before D (5), hands for all: the longest way is A, B, D.
    Hours open;
    for (auto& day : open.days) day = {{0, 24 * 60}};
    std::vector<Task> tasks(4);
    const int lengths[] = {180, 240, 120, 300};
    for (std::size_t i = 0; i < 4; ++i) {
        tasks[i].id.name = std::string(1, static_cast<char>('A' + i));
        tasks[i].hands_on = Minutes(lengths[i]);
    }
    tasks[1].waits = {{0, Minutes(0), {}, {}}};
    tasks[2].waits = {{0, Minutes(0), {}, {}}};
    tasks[3].waits = {{1, Minutes(0), {}, {}}, {2, Minutes(0), {}, {}}};
    ClockInput in{Shared<std::vector<Task>>(tasks), open, midnight + Minutes(12 * 60), {}, {}, midnight};
    in.hands = 2;
    const Schedule s = schedule(in);
    CHECK(s.ready == midnight + Minutes(720));
    CHECK(s.best);
    // C has two hours of float, the others none.
    CHECK(s.leeway[2].latest == s.leeway[2].earliest + std::chrono::hours(2));
    CHECK(s.leeway[1].latest == s.leeway[1].earliest);
}
