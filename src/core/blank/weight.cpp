#include "blank/weight.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace skarvel {
namespace {

constexpr double gravity = 9.80665;  // standard gravity, ISO 80000-3

const Density* density_of(const std::vector<Density>& densities, const std::string& material) {
    const auto at =
        std::find_if(densities.begin(), densities.end(), [&](const Density& d) { return d.material == material; });
    return at == densities.end() ? nullptr : &*at;
}

double kg_m3(const std::vector<Density>& densities, const std::string& material) {
    if (const Density* known = density_of(densities, material)) return known->kg_m3;
    double most = 0;
    for (const Density& d : densities) most = std::max(most, d.kg_m3);
    return most;
}

int grams(double kg) { return static_cast<int>(std::lround(kg * 1000)); }

// How far the wood reaches at that height, about `x`; nothing where there is none.
std::optional<std::pair<std::int64_t, std::int64_t>> wood_at(const Region& wood, std::int64_t y, std::int64_t x) {
    const std::vector<double> ends = edges_on(wood, Axis::Y, {y}).front();
    for (std::size_t i = 0; i + 1 < ends.size(); i += 2) {
        const auto low = std::llround(ends[i]);
        const auto high = std::llround(ends[i + 1]);
        if (low <= x && x <= high) return std::pair(low, high);
    }
    return std::nullopt;
}

// A fifth down from the top, a quarter in from the sides (common practice), or as near to that as there is wood.
void place_hangers(Weighed& out, const Region& wood, const Box& box, int points) {
    constexpr Length rim = 0.375_in;  // of wood round a screw
    const Region firm = grow(wood, -rim);
    const std::int64_t step = std::max<std::int64_t>(1, box.height() / 200);
    const std::int64_t least_off = box.width() / 10;
    for (std::int64_t y = box.high.y - box.height() / 5; y >= out.centre.y; y -= step) {
        const auto reach = wood_at(firm, y, out.centre.x);
        if (!reach) continue;
        if (points == 1) {
            out.points.push_back({{"hang.middle", {}}, {out.centre.x, y}});
            return;
        }
        const std::int64_t off = std::min({box.width() / 4, out.centre.x - reach->first, reach->second - out.centre.x});
        if (off < least_off) continue;
        out.points.push_back({{"hang.left", {}}, {out.centre.x - off, y}});
        out.points.push_back({{"hang.right", {}}, {out.centre.x + off, y}});
        return;
    }
    out.cautions.push_back({"hang.no-wood", {}});
}

void hang(Weighed& out, const ToWeigh& what, const std::vector<HangingRule>& rules) {
    const Box& box = what.built.whole;
    const double kg = out.total() / 1000.0;
    const Length width = from_grid(box.width());
    const auto rule = std::find_if(rules.begin(), rules.end(),
                                   [&](const HangingRule& r) { return kg <= r.most_kg && width <= r.most_width; });
    if (rule == rules.end()) {
        out.hardware = Reason{"hang.beyond", {}};
        out.cautions.push_back({"hang.wall", {}});
        return;
    }
    out.hardware = Reason{"hang." + rule->id, {}};
    place_hangers(out, merge(std::array{what.outline, what.built.backing.where, what.built.frame.where}), box,
                  rule->points);
    out.cautions.push_back({"hang.into-wood", {}});
    if (kg > 9) out.cautions.push_back({"hang.wall", {}});
}

void stand(Weighed& out, const ToWeigh& what) {
    const Box& box = what.built.whole;
    const Length under = what.holding.under.value;
    const Length up = from_grid(box.height());
    const double ballast = what.holding.ballast_grams / 1000.0;
    const double kg = out.total() / 1000.0;
    if (what.holding.way == Holds::Leaning) {
        if (what.holding.base.value >= up) {
            out.problems.push_back({{"stand.foot-too-far", {{"foot", what.holding.base.value}, {"length", up}}},
                                    Station::Blank,
                                    {"stand.foot-closer", {}},
                                    Mark::Look});
            return;
        }
        const double lean = std::max(0.0, what.holding.base.value.in_mm() / up.in_mm());
        const double tan = lean / std::sqrt(1 - lean * lean);
        constexpr double grip = 0.3;  // of wood on a smooth floor: from memory
        Tipping t;
        t.angle_degrees = std::asin(lean) * 180 / std::numbers::pi;
        t.push_newton = kg * gravity * tan / 2;
        t.slides = tan / 2 > grip;
        out.tipping = t;
        out.cautions.push_back({"stand.leaning", {}});
        if (t.slides) out.cautions.push_back({"stand.slides", {}});
        return;
    }
    const Length height = under + from_grid(out.centre.y - box.low.y);
    out.tipping = tipping(kg, height, what.holding.base.value / 2, under + up, ballast);
    out.cautions.push_back({what.holding.way == Holds::Stake ? "stand.stake" : "stand.legs", {}});
}

// Where the weight of all parts together acts.
Point together(const std::vector<std::pair<int, Point>>& parts, Point otherwise) {
    double all = 0, x = 0, y = 0;
    for (const auto& [grams, at] : parts) {
        all += grams;
        x += static_cast<double>(grams) * static_cast<double>(at.x);
        y += static_cast<double>(grams) * static_cast<double>(at.y);
    }
    return all > 0 ? Point{std::llround(x / all), std::llround(y / all)} : otherwise;
}

}  // namespace

Point centroid(const Region& region) {
    double area = 0, x = 0, y = 0;
    const Point origin = region.empty() ? Point{} : region.bounds().low;
    for (const Ring& ring : region.rings()) {
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const auto ax = static_cast<double>(ring[i].x - origin.x);
            const auto ay = static_cast<double>(ring[i].y - origin.y);
            const auto bx = static_cast<double>(ring[(i + 1) % ring.size()].x - origin.x);
            const auto by = static_cast<double>(ring[(i + 1) % ring.size()].y - origin.y);
            const double cross = ax * by - bx * ay;
            area += cross;
            x += (ax + bx) * cross;
            y += (ay + by) * cross;
        }
    }
    if (area == 0) return origin;
    return origin + Point{std::llround(x / (3 * area)), std::llround(y / (3 * area))};
}

Tipping tipping(double mass_kg, Length centre_height, Length to_edge, Length top, double ballast_kg) {
    Tipping t;
    const double all = mass_kg + ballast_kg;
    const double h = all > 0 ? centre_height.in_mm() * mass_kg / all : centre_height.in_mm();
    const double a = to_edge.in_mm();
    const double high = std::max(1.0, top.in_mm());
    t.angle_degrees = h <= 0 ? 90 : std::atan2(a, h) * 180 / std::numbers::pi;
    t.push_newton = all * gravity * a / high;
    if (a > 0) t.needed_grams = std::max(0, grams(usual_push_newton * high / (gravity * a) - mass_kg));
    return t;
}

Weighed weigh(const ToWeigh& what, const std::vector<Density>& densities, const std::vector<HangingRule>& hanging) {
    Weighed out;
    if (what.outline.empty()) return out;
    const Density* known = density_of(densities, what.material);
    out.known = known != nullptr;
    if (known != nullptr) out.basis = known->basis;
    const double m3 = what.outline.area_mm2() * what.thickness.in_mm() * 1e-9;
    out.grams = grams(m3 * kg_m3(densities, what.material));
    const Built& built = what.built;
    out.frame_grams = grams(built.frame.cm3 * 1e-6 * kg_m3(densities, built.frame.material));
    out.backing_grams = grams(built.backing.cm3 * 1e-6 * kg_m3(densities, built.backing.material));
    out.centre = together({{out.grams, centroid(what.outline)},
                           {out.frame_grams, centroid(built.frame.where)},
                           {out.backing_grams, centroid(built.backing.where)}},
                          centroid(what.outline));
    switch (what.holding.way) {
        case Holds::Hung:
            hang(out, what, hanging);
            break;
        case Holds::InPlace:
            break;
        default:
            stand(out, what);
    }
    return out;
}

}  // namespace skarvel
