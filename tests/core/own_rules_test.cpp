// method/own_rules: rules that a maker adds are judged, told, overruled and kept as those of the trade are.
#include "method/own_rules.h"

#include "files/job_file.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

const Finding* found(const Plan& plan, const std::string& rule) {
    for (const Finding& f : plan.colours.front().method->findings) {
        if (f.rule == rule) return &f;
    }
    return nullptr;
}

}  // namespace

TEST_CASE("a maker's own rule fires where all that it asks holds, and nowhere else") {
    const Job job = porch_board();
    Shop shop = usual_shop();
    add_rule(shop.own_rules, {"", Mark::Stop, {{"place", "porch"}, {"way", "paint-through"}}, "salt eats it", "brass"});
    add_rule(shop.own_rules, {"", Mark::Look, {{"place", "kitchen"}}, "grease", ""});
    add_rule(shop.own_rules, {"", Mark::Look, {{"below.kind", "paint"}, {"above.kind", "clear"}}, "goes milky", ""});
    add_rule(shop.own_rules, {"", Mark::Look, {}, "always", ""});              // asks nothing: none
    add_rule(shop.own_rules, {"", Mark::Look, {{"place", "porch"}}, "", ""});  // says nothing: none
    REQUIRE(shop.own_rules.size() == 3);
    CHECK(shop.own_rules[1].id == "own-2");
    const Plan plan = skarvel::plan(job, shop, library(), moment("2026-05-04T18:00"));
    const Finding* salt = found(plan, "own-1");
    REQUIRE(salt != nullptr);
    CHECK(salt->mark == Mark::Stop);
    CHECK(library().catalogue.say(salt->why, {}) == "salt eats it");
    CHECK(library().catalogue.say(salt->remedy, {}) == "brass");
    CHECK(found(plan, "own-2") == nullptr);
    const Finding* pair = found(plan, "own-3");
    REQUIRE(pair != nullptr);
    CHECK(plan.colours.front().method->layers.at(pair->at).kind == ShownKind::Clear);
    // For this job it does not hold: told, and stops nothing.
    Job without_it = job;
    without_it.overruled.push_back({"own-1", "inland"});
    const Plan then = skarvel::plan(without_it, shop, library(), moment("2026-05-04T18:00"));
    REQUIRE(found(then, "own-1") != nullptr);
    CHECK(found(then, "own-1")->mark == Mark::None);
    CHECK(found(then, "own-1")->overruled == "inland");
    CHECK(*read_shop(write_shop(shop)) == shop);
}

TEST_CASE("what a rule can ask has words for everything, and every word can hold") {
    const auto words = [](const Reason& r) { return library().catalogue.say(r, {}); };
    for (const Asked& asked : what_can_be_asked(library().trade)) {
        INFO(asked.fact);
        CHECK(words(asked.what) != asked.what.id);
        REQUIRE(asked.may_be.size() > 1);
        for (const auto& [word, told] : asked.may_be) {
            INFO(word);
            CHECK(words(told) != told.id);
            const Rule rule = as_rule({"own-1", Mark::Look, {{asked.fact, word}}, "x", ""});
            Facts facts;
            facts[asked.fact] = word == "yes" ? Fact(true) : word == "no" ? Fact(false) : Fact(word);
            CHECK(fires(rule.when, facts));
        }
    }
    // The facts are those that a build-up is judged on.
    const Plan plan = plan_of(porch_board());
    const Facts& facts = plan.colours.front().method->facts;
    for (const Asked& asked : what_can_be_asked(library().trade)) {
        const bool of_pairs = asked.fact.starts_with("below.") || asked.fact.starts_with("above.");
        CHECK((of_pairs || facts.contains(asked.fact)));
    }
    CHECK(words(when_told({"own-1", Mark::Look, {{"place", "porch"}, {"hue", "red"}}, "x", ""}, library().trade)) ==
          "place: on a porch, hue: red");
}
