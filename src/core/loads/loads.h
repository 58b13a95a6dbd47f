// loads/loads.h
//
// Loads: which division is used, and how its sections lie on the mats that go into the cutter.
//
// Each division worth trying is packed: sections are rectangles that may be turned by a quarter, kept a gap apart,
// placed lowest first at the corners of what already lies there. Up to seven sections every order is tried, beyond that
// a number of sorted orders, all within a bound of counted steps; up to ten sections that one mat could hold by their
// area are searched in full. The division that wins has (fewest letters crossed
// that fit whole, fewest seams that cross ink, least ink crossed, fewest words parted, fewest loads, least margin left
// bare, fewest sections, fewest stepped seams, least film, fewest minutes of laying, seams on measurable lines; or
// minutes before film, where the maker asks for that). `proved` is said only where the number of loads meets a lower
// bound that holds for every division.
//
// What is already cut stays: those sections are not packed again.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "sections/sections.h"
#include "values/id.h"

namespace skarvel {

/// How well a mat still holds film; what is chosen for a film follows from both.
enum class Tack { Fresh, Good, Worn };
constexpr auto words_of(Tack) { return std::array{"fresh", "good", "worn"}; }
/// How strongly a mat holds film.
enum class Grip { Light, Standard, Strong };
constexpr auto words_of(Grip) { return std::array{"light", "standard", "strong"}; }

/// Print, then cut: a page of film, printed with registration marks around, that the cutter then finds.
struct PrintArea {
    Room page;               ///< the widest and longest page of the printer
    Length margin = 0.5_in;  ///< from the edges to the marks: the cutter's rollers grip it
    Length mark = 0.375_in;  ///< kept free inside of that, and how long the arms of a mark are
    friend bool operator==(const PrintArea&, const PrintArea&) = default;
};
struct Mat;
/// Where sections may lie on a bed: its usable area, less what the knife's swing needs at the edges.
Room room_on(const Mat& bed);
/// What lies between the marks.
Room between_marks(const PrintArea& area);

/// What one load lies on: a mat, or a length of roll, which carries itself.
struct Mat {
    std::string name;  ///< "12 x 24"
    Length width, length;
    Room usable;
    bool roll = false;
    int count = 1;  ///< of the same kind in the shop
    bool taped = false;
    Grip grip = Grip::Standard;
    Tack tack = Tack::Good;
    std::string machine{};             ///< the machine that takes it
    std::optional<PrintArea> print{};  ///< a page that is printed before it is cut
    Length swing{};  ///< how far the pivot of its machine's knife swings out about corners: kept free at every edge
    friend bool operator==(const Mat&, const Mat&) = default;
};

/// A section on the mat: its film turned by a quarter or not, its lower left corner at `at` of the usable area.
struct Placement {
    std::size_t section = 0;  ///< place in LoadsPlan::sections
    bool turned = false;
    Point at;
    int slant = 0;  ///< turned by so many thousandths of a degree, by itself on its load
    friend bool operator==(const Placement&, const Placement&) = default;
};

/// A load that has been cut, kept in the job as it was.
struct CutLoad {
    std::string film;
    std::string mat;
    std::vector<Section> sections;
    std::vector<Placement> placements;  ///< `section` counts in `sections` of this load
    Length film_length;
    bool keep = false;  ///< the maker has said that it is used although the design has changed
    Moment at;
    CutId id{};                            ///< its name in the steps of its colour
    ColourId of = first_colour;            ///< what it was cut for
    StepId carried_by{};                   ///< the step that cut it, where that was another colour's
    std::string colour{};                  ///< of a decal's film
    std::string from{};                    ///< the leftover that it was cut from
    std::vector<std::string> also_from{};  ///< and others that lay beside it
    std::optional<Room> rest{};            ///< what it left of its film
    bool booked = false;                   ///< in the shop's drawer
    friend bool operator==(const CutLoad&, const CutLoad&) = default;
};

/// A leftover of the drawer that lies on the bed, in the frame of its usable area.
struct ScrapOnBed {
    std::string name;
    Box at;
    friend bool operator==(const ScrapOnBed&, const ScrapOnBed&) = default;
};

/// A section of another colour or sign that lies on the same load.
struct Guest {
    ColourId of;
    Section section;
    Placement placement;  ///< `section` counts in the plan of `of`
    friend bool operator==(const Guest&, const Guest&) = default;
};

struct Load {
    std::string name;  ///< the letters of its sections
    std::string key;   ///< what its steps are named after: its name, or once it is cut the name it was cut under
    std::vector<Placement> placements;
    Length film_length;  ///< to cut from the roll
    double share = 0;    ///< of that film covered by sections
    bool cut = false;
    std::vector<Guest> guests{};       ///< what else is cut in the same go
    StepId carried_by{};               ///< the step that cuts it, where another colour's load carries these sections
    std::optional<Room> rest{};        ///< what it leaves of its film, worth keeping
    std::string from{};                ///< the leftover that does for it, by its name; empty: from the roll
    std::vector<ScrapOnBed> scraps{};  ///< where several do for it together, `from` the first of them
    Length skip{};                     ///< of its film, let pass so that the pattern runs on from the load before
    friend bool operator==(const Load&, const Load&) = default;
};

/// The leftovers that a load is cut from, or was, by their names.
std::string leftovers_of(const Load& load);
std::string leftovers_of(const CutLoad& load);

/// A section that was cut and no longer agrees with the design.
struct Misfit {
    std::size_t cut_load = 0;
    std::string letters;
    bool kept = false;
    friend bool operator==(const Misfit&, const Misfit&) = default;
};

/// A mask of another sign, laid again where one of its own would be cut.
struct Lent {
    std::size_t section = 0;  ///< place in LoadsPlan::sections
    ColourId of;              ///< whose mask it is
    std::size_t mask = 0;     ///< its section in the plan of `of`
    StepId lifted;            ///< the step after which it is free to be laid here
    friend bool operator==(const Lent&, const Lent&) = default;
};

/// What a division comes to, for comparing.
struct AsFound {
    std::size_t sections = 0, loads = 0;
    int crossings = 0, passes = 1;
    Length film, crossed;
    friend bool operator==(const AsFound&, const AsFound&) = default;
};

struct LoadsPlan {
    std::vector<Section> sections;  ///< in laying order, the cut ones among them
    std::vector<Seam> seams;
    std::vector<Load> loads;
    std::vector<Misfit> misfits;
    bool spans_face = false;
    int crossings = 0;
    int keepers = 0;
    Length film_total;
    double share = 0;
    int least_loads = 0;        ///< no division can do with fewer
    double least_film_mm2 = 0;  ///< nor with less film, for what is not cut yet
    bool proved = false;
    int words_parted = 0;    ///< by seams, of what is not cut yet
    int repeats = 0;         ///< masks: so often a part of the ink comes again (loads/repeats.h)
    int had_before = 0;      ///< sections whose masks a sign before this one has as well
    std::vector<Lent> lent;  ///< those of them that lie on no load (loads/sharing.h)
    int passes = 1;          ///< of laying, painting and lifting
    std::vector<Reason> why;
    std::vector<Problem> problems;
    friend bool operator==(const LoadsPlan&, const LoadsPlan&) = default;
};

struct Packed {
    std::vector<std::vector<Placement>> loads;
    std::vector<std::size_t> left_over;  ///< sections larger than the mat
    friend bool operator==(const Packed&, const Packed&) = default;
};

/// How long a packing is searched for: by the quick rules alone; in every order, where there are few; until few loads
/// are as short as they can be.
enum class Effort { Quick, Usual, Thorough };

/// Packs boxes on as few mats as the search finds, then with least film length. Up to ten on one mat are packed
/// exactly, within a bound of steps that grows with the effort.
///
/// Where the room has a pattern that runs on, boxes lie on it as they do on the face, as far as that can be: shifted
/// across by the same for all loads, and along by the same for all of one load.
Packed pack(const std::vector<Box>& boxes, const Room& room, Length gap, Effort effort = Effort::Thorough);

/// No packing needs fewer mats than this: as many of the boxes as no two of which fit one mat together. Boxes that
/// overlap are not told apart.
int least_mats(const std::vector<Box>& boxes, const Room& room);

/// Whether boxes go on so many mats, as far as a few sorted orders show; in full where one mat may do.
bool fits_on(const std::vector<Box>& boxes, const Room& room, Length gap, std::size_t mats);

/// Where a film of that size lies on the mat, turned by a quarter or not.
Box box_on_mat(const Box& film, const Placement& placement);

/// Film to cut for a load whose placements count in `films`: off the roll, or a page that is printed.
Length film_for(const std::vector<Placement>& placements, const std::vector<Box>& films, const Mat& bed);
/// Film let pass before each load, so that a pattern runs on from the one before; none for the first, or without a
/// pattern.
std::vector<Length> skips_for(const Packed& packed, const std::vector<Box>& films, const Mat& bed);
/// How long a page is that is printed with something so long between its marks: a sheet, or more where it may.
Length page_for(Length used, const PrintArea& area);

/// Film to cut for a load that reaches `used` up the mat: the next whole inch that leaves at least 1/2 in over.
Length film_to_cut(Length used);

/// A section's outline of film and its knife lines as they lie on the mat, lower left corner of the usable area at 0,
/// 0.
struct LaidSection {
    Region film, cut;
    std::vector<KnifeLine> lines;
    friend bool operator==(const LaidSection&, const LaidSection&) = default;
};
LaidSection lay_on_mat(const Section& section, const Placement& placement);

AsFound as_found(const LoadsPlan& plan);

/// How many loads at least hold what these still have to cut: by the area of the film that no division can do without,
/// and by ink of which no two pieces go on one load. Holds for all divisions that cross no more ink.
int least_loads_for(const std::vector<const LoadsPlan*>& plans, const Room& room);
/// That bound, beside the loads that were found.
Reason bound_said(int loads, int least, bool proved);

/// Sections and loads for the pieces of one colour of a face.
LoadsPlan plan_loads(const std::vector<Piece>& pieces, const Box& face, const Mat& mat, const MakingPlan& making,
                     const std::vector<CutLoad>& cut);

}  // namespace skarvel
