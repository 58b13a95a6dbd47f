#include "blank/frame.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

double sq_in(Length across, Length up) { return across.in_inches() * up.in_inches(); }

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
        const FramePlan p = frame_up(f, across, up);
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
            RC_ASSERT(frame_up(same, a, u) == p);
        }
    }));
}

TEST_CASE("the wood of a frame fills what lies between its inside and its outside, to the square inch") {
    CHECK(rc::check([] {
        const Frame f = any_frame();
        const Length across = Length::sixtyfourths(*rc::gen::inRange(64 * 12, 64 * 80));
        const FramePlan p = frame_up(f, across, Length::sixtyfourths(*rc::gen::inRange(64 * 12, 64 * 80)));
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
    const FramePlan strip = frame_up(f, 18_in, 18_in, 56.5_in);
    REQUIRE(strip.cuts.size() == 1);
    CHECK(strip.cuts.front().length == 56.5_in);
    CHECK(strip.over_across == 19.5_in);
    f.kind = FrameKind::Mitred;
    const FramePlan none = frame_up(f, 18_in, 18_in, 56.5_in);
    CHECK(none.cuts.empty());
    CHECK(none.notes.front().id == "frame.only-edging");
    f.kind = FrameKind::None;
    CHECK(frame_up(f, 18_in, 18_in).cuts.empty());
}
