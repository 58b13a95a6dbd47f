// laying/laying.h
//
// Laying: how each section gets to its place on the blank and off again. From the sections and the blank as it
// measures: what a section is measured from, which edge it registers on, where its hinge runs and which half goes down
// first, how large its transfer tape is, where it is burnished from, and which way film or tape comes off.
//
// Distances are taken from a straight side of the blank that runs true; where there is none (a round, a side that
// leans), from a line snapped through the middle of the face. Two corners of a section, far apart, are each measured
// both ways, so that its place and its turn are fixed. Sections lie in the order of laying, and come off in reverse.
#pragma once

#include <array>
#include <optional>
#include <vector>

#include "loads/loads.h"
#include "method/trade.h"
#include "values/shared.h"

namespace skarvel {

/// What the tape is held to.
enum class MeasuredFrom { Left, Right, Bottom, Top, UprightMiddle, LevelMiddle };
constexpr auto words_of(MeasuredFrom) {
    return std::array{"left", "right", "bottom", "top", "upright-middle", "level-middle"};
}

/// How far a corner lies from a line: from a middle line negative to the left of it, or below it.
struct Distance {
    MeasuredFrom from = MeasuredFrom::Left;
    Length exact, marked;  ///< `marked`: to the tape's fraction
    friend bool operator==(const Distance&, const Distance&) = default;
};

struct MeasuredCorner {
    Point at;  ///< face frame
    Distance across, up;
    friend bool operator==(const MeasuredCorner&, const MeasuredCorner&) = default;
};

/// What says where a section goes: two measured corners; sides as wide apart as the blank's; the painted mark of the
/// lay before.
enum class Registers { Corners, Sides, PaintedMark };
constexpr auto words_of(Registers) { return std::array{"corners", "sides", "painted-mark"}; }

/// A strip of tape across; the backing comes off one half, then off the other.
struct Hinge {
    Point from, to;
    Box first;  ///< the half that goes down first
    Edge half;  ///< where that lies
    friend bool operator==(const Hinge&, const Hinge&) = default;
};

enum class FilmCorner { LowerLeft, LowerRight, UpperRight, UpperLeft };
constexpr auto words_of(FilmCorner) { return std::array{"lower-left", "lower-right", "upper-right", "upper-left"}; }

/// One section where it is laid.
struct PlacedLay {
    Lay lay;
    int number = 1;  ///< in the order of laying
    Registers on = Registers::Corners;
    bool across_counts = true, up_counts = true;  ///< measured on that axis; not where its sides are the blank's
    MeasuredCorner low, high;                     ///< the film's own corners nearest to the lower left and upper right
    Length off;                                   ///< by how much rounding moves a corner, at most
    int turn_hundredths = 0;                      ///< of a degree, by which it turns the section
    std::optional<std::size_t> against;  ///< the lay before that its match marks meet: place in LayingPlan::lays
    std::optional<Edge> at_edge;         ///< where that one lies
    std::vector<std::size_t> down;       ///< what else lies there by then: places in LayingPlan::lays
    std::optional<Hinge> hinge;
    bool slip_sheet = false, two_people = false;
    Length tape_across, tape_up;  ///< to cut it to, by the tape measure
    Box tape;                     ///< of the transfer tape
    bool close = false;           ///< cut close around the ink
    Point burnish_from;
    bool ink_edges_only = false;  ///< pressed down along its ink alone
    FilmCorner corner = FilmCorner::LowerLeft;
    Point pull_from, pull_to;  ///< folded back from here to there: a mask, or a decal's tape
    bool across_grain = false;
    int lifted = 0;  ///< masks: in the order of lifting, of its pass
    friend bool operator==(const PlacedLay&, const PlacedLay&) = default;
};

struct LayingPlan {
    std::vector<PlacedLay> lays;  ///< in order
    std::vector<Reason> why;      ///< where the order begins, what distances are taken from, how the tape is cut
    friend bool operator==(const LayingPlan&, const LayingPlan&) = default;
};

struct LayingInput {
    Shared<BlankPlan> blank;
    Shared<LoadsPlan> loads;
    Way way = Way::PaintThrough;
    LayFrom start = LayFrom::Top;
    Grain grain = Grain::Length;
    bool tender = false;          ///< what it is laid on is glossy, or has not had its safe wait
    Length fraction = 0.0625_in;  ///< of the tape measure
    Length hinged_from = 24_in;   ///< longest side of a film that takes a hinge
    friend bool operator==(const LayingInput&, const LayingInput&) = default;
};

/// Nothing to lay gives an empty plan.
LayingPlan lay_out(const LayingInput& input, const LayingHabits& habits);

/// "Lower left: 1 1/4 in from the left, 3 in from the bottom": of both corners, what of it counts.
std::vector<Reason> distances_told(const PlacedLay& lay);

/// nullptr where nothing of that section is laid for that time (counted from 0).
const PlacedLay* lay_of(const LayingPlan& plan, std::size_t section, std::size_t time);

}  // namespace skarvel
