#include "lettering/gaps.h"

#include "lettering/flattened.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <optional>

namespace skarvel {
namespace {

constexpr int rows = 64;
constexpr double depth_share = 0.24;  // of the cap height: how far into a letter the eye reckons
constexpr double none = std::numeric_limits<double>::quiet_NaN();

// How far a letter reaches in each row of a band, along the line.
struct Profile {
    std::vector<double> low = std::vector<double>(rows, none), high = low;
    double first = 0, last = 0;  // its whole reach
    bool empty = true;

    void add(double along, double from, double to, double band_low, double row) {
        // The stretch of one chord at `along`, taken at its ends: chords are short.
        const int a = static_cast<int>(std::floor((std::min(from, to) - band_low) / row));
        const int b = static_cast<int>(std::floor((std::max(from, to) - band_low) / row));
        for (int i = std::max(a, 0); i <= std::min(b, rows - 1); ++i) {
            auto& l = low[static_cast<std::size_t>(i)];
            auto& h = high[static_cast<std::size_t>(i)];
            l = std::isnan(l) ? along : std::min(l, along);
            h = std::isnan(h) ? along : std::max(h, along);
        }
    }
};

struct Band {
    double low = 0, high = 0;
    bool down = false;  // a stack: the line runs downwards, the band across
    [[nodiscard]] double row() const { return (high - low) / rows; }
};

Profile profile(const Outline& outline, double dx, double dy, const Band& band) {
    Profile p;
    const auto point = [&](Outline::Node n) {
        const double x = n.x + dx;
        const double y = n.y + dy;
        return band.down ? std::pair(-y, x) : std::pair(x, y);
    };
    const auto chord = [&](Outline::Node a, Outline::Node b) {
        auto [ua, va] = point(a);
        auto [ub, vb] = point(b);
        if (p.empty) p.first = p.last = ua;
        p.empty = false;
        p.first = std::min({p.first, ua, ub});
        p.last = std::max({p.last, ua, ub});
        const int steps = std::clamp(static_cast<int>(std::ceil(std::abs(vb - va) / band.row())), 1, 4 * rows);
        for (int i = 0; i < steps; ++i) {
            const double t0 = static_cast<double>(i) / steps;
            const double t1 = static_cast<double>(i + 1) / steps;
            p.add(ua + (ub - ua) * t0, va + (vb - va) * t0, va + (vb - va) * t1, band.low, band.row());
            p.add(ua + (ub - ua) * t1, va + (vb - va) * t0, va + (vb - va) * t1, band.low, band.row());
        }
    };
    for (const Outline::Contour& c : outline.contours) {
        Outline::Node from = c.start;
        for (const auto& curve : c.curves) {
            if (curve.size() == 1) {
                chord(from, curve[0]);
            } else {
                constexpr int chords = 8;
                Outline::Node last = from;
                for (int i = 1; i <= chords; ++i) {
                    std::vector<Outline::Node> n{from};
                    n.insert(n.end(), curve.begin(), curve.end());
                    const double t = static_cast<double>(i) / chords;
                    for (; n.size() > 1; n.pop_back()) {
                        for (std::size_t k = 0; k + 1 < n.size(); ++k)
                            n[k] = {n[k].x + (n[k + 1].x - n[k].x) * t, n[k].y + (n[k + 1].y - n[k].y) * t};
                    }
                    chord(last, n.front());
                    last = n.front();
                }
            }
            from = curve.back();
        }
        chord(from, c.start);
    }
    return p;
}

// Open area between two letters as they stand.
double open_area(const Profile& a, const Profile& b, double depth, double row) {
    double area = 0;
    for (std::size_t i = 0; i < rows; ++i) {
        const double right = std::isnan(a.high[i]) ? a.last - depth : std::max(a.high[i], a.last - depth);
        const double left = std::isnan(b.low[i]) ? b.first + depth : std::min(b.low[i], b.first + depth);
        area += (left - right) * row;
    }
    return area;
}

// Where a ring's outline lies on the line of reading (`along`) at each height of a band.
struct Flat {
    std::vector<std::pair<double, double>> from, to;  // chords: (along, across)
};

Flat flat_of(const Region& region, double dx, double dy, bool down) {
    Flat out;
    const auto point = [&](Point p) {
        const double x = grid_to_mm(p.x) + dx;
        const double y = grid_to_mm(p.y) + dy;
        return down ? std::pair(-y, x) : std::pair(x, y);
    };
    for (const Ring& ring : region.rings()) {
        for (std::size_t i = 0; i < ring.size(); ++i) {
            out.from.push_back(point(ring[i]));
            out.to.push_back(point(ring[(i + 1) % ring.size()]));
        }
    }
    return out;
}

// How far the outline reaches at that height: the most of it, or the least.
std::optional<double> reach(const Flat& flat, double across, bool most) {
    std::optional<double> out;
    for (std::size_t i = 0; i < flat.from.size(); ++i) {
        const auto& [u0, v0] = flat.from[i];
        const auto& [u1, v1] = flat.to[i];
        if (std::min(v0, v1) > across || std::max(v0, v1) < across) continue;
        const double u =
            v0 == v1 ? (most ? std::max(u0, u1) : std::min(u0, u1)) : u0 + (u1 - u0) * (across - v0) / (v1 - v0);
        out = !out ? u : most ? std::max(*out, u) : std::min(*out, u);
    }
    return out;
}

// By how much the second must move along the line so that it keeps clear of the first; less than nothing where it is
// farther off. Between corners both outlines are straight, so that corners tell.
double must_move(const Flat& first, const Flat& second, double otherwise) {
    std::optional<double> most;
    const auto at = [&](double across) {
        const auto end = reach(first, across, true);
        const auto begin = reach(second, across, false);
        if (end && begin) most = std::max(most.value_or(*end - *begin), *end - *begin);
    };
    for (const auto& [along, across] : first.from) at(across);
    for (const auto& [along, across] : second.from) at(across);
    return most.value_or(otherwise);
}

// Letters as flat shapes, at a size where the grid is far finer than any stroke. A pair is compared once, however often
// it stands in the words.
class Shapes {
  public:
    Shapes(const Typeface& typeface, double least, bool down)
        : mm_(100 / typeface.cap_height),
          apart_(4 * typeface.cap_height),
          least_(Length::from_mm(std::max(0.0, least) * mm_)),
          down_(down),
          plain_([this](const Outline& outline) { return flatten(outline, mm_, mm_); }),
          grown_([this](const Outline& outline) { return grow(plain_.of(outline), least_); }) {}

    // Where a letter stands, units: along the line of reading, and across it.
    struct At {
        const ShapedLetter* letter = nullptr;
        double along = 0, across = 0;
    };
    // Units that the second must move along the line; letters that pass above one another are as good as apart.
    [[nodiscard]] double needed(const At& first, const At& second) {
        const Region& a = least_ > Length{} ? grown_.of(first.letter->outline) : plain_.of(first.letter->outline);
        const Region& b = plain_.of(second.letter->outline);
        const auto [at, fresh] = known_.try_emplace({&a, &b}, 0);
        if (fresh) at->second = must_move(flat(a, first.across), flat(b, second.across), -apart_ * mm_) / mm_;
        return at->second + first.along - second.along;
    }

  private:
    // At the beginning of the line.
    [[nodiscard]] Flat flat(const Region& region, double across) const {
        return down_ ? flat_of(region, across * mm_, 0, true) : flat_of(region, 0, across * mm_, false);
    }

    double mm_, apart_;
    Length least_;
    bool down_;
    Flattened<Region> plain_, grown_;
    std::map<std::pair<const Region*, const Region*>, double> known_;
};

// Least distance along the line, row by row.
double distance(const Profile& a, const Profile& b, double row) {
    double least = 4 * rows * row;  // as good as apart
    for (std::size_t i = 0; i < rows; ++i) {
        if (!std::isnan(a.high[i]) && !std::isnan(b.low[i])) least = std::min(least, b.low[i] - a.high[i]);
    }
    return least;
}

struct Pair {
    std::size_t second = 0;  // the letter that moves
    double area = 0;
    double need = 0;  // by how much it must move to keep its distance
};

double ratio_of(const std::vector<double>& areas) {
    if (areas.size() < 2) return 0;
    const auto [low, high] = std::minmax_element(areas.begin(), areas.end());
    constexpr double most = 99;
    return *low <= *high / most ? most : *high / *low;
}

Evened evened(const std::vector<Pair>& pairs, std::size_t letters, double height) {
    Evened out;
    out.shift.assign(letters, 0);
    if (pairs.size() < 2) return out;
    const auto moves = [&](double target) {
        std::vector<double> d;
        for (const Pair& p : pairs) d.push_back(std::max(p.need, (target - p.area) / height));
        return d;
    };
    double low = pairs.front().area;
    double high = low;
    for (const Pair& p : pairs) {
        low = std::min(low, p.area - height * std::abs(p.need));
        high = std::max(high, p.area);
    }
    const auto total = [&](double target) {
        double sum = 0;
        for (const double d : moves(target)) sum += d;
        return sum;
    };
    for (int i = 0; i < 60; ++i) {
        const double middle = (low + high) / 2;
        (total(middle) > 0 ? high : low) = middle;
    }
    const std::vector<double> d = moves(low);
    std::vector<double> before, after;
    double shift = 0;
    std::size_t next = 0;
    for (std::size_t i = 0; i < letters; ++i) {
        if (next < pairs.size() && pairs[next].second == i) {
            const Pair& p = pairs[next];
            before.push_back(p.area);
            after.push_back(p.area + height * d[next]);
            if (p.need > (low - p.area) / height + 1e-9) out.held.push_back(i);
            shift += d[next++];
        }
        out.shift[i] = shift;
    }
    out.were = ratio_of(before);
    out.are = ratio_of(after);
    return out;
}

bool stands(const ShapedLetter& letter) { return !letter.missing && !letter.blank; }

}  // namespace

Evened even_line(const std::vector<ShapedLetter>& line, const Typeface& typeface, double extra, double least) {
    int low_ones = 0;
    int all = 0;
    for (const ShapedLetter& letter : line) {
        if (!stands(letter)) continue;
        const Extent e = extent_of(letter.outline);
        if (e.empty()) continue;
        ++all;
        low_ones += e.y1 < typeface.x_height * 1.12 ? 1 : 0;
    }
    const Band band{0, low_ones * 2 >= all ? typeface.x_height : typeface.cap_height};
    const double depth = depth_share * typeface.cap_height;
    Shapes shapes(typeface, least, false);
    std::vector<Pair> pairs;
    std::optional<Profile> last;
    Shapes::At last_at;
    for (std::size_t i = 0; i < line.size(); ++i) {
        if (!stands(line[i])) {
            last.reset();
            continue;
        }
        const double x = line[i].x + extra * static_cast<double>(i);
        Profile p = profile(line[i].outline, x, 0, band);
        if (p.empty) continue;
        if (last) {
            pairs.push_back({i, open_area(*last, p, depth, band.row()), shapes.needed(last_at, {&line[i], x, 0})});
        }
        last = std::move(p);
        last_at = {&line[i], x, 0};
    }
    return evened(pairs, line.size(), band.high - band.low);
}

Evened even_stack(const std::vector<const ShapedLetter*>& stack, const Typeface& typeface, double gap, double least) {
    double widest = 0;
    for (const ShapedLetter* letter : stack) {
        const Extent e = extent_of(letter->outline);
        widest = std::max(widest, e.x1 - e.x0);
    }
    const Band band{-widest / 2, widest / 2, true};
    const double depth = depth_share * typeface.cap_height;
    Shapes shapes(typeface, least, true);
    std::vector<Pair> pairs;
    std::optional<Profile> last;
    Shapes::At last_at;
    double down = 0;
    for (std::size_t i = 0; i < stack.size(); ++i) {
        const Extent e = extent_of(stack[i]->outline);
        if (!stands(*stack[i]) || e.empty()) {
            down += gap;
            last.reset();
            continue;
        }
        // Its top lies `down` below the start.
        const double dx = -(e.x0 + e.x1) / 2;
        const double dy = -e.y1 - down;
        Profile p = profile(stack[i]->outline, dx, dy, band);
        down += e.y1 - e.y0 + gap;
        if (last) {
            pairs.push_back({i, open_area(*last, p, depth, band.row()), shapes.needed(last_at, {stack[i], -dy, dx})});
        }
        last = std::move(p);
        last_at = {stack[i], -dy, dx};
    }
    return evened(pairs, stack.size(), band.high - band.low);
}

Joined join_line(const std::vector<ShapedLetter>& line, const Typeface& typeface, double extra) {
    // Outlines are compared at a size where the grid is far finer than any stroke.
    const double mm = 100 / typeface.cap_height;
    Flattened<Region> shapes([mm](const Outline& outline) { return flatten(outline, mm, mm); });
    Joined out;
    out.shift.assign(line.size(), 0);
    double shift = 0;
    std::optional<Region> last;
    std::optional<Profile> last_profile;
    std::size_t last_at = 0;
    const Band band{-typeface.cap_height / 2, typeface.cap_height * 1.2};
    for (std::size_t i = 0; i < line.size(); ++i) {
        out.shift[i] = shift;
        if (!stands(line[i])) {
            last.reset();
            continue;
        }
        const double x = line[i].x + extra * static_cast<double>(i) + shift;
        const Region& shape = shapes.of(line[i].outline);
        if (shape.empty()) continue;
        const auto at = [&](double units) { return shape.moved({std::llround(units * mm * (1e6 / grid_nm)), 0}); };
        Region here = at(x);
        Profile p = profile(line[i].outline, x, 0, band);
        if (last && !touch(*last, here)) {
            const double overlap = 0.02 * typeface.cap_height;
            double by = std::max(0.0, distance(*last_profile, p, band.row())) + overlap;
            const double most = 0.4 * typeface.cap_height;
            bool met = false;
            for (; by <= most && !met; by += overlap) {
                here = at(x - by);
                met = touch(*last, here);
                if (met) break;
            }
            if (met) {
                // A little more, so that they are held by more than a point.
                by += overlap;
                here = at(x - by);
                shift -= by;
                out.shift[i] = shift;
                p = profile(line[i].outline, x - by, 0, band);
                ++out.closed;
            } else {
                here = at(x);
                out.open.push_back(line[last_at].text + line[i].text);
            }
        }
        last = std::move(here);
        last_profile = std::move(p);
        last_at = i;
    }
    return out;
}

}  // namespace skarvel
