#include "blank/frame.h"
#include "support_blank.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

double sq_in(Length across, Length up) { return across.in_inches() * up.in_inches(); }

FramePlan framed(const Frame& frame, Length across, Length up) {
    FramePlan plan = frame_sizes(frame, across, up);
    cut_frame(plan, frame);
    return plan;
}

Frame any_frame() {
    Frame f;
    f.kind =
        *rc::gen::element(FrameKind::Butt, FrameKind::Mitred, FrameKind::Trim, FrameKind::Battens, FrameKind::Edging);
    const auto measured = [](int least, int most) {
        return Measure{"", Length::sixtyfourths(*rc::gen::inRange(least, most))};
    };
    f.seen = measured(16, 200);
    f.rebate = measured(0, 16);
    f.clearance = measured(0, 16);
    f.size_is = *rc::gen::element(SizeIs::OverAll, SizeIs::Bare, SizeIs::Free);
    return f;
}

}  // namespace

TEST_CASE("a typed size is what it says it is, whatever the frame") {
    CHECK(rc::check([] {
        const Frame f = any_frame();
        const Length across = Length::sixtyfourths(*rc::gen::inRange(64 * 12, 64 * 80));
        const Length up = Length::sixtyfourths(*rc::gen::inRange(64 * 12, 64 * 80));
        const FramePlan p = framed(f, across, up);
        RC_ASSERT((f.size_is == SizeIs::OverAll ? p.over_across
                   : f.size_is == SizeIs::Free  ? p.free_across
                                                : p.bare_across) == across);
        RC_ASSERT((f.size_is == SizeIs::OverAll ? p.over_up : f.size_is == SizeIs::Free ? p.free_up : p.bare_up) == up);
        // Whichever of its three sizes is typed, it is the same frame.
        for (const auto& [is, a, u] :
             {std::tuple(SizeIs::OverAll, p.over_across, p.over_up), std::tuple(SizeIs::Free, p.free_across, p.free_up),
              std::tuple(SizeIs::Bare, p.bare_across, p.bare_up)}) {
            Frame same = f;
            same.size_is = is;
            RC_ASSERT(framed(same, a, u) == p);
        }
    }));
}

TEST_CASE("the wood of a frame fills what lies between its inside and its outside, to the square inch") {
    CHECK(rc::check([] {
        const Frame f = any_frame();
        const Length across = Length::sixtyfourths(*rc::gen::inRange(64 * 12, 64 * 80));
        const FramePlan p = framed(f, across, Length::sixtyfourths(*rc::gen::inRange(64 * 12, 64 * 80)));
        const double seen = f.seen.value.in_inches();
        double wood = 0;
        for (const Cut& c : p.cuts) {
            // At 45 degrees the inner edge of a piece is shorter by its width at both ends.
            const double lost = c.angle == 45 ? seen * seen : 0;
            wood += c.count * (c.length.in_inches() * seen - lost);
        }
        const bool around = f.kind == FrameKind::Butt || f.kind == FrameKind::Edging;
        const double outside = sq_in(p.over_across, p.over_up);
        const double inside = around ? sq_in(p.bare_across, p.bare_up) : sq_in(p.free_across, p.free_up);
        RC_ASSERT(wood == Approx(outside - inside).epsilon(1e-9));
        RC_ASSERT(p.cover_across * 2 == (around || f.kind == FrameKind::Battens ? Length{}
                                         : f.kind == FrameKind::Mitred          ? f.rebate.value * 2
                                                                                : f.seen.value * 2));
    }));
}

TEST_CASE("round a shape that is no rectangle only an edging strip goes, as long as its edge") {
    Frame f;
    f.kind = FrameKind::Edging;
    const FramePlan strip = edge_up(f, 18_in, 18_in, 56.5_in);
    REQUIRE(strip.cuts.size() == 1);
    CHECK(strip.cuts.front().length == 56.5_in);
    CHECK(strip.over_across == 19.5_in);
    f.kind = FrameKind::Mitred;
    const FramePlan none = edge_up(f, 18_in, 18_in, 56.5_in);
    CHECK(none.cuts.empty());
    CHECK(none.notes.front().id == "frame.only-edging");
    f.kind = FrameKind::None;
    CHECK(framed(f, 18_in, 18_in).cuts.empty());
}

TEST_CASE("round a board that is out of true every piece is as long as its own edge") {
    Blank b = blank_of(Kind::Panel, "24", "12");
    b.tape.taken = {measure("12"), std::nullopt, measure("11 3/4"), measure("24"), measure("24 1/8")};
    b.frame.kind = FrameKind::Butt;
    const BlankPlan p = measured(b);
    std::vector<double> lengths;
    for (const Cut& c : p.cuts) {
        if (c.what.id.starts_with("frame.")) lengths.push_back(c.length.in_inches());
    }
    REQUIRE(lengths.size() == 4);
    CHECK(lengths[0] == Approx(24).margin(0.01));  // left, right, top and bottom
    CHECK(lengths[1] == Approx(24.125).margin(0.01));
    CHECK(lengths[2] == Approx(11.75 + 1.5).margin(0.01));
    CHECK(lengths[3] == Approx(12 + 1.5).margin(0.01));
}

TEST_CASE("a frame goes round the backing, is as deep as its stock, and all of it stands and weighs") {
    Blank b = blank_of(Kind::Panel, "20", "10");
    b.material = "pine";
    b.holding.way = Holds::Legs;
    const BlankPlan bare = measured(b);
    b.backing = Backing{measure("26"), measure("14"), measure("1/2"), "pine"};
    b.frame.kind = FrameKind::Butt;
    b.frame.stock = "1x2";
    b.frame.size_is = SizeIs::OverAll;
    const BlankPlan p = measured(b);
    CHECK(p.problems.front().what.id == "frame.round-backing");
    CHECK(from_grid(p.face.height()) == 20_in);
    CHECK(from_grid(p.built.whole.height()) == 27.5_in);
    // 2 x 26 and 2 x 15 1/2 in of 3/4 x 1 1/2 in, and 26 x 14 x 1/2 in of backing, in pine of 448 kg a cubic metre.
    const double g = 448 * 16.387064e-3;
    CHECK(p.weight.frame_grams == Approx((52 + 31) * 0.75 * 1.5 * g).margin(1));
    CHECK(p.weight.backing_grams == Approx(26 * 14 * 0.5 * g).margin(1));
    // By moments: the same base under a sign that is higher and heavier. F = m g a / H.
    const auto push = [](const BlankPlan& plan, double high) {
        return plan.weight.total() / 1000.0 * 9.80665 * 6 / high;
    };
    CHECK(bare.weight.tipping->push_newton == Approx(push(bare, 20)).epsilon(1e-3));
    CHECK(p.weight.tipping->push_newton == Approx(push(p, 27.5)).epsilon(1e-3));
    b.frame.depth = measure("3/4");
    CHECK(measured(b).weight.frame_grams * 2 == Approx(p.weight.frame_grams).margin(2));
    CHECK(std::any_of(p.cuts.begin(), p.cuts.end(), [](const Cut& c) { return c.what.id == "cuts.backing"; }));
}
