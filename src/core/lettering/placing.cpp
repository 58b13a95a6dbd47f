#include "lettering/placing.h"

#include <algorithm>
#include <cstdlib>
#include <numeric>

namespace skarvel {
namespace {

constexpr Side sides[] = {Side::Middle, Side::Low, Side::High};

// To sixteenths, or half millimetres.
Length on_marks(Length length, const Display& display) {
    const std::int64_t step = display.unit == Unit::Inch ? Length::sixtyfourths(4).nm() : 500'000;
    const std::int64_t nm = length.nm();
    return Length::nanometres((nm >= 0 ? nm + step / 2 : nm - step / 2) / step * step);
}

struct Found {
    Hang hang;
    std::int64_t move = 0, line = 0, off = 0;
    bool equal = false;
};

Box moved(const Box& box, Point by) { return {box.low + by, box.high + by}; }

bool across_from(const Box& a, const Box& b, Axis axis) {
    const Axis other = axis == Axis::X ? Axis::Y : Axis::X;
    return along(other, a.low) < along(other, b.high) && along(other, b.low) < along(other, a.high);
}

std::optional<Found> best_line(const SnapInput& in, Axis axis) {
    const Box dragged = moved(in.thing.box, in.by);
    std::optional<Found> best;
    const auto look = [&](const ThingId& on, Side its, Side mine, std::int64_t line, std::int64_t to, bool equal,
                          Length by) {
        const std::int64_t off = to - side_of(dragged, axis, mine);
        if (std::abs(off) > in.reach) return;
        if (best && std::abs(best->off) <= std::abs(off)) return;
        best = Found{{on, its, mine, measure_of(by, in.display)}, along(axis, in.by) + off, line, off, equal};
    };
    const auto all_sides = [&](const ThingId& on, const Box& box) {
        for (const Side its : sides) {
            const std::int64_t line = side_of(box, axis, its);
            for (const Side mine : sides) {
                // A middle lines up with middles only: edges on a centre line look like an accident.
                if ((its == Side::Middle) != (mine == Side::Middle)) continue;
                look(on, its, mine, line, line, false, {});
            }
        }
    };
    all_sides(on_face, in.face);
    all_sides(on_usable, in.usable);
    for (const PlacedThing& other : in.others) all_sides(other.id, other.box);
    // Half way between the neighbours on either side.
    const PlacedThing* low = nullptr;
    const PlacedThing* high = nullptr;
    for (const PlacedThing& other : in.others) {
        if (!across_from(other.box, dragged, axis)) continue;
        const std::int64_t middle = side_of(dragged, axis, Side::Middle);
        if (along(axis, other.box.high) <= middle &&
            (low == nullptr || along(axis, other.box.high) > along(axis, low->box.high)))
            low = &other;
        if (along(axis, other.box.low) >= middle &&
            (high == nullptr || along(axis, other.box.low) < along(axis, high->box.low)))
            high = &other;
    }
    if (low != nullptr && high != nullptr) {
        const std::int64_t room = along(axis, high->box.low) - along(axis, low->box.high);
        const std::int64_t size = along(axis, dragged.high) - along(axis, dragged.low);
        const std::int64_t gap = (room - size) / 2;
        const std::int64_t to = along(axis, low->box.high) + gap;
        look(low->id, Side::High, Side::Low, to, to, true, from_grid(gap));
    }
    return best;
}

}  // namespace

Snap snap(const SnapInput& in) {
    Snap out;
    for (const Axis axis : {Axis::X, Axis::Y}) {
        auto& hang = axis == Axis::X ? out.across : out.up;
        auto& move = axis == Axis::X ? out.move.x : out.move.y;
        if (const auto found = best_line(in, axis)) {
            hang = found->hang;
            move = found->move;
            (axis == Axis::X ? out.on_x : out.on_y) = true;
            (axis == Axis::X ? out.line_x : out.line_y) = found->line;
            out.equal_gaps = out.equal_gaps || found->equal;
            continue;
        }
        hang = moved_by(std::nullopt, in.thing.box, in.face, axis, from_grid(along(axis, in.by)), in.display);
        move = side_of(in.face, axis, hang.its) + to_grid(hang.by.value) - side_of(in.thing.box, axis, hang.mine);
    }
    return out;
}

Hang moved_by(const std::optional<Hang>& now, const Box& box, const Box& face, Axis axis, Length by,
              const Display& display) {
    if (now) {
        Hang hang = *now;
        hang.by = measure_of(hang.by.value + by, {display.unit, 64});
        return hang;
    }
    const std::int64_t step = to_grid(by);
    Hang hang;
    std::int64_t least = -1;
    for (const Side side : {Side::Low, Side::High}) {
        const std::int64_t off = side_of(box, axis, side) + step - side_of(face, axis, side);
        if (least >= 0 && std::abs(off) >= least) continue;
        least = std::abs(off);
        hang = {"face", side, side, measure_of(on_marks(from_grid(off), display), {display.unit, 64})};
    }
    return hang;
}

Hang lined_up(const ThingId& on, Side side) { return {on, side, side, Measure{"0 in", {}}}; }

std::vector<std::optional<Hang>> spread(const std::vector<PlacedThing>& things, Axis axis, const Display& display) {
    if (things.size() < 3) return {};
    std::vector<std::size_t> order(things.size());
    std::iota(order.begin(), order.end(), 0);
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
        return side_of(things[a].box, axis, Side::Middle) < side_of(things[b].box, axis, Side::Middle);
    });
    const Box& first = things[order.front()].box;
    const Box& last = things[order.back()].box;
    std::int64_t free = along(axis, last.low) - along(axis, first.high);
    for (std::size_t i = 1; i + 1 < order.size(); ++i) {
        const Box& b = things[order[i]].box;
        free -= along(axis, b.high) - along(axis, b.low);
    }
    const std::int64_t gap = free / (static_cast<std::int64_t>(things.size()) - 1);
    std::vector<std::optional<Hang>> hangs(things.size());
    for (std::size_t i = 1; i + 1 < order.size(); ++i) {
        hangs[order[i]] =
            Hang{things[order[i - 1]].id, Side::High, Side::Low, measure_of(from_grid(gap), {display.unit, 64})};
    }
    return hangs;
}

}  // namespace skarvel
