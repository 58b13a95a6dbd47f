// picture/step_picture.h
//
// Pictures of steps: what a step at the bench needs to be seen, and only that, as values: the same regions that are cut
// and painted, with arrows, lines, distances and numbers, each told by what it shows. The window paints them,
// the bench book prints them; neither reckons anything.
#pragma once

#include <array>
#include <string>
#include <vector>

#include "job/plan.h"

namespace skarvel {

enum class Shows {
    // areas, from the back to the front
    Board,      ///< the face as it looks before the step
    Bed,        ///< what a load lies on
    Leftover,   ///< a piece out of the drawer, as it lies there
    Coated,     ///< where this step's coat goes
    Edge,       ///< the rim of the face: its edges, or what is worn first
    Frame,      ///< mouldings
    Cover,      ///< paper against spray
    Neighbour,  ///< film that lies there already
    Film,       ///< that this step is about
    Guest,      ///< film of another colour or sign, on the same load
    FirstHalf,  ///< that goes down first
    Ink,        ///< lettering that is there
    Opening,    ///< of a mask, where paint goes
    Waste,      ///< what is pulled out
    Keeper,     ///< ringed: it must stay
    Patch,      ///< to try on
    Tape,       ///< transfer tape
    // lines
    SawLine,   ///< here it is sawn off
    TapeLine,  ///< tape on the blank
    Middle,    ///< snapped through the face
    Hinge,
    MatchMark,
    WeedingLine,
    FilmEnd,   ///< as far as film is cut from the roll
    Distance,  ///< from a line to a corner, with its measure
    Split,     ///< between two halves that are done in two ways
    // arrows
    Stroke,   ///< the way of paper, brush or chalk
    Burnish,  ///< from where to where
    Pull,     ///< folded back
    Feed,     ///< this end goes in first
    Over,     ///< turned over
    // points
    Order,   ///< a number
    Fixing,  ///< hook, hanger or hole
    Corner,  ///< measured to
    Half,    ///< of a face that is done in two ways, and how
    Spot     ///< where something happened, and what
};
constexpr auto words_of(Shows) {
    return std::array{"board",     "bed",       "leftover", "coated",     "edge",         "frame",
                      "cover",     "neighbour", "film",     "guest",      "first-half",   "ink",
                      "opening",   "waste",     "keeper",   "patch",      "tape",         "saw-line",
                      "tape-line", "middle",    "hinge",    "match-mark", "weeding-line", "film-end",
                      "distance",  "split",     "stroke",   "burnish",    "pull",         "feed",
                      "over",      "order",     "fixing",   "corner",     "half",         "spot"};
}

struct PictureMark {
    Shows shows = Shows::Board;
    Region area{};       ///< of areas
    Point from{}, to{};  ///< of lines and arrows; a point stands at `from`
    int number = 0;      ///< 0 for none
    Reason says{};
    std::string colour{};  ///< "#rrggbb" of paint, ink or what is bare; empty where it has none of its own
    friend bool operator==(const PictureMark&, const PictureMark&) = default;
};

struct StepPicture {
    bool on_bed = false;     ///< mat frame; otherwise that of the face
    bool laid_down = false;  ///< an upright face turned a quarter, its top to the left, as it lies on the bench
    Box window;              ///< what is to be seen; empty for a step without a picture
    Box whole;               ///< all of the face with what is built round it, or of the bed
    std::vector<PictureMark> marks;
    std::vector<Reason> figures;  ///< what is read from afar
    friend bool operator==(const StepPicture&, const StepPicture&) = default;
};

/// What the bench record says of places on a face: halves done in two ways, and where something happened. Of one step
/// alone where it is named.
std::vector<PictureMark> marks_of_bench(const FaceId& face, const Job& job, const Plan& plan, const StepId* step);

/// Empty for a step whose face or colour has gone.
StepPicture picture_of(const Step& step, const Job& job, const Plan& plan, const Shop& shop, const Trade& trade);

/// All films of a face where they lie, numbered in the order of laying, each colour's after those before it. Empty for
/// a face that has gone.
StepPicture picture_of_order(const FaceId& face, const Job& job, const Plan& plan, const Trade& trade);

/// The order in which a face is masked, lettered and unmasked: its steps of taping fields, laying, sealing, painting
/// and lifting, as they follow one another. Places in `BenchPlan::steps`.
std::vector<std::size_t> order_of_laying(const BenchPlan& bench, const FaceId& face);

}  // namespace skarvel
