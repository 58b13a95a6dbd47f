#include <algorithm>
#include <limits>
#include <numeric>
#include <optional>
#include <utility>

#include "loads/loads.h"
#include "values/searches.h"
#include "values/stop.h"

namespace skarvel {
namespace {

constexpr std::size_t every_order_up_to = searches::sections_in_every_order.most;
constexpr long most_steps = searches::packing_steps.most;
constexpr std::size_t exact_up_to = searches::sections_packed_exactly.most;
constexpr std::size_t few_loads = searches::loads_shortened.most;
constexpr long most_exact_steps = searches::exact_steps.most;
constexpr long most_shorten_steps = searches::shorten_steps.most;
constexpr long most_quick_steps = searches::quick_exact_steps.most;

struct Size {
    std::int64_t width, height;
    friend bool operator==(const Size&, const Size&) = default;
};

// Sections and mat grown by the gap, so that plain rectangles that do not overlap keep it.
struct Table {
    std::vector<Size> sizes;
    std::int64_t width, height, gap;
    bool turns = true;
    std::vector<Point> places;  // on the face: what a pattern must agree with
    Point repeat;               // of the pattern; 0 where nothing has to agree
    std::int64_t shift = 0;     // across, from the face to every load
    long steps = 0;
    std::vector<std::int64_t> xs{}, ys{};  // corners looked at, kept so that they need not be made for each section
    [[nodiscard]] bool patterned() const { return repeat.x > 0 || repeat.y > 0; }
};

double area_of(Size s) { return static_cast<double>(s.width) * static_cast<double>(s.height); }
double room_area(const Table& table) { return area_of({table.width, table.height}); }

// The least place from `at` on that agrees with `with` on a pattern that repeats.
std::int64_t in_step(std::int64_t at, std::int64_t with, std::int64_t repeat) {
    if (repeat <= 0) return at;
    const std::int64_t off = (with - at) % repeat;
    return at + (off < 0 ? off + repeat : off);
}

struct Filling {
    std::vector<Placement> placements;
    std::vector<Box> boxes;
    std::int64_t reach = 0;
    double free = 0;         // area, so that a full load is not searched again and again
    std::int64_t shift = 0;  // along, from the face to this load
    std::size_t broken = 0;  // sections that lie on the pattern otherwise than the rest
};

struct Spot {
    Point at;
    bool turned = false;
    std::int64_t top = std::numeric_limits<std::int64_t>::max();
};

// The lowest place where the section fits, at the corners of what lies there.
Spot lowest_spot(Table& table, const Filling& load, std::size_t section) {
    look_for_stop();
    Spot best;
    table.xs.assign(1, 0);
    table.ys.assign(1, 0);
    for (const Box& box : load.boxes) {
        table.xs.push_back(box.high.x);
        table.ys.push_back(box.high.y);
    }
    for (const bool turned : {false, true}) {
        if (turned && !table.turns) continue;
        const Size size = turned ? Size{table.sizes[section].height, table.sizes[section].width} : table.sizes[section];
        const Point place = table.places.empty() ? Point{} : table.places[section];
        for (const std::int64_t low : table.ys) {
            const std::int64_t y = load.boxes.empty() ? low : in_step(low, place.y + load.shift, table.repeat.y);
            if (y + size.height > table.height || y + size.height >= best.top) continue;
            for (const std::int64_t left : table.xs) {
                ++table.steps;
                const std::int64_t x = in_step(left, place.x + table.shift, table.repeat.x);
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

// What a load was before a section came to it.
struct Before {
    std::size_t load;
    bool fresh;
    std::int64_t reach;
    double free;
};

Before lay(Table& table, std::vector<Filling>& loads, std::size_t section) {
    Filling* load = nullptr;
    Spot spot;
    const double area = area_of(table.sizes[section]);
    for (Filling& candidate : loads) {
        if (candidate.free < area) continue;
        spot = lowest_spot(table, candidate, section);
        if (spot.top != std::numeric_limits<std::int64_t>::max()) {
            load = &candidate;
            break;
        }
    }
    const bool fresh = load == nullptr;
    if (fresh) {
        load = &loads.emplace_back();
        load->free = room_area(table);
        spot = lowest_spot(table, *load, section);
        // Too wide to lie where the pattern would run on.
        if (spot.top == std::numeric_limits<std::int64_t>::max()) {
            const std::int64_t across = std::exchange(table.repeat.x, 0);
            spot = lowest_spot(table, *load, section);
            table.repeat.x = across;
            load->broken = 1;
        }
        if (table.patterned()) load->shift = spot.at.y - table.places[section].y;
    }
    const Size size = table.sizes[section];
    const Point extent = spot.turned ? Point{size.height, size.width} : Point{size.width, size.height};
    const Before before{static_cast<std::size_t>(load - loads.data()), fresh, load->reach, load->free};
    load->free -= area;
    load->placements.push_back({section, spot.turned, spot.at});
    load->boxes.push_back({spot.at, spot.at + extent});
    load->reach = std::max(load->reach, spot.top);
    return before;
}

void take_up(std::vector<Filling>& loads, const Before& before) {
    if (before.fresh) return loads.pop_back();
    Filling& load = loads[before.load];
    load.placements.pop_back();
    load.boxes.pop_back();
    load.reach = before.reach;
    load.free = before.free;
}

struct Cost {
    std::size_t broken = 0;  // a pattern that breaks is seen for as long as the sign hangs
    std::size_t loads = 0;
    std::int64_t film = 0;
    friend auto operator<=>(const Cost&, const Cost&) = default;
};

Cost cost(const Table& table, const std::vector<Filling>& loads) {
    Cost c{0, loads.size(), 0};
    for (const Filling& load : loads) c.broken += load.broken;
    for (const Filling& load : loads) c.film += film_to_cut(from_grid(load.reach - table.gap)).nm();
    return c;
}

// The best that comes of laying what is left in any order, beside what lies there already; what costs as much as the
// best known, however the others would lie, is followed no further. Bounded by steps.
void lay_in_every_order(Table& table, std::vector<std::size_t>& left, std::vector<Filling>& there,
                        std::vector<Filling>& best, Cost& best_cost) {
    Cost least = cost(table, there);
    double area = 0;  // that finds no room on the loads that there are
    for (const std::size_t section : left) area += area_of(table.sizes[section]);
    for (const Filling& load : there) area -= load.free;
    for (const double each = room_area(table); area > 0; area -= each) ++least.loads;
    if (least >= best_cost || table.steps >= most_steps) return;
    if (left.empty()) {
        best_cost = least;
        best = there;
        return;
    }
    for (std::size_t i = 0; i < left.size(); ++i) {
        const std::size_t section = left[i];
        const bool seen = std::any_of(left.begin(), left.begin() + static_cast<long>(i),
                                      [&](std::size_t other) { return table.sizes[other] == table.sizes[section]; });
        if (seen) continue;
        const Before before = lay(table, there, section);
        left.erase(left.begin() + static_cast<long>(i));
        lay_in_every_order(table, left, there, best, best_cost);
        left.insert(left.begin() + static_cast<long>(i), section);
        take_up(there, before);
    }
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

// Whether all of the given sections fit one width and height, exactly: the lowest gap between those that lie there
// already, leftmost of equals, takes each section in turn at its left end, either way round, or is given up to the
// height of its lower neighbour. In the order of their lower edges every packing, pushed down and to the left, comes
// about that way (Burke, Kendall and Whitwell 2004 choose by it; here it is searched in full). Bounded by steps.
class ExactFit {
  public:
    ExactFit(const Table& table, const std::vector<std::size_t>& sections, std::int64_t height, long most)
        : table_(table), height_(height), left_(sections), most_(most) {
        double area = 0;
        for (const std::size_t s : sections) area += area_of(table.sizes[s]);
        spare_ = area_of({table.width, height}) - area;
        std::sort(left_.begin(), left_.end(),
                  [&](std::size_t a, std::size_t b) { return area_of(table.sizes[a]) > area_of(table.sizes[b]); });
        skyline_.push_back({0, table.width, 0});
    }

    bool run() { return spare_ >= 0 && search(spare_); }
    [[nodiscard]] bool gave_up() const { return steps_ > most_; }
    [[nodiscard]] const std::vector<Placement>& placements() const { return placed_; }

  private:
    struct Stretch {
        std::int64_t x, width, y;
    };

    bool search(double spare) {
        if (left_.empty()) return true;
        if (++steps_ > most_) return false;
        look_for_stop();
        std::size_t gap = 0;
        for (std::size_t i = 1; i < skyline_.size(); ++i) {
            if (skyline_[i].y < skyline_[gap].y) gap = i;
        }
        const Stretch low = skyline_[gap];
        for (std::size_t i = 0; i < left_.size(); ++i) {
            const std::size_t section = left_[i];
            const Size size = table_.sizes[section];
            const bool seen = std::any_of(left_.begin(), left_.begin() + static_cast<long>(i),
                                          [&](std::size_t other) { return table_.sizes[other] == size; });
            if (seen) continue;
            for (const bool turned : {false, true}) {
                if (turned && (size.width == size.height || !table_.turns)) continue;
                const Size s = turned ? Size{size.height, size.width} : size;
                if (s.width > low.width || low.y + s.height > height_) continue;
                const std::vector<Stretch> before = skyline_;
                skyline_[gap] = {low.x, s.width, low.y + s.height};
                if (s.width < low.width)
                    skyline_.insert(skyline_.begin() + static_cast<long>(gap) + 1,
                                    {low.x + s.width, low.width - s.width, low.y});
                join();
                placed_.push_back({section, turned, {low.x, low.y}});
                left_.erase(left_.begin() + static_cast<long>(i));
                if (search(spare)) return true;
                left_.insert(left_.begin() + static_cast<long>(i), section);
                placed_.pop_back();
                skyline_ = before;
                if (gave_up()) return false;
            }
        }
        // Nothing at this height any more: the gap is lost up to its lower neighbour.
        std::int64_t up = height_;
        if (gap > 0) up = std::min(up, skyline_[gap - 1].y);
        if (gap + 1 < skyline_.size()) up = std::min(up, skyline_[gap + 1].y);
        const double lost = static_cast<double>(up - low.y) * static_cast<double>(low.width);
        if (up <= low.y || lost > spare || up >= height_) return false;
        const std::vector<Stretch> before = skyline_;
        skyline_[gap].y = up;
        join();
        if (search(spare - lost)) return true;
        skyline_ = before;
        return false;
    }

    void join() {
        for (std::size_t i = 0; i + 1 < skyline_.size();) {
            if (skyline_[i].y == skyline_[i + 1].y) {
                skyline_[i].width += skyline_[i + 1].width;
                skyline_.erase(skyline_.begin() + static_cast<long>(i) + 1);
            } else {
                ++i;
            }
        }
    }

    const Table& table_;
    std::int64_t height_;
    std::vector<std::size_t> left_;
    std::vector<Stretch> skyline_;
    std::vector<Placement> placed_;
    double spare_ = 0;
    long most_;
    long steps_ = 0;
};

std::optional<Filling> exactly(const Table& table, const std::vector<std::size_t>& sections, std::int64_t height,
                               long most) {
    ExactFit fit(table, sections, height, most);
    if (!fit.run()) return std::nullopt;
    Filling load;
    load.placements = fit.placements();
    for (const Placement& p : load.placements) {
        const Size s = table.sizes[p.section];
        const Point extent = p.turned ? Point{s.height, s.width} : Point{s.width, s.height};
        load.boxes.push_back({p.at, p.at + extent});
        load.reach = std::max(load.reach, p.at.y + extent.y);
    }
    return load;
}

// A load of few sections on less film, by whole inches, until that cannot be.
void shorten(const Table& table, Filling& load) {
    if (load.placements.size() > exact_up_to) return;
    std::vector<std::size_t> sections;
    for (const Placement& p : load.placements) sections.push_back(p.section);
    for (;;) {
        const Length film = film_to_cut(from_grid(load.reach - table.gap));
        // What reaches this far takes an inch less.
        const std::int64_t height = to_grid(film - 1.5_in) + table.gap;
        auto shorter = exactly(table, sections, height, most_shorten_steps);
        if (!shorter) return;
        load = std::move(*shorter);
    }
}

Table table_for(const std::vector<Box>& boxes, const Room& room, Length gap) {
    Table table{{},
                to_grid(room.across) + to_grid(gap),
                to_grid(room.along) + to_grid(gap),
                to_grid(gap),
                room.turns,
                {},
                {to_grid(room.repeat_across), to_grid(room.repeat_along)}};
    for (const Box& box : boxes) {
        table.sizes.push_back({box.width() + table.gap, box.height() + table.gap});
        table.places.push_back(box.low);
    }
    return table;
}

// Ways to lie on a pattern across: so that one section or another begins at the edge. Where there is one that serves
// all of them, one of these does.
std::vector<std::int64_t> shifts(const Table& table, const std::vector<std::size_t>& sections) {
    constexpr std::size_t most = searches::shifts_of_pattern.most;
    if (table.repeat.x <= 0) return {0};
    std::vector<std::int64_t> out;
    for (const std::size_t s : sections) {
        const std::int64_t shift = in_step(0, -table.places[s].x, table.repeat.x);
        if (out.size() < most && std::find(out.begin(), out.end(), shift) == out.end()) out.push_back(shift);
    }
    return out;
}

// Whether two boxes go on one mat, side by side or one above the other.
bool together(const Box& a, const Box& b, const Room& room) {
    const std::int64_t across = to_grid(room.across);
    const std::int64_t along = to_grid(room.along);
    for (const int turned : {0, 1, 2, 3}) {
        if (turned != 0 && !room.turns) break;
        const Size s = (turned & 1) != 0 ? Size{a.height(), a.width()} : Size{a.width(), a.height()};
        const Size t = (turned & 2) != 0 ? Size{b.height(), b.width()} : Size{b.width(), b.height()};
        if (s.width + t.width <= across && std::max(s.height, t.height) <= along) return true;
        if (s.height + t.height <= along && std::max(s.width, t.width) <= across) return true;
    }
    return false;
}

}  // namespace

int least_mats(const std::vector<Box>& boxes, const Room& room) {
    if (boxes.empty()) return 0;
    if (room.slants) return 1;
    std::vector<Box> order = boxes;
    std::stable_sort(order.begin(), order.end(), [](const Box& a, const Box& b) {
        return std::min(a.width(), a.height()) + std::max(a.width(), a.height()) >
               std::min(b.width(), b.height()) + std::max(b.width(), b.height());
    });
    std::vector<Box> alone;
    for (const Box& box : order) {
        const bool apart = std::all_of(alone.begin(), alone.end(), [&](const Box& other) {
            return common(box, other).empty() && !together(box, other, room);
        });
        if (apart) alone.push_back(box);
    }
    return static_cast<int>(alone.size());
}

std::vector<Length> skips_for(const Packed& packed, const std::vector<Box>& films, const Mat& bed) {
    std::vector<Length> skips(packed.loads.size());
    const std::int64_t repeat = to_grid(bed.usable.repeat_along);
    if (repeat <= 0) return skips;
    std::int64_t next = 0;  // where on the pattern the roll begins now
    for (std::size_t i = 0; i < packed.loads.size(); ++i) {
        if (packed.loads[i].empty()) continue;
        const Placement& p = packed.loads[i].front();
        const std::int64_t begins = films[p.section].low.y - p.at.y;
        if (i > 0) skips[i] = from_grid(in_step(0, begins - next, repeat));
        next = begins + to_grid(film_for(packed.loads[i], films, bed));
    }
    return skips;
}

Length film_to_cut(Length used) {
    const Length with_rest = used + 0.5_in;
    const std::int64_t inches = (with_rest.nm() + Length::nm_per_inch - 1) / Length::nm_per_inch;
    return Length::inches(inches);
}

bool fits_on(const std::vector<Box>& boxes, const Room& room, Length gap, std::size_t mats) {
    Table table = table_for(boxes, room, gap);
    const double each = room_area(table);
    double area = 0;
    std::vector<std::size_t> all;
    for (std::size_t i = 0; i < boxes.size(); ++i) {
        const Size s = table.sizes[i];
        const bool fits = (s.width <= table.width && s.height <= table.height) ||
                          (room.turns && s.height <= table.width && s.width <= table.height);
        if (!fits) return false;
        area += area_of(s);
        all.push_back(i);
    }
    if (area > each * static_cast<double>(mats)) return false;
    for (const auto& order : sorted_orders(table, all)) {
        std::vector<Filling> loads;
        for (const std::size_t section : order) {
            lay(table, loads, section);
            if (loads.size() > mats) break;
        }
        if (loads.size() <= mats) return true;
    }
    return mats == 1 && !table.patterned() && all.size() <= exact_up_to &&
           exactly(table, all, table.height, most_quick_steps).has_value();
}

Packed pack(const std::vector<Box>& boxes, const Room& room, Length gap, Effort effort) {
    Table table = table_for(boxes, room, gap);
    Packed packed;
    std::vector<std::size_t> all;
    for (std::size_t i = 0; i < boxes.size(); ++i) {
        const Size s = table.sizes[i];
        const bool fits = (s.width <= table.width && s.height <= table.height) ||
                          (room.turns && s.height <= table.width && s.width <= table.height);
        // What only lies at a slant has a load to itself.
        if (const auto slant = fits ? std::nullopt : slant_for(boxes[i].width(), boxes[i].height(), room)) {
            packed.loads.push_back({{i, false, {0, 0}, *slant}});
            continue;
        }
        (fits ? all : packed.left_over).push_back(i);
    }
    std::vector<Filling> best;
    Cost best_cost{std::numeric_limits<std::size_t>::max(), 0, 0};
    const auto attempt = [&](const std::vector<std::size_t>& order) {
        std::vector<Filling> loads;
        for (const std::size_t section : order) lay(table, loads, section);
        const Cost c = cost(table, loads);
        if (c < best_cost) {
            best_cost = c;
            best = std::move(loads);
        }
    };
    for (const std::int64_t shift : shifts(table, all)) {
        table.shift = shift;
        for (const auto& order : sorted_orders(table, all)) {
            if (best.empty() || table.steps < most_steps) attempt(order);
        }
    }
    if (effort != Effort::Quick && all.size() <= every_order_up_to && !table.patterned()) {
        std::vector<std::size_t> left = all;
        std::vector<Filling> none;
        lay_in_every_order(table, left, none, best, best_cost);
    }
    // Few sections that would share one mat by their area alone: whether they do is found out exactly.
    double area = 0;
    for (const std::size_t s : all) area += area_of(table.sizes[s]);
    if (best.size() > 1 && all.size() <= exact_up_to && area <= room_area(table) && !table.patterned()) {
        if (auto one =
                exactly(table, all, table.height, effort == Effort::Thorough ? most_exact_steps : most_quick_steps))
            best = {std::move(*one)};
    }
    if (effort == Effort::Thorough && best.size() <= few_loads && !table.patterned()) {
        for (Filling& load : best) shorten(table, load);
    }
    for (Filling& load : best) packed.loads.push_back(std::move(load.placements));
    const std::int64_t inset = to_grid(room.inset);
    for (std::vector<Placement>& load : packed.loads) {
        for (Placement& p : load) p.at = p.at + Point{inset, inset};
    }
    return packed;
}

}  // namespace skarvel
