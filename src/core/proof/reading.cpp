#include "proof/reading.h"

#include <algorithm>
#include <boost/geometry.hpp>
#include <boost/geometry/geometries/linestring.hpp>
#include <boost/geometry/geometries/point_xy.hpp>
#include <cctype>
#include <charconv>
#include <cmath>
#include <sstream>

#include "drawing/outline_file.h"
#include "geometry/tangle.h"

namespace skarvel {
namespace {

namespace bg = boost::geometry;
using Spot = bg::model::d2::point_xy<double>;

constexpr std::size_t most_shapes = 1'000'000;

Point on_grid(double x_mm, double y_mm) { return {grid_from_mm(x_mm), grid_from_mm(y_mm)}; }

// Straight paths alone: what a knife is sent has no curves.
std::vector<ReadPath> straight(const std::vector<DrawnPath>& drawn, double mm, double up) {
    std::vector<ReadPath> paths;
    for (const DrawnPath& d : drawn) {
        ReadPath path;
        path.closed = d.closed;
        path.points.push_back(on_grid(d.contour.start.x * mm, d.contour.start.y * mm + up));
        for (const auto& curve : d.contour.curves)
            path.points.push_back(on_grid(curve.back().x * mm, curve.back().y * mm + up));
        if (path.closed && path.points.size() > 1 && path.points.front() == path.points.back()) path.points.pop_back();
        paths.push_back(std::move(path));
    }
    return paths;
}

// A number that can be reckoned with; nothing for dots alone, and for what is beyond counting.
std::optional<double> number_in(const std::string& words) {
    double value = 0;
    const auto [end, error] = std::from_chars(words.data(), words.data() + words.size(), value);
    if (error != std::errc{} || end != words.data() + words.size() || !std::isfinite(value)) return std::nullopt;
    return value;
}

// What an attribute of the tag says; nothing where there is none. By hand: a regular expression of the standard library
// takes stack for each letter, and a number of some ten thousand digits ends the program.
std::optional<std::string> said(const std::string& tag, const std::string& attribute) {
    const std::string opening = " " + attribute + "=\"";
    const std::size_t found = tag.find(opening);
    if (found == std::string::npos) return std::nullopt;
    const std::size_t from = found + opening.size();
    const std::size_t to = tag.find('"', from);
    if (to == std::string::npos) return std::nullopt;
    return tag.substr(from, to - from);
}

std::optional<double> millimetres_of(const std::string& tag, const char* attribute) {
    const auto words = said(tag, attribute);
    if (!words) return std::nullopt;
    const std::size_t digits = std::min(words->find_first_not_of("0123456789."), words->size());
    const auto value = number_in(words->substr(0, digits));
    if (!value) return std::nullopt;
    const std::string unit = words->substr(digits);
    if (unit == "mm") return *value;
    if (unit == "cm") return *value * 10;
    if (unit == "in") return *value * 25.4;
    if (!unit.empty() && unit != "px") return std::nullopt;
    return *value * 25.4 / 96;  // pixels, as a file without units means them
}

// How many of its own units a drawing is wide.
std::optional<double> units_across(const std::string& tag) {
    std::istringstream box(said(tag, "viewBox").value_or(""));
    std::string left, top, width, height, more;
    if (!(box >> left >> top >> width >> height) || box >> more) return std::nullopt;
    for (const std::string& number : {left, top, height}) {
        if (!number_in(number)) return std::nullopt;
    }
    return number_in(width);
}

Expected<std::vector<ReadPath>> from_svg(const std::string& bytes, const std::string& name) {
    auto drawn = paths_of_svg(bytes, name, most_shapes);
    if (!drawn) return tl::unexpected(drawn.error());
    const std::size_t begin = std::min(bytes.find("<svg"), bytes.size());
    const std::string tag = bytes.substr(begin, bytes.find('>', begin) - begin);
    const auto width = millimetres_of(tag, "width");
    const auto height = millimetres_of(tag, "height");
    const auto units = units_across(tag);
    if (!width || !height || !units || !(*units > 0))
        return refused({"proof.no-size", {{"file", name}}}, Station::Sections);
    return straight(*drawn, *width / *units, *height);
}

// Where the edge of a trailing knife goes while its pivot goes along `pivot`.
Ring pulled(const Ring& pivot, Length offset) {
    const auto r = static_cast<double>(to_grid(offset));
    if (r <= 0 || pivot.size() < 2) return pivot;
    const auto ahead = [](const Point& a, const Point& b) {
        return std::hypot(static_cast<double>(b.x - a.x), static_cast<double>(b.y - a.y));
    };
    const double first = ahead(pivot[0], pivot[1]);
    if (first <= 0) return pivot;
    double ex = static_cast<double>(pivot[0].x) - r * static_cast<double>(pivot[1].x - pivot[0].x) / first;
    double ey = static_cast<double>(pivot[0].y) - r * static_cast<double>(pivot[1].y - pivot[0].y) / first;
    Ring edge{{std::llround(ex), std::llround(ey)}};
    for (std::size_t i = 1; i < pivot.size(); ++i) {
        const double length = ahead(pivot[i - 1], pivot[i]);
        if (length <= 0) continue;
        const double dx = static_cast<double>(pivot[i].x - pivot[i - 1].x) / length;
        const double dy = static_cast<double>(pivot[i].y - pivot[i - 1].y) / length;
        // So fine as the edge needs it while it swings round; behind a pivot that runs on, it soon follows straight.
        constexpr double most_steps = 100'000;
        const int steps = static_cast<int>(std::clamp(std::ceil(length / (r / 40)), 1.0, most_steps));
        for (int k = 1; k <= steps; ++k) {
            const double done = length * k / steps;
            const double px = static_cast<double>(pivot[i - 1].x) + done * dx;
            const double py = static_cast<double>(pivot[i - 1].y) + done * dy;
            const double behind = std::hypot(px - ex, py - ey);
            if (behind <= 0) continue;
            ex = px - (px - ex) * r / behind;
            ey = py - (py - ey) * r / behind;
            // Once it trails straight behind it goes on so to the end of the stretch.
            constexpr double straight = 1e-4;
            const bool follows =
                std::abs((px - ex) * dy - (py - ey) * dx) < straight * r && (px - ex) * dx + (py - ey) * dy > 0;
            if (follows) {
                edge.push_back({std::llround(ex), std::llround(ey)});
                ex = static_cast<double>(pivot[i].x) - r * dx;
                ey = static_cast<double>(pivot[i].y) - r * dy;
                edge.push_back({std::llround(ex), std::llround(ey)});
                break;
            }
            // Steps while it swings on the spot are no way of the edge.
            constexpr double least_step = 16;
            const Point here{std::llround(ex), std::llround(ey)};
            if (ahead(edge.back(), here) >= least_step || (k == steps && i + 1 == pivot.size())) edge.push_back(here);
        }
    }
    // What lies within 2 um of a straight line is one.
    constexpr double on_line = 16;
    bg::model::linestring<Spot> line;
    bg::model::linestring<Spot> fewer;
    for (const Point& p : edge) line.emplace_back(static_cast<double>(p.x), static_cast<double>(p.y));
    bg::simplify(line, fewer, on_line);
    edge.clear();
    for (const Spot& p : fewer) edge.push_back({std::llround(p.x()), std::llround(p.y())});
    return edge;
}

// A path that comes back to where it began, and perhaps goes on from there, is closed: without what goes on.
void close_overcut(ReadPath& path) {
    constexpr double near = 480;  // 0.06 mm
    const Ring& p = path.points;
    double whole = 0;
    std::vector<double> gone{0};
    for (std::size_t i = 1; i < p.size(); ++i)
        gone.push_back(whole +=
                       std::hypot(static_cast<double>(p[i].x - p[i - 1].x), static_cast<double>(p[i].y - p[i - 1].y)));
    std::size_t best = 0;
    double nearest = near;
    for (std::size_t i = 1; i < p.size(); ++i) {
        if (gone[i] < whole / 2) continue;
        // To the stretch that ends here.
        const auto dx = static_cast<double>(p[i].x - p[i - 1].x);
        const auto dy = static_cast<double>(p[i].y - p[i - 1].y);
        const auto qx = static_cast<double>(p[0].x - p[i - 1].x);
        const auto qy = static_cast<double>(p[0].y - p[i - 1].y);
        const double square = dx * dx + dy * dy;
        const double t = square > 0 ? std::clamp((qx * dx + qy * dy) / square, 0.0, 1.0) : 0;
        const double off = std::hypot(qx - t * dx, qy - t * dy);
        if (off < nearest) {
            nearest = off;
            best = i;
        }
    }
    if (best < 3) return;
    path.points.resize(best);
    path.closed = true;
}

// Plotter language: pen up and down, absolute or relative, 1/40 mm.
Expected<std::vector<ReadPath>> from_hpgl(const std::string& bytes, const std::string& name, const Knife& knife) {
    std::vector<ReadPath> paths;
    bool down = false;
    bool fresh = true;  // lifted since the last stretch
    bool relative = false;
    const bool trails = knife.offset > Length{} || knife.overcut > Length{};
    Point at;
    constexpr std::int64_t unit = 25'000 / grid_nm;
    for (std::size_t i = 0; i < bytes.size();) {
        if (std::isspace(static_cast<unsigned char>(bytes[i])) != 0 || bytes[i] == ';') {
            ++i;
            continue;
        }
        if (i + 2 > bytes.size()) return refused({"proof.unreadable", {{"file", name}}}, Station::Sections);
        const std::string order = bytes.substr(i, 2);
        const std::size_t end = std::min(bytes.find(';', i), bytes.size());
        std::vector<std::int64_t> numbers;
        for (std::size_t k = i + 2; k < end;) {
            std::int64_t value = 0;
            const auto [stop, error] = std::from_chars(bytes.data() + k, bytes.data() + end, value);
            if (error != std::errc{}) return refused({"proof.unreadable", {{"file", name}}}, Station::Sections);
            if (value > grid_end / unit || value < -grid_end / unit) throw OffGrid();
            numbers.push_back(value);
            k = static_cast<std::size_t>(stop - bytes.data());
            if (k < end && (bytes[k] == ',' || bytes[k] == ' ')) ++k;
        }
        i = end;
        if (order == "PU") {
            down = false;
            fresh = true;
        }
        if (order == "PD") down = true;
        if (order == "PA") relative = false;
        if (order == "PR") relative = true;
        if (order != "PU" && order != "PD" && order != "PA" && order != "PR") continue;
        for (std::size_t k = 0; k + 1 < numbers.size(); k += 2) {
            const Point by{numbers[k] * unit, numbers[k + 1] * unit};
            const Point to = relative ? at + by : by;
            if (std::max(to.x, to.y) > grid_end || std::min(to.x, to.y) < -grid_end) throw OffGrid();
            if (down && to != at) {
                if (fresh || (paths.back().closed && !trails)) paths.push_back({{at}, false});
                fresh = false;
                ReadPath& path = paths.back();
                path.points.push_back(to);
                if (!trails && path.points.size() > 2 && path.points.front() == to) {
                    path.points.pop_back();
                    path.closed = true;
                }
            }
            at = to;
        }
    }
    for (ReadPath& path : paths) {
        if (!trails) break;
        path.points = pulled(path.points, knife.offset);
        close_overcut(path);
    }
    return paths;
}

}  // namespace

Expected<std::vector<ReadPath>> read_cut_file(const std::string& bytes, const std::string& name, CutFormat format,
                                              const Knife& knife) {
    const auto read = [&]() -> Expected<std::vector<ReadPath>> {
        if (format == CutFormat::Svg) return from_svg(bytes, name);
        if (format == CutFormat::Hpgl) return from_hpgl(bytes, name, knife);
        auto drawn = paths_of_dxf(bytes, name);
        if (!drawn) return tl::unexpected(drawn.error());
        return straight(*drawn, 1, 0);
    };
    try {
        auto paths = read();
        if (!paths) return paths;
        // What closes is made shapes of, together.
        std::vector<Ring> closed;
        for (const ReadPath& path : *paths) {
            if (path.closed) closed.push_back(path.points);
        }
        look_for_tangles(closed);
        return paths;
    } catch (const Tangled&) {
        return refused({"outline.tangled", {{"file", name}}}, Station::Sections, {"outline.simplify", {}});
    } catch (const OffGrid&) {
        return refused({"outline.off-grid", {{"file", name}}}, Station::Sections, {"outline.nearer", {}});
    }
}

}  // namespace skarvel
