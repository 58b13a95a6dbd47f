// files/print_page.h
//
// Print, then cut: a load of printable film as a page for the printer, with registration marks that the cutter looks
// for before it follows the cut path beside it. The marks are corners outside the ink, the margin of the page from its
// edges, so that the rollers hold unprinted film all round; the path's zero is the inner corner of the lower left one.
//
// Ink is printed a little past where it is cut, so that no white rim shows where the cut is off by a hair.
#pragma once

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
std::vector<Printed> printed_on(const Plan& plan, const ColourPlan& carrier, const OnMat& section);

constexpr Length print_bleed = 0.03125_in;  // from memory

/// Refused where the load is cut on a bed that is no printed page, or where the marks would leave the page.
Expected<PrintPage> print_page(const Job& job, const Plan& plan, const LoadToCut& load);
/// The pages of every load that is printed and not yet cut, and why others cannot be.
std::vector<PrintPage> print_pages(const Job& job, const Plan& plan, const Shop& shop, std::vector<Problem>* refused);

}  // namespace skarvel
