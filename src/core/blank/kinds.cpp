#include "blank/kinds.h"

namespace skarvel {
namespace {

Measure inches(Length length) { return measure_of(length, {Unit::Inch, 64}); }

}  // namespace

Blank as_kind(Blank b, Kind kind) {
    if (b.kind == kind) return b;
    b.kind = kind;
    if (kind == Kind::Board) return b;
    b.stock.clear();
    const auto sized = [&](Length length, Length width, Stands stands) {
        b.length = inches(length);
        b.width = inches(width);
        b.stands = stands;
        b.clear.clear();
        b.tape = {};
    };
    switch (kind) {
        case Kind::Panel:
            sized(24_in, 17_in, Stands::Level);
            b.material = "plywood";
            break;
        case Kind::Canvas:
            sized(14_in, 11_in, Stands::Level);
            b.material = "canvas";
            break;
        case Kind::Round:
            sized(18_in, 18_in, Stands::Upright);
            break;
        case Kind::Arrow:
            sized(9.25_in, 3_in, Stands::Level);
            b.margin = inches(0.25_in);
            break;
        case Kind::Arch:
            sized(84_in, 48_in, Stands::Upright);
            b.material = "plywood";
            break;
        case Kind::Field:
            sized(30_in, 18_in, Stands::Upright);
            b.moulding = inches(2_in);
            break;
        case Kind::Drawn:
        case Kind::Board:
            break;
    }
    return b;
}

Blank with_top(Blank b, ArchStyle style) {
    b.arch.style = style;
    const Length half = b.width ? b.width->value / 2 : Length{};
    if (style == ArchStyle::Segmental && b.arch.rise.value > half) b.arch.rise = inches(half / 2);
    if (style == ArchStyle::Pointed && b.arch.rise.value < half) b.arch.rise = inches(half * 3 / 2);
    return b;
}

}  // namespace skarvel
