// proof/reading.h
//
// What a cut file says, read without the code that wrote it: paths in millimetres on the mat, y upwards.
#pragma once

#include "files/cut_file.h"
#include "geometry/region.h"

namespace skarvel {

struct ReadPath {
    Ring points;  ///< grid units on the mat
    bool closed = false;
};

Expected<std::vector<ReadPath>> read_cut_file(const std::string& bytes, const std::string& name, CutFormat format);

}  // namespace skarvel
