#include "drawing/drawing_file.h"

#include "values/stop.h"

#include <libxml/parser.h>
#include <potracelib.h>

#include <algorithm>
#include <cmath>
#include <cstring>
#include <memory>
#include <numeric>
#include <optional>

#include "drawing/nested.h"
#include "drawing/svg_plain.h"
#include "drawing/svg_tree.h"
#include "drawing/too_much.h"
#include "geometry/stroke.h"
#include "geometry/tangle.h"
#include "values/checksum.h"

namespace skarvel {
namespace {

constexpr double least_scale_mm = 600;  // flattened as if it were at least so wide

tl::unexpected<Problem> no(const char* id, const std::string& name, const char* remedy = nullptr) {
    return refused({id, {{"file", name}}}, Station::Lettering, remedy == nullptr ? Reason{} : Reason{remedy, {}});
}

using Node = Outline::Node;

std::vector<Node> flat(const Outline::Contour& contour, double scale) {
    // Chords no farther off than 0.01 mm at that scale: as geometry/outline.h has it, for lines that may be open.
    std::vector<Node> out{contour.start};
    for (const auto& curve : contour.curves) {
        std::vector<Node> nodes{out.back()};
        nodes.insert(nodes.end(), curve.begin(), curve.end());
        const auto degree = static_cast<double>(nodes.size() - 1);
        double bend = 0;
        for (std::size_t i = 0; i + 2 < nodes.size(); ++i) {
            bend = std::max(bend, scale * std::hypot(nodes[i].x - 2 * nodes[i + 1].x + nodes[i + 2].x,
                                                     nodes[i].y - 2 * nodes[i + 1].y + nodes[i + 2].y));
        }
        const int chords = chords_within(std::sqrt(degree * (degree - 1) * bend / 0.08));
        for (int i = 1; i <= chords; ++i) {
            std::vector<Node> p = nodes;
            const double t = static_cast<double>(i) / chords;
            for (; p.size() > 1; p.pop_back()) {
                for (std::size_t k = 0; k + 1 < p.size(); ++k)
                    p[k] = {p[k].x + (p[k + 1].x - p[k].x) * t, p[k].y + (p[k + 1].y - p[k].y) * t};
            }
            out.push_back(p.front());
        }
    }
    return out;
}

struct Paper {
    double x0 = 0, y0 = 0, scale = 1;  // of the drawing's units to millimetres
};

Ring on_grid(const std::vector<Node>& nodes, const Paper& paper) {
    Ring ring;
    for (const Node& n : nodes) {
        const Point p{grid_from_mm((n.x - paper.x0) * paper.scale), grid_from_mm((n.y - paper.y0) * paper.scale)};
        if (ring.empty() || ring.back() != p) ring.push_back(p);
    }
    return ring;
}

// The drawing's own frame: its lower left corner, and a scale at which it may be enlarged.
Expected<Paper> paper_for(const std::vector<DrawnPath>& paths, double mm, const std::string& name) {
    Outline all;
    std::size_t nodes = 0;
    for (const DrawnPath& p : paths) {
        nodes += p.contour.curves.size();
        all.contours.push_back(p.contour);
    }
    if (nodes > limits::nodes) return too_much(name, Station::Lettering);
    const Extent e = extent_of(all);
    const double larger = std::max(e.x1 - e.x0, e.y1 - e.y0);
    if (!std::isfinite(larger) || larger <= 0) return no("drawing.nothing", name, "outline.convert-text");
    return Paper{e.x0, e.y0, std::max(mm, least_scale_mm / larger)};
}

// Lines as they are drawn with gaps: what lies between is left out.
void dash(std::vector<Ring>& lines, std::vector<bool>& closed, const std::vector<double>& pattern, double from) {
    constexpr std::size_t most_dashes = 200'000;
    double whole = 0;
    for (const double d : pattern) whole += d;
    std::vector<Ring> dashes;
    for (std::size_t i = 0; i < lines.size(); ++i) {
        Ring line = lines[i];
        if (closed[i] && !line.empty()) line.push_back(line.front());
        double left = std::fmod(std::max(0.0, from), whole);
        std::size_t at = 0;
        for (; left >= pattern[at % pattern.size()]; ++at) left -= pattern[at % pattern.size()];
        left = pattern[at % pattern.size()] - left;
        Ring now;
        const auto end = [&] {
            if (now.size() > 1 && at % 2 == 0) dashes.push_back(now);
            now.clear();
        };
        if (!line.empty()) now.push_back(line.front());
        for (std::size_t k = 0; k + 1 < line.size(); ++k) {
            const auto dx = static_cast<double>(line[k + 1].x - line[k].x);
            const auto dy = static_cast<double>(line[k + 1].y - line[k].y);
            const double length = std::hypot(dx, dy);
            double done = 0;
            while (length - done > left && dashes.size() < most_dashes) {
                done += left;
                const Point here = line[k] + Point{std::llround(dx * done / length), std::llround(dy * done / length)};
                now.push_back(here);
                end();
                now.push_back(here);
                left = pattern[++at % pattern.size()];
            }
            left -= length - done;
            now.push_back(line[k + 1]);
        }
        end();
    }
    lines = std::move(dashes);
    closed.assign(lines.size(), false);
}

// Wider than all that can be drawn, or no number, is refused.
Length drawable(double mm) {
    if (!(std::abs(mm) <= grid_to_mm(grid_end))) throw OffGrid();
    return Length::from_mm(mm);
}

Region stroke_of(std::vector<Ring> lines, std::vector<bool> closed, const PlainShape& look, double scale) {
    std::vector<double> pattern;
    for (const double d : look.dashes) pattern.push_back(d * scale * (1e6 / grid_nm));
    // A pattern of an odd number of lengths is run through twice; one as fine as the grid is a line.
    if (pattern.size() % 2 == 1) pattern.insert(pattern.end(), pattern.begin(), pattern.end());
    const double whole = std::accumulate(pattern.begin(), pattern.end(), 0.0);
    if (!pattern.empty() && whole > 100) dash(lines, closed, pattern, look.dash_from * scale * (1e6 / grid_nm));
    Stroke stroke{drawable(look.stroke * scale)};
    if (look.cap == "round") stroke.ends = Stroke::Ends::Round;
    if (look.cap == "square") stroke.ends = Stroke::Ends::Square;
    if (look.join == "round") stroke.corners = Stroke::Corners::Round;
    if (look.join == "bevel") stroke.corners = Stroke::Corners::Cut;
    stroke.miter = look.miter;
    return stroked(lines, closed, stroke);
}

void notes_of(const PlainSvg& plain, const std::string& name, std::vector<Problem>& notes) {
    const auto note = [&](Reason what, const char* remedy) {
        notes.push_back({std::move(what), Station::Lettering, {remedy, {}}, Mark::Look});
    };
    std::string faces;
    for (const std::string& family : plain.texts) {
        const std::string shown = family.empty() ? "no typeface named" : family;
        if (faces.find(shown) == std::string::npos) faces += (faces.empty() ? "" : ", ") + shown;
    }
    if (!plain.texts.empty()) {
        note({"drawing.text",
              {{"file", name}, {"texts", static_cast<std::int64_t>(plain.texts.size())}, {"typefaces", faces}}},
             "outline.convert-text");
    }
    if (plain.pictures > 0)
        note({"drawing.pictures", {{"file", name}, {"pictures", std::int64_t{plain.pictures}}}}, "drawing.trace-it");
    for (const std::string& what : plain.left_out)
        note({"drawing.left-out-" + what, {{"file", name}}}, "drawing.as-paths");
    if (!plain.rules.empty())
        note({"drawing.rules", {{"file", name}, {"rule", plain.rules.front()}}}, "drawing.plain-style");
}

Expected<ReadDrawing> read_svg(const std::string& bytes, const std::string& name, const std::stop_token& stop,
                               const std::function<void(double)>& progress) {
    const auto document = svg_document(bytes, name);
    if (!document) return tl::unexpected(document.error());
    if (progress) progress(0.2);
    const PlainSvg plain = make_plain(document->get(), limits::nodes);
    if (plain.too_many) return too_much(name, Station::Lettering);
    if (progress) progress(0.35);
    ReadDrawing out;
    notes_of(plain, name, out.notes);
    auto paths = paths_of_tree(xmlDocGetRootElement(document->get()), name);
    if (!paths) return tl::unexpected(paths.error());
    if (paths->empty()) return no("drawing.nothing", name, "outline.convert-text");
    if (progress) progress(0.5);
    const auto paper = paper_for(*paths, plain.mm, name);
    if (!paper) return tl::unexpected(paper.error());
    std::size_t at = 0, corners = 0;
    Box box;
    while (at < paths->size()) {
        if (stop.stop_requested()) return no("drawing.stopped", name);
        const std::size_t shape = (*paths)[at].shape;
        std::vector<Ring> rings;
        std::vector<bool> closed;
        for (; at < paths->size() && (*paths)[at].shape == shape; ++at) {
            rings.push_back(on_grid(flat((*paths)[at].contour, paper->scale), *paper));
            corners += rings.back().size();
            closed.push_back((*paths)[at].closed);
        }
        if (corners > limits::corners) return too_many_corners(name, Station::Lettering);
        const PlainShape look = shape < plain.shapes.size() ? plain.shapes[shape] : PlainShape{};
        Region region = look.stroke > 0 ? stroke_of(std::move(rings), std::move(closed), look, paper->scale)
                        : look.even_odd ? Region::from_rings_even_odd(rings)
                                        : Region::from_rings(rings);
        if (region.empty()) continue;
        box = around(box, region.bounds());
        out.drawing.parts.push_back({std::move(region), look.fill, look.name});
        if (progress && out.drawing.parts.size() % 256 == 0)
            progress(0.5 + 0.5 * static_cast<double>(at) / static_cast<double>(paths->size()));
    }
    if (out.drawing.parts.empty()) return no("drawing.nothing", name, "outline.convert-text");
    look_for_tangles(shapes_of(out.drawing));
    for (DrawingPart& p : out.drawing.parts) p.shape = p.shape.moved(Point{} - box.low);
    out.width = drawable(grid_to_mm(box.width()) * plain.mm / paper->scale);
    return out;
}

Expected<ReadDrawing> read_dxf(const std::string& bytes, const std::string& name) {
    auto read = drawing_of_dxf(bytes, name);
    if (!read) return tl::unexpected(read.error());
    ReadDrawing out;
    for (Reason& what : read->left_out)
        out.notes.push_back({std::move(what), Station::Lettering, {"outline.convert-text", {}}, Mark::Look});
    if (read->paths.empty()) return no("drawing.nothing", name, "outline.convert-text");
    const auto paper = paper_for(read->paths, 1, name);
    if (!paper) return tl::unexpected(paper.error());
    std::vector<std::vector<Region>> paths(read->colours.size());
    double looks = limits::corners;
    int open = 0;
    for (const DrawnPath& p : read->paths) {
        if (!p.closed) {
            ++open;
            continue;
        }
        const Ring ring = on_grid(flat(p.contour, paper->scale), *paper);
        if ((looks -= static_cast<double>(ring.size())) < 0) return too_many_corners(name, Station::Lettering);
        Region shape = Region::from_rings({ring});
        // Drawn clockwise it is the same shape.
        if (shape.empty()) shape = Region::from_rings({Ring(ring.rbegin(), ring.rend())});
        paths[p.shape].push_back(std::move(shape));
    }
    std::vector<std::pair<std::size_t, Region>> inks;
    Box box;
    for (std::size_t i = 0; i < paths.size(); ++i) {
        look_for_stop();
        std::optional<Region> ink = nested(std::move(paths[i]), looks);
        if (!ink) return too_many_corners(name, Station::Lettering);
        if (ink->empty()) continue;
        box = around(box, ink->bounds());
        inks.emplace_back(i, std::move(*ink));
    }
    if (inks.empty()) return no("outline.open", name, "outline.close-it");
    if (open > 0) {
        out.notes.push_back({{"drawing.open", {{"file", name}, {"paths", std::int64_t{open}}}},
                             Station::Lettering,
                             {"outline.close-it", {}},
                             Mark::Look});
    }
    out.width = drawable(grid_to_mm(box.width()) / paper->scale);
    // A drawing in one colour takes that of what it is put on.
    for (const auto& [colour, ink] : inks) {
        const std::string rgb = inks.size() == 1 ? std::string() : read->colours[colour];
        for (Region& island : islands(ink.moved(Point{} - box.low)))
            out.drawing.parts.push_back({std::move(island), inks.size() > 1 && rgb.empty() ? "#000000" : rgb, {}});
    }
    return out;
}

}  // namespace

Expected<ReadDrawing> read_drawing_file(const std::string& bytes, const std::string& name, const std::stop_token& stop,
                                        const std::function<void(double)>& progress) {
    if (bytes.empty()) return no("outline.empty-file", name);
    if (bytes.size() > limits::file_bytes) return too_much(name, Station::Lettering);
    const bool svg = bytes.find("<svg") != std::string::npos || bytes.find(":svg") != std::string::npos;
    const bool dxf = !svg && bytes.find("SECTION") != std::string::npos;
    if (!svg && !dxf) return no("outline.neither", name);
    try {
        auto read = svg ? read_svg(bytes, name, stop, progress) : read_dxf(bytes, name);
        if (!read) return read;
        read->drawing.source = name;
        read->drawing.checksum = checksum_of(bytes);
        return read;
    } catch (const Tangled&) {
        return no("outline.tangled", name, "outline.simplify");
    } catch (const OffGrid&) {
        return no("outline.off-grid", name, "outline.nearer");
    }
}

Expected<FileDrawing> trace(const GreyPicture& picture, const TraceWish& wish, Length width) {
    if (width.in_mm() > grid_to_mm(grid_end)) return no("outline.off-grid", "", "outline.nearer");
    if (picture.width <= 0 || picture.height <= 0 ||
        picture.pixels.size() < static_cast<std::size_t>(picture.width) * static_cast<std::size_t>(picture.height))
        return no("drawing.no-picture", "");
    if (picture.pixels.size() > limits::pixels) {
        return refused({"limit.pixels", {{"pixels", static_cast<std::int64_t>(limits::pixels)}}}, Station::Lettering,
                       {"drawing.smaller-picture", {}});
    }
    constexpr int word = static_cast<int>(8 * sizeof(potrace_word));
    const int dy = (picture.width + word - 1) / word;
    std::vector<potrace_word> map(static_cast<std::size_t>(dy) * static_cast<std::size_t>(picture.height));
    for (int y = 0; y < picture.height; ++y) {
        for (int x = 0; x < picture.width; ++x) {
            const int value = picture.pixels[static_cast<std::size_t>(y) * static_cast<std::size_t>(picture.width) +
                                             static_cast<std::size_t>(x)];
            if ((value < wish.threshold) == wish.inverted) continue;
            // Potrace counts rows from the bottom.
            const int row = picture.height - 1 - y;
            map[static_cast<std::size_t>(row * dy + x / word)] |= potrace_word{1} << (word - 1 - x % word);
        }
    }
    potrace_bitmap_t bitmap{picture.width, picture.height, dy, map.data()};
    const std::unique_ptr<potrace_param_t, decltype(&potrace_param_free)> settings(potrace_param_default(),
                                                                                   potrace_param_free);
    settings->turdsize = std::max(0, wish.speckles);
    settings->alphamax = std::clamp(wish.corners, 0, 133) / 100.0;
    const std::unique_ptr<potrace_state_t, decltype(&potrace_state_free)> state(potrace_trace(settings.get(), &bitmap),
                                                                                potrace_state_free);
    if (!state || state->status != POTRACE_STATUS_OK) return no("drawing.no-picture", "");
    Outline outline;
    for (const potrace_path_t* path = state->plist; path != nullptr; path = path->next) {
        const potrace_curve_t& c = path->curve;
        const auto node = [](const potrace_dpoint_t& p) { return Outline::Node{p.x, p.y}; };
        Outline::Contour contour{node(c.c[c.n - 1][2]), {}};
        for (int i = 0; i < c.n; ++i) {
            if (c.tag[i] == POTRACE_CORNER) {
                contour.curves.push_back({node(c.c[i][1])});
                contour.curves.push_back({node(c.c[i][2])});
            } else {
                contour.curves.push_back({node(c.c[i][0]), node(c.c[i][1]), node(c.c[i][2])});
            }
        }
        outline.contours.push_back(std::move(contour));
    }
    const Extent e = extent_of(outline);
    if (outline.contours.empty() || e.empty()) return no("drawing.nothing-dark", "", "drawing.other-threshold");
    const double mm = std::max(width.in_mm(), least_scale_mm) / (e.x1 - e.x0);
    const Region all = flatten(outline, mm, mm);
    const Box box = all.bounds();
    FileDrawing out;
    for (Region& island : islands(all.moved(Point{} - box.low)))
        out.parts.push_back({std::move(island), "#000000", {}});
    const auto on_grid = [&](double pixel) { return grid_from_mm(pixel * mm); };
    out.picture.frame = {Point{on_grid(0), on_grid(0)} - box.low,
                         Point{on_grid(picture.width), on_grid(picture.height)} - box.low};
    return out;
}

}  // namespace skarvel
