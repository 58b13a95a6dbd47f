// loads/alike.h
//
// Shapes that are alike: the same but for where they lie. Drawings round the corners of equal parts each in its own
// place, so shapes and places count as equal within 5 um, less than what may be seen or measured.
#pragma once

#include <map>
#include <vector>

#include "geometry/region.h"

namespace skarvel {

constexpr std::int64_t same_within = 40;  ///< grid units: 5 um

/// Whether two places are the same one.
bool near(Point a, Point b);

/// Numbers for kinds of shapes: two have the same number where one laid onto the other leaves nothing uncovered.
class Kinds {
  public:
    std::size_t of(const Region& shape);

  private:
    /// With its lower left corner at 0, 0, and what is cheap to compare: how far it reaches, its area, and where the
    /// middle of that is.
    struct Kind {
        Region shape;
        Point high;
        double area = 0, x = 0, y = 0;
    };
    static bool same(const Kind& a, const Kind& b);
    static Kind kind_of(Region shape);

    std::map<std::vector<Ring>, std::size_t> known_;
    std::vector<Kind> kinds_;
};

}  // namespace skarvel
