// The knife's way over a load.
#include <algorithm>
#include <cmath>
#include <set>

#include "files/cut_file.h"
#include "proof/reading.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

TEST_CASE("the knife cuts what lies inside before what lies around it, section by section, lines last") {
    for (const Job& job : {porch_board(), long_board()}) {
        const Plan plan = plan_of(job);
        for (const LoadToCut& load : loads_to_cut(plan, usual_shop())) {
            std::vector<int> parts(load.sections.size());
            std::size_t at = load.sections.size();
            std::set<std::size_t> seen;
            CutOf kind = CutOf::Ink;
            double ink = 0;
            for (const KnifePath& path : load.way.paths) {
                if (path.section != at) {
                    CHECK(seen.insert(path.section).second);
                    at = path.section;
                    kind = CutOf::Ink;
                }
                CHECK(path.of >= kind);
                kind = path.of;
                if (path.of == CutOf::Ink) CHECK(path.closed());
                ink += path.of == CutOf::Ink ? 1 : 0;
            }
            double rings = 0;
            for (const OnMat& s : load.sections) rings += static_cast<double>(s.laid.cut.rings().size());
            CHECK(ink == rings);
            CHECK(load.way.travel < load.way.cut);
            CHECK(load.way.seconds > 0);
        }
    }
}

TEST_CASE(
    "the lifted knife's way is within three times the least tree that joins all paths") {  // spanning tree: lower bound
    CHECK(rc::check([] {
        std::vector<Region> dots;
        const int n = *rc::gen::inRange(2, 25);
        for (int i = 0; i < n; ++i) {
            const double x = (i % 5) * 2 + *rc::gen::inRange(0, 8) / 10.0;
            const double y = (i / 5) * 2 + *rc::gen::inRange(0, 8) / 10.0;
            dots.push_back(square_in(x, y, 0.5));
        }
        OnMat section{"dots", "1", 0, {Region::rectangle(box_in(-1, -1, 12, 12)), merge(dots), {}}, {}, {}};
        const KnifeWay way = knife_way({section}, {});
        RC_ASSERT(way.paths.size() == dots.size() + 1);
        double tree = 0;
        std::vector<bool> in(dots.size());
        in[0] = true;
        for (std::size_t k = 1; k < dots.size(); ++k) {
            double best = 1e18;
            std::size_t next = 0;
            for (std::size_t i = 0; i < dots.size(); ++i) {
                for (std::size_t j = 0; in[i] && j < dots.size(); ++j) {
                    if (in[j]) continue;
                    for (const Point a : dots[i].rings()[0]) {
                        for (const Point b : dots[j].rings()[0]) {
                            const double d = std::hypot(grid_to_mm(a.x - b.x), grid_to_mm(a.y - b.y));
                            if (d < best) {
                                best = d;
                                next = j;
                            }
                        }
                    }
                }
            }
            in[next] = true;
            tree += best;
        }
        double travel = 0;
        for (std::size_t i = 1; i + 1 < way.paths.size(); ++i) {
            const Point a = way.paths[i - 1].points.back();
            const Point b = way.paths[i].points.front();
            travel += std::hypot(grid_to_mm(a.x - b.x), grid_to_mm(a.y - b.y));
        }
        RC_ASSERT(travel >= tree - 0.01);
        RC_ASSERT(travel <= 3 * tree + 0.01);
    }));
}

TEST_CASE("a trailing knife's edge follows the path when its pivot swings about the corners") {
    const KnifePath square{{{0, 0}, {80'000, 0}, {80'000, 80'000}, {0, 80'000}, {0, 0}}, CutOf::Ink, 0};
    const Length offset = Length::from_mm(0.25);
    const auto pivot = pivot_way(square, offset, Length::from_mm(1));
    // The edge is drawn behind its pivot on a rod: small steps towards the pivot, always `offset` away from it.
    double ex = 0;
    double ey = 0;
    double worst = 0;
    const double r = static_cast<double>(to_grid(offset));
    const auto off_square = [](double x, double y) {
        const double side = 80'000;
        const double outside = std::max({0.0, -x, -y, x - side, y - side});
        const double inside = std::min({x, y, side - x, side - y});
        return std::max(outside, std::max(0.0, inside));
    };
    for (std::size_t i = 1; i < pivot.size(); ++i) {
        for (int k = 1; k <= 200; ++k) {
            const double px = pivot[i - 1].x + (pivot[i].x - pivot[i - 1].x) * k / 200.0;
            const double py = pivot[i - 1].y + (pivot[i].y - pivot[i - 1].y) * k / 200.0;
            const double d = std::hypot(px - ex, py - ey);
            if (d < 1e-9) continue;
            ex = px - (px - ex) / d * r;
            ey = py - (py - ey) / d * r;
            worst = std::max(worst, off_square(ex, ey));
        }
    }
    CHECK(worst * grid_nm * 1e-6 < 0.03);
    CHECK(pivot_way(square, {}, {}) == square.points);
}

TEST_CASE("the knife's way past few paths is near the shortest of all orders") {
    CHECK(rc::check([] {
        std::vector<Region> dots;
        const int n = *rc::gen::inRange(2, 7);
        for (int i = 0; i < n; ++i) {
            const double x = 1 + (i % 3) * 3 + *rc::gen::inRange(0, 20) / 10.0;
            const double y = 1 + (i / 3) * 3 + *rc::gen::inRange(0, 20) / 10.0;
            dots.push_back(square_in(x, y, 0.25));
        }
        const Region film = Region::rectangle(box_in(0, 0, 12, 12));
        const KnifeWay way = knife_way({{"dots", "1", 0, {film, merge(dots), {}}, {}, {}}}, {});
        const auto far = [](Point a, Point b) { return std::hypot(grid_to_mm(a.x - b.x), grid_to_mm(a.y - b.y)); };
        double found = 0;
        Point at{};
        std::vector<Point> middles;
        for (const KnifePath& path : way.paths) {
            found += far(at, path.points.front());
            at = path.points.back();
            if (path.of != CutOf::Ink) continue;
            Point middle{};
            for (std::size_t k = 0; k < 4; ++k) middle = middle + path.points[k];
            middles.push_back({middle.x / 4, middle.y / 4});
        }
        // In the end to the film's outline. From corner to corner no way is shorter than from middle to middle less a
        // diagonal for each dot.
        std::sort(middles.begin(), middles.end());
        double shortest = 1e18;
        do {
            double length = far({}, middles.front());
            for (std::size_t k = 1; k < middles.size(); ++k) length += far(middles[k - 1], middles[k]);
            double to_film = 1e18;
            for (const Point corner : film.rings().front()) to_film = std::min(to_film, far(middles.back(), corner));
            length += to_film;
            shortest = std::min(shortest, length);
        } while (std::next_permutation(middles.begin(), middles.end()));
        const double diagonal = 0.25 * 25.4 * std::sqrt(2.0);
        RC_ASSERT(found >= shortest - diagonal * n);
        RC_ASSERT(found <= 1.25 * shortest + diagonal * n);
    }));
}

TEST_CASE("test cuts stand side by side on the bed, none in another") {
    for (const Mat& bed : beds_of(usual_machines())) {
        CAPTURE(bed.name);
        Box before;
        for (int which = 0; which < test_cuts_on(bed); ++which) {
            const auto paths = read_cut_file(test_cut(which), "test.plt", CutFormat::Hpgl);
            REQUIRE(paths);
            REQUIRE(paths->size() == 2);
            const Region triangle = Region::from_rings({(*paths)[0].points});
            const Region square = Region::from_rings({(*paths)[1].points});
            CHECK((*paths)[0].closed);
            CHECK((*paths)[1].closed);
            CHECK(subtract(triangle, square).empty());
            const Box box = square.bounds();
            CHECK(grid_to_mm(box.width()) == Approx(19));
            CHECK(grid_to_mm(box.height()) == Approx(19));
            CHECK(common(box, before).empty());
            CHECK(box.high.x <= to_grid(bed.usable.across));
            before = box;
        }
    }
}
