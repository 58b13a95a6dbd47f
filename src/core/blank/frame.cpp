#include "blank/frame.h"

namespace skarvel {
namespace {

struct Added {
    Length outside;  // to the bare panel, at one side
    Length cover;    // of its face, at one side
    Length play;     // both sides together
};

Added added(const Frame& f) {
    switch (f.kind) {
        case FrameKind::Butt:
        case FrameKind::Edging:
            return {f.seen.value, {}, {}};
        case FrameKind::Mitred:
            return {f.seen.value - f.rebate.value, f.rebate.value, f.clearance.value};
        case FrameKind::Trim:
        case FrameKind::Battens:
            return {{}, f.seen.value, {}};
        case FrameKind::None:
            break;
    }
    return {};
}

Length bare_of(const Frame& f, Length typed, const Added& a) {
    switch (f.size_is) {
        case SizeIs::OverAll:
            return typed - a.outside * 2 - a.play;
        case SizeIs::Free:
            return typed + a.cover * 2 - a.play;
        case SizeIs::Bare:
            break;
    }
    return typed;
}

}  // namespace

FramePlan edge_up(const Frame& frame, Length across, Length up, Length around) {
    FramePlan plan{across, up, across, up, across, up, {}, {}, false, {}, {}};
    if (frame.kind == FrameKind::None) return plan;
    if (frame.kind != FrameKind::Edging) {
        plan.notes.push_back({"frame.only-edging", {}});
        return plan;
    }
    plan.over_across = across + frame.seen.value * 2;
    plan.over_up = up + frame.seen.value * 2;
    plan.cuts.push_back({{"frame.strip", {}}, frame.stock, 1, around, {}, 90});
    plan.notes.push_back({"frame.strip-bends", {}});
    return plan;
}

FramePlan frame_sizes(const Frame& frame, Length across, Length up) {
    FramePlan plan{across, up, across, up, across, up, {}, {}, false, {}, {}};
    if (frame.kind == FrameKind::None) return plan;
    const Added a = added(frame);
    // Battens lie at top and bottom only: across, nothing is added or hidden.
    const Added sideways = frame.kind == FrameKind::Battens ? Added{} : a;
    plan.bare_across = bare_of(frame, across, sideways);
    plan.bare_up = bare_of(frame, up, a);
    plan.over_across = plan.bare_across + sideways.outside * 2 + sideways.play;
    plan.over_up = plan.bare_up + a.outside * 2 + a.play;
    plan.free_across = plan.bare_across - sideways.cover * 2 + sideways.play;
    plan.free_up = plan.bare_up - a.cover * 2 + a.play;
    plan.cover_across = sideways.cover;
    plan.cover_up = a.cover;
    return plan;
}

void cut_frame(FramePlan& plan, const Frame& frame, const std::optional<Sides>& sides) {
    if (frame.kind == FrameKind::None) return;
    const Sides at = sides.value_or(Sides{plan.bare_across, plan.bare_up, plan.bare_across, plan.bare_up});
    const Added a = added(frame);
    const Length more = a.outside * 2 + a.play;
    const auto both = [&](const char* what, Length first, Length second, int angle = 90) {
        plan.cuts.push_back({{what, {}}, frame.stock, first == second ? 2 : 1, first, {}, angle});
        if (first != second) plan.cuts.push_back({{what, {}}, frame.stock, 1, second, {}, angle});
    };
    switch (frame.kind) {
        case FrameKind::Butt:
        case FrameKind::Edging:
            both("frame.side", at.left, at.right);
            both("frame.top-bottom", at.top + more, at.bottom + more);
            break;
        case FrameKind::Mitred:
            both("frame.side", at.left + more, at.right + more, 45);
            both("frame.top-bottom", at.top + more, at.bottom + more, 45);
            break;
        case FrameKind::Trim:
            both("frame.top-bottom", at.top, at.bottom);
            both("frame.side", at.left - frame.seen.value * 2, at.right - frame.seen.value * 2);
            break;
        case FrameKind::Battens:
            both("frame.batten", at.top, at.bottom);
            break;
        case FrameKind::None:
            break;
    }
    plan.notes.push_back({frame.before ? "frame.before" : "frame.after", {}});
    if (frame.before && frame.raised) plan.notes.push_back({"frame.raised-tools", {}});
    if (sides) plan.notes.push_back({"frame.fit-to-board", {}});
}

}  // namespace skarvel
