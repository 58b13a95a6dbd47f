#include "loads/loads.h"

#include "files/cut_file.h"
#include "job/commands.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

const Room mat{11.5_in, 23.5_in};

std::vector<Box> boxes_of(std::initializer_list<std::pair<double, double>> sizes) {
    std::vector<Box> boxes;
    for (const auto& [w, h] : sizes) boxes.push_back(box_in(0, 0, w, h));
    return boxes;
}

void check_packed(const std::vector<Box>& boxes, const Packed& packed, const Room& room, Length gap) {
    std::vector<int> seen(boxes.size(), 0);
    for (const auto& load : packed.loads) {
        std::vector<Box> lying;
        for (const Placement& p : load) {
            ++seen[p.section];
            const Box& b = boxes[p.section];
            const Point size = p.turned ? Point{b.height(), b.width()} : Point{b.width(), b.height()};
            const Box at{p.at, p.at + size};
            RC_ASSERT(at.low.x >= 0);
            RC_ASSERT(at.low.y >= 0);
            RC_ASSERT(at.high.x <= to_grid(room.across));
            RC_ASSERT(at.high.y <= to_grid(room.along));
            for (const Box& other : lying)
                RC_ASSERT(common(grown(at, gap - Length::nanometres(grid_nm)), other).empty());
            lying.push_back(at);
        }
    }
    for (const std::size_t i : packed.left_over) ++seen[i];
    RC_ASSERT(std::all_of(seen.begin(), seen.end(), [](int n) { return n == 1; }));
}

}  // namespace

TEST_CASE("two columns as wide as a 1x6 share one mat") {  // common practice
    const Packed p = pack(boxes_of({{5.5, 23}, {5.5, 22}}), mat, section_gap);
    REQUIRE(p.loads.size() == 1);
    CHECK(p.loads.front().size() == 2);
}

TEST_CASE("seven board-wide masks of 8 1/2 go two by two, and the odd one alone") {  // common practice: 18, 18, 18, 9
    const Packed p = pack(
        boxes_of({{11.25, 8.5}, {11.25, 8.5}, {11.25, 8.5}, {11.25, 8.5}, {11.25, 8.5}, {11.25, 8.5}, {11.25, 8.5}}),
        mat, section_gap);
    CHECK(p.loads.size() == 4);
    CHECK(film_to_cut(17.25_in) == 18_in);
    CHECK(film_to_cut(8.5_in) == 9_in);
}

TEST_CASE("film for a load is the next whole inch that leaves half an inch over") {
    CHECK(film_to_cut(23.5_in) == 24_in);
    CHECK(film_to_cut(22.6_in) == 24_in);
    CHECK(film_to_cut(22.5_in) == 23_in);
    CHECK(film_to_cut(Length{}) == 1_in);
}

TEST_CASE("a small section goes beside a column, turned where that helps") {
    const Packed p = pack(boxes_of({{8, 23}, {10, 3}}), mat, section_gap);
    REQUIRE(p.loads.size() == 1);
    CHECK(p.loads.front()[1].turned != p.loads.front()[0].turned);
}

TEST_CASE("what is larger than the mat is left over, and nothing is lost") {
    const Packed p = pack(boxes_of({{12, 12}, {5, 5}}), mat, section_gap);
    CHECK(p.left_over == std::vector<std::size_t>{0});
    CHECK(p.loads.size() == 1);
    CHECK(pack({}, mat, section_gap).loads.empty());
}

TEST_CASE("random sections: inside the mat, the gap kept, each once, never fewer loads than the area allows") {
    CHECK(rc::check([] {
        std::vector<Box> boxes;
        const auto count = *rc::gen::inRange(0, 14);
        double area = 0;
        for (int i = 0; i < count; ++i) {
            const double w = *rc::gen::inRange(8, 180) / 16.0;
            const double h = *rc::gen::inRange(8, 360) / 16.0;
            boxes.push_back(box_in(0, 0, w, h));
            area += w * h;
        }
        const Packed packed = pack(boxes, mat, section_gap);
        check_packed(boxes, packed, mat, section_gap);
        RC_ASSERT(static_cast<double>(packed.loads.size()) * 11.5 * 23.5 >= area - 1e-6);
        RC_ASSERT(pack(boxes, mat, section_gap) == packed);
    }));
}

TEST_CASE("more care never packs on more loads, nor on more film") {
    CHECK(rc::check([] {
        std::vector<Box> boxes;
        const auto count = *rc::gen::inRange(1, 8);
        for (int i = 0; i < count; ++i) {
            const double w = *rc::gen::inRange(16, 180) / 16.0;
            const double h = *rc::gen::inRange(16, 360) / 16.0;
            boxes.push_back(box_in(0, 0, w, h));
        }
        std::optional<std::pair<std::size_t, Length>> before;
        for (const Effort effort : {Effort::Quick, Effort::Usual, Effort::Thorough}) {
            const Packed packed = pack(boxes, mat, section_gap, effort);
            check_packed(boxes, packed, mat, section_gap);
            Length film;
            for (const auto& load : packed.loads) {
                std::int64_t reach = 0;
                for (const Placement& p : load) reach = std::max(reach, box_on_mat(boxes[p.section], p).high.y);
                film += film_to_cut(from_grid(reach));
            }
            const std::pair now(packed.loads.size(), film);
            if (before) RC_ASSERT(now <= *before);
            before = now;
        }
    }));
}

TEST_CASE(
    "of as many sections and loads those are used that are laid sooner, and where the maker asks those of less film") {
    int sooner = 0, tried = 0;
    CHECK(rc::check([&] {
        ++tried;
        std::vector<Piece> pieces;
        double left = 1;
        const int count = *rc::gen::inRange(3, 9);
        for (int i = 0; i < count; ++i) {
            const double wide = *rc::gen::inRange(16, 88) / 8.0;
            pieces.push_back({Region::rectangle(box_in(left, 1, left + wide, 1 + *rc::gen::inRange(20, 70) / 8.0)),
                              std::string(1, static_cast<char>('A' + i)), i, true, 0});
            left += wide + 0.75;
        }
        MakingPlan decal;
        decal.way = Way::Decal;
        decal.margin = 0.25_in;
        const Mat bed = beds_of(usual_machines()).front();
        const auto planned = [&] { return plan_loads(pieces, box_in(0, 0, 120, 12), bed, decal, {}); };
        const LoadsPlan unaware = planned();
        decal.laying = {10, 17, 20_in};
        const LoadsPlan by_minutes = planned();
        decal.wishes.laid_soonest = false;
        const LoadsPlan by_film = planned();
        RC_ASSERT(by_film.film_total == unaware.film_total);
        const auto hinged = [](const LoadsPlan& plan) {
            return std::count_if(plan.sections.begin(), plan.sections.end(), [](const Section& s) {
                return std::max(s.film.bounds().width(), s.film.bounds().height()) >= to_grid(20_in);
            });
        };
        RC_ASSERT(by_minutes.sections.size() == by_film.sections.size());
        RC_ASSERT(by_minutes.loads.size() == by_film.loads.size());
        RC_ASSERT(hinged(by_minutes) <= hinged(by_film));
        RC_ASSERT(hinged(by_minutes) < hinged(by_film) || by_minutes.film_total == by_film.film_total);
        sooner += hinged(by_minutes) < hinged(by_film) ? 1 : 0;
    }));
    constexpr int many = 100;  // fewer under the sanitizers: not every twenty hold one
    CHECK((sooner > 0 || tried < many));
}

TEST_CASE("a load ticked as cut is kept as it was; later edits plan around it") {
    const Job drawn = porch_board();
    const Shop shop = usual_shop();
    const Plan before = plan_of(drawn);
    const std::string step = "1/cut/" + before.colours.front().cut.loads->loads.front().name;
    const Job cut = tick(drawn, before, StepId{step}, moment("2026-05-04T19:00"));
    REQUIRE(cut.bench.cut.size() == 1);
    const CutLoad kept = cut.bench.cut.front();

    SECTION("nothing changed: it still fits, and only the rest is left to cut") {
        const Plan after = plan_of(cut);
        const LoadsPlan& loads = *after.colours.front().cut.loads;
        CHECK(loads.misfits.empty());
        CHECK(loads.sections.size() == 3);
        CHECK(loads.loads.size() == 2);
        CHECK(loads.loads.front().cut);
        CHECK(cut_files(after, shop).size() == 1);
        CHECK(after.bench->orphans.empty());
        std::string letters;
        for (const Section& s : loads.sections) letters += s.letters;
        CHECK(letters == "BOATHOUSE");
    }
    SECTION("the gap is changed: what was cut stays the same and is named as no longer fitting") {
        Job edited = cut;
        lettering(edited).letter_gap = measure("3/8");
        const Plan after = plan_of(edited);
        const LoadsPlan& loads = *after.colours.front().cut.loads;
        CHECK(loads.misfits.size() == 2);
        CHECK(after.mark_of(Station::Sections) == Mark::Look);
        CHECK(edited.bench.cut.front() == kept);

        const Job keeping = keep_cut(edited, 0);
        const Plan kept_plan = plan_of(keeping);
        CHECK(kept_plan.mark_of(Station::Sections) == Mark::None);
        CHECK(kept_plan.colours.front().cut.loads->loads.front().cut);

        const Job again = cut_again(edited, 0);
        CHECK(again.bench.cut.empty());
        CHECK(again.bench.spoilt.size() == 1);
        CHECK_FALSE(again.bench.ticks.contains(StepId{step}));
        const Plan anew = plan_of(again);
        CHECK(anew.colours.front().cut.loads->misfits.empty());
        CHECK(anew.colours.front().cut.loads->loads.size() == 2);
    }
    SECTION("the word is changed: letters already cut are not cut twice") {
        Job edited = cut;
        lettering(edited).words = "BOATHOUSES";
        const LoadsPlan loads = *plan_of(edited).colours.front().cut.loads;
        int cut_letters = 0;
        int all_letters = 0;
        for (const Section& s : loads.sections) all_letters += s.letter_count;
        for (const Section& s : kept.sections) cut_letters += s.letter_count;
        CHECK(all_letters == 10);
        CHECK(cut_letters == 8);
    }
    SECTION("unticked, it is planned anew") { CHECK(untick(cut, StepId{step}).bench == drawn.bench); }
}
