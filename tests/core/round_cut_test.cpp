// What is cut stays: what is ticked, spoilt, or cut before something else changed.
#include <algorithm>

#include "job/commands.h"
#include "support_panel.h"

using namespace skarvel;
using namespace skarvel::testing;

TEST_CASE("one spoilt section is cut again alone, and what was ticked of the others stays") {
    Job job = porch_board();
    Plan plan = plan_of(job);
    const auto at = moment("2026-05-04T19:00");
    job = tick(job, plan, StepId{"1/cut/BOAT+HOUS"}, at);
    job = tick(job, plan_of(job), StepId{"1/weed/BOAT+HOUS"}, at);
    REQUIRE(job.bench.cut.size() == 1);
    const Job again = cut_section_again(job, 0, 1);
    CHECK(again.bench.cut.front().sections.size() == 1);
    CHECK(again.bench.spoilt.size() == 1);
    CHECK(again.bench.spoilt.front().sections.front().letters == job.bench.cut.front().sections[1].letters);
    plan = plan_of(again);
    const LoadsPlan& loads = *plan.colours.front().cut.loads;
    CHECK(plan.bench->orphans.empty());
    int cut = 0;
    std::string to_cut;
    for (const Load& l : loads.loads) {
        cut += l.cut ? 1 : 0;
        if (!l.cut) to_cut += l.name;
    }
    CHECK(cut == 1);
    for (const char c : std::string("HOUSE")) CHECK(to_cut.find(c) != std::string::npos);
    CHECK(to_cut.find("BOAT") == std::string::npos);
    CHECK(cut_section_again(again, 0, 0).bench.cut.empty());
    CHECK(cut_section_again(again, 7, 0) == again);
}

TEST_CASE("one spoilt letter of a decal is cut again alone, and nothing else changes") {
    Job job = long_board();
    const Plan drawn = plan_of(job);
    const LoadsPlan& before = *drawn.colours.front().cut.loads;
    REQUIRE(before.loads.size() > 1);
    const Job cut = tick(job, drawn, StepId{"1/cut/" + before.loads.front().name}, moment("2026-05-04T19:00"));
    REQUIRE(cut.bench.cut.front().sections.front().pieces.size() > 2);
    const Job again = cut_letter_again(cut, 0, 0, 1);
    const Piece letter = cut.bench.cut.front().sections.front().pieces[1];
    const Plan plan = plan_of(again);
    const LoadsPlan& after = *plan.colours.front().cut.loads;
    CHECK(after.misfits.empty());
    CHECK(plan.bench->orphans.empty());
    REQUIRE(after.sections.size() == before.sections.size() + 1);
    CHECK(after.sections.back().pieces == std::vector<Piece>{letter});
    REQUIRE(after.loads.size() == before.loads.size() + 1);
    for (const Load& load : before.loads) {
        const auto same =
            std::find_if(after.loads.begin(), after.loads.end(), [&](const Load& l) { return l.name == load.name; });
        REQUIRE(same != after.loads.end());
        CHECK(same->placements == load.placements);
    }
    CHECK(after.loads.back().placements.size() == 1);
    CHECK(spoilt_film(again.bench) > Length{});
    CHECK(spoilt_film(again.bench) < 12_in);
    CHECK(*read_job(write_job(again)) == again);
    const Shop shop = usual_shop();
    for (const CutFormat format : {CutFormat::Svg, CutFormat::Hpgl})
        CHECK(prove(plan, shop, files_of(again, plan, shop), format).good());
    // Cut, it is whole again; and another one may be spoilt as well.
    const Job whole = tick(again, plan, StepId{"1/cut/" + after.loads.back().name}, moment("2026-05-04T20:00"));
    CHECK(plan_of(whole).colours.front().cut.loads->loads.size() == after.loads.size());
    const Job two = cut_letter_again(whole, 0, 0, 0);
    CHECK(plan_of(two).colours.front().cut.loads->sections.size() == after.sections.size() + 1);
    // A mask stays open where it was cut, so all of it is cut again; places that are not there change nothing.
    const Plan masks = plan_of(porch_board());
    const Job mask = tick(porch_board(), masks, StepId{"1/cut/BOAT+HOUS"}, moment("2026-05-04T19:00"));
    CHECK(cut_letter_again(mask, 0, 1, 0) == cut_section_again(mask, 0, 1));
    CHECK(cut_letter_again(cut, 0, 0, 99) == cut);
    CHECK(cut_letter_again(cut, 9, 0, 0) == cut);
}

TEST_CASE("of a letter that a seam crosses one part is cut and the other is still to come") {
    Job job = panel_job("TEA", "40", "30");
    making(job).margin = measure("3/4");
    const Shop shop = usual_shop();
    const Plan drawn = plan_of(job);
    const LoadsPlan& before = *drawn.colours.front().cut.loads;
    REQUIRE(before.crossings > 0);
    for (const Load& load : before.loads) {
        CAPTURE(load.name);
        const Job cut = tick(job, drawn, StepId{"1/cut/" + load.name}, moment("2026-05-04T19:00"));
        REQUIRE(cut.bench.cut.size() == 1);
        const Plan plan = plan_of(cut);
        CHECK(plan.colours.front().cut.loads->misfits.empty());
        CHECK(plan.colours.front().cut.loads->sections.size() <= before.sections.size() + 1);
        for (const CutFormat format : {CutFormat::Svg, CutFormat::Dxf}) {
            const Evidence evidence = prove(plan, shop, files_of(cut, plan, shop), format);
            for (const ColourProof& c : evidence.as_cut) CHECK(c.missing_mm2 < 1);
            CHECK(evidence.good());
        }
    }
    // Drawn anew, what was cut agrees no longer, and that is asked about.
    Job changed = tick(job, drawn, StepId{"1/cut/" + before.loads.back().name}, moment("2026-05-04T19:00"));
    lettering(changed).words = "TAR";
    CHECK_FALSE(plan_of(changed).colours.front().cut.loads->misfits.empty());
}

TEST_CASE("ticking a load as cut changes nothing of the others") {
    CHECK(rc::check([] {
        Job job = any_panel();
        Blank& b = job.signs.front().blank;
        b.length = measure_of(Length::sixtyfourths(*rc::gen::inRange(64 * 24, 64 * 60)), {Unit::Inch, 64});
        const Plan drawn = plan_of(job);
        RC_PRE(drawn.mark_of(Station::Sections) != Mark::Stop && drawn.mark_of(Station::Lettering) != Mark::Stop);
        const LoadsPlan& before = *drawn.colours.front().cut.loads;
        RC_PRE(before.loads.size() > 1 && before.loads.size() < 20);
        const std::size_t which = *rc::gen::inRange<std::size_t>(0, before.loads.size());
        const Job cut = tick(job, drawn, StepId{"1/cut/" + before.loads[which].name}, moment("2026-05-04T19:00"));
        const Plan after_plan = plan_of(cut);
        const LoadsPlan& after = *after_plan.colours.front().cut.loads;
        RC_ASSERT(after.sections == before.sections);
        RC_ASSERT(after.seams == before.seams);
        RC_ASSERT(after.film_total == before.film_total);
        RC_ASSERT(after.misfits.empty());
        for (std::size_t i = 0; i < before.loads.size(); ++i) {
            const auto same = std::find_if(after.loads.begin(), after.loads.end(),
                                           [&](const Load& l) { return l.name == before.loads[i].name; });
            RC_ASSERT(same != after.loads.end());
            RC_ASSERT(same->cut == (i == which));
            RC_ASSERT(same->placements == before.loads[i].placements);
            RC_ASSERT(same->film_length == before.loads[i].film_length);
        }
    }));
}

TEST_CASE("whatever is cut first, the rest is planned around it, and all of it goes together") {
    CHECK(rc::check([] {
        Job job = any_panel();
        // Large enough for more than one load.
        Blank& b = job.signs.front().blank;
        b.length = measure_of(Length::sixtyfourths(*rc::gen::inRange(64 * 30, 64 * 70)), {Unit::Inch, 64});
        b.width = measure_of(Length::sixtyfourths(*rc::gen::inRange(64 * 8, 64 * 24)), {Unit::Inch, 64});
        making(job).bed = *rc::gen::element<std::string>("", "12-inch cutter / 12 × 12");
        const Shop shop = usual_shop();
        const auto planned = [&] { return plan(job, shop, library(), moment("2026-05-04T18:00")); };
        Plan p = planned();
        RC_PRE(p.mark_of(Station::Sections) != Mark::Stop && p.mark_of(Station::Lettering) != Mark::Stop);
        RC_PRE(p.colours.front().face->lettering->cap_height > 0.5_in);
        const std::size_t loads = p.colours.front().cut.loads->loads.size();
        RC_PRE(loads > 1 && loads < 20);
        // One load after the other, in any order, each as it is planned by then.
        for (int n = *rc::gen::inRange(1, 4); n > 0; --n) {
            std::vector<std::string> left;
            for (const Load& l : p.colours.front().cut.loads->loads) {
                if (!l.cut) left.push_back(l.name);
            }
            if (left.empty()) break;
            job = tick(job, p, StepId{"1/cut/" + left.at(*rc::gen::inRange<std::size_t>(0, left.size()))},
                       moment("2026-05-04T19:00"));
            // Something else than what it was planned for, so that the rest is planned anew.
            if (*rc::gen::inRange(0, 2) == 0)
                making(job).bed =
                    *rc::gen::element<std::string>("12-inch cutter / 12 × 24", "12-inch cutter / 12 × 12");
            p = planned();
        }
        RC_LOG() << write_job(job) << "\n";
        const LoadsPlan& plan = *p.colours.front().cut.loads;
        RC_ASSERT(plan.misfits.empty());
        // A letter divided both ways and cut in part is told, and left to the maker's eye.
        if (std::any_of(plan.problems.begin(), plan.problems.end(),
                        [](const Problem& q) { return q.what.id == "loads.cut-around"; }))
            return;
        // A margin that no film of this bed covers is told as well, and taped.
        for (const Problem& q : plan.problems) RC_ASSERT(q.what.id == "sections.bare-margin");
        for (const CutLoad& cut : job.bench.cut) {
            for (const Section& s : cut.sections)
                RC_ASSERT(std::find(plan.sections.begin(), plan.sections.end(), s) != plan.sections.end());
        }
        const Evidence e = prove(p, shop, files_of(job, p, shop), CutFormat::Svg);
        log_wrong(e);
        RC_ASSERT(e.good());
    }));
}
