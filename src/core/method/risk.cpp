#include "method/risk.h"

#include <algorithm>
#include <cmath>

namespace skarvel {
namespace {

Risk estimate(const RiskModel& model, const RiskTable& table, const Facts& facts) {
    Risk risk;
    double sum = model.base;
    for (const WeighedFactor& factor : model.factors) {
        if (!fires(factor.when, facts)) continue;
        sum += factor.weight;
        risk.most.push_back({factor.id, factor.weight});
    }
    std::stable_sort(risk.most.begin(), risk.most.end(),
                     [](const RiskFactor& a, const RiskFactor& b) { return a.weight > b.weight; });
    risk.likely = 1 / (1 + std::exp(-sum));
    const double spread = std::sqrt(risk.likely * (1 - risk.likely) / (table.prior_strength + 1));
    risk.from = std::max(0.0, risk.likely - spread);
    risk.to = std::min(1.0, risk.likely + spread);
    risk.level = risk.likely >= table.high   ? RiskLevel::High
                 : risk.likely >= table.fair ? RiskLevel::Fair
                                             : RiskLevel::Low;
    return risk;
}

}  // namespace

Risks risks_of(const BuildUp& build_up, const Trade& trade) {
    Risks risks;
    const auto way = build_up.facts.find("way");
    if (way != build_up.facts.end() && way->second == Fact{std::string("paint-through")})
        risks.bleed = estimate(trade.risk.bleed, trade.risk, build_up.facts);
    risks.lift = estimate(trade.risk.lift, trade.risk, build_up.facts);
    return risks;
}

}  // namespace skarvel
