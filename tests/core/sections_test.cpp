#include "loads/loads.h"
#include "support.h"
#include "support_division.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

const Room mat{11.5_in, 23.5_in};

MakingPlan mask_of(Length margin = 1_in) {
    MakingPlan m;
    m.way = Way::PaintThrough;
    m.margin = margin;
    m.lap = 0.125_in;
    return m;
}

MakingPlan decal() {
    MakingPlan m;
    m.way = Way::Decal;
    m.margin = 0.125_in;
    return m;
}

std::vector<Piece> column(int count, double size, double gap, double left = 1, double bottom = 2) {
    std::vector<Piece> pieces;
    for (int i = 0; i < count; ++i) {
        const int from_top = count - 1 - i;
        pieces.push_back({square_in(left, bottom + from_top * (size + gap), size),
                          std::string(1, static_cast<char>('A' + i)), i, false, 0});
    }
    return pieces;
}

}  // namespace

TEST_CASE("what fits one mat is one section") {
    const auto pieces = column(3, 4, 0.5);
    const Divisions d = divide(pieces, box_in(0, 0, 6, 20), box_in(0, 0, 6, 20), mat, mask_of());
    REQUIRE(d.choices.size() == 1);
    CHECK(d.choices.front().parts.size() == 1);
    CHECK(d.choices.front().seams.empty());
    CHECK(divide({}, box_in(0, 0, 6, 20), box_in(0, 0, 6, 20), mat, mask_of()).choices.front().parts.empty());
}

TEST_CASE("masks as wide as the board run to its edges and lap at a seam, off the neighbour's ink") {
    const auto pieces = column(9, 4.5, 0.5);
    const Box face = box_in(0, 0, 5.5, 50);
    const Divisions d = divide(pieces, face, face, mat, mask_of());
    REQUIRE_FALSE(d.choices.empty());
    const Division& best = d.choices.front();
    CHECK(best.crossings == 0);
    CHECK(best.spans_face);
    for (const Part& part : best.parts) {
        CHECK(part.film.low.x == face.low.x);
        CHECK(part.film.high.x == face.high.x);
    }
    for (std::size_t i = 1; i < best.parts.size(); ++i) {
        const std::int64_t lap = best.parts[i].film.high.y - best.parts[i - 1].film.low.y;
        CHECK(from_grid(lap) == 0.125_in);
    }
    for (const Seam& seam : best.seams) {
        CHECK(seam.lap == 0.125_in);
        CHECK(seam.crossed == Length{});
        CHECK(from_grid(seam.where).nm() % Length::inches(0, 1, 16).nm() == 0);  // a line that can be measured
    }
}

TEST_CASE("a gap too narrow for a lap is butted, and says so") {
    const auto pieces = column(9, 4.9, 0.15);
    const Box face = box_in(0, 0, 7, 50);
    const Divisions d = divide(pieces, face, face, mat, mask_of());
    REQUIRE_FALSE(d.choices.empty());
    for (const Seam& seam : d.choices.front().seams) {
        CHECK(seam.why.id == "seam.narrow-gap");
        CHECK(seam.lap == Length{});
    }
}

TEST_CASE("beyond a straight seam in no gap at all film reaches up to the ink, though other seams are stepped") {
    const std::vector<Piece> pieces{{Region::rectangle(box_in(2, 7, 10, 9)), "A", 0, true, 0},
                                    {Region::rectangle(box_in(10, 3, 14, 5)), "B", 1, true, 0}};
    Division division;
    division.parts = {{{0}, box_in(0, 0, 10, 11), {}}, {{1}, box_in(10, 0, 16, 11), {}}};
    division.seams = {{Axis::X, to_grid(10_in), 0, to_grid(11_in), false, {}, {}, {}},
                      {Axis::X, to_grid(16_in), 0, to_grid(11_in), true, {}, {}, {}}};
    const auto sections = sections_of(division, pieces, mask_of());
    REQUIRE(sections.size() == 2);
    const Region beside = intersect(grow(merge(std::vector{pieces[0].shape, pieces[1].shape}), 0.5_in),
                                    Region::rectangle(box_in(0, 0, 16, 11)));
    CHECK(subtract(beside, merge(std::vector{sections[0].film, sections[1].film})).area_mm2() < 0.01);
}

TEST_CASE("one piece larger than the mat is crossed at its thin bar; the opening runs through the lap") {
    // A dumb-bell: two discs' worth of square joined by a thin bar.
    const std::vector<Region> parts{square_in(1, 1, 9), square_in(31, 1, 9), Region::rectangle(box_in(9, 5, 32, 5.5))};
    const std::vector<Piece> pieces{{merge(parts), "8", 0, false, 0}};
    const Box face = box_in(0, 0, 41, 11);
    const Divisions d = divide(pieces, face, face, mat, mask_of(0.5_in));
    REQUIRE_FALSE(d.choices.empty());
    const Division& best = d.choices.front();
    CHECK(best.crossings == static_cast<int>(best.seams.size()));
    CHECK(best.crossings == 1);
    CHECK(best.crossed == 0.5_in);
    const auto sections = sections_of(best, pieces, mask_of(0.5_in));
    REQUIRE(sections.size() == 2);
    CHECK(intersect(sections[0].cut, sections[1].cut).area_mm2() > 0);  // both carry the opening
    CHECK(intersect(sections[0].pieces.front().shape, sections[1].pieces.front().shape).area_mm2() < 1e-9);
}

TEST_CASE("a piece too large both ways is cut one way, then the other") {
    auto pieces = column(2, 4, 1);
    pieces.push_back({Region::rectangle(box_in(10, 0, 40, 30)), "Q", 2, false, 0});
    const Box face = box_in(0, 0, 50, 40);
    const Room small{4.5_in, 6_in};
    const Divisions d = divide(pieces, face, face, small, decal());
    CHECK(d.problems.empty());
    REQUIRE_FALSE(d.choices.empty());
    const Division& best = d.choices.front();
    CHECK(best.crossings > 0);
    CHECK(best.parts.size() >= 2 + 30 * 30 / (4.5 * 6));
    double ink = 0;
    for (const Section& s : sections_of(best, pieces, decal())) {
        const Box film = s.film.bounds();
        CHECK(std::min(film.width(), film.height()) <= to_grid(small.across));
        CHECK(std::max(film.width(), film.height()) <= to_grid(small.along));
        for (const Piece& p : s.pieces) ink += p.shape.area_mm2();
    }
    CHECK(ink == Approx((30 * 30 + 2 * 4 * 4) * 645.16));
}

TEST_CASE("pieces that no cut makes small enough are named") {
    const auto pieces = column(2, 4, 1);
    const Box face = box_in(0, 0, 6, 12);
    const Divisions d = divide(pieces, face, face, {0.05_in, 23.5_in}, decal());
    REQUIRE(d.problems.size() == 2);
    CHECK(library().catalogue.say(d.problems.front().what, {}).find('A') != std::string::npos);
    CHECK(d.problems.front().remedy.id == "sections.larger-mat");
}

TEST_CASE("level lines whose gaps nowhere align are divided with no ink crossed") {
    Job job = long_board();
    const Plan plan = plan_of(job);
    const LoadsPlan& loads = *plan.colours.front().cut.loads;
    CHECK(loads.crossings == 0);
    CHECK(loads.sections.size() > 1);
    CHECK(loads.problems.empty());
    making(job).way = Way::PaintThrough;
    making(job).film = "removable-matt";
    CHECK(plan_of(job).colours.front().cut.loads->crossings == 0);
}

TEST_CASE("keepers are the eyes of letters, counted by letter") {
    const Plan plan = plan_of(porch_board());
    std::map<std::string, int> by_letter;
    for (const Section& s : plan.colours.front().cut.loads->sections) {
        for (const Keeper& k : s.keepers) ++by_letter[k.letters];
    }
    CHECK(by_letter == std::map<std::string, int>{{"B", 2}, {"O", 2}, {"A", 1}});
    CHECK(plan_of(long_board()).colours.front().cut.loads->keepers == 0);  // decals have none
}

TEST_CASE("random signs: sections cover the ink once and fit the mat") {
    CHECK(rc::check([] {
        const bool is_mask = *rc::gen::arbitrary<bool>();
        const auto count = *rc::gen::inRange(1, 14);
        std::vector<Piece> pieces;
        double y = 2;
        for (int i = 0; i < count; ++i) {
            const double size = *rc::gen::inRange(8, 80) / 16.0;
            const double gap = *rc::gen::inRange(2, 32) / 16.0;
            pieces.insert(pieces.begin(),
                          Piece{square_in(1, y, size), std::string(1, static_cast<char>('Z' - i)), 0, false, 0});
            y += size + gap;
        }
        for (std::size_t i = 0; i < pieces.size(); ++i) pieces[i].first = static_cast<int>(i);
        const Box face = box_in(0, 0, 7, y + 2);
        const MakingPlan making = is_mask ? mask_of(*rc::gen::element(0.5_in, 0.75_in, 1_in)) : decal();
        const Divisions d = divide(pieces, face, face, mat, making);
        RC_ASSERT(!d.choices.empty());
        RC_ASSERT(d.problems.empty());
        for (const Division& division : d.choices) {
            RC_ASSERT(division.crossings == 0);
            check_division(pieces, division, making, mat, face);
        }
    }));
}

// The fewest sections that any choice of seams between letters of a column gives, wherever in their gaps they lie: for
// each choice the seams are set from the bottom up, as high as the mat allows.
int fewest_by_brute_force(const std::vector<Piece>& from_top, const Box& face, Length margin, Length lap) {
    const std::vector<Piece> pieces(from_top.rbegin(), from_top.rend());
    const auto n = pieces.size();
    const std::int64_t half = to_grid(lap) / 2;
    const std::int64_t room = to_grid(mat.along);
    int best = 1000;
    for (unsigned seams = 0; seams < (1U << (n - 1)); ++seams) {
        bool fits = true;
        int sections = 1;
        std::int64_t film_from = std::max(face.low.y, pieces.front().shape.bounds().low.y - to_grid(margin));
        for (std::size_t i = 0; i + 1 < n; ++i) {
            if ((seams >> i & 1U) == 0) continue;
            const std::int64_t lower = pieces[i].shape.bounds().high.y + to_grid(off_neighbour) + half;
            const std::int64_t upper = pieces[i + 1].shape.bounds().low.y - to_grid(off_neighbour) - half;
            const std::int64_t seam = std::min(upper, film_from + room - half);
            fits = fits && seam >= lower;
            film_from = seam - half;
            ++sections;
        }
        const std::int64_t end = std::min(face.high.y, pieces.back().shape.bounds().high.y + to_grid(margin));
        if (fits && end - film_from <= room) best = std::min(best, sections);
    }
    return best;
}

TEST_CASE("no choice of seams gives fewer sections than the search finds") {
    CHECK(rc::check([] {
        const auto count = *rc::gen::inRange(2, 9);
        const double size = *rc::gen::inRange(48, 88) / 16.0;
        const double gap = *rc::gen::inRange(8, 16) / 16.0;
        const auto pieces = column(count, size, gap);
        const Box face = box_in(0, 0, 7.5, 4 + count * (size + gap));
        const Divisions d = divide(pieces, face, face, mat, mask_of());
        RC_ASSERT(!d.choices.empty());
        RC_ASSERT(static_cast<int>(d.choices.front().parts.size()) ==
                  fewest_by_brute_force(pieces, face, 1_in, 0.125_in));
    }));
}

TEST_CASE("ten signs one above the other are divided no worse than one, and none is left undivided") {
    Job job = long_board();
    lettering(job).typeface = typeface("Dancing Script", "Bold");
    lettering(job).words = "Messing about in boats is worth\ndoing slowly and on a long afternoon";
    lettering(job).line_gap = measure("1/2");
    const Plan plan = plan_of(job);
    const std::vector<Piece>& one = *plan.colours.front().cut.pieces;
    const Box face = plan.colours.front().face->blank->face;
    std::vector<Piece> ten;
    for (int row = 0; row < 10; ++row) {
        for (Piece piece : one) {
            piece.shape = piece.shape.moved({0, row * face.height()});
            piece.first += row * 100;
            piece.line += row * 10;
            ten.push_back(std::move(piece));
        }
    }
    const Box high{face.low, {face.high.x, 10 * face.height()}};
    for (const MakingPlan& making : {decal(), mask_of()}) {
        const Divisions single = divide(one, face, face, mat, making);
        const Divisions all = divide(ten, high, high, mat, making);
        REQUIRE(!single.choices.empty());
        REQUIRE(!all.choices.empty());
        CHECK(all.problems.empty());
        CHECK(all.choices.front().crossings == 0);
        CHECK(all.choices.front().parts.size() <= 10 * single.choices.front().parts.size());
    }
}

// Words of random lengths in level lines, with free film between lines and between the words of a line.
struct Lines {
    std::vector<Piece> pieces;
    Box face;
    int each_line_alone = 0;  // sections, where every line is divided by itself, from left to right
};

Lines random_lines(int most, const Room& room, Length margin) {
    Lines out;
    const int lines = *rc::gen::inRange(1, most + 1);
    double bottom = 1;
    double widest = 0;
    for (int line = lines - 1; line >= 0; --line) {
        const double high = *rc::gen::inRange(16, 80) / 16.0;
        const int words = *rc::gen::inRange(1, 6);
        double left = *rc::gen::inRange(8, 160) / 16.0;
        double begun = left;
        ++out.each_line_alone;
        for (int word = 0; word < words; ++word) {
            const double wide = *rc::gen::inRange(16, 160) / 16.0;
            if (left + wide - begun + 2 * margin.in_inches() > room.along.in_inches()) {
                begun = left;
                ++out.each_line_alone;
            }
            out.pieces.push_back({Region::rectangle(box_in(left, bottom, left + wide, bottom + high)),
                                  std::string(1, static_cast<char>('a' + word)), line * 10 + word, true, line, false});
            left += wide + *rc::gen::inRange(8, 40) / 16.0;
        }
        widest = std::max(widest, left);
        bottom += high + *rc::gen::inRange(8, 24) / 16.0;
    }
    out.face = box_in(0, 0, widest + 1, bottom + 1);
    return out;
}

TEST_CASE("lines with free film between them are always divided, however many, and no worse than line by line") {
    CHECK(rc::check([] {
        const Lines lines = random_lines(*rc::gen::element(4, 12, 40), mat, 0.125_in);
        const Divisions d = divide(lines.pieces, lines.face, lines.face, mat, decal());
        RC_ASSERT(d.problems.empty());
        RC_ASSERT(!d.choices.empty());
        RC_ASSERT(d.choices.front().crossings == 0);
        const auto fewest = std::min_element(d.choices.begin(), d.choices.end(), [](const auto& a, const auto& b) {
            return a.parts.size() < b.parts.size();
        });
        RC_ASSERT(static_cast<int>(fewest->parts.size()) <= lines.each_line_alone);
        check_division(lines.pieces, *fewest, decal(), mat, lines.face);
    }));
}

TEST_CASE("masks of many lines keep every margin wherever their seams lie") {
    CHECK(rc::check([] {
        const MakingPlan making = mask_of(*rc::gen::element(0.5_in, 1_in));
        const Lines lines = random_lines(6, mat, making.margin);
        const Divisions d = divide(lines.pieces, lines.face, lines.face, mat, making);
        RC_ASSERT(!d.choices.empty());
        for (std::size_t i = 0; i < d.choices.size(); i += 7)
            check_division(lines.pieces, d.choices[i], making, mat, lines.face);
    }));
}
