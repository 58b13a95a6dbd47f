// job/variants.h
//
// Decal or paint-through: this very job with one colour made the one way and the other, each planned whole, side by
// side, with a suggestion and what it rests on.
#pragma once

#include <array>
#include <stop_token>

#include "job/face_commands.h"

namespace skarvel {

struct Variant {
    Way way = Way::Decal;
    Job job;
    Shared<Plan> plan{};
    Minutes hands_on{0};  ///< of the whole job
    std::optional<Moment> ready{};
    Length film{};                        ///< of the whole job, that is still to be cut
    std::optional<std::int64_t> cents{};  ///< what that is worth, where all its prices are known
    Mark worst = Mark::None;              ///< of what Method found at this colour
    int stops = 0, looks = 0;             ///< how much it found
    Risks risks{};
    Reason look{}, life{};      ///< how it looks, and how long it lasts where it is to be
    std::vector<Reason> buy{};  ///< what this way asks for and the other one does not
    friend bool operator==(const Variant&, const Variant&) = default;
};

struct Comparison {
    std::array<Variant, 2> ways;  ///< decal, then paint-through
    Way suggested = Way::Decal;
    Reason why;
    friend bool operator==(const Comparison&, const Comparison&) = default;
};

/// Nothing where the job has no such colour, or `stop` was requested. The way that the colour has now keeps its film;
/// the other one begins with the usual film of its own.
std::optional<Comparison> compare_ways(const Job& job, const ColourId& colour, const Shop& shop, const Library& library,
                                       const Present& present, const std::stop_token& stop = {});

}  // namespace skarvel
