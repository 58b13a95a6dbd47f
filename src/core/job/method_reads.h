// job/method_reads.h
//
// What the stages of Method and of the tasks read of a job and of what was planned before them, and what could be done
// about what Method found: each remedy is tried on the job before it is offered.
#pragma once

#include <map>
#include <span>

#include "job/plan.h"

namespace skarvel {

/// What a maker says about the rules: which do not hold, for the job or in the shop, and which hold besides.
struct MakersRules {
    std::vector<Overruled> overruled;
    std::vector<OwnRule> own;
};
MakersRules rules_of_maker(const Job& job, const Shop& shop);

/// `earlier`: what the colours of the face that come before leave on it.
MethodInput method_reads(const Blank& blank, const BlankPlan& measured, const Face& face, const ColourPlan& colour,
                         std::map<ColourId, std::vector<ShownLayer>> earlier, MakersRules rules, const Trade& trade);

/// `colours`: all of the face, in the order of laying; `sign`: its name, where the job has several.
FaceWork work_reads(const Sign& sign, const Face& face, const FacePlan& plan, std::span<const ColourPlan> colours,
                    const std::string& name, const Trade& trade);

/// What work at hand takes by the table, and a hinge where the shop makes one.
HandsOn hands_on_in(const Shop& shop, const Trade& trade);

/// How sections get to their places on what the build-up says lies there.
LayingInput laying_reads(const Blank& blank, const Shared<BlankPlan>& measured, const ColourPlan& colour,
                         const Display& display);

struct Remedy {
    Finding finding;  ///< of the build-up; of what only lowers a risk, its joint alone
    Fix fix = Fix::SandFirst;
    Minutes hands_on{0};                  ///< more than now
    std::optional<std::int64_t> cents{};  ///< of film, more than now; where the drawer knows both prices
    Risks then;                           ///< how it stands afterwards
    friend bool operator==(const Remedy&, const Remedy&) = default;
};

/// The remedies of what was found at a colour: those that change something, take away what they are for, and bring no
/// stop that was not there. Nothing for a colour that was not planned.
std::vector<Remedy> remedies(const Job& job, const Shop& shop, const Plan& plan, const ColourId& colour,
                             const Trade& trade);

/// What would lower the likelihood of bleeding, or of lifting, by a hundredth and more, most first; none that brings a
/// stop or a joint to look at that was not there.
struct Lowering {
    std::vector<Remedy> bleed, lift;
    friend bool operator==(const Lowering&, const Lowering&) = default;
};
Lowering what_lowers(const Job& job, const Shop& shop, const Plan& plan, const ColourId& colour, const Trade& trade);

}  // namespace skarvel
