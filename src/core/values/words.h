// values/words.h
//
// The words of an enumeration: what files, rules and the names of steps call its values. An enumeration has them by a
// function beside it that lists them in the order of its values:
//
//     constexpr auto words_of(Seal) { return std::array{"ground", "clear", "none"}; }
#pragma once

#include <array>
#include <cstddef>
#include <optional>
#include <string_view>
#include <type_traits>

namespace skarvel {

template <class E>
concept Worded = std::is_enum_v<E> && requires(E value) {
    words_of(value);
};

template <Worded E>
constexpr const char* word_of(E value) {
    return words_of(value)[static_cast<std::size_t>(value)];
}

/// Nothing for a word that it does not have.
template <Worded E>
constexpr std::optional<E> from_word(std::string_view word) {
    const auto words = words_of(E{});
    for (std::size_t i = 0; i < words.size(); ++i) {
        if (word == words[i]) return static_cast<E>(i);
    }
    return std::nullopt;
}

}  // namespace skarvel
