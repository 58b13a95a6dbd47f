#include "blank/shape.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace skarvel {
namespace {

constexpr double flat_mm = 0.01;

tl::unexpected<Problem> no(const char* id, Reason remedy = {}) {
    return refused({id, {}}, Station::Blank, std::move(remedy));
}

// Points of an arc from one angle to another, both ends in it.
void add_arc(Ring& ring, double x, double y, double radius, double from, double to) {
    const double step = 2 * std::acos(std::max(0.0, 1 - flat_mm / radius));
    // A multiple of four: a circle then reaches its four outermost points, an arch its top.
    const int chords = 4 * std::max(1, static_cast<int>(std::ceil(std::abs(to - from) / step / 4)));
    for (int i = 0; i <= chords; ++i) {
        const double angle = from + (to - from) * i / chords;
        ring.push_back({mm_to_grid(x + radius * std::cos(angle)), mm_to_grid(y + radius * std::sin(angle))});
    }
}

Region arch(const FaceSize& size, double width, double height, double rise) {
    const double spring = height - rise;
    Ring ring{{0, 0}, {mm_to_grid(width), 0}};
    if (size.arch.style == ArchStyle::Pointed) {
        const double pin = (rise * rise - width * width / 4) / width;
        const double radius = pin + width / 2;
        const double top = std::atan2(rise, pin);
        add_arc(ring, width / 2 - pin, spring, radius, 0, top);
        add_arc(ring, width / 2 + pin, spring, radius, std::numbers::pi - top, std::numbers::pi);
    } else {
        const double radius = width * width / (8 * rise) + rise / 2;
        const double half = std::asin(std::min(1.0, width / 2 / radius));
        const double low = rise > radius ? std::numbers::pi - half : half;  // more than a half round is refused before
        add_arc(ring, width / 2, height - radius, radius, std::numbers::pi / 2 - low, std::numbers::pi / 2 + low);
    }
    return Region::from_rings({ring});
}

Region arrow(const FaceSize& size) {
    const std::int64_t body = to_grid(size.length);
    const std::int64_t high = to_grid(size.width);
    const std::int64_t head = to_grid(size.head.length.value);
    const std::int64_t head_high = to_grid(size.head.height.value);
    const std::int64_t over = to_grid(size.head.overlap.value);
    const std::int64_t full = std::max(high, head_high);
    const std::int64_t foot = body - over;
    const Region shaft = Region::rectangle({{0, (full - high) / 2}, {body, (full - high) / 2 + high}});
    const Ring tip{{foot, (full - head_high) / 2}, {foot + head, full / 2}, {foot, (full - head_high) / 2 + head_high}};
    const Region right = merge(shaft, Region::from_rings({tip}));
    return size.head.right ? right : right.mirrored(right.bounds().high.x);
}

Expected<Region> drawn(const DrawnOutline& outline) {
    const Box box = outline.drawn.bounds();
    if (box.empty()) return no("blank.outline-empty");
    if (outline.known.value <= Length{}) return no("blank.outline-known");
    const double factor = static_cast<double>(to_grid(outline.known.value)) /
                          static_cast<double>(outline.by_width ? box.width() : box.height());
    // The boolean library stays exact up to 134 m.
    if (factor * static_cast<double>(std::max(box.width(), box.height())) > 8e8) return no("blank.outline-huge");
    std::vector<Ring> rings;
    for (const Ring& ring : outline.drawn.rings()) {
        Ring& scaled = rings.emplace_back();
        for (const Point& p : ring) {
            scaled.push_back({std::llround(static_cast<double>(p.x - box.low.x) * factor),
                              std::llround(static_cast<double>(p.y - box.low.y) * factor)});
        }
    }
    return Region::from_rings(rings);
}

}  // namespace

Length arc_radius(Length span, Length rise) {
    const double s = span.in_mm();
    const double h = rise.in_mm();
    return h <= 0 ? Length{} : Length::from_mm(s * s / (8 * h) + h / 2);
}

Length pointed_pin(Length span, Length rise) {
    const double s = span.in_mm();
    const double h = rise.in_mm();
    return s <= 0 ? Length{} : Length::from_mm((h * h - s * s / 4) / s);
}

Length chord(Length radius, Length from_middle) {
    const double r = radius.in_mm();
    const double d = from_middle.in_mm();
    return std::abs(d) >= r ? Length{} : Length::from_mm(2 * std::sqrt(r * r - d * d));
}

Region circle(Point middle, Length radius) {
    Ring ring;
    add_arc(ring, grid_to_mm(middle.x), grid_to_mm(middle.y), radius.in_mm(), 0, 2 * std::numbers::pi);
    ring.pop_back();
    return Region::from_rings({ring});
}

Expected<Region> shape_of(const FaceSize& size) {
    if (size.kind == Kind::Drawn) return size.outline ? drawn(*size.outline) : no("blank.outline-none");
    if (size.length <= Length{}) return no("blank.no-length");
    if (size.kind == Kind::Round) {
        const Length radius = size.length / 2;
        return circle({to_grid(radius), to_grid(radius)}, radius);
    }
    if (size.width <= Length{}) return no("blank.no-width");
    if (size.kind == Kind::Arrow) {
        if (size.head.length.value <= Length{} || size.head.height.value <= Length{}) return no("blank.no-head");
        if (size.head.overlap.value < Length{} || size.head.overlap.value > size.length ||
            size.head.overlap.value >= size.head.length.value)
            return no("blank.head-overlap");
        return arrow(size);
    }
    if (size.kind == Kind::Arch) {
        const Length rise = size.arch.style == ArchStyle::HalfRound ? size.width / 2 : size.arch.rise.value;
        if (rise <= Length{}) return no("blank.no-rise");
        if (rise > size.length) return no("blank.rise-too-high", {"blank.rise-lower", {}});
        if (size.arch.style == ArchStyle::Segmental && rise > size.width / 2) return no("blank.rise-over-half");
        if (size.arch.style == ArchStyle::Pointed && rise < size.width / 2) return no("blank.rise-under-half");
        return arch(size, size.width.in_mm(), size.length.in_mm(), rise.in_mm());
    }
    const bool upright = size.stands == Stands::Upright;
    return Region::rectangle({{0, 0}, upright ? at(size.width, size.length) : at(size.length, size.width)});
}

}  // namespace skarvel
