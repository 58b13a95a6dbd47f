// clock/tasks.h
//
// Tasks: the work of one sign as the build-up and the loads ask for it, each with its hands-on time and what it must
// wait for. Names of tasks survive a new plan: they say what, which section or load (by its letters), and which coat.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "method/build_up.h"

namespace skarvel {

/// `at_least` after the end of task `after`, and where there is a window no later than `at_most` after it.
struct Wait {
    std::size_t after = 0;  ///< place in the list of tasks
    Minutes at_least{0};
    std::optional<Minutes> at_most;
    Reason why;  ///< empty where nothing dries and only the order counts
    friend bool operator==(const Wait&, const Wait&) = default;
};

struct Task {
    std::string id;  ///< "1/lay/BOAT"
    std::string
        kind;  ///< proof, sand, ground, cut, weed, clear-under, lay, seal, colour, lift, clear, final, frame, field
    Reason name;
    Minutes hands_on{0};
    std::vector<Wait> waits;
    int number = 0;    ///< which coat, or which section counted from 1
    std::string of{};  ///< the sign that it is for, where a job has several
    friend bool operator==(const Task&, const Task&) = default;
};

struct TaskInput {
    std::string sign;  ///< prefix of the names: "1", or "1.2" for the second colour of a face
    BuildUp method;
    Making making;
    LoadsPlan loads;
    bool clear_over = true;
    bool outdoors = true;
    bool sanded = true;
    bool upright = true;  ///< sections run along the height of the board
    double area_sqft = 0;
    Length letter_height;
    int fields = 0;  ///< painted fields of the blank
    double fields_sqft = 0;
    int frame_pieces = 0;  ///< to saw and join
    bool frame_before = false;
    bool first = true, last = true;  ///< of the colours of its face: what is done once is done with these
    std::string colour{};            ///< its name, where the face has several
    friend bool operator==(const TaskInput&, const TaskInput&) = default;
};

/// The name of a task with its sign, where a job has several.
Reason full_name(const Task& task);

/// In an order in which they can be done. Waits name earlier tasks only.
std::vector<Task> tasks_of(const TaskInput& input, const Trade& trade);

}  // namespace skarvel
