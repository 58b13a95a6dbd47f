// loads/sharing.h
//
// Sharing: loads over the whole job. Sections of different colours and signs that are cut from the same film on the
// same bed are packed together where that saves a load, or film; masks for different paints may share one, as any
// colour of film does for them. Each load is carried by the first colour that has something on it: its step cuts all of
// it, and the others' sections are guests. What is already cut stays as it was.
#pragma once

#include <memory>

#include "loads/machines.h"

namespace skarvel {

struct Sharer {
    std::string of;      ///< sign, face and colour, as steps name them
    std::string film;    ///< as Making names it
    std::string colour;  ///< of a decal; any colour does for masks, which name none
    bool mask = true;
    Mat bed;
    std::shared_ptr<const LoadsPlan> loads;
    friend bool operator==(const Sharer& a, const Sharer& b) {
        return a.of == b.of && a.film == b.film && a.colour == b.colour && a.mask == b.mask && a.bed == b.bed &&
               (a.loads == b.loads || (a.loads && b.loads && *a.loads == *b.loads));
    }
};

struct Shared {
    std::vector<std::shared_ptr<const LoadsPlan>> plans;  ///< one for each sharer; the same one where nothing is shared
    int loads_saved = 0;
    friend bool operator==(const Shared&, const Shared&) = default;
};

/// Loads that a leftover or a sheet in the drawer does for are cut from that, the smallest that does, each piece once.
Shared share_loads(const std::vector<Sharer>& sharers, const std::vector<FilmStock>& drawer);

}  // namespace skarvel
