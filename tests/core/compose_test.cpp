#include "lettering/compose.h"

#include <random>
#include <set>

#include "blank/kinds.h"
#include "job/face_commands.h"
#include "rapidcheck.h"
#include "support_blank.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

ComposeWish wish_for(const std::string& saying, std::vector<std::size_t> stress = {}) {
    return {saying, std::move(stress), typeface("Bebas Neue"), typeface("Lobster Two", "Bold"), measure("3/8"), false,
            {}};
}

LetteringRoom box_room(double wide, double high) {
    const Box box = box_in(0, 0, wide, high);
    return {box, {}, box, false, {}, {}};
}

bool plan_has_plain(const Proposal& p) {
    return std::any_of(p.lines.begin(), p.lines.end(), [](const ComposedLine& l) { return !l.stressed; });
}

void check_bounds(const ComposeWish& wish, const Proposals& proposals) {
    std::set<std::vector<std::string>> breaks;
    for (const Proposal& p : proposals.best) {
        std::vector<std::string> lines;
        Length strong{};
        Length plain{};
        for (const ComposedLine& l : p.lines) {
            lines.push_back(l.words);
            const auto words = words_of(l.words);
            RC_ASSERT(l.stressed || words.size() > 1 || letters_of(words[0]).size() > 3 ||
                      words_of(wish.saying).size() == 1);
            if (l.stressed) strong = strong == Length{} ? l.cap_height : std::min(strong, l.cap_height);
            if (!l.stressed) plain = std::max(plain, l.cap_height);
        }
        RC_ASSERT(breaks.insert(lines).second);
        RC_ASSERT(std::max(p.fill_across, p.fill_up) >= 0.9);
        RC_ASSERT(p.fill_across <= 1.0001);
        RC_ASSERT(p.fill_up <= 1.0001);
        if (strong > Length{} && plan_has_plain(p)) RC_ASSERT(strong > plain);
    }
}

}  // namespace

TEST_CASE("proposals for a saying keep their bounds, and no way to break it does better") {
    CHECK(rc::check([] {
        std::string saying;
        const int n = *rc::gen::inRange(4, 9);
        for (int i = 0; i < n; ++i)
            saying += (i > 0 ? " " : "") + *rc::gen::element<std::string>("PULL", "TOGETHER", "REST", "EVENING", "TIDE",
                                                                          "HOME", "THE", "OARS", "A");
        std::vector<std::size_t> stress;
        if (*rc::gen::arbitrary<bool>()) stress.push_back(static_cast<std::size_t>(*rc::gen::inRange(0, n)));
        const ComposeWish wish = wish_for(saying, stress);
        const LetteringRoom room = box_room(*rc::gen::inRange(10, 40), *rc::gen::inRange(8, 40));
        const Proposals found = compose(wish, room, library().typefaces);
        check_bounds(wish, found);
        // Every way to break it, by a second path: none scores below the best.
        double best = 1e9;
        std::size_t allowed = 0;
        for (unsigned mask = 0; mask < (1U << (n - 1)); ++mask) {
            std::vector<bool> ends;
            for (int i = 0; i + 1 < n; ++i) ends.push_back(((mask >> i) & 1U) != 0);
            if (const auto p = compose_as(wish, ends, room, library().typefaces)) {
                best = std::min(best, p->score);
                ++allowed;
            }
        }
        RC_ASSERT(found.best.empty() == (allowed == 0));
        if (!found.best.empty()) RC_ASSERT(found.best.front().score == best);
        RC_ASSERT(found.best.size() >= std::min<std::size_t>(3, allowed));
    }));
}

TEST_CASE("a proposal taken becomes texts that come out as it said, and can be changed") {
    Job job = porch_board();
    job.signs.front().blank.stock.clear();
    job.signs.front().blank.kind = Kind::Panel;
    job.signs.front().blank.length = measure("30");
    job.signs.front().blank.width = measure("24");
    job.signs.front().blank.clear.clear();
    lettering(job).words = "PULL TOGETHER THEN REST TOGETHER";
    const Plan before = plan_of(job);
    const LetteringRoom room = room_of(job.signs.front().blank, *before.colours[0].face->blank);
    const ComposeWish wish = wish_for(lettering(job).words, {1, 4});
    const Proposals found = compose(wish, room, library().typefaces);
    REQUIRE(found.best.size() >= 3);
    for (const Proposal& p : found.best) {
        CHECK(p.why.size() >= 2);
        const Job taken = take_proposal(job, {0, 0}, p, wish);
        const auto& texts = taken.signs[0].faces[0].lettering.texts;
        REQUIRE(texts.size() == p.lines.size());
        const LetteringPlan placed = *plan_of(taken).colours[0].face->lettering;
        CHECK(placed.problems.empty());
        for (std::size_t i = 0; i < texts.size(); ++i) {
            CHECK(texts[i].words == p.lines[i].words);
            CHECK(placed.texts[i].cap_height.in_inches() == Approx(p.lines[i].cap_height.in_inches()).epsilon(0.03));
        }
    }
    lettering(job).locked = true;
    CHECK(take_proposal(job, {0, 0}, found.best[0], wish).signs[0].faces[0].lettering.texts.size() ==
          found.best[0].lines.size() + 1);
}

TEST_CASE("every proposal, on every kind of blank, keeps its bounds when it is taken") {
    CHECK(rc::check([] {
        Job job = porch_board();
        Blank& blank = job.signs.front().blank;
        blank = as_kind(blank, *rc::gen::element(Kind::Panel, Kind::Canvas, Kind::Round, Kind::Arrow, Kind::Arch,
                                                 Kind::Board, Kind::Drawn));
        blank.clear.clear();
        if (blank.kind == Kind::Drawn)
            blank.outline = DrawnOutline{Region::from_rings({{{0, 0}, {90'000, 40'000}, {0, 80'000}}}), true,
                                         measure("30"), "pennant.svg"};
        if (blank.kind == Kind::Arrow) blank.length = measure(*rc::gen::element("9 1/4", "20", "36"));
        if (blank.kind == Kind::Board) blank.stands = Stands::Level;
        const int n = *rc::gen::inRange(2, 9);
        std::string saying;
        for (int i = 0; i < n; ++i)
            saying += (i > 0 ? " " : "") +
                      *rc::gen::element<std::string>("Pull", "Together", "TO", "the", "Evening", "rope", "I", "Oars");
        std::vector<std::size_t> stress;
        if (*rc::gen::arbitrary<bool>()) stress.push_back(static_cast<std::size_t>(*rc::gen::inRange(0, n)));
        ComposeWish wish{saying, stress, {}, {}, measure(*rc::gen::element("1/4", "1/2")), false, {}};
        wish.plain = *rc::gen::element(typeface("Bebas Neue"), typeface("Lobster Two", "Bold"));
        wish.stressed = (*rc::gen::elementOf(library().typefaces)).name;
        wish.to_shape = blank.kind != Kind::Panel && blank.kind != Kind::Board && *rc::gen::arbitrary<bool>();
        const LetteringRoom room = room_of(blank, measured(blank));
        const Proposals found = compose(wish, room, library().typefaces);
        RC_ASSERT(!found.best.empty() || !found.problems.empty());
        for (const Proposal& p : found.best) {
            const Job taken = take_proposal(job, {0, 0}, p, wish);
            const LetteringPlan placed = place(taken.signs[0].faces[0].lettering, room, library().typefaces);
            for (const Problem& problem : placed.problems) RC_ASSERT(problem.mark != Mark::Stop);
            RC_ASSERT(placed.texts.size() == p.lines.size());
            Length most_plain, most_strong, least_strong;
            for (std::size_t i = 0; i < p.lines.size(); ++i) {
                const Length cap = placed.texts[i].cap_height;
                (p.lines[i].stressed ? most_strong : most_plain) =
                    std::max(p.lines[i].stressed ? most_strong : most_plain, cap);
                if (p.lines[i].stressed) least_strong = least_strong == Length{} ? cap : std::min(least_strong, cap);
            }
            for (std::size_t i = 0; i < p.lines.size(); ++i) {
                const Length cap = placed.texts[i].cap_height;
                const Length fellows = p.lines[i].stressed ? most_strong : most_plain;
                RC_ASSERT(p.lines[i].small || (cap * 2.04 >= fellows && cap >= 0.37_in));
            }
            if (least_strong > Length{}) RC_ASSERT(most_plain <= least_strong);
            const double across = static_cast<double>(placed.ink.width()) / static_cast<double>(room.usable.width());
            const double up = static_cast<double>(placed.ink.height()) / static_cast<double>(room.usable.height());
            RC_ASSERT(std::max(across, up) >= 0.9);
        }
    }));
}

TEST_CASE("of twenty-four words no way to break them does better, and no quicker way is taken") {
    std::mt19937 any(7);
    const std::vector<std::string> words{"PULL", "TOGETHER", "REST", "EVENING", "TIDE", "HOME", "OARS", "MOORING"};
    for (int saying_number = 0; saying_number < 9; ++saying_number) {
        std::string saying;
        for (int i = 0; i < 24; ++i) saying += words[any() % words.size()] + " ";
        std::vector<std::size_t> stress;
        for (int i = saying_number % 3; i > 0; --i) stress.push_back(any() % 24);
        const ComposeWish wish = wish_for(saying, stress);
        const LetteringRoom room = box_room(24 + any() % 24, 24 + any() % 24);
        const Proposals found = compose(wish, room, library().typefaces);
        CHECK(found.all_tried);
        REQUIRE(!found.best.empty());
        // By a second path: from the best and from anywhere, one break more or less.
        for (int start = 0; start < 3; ++start) {
            std::vector<bool> ends(23);
            std::size_t at = 0;
            for (const ComposedLine& l : found.best.front().lines) {
                at += words_of(l.words).size();
                if (start == 0 && at < 24) ends[at - 1] = true;
            }
            for (std::size_t i = 0; start > 0 && i < 23; ++i) ends[i] = any() % 3 == 0;
            for (std::size_t step = 0; step < 23; ++step) {
                ends[step] = !ends[step];
                const auto p = compose_as(wish, ends, room, library().typefaces);
                if (p) CHECK(p->score >= found.best.front().score - 1e-12);
                ends[step] = !ends[step];
            }
        }
    }
}

TEST_CASE("a long saying is composed too, and nothing cannot be") {
    std::string saying;
    for (int i = 0; i < 30; ++i) saying += "MOORING ";
    CHECK(compose(wish_for(saying), box_room(30, 30), library().typefaces).best.size() >= 3);
    CHECK_FALSE(compose(wish_for("  "), box_room(30, 30), library().typefaces).problems.empty());
    CHECK(compose(wish_for("TEA"), box_room(30, 30), library().typefaces).best.size() == 1);
}
