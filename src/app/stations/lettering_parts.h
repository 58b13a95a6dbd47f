// stations/lettering_parts.h
//
// The parts of Lettering's tray, as a maker would name them: the words and their typeface, how they are set, where they
// stand, colours and rims, what else is on the face, and what follows.
#pragma once

#include "stations/form.h"

namespace skarvel {

using TextForm = Form<Text>;
using FaceForm = Form<Face>;

/// Where the text at hand lies; nullptr while that is not known.
const PlacedText* placed_at_hand(const Desk& desk);

/// The box for words. \returns it, for the cursor
QWidget* words_box(TextForm& form);
void typeface_and_samples(TextForm& form);
/// Stack, lines or arc, sizes and gaps; the shape of letters and the arc are parts of their own.
void how_it_is_set(TextForm& form);
void where_it_stands(TextForm& text, FaceForm& face);
/// Of whatever is at hand, text or art.
void colours_and_rims(TextForm& text, FaceForm& face);
void add_to_the_face(Desk& desk, FaceForm& face);
void read_from_where(FaceForm& face);

/// What a colour is called where it is picked.
QString name_of(const Colour& colour);

void say_what_follows(Tray& tray, TextForm& form, const ColourPlan* plan);

}  // namespace skarvel
