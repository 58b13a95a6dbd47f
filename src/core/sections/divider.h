// sections/divider.h
//
// The search for divisions. Chains of sections along one axis are a shortest path over the places where a seam may
// run, exact for that axis, the best few kept at each place; a row that still fits no way is divided along the other
// axis; a single piece larger than the room is crossed, and so is what encloses other ink. Bounded by counted steps.
// For this folder alone.
#pragma once

#include <limits>
#include <map>
#include <optional>
#include <utility>
#include <vector>

#include "sections/places.h"
#include "values/searches.h"

namespace skarvel::dividing {

constexpr std::size_t most_along = searches::divisions_per_axis.most;
constexpr std::size_t most_choices = 2 * most_along;

class Divider {
  public:
    Divider(const std::vector<Piece>& pieces, Context context);

    /// The best divisions of these pieces, best first; empty where none was found.
    std::vector<Draft> divide_all(const std::vector<std::size_t>& part, const Box& available);

    /// Every set of gaps along one axis as seams, the fewest first: in case more sections come to fewer loads. Where
    /// there are many gaps, only those of `base` and one or two more.
    std::vector<Draft> every_set(const std::vector<std::size_t>& part, const Box& cell, Axis axis, const Draft& base);

    /// Pieces that no cut makes small enough, as far as it was tried.
    std::vector<std::size_t> hopeless;

  private:
    /// How one state of a chain was reached: from which state of an earlier place, and what lies between.
    struct Step {
        Score score;
        std::size_t from = 0, rank = 0;
        std::size_t middle = as_one_section;  ///< else a place in the list of divided middles
    };
    static constexpr std::size_t as_one_section = std::numeric_limits<std::size_t>::max();

    [[nodiscard]] Box ink_box(const std::vector<std::size_t>& part) const;
    [[nodiscard]] std::vector<std::size_t> in_order(std::vector<std::size_t> part, Axis axis) const;
    [[nodiscard]] std::optional<Draft> as_one(const std::vector<std::size_t>& part, const Box& cell) const;
    [[nodiscard]] std::optional<Draft> divided_at(const std::vector<std::size_t>& set, const std::vector<Place>& gaps,
                                                  const std::vector<std::size_t>& order, const Box& cell,
                                                  Axis axis) const;
    std::vector<Draft> solve(const std::vector<std::size_t>& part, const Box& cell, int depth,
                             std::optional<Axis> not_along);
    std::vector<Draft> chain(const std::vector<std::size_t>& part, const Box& cell, Axis axis, int depth);
    /// What is known of the rows between two gaps, by the pieces that they begin and end before.
    struct Between {
        bool never = false;         ///< no room is narrow enough
        std::vector<Draft> drafts;  ///< in the widest room; empty where the room decides
    };
    using BetweenGaps = std::map<std::pair<std::size_t, std::size_t>, Between>;
    /// One way to divide them, in the room of its own or as known from a wider one.
    struct Middle {
        Score score;
        const Draft* known = nullptr;  ///< to be cut back
        Draft own;
    };
    std::vector<Middle> divided_between(BetweenGaps& known, const std::vector<Place>& seams, std::size_t from,
                                        std::size_t to, const std::vector<std::size_t>& order, const Box& own,
                                        Axis axis, int depth);
    static std::size_t row_before(const std::vector<Place>& seams, std::size_t to);
    [[nodiscard]] bool may_divide(const std::vector<Place>& seams, std::size_t from, std::size_t to, std::size_t row,
                                  int depth) const;
    static bool extend(std::vector<Step>& kept, std::size_t most, const std::vector<Step>& before, Step added);
    static void keep_few(std::vector<Step>& steps);
    [[nodiscard]] Draft followed(const Step& last, const std::vector<std::vector<Step>>& best,
                                 const std::vector<Place>& seams, const std::vector<Draft>& middles,
                                 const std::vector<std::size_t>& order, const Box& cell, Axis axis) const;
    std::optional<Draft> crossed_in(const std::vector<std::size_t>& part, const Box& cell);
    std::vector<Draft> enclosed(const std::vector<std::size_t>& part, const Box& cell, int depth);
    void lay_into(Draft& around_it, Draft& within, const std::vector<std::size_t>& outer,
                  const std::vector<std::size_t>& inner);

    const std::vector<Piece>& pieces_;
    std::vector<Box> boxes_;
    Context context_;
    long steps_ = 0;
    bool cross_small_ = false;  ///< letters that would fit whole are crossed, since nothing else was found
    /// Pieces as they were crossed within a film; nothing where they cannot be.
    struct Crossed {
        Box film;
        std::optional<Draft> draft;
    };
    std::map<std::vector<std::size_t>, std::vector<Crossed>> crossed_;
    std::map<std::size_t, Region> kept_off_;  ///< pieces with what a neighbour's film keeps off them
};

}  // namespace skarvel::dividing
