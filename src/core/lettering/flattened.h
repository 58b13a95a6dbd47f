// lettering/flattened.h
//
// Outlines of letters flattened at one size, equal ones once: a saying has few letters that it does not use again.
#pragma once

#include <deque>
#include <functional>
#include <utility>

#include "geometry/outline.h"

namespace skarvel {

/// `Shape` is what `flatten_it` makes of an outline. Outlines must outlive this; what is returned stays where it is.
template <class Shape>
class Flattened {
  public:
    explicit Flattened(std::function<Shape(const Outline&)> flatten_it) : flatten_it_(std::move(flatten_it)) {}

    const Shape& of(const Outline& outline) {
        for (const auto& [known, shape] : shapes_) {
            if (*known == outline) return shape;
        }
        return shapes_.emplace_back(&outline, flatten_it_(outline)).second;
    }

  private:
    std::function<Shape(const Outline&)> flatten_it_;
    std::deque<std::pair<const Outline*, Shape>> shapes_;
};

}  // namespace skarvel
