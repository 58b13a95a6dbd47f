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

/// Reads what the computer says of its typefaces, which Qt does otherwise when it is first asked for words: any thread
/// may do it, so that it is done beside something else.
void look_for_typefaces();

/// Outline typefaces by family, then style.
std::vector<InstalledTypeface> installed_typefaces();

}  // namespace skarvel
