// measure/reading.h
//
// Reading and showing measures as makers write them: 60-1/2, 5' 3 1/4", 152,4 cm, (60 - 2*6)/9.
//
// An expression is parsed to a tree, each bare number is told apart as a length (it takes the field's unit) or a plain
// ratio by what the expression as a whole must be, and the value is reckoned as a fraction and rounded once, to the
// nanometre. Refused: what is not a length in the end (areas, bare ratios), and a hyphen that could mean two things.
#pragma once

#include <string>
#include <string_view>
#include <tl/expected.hpp>

#include "measure/length.h"

namespace skarvel {

/// A length as the maker typed it, with the unit written out, and its value.
struct Measure {
    std::string typed;  ///< reads back to `value` in any field: "(60 in - 2*6 in)/9"
    Length value;
    friend bool operator==(const Measure&, const Measure&) = default;
};

/// Why a measure could not be read. `id` names a sentence of the catalogue; `at` is a byte of the text.
struct Misread {
    std::string id;
    std::size_t at = 0;
    friend bool operator==(const Misread&, const Misread&) = default;
};

/// Reads `text` as a length; bare numbers take `field_unit`. Negative results are read; fields refuse them where they
/// make no sense. Texts over 200 bytes and values over 1000 m are refused.
tl::expected<Measure, Misread> read_measure(std::string_view text, Unit field_unit);

/// "5 1/2", "≈ 5 1/16", "139.7": no unit. `≈` stands where the length was rounded to be shown.
std::string show_number(Length length, const Display& display);

/// "5 1/2 in", "139.7 mm".
std::string show(Length length, const Display& display);

/// A measure that was computed, not typed: written in the display's unit when it is exact there, else in the finest
/// that holds it.
Measure measure_of(Length length, const Display& display);

/// "5 1/2 in" with the fraction built from a fraction slash (U+2044), so that the typeface sets it as one.
std::string with_fraction_slash(std::string_view shown);

}  // namespace skarvel
