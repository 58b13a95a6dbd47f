// values/id.h
//
// Ids: lasting names of the things in a job. An id is made once, from the job's own count (Job::made), and never used
// again in that job: it stays when things are moved, and what refers to a thing that has gone finds nothing, never its
// neighbour. Each kind of thing has a type of its own, so that ids do not mix.
#pragma once

#include <compare>
#include <string>

namespace skarvel {

template <class Of>
struct Id {
    std::string name{};
    [[nodiscard]] bool empty() const { return name.empty(); }
    friend auto operator<=>(const Id&, const Id&) = default;
};

using SignId = Id<struct OfSign>;
using FaceId = Id<struct OfFace>;      ///< one side of a sign's blank
using ColourId = Id<struct OfColour>;  ///< of a face
using ThingId = Id<struct OfThing>;    ///< a text or an art of a face: things hang on one another
using LayerId = Id<struct OfLayer>;    ///< of a face's build-up (method/layers.h)
using StepId = Id<struct OfStep>;      ///< a task, and the step at the bench that does it (clock/tasks.h)
using CutId = Id<struct OfCut>;        ///< a load that has been cut

/// Of the sign, the face and the colour that a new job begins with.
inline const SignId first_sign{"1"};
inline const FaceId first_face{"1"};
inline const ColourId first_colour{"1"};

}  // namespace skarvel
