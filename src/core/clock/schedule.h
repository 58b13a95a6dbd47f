// clock/schedule.h
//
// The schedule: tasks laid on the maker's hours by one pair of hands.
//
// Work of the same kind on several signs is done in a round where that may be: one after the other, with one setting up
// and washing out. Rounds are planned beside single tasks, and taken where they are ready in time, or as early.
//
// Forward from the present: of the tasks that may begin, the one that can begin first goes first, the longer remaining
// chain on a tie; waits run day and night, hands only inside the hours. A window of less than half a day binds its
// tasks into one sitting. The latest start is found by trying starts inside the hours, latest first, until the forward
// schedule meets the deadline, so it is exact for that rule. Ticked tasks stand where they were done, and the rest
// moves.
#pragma once

#include <array>
#include <map>
#include <optional>
#include <vector>

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

struct ClockInput {
    Shared<std::vector<Task>> tasks;
    Hours hours;
    std::optional<Moment> deadline;
    std::map<StepId, Moment> done;
    std::map<StepId, Moment> held;  ///< "not dry yet": what follows the task waits at least until then
    Moment now{};
    std::vector<ChangedDay> changed{};
    std::optional<Moment> begin_on{};  ///< no work before that
    std::map<StepId, Moment> dry{};    ///< dry by touch since then, however long it should have taken
    Minutes margin{0};                 ///< that the latest start leaves before the deadline
    friend bool operator==(const ClockInput&, const ClockInput&) = default;
};

struct Slot {
    std::size_t task = 0;
    Moment start{}, end{};
    bool done = false;
    friend bool operator==(const Slot&, const Slot&) = default;
};

struct Schedule {
    std::vector<Slot> slots;  ///< in order of time
    Moment begin{}, ready{};
    std::optional<Moment>
        start_by;       ///< latest start that meets the deadline; none when it cannot be met or nothing is left
    bool late = false;  ///< ready after the deadline
    Minutes hands_on{0};
    Minutes setup_saved{0};   ///< by rounds
    Minutes chain_waits{0};   ///< sum of the waits on the deciding chain
    std::vector<Wait> chain;  ///< those waits, first to last
    std::vector<Problem> problems;
    friend bool operator==(const Schedule&, const Schedule&) = default;
};

Schedule schedule(const ClockInput& input);

}  // namespace skarvel
