// bench/steps.h
//
// Steps: what to do at the bench, in order, each with its instruction, its check, what to have at hand and the cautions
// that belong to it; the timers that run; and the bench record: what was ticked when. A tick whose step has vanished
// from the plan is kept and listed.
#pragma once

#include <array>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "clock/schedule.h"
#include "laying/laying.h"

namespace skarvel {

/// A step that its maker left out.
struct Skipped {
    StepId step;
    std::string reason;
    friend bool operator==(const Skipped&, const Skipped&) = default;
};

/// How long a step really took at hand, as the bench saw it or its maker says.
struct Took {
    StepId step;
    int minutes = 0;
    friend bool operator==(const Took&, const Took&) = default;
};

/// Where a face is parted for a trial, and which half came out better.
enum class Halves { LeftRight, TopBottom };
constexpr auto words_of(Halves) { return std::array{"left-right", "top-bottom"}; }
enum class Better { NotYet, First, Second, Alike };
constexpr auto words_of(Better) { return std::array{"not-yet", "first", "second", "alike"}; }

/// A step done in two ways on one face, in the maker's own words: one on the left or top half, one on the other.
struct SplitTrial {
    StepId step;
    Halves halves = Halves::LeftRight;
    std::string first, second;
    Better better = Better::NotYet;
    friend bool operator==(const SplitTrial&, const SplitTrial&) = default;
};

/// A picture of the work, kept beside the job (files/photographs.h).
struct Photograph {
    std::string file;      ///< its name in the folder of the job's photographs
    std::string checksum;  ///< of its bytes
    Moment taken{};
    StepId step;
    friend bool operator==(const Photograph&, const Photograph&) = default;
};

struct BenchRecord {
    std::map<StepId, Moment> ticks;
    std::map<StepId, Moment> held;   ///< "not dry yet": looked again no earlier than this
    std::vector<CutLoad> cut;        ///< loads as they were cut
    std::vector<CutLoad> spoilt;     ///< cut, and to be cut again
    std::map<StepId, Moment> dry{};  ///< "dry already": by touch, since then
    std::vector<Mishap> mishaps{};
    std::vector<Skipped> skipped{};  ///< ticked as well, when they were left out
    std::vector<Photograph> photographs{};
    std::vector<Took> took{};
    std::vector<SplitTrial> trials{};
    std::vector<StepId> perhaps_cut{};  ///< loads that a machine broke off at: nobody knows how far it came
    friend bool operator==(const BenchRecord&, const BenchRecord&) = default;
};

struct Step {
    StepId id;
    Work work = Work::Proof;
    FaceId face;
    ColourId colour;  ///< empty for what is done once for the face
    Reason name, instruction, check;
    Reason at_hand;
    std::vector<Reason> cautions;
    int number = 0;   ///< coat, load or section that it is about
    int time = 1;     ///< which lay of a section, or which pass
    int section = 0;  ///< of a coat on one mask alone: which, counted from 1
    LayerId layer;    ///< of the build-up, where it puts one on or takes it back
    Minutes hands_on{0};
    Moment start{};         ///< as planned, or as it was
    Minutes wait_after{0};  ///< what must then dry, longest
    Reason wait_why;
    bool done = false;
    std::vector<std::string> may_happen{};  ///< kinds of mishaps
    std::string round{};                    ///< work of one kind on several signs has the same
    std::string of{};                       ///< the sign that it is for, where a job has several
    std::optional<SplitTrial> trial{};
    std::optional<Minutes> took{};
    bool perhaps_cut = false;
    friend bool operator==(const Step&, const Step&) = default;
};

/// A wait that has begun: what was done last is drying, and the step after it may begin at the earliest then, and where
/// there is a window no later than its end.
struct Timer {
    StepId after, before;
    Reason what;  ///< what dries, and before what
    Moment since{}, from{};
    std::optional<Moment> until;
    friend bool operator==(const Timer&, const Timer&) = default;
};

struct BenchPlan {
    std::vector<Step> steps;      ///< in the order of the schedule
    std::vector<StepId> orphans;  ///< ticks whose step has vanished
    std::vector<Timer> timers;    ///< the next to end first
    [[nodiscard]] std::size_t done() const;
    [[nodiscard]] const Step* next() const;  ///< nullptr when all is done
    friend bool operator==(const BenchPlan&, const BenchPlan&) = default;
};

/// The step that was at the bench at a moment: the one that was ticked next after it, or that is next now. Nothing
/// where all is done and it is later.
const Step* at_bench(const BenchPlan& bench, const std::map<StepId, Moment>& ticks, Moment moment);

/// The round that a step belongs to: steps of one kind that follow one another on one day, on several signs; by place,
/// itself too. Alone it is none: empty.
std::vector<std::size_t> round_of(const BenchPlan& bench, std::size_t step);

/// A mask that another sign had first: that sign, and the letters on it.
struct MaskOf {
    std::string sign, letters;
    friend bool operator==(const MaskOf&, const MaskOf&) = default;
};

/// How the sections of a colour are laid, and when its masks come off.
struct LaidBy {
    Shared<LayingPlan> laying;
    Lift lift = Lift::Soft;
    std::map<std::size_t, MaskOf> lent{};  ///< by section: the mask that is laid again there
    friend bool operator==(const LaidBy&, const LaidBy&) = default;
};

struct BenchInput {
    Shared<std::vector<Task>> tasks;
    Shared<Schedule> clock;
    std::map<StepId, Moment> ticks, held, dry;
    std::map<ColourId, LaidBy> laying;
    std::vector<Took> took{};
    std::vector<SplitTrial> trials{};
    std::vector<StepId> perhaps_cut{};
    std::vector<ClockChange> changes{};  ///< as the clock reads them
    std::vector<SlowDay> slow_days{};
    friend bool operator==(const BenchInput&, const BenchInput&) = default;
};

BenchPlan bench(const BenchInput& input, const Trade& trade);

}  // namespace skarvel
