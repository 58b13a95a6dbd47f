// sections/wishes.h
//
// Wishes: what the maker has decided about the division, brought to pieces and cells before anything is searched.
// Pieces bound together become one. Seams that are wanted divide the face, one spanning cell after the other; ink that
// such a seam crosses belongs to both sides, each with its own part. What cannot be had is left out and told.
#pragma once

#include "sections/sections.h"

namespace skarvel {

/// No seam lies on `axis` between `from` and `to`, where it would run through `cross_from` to `cross_to`.
struct NoSeam {
    Axis axis = Axis::Y;
    std::int64_t from = 0, to = 0;
    std::int64_t cross_from = 0, cross_to = 0;
    [[nodiscard]] bool at(Axis seam, std::int64_t where, std::int64_t low, std::int64_t high) const {
        return seam == axis && where >= from && where <= to && low < cross_to && high > cross_from;
    }
};

struct WishedCell {
    Box available;           ///< where its film may lie
    std::optional<Box> own;  ///< only ink in here belongs to it, where a wanted seam bounds it
    std::vector<Piece> pieces;
    std::vector<std::vector<std::size_t>> of;  ///< for each of them, the places of what it is made of
};

struct Wished {
    std::vector<WishedCell> cells;
    std::vector<std::size_t> apart;  ///< places of pieces
    std::vector<Seam> seams;
    std::vector<NoSeam> never;
    std::vector<Problem> problems;
};

Wished with_wishes(const std::vector<Piece>& pieces, const Box& face, const Box& available, const Room& room,
                   const MakingPlan& making);

}  // namespace skarvel
