// job/wish_commands.h
//
// Commands on what the maker wishes about the sections of one colour: moving a seam or wanting none there, binding
// pieces, setting them apart. Each returns the new job; the plan that follows tells what could not be had.
#pragma once

#include "job/face_commands.h"

namespace skarvel {

Wishes& wishes_of(Job& job, const ColourAt& at);
const Wishes& wishes_of(const Job& job, const ColourAt& at);

/// The place in the wishes of the one that a seam of the plan follows; nothing where it was found.
std::optional<std::size_t> wish_for(const Job& job, const ColourAt& at, const ColourPlan& plan, const Seam& seam);
/// Where a seam lies, from the left or the bottom edge of the face.
Length place_of(const ColourPlan& plan, const Seam& seam);

/// What a seam would come to elsewhere, while it is dragged: on the nearest line that can be measured to.
struct TriedSeam {
    Measure at;
    std::int64_t where = 0;  ///< face frame
    Length crossed;          ///< ink
    friend bool operator==(const TriedSeam&, const TriedSeam&) = default;
};
TriedSeam try_seam(const ColourPlan& plan, const Seam& seam, std::int64_t where, const Display& display);

/// A seam to another place. The seams that it ends on stay where they are now.
Job move_seam(const Job& job, const ColourAt& at, const ColourPlan& plan, std::size_t seam, const Measure& to);
/// No seam in the gap that this one lies in.
Job forbid_seam(const Job& job, const ColourAt& at, const ColourPlan& plan, std::size_t seam, const Display& display);
/// A seam where there is none, from edge to edge: on the nearest line that can be measured to.
Job want_seam(const Job& job, const ColourAt& at, const ColourPlan& plan, Axis axis, std::int64_t where,
              const Display& display);
/// No seam in the gap that this place lies in, or half an inch to both sides where it lies between no ink.
Job forbid_seams_at(const Job& job, const ColourAt& at, const ColourPlan& plan, Axis axis, std::int64_t where,
                    const Display& display);
/// A wish about seams is dropped.
Job free_seam(const Job& job, const ColourAt& at, std::size_t wish);

/// Fewer than two pieces change nothing. Whatever these were bound to before stays bound to them.
Job bind_pieces(const Job& job, const ColourAt& at, const std::vector<PieceName>& pieces);
Job set_apart(const Job& job, const ColourAt& at, const std::vector<PieceName>& pieces);
/// Neither bound nor apart any longer.
Job free_pieces(const Job& job, const ColourAt& at, const std::vector<PieceName>& pieces);
/// Masks that signs have alike are cut for the first of them alone and laid again on the others, or each has its own:
/// one decision for every colour of the job whose plan has such masks.
Job masks_again(const Job& job, const Plan& plan, bool wanted);
/// Everything as it is found.
Job forget_wishes(const Job& job, const ColourAt& at);

}  // namespace skarvel
