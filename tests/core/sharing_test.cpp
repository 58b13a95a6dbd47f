// Loads over the whole job: what shares one, the bound below which no sharing can go, and what a load leaves.
#include "loads/sharing.h"

#include "job/alternatives.h"
#include "job/commands.h"
#include "job/sign_commands.h"
#include "job/wish_commands.h"
#include "proof/proof.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

// A plan of sections that are rectangles of film, each with ink a quarter inch inside.
LoadsPlan any_plan(const Mat& bed) {
    std::vector<Piece> pieces;
    const int count = *rc::gen::inRange(1, 6);
    double left = 1;
    for (int i = 0; i < count; ++i) {
        const double wide = *rc::gen::inRange(8, 88) / 8.0;
        const double high = *rc::gen::inRange(8, 88) / 8.0;
        pieces.push_back({Region::rectangle(box_in(left, 1, left + wide, 1 + high)),
                          std::string(1, static_cast<char>('A' + i)), i, true, 0});
        left += wide + 6;
    }
    MakingPlan decal;
    decal.way = Way::Decal;
    decal.margin = 0.25_in;
    return plan_loads(pieces, box_in(0, 0, 120, 16), bed, decal, {});
}

Mat usual_bed() { return beds_of(usual_machines()).front(); }

// The largest free rectangle on a raster of eighths, two inches wide at least; what is touched by film is not free.
double largest_free_sq_in(const Box& film, const std::vector<Box>& taken) {
    const std::int64_t eighth = to_grid(0.125_in);
    const auto across = static_cast<std::size_t>(film.width() / eighth);
    const auto along = static_cast<std::size_t>(film.height() / eighth);
    std::vector<std::size_t> free_below(across, 0);
    std::size_t best = 0;
    for (std::size_t y = 0; y < along; ++y) {
        for (std::size_t x = 0; x < across; ++x) {
            const Box cell{{static_cast<std::int64_t>(x) * eighth, static_cast<std::int64_t>(y) * eighth},
                           {static_cast<std::int64_t>(x + 1) * eighth, static_cast<std::int64_t>(y + 1) * eighth}};
            const bool free =
                std::none_of(taken.begin(), taken.end(), [&](const Box& t) { return !common(cell, t).empty(); });
            free_below[x] = free ? free_below[x] + 1 : 0;
        }
        for (std::size_t x = 0; x < across; ++x) {
            std::size_t high = free_below[x];
            for (std::size_t to = x; to < across && high >= 16; ++to) {
                high = std::min(high, free_below[to]);
                if (high >= 16 && to - x + 1 >= 16) best = std::max(best, high * (to - x + 1));
            }
        }
    }
    return static_cast<double>(best) / 64;
}

}  // namespace

TEST_CASE("shared loads are no more than those apart, hold every section once, and are never fewer than their bound") {
    CHECK(rc::check([] {
        std::vector<Sharer> sharers;
        std::size_t apart = 0;
        std::vector<const LoadsPlan*> plans;
        for (int i = *rc::gen::inRange(2, 5); i > 0; --i) {
            const Shared<LoadsPlan> plan(any_plan(usual_bed()));
            apart += plan->loads.size();
            plans.push_back(plan.get());
            sharers.push_back(
                {ColourId{std::to_string(i)}, "permanent-gloss", "#112233", false, usual_bed(), section_gap, plan});
        }
        const SharedLoads shared = share_loads(sharers, {});
        std::size_t together = 0;
        for (std::size_t s = 0; s < sharers.size(); ++s) {
            const LoadsPlan& plan = *shared.plans[s];
            std::vector<int> seen(plan.sections.size(), 0);
            for (const Load& load : plan.loads) {
                for (const Placement& p : load.placements) ++seen[p.section];
                if (!load.carried_by.empty()) continue;
                ++together;
                // Its own and its guests keep a gap from each other, and lie on the bed.
                std::vector<Box> lying;
                for (const Placement& p : load.placements)
                    lying.push_back(box_on_mat(plan.sections[p.section].film.bounds(), p));
                for (const Guest& g : load.guests) lying.push_back(box_on_mat(g.section.film.bounds(), g.placement));
                const Box bed{{0, 0}, {to_grid(usual_bed().usable.across), to_grid(usual_bed().usable.along)}};
                for (std::size_t a = 0; a < lying.size(); ++a) {
                    RC_ASSERT(bed.holds(lying[a]));
                    for (std::size_t b = 0; b < a; ++b)
                        RC_ASSERT(common(grown(lying[a], section_gap - Length::nanometres(grid_nm)), lying[b]).empty());
                }
            }
            RC_ASSERT(std::all_of(seen.begin(), seen.end(), [](int n) { return n == 1; }));
        }
        RC_ASSERT(together <= apart);
        RC_ASSERT(static_cast<std::size_t>(shared.loads_saved) == apart - together);
        RC_ASSERT(static_cast<std::size_t>(least_loads_for(plans, usual_bed().usable)) <= together);
    }));
}

TEST_CASE(
    "scraps do together for a load that none does for alone: each section whole on one, the scraps whole on the bed") {
    const Mat bed = usual_bed();
    const auto scrap = [](const std::string& name, Length width, Length left) {
        return FilmStock{"permanent-gloss", "#112233", name, width, left, false};
    };
    CHECK(rc::check([&] {
        const Shared<LoadsPlan> plan(any_plan(bed));
        std::vector<FilmStock> drawer;
        for (int i = *rc::gen::inRange(0, 7); i > 0; --i)
            drawer.push_back(scrap("piece " + std::to_string(i), Length::inches(1) * *rc::gen::inRange(4, 48) / 4,
                                   Length::inches(1) * *rc::gen::inRange(4, 48) / 4));
        const SharedLoads shared =
            share_loads({{ColourId{"1"}, "permanent-gloss", "#112233", false, bed, section_gap, plan}}, drawer);
        const Box room{{0, 0}, {to_grid(bed.usable.across), to_grid(bed.usable.along)}};
        std::vector<std::string> used;
        RC_ASSERT(shared.plans.front()->loads.size() == plan->loads.size());
        RC_ASSERT(shared.plans.front()->problems == plan->problems);
        for (const Load& load : shared.plans.front()->loads) {
            if (load.scraps.empty()) {
                if (!load.from.empty()) used.push_back(load.from);
                continue;
            }
            for (std::size_t a = 0; a < load.scraps.size(); ++a) {
                const ScrapOnBed& s = load.scraps[a];
                used.push_back(s.name);
                RC_ASSERT(room.holds(s.at));
                for (std::size_t b = 0; b < a; ++b) RC_ASSERT(common(s.at, load.scraps[b].at).empty());
                const auto piece =
                    std::find_if(drawer.begin(), drawer.end(), [&](const FilmStock& f) { return f.name == s.name; });
                const std::int64_t wide = to_grid(piece->width);
                const std::int64_t high = to_grid(piece->left);
                RC_ASSERT((s.at.width() == wide && s.at.height() == high) ||
                          (s.at.width() == high && s.at.height() == wide));
            }
            for (const Placement& p : load.placements) {
                const Box lies = lay_on_mat(shared.plans.front()->sections[p.section], p).film.bounds();
                RC_ASSERT(std::count_if(load.scraps.begin(), load.scraps.end(),
                                        [&](const ScrapOnBed& s) { return s.at.holds(lies); }) == 1);
            }
        }
        std::sort(used.begin(), used.end());
        RC_ASSERT(std::adjacent_find(used.begin(), used.end()) == used.end());
    }));
    // Two letters far apart, two pieces: nothing off the roll, and both are gone from the drawer once it is cut.
    Job job = panel_job("H\nH", "20", "30");
    lettering(job).arrangement = Arrangement::Level;
    lettering(job).line_gap = measure("8");
    lettering(job).sizing = Sizing::CapHeight;
    lettering(job).size = measure("4");
    making(job).way = Way::Decal;
    making(job).film = "permanent-gloss";
    job.signs[0].faces[0].colours[0].paint.colour = "#112233";
    Shop shop = usual_shop();
    shop.drawer = {scrap("one end", 7_in, 6_in), scrap("other end", 6_in, 7_in), scrap("small", 2_in, 3_in)};
    const Plan now = plan(job, shop, library(), moment("2026-05-04T18:00"));
    const Load& load = now.colours.front().cut.loads->loads.front();
    REQUIRE(now.colours.front().cut.loads->loads.size() == 1);
    CHECK(leftovers_of(load) == "one end, other end");
    CHECK(now.film.empty());
    const Job cut = tick(job, now, step_id(first_colour, Work::Cut, load.key), moment("2026-05-04T18:30"));
    const Booked booked = book_film(cut, shop, 0);
    REQUIRE(booked.shop.drawer.size() == 1);
    CHECK(booked.shop.drawer.front().name == "small");
}

TEST_CASE("masks that signs have alike are cut once and laid again, each lay after the lift before it") {
    Job job = panel_job("HO\nOH", "20", "12");
    lettering(job).arrangement = Arrangement::Level;
    for (const char* words : {"HO\nOH", "HO\nOH", "TEA"}) job = copy_sign(job, job.signs.size() - 1, words);
    const auto at = moment("2026-05-04T18:00");
    const Shop shop = usual_shop();
    const Plan apart = plan(job, shop, library(), at);
    const auto all = alternatives(job, first_colour, shop, library(), at);
    const auto offer = std::find_if(all.begin(), all.end(),
                                    [](const Alternative& a) { return a.what.id == "alternative.masks-again"; });
    REQUIRE(offer != all.end());
    const Plan now = plan(offer->job, shop, library(), at);
    CHECK(figures_of(now, first_colour).film < figures_of(apart, first_colour).film);
    CHECK(now.clock->hands_on < apart.clock->hands_on);
    const auto of = [](const Plan& p, std::size_t sign) -> const LoadsPlan& { return *p.colours[sign].cut.loads; };
    CHECK(of(now, 0).lent.empty());
    CHECK(of(now, 3).lent.empty());  // other words
    std::map<StepId, Slot> slots;
    for (const Slot& slot : now.clock->slots) slots.emplace((*now.tasks)[slot.task].id, slot);
    for (const std::size_t sign : {1, 2}) {
        INFO("sign " << sign);
        const LoadsPlan& loads = of(now, sign);
        CHECK(loads.loads.empty());
        CHECK(loads.film_total == Length{});
        REQUIRE(loads.lent.size() == loads.sections.size());
        const ColourId& own = now.colours[sign].id;
        for (const Lent& lent : loads.lent) {
            CHECK(lent.of == now.colours.front().id);
            // The third sign has it from the second.
            const std::string& letters = loads.sections[lent.section].letters;
            CHECK(lent.lifted == step_id(now.colours[sign - 1].id, Work::Lift, letters));
            CHECK(slots.at(step_id(own, Work::Lay, letters)).start >= slots.at(lent.lifted).end);
            const auto laid = std::find_if(now.bench->steps.begin(), now.bench->steps.end(),
                                           [&](const Step& s) { return s.id == step_id(own, Work::Lay, letters); });
            CHECK(library().catalogue.say(laid->instruction, shop.display).find("was lifted from HO") !=
                  std::string::npos);
        }
    }
    const FileSet files = files_of(offer->job, now, shop);
    for (const CutFormat format : {CutFormat::Svg, CutFormat::Dxf, CutFormat::Hpgl}) {
        const Evidence evidence = prove(now, shop, files, format);
        CHECK(evidence.good());
        CHECK(evidence.as_cut.size() == 4);
    }
    // The proof looks at what is laid on the other signs: without it their ink is missing.
    FileSet without = files;
    std::string& manifest = without["manifest.json"];
    const auto other = manifest.find("\"of\": \"" + now.colours[2].id.name);
    REQUIRE(other != std::string::npos);
    manifest.replace(manifest.find("\"section\"", other), 12, "\"section\": 9");
    CHECK_FALSE(prove(now, shop, without, CutFormat::Svg).good());
    // Once the first sign's are cut they still do; and each sign may have its own again.
    Job cut = offer->job;
    for (const Task& task : *now.tasks) {
        if (task.work == Work::Cut) cut = tick(cut, now, task.id, moment("2026-05-04T19:00"));
    }
    const Plan later = plan(cut, shop, library(), moment("2026-05-04T19:00"));
    CHECK(of(later, 1).lent.size() == of(later, 1).sections.size());
    CHECK(of(later, 1).misfits.empty());
    CHECK(prove(later, shop, files_of(cut, later, shop), CutFormat::Svg).good());
    CHECK(masks_again(offer->job, now, false) == job);
    // What is another film, or asked for in vain, is cut, and told.
    Job other_film = masks_again(job, apart, true);
    other_film.signs[1].faces[0].colours[0].making.film = "reusable-sheet";
    other_film.signs[3].faces[0].colours[0].making.wishes.masks_again = true;
    const Plan told = plan(other_film, shop, library(), at);
    CHECK(of(told, 1).lent.empty());
    CHECK(of(told, 2).lent.front().lifted ==
          step_id(first_colour, Work::Lift, of(told, 2).sections[of(told, 2).lent.front().section].letters));
    const auto in_vain = [&](std::size_t sign) {
        return std::any_of(of(told, sign).problems.begin(), of(told, sign).problems.end(),
                           [](const Problem& p) { return p.what.id == "wish.no-mask-before"; });
    };
    CHECK(in_vain(1));
    CHECK_FALSE(in_vain(2));
    CHECK(in_vain(3));
}

TEST_CASE("no packing goes below the bound for mats, and large boxes need one each") {
    CHECK(rc::check([] {
        const Room room{11.5_in, 23.5_in};
        std::vector<Box> boxes;
        for (int i = *rc::gen::inRange(1, 9); i > 0; --i)
            boxes.push_back(
                box_in(20 * i, 0, 20 * i + *rc::gen::inRange(8, 90) / 8.0, *rc::gen::inRange(8, 180) / 8.0));
        RC_ASSERT(least_mats(boxes, room) <= static_cast<int>(pack(boxes, room, section_gap).loads.size()));
        std::vector<Box> large;
        const int count = *rc::gen::inRange(1, 9);
        for (int i = 0; i < count; ++i) large.push_back(box_in(20 * i, 0, 20 * i + 6, 18));
        RC_ASSERT(least_mats(large, room) == count);
    }));
}

TEST_CASE("what a load leaves is free, and there is no larger piece") {
    CHECK(rc::check([] {
        const Mat bed = usual_bed();
        const LoadsPlan plan = any_plan(bed);
        for (const Load& load : plan.loads) {
            const std::int64_t edge = (to_grid(bed.width) - to_grid(bed.usable.across)) / 2;
            const Box film{{0, 0}, {to_grid(bed.width), to_grid(load.film_length)}};
            std::vector<Box> taken;
            std::vector<std::int64_t> xs{0};
            std::vector<std::int64_t> ys{0};
            for (const Placement& p : load.placements) {
                Box lies = box_on_mat(plan.sections[p.section].film.bounds(), p);
                lies = {lies.low + Point{edge, 0}, lies.high + Point{edge, 0}};
                taken.push_back(lies);
                xs.push_back(lies.high.x);
                ys.push_back(lies.high.y);
            }
            const auto rest = rest_of(load, plan.sections, bed);
            const double raster = largest_free_sq_in(film, taken);
            if (!rest) {
                RC_ASSERT(raster == 0);
                continue;
            }
            // Each side is rounded down to an eighth.
            constexpr double eighth = 0.125;
            RC_ASSERT((rest->across.in_inches() + eighth) * (rest->along.in_inches() + eighth) > raster - 1e-6);
            RC_ASSERT(std::fmod(rest->across.in_inches(), eighth) == 0);
            RC_ASSERT(std::fmod(rest->along.in_inches(), eighth) == 0);
            // Pushed to the left and down it still fits, so it lies at such a corner.
            bool fits = false;
            for (const std::int64_t x : xs) {
                for (const std::int64_t y : ys) {
                    const Box piece{{x, y}, {x + to_grid(rest->across), y + to_grid(rest->along)}};
                    fits = fits || (film.holds(piece) && std::none_of(taken.begin(), taken.end(), [&](const Box& t) {
                                        return !common(t, piece).empty();
                                    }));
                }
            }
            RC_ASSERT(fits);
        }
    }));
}
