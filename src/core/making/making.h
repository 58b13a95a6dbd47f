// making/making.h
//
// Making: how one colour gets on the blank. A decal is the film itself; paint-through masks the blank with film and
// paints. Decided before Sections, with defaults from the shop and the tables of films and tools; Method judges it
// later and never changes it without a command.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "geometry/region.h"
#include "measure/reading.h"

namespace skarvel {

enum class Way { Decal, PaintThrough };
constexpr auto words_of(Way) { return std::array{"decal", "paint-through"}; }

/// Where laying begins, and so how sections are numbered: where makers differ.
enum class LayFrom { Top, Base, Centre, Outer };
constexpr auto words_of(LayFrom) { return std::array{"top", "base", "centre", "outer"}; }

/// A film as the trade data describes it. `known` is false for one that only the job names: it is kept and used.
struct Film {
    std::string id, name;
    std::string kind;  ///< class of film: permanent, removable, stencil, metallic, printable, patterned, reusable
    bool known = true;
    friend bool operator==(const Film&, const Film&) = default;
};

/// What paints through a mask, and how much film it wants around the ink.
struct Tool {
    std::string id, name;
    Length margin;
    bool known = true;
    friend bool operator==(const Tool&, const Tool&) = default;
};

/// A piece of ink as the maker points at it: by its letters and where the first of them stands among the letters of the
/// face; `nth` tells pieces apart that share both, as parts of a drawing do.
struct PieceName {
    std::string letters;
    int first = 0, nth = 0;
    friend auto operator<=>(const PieceName&, const PieceName&) = default;
};

/// A seam that the maker wants in one place, or nowhere near it.
struct SeamWish {
    bool never = false;
    Axis axis = Axis::Y;
    Measure at;       ///< from the left or the bottom edge of the face
    Length around;    ///< never: no seam this close to it on either side
    Length from, to;  ///< its ends along the other axis; both zero: from edge to edge
    friend bool operator==(const SeamWish&, const SeamWish&) = default;
};

/// What the maker decides about how ink is divided; everything else is found.
struct Wishes {
    std::vector<std::vector<PieceName>> bound;  ///< each list is cut as one piece
    std::vector<PieceName> apart;               ///< each in a section of its own
    std::vector<SeamWish> seams;
    bool whole_margins = false;  ///< every mask keeps its whole margin, over its neighbours' ink where it must
    bool any_angle = false;      ///< a section too long for the bed may lie on it at a slant
    bool part_words = false;     ///< rather a parted word than another load or more film
    int copies = 0;              ///< of what repeats: so many are cut, and laid again; 0: as many as are drawn
    bool laid_soonest = true;    ///< rather more film than one so long that it takes a hinge
    bool masks_again = false;    ///< masks that a sign before this one has as well are not cut but laid again here
    [[nodiscard]] bool any() const {
        return !bound.empty() || !apart.empty() || !seams.empty() || whole_margins || any_angle || part_words ||
               copies > 0 || !laid_soonest || masks_again;
    }
    friend bool operator==(const Wishes&, const Wishes&) = default;
};

struct Making {
    Way way = Way::PaintThrough;
    std::string film = "removable-matt";
    std::string tool = "sponge";
    std::optional<Measure> margin;  ///< mask margin, where the maker overrules the tool's
    Measure lap;                    ///< by how much sections overlap where they meet
    std::optional<Measure> tie;     ///< keepers are held by ties this wide; zero for none; otherwise as the film asks
    std::string bed{};              ///< the machine's mat or roll that loads are cut on; empty: the shop's usual one
    Wishes wishes{};
    LayFrom lay_from = LayFrom::Top;
    bool mask_by_mask = false;  ///< the last coat is put on and the mask lifted, section by section
    friend bool operator==(const Making&, const Making&) = default;
};

/// What one section takes to tape, lay and lift, in minutes.
struct LayingTakes {
    double plain = 0, hinged = 0;
    Length hinged_from{};  ///< longest side of its film
    [[nodiscard]] double minutes(Length longest) const { return longest >= hinged_from ? hinged : plain; }
    friend bool operator==(const LayingTakes&, const LayingTakes&) = default;
};

/// The making with its materials looked up and its lengths resolved: what Sections reads.
struct MakingPlan {
    Way way = Way::PaintThrough;
    Film film;
    Tool tool;
    Length margin;  ///< mask margin; for a decal the film left around the ink to weed from
    Length lap;
    Length gap = 0.25_in;     ///< between sections on a mat; as the trade data have it
    Length tie{};             ///< width of the ties that hold keepers; zero where they are loose
    bool edges_place = true;  ///< a mask as wide as the blank can be placed by its edges
    LayingTakes laying{};
    Wishes wishes{};
    LayFrom lay_from = LayFrom::Top;
    friend bool operator==(const MakingPlan&, const MakingPlan&) = default;
};

/// Whether a colour is printed on its film before it is cut.
bool is_printed(const MakingPlan& making);

MakingPlan resolve(const Making& making, const std::vector<Film>& films, const std::vector<Tool>& tools);

}  // namespace skarvel
