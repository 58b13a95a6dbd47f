// method/contrast.h
//
// Contrast of two colours: relative luminance and contrast ratio as WCAG 2.1 defines them (black on white is 21).
#pragma once

#include <string_view>

namespace skarvel {

/// Relative luminance, 0 to 1, of "#rrggbb"; anything else counts as mid grey.
double luminance(std::string_view colour);
double contrast(std::string_view a, std::string_view b);

}  // namespace skarvel
