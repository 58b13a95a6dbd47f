#include "method/own_rules.h"

#include <algorithm>
#include <set>

#include "method/build_up.h"

namespace skarvel {
namespace {

Reason named(const std::string& name) { return {"asked.named", {{"name", name}}}; }

template <class E>
Asked of_words(const char* fact, const char* what) {
    Asked asked{fact, {what, {}}, {}};
    for (const char* word : words_of(E{}))
        asked.may_be.emplace_back(word, Reason{std::string("asked.") + fact + "." + word, {}});
    return asked;
}

// Kinds of coats and films, as the tables have them.
Asked of_kinds(const std::string& of_what, const char* what, const std::string& of,
               const std::set<std::string>& kinds) {
    Asked asked{of_what + ".kind", {what, {}}, {}};
    for (const std::string& kind : kinds) asked.may_be.emplace_back(kind, Reason{of + kind, {}});
    return asked;
}

Asked yes_or_no(const char* fact, const char* what) {
    return {fact, {what, {}}, {{"yes", {"asked.yes", {}}}, {"no", {"asked.no", {}}}}};
}

}  // namespace

std::vector<Asked> what_can_be_asked(const Trade& trade) {
    std::set<std::string> coats{"bare"}, coats_alone, films;
    for (const Coat& c : trade.coats) coats_alone.insert(c.kind);
    coats.insert(coats_alone.begin(), coats_alone.end());
    for (const Film& f : trade.films) films.insert(f.kind);
    Asked material{"material", {"asked.material", {}}, {}};
    for (const Material& m : trade.materials) material.may_be.emplace_back(m.id, named(m.name));
    Asked tool{"tool", {"asked.tool", {}}, {}};
    for (const Tool& t : trade.tools) tool.may_be.emplace_back(t.id, named(t.name));
    return {of_words<Place>("place", "asked.place"),
            material,
            of_words<Surface>("surface", "asked.surface"),
            of_words<Already>("already", "asked.already"),
            of_words<Way>("way", "asked.way"),
            of_kinds("film", "asked.film", "asked.film-kind.", films),
            tool,
            of_kinds("top", "asked.lies-on", "asked.coat-kind.", coats),
            of_kinds("ground", "asked.ground", "asked.coat-kind.", coats_alone),
            of_kinds("below", "asked.below", "asked.coat-kind.", coats_alone),
            of_kinds("above", "asked.above", "asked.coat-kind.", coats_alone),
            of_words<Seal>("seal", "asked.seal"),
            of_words<Lift>("lift", "asked.lift"),
            yes_or_no("sanded", "asked.was-sanded"),
            yes_or_no("primed", "asked.was-primed"),
            yes_or_no("clear.over", "asked.clear-over")};
}

Rule as_rule(const OwnRule& own) {
    Rule rule;
    rule.id = own.id;
    rule.mark = own.mark;
    rule.basis = "shop";
    rule.joint = Joint::Film;
    for (const OwnCondition& c : own.when) {
        Condition condition{c.fact, {}, {}, {}, {}};
        if (c.is == "yes" || c.is == "no")
            condition.one_of.emplace_back(c.is == "yes");
        else
            condition.one_of.emplace_back(c.is);
        rule.when.push_back(std::move(condition));
        if (c.fact.starts_with("below.") || c.fact.starts_with("above.")) rule.joint = Joint::Pair;
        if (rule.joint == Joint::Pair) continue;
        if (c.fact == "lift") rule.joint = Joint::Lift;
        if (c.fact == "seal") rule.joint = Joint::Seal;
        if (c.fact.starts_with("clear.")) rule.joint = Joint::Clear;
    }
    return rule;
}

Reason when_told(const OwnRule& own, const Trade& trade) {
    const std::vector<Asked> known = what_can_be_asked(trade);
    std::vector<Reason> parts;
    for (const OwnCondition& c : own.when) {
        const auto asked = std::find_if(known.begin(), known.end(), [&](const Asked& a) { return a.fact == c.fact; });
        Reason what = named(c.fact);
        Reason is = named(c.is);
        if (asked != known.end()) {
            what = asked->what;
            const auto value = std::find_if(asked->may_be.begin(), asked->may_be.end(),
                                            [&](const auto& v) { return v.first == c.is; });
            if (value != asked->may_be.end()) is = value->second;
        }
        parts.push_back({"asked.is", {{"what", std::vector<Reason>{what}}, {"is", std::vector<Reason>{is}}}});
    }
    return {"asked.where", {{"parts", parts}}};
}

void add_rule(std::vector<OwnRule>& rules, OwnRule rule) {
    if (rule.when.empty() || rule.says.empty()) return;
    int number = 1;
    const auto taken = [&](const std::string& id) {
        return std::any_of(rules.begin(), rules.end(), [&](const OwnRule& r) { return r.id == id; });
    };
    while (taken("own-" + std::to_string(number))) ++number;
    rule.id = "own-" + std::to_string(number);
    rules.push_back(std::move(rule));
}

}  // namespace skarvel
