// method/trade.h
//
// Trade: what the tables of the trade say about coats, waits, hands-on times and rules. Data, read from assets/trade;
// the maker can overrule any of it, and every row names its basis.
#pragma once

#include <array>
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <variant>
#include <vector>

#include "artwork/thin.h"
#include "blank/blank.h"
#include "making/making.h"
#include "measure/stock.h"
#include "text/reason.h"
#include "values/words.h"

namespace skarvel {

/// A paint, stain or clear, with its waits. `known` is false for one that only a job names: it is kept and used with
/// the careful wait of the table.
struct Coat {
    std::string id, name;
    std::string kind =
        "none";             ///< paint, wash, stain, chalkboard, primer, filler, glaze, clear; none for no coat at all
    std::string base;       ///< water, oil, solvent
    Minutes next_coat{0};   ///< until the next coat of the same
    Minutes paint_over{0};  ///< until tape or another paint
    Minutes film_least{0}, film_safe{0};
    Minutes before_use{0};
    bool exterior = false, glossy = false, known = true;
    double sqft_per_pint = 45;  ///< that one coat covers
    friend bool operator==(const Coat&, const Coat&) = default;
};

/// When a mask is lifted, by how far the paint has dried: where makers differ.
enum class Lift { Wet, Soft, Dry };
constexpr auto words_of(Lift) { return std::array{"wet", "soft", "dry"}; }

struct LiftWindow {
    Lift id = Lift::Soft;
    Minutes from{0}, to{0};
    friend bool operator==(const LiftWindow&, const LiftWindow&) = default;
};

/// Minutes of work at hand, each for one of what it is about: a letter, a square foot, a section.
struct HandsOn {
    double setup = 0, sand_per_sqft = 0, brush_per_sqft = 0, weed_small = 0, weed_large = 0, weed_per_ft = 0,
           keeper = 0, lay = 0, frame_piece = 0, wipe = 0, chalk = 0, trial = 0, hardware = 0, turn = 0,
           dry_brush_per_sqft = 0, lay_hinged = 0, colour_per_letter = 0, lift = 0, load = 0, proof = 0, final = 0,
           saw_piece = 0, hang = 0, tape = 0, decorate = 0;
    Length weed_large_from, hinged_from;
    int alone_to_grams = 0;  ///< a heavier sign is put up by two
    double prior_tasks = 1;  ///< so many tasks that were measured is the table worth
    friend bool operator==(const HandsOn&, const HandsOn&) = default;
};

/// What each of them is called in the data, in a shop's file and in a task.
inline constexpr std::array<std::pair<std::string_view, double HandsOn::*>, 25> pace_names{{
    {"setup", &HandsOn::setup},
    {"saw-piece", &HandsOn::saw_piece},
    {"sand", &HandsOn::sand_per_sqft},
    {"wipe", &HandsOn::wipe},
    {"brush", &HandsOn::brush_per_sqft},
    {"dry-brush", &HandsOn::dry_brush_per_sqft},
    {"trial", &HandsOn::trial},
    {"proof", &HandsOn::proof},
    {"load", &HandsOn::load},
    {"weed-small", &HandsOn::weed_small},
    {"weed-large", &HandsOn::weed_large},
    {"weed-ft", &HandsOn::weed_per_ft},
    {"keeper", &HandsOn::keeper},
    {"tape", &HandsOn::tape},
    {"lay", &HandsOn::lay},
    {"lay-hinged", &HandsOn::lay_hinged},
    {"colour", &HandsOn::colour_per_letter},
    {"lift", &HandsOn::lift},
    {"turn", &HandsOn::turn},
    {"frame-piece", &HandsOn::frame_piece},
    {"chalk", &HandsOn::chalk},
    {"hardware", &HandsOn::hardware},
    {"decorate", &HandsOn::decorate},
    {"final", &HandsOn::final},
    {"hang", &HandsOn::hang},
}};

/// How long one kind of work takes in a shop, where that is not as the table says.
struct Pace {
    std::string of;   ///< one of `pace_names`
    int seconds = 0;  ///< for one of what it is about
    friend bool operator==(const Pace&, const Pace&) = default;
};
/// Minutes of that name; nothing for one that is not known.
std::optional<double> pace_of(const HandsOn& hands_on, std::string_view name);
/// With the shop's own paces; those of a name that is not known change nothing.
HandsOn paced(HandsOn hands_on, const std::vector<Pace>& own);
/// What a section takes from its tape to its lift, as far as its size and the way decide that.
LayingTakes laying_takes(const HandsOn& hands_on, Way way);

/// From how large on a section is laid in which way, and how its tape is cut.
struct LayingHabits {
    Length helper_from, slip_from;  ///< longest side of its film
    Length tape_close;              ///< beyond the ink, where tape is to touch little else
    Length cover;                   ///< what paper covers beyond the film, where paint is sprayed
    Length patch;                   ///< side of a trial patch
    friend bool operator==(const LayingHabits&, const LayingHabits&) = default;
};

using Fact = std::variant<bool, double, std::string>;
using Facts = std::map<std::string, Fact>;

/// One condition of a rule on one fact.
/// Where two layers meet, or what is done at one: rules are about one of them.
/// `Pair` is any two layers that touch: such a rule is judged for each of them.
enum class Joint { Ground, Film, Seal, Colour, Lift, Clear, Pair };
constexpr auto words_of(Joint) { return std::array{"ground", "film", "seal", "colour", "lift", "clear", "pair"}; }

/// What can be done at once about what a rule found (job/layer_commands.h).
enum class Fix {
    SandFirst,
    SandBetween,
    WipeFirst,
    NoSanding,
    SealGround,
    SealClear,
    NoSeal,
    UsualFilm,
    TexturedFilm,
    RemovableFilm,
    PermanentFilm,
    ToolMargin,
    LeastRest,
    SafeRest,
    ClearUnder,
    ClearOver,
    NoClear,
    MoreClear,
    SameBaseClear,
    MoreColour,
    MoreGround,
    PrimeFirst,
    TakeOut,
    RubBeforeClear,
    ChalkIt,
    WipeBack,
    CoatEdges,
    LiftSoft,
    AsDecal,
    TryFirst
};
constexpr auto words_of(Fix) {
    return std::array{"sand-first",     "sand-between", "wipe-first", "no-sanding",       "seal-ground",
                      "seal-clear",     "no-seal",      "usual-film", "textured-film",    "removable-film",
                      "permanent-film", "tool-margin",  "least-rest", "safe-rest",        "clear-under",
                      "clear-over",     "no-clear",     "more-clear", "same-base-clear",  "more-colour",
                      "more-ground",    "prime-first",  "take-out",   "rub-before-clear", "chalk-it",
                      "wipe-back",      "coat-edges",   "lift-soft",  "as-decal",         "try-first"};
}

struct Condition {
    std::string fact;
    std::vector<Fact> one_of;  ///< empty: not asked
    std::vector<Fact> none_of;
    std::variant<std::monostate, double, std::string> below, least;  ///< a number or the name of another fact
    friend bool operator==(const Condition&, const Condition&) = default;
};

struct Rule {
    std::string id;
    Mark mark = Mark::None;
    Joint joint = Joint::Ground;
    std::string basis;
    std::vector<Condition> when;
    std::vector<Fix> fixes{};
    friend bool operator==(const Rule&, const Rule&) = default;
};

/// What adds to a risk, or takes from it, where all its conditions hold.
struct WeighedFactor {
    std::string id;
    std::vector<Condition> when;
    double weight = 0;
    friend bool operator==(const WeighedFactor&, const WeighedFactor&) = default;
};
struct RiskModel {
    double base = 0;  ///< of the logistic sum, where no factor holds
    std::string basis;
    std::vector<WeighedFactor> factors;
    friend bool operator==(const RiskModel&, const RiskModel&) = default;
};
struct RiskTable {
    double prior_strength = 1;  ///< so many masks is the judgement worth
    double fair = 0, high = 0;  ///< from where a risk is called that
    RiskModel bleed, lift;
    friend bool operator==(const RiskTable&, const RiskTable&) = default;
};

/// What a blank is made of.
struct Material {
    std::string id, name;
    std::string colour, grain;  ///< "#rrggbb", as it looks bare, and what is drawn on it
    friend bool operator==(const Material&, const Material&) = default;
};

struct CoatChoice {
    std::string coat;         ///< an id of the trade data, or a name of the maker's own
    std::string colour;       ///< "#rrggbb"
    std::string colour_name;  ///< "deep blue"
    int coats = 1;
    friend bool operator==(const CoatChoice&, const CoatChoice&) = default;
};

/// What a new job begins with, and the coats that are taken when one is first asked for.
struct NewJob {
    std::string stock, family, style;
    Measure length, margin, size, letter_gap, line_gap, lap;
    std::vector<ClearZone> clear_zones;
    CoatChoice ground, paint, clear;
    friend bool operator==(const NewJob&, const NewJob&) = default;
};

/// A paint that stands on the shelf.
struct ShelfColour {
    std::string colour, name;  ///< "#rrggbb", and what it is called on the sheets
    friend bool operator==(const ShelfColour&, const ShelfColour&) = default;
};

/// What may go wrong at the bench, and how it is mended.
struct MishapKind {
    std::string id;
    Minutes hands_on{0}, wait{0};    ///< of the mending, and what must then dry
    bool at_once = false;            ///< before work goes on; otherwise once the masks are off
    std::vector<std::string> works;  ///< at which it may happen; any where empty
    friend bool operator==(const MishapKind&, const MishapKind&) = default;
};

/// How much longer water-based coats dry where it is as cold as that, or as damp.
struct Slowing {
    int celsius = 0;   ///< and colder
    int humidity = 0;  ///< percent and more
    double factor = 1;
    friend bool operator==(const Slowing&, const Slowing&) = default;
};

/// A rule of the maker's own: where a build-up is such and such, that goes wrong, and this is done instead.
struct OwnCondition {
    std::string fact, is;  ///< of `what_can_be_asked` (method/own_rules.h)
    friend bool operator==(const OwnCondition&, const OwnCondition&) = default;
};
struct OwnRule {
    std::string id;  ///< "own-1"
    Mark mark = Mark::Look;
    std::vector<OwnCondition> when;  ///< all of them hold; a rule without any holds nowhere
    std::string says, instead;       ///< in the maker's words
    friend bool operator==(const OwnRule&, const OwnRule&) = default;
};

/// A rule that does not hold for a job, or in a shop, as its maker says: it is still told, and stops nothing.
struct Overruled {
    std::string rule, note;
    friend bool operator==(const Overruled&, const Overruled&) = default;
};

struct Trade {
    std::vector<StockSize> stock;
    std::vector<Material> materials;  ///< what blanks are made of
    std::vector<Density> densities;
    std::vector<HangingRule> hanging;
    std::vector<Film> films;
    std::vector<Tool> tools;
    std::vector<Coat> coats;
    std::vector<ShelfColour> shelf;
    NewJob new_job;
    std::string decal_film, mask_film;  ///< that a colour starts with
    Length section_gap;                 ///< between sections on a mat
    std::vector<LiftWindow> lifts;
    CutLimits thin;  ///< what can be cut and weeded
    HandsOn hands_on;
    LayingHabits laying;
    std::vector<Slowing> slowing;
    double fan = 1;  ///< so many times as long coats dry in a moving air
    std::vector<MishapKind> mishaps;
    std::string field_paint;  ///< for bands and borders, where neither ground nor colour is a paint
    Minutes seal_dry{0}, colour_through_mask{0}, clear_over_vinyl{0}, unknown_coat{0};
    std::vector<Rule> rules;
    RiskTable risk;
    std::map<std::string, std::vector<std::string>> step_cautions, product_cautions;
    friend bool operator==(const Trade&, const Trade&) = default;
};

/// From the texts of stock.json, materials.json, rules.json and cautions.json.
Expected<Trade> read_trade(const std::string& stock, const std::string& materials, const std::string& rules,
                           const std::string& cautions);

/// Nothing for a material that only a job names.
/// The film that a colour made in that way starts with.
const std::string& film_for(const Trade& trade, Way way);
/// That coat, with all that is usual where there was none; none with an empty id.
void coat_with(std::optional<CoatChoice>& coat, const std::string& id, const CoatChoice& usual);
/// Made in that way from now on, with the film that it starts with; as it is where it was that way already.
void make_as(Making& making, Way way, const Trade& trade);

const Material* material_of(const Trade& trade, const std::string& id);

/// The coat of that id; an unknown one is kept under its id, with the careful waits.
Coat coat_of(const Trade& trade, const std::string& id);

/// Whether every condition holds. A fact that is not there meets no condition.
bool fires(const std::vector<Condition>& when, const Facts& facts);

}  // namespace skarvel
