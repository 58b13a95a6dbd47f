// sheets/sheets.h
//
// Sheets: printed pages as values, in millimetres from the upper left corner of the page, y downwards. What is drawn to
// scale comes from the same regions that are cut. files/pdf.h turns pages into a PDF; the window draws the same pages.
#pragma once

#include <string>
#include <variant>
#include <vector>

#include "job/plan.h"

namespace skarvel {

struct PagePoint {
    double x = 0, y = 0;
    friend bool operator==(const PagePoint&, const PagePoint&) = default;
};

struct PageLine {
    std::vector<PagePoint> points;
    double width = 0.25;
    bool closed = false;
    bool dashed = false;
    double grey = 0.15;
};

struct Fill {
    std::vector<std::vector<PagePoint>> rings;  ///< non-zero winding
    double grey = 0.85;
};

enum class Align { Left, Centre, Right };

struct TextRun {
    PagePoint at;  ///< on the base line
    std::string text;
    double size_mm = 3.5;  ///< of the em
    bool bold = false;
    Align align = Align::Left;
    double grey = 0.1;
};

struct Page {
    std::string title;
    double width_mm = 210, height_mm = 297;
    std::vector<std::variant<Fill, PageLine, TextRun>> marks;
};

enum class Paper { A4, Letter };

/// "turned over, left to right": how a section lies where it is laid again; empty where it lies as it was cut.
Reason turned(const Motion& move);

/// Where a corner of a section's film lies, measured from the two edges of the board that are nearest.
struct CornerDistance {
    Length from_left, from_bottom, from_right, from_top;
    friend bool operator==(const CornerDistance&, const CornerDistance&) = default;
};
/// Lower left and upper right corner of the section on the face.
std::pair<CornerDistance, CornerDistance> corners(const Section& section, const Box& face, const Motion& move = {});

/// Placement, loads, shopping list, schedule with cautions, and the proof, in that order.
std::vector<Page> sheets(const Job& job, const Plan& plan, const Shop& shop, const Library& library,
                         Paper paper = Paper::Letter);

/// A list of all steps to tick off, then each with its picture, its figures and room for the time. Nothing without
/// steps.
std::vector<Page> bench_book(const Job& job, const Plan& plan, const Shop& shop, const Library& library,
                             Paper paper = Paper::Letter);

/// "1:8": how much smaller than life a drawing is; one of a short list, so that a rule can be laid on it.
int scale_for(Length width, Length height, double room_width_mm, double room_height_mm);

}  // namespace skarvel
