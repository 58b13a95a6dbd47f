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

FramePlan frame_up(const Frame& frame, Length across, Length up, std::optional<Length> around) {
    FramePlan plan{across, up, across, up, across, up, {}, {}, {}, {}};
    if (frame.kind == FrameKind::None) return plan;
    const auto cut = [&](const char* what, int count, Length length, int angle = 90) {
        plan.cuts.push_back({{what, {}}, frame.stock, count, length, {}, angle});
    };
    if (around) {
        if (frame.kind != FrameKind::Edging) {
            plan.notes.push_back({"frame.only-edging", {}});
            return plan;
        }
        plan.over_across = across + frame.seen.value * 2;
        plan.over_up = up + frame.seen.value * 2;
        cut("frame.strip", 1, *around);
        plan.notes.push_back({"frame.strip-bends", {}});
        return plan;
    }
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
    switch (frame.kind) {
        case FrameKind::Butt:
        case FrameKind::Edging:
            cut("frame.side", 2, plan.bare_up);
            cut("frame.top-bottom", 2, plan.over_across);
            break;
        case FrameKind::Mitred:
            cut("frame.side", 2, plan.over_up, 45);
            cut("frame.top-bottom", 2, plan.over_across, 45);
            break;
        case FrameKind::Trim:
            cut("frame.top-bottom", 2, plan.bare_across);
            cut("frame.side", 2, plan.bare_up - frame.seen.value * 2);
            break;
        case FrameKind::Battens:
            cut("frame.batten", 2, plan.bare_across);
            break;
        case FrameKind::None:
            break;
    }
    plan.notes.push_back({frame.before ? "frame.before" : "frame.after", {}});
    if (frame.before && frame.raised) plan.notes.push_back({"frame.raised-tools", {}});
    return plan;
}

}  // namespace skarvel
