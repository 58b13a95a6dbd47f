// Lines, arcs, circles, ellipses, splines and polylines of a DXF file, in blocks or not, joined end to end.
#include <dxflib/dl_codes.h>
#include <dxflib/dl_creationadapter.h>
#include <dxflib/dl_dxf.h>
#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <array>
#include <boost/math/interpolators/catmull_rom.hpp>
#include <charconv>
#include <cmath>
#include <limits>
#include <map>
#include <numbers>
#include <optional>
#include <set>
#include <sstream>
#include <string_view>

#include "drawing/outline_file.h"
#include "drawing/too_much.h"

namespace skarvel {
namespace {

using Node = Outline::Node;

// More than any drawing for a sign holds.
struct TooMuch {};
constexpr std::size_t most_straights = 400'000;  // of one spline
constexpr std::size_t most_inserts = 100'000;

// The reading library makes room for as many points, knots and edges as an entity says that it has. Refused is what
// says more than the file has lines, or fewer than none: codes 70 to 79 and 90 to 99 are such counts or small flags in
// the entities that have them.
bool says_too_many(const std::string& bytes) {
    static const std::set<std::string_view> counting{"LWPOLYLINE", "SPLINE", "LEADER", "HATCH"};
    const std::string_view all(bytes);
    const auto most = static_cast<std::int64_t>(std::count(all.begin(), all.end(), '\n')) + 256;
    bool counts = false;
    std::size_t at = 0;
    const auto line = [&] {
        const std::size_t end = std::min(all.find('\n', at), all.size());
        std::string_view words = all.substr(at, end - at);
        at = std::min(end + 1, all.size());
        while (!words.empty() && std::isspace(static_cast<unsigned char>(words.front())) != 0) words.remove_prefix(1);
        while (!words.empty() && std::isspace(static_cast<unsigned char>(words.back())) != 0) words.remove_suffix(1);
        return words;
    };
    const auto number = [](std::string_view words) {
        std::int64_t value = 0;
        if (!words.empty() && words.front() == '+') words.remove_prefix(1);
        const auto [end, error] = std::from_chars(words.data(), words.data() + words.size(), value);
        // Beyond counting is too many as well; words are none.
        return error == std::errc::result_out_of_range ? std::numeric_limits<std::int64_t>::max() : value;
    };
    while (at < all.size()) {
        // In pairs and to 32 bits, as the library takes them, whatever they are.
        const auto code = static_cast<std::int32_t>(number(line()));
        const std::string_view value = line();
        if (code == 0) counts = counting.contains(value);
        const bool count = (code >= 70 && code <= 79) || (code >= 90 && code <= 99);
        if (!counts || !count) continue;
        if (const std::int64_t said = number(value); said < 0 || said > most) return true;
    }
    return false;
}

double apart(const Node& a, const Node& b) { return std::hypot(a.x - b.x, a.y - b.y); }

// An arc as cubics of at most a quarter turn each (control points at 4/3 tan(angle/4) of the radius).
std::vector<std::vector<Node>> arc(Node c, double r, double from, double to) {
    if (!(std::abs(to - from) <= 4 * std::numbers::pi)) throw OffGrid();
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

// A spline as DXF has it (NURBS), evaluated by de Boor's recursion on weighted points.
struct Spline {
    std::size_t degree = 3;
    std::vector<std::array<double, 3>> points;  // x w, y w, w
    std::vector<double> knots;

    [[nodiscard]] bool sound() const {
        return degree >= 1 && degree <= 10 && points.size() > degree && knots.size() == points.size() + degree + 1 &&
               std::is_sorted(knots.begin(), knots.end()) && knots[degree] < knots[points.size()];
    }

    [[nodiscard]] Node at(double t) const {
        std::size_t span = degree;
        while (span + 1 < points.size() && knots[span + 1] <= t) ++span;
        std::vector<std::array<double, 3>> d(points.begin() + static_cast<long>(span - degree),
                                             points.begin() + static_cast<long>(span + 1));
        for (std::size_t r = 1; r <= degree; ++r) {
            for (std::size_t k = degree; k >= r; --k) {
                const std::size_t i = span - degree + k;
                const double width = knots[i + degree + 1 - r] - knots[i];
                const double share = width > 0 ? (t - knots[i]) / width : 0;
                for (std::size_t c = 0; c < 3; ++c) d[k][c] = d[k - 1][c] + (d[k][c] - d[k - 1][c]) * share;
            }
        }
        const auto& p = d[degree];
        return {p[0] / p[2], p[1] / p[2]};
    }

    // Straight pieces that stay within `near` of the curve.
    void flatten(double t0, const Node& from, double t1, const Node& to, double near, int depth,
                 std::vector<std::vector<Node>>& out) const {
        const double half = (t0 + t1) / 2;
        const Node middle = at(half);
        const bool far = apart(middle, {(from.x + to.x) / 2, (from.y + to.y) / 2}) > near;
        if (depth < 3 || (far && depth < 12)) {
            flatten(t0, from, half, middle, near, depth + 1, out);
            flatten(half, middle, t1, to, near, depth + 1, out);
            return;
        }
        if (out.size() >= most_straights) throw TooMuch();
        out.push_back({to});
    }

    [[nodiscard]] Stretch drawn() const {
        double size = 0;
        for (const auto& p : points) {
            size = std::max({size, std::abs(p[0] - points[0][0]), std::abs(p[1] - points[0][1])});
        }
        Stretch s{at(knots[degree]), {}};
        Node from = s.start;
        for (std::size_t i = degree; i < points.size(); ++i) {
            if (knots[i + 1] <= knots[i]) continue;
            const Node to = at(knots[i + 1]);
            flatten(knots[i], from, knots[i + 1], to, 1e-5 * size, 0, s.curves);
            from = to;
        }
        return s;
    }
};

struct Placing {
    double xx = 1, xy = 0, yx = 0, yy = 1, dx = 0, dy = 0;
    [[nodiscard]] Node of(const Node& n) const { return {xx * n.x + xy * n.y + dx, yx * n.x + yy * n.y + dy}; }
    [[nodiscard]] Placing after(const Placing& first) const {
        return {xx * first.xx + xy * first.yx, xx * first.xy + xy * first.yy,      yx * first.xx + yy * first.yx,
                yx * first.xy + yy * first.yy, xx * first.dx + xy * first.dy + dx, yx * first.dx + yy * first.dy + dy};
    }
};

Stretch placed(const Stretch& s, const Placing& at) {
    Stretch out{at.of(s.start), s.curves};
    for (auto& curve : out.curves) {
        for (Node& n : curve) n = at.of(n);
    }
    return out;
}

// Of an entity: its own colour, that of its layer, or that of the insert which puts it there.
struct Hue {
    enum class Of { Own, Layer, Insert };
    Of of = Of::Own;
    std::string rgb{};
    std::string layer{};
};

struct Coloured {
    Stretch line;
    Hue hue;
};

struct Insert {
    std::string block;
    Placing at;
    Hue hue;
};

// What the model, or a block of it, holds.
struct Shapes {
    std::vector<Coloured> closed, open;
    std::vector<Insert> inserts;
    Node base{0, 0};
};

// The index colours of the format as the reading library lists them; 7 is black on white and white on black.
std::string rgb_of(int index) {
    if (index < 1 || index > 255 || index == 7) return {};
    const auto part = [&](int i) { return static_cast<int>(std::lround(dxfColors[index][i] * 255)); };
    return fmt::format("#{:02x}{:02x}{:02x}", part(0), part(1), part(2));
}

struct Drawn {
    std::vector<DrawnPath> closed;
    std::vector<std::pair<Stretch, std::string>> open;  // with its colour
    std::vector<std::string> colours;
    std::size_t place_of(const std::string& rgb) {
        const auto at = std::find(colours.begin(), colours.end(), rgb);
        if (at != colours.end()) return static_cast<std::size_t>(at - colours.begin());
        colours.push_back(rgb);
        return colours.size() - 1;
    }
};

class Collector : public DL_CreationAdapter {
  public:
    Shapes model;
    std::map<std::string, Shapes> blocks;
    std::map<std::string, std::string> layer_colours;
    std::set<std::string> off, skipped;  // layers that are not shown, and of those the ones with something on them
    std::map<std::string, int> other;    // entities that no knife follows, by kind
    std::vector<std::string> texts;
    int on_paper = 0, tilted = 0, through_points = 0;
    bool beyond = false;  // holds curves of a kind that is not read
    double mm = 1;        // of one unit; a file that names none is taken to be in millimetres

    // Units by their numbers in the DXF reference, INSUNITS.
    void setVariableInt(const std::string& key, int value, int) override {
        static const std::map<int, double> units{{1, 25.4},    {2, 304.8},  {4, 1},      {5, 10},     {6, 1000},
                                                 {8, 2.54e-5}, {9, 0.0254}, {10, 914.4}, {13, 0.001}, {14, 100}};
        if (const auto at = units.find(value); key == "$INSUNITS" && at != units.end()) mm = at->second;
    }
    void addBlock(const DL_BlockData& b) override {
        into_ = &blocks[b.name];
        into_->base = {b.bpx, b.bpy};
    }
    void endBlock() override { into_ = &model; }
    void addLayer(const DL_LayerData& l) override {
        const int colour = getAttributes().getColor();
        layer_colours[l.name] = rgb_of(std::abs(std::max(colour, -256)));
        // Off is told by a colour below nothing; frozen, or frozen in new views, by a flag.
        if (l.off || colour < 0 || (l.flags & 3) != 0) off.insert(l.name);
    }
    void addText(const DL_TextData& t) override { take_text(t.text); }
    void addMText(const DL_MTextData& t) override { take_text(t.text); }
    void addPoint(const DL_PointData&) override { count("POINT"); }
    void addSolid(const DL_SolidData&) override { count("SOLID"); }
    void addTrace(const DL_TraceData&) override { count("TRACE"); }
    void add3dFace(const DL_3dFaceData&) override { count("3DFACE"); }
    void addHatch(const DL_HatchData&) override { count("HATCH"); }
    void addLeader(const DL_LeaderData&) override { count("LEADER"); }
    void addImage(const DL_ImageData&) override { count("IMAGE"); }
    void addXLine(const DL_XLineData&) override { count("XLINE"); }
    void addRay(const DL_RayData&) override { count("RAY"); }
    void addDimAlign(const DL_DimensionData&, const DL_DimAlignedData&) override { count("DIMENSION"); }
    void addDimLinear(const DL_DimensionData&, const DL_DimLinearData&) override { count("DIMENSION"); }
    void addDimRadial(const DL_DimensionData&, const DL_DimRadialData&) override { count("DIMENSION"); }
    void addDimDiametric(const DL_DimensionData&, const DL_DimDiametricData&) override { count("DIMENSION"); }
    void addDimAngular(const DL_DimensionData&, const DL_DimAngular2LData&) override { count("DIMENSION"); }
    void addDimAngular3P(const DL_DimensionData&, const DL_DimAngular3PData&) override { count("DIMENSION"); }
    void addDimOrdinate(const DL_DimensionData&, const DL_DimOrdinateData&) override { count("DIMENSION"); }

    void addLine(const DL_LineData& l) override { take(false, {{l.x1, l.y1}, {{{l.x2, l.y2}}}}, false); }
    void addCircle(const DL_CircleData& c) override {
        take(true, {{c.cx + c.radius, c.cy}, arc({c.cx, c.cy}, c.radius, 0, 2 * std::numbers::pi)}, true);
    }
    void addArc(const DL_ArcData& a) override {
        const double from = a.angle1 * std::numbers::pi / 180;
        double to = a.angle2 * std::numbers::pi / 180;
        if (to <= from) to += 2 * std::numbers::pi;
        take(false,
             {{a.cx + a.radius * std::cos(from), a.cy + a.radius * std::sin(from)},
              arc({a.cx, a.cy}, a.radius, from, to)},
             true);
    }
    // An ellipse is a circle of radius 1, stretched along its long axis and across it.
    void addEllipse(const DL_EllipseData& e) override {
        double to = e.angle2;
        if (to <= e.angle1) to += 2 * std::numbers::pi;
        const Placing stretch{e.mx, -e.my * e.ratio, e.my, e.mx * e.ratio, e.cx, e.cy};
        const Stretch unit{{std::cos(e.angle1), std::sin(e.angle1)}, arc({0, 0}, 1, e.angle1, to)};
        const bool whole = to - e.angle1 > 2 * std::numbers::pi - 1e-6;
        take(whole, placed(unit, stretch), false);
    }
    void addSpline(const DL_SplineData& s) override {
        endEntity();
        spline_ = Spline{s.degree, {}, {}};
        through_.clear();
        spline_closed_ = (s.flags & 1) != 0;
        keep_attributes();
    }
    void addFitPoint(const DL_FitPointData& p) override { through_.push_back({p.x, p.y}); }
    void addControlPoint(const DL_ControlPointData& p) override {
        if (spline_) spline_->points.push_back({p.x * p.w, p.y * p.w, p.w});
    }
    void addKnot(const DL_KnotData& k) override {
        if (spline_) spline_->knots.push_back(k.k);
    }
    void addPolyline(const DL_PolylineData& p) override {
        endEntity();
        polyline_ = p.flags;
        keep_attributes();
    }
    void addVertex(const DL_VertexData& v) override { vertices_.push_back(v); }
    void addInsert(const DL_InsertData& i) override {
        const auto hue = hue_here(true);
        if (!hue) return;
        const double over = mirrored() ? -1 : 1;
        const double turn = i.angle * std::numbers::pi / 180;
        const double c = std::cos(turn);
        const double s = std::sin(turn);
        for (int row = 0; row < std::clamp(i.rows, 1, 100); ++row) {
            for (int col = 0; col < std::clamp(i.cols, 1, 100); ++col) {
                if (++inserts_ > most_inserts) throw TooMuch();
                const double x = col * i.colSp;
                const double y = row * i.rowSp;
                const Placing there{
                    c * i.sx, -s * i.sy, s * i.sx, c * i.sy, i.ipx + c * x - s * y, i.ipy + s * x + c * y};
                into_->inserts.push_back({i.name, Placing{over, 0, 0, 1, 0, 0}.after(there), *hue});
            }
        }
    }
    void endSequence() override { finish(); }
    void endEntity() override { finish(); }

    // Everything that is drawn, blocks put where they are inserted, in the colour of their insert where they say so.
    // False when that is too much.
    bool draw(const Shapes& from, const Placing& at, const std::string& of_insert, int depth, Drawn& out) const {
        if (depth > 8 || out.closed.size() + out.open.size() > most_stretches) return false;
        for (const Coloured& c : from.closed) {
            const Stretch p = placed(c.line, at);
            out.closed.push_back({{p.start, p.curves}, true, out.place_of(colour(c.hue, of_insert))});
        }
        for (const Coloured& c : from.open) out.open.emplace_back(placed(c.line, at), colour(c.hue, of_insert));
        for (const Insert& i : from.inserts) {
            // Blocks within blocks multiply, also those that hold nothing, and those that are not there.
            if (++drawn_ > most_inserts) return false;
            const auto block = blocks.find(i.block);
            if (block == blocks.end()) continue;
            const Node& base = block->second.base;
            const Placing inner = at.after(i.at).after({1, 0, 0, 1, -base.x, -base.y});
            if (!draw(block->second, inner, colour(i.hue, of_insert), depth + 1, out)) return false;
        }
        return true;
    }

    static constexpr std::size_t most_stretches = 20'000;

  private:
    [[nodiscard]] std::string colour(const Hue& hue, const std::string& of_insert) const {
        if (hue.of == Hue::Of::Own) return hue.rgb;
        if (hue.of == Hue::Of::Insert) return of_insert;
        const auto at = layer_colours.find(hue.layer);
        return at == layer_colours.end() ? std::string() : at->second;
    }
    void count(const char* kind) {
        if (hue_here(false)) ++other[kind];
    }
    void take_text(const std::string& words) {
        if (hue_here(false)) texts.push_back(words);
    }

    // What a shape has in common with its sequence of points: known when it begins, needed when it ends.
    void keep_attributes() {
        kept_ = getAttributes();
        double* way = getExtrusion() == nullptr ? nullptr : getExtrusion()->getDirection();
        for (int i = 0; i < 3; ++i) kept_way_[i] = way == nullptr ? (i == 2 ? 1 : 0) : way[i];
    }

    // The plane it lies in is seen from behind: left and right change.
    [[nodiscard]] bool mirrored() const { return kept_way_[2] < 0; }

    // The colour of the entity at hand; nothing where it is not drawn: on a layer that is off, on paper beside the
    // model, or in a plane that is tilted. `flat`: it lies in a plane of its own.
    std::optional<Hue> hue_here(bool flat, bool keep = true) {
        if (keep) keep_attributes();
        const DL_Attributes& a = kept_;
        if (off.contains(a.getLayer())) {
            skipped.insert(a.getLayer());
            return std::nullopt;
        }
        if (a.isInPaperSpace()) {
            ++on_paper;
            return std::nullopt;
        }
        constexpr double upright = 1e-6;
        if (flat && (std::abs(kept_way_[0]) > upright || std::abs(kept_way_[1]) > upright)) {
            ++tilted;
            return std::nullopt;
        }
        constexpr int by_layer = 256;
        if (const int exact = a.getColor24(); exact >= 0)
            return Hue{Hue::Of::Own, fmt::format("#{:06x}", exact & 0xffffff), {}};
        if (a.getColor() == by_layer) return Hue{Hue::Of::Layer, {}, a.getLayer()};
        if (a.getColor() == 0) return Hue{Hue::Of::Insert, {}, {}};
        return Hue{Hue::Of::Own, rgb_of(a.getColor()), {}};
    }

    void take(bool closed, Stretch line, bool flat, bool keep = true) {
        const auto hue = hue_here(flat, keep);
        if (!hue) return;
        if (flat && mirrored()) line = placed(line, {-1, 0, 0, 1, 0, 0});
        (closed ? into_->closed : into_->open).push_back({std::move(line), *hue});
    }

    // A curve that is given by nothing but points on it may run in more than one way between them: here as a
    // Catmull-Rom curve (Catmull and Rom, 1974), by the packaged mathematics.
    [[nodiscard]] Stretch smooth() const {
        const bool closed = spline_closed_ || apart(through_.front(), through_.back()) == 0;
        std::vector<std::array<double, 2>> points;
        for (const Node& n : through_) {
            if (!std::isfinite(n.x) || !std::isfinite(n.y)) throw OffGrid();
            if (points.empty() || points.back() != std::array{n.x, n.y}) points.push_back({n.x, n.y});
        }
        if (closed && points.front() == points.back()) points.pop_back();
        if (points.size() < 4) {
            Stretch straight{through_.front(), {}};
            for (std::size_t i = 1; i < through_.size(); ++i) straight.curves.push_back({through_[i]});
            return straight;
        }
        const std::size_t count = points.size();
        const std::array<double, 2> end = closed ? points.front() : points.back();
        const boost::math::catmull_rom<std::array<double, 2>> curve(std::move(points), closed);
        // Points so far apart that their distance is beyond counting.
        if (!std::isfinite(curve.max_parameter())) throw OffGrid();
        Stretch out{through_.front(), {}};
        const std::size_t steps = 24 * count;
        for (std::size_t i = 1; i < steps; ++i) {
            const auto p = curve(curve.max_parameter() * static_cast<double>(i) / static_cast<double>(steps));
            out.curves.push_back({{p[0], p[1]}});
        }
        // The package reads beyond its points when it is asked for the very end.
        out.curves.push_back({{end[0], end[1]}});
        return out;
    }

    void finish() {
        if (spline_) {
            if (spline_->sound()) {
                take(false, spline_->drawn(), false, false);
            } else if (spline_->points.empty() && through_.size() > 1 && through_.size() < 10'000) {
                ++through_points;
                take(false, smooth(), false, false);
            } else {
                beyond = true;
            }
            spline_.reset();
        }
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
            if (closes || !s.curves.empty()) take(closes, std::move(s), true, false);
        }
        polyline_.reset();
        vertices_.clear();
    }

    Shapes* into_ = &model;
    std::size_t inserts_ = 0;
    mutable std::size_t drawn_ = 0;
    std::optional<Spline> spline_;
    std::optional<int> polyline_;
    std::vector<DL_VertexData> vertices_;
    std::vector<Node> through_;
    bool spline_closed_ = false;
    DL_Attributes kept_;
    std::array<double, 3> kept_way_{0, 0, 1};
};

// Ends of one colour that meet within a ten-thousandth of the drawing are joined.
void join(Drawn& drawn) {
    auto& open = drawn.open;
    double size = 0;
    for (const auto& [s, rgb] : open) {
        for (const Node& n : {s.start, s.end()}) {
            if (!std::isfinite(n.x) || !std::isfinite(n.y)) throw OffGrid();
        }
        size = std::max({size, std::abs(s.start.x), std::abs(s.start.y)});
    }
    const double near = 1e-4 * std::max(size, 1e-6);
    // Ends by the squares of a net that they lie in.
    using Square = std::pair<double, double>;
    std::map<Square, std::set<std::size_t>> ends;
    const auto square_of = [&](const Node& n) { return Square{std::floor(n.x / near), std::floor(n.y / near)}; };
    for (std::size_t i = 0; i < open.size(); ++i) {
        ends[square_of(open[i].first.start)].insert(i);
        ends[square_of(open[i].first.end())].insert(i);
    }
    const auto forget = [&](std::size_t i) {
        ends[square_of(open[i].first.start)].erase(i);
        ends[square_of(open[i].first.end())].erase(i);
    };
    // The first in the file that goes on from a point.
    const auto next_from = [&](const Node& from, const std::string& rgb) {
        std::optional<std::size_t> first;
        const Square at = square_of(from);
        for (double dx = -1; dx <= 1; ++dx) {
            for (double dy = -1; dy <= 1; ++dy) {
                const auto there = ends.find({at.first + dx, at.second + dy});
                if (there == ends.end()) continue;
                for (const std::size_t i : there->second) {
                    if (first && i >= *first) break;
                    const Stretch& other = open[i].first;
                    if (open[i].second == rgb && (apart(from, other.start) <= near || apart(from, other.end()) <= near))
                        first = i;
                }
            }
        }
        return first;
    };
    std::vector<bool> used(open.size(), false);
    for (std::size_t last = open.size(); last-- > 0;) {
        if (used[last]) continue;
        forget(last);
        auto [chain, rgb] = std::move(open[last]);
        while (apart(chain.start, chain.end()) > near) {
            const auto i = next_from(chain.end(), rgb);
            if (!i) break;
            forget(*i);
            used[*i] = true;
            const Stretch& other = open[*i].first;
            const Stretch next = apart(chain.end(), other.start) <= near ? other : other.turned();
            chain.curves.insert(chain.curves.end(), next.curves.begin(), next.curves.end());
        }
        const bool closed = apart(chain.start, chain.end()) <= near;
        drawn.closed.push_back({{chain.start, std::move(chain.curves)}, closed, drawn.place_of(rgb)});
    }
    open.clear();
}

// What the file holds that is not drawn.
std::vector<Reason> left_out(const Collector& c, const std::string& name) {
    std::vector<Reason> out;
    const auto joined = [](const auto& names) { return fmt::format("{}", fmt::join(names, ", ")); };
    if (!c.texts.empty()) {
        out.push_back({"drawing.dxf-text",
                       {{"file", name},
                        {"texts", static_cast<std::int64_t>(c.texts.size())},
                        {"first", c.texts.front().substr(0, 40)}}});
    }
    if (!c.skipped.empty()) out.push_back({"drawing.dxf-layers-off", {{"file", name}, {"layers", joined(c.skipped)}}});
    if (c.on_paper > 0) out.push_back({"drawing.dxf-paper", {{"file", name}, {"shapes", std::int64_t{c.on_paper}}}});
    if (c.tilted > 0) out.push_back({"drawing.dxf-tilted", {{"file", name}, {"shapes", std::int64_t{c.tilted}}}});
    if (c.through_points > 0)
        out.push_back({"drawing.dxf-smooth", {{"file", name}, {"curves", std::int64_t{c.through_points}}}});
    if (!c.other.empty()) {
        std::vector<std::string> kinds;
        for (const auto& [kind, n] : c.other) kinds.push_back(fmt::format("{} {}", n, kind));
        out.push_back({"drawing.dxf-other", {{"file", name}, {"kinds", joined(kinds)}}});
    }
    return out;
}

}  // namespace

Expected<DxfDrawing> drawing_of_dxf(const std::string& bytes, const std::string& name) {
    const auto no = [&](const char* id, Reason remedy = {}) {
        return refused({id, {{"file", name}}}, Station::Blank, std::move(remedy));
    };
    // The library reads text alone, and goes on for ever in what has none.
    if (bytes.find('\0') != std::string::npos) return no("outline.binary-dxf", {"outline.save-as-text", {}});
    if (says_too_many(bytes)) return too_much(name, Station::Blank);
    Collector collector;
    DL_Dxf reader;
    std::istringstream in(bytes);
    // A line that it has no room for would never end; the end of the file is found that way, too.
    in.exceptions(std::ios::failbit | std::ios::badbit);
    try {
        if (!reader.in(in, &collector)) return no("outline.not-dxf");
        collector.endEntity();
    } catch (const std::ios_base::failure&) {
        if (!in.eof()) return no("outline.not-dxf");
        collector.endEntity();
    } catch (const TooMuch&) {
        return too_much(name, Station::Blank);
    } catch (const std::bad_alloc&) {
        return too_much(name, Station::Blank);
    }
    if (collector.beyond)
        return refused({"outline.curves-unread", {{"file", name}}}, Station::Blank, {"outline.as-polyline", {}});
    Drawn drawn;
    if (!collector.draw(collector.model, {collector.mm, 0, 0, collector.mm, 0, 0}, {}, 0, drawn) ||
        drawn.open.size() > Collector::most_stretches)
        return too_much(name, Station::Blank);
    DxfDrawing out;
    out.left_out = left_out(collector, name);
    join(drawn);
    out.paths = std::move(drawn.closed);
    out.colours = std::move(drawn.colours);
    return out;
}

Expected<std::vector<DrawnPath>> paths_of_dxf(const std::string& bytes, const std::string& name) {
    auto drawing = drawing_of_dxf(bytes, name);
    if (!drawing) return tl::unexpected(drawing.error());
    return std::move(drawing->paths);
}

}  // namespace skarvel
