// job/face_commands.h
//
// Commands on what stands on a face: its texts, its art, its colours, and where each of them hangs. Each returns the
// new job and leaves the old one alone; a sign, face or thing that is not there changes nothing.
#pragma once

#include "job/plan.h"
#include "lettering/compose.h"
#include "lettering/placing.h"

namespace skarvel {

/// Texts and art as they are placed, by id; what is not on the face (no words yet) is left out.
std::vector<PlacedThing> things_on(const Face& face, const ColourPlan& plan);

/// A new text under the last one, like it but without words.
Job add_text(const Job& job, FaceAt at);
/// One of several level lines made a text of its own, in its place of the column; what stood before it keeps the name.
/// Unchanged where the text hangs on something, is locked or turned, has letters moved by hand, or no such line.
Job split_off_line(const Job& job, FaceAt at, std::size_t text, std::size_t line);
/// The last text stays; what hung on the one that goes hangs where it stood.
Job remove_text(const Job& job, FaceAt at, std::size_t text, const ColourPlan* plan = nullptr);
/// The first text of a face in another typeface.
Job set_in(const Job& job, FaceAt at, const TypefaceName& typeface);
Job add_art(const Job& job, FaceAt at, ArtKind kind, const std::vector<Typeface>& typefaces);
Job remove_art(const Job& job, FaceAt at, std::size_t art, const ColourPlan* plan = nullptr);
/// One place nearer to the front (later) or to the back.
Job raise_art(const Job& job, FaceAt at, std::size_t art, bool to_front);

/// Another colour, made like the last one.
Job add_colour(const Job& job, FaceAt at, const std::vector<ShelfColour>& offered = {});
/// Everything in that colour takes the first of those that stay; the last colour stays. What was cut for it stays on
/// record.
Job remove_colour(const Job& job, FaceAt at, std::size_t colour);
/// Laid earlier; everything keeps its colour.
Job lay_earlier(const Job& job, FaceAt at, std::size_t colour);

/// A text or an art in another colour of its face; a rim in that colour goes.
Job put_in_colour(const Job& job, FaceAt at, const ThingId& thing, const ColourId& colour);
enum class RimIs { None, Behind, Inside };
/// A rim of a text, or none. It takes another colour than its ink, a new one where the face has no other; one that lies
/// behind comes before its ink in the order of laying.
Job set_rim(const Job& job, FaceAt at, std::size_t text, RimIs is);
Job put_rim_in_colour(const Job& job, FaceAt at, std::size_t text, const ColourId& colour);
/// A part of a drawing is left out.
Job drop_part(const Job& job, FaceAt at, std::size_t art, std::size_t part);
/// It takes the colour that comes after `now` on its face.
Job recolour_part(const Job& job, FaceAt at, std::size_t art, std::size_t part, const ColourId& now);

/// The text whose look the lines of a proposal take over: the first that they take the place of.
const Text& text_like(const Face& face);
/// All unlocked texts of the column make way for the lines of a proposal.
Job take_proposal(const Job& job, FaceAt at, const Proposal& proposal, const ComposeWish& wish);

/// `nothing` leaves that axis as it is.
Job hang_thing(const Job& job, FaceAt at, const ThingId& id, std::optional<Hang> across, std::optional<Hang> up);
/// Back where it stands by itself.
Job unhang_thing(const Job& job, FaceAt at, const ThingId& id);
bool is_locked(const Face& face, const ThingId& id);
/// By exactly that much; locked things stay.
Job nudge_thing(const Job& job, FaceAt at, const ColourPlan& plan, const ThingId& id, Length across, Length up,
                const Display& display);
/// One letter of a text, from where it would stand.
Job nudge_letter(const Job& job, FaceAt at, std::size_t text, int letter, Length across, Length up);
/// All unlocked things along an axis with equal gaps.
Job spread_things(const Job& job, FaceAt at, const ColourPlan& plan, Axis axis, const Display& display);

}  // namespace skarvel
