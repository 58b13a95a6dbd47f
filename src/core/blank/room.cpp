#include "blank/room.h"

#include <algorithm>
#include <cmath>

#include "values/searches.h"

namespace skarvel {
namespace {

constexpr std::size_t most_heights = searches::heights_of_room.most;

std::vector<std::int64_t> heights(const Region& region) {
    std::vector<std::int64_t> ys;
    for (const Ring& ring : region.rings()) {
        for (const Point& p : ring) ys.push_back(p.y);
    }
    std::sort(ys.begin(), ys.end());
    ys.erase(std::unique(ys.begin(), ys.end()), ys.end());
    if (ys.size() <= most_heights) return ys;
    std::vector<std::int64_t> fewer;
    for (std::size_t i = 0; i < most_heights; ++i) fewer.push_back(ys[i * (ys.size() - 1) / (most_heights - 1)]);
    fewer.erase(std::unique(fewer.begin(), fewer.end()), fewer.end());
    return fewer;
}

// x as a linear function of y.
struct Slant {
    double at_foot, slope, foot;
    [[nodiscard]] double operator()(double y) const { return at_foot + slope * (y - foot); }
};

// What lies free between two neighbouring edges over the height of a row.
struct Trapezoid {
    Slant left, right;
    double low, high;  // free over all of the row's height, between these
};

struct Row {
    double foot, top;
    std::vector<Trapezoid> free;
};

// Where rows were taken together, edges begin and end inside of them: what is free over all of the height counts alone.
std::vector<Trapezoid> free_throughout(const std::vector<std::pair<double, double>>& inside,
                                       const std::vector<std::pair<double, double>>& edges, double foot) {
    std::vector<Trapezoid> out;
    for (const auto& whole : inside) {
        std::vector<std::pair<double, double>> free{whole};
        for (const auto& [from, to] : edges) {
            std::vector<std::pair<double, double>> left;
            for (const auto& [low, high] : free) {
                if (to <= low || from >= high) {
                    left.emplace_back(low, high);
                    continue;
                }
                if (from > low) left.emplace_back(low, from);
                if (to < high) left.emplace_back(to, high);
            }
            free = std::move(left);
        }
        for (const auto& [low, high] : free) out.push_back({{low, 0, foot}, {high, 0, foot}, low, high});
    }
    return out;
}

using Segment = std::pair<Point, Point>;

Row row_between(const std::vector<Segment>& edges, std::int64_t y0, std::int64_t y1) {
    Row row{static_cast<double>(y0), static_cast<double>(y1), {}};
    const double half = (row.foot + row.top) / 2;
    std::vector<std::pair<double, Slant>> crossings;
    std::vector<std::pair<double, double>> reaches;
    bool corners = false;
    for (const auto& [a, b] : edges) {
        if (a.y == b.y) {
            reaches.emplace_back(std::min(a.x, b.x), std::max(a.x, b.x));
            corners = true;
            continue;
        }
        const double slope = static_cast<double>(b.x - a.x) / static_cast<double>(b.y - a.y);
        const Slant slant{static_cast<double>(a.x) + slope * (row.foot - static_cast<double>(a.y)), slope, row.foot};
        const double from = slant(std::max(row.foot, static_cast<double>(std::min(a.y, b.y))));
        const double to = slant(std::min(row.top, static_cast<double>(std::max(a.y, b.y))));
        reaches.emplace_back(std::min(from, to), std::max(from, to));
        corners = corners || std::min(a.y, b.y) > y0 || std::max(a.y, b.y) < y1;
        if ((static_cast<double>(a.y) < half) != (static_cast<double>(b.y) < half))
            crossings.emplace_back(slant(half), slant);
    }
    std::sort(crossings.begin(), crossings.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
    if (corners) {
        std::vector<std::pair<double, double>> inside;
        for (std::size_t i = 0; i + 1 < crossings.size(); i += 2)
            inside.emplace_back(crossings[i].first, crossings[i + 1].first);
        row.free = free_throughout(inside, reaches, row.foot);
        return row;
    }
    for (std::size_t i = 0; i + 1 < crossings.size(); i += 2) {
        const Slant& l = crossings[i].second;
        const Slant& r = crossings[i + 1].second;
        row.free.push_back({l, r, std::max(l(row.foot), l(row.top)), std::min(r(row.foot), r(row.top))});
    }
    return row;
}

// Each row with the edges that run through it.
std::vector<Row> rows_of(const Region& region) {
    const std::vector<std::int64_t> ys = heights(region);
    std::vector<std::vector<Segment>> edges(ys.empty() ? 0 : ys.size() - 1);
    for (const Ring& ring : region.rings()) {
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Segment edge{ring[i], ring[(i + 1) % ring.size()]};
            const auto [low, high] = std::minmax(edge.first.y, edge.second.y);
            auto row = static_cast<std::size_t>(std::upper_bound(ys.begin(), ys.end(), low) - ys.begin() - 1);
            // A level edge on a height of its own binds neither of its neighbours.
            for (; row < edges.size() && (ys[row] < high || (low == high && ys[row] < low)); ++row)
                edges[row].push_back(edge);
        }
    }
    std::vector<Row> rows;
    for (std::size_t i = 0; i < edges.size(); ++i) rows.push_back(row_between(edges[i], ys[i], ys[i + 1]));
    return rows;
}

struct Found {
    double area = 0, low = 0, high = 0, foot = 0, top = 0;
};

// The rectangle with its lower side in `under` and its upper side in `over`, between walls at `low` and `high`.
class Pair {
  public:
    Pair(const Row& below, const Trapezoid& under, const Row& above, const Trapezoid& over, double low, double high)
        : below_(below), above_(above), under_(under), over_(over), low_(low), high_(high), one_(&below == &above) {}

    [[nodiscard]] double bound() const { return (above_.top - below_.foot) * widest(); }

    [[nodiscard]] Found best() const {
        constexpr double golden = 0.6180339887498949;
        double from = below_.foot, to = below_.top;
        double a = to - golden * (to - from), b = from + golden * (to - from);
        Found at_a = with_foot(a), at_b = with_foot(b);
        for (int round = 0; round < 64 && to - from > 0.25; ++round) {
            if (at_a.area < at_b.area) {
                from = a;
                a = b;
                at_a = at_b;
                at_b = with_foot(b = from + golden * (to - from));
            } else {
                to = b;
                b = a;
                at_b = at_a;
                at_a = with_foot(a = to - golden * (to - from));
            }
        }
        Found best = at_a.area >= at_b.area ? at_a : at_b;
        for (const double y : {below_.foot, below_.top}) {
            if (const Found end = with_foot(y); end.area > best.area) best = end;
        }
        return best;
    }

  private:
    // No rectangle of this pair is wider.
    [[nodiscard]] double widest() const {
        if (!one_) return high_ - low_;
        return std::max(under_.right(below_.foot) - under_.left(below_.foot),
                        under_.right(below_.top) - under_.left(below_.top));
    }
    [[nodiscard]] Found between(double foot, double top) const {
        const double low = std::max({low_, under_.left(foot), over_.left(top)});
        const double high = std::min({high_, under_.right(foot), over_.right(top)});
        return {std::max(0.0, high - low) * std::max(0.0, top - foot), low, high, foot, top};
    }
    // The best upper side over that lower one: at an end of the row, where two walls meet, or where the area of a pair
    // of walls is level.
    [[nodiscard]] Found with_foot(double foot) const {
        const double from = one_ ? std::max(foot, above_.foot) : above_.foot;
        Found best = between(foot, above_.top);
        const auto look = [&](double top) {
            if (top <= from || top >= above_.top) return;
            if (const Found f = between(foot, top); f.area > best.area) best = f;
        };
        if (const Found f = between(foot, from); f.area > best.area) best = f;
        const double left = std::max(low_, under_.left(foot));
        const double right = std::min(high_, under_.right(foot));
        const Slant& l = over_.left;
        const Slant& r = over_.right;
        if (l.slope != 0) look(l.foot + (left - l.at_foot) / l.slope);
        if (r.slope != 0) look(r.foot + (right - r.at_foot) / r.slope);
        // (top - foot) (c + d top) is level at top = (foot - c / d) / 2.
        const auto level = [&](double c, double d) {
            if (d != 0) look((foot - c / d) / 2);
        };
        const double l0 = l.at_foot - l.slope * l.foot, r0 = r.at_foot - r.slope * r.foot;
        level(right - l0, -l.slope);
        level(r0 - left, r.slope);
        level(r0 - l0, r.slope - l.slope);
        return best;
    }

    const Row& below_;
    const Row& above_;
    const Trapezoid& under_;
    const Trapezoid& over_;
    double low_, high_;
    bool one_;
};

// Walls that stand over every row from the first to the one at hand.
struct Wall {
    const Trapezoid* under;
    double low, high;
};

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
    const std::vector<Row> rows = rows_of(region);
    Found best;
    const auto look = [&](const Pair& pair) {
        if (pair.bound() <= best.area) return;
        if (const Found f = pair.best(); f.area > best.area * (1 + 1e-12)) best = f;
    };
    constexpr double anything = 1e18;
    for (const Row& below : rows) {
        std::vector<Wall> walls;
        for (const Trapezoid& t : below.free) {
            look({below, t, below, t, -anything, anything});
            walls.push_back({&t, t.left(below.top), t.right(below.top)});
        }
        for (std::size_t j = static_cast<std::size_t>(&below - rows.data()) + 1; j < rows.size() && !walls.empty();
             ++j) {
            const Row& above = rows[j];
            std::vector<Wall> on;
            for (const Wall& wall : walls) {
                if ((rows.back().top - below.foot) * (wall.high - wall.low) <= best.area) continue;
                for (const Trapezoid& t : above.free) {
                    const double low = std::max(wall.low, t.left(above.foot));
                    const double high = std::min(wall.high, t.right(above.foot));
                    if (high <= low) continue;
                    look({below, *wall.under, above, t, low, high});
                    const Wall next{wall.under, std::max(low, t.low), std::min(high, t.high)};
                    if (next.high > next.low) on.push_back(next);
                }
            }
            walls = std::move(on);
        }
    }
    const Box box{{std::llround(std::ceil(best.low - 1e-6)), std::llround(std::ceil(best.foot - 1e-6))},
                  {std::llround(std::floor(best.high + 1e-6)), std::llround(std::floor(best.top + 1e-6))}};
    return box.empty() ? Box{} : evened(box, region);
}

}  // namespace skarvel
