// sections/sections.h
//
// Sections: how the ink of one colour is divided so that each part, with the film around it, fits one load.
//
// A section is a set of pieces with the outline of its film. Pieces are put in order along an axis; between two
// neighbours a seam may run straight where a straight line lies in free film, else stepped around the outlines. Chains
// of sections along one axis are found by a shortest path over candidate seams (exact for that axis, the best few
// kept); a part that still fits no way is divided along the other axis. Only ink larger than the room is
// crossed, by straight cuts where they show least; what stands within a border, a ring or a heart is parted by the same
// cuts in its gaps, or divided for itself and laid into it.
//
// What the maker wishes (making/making.h) goes before what is found: pieces bound together are one piece; a seam that
// is wanted divides the face before any search, ink and all; one that is not wanted is no candidate; a piece set apart
// gets a section of its own, with its whole margin. What cannot be had is told, and left out.
//
// Divisions come ranked by (letters crossed that would fit whole, seams that cross ink, ink crossed, words parted,
// sections, stepped seams, film, seams off a line that a maker can measure to). Which one is used is decided in loads/,
// where sections are packed.
#pragma once

#include <optional>
#include <vector>

#include "artwork/ink.h"
#include "making/making.h"
#include "text/reason.h"

namespace skarvel {

struct Seam {
    Axis axis = Axis::Y;            ///< the seam lies where this coordinate equals `where`
    std::int64_t where = 0;         ///< face frame, grid units
    std::int64_t from = 0, to = 0;  ///< its ends on the other axis
    bool stepped = false;           ///< runs around outlines; `where` is its middle
    Length lap;                     ///< by how much the films overlap; zero for a butt
    Length crossed;                 ///< ink that it cuts, zero when it lies in free film
    Reason why;
    friend bool operator==(const Seam&, const Seam&) = default;
};

/// A loose middle of a mask, by the letter that it belongs to.
struct Keeper {
    std::string letters;
    Region shape;
    friend bool operator==(const Keeper&, const Keeper&) = default;
};

/// A straight line of the knife that cuts nothing out (sections/lines.h).
struct KnifeLine {
    enum class Kind { Weeding, Match };
    friend constexpr auto words_of(Kind) { return std::array{"weeding", "match"}; }
    Kind kind = Kind::Weeding;
    Point from, to;  ///< face frame
    friend bool operator==(const KnifeLine&, const KnifeLine&) = default;
};

struct Section {
    std::string letters;          ///< all its pieces, in order: what steps and sheets call it
    std::vector<Piece> pieces;    ///< the ink that it carries, face frame; laps are not in it
    Region film;                  ///< outline of its film
    Region cut;                   ///< what the knife takes out of the film: for a mask with the opening in the laps
    std::vector<Keeper> keepers;  ///< masks only: the loose ones
    int letter_count = 0;
    std::vector<Region> ties{};  ///< film across ink, holding keepers (sections/ties.h)
    std::vector<KnifeLine> lines{};
    int pass = 1;                 ///< masks: those of one pass are laid, painted and lifted together
    std::vector<Motion> again{};  ///< from where it is laid first to where it is laid again, each in a later pass
    friend bool operator==(const Section&, const Section&) = default;
};

/// A section where it is laid, the first time or again.
struct Lay {
    std::size_t section = 0, time = 0;  ///< `time` 0: the first
    Motion move;
    int pass = 1;
    friend bool operator==(const Lay&, const Lay&) = default;
};
/// Every lay of all sections, by pass, then in their order.
std::vector<Lay> lays_of(const std::vector<Section>& sections);

/// What becomes one section: which pieces, and the rectangle of its film.
struct Part {
    std::vector<std::size_t> pieces;  ///< places in the list of pieces
    Box film;
    std::optional<Box> cell;     ///< set where a piece is itself divided: only its ink in here belongs to the part
    std::vector<Box> without{};  ///< films of neighbours that this one reaches around
    /// Pieces within this one's film, or around it, that other parts hold: film is cut back around their outlines.
    std::vector<std::size_t> around{};
    friend bool operator==(const Part&, const Part&) = default;
};

struct Division {
    std::vector<Part> parts;  ///< in laying order: from the top down, then left to right
    std::vector<Seam> seams;
    int off_lines = 0;  ///< how far seams lie off lines that a maker can measure to, added up
    int in_words = 0;   ///< words that seams part
    int letters = 0;    ///< crossed by a seam though a load holds them whole
    int groups = 0;     ///< of ink that lies close together, counted in every part: film between them would be wasted
    int crossings = 0;
    Length crossed;
    bool spans_face = false;  ///< masks run to the board's edges and are placed by them
    double bare_mm2 = 0;      ///< within the margin, where no film of this room reaches
    friend bool operator==(const Division&, const Division&) = default;
};

/// What one load can hold, either way round unless its film has a direction.
struct Room {
    Length across, along;
    bool turns = true;    ///< sections may be turned by a quarter
    bool slants = false;  ///< and by any angle where they fit in no other way
    Length inset{};       ///< how far in from the corner of the bed's usable area it begins
    /// A pattern that is to run on from one section to the next repeats after so much; zero: it need not.
    Length repeat_across{}, repeat_along{};
    friend bool operator==(const Room&, const Room&) = default;
};

/// The angle, in thousandths of a degree, at which a rectangle lies in a room that it is too long for; nothing where it
/// does at none, or where the room takes nothing at a slant. (When there is one: Carver, Packing a rectangle in a
/// rectangle, 1957; found here by trying.)
std::optional<int> slant_for(std::int64_t width, std::int64_t height, const Room& room);

struct Divisions {
    std::vector<Division> choices;  ///< best first by the order above
    std::vector<Division> finer;    ///< into more sections, in case these come to fewer loads; fewest sections first
    std::vector<Problem> problems;
    double least_film_mm2 = 0;  ///< no division can do with less film: a lower bound for the loads
    friend bool operator==(const Divisions&, const Divisions&) = default;
};

/// Film keeps this far off a neighbour's ink.
constexpr Length off_neighbour = 0.0625_in;

/// `available`: where film may lie, usually the whole face. Empty `pieces` give one division without sections. A piece
/// that may not be divided small enough is named in `problems` and left out.
Divisions divide(const std::vector<Piece>& pieces, const Box& face, const Box& available, const Room& room,
                 const MakingPlan& making);

/// Names for pieces, in their order.
std::vector<PieceName> names_of(const std::vector<Piece>& pieces);

/// The free gap around a seam, between the ink on either side of it; half an inch to both sides where it crosses ink.
std::pair<std::int64_t, std::int64_t> gap_around(const Seam& seam, const std::vector<Piece>& pieces);

/// The sections of one division with their exact film and ink, in the order of its parts. At a stepped seam a part may
/// come to more than one.
std::vector<Section> sections_of(const Division& division, const std::vector<Piece>& pieces, const MakingPlan& making);

}  // namespace skarvel
