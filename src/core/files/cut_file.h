// files/cut_file.h
//
// Cut files: one SVG per load at true size in millimetres, the mat's usable area as the page, sections as named groups,
// every knife line a closed path. y runs downwards in the file and upwards on the mat: the file is turned over once,
// here, so that the film reads the right way with its paper side down.
#pragma once

#include <string>
#include <vector>

#include "job/plan.h"

namespace skarvel {

struct CutFile {
    std::string name;  ///< sorts in cutting order: "01-BOAT+HOUS.svg"
    std::string bytes;
};

/// Loads that are already cut are left out.
std::vector<CutFile> cut_files(const Plan& plan, const Shop& shop);

/// What a file is called after: letters and figures of `text`, everything else a hyphen; never empty.
std::string file_word(const std::string& text);

}  // namespace skarvel
