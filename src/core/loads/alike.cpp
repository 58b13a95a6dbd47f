#include "loads/alike.h"

#include <algorithm>
#include <cmath>

namespace skarvel {

bool near(Point a, Point b) { return std::abs(a.x - b.x) <= same_within && std::abs(a.y - b.y) <= same_within; }

std::size_t Kinds::of(const Region& shape) {
    const Point low = shape.bounds().low;
    Region own = shape.moved(Point{} - low);
    const auto [at, fresh] = known_.try_emplace(own.rings(), kinds_.size());
    if (!fresh) return at->second;
    const Kind kind = kind_of(std::move(own));
    const auto alike = std::find_if(kinds_.begin(), kinds_.end(), [&](const Kind& k) { return same(k, kind); });
    at->second = static_cast<std::size_t>(alike - kinds_.begin());
    if (alike == kinds_.end()) kinds_.push_back(kind);
    return at->second;
}

bool Kinds::same(const Kind& a, const Kind& b) {
    if (!near(a.high, b.high) || a.shape.rings().size() != b.shape.rings().size()) return false;
    const double slack_area = same_within * 4.0 * static_cast<double>(a.high.x + a.high.y);
    if (std::abs(a.area - b.area) > slack_area) return false;
    const double reach = static_cast<double>(std::max(a.high.x, a.high.y)) / a.area * slack_area;
    if (std::abs(a.x - b.x) > reach || std::abs(a.y - b.y) > reach) return false;
    const Length slack = from_grid(same_within);
    return subtract(a.shape, grow(b.shape, slack)).empty() && subtract(b.shape, grow(a.shape, slack)).empty();
}

Kinds::Kind Kinds::kind_of(Region shape) {
    double area = 0;
    double x = 0;
    double y = 0;
    for (const Ring& ring : shape.rings()) {
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point a = ring[i];
            const Point b = ring[(i + 1) % ring.size()];
            const double twice = static_cast<double>(a.x) * static_cast<double>(b.y) -
                                 static_cast<double>(b.x) * static_cast<double>(a.y);
            area += twice / 2;
            x += twice * static_cast<double>(a.x + b.x) / 6;
            y += twice * static_cast<double>(a.y + b.y) / 6;
        }
    }
    const Point high = shape.bounds().high;
    return {std::move(shape), high, area, x / area, y / area};
}

}  // namespace skarvel
