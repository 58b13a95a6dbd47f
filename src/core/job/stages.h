// job/stages.h
//
// Stages: the table that a Planner works through. Each stage has a row for each thing it works on, under that thing's
// lasting id: what it read last, and what came of it. A row is worked out anew only when what it reads has changed, so
// moving, copying or taking out a sign leaves the rows of the others alone. A result is written once and never changed;
// later stages read it as it is.
//
// A new stage is a function in the folder that knows its subject, a struct here that says what it reads, and a line in
// StageTable.
#pragma once

#include <map>
#include <string>
#include <vector>

#include "artwork/thin.h"
#include "bench/steps.h"
#include "blank/cutting.h"
#include "cost/film_cost.h"
#include "job/library.h"
#include "laying/laying.h"
#include "lettering/legibility.h"
#include "loads/sharing.h"
#include "values/shared.h"
#include "values/stop.h"

namespace skarvel {

/// One row that was worked out.
struct WorkedOut {
    std::string stage, of;
    friend bool operator==(const WorkedOut&, const WorkedOut&) = default;
};

/// The only row of a stage that reads the whole job.
struct WholeJob {
    std::string name = "job";
    friend auto operator<=>(const WholeJob&, const WholeJob&) = default;
};
/// Boards and strips that are sawn from one stock.
struct SawnFrom {
    std::string name;
    friend auto operator<=>(const SawnFrom&, const SawnFrom&) = default;
};

template <class Key, class In, class Out>
class Stage {
  public:
    explicit Stage(const char* name) : name_(name) {}

    /// What comes of `in`: as it was, or by `work`, then told in `ran`. Throws Stopped, and keeps what was known.
    template <class Work>
    Shared<Out> operator()(const Key& key, In in, std::vector<WorkedOut>& ran, Work work) {
        Row& row = rows_[key];
        row.idle = 0;
        if (row.out && row.in == in) return row.out;
        look_for_stop();
        ran.push_back({name_, key.name});
        Shared<Out> out(work(in));
        row.in = std::move(in);
        row.out = out;
        return out;
    }

    /// After a whole plan: rows of things that have gone stay for a while, in case they come back.
    void forget() {
        constexpr int runs_kept = 4;
        for (auto row = rows_.begin(); row != rows_.end();)
            row = ++row->second.idle > runs_kept ? rows_.erase(row) : std::next(row);
    }

  private:
    struct Row {
        In in{};
        Shared<Out> out;
        int idle = 0;  // plans since it was read
    };
    const char* name_;
    std::map<Key, Row> rows_;
};

struct BlankReads {
    Blank blank;
    std::vector<StockSize> own;  ///< the shop's
    bool back = false;
    friend bool operator==(const BlankReads&, const BlankReads&) = default;
};
BlankPlan blank_stage(const BlankReads& in, const Trade& trade);

struct LetteringReads {
    Lettering lettering;
    LetteringRoom room;
    friend bool operator==(const LetteringReads&, const LetteringReads&) = default;
};

struct ArtReads {
    std::vector<Art> art;
    LetteringRoom room;
    Region outline;
    friend bool operator==(const ArtReads&, const ArtReads&) = default;
};

struct InkReads {
    Lettering lettering;
    Shared<LetteringPlan> placed;
    std::vector<Art> art;
    Shared<ArtPlan> made;
    ColourId colour;
    std::optional<Box> mirror;  ///< across the middle of this face
    Region within{};            ///< what reaches farther is cut off; empty: nothing is
    friend bool operator==(const InkReads&, const InkReads&) = default;
};
std::vector<Piece> ink_stage(const InkReads& in);

/// Colours that come out of the printer together.
struct PrintReads {
    std::vector<Shared<std::vector<Piece>>> inks;
    friend bool operator==(const PrintReads&, const PrintReads&) = default;
};
std::vector<Piece> print_stage(const PrintReads& in);

struct ThinReads {
    Shared<std::vector<Piece>> pieces;
    CutLimits limits;
    friend bool operator==(const ThinReads&, const ThinReads&) = default;
};

struct LoadsReads {
    Shared<std::vector<Piece>> pieces;
    Box face;
    Mat bed;
    MakingPlan making;
    std::vector<CutLoad> cut;
    friend bool operator==(const LoadsReads&, const LoadsReads&) = default;
};

struct SharingReads {
    std::vector<Sharer> sharers;
    std::vector<FilmStock> drawer;
    friend bool operator==(const SharingReads&, const SharingReads&) = default;
};

struct FilmReads {
    std::vector<FilmUser> users;
    std::vector<FilmStock> drawer;
    friend bool operator==(const FilmReads&, const FilmReads&) = default;
};

struct ReadingReads {
    Lettering lettering;
    Shared<LetteringPlan> placed;
    Seen seen;
    double contrast = 0;
    friend bool operator==(const ReadingReads&, const ReadingReads&) = default;
};

struct TasksReads {
    std::vector<FaceWork> faces;
    std::vector<Mishap> mishaps{};
    HandsOn hands_on{};
    friend bool operator==(const TasksReads&, const TasksReads&) = default;
};

struct SawReads {
    std::vector<Wanted> wanted;
    std::vector<Length> lengths;
    Length kerf;
    friend bool operator==(const SawReads&, const SawReads&) = default;
};

/// The table, in the order of work. docs/architecture.md shows it.
struct StageTable {
    Stage<FaceId, BlankReads, BlankPlan> blank{"blank"};
    Stage<FaceId, LetteringReads, LetteringPlan> lettering{"lettering"};
    Stage<FaceId, ArtReads, ArtPlan> art{"art"};
    Stage<ColourId, InkReads, std::vector<Piece>> ink{"ink"};
    Stage<ColourId, PrintReads, std::vector<Piece>> printed{"printed"};
    Stage<ColourId, ThinReads, ThinPlan> thin{"thin"};
    Stage<ColourId, LoadsReads, LoadsPlan> loads{"loads"};
    Stage<ColourId, LoadsReads, AsFound> as_found{"as found"};
    Stage<WholeJob, SharingReads, SharedLoads> sharing{"sharing"};
    Stage<WholeJob, FilmReads, FilmPlan> film{"film"};
    Stage<ColourId, MethodInput, BuildUp> method{"method"};
    Stage<ColourId, LayingInput, LayingPlan> laying{"laying"};
    Stage<FaceId, ReadingReads, Legibility> reading{"reading"};
    Stage<SawnFrom, SawReads, CuttingPlan> saw{"saw"};
    Stage<WholeJob, TasksReads, std::vector<Task>> tasks{"tasks"};
    Stage<WholeJob, ClockInput, Schedule> clock{"clock"};
    Stage<WholeJob, BenchInput, BenchPlan> bench{"bench"};

    void forget() {
        const auto all = [](auto&... stage) { (stage.forget(), ...); };
        all(blank, lettering, art, ink, printed, thin, loads, as_found, sharing, film, method, laying, reading, saw,
            tasks, clock, bench);
    }
};

}  // namespace skarvel
