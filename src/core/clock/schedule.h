// clock/schedule.h
//
// The schedule: tasks laid on the maker's hours by the hands that there are.
//
// Work of the same kind on several signs is done in a round where that may be: one after the other, with one setting up
// and washing out. Rounds are planned beside single tasks, and taken where they are ready in time, or as early.
//
// Waits run day and night, hands only inside the hours. A window of less than half a day binds its tasks into one
// sitting; a longer one is kept by beginning later with what opens it. The first plan is taken forward from the present
// (clock/fitting.h) and bettered by a search within counted steps; what no plan can beat is told beside it
// (`decisions/the-best-plan-and-its-bound.md`). The latest start is found by trying starts inside the hours. Ticked
// tasks stand where they were done, pinned ones where they were pinned, and the rest moves.
#pragma once

#include <array>
#include <map>
#include <optional>
#include <vector>

#include "clock/passing.h"
#include "clock/tasks.h"

namespace skarvel {

/// Hours on which the maker works, per weekday (0 is Sunday), minutes of the day.
struct Hours {
    struct Sitting {
        int from = 0, to = 0;
        friend bool operator==(const Sitting&, const Sitting&) = default;
    };
    std::array<std::vector<Sitting>, 7> days;
    friend bool operator==(const Hours&, const Hours&) = default;
};

/// One sitting of a day that is not as its weekday usually is: such a day has its own sittings alone, and none where
/// `from` is not before `to`.
struct ChangedDay {
    Moment day{};          ///< its midnight
    int from = 0, to = 0;  ///< minutes of the day
    friend bool operator==(const ChangedDay&, const ChangedDay&) = default;
};

/// The sittings of a day, in order.
std::vector<Hours::Sitting> sittings_on(const Hours& hours, const std::vector<ChangedDay>& changed,
                                        std::chrono::local_days day);

/// From one moment up to another.
struct Interval {
    Moment from{}, to{};
    friend auto operator<=>(const Interval&, const Interval&) = default;
};

struct ClockInput {
    Shared<std::vector<Task>> tasks;
    Hours hours;
    std::optional<Moment> deadline;
    std::map<StepId, Moment> done;
    std::map<StepId, Moment> held;  ///< "not dry yet": what follows the task waits at least until then
    Moment now{};
    std::vector<ChangedDay> changed{};
    std::optional<Moment> begin_on{};    ///< no work before that
    std::map<StepId, Moment> dry{};      ///< dry by touch since then, however long it should have taken
    Minutes margin{0};                   ///< that the latest start leaves before the deadline
    std::map<StepId, Moment> pinned{};   ///< begin then, as far as their waits and the hours let them
    std::vector<Interval> taken{};       ///< hours that other jobs have taken
    int hands = 1;                       ///< pairs of them
    std::vector<ClockChange> changes{};  ///< of the clock on the wall
    std::vector<SlowDay> slow_days{};
    friend bool operator==(const ClockInput&, const ClockInput&) = default;
};

struct Slot {
    std::size_t task = 0;
    Moment start{}, end{};
    bool done = false;
    friend bool operator==(const Slot&, const Slot&) = default;
};
/// When the last of them ends.
Moment end_of(const std::vector<Slot>& slots);

/// When a task may begin, were it alone on the hours.
struct Leeway {
    Moment earliest{};
    std::optional<Moment> latest;  ///< so that the deadline can still be met
    friend bool operator==(const Leeway&, const Leeway&) = default;
};

struct Schedule {
    std::vector<Slot> slots;  ///< in order of time
    Moment begin{}, ready{};
    std::optional<Moment>
        start_by;       ///< latest start that meets the deadline; none when it cannot be met or nothing is left
    bool late = false;  ///< ready after the deadline
    Minutes hands_on{0};
    Minutes setup_saved{0};        ///< by rounds
    Minutes chain_waits{0};        ///< sum of the waits on the deciding chain
    std::vector<Wait> chain;       ///< those waits, first to last
    Moment bound{};                ///< no plan for these hours can be ready before that
    bool best = false;             ///< and none can be ready before this one
    std::vector<Leeway> leeway;    ///< of each task, by place
    std::optional<Minutes> slack;  ///< so much later may the work begin, and be in time
    std::vector<Problem> problems;
    friend bool operator==(const Schedule&, const Schedule&) = default;
};

Schedule schedule(const ClockInput& input);

/// How far a task can be moved: where it begins when it is wanted at `to`, and what stops it where that is not `to`.
struct Moved {
    Moment at{};
    std::optional<Reason> stopped_by;
    Moment ready{};  ///< the job, then
    friend bool operator==(const Moved&, const Moved&) = default;
};
/// Nothing for a task that is done or is not there, or where the hours hold no room.
std::optional<Moved> how_far(const ClockInput& input, const StepId& task, Moment to);

}  // namespace skarvel
