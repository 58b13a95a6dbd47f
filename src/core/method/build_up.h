// method/build_up.h
//
// The build-up: every layer from the bare blank to the last coat, and what the rules of the trade say about each joint
// between two of them. Layers follow from what the maker chose; rules are data (assets/trade/rules.json) judged against
// named facts of the job, so that a maker can read why each one fired, and what it rests on.
#pragma once

#include <array>
#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "blank/blank.h"
#include "loads/loads.h"
#include "method/trade.h"

namespace skarvel {

/// A paint, stain or clear as the maker means to use it.
/// How a face is finished around its lettering.
/// What closes the edges of a mask before paint: where makers differ.
enum class Seal { Ground, Clear, None };
constexpr auto words_of(Seal) { return std::array{"ground", "clear", "none"}; }

struct Finish {
    bool sanded = true;
    std::optional<CoatChoice> ground;
    Seal seal = Seal::Ground;
    Lift lift = Lift::Soft;
    std::optional<CoatChoice> clear;
    bool clear_over = true;  ///< over all, or under the lettering
    bool outdoors = true;
    bool safe_waits = false;        ///< plan with the safe wait before film, not the least
    std::optional<int> rest_hours;  ///< the maker's own wait before film
    friend bool operator==(const Finish&, const Finish&) = default;
};

enum class LayerKind { Bare, Ground, ClearUnder, Film, Seal, Colour, Clear };
constexpr auto words_of(LayerKind) {
    return std::array{"wood", "ground", "clear-under", "film", "seal", "colour", "clear"};
}

struct Layer {
    LayerKind kind = LayerKind::Bare;
    std::optional<Joint> joint;  ///< with what lies below it
    Reason name, detail;
    std::string colour;  ///< "#rrggbb", empty for wood
    int coats = 0;
    bool in_openings = false;  ///< lies only where the ink is
    bool lifted = false;       ///< a mask: not there in the end
    friend bool operator==(const Layer&, const Layer&) = default;
};

struct MethodInput {
    MakingPlan making;
    Finish finish;
    CoatChoice colour;  ///< the paint; for a decal only its colour counts
    std::string material;
    Surface surface = Surface::OpenGrain;
    int keepers = 0;
    bool spans_face = false;
    Already already = Already::Bare;
    int already_hours = 0;
    bool raised_frame = false;  ///< is on before the lettering and stands above the face
    bool in_place = false;      ///< worked upright where it is
    bool from_behind = false;   ///< clear, and lettered on its back
    Grain grain = Grain::Length;
    int grit = 0;                  ///< of the paper it was sanded with; 0 when not said
    std::string bare{};            ///< the material that shows where nothing is painted
    std::string under{};           ///< colour that the lettering is seen against, where it is not the ground or bare
    std::vector<Layer> earlier{};  ///< what colours of this face that come before leave on it
    friend bool operator==(const MethodInput&, const MethodInput&) = default;
};

struct Finding {
    std::string rule;
    Mark mark = Mark::None;
    Joint joint = Joint::Ground;
    std::string basis;
    Reason why;
    Reason remedy;
    friend bool operator==(const Finding&, const Finding&) = default;
};

struct BuildUp {
    std::vector<Layer> layers;  ///< from the wood upwards
    std::vector<Finding> findings;
    std::vector<Reason> sound;  ///< one per joint without a finding that asks to look or stop
    std::vector<Joint> sound_joints;
    Coat ground, colour, clear;  ///< resolved; kind none where there is none
    Coat field;                  ///< what painted bands and borders are painted with
    bool sprayed = false;        ///< the colour comes from a can
    int ground_coats = 0, colour_coats = 0, clear_coats = 0;
    LiftWindow lift;
    Minutes rest{0};  ///< before film goes on
    Facts facts;      ///< what the rules were judged on
    [[nodiscard]] Mark worst() const;
    friend bool operator==(const BuildUp&, const BuildUp&) = default;
};

BuildUp build_up(const MethodInput& input, const Trade& trade);

/// What lies on the face after a colour, for those that come after it: films and paints up to its own, not its mask.
std::vector<Layer> left_on_face(const BuildUp& build_up);

/// The colour that ink in `colour` is seen against: that of a rim behind it, of a painted field, or else empty: the
/// ground, or what the blank is made of. `colour_of`: what a colour of the face looks like, "#rrggbb".
std::string seen_under(const Blank& blank, const Lettering& lettering, const ColourId& colour,
                       const std::function<std::string(const ColourId&)>& colour_of);

}  // namespace skarvel
