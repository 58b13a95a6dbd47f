// Any blank at all: what must hold whatever a maker types.
#include <set>

#include "blank/blank.h"
#include "blank/room.h"
#include "job/commands.h"
#include "support_blank.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

Measure some(int low, int high) {
    return measure_of(Length::sixtyfourths(*rc::gen::inRange(low, high)), {Unit::Inch, 64});
}

std::optional<Measure> perhaps(int low, int high) {
    return *rc::gen::inRange(0, 3) == 0 ? std::optional(some(low, high)) : std::nullopt;
}

ClearZone any_zone() {
    ClearZone z;
    z.shape = *rc::gen::element(ZoneShape::Band, ZoneShape::Rectangle, ZoneShape::Circle);
    z.edge = *rc::gen::element(Edge::Top, Edge::Bottom, Edge::Left, Edge::Right);
    z.depth = some(0, 400);
    z.x = some(-100, 2000);
    z.y = some(-100, 4000);
    z.width = some(0, 600);
    z.height = some(0, 600);
    z.name = *rc::gen::element<std::string>("rope", "knot", "bow", "");
    z.reason = *rc::gen::element(ZoneReason::Handle, ZoneReason::Hole, ZoneReason::Decoration, ZoneReason::WriteOn);
    z.mirrored = *rc::gen::arbitrary<bool>();
    if (*rc::gen::inRange(0, 4) == 0) {
        z.turns = *rc::gen::inRange(0, 20);
        z.girth = some(8, 64);
    }
    return z;
}

Frame any_frame() {
    return {static_cast<FrameKind>(*rc::gen::inRange(0, 6)),
            *rc::gen::element<std::string>("1x2", "1x3"),
            some(16, 200),
            some(0, 16),
            some(0, 16),
            static_cast<SizeIs>(*rc::gen::inRange(0, 3)),
            *rc::gen::arbitrary<bool>(),
            *rc::gen::arbitrary<bool>(),
            perhaps(8, 200)};
}

// Sizes from a plaque to a door, some of them nonsense.
Blank any_blank() {
    Blank b;
    b.kind = static_cast<Kind>(*rc::gen::inRange(0, 8));
    b.stock = *rc::gen::element<std::string>("", "1x6", "1x10", "3x77");
    b.length = some(0, 6000);
    b.width = perhaps(0, 3000);
    b.thickness = perhaps(1, 200);
    b.stands = *rc::gen::element(Stands::Upright, Stands::Level);
    b.head = {some(1, 600), some(1, 900), some(0, 200), *rc::gen::arbitrary<bool>()};
    b.arch = {static_cast<ArchStyle>(*rc::gen::inRange(0, 3)), some(1, 3000)};
    if (b.kind == Kind::Drawn && *rc::gen::arbitrary<bool>())
        b.outline = DrawnOutline{subtract(circle({0, 0}, 9_in), circle({0, 0}, 2_in)), *rc::gen::arbitrary<bool>(),
                                 some(1, 3000), "ring.svg"};
    b.bars = perhaps(1, 100);
    b.moulding = perhaps(1, 200);
    if (*rc::gen::inRange(0, 4) == 0) b.backing = Backing{some(64, 6000), some(64, 3000), some(8, 96), "pine"};
    b.material = *rc::gen::element<std::string>("pine", "acrylic", "driftwood", "canvas");
    b.grain = *rc::gen::element(Grain::Length, Grain::Across, Grain::None);
    b.finished = *rc::gen::element(Coated::Face, Coated::FaceEdges, Coated::All);
    b.from_behind = *rc::gen::arbitrary<bool>();
    for (auto& reading : b.tape.taken) reading = perhaps(1, 6000);
    for (int i = *rc::gen::inRange(0, 4); i > 0; --i) b.clear.push_back(any_zone());
    b.margin = some(0, 200);
    for (auto& side : b.side_margin) side = perhaps(0, 300);
    for (int i = *rc::gen::inRange(0, 3); i > 0; --i) {
        PaintedField f;
        f.border = *rc::gen::arbitrary<bool>();
        f.along = *rc::gen::element(Axis::X, Axis::Y);
        f.middle = some(0, 3000);
        f.depth = some(0, 900);
        f.lettered = *rc::gen::arbitrary<bool>();
        b.fields.push_back(f);
    }
    if (*rc::gen::arbitrary<bool>())
        b.guides.push_back({*rc::gen::element(Axis::X, Axis::Y), some(0, 900), "glue line"});
    b.frame = any_frame();
    b.holding = {static_cast<Holds>(*rc::gen::inRange(0, 5)), some(0, 2000), some(0, 2000),
                 *rc::gen::inRange(0, 20'000)};
    return b;
}

}  // namespace

TEST_CASE("any blank comes back from its file as it was") {
    CHECK(rc::check([] {
        Job job = porch_board();
        job.signs.front().blank = any_blank();
        if (*rc::gen::arbitrary<bool>()) job = copy_sign(job, 0, "TEA");
        if (*rc::gen::arbitrary<bool>()) job = letter_back(job, 0);
        if (*rc::gen::arbitrary<bool>()) job = set_on_post(job);
        const auto read = read_job(write_job(job));
        RC_ASSERT(read.has_value());
        RC_ASSERT(*read == job);
    }));
}

TEST_CASE("any blank is measured up or says why not; the room lies in what is free, and that in the face") {
    CHECK(rc::check([] {
        const Blank b = any_blank();
        const BlankPlan p = measured(b);
        if (p.outline.empty()) {
            RC_ASSERT(std::any_of(p.problems.begin(), p.problems.end(),
                                  [](const Problem& q) { return q.mark == Mark::Stop; }));
            return;
        }
        RC_ASSERT(p.face == p.outline.bounds());
        RC_ASSERT((p.face.low == Point{0, 0}));
        // Where slanted edges are cut, corners are rounded to the grid: slivers of a grid step along the sides.
        const double sliver = 4 * grid_to_mm(1) * (grid_to_mm(p.face.width()) + grid_to_mm(p.face.height())) + 1e-6;
        RC_ASSERT(subtract(p.free, p.outline).area_mm2() < sliver);
        RC_ASSERT(p.usable.empty() || lies_in(p.usable, p.free));
        RC_ASSERT(!p.usable.empty() || !p.problems.empty());
        RC_ASSERT(p.zones.size() == b.clear.size());
        for (const Region& zone : p.zones) RC_ASSERT(zone.empty() || intersect(zone, p.free).area_mm2() < sliver);
        for (const FieldPlan& f : p.fields) RC_ASSERT(subtract(f.region, p.outline).area_mm2() < sliver);
        RC_ASSERT(p.weight.total() >= 0);
        for (const Cut& cut : p.cuts) RC_ASSERT(cut.count > 0);
    }));
}

TEST_CASE("the back of any blank is the front, mirrored") {
    CHECK(rc::check([] {
        Blank b = any_blank();
        b.tape = {};
        const BlankPlan front = measured(b);
        if (front.outline.empty()) return;
        const BlankPlan back = measured(seen_from_behind(b, from_grid(front.face.width())));
        // Curves round differently by a grid step when they are mirrored.
        const Region there = front.outline.mirrored(front.face.high.x);
        const double off = subtract(there, back.outline).area_mm2() + subtract(back.outline, there).area_mm2();
        RC_ASSERT(off < 1e-3 * there.area_mm2());
    }));
}

TEST_CASE("words on any blank: ink stays in the room, sections cover it once") {
    CHECK(rc::check([] {
        Job job = porch_board();
        job.signs.front().blank = any_blank();
        lettering(job).words = *rc::gen::element<std::string>("TEA", "OARS UP\nBOYS", "BOATHOUSE");
        lettering(job).arrangement = *rc::gen::element(Arrangement::Stack, Arrangement::Level);
        lettering(job).letter_gap = measure("1/16");
        lettering(job).line_gap = measure("1/4");
        making(job).way = *rc::gen::element(Way::Decal, Way::PaintThrough);
        const Plan p = plan(job, usual_shop(), library(), moment("2026-05-04T18:00"));
        const ColourPlan& f = p.colours.front();
        if (f.cut.pieces->empty()) return;
        const Box room = grown(f.face->blank->usable, Length::nanometres(grid_nm * 8));
        const Box ink = f.face->lettering->ink;
        const bool too_large = std::any_of(p.problems.begin(), p.problems.end(),
                                           [](const Problem& q) { return q.where == Station::Lettering; });
        RC_ASSERT(too_large || room.holds(ink));
        const bool stopped = std::any_of(p.problems.begin(), p.problems.end(), [](const Problem& q) {
            return q.where == Station::Sections && q.mark == Mark::Stop;
        });
        if (stopped) return;
        std::vector<Region> shapes, laid;
        for (const Piece& piece : *f.cut.pieces) shapes.push_back(piece.shape);
        double sum = 0;
        for (const Section& s : f.cut.loads->sections) {
            for (const Piece& piece : s.pieces) {
                laid.push_back(piece.shape);
                sum += piece.shape.area_mm2();
            }
        }
        const Region all = merge(shapes);
        const Region again = merge(laid);
        RC_ASSERT(subtract(all, again).area_mm2() + subtract(again, all).area_mm2() < 0.05);
        RC_ASSERT(std::abs(sum - all.area_mm2()) < 1e-3 * all.area_mm2() + 0.05);
        // Masks run to the edges only where edges can place them.
        RC_ASSERT(!f.cut.loads->spans_face || f.face->blank->straight_sides);
    }));
}
