#include "proof/reading.h"

#include <cctype>
#include <charconv>
#include <cmath>
#include <regex>

#include "drawing/outline_file.h"

namespace skarvel {
namespace {

Point on_grid(double x_mm, double y_mm) {
    return {std::llround(x_mm * (1e6 / grid_nm)), std::llround(y_mm * (1e6 / grid_nm))};
}

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

std::optional<double> millimetres_of(const std::string& tag, const char* attribute) {
    std::smatch found;
    if (!std::regex_search(tag, found, std::regex(std::string(" ") + attribute + "=\"([0-9.]+)([a-z]*)\"")))
        return std::nullopt;
    const double value = std::stod(found[1]);
    const std::string unit = found[2];
    if (unit == "mm") return value;
    if (unit == "cm") return value * 10;
    if (unit == "in") return value * 25.4;
    return value * 25.4 / 96;  // pixels, as a file without units means them
}

Expected<std::vector<ReadPath>> from_svg(const std::string& bytes, const std::string& name) {
    auto drawn = paths_of_svg(bytes, name);
    if (!drawn) return tl::unexpected(drawn.error());
    const std::size_t begin = bytes.find("<svg");
    const std::string tag = bytes.substr(begin, bytes.find('>', begin) - begin);
    std::smatch box;
    const auto width = millimetres_of(tag, "width");
    const auto height = millimetres_of(tag, "height");
    if (!width || !height ||
        !std::regex_search(tag, box, std::regex("viewBox=\"([0-9.-]+) ([0-9.-]+) ([0-9.]+) ([0-9.]+)\"")))
        return refused({"proof.no-size", {{"file", name}}}, Station::Sections);
    return straight(*drawn, *width / std::stod(box[3]), *height);
}

// Plotter language: pen up and down, absolute, 1/40 mm.
Expected<std::vector<ReadPath>> from_hpgl(const std::string& bytes, const std::string& name) {
    std::vector<ReadPath> paths;
    bool down = false;
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
            numbers.push_back(value);
            k = static_cast<std::size_t>(stop - bytes.data());
            if (k < end && (bytes[k] == ',' || bytes[k] == ' ')) ++k;
        }
        i = end;
        if (order == "PU") down = false;
        if (order == "PD") down = true;
        if (order != "PU" && order != "PD" && order != "PA") continue;
        for (std::size_t k = 0; k + 1 < numbers.size(); k += 2) {
            const Point to{numbers[k] * unit, numbers[k + 1] * unit};
            if (down && to != at) {
                if (paths.empty() || paths.back().closed || paths.back().points.back() != at)
                    paths.push_back({{at}, false});
                ReadPath& path = paths.back();
                path.points.push_back(to);
                if (path.points.size() > 2 && path.points.front() == to) {
                    path.points.pop_back();
                    path.closed = true;
                }
            }
            at = to;
        }
    }
    return paths;
}

}  // namespace

Expected<std::vector<ReadPath>> read_cut_file(const std::string& bytes, const std::string& name, CutFormat format) {
    if (format == CutFormat::Svg) return from_svg(bytes, name);
    if (format == CutFormat::Hpgl) return from_hpgl(bytes, name);
    auto drawn = paths_of_dxf(bytes, name);
    if (!drawn) return tl::unexpected(drawn.error());
    return straight(*drawn, 1, 0);
}

}  // namespace skarvel
