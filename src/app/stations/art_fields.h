// stations/art_fields.h
//
// Fields of the art at hand: each kind has its own, built when one of that kind is first shown.
#pragma once

#include "stations/form.h"

namespace skarvel {

using ArtForm = Form<Art>;

/// Puts them on the tray where it is built.
void art_fields(ArtForm& form);

}  // namespace skarvel
