// values/searches.h
//
// How far each search goes, and why so far: one table. A bound is a count, never a time, so that a plan is the same on
// every machine; what happens beyond it is said where it is used. docs/searches.md lists them; a test compares.
#pragma once

#include <array>
#include <cstdint>
#include <string_view>

namespace skarvel::searches {

struct Limit {
    std::string_view of;  ///< what is counted
    std::int64_t most;
    std::string_view basis;
};

inline constexpr Limit pieces_tried_finely{
    "pieces up to which every sixteenth of an inch of a gap is tried as a seam", 24,
    "judgement: beyond, the coarsest line of each gap is tried, and the time stays in step with the ink"};
inline constexpr Limit interlocked{"outlines that one stepped seam runs around", 12,
                                   "judgement: a seam around more is hard to lay"};
inline constexpr Limit outlines_around_seam{"outlines looked at on either side of a seam, to see how many interlock",
                                            64, "five times what a seam may run around, where letters stand close"};
inline constexpr Limit ways_per_seam{"ways kept for what lies before a seam", 8,
                                     "judgement: kept in the order in which divisions are judged"};
inline constexpr Limit few_ways_per_seam{"the same, where only the best of what lies between two seams are wanted", 4,
                                         "twice what is wanted in the end"};
inline constexpr Limit ways_between_seams{"ways to divide the other way what lies between two seams", 2,
                                          "judgement: kept in the order in which divisions are judged"};
inline constexpr Limit division_steps{"steps of one search for divisions, all chains together", 200'000,
                                      "181 m of ink (docs/performance.md) stay below it; beyond, rows are no longer "
                                      "divided the other way, so that a division is always found where there is one"};
inline constexpr Limit gaps_in_every_set{"gaps up to which every set of them is tried as seams", 10, "1,023 sets"};
inline constexpr Limit sets_of_gaps{
    "sets of gaps tried where there are more", 200,
    "each gap alone first, then two together; what is known to be good is in every set"};
inline constexpr Limit films_crossed_in{"films in which a piece larger than the room is crossed anew", 3,
                                        "beyond, what was found in as much film as there can be is cut back"};
inline constexpr Limit divisions_per_axis{
    "divisions kept that begin with seams on one axis", 48,
    "the fewest sections are not always the fewest loads: decisions/the-search-for-divisions-is-bounded.md"};
inline constexpr Limit cuts_across{"places at which one piece is tried to be cut across", 400,
                                   "a piece of 72 in every 0.18 in: finer than what can be measured to"};
inline constexpr Limit groups_of_pieces{
    "groups of pieces that stand apart and are divided each by itself", 24,
    "judgement: a sign of more is a field of small things, which is divided as a whole"};
inline constexpr Limit sections_refined{"sections up to which every load saved is sought again", 8,
                                        "beyond, the search would cost more than a load that it saves"};
inline constexpr Limit groups_apart{"divisions into groups that are packed beside the others", 8,
                                    "judgement: they are packed like the others, and may not crowd them out"};
inline constexpr Limit choices_per_cell{"divisions of each cell that are put together with those of the others", 6,
                                        "they are in order, and the order is that in which signs are judged"};
inline constexpr Limit places_for_mark{"places tried for the half of a register mark", 96,
                                       "one in every quarter of an inch of a 24 in seam"};
inline constexpr Limit steps_of_knife{
    "looks at pairs of cuts when the way of the knife is made shorter, for one section", 400'000,
    "630 cuts, each compared with each other once"};
inline constexpr Limit colourings_of_passes{"steps of the search for the fewest passes of rounds", 50'000,
                                            "judgement: beyond, the fewest passes found are kept"};
inline constexpr Limit steps_of_repeat{"motions that are tried as the step of a repeat", 40,
                                       "judgement: ranked by how many pieces they carry onto others"};
inline constexpr Limit turns_of_repeat{"middles about which a repeat by turning is tried", 12,
                                       "judgement: ranked in the same way"};
inline constexpr Limit pieces_of_a_kind{"pieces of one shape that propose motions", 150,
                                        "11,175 pairs; a pattern of more shows itself in these"};
inline constexpr Limit scraps_joined{"scraps that serve one load together", 3,
                                     "more are a puzzle and no saving (common practice)"};
inline constexpr Limit sections_of_large_sign{
    "sections beyond which a sign counts as large", 60,
    "judgement: the plan of a large sign may not take longer than that of others"};
inline constexpr Limit divisions_of_large_sign{"divisions of a large sign that are packed at all", 4,
                                               "they come in order"};
inline constexpr Limit divisions_with_care{"divisions that are packed with care, after all were packed by quick rules",
                                           4, "decisions/the-search-for-divisions-is-bounded.md"};
inline constexpr Limit sections_quickly_packed{"sections up to which more divisions are packed with care", 8,
                                               "judgement: where packing costs least, more is looked at"};
inline constexpr Limit more_divisions_with_care{"divisions that are then packed with care", 16,
                                                "judgement: four times as many, where packing costs least"};
inline constexpr Limit sections_in_every_order{"sections that are laid in every order", 7, "5,040 orders"};
inline constexpr Limit packing_steps{
    "layings of one section in all those orders", 60'000,
    "seven sections in every order take 13,699; sizes that repeat and several turns take the rest"};
inline constexpr Limit sections_packed_exactly{"sections on one mat that are packed exactly", 10,
                                               "brute force agrees with it in the tests"};
inline constexpr Limit loads_shortened{"loads that are each made shorter", 6,
                                       "judgement: of many loads, inches of film no longer count"};
inline constexpr Limit exact_steps{"steps of one exact packing where it is worth it", 200'000,
                                   "judgement: what takes longer is a mat nearly full in any order"};
inline constexpr Limit shorten_steps{"steps of one exact packing when film is saved", 2'000,
                                     "judgement: inches of film are not worth a wait"};
inline constexpr Limit quick_exact_steps{"steps of one exact packing when divisions are compared", 1'000,
                                         "asked for each of up to 96 divisions"};
inline constexpr Limit shifts_of_pattern{"shifts of a pattern tried for all sections of a load", 64,
                                         "one for each section that may begin at the edge"};
inline constexpr Limit days_ahead{"days ahead in which work is placed", 800, "two years and a season"};
inline constexpr Limit days_off_ahead{"days off that are taken note of", 40'000, "a century"};
inline constexpr Limit delays_of_window{"moves of a task by which a window in which it must follow is kept", 200,
                                        "judgement: each move passes what stands in the way"};
inline constexpr Limit blocks_searched{"blocks of work that are searched through", 400,
                                       "judgement: beyond, they are placed in their order"};
inline constexpr Limit blocks_in_every_order{"blocks up to which all orders can be seen", 24,
                                             "judgement: of so many, all orders that differ can be seen"};
inline constexpr Limit looks_at_few{"looks at blocks where they are few", 400'000,
                                    "judgement: decisions/the-best-plan-and-its-bound.md"};
inline constexpr Limit looks_at_many{"looks at blocks where they are many", 40'000,
                                     "judgement: a plan is bettered while a key is struck"};
inline constexpr Limit looks_for_start{"looks when only the start is asked for", 6'000,
                                       "judgement: it is asked again for every moment that is tried"};
inline constexpr Limit words_composed{"words of a saying whose lines are composed", 24,
                                      "over eight million ways to break them; beyond, their lines are set by hand"};
inline constexpr Limit composing_steps{"lines looked at when a saying is broken", 1'500'000,
                                       "judgement: where it is reached, the proposals say that not all was tried"};
inline constexpr Limit proposals_set{"breaks of a saying that are set in their typefaces to be judged", 40,
                                     "judgement: setting takes the most time of all"};
inline constexpr Limit proposals_enough{"proposals after which small lettering is no longer offered", 3,
                                        "fewer would be no choice"};
inline constexpr Limit heights_of_room{"heights at which the room of an odd shape is measured", 1'500,
                                       "judgement: beyond, heights are left out evenly"};
inline constexpr Limit patterns_of_sawing{"ways to saw one board that are weighed against each other", 20'000,
                                          "judgement: beyond, the longest parts are sawn first"};
inline constexpr Limit boards_sawn{"boards that a sawing plan may name", 10'000,
                                   "more than any yard sells at once; beyond, the longest parts are sawn first"};
inline constexpr Limit sawing_branches{"branches that the solver looks at", 2'000,
                                       "judgement: what it then knows is kept, with how far from the best it can be"};

inline constexpr std::array<const Limit*, 52> all{
    &pieces_tried_finely,
    &interlocked,
    &outlines_around_seam,
    &ways_per_seam,
    &few_ways_per_seam,
    &ways_between_seams,
    &division_steps,
    &gaps_in_every_set,
    &sets_of_gaps,
    &films_crossed_in,
    &divisions_per_axis,
    &cuts_across,
    &groups_of_pieces,
    &sections_refined,
    &groups_apart,
    &choices_per_cell,
    &places_for_mark,
    &steps_of_knife,
    &colourings_of_passes,
    &steps_of_repeat,
    &turns_of_repeat,
    &pieces_of_a_kind,
    &scraps_joined,
    &sections_of_large_sign,
    &divisions_of_large_sign,
    &divisions_with_care,
    &sections_quickly_packed,
    &more_divisions_with_care,
    &sections_in_every_order,
    &packing_steps,
    &sections_packed_exactly,
    &loads_shortened,
    &exact_steps,
    &shorten_steps,
    &quick_exact_steps,
    &shifts_of_pattern,
    &days_ahead,
    &days_off_ahead,
    &delays_of_window,
    &blocks_searched,
    &blocks_in_every_order,
    &looks_at_few,
    &looks_at_many,
    &looks_for_start,
    &words_composed,
    &composing_steps,
    &proposals_set,
    &proposals_enough,
    &heights_of_room,
    &patterns_of_sawing,
    &boards_sawn,
    &sawing_branches,
};

}  // namespace skarvel::searches
