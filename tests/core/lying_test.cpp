#include "loads/lying.h"

#include <map>
#include <set>

#include "sections/keepers.h"
#include "sections/lines.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

TEST_CASE("what lies on a neighbour or beyond its bed is never cut, whoever's it is") {
    const Plan plan = plan_of(porch_board());
    const LoadsPlan good = *plan.colours.front().cut.loads;
    const Mat bed = plan.colours.front().cut.bed;
    const auto wrong = [&](const std::function<void(LoadsPlan&)>& spoil) {
        LoadsPlan loads = good;
        spoil(loads);
        check_lying(loads, bed);
        return std::count_if(loads.problems.begin(), loads.problems.end(),
                             [](const Problem& p) { return p.what.id == "loads.lies-wrong" && p.mark == Mark::Stop; });
    };
    CHECK(wrong([](LoadsPlan&) {}) == 0);
    CHECK(wrong([](LoadsPlan& p) { p.loads[0].placements[0].at.x -= 8; }) == 1);  // a thousandth of a mm over the edge
    CHECK(wrong([](LoadsPlan& p) { p.loads[0].placements[1].at = p.loads[0].placements[0].at; }) >= 1);
    // A guest of another colour on the last load: beside it, on it, beyond the bed.
    const auto guest = [&](Point at) {
        return [at](LoadsPlan& p) {
            Load& load = p.loads.back();
            const std::size_t own = load.placements.front().section;
            load.guests.push_back({ColourId{"2"}, p.sections[own], load.placements.front()});
            load.guests.back().placement.at = load.placements.front().at + at;
        };
    };
    CHECK(wrong(guest({0, to_grid(7_in)})) == 0);
    CHECK(wrong(guest({to_grid(1_in), 0})) == 1);
    CHECK(wrong(guest({to_grid(9_in), 0})) == 1);
    // What is cut lies as it was cut.
    CHECK(wrong([](LoadsPlan& p) {
              p.loads[0].placements[1].at = p.loads[0].placements[0].at;
              p.loads[0].cut = true;
          }) == 0);
}

TEST_CASE("keepers are told by their letter, how many there are, and how large the smallest is") {
    const Plan plan = plan_of(porch_board());
    const LoadsPlan& loads = *plan.colours.front().cut.loads;
    const std::vector<Reason> told = keepers_told(loads.sections);
    REQUIRE(told.size() == 3);  // B, O, A
    std::int64_t all = 0;
    for (const Reason& row : told) {
        const auto argument = [&](const char* name) {
            return std::find_if(row.arguments.begin(), row.arguments.end(),
                                [&](const auto& a) { return a.first == name; })
                ->second;
        };
        all += std::get<std::int64_t>(argument("count"));
        Length smallest = 1000_in;
        for (const Section& s : loads.sections) {
            for (const Keeper& k : s.keepers) {
                if (k.letters == std::get<std::string>(argument("letters")))
                    smallest =
                        std::min(smallest, from_grid(std::min(k.shape.bounds().width(), k.shape.bounds().height())));
            }
        }
        CHECK(std::min(std::get<Length>(argument("width")), std::get<Length>(argument("height"))) == smallest);
        CHECK(library().catalogue.say(row, {}).find('?') == std::string::npos);
    }
    CHECK(all == loads.keepers);
}

TEST_CASE("match marks lie in both films, off all ink, at one place") {
    for (const char* words : {"WAVY TAVERN OVAL WAY", "THE FERRY LANDS HERE", "AVAVAVAVAVAVAVAVAVAV"}) {
        for (const Way way : {Way::Decal, Way::PaintThrough}) {
            Job job = panel_job(words, "60", "14");
            if (words[1] == 'V') lettering(job).letter_gap = measure("-1/2");  // no straight way between them
            make_as(making(job), way, library().trade);
            making(job).lap = way == Way::Decal ? measure("0") : measure("1/8");
            const Plan plan = plan_of(job);
            const LoadsPlan& loads = *plan.colours.front().cut.loads;
            std::map<std::pair<std::int64_t, bool>, int> at;
            for (const Section& s : loads.sections) {
                for (const KnifeLine& l : s.lines) {
                    if (l.kind != KnifeLine::Kind::Match) continue;
                    const Box box{{std::min(l.from.x, l.to.x), std::min(l.from.y, l.to.y)},
                                  {std::max(l.from.x, l.to.x) + 1, std::max(l.from.y, l.to.y) + 1}};
                    for (const Section& other : loads.sections)
                        CHECK(intersect(other.cut, Region::rectangle(box)).empty());
                    CHECK(subtract(Region::rectangle(box), grow(s.film, 0.01_in)).empty());
                    const bool level = l.from.y == l.to.y;
                    if (level) ++at[{l.from.y, level}];
                }
            }
            for (const auto& [where, lines] : at) {
                CHECK(lines >= 2);  // never in one film alone
            }
        }
    }
}

TEST_CASE("where a seam runs around outlines, marks cross it where the two films meet") {
    const auto at = [](double x, double y) { return box_in(x, y, x + 1, y + 1).low; };
    // Two films that meet along a step: at 10 in below 3 in, at 11 in above.
    Section left, right;
    left.film = Region::from_rings({{at(0, 0), at(10, 0), at(10, 3), at(11, 3), at(11, 6), at(0, 6)}});
    right.film = Region::from_rings({{at(10, 0), at(20, 0), at(20, 6), at(11, 6), at(11, 3), at(10, 3)}});
    Seam seam;
    seam.axis = Axis::X;
    seam.where = at(10.5, 0).x;
    seam.to = at(0, 6).y;
    seam.stepped = true;
    Piece ink;
    ink.letters = "I";
    ink.shape = Region::rectangle(box_in(9.5, 0, 10.5, 1));  // near the seam's low end
    const auto marks = match_marks({left, right}, {seam}, {ink});
    REQUIRE(marks.size() == 2);
    REQUIRE(marks[0].size() == 2);
    REQUIRE(marks[1].size() == 2);
    std::set<std::int64_t> steps;
    for (std::size_t i = 0; i < 2; ++i) {
        CHECK(marks[0][i].from.y == marks[1][i].from.y);
        CHECK(marks[0][i].to == marks[1][i].from);  // they meet on the seam
        CHECK(marks[0][i].from.y > at(0, 1).y);     // off the ink
        steps.insert(marks[0][i].to.x);
    }
    CHECK(steps == std::set<std::int64_t>{at(10, 0).x, at(11, 0).x});
}
