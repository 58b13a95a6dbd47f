// files/cut_file.h
//
// Cut files: each load at true size as SVG, DXF and plotter language (HPGL), with the same knife lines in the same
// order. Sections are named groups or layers; inside lies before outside, the outline of the film after the ink, lines
// that part nothing last (loads/knife.h).
//
// SVG: the bed's usable area as the page, millimetres, every knife line that closes a closed path. y runs downwards in
// the file and upwards on the mat: the file is turned over once, here, so that the film reads the right way with its
// paper side down. DXF: release 12, millimetres, y upwards, one layer for the ink, the film and the lines of each
// section. HPGL: 1/40 mm, y upwards, pen 1 the ink, 2 the film, 3 the lines; where the machine's knife trails behind
// its pivot, the way of the pivot. A coordinate rounded to 1/40 mm is off by 0.0125 mm at most.
#pragma once

#include <string>
#include <vector>

#include "job/plan.h"
#include "loads/knife.h"

namespace skarvel {

struct CutFile {
    std::string name;  ///< sorts in cutting order: "01-BOAT+HOUS.svg"
    std::string bytes;
};

/// One load that is still to be cut, with all that lies on it.
struct LoadToCut {
    int number = 0;                      ///< over the whole job, the cut ones counted
    std::string word;                    ///< what its files are called, without an ending
    StepId step;                         ///< that cuts it
    const ColourPlan* colour = nullptr;  ///< whose load it is
    const Load* load = nullptr;
    Mat bed;
    Machine machine;
    std::vector<OnMat> sections;
    std::vector<std::string> layers;  ///< what each section's groups and layers are called, with its colour
    KnifeWay way;
};

/// In cutting order. `plan` must outlive what is returned.
std::vector<LoadToCut> loads_to_cut(const Plan& plan, const Shop& shop);

enum class CutFormat { Svg, Dxf, Hpgl };

/// Loads that are already cut are left out; others that cannot be written are told in `left_out`.
std::vector<CutFile> cut_files(const Plan& plan, const Shop& shop, CutFormat format = CutFormat::Svg,
                               std::vector<Problem>* left_out = nullptr);

/// One load in plotter language, as it is sent to a machine. Refused where it goes beyond the machine's largest
/// coordinate.
Expected<std::string> hpgl_of(const LoadToCut& load);
std::string svg_of(const LoadToCut& load, const MakingPlan& making);
std::string dxf_of(const LoadToCut& load);

/// A square with a triangle in it, 3/4 in across: cut before each job to find the force. The next one stands beside it,
/// `which` times 22 mm further on.
std::string test_cut(int which);
/// How many of them stand side by side on a bed.
int test_cuts_on(const Mat& bed);

/// Exact placements of everything, and the distances of the placement sheet: "manifest.json" and "manifest.csv".
std::vector<CutFile> manifests(const Job& job, const Plan& plan, const Shop& shop);

/// What a file is called after: letters and figures of `text`, everything else a hyphen; never empty.
std::string file_word(const std::string& text);

}  // namespace skarvel
