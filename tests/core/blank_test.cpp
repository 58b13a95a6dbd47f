#include "blank/blank.h"

#include <rapidcheck.h>
#include <cmath>

#include "blank/cutting.h"
#include "blank/kinds.h"
#include "blank/post.h"
#include "blank/room.h"
#include "job/commands.h"
#include "support_blank.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

bool says(const std::vector<Problem>& problems, const std::string& id) {
    return std::any_of(problems.begin(), problems.end(), [&](const Problem& p) { return p.what.id == id; });
}

struct TrueBoard {
    double bottom, top, left, lean, end;  // inches; how far the top is shifted, and its right end raised
};

// Distances between the corners of a board that is really so.
std::array<double, reading_count> readings_of(const TrueBoard& t) {
    const double ax = 0, ay = 0, bx = t.bottom, by = 0;
    const double dx = t.lean, dy = std::sqrt(t.left * t.left - t.lean * t.lean);
    const double cx = dx + t.top, cy = dy + t.end;
    const auto d = [](double x0, double y0, double x1, double y1) { return std::hypot(x1 - x0, y1 - y0); };
    return {d(ax, ay, bx, by), d((ax + dx) / 2, (ay + dy) / 2, (bx + cx) / 2, (by + cy) / 2),
            d(dx, dy, cx, cy), d(ax, ay, dx, dy),
            d(bx, by, cx, cy), d(ax, ay, cx, cy),
            d(bx, by, dx, dy)};
}

rc::Gen<double> between(double low, double high) {
    return rc::gen::map(rc::gen::inRange(0, 10001), [=](int n) { return low + (high - low) * n / 10000; });
}

TrueBoard any_board() {
    TrueBoard t{};
    t.bottom = *between(4, 30);
    t.left = t.bottom * *between(1, 8);
    t.top = t.bottom + *between(-0.125, 0.125);
    t.lean = *between(-0.06, 0.06) * t.left / t.bottom;
    t.end = *between(-0.1, 0.1);
    return t;
}

Readings taken(const std::array<double, reading_count>& inches) {
    Readings r;
    for (std::size_t i = 0; i < reading_count; ++i)
        r.taken.at(i) = measure_of(Length::from_mm(inches.at(i) * 25.4), {});
    return r;
}

double inches_between(Point a, Point b) { return std::hypot(grid_to_mm(a.x - b.x), grid_to_mm(a.y - b.y)) / 25.4; }

}  // namespace

TEST_CASE("a true board is found again within the tape's tolerance") {
    CHECK(rc::check([] {
        const TrueBoard t = any_board();
        const auto exact = readings_of(t);
        auto read = exact;
        for (double& r : read) r += *between(-1.0 / 64, 1.0 / 64);
        const TapePlan plan = reconstruct(taken(read), {}, {});
        RC_ASSERT(plan.cannot_be.empty());
        const auto& c = plan.corners;
        const std::array found{inches_between(c[0], c[1]), 0.0,
                               inches_between(c[3], c[2]), inches_between(c[0], c[3]),
                               inches_between(c[1], c[2]), inches_between(c[0], c[2]),
                               inches_between(c[1], c[3])};
        for (std::size_t i = 0; i < reading_count; ++i) {
            if (static_cast<Reading>(i) != Reading::Middle) RC_ASSERT(std::abs(found[i] - exact[i]) < 1.0 / 16);
        }
    }));
}

TEST_CASE("a reading that is wrong by half an inch is named") {
    CHECK(rc::check([] {
        auto read = readings_of(any_board());
        for (double& r : read) r += *between(-1.0 / 64, 1.0 / 64);
        const auto wrong = *rc::gen::inRange<std::size_t>(0, reading_count);
        read.at(wrong) += *rc::gen::element(0.5, -0.5);
        const TapePlan plan = reconstruct(taken(read), {}, {});
        RC_ASSERT(!plan.cannot_be.empty());
        RC_ASSERT(plan.cannot_be.front() == static_cast<Reading>(wrong));
    }));
}

TEST_CASE("what is the matter with a board is said in words") {
    Blank b = blank_of(Kind::Board, "60", "5 1/2");
    const auto take = [&](Reading r, const char* typed) {
        b.tape.taken.at(static_cast<std::size_t>(r)) = measure(typed);
    };
    take(Reading::Bottom, "5 1/2");
    take(Reading::Top, "5 3/8");
    BlankPlan p = measured(b);
    REQUIRE(p.tape);
    CHECK(p.tape->from_centre);
    CHECK(p.tape->words.front().id == "tape.wider-bottom");
    CHECK_FALSE(p.straight_sides);
    CHECK(p.face.width() < to_grid(5.5_in) + 10);
    take(Reading::Top, "5 1/2");
    take(Reading::Left, "60");
    take(Reading::Right, "60 1/8");
    p = measured(b);
    CHECK(p.tape->words.front().id == "tape.longer-right");
    CHECK_FALSE(p.tape->from_centre);
    const auto room = std::find_if(p.rooms.begin(), p.rooms.end(),
                                   [](const NamedRoom& r) { return r.what.id == "room.true-rectangle"; });
    REQUIRE(room != p.rooms.end());
    CHECK(lies_in(room->box, p.outline));
    CHECK(from_grid(room->box.height()) <= 60.125_in);
}

TEST_CASE("two readings alone accuse nobody") {
    Blank b = blank_of(Kind::Board, "60", "5 1/2");
    b.tape.taken[0] = measure("5 1/2");
    b.tape.taken[2] = measure("6");
    const BlankPlan p = measured(b);
    CHECK(p.tape->cannot_be.empty());
    CHECK(p.tape->words.front().id == "tape.wider-top");
}

TEST_CASE("an even taper is a board like any other, and what cannot be decided or cannot be is said") {
    Blank b = blank_of(Kind::Board, "60", "6");
    b.tape.taken = {measure("6"), measure("5 3/4"), measure("5 1/2"), measure("60"), measure("60")};
    CHECK_FALSE(says(measured(b).problems, "tape.cannot-be"));
    CHECK_FALSE(says(measured(b).problems, "tape.cannot-all-be"));
    CHECK(measured(b).tape->words.front().id == "tape.wider-bottom");
    // One diagonal makes it lean; the other one would tell.
    b.tape.taken = {measure("6"), std::nullopt, measure("6"), measure("60"), measure("60"), measure("60 5/8")};
    CHECK(says(measured(b).problems, "tape.one-diagonal"));
    b.tape.taken[6] = measure("60");
    CHECK_FALSE(says(measured(b).problems, "tape.one-diagonal"));
    // Two wild readings agree with each other, and no board has them.
    b.tape.taken = {measure("1/2"), std::nullopt, measure("1/2")};
    CHECK(says(measured(b).problems, "tape.no-board"));
    CHECK(from_grid(measured(b).face.width()) == 6_in);
    b.tape.taken = {measure("6"),  measure("6"),  measure("2"), measure("60"),
                    measure("31"), measure("60"), measure("12")};
    CHECK(says(measured(b).problems, "tape.no-board"));
}

TEST_CASE("what no blank has is said, and left out") {
    const auto said = [](const char* id, const auto& change) {
        Blank b = blank_of(Kind::Board, "60", "6");
        change(b);
        const BlankPlan p = measured(b);
        CHECK_FALSE(p.outline.empty());
        CHECK(p.weight.total() >= 0);
        return says(p.problems, id);
    };
    for (const char* wrong : {"0", "0 - 2"}) {
        CHECK(said("blank.cannot-measure", [&](Blank& b) { b.thickness = measure(wrong); }));
        CHECK(said("blank.cannot-measure", [&](Blank& b) { b.tape.taken[3] = measure(wrong); }));
        CHECK(said("blank.backing-nothing", [&](Blank& b) {
            b.backing = Backing{measure("70"), measure("9"), measure(wrong), "pine"};
        }));
        CHECK(said("frame.seen-nothing", [&](Blank& b) {
            b.frame.kind = FrameKind::Butt;
            b.frame.seen = measure(wrong);
        }));
    }
    CHECK(said("blank.cannot-measure", [](Blank& b) { b.margin = measure("0 - 1"); }));
    CHECK(said("blank.rope-no-girth", [](Blank& b) { b.clear.push_back({.name = "rope", .turns = 3}); }));
    CHECK(said("frame.rebate-wide", [](Blank& b) {
        b.frame.kind = FrameKind::Mitred;
        b.frame.rebate = measure("3/4");
    }));
    CHECK(said("blank.not-that-stock", [](Blank& b) {
        b.stock = "1x10";
        b.width = measure("20");
    }));
    CHECK(said("stand.foot-too-far", [](Blank& b) {
        b.holding.way = Holds::Leaning;
        b.holding.base = measure("72");
    }));
}

TEST_CASE("hangers go where there is wood, even about the centre of gravity and above it") {
    for (const Kind kind : {Kind::Arrow, Kind::Round, Kind::Arch, Kind::Panel}) {
        Blank b = as_kind(porch_board().signs.front().blank, kind);
        if (kind == Kind::Arrow) b.length = measure("40");
        if (kind == Kind::Panel) b.backing = Backing{measure("30"), measure("20"), measure("1/2"), "pine"};
        const BlankPlan p = measured(b);
        for (const HangPoint& h : p.weight.points) {
            const Region wood = merge(p.outline, p.built.backing.where);
            CHECK(lies_in({h.at - Point{8, 8}, h.at + Point{8, 8}}, wood));
            CHECK(h.at.y >= p.weight.centre.y);
        }
        if (p.weight.points.size() == 2)
            CHECK(std::abs(p.weight.points[0].at.x + p.weight.points[1].at.x - 2 * p.weight.centre.x) <= 2);
    }
}

TEST_CASE("each string of an arch ends on the line that it draws") {
    Blank b = as_kind(porch_board().signs.front().blank, Kind::Arch);
    for (const ArchStyle style : {ArchStyle::Segmental, ArchStyle::Pointed, ArchStyle::HalfRound}) {
        b = with_top(b, style);
        const BlankPlan p = measured(b);
        const Marking m = marking_out(b, p);
        CHECK(m.pins.size() == (style == ArchStyle::Pointed ? 2 : 1));
        for (const Pin& pin : m.pins) {
            CHECK(inches_between(pin.at, pin.to) == Approx(pin.string.in_inches()).margin(0.001));
            // On the outline: a small disc there lies half in and half out.
            const Region disc = circle(pin.to, Length::from_mm(1));
            CHECK(intersect(disc, p.outline).area_mm2() == Approx(disc.area_mm2() / 2).epsilon(0.05));
        }
    }
}

TEST_CASE("the largest rectangle leaves the holes alone and lies inside") {
    CHECK(rc::check([] {
        Region region = Region::rectangle({{0, 0}, {to_grid(20_in), to_grid(12_in)}});
        const int holes = *rc::gen::inRange(0, 4);
        for (int i = 0; i < holes; ++i) {
            const Point at{to_grid(Length::sixtyfourths(*rc::gen::inRange(0, 1280))),
                           to_grid(Length::sixtyfourths(*rc::gen::inRange(0, 768)))};
            region = subtract(region, circle(at, Length::sixtyfourths(*rc::gen::inRange(16, 200))));
        }
        if (region.empty()) return;
        const Box box = largest_rectangle(region);
        RC_ASSERT(lies_in(box, region));
        // No rectangle that grows from it at one side is larger.
        for (const Box& more : {Box{box.low - Point{8, 0}, box.high}, Box{box.low, box.high + Point{0, 8}}})
            RC_ASSERT(!lies_in(more, region) || more.low.x < 0 || holes > 0);
    }));
}

TEST_CASE("in slanted and curved shapes the largest upright rectangle is the one that geometry knows") {
    const auto area = [](std::vector<Ring> rings) {
        const Box box = largest_rectangle(Region::from_rings_even_odd(rings));
        return static_cast<double>(box.width()) * static_cast<double>(box.height());
    };
    CHECK(rc::check([&] {
        const auto any = [] { return *rc::gen::inRange<std::int64_t>(20'000, 2'000'000); };
        const std::int64_t w = any(), h = any();
        const std::int64_t tip = *rc::gen::inRange<std::int64_t>(0, w);
        // Half of a triangle on its side, half of a pennant, half of a diamond.
        const double half = static_cast<double>(w) * static_cast<double>(h) / 4;
        RC_ASSERT(area({{{0, 0}, {w, 0}, {tip, h}}}) == Approx(half).epsilon(1e-3));
        RC_ASSERT(area({{{0, 0}, {w, tip % h}, {0, h}}}) == Approx(half).epsilon(1e-3));
        const Ring diamond{{w / 2, 0}, {w, h / 2}, {w / 2, h}, {0, h / 2}};
        RC_ASSERT(area({diamond}) == Approx(half).epsilon(1e-3));
        // Nothing that lies inside a many-sided shape with a hole is larger.
        Ring star;
        for (int i = 0; i < 9; ++i) {
            const double angle = 0.698 * i, reach = *between(0.3, 1.0);
            star.push_back({std::llround(std::cos(angle) * reach * static_cast<double>(w)),
                            std::llround(std::sin(angle) * reach * static_cast<double>(h))});
        }
        Region shape = Region::from_rings({star});
        shape = subtract(shape, circle(star.front() - Point{star.front().x / 2, 0}, Length::from_mm(1)));
        const Box best = largest_rectangle(shape);
        RC_ASSERT(lies_in(best, shape));
        const double most = static_cast<double>(best.width()) * static_cast<double>(best.height());
        const Box b = shape.bounds();
        for (int i = 0; i < 60; ++i) {
            const auto x = [&] { return b.low.x + std::llround(*between(0, 1) * static_cast<double>(b.width())); };
            const auto y = [&] { return b.low.y + std::llround(*between(0, 1) * static_cast<double>(b.height())); };
            const std::int64_t x0 = x(), x1 = x(), y0 = y(), y1 = y();
            const Box any_box{{std::min(x0, x1), std::min(y0, y1)}, {std::max(x0, x1), std::max(y0, y1)}};
            const double this_one = static_cast<double>(any_box.width()) * static_cast<double>(any_box.height());
            RC_ASSERT(this_one <= most * 1.006 || !lies_in(any_box, shape));
        }
    }));
    // A regular octagon that stands on a side of 1: (1 + sqrt 2) 1 along two sides, or the square of its corners.
    Ring octagon;
    for (int i = 0; i < 8; ++i)
        octagon.push_back({std::llround(1e6 * std::cos((i + 0.5) * 0.785398163397448)),
                           std::llround(1e6 * std::sin((i + 0.5) * 0.785398163397448))});
    const double side = 2 * std::sin(0.39269908169872414);
    CHECK(area({octagon}) / 1e12 == Approx(std::pow(side * (1 + std::sqrt(2.0) / 2), 2)).epsilon(1e-3));
}

TEST_CASE("margins of a board that is out of true are measured from its edges, not from the box round it") {
    Blank b = blank_of(Kind::Board, "60", "5 1/2");
    b.margin = measure("1");
    b.tape.taken = {measure("5 1/2"), std::nullopt, measure("4 1/2")};
    b.clear.push_back({.edge = Edge::Top, .depth = measure("2"), .name = "rope"});
    const BlankPlan p = measured(b);
    // Even taper about the middle: an inch square to each side, at every height.
    const double lean = std::atan(0.5 / 60);
    for (const double y : {10.0, 30.0, 50.0}) {
        const auto free = edges_on(p.free, Axis::Y, {to_grid(Length::from_mm(y * 25.4))}).front();
        REQUIRE(free.size() == 2);
        const double wide = (free[1] - free[0]) * 125e-6 / 25.4;
        CHECK(wide == Approx(5.5 - y / 60 - 2 / std::cos(lean)).margin(0.002));
    }
    CHECK(from_grid(p.free.bounds().high.y).in_inches() == Approx(58).margin(0.01));
    CHECK(p.face.holds(p.zones.front().bounds()));
    // One that bows in by 1/4 in loses half of that at either side, in the middle.
    b.tape.taken = {measure("5 1/2"), measure("5 1/4"), measure("5 1/2"), measure("60"), measure("60")};
    const auto waist = edges_on(measured(b).free, Axis::Y, {to_grid(30_in)}).front();
    REQUIRE(waist.size() == 2);
    CHECK((waist[1] - waist[0]) * 125e-6 / 25.4 == Approx(3.25).margin(0.01));
}

TEST_CASE("clear zones anywhere are kept out of the room for lettering") {
    Blank b = blank_of(Kind::Panel, "40", "20");
    b.stands = Stands::Level;
    ClearZone knot{
        .name = "knot", .shape = ZoneShape::Circle, .x = measure("4"), .y = measure("10"), .width = measure("2")};
    b.clear.push_back(knot);
    BlankPlan p = measured(b);
    CHECK(from_grid(p.usable.width()) == 35_in);
    CHECK(from_grid(p.usable.height()) == 20_in);
    b.clear.front().mirrored = true;
    p = measured(b);
    CHECK(from_grid(p.usable.width()) == 30_in);
    b.clear.front() = ClearZone{.edge = Edge::Top, .name = "rope", .turns = 5, .girth = measure("3/8")};
    p = measured(b);
    CHECK(from_grid(p.usable.height()) == 20_in - 1.875_in);
    CHECK(p.rope == (40_in + 0.75_in) * 2 * 5);
    b.clear.front() = ClearZone{
        .name = "far", .shape = ZoneShape::Circle, .x = measure("90"), .y = measure("10"), .width = measure("2")};
    CHECK(says(measured(b).problems, "blank.zone-outside"));
}

TEST_CASE("impossible measures are a clear problem and no face") {
    const auto only = [](const Blank& b, const char* id) {
        const BlankPlan p = measured(b);
        return p.face.empty() && says(p.problems, id);
    };
    CHECK(only(blank_of(Kind::Panel, "0", "5"), "blank.no-length"));
    CHECK(only(blank_of(Kind::Panel, "5", "0 - 2"), "blank.no-width"));
    Blank arch = blank_of(Kind::Arch, "20", "48");
    CHECK(only(arch, "blank.rise-too-high"));
    arch.arch = {ArchStyle::Pointed, measure("10")};
    CHECK(only(arch, "blank.rise-under-half"));
    arch = blank_of(Kind::Arch, "84", "48");
    arch.arch = {ArchStyle::Segmental, measure("30")};
    CHECK(only(arch, "blank.rise-over-half"));
    Blank arrow = blank_of(Kind::Arrow, "9 1/4", "3");
    arrow.head.overlap = measure("3");
    CHECK(only(arrow, "blank.head-overlap"));
    CHECK(only(blank_of(Kind::Drawn, "9", "3"), "blank.outline-none"));
    Blank framed = blank_of(Kind::Panel, "1", "1");
    framed.frame.kind = FrameKind::Butt;
    framed.frame.size_is = SizeIs::OverAll;
    CHECK(only(framed, "frame.nothing-left"));
    CHECK(says(measured(blank_of(Kind::Board, "720", "5 1/2")).problems, "blank.very-long"));
}

TEST_CASE("a painted field is part of the face, with the lines to tape") {
    Blank b = blank_of(Kind::Round, "18", "18");
    b.fields.push_back({.middle = measure("9"), .depth = measure("5"), .lettered = true});
    BlankPlan p = measured(b);
    REQUIRE(p.fields.size() == 1);
    CHECK(p.fields[0].tape.size() == 2);
    CHECK(lies_in(p.usable, p.fields[0].region));
    b.fields[0].middle = measure("40");
    CHECK(says(measured(b).problems, "blank.field-outside"));
}

TEST_CASE("the back of an arrow points the other way, and its words still read") {
    Job job = porch_board();
    Sign& sign = job.signs.front();
    sign.blank = blank_of(Kind::Arrow, "9 1/4", "3");
    sign.blank.stands = Stands::Level;
    sign.faces.front().lettering.main().arrangement = Arrangement::Level;
    sign.faces.front().lettering.main().words = "SLIPWAY";
    job = letter_back(job, 0);
    const Plan p = plan(job, usual_shop(), library(), moment("2026-05-04T17:40"));
    REQUIRE(p.colours.size() == 2);
    const FacePlan& f = *p.colours[0].face;
    const FacePlan& back = *p.colours[1].face;
    const Region front = f.blank->outline;
    CHECK(back.blank->outline == front.mirrored(front.bounds().high.x));
    CHECK(back.lettering->letters.front().ink.bounds().low.x < back.lettering->letters.back().ink.bounds().low.x);
    CHECK(f.blank->cuts.size() == 1);
    CHECK(back.blank->cuts.empty());
}

TEST_CASE("clear acrylic lettered from behind is cut in mirror writing") {
    Job job = porch_board();
    job.signs.front().blank.material = "acrylic";
    without(job, sanding);
    const Plan from_front = plan(job, usual_shop(), library(), moment("2026-05-04T17:40"));
    job.signs.front().blank.from_behind = true;
    const Plan behind = plan(job, usual_shop(), library(), moment("2026-05-04T17:40"));
    const Box face = behind.colours[0].face->blank->face;
    const auto& as_read = *from_front.colours[0].cut.pieces;
    const auto& as_laid = *behind.colours[0].cut.pieces;
    REQUIRE(as_read.size() == as_laid.size());
    for (std::size_t i = 0; i < as_read.size(); ++i) CHECK(as_laid[i].shape == as_read[i].shape.mirrored(face.high.x));
    // What is seen in front is laid first; the ground would hide it and goes on last.
    CHECK(behind.mark_of(Station::Method) != Mark::Stop);
    std::size_t first_ground = 0;
    std::size_t last_colour = 0;
    for (std::size_t i = 0; i < behind.tasks->size(); ++i) {
        if ((*behind.tasks)[i].work == Work::Ground && first_ground == 0) first_ground = i;
        if ((*behind.tasks)[i].work == Work::Lift) last_colour = i;
    }
    CHECK(last_colour < first_ground);
}

TEST_CASE("four arrows are copies with other words, on one post, and plan on their own") {
    Job job = porch_board();
    Sign& first = job.signs.front();
    first.blank = blank_of(Kind::Arrow, "9 1/4", "3");
    first.blank.stands = Stands::Level;
    first.faces.front().lettering.main().arrangement = Arrangement::Level;
    first.faces.front().lettering.main().words = "SLIPWAY";
    for (const char* words : {"TEA ROOM", "CHANDLERY", "LOST OARS"}) job = copy_sign(job, job.signs.size() - 1, words);
    job = set_on_post(job);
    Plan p = plan(job, usual_shop(), library(), moment("2026-05-04T17:40"));
    REQUIRE(p.colours.size() == 4);
    REQUIRE(p.post);
    CHECK(p.post->arms.size() == 4);
    // 4 1/2 in heads, 1 in apart: the last one's upper edge is 4 x 1 + 3 x 4 1/2 down.
    CHECK(p.post->arms.back().from_top == 17.5_in);
    // The steps of each sign are told apart, and what is cut for one leaves the others alone.
    std::set<StepId> ids;
    for (const Task& t : *p.tasks) CHECK(ids.insert(t.id).second);
    const auto cut = std::find_if(p.tasks->begin(), p.tasks->end(), [](const Task& t) { return t.work == Work::Cut; });
    REQUIRE(cut != p.tasks->end());
    const auto cuts =
        std::count_if(p.tasks->begin(), p.tasks->end(), [](const Task& t) { return t.work == Work::Cut; });
    CHECK(cuts < 4);  // arrows share loads
    const StepId step = cut->id;
    job = tick(job, p, step, moment("2026-05-04T18:40"));
    std::set<ColourId> cut_for;
    for (const CutLoad& c : job.bench.cut) CHECK(cut_for.insert(c.of).second);
    CHECK(cut_for.size() > 1);
    p = plan(job, usual_shop(), library(), moment("2026-05-04T18:40"));
    for (std::size_t s = 0; s < 4; ++s) {
        const ColourPlan& arrow = *p.of(job.signs[s].faces[0].id);
        CHECK(arrow.cut.loads->loads.front().cut == cut_for.contains(arrow.id));
        CHECK(arrow.cut.loads->misfits.empty());
    }
    CHECK(untick(job, step).bench.cut.empty());
    const Job fewer = remove_sign(job, 2);
    CHECK(fewer.post->arms.size() == 3);
    CHECK(copy_sign(fewer, 0, "X").signs[1].id == SignId{"5"});
}

TEST_CASE("a post that is too short says by how much") {
    Post post;
    post.height = measure("10");
    post.arms = {{"1", measure("1")}, {"2", measure("1")}};
    const PostPlan plan = set_on_post(post, {{SignId{"1"}, "a", 5_in}, {SignId{"2"}, "b", 5_in}});
    REQUIRE(says(plan.problems, "post.too-short"));
    CHECK(std::get<Length>(plan.problems.front().what.arguments.front().second) == 2_in);
}

TEST_CASE("every kind of blank comes back from its file") {
    Job job = porch_board();
    Blank& b = job.signs.front().blank;
    b.side_margin[1] = measure("1 1/4");
    b.tape.taken[3] = measure("60 1/16");
    b.fields.push_back({.border = true, .depth = measure("1"), .colour_name = "brick"});
    b.guides.push_back({Axis::Y, measure("2 3/4"), "glue line"});
    b.frame = {FrameKind::Mitred, "1x3", measure("1 1/2"), measure("1/4"), measure("1/8"), SizeIs::Free, true, true};
    b.holding = {Holds::Stake, measure("10"), measure("24"), 4000};
    b.backing = Backing{measure("62"), measure("8"), measure("1/2"), "oak"};
    b.outline = DrawnOutline{circle({0, 0}, 2_in), false, measure("14"), "gull.svg"};
    b.clear.push_back({.name = "knot",
                       .shape = ZoneShape::Circle,
                       .x = measure("2"),
                       .y = measure("9"),
                       .width = measure("1"),
                       .reason = ZoneReason::Knot,
                       .mirrored = true});
    b.clear.push_back({.edge = Edge::Bottom, .name = "rope", .turns = 4, .girth = measure("1/2")});
    b.already = Already::Painted;
    b.already_hours = 30;
    b.grit = 220;
    for (const Kind kind :
         {Kind::Board, Kind::Panel, Kind::Canvas, Kind::Round, Kind::Arrow, Kind::Arch, Kind::Field, Kind::Drawn}) {
        b.kind = kind;
        const auto read = read_job(write_job(set_on_post(job)));
        REQUIRE(read);
        CHECK(*read == set_on_post(job));
    }
}

TEST_CASE("how it hangs follows weight and width; what is too much says so") {
    Blank b = blank_of(Kind::Panel, "10", "7 1/4");
    CHECK(measured(b).weight.hardware->id == "hang.sawtooth");
    b = blank_of(Kind::Board, "72", "11 1/4");
    const Weighed board = measured(b).weight;
    CHECK(board.points.size() == 2);
    CHECK(board.points[0].at.y == board.points[1].at.y);
    // Even about the centre of gravity, so that it hangs level.
    CHECK(std::abs(board.points[0].at.x + board.points[1].at.x - 2 * board.centre.x) <= 2);
    b = blank_of(Kind::Panel, "144", "96");
    b.thickness = measure("2");
    CHECK(measured(b).weight.hardware->id == "hang.beyond");
    b.material = "driftwood";
    CHECK_FALSE(measured(b).weight.known);
}

TEST_CASE("what stands says when it tips, and a leaning board when its foot slides") {
    Blank b = blank_of(Kind::Board, "72", "11 1/4");
    b.holding = {Holds::Leaning, measure("6"), measure("0"), 0};
    CHECK_FALSE(measured(b).weight.tipping->slides);
    b.holding.base = measure("50");
    CHECK(measured(b).weight.tipping->slides);
    b.holding = {Holds::Stake, measure("10"), measure("20"), 0};
    const Tipping bare = *measured(b).weight.tipping;
    b.holding.ballast_grams = 10'000;
    const Tipping held = *measured(b).weight.tipping;
    CHECK(held.angle_degrees > bare.angle_degrees);
    CHECK(held.push_newton > bare.push_newton);
    CHECK(bare.needed_grams > 0);
}

TEST_CASE("pieces longer than any board are named, the others are still sawn") {
    const CuttingPlan plan = cutting_plan({{130_in, 1}, {30_in, 3}}, {72_in, 120_in}, 0.125_in);
    REQUIRE(plan.problems.size() == 1);
    CHECK(plan.problems.front().what.id == "cutting.too-long");
    CHECK(plan.used == 1);
    CHECK(plan.boards.front().from == 120_in);
    // One board of six feet does for two; a longer one is not taken for nothing.
    CHECK(cutting_plan({{30_in, 2}}, {72_in, 120_in}, 0.125_in).boards.front().from == 72_in);
    CHECK(cutting_plan({}, {72_in}, {}).proved);
    CHECK_FALSE(cutting_plan({{30_in, 1}}, {}, {}).problems.empty());
}

TEST_CASE("margins are taken all round, or side by side") {
    Blank b = blank_of(Kind::Panel, "24", "17");
    b.stands = Stands::Level;
    b.margin = measure("2");
    CHECK(from_grid(measured(b).usable.width()) == 20_in);
    b.side_margin[static_cast<std::size_t>(Edge::Left)] = measure("3 1/2");
    CHECK(from_grid(measured(b).usable.low.x) == 3.5_in);
    CHECK(from_grid(measured(b).usable.width()) == 18.5_in);
    // Trim on the face takes its width as well.
    b.frame.kind = FrameKind::Trim;
    CHECK(from_grid(measured(b).usable.height()) == 17_in - 4_in - 1.5_in);
    Blank round = blank_of(Kind::Round, "18", "18");
    round.margin = measure("1");
    CHECK(std::abs(measured(round).free.area_mm2() / 645.16 - 3.14159265 * 64) < 0.05);
}

TEST_CASE("a region mirrored twice is itself") {
    CHECK(rc::check([] {
        const Region shape =
            merge(circle({*rc::gen::inRange(-9999, 9999), 77}, Length::sixtyfourths(*rc::gen::inRange(4, 900))),
                  Region::rectangle({{0, 0}, {*rc::gen::inRange(1, 90'000), 5000}}));
        RC_ASSERT(shape.mirrored(12).mirrored(12) == shape);
        RC_ASSERT(std::abs(shape.mirrored(12).area_mm2() - shape.area_mm2()) < 1e-9 * shape.area_mm2() + 1e-9);
    }));
}

TEST_CASE("whatever a blank is turned into, it can be measured at once") {
    const Blank board = porch_board().signs.front().blank;
    for (const Kind first : {Kind::Panel, Kind::Canvas, Kind::Round, Kind::Arrow, Kind::Arch, Kind::Field}) {
        for (const Kind then :
             {Kind::Board, Kind::Panel, Kind::Canvas, Kind::Round, Kind::Arrow, Kind::Arch, Kind::Field})
            CHECK_FALSE(measured(as_kind(as_kind(board, first), then)).usable.empty());
    }
    CHECK(as_kind(board, Kind::Board) == board);
    for (const ArchStyle style : {ArchStyle::Segmental, ArchStyle::Pointed, ArchStyle::HalfRound})
        CHECK_FALSE(measured(with_top(as_kind(board, Kind::Arch), style)).face.empty());
}
