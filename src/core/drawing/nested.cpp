#include "drawing/nested.h"

#include <algorithm>

#include "geometry/tangle.h"
#include "values/stop.h"

namespace skarvel {

std::size_t corners_of(const Region& shape) {
    std::size_t n = 0;
    for (const Ring& ring : shape.rings()) n += ring.size();
    return n;
}

std::optional<Region> nested(std::vector<Region> paths, double& looks) {
    struct Path {
        Region shape;
        double area, corners;
    };
    std::vector<Path> shapes;
    for (Region& path : paths) {
        const double area = path.area_mm2();
        const auto corners = static_cast<double>(corners_of(path));
        if (!path.empty()) shapes.push_back({std::move(path), area, corners});
    }
    std::stable_sort(shapes.begin(), shapes.end(), [](const Path& a, const Path& b) { return a.area > b.area; });
    std::vector<std::vector<Region>> by_depth;
    std::vector<std::size_t> depth(shapes.size());
    std::vector<std::vector<std::size_t>> holding(shapes.size());  // larger ones that one lies in, by place
    constexpr double same = 1e-6;                                  // of its area
    for (std::size_t i = 0; i < shapes.size(); ++i) {
        const auto& [shape, area, corners] = shapes[i];
        bool again = false;
        std::vector<bool> known(i, false);
        for (std::size_t k = i; k-- > 0 && !again;) {
            const Path& around = shapes[k];
            // What lies in a shape lies in all that hold this one.
            if (known[k] || !around.shape.bounds().holds(shape.bounds())) continue;
            look_for_stop();
            again = around.shape == shape;
            if (again) break;
            looks -= corners + around.corners / 50 + static_cast<double>(holding[k].size()) / 5;
            if (looks < 0) return std::nullopt;
            if (subtract(shape, around.shape).area_mm2() > same * area) continue;
            again = around.area - area <= same * area;
            depth[i] = std::max(depth[i], again ? depth[k] : depth[k] + 1);
            holding[i].push_back(k);
            for (const std::size_t outer : holding[k]) {
                if (!known[outer]) holding[i].push_back(outer);
                known[outer] = true;
            }
        }
        if (again) continue;
        by_depth.resize(std::max(by_depth.size(), depth[i] + 1));
        by_depth[depth[i]].push_back(shape);
    }
    for (const auto& level : by_depth) look_for_tangles(level);
    // A shape of one depth lies in one of the depth before: ink is what lies between the two.
    std::vector<Region> ink;
    for (std::size_t d = 0; d < by_depth.size(); d += 2) {
        const Region level = merge(by_depth[d]);
        ink.push_back(d + 1 < by_depth.size() ? subtract(level, merge(by_depth[d + 1])) : level);
    }
    return merge(ink);
}

}  // namespace skarvel
