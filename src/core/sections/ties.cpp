#include "sections/ties.h"

#include <algorithm>
#include <cstdlib>

namespace skarvel {
namespace {

constexpr std::int64_t two_from = to_grid(0.5_in);  // taller keepers get two ties

struct Tie {
    Region shape;
    std::int64_t length = 0;  // through the ink
};

// The stretch of ink that a strip of film from the keeper would cross before it meets film again.
std::optional<Tie> tie_through(const Region& cut, const Region& keeper, Axis axis, std::int64_t middle,
                               std::int64_t half, bool upwards) {
    const Box box = keeper.bounds();
    const Box ink = cut.bounds();
    // It sets out from the keeper with its whole width.
    const Box lane = axis == Axis::Y ? Box{{middle - half, box.low.y}, {middle + half, box.high.y}}
                                     : Box{{box.low.x, middle - half}, {box.high.x, middle + half}};
    const Box inside = intersect(keeper, Region::rectangle(lane)).bounds();
    const std::int64_t start = (along(axis, inside.low) + along(axis, inside.high)) / 2;
    const Box first = axis == Axis::Y ? Box{{middle - half, start - 1}, {middle + half, start + 1}}
                                      : Box{{start - 1, middle - half}, {start + 1, middle + half}};
    if (inside.empty() || !subtract(Region::rectangle(first), keeper).empty()) return std::nullopt;
    Box strip = lane;
    if (axis == Axis::Y) {
        strip.low.y = upwards ? start : ink.low.y;
        strip.high.y = upwards ? ink.high.y : start;
    } else {
        strip.low.x = upwards ? start : ink.low.x;
        strip.high.x = upwards ? ink.high.x : start;
    }
    const std::vector<Region> crossed = islands(intersect(cut, Region::rectangle(strip)));
    const Region* nearest = nullptr;
    std::int64_t nearest_at = 0;
    for (const Region& part : crossed) {
        const Box b = part.bounds();
        // Ink as wide as the strip: where it is narrower the strip would run along an edge.
        const std::int64_t wide = axis == Axis::Y ? b.width() : b.height();
        if (wide < 2 * half) continue;
        const std::int64_t at = upwards ? along(axis, b.low) : -along(axis, b.high);
        if (nearest == nullptr || at < nearest_at) {
            nearest = &part;
            nearest_at = at;
        }
    }
    if (nearest == nullptr || !touch(*nearest, keeper)) return std::nullopt;
    // As a whole rectangle, a hair longer than the ink, so that no splinter of it is left at slanted ends.
    const Box b = nearest->bounds();
    constexpr std::int64_t hair = 8;
    const Point by = axis == Axis::Y ? Point{0, hair} : Point{hair, 0};
    return Tie{Region::rectangle({b.low - by, b.high + by}), axis == Axis::Y ? b.height() : b.width()};
}

std::optional<Tie> best_tie(const Region& cut, const Region& keeper, Axis axis, std::int64_t half, bool upwards) {
    const Box box = keeper.bounds();
    const Axis across = axis == Axis::Y ? Axis::X : Axis::Y;
    const std::int64_t low = along(across, box.low) + half;
    const std::int64_t high = along(across, box.high) - half;
    const std::int64_t middle = (low + high) / 2;
    std::optional<Tie> best;
    double best_cost = 0;
    constexpr int places = 8;  // on either side of the middle
    for (int k = -places; k <= places; ++k) {
        const std::int64_t at = high > low ? middle + (high - low) * k / (2 * places) : middle;
        auto tie = tie_through(cut, keeper, axis, at, half, upwards);
        if (!tie) continue;
        // Near the middle, unless the stroke is much shorter to cross elsewhere.
        const double cost = static_cast<double>(tie->length) + 0.3 * static_cast<double>(std::abs(at - middle));
        if (!best || cost < best_cost) {
            best = std::move(tie);
            best_cost = cost;
        }
    }
    return best;
}

}  // namespace

Tied tie_keepers(const Region& cut, const std::vector<Keeper>& keepers, Length width) {
    Tied out{cut, {}, {}};
    const std::int64_t half = std::max<std::int64_t>(1, to_grid(width) / 2);
    for (const Keeper& keeper : keepers) {
        std::vector<Tie> found;
        for (const Axis axis : {Axis::Y, Axis::X}) {
            for (const bool upwards : {true, false}) {
                if (auto tie = best_tie(cut, keeper.shape, axis, half, upwards)) found.push_back(std::move(*tie));
            }
            // Top and bottom first; the sides where those cannot be, or are far longer to cross.
        }
        if (found.empty()) {
            out.loose.push_back(keeper);
            continue;
        }
        const std::int64_t shortest = std::min_element(found.begin(), found.end(), [](const Tie& a, const Tie& b) {
                                          return a.length < b.length;
                                      })->length;
        std::erase_if(found, [&](const Tie& t) { return t.length > 3 * shortest; });
        const std::size_t wanted = keeper.shape.bounds().height() > two_from ? 2 : 1;
        if (found.size() > wanted) found.resize(wanted);
        for (Tie& tie : found) out.ties.push_back(std::move(tie.shape));
    }
    out.cut = subtract(cut, merge(out.ties));
    // A tie from one keeper to another holds nothing unless that one is held.
    for (Region& hole : holes(out.cut)) {
        const auto of = std::find_if(keepers.begin(), keepers.end(),
                                     [&](const Keeper& k) { return !intersect(k.shape, hole).empty(); });
        const bool told = std::any_of(out.loose.begin(), out.loose.end(),
                                      [&](const Keeper& k) { return !intersect(k.shape, hole).empty(); });
        if (!told) out.loose.push_back({of == keepers.end() ? std::string() : of->letters, std::move(hole)});
    }
    return out;
}

}  // namespace skarvel
