#include <rapidcheck.h>

#include "measure/reading.h"
#include "support.h"

using namespace skarvel;

namespace {

Length read_in(const std::string& text, Unit unit = Unit::Inch) {
    const auto read = read_measure(text, unit);
    INFO(text << ": " << (read ? "" : read.error().id));
    REQUIRE(read);
    return read->value;
}

std::string refusal(const std::string& text, Unit unit = Unit::Inch) {
    const auto read = read_measure(text, unit);
    INFO(text);
    REQUIRE_FALSE(read);
    return read.error().id;
}

}  // namespace

TEST_CASE("measures are read as makers write them") {
    const auto [text, sixtyfourths] = GENERATE(table<std::string, int>({
        {"60", 60 * 64},
        {"60 1/2", 3872},
        {"60-1/2", 3872},
        {"60½", 3872},
        {"60 ½", 3872},
        {"½", 32},
        {"1/16", 4},
        {"5'", 3840},
        {"5' 3", 4032},
        {"5' 3 1/4\"", 4048},
        {"5′ 3¼″", 4048},
        {"5'-3\"", 4032},
        {"5 ft 3 in", 4032},
        {"5 feet 3 inches", 4032},
        {"5.5", 352},
        {"5,5 in", 352},
        {"0.5\"", 32},
        {"60 in.", 3840},
        {"42 + 3/4 + 3/4", 2784},
        {"42+3/4+3/4", 2784},
        {"60 - 1/2", 3808},
        {"60 -1/2", 3808},
        {"60-3", 57 * 64},
        {"60-1/2 + 3", 63 * 64 + 32},
        {"3 * 4 1/2", 864},
        {"2 × 3 in", 384},
        {"(5 1/2 - 2*3/8)/2", 152},
        {"-2", -128},
        {"10-3/128*2", 10 * 64 - 3},  // no proper fraction of a tape: a minus
        {"60-3/2", 58 * 64 + 32},     // not proper: a minus
        {"4 in / 2 in * 3 in", 384},
    }));
    CHECK(read_in(text).nm() == Length::sixtyfourths(sixtyfourths).nm());
}

TEST_CASE("metric measures are exact, and a bare number takes the field's unit") {
    CHECK(read_in("1524 mm") == 60_in);
    CHECK(read_in("152.4 cm") == 60_in);
    CHECK(read_in("152,4 cm") == 60_in);
    CHECK(read_in("1.5 m") == 1500_mm);
    CHECK(read_in("140", Unit::Millimetre) == 140_mm);
    CHECK(read_in("2 in + 10", Unit::Millimetre) == 2_in + 10_mm);
    CHECK(read_in("1/3 mm").nm() == 333'333);
    CHECK(read_in("2/3 mm").nm() == 666'667);  // rounded once, not cut off
}

TEST_CASE("an expression is reckoned as a fraction and rounded once") {
    // 48/9 in is 135.4666... mm: three of them make 16 in again only if nothing was rounded on the way.
    CHECK(read_in("3*((60 - 2*6)/9)") == 16_in);
    CHECK(read_in("(60 - 2*6)/9").nm() == 135'466'667);
}

TEST_CASE("what is no length is refused with its reason") {
    const auto [text, id] = GENERATE(table<std::string, std::string>({
        {"", "measure.empty"},
        {"   ", "measure.empty"},
        {"2 in * 3 in", "measure.area"},
        {"4 in / 2 in", "measure.bare-ratio"},
        {"60-1/2+3", "measure.spaces-round-minus"},
        {"2*60-1/2", "measure.spaces-round-minus"},
        {"60 5", "measure.two-numbers"},
        {"60 3/2", "measure.two-numbers"},
        {"5' 3 mm", "measure.two-numbers"},
        {"(60", "measure.bracket"},
        {"60 +", "measure.unfinished"},
        {"1/0", "measure.zero-below"},
        {"6/(3 - 3)", "measure.zero-below"},
        {"1.2.3", "measure.two-points"},
        {"5.", "measure.ends-in-point"},
        {"5,", "measure.ends-in-point"},
        {"0x10", "measure.size"},
        {"12x24", "measure.size"},
        {"-\u215d0.2", "measure.two-numbers"},
        {"\u00bd4", "measure.two-numbers"},
        {"abc", "measure.strange"},
        {"60 yards", "measure.strange"},
        {"60)", "measure.strange"},
        {"3/(2 in)", "measure.bare-ratio"},
        {"(4 in/(2 in))/(2 in)", "measure.divided-by-length"},
        {"4 in/(2 in) + 3 in", "measure.length-and-ratio"},
        {"2000 m", "measure.too-large"},
    }));
    CHECK(refusal(text) == id);
    CHECK(skarvel::testing::library().catalogue.has(id));
}

TEST_CASE("absurd input ends in a refusal, not in a crash") {
    CHECK(refusal(std::string(300, '1')) == "measure.too-long");
    // It would be kept with a unit for each number, longer than can be read again.
    std::string many = "1";
    while (many.size() < 140) many += "+1";
    CHECK(refusal(many) == "measure.too-long");
    CHECK(refusal(std::string(150, '(') + "1") == "measure.too-deep");
    CHECK(refusal(std::string(150, '-') + "1") == "measure.too-deep");
    CHECK(refusal(std::string(190, '9')) == "measure.too-large");
    CHECK(rc::check("any text is read or refused",
                    [](const std::string& text) { (void)read_measure(text, Unit::Inch); }));
}

TEST_CASE("the typed text keeps its shape and gains its units") {
    CHECK(read_measure("(60 - 2*6)/9", Unit::Inch)->typed == "(60 in - 2*6 in)/9");
    CHECK(read_measure(" 42 + 3/4 + 3/4 ", Unit::Inch)->typed == "42 in + 3/4 in + 3/4 in");
    CHECK(read_measure("140", Unit::Millimetre)->typed == "140 mm");
    CHECK(read_measure("5' 3", Unit::Millimetre)->typed == "5' 3");
    for (const char* text : {"(60 - 2*6)/9", "60-1/2", "½", "3 * 4 1/2", "152,4 cm", "5' 3 1/4\""}) {
        const auto once = read_measure(text, Unit::Inch);
        const auto again = read_measure(once->typed, Unit::Millimetre);
        CHECK(*again == *once);
    }
}

TEST_CASE("lengths are shown in fractions or millimetres, and say where they are rounded") {
    CHECK(show(5.5_in, {}) == "5 1/2 in");
    CHECK(show(0.0625_in, {}) == "1/16 in");
    CHECK(show(Length{}, {}) == "0 in");
    CHECK(show(-5.5_in, {}) == "-5 1/2 in");
    CHECK(show(0.015625_in, {}) == "≈ 0 in");
    CHECK(show(0.015625_in, {Unit::Inch, 64}) == "1/64 in");
    CHECK(show(0.03125_in, {Unit::Inch, 32}) == "1/32 in");
    CHECK(show(140_mm, {}) == "≈ 5 1/2 in");
    CHECK(show(5.5_in, {Unit::Millimetre, 16}) == "139.7 mm");
    CHECK(show(1524_mm, {Unit::Millimetre, 16}) == "1524 mm");
    CHECK(with_fraction_slash("5 1/2 in") == "5 1⁄2 in");
}

TEST_CASE("showing and reading round trips") {
    CHECK(rc::check("every sixty-fourth reads back as shown", [] {
        const Length length = Length::sixtyfourths(*rc::gen::inRange(-64 * 200, 64 * 200));
        const auto read = read_measure(show_number(length, {Unit::Inch, 64}), Unit::Inch);
        RC_ASSERT(read);
        RC_ASSERT(read->value == length);
    }));
    CHECK(rc::check("any length, written down as a measure, keeps its value", [] {
        const Length length = Length::nanometres(*rc::gen::inRange<std::int64_t>(-3'000'000'000, 3'000'000'000));
        const Measure written = measure_of(length, {});
        RC_ASSERT(written.value == length);
        RC_ASSERT(read_measure(written.typed, Unit::Inch)->value == length);
    }));
    CHECK(rc::check("rounding to be shown is off by half a step at most", [] {
        const Length length = Length::nanometres(*rc::gen::inRange<std::int64_t>(0, 3'000'000'000));
        std::string shown = show_number(length, {});
        if (shown.starts_with("≈ ")) shown.erase(0, std::string("≈ ").size());
        const Length off = read_measure(shown, Unit::Inch)->value - length;
        RC_ASSERT(std::abs(off.nm()) * 2 <= Length::inches(0, 1, 16).nm());
    }));
}
