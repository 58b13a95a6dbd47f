// lettering/typeface.h
//
// Typefaces: bytes read once and shared; shaped with HarfBuzz (kerning, ligatures and marks as the typeface has them,
// and the alternates that are asked for), outlines from FreeType, unhinted, in the typeface's own units. A line that
// mixes directions is put in order by the Unicode bidirectional algorithm (UAX 9, with FriBidi). Nothing here keeps
// library handles: they are made per call from the shared bytes, so that any thread may shape.
#pragma once

#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "geometry/outline.h"
#include "text/reason.h"

namespace skarvel {

/// How a job names a typeface.
struct TypefaceName {
    std::string family, style;
    std::string checksum;  ///< "crc32:1a2b3c4d" of the file's bytes
    friend bool operator==(const TypefaceName&, const TypefaceName&) = default;
};

struct Typeface {
    TypefaceName name;
    std::shared_ptr<const std::string> bytes;
    double units_per_em = 1000;
    double cap_height = 700;  ///< height of the ink of H, in units
    double x_height = 500;    ///< height of the ink of x
    /// Whether its lower-case letters are drawn to touch. Found out when it is first asked for: it takes longer than
    /// all else that is read. Any thread may ask.
    [[nodiscard]] bool script() const;

    struct Found;
    std::shared_ptr<Found> found;  ///< what copies share of what was found out
    friend bool operator==(const Typeface& a, const Typeface& b) { return a.name == b.name; }
};

/// One letter as it is set: all glyphs of one cluster, drawn from the letter's own origin.
struct ShapedLetter {
    std::string text;
    Outline outline;       ///< units, from (x, 0)
    double x = 0;          ///< where the letter begins on its line, units
    double advance = 0;    ///< units
    bool missing = false;  ///< the typeface has no such letter
    bool blank = false;    ///< a space
};

/// Whether every letter of a typeface is looked at, or has been before it was shipped.
enum class Trust { None, Shipped };

/// Refused: bytes that are no typeface, or one without outlines.
Expected<Typeface> read_typeface(std::shared_ptr<const std::string> bytes, Trust trust = Trust::None);

/// The letters of one line as they stand from the left. `text` is UTF-8; `alternates` are OpenType features, each as
/// "ss01", "salt=2" or "-liga"; what is none, or what the typeface does not have, changes nothing.
std::vector<ShapedLetter> shape(const Typeface& typeface, std::string_view text,
                                const std::vector<std::string>& alternates = {});

/// A way to set letters that a typeface offers beside its usual one.
struct Alternate {
    std::string feature;  ///< as `shape` takes it
    std::string name;     ///< the typeface's own name for it, or empty
    friend bool operator==(const Alternate&, const Alternate&) = default;
};

/// Those that change how `text` is set, in the order of their tags. Ligatures that are usual come as "-liga".
std::vector<Alternate> alternates_of(const Typeface& typeface, std::string_view text);

/// The text cut into what a reader takes for single letters (a base with its marks).
std::vector<std::string> letters_of(std::string_view text);

/// nullptr when `typefaces` has none of that family and style.
const Typeface* find_typeface(const std::vector<Typeface>& typefaces, const TypefaceName& name);

}  // namespace skarvel
