// files/print_page.h
//
// Print, then cut: a load of printable film as a page for the printer, with registration marks that the cutter looks
// for before it follows the cut path beside it. The marks are corners outside the ink, the margin of the page from its
// edges, so that the rollers hold unprinted film all round; the path's zero is the inner corner of the lower left one.
//
// Ink is printed a little past where it is cut, so that no white rim shows where the cut is off by a hair. A kept
// picture is printed itself, at its place and with all the dots that it has, cropped where it is cut and a little past
// that.
#pragma once

#include <array>
#include <memory>
#include <utility>

#include "files/cut_file.h"

namespace skarvel {

struct PrintPage {
    std::string name;  ///< "01-ROPE.print.pdf", beside the load's cut files
    std::string pdf;
    Length width, height;
    Point zero;  ///< of the cut path, from the page's lower left corner
};

/// Ink of one colour on the mat.
struct Printed {
    ColourId colour;
    Region ink;
};
/// What is printed on a section of a colour: its own ink, and that of the colours that are printed with it, in the
/// order of laying.
std::vector<Printed> printed_on(const Job& job, const Plan& plan, const ColourPlan& carrier, const OnMat& section);

/// A kept picture on the mat.
struct PrintedPicture {
    std::shared_ptr<const std::string> bytes;
    std::array<std::pair<double, double>, 3>
        corners;  ///< of its dots: the first, the end of its first row, the last row
    Region cut;   ///< as far as it is cut out of this section
};
std::vector<PrintedPicture> pictures_on(const Job& job, const Plan& plan, const ColourPlan& carrier,
                                        const OnMat& section);

constexpr Length print_bleed = 0.03125_in;  // from memory

/// Refused where a picture cannot be read, where the load is cut on a bed that is no printed page, or where the marks
/// would leave the page.
Expected<PrintPage> print_page(const Job& job, const Plan& plan, const LoadToCut& load);
/// The pages of every load that is printed and not yet cut, and why others cannot be.
std::vector<PrintPage> print_pages(const Job& job, const Plan& plan, const Shop& shop, std::vector<Problem>* refused);

}  // namespace skarvel
