#include "geometry/outline.h"

#include <algorithm>
#include <cmath>

namespace skarvel {
namespace {

constexpr double chord_error_mm = 0.01;

using Node = Outline::Node;

Node between(Node a, Node b, double t) { return {a.x + (b.x - a.x) * t, a.y + (b.y - a.y) * t}; }

Node on_curve(std::vector<Node> nodes, double t) {
    for (; nodes.size() > 1; nodes.pop_back()) {
        for (std::size_t i = 0; i + 1 < nodes.size(); ++i) nodes[i] = between(nodes[i], nodes[i + 1], t);
    }
    return nodes.front();
}

// Wang's bound: chords needed for a Bezier curve of this degree to keep within the tolerance.
int chords_for(const std::vector<Node>& nodes) {
    const auto degree = static_cast<double>(nodes.size() - 1);
    if (degree < 2) return 1;
    double bend = 0;
    for (std::size_t i = 0; i + 2 < nodes.size(); ++i) {
        bend = std::max(bend, std::hypot(nodes[i].x - 2 * nodes[i + 1].x + nodes[i + 2].x,
                                         nodes[i].y - 2 * nodes[i + 1].y + nodes[i + 2].y));
    }
    const double chords = std::sqrt(degree * (degree - 1) * bend / (8 * chord_error_mm));
    return chords_within(chords);
}

// Parameters at which one coordinate of a quadratic or cubic turns round.
std::vector<double> turning_points(const std::vector<double>& p) {
    std::vector<double> at;
    if (p.size() == 3) {
        const double bend = p[0] - 2 * p[1] + p[2];
        if (bend != 0) at.push_back((p[0] - p[1]) / bend);
    } else if (p.size() == 4) {
        const double a = -p[0] + 3 * p[1] - 3 * p[2] + p[3];
        const double b = 2 * (p[0] - 2 * p[1] + p[2]);
        const double c = p[1] - p[0];
        const double root = b * b - 4 * a * c;
        if (std::abs(a) < 1e-12) {
            if (b != 0) at.push_back(-c / b);
        } else if (root >= 0) {
            at.push_back((-b + std::sqrt(root)) / (2 * a));
            at.push_back((-b - std::sqrt(root)) / (2 * a));
        }
    }
    std::erase_if(at, [](double t) { return t <= 0 || t >= 1; });
    return at;
}

}  // namespace

int chords_within(double wanted) {
    constexpr double most_chords = 400;
    if (std::isnan(wanted)) throw OffGrid();
    return static_cast<int>(std::clamp(std::ceil(wanted), 1.0, most_chords));
}

Extent extent_of(const Outline& outline) {
    Extent e;
    bool first = true;
    const auto add = [&](Node n) {
        e = first ? Extent{n.x, n.y, n.x, n.y}
                  : Extent{std::min(e.x0, n.x), std::min(e.y0, n.y), std::max(e.x1, n.x), std::max(e.y1, n.y)};
        first = false;
    };
    for (const Outline::Contour& contour : outline.contours) {
        add(contour.start);
        Node from = contour.start;
        for (const std::vector<Node>& curve : contour.curves) {
            std::vector<Node> nodes{from};
            nodes.insert(nodes.end(), curve.begin(), curve.end());
            std::vector<double> xs, ys;
            for (const Node& n : nodes) {
                xs.push_back(n.x);
                ys.push_back(n.y);
            }
            for (const double t : turning_points(xs)) add(on_curve(nodes, t));
            for (const double t : turning_points(ys)) add(on_curve(nodes, t));
            from = nodes.back();
            add(from);
        }
    }
    return e;
}

Region flatten(const Outline& outline, double x_mm, double y_mm) {
    std::vector<Ring> rings;
    for (const Outline::Contour& contour : outline.contours) {
        Ring ring;
        const auto add = [&](Node p) {
            const Point q{grid_from_mm(p.x), grid_from_mm(p.y)};
            if (ring.empty() || ring.back() != q) ring.push_back(q);
        };
        Node from{contour.start.x * x_mm, contour.start.y * y_mm};
        add(from);
        for (const std::vector<Node>& curve : contour.curves) {
            std::vector<Node> nodes{from};
            for (const Node& n : curve) nodes.push_back({n.x * x_mm, n.y * y_mm});
            const int chords = chords_for(nodes);
            for (int i = 1; i < chords; ++i) add(on_curve(nodes, static_cast<double>(i) / chords));
            from = nodes.back();
            add(from);
        }
        while (ring.size() > 1 && ring.front() == ring.back()) ring.pop_back();
        if (ring.size() >= 3) rings.push_back(std::move(ring));
    }
    return Region::from_rings(rings);
}

}  // namespace skarvel
