// Texts on a face: arcs, slopes, sizes, gaps to the eye, scripts, columns, shapes, and where things hang.
#include <cmath>

#include "artwork/ink.h"
#include "job/face_commands.h"
#include "lettering/setting.h"
#include "lettering/yielding.h"
#include "rapidcheck.h"
#include "support.h"
#include "support_blank.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

Text line_of(const std::string& words, const std::string& family = "League Spartan",
             const std::string& style = "Bold") {
    Text t;
    t.words = words;
    t.typeface = typeface(family, style);
    t.arrangement = Arrangement::Level;
    t.letter_gap = measure("0");
    t.line_gap = measure("1/2");
    t.size = measure("2");
    return t;
}

LetteringRoom round_room(double inches_across) {
    Blank blank;
    blank.kind = Kind::Round;
    blank.length = measure_of(Length::from_mm(inches_across * 25.4), {});
    blank.margin = measure("1/2");
    return room_of(blank, measured(blank));
}

bool says(const LetteringPlan& plan, const std::string& id) {
    return std::any_of(plan.problems.begin(), plan.problems.end(), [&](const Problem& p) { return p.what.id == id; });
}

}  // namespace

TEST_CASE("each way of sizing gives exactly that size") {
    const Box room = box_in(0, 0, 60, 40);
    Text t = line_of("Boxing");
    t.sizing = Sizing::CapHeight;
    CHECK(place(t, room, library().typefaces).texts[0].cap_height == 2_in);
    t.sizing = Sizing::XHeight;
    CHECK(place(t, room, library().typefaces).texts[0].x_height == 2_in);
    t.sizing = Sizing::Overall;
    t.size = measure("5");
    CHECK(inches(place(t, room, library().typefaces).ink.height()) == Approx(5).margin(0.002));
    t.sizing = Sizing::Width;
    t.size = measure("17 1/2");
    CHECK(inches(place(t, room, library().typefaces).ink.width()) == Approx(17.5).margin(0.002));
    t.bolder = measure("1/8");
    CHECK(inches(place(t, room, library().typefaces).ink.width()) == Approx(17.5).margin(0.002));
}

TEST_CASE("letters are made wider, with a word where that begins to look wrong") {
    const Box room = box_in(0, 0, 60, 40);
    Text t = line_of("TEA");
    t.sizing = Sizing::CapHeight;
    const std::int64_t drawn = place(t, room, library().typefaces).ink.width();
    t.width_percent = 112;
    LetteringPlan plan = place(t, room, library().typefaces);
    CHECK(static_cast<double>(plan.ink.width()) == Approx(1.12 * static_cast<double>(drawn)).epsilon(1e-4));
    CHECK_FALSE(says(plan, "lettering.too-wide"));
    t.width_percent = 130;
    CHECK(says(place(t, room, library().typefaces), "lettering.too-wide"));
    t.width_percent = 75;
    CHECK(says(place(t, room, library().typefaces), "lettering.too-thin"));
}

TEST_CASE("an arc along a round's edge stands that far inside it, above and below") {
    const LetteringRoom room = round_room(18);
    for (const bool below : {false, true}) {
        Text t = line_of("IIIIIIII");
        t.arrangement = Arrangement::Arc;
        t.sizing = Sizing::CapHeight;
        t.size = measure("1");
        t.letter_gap = measure("1/2");
        t.arc.below = below;
        t.arc.distance = measure("1 1/4");
        const LetteringPlan plan = place(Lettering{{t}, false}, room, library().typefaces);
        REQUIRE(plan.letters.size() == 8);
        CHECK_FALSE(says(plan, "lettering.off-face"));
        const double middle = 9;
        double farthest = 0;
        double nearest = 99;
        for (const PlacedLetter& l : plan.letters) {
            for (const Ring& ring : l.ink.rings()) {
                for (const Point p : ring) {
                    const double r = std::hypot(inches(p.x) - middle, inches(p.y) - middle);
                    farthest = std::max(farthest, r);
                    nearest = std::min(nearest, r);
                }
            }
            CHECK((inches(l.ink.bounds().low.y) > middle) == !below);
        }
        // An upright of 1 in whose feet (or tops) keep 7 3/4 in from the middle; its corners reach a little further.
        CHECK(farthest == Approx(7.75).margin(0.02));
        CHECK(nearest == Approx(6.75).margin(0.02));
        // Read from the left to the right either way.
        CHECK(plan.letters.front().ink.bounds().low.x < plan.letters.back().ink.bounds().low.x);
    }
}

TEST_CASE("a snug arc fills its sweep") {
    const LetteringRoom room = round_room(18);
    Text t = line_of("TERN QUAY");
    t.arrangement = Arrangement::Arc;
    t.arc.sweep = 120;
    const LetteringPlan plan = place(Lettering{{t}, false}, room, library().typefaces);
    const auto angle = [&](const PlacedLetter& l) {
        const Box b = l.ink.bounds();
        return std::atan2(inches(b.low.x + b.high.x) / 2 - 9, inches(b.low.y + b.high.y) / 2 - 9) * 180 /
               3.14159265358979;
    };
    const double seen = angle(plan.letters.back()) - angle(plan.letters.front());
    CHECK(seen > 100);  // from the middle of the first letter to the middle of the last
    CHECK(seen < 120);
}

TEST_CASE("sloped lines rise by their angle and stay in the room") {
    Text t = line_of("IIII");
    t.slope_tenths = 150;
    const Box room = box_in(0, 0, 20, 12);
    const LetteringPlan plan = place(t, room, library().typefaces);
    CHECK(room.holds(plan.ink));
    const Point a = plan.letters.front().ink.bounds().low;
    const Point b = plan.letters.back().ink.bounds().low;
    CHECK(std::atan2(static_cast<double>(b.y - a.y), static_cast<double>(b.x - a.x)) * 180 / 3.14159265358979 ==
          Approx(15).margin(0.05));
}

TEST_CASE("gaps are evened to the eye, and the line stays as long; what the least distance holds is named") {
    CHECK(rc::check([] {
        const auto& typefaces = library().typefaces;
        const auto& typeface = typefaces[*rc::gen::inRange<std::size_t>(0, typefaces.size())];
        RC_PRE(!typeface.script());
        const auto words = *rc::gen::element<std::string>("AVATAR", "HOUSE", "LOST OARS", "TRAWLER", "WAVY", "mooring",
                                                          "Quay tea", "TO LET");
        Text t = line_of(words, typeface.name.family, typeface.name.style);
        t.sizing = Sizing::CapHeight;
        t.least_gap = measure(*rc::gen::element("1/64", "1/8", "3/8"));
        const LetteringPlan as_drawn = place(t, box_in(0, 0, 90, 20), typefaces);
        t.even = true;
        const LetteringPlan evened = place(t, box_in(0, 0, 90, 20), typefaces);
        const PlacedText& text = evened.texts[0];
        if (text.gaps_held.empty()) {
            RC_ASSERT(text.gaps_are <= 1.001);  // all gaps, to what is said
            RC_ASSERT(std::abs(evened.ink.width() - as_drawn.ink.width()) < to_grid(0.01_in));
        }
        // The least distance is that of the outlines; those that it holds are named.
        for (std::size_t i = 1; i < evened.letters.size(); ++i) {
            if (evened.letters[i].starts_word) continue;
            const Length gap = apart(evened.letters[i - 1].ink, evened.letters[i].ink);
            RC_ASSERT(gap > t.least_gap.value - 0.003_in);
            const std::string pair = evened.letters[i - 1].text + evened.letters[i].text;
            if (std::find(text.gaps_held.begin(), text.gaps_held.end(), pair) != text.gaps_held.end())
                RC_ASSERT(gap < t.least_gap.value + 0.003_in || text.gaps_held.size() > 1);
        }
    }));
}

TEST_CASE("a stack is evened downwards, and still fills its room") {
    Text t = line_of("LAVATORY");
    t.arrangement = Arrangement::Stack;
    t.letter_gap = measure("1/2");
    const Box room = box_in(0, 0, 5, 40);
    const LetteringPlan typed = place(t, room, library().typefaces);
    t.even = true;
    const LetteringPlan evened = place(t, room, library().typefaces);
    CHECK(evened.texts[0].gaps_are <= 1.15);
    CHECK(evened.texts[0].gaps_were > evened.texts[0].gaps_are);
    CHECK(std::abs(evened.ink.height() - typed.ink.height()) < to_grid(0.02_in));
}

TEST_CASE("a letter nudged by hand stays nudged, evened or not") {
    Text t = line_of("TERN");
    t.sizing = Sizing::CapHeight;
    t.even = true;
    const LetteringPlan before = place(t, box_in(0, 0, 30, 10), library().typefaces);
    t.nudges = {{2, 0.25_in, -0.125_in}};
    const LetteringPlan after = place(t, box_in(0, 0, 30, 10), library().typefaces);
    // It moves alone.
    for (std::size_t i = 0; i < 4; ++i)
        CHECK(after.letters[i].ink.bounds().low - before.letters[i].ink.bounds().low ==
              (i == 2 ? at(0.25_in, -0.125_in) : Point{}));
}

TEST_CASE("a line that is moved out of the column leaves its place there, until the column is closed") {
    Job job = porch_board();
    job.signs.front().blank = blank_of(Kind::Panel, "30", "30");
    auto& texts = job.signs[0].faces[0].lettering.texts;
    texts = {line_of("PULL"), line_of("TOGETHER"), line_of("REST")};
    for (std::size_t i = 0; i < 3; ++i) texts[i].id = ThingId{std::string(1, static_cast<char>('a' + i))};
    const auto placed = [](const Job& j) { return *plan_of(j).colours[0].face->lettering; };
    const LetteringPlan before = placed(job);
    const Hang up{on_face, Side::Low, Side::Low, measure("1")};
    const Job moved = hang_thing(job, {0, 0}, ThingId{"b"}, std::nullopt, up);
    const LetteringPlan after = placed(moved);
    CHECK(after.texts[0].ink == before.texts[0].ink);
    CHECK(after.texts[2].ink == before.texts[2].ink);
    CHECK(after.texts[1].ink.low.y == to_grid(1_in));
    CHECK(after.texts[1].ink.width() == before.texts[1].ink.width());
    CHECK_FALSE(after.texts[1].in_column);
    CHECK(says(after, "lettering.texts-touch"));
    CHECK(touched_by(before, ThingId{"b"}, after.texts[1].ink.low - before.texts[1].ink.low) ==
          std::vector<std::size_t>{2});
    // Nudged by hand is the same; put back, all is as it was.
    const Job nudged = nudge_thing(job, {0, 0}, plan_of(job).colours[0], ThingId{"b"}, {}, 0.5_in, {});
    CHECK(placed(nudged).texts[0].ink == before.texts[0].ink);
    CHECK(placed(unhang_thing(moved, {0, 0}, ThingId{"b"})).texts[1].ink == before.texts[1].ink);
    Job closed = moved;
    closed.signs[0].faces[0].lettering.texts[1].keeps_place = false;
    CHECK(placed(closed).texts[0].ink != before.texts[0].ink);
}

TEST_CASE("what an arc cannot be is said, with what would fit") {
    Text t = line_of("ROUND AND ROUND IT GOES");
    t.arrangement = Arrangement::Arc;
    t.arc.follow = false;
    t.arc.radius = measure("6");
    const Box room = box_in(0, 0, 60, 60);
    const auto set = [&] { return place(t, room, library().typefaces); };
    CHECK(set().problems.empty());
    for (const Sizing sizing : {Sizing::CapHeight, Sizing::XHeight, Sizing::Overall, Sizing::Width}) {
        t.sizing = sizing;
        t.size = measure(sizing == Sizing::Width ? "50" : "6");
        const LetteringPlan too_long = set();
        REQUIRE(says(too_long, "lettering.arc-round"));
        const auto problem = std::find_if(too_long.problems.begin(), too_long.problems.end(),
                                          [](const Problem& p) { return p.what.id == "lettering.arc-round"; });
        REQUIRE(problem->remedy.arguments.size() == 1);
        t.size.value = std::get<Length>(problem->remedy.arguments.front().second);
        CHECK_FALSE(says(set(), "lettering.arc-round"));  // what is offered fits
    }
    t.sizing = Sizing::Snug;
    t.arc.radius = measure("0");
    CHECK(says(set(), "lettering.arc-no-circle"));
    t.arc.radius = measure("6");
    t.arc.sweep = 400;
    CHECK(says(set(), "lettering.arc-sweep"));
    t.arc.sweep = 140;
    t.words = "ROUND\nAND\nROUND";
    t.sizing = Sizing::CapHeight;
    t.size = measure("3");
    CHECK(says(set(), "lettering.arc-lines"));
}

TEST_CASE("a script on an arc stays one piece, or the joint that opened is named with how far") {
    for (const Typeface& typeface : library().typefaces) {
        if (!typeface.script()) continue;
        for (const bool below : {false, true}) {
            for (const char* radius : {"5", "8", "20"}) {
                Text t = line_of("Boathouse", typeface.name.family, typeface.name.style);
                t.arrangement = Arrangement::Arc;
                t.arc.follow = false;
                t.arc.below = below;
                t.arc.radius = measure(radius);
                const LetteringPlan plan = place(t, box_in(0, 0, 60, 60), library().typefaces);
                INFO(typeface.name.family << (below ? " below " : " above ") << radius);
                const auto open = std::count_if(plan.problems.begin(), plan.problems.end(), [](const Problem& p) {
                    return p.what.id == "lettering.arc-joint" || p.what.id == "lettering.break";
                });
                CHECK(static_cast<long>(pieces_of(plan).size()) <= 1 + open);
            }
        }
    }
}

TEST_CASE("a word in a script is one piece, its breaks closed and told") {
    for (const Typeface& typeface : library().typefaces) {
        if (!typeface.script()) continue;
        for (const char* words : {"Boathouse", "quay", "Tern"}) {
            const Text t = line_of(words, typeface.name.family, typeface.name.style);
            const LetteringPlan plan = place(t, box_in(0, 0, 30, 10), library().typefaces);
            INFO(typeface.name.family << " " << words);
            CHECK(pieces_of(plan).size() == 1 + (says(plan, "lettering.break") ? 1U : 0U));
        }
    }
    const Typeface* script = find_typeface(library().typefaces, typeface("Dancing Script", "Bold"));
    REQUIRE(script->script());
    CHECK_FALSE(find_typeface(library().typefaces, typeface("League Spartan", "Bold"))->script());
    CHECK_FALSE(find_typeface(library().typefaces, typeface("Bebas Neue"))->script());
}

TEST_CASE("texts stand in one column, each as wide as the room where they can be") {
    Lettering l{{line_of("PULL"), line_of("TOGETHER AND REST", "Bebas Neue", "Regular")}, false};
    l.texts[1].id.name = "b";
    const Box box = box_in(0, 0, 30, 60);
    const LetteringPlan plan = place(l, LetteringRoom{box, {}, box, false, {}, {}}, library().typefaces);
    CHECK(plan.problems.empty());
    for (const PlacedText& t : plan.texts) CHECK(inches(t.ink.width()) == Approx(30).margin(0.01));
    CHECK(inches(plan.texts[0].ink.low.y - plan.texts[1].ink.high.y) == Approx(0.5).margin(0.01));
    // In a low room both shrink alike.
    const Box low = box_in(0, 0, 30, 6);
    const LetteringPlan flat = place(l, LetteringRoom{low, {}, low, false, {}, {}}, library().typefaces);
    CHECK(inches(flat.ink.height()) == Approx(6).margin(0.02));
    CHECK(static_cast<double>(flat.texts[0].ink.width()) / static_cast<double>(flat.texts[1].ink.width()) ==
          Approx(1).epsilon(0.01));
}

TEST_CASE("lines follow a round's shape and stay inside it") {
    CHECK(rc::check([] {
        const LetteringRoom room = round_room(*rc::gen::inRange(8, 30));
        Lettering l;
        l.texts.clear();
        for (int i = 0; i < *rc::gen::inRange(1, 5); ++i) {
            Text t = line_of(*rc::gen::element<std::string>("TEA", "BOATS AND OARS", "quay", "THE REGATTA"));
            t.id = unused_text_id(l);
            t.to_shape = true;
            t.line_gap = measure("1/4");
            l.texts.push_back(t);
        }
        const LetteringPlan plan = place(l, room, library().typefaces);
        for (const PlacedLetter& letter : plan.letters)
            RC_ASSERT(subtract(letter.ink, grow(room.free, Length::nanometres(20'000))).area_mm2() < 0.01);
        const Box whole = room.free.bounds();
        RC_ASSERT(plan.ink.height() * 2 > whole.height() || plan.ink.width() * 2 > whole.width());
    }));
}

TEST_CASE("typed distances decide where a text stands, and others hang on it") {
    const Box face = box_in(0, 0, 40, 20);
    const LetteringRoom room{box_in(1, 1, 39, 19), {}, face, false, {}, {}};
    Lettering l{{line_of("OARS"), line_of("UP")}, false};
    for (Text& t : l.texts) t.sizing = Sizing::CapHeight;
    l.texts[1].id.name = "b";
    l.texts[0].across = Hang{"face", Side::Low, Side::Low, measure("3 1/2")};
    l.texts[0].up = Hang{"face", Side::High, Side::High, measure("-2 in")};
    l.texts[1].across = Hang{ThingId{"a"}, Side::Low, Side::Low, measure("0")};
    l.texts[1].up = Hang{ThingId{"a"}, Side::Low, Side::High, measure("-1 in")};
    const LetteringPlan plan = place(l, room, library().typefaces);
    CHECK(inches(plan.texts[0].ink.low.x) == Approx(3.5).margin(1e-4));
    CHECK(inches(plan.texts[0].ink.high.y) == Approx(18).margin(1e-4));
    CHECK(plan.texts[1].ink.low.x == plan.texts[0].ink.low.x);
    CHECK(inches(plan.texts[0].ink.low.y - plan.texts[1].ink.high.y) == Approx(1).margin(1e-4));
    l.texts[0].across = Hang{ThingId{"b"}, Side::Low, Side::Low, measure("0")};
    CHECK(says(place(l, room, library().typefaces), "lettering.hangs-on-itself"));
    l.texts[0].across = Hang{"z", Side::Low, Side::Low, measure("0")};
    CHECK(says(place(l, room, library().typefaces), "lettering.hangs-on-nothing"));
    l.texts[0].across = Hang{"face", Side::Low, Side::Low, measure("38")};
    CHECK(says(place(l, room, library().typefaces), "lettering.off-face"));
}

TEST_CASE("a text that enters a clear zone says which, and by how much") {
    Job job = porch_board();
    Text& t = lettering(job);
    t.sizing = Sizing::CapHeight;
    t.size = measure("2");
    t.words = "TEA";
    t.up = Hang{"face", Side::High, Side::High, measure("-4 in")};
    const Plan plan = plan_of(job);
    const auto at = std::find_if(plan.problems.begin(), plan.problems.end(),
                                 [](const Problem& p) { return p.what.id == "lettering.enters-zone"; });
    REQUIRE(at != plan.problems.end());
    const std::string words = library().catalogue.say(at->what, {});
    CHECK(words.find("rope") != std::string::npos);
    CHECK(words.find("1 in") != std::string::npos);
}

TEST_CASE("what is snug never enters a clear zone, whatever the blank, the words and their arrangement") {
    CHECK(rc::check([] {
        Job job = porch_board();
        Blank& blank = job.signs.front().blank;
        blank.kind = *rc::gen::element(Kind::Board, Kind::Panel, Kind::Round);
        blank.length = measure_of(Length::sixtyfourths(64 * *rc::gen::inRange(10, 40)), {});
        if (blank.kind != Kind::Round)
            blank.width = measure_of(Length::sixtyfourths(64 * *rc::gen::inRange(6, 20)), {});
        blank.clear = {{Edge::Bottom, measure("1 1/2"), "foot"}};
        Text& t = lettering(job);
        t.words = *rc::gen::element<std::string>("TEA", "oars up", "BOATS\nAND OARS");
        t.arrangement = *rc::gen::element(Arrangement::Stack, Arrangement::Level);
        t.letter_gap = measure("1/8");
        t.even = *rc::gen::arbitrary<bool>();
        if (t.arrangement == Arrangement::Level) t.slope_tenths = *rc::gen::element(0, 0, 70, -120);
        const Plan plan = plan_of(job);
        const BlankPlan& b = *plan.colours.front().face->blank;
        RC_PRE(!b.usable.empty());
        for (const PlacedLetter& l : plan.colours.front().face->lettering->letters) {
            for (const Region& zone : b.zones) RC_ASSERT(intersect(l.ink, zone).area_mm2() < 0.01);
        }
    }));
}

TEST_CASE("a dragged text snaps to centre lines, margins, others and equal gaps") {
    SnapInput in;
    in.face = box_in(0, 0, 40, 20);
    in.usable = box_in(2, 2, 38, 18);
    in.thing = {ThingId{"a"}, box_in(10, 5, 20, 8)};
    in.reach = to_grid(0.25_in);
    in.by = at(4.9_in, {});
    Snap s = snap(in);
    CHECK(s.on_x);
    CHECK(s.across == Hang{"face", Side::Middle, Side::Middle, Measure{s.across.by.typed, {}}});
    CHECK(s.move.x == to_grid(5_in));
    in.by = at(-8.1_in, {});
    s = snap(in);
    CHECK(s.across.on.name == "usable");
    CHECK(s.move.x == to_grid(-8_in));
    in.others = {{ThingId{"b"}, box_in(3, 14, 9, 17)}};
    in.by = at(-7.1_in, {});
    CHECK(snap(in).across.on.name == "b");
    in.others = {{ThingId{"b"}, box_in(10, 14, 20, 17)}, {ThingId{"c"}, box_in(10, 2, 20, 3)}};
    in.by = at({}, 2.1_in);  // between 3 and 14 a text of 3 in stands even at 7
    s = snap(in);
    CHECK(s.equal_gaps);
    CHECK(s.move.y == to_grid(2_in));
    in.others.clear();
    in.by = at(1.33_in, {});
    s = snap(in);
    CHECK_FALSE(s.on_x);
    CHECK(s.across.on.name == "face");
    CHECK(inches(s.move.x) == Approx(1.3125).margin(1e-6));  // on a sixteenth
}

TEST_CASE("nudged, spread and removed things keep what hangs on them; what is locked stays") {
    Job job = porch_board();
    job.signs.front().blank = blank_of(Kind::Panel, "40", "20");
    job.signs.front().blank.stands = Stands::Level;
    const FaceAt here{0, 0};
    lettering(job) = line_of("TEA");
    lettering(job).sizing = Sizing::CapHeight;
    job = add_text(job, here);
    job = add_text(job, here);
    auto& texts = job.signs.front().faces.front().lettering.texts;
    texts[1].words = "OARS";
    texts[2].words = "BOATS";
    CHECK(texts[0].id != texts[2].id);
    const ThingId second = texts[1].id;
    const ThingId third = texts[2].id;
    Plan p = plan_of(job);
    const std::int64_t before = p.colours[0].face->lettering->texts[1].ink.low.y;
    job = nudge_thing(job, here, p.colours[0], second, {}, 0.0625_in, {});
    p = plan_of(job);
    CHECK(std::abs(p.colours[0].face->lettering->texts[1].ink.low.y - before - to_grid(0.0625_in)) <= to_grid(0.04_in));
    const Job spread = spread_things(job, here, p.colours[0], Axis::Y, {});
    const auto placed = plan_of(spread).colours[0].face->lettering->texts;
    std::vector<Box> boxes;
    for (const PlacedText& t : placed) boxes.push_back(t.ink);
    std::sort(boxes.begin(), boxes.end(), [](const Box& a, const Box& b) { return a.low.y < b.low.y; });
    CHECK(std::abs((boxes[1].low.y - boxes[0].high.y) - (boxes[2].low.y - boxes[1].high.y)) <= to_grid(0.02_in));
    Job locked = job;
    locked.signs.front().faces.front().lettering.texts[0].locked = true;
    CHECK(nudge_thing(locked, here, p.colours[0], ThingId{"a"}, 1_in, {}, {}) == locked);
    Job hung = hang_thing(job, here, third, Hang{second, Side::Low, Side::Low, measure("0")}, {});
    hung = remove_text(hung, here, 1, &p.colours[0]);
    CHECK(hung.signs.front().faces.front().lettering.texts.size() == 2);
    CHECK(plan_of(hung).colours[0].face->lettering->problems.empty());
}

TEST_CASE("alternates are offered where they change the words, and change them") {
    const Typeface& spartan = *find_typeface(library().typefaces, typeface("League Spartan", "Bold"));
    const auto offered = alternates_of(spartan, "boathouse");
    REQUIRE_FALSE(offered.empty());
    for (const Alternate& a : offered) {
        const auto usual = shape(spartan, "boathouse");
        const auto other = shape(spartan, "boathouse", {a.feature});
        const bool differs = !std::equal(usual.begin(), usual.end(), other.begin(), other.end(),
                                         [](const auto& x, const auto& y) { return x.outline == y.outline; });
        INFO(a.feature);
        CHECK(differs);
    }
    CHECK(alternates_of(spartan, "").empty());
    // What is no feature, and what the typeface has not, changes nothing.
    const auto plain = shape(spartan, "a", {"nonsense=", "zzzz"});
    CHECK(plain.front().outline == shape(spartan, "a").front().outline);
    Text t = line_of("boathouse");
    const auto usual = place(t, box_in(0, 0, 60, 40), library().typefaces);
    t.alternates = {offered.front().feature};
    CHECK(place(t, box_in(0, 0, 60, 40), library().typefaces).letters != usual.letters);
}

TEST_CASE("lines that mix directions stand in the order in which they are read") {  // UAX 9, rules L2 and N1
    const Typeface& spartan = *find_typeface(library().typefaces, typeface("League Spartan", "Bold"));
    const auto order = [&](const std::string& text) {
        std::vector<std::string> all;
        for (const ShapedLetter& l : shape(spartan, text)) all.push_back(l.text);
        return all;
    };
    // Hebrew alef, bet, gimel between Latin letters, and figures within Hebrew.
    CHECK(order("aאבb") == std::vector<std::string>{"a", "ב", "א", "b"});
    CHECK(order("א12ב") == std::vector<std::string>{"ב", "1", "2", "א"});
    CHECK(order("ab") == std::vector<std::string>{"a", "b"});
}

TEST_CASE("a typed dimension that cannot be is not taken; the nearest that can be is offered") {
    CHECK(rc::check("the nearest fits, and the next mark does not", [] {
        Lettering l;
        l.texts = {line_of("TERN"), line_of("QUAY")};
        l.texts[0].sizing = l.texts[1].sizing = Sizing::CapHeight;
        l.texts[1].id.name = "b";
        const Box box = box_in(0, 0, *rc::gen::inRange(8, 40), *rc::gen::inRange(6, 20));
        const LetteringRoom room{box, {}, box, false, {}, {}};
        const Display display{Unit::Inch, *rc::gen::element(8, 16, 32)};
        const auto set = [](Text& t, const Measure& m) { t.size = m; };
        l.texts[0].size = l.texts[1].size = measure("1/2");
        const auto stops = [&](const Measure& m) {
            Lettering tried = l;
            set(tried.texts[0], m);
            const LetteringPlan plan = place(tried, room, library().typefaces);
            return std::any_of(plan.problems.begin(), plan.problems.end(),
                               [](const Problem& p) { return p.mark == Mark::Stop; });
        };
        const Measure typed = measure_of(Length::sixtyfourths(*rc::gen::inRange(16, 64 * 30)), display);
        const TriedDimension tried =
            try_dimension(l, 0, room, library().typefaces, set, l.texts[0].size, typed, display);
        RC_ASSERT(tried.fits == !stops(typed));
        if (tried.fits) return;
        RC_ASSERT(!stops(tried.nearest));
        RC_ASSERT(tried.nearest.value + tried.over == typed.value);
        RC_ASSERT(stops(measure_of(tried.nearest.value + Length::inches(1) / display.denominator, display)));
        RC_ASSERT(tried.hurts.has_value());
    }));
}
