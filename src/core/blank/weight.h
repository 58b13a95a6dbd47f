// blank/weight.h
//
// Weight: what a blank weighs with its frame and backing, where its centre of gravity lies, how it may hang, and when
// it tips.
//
// Weight is volume times density. Tipping, by moments about the edge of the base: it goes over at the angle
// atan(a / h), a the distance from the edge to the centre of gravity, h its height; a push at the top of height H does
// it with F = m g a / H; weight laid low down, over the base, holds it against a given push where (m + m') g a = F H. A
// leaning board of foot distance d stands at sin t = d / H and comes away with F = m g tan t / 2. H is that of the
// whole, with what is round and under the panel. Hangers go where there is wood, above the centre of gravity and even
// about it.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "blank/building.h"
#include "geometry/region.h"
#include "measure/reading.h"
#include "text/reason.h"

namespace skarvel {

struct Density {
    std::string material;
    double kg_m3 = 0;
    std::string basis;
    friend bool operator==(const Density&, const Density&) = default;
};

/// Hardware for signs up to a weight and a width, in the order of the table.
struct HangingRule {
    std::string id;
    double most_kg = 0;
    Length most_width;
    int points = 1;
    std::string basis;
    friend bool operator==(const HangingRule&, const HangingRule&) = default;
};

enum class Holds { Hung, Legs, Leaning, Stake, InPlace };
constexpr auto words_of(Holds) { return std::array{"hung", "legs", "leaning", "stake", "in-place"}; }

struct Holding {
    Holds way = Holds::Hung;
    Measure base{"12 in", Length::inches(12)};  ///< depth of legs, width of a pot, a leaning board's foot from the wall
    Measure under{"0 in", {}};                  ///< from the ground to the lowest edge, that of a frame or backing too
    int ballast_grams = 0;                      ///< laid low down: sand in the pot, a weight on the feet
    friend bool operator==(const Holding&, const Holding&) = default;
};

struct Tipping {
    double angle_degrees = 0;
    double push_newton = 0;  ///< at the top
    int needed_grams = 0;    ///< low down, to hold the usual push; 0 when it stands already
    bool slides = false;     ///< a leaning board whose foot may slip away
    friend bool operator==(const Tipping&, const Tipping&) = default;
};

struct HangPoint {
    Reason what;
    Point at;  ///< face frame
    friend bool operator==(const HangPoint&, const HangPoint&) = default;
};

struct Weighed {
    int grams = 0, frame_grams = 0, backing_grams = 0;
    bool known = true;  ///< false when the material is not in the table: reckoned as the heaviest wood there
    Point centre;       ///< of gravity, face frame
    std::string basis;
    std::optional<Reason> hardware;
    std::vector<HangPoint> points;
    std::optional<Tipping> tipping;
    std::vector<Reason> cautions;
    std::vector<Problem> problems;  ///< of how it is to be held
    [[nodiscard]] int total() const { return grams + frame_grams + backing_grams; }
    friend bool operator==(const Weighed&, const Weighed&) = default;
};

/// A push that a sign which stands should take: a shoulder in passing, a gust (from memory).
constexpr double usual_push_newton = 20;

struct ToWeigh {
    Region outline;
    Length thickness;
    std::string material;
    Built built;
    Holding holding;
};

Weighed weigh(const ToWeigh& what, const std::vector<Density>& densities, const std::vector<HangingRule>& hanging);

/// Centre of gravity of an even sheet of that shape.
Point centroid(const Region& region);

/// `mass` in kg, lengths from the ground and from the edge of the base to where the weight acts.
Tipping tipping(double mass_kg, Length centre_height, Length to_edge, Length top, double ballast_kg);

}  // namespace skarvel
