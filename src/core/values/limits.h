// values/limits.h
//
// Limits: how much of anything is taken in, one table for every reader and for what is made by hand. What is more is
// refused in words that name the limit, and nothing else changes. docs/robustness.md lists them; a test compares.
#pragma once

#include <array>
#include <cstddef>
#include <string_view>
#include <utility>

namespace skarvel::limits {

inline constexpr std::size_t file_megabytes = 64;  // of any file
inline constexpr std::size_t nodes = 200'000;      // of a drawing or an outline
inline constexpr std::size_t corners = 4'000'000;  // of its paths made straight, and in what they are laid over
inline constexpr std::size_t nesting = 64;         // of brackets in a job or a shop
inline constexpr std::size_t pixels = 60'000'000;  // of a picture
inline constexpr std::size_t signs = 500;          // of a job
inline constexpr std::size_t texts = 200;          // of a face
inline constexpr std::size_t art = 200;            // of a face
inline constexpr std::size_t colours = 64;         // of a face
inline constexpr std::size_t letters = 2'000;      // of a text
inline constexpr std::size_t coordinate_m = 134;   // from the origin

inline constexpr std::array<std::pair<std::string_view, std::size_t>, 11> all{{
    {"megabytes of a file", file_megabytes},
    {"nodes of a drawing or an outline", nodes},
    {"corners looked at in a drawing or an outline", corners},
    {"brackets in one another", nesting},
    {"pixels of a picture", pixels},
    {"signs of a job", signs},
    {"texts of a face", texts},
    {"pieces of art of a face", art},
    {"colours of a face", colours},
    {"letters of a text", letters},
    {"metres from the origin", coordinate_m},
}};

inline constexpr std::size_t file_bytes = file_megabytes * 1'000'000;

}  // namespace skarvel::limits
