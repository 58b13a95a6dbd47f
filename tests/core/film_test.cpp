// Film as it is sold: what a job takes, what that costs, and patterns that run on from section to section.
#include <rapidcheck.h>

#include <set>

#include "job/alternatives.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

FilmStock roll(const char* film, Length left, int cents, Length sold_by, const char* colour = "") {
    FilmStock f{film, colour, film, 12_in, left, true};
    f.price_cents = cents;
    f.sold_by = sold_by;
    return f;
}

FilmStock patterned(Length across, Length along) {
    FilmStock f = roll("permanent-gloss", 600_in, 0, 1_in);
    f.patterned = true;
    f.repeat_across = across;
    f.repeat_along = along;
    return f;
}

std::int64_t apart(std::int64_t a, std::int64_t b, Length repeat) {
    const std::int64_t r = to_grid(repeat);
    return ((a - b) % r + r) % r;
}

std::vector<FilmPiece> pieces(const std::vector<Length>& lengths, Length across = 10_in) {
    std::vector<FilmPiece> out;
    for (const Length l : lengths) out.push_back({l, across});
    return out;
}

Job two_films() {
    // Two small signs whose masks lie on one load together, each in its own film.
    Job job = panel_job("OAR", "9", "7");
    job.signs.push_back(job.signs.front());
    make_new(job, job.signs.back());
    job.signs.back().faces.front().colours.front().making.film = "stencil-smooth";
    for (Sign& s : job.signs) s.faces.front().colours.front().making.margin = measure("1/2");
    return job;
}

}  // namespace

TEST_CASE("film is bought in whole units, and worth what is cut of it") {
    const std::vector<FilmUse> uses{{"permanent-gloss", "gloss", "#112233", pieces({20_in, 13_in})},
                                    {"removable-matt", "matt", "", pieces({30_in})}};
    // A yard for 4.50; matt by the roll of 10 ft for 12.00, most of one still there.
    const auto costs = film_costs(
        uses, {roll("permanent-gloss", 30_in, 450, 36_in, "#112233"), roll("removable-matt", 100_in, 1200, 120_in)});
    REQUIRE(costs.size() == 2);
    CHECK(costs[0].needed == 33_in);
    CHECK(costs[0].to_buy == 1);  // after 20 in of the roll, 13 in are not there any more
    CHECK(*costs[0].buy_cents == 450);
    CHECK(*costs[0].worth_cents == 413);  // 33/36 of 450, to the next cent
    CHECK(costs[1].to_buy == 0);
    CHECK(*costs[1].worth_cents == 300);
    CHECK(money(*costs[1].worth_cents) == "3.00");
    CHECK(money(5) == "0.05");
    // Another colour's roll is no help to a decal, and sheets are counted load by load.
    FilmStock sheet = roll("permanent-gloss", 12_in, 99, 12_in);
    sheet.roll = false;
    const auto sheets = film_costs({{"permanent-gloss", "gloss", "#112233", pieces({12_in, 13_in})}},
                                   {roll("permanent-gloss", 90_in, 450, 36_in, "#ffffff"), sheet});
    REQUIRE(sheets.size() == 1);
    CHECK(sheets[0].to_buy == 3);
    CHECK(*sheets[0].buy_cents == 297);
    // Nothing known of it: nothing said.
    CHECK_FALSE(film_costs({{"metallic", "metallic", "", pieces({12_in})}}, {}).front().worth_cents);
    CHECK(film_costs({{"metallic", "metallic", "", {}}}, {}).empty());
}

TEST_CASE("what a job takes of the drawer is enough, and no more is bought than is lacking") {
    CHECK(rc::check([] {
        std::vector<FilmStock> drawer;
        for (int n = *rc::gen::inRange(1, 5); n > 0; --n)
            drawer.push_back(roll("matt", Length::inches(*rc::gen::inRange(1, 90)), *rc::gen::inRange(1, 900),
                                  Length::inches(*rc::gen::inRange(1, 60)),
                                  *rc::gen::arbitrary<bool>() ? "" : "#aabbcc"));
        std::vector<FilmUse> uses{{"matt", "matt", "#aabbcc", {}}, {"matt", "matt", "", {}}};
        for (FilmUse& u : uses) {
            for (int n = *rc::gen::inRange(0, 4); n > 0; --n)
                u.loads.push_back({Length::inches(*rc::gen::inRange(1, 40)), Length::inches(*rc::gen::inRange(4, 16))});
        }
        // Rolls of several widths.
        for (FilmStock& f : drawer) f.width = *rc::gen::element(6_in, 12_in, 15_in);
        FilmPlan plan;
        for (FilmUse& u : uses) {
            for (FilmPiece& piece : u.loads) {
                piece.user = plan.from.size();
                plan.from.emplace_back(1);
            }
        }
        for (std::size_t i = 0; i < drawer.size(); ++i) drawer[i].name = std::to_string(i);
        Length bought, lacking;
        for (const FilmCost& c : film_costs(uses, drawer, &plan)) {
            bought += c.sold_by * c.to_buy;
            RC_ASSERT(*c.buy_cents >= 0);
            RC_ASSERT((c.to_buy == 0) == (c.longest_lacking == Length{}));
        }
        // Every load comes in one length off one roll that is wide enough and of its colour, or it is bought; no roll
        // gives more than is on it, and what is bought is enough.
        std::vector<Length> left;
        for (const FilmStock& f : drawer) left.push_back(f.left);
        for (const FilmUse& u : uses) {
            for (const FilmPiece& piece : u.loads) {
                const FilmFrom& from = plan.from[piece.user][0];
                RC_ASSERT(from.bought == from.roll.empty());
                if (from.bought) {
                    lacking += piece.along;
                    continue;
                }
                const std::size_t which = std::stoul(from.roll);
                RC_ASSERT(drawer[which].width >= piece.across);
                RC_ASSERT(u.colour.empty() || drawer[which].colour.empty() || drawer[which].colour == u.colour);
                left[which] = left[which] - piece.along;
                RC_ASSERT(left[which] >= Length{});
            }
        }
        RC_ASSERT(bought >= lacking);
    }));
}

TEST_CASE("what is needed in one length is not served by two, nor two narrow rolls by the width of both") {
    const auto cost = [](Length along, Length across, const std::vector<FilmStock>& drawer) {
        return film_costs({{"matt", "matt", "", pieces({along}, across)}}, drawer).front();
    };
    FilmStock wide = roll("matt", 40_in, 100, 36_in);
    wide.width = 15_in;
    FilmStock narrow = roll("matt", 90_in, 100, 36_in);
    narrow.width = 10_in;
    CHECK(cost(83_in, 9_in, {roll("matt", 30_in, 100, 36_in), roll("matt", 60_in, 100, 36_in)}).to_buy == 3);
    CHECK(cost(60_in, 9_in, {roll("matt", 30_in, 100, 36_in), roll("matt", 60_in, 100, 36_in)}).to_buy == 0);
    CHECK(cost(38_in, 12_in, {wide, narrow}).to_buy == 0);
    CHECK(cost(60_in, 12_in, {wide, narrow}).to_buy == 2);  // only the narrow one is as long
    CHECK(cost(60_in, 20_in, {wide, narrow}).to_buy == 2);
    // Said, with the load that no roll holds, and on the sheet of that load.
    Shop shop = usual_shop();
    shop.drawer = {roll("removable-matt", 4_in, 0, 1_in), roll("removable-matt", 5_in, 0, 1_in)};
    const Plan plan = skarvel::plan(panel_job("OAR", "9", "7"), shop, library(), moment("2026-05-04T18:00"));
    CHECK(plan.colours.front().cut.film.front().bought);
    CHECK(std::any_of(plan.problems.begin(), plan.problems.end(),
                      [](const Problem& p) { return p.what.id == "film.short" || p.what.id == "film.no-one-length"; }));
}

TEST_CASE("the shopping list and the plan say what film is worth") {
    Shop shop = usual_shop();
    shop.drawer = {roll("removable-matt", 300_in, 1200, 120_in)};
    const Plan plan = skarvel::plan(porch_board(), shop, library(), moment("2026-05-04T18:00"));
    REQUIRE(plan.film.size() == 1);
    const Length film = plan.colours.front().cut.loads->film_total;
    CHECK(plan.film.front().needed == film);
    CHECK(*plan.film.front().worth_cents == std::llround(std::ceil(film.in_inches() * 10)));
    const auto& items = plan.colours.front().shopping;
    CHECK(std::any_of(items.begin(), items.end(),
                      [](const ShoppingItem& i) { return i.how_much.id == "buy.roll-priced"; }));
}

TEST_CASE("a pattern runs on from section to section") {
    Shop shop = usual_shop();
    shop.drawer = {patterned({}, 5_in)};
    const Plan plan = skarvel::plan(long_board(), shop, library(), moment("2026-05-04T18:00"));
    const LoadsPlan& p = *plan.colours.front().cut.loads;
    REQUIRE(p.sections.size() > 2);
    Length film;
    std::int64_t on_roll = 0;  // how much of the roll is used up, from where the first load begins on the pattern
    for (const Load& load : p.loads) {
        std::optional<std::int64_t> shift;
        on_roll += to_grid(load.skip);
        for (const Placement& at : load.placements) {
            CHECK_FALSE(at.turned);
            const std::int64_t low = p.sections[at.section].film.bounds().low.y;
            if (!shift) shift = apart(at.at.y, low, 5_in);
            CHECK(apart(at.at.y, low, 5_in) == *shift);
            // On the roll as on the face.
            CHECK(apart(on_roll + at.at.y, low, 5_in) ==
                  apart(p.loads.front().placements.front().at.y,
                        p.sections[p.loads.front().placements.front().section].film.bounds().low.y, 5_in));
        }
        on_roll += to_grid(load.film_length - load.skip);
        film += load.film_length;
    }
    CHECK(film == p.film_total);
    CHECK(std::any_of(p.why.begin(), p.why.end(), [](const Reason& r) { return r.id == "loads.why-pattern"; }));
    // Without a repeat less film does.
    shop.drawer = {patterned({}, {})};
    const Plan plain = skarvel::plan(long_board(), shop, library(), moment("2026-05-04T18:00"));
    CHECK(plain.colours.front().cut.loads->film_total <= p.film_total);
    // Masks do not show it: they are turned, and need not match.
    Job masks = long_board();
    making(masks).way = Way::PaintThrough;
    shop.drawer = {patterned({}, 5_in)};
    const Plan painted = skarvel::plan(masks, shop, library(), moment("2026-05-04T18:00"));
    CHECK(painted.colours.front().cut.bed.usable.turns);
    CHECK(painted.colours.front().cut.bed.usable.repeat_along == Length{});
}

TEST_CASE("where a pattern across is too wide to match, the plan says where it breaks") {
    const auto breaks = [](const Plan& plan) {
        return std::count_if(plan.problems.begin(), plan.problems.end(),
                             [](const Problem& p) { return p.what.id == "loads.pattern-breaks"; });
    };
    Shop shop = usual_shop();
    shop.drawer = {patterned(9_in, {})};
    const Plan wide = skarvel::plan(long_board(), shop, library(), moment("2026-05-04T18:00"));
    CHECK(breaks(wide) > 0);
    CHECK_FALSE(wide.colours.front().cut.loads->loads.empty());
    shop.drawer = {patterned(0.25_in, {})};
    const Plan fine = skarvel::plan(long_board(), shop, library(), moment("2026-05-04T18:00"));
    CHECK(breaks(fine) == 0);
}

TEST_CASE("masks in two films are offered in one, where that saves a load and nothing speaks against it") {
    const Job job = two_films();
    const Plan now = plan_of(job);
    CHECK(now.loads_saved == 0);
    const auto all =
        alternatives(job, job.signs[1].faces[0].colours[0].id, usual_shop(), library(), moment("2026-05-04T18:00"));
    const auto one =
        std::find_if(all.begin(), all.end(), [](const Alternative& a) { return a.what.id == "alternative.same-film"; });
    REQUIRE(one != all.end());
    CHECK(one->figures.loads == figures_of(now, first_colour).loads - 1);
    CHECK(one->job.signs[1].faces[0].colours[0].making.film == "removable-matt");
    // Printable film tears as a mask: that is not offered.
    Job other = job;
    other.signs[0].faces[0].colours[0].making.film = "printable";
    const auto none =
        alternatives(other, job.signs[1].faces[0].colours[0].id, usual_shop(), library(), moment("2026-05-04T18:00"));
    CHECK(std::none_of(none.begin(), none.end(),
                       [](const Alternative& a) { return a.what.id == "alternative.same-film"; }));
}

TEST_CASE("loads that are shared are proved where no two large pieces go on one load") {
    // Three letters of which no two go on a short mat, each on a sign of its own: three loads, and no fewer.
    Job job = panel_job("O", "13", "13");
    lettering(job).sizing = Sizing::CapHeight;
    lettering(job).size = measure("8");
    making(job).margin = measure("1/4");
    making(job).bed = "12-inch cutter / 12 × 12";
    for (int n = 0; n < 2; ++n) {
        job.signs.push_back(job.signs.front());
        make_new(job, job.signs.back());
    }
    const Plan plan = plan_of(job);
    int loads = 0;
    for (const ColourPlan& f : plan.colours) {
        for (const Load& l : f.cut.loads->loads) loads += l.carried_by.empty() ? 1 : 0;
    }
    std::vector<const LoadsPlan*> plans;
    for (const ColourPlan& f : plan.colours) plans.push_back(f.cut.loads.get());
    CHECK(least_loads_for(plans, plan.colours.front().cut.bed.usable) == loads);
    CHECK(loads == 3);
    // Boxes that go side by side are no obstacle; those that do not, are.
    const Room room{11.5_in, 23.5_in};
    CHECK(least_mats({box_in(0, 0, 5, 20), box_in(20, 0, 25, 20)}, room) == 1);
    CHECK(least_mats({box_in(0, 0, 6, 20), box_in(20, 0, 26, 20)}, room) == 2);
    CHECK(least_mats({}, room) == 0);
}

TEST_CASE("where one shift across keeps a pattern running through all sections, it is found") {
    CHECK(rc::check([] {
        // In eighths of an inch.
        const int repeat = *rc::gen::inRange(4, 40);
        const int across = *rc::gen::inRange(30, 90);
        std::vector<Box> boxes;
        std::vector<std::pair<int, int>> at;  // left, width
        for (int i = 0, n = *rc::gen::inRange(2, 8); i < n; ++i) {
            const int left = *rc::gen::inRange(0, 400);
            const int wide = *rc::gen::inRange(8, across + 1);
            at.emplace_back(left, wide);
            boxes.push_back(box_in(left / 8.0, i * 6, (left + wide) / 8.0, i * 6 + 5));
        }
        Room room{Length::sixtyfourths(across * 8), 6_in};
        room.turns = false;
        room.repeat_across = Length::sixtyfourths(repeat * 8);
        // By trying every shift: each section by itself on a mat.
        bool serves_all = false;
        for (int shift = 0; shift < repeat && !serves_all; ++shift) {
            serves_all = std::all_of(at.begin(), at.end(),
                                     [&](const auto& b) { return (b.first + shift) % repeat + b.second <= across; });
        }
        const Packed packed = pack(boxes, room, {});
        std::set<std::int64_t> shifts;
        for (const auto& load : packed.loads) {
            for (const Placement& p : load)
                shifts.insert(
                    (((p.at.x - boxes[p.section].low.x) % to_grid(room.repeat_across)) + to_grid(room.repeat_across)) %
                    to_grid(room.repeat_across));
        }
        if (serves_all) RC_ASSERT(shifts.size() == 1U);
    }));
}
