// Packing against libnest2d (a general-purpose nesting library, no-fit polygons), on a stated family: random sections
// as signs have them, from fixed seeds, and the sections of the demo's jobs. On each no more loads, on average no more
// film. Division against brute force: every set of gaps as seams, on small signs.
#include <cmath>
#include <filesystem>
#include <fstream>
#include <random>
#include <sstream>

#include "sections/sections.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

struct Came {
    std::size_t loads = 0;
    Length film;
};

Length film_of(const std::vector<std::int64_t>& reaches) {
    Length film;
    for (const std::int64_t r : reaches) film += film_to_cut(from_grid(r));
    return film;
}

Came ours(const std::vector<Box>& boxes, const Room& room) {
    const Packed p = pack(boxes, room, section_gap);
    REQUIRE(p.left_over.empty());
    std::vector<std::int64_t> reaches;
    for (const auto& load : p.loads) {
        std::int64_t reach = 0;
        for (const Placement& s : load) reach = std::max(reach, box_on_mat(boxes[s.section], s).high.y);
        reaches.push_back(reach);
    }
    return {p.loads.size(), film_of(reaches)};
}

// In 1/1000 in. Sections and mat are grown by the gap, as for our own.
Came theirs(const Folder& folder, const std::vector<Box>& boxes, const Room& room) {
    constexpr std::int64_t unit = to_grid(Length::inches(1)) / 1000;
    const auto whole = [](std::int64_t grid) { return (grid + unit - 1) / unit; };
    const std::int64_t gap = to_grid(section_gap);
    std::ofstream in(folder / "sizes");
    // It takes nothing that fills its bin to the last unit: two more are given away.
    in << whole(to_grid(room.across) + gap) + 2 << ' ' << whole(to_grid(room.along) + gap) + 2 << ' ' << boxes.size()
       << '\n';
    // It turns nothing to make its first piece fit: all of them come standing upright.
    for (const Box& b : boxes)
        in << whole(std::min(b.width(), b.height()) + gap) << ' ' << whole(std::max(b.width(), b.height()) + gap)
           << '\n';
    in.close();
    const Ran ran = run(std::string(SKARVEL_NEST) + " < " + (folder / "sizes").string());
    INFO(ran.out);
    REQUIRE(ran.code == 0);
    std::istringstream out(ran.out);
    std::vector<std::int64_t> reaches;
    for (std::int64_t reach = 0; out >> reach;) reaches.push_back(reach * unit - gap);
    return {reaches.size(), film_of(reaches)};
}

std::vector<std::vector<Box>> family(const Room& room) {
    std::vector<std::vector<Box>> all;
    std::mt19937_64 random(1);
    const auto inches = [&](int least, int most) {  // on sixteenths, between whole inches
        return to_grid(Length::sixtyfourths(4)) *
               static_cast<std::int64_t>(static_cast<std::uint64_t>(least) * 16 +
                                         random() % static_cast<std::uint64_t>((most - least) * 16));
    };
    for (int n = 0; n < 24; ++n) {
        std::vector<Box> boxes;
        const std::size_t count = 3 + random() % 18;
        for (std::size_t i = 0; i < count; ++i) {
            // Strips of long boards, words, single letters.
            const auto kind = random() % 3;
            const std::int64_t w = kind == 0 ? inches(4, 6) : inches(2, 11);
            const std::int64_t h = kind == 0 ? inches(12, 23) : kind == 1 ? inches(3, 8) : inches(2, 4);
            boxes.push_back({{0, 0}, {w, h}});
        }
        all.push_back(std::move(boxes));
    }
    for (const auto& entry : std::filesystem::directory_iterator(std::filesystem::path(SKARVEL_SOURCE) / "demo")) {
        if (entry.path().extension() != ".skarvel") continue;
        const auto job = read_job(*read_file(entry.path()));
        REQUIRE(job);
        std::vector<Box> boxes;
        const Plan plan = plan_of(*job);
        for (const ColourPlan& f : plan.colours) {
            for (const Section& s : f.cut.loads->sections) {
                const Box b = s.film.bounds();
                const bool fits = std::max(b.width(), b.height()) <= to_grid(room.along) &&
                                  std::min(b.width(), b.height()) <= to_grid(room.across);
                if (fits) boxes.push_back(b);
            }
        }
        if (!boxes.empty()) all.push_back(std::move(boxes));
    }
    return all;
}

}  // namespace

TEST_CASE("no more loads than libnest2d on any set, and on average no more film") {
    const Folder folder;
    const Room room{11.5_in, 23.5_in};
    double our_film = 0;
    double their_film = 0;
    for (const auto& boxes : family(room)) {
        const Came a = ours(boxes, room);
        const Came b = theirs(folder, boxes, room);
        CAPTURE(boxes.size(), a.film.in_inches(), b.film.in_inches());
        CHECK(a.loads <= b.loads);
        our_film += a.film.in_inches();
        their_film += b.film.in_inches();
    }
    CAPTURE(our_film, their_film);
    CHECK(our_film <= their_film);
}

TEST_CASE("no set of seams comes to fewer loads or sections crossed than the one that is found") {
    std::mt19937_64 random(7);
    const auto sixteenths = [&](int least, int most) {
        return to_grid(Length::sixtyfourths(4)) *
               static_cast<std::int64_t>(static_cast<std::uint64_t>(least) +
                                         random() % static_cast<std::uint64_t>(most - least));
    };
    MakingPlan making;
    making.way = Way::Decal;
    making.margin = 0.125_in;
    const Mat mat{"12 × 12", 12_in, 12_in, {11.5_in, 11.5_in}};
    for (int n = 0; n < 60; ++n) {
        // A row of words with gaps that hold both borders, so that film ends where the ink asks, wherever the seam is.
        std::vector<Piece> pieces;
        std::int64_t x = to_grid(1_in);
        const int count = 2 + static_cast<int>(random() % 6);
        for (int i = 0; i < count; ++i) {
            const std::int64_t w = sixteenths(16, 120);
            const std::int64_t h = sixteenths(32, 170);
            pieces.push_back({Region::rectangle({{x, to_grid(1_in)}, {x + w, to_grid(1_in) + h}}),
                              std::string(1, static_cast<char>('A' + i)), i, true, 0, false});
            x += w + sixteenths(6, 40);
        }
        const Box face{{0, 0}, {x + to_grid(1_in), to_grid(14_in)}};
        // Loads, then sections, then film: the order of what counts.
        std::tuple<std::size_t, std::size_t, Length> least{1000, 0, {}};
        for (unsigned set = 0; set < (1U << static_cast<unsigned>(count - 1)); ++set) {
            std::vector<Box> films;
            Box ink;
            for (int i = 0; i < count; ++i) {
                ink = around(ink, pieces[static_cast<std::size_t>(i)].shape.bounds());
                if (i + 1 == count || (set >> static_cast<unsigned>(i) & 1U) != 0) {
                    films.push_back(grown(ink, making.margin));
                    ink = {};
                }
            }
            const Packed p = pack(films, mat.usable, section_gap);
            if (!p.left_over.empty()) continue;
            Length film;
            for (const auto& load : p.loads) film += film_for(load, films, mat);
            least = std::min(least, {p.loads.size(), films.size(), film});
        }
        const LoadsPlan plan = plan_loads(pieces, face, mat, making, {});
        const std::size_t fewest = std::get<0>(least);
        CAPTURE(n, count, plan.sections.size(), plan.film_total.in_inches(), std::get<1>(least),
                std::get<2>(least).in_inches());
        REQUIRE(fewest < 1000);  // no piece is larger than the mat
        CHECK(plan.crossings == 0);
        CHECK(plan.problems.empty());
        CHECK(plan.loads.size() == fewest);
        CHECK(std::tuple(plan.loads.size(), plan.sections.size(), plan.film_total) <= least);
        if (plan.proved) CHECK(static_cast<std::size_t>(plan.least_loads) == fewest);
    }
}

TEST_CASE("a rectangle lies at a slant just when Carver's condition says so") {
    // W. B. Carver, Packing a rectangle in a rectangle, American Mathematical Monthly 64 (1957): p x q, p >= q, fits a
    // x b, a >= b, when p <= a and q <= b; or when p > a, q <= b and b >= (2pqa + (p2 - q2) sqrt(p2 + q2 - a2)) / (p2 +
    // q2) (from memory).
    CHECK(rc::check([] {
        const double a = *rc::gen::inRange(160, 400) / 16.0;
        const double b = *rc::gen::inRange(100, 160) / 16.0;
        const double p = *rc::gen::inRange(160, 480) / 16.0;
        const double q = *rc::gen::inRange(4, 100) / 16.0;
        RC_PRE(p > a);
        const double need = (2 * p * q * a + (p * p - q * q) * std::sqrt(p * p + q * q - a * a)) / (p * p + q * q);
        const Room room{Length::from_mm(b * 25.4), Length::from_mm(a * 25.4), true, true};
        const bool found =
            slant_for(to_grid(Length::from_mm(q * 25.4)), to_grid(Length::from_mm(p * 25.4)), room).has_value();
        // Angles are tried in steps: right at the edge either answer will do.
        if (need < b - 0.02) RC_ASSERT(found);
        if (need > b + 0.001) RC_ASSERT(!found);
    }));
}
