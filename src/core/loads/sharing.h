// loads/sharing.h
//
// Sharing: loads over the whole job. Sections of different colours and signs that are cut from the same film on the
// same bed are packed together where that saves a load, or film; masks for different paints may share one, as any
// colour of film does for them. Each load is carried by the first colour that has something on it: its step cuts all of
// it, and the others' sections are guests. What is already cut stays as it was.
#pragma once

#include "loads/machines.h"
#include "values/shared.h"

namespace skarvel {

struct Sharer {
    ColourId of;
    std::string film;    ///< as Making names it
    std::string colour;  ///< of a decal; any colour does for masks, which name none
    bool mask = true;
    Mat bed;
    Length gap;  ///< between sections on it
    Shared<LoadsPlan> loads;
    friend bool operator==(const Sharer&, const Sharer&) = default;
};

struct SharedLoads {
    std::vector<Shared<LoadsPlan>> plans;  ///< one for each sharer; the same one where nothing is shared
    int loads_saved = 0;
    friend bool operator==(const SharedLoads&, const SharedLoads&) = default;
};

/// Loads that a leftover or a sheet in the drawer does for are cut from that, the smallest that does, each piece once;
/// where none does alone, from a few that lie side by side.
SharedLoads share_loads(const std::vector<Sharer>& sharers, const std::vector<FilmStock>& drawer);

}  // namespace skarvel
