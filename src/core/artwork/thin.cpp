#include "artwork/thin.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <optional>
#include <utility>

#include "values/stop.h"

namespace skarvel {
namespace {

constexpr double opposite = -0.8;  // cosine between the ways to both nearest points: more than 143 degrees apart
constexpr double slender = 5;      // times as long as wide: no more than what a sharp corner itself explains

double off_line(Point p, Point a, Point b) {
    const double dx = static_cast<double>(b.x - a.x);
    const double dy = static_cast<double>(b.y - a.y);
    const double length = std::hypot(dx, dy);
    const double px = static_cast<double>(p.x - a.x);
    const double py = static_cast<double>(p.y - a.y);
    if (length == 0) return std::hypot(px, py);
    const double t = std::clamp((px * dx + py * dy) / (length * length), 0.0, 1.0);
    return std::hypot(px - t * dx, py - t * dy);
}

// Corners sharper than 60 degrees, pointing either way: strokes and gaps run out to nothing there, as they are drawn
// to.
std::vector<Point> sharp_corners(const std::vector<Ring>& rings) {
    std::vector<Point> sharp;
    for (const Ring& ring : rings) {
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point a = ring[(i + ring.size() - 1) % ring.size()] - ring[i];
            const Point b = ring[(i + 1) % ring.size()] - ring[i];
            const double la = std::hypot(static_cast<double>(a.x), static_cast<double>(a.y));
            const double lb = std::hypot(static_cast<double>(b.x), static_cast<double>(b.y));
            if (la == 0 || lb == 0) continue;
            const double cosine = (static_cast<double>(a.x) * static_cast<double>(b.x) +
                                   static_cast<double>(a.y) * static_cast<double>(b.y)) /
                                  (la * lb);
            if (cosine > 0.5) sharp.push_back(ring[i]);
            // The same with its tip cut off: a short edge between sides that run together.
            const Point next = ring[(i + 1) % ring.size()];
            const Point c = ring[(i + 2) % ring.size()] - next;
            const double lc = std::hypot(static_cast<double>(c.x), static_cast<double>(c.y));
            constexpr double short_edge = 24'000;  // 3 mm
            if (lb > short_edge || lc == 0) continue;
            const double sides = (static_cast<double>(a.x) * static_cast<double>(c.x) +
                                  static_cast<double>(a.y) * static_cast<double>(c.y)) /
                                 (la * lc);
            // Between 8 and 60 degrees: nearer to parallel it is the end of a thin stroke.
            if (sides > 0.5 && sides < 0.99) sharp.push_back({(ring[i].x + next.x) / 2, (ring[i].y + next.y) / 2});
        }
    }
    return sharp;
}

struct Spot {
    double x = 0, y = 0;
    double width = 0;  // grid units
    bool ink = true;
};

// Circles that touch an outline and hold nothing of it, for one shape about its own corner.
class Circles {
  public:
    explicit Circles(const std::vector<Ring>& rings) : sharp_(sharp_corners(rings)) {
        for (const Ring& ring : rings) {
            for (std::size_t i = 0; i < ring.size(); ++i) {
                const Point a = ring[i];
                const Point b = ring[(i + 1) % ring.size()];
                const double dx = static_cast<double>(b.x - a.x);
                const double dy = static_cast<double>(b.y - a.y);
                const double length = std::hypot(dx, dy);
                if (length == 0) continue;
                // Ink lies to the left of every ring.
                edges_.push_back({{static_cast<double>(a.x), static_cast<double>(a.y)},
                                  {dx / length, dy / length},
                                  {-dy / length, dx / length},
                                  length,
                                  edges_.size() + 1});
            }
            if (!edges_.empty() && first_ < edges_.size()) edges_.back().next = first_;
            first_ = edges_.size();
        }
    }

    // Where two opposite edges are nearer than `limit`, on one side of the outline.
    std::vector<Spot> narrower_than(double limit, bool ink) {
        std::vector<Spot> spots;
        arrange(limit);
        each_sample(limit, ink, [&](Vec p, Vec n) {
            if (const auto s = spot(p, n, limit, ink); s && !runs_out(*s)) spots.push_back(*s);
        });
        return spots;
    }

    // The least width of strokes; 0 for none.
    double thinnest(double from) {
        double all = 0;
        for (const Edge& e : edges_) all = std::max({all, std::abs(e.at.x), std::abs(e.at.y)});
        for (double limit = from; limit < 4 * all; limit *= 2) {
            double least = limit;
            arrange(limit);
            each_sample(limit, true, [&](Vec p, Vec n) {
                if (const auto s = spot(p, n, least, true); s && !runs_out(*s)) least = s->width;
            });
            if (least < limit) return least;
        }
        return 0;
    }

  private:
    struct Vec {
        double x = 0, y = 0;
        friend Vec operator-(Vec a, Vec b) { return {a.x - b.x, a.y - b.y}; }
        friend Vec operator+(Vec a, Vec b) { return {a.x + b.x, a.y + b.y}; }
        friend Vec operator*(double f, Vec a) { return {f * a.x, f * a.y}; }
        friend double dot(Vec a, Vec b) { return a.x * b.x + a.y * b.y; }
    };
    struct Edge {
        Vec at, along, normal;
        double length = 0;
        std::size_t next = 0;
    };

    // Edges by the squares that their boxes meet, square after square in one list.
    void arrange(double cell) {
        constexpr double most_cells = 1 << 16;
        Vec high;
        for (const Edge& e : edges_) high = {std::max(high.x, e.at.x), std::max(high.y, e.at.y)};
        cell_ = std::max(cell / 2, std::sqrt(high.x * high.y / most_cells) + 1);
        columns_ = static_cast<long>(high.x / cell_) + 1;
        rows_ = static_cast<long>(high.y / cell_) + 1;
        starts_.assign(static_cast<std::size_t>(columns_ * rows_) + 1, 0);
        const auto each = [&](auto what) {
            for (std::size_t i = 0; i < edges_.size(); ++i) {
                const Vec a = edges_[i].at;
                const Vec b = a + edges_[i].length * edges_[i].along;
                for_squares({std::min(a.x, b.x), std::min(a.y, b.y)}, {std::max(a.x, b.x), std::max(a.y, b.y)},
                            [&](std::size_t square) { what(square, i); });
            }
        };
        each([&](std::size_t square, std::size_t) { ++starts_[square + 1]; });
        for (std::size_t i = 1; i < starts_.size(); ++i) starts_[i] += starts_[i - 1];
        in_square_.resize(starts_.back());
        std::vector<std::size_t> filled(starts_.begin(), starts_.end() - 1);
        each([&](std::size_t square, std::size_t i) { in_square_[filled[square]++] = i; });
        seen_.assign(edges_.size(), 0);
        stamp_ = 0;
    }

    template <class Do>
    void for_squares(Vec low, Vec high, Do what) const {
        const auto at = [&](double v, long most) {
            return std::clamp(static_cast<long>(std::floor(v / cell_)), 0L, most - 1);
        };
        const long x1 = at(high.x, columns_);
        const long y1 = at(high.y, rows_);
        for (long y = at(low.y, rows_); y <= y1; ++y) {
            for (long x = at(low.x, columns_); x <= x1; ++x) what(static_cast<std::size_t>(y * columns_ + x));
        }
    }

    // Edges that come within `reach` of a point, each once.
    template <class Do>
    void near(Vec p, double reach, Do what) {
        ++stamp_;
        for_squares({p.x - reach, p.y - reach}, {p.x + reach, p.y + reach}, [&](std::size_t square) {
            for (std::size_t k = starts_[square]; k < starts_[square + 1]; ++k) {
                const std::size_t i = in_square_[k];
                if (std::exchange(seen_[i], stamp_) != stamp_) what(edges_[i]);
            }
        });
    }

    // Places on the outline with the way into ink, or out of it: along each edge, and at corners that reach in, the way
    // to what lies nearest across.
    template <class Do>
    void each_sample(double limit, bool ink, Do what) {
        constexpr double most = 64;
        constexpr double turns = 1e-4;  // sine: edges that go on straight have no corner
        const double side = ink ? 1 : -1;
        for (const Edge& e : edges_) {
            const double count = std::clamp(std::ceil(e.length / limit), 2.0, most);
            for (double k = 0; k < count; ++k) what(e.at + (k + 0.5) / count * e.length * e.along, side * e.normal);
            const Edge& next = edges_[e.next];
            const double turn = e.along.x * next.along.y - e.along.y * next.along.x;
            if (side * turn > -turns) continue;
            Vec nearest;
            double least = limit * limit;
            near(next.at, limit, [&](const Edge& b) {
                const double t = std::clamp(dot(next.at - b.at, b.along), 0.0, b.length);
                const Vec way = b.at + t * b.along - next.at;
                const double d = dot(way, way);
                // Between the ways that both edges face.
                const bool in = dot(way, e.along) >= 0 && dot(way, next.along) <= 0;
                if (d < 1 || d >= least || !in) return;
                least = d;
                nearest = way;
            });
            if (least < limit * limit) what(next.at, 1 / std::sqrt(least) * nearest);
        }
    }

    // The circle that touches the outline at p, from the side of the unit vector n, and no other edge reaches into; if
    // it is narrower than `limit` and touches on the opposite side too.
    [[nodiscard]] std::optional<Spot> spot(Vec p, Vec n, double limit, bool ink) {
        double r = limit / 2;
        Vec touch;
        bool found = false;
        near(p + r * n, r, [&](const Edge& b) {
            const Vec from = p - b.at;
            // Against its line: the centre p + r n is as far from it as from p.
            double s = dot(from, b.normal);
            const Vec m = s < 0 ? -1.0 * b.normal : b.normal;
            s = std::abs(s);
            const double lean = 1 - dot(n, m);
            if (s >= 1 && lean > 1e-9 && s / lean < r) {
                const double along = dot(from + s / lean * n, b.along);
                if (along >= 0 && along <= b.length) {
                    r = s / lean;
                    touch = b.at + along * b.along;
                    found = true;
                }
            }
            // Against its corner.
            const Vec d = b.at - p;
            const double ahead = dot(n, d);
            if (ahead > 1e-6 && dot(d, d) >= 1 && dot(d, d) / (2 * ahead) < r) {
                r = dot(d, d) / (2 * ahead);
                touch = b.at;
                found = true;
            }
        });
        if (!found) return std::nullopt;
        const Vec centre = p + r * n;
        if (-1 / r * dot(n, touch - centre) > opposite) return std::nullopt;
        return Spot{centre.x, centre.y, 2 * r, ink};
    }

    [[nodiscard]] bool runs_out(const Spot& s) const {
        return std::any_of(sharp_.begin(), sharp_.end(), [&](Point c) {
            return std::hypot(static_cast<double>(c.x) - s.x, static_cast<double>(c.y) - s.y) < slender * s.width;
        });
    }

    std::vector<Point> sharp_;
    std::vector<Edge> edges_;
    std::size_t first_ = 0;  // of the ring that is read
    double cell_ = 1;        // side of a square
    long columns_ = 1, rows_ = 1;
    std::vector<std::size_t> starts_, in_square_;
    std::vector<unsigned> seen_;
    unsigned stamp_ = 0;
};

// Near ones taken together, each as its thinnest.
std::vector<Spot> thin_spots(std::vector<Spot> thin, double limit) {
    std::sort(thin.begin(), thin.end(),
              [](const Spot& a, const Spot& b) { return std::tie(a.width, a.y, a.x) < std::tie(b.width, b.y, b.x); });
    std::vector<Spot> apart;
    for (const Spot& s : thin) {
        const bool known = std::any_of(apart.begin(), apart.end(),
                                       [&](const Spot& k) { return std::hypot(k.x - s.x, k.y - s.y) < 4 * limit; });
        if (!known) apart.push_back(s);
    }
    return apart;
}

struct Measured {
    std::vector<Spot> strokes, gaps;
    double thinnest = 0;
};

Measured measured(const std::vector<Ring>& rings, double stroke, double gap) {
    Circles circles(rings);
    Measured out{thin_spots(circles.narrower_than(stroke, true), stroke), {}, 0};
    look_for_stop();
    out.gaps = thin_spots(circles.narrower_than(gap, false), gap);
    out.thinnest = out.strokes.empty() ? circles.thinnest(stroke) : out.strokes.front().width;
    return out;
}

std::vector<Ring> own_frame(const Region& shape, Point low) {
    std::vector<Ring> rings;
    for (const Ring& ring : shape.rings()) {
        Ring moved;
        for (const Point p : ring) moved.push_back(p - low);
        rings.push_back(std::move(moved));
    }
    return rings;
}

Length cure_for(Length width, Length limit) {
    const Length half = (limit - width) / 2;
    const std::int64_t step = Length::sixtyfourths(1).nm();
    return Length::sixtyfourths((half.nm() + step - 1) / step);
}

// Shortest way between two outlines, and its middle.
std::pair<double, Point> between(const Region& a, const Region& b, const Box& near_a, const Box& near_b) {
    double best = 1e18;
    Point at;
    const auto look = [&](const Region& of, const Region& to, const Box& near_of, const Box& near_to) {
        for (const Ring& ring : of.rings()) {
            for (const Point p : ring) {
                if (!Box{p, p}.meets(near_to)) continue;
                for (const Ring& other : to.rings()) {
                    for (std::size_t i = 0; i < other.size(); ++i) {
                        const Point u = other[i];
                        const Point v = other[(i + 1) % other.size()];
                        const Box box{{std::min(u.x, v.x), std::min(u.y, v.y)},
                                      {std::max(u.x, v.x), std::max(u.y, v.y)}};
                        if (!box.meets(near_of)) continue;
                        const double d = off_line(p, u, v);
                        if (d >= best) continue;
                        best = d;
                        at = {(p.x + std::clamp(p.x, box.low.x, box.high.x)) / 2,
                              (p.y + std::clamp(p.y, box.low.y, box.high.y)) / 2};
                    }
                }
            }
        }
    };
    look(a, b, near_a, near_b);
    look(b, a, near_b, near_a);
    return {best, at};
}

}  // namespace

Length thinnest(const Region& shape) {
    if (shape.empty()) return {};
    return from_grid(
        std::llround(Circles(own_frame(shape, shape.bounds().low)).thinnest(static_cast<double>(to_grid(0.0625_in)))));
}

ThinPlan thin_places(const std::vector<Piece>& pieces, const CutLimits& limits) {
    ThinPlan plan;
    std::map<std::vector<Ring>, Measured> known;
    const double stroke = static_cast<double>(to_grid(limits.stroke));
    const double gap = static_cast<double>(to_grid(limits.gap));
    double thinnest_stroke = 0;
    std::vector<Box> boxes;
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        const Box box = pieces[i].shape.bounds();
        boxes.push_back(box);
        const std::vector<Ring> rings = own_frame(pieces[i].shape, box.low);
        auto [at, fresh] = known.try_emplace(rings);
        look_for_stop();
        if (fresh) at->second = measured(rings, stroke, gap);
        const auto add = [&](Thin what, const Spot& s, Length limit) {
            const Length width = from_grid(std::llround(s.width));
            plan.places.push_back({what, i, pieces[i].letters, Point{std::llround(s.x), std::llround(s.y)} + box.low,
                                   width, cure_for(width, limit)});
        };
        const double least = at->second.thinnest;
        if (least > 0) thinnest_stroke = thinnest_stroke == 0 ? least : std::min(thinnest_stroke, least);
        for (const Spot& s : at->second.strokes) {
            add(Thin::Stroke, s, limits.stroke);
            ++plan.strokes;
            plan.bolder = std::max(plan.bolder, plan.places.back().cure);
        }
        for (const Spot& s : at->second.gaps) {
            add(Thin::Gap, s, limits.gap);
            ++plan.gaps;
        }
        for (const Region& hole : holes(pieces[i].shape)) {
            // The largest circle in it: shrunk by half the limit nothing is left of a keeper that is too small.
            if (!grow(hole, Length{} - limits.keeper / 2).empty()) continue;
            const Box b = hole.bounds();
            Length low;
            Length high = limits.keeper;
            for (int n = 0; n < 12; ++n) {
                const Length middle = (low + high) / 2;
                (grow(hole, Length{} - middle / 2).empty() ? high : low) = middle;
            }
            plan.places.push_back({Thin::Keeper,
                                   i,
                                   pieces[i].letters,
                                   {(b.low.x + b.high.x) / 2, (b.low.y + b.high.y) / 2},
                                   low,
                                   cure_for(low, limits.keeper)});
            ++plan.keepers;
        }
    }
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        const Box near = grown(boxes[i], limits.gap);
        for (std::size_t k = i + 1; k < pieces.size(); ++k) {
            if (!near.meets(boxes[k])) continue;
            look_for_stop();
            const auto [d, at] = between(pieces[i].shape, pieces[k].shape, near, grown(boxes[k], limits.gap));
            if (d >= gap) continue;
            const Length width = from_grid(std::llround(d));
            plan.places.push_back(
                {Thin::Gap, i, pieces[i].letters + " " + pieces[k].letters, at, width, cure_for(width, limits.gap)});
            ++plan.gaps;
        }
    }
    plan.thinnest_stroke = from_grid(std::llround(thinnest_stroke));
    return plan;
}

}  // namespace skarvel
