// blank/blank.h
//
// The blank: what is lettered, as it really measures, and the zones that lettering keeps out of.
//
// Face frame, here and in every later folder: origin in the lower left corner of the face's bounds as it is read, x to
// the right, y upwards. An upright board has its length along y, a level one along x. Clear zones bind ink, never film.
//
// `measure_up` leaves out what no blank has (blank/sound.h), gives the face as a region (from the kind of blank, or
// from the tape's readings of a board that is not true: blank/tape.h), takes margins, clear zones and what a frame
// covers from it, each from the real edge (blank/edges.h), and finds the largest upright rectangle that is left
// (blank/room.h): what is snug fills that.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "blank/building.h"
#include "blank/edges.h"
#include "blank/frame.h"
#include "blank/shape.h"
#include "blank/tape.h"
#include "blank/weight.h"
#include "measure/reading.h"
#include "measure/stock.h"
#include "text/reason.h"
#include "values/words.h"

namespace skarvel {

enum class ZoneShape { Band, Rectangle, Circle };
constexpr auto words_of(ZoneShape) { return std::array{"band", "rectangle", "circle"}; }

/// What takes the room.
enum class ZoneReason { Decoration, Rope, Hole, Handle, Crack, Knot, WriteOn, Frame, Other };
constexpr auto words_of(ZoneReason) {
    return std::array{"decoration", "rope", "hole", "handle", "crack", "knot", "write-on", "frame", "other"};
}

struct ClearZone {
    Edge edge = Edge::Top;  ///< of a band
    Measure depth{};        ///< of a band, from that edge
    std::string name{};     ///< what takes the room: "rope"
    ZoneShape shape = ZoneShape::Band;
    Measure x{}, y{};           ///< middle of a rectangle or circle, from the left and the bottom of the face
    Measure width{}, height{};  ///< of a rectangle; the width is a circle's diameter
    ZoneReason reason = ZoneReason::Decoration;
    bool mirrored = false;  ///< the same again on the other side of the centre line
    int turns = 0;          ///< a band of rope: its depth is turns x girth
    Measure girth{};        ///< how thick the rope is
    friend bool operator==(const ClearZone&, const ClearZone&) = default;
};

/// A band or border of another ground colour, made with tape.
struct PaintedField {
    bool border = false;   ///< all round, `depth` wide; otherwise a band across
    Axis along = Axis::X;  ///< the direction that a band runs in
    Measure middle{};      ///< of a band: from the bottom, or from the left for one that runs up
    Measure depth{};
    std::string colour = "#a33a2a", colour_name{};
    bool lettered = false;  ///< the lettering stays inside it
    friend bool operator==(const PaintedField&, const PaintedField&) = default;
};

/// A line to lay out by or to keep in mind: a glue line, a centre line.
struct Guide {
    Axis along = Axis::X;
    Measure where{};  ///< from the bottom, or from the left for one that runs up
    std::string name{};
    friend bool operator==(const Guide&, const Guide&) = default;
};

/// Which way the grain runs.
enum class Grain { Length, Across, None };
constexpr auto words_of(Grain) { return std::array{"length", "across", "none"}; }

enum class Surface { Rough, OpenGrain, Sanded, Smooth, Glossy };
constexpr auto words_of(Surface) { return std::array{"rough", "open-grain", "sanded", "smooth", "glossy"}; }

/// How much of the blank gets its coats.
enum class Coated { Face, FaceEdges, All };
constexpr auto words_of(Coated) { return std::array{"face", "face-edges", "all"}; }

/// What is on the blank before any work.
enum class Already { Bare, StainedOil, StainedWater, Painted, Sealed, OldLettering };
constexpr auto words_of(Already) {
    return std::array{"bare", "stained-oil", "stained-water", "painted", "sealed", "old-lettering"};
}

struct Blank {
    Kind kind = Kind::Board;
    std::string stock;             ///< nominal size, "1x6"; empty when only measured
    Measure length;                ///< a round's diameter, an arch's height, an arrow's body
    std::optional<Measure> width;  ///< as measured; without it the stock table's real width counts; an arch's span
    std::optional<Measure> thickness;
    Stands stands = Stands::Upright;
    ArrowHead head;                       ///< of an arrow
    ArchTop arch;                         ///< of an arch
    std::optional<DrawnOutline> outline;  ///< of a drawn blank
    std::optional<Measure> bars;          ///< depth of the bars of a stretched canvas; none when it is flat
    std::optional<Measure> moulding;      ///< width of the mouldings round a field
    std::optional<Backing> backing;
    std::string material = "pine";  ///< an id of the trade data
    Grain grain = Grain::Length;
    Surface surface = Surface::OpenGrain;
    int grit = 0;  ///< of the paper it was sanded with; 0 when not said
    Coated finished = Coated::Face;
    Already already = Already::Bare;
    int already_hours = 0;     ///< how long ago that was
    bool sawn = false;         ///< a board that has its length already, so that nobody saws it
    bool from_behind = false;  ///< clear acrylic that is lettered on its back and read through
    Readings tape;             ///< what the tape says, as far as the maker cares to measure
    std::vector<ClearZone> clear;
    Measure margin;  ///< kept free: at the two long sides of a board, all round on other kinds
    std::array<std::optional<Measure>, 4> side_margin;  ///< by Edge, where one side differs
    std::vector<PaintedField> fields;
    std::vector<Guide> guides;
    Frame frame;
    Holding holding;
    friend bool operator==(const Blank&, const Blank&) = default;
};

/// Whether it is sawn from a length of stock before anything else: a bare board of a stock size that nobody has
/// measured all round yet.
bool is_sawn_here(const Blank& blank);

/// The material that shows where nothing is painted: a canvas is cloth whatever it is stretched on.
inline const std::string& shown_material(const Blank& blank) {
    static const std::string cloth = "canvas";
    return blank.kind == Kind::Canvas ? cloth : blank.material;
}

/// A stretch that lettering could use, with its name: the chord of a band, an arrow's body.
struct NamedRoom {
    Reason what;
    Box box;  ///< face frame
    friend bool operator==(const NamedRoom&, const NamedRoom&) = default;
};

struct FieldPlan {
    Region region;
    std::vector<std::pair<Point, Point>> tape;  ///< the lines that make it, each inside the face
    friend bool operator==(const FieldPlan&, const FieldPlan&) = default;
};

struct BlankPlan {
    Length length, width, thickness;  ///< of the bare blank over all
    Box face;                         ///< bounds of the outline
    Region outline;
    Region free;                ///< where ink may lie
    Box usable;                 ///< the largest upright rectangle in it; empty when nothing is left
    std::vector<Region> zones;  ///< of each clear zone, mirrored ones with their twin
    std::vector<FieldPlan> fields;
    std::vector<NamedRoom> rooms;
    std::optional<StockSize> stock;
    std::optional<TapePlan> tape;
    FramePlan frame;            ///< sizes over all and inside
    Built built;                ///< what lies round and under the face
    std::vector<Cut> cuts;      ///< of the frame, the blank itself and its backing
    std::vector<Reason> order;  ///< of building: when the frame goes on
    Weighed weight;
    Length rope;           ///< that the bands of rope take, in all
    double area_sqft = 0;  ///< of the face
    double coat_sqft = 0;  ///< that coats cover: edges and back as well where those are finished
    std::vector<Reason> notes;
    std::vector<Problem> problems;
    bool straight_sides = true;  ///< masks as wide as the blank can be placed by its edges
    friend bool operator==(const BlankPlan&, const BlankPlan&) = default;
};

/// A stock name that `sizes` does not hold, or a measure that is nowhere given, is a problem and leaves an empty face.
BlankPlan measure_up(const Blank& blank, const std::vector<StockSize>& sizes, const std::vector<Density>& densities,
                     const std::vector<HangingRule>& hanging = {});

}  // namespace skarvel
