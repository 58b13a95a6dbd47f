// sections/draft.h
//
// Drafts: divisions while they are searched for and compared. A Context says within what: the room of one load, where
// film may lie, where no seam may. For this folder alone.
#pragma once

#include <tuple>
#include <vector>

#include "sections/sections.h"
#include "sections/wishes.h"

namespace skarvel::dividing {

constexpr std::int64_t low(Axis axis, const Box& box) { return along(axis, box.low); }
constexpr std::int64_t high(Axis axis, const Box& box) { return along(axis, box.high); }
constexpr void set_range(Axis axis, Box& box, std::int64_t from, std::int64_t to) {
    (axis == Axis::X ? box.low.x : box.low.y) = from;
    (axis == Axis::X ? box.high.x : box.high.y) = to;
}

struct Context {
    Box face;
    Room room;
    MakingPlan making;
    bool mask = false;
    bool span_x = false, span_y = false;  ///< masks run from edge to edge on this axis
    Box available;                        ///< where film may lie
    std::vector<NoSeam> never;

    [[nodiscard]] bool forbidden(Axis axis, std::int64_t where, const Box& cell) const;
    [[nodiscard]] bool fits(std::int64_t width, std::int64_t height) const;
    /// Films keep their margins beyond their own cells, as the maker may ask of masks.
    /// Words are parted rather than another section cut.
    [[nodiscard]] bool part_words() const { return making.wishes.part_words; }
    [[nodiscard]] bool whole_margins() const { return mask && making.wishes.whole_margins; }
    /// No section is longer than that.
    [[nodiscard]] std::int64_t longest() const;
    /// The film around ink inside its cell, which already holds the laps at its seams.
    [[nodiscard]] Box film_for(const Box& ink, const Box& cell) const;
};

/// What a draft costs; the lower, the better.
struct Score {
    int letters = 0;  ///< crossed by a seam, though they would fit whole
    int crossings = 0;
    std::int64_t crossed = 0;  ///< nanometres of ink
    int in_words = 0;          ///< words that seams part
    int sections = 0;
    int stepped = 0;
    double film = 0;     ///< grid units squared
    int words_last = 0;  ///< words parted, where the maker would rather part them than cut another section
    int off_lines = 0;
    /// A slip inside a word is seen, between words it is not: no section and no film is worth a parted word
    /// (docs/decisions/words-stay-whole.md).
    friend bool operator<(const Score& a, const Score& b) {
        if (a.letters != b.letters) return a.letters < b.letters;
        if (a.crossings != b.crossings) return a.crossings < b.crossings;
        if (a.crossed != b.crossed) return a.crossed < b.crossed;
        if (a.in_words != b.in_words) return a.in_words < b.in_words;
        if (a.sections != b.sections) return a.sections < b.sections;
        if (a.stepped != b.stepped) return a.stepped < b.stepped;
        const auto rolls_a = static_cast<std::int64_t>(a.film / inch_of_roll);
        const auto rolls_b = static_cast<std::int64_t>(b.film / inch_of_roll);
        if (rolls_a != rolls_b) return rolls_a < rolls_b;
        return std::tie(a.words_last, a.film, a.off_lines) < std::tie(b.words_last, b.film, b.off_lines);
    }
    friend Score operator+(Score a, const Score& b) {
        a.letters += b.letters;
        a.crossings += b.crossings;
        a.crossed += b.crossed;
        a.sections += b.sections;
        a.stepped += b.stepped;
        a.in_words += b.in_words;
        a.film += b.film;
        a.words_last += b.words_last;
        a.off_lines += b.off_lines;
        return a;
    }
    static constexpr double inch_of_roll = static_cast<double>(to_grid(1_in)) * static_cast<double>(to_grid(12_in));
};
Score score_of(const Box& film);  ///< of one section

struct Draft {
    Score score;
    std::vector<Part> parts;
    std::vector<Seam> seams;
};

}  // namespace skarvel::dividing
