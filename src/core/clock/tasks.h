// clock/tasks.h
//
// Tasks: the work of a job as its build-ups and loads ask for it, face by face, each task with its hands-on time and
// what it must wait for. What is done once for a face (its ground, its proof, its last coat) is done once however many
// colours it has; colours follow one another in the order of laying, each once the one before it is dry enough for
// what comes on it.
#pragma once

#include <algorithm>
#include <optional>
#include <string>
#include <vector>

#include "blank/weight.h"
#include "loads/machines.h"
#include "method/build_up.h"
#include "values/shared.h"
#include "values/work.h"

namespace skarvel {

/// `at_least` after the end of task `after`, and where there is a window no later than `at_most` after it opened.
struct Wait {
    std::size_t after = 0;  ///< place in the list of tasks
    Minutes at_least{0};
    std::optional<Minutes> at_most;
    Reason why;               ///< empty where nothing dries and only the order counts
    Minutes opened{0};        ///< the window opened so long before the end of that task, with its first letter
    bool dries = false;       ///< water-based: it takes as long as the room lets it (clock/passing.h)
    bool by_machine = false;  ///< a machine is at work: once the task is ticked it has done it
    /// What is left of it once the task is done.
    [[nodiscard]] Minutes left_when_done() const { return by_machine ? Minutes(0) : at_least; }
    /// Where there is a window: so long after the end of the task it closes, or what waits for it may begin at all.
    [[nodiscard]] std::optional<Minutes> closes() const {
        if (!at_most) return std::nullopt;
        return std::max(at_least, *at_most - opened);
    }
    friend bool operator==(const Wait&, const Wait&) = default;
};

/// Of the work of a task: so many of what a pace is for (`pace_names`); of no name: minutes.
struct WorkPart {
    std::string pace;
    double amount = 0;
    friend bool operator==(const WorkPart&, const WorkPart&) = default;
};

struct Task {
    StepId id;
    Work work = Work::Proof;
    std::string saying{};  ///< which sentences tell of it: its work's, or a coat's own
    FaceId face;
    LayerId layer{};  ///< of the build-up, where it puts on or takes back one of the face
    ColourId colour;  ///< empty for what is done once for the face
    Reason name;
    Minutes hands_on{0};
    std::vector<Wait> waits;
    int number = 0;                       ///< which coat, or which section counted from 1
    int section = 0;                      ///< of a coat on one mask alone: which, counted from 1
    bool decal = false;                   ///< of a colour that is a decal: what is pulled off is the other way round
    std::vector<std::string> products{};  ///< what is in the tins and cans that it uses: water, oil, solvent, spray
    std::string of{};                     ///< the sign that it is for, where a job has several
    std::string round{};                  ///< what may be done in one round has the same; empty: nothing
    Minutes setup{0};                     ///< of its hands-on time, what a round needs once
    int people = 1;                       ///< that it wants at once
    std::vector<WorkPart> parts{};        ///< what its hands-on time is made of
    friend bool operator==(const Task&, const Task&) = default;
};

/// What went wrong at a step, and is mended before work goes on.
struct Mishap {
    int number = 1;    ///< in the order in which they happened; names its step
    std::string kind;  ///< an id of the trade data
    StepId at;         ///< the step at which it happened
    Moment when{};
    std::string note{};            ///< the maker's own words
    std::optional<Point> place{};  ///< on its face
    std::string letter{};          ///< of the face, at that place
    friend bool operator==(const Mishap&, const Mishap&) = default;
};

/// One colour of a face, as its work needs it.
struct ColourWork {
    ColourId id;
    std::string name;  ///< where the face has several
    Shared<BuildUp> method;
    Making making;
    Shared<LoadsPlan> loads;
    bool printed_with_another = false;  ///< it brings no work of its own
    std::string machine{};              ///< that its loads are cut on
    Knife knife{};
    friend bool operator==(const ColourWork&, const ColourWork&) = default;
};

struct FaceWork {
    FaceId id;
    FaceId after_face{};              ///< of the same blank: done before it, then the blank is turned over
    std::string sign;                 ///< what it is called, where the job has several
    std::vector<ColourWork> colours;  ///< in the order of laying; at least one
    std::vector<Layer> layers;        ///< in the order of laying (in_order)
    bool stacked = false;             ///< decals of several colours are put together on the tape, where they can
    bool outdoors = true;
    double area_sqft = 0;  ///< that coats cover
    Length letter_height;
    int fields = 0;  ///< painted fields of the blank
    double fields_sqft = 0;
    int saw_pieces = 0;     ///< of the blank and its backing, where they are sawn from a length first
    Length saw_length;      ///< of the blank
    bool saw_head = false;  ///< of an arrow, by its marks
    Holds holds = Holds::InPlace;
    bool heavy = false;    ///< two put it up
    int frame_pieces = 0;  ///< to saw and join
    bool frame_before = false;
    double slowed = 1;  ///< so many times as long water-based coats dry, where it is cold or damp
    double fan = 1;     ///< and what lies between coats, in a moving air
    friend bool operator==(const FaceWork&, const FaceWork&) = default;
};

/// How many times as long water-based coats dry in such a room: the worse of its cold and its damp.
double slowed_by(const std::vector<Slowing>& table, int celsius, int humidity);

/// The colours of a face that are put together on the tape, the lowest first: decals that follow one another, each of
/// one section. Fewer than two: none.
std::vector<ColourId> stack_of(const FaceWork& face);

/// The name of a task with its sign, where a job has several.
Reason full_name(const Task& task);

/// In an order in which they can be done: a face whose blank has another stands right after it. Waits name earlier
/// tasks only. A machine cuts one load after the other.
std::vector<Task> tasks_of(const std::vector<FaceWork>& faces, const Trade& trade, const HandsOn& hands_on);

/// How long the knife is at a load, from the length of what it cuts and, roughly, the way between.
Minutes knife_time(const Load& load, const std::vector<Section>& sections, const Knife& knife);

/// Puts the mending of each mishap after the step at which it happened, or after the last lift of its colour where it
/// waits for the masks to be off; what waited for that step waits for the mending as well. One whose step has gone is
/// left out.
void mend(std::vector<Task>& tasks, const std::vector<Mishap>& mishaps, const Trade& trade);

}  // namespace skarvel
