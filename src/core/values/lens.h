// values/lens.h
//
// A lens: the way from a value to one that it holds, step by step, whether it is there at the moment or not. What shows
// and changes a job in the window names places by them.
//
//     lens(&Blank::head, &ArrowHead::length)
//     lens(&Blank::fields, Nth{2}, &PaintedField::depth)    not there where there are only two fields
//     lens(&Blank::backing, &Backing::width)                not there without a backing
#pragma once

#include <array>
#include <cstddef>
#include <functional>
#include <optional>
#include <utility>
#include <variant>
#include <vector>

namespace skarvel {

/// A step to one item of a list, counted from 0.
struct Nth {
    std::size_t place = 0;
};
/// A step to a variant that is of that kind.
template <class Kind>
struct As {};

template <class T, class V>
class Lens {
  public:
    explicit Lens(std::function<V*(T&)> way) : way_(std::move(way)) {}

    /// nullptr where it is not there.
    [[nodiscard]] V* in(T& whole) const { return way_(whole); }
    [[nodiscard]] const V* in(const T& whole) const { return way_(const_cast<T&>(whole)); }
    /// Puts a value in its place. False, and nothing changed, where there is none.
    bool put(T& whole, V value) const {
        V* place = in(whole);
        if (place == nullptr) return false;
        *place = std::move(value);
        return true;
    }

  private:
    std::function<V*(T&)> way_;
};

namespace lens_steps {

template <class S, class V>
V* step(S* from, V S::*member) {
    return from == nullptr ? nullptr : &(from->*member);
}
template <class S, class V>
V* step(std::optional<S>* from, V S::*member) {
    return from == nullptr || !*from ? nullptr : &(**from.*member);
}
template <class V>
V* step(std::vector<V>* from, Nth nth) {
    return from == nullptr || nth.place >= from->size() ? nullptr : &(*from)[nth.place];
}
template <class V, std::size_t n>
V* step(std::array<V, n>* from, Nth nth) {
    return from == nullptr || nth.place >= n ? nullptr : &(*from)[nth.place];
}
template <class Kind, class... Kinds>
Kind* step(std::variant<Kinds...>* from, As<Kind>) {
    return from == nullptr ? nullptr : std::get_if<Kind>(from);
}

template <class S>
S* walk(S* from) {
    return from;
}
template <class S, class First, class... Rest>
auto walk(S* from, First first, Rest... rest) {
    return walk(step(from, first), rest...);
}

}  // namespace lens_steps

template <class T, class M, class... Rest>
auto lens(M T::*first, Rest... rest) {
    using V = std::remove_pointer_t<decltype(lens_steps::walk(static_cast<T*>(nullptr), first, rest...))>;
    return Lens<T, V>([=](T& whole) { return lens_steps::walk(&whole, first, rest...); });
}

}  // namespace skarvel
