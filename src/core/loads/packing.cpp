#include <algorithm>
#include <limits>
#include <numeric>

#include "loads/loads.h"

namespace skarvel {
namespace {

constexpr std::size_t every_order_up_to = 7;
constexpr long most_steps = 60'000;

struct Size {
    std::int64_t width, height;
};

// Sections and mat grown by the gap, so that plain rectangles that do not overlap keep it.
struct Table {
    std::vector<Size> sizes;
    std::int64_t width, height, gap;
    long steps = 0;
};

struct Lying {
    std::vector<Placement> placements;
    std::vector<Box> boxes;
    std::int64_t reach = 0;
    double free = 0;  // area, so that a full load is not searched again and again
};

struct Spot {
    Point at;
    bool turned = false;
    std::int64_t top = std::numeric_limits<std::int64_t>::max();
};

// The lowest place where the section fits, at the corners of what lies there.
Spot lowest_spot(Table& table, const Lying& load, std::size_t section) {
    Spot best;
    std::vector<std::int64_t> xs{0};
    std::vector<std::int64_t> ys{0};
    for (const Box& box : load.boxes) {
        xs.push_back(box.high.x);
        ys.push_back(box.high.y);
    }
    for (const bool turned : {false, true}) {
        const Size size = turned ? Size{table.sizes[section].height, table.sizes[section].width} : table.sizes[section];
        for (const std::int64_t y : ys) {
            if (y + size.height > table.height || y + size.height >= best.top) continue;
            for (const std::int64_t x : xs) {
                ++table.steps;
                if (x + size.width > table.width) continue;
                const Box box{{x, y}, {x + size.width, y + size.height}};
                const bool free = std::none_of(load.boxes.begin(), load.boxes.end(),
                                               [&](const Box& other) { return !common(box, other).empty(); });
                if (free && (box.high.y < best.top || (box.high.y == best.top && x < best.at.x))) {
                    best = {{x, y}, turned, box.high.y};
                }
            }
        }
    }
    return best;
}

void lay(Table& table, std::vector<Lying>& loads, std::size_t section) {
    Lying* load = nullptr;
    Spot spot;
    const double area =
        static_cast<double>(table.sizes[section].width) * static_cast<double>(table.sizes[section].height);
    for (Lying& candidate : loads) {
        if (candidate.free < area) continue;
        spot = lowest_spot(table, candidate, section);
        if (spot.top != std::numeric_limits<std::int64_t>::max()) {
            load = &candidate;
            break;
        }
    }
    if (load == nullptr) {
        load = &loads.emplace_back();
        load->free = static_cast<double>(table.width) * static_cast<double>(table.height);
        spot = lowest_spot(table, *load, section);
    }
    const Size size = table.sizes[section];
    const Point extent = spot.turned ? Point{size.height, size.width} : Point{size.width, size.height};
    load->free -= area;
    load->placements.push_back({section, spot.turned, spot.at});
    load->boxes.push_back({spot.at, spot.at + extent});
    load->reach = std::max(load->reach, spot.top);
}

struct Cost {
    std::size_t loads = 0;
    std::int64_t film = 0;
    friend auto operator<=>(const Cost&, const Cost&) = default;
};

Cost cost(const Table& table, const std::vector<Lying>& loads) {
    Cost c{loads.size(), 0};
    for (const Lying& load : loads) c.film += film_to_cut(from_grid(load.reach - table.gap)).nm();
    return c;
}

std::vector<std::vector<std::size_t>> sorted_orders(const Table& table, const std::vector<std::size_t>& all) {
    const auto by = [&](auto key) {
        std::vector<std::size_t> order = all;
        std::stable_sort(order.begin(), order.end(),
                         [&](std::size_t a, std::size_t b) { return key(table.sizes[a]) > key(table.sizes[b]); });
        return order;
    };
    return {by([](Size s) { return s.width * s.height; }),
            by([](Size s) { return std::max(s.width, s.height); }),
            by([](Size s) { return std::min(s.width, s.height); }),
            by([](Size s) { return s.height; }),
            by([](Size s) { return s.width; }),
            by([](Size s) { return s.width + s.height; }),
            all};
}

}  // namespace

Length film_to_cut(Length used) {
    const Length with_rest = used + 0.5_in;
    const std::int64_t inches = (with_rest.nm() + Length::nm_per_inch - 1) / Length::nm_per_inch;
    return Length::inches(inches);
}

Packed pack(const std::vector<Box>& boxes, const Room& room, Length gap) {
    Table table{{}, to_grid(room.across) + to_grid(gap), to_grid(room.along) + to_grid(gap), to_grid(gap)};
    Packed packed;
    std::vector<std::size_t> all;
    for (std::size_t i = 0; i < boxes.size(); ++i) {
        const Size s{boxes[i].width() + table.gap, boxes[i].height() + table.gap};
        table.sizes.push_back(s);
        const bool fits = (s.width <= table.width && s.height <= table.height) ||
                          (s.height <= table.width && s.width <= table.height);
        (fits ? all : packed.left_over).push_back(i);
    }
    std::vector<Lying> best;
    Cost best_cost{std::numeric_limits<std::size_t>::max(), 0};
    const auto attempt = [&](const std::vector<std::size_t>& order) {
        std::vector<Lying> loads;
        for (const std::size_t section : order) lay(table, loads, section);
        const Cost c = cost(table, loads);
        if (c < best_cost) {
            best_cost = c;
            best = std::move(loads);
        }
    };
    for (const auto& order : sorted_orders(table, all)) {
        if (best.empty() || table.steps < most_steps) attempt(order);
    }
    if (all.size() <= every_order_up_to) {
        std::vector<std::size_t> order = all;
        while (table.steps < most_steps && std::next_permutation(order.begin(), order.end())) attempt(order);
    }
    for (Lying& load : best) packed.loads.push_back(std::move(load.placements));
    return packed;
}

}  // namespace skarvel
