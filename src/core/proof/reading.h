// proof/reading.h
//
// What a cut file says, read without the code that wrote it: paths in millimetres on the mat, y upwards. Where the
// knife trails behind its pivot, a plotter's file holds the way of the pivot: the edge is then pulled along behind it,
// as a trailing point is (a tractrix, in small steps), and what runs on past where a path closes is taken off.
#pragma once

#include "files/cut_file.h"
#include "geometry/region.h"

namespace skarvel {

struct ReadPath {
    Ring points;  ///< grid units on the mat
    bool closed = false;
};

Expected<std::vector<ReadPath>> read_cut_file(const std::string& bytes, const std::string& name, CutFormat format,
                                              const Knife& knife = {});

}  // namespace skarvel
