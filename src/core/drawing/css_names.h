// drawing/css_names.h
//
// The colour words of CSS Color 4, 6.1 (from memory).
#pragma once

#include <map>
#include <string>

namespace skarvel {

/// "#rrggbb" from any colour word or notation of CSS; empty for none.
std::string css_colour(std::string word);

/// In small letters, as "#rrggbb".
const std::map<std::string, std::string>& css_names();

}  // namespace skarvel
