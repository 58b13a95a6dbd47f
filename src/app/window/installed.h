// window/installed.h
//
// Typefaces installed on this computer, by way of fontconfig: which there are, and the bytes of one.
#pragma once

#include <string>
#include <vector>

#include "lettering/typeface.h"

namespace skarvel {

struct InstalledTypeface {
    TypefaceName name;
    std::string file;
};

/// Outline typefaces by family, then style.
std::vector<InstalledTypeface> installed_typefaces();

}  // namespace skarvel
