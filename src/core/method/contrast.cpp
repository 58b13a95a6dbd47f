#include "method/contrast.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <utility>

namespace skarvel {

double luminance(std::string_view colour) {
    unsigned rgb = 0x808080;
    if (colour.size() == 7 && colour[0] == '#') {
        unsigned read = 0;
        const auto [end, error] = std::from_chars(colour.data() + 1, colour.data() + 7, read, 16);
        if (error == std::errc{} && end == colour.data() + 7) rgb = read;
    }
    const auto linear = [](unsigned channel) {
        const double c = channel / 255.0;
        return c <= 0.03928 ? c / 12.92 : std::pow((c + 0.055) / 1.055, 2.4);
    };
    return 0.2126 * linear(rgb >> 16U & 0xFFU) + 0.7152 * linear(rgb >> 8U & 0xFFU) + 0.0722 * linear(rgb & 0xFFU);
}

double contrast(std::string_view a, std::string_view b) {
    const double first = luminance(a);
    const double second = luminance(b);
    return (std::max(first, second) + 0.05) / (std::min(first, second) + 0.05);
}

}  // namespace skarvel
