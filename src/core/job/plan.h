// job/plan.h
//
// Plan: everything that follows from a job, station by station. `plan(job, shop, library, moment)` is pure: the same
// input gives the same output on any machine.
//
// A Planner keeps the last input and result of each stage. Each stage is given exactly what it reads, so a new paint
// leaves Sections alone and a new moment re-runs Clock and Bench only. It gives the same plan as `plan`, whatever edits
// came before; a stop token ends a run early, which then leaves no trace.
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
#include "loads/sharing.h"

namespace skarvel {

/// What to saw from the lengths of one stock, over all signs.
struct SawPlan {
    std::string stock;
    std::vector<Cut> cuts;        ///< rows of the cut lists, in the order of `CuttingPlan`'s pieces
    std::vector<std::string> of;  ///< the sign that each row is for
    CuttingPlan cutting;
    friend bool operator==(const SawPlan&, const SawPlan&) = default;
};

/// One colour of one face. A face with several colours has one of these for each, in the order of laying; what belongs
/// to the face (its blank, its lettering) is the same in all of them.
struct FacePlan {
    std::size_t sign = 0, face = 0, colour = 0;  ///< places in the job
    bool first = true, last = true;              ///< of its face
    std::shared_ptr<const BlankPlan> blank;
    Marking marking;
    std::shared_ptr<const LetteringPlan> lettering;
    std::shared_ptr<const ArtPlan> art;
    std::shared_ptr<const std::vector<Piece>> ink;     ///< as it is seen, in this colour
    std::shared_ptr<const std::vector<Piece>> pieces;  ///< as they are cut and laid
    /// Several colours printed on one film are cut and laid as one: with the first of them, this one, by its place
    /// among the face's colours. The first has their pieces, and the others none.
    std::optional<std::size_t> printed_with;
    std::shared_ptr<const ThinPlan> thin;       ///< of this colour's pieces
    std::shared_ptr<const Legibility> reading;  ///< of the face
    bool mirrored = false;                      ///< lettered on the back of a clear blank: pieces are mirror writing
    MakingPlan making;
    Mat bed;                                 ///< that its loads are cut on
    std::shared_ptr<const LoadsPlan> loads;  ///< shared with other colours where that saves (loads/sharing.h)
    std::shared_ptr<const BuildUp> method;
    std::vector<ShoppingItem> shopping;
};

struct Plan {
    std::vector<FacePlan> faces;  ///< every face of every sign, in order
    std::vector<SawPlan> saw;
    std::optional<PostPlan> post;
    int loads_saved = 0;         ///< by cutting colours and signs together
    std::vector<FilmCost> film;  ///< that is still to be cut, over all signs
    std::vector<Task> tasks;
    std::shared_ptr<const Schedule> clock;
    std::shared_ptr<const BenchPlan> bench;
    bool proof_signed = false;      ///< for the words as they are
    std::vector<Problem> problems;  ///< of all stations, in their order

    /// Its first colour; nullptr where that face was not planned.
    [[nodiscard]] const FacePlan* of(std::size_t sign, std::size_t face) const;
    /// That colour of it, or its first one where nothing is in that colour.
    [[nodiscard]] const FacePlan* of(std::size_t sign, std::size_t face, std::size_t colour) const;
    /// The colour of a face that a step is about, by the step's name; else the first one of its face.
    [[nodiscard]] const FacePlan* of_step(const Job& job, const std::string& step) const;
    [[nodiscard]] Mark mark_of(const std::string& station) const;
    friend bool operator==(const Plan& a, const Plan& b);
};

class Planner {
  public:
    Planner();
    ~Planner();
    Planner(Planner&&) noexcept;
    Planner& operator=(Planner&&) noexcept;

    /// Nothing when `stop` was requested before the end. `on_stage` is called with what is known so
    /// far: after each face up to its own loads, then as schedule and bench are ready.
    std::optional<Plan> plan(const Job& job, const Shop& shop, const Library& library, Moment moment,
                             const std::stop_token& stop = {}, const std::function<void(const Plan&)>& on_stage = {});

    /// How many stages the last run had to work out anew.
    [[nodiscard]] int stages_run() const;

  private:
    struct Memory;
    struct ColourMemory;
    struct LaidBefore;
    void draw_colour(const Job& job, const Library& library, ColourMemory& memory, FacePlan& fp,
                     const std::stop_token& stop);
    void print_together(std::vector<ColourMemory>& memory, std::vector<FacePlan>& lanes, const std::stop_token& stop);
    bool cut_colour(const Job& job, const Library& library, ColourMemory& memory, FacePlan& fp,
                    const std::stop_token& stop);
    void make_colour(const Job& job, const Library& library, ColourMemory& memory, FacePlan& fp, LaidBefore& before,
                     const std::stop_token& stop, Plan& out);
    std::unique_ptr<Memory> memory_;
};

Plan plan(const Job& job, const Shop& shop, const Library& library, Moment moment);

}  // namespace skarvel
