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
    std::map<std::string, Moment> ticks;  ///< by step id
    std::map<std::string, Moment> held;   ///< "not dry yet": looked again no earlier than this
    std::vector<CutLoad> cut;             ///< loads as they were cut
    std::vector<CutLoad> spoilt;          ///< cut, and to be cut again
    friend bool operator==(const BenchRecord&, const BenchRecord&) = default;
};

struct Step {
    std::string id, kind;
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
    std::vector<Step> steps;           ///< in the order of the schedule
    std::vector<std::string> orphans;  ///< ticks whose step has vanished
    [[nodiscard]] std::size_t done() const;
    [[nodiscard]] const Step* next() const;  ///< nullptr when all is done
    friend bool operator==(const BenchPlan&, const BenchPlan&) = default;
};

struct BenchInput {
    std::vector<Task> tasks;
    Schedule clock;
    BenchRecord record;
    std::vector<BuildUp> methods;  ///< for the cautions of products, in the order of signs
    bool decal = false;
    friend bool operator==(const BenchInput&, const BenchInput&) = default;
};

BenchPlan bench(const BenchInput& input, const Trade& trade);

}  // namespace skarvel
