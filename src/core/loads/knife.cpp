#include "loads/knife.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <numeric>

#include "values/searches.h"

namespace skarvel {
namespace {

constexpr long most_swaps = searches::steps_of_knife.most;

double apart(Point a, Point b) { return std::hypot(static_cast<double>(a.x - b.x), static_cast<double>(a.y - b.y)); }

Box box_of(const Ring& ring) {
    Box box{ring.front(), ring.front()};
    for (const Point p : ring) {
        box.low = {std::min(box.low.x, p.x), std::min(box.low.y, p.y)};
        box.high = {std::max(box.high.x, p.x), std::max(box.high.y, p.y)};
    }
    return box;
}

// Whether the ring goes round the point: crossings of a ray to the right.
bool round_about(const Ring& ring, Point p) {
    bool in = false;
    for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++) {
        if ((ring[i].y > p.y) == (ring[j].y > p.y)) continue;
        const double x = static_cast<double>(ring[j].x) + static_cast<double>(p.y - ring[j].y) *
                                                              static_cast<double>(ring[i].x - ring[j].x) /
                                                              static_cast<double>(ring[i].y - ring[j].y);
        if (static_cast<double>(p.x) < x) in = !in;
    }
    return in;
}

// One path to be cut: a ring begun anywhere, or a line begun at either end.
struct KnifeRun {
    Ring points;
    Box box;
    bool ring = true;
    CutOf of = CutOf::Ink;
    std::vector<std::size_t> inside;  // those that must come before
};

class Orderer {
  public:
    Orderer(std::vector<KnifeRun> jobs, Point start) : jobs_(std::move(jobs)), start_(start) {}

    std::vector<KnifePath> order(std::size_t section) {
        nearest_first();
        improve();
        std::vector<KnifePath> out;
        Point at = start_;
        for (const std::size_t j : order_) {
            KnifePath path{begun_near(jobs_[j], at), jobs_[j].of, section};
            at = path.points.back();
            out.push_back(std::move(path));
        }
        return out;
    }

  private:
    static std::pair<double, Point> entry(const KnifeRun& job, Point from) {
        double best = -1;  // squared: a root for each corner would be most of the work
        Point at;
        const auto look = [&](Point p) {
            const auto x = static_cast<double>(p.x - from.x);
            const auto y = static_cast<double>(p.y - from.y);
            const double d = x * x + y * y;
            if (best < 0 || d < best) {
                best = d;
                at = p;
            }
        };
        if (job.ring) {
            for (const Point p : job.points) look(p);
        } else {
            look(job.points.front());
            look(job.points.back());
        }
        return {std::sqrt(best), at};
    }

    static Point leaves(const KnifeRun& job, Point entered) {
        if (job.ring) return entered;
        return entered == job.points.front() ? job.points.back() : job.points.front();
    }

    static std::vector<Point> begun_near(const KnifeRun& job, Point from) {
        const Point at = entry(job, from).second;
        std::vector<Point> points = job.points;
        if (!job.ring) {
            if (at != points.front()) std::reverse(points.begin(), points.end());
            return points;
        }
        std::rotate(points.begin(), std::find(points.begin(), points.end(), at), points.end());
        points.push_back(points.front());
        return points;
    }

    void nearest_first() {
        std::vector<bool> done(jobs_.size());
        Point at = start_;
        while (order_.size() < jobs_.size()) {
            std::size_t next = jobs_.size();
            std::pair<double, Point> way;
            for (std::size_t i = 0; i < jobs_.size(); ++i) {
                const bool free = !done[i] && std::all_of(jobs_[i].inside.begin(), jobs_[i].inside.end(),
                                                          [&](std::size_t k) { return done[k]; });
                if (!free) continue;
                const auto here = entry(jobs_[i], at);
                if (next == jobs_.size() || here.first < way.first) {
                    next = i;
                    way = here;
                }
            }
            done[next] = true;
            order_.push_back(next);
            at = leaves(jobs_[next], way.second);
        }
    }

    double travel(const std::vector<std::size_t>& order) {
        double all = 0;
        Point at = start_;
        for (const std::size_t j : order) {
            const auto [way, entered] = entry(jobs_[j], at);
            all += way;
            at = leaves(jobs_[j], entered);
            steps_ += static_cast<long>(jobs_[j].points.size());
        }
        return all;
    }

    [[nodiscard]] bool allowed(const std::vector<std::size_t>& order) const {
        std::vector<std::size_t> place(order.size());
        for (std::size_t i = 0; i < order.size(); ++i) place[order[i]] = i;
        for (std::size_t j = 0; j < jobs_.size(); ++j) {
            for (const std::size_t k : jobs_[j].inside) {
                if (place[k] > place[j]) return false;
            }
        }
        return true;
    }

    void improve() {
        double best = travel(order_);
        const std::size_t n = order_.size();
        for (bool better = true; better && steps_ < most_swaps;) {
            better = false;
            for (std::size_t i = 0; i < n && steps_ < most_swaps; ++i) {
                for (std::size_t k = 0; k < n && steps_ < most_swaps; ++k) {
                    if (i == k) continue;
                    std::vector<std::size_t> moved = order_;
                    const std::size_t what = moved[i];
                    moved.erase(moved.begin() + static_cast<long>(i));
                    moved.insert(moved.begin() + static_cast<long>(k), what);
                    better = take(std::move(moved), best) || better;
                    if (k <= i) continue;
                    std::vector<std::size_t> turned = order_;
                    std::reverse(turned.begin() + static_cast<long>(i), turned.begin() + static_cast<long>(k) + 1);
                    better = take(std::move(turned), best) || better;
                }
            }
        }
    }

    bool take(std::vector<std::size_t> order, double& best) {
        if (!allowed(order)) return false;
        const double way = travel(order);
        if (way >= best - 1) return false;
        best = way;
        order_ = std::move(order);
        return true;
    }

    std::vector<KnifeRun> jobs_;
    Point start_;
    std::vector<std::size_t> order_;
    long steps_ = 0;
};

std::vector<KnifeRun> jobs_of(const LaidSection& laid) {
    std::vector<KnifeRun> jobs;
    for (const Ring& ring : laid.cut.rings()) jobs.push_back({ring, box_of(ring), true, CutOf::Ink, {}});
    const std::size_t ink = jobs.size();
    for (const Ring& ring : laid.film.rings()) jobs.push_back({ring, box_of(ring), true, CutOf::Film, {}});
    const std::size_t film = jobs.size();
    for (const KnifeLine& line : laid.lines)
        jobs.push_back({{line.from, line.to}, box_of({line.from, line.to}), false, CutOf::Line, {}});
    for (std::size_t i = 0; i < jobs.size(); ++i) {
        if (i >= ink) {
            for (std::size_t k = 0; k < (i < film ? ink : film); ++k) jobs[i].inside.push_back(k);
            continue;
        }
        for (std::size_t k = 0; k < ink; ++k) {
            if (k != i && jobs[i].box.holds(jobs[k].box) && round_about(jobs[i].points, jobs[k].points.front()))
                jobs[i].inside.push_back(k);
        }
        // Rings that meet could each seem to lie inside the other: the smaller one does.
        std::erase_if(jobs[i].inside, [&](std::size_t k) { return jobs[k].box == jobs[i].box && k > i; });
    }
    return jobs;
}

}  // namespace

std::vector<OnMat> on_mat(const Load& load, const std::vector<Section>& sections, const ColourId& of) {
    std::vector<OnMat> all;
    const auto add = [&](const Section& section, const Placement& p, const ColourId& whose) {
        const Point low = p.slant != 0 ? section.film.rotated(p.slant).bounds().low
                          : p.turned   ? section.film.turned().bounds().low
                                       : section.film.bounds().low;
        all.push_back({section.letters, whose, p.section, lay_on_mat(section, p), p, p.at - low});
    };
    for (const Placement& p : load.placements) add(sections[p.section], p, of);
    for (const Guest& g : load.guests) add(g.section, g.placement, g.of);
    return all;
}

KnifeWay knife_way(const std::vector<OnMat>& load, const Knife& knife) {
    KnifeWay way;
    std::vector<bool> done(load.size());
    Point at{0, 0};
    for (std::size_t n = 0; n < load.size(); ++n) {
        std::size_t next = load.size();
        double near = 0;
        for (std::size_t i = 0; i < load.size(); ++i) {
            if (done[i]) continue;
            const Box b = load[i].laid.film.bounds();
            const Point corner{std::clamp(at.x, b.low.x, b.high.x), std::clamp(at.y, b.low.y, b.high.y)};
            const double d = apart(corner, at);
            if (next == load.size() || d < near) {
                next = i;
                near = d;
            }
        }
        done[next] = true;
        for (KnifePath& path : Orderer(jobs_of(load[next].laid), at).order(next)) {
            at = path.points.back();
            way.paths.push_back(std::move(path));
        }
    }
    double cut = 0;
    double travel = 0;
    Point from{0, 0};
    for (const KnifePath& path : way.paths) {
        travel += apart(from, path.points.front());
        for (std::size_t i = 1; i < path.points.size(); ++i) cut += apart(path.points[i - 1], path.points[i]);
        from = path.points.back();
    }
    const double mm = grid_nm * 1e-6;
    way.cut = Length::from_mm(cut * mm);
    way.travel = Length::from_mm(travel * mm);
    const double seconds = cut * mm / std::max(1, knife.speed_mm_s) + travel * mm / std::max(1, knife.travel_mm_s) +
                           static_cast<double>(way.paths.size()) * knife.lift_ms / 1000.0;
    way.seconds = static_cast<int>(std::ceil(seconds));
    return way;
}

std::vector<Point> pivot_way(const KnifePath& path, Length offset, Length overcut) {
    if (offset <= Length{} && overcut <= Length{}) return path.points;
    std::vector<Point> edge = path.points;
    if (path.closed()) {
        // On along the path again, by the overcut.
        double left = static_cast<double>(to_grid(overcut));
        for (std::size_t i = 1; i < path.points.size() && left > 0; ++i) {
            const Point a = path.points[i - 1];
            const Point b = path.points[i];
            const double length = apart(a, b);
            const double share = length > 0 ? std::min(1.0, left / length) : 0;
            edge.push_back({a.x + std::llround(share * static_cast<double>(b.x - a.x)),
                            a.y + std::llround(share * static_cast<double>(b.y - a.y))});
            left -= length;
        }
    }
    const auto r = static_cast<double>(to_grid(offset));
    if (r <= 0) return edge;
    std::vector<Point> pivot;
    const auto ahead = [&](Point p, double angle) {
        return Point{p.x + std::llround(r * std::cos(angle)), p.y + std::llround(r * std::sin(angle))};
    };
    double last = 0;
    bool first = true;
    for (std::size_t i = 1; i < edge.size(); ++i) {
        const Point a = edge[i - 1];
        const Point b = edge[i];
        if (a == b) continue;
        const double angle = std::atan2(static_cast<double>(b.y - a.y), static_cast<double>(b.x - a.x));
        if (!first) {
            // About the corner, in steps that keep the edge within a hundredth of a millimetre.
            double turn = angle - last;
            while (turn > std::numbers::pi) turn -= 2 * std::numbers::pi;
            while (turn < -std::numbers::pi) turn += 2 * std::numbers::pi;
            const int steps = std::max(1, static_cast<int>(std::ceil(std::abs(turn) / 0.2)));
            for (int k = 1; k < steps; ++k) pivot.push_back(ahead(a, last + turn * k / steps));
        }
        pivot.push_back(ahead(a, angle));
        pivot.push_back(ahead(b, angle));
        last = angle;
        first = false;
    }
    return pivot;
}

}  // namespace skarvel
