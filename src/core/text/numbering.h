// text/numbering.h
//
// Letters that tell things apart: a to z, then a1 to z1, and so on.
#pragma once

#include <cstddef>
#include <string>

namespace skarvel {

/// The letter of the `n`th thing, counted from nought.
inline std::string letter_for(std::size_t n) {
    constexpr std::size_t letters = 26;
    std::string letter(1, static_cast<char>('a' + n % letters));
    return n < letters ? letter : letter + std::to_string(n / letters);
}

}  // namespace skarvel
