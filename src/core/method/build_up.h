// method/build_up.h
//
// The build-up: every layer from the bare blank to the last coat, and what the rules of the trade say about each joint
// between two of them. Layers are the maker's (method/layers.h), with what a colour brings of its own put in its place;
// rules are data (assets/trade/rules.json) judged against named facts of the job, and of each two layers that touch, so
// that a maker can read why each one fired, and what it rests on.
#pragma once

#include <array>
#include <functional>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "blank/blank.h"
#include "loads/loads.h"
#include "method/layers.h"
#include "method/trade.h"

namespace skarvel {

/// What closes the edges of a mask before paint: where makers differ.
enum class Seal { Ground, Clear, None };
constexpr auto words_of(Seal) { return std::array{"ground", "clear", "none"}; }

/// How a face is finished around its lettering, beside its layers.
struct Finish {
    Seal seal = Seal::Ground;
    Lift lift = Lift::Soft;
    Place place = Place::Porch;
    bool safe_waits = false;          ///< plan with the safe wait before film, not the least
    std::optional<int> rest_hours{};  ///< the maker's own wait before film
    std::vector<LayerId> left_out{};  ///< what the maker took out of what was suggested
    bool stacked = false;             ///< decals of several colours are put together on the tape, and laid as one
    friend bool operator==(const Finish&, const Finish&) = default;
};

/// What is seen of a layer in a cut through the finished sign.
enum class ShownKind {
    Bare,
    Wiped,
    Sanded,
    Filler,
    Primer,
    Stain,
    Ground,
    ClearUnder,
    Film,
    Seal,
    Colour,
    Glaze,
    DryBrush,
    Distressed,
    Clear,
    Chalked,
    Hardware,
    Decorated,
    Tried
};
constexpr auto words_of(ShownKind) {
    return std::array{"wood",        "wiped",   "sanded",   "filler",    "primer", "stain",     "ground",
                      "clear-under", "film",    "seal",     "colour",    "glaze",  "dry-brush", "distressed",
                      "clear",       "chalked", "hardware", "decorated", "tried"};
}

struct ShownLayer {
    ShownKind kind = ShownKind::Bare;
    std::optional<Joint> joint{};  ///< with what lies below it
    Reason name, detail;
    std::string colour{};  ///< "#rrggbb", empty for wood
    int coats = 0;
    bool in_openings = false;  ///< lies only where the ink is
    bool lifted = false;       ///< a mask: not there in the end
    LayerId of{};              ///< the maker's layer that it is; of a colour's own, its lettering
    On on = On::Face;
    std::optional<Reason> sound{};  ///< where nothing asks to look or stop at its joint
    int field = 0;                  ///< of what goes on one painted field: which, counted from 1
    friend bool operator==(const ShownLayer&, const ShownLayer&) = default;
};

/// A painted field as ink is seen on it.
struct SeenOn {
    std::string colour, name;  ///< the name may be empty
    friend bool operator==(const SeenOn&, const SeenOn&) = default;
};

struct MethodInput {
    MakingPlan making;
    Finish finish;
    std::vector<Layer> layers;  ///< of the face, in order, with the lettering of this colour and of those before it
    ColourId id;
    CoatChoice colour;  ///< the paint; for a decal only its colour counts
    std::string material;
    Surface surface = Surface::OpenGrain;
    int keepers = 0;
    int seams = 0;  ///< between its sections
    int thin = 0;   ///< places that are thinner than can be trusted
    bool spans_face = false;
    Already already = Already::Bare;
    int already_hours = 0;
    bool raised_frame = false;  ///< is on before the lettering and stands above the face
    bool in_place = false;      ///< worked upright where it is
    bool from_behind = false;   ///< clear, and lettered on its back
    Grain grain = Grain::Length;
    int grit = 0;                   ///< of the paper it was sanded with; 0 when not said
    std::string bare{};             ///< the material that shows where nothing is painted
    std::string under{};            ///< colour that the lettering is seen against, where it is not the ground or bare
    std::vector<SeenOn> seen_on{};  ///< painted fields that its ink lies on
    bool on_ground = true;          ///< some of it lies on none of them
    std::vector<Overruled> overruled{};                     ///< by the job, then by the shop
    std::vector<OwnRule> own_rules{};                       ///< of the shop
    bool coated_edges = true;                               ///< coats go round its edges
    std::map<ColourId, std::vector<ShownLayer>> earlier{};  ///< what colours of this face that come before leave on it
    friend bool operator==(const MethodInput&, const MethodInput&) = default;
};

struct Finding {
    std::string rule;
    Mark mark = Mark::None;
    Joint joint = Joint::Ground;
    std::string basis;
    Reason why;
    Reason remedy;
    std::size_t at = 0;                      ///< the layer at whose lower side it shows
    std::vector<Fix> fixes{};                ///< what can be done at once
    std::optional<std::string> overruled{};  ///< by the maker, with that note: it was marked, and is no longer
    friend bool operator==(const Finding&, const Finding&) = default;
};

struct BuildUp {
    std::vector<ShownLayer> layers;  ///< in the order in which they are laid; from the bare surface upwards
    std::vector<Finding> findings;   ///< the gravest first
    Coat ground, colour, clear;      ///< resolved; kind none where there is none
    Coat top;                        ///< what the lettering lies on
    Coat field;                      ///< what painted bands and borders are painted with
    bool sprayed = false;            ///< the colour comes from a can
    std::string
        ink{};  ///< "#rrggbb" of the lettering in the end: its colour, or the last coat through its mask that hides it
    std::vector<Layer> through;  ///< coats that go through the mask of the lettering at hand, after its own
    int ground_coats = 0, colour_coats = 0, clear_coats = 0;
    std::string ground_colour{};  ///< "#rrggbb" of what the lettering is painted on; empty where it is bare
    LayerId own{};                ///< the lettering at hand among the layers
    LiftWindow lift;
    Minutes rest{0};  ///< before film goes on
    Facts facts;      ///< what the rules were judged on
    [[nodiscard]] Mark worst() const;
    friend bool operator==(const BuildUp&, const BuildUp&) = default;
};

BuildUp build_up(const MethodInput& input, const Trade& trade);

/// What lies on the face after a colour, for those that come after it: films and paints up to its own, not its mask.
std::vector<ShownLayer> left_on_face(const BuildUp& build_up);

/// What a face looks like where nothing is lettered: the colour of its topmost coat that hides, "#rrggbb"; empty for
/// the bare material, and for clear sheet.
std::string ground_of(const std::vector<Layer>& layers, const Trade& trade);

/// The colour that ink in `colour` is seen against where a rim lies behind it; else empty. `colour_of`: what a colour
/// of the face looks like, "#rrggbb".
std::string seen_under(const Lettering& lettering, const ColourId& colour,
                       const std::function<std::string(const ColourId&)>& colour_of);

}  // namespace skarvel
