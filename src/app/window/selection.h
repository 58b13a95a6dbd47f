// window/selection.h
//
// What is at hand: which sign, face, colour, text or art trays and drawing show and change, and what is pointed at.
// Plain places; whoever reads them holds them to what the job has.
#pragma once

#include <memory>
#include <optional>

#include "job/alternatives.h"
#include "proof/proof.h"

namespace skarvel {

/// What Sections points at: pieces of the colour at hand, or a seam by where it lies, or a place between them.
struct Picked {
    std::vector<PieceName> pieces{};
    std::optional<Seam> seam{};
    std::optional<Point> place{};
    friend bool operator==(const Picked&, const Picked&) = default;
};

struct Selection {
    std::size_t sign = 0, face = 0, colour = 0, text = 0;
    std::optional<std::size_t> art{};
    bool together = false;  ///< all signs, instead of the one at hand
    Picked picked{};
    LayerId layer{};                                 ///< of the build-up; empty: the lettering of the colour at hand
    std::shared_ptr<const Alternative> looked_at{};  ///< another way to cut, without being taken
    std::shared_ptr<const Evidence> evidence{};      ///< of the proof, marked on the drawing

    /// Another sign or face: its first colour and text.
    void take_face(std::size_t new_sign, std::size_t new_face) {
        *this = {.sign = new_sign, .face = new_face, .evidence = std::move(evidence)};
    }
    void take_colour(std::size_t new_colour) {
        colour = new_colour;
        layer = {};
        picked = {};
        looked_at.reset();
    }
};

}  // namespace skarvel
