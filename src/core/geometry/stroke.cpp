#include "geometry/stroke.h"

#include <algorithm>
#include <cmath>
#include <polyclipping/clipper.hpp>

#include "geometry/tangle.h"

namespace skarvel {

namespace {

namespace cl = ClipperLib;

constexpr double arc_tolerance_units = 80;  // 0.01 mm

struct Direction {
    double x = 0, y = 0;
};

Direction direction(Point from, Point to) {
    const auto dx = static_cast<double>(to.x - from.x);
    const auto dy = static_cast<double>(to.y - from.y);
    const double length = std::hypot(dx, dy);
    return {dx / length, dy / length};
}

Point along(Point p, const Direction& d, double by) {
    return p + Point{std::llround(d.x * by), std::llround(d.y * by)};
}

// A line in pieces that meet where its corners are cut straight across.
struct Pieces {
    std::vector<Ring> lines;
    bool comes_back = false;    // the only piece is closed
    std::vector<Ring> corners;  // what lies between two pieces, outside of the turn
};

// The offset of the library makes corners square that are beyond its limit; a drawing's are cut from edge to edge.
Pieces parted_at_cut_corners(Ring line, bool closed, Stroke::Corners kind, double farthest, double half) {
    Pieces pieces;
    line.erase(std::unique(line.begin(), line.end()), line.end());
    while (closed && line.size() > 1 && line.front() == line.back()) line.pop_back();
    pieces.comes_back = closed;
    if (kind == Stroke::Corners::Round || line.size() < 3) {
        pieces.lines.push_back(std::move(line));
        return pieces;
    }
    const std::size_t n = line.size();
    std::vector<std::size_t> cuts;
    for (std::size_t i = closed ? 0 : 1; i < (closed ? n : n - 1); ++i) {
        const Direction in = direction(line[(i + n - 1) % n], line[i]);
        const Direction out = direction(line[i], line[(i + 1) % n]);
        // How far the sharp corner reaches from the line's own, in half widths: the inverse of the cosine of half the
        // turn.
        const double cosine = std::sqrt(std::max(0.0, (1 + in.x * out.x + in.y * out.y) / 2));
        const double reach = 1 / std::max(1e-9, cosine);
        // What a cut takes off is not seen below the grid: so curves stay in one piece.
        if (kind == Stroke::Corners::Cut ? (reach - cosine) * half < 1 : reach <= farthest) continue;
        cuts.push_back(i);
        const double outside = in.x * out.y - in.y * out.x > 0 ? half : -half;
        const auto beside = [&](const Direction& d) { return along(line[i], {d.y, -d.x}, outside); };
        Ring corner{line[i], beside(in), beside(out)};
        if (outside < 0) std::reverse(corner.begin(), corner.end());
        pieces.corners.push_back(std::move(corner));
    }
    if (closed && !cuts.empty()) {
        const std::size_t first = cuts.front();
        std::rotate(line.begin(), line.begin() + static_cast<std::ptrdiff_t>(first), line.end());
        line.push_back(line.front());
        cuts.erase(cuts.begin());
        for (std::size_t& cut : cuts) cut -= first;
        pieces.comes_back = false;
    }
    cuts.push_back(line.size() - 1);
    std::size_t from = 0;
    for (const std::size_t cut : cuts) {
        pieces.lines.emplace_back(line.begin() + static_cast<std::ptrdiff_t>(from),
                                  line.begin() + static_cast<std::ptrdiff_t>(cut) + 1);
        from = cut;
    }
    return pieces;
}

cl::Path to_path(const Ring& ring) {
    cl::Path path;
    for (const Point& p : ring) path.emplace_back(p.x, p.y);
    return path;
}

}  // namespace

Region stroked(const std::vector<Ring>& lines, const std::vector<bool>& closed, const Stroke& stroke) {
    look_for_tangles(lines, false);
    const double half = static_cast<double>(to_grid(stroke.width)) / 2;
    const double farthest = std::min(stroke.miter, 1000.0);
    // No corner that is left to the library is beyond its limit.
    cl::ClipperOffset offset(std::max(2.0, farthest) + 1, arc_tolerance_units);
    const cl::JoinType corners = stroke.corners == Stroke::Corners::Round ? cl::jtRound : cl::jtMiter;
    std::vector<Ring> covered;
    for (std::size_t i = 0; i < lines.size(); ++i) {
        Pieces pieces = parted_at_cut_corners(lines[i], closed[i], stroke.corners, farthest, half);
        if (pieces.lines.front().empty()) continue;
        bool stands_open = !closed[i];
        Stroke::Ends ends = stroke.ends;
        if (closed[i] && pieces.lines.size() == 1 && pieces.lines.front().size() == 2) {
            // There and back again: what would be corners are its ends.
            stands_open = true;
            pieces.comes_back = false;
            ends = stroke.corners == Stroke::Corners::Round ? Stroke::Ends::Round : Stroke::Ends::Flat;
        }
        Ring& first = pieces.lines.front();
        Ring& last = pieces.lines.back();
        const auto round_end = [&](Point tip, const Direction& out) {
            offset.AddPath(to_path({tip, along(tip, out, -2)}), cl::jtRound, cl::etOpenRound);
        };
        if (first.size() == 1) {
            // A line without length is a dot, but for flat ends.
            const Point at = first.front();
            if (ends == Stroke::Ends::Round) round_end(at, {1, 0});
            if (ends != Stroke::Ends::Square) continue;
            first = {along(at, {1, 0}, -half), along(at, {1, 0}, half)};
            pieces.comes_back = false;
        } else if (stands_open) {
            const auto end = [&](Point& tip, Point before) {
                const Direction out = direction(before, tip);
                if (ends == Stroke::Ends::Square) tip = along(tip, out, half);
                if (ends == Stroke::Ends::Round) round_end(tip, out);
            };
            end(first.front(), first[1]);
            end(last.back(), last[last.size() - 2]);
        }
        for (const Ring& line : pieces.lines)
            offset.AddPath(to_path(line), corners, pieces.comes_back ? cl::etClosedLine : cl::etOpenButt);
        std::move(pieces.corners.begin(), pieces.corners.end(), std::back_inserter(covered));
    }
    cl::Paths out;
    offset.Execute(out, half);
    for (const cl::Path& path : out) {
        Ring& ring = covered.emplace_back();
        for (const auto& p : path) ring.push_back({p.X, p.Y});
    }
    return Region::from_rings(covered);
}

}  // namespace skarvel
