#include "sections/crossing.h"
#include "sections/places.h"
#include "sections/showing.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;
using namespace skarvel::dividing;

namespace {

Context context(Way way, Length lap) {
    Context c;
    c.face = box_in(0, 0, 60, 30);
    c.available = c.face;
    c.room = {11.5_in, 23.5_in};
    c.making.way = way;
    c.making.margin = 0.75_in;
    c.making.lap = lap;
    c.mask = way == Way::PaintThrough;
    return c;
}

// A row of letters, in eighths of an inch; some reach under their neighbour.
std::vector<Piece> any_row() {
    std::vector<Piece> pieces;
    int at = *rc::gen::inRange(4, 12);
    const int count = *rc::gen::inRange(2, 9);
    for (int i = 0; i < count; ++i) {
        const int wide = *rc::gen::inRange(4, 24);
        Piece p{Region::rectangle(box_in(at / 8.0, 2, (at + wide) / 8.0, 5)),
                std::string(1, static_cast<char>('A' + i)), i, i == 0 || *rc::gen::arbitrary<bool>(), 0};
        pieces.push_back(std::move(p));
        at += wide + *rc::gen::inRange(-3, 16);
    }
    return pieces;
}

}  // namespace

TEST_CASE("straight seams lie in free film, their laps off the ink, and on lines that can be measured to") {
    CHECK(rc::check([] {
        const std::vector<Piece> pieces = any_row();
        const bool mask = *rc::gen::arbitrary<bool>();
        const Length lap = *rc::gen::element(Length{}, 0.125_in, 0.25_in);
        const Context c = context(mask ? Way::PaintThrough : Way::Decal, lap);
        std::vector<Box> boxes;
        std::vector<std::size_t> order;
        for (std::size_t i = 0; i < pieces.size(); ++i) {
            boxes.push_back(pieces[i].shape.bounds());
            order.push_back(i);
        }
        std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
            return boxes[a].low.x + boxes[a].high.x < boxes[b].low.x + boxes[b].high.x;
        });
        const std::vector<dividing::Place> places = places_along(pieces, boxes, order, c.face, Axis::X, c);
        RC_ASSERT(places.front().is_end && places.back().is_end);
        std::size_t gaps = 0;
        std::size_t offered = 0;
        std::size_t last = 0;
        for (std::size_t k = 1; k < order.size(); ++k) {
            std::int64_t left = boxes[order[0]].high.x;
            std::int64_t right = boxes[order[k]].low.x;
            for (std::size_t i = 0; i < k; ++i) left = std::max(left, boxes[order[i]].high.x);
            for (std::size_t i = k; i < order.size(); ++i) right = std::min(right, boxes[order[i]].low.x);
            gaps += right >= left ? 1 : 0;
            for (const dividing::Place& p : places) {
                if (p.is_end || p.before != k) continue;
                if (p.stepped) {
                    RC_ASSERT(right < left);
                    continue;
                }
                offered += last == k ? 0 : 1;
                last = k;
                RC_ASSERT(p.where >= left && p.where <= right);
                RC_ASSERT(p.lower_end - p.upper_start == to_grid(p.lap));
                // Both films end within the gap, and off the ink beyond it where there is a lap.
                const std::int64_t off = p.lap > Length{} ? to_grid(off_neighbour) : 0;
                RC_ASSERT(p.lower_end <= right - off && p.upper_start >= left + off);
                // Wide gaps have a sixteenth in them; what is offered there lies on one.
                if (p.lap == Length{} && right - left > 4 * to_grid(off_neighbour)) RC_ASSERT(off_line(p.where) < 4);
                RC_ASSERT(p.in_words == (pieces[order[k]].starts_word ? 0 : 1) || order[k] != k);
            }
        }
        RC_ASSERT(offered == gaps);
    }));
}

TEST_CASE("how coarse a line is: half inches, quarters, eighths, sixteenths, anything") {
    const std::vector<std::pair<const char*, int>> lines{
        {"3 1/2", 0}, {"2 3/4", 1}, {"5/8", 2}, {"7/16", 3}, {"9/32", 4}};
    for (const auto& [line, coarse] : lines) CHECK(off_line(to_grid(measure(line).value)) == coarse);
}

TEST_CASE("one large piece is cut into the fewest strips, where cuts show least, as trying every set of lines finds") {
    CHECK(rc::check([] {
        // A comb: a long bar with teeth of any height, a tooth to every half inch.
        const int teeth = *rc::gen::inRange(50, 110);
        std::vector<Region> parts;
        std::vector<int> high;
        for (int i = 0; i < teeth; ++i) {
            high.push_back(*rc::gen::inRange(1, 12));
            parts.push_back(Region::rectangle(box_in(i / 2.0, 0, (i + 1) / 2.0, high.back() / 2.0)));
        }
        const Piece comb{merge(parts), "W", 0, true, 0};
        Context c = context(Way::Decal, Length{});
        c.making.margin = {};
        const auto found = cross({comb}, {0}, comb.shape.bounds(), c);
        RC_ASSERT(found.has_value());
        // Along its length with what the room holds there; a line within a tooth meets its height.
        const double most = 23.5;
        const int strips = static_cast<int>(std::ceil(teeth / 2.0 / most - 1e-9));
        RC_ASSERT(found->score.sections == strips);
        // Every eighth of an inch: the height that is met at a line; on a step between two teeth, that of the one
        // before, and twice the step, as an edge that runs along the cut.
        const int lines = teeth * 4;
        const auto met = [&](int line) {
            const auto tooth = static_cast<std::size_t>((line - 1) / 4);
            const double step = line % 4 == 0 ? std::abs(high[tooth + 1] - high[tooth]) / 2.0 : 0;
            return high[tooth] / 2.0 + 2 * step;
        };
        double best = 1e9;
        const int reach = static_cast<int>(most * 8);
        if (strips == 2) {
            for (int a = std::max(1, lines - reach); a <= std::min(reach, lines - 1); ++a)
                best = std::min(best, met(a));
        } else {
            for (int a = 1; a <= std::min(reach, lines - 1); ++a) {
                for (int b = std::max(a + 1, lines - reach); b <= std::min(a + reach, lines - 1); ++b)
                    best = std::min(best, met(a) + met(b));
            }
        }
        std::vector<std::int64_t> seams;
        for (const Seam& s : found->seams) seams.push_back(s.where);
        double shows = 0;
        double ink = 0;
        for (const CutAcross& cut : cuts_across(comb.shape, Axis::X, seams, false)) {
            shows += cut.shows.in_inches();
            ink += cut.ink.in_inches();
        }
        RC_ASSERT(shows <= Approx(best).margin(1e-6));
        RC_ASSERT(Length::nanometres(found->score.crossed).in_inches() == Approx(ink).margin(1e-6));
        // Each part within the room, and the whole piece in them, once.
        Region all;
        for (const Part& p : found->parts) {
            RC_ASSERT(c.fits(p.film.width(), p.film.height()));
            const Region own = intersect(comb.shape, Region::rectangle(*p.cell));
            RC_ASSERT(intersect(all, own).area_mm2() < 0.01);
            all = merge(all, own);
        }
        RC_ASSERT(subtract(comb.shape, all).area_mm2() < 0.01);
    }));
}
