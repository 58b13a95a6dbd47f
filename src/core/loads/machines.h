// loads/machines.h
//
// Machines: the cutters of a shop, what each can hold, how it moves, and what a printer before it can print; and the
// film in the drawer. A bed is what one load lies on: a mat, two short mats taped together, or a length of roll.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "loads/loads.h"
#include "measure/reading.h"

namespace skarvel {

/// How a knife is moved. A knife that trails behind its pivot turns about each corner, and runs past where a path
/// closes.
struct Knife {
    int speed_mm_s = 60;    ///< while it cuts
    int travel_mm_s = 200;  ///< while it is lifted
    int lift_ms = 120;      ///< down and up again, once for each path
    Length offset;          ///< of the edge behind the pivot; zero where the machine's own program sees to it
    Length overcut;         ///< past the place where a closed path ends
    friend bool operator==(const Knife&, const Knife&) = default;
};

struct Machine {
    std::string name;
    std::vector<Mat> beds;
    Knife knife;
    int longest_units = 0;  ///< largest coordinate of its plotter language (1/40 mm); 0: none
    std::string address{};  ///< "127.0.0.1:9100", where it can be sent to
    int force = 0;          ///< grams that the last good test cut asked for; 0: as the machine is set
    std::optional<PrintArea> prints;
    friend bool operator==(const Machine&, const Machine&) = default;
};

/// Film in the drawer, as it was bought or left over.
struct FilmStock {
    std::string film;        ///< as Making names it
    std::string colour;      ///< "#rrggbb", or empty: any, as for masks
    std::string name;        ///< what is written on it
    Length width, left;      ///< of the roll or the piece, and how long it still is
    bool roll = true;        ///< bought by the length; otherwise a sheet or a leftover
    bool patterned = false;  ///< has a direction: sections are not turned on it
    int price_cents = 0;     ///< for `sold_by` of its length; 0: not known
    Length sold_by = 1_in;   ///< what is bought at a time: an inch, a yard, a sheet
    /// Of its pattern, which is then kept running from section to section; zero: nothing to match in that direction.
    Length repeat_across{}, repeat_along{};
    friend bool operator==(const FilmStock&, const FilmStock&) = default;
};

/// A bed as its machine can use it: no farther than it counts, the knife's swing kept free.
Mat as_moved(const Mat& bed, const Machine& machine);

/// All beds of all machines, each with the name of its machine. Two short mats of one machine also count taped
/// together, end to end, after all others, and last what is printed before it is cut.
std::vector<Mat> beds_of(const std::vector<Machine>& machines);

/// What a bed holds of a film that is so wide, and a sheet so long. `seen`: its pattern is, as a decal's; what is
/// painted through may lie on it any way.
Mat narrowed(const Mat& bed, const std::optional<FilmStock>& film, bool seen = true);

/// A cutter of 12 in with a long and two short mats and a roll, a narrow one, and one of 16 in that also cuts round
/// what is printed (sizes: common practice).
std::vector<Machine> usual_machines();

/// The place in the drawer of the smallest leftover or sheet that a load fits on, either way round. `colour` empty:
/// any.
std::optional<std::size_t> leftover_for(const std::vector<FilmStock>& drawer, const std::string& film,
                                        const std::string& colour, Length across, Length along);

/// Where a leftover lies on the bed, for a load that is cut from it: at the end that goes in first, its edge as far
/// outside of what is cut as the film's would be; where several do, each where it lies. Nothing where the drawer has
/// none of that name.
std::vector<Box> leftovers_on_bed(const std::vector<FilmStock>& drawer, const Load& load,
                                  const std::vector<Section>& sections, const Mat& bed);

/// What a load leaves of the film it was cut from: the largest piece beside or beyond its sections that is worth
/// keeping, 2 in wide at least, written down in eighths.
std::optional<Room> rest_of(const Load& load, const std::vector<Section>& sections, const Mat& bed);

}  // namespace skarvel
