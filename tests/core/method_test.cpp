#include <set>

#include "method/build_up.h"
#include "method/contrast.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

std::set<std::string> fired(const Job& job) {
    std::set<std::string> rules;
    const Plan plan = plan_of(job);
    for (const Finding& f : plan.colours.front().method->findings) rules.insert(f.rule);
    return rules;
}

Job with(const std::function<void(Job&)>& change, Job job = porch_board()) {
    change(job);
    return job;
}

Blank& blank(Job& job) { return job.signs.front().blank; }
CoatChoice& paint(Job& job) { return job.signs.front().faces.front().colours.front().paint; }

}  // namespace

TEST_CASE("the porch board as it comes has no joint to look at or to stop for") {
    const Plan plan = plan_of(porch_board());
    CHECK(plan.colours.front().method->worst() == Mark::None);
    CHECK(plan.mark_of(Station::Method) == Mark::None);
    std::vector<std::string> kinds;
    for (const Layer& l : plan.colours.front().method->layers) kinds.emplace_back(word_of(l.kind));
    CHECK(kinds == std::vector<std::string>{"wood", "ground", "film", "seal", "colour", "clear"});
}

TEST_CASE("each rule of the trade can fire, and has a sign at which it does not") {  // common practice, all of them
    const std::vector<std::pair<std::string, Job>> cases = {
        {"permanent-mask-on-paint", with([](Job& j) { making(j).film = "permanent-gloss"; })},
        {"permanent-mask-on-canvas", with([](Job& j) {
             making(j).film = "permanent-gloss";
             blank(j).material = "canvas";
         })},
        {"film-on-uncured-ground", with([](Job& j) { finish_of(j).rest_hours = 4; })},
        {"film-on-young-ground", with([](Job& j) {
             finish_of(j).ground->coat = "gel-stain";
             finish_of(j).seal = Seal::Clear;
         })},
        {"margin-below-tool", with([](Job& j) { making(j).margin = measure("1/2"); })},
        {"decal-on-oil-stain", with([](Job& j) { finish_of(j).ground->coat = "oil-stain"; }, long_board())},
        {"decal-on-stain", with([](Job& j) { finish_of(j).ground->coat = "gel-stain"; }, long_board())},
        {"printable-as-mask", with([](Job& j) { making(j).film = "printable"; })},
        {"smooth-film-on-grain", with([](Job& j) { making(j).film = "stencil-smooth"; })},
        {"removable-on-rough", with([](Job& j) { blank(j).surface = Surface::Rough; })},
        {"metallic-mask", with([](Job& j) { making(j).film = "metallic"; })},
        {"patterned-on-coat", with([](Job& j) { making(j).film = "patterned-leftover"; })},
        {"reusable-with-keepers", with([](Job& j) {
             making(j).film = "reusable-sheet";
             making(j).tie = measure("0");
         })},
        {"film-unknown", with([](Job& j) { making(j).film = "from the attic"; })},
        {"tool-unknown", with([](Job& j) { making(j).tool = "goose feather"; })},
        {"material-unknown", with([](Job& j) { blank(j).material = "driftwood"; })},
        {"grain-without-seal", with([](Job& j) { finish_of(j).seal = Seal::None; })},
        {"seal-without-ground", with([](Job& j) { finish_of(j).ground->coat = "gel-stain"; })},
        {"edge-counts-as-margin", porch_board()},
        {"not-sanded", with([](Job& j) {
             blank(j).surface = Surface::Rough;
             finish_of(j).sanded = false;
         })},
        {"glossy-ground-decal", with([](Job& j) { finish_of(j).ground->coat = "gloss-enamel"; }, long_board())},
        {"glossy-surface", with([](Job& j) {
             blank(j).surface = Surface::Glossy;
             finish_of(j).sanded = false;
         })},
        {"foam-and-paint", with([](Job& j) { blank(j).material = "foam"; })},
        {"light-on-dark-one-coat", with([](Job& j) { paint(j).coats = 1; })},
        {"low-contrast", with([](Job& j) { paint(j).colour = "#3a4a5a"; })},
        {"outdoors-without-clear", with([](Job& j) { finish_of(j).clear.reset(); })},
        {"outdoors-few-clear", porch_board()},
        {"clear-crosses-bases", with([](Job& j) { finish_of(j).clear->coat = "oil-clear"; })},
        {"chalkboard-sealed", with([](Job& j) { finish_of(j).ground->coat = "chalkboard-paint"; })},
        {"removable-outdoors", with([](Job& j) { making(j).film = "removable-matt"; }, long_board())},
        {"wet-lift-keepers", with([](Job& j) { finish_of(j).lift = Lift::Wet; })},
        {"soft-lift", porch_board()},
        {"decal-on-oil-stained", with(
                                     [](Job& j) {
                                         blank(j).already = Already::StainedOil;
                                         finish_of(j).ground.reset();
                                     },
                                     long_board())},
        {"fresh-stain", with([](Job& j) {
             blank(j).already = Already::StainedWater;
             blank(j).already_hours = 24;
         })},
        {"old-lettering", with([](Job& j) { blank(j).already = Already::OldLettering; })},
        {"paint-on-sealed", with([](Job& j) {
             blank(j).already = Already::Sealed;
             finish_of(j).sanded = false;
         })},
        {"old-paint-dust", with([](Job& j) { blank(j).already = Already::Painted; })},
        {"raised-frame", with([](Job& j) {
             blank(j).frame.kind = FrameKind::Trim;
             blank(j).frame.raised = blank(j).frame.before = true;
         })},
        {"upright-in-place", with([](Job& j) {
             blank(j).kind = Kind::Field;
             blank(j).width = measure("20");
         })},
        {"seen-from-behind", with([](Job& j) { blank(j).from_behind = true; })},
        {"grain-across", with([](Job& j) { blank(j).grain = Grain::Across; })},
        {"spray-covers", with([](Job& j) { making(j).tool = "spray"; })},
    };
    const auto on_masks = fired(porch_board());
    const auto on_decals = fired(long_board());
    const auto indoors = fired(with([](Job& j) { finish_of(j).outdoors = false; }));
    std::set<std::string> tried;
    for (const auto& [rule, job] : cases) {
        INFO(rule);
        CHECK(fired(job).contains(rule));
        tried.insert(rule);
    }
    for (const Rule& rule : library().trade.rules) {
        INFO(rule.id << " has no case");
        CHECK(tried.contains(rule.id));
        CHECK_FALSE(rule.basis.empty());
        // And a sign that it has nothing to say of: most cases above are one change away from one of these.
        CHECK((!on_masks.contains(rule.id) || !on_decals.contains(rule.id) || !indoors.contains(rule.id)));
    }
}

TEST_CASE("a rule lets go when its remedy is taken") {
    const Job permanent = with([](Job& j) { making(j).film = "permanent-gloss"; });
    CHECK(plan_of(permanent).mark_of(Station::Method) == Mark::Stop);
    CHECK_FALSE(fired(with([](Job& j) { making(j).film = "stencil-textured"; })).contains("permanent-mask-on-paint"));
    CHECK_FALSE(fired(with([](Job& j) { making(j).margin = measure("1"); })).contains("margin-below-tool"));
    CHECK_FALSE(fired(with([](Job& j) { finish_of(j).rest_hours = 12; })).contains("film-on-uncured-ground"));
}

TEST_CASE("unknown materials are kept, marked and planned with the careful wait") {
    const Job job = with([](Job& j) { finish_of(j).ground->coat = "grandfather's paint"; });
    const Plan plan = plan_of(job);
    CHECK(fired(job).contains("coat-unknown"));
    CHECK(plan.colours.front().method->rest == Minutes(24 * 60));
    CHECK(plan.colours.front().method->ground.name == "grandfather's paint");
    CHECK_FALSE(plan.clock->slots.empty());
}

TEST_CASE("conditions compare facts, and a fact that is not there meets none") {
    const Facts facts{{"a", 2.0}, {"b", 3.0}, {"c", std::string("x")}, {"d", true}};
    const auto rule = [](Condition c) { return Rule{"r", Mark::Look, Joint::Film, "", {std::move(c)}}; };
    CHECK(fires(rule({"a", {}, {}, std::string("b"), {}}), facts));
    CHECK_FALSE(fires(rule({"b", {}, {}, std::string("a"), {}}), facts));
    CHECK_FALSE(fires(rule({"a", {}, {}, 2.0, {}}), facts));
    CHECK(fires(rule({"a", {}, {}, {}, 2.0}), facts));
    CHECK(fires(rule({"c", {std::string("y"), std::string("x")}, {}, {}, {}}), facts));
    CHECK_FALSE(fires(rule({"c", {}, {std::string("x")}, {}, {}}), facts));
    CHECK_FALSE(fires(rule({"nowhere", {}, {std::string("x")}, {}, {}}), facts));
    CHECK_FALSE(fires(rule({"c", {}, {}, 3.0, {}}), facts));
}

TEST_CASE("damaged trade tables are refused, not guessed") {
    const std::string good = "{}";
    CHECK_FALSE(read_trade(good, good, good, good));
    CHECK_FALSE(read_trade("not json", good, good, good));
}
