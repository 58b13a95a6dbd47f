// job/plan.h
//
// Plan: everything that follows from a job, station by station. `plan(job, shop, library, moment)` is pure: the same
// input gives the same output on any machine.
//
// A Planner works through a table of stages (job/stages.h), each given exactly what it reads, so a new paint leaves
// Sections alone and a new moment re-runs Clock and Bench only. A Plan is a view on what came of them, put together at
// the end. It is the same plan as `plan` gives, whatever edits came before; a run that was stopped leaves no trace.
#pragma once

#include <functional>
#include <memory>
#include <optional>
#include <stop_token>
#include <vector>

#include "artwork/thin.h"
#include "blank/cutting.h"
#include "blank/marking.h"
#include "cost/film_cost.h"
#include "cost/shopping.h"
#include "job/job.h"
#include "job/library.h"
#include "job/stages.h"
#include "loads/sharing.h"
#include "method/risk.h"

namespace skarvel {

/// What to saw from the lengths of one stock, over all signs.
struct SawPlan {
    std::string stock;
    std::vector<Cut> cuts;        ///< rows of the cut lists, in the order of `CuttingPlan`'s pieces
    std::vector<std::string> of;  ///< the sign that each row is for
    CuttingPlan cutting;
    friend bool operator==(const SawPlan&, const SawPlan&) = default;
};

/// What is cut from sheet goods or from a panel, which no plan of lengths saws.
struct SheetGood {
    Cut cut;               ///< with a width
    std::string material;  ///< as it is called
    std::string of;        ///< the sign it is for, where there are several
    friend bool operator==(const SheetGood&, const SheetGood&) = default;
};

/// One face, whatever colours it has.
struct FacePlan {
    FaceId id;
    FaceAt at;  ///< in the job that was planned
    Shared<BlankPlan> blank;
    Marking marking;
    Shared<LetteringPlan> lettering;
    Shared<ArtPlan> art;
    Shared<Legibility> reading;
    bool mirrored = false;  ///< lettered on the back of a clear blank: pieces are mirror writing
    friend bool operator==(const FacePlan&, const FacePlan&) = default;
};

/// What is cut of one colour, and how.
struct CutPlan {
    Shared<std::vector<Piece>> pieces;  ///< as they are cut and laid
    /// Several colours printed on one film are cut and laid as one: with the first of them, this one. The first has
    /// their pieces, and the others none.
    std::optional<ColourId> printed_with;
    MakingPlan making;
    Mat bed;  ///< that its loads are cut on
    Shared<ThinPlan> thin;
    Shared<LoadsPlan> loads;  ///< shared with other colours where that saves (loads/sharing.h)
    /// Where the maker wishes something: what its loads alone would be as found.
    std::optional<AsFound> without_wishes;
    std::vector<FilmFrom> film;  ///< by load: the roll it is cut from, or that one has to be bought
    friend bool operator==(const CutPlan&, const CutPlan&) = default;
};

/// One colour of a face.
struct ColourPlan {
    ColourId id;
    std::string name;                ///< of its paint or film, as its maker calls it
    std::size_t colour = 0;          ///< its place in the order of laying
    bool first = true, last = true;  ///< of its face
    Shared<FacePlan> face;
    Shared<std::vector<Piece>> ink;  ///< as it is seen
    CutPlan cut;
    Shared<BuildUp> method;
    Risks risks;
    Shared<LayingPlan> laying;
    std::vector<ShoppingItem> shopping;
    friend bool operator==(const ColourPlan&, const ColourPlan&) = default;
};

struct Plan {
    std::vector<ColourPlan> colours;  ///< of every face of every sign, in order
    std::vector<SawPlan> saw;
    std::vector<SheetGood> sheet_goods;  ///< as soon as more than blanks alone is to be cut
    std::optional<PostPlan> post;
    int loads_saved = 0;         ///< by cutting colours and signs together
    std::vector<FilmCost> film;  ///< that is still to be cut, over all signs
    Shared<std::vector<Task>> tasks;
    ClockInput clock_reads;  ///< what the clock was planned from
    Shared<Schedule> clock;
    Shared<BenchPlan> bench;
    bool proof_signed = false;      ///< for the words as they are
    std::vector<Problem> problems;  ///< of all stations, in their order

    /// nullptr where nothing of that name was planned. A face is asked for by its first colour.
    [[nodiscard]] const ColourPlan* of(const FaceId& face) const;
    [[nodiscard]] const ColourPlan* of(const ColourId& colour) const;
    /// That colour, or the first one of its face where nothing is in it.
    [[nodiscard]] const ColourPlan* of(const FaceId& face, const ColourId& colour) const;
    /// The colour that a step is about; for what is done once for a face, its first one.
    [[nodiscard]] const ColourPlan* of(const StepId& step) const;
    [[nodiscard]] Mark mark_of(Station station) const;
    friend bool operator==(const Plan&, const Plan&) = default;
};

/// The present: when it is, which hours other jobs have taken, and when the clock will be put forward or back.
struct Present {
    Moment now{};
    std::vector<Interval> taken{};
    std::vector<ClockChange> changes{};      ///< of the clock on the wall that are to come
    Present(Moment moment) : now(moment) {}  // NOLINT(google-explicit-constructor): a moment is a present by itself
    Present(Moment moment, std::vector<Interval> hours, std::vector<ClockChange> of_clock = {})
        : now(moment), taken(std::move(hours)), changes(std::move(of_clock)) {}
    friend bool operator==(const Present&, const Present&) = default;
};

class Planner {
  public:
    Planner();
    ~Planner();
    Planner(Planner&&) noexcept;
    Planner& operator=(Planner&&) noexcept;

    /// Nothing when `stop` was requested before the end. `on_face` is told after each face how many of how many are
    /// drawn and divided.
    std::optional<Plan> plan(const Job& job, const Shop& shop, const Library& library, const Present& present,
                             const std::stop_token& stop = {},
                             const std::function<void(std::size_t, std::size_t)>& on_face = {});

    /// For a job that is only tried: what the loads would be without wishes is left out.
    void only_tries() { tries_ = true; }

    /// What the last run had to work out anew.
    [[nodiscard]] const std::vector<WorkedOut>& ran() const { return ran_; }

  private:
    std::unique_ptr<StageTable> table_;
    std::vector<WorkedOut> ran_;
    bool tries_ = false;
};

Plan plan(const Job& job, const Shop& shop, const Library& library, const Present& present);

}  // namespace skarvel
