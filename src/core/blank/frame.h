// blank/frame.h
//
// Frame: what goes round, on or under a panel, how large the bare panel is, and the list of what to cut.
//
// A typed size may be over all (with the frame on), bare (the panel alone) or free (what is seen inside the frame).
// Lengths by arithmetic: butt: sides as long as the panel is high, top and bottom the panel's width and two frame
// thicknesses more; mitred: panel + 2 x seen - 2 x rebate + clearance, cut at 45 degrees; trim and battens lie on the
// face: trim's top and bottom run through, its sides stand between them (common practice). Round a board that is out of
// true every piece is as long as its own edge.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "measure/reading.h"
#include "text/reason.h"

namespace skarvel {

enum class FrameKind { None, Butt, Mitred, Trim, Battens, Edging };
constexpr auto words_of(FrameKind) { return std::array{"none", "butt", "mitred", "trim", "battens", "edging"}; }
enum class SizeIs { OverAll, Bare, Free };
constexpr auto words_of(SizeIs) { return std::array{"over-all", "bare", "free"}; }

struct Frame {
    FrameKind kind = FrameKind::None;
    std::string stock = "1x2";                             ///< what it is cut from
    Measure seen{"3/4 in", Length::sixtyfourths(48)};      ///< how wide it looks from the front
    Measure rebate{"0 in", {}};                            ///< how far it laps over the panel's edge
    Measure clearance{"1/8 in", Length::sixtyfourths(8)};  ///< play of a panel in its rebate, both sides together
    SizeIs size_is = SizeIs::Bare;                         ///< what the blank's length and width mean
    bool raised = false;                                   ///< stands above the panel's face; otherwise flush
    bool before = false;                                   ///< goes on before the lettering
    std::optional<Measure> depth{};                        ///< from front to back; as the stock has it where not given
    friend bool operator==(const Frame&, const Frame&) = default;
};

/// One row of a cut list. `width` is set for sheet goods, which no plan of lengths cuts.
struct Cut {
    Reason what;
    std::string stock;
    int count = 1;
    Length length;
    std::optional<Length> width;
    int angle = 90;  ///< of both ends, in degrees to the length
    friend bool operator==(const Cut&, const Cut&) = default;
};

/// How long the edges are that a frame goes round or lies on.
struct Sides {
    Length bottom, right, top, left;
    friend bool operator==(const Sides&, const Sides&) = default;
};

struct FramePlan {
    Length bare_across, bare_up;    ///< the panel alone
    Length over_across, over_up;    ///< with the frame on
    Length free_across, free_up;    ///< seen inside the frame
    Length cover_across, cover_up;  ///< of the panel's face that the frame hides at each side, at top and bottom
    bool on_backing = false;        ///< it goes round the backing: the sizes are of that, not of the panel
    std::vector<Cut> cuts;
    std::vector<Reason> notes;
    friend bool operator==(const FramePlan&, const FramePlan&) = default;
};

/// From the typed measures across and up, without cuts.
FramePlan frame_sizes(const Frame& frame, Length across, Length up);

/// The pieces of a frame round an upright rectangle, or round `sides`, whose corners are then no right angles.
void cut_frame(FramePlan& plan, const Frame& frame, const std::optional<Sides>& sides = {});

/// Round a shape that is no four-sided board, `around` long: only an edging strip can follow it; other frames give a
/// note and no cuts.
FramePlan edge_up(const Frame& frame, Length across, Length up, Length around);

}  // namespace skarvel
