// job/text_commands.h
//
// What the maker does to a text or an art of a face that is more than one value put in another's place (values/lens.h
// does that).
#pragma once

#include "job/job.h"

namespace skarvel {

/// Sized by something else from now on: it begins with what it is now, on a sixteenth.
/// \param now where the text lies; nullptr where that is not known.
void size_by(Text& text, Sizing sizing, const PlacedText* now);
/// By cap height, unless it is sized by a height or width already.
void type_size(Text& text, const Measure& size);
/// A stack's gap is far too much between letters on a line, and the other way round.
/// \param on_round whether the blank has a round edge that an arc can follow.
void arrange(Text& text, Arrangement arrangement, bool on_round);
/// Faces without words on a blank that was changed: a stack on an upright board, level lines elsewhere.
Job arranged_for_blank(const Job& before, Job after);
/// Its outline grown by so much more.
void make_bolder(Text& text, Length by);
/// One of the forms that its typeface offers.
void take_form(Text& text, const std::string& feature, bool on);

/// One way for a text to stand, along one axis.
struct HangWay {
    Reason name;
    std::optional<Hang> hang;  ///< nothing: in the middle, or in the column
    friend bool operator==(const HangWay&, const HangWay&) = default;
};
/// All ways for that text of the face.
std::vector<HangWay> ways_to_hang(const Face& face, const ThingId& text, Axis axis);
/// The place in `ways` of how it hangs now, however far off; nothing when it hangs in another way.
std::optional<std::size_t> way_of(const std::optional<Hang>& now, const std::vector<HangWay>& ways);

/// The names of its days, divided by spaces: seven at most.
void name_days(MonthBoard& board, const std::string& names);
/// No part of it left out, none in a colour of its own.
void bring_back_parts(PlacedDrawing& drawing);
void say_licence(PlacedDrawing& drawing, const std::string& licence);

/// Among the shop's favourites from now on, or no longer.
void like(Shop& shop, const TypefaceName& typeface, bool liked);
bool is_liked(const Shop& shop, const TypefaceName& typeface);

}  // namespace skarvel
