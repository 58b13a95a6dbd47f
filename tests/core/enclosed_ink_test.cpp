// Ink around other ink: borders, rings and hearts larger than the room, with letters inside.
#include "support.h"
#include "support_division.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

MakingPlan made_as(Way way, Length margin) {
    MakingPlan m;
    m.way = way;
    m.margin = margin;
    m.lap = 0.125_in;
    return m;
}

Region disc(Point middle, Length radius) {
    Ring ring;
    constexpr int corners = 180;
    for (int i = 0; i < corners; ++i) ring.push_back(middle + rotated({to_grid(radius), 0}, i * 360'000 / corners));
    return Region::from_rings({ring});
}

Region band(const Region& outer, Length thick) { return subtract(outer, grow(outer, Length{} - thick)); }

Region heart(Point middle, Length size) {
    const std::int64_t r = to_grid(size) / 4;
    const Region square = Region::rectangle({{-r, -r}, {r, r}}).rotated(45'000);
    const std::int64_t off = r * 7071 / 10'000;
    return merge(std::vector<Region>{square, disc({-off, off}, from_grid(r)), disc({off, off}, from_grid(r))})
        .moved(middle);
}

// Rows of words inside `box`; a letter is a square with an eye or without.
void set_rows(std::vector<Piece>& pieces, const Box& box, std::int64_t size, int letters_to_a_word) {
    const std::int64_t gap = size / 6;
    int line = 0;
    int first = 0;
    for (std::int64_t y = box.high.y - size; y >= box.low.y; y -= size + 2 * gap, ++line) {
        int in_row = 0;
        std::int64_t x = box.low.x;
        for (; x + size <= box.high.x; x += size + gap, ++in_row) {
            const bool starts = in_row % letters_to_a_word == 0;
            if (starts && in_row > 0) x += size / 2;
            if (x + size > box.high.x) break;
            Region shape = Region::rectangle({{x, y}, {x + size, y + size}});
            if (in_row % 2 == 1) shape = band(shape, from_grid(size / 5));
            // What touches would be one piece.
            if (std::any_of(pieces.begin(), pieces.end(), [&](const Piece& p) { return touch(p.shape, shape); }))
                continue;
            const int of_first = first++;
            pieces.push_back(
                {std::move(shape), std::string(1, static_cast<char>('A' + of_first % 26)), of_first, starts, line});
        }
    }
}

Piece art(Region shape, const char* name) {
    Piece p{std::move(shape), name, 0, false, 0};
    p.art = true;
    return p;
}

}  // namespace

TEST_CASE("a border larger than the mat is crossed in the middle of its sides, and the letters within stay whole") {
    const Box face = box_in(0, 0, 24, 18);
    for (const Way way : {Way::Decal, Way::PaintThrough}) {
        std::vector<Piece> pieces{art(band(Region::rectangle(box_in(1, 1, 23, 17)), 0.5_in), "border")};
        set_rows(pieces, box_in(4, 4, 20.5, 14), to_grid(2.5_in), 3);
        const MakingPlan making = made_as(way, 0.5_in);
        const Divisions d = divide(pieces, face, face, {11.5_in, 23.5_in}, making);
        CAPTURE(static_cast<int>(way));
        REQUIRE(d.problems.empty());
        REQUIRE_FALSE(d.choices.empty());
        const Division& best = d.choices.front();
        CHECK(best.letters == 0);
        CHECK(best.in_words == 0);
        CHECK(best.crossings == 1);
        CHECK(best.crossed == 1_in);  // both sides, straight
        const Seam& seam = best.seams.front();
        const bool upright = seam.axis == Axis::X;
        const double length = upright ? 24 : 18;
        CHECK(std::abs(inches(seam.where) - length / 2) <= 2);
        for (const Section& s : sections_of(best, pieces, making)) {
            for (const Piece& p : s.pieces) {
                if (!p.art) CHECK(p.shape == pieces[static_cast<std::size_t>(p.first) + 1].shape);
            }
        }
        check_division(pieces, best, making, {11.5_in, 23.5_in}, face);
    }
}

TEST_CASE("ink around ink is divided whatever it is: once outside laps, every margin met, no film over ink") {
    CHECK(rc::check([] {
        const int wide = *rc::gen::inRange(14, 40);
        const int high = *rc::gen::inRange(14, 40);
        const Box face = box_in(0, 0, wide, high);
        const Length thick = *rc::gen::element(0.25_in, 0.75_in);
        const Point middle{(face.low.x + face.high.x) / 2, (face.low.y + face.high.y) / 2};
        const std::int64_t least = std::min(face.width(), face.height());
        const int kind = *rc::gen::inRange(0, 4);
        const Length radius = from_grid(least / 2) - 1_in;
        const Region outer = kind == 0   ? Region::rectangle(grown(face, Length{} - 1_in))
                             : kind == 1 ? disc(middle, radius)
                             : kind == 2 ? heart(middle, radius * 2)
                                         : grow(Region::rectangle(grown(face, Length{} - 3_in)), 2_in);
        std::vector<Piece> pieces{art(band(outer, thick), "border")};
        if (*rc::gen::arbitrary<bool>()) pieces.push_back(art(band(grow(outer, Length{} - thick * 2), thick), "ring"));
        // Within, with a little room or with none.
        const std::int64_t reach = least / 2 - to_grid(thick * 4 + 1_in);
        const std::int64_t half = kind == 0 || kind == 3 ? reach : reach * 6 / 10;
        const Box inside{{middle.x - half, middle.y - half / 2}, {middle.x + half, middle.y + half / 2}};
        set_rows(pieces, inside, to_grid(*rc::gen::element(0.5_in, 1.5_in, 3_in)), *rc::gen::inRange(1, 6));
        const Room room{*rc::gen::element(6_in, 11.5_in), *rc::gen::element(11.5_in, 23.5_in)};
        const Way way = *rc::gen::element(Way::Decal, Way::PaintThrough);
        MakingPlan making = made_as(way, *rc::gen::element(0.125_in, 0.5_in, 1_in));
        making.edges_place = *rc::gen::arbitrary<bool>();
        RC_LOG() << kind << (way == Way::Decal ? " decal " : " mask ") << room.across.in_inches() << " x "
                 << room.along.in_inches() << ", margin " << making.margin.in_inches();
        const Divisions d = divide(pieces, face, face, room, making);
        RC_ASSERT(!d.choices.empty());
        RC_ASSERT(d.problems.empty());
        for (const Division& choice : {d.choices.front(), d.choices.back()})
            check_division(pieces, choice, making, room, face, 0.02);
    }));
}
