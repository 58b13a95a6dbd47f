#include "artwork/ink.h"
#include "support.h"
#include "values/checksum.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

const Box room = box_in(0.5, 4, 5, 55);

Text stack(const std::string& words, const std::string& family = "League Spartan", const std::string& style = "Bold") {
    Text l;
    l.words = words;
    l.typeface = typeface(family, style);
    l.letter_gap = measure("9/16");
    l.line_gap = measure("1");
    l.size = measure("3");
    return l;
}

bool has_problem(const LetteringPlan& plan, const std::string& id) {
    return std::any_of(plan.problems.begin(), plan.problems.end(), [&](const Problem& p) { return p.what.id == id; });
}

}  // namespace

TEST_CASE("a snug stack fills its room, with equal gaps and every letter centred on its ink") {
    const Box wide = box_in(0.375, 4, 5.125, 55);
    const LetteringPlan plan = place(stack("BOATHOUSE"), wide, library().typefaces);
    REQUIRE(plan.letters.size() == 9);
    CHECK(plan.problems.empty());
    CHECK(plan.ink.high.y == wide.high.y);
    CHECK(inches(plan.ink.low.y) == Approx(4).margin(0.001));
    CHECK(plan.ink.low.y >= wide.low.y);
    for (std::size_t i = 0; i < 9; ++i) {
        const Box b = plan.letters[i].ink.bounds();
        CHECK(std::abs(b.low.x + b.high.x - wide.low.x - wide.high.x) <= 1);
        if (i > 0) CHECK(inches(plan.letters[i - 1].ink.bounds().low.y - b.high.y) == Approx(0.5625).margin(0.002));
    }
    CHECK(plan.stretch <= stretch_limit);
    CHECK(plan.stretch >= 1 / stretch_limit);
    CHECK(plan.offers.empty());
}

TEST_CASE("one factor for width and one for height serve all letters of a stack") {
    const LetteringPlan plan = place(stack("OO"), box_in(0, 0, 6, 14), library().typefaces);
    REQUIRE(plan.letters.size() == 2);
    const Point by = plan.letters[1].ink.bounds().low - plan.letters[0].ink.bounds().low;
    CHECK(plan.letters[0].ink.moved(by) == plan.letters[1].ink);  // equal letters stay equal
}

TEST_CASE("beyond 15 % a stack stops, says what stays free, and offers typefaces that fill it") {
    const LetteringPlan narrow = place(stack("BOATHOUSE", "Bebas Neue", "Regular"), room, library().typefaces);
    CHECK(narrow.stretch == Approx(stretch_limit));
    CHECK(narrow.free_across > 1_in);
    CHECK(narrow.free_up < 0.01_in);
    REQUIRE_FALSE(narrow.offers.empty());
    for (const TypefaceName& name : narrow.offers) {
        Text other = stack("BOATHOUSE");
        other.typeface = name;
        const LetteringPlan filled = place(other, room, library().typefaces);
        INFO(name.family << " " << name.style);
        CHECK(filled.free_across < 0.01_in);
        CHECK(filled.free_up < 0.01_in);
    }
    const LetteringPlan squat = place(stack("IW", "League Spartan", "Bold"), box_in(0, 0, 2, 40), library().typefaces);
    CHECK(squat.stretch == Approx(1 / stretch_limit));
    CHECK(squat.free_up > 1_in);
}

TEST_CASE("an exact cap height is exact, and says what would fit where it does not") {
    Text l = stack("HI");
    l.sizing = Sizing::CapHeight;
    const LetteringPlan plan = place(l, room, library().typefaces);
    CHECK(inches(plan.letters.front().ink.bounds().height()) == Approx(3).margin(0.001));
    CHECK(plan.cap_height.in_inches() == Approx(3));
    CHECK(plan.stretch == Approx(1));

    l.words = "BOATHOUSE";
    l.size = measure("8");
    const LetteringPlan large = place(l, room, library().typefaces);
    REQUIRE(has_problem(large, "lettering.too-large"));
    const Problem& problem = large.problems.front();
    REQUIRE(problem.remedy.id == "lettering.largest-cap");
    const Length offered = std::get<Length>(problem.remedy.arguments.front().second);
    CHECK(offered < 8_in);
    l.size = measure_of(offered, {});
    CHECK_FALSE(has_problem(place(l, room, library().typefaces), "lettering.too-large"));

    l.size = measure("0");
    CHECK(has_problem(place(l, room, library().typefaces), "lettering.no-cap"));
}

TEST_CASE("level lines keep the typeface's proportions and fill the limiting side") {
    Text l = stack("TEA ROOM\nOPEN", "Old Standard TT", "Bold");
    l.arrangement = Arrangement::Level;
    l.letter_gap = measure("0");
    const Box wide = box_in(2, 1, 30, 20);
    const LetteringPlan plan = place(l, wide, library().typefaces);
    CHECK(plan.problems.empty());
    CHECK(plan.stretch == Approx(1));
    CHECK(std::min(plan.free_across, plan.free_up) < 0.01_in);
    CHECK(plan.letters.size() == 11);  // spaces are no letters
    CHECK(plan.letters[3].starts_word);
    // Both lines stand on the middle, and the gap between their inks is what was asked for.
    Box first, second;
    for (const PlacedLetter& letter : plan.letters)
        (letter.line == 0 ? first : second) = around(letter.line == 0 ? first : second, letter.ink.bounds());
    CHECK(std::abs((first.low.x + first.high.x) - (second.low.x + second.high.x)) <= 2);
    CHECK(inches(first.low.y - second.high.y) == Approx(1).margin(0.01));
}

TEST_CASE("the letter gap adds to the typeface's spacing on a line") {
    Text l = stack("HIHI", "Courier Prime", "Light");
    l.arrangement = Arrangement::Level;
    l.sizing = Sizing::CapHeight;
    l.letter_gap = measure("0");
    const LetteringPlan tight = place(l, box_in(0, 0, 60, 20), library().typefaces);
    l.letter_gap = measure("1/2");
    const LetteringPlan loose = place(l, box_in(0, 0, 60, 20), library().typefaces);
    CHECK(inches(loose.ink.width() - tight.ink.width()) == Approx(1.5).margin(0.001));
}

TEST_CASE("bad words are named") {
    CHECK(has_problem(place(stack(""), room, library().typefaces), "lettering.no-words"));
    CHECK(has_problem(place(stack("  \n "), room, library().typefaces), "lettering.no-words"));
    const LetteringPlan arrow = place(stack("A→B"), room, library().typefaces);
    REQUIRE(has_problem(arrow, "lettering.missing"));
    CHECK(library().catalogue.say(arrow.problems.front().what, {}).find("→") != std::string::npos);
    CHECK(arrow.letters.size() == 2);
    Text crowded = stack("ABCDEFGHIJ");
    crowded.letter_gap = measure("6");
    CHECK(has_problem(place(crowded, room, library().typefaces), "lettering.gaps-fill"));
    Text unknown = stack("AB");
    unknown.typeface = {"Nowhere Grotesque", "Bold", ""};
    const LetteringPlan instead = place(unknown, room, library().typefaces);
    CHECK(has_problem(instead, "lettering.unknown-typeface"));
    CHECK(instead.letters.size() == 2);
    Text changed = stack("AB");
    changed.typeface.checksum = "crc32:00000000";
    CHECK(has_problem(place(changed, room, library().typefaces), "lettering.typeface-changed"));
    CHECK(place(stack("AB"), Box{}, library().typefaces).letters.empty());
}

TEST_CASE("accents belong to their letter") {
    CHECK(letters_of("ÅÉ") == std::vector<std::string>{"Å", "É"});
    CHECK(letters_of("e\u0301a").size() == 2);
    const LetteringPlan plan = place(stack("ÅÉ"), room, library().typefaces);
    CHECK(plan.problems.empty());
    CHECK(plan.letters.size() == 2);
}

TEST_CASE("letters that touch are one piece, others stay apart") {
    Text script = stack("Boat", "Dancing Script", "Bold");
    script.arrangement = Arrangement::Level;
    script.letter_gap = measure("0");
    const auto pieces = pieces_of(place(script, box_in(0, 0, 40, 12), library().typefaces));
    CHECK(pieces.size() < 4);
    std::string all;
    for (const Piece& p : pieces) all += p.letters;
    CHECK(all == "Boat");
    script.letter_gap = measure("1");
    CHECK(pieces_of(place(script, box_in(0, 0, 60, 12), library().typefaces)).size() == 4);

    const auto apart = pieces_of(place(stack("BOATHOUSE"), room, library().typefaces));
    CHECK(apart.size() == 9);
    CHECK(pieces_of(LetteringPlan{}).empty());
}

TEST_CASE("a damaged typeface is refused") {
    CHECK_FALSE(read_typeface(std::make_shared<const std::string>("not a typeface")));
    const auto& good = *library().typefaces.front().bytes;
    CHECK_FALSE(read_typeface(std::make_shared<const std::string>(good.substr(0, 200))));
    // Its outlines zeroed, or any part of them damaged: refused with its name, or read as letters of sound size.
    const auto table = good.find("CFF ", 12);
    REQUIRE(table < 400);
    const auto number = [&](std::size_t at) {
        std::size_t n = 0;
        for (std::size_t i = 0; i < 4; ++i) n = n << 8U | static_cast<unsigned char>(good[at + i]);
        return n;
    };
    const std::size_t from = number(table + 8), size = number(table + 12);
    std::string zeroed = good;
    std::fill_n(zeroed.begin() + static_cast<long>(from + size / 2), size / 2, '\0');
    const auto refused = read_typeface(std::make_shared<const std::string>(zeroed));
    REQUIRE_FALSE(refused);
    CHECK(refused.error().what.id == "typeface.hollow");
    CHECK(std::get<std::string>(refused.error().what.arguments[0].second)
              .starts_with(library().typefaces.front().name.family));
    CHECK(rc::check([&] {
        std::string damaged = good;
        for (int i = 0; i < 40; ++i)
            damaged[from + *rc::gen::inRange<std::size_t>(0, size)] = static_cast<char>(*rc::gen::inRange(0, 256));
        const auto read = read_typeface(std::make_shared<const std::string>(damaged));
        if (!read) return;
        for (const ShapedLetter& letter : shape(*read, "Boat 29")) {
            const Extent box = extent_of(letter.outline);
            RC_ASSERT(box.empty() == letter.blank || letter.missing);
        }
    }));
    CHECK(checksum_of("123456789") == "crc32:cbf43926");  // the check value of CRC-32, from memory
}
