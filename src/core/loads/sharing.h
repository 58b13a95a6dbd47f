// loads/sharing.h
//
// Sharing: loads over the whole job. Sections of different colours and signs that are cut from the same film on the
// same bed are packed together where that saves a load, or film; masks for different paints may share one, as any
// colour of film does for them. Each load is carried by the first colour that has something on it: its step cuts all of
// it, and the others' sections are guests. What is already cut stays as it was.
//
// Masks that several signs have alike, film and openings and lines, may be cut for the first of them alone and laid
// again on the next once they are lifted there, where the maker asks for that.
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
    SignId sign{};
    bool masks_again = false;  ///< masks of signs before it are laid again, where they are alike
    friend bool operator==(const Sharer&, const Sharer&) = default;
};

struct SharedLoads {
    std::vector<Shared<LoadsPlan>> plans;  ///< one for each sharer; the same one where nothing is shared
    int loads_saved = 0;
    friend bool operator==(const SharedLoads&, const SharedLoads&) = default;
};

/// Loads that a leftover or a sheet in the drawer does for are cut from that, the smallest that does, each piece once;
/// where none does alone, from a few that lie side by side.
/// Signs lend in their order: what is laid again waits for signs before its own, and for nothing else.
SharedLoads share_loads(const std::vector<Sharer>& sharers, const std::vector<FilmStock>& drawer);

}  // namespace skarvel
