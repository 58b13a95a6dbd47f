#include "blank/room.h"

#include <algorithm>
#include <cmath>

namespace skarvel {
namespace {

constexpr std::size_t most_strips = 240;

using Stretch = std::pair<std::int64_t, std::int64_t>;  // free from first to second
using Stretches = std::vector<Stretch>;

std::vector<std::int64_t> heights(const Region& region) {
    std::vector<std::int64_t> ys;
    for (const Ring& ring : region.rings()) {
        for (const Point& p : ring) ys.push_back(p.y);
    }
    std::sort(ys.begin(), ys.end());
    ys.erase(std::unique(ys.begin(), ys.end()), ys.end());
    if (ys.size() <= most_strips) return ys;
    // Even in number, so that round shapes keep fine strips where they turn.
    std::vector<std::int64_t> fewer;
    for (std::size_t i = 0; i < most_strips; ++i) fewer.push_back(ys[i * (ys.size() - 1) / (most_strips - 1)]);
    fewer.erase(std::unique(fewer.begin(), fewer.end()), fewer.end());
    return fewer;
}

// Where an edge is left and right most between two heights.
struct Run {
    double low, high, middle;
    int turn;  // +1 upwards, -1 downwards, 0 when it does not cross the middle of the strip
};

Stretches free_in(const Region& region, std::int64_t y0, std::int64_t y1) {
    const double half = (static_cast<double>(y0) + static_cast<double>(y1)) / 2;
    std::vector<Run> runs;
    for (const Ring& ring : region.rings()) {
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point a = ring[i];
            const Point b = ring[(i + 1) % ring.size()];
            if (a.y == b.y || std::max(a.y, b.y) <= y0 || std::min(a.y, b.y) >= y1) continue;
            const auto x_at = [&](double y) {
                return static_cast<double>(a.x) +
                       static_cast<double>(b.x - a.x) * (y - static_cast<double>(a.y)) / static_cast<double>(b.y - a.y);
            };
            const double from = x_at(static_cast<double>(std::max(y0, std::min(a.y, b.y))));
            const double to = x_at(static_cast<double>(std::min(y1, std::max(a.y, b.y))));
            const bool crosses = (static_cast<double>(a.y) < half) != (static_cast<double>(b.y) < half);
            runs.push_back({std::min(from, to), std::max(from, to), crosses ? x_at(half) : 0, crosses ? 1 : 0});
        }
    }
    std::vector<double> crossings;
    for (const Run& run : runs) {
        if (run.turn != 0) crossings.push_back(run.middle);
    }
    std::sort(crossings.begin(), crossings.end());
    // Inside at mid height; then taken away what any edge touches within the strip.
    Stretches out;
    for (std::size_t i = 0; i + 1 < crossings.size(); i += 2) {
        std::vector<std::pair<double, double>> free{{crossings[i], crossings[i + 1]}};
        for (const Run& run : runs) {
            std::vector<std::pair<double, double>> left;
            for (const auto& [low, high] : free) {
                if (run.high <= low || run.low >= high) {
                    left.emplace_back(low, high);
                    continue;
                }
                if (run.low > low) left.emplace_back(low, run.low);
                if (run.high < high) left.emplace_back(run.high, high);
            }
            free = std::move(left);
        }
        for (const auto& [low, high] : free) {
            const Stretch whole{std::llround(std::ceil(low - 1e-6)), std::llround(std::floor(high + 1e-6))};
            if (whole.second > whole.first) out.push_back(whole);
        }
    }
    return out;
}

Stretches both(const Stretches& a, const Stretches& b) {
    Stretches out;
    for (const auto& [low, high] : a) {
        for (const auto& [from, to] : b) {
            const Stretch shared{std::max(low, from), std::min(high, to)};
            if (shared.second > shared.first) out.push_back(shared);
        }
    }
    return out;
}

double area(const Box& box) {
    return box.empty() ? 0 : static_cast<double>(box.width()) * static_cast<double>(box.height());
}

// The same rectangle made even about the middle of the bounds, where that costs next to nothing.
Box evened(const Box& box, const Region& region) {
    constexpr double worth = 0.995;
    const Box bounds = region.bounds();
    Box best = box;
    for (const bool across : {true, false}) {
        Box even = best;
        auto& low = across ? even.low.x : even.low.y;
        auto& high = across ? even.high.x : even.high.y;
        const std::int64_t twice = across ? bounds.low.x + bounds.high.x : bounds.low.y + bounds.high.y;
        const std::int64_t reach = std::min(twice - 2 * low, 2 * high - twice) / 2;
        low = (twice + 1) / 2 - reach;
        high = twice / 2 + reach;
        if (area(even) >= worth * area(best) && lies_in(even, region)) best = even;
    }
    return best;
}

}  // namespace

bool lies_in(const Box& box, const Region& region) {
    // A grid step along its sides.
    const double rounding_mm2 = 2 * grid_to_mm(1) * (grid_to_mm(box.width()) + grid_to_mm(box.height()));
    return !box.empty() && subtract(Region::rectangle(box), region).area_mm2() <= rounding_mm2;
}

Box largest_rectangle(const Region& region) {
    const std::vector<std::int64_t> ys = heights(region);
    std::vector<Stretches> strips;
    for (std::size_t i = 0; i + 1 < ys.size(); ++i) strips.push_back(free_in(region, ys[i], ys[i + 1]));
    Box best;
    for (std::size_t i = 0; i < strips.size(); ++i) {
        Stretches open = strips[i];
        for (std::size_t j = i; j < strips.size() && !open.empty(); ++j) {
            if (j > i) open = both(open, strips[j]);
            for (const auto& [low, high] : open) {
                const Box box{{low, ys[i]}, {high, ys[j + 1]}};
                if (area(box) > area(best)) best = box;
            }
        }
    }
    return best.empty() ? best : evened(best, region);
}

}  // namespace skarvel
