// lettering/compose.h
//
// Compose: a saying broken into lines that fill a room, with the stressed words largest.
//
// Lines are made as wide as the room; a line without stressed words that would be larger than the smallest stressed
// line is held to a share of it; then all shrink together where they are too tall. What is left is judged: the room
// filled, how much plain lines differ in size, how the stressed ones stand out, where the breaks fall, and, far above
// all that, lines that are less than half as large as their fellows or too small to weed. A line that is a lone word of
// three letters or fewer is not allowed unless the word is stressed.
//
// Every way to break the saying into lines that keep those bounds is looked at, which is exact up to `most_words`:
// which stressed line is the smallest is settled first, so that a line too large or too small for the ones before it
// ends its branch. Where no way keeps the bounds, every way up to a counted number is looked at, and what is small says
// so. A longer saying is first joined into as many groups of neighbouring words.
//
// The proposals are the best of each number of lines, best first; each says why it stands there, and each has been set
// in the room: what would not fit when it is taken is none.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "lettering/lettering.h"
#include "values/searches.h"

namespace skarvel {

struct ComposeWish {
    std::string saying;               ///< words parted by spaces or line ends
    std::vector<std::size_t> stress;  ///< places of stressed words, counted from 0
    TypefaceName plain, stressed;
    Measure line_gap;
    bool to_shape = false;  ///< lines as wide as the shape is where they stand
    Text like{};            ///< whose outline, rim and colour the lines take over
    friend bool operator==(const ComposeWish&, const ComposeWish&) = default;
};

struct ComposedLine {
    std::string words;
    bool stressed = false;
    bool snug = true;
    bool held = false;   ///< kept smaller, so that the stressed words stay the largest
    bool small = false;  ///< less than half of its fellows, or too small to weed
    Length cap_height, width;
    friend bool operator==(const ComposedLine&, const ComposedLine&) = default;
};

struct Proposal {
    std::vector<ComposedLine> lines;
    double fill_across = 0, fill_up = 0;  ///< of the room, 0 to 1
    double score = 0;                     ///< smaller is better
    std::vector<Reason> why;
    friend bool operator==(const Proposal&, const Proposal&) = default;
};

struct Proposals {
    std::vector<Proposal> best;  ///< best first; fewer than three only where there are fewer ways
    std::vector<Problem> problems;
    long tried = 0;
    bool all_tried = true;  ///< false where a saying has more ways than are looked at
    friend bool operator==(const Proposals&, const Proposals&) = default;
};

constexpr std::size_t most_words = searches::words_composed.most;
constexpr Length least_cap = 0.375_in;  ///< of a line that can still be weeded without trouble: common practice
constexpr double held_share = 0.8;      ///< of the smallest stressed line that a plain one may reach

std::vector<std::string> words_of(const std::string& saying);

Proposals compose(const ComposeWish& wish, const LetteringRoom& room, const std::vector<Typeface>& typefaces,
                  std::size_t how_many = 4);

/// The score of one way to break, for checks: `ends[i]` tells whether a line ends after word i. Empty where it is not
/// allowed.
std::optional<Proposal> compose_as(const ComposeWish& wish, const std::vector<bool>& ends, const LetteringRoom& room,
                                   const std::vector<Typeface>& typefaces);

/// The texts that a proposal comes to: one for each line, the first with the id of the wish's `like`.
std::vector<Text> texts_of(const Proposal& proposal, const ComposeWish& wish);

}  // namespace skarvel
