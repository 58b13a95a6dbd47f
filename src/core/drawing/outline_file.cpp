#include "drawing/outline_file.h"
#include "drawing/nested.h"
#include "drawing/too_much.h"

#include <algorithm>
#include <cmath>

namespace skarvel {
namespace {

constexpr double larger_side_mm = 2000;

tl::unexpected<Problem> no_outline(const char* id, const std::string& name, const char* remedy = nullptr) {
    return refused({id, {{"file", name}}}, Station::Blank, remedy == nullptr ? Reason{} : Reason{remedy, {}});
}

double shoelace(const Ring& ring) {
    double twice = 0;
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point a = ring[i];
        const Point b = ring[(i + 1) % ring.size()];
        twice +=
            static_cast<double>(a.x) * static_cast<double>(b.y) - static_cast<double>(b.x) * static_cast<double>(a.y);
    }
    return twice / 2;
}

// A region and whether its path crossed itself: then winding fills other than what the path's own area says.
struct Shape {
    Region region;
    bool crosses = false;
};

Shape shape_of(const Outline::Contour& contour, double scale) {
    Outline one;
    one.contours.push_back(contour);
    Shape shape{flatten(one, scale, scale), false};
    double area = 0;
    for (const Ring& ring : shape.region.rings()) area += std::abs(shoelace(ring));
    // The same path as a polygon through its own nodes and middles, for its signed area.
    std::vector<Outline::Node> nodes{contour.start};
    for (const auto& curve : contour.curves) {
        constexpr int parts = 16;
        const Outline::Node from = nodes.back();
        for (int i = 1; i <= parts; ++i) {
            std::vector<Outline::Node> points{from};
            points.insert(points.end(), curve.begin(), curve.end());
            const double t = static_cast<double>(i) / parts;
            for (std::size_t n = points.size(); n > 1; --n) {
                for (std::size_t k = 0; k + 1 < n; ++k)
                    points[k] = {points[k].x + (points[k + 1].x - points[k].x) * t,
                                 points[k].y + (points[k + 1].y - points[k].y) * t};
            }
            nodes.push_back(points.front());
        }
    }
    double twice = 0;
    for (std::size_t i = 0; i < nodes.size(); ++i) {
        const auto& a = nodes[i];
        const auto& b = nodes[(i + 1) % nodes.size()];
        twice += a.x * b.y - b.x * a.y;
    }
    const double signed_area = std::abs(twice) / 2 * scale * scale / (grid_nm * 1e-6) / (grid_nm * 1e-6);
    shape.crosses =
        shape.region.rings().size() > 1 || std::abs(signed_area - area) > 0.02 * std::max(area, signed_area);
    return shape;
}

// What a file holds beside closed paths: of a DXF kind by kind, of an SVG as far as it is no path.
std::vector<Problem> left_out(const std::string& bytes, const std::string& name, bool svg, std::vector<Reason> of_dxf) {
    std::vector<Problem> notes;
    for (Reason& what : of_dxf) notes.push_back({std::move(what), Station::Blank, {}, Mark::Look});
    const auto holds = [&](const char* element) { return bytes.find(element) != std::string::npos; };
    if (svg && (holds("<text") || holds("<image") || holds(":text") || holds(":image")))
        notes.push_back({{"outline.not-paths", {{"file", name}}}, Station::Blank, {}, Mark::Look});
    return notes;
}

Expected<ReadOutline> outline_in(const std::string& bytes, const std::string& name) {
    if (bytes.empty()) return no_outline("outline.empty-file", name);
    if (bytes.size() > limits::file_bytes) return too_much(name, Station::Blank);
    const bool svg = bytes.find("<svg") != std::string::npos || bytes.find(":svg") != std::string::npos;
    const bool dxf = !svg && bytes.find("SECTION") != std::string::npos;
    if (!svg && !dxf) return no_outline("outline.neither", name);
    std::vector<Reason> of_dxf;
    const auto read = [&]() -> Expected<std::vector<DrawnPath>> {
        if (svg) return paths_of_svg(bytes, name, limits::nodes);
        auto drawing = drawing_of_dxf(bytes, name);
        if (!drawing) return tl::unexpected(drawing.error());
        of_dxf = std::move(drawing->left_out);
        return std::move(drawing->paths);
    };
    auto paths = read();
    if (!paths) return tl::unexpected(paths.error());
    if (paths->empty()) return no_outline("outline.no-path", name, "outline.convert-text");
    std::size_t points = 0;
    Outline all;
    for (const DrawnPath& path : *paths) {
        if (!path.closed) return no_outline("outline.open", name, "outline.close-it");
        points += path.contour.curves.size();
        all.contours.push_back(path.contour);
    }
    if (points > limits::nodes) return too_much(name, Station::Blank);
    const Extent extent = extent_of(all);
    const double larger = std::max(extent.x1 - extent.x0, extent.y1 - extent.y0);
    if (extent.empty() || !std::isfinite(larger) || larger <= 0) return no_outline("outline.no-path", name);
    std::vector<Region> shapes;
    double looks = limits::corners;
    for (Outline::Contour contour : all.contours) {
        // About its own corner, so that far-away drawings stay in range.
        const auto move = [&](Outline::Node& n) {
            n.x -= extent.x0;
            n.y -= extent.y0;
        };
        move(contour.start);
        for (auto& curve : contour.curves) std::for_each(curve.begin(), curve.end(), move);
        Shape shape = shape_of(contour, larger_side_mm / larger);
        if (shape.crosses) return no_outline("outline.crosses", name, "outline.uncross");
        // Seen once as a shape, and once for whether it crosses itself.
        if ((looks -= 2 * static_cast<double>(corners_of(shape.region))) < 0)
            return too_many_corners(name, Station::Blank);
        shapes.push_back(std::move(shape.region));
    }
    const auto made = nested(std::move(shapes), looks);
    if (!made) return too_many_corners(name, Station::Blank);
    const Region& region = *made;
    if (region.empty()) return no_outline("outline.no-path", name);
    if (islands(region).size() > 1) return no_outline("outline.several", name, "outline.one-shape");
    return ReadOutline{region.moved(Point{} - region.bounds().low), left_out(bytes, name, svg, std::move(of_dxf))};
}

}  // namespace

Expected<Region> read_outline_file(const std::string& bytes, const std::string& name) {
    auto read = read_outline(bytes, name);
    if (!read) return tl::unexpected(read.error());
    return std::move(read->outline);
}

Expected<ReadOutline> read_outline(const std::string& bytes, const std::string& name) {
    try {
        return outline_in(bytes, name);
    } catch (const Tangled&) {
        return no_outline("outline.tangled", name, "outline.simplify");
    } catch (const OffGrid&) {
        return no_outline("outline.off-grid", name, "outline.nearer");
    }
}

}  // namespace skarvel
