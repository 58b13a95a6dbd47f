// What every division of ink must hold, whatever the sign.
#pragma once

#include <rapidcheck.h>

#include <algorithm>

#include "loads/loads.h"
#include "support.h"

namespace skarvel::testing {

inline Region union_of(const std::vector<Piece>& pieces) {
    std::vector<Region> shapes;
    for (const Piece& p : pieces) shapes.push_back(p.shape);
    return merge(shapes);
}

// What every division must hold, whatever the sign. `rounding_mm2`: what slanted outlines lose on the grid where they
// are cut.
inline void check_division(const std::vector<Piece>& pieces, const Division& division, const MakingPlan& making,
                           const Room& room, const Box& face, double rounding_mm2 = 1e-6) {
    const std::vector<Section> sections = sections_of(division, pieces, making);
    std::vector<Region> inks;
    double total = 0;
    for (const Section& section : sections) {
        const Box film = section.film.bounds();
        const auto a = std::min(film.width(), film.height());
        const auto b = std::max(film.width(), film.height());
        RC_ASSERT(a <= to_grid(room.across));
        RC_ASSERT(b <= to_grid(room.along));
        for (const Piece& p : section.pieces) {
            inks.push_back(p.shape);
            total += p.shape.area_mm2();
            RC_ASSERT(subtract(p.shape, section.film).area_mm2() < rounding_mm2);
        }
    }
    const Region ink = union_of(pieces);
    RC_ASSERT(subtract(ink, merge(inks)).area_mm2() < rounding_mm2);                // nothing is missing
    RC_ASSERT(total == Approx(ink.area_mm2()).epsilon(1e-9).margin(rounding_mm2));  // nothing is there twice
    // Masks meet every margin together: all around the ink there is film of one section or another.
    if (making.way == Way::PaintThrough) {
        std::vector<Region> films;
        for (const Section& section : sections) films.push_back(section.film);
        // Slivers narrower than 0.005 in are left.
        const Region wanted = intersect(grow(ink, making.margin - 0.006_in), Region::rectangle(face));
        const double bare = subtract(wanted, merge(films)).area_mm2();
        RC_ASSERT(bare <= division.bare_mm2 + 0.01);
    }
    // Film lies over no neighbour's ink, and keeps off it where there is room.
    for (const Section& section : sections) {
        const Region closed = subtract(section.film, section.cut);
        for (const Section& other : sections) {
            // A decal around others is weeded to its ink before it is laid.
            if (making.way == Way::Decal && division.crossings > 0) break;
            for (const Piece& p : other.pieces) RC_ASSERT(intersect(closed, p.shape).area_mm2() < 0.01);
        }
        const Region kept_off = grow(section.film, off_neighbour - Length::nanometres(4 * grid_nm));
        for (const Section& other : sections) {
            if (&other == &section || division.crossings > 0) continue;
            const bool apart = std::all_of(division.seams.begin(), division.seams.end(),
                                           [](const Seam& s) { return s.why.id == "seam.in-gap"; });
            if (!apart) continue;
            for (const Piece& p : other.pieces) RC_ASSERT(intersect(kept_off, p.shape).area_mm2() < 1e-6);
        }
    }
}

}  // namespace skarvel::testing
