#include "lettering/column.h"

#include <algorithm>
#include <cmath>

namespace skarvel {
namespace {

double gaps_of(const Column& column) {
    double gaps = 0;
    for (std::size_t i = 1; i < column.lines.size(); ++i) gaps += column.lines[i].gap_before;
    return gaps;
}

std::vector<ColumnSlot> in_rectangle(const Column& column, const Box& room) {
    std::vector<ColumnSlot> slots(column.lines.size());
    double snug = 0;
    double rest = gaps_of(column);
    for (std::size_t i = 0; i < column.lines.size(); ++i) {
        const ColumnLine& line = column.lines[i];
        rest += line.fixed > 0 ? line.fixed : line.gap_up;
        if (line.fixed > 0) continue;
        slots[i].scale = (grid_to_mm(room.width()) - line.gap_across) / line.widest;
        snug += slots[i].scale * line.tall;
    }
    const double left = grid_to_mm(room.height()) - rest;
    if (snug > left) {
        for (ColumnSlot& slot : slots) slot.scale *= left / snug;
    }
    return slots;
}

std::vector<ColumnSlot> in_shape(const Column& column, const Box& usable, const Region& free) {
    const Box bounds = free.bounds();
    const double room = grid_to_mm(bounds.height());
    const std::size_t n = column.lines.size();
    const double gaps = gaps_of(column);
    std::vector<double> heights(n);
    for (std::size_t i = 0; i < n; ++i) {
        const ColumnLine& line = column.lines[i];
        heights[i] = line.fixed > 0 ? line.fixed : std::max(1.0, (room * 0.8 - gaps) / static_cast<double>(n));
    }
    std::vector<ColumnSlot> slots(n);
    const auto stand = [&] {
        double total = gaps;
        for (const double h : heights) total += h;
        std::int64_t y = (bounds.low.y + bounds.high.y) / 2 + mm_to_grid(total / 2);
        for (std::size_t i = 0; i < n; ++i) {
            if (i > 0) y -= mm_to_grid(column.lines[i].gap_before);
            slots[i].top = y;
            slots[i].height = mm_to_grid(heights[i]);
            y -= slots[i].height;
        }
    };
    const auto scale_at = [&](std::size_t i) {
        const ColumnLine& line = column.lines[i];
        const Box wide = stretch_at(free, slots[i].top - slots[i].height, slots[i].top);
        slots[i].middle = wide.empty() ? (usable.low.x + usable.high.x) / 2 : (wide.low.x + wide.high.x) / 2;
        if (line.fixed > 0) return 0.0;
        return std::max(0.0, (grid_to_mm(std::max<std::int64_t>(0, wide.width())) - line.gap_across) / line.widest);
    };
    for (int round = 0; round < 40; ++round) {
        stand();
        for (std::size_t i = 0; i < n; ++i) {
            const ColumnLine& line = column.lines[i];
            const double s = scale_at(i);
            if (line.fixed <= 0) heights[i] = std::max(0.5, (heights[i] + s * line.tall + line.gap_up) / 2);
        }
        double total = gaps;
        for (const double h : heights) total += h;
        if (total > room) {
            for (std::size_t i = 0; i < n; ++i) {
                if (column.lines[i].fixed <= 0) heights[i] *= room / total;
            }
        }
    }
    stand();
    for (std::size_t i = 0; i < n; ++i) {
        const ColumnLine& line = column.lines[i];
        const double s = scale_at(i);
        if (line.fixed <= 0) slots[i].scale = std::min(s, (heights[i] - line.gap_up) / line.tall) * 0.9999;
    }
    return slots;
}

}  // namespace

Box stretch_at(const Region& free, std::int64_t low, std::int64_t high) {
    const Box bounds = free.bounds();
    if (low < bounds.low.y || high > bounds.high.y || high <= low) return {};
    const Box band{{bounds.low.x, low}, {bounds.high.x, high}};
    // What is missing from the band at any height closes that stretch of it.
    std::vector<std::pair<std::int64_t, std::int64_t>> closed;
    for (const Region& part : islands(subtract(Region::rectangle(band), free))) {
        const Box b = part.bounds();
        closed.emplace_back(b.low.x, b.high.x);
    }
    std::sort(closed.begin(), closed.end());
    closed.emplace_back(bounds.high.x, bounds.high.x);
    Box best;
    std::int64_t from = bounds.low.x;
    for (const auto& [a, b] : closed) {
        if (a - from > best.width()) best = {{from, low}, {a, high}};
        from = std::max(from, b);
    }
    return best;
}

std::vector<ColumnSlot> fit_column(const Column& column, const Box& usable, const Region& free) {
    const bool shaped =
        std::any_of(column.lines.begin(), column.lines.end(), [](const ColumnLine& l) { return l.to_shape; });
    return shaped && !free.empty() ? in_shape(column, usable, free) : in_rectangle(column, usable);
}

}  // namespace skarvel
