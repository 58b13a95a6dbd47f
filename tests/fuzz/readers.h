// Every door by which bytes from outside come into the core, each as a function of bytes alone: what a fuzzer calls
// with whatever it makes up, and the tests with what is kept in `corpus/`.
#pragma once

#include <cstdlib>
#include <string>
#include <vector>

#include "files/moment.h"

namespace skarvel::fuzz {

struct Reader {
    const char* name;  ///< also of its folder in `corpus/`, and of its dictionary
    void (*read)(const std::string& bytes);
};

const std::vector<Reader>& readers();
/// Those of them that need no job, shop or library.
const std::vector<Reader>& readers_of_bytes();

/// When they are read.
Moment some_evening();

/// What has to hold of whatever was read: a fuzzer notices the end of the program.
inline void must(bool holds) {
    if (!holds) std::abort();
}

}  // namespace skarvel::fuzz
