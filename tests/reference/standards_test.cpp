// Published tables and definitions; the values are from memory where it is said.
#include "method/contrast.h"
#include "sheets/sheets.h"
#include "support.h"

#include <regex>

using namespace skarvel;
using namespace skarvel::testing;

TEST_CASE("stock sizes: American Softwood Lumber Standard PS 20, dressed dry widths") {  // values from memory
    const auto [name, sixteenths] = GENERATE(table<std::string, int>({{"1x2", 24},
                                                                      {"1x3", 40},
                                                                      {"1x4", 56},
                                                                      {"1x5", 72},
                                                                      {"1x6", 88},
                                                                      {"1x7", 104},
                                                                      {"1x8", 116},
                                                                      {"1x9", 132},
                                                                      {"1x10", 148},
                                                                      {"1x11", 164},
                                                                      {"1x12", 180},
                                                                      {"2x4", 56},
                                                                      {"2x6", 88},
                                                                      {"2x12", 180}}));
    const StockSize* size = find_stock(library().trade.stock, name);
    INFO(name);
    REQUIRE(size != nullptr);
    CHECK(size->width == Length::inches(0, sixteenths, 16));
    CHECK(size->thickness == (name[0] == '1' ? 0.75_in : 1.5_in));
    CHECK(size->nominal_width == Length::inches(std::stoi(name.substr(2))));
}

TEST_CASE("lengths: 1 in is 25.4 mm (international yard and pound agreement, 1959)") {
    CHECK(Length::inches(1) == Length::nanometres(25'400'000));
    CHECK(Length::sixtyfourths(1).in_mm() == Approx(0.396875));
    CHECK(Length::inches(12) * 3 ==
          *[] { return read_measure("3 ft", Unit::Inch).map([](const Measure& m) { return m.value; }); }());
    CHECK(read_measure("36 in", Unit::Inch)->value.in_mm() == Approx(914.4));  // the yard
}

TEST_CASE("paper: ISO 216 A4 and ANSI letter, on the sheets") {
    const auto size = [](Paper paper) {
        const Page page = sheets(porch_board(), plan_of(porch_board()), usual_shop(), library(), paper).front();
        return std::pair{page.width_mm, page.height_mm};
    };
    CHECK(size(Paper::A4) == std::pair{210.0, 297.0});
    CHECK(size(Paper::Letter).first == Approx(8.5 * 25.4));
    CHECK(size(Paper::Letter).second == Approx(11 * 25.4));
}

TEST_CASE("contrast: WCAG 2.1, relative luminance and contrast ratio") {
    CHECK(contrast("#000000", "#ffffff") == Approx(21));
    CHECK(contrast("#777777", "#ffffff") == Approx(4.48).margin(0.005));
    CHECK(contrast("#ffffff", "#777777") == contrast("#777777", "#ffffff"));
    CHECK(contrast("#123456", "#123456") == Approx(1));
    CHECK(luminance("nonsense") == luminance("#808080"));
}

TEST_CASE("lift windows and waits are the ones of the trade's table") {  // common practice
    const Trade& trade = library().trade;
    const Coat chalk = coat_of(trade, "chalk-paint");
    CHECK(chalk.next_coat == Minutes(120));
    CHECK(chalk.film_least == Minutes(12 * 60));
    CHECK(chalk.film_safe == Minutes(72 * 60));
    CHECK(coat_of(trade, "oil-stain").film_least == Minutes(48 * 60));
    CHECK(trade.clear_over_vinyl == Minutes(72 * 60));
    REQUIRE(trade.lifts.size() == 3);
    CHECK(trade.lifts[1].from == Minutes(15));
    CHECK(trade.lifts[1].to == Minutes(60));
    CHECK(trade.tools[1].margin == 1_in);
}
