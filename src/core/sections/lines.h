// sections/lines.h
//
// Lines: straight knife lines that cut nothing out. Weeding lines run across the waste of a large decal and break it
// into parts that come off one by one; they stop short of ink. Match marks lie where two sections meet, the same line
// in both films, so that neighbours are laid by bringing the lines together; they keep off ink too, and a mask stays
// tight, as a slit lets no paint through that film does not lie under or beside.
#pragma once

#include "sections/sections.h"

namespace skarvel {

/// Across the shorter side of a decal whose film is longer than `apart`, about that far from one another, each where
/// least of it is stopped by ink. Empty for masks, whose waste is their ink.
std::vector<KnifeLine> weeding_lines(const Section& section, Way way, Length apart);

/// Crosses at both ends of each straight seam, as far out as free film allows; one entry for each of `sections`.
std::vector<std::vector<KnifeLine>> match_marks(const std::vector<Section>& sections, const std::vector<Seam>& seams,
                                                const std::vector<Piece>& pieces);

/// How much waste a load of decals may keep in one part (common practice: strips of a hand's width come off well).
constexpr Length weeding_apart = 4_in;

}  // namespace skarvel
