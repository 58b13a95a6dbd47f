// bench/steps.h
//
// Steps: what to do at the bench, in order, each with its instruction, its check and the cautions that belong to it;
// and the bench record: what was ticked when. A tick whose step has vanished from the plan is kept and listed.
#pragma once

#include <map>
#include <string>
#include <vector>

#include "clock/schedule.h"

namespace skarvel {

struct BenchRecord {
    std::map<StepId, Moment> ticks;
    std::map<StepId, Moment> held;  ///< "not dry yet": looked again no earlier than this
    std::vector<CutLoad> cut;       ///< loads as they were cut
    std::vector<CutLoad> spoilt;    ///< cut, and to be cut again
    friend bool operator==(const BenchRecord&, const BenchRecord&) = default;
};

struct Step {
    StepId id;
    Work work = Work::Proof;
    FaceId face;
    ColourId colour;  ///< empty for what is done once for the face
    Reason name, instruction, check;
    std::vector<Reason> cautions;
    int number = 0;  ///< coat, load or section that it is about
    Minutes hands_on{0};
    Moment start{};         ///< as planned, or as it was
    Minutes wait_after{0};  ///< what must then dry, longest
    Reason wait_why;
    bool done = false;
    friend bool operator==(const Step&, const Step&) = default;
};

struct BenchPlan {
    std::vector<Step> steps;      ///< in the order of the schedule
    std::vector<StepId> orphans;  ///< ticks whose step has vanished
    [[nodiscard]] std::size_t done() const;
    [[nodiscard]] const Step* next() const;  ///< nullptr when all is done
    friend bool operator==(const BenchPlan&, const BenchPlan&) = default;
};

struct BenchInput {
    Shared<std::vector<Task>> tasks;
    Shared<Schedule> clock;
    std::map<StepId, Moment> ticks;
    friend bool operator==(const BenchInput&, const BenchInput&) = default;
};

BenchPlan bench(const BenchInput& input, const Trade& trade);

}  // namespace skarvel
