// method/own_rules.h
//
// A maker's own rules: what they can ask about a build-up, in the words that the trade's rules are written in, and how
// they are judged beside those.
#pragma once

#include <string>
#include <utility>
#include <vector>

#include "method/trade.h"

namespace skarvel {

/// Something that a rule can ask, and what it may be, each with how it is told.
struct Asked {
    std::string fact;
    Reason what;
    std::vector<std::pair<std::string, Reason>> may_be;
    friend bool operator==(const Asked&, const Asked&) = default;
};
std::vector<Asked> what_can_be_asked(const Trade& trade);

/// The conditions of such a rule as any rule has them, at the joint that they are about.
Rule as_rule(const OwnRule& own);

/// "place is porch; film is stencil film": when it holds. What the tables do not know is told as it stands.
Reason when_told(const OwnRule& own, const Trade& trade);

/// With an id that no other has. Nothing changes for a rule without conditions or without words.
void add_rule(std::vector<OwnRule>& rules, OwnRule rule);

}  // namespace skarvel
