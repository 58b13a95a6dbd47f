// Lines, arcs, circles and polylines of a DXF file, joined end to end.
#include <dxflib/dl_creationadapter.h>
#include <dxflib/dl_dxf.h>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <optional>
#include <sstream>

#include "drawing/outline_file.h"

namespace skarvel {
namespace {

using Node = Outline::Node;

double apart(const Node& a, const Node& b) { return std::hypot(a.x - b.x, a.y - b.y); }

// An arc as cubics of at most a quarter turn each (control points at 4/3 tan(angle/4) of the radius).
std::vector<std::vector<Node>> arc(Node c, double r, double from, double to) {
    const int parts = std::max(1, static_cast<int>(std::ceil(std::abs(to - from) / (std::numbers::pi / 4) - 1e-9)));
    std::vector<std::vector<Node>> curves;
    const double step = (to - from) / parts;
    const double k = 4.0 / 3 * std::tan(step / 4) * r;
    for (int i = 0; i < parts; ++i) {
        const double a = from + step * i;
        const double b = a + step;
        curves.push_back({{c.x + r * std::cos(a) - k * std::sin(a), c.y + r * std::sin(a) + k * std::cos(a)},
                          {c.x + r * std::cos(b) + k * std::sin(b), c.y + r * std::sin(b) - k * std::cos(b)},
                          {c.x + r * std::cos(b), c.y + r * std::sin(b)}});
    }
    return curves;
}

struct Stretch {
    Node start;
    std::vector<std::vector<Node>> curves;
    [[nodiscard]] Node end() const { return curves.back().back(); }
    [[nodiscard]] Stretch turned() const {
        Stretch t{end(), {}};
        for (std::size_t i = curves.size(); i-- > 0;) {
            const Node before = i == 0 ? start : curves[i - 1].back();
            std::vector<Node> back(curves[i].rbegin() + 1, curves[i].rend());
            back.push_back(before);
            t.curves.push_back(std::move(back));
        }
        return t;
    }
};

class Collector : public DL_CreationAdapter {
  public:
    std::vector<DrawnPath> closed;
    std::vector<Stretch> open;
    bool beyond = false;  // holds curves of a kind that is not read

    void addLine(const DL_LineData& l) override { open.push_back({{l.x1, l.y1}, {{{l.x2, l.y2}}}}); }
    void addCircle(const DL_CircleData& c) override {
        closed.push_back({{{c.cx + c.radius, c.cy}, arc({c.cx, c.cy}, c.radius, 0, 2 * std::numbers::pi)}, true});
    }
    void addArc(const DL_ArcData& a) override {
        const double from = a.angle1 * std::numbers::pi / 180;
        double to = a.angle2 * std::numbers::pi / 180;
        if (to <= from) to += 2 * std::numbers::pi;
        open.push_back({{a.cx + a.radius * std::cos(from), a.cy + a.radius * std::sin(from)},
                        arc({a.cx, a.cy}, a.radius, from, to)});
    }
    void addPolyline(const DL_PolylineData& p) override {
        endEntity();
        polyline_ = p.flags;
    }
    void addVertex(const DL_VertexData& v) override { vertices_.push_back(v); }
    void addSpline(const DL_SplineData&) override { beyond = true; }
    void addEllipse(const DL_EllipseData&) override { beyond = true; }
    void addInsert(const DL_InsertData&) override { beyond = true; }
    void endSequence() override { finish(); }
    void endEntity() override { finish(); }

  private:
    void finish() {
        if (polyline_ && vertices_.size() > 1) {
            Stretch s{{vertices_[0].x, vertices_[0].y}, {}};
            const bool closes = (*polyline_ & 1) != 0;
            const std::size_t count = vertices_.size() - (closes ? 0 : 1);
            for (std::size_t i = 0; i < count; ++i) {
                const DL_VertexData& a = vertices_[i];
                const DL_VertexData& b = vertices_[(i + 1) % vertices_.size()];
                // The bulge is the tangent of a quarter of the arc's angle.
                if (std::abs(a.bulge) < 1e-12) {
                    s.curves.push_back({{b.x, b.y}});
                    continue;
                }
                const double angle = 4 * std::atan(a.bulge);
                const double half = std::hypot(b.x - a.x, b.y - a.y) / 2;
                if (half <= 0) continue;
                const double r = half / std::sin(std::abs(angle) / 2);
                const double along = std::atan2(b.y - a.y, b.x - a.x);
                const double side = std::cos(std::abs(angle) / 2) * r * (a.bulge > 0 ? 1 : -1);
                const Node c{(a.x + b.x) / 2 - side * std::sin(along), (a.y + b.y) / 2 + side * std::cos(along)};
                const double from = std::atan2(a.y - c.y, a.x - c.x);
                for (auto& curve : arc(c, r, from, from + angle)) s.curves.push_back(std::move(curve));
            }
            if (closes) {
                closed.push_back({{s.start, s.curves}, true});
            } else if (!s.curves.empty()) {
                open.push_back(std::move(s));
            }
        }
        polyline_.reset();
        vertices_.clear();
    }

    std::optional<int> polyline_;
    std::vector<DL_VertexData> vertices_;
};

}  // namespace

Expected<std::vector<DrawnPath>> paths_of_dxf(const std::string& bytes, const std::string& name) {
    Collector collector;
    DL_Dxf reader;
    std::istringstream in(bytes);
    if (!reader.in(in, &collector)) return refused({"outline.not-dxf", {{"file", name}}}, "blank");
    collector.endEntity();
    if (collector.beyond)
        return refused({"outline.curves-unread", {{"file", name}}}, "blank", {"outline.as-polyline", {}});
    std::vector<DrawnPath> paths = std::move(collector.closed);
    // Ends that meet within a ten-thousandth of the drawing are joined.
    double size = 0;
    for (const Stretch& s : collector.open) size = std::max({size, std::abs(s.start.x), std::abs(s.start.y)});
    const double near = 1e-4 * std::max(size, 1e-6);
    std::vector<Stretch> open = std::move(collector.open);
    if (open.size() > 20'000) return refused({"outline.huge", {{"file", name}}}, "blank", {"outline.simplify", {}});
    while (!open.empty()) {
        Stretch chain = std::move(open.back());
        open.pop_back();
        for (bool grown = true; grown && apart(chain.start, chain.end()) > near;) {
            grown = false;
            for (std::size_t i = 0; i < open.size() && !grown; ++i) {
                const bool forwards = apart(chain.end(), open[i].start) <= near;
                if (!forwards && apart(chain.end(), open[i].end()) > near) continue;
                const Stretch next = forwards ? open[i] : open[i].turned();
                chain.curves.insert(chain.curves.end(), next.curves.begin(), next.curves.end());
                open.erase(open.begin() + static_cast<long>(i));
                grown = true;
            }
        }
        paths.push_back({{chain.start, chain.curves}, apart(chain.start, chain.end()) <= near});
    }
    return paths;
}

}  // namespace skarvel
