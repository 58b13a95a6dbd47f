// method/risk.h
//
// Risk: how likely paint bleeds under a mask, and film or tape lifts a coat. A logistic sum over weighted factors that
// hold for the build-up (the method: logistic regression with weights set by judgement, which records may correct
// later). Not a measurement: each estimate is a band, as wide as the strength of what it rests on allows.
#pragma once

#include <array>
#include <string>
#include <vector>

#include "method/build_up.h"

namespace skarvel {

enum class RiskLevel { Low, Fair, High };
constexpr auto words_of(RiskLevel) { return std::array{"low", "fair", "high"}; }

struct RiskFactor {
    std::string id;
    double weight = 0;  ///< in the sum; below nothing for what helps
    friend bool operator==(const RiskFactor&, const RiskFactor&) = default;
};

struct Risk {
    RiskLevel level = RiskLevel::Low;
    double likely = 0;        ///< 0 to 1
    double from = 0, to = 0;  ///< the band: one standard deviation of a beta distribution of that mean and strength
    std::vector<RiskFactor> most;  ///< what holds, the heaviest first
    friend bool operator==(const Risk&, const Risk&) = default;
};

struct Risks {
    Risk bleed;  ///< nothing under a decal
    Risk lift;
    friend bool operator==(const Risks&, const Risks&) = default;
};

/// From the facts that the build-up was judged on.
Risks risks_of(const BuildUp& build_up, const Trade& trade);

}  // namespace skarvel
