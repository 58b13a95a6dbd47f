#include "blank/weight.h"

#include <algorithm>
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

void hang(Weighed& out, const Box& box, const std::vector<HangingRule>& rules) {
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
    // A fifth down from the top, a quarter in from the sides: common practice.
    const std::int64_t y = box.high.y - box.height() / 5;
    const std::int64_t middle = (box.low.x + box.high.x) / 2;
    if (rule->points == 1) {
        out.points.push_back({{"hang.middle", {}}, {out.centre.x, y}});
    } else {
        const std::int64_t off = box.width() / 4;
        // Even about the centre of gravity, so that it hangs level.
        const std::int64_t about = std::abs(out.centre.x - middle) < box.width() / 8 ? out.centre.x : middle;
        out.points.push_back({{"hang.left", {}}, {about - off, y}});
        out.points.push_back({{"hang.right", {}}, {about + off, y}});
    }
    out.cautions.push_back({"hang.into-wood", {}});
    if (kg > 9) out.cautions.push_back({"hang.wall", {}});
}

void stand(Weighed& out, const ToWeigh& what) {
    const Box box = what.outline.bounds();
    const Length under = what.holding.under.value;
    const Length up = from_grid(box.height());
    const double ballast = what.holding.ballast_grams / 1000.0;
    const double kg = out.total() / 1000.0;
    if (what.holding.way == Holds::Leaning) {
        const double lean = std::clamp(what.holding.base.value.in_mm() / std::max(1.0, up.in_mm()), 0.0, 0.95);
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
    out.frame_grams = grams(what.frame_cm3 * 1e-6 * kg_m3(densities, "pine"));
    out.backing_grams = grams(what.backing_cm3 * 1e-6 * kg_m3(densities, what.backing_material));
    out.centre = centroid(what.outline);
    switch (what.holding.way) {
        case Holds::Hung:
            hang(out, what.outline.bounds(), hanging);
            break;
        case Holds::InPlace:
            break;
        default:
            stand(out, what);
    }
    return out;
}

}  // namespace skarvel
