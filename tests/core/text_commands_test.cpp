#include "job/text_commands.h"

#include "job/face_commands.h"
#include "lettering/placing.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

TEST_CASE("a text that is sized by something else begins as it is, on a sixteenth") {
    const Job job = porch_board();
    const Plan plan = plan_of(job);
    const PlacedText& now = plan.colours.front().face->lettering->texts.front();
    for (const auto& [sizing, is] : {std::pair{Sizing::CapHeight, now.cap_height},
                                     {Sizing::Overall, from_grid(now.ink.height())},
                                     {Sizing::Width, from_grid(now.ink.width())}}) {
        Text text = job.signs.front().faces.front().lettering.main();
        size_by(text, sizing, &now);
        CHECK(text.sizing == sizing);
        CHECK(text.size.value <= is);
        CHECK(is - text.size.value < 0.0625_in);
        CHECK(text.size.value.nm() % Length::inches(0, 1, 16).nm() == 0);
    }
    Text text = job.signs.front().faces.front().lettering.main();
    const Measure was = text.size;
    size_by(text, Sizing::CapHeight, nullptr);  // not planned yet
    CHECK(text.size == was);
    CHECK(text.sizing == Sizing::CapHeight);
    type_size(text, measure("3"));
    CHECK(text.size.value == 3_in);
    text.sizing = Sizing::Snug;
    type_size(text, measure("2"));
    CHECK(text.sizing == Sizing::CapHeight);
}

TEST_CASE("a stack's gap does not stay between letters on a line, and the other way round") {
    Text text;
    text.arrangement = Arrangement::Stack;
    text.letter_gap = measure("1");
    text.slope_tenths = 50;
    arrange(text, Arrangement::Stack, false);
    CHECK(text.letter_gap.value == 1_in);
    arrange(text, Arrangement::Level, false);
    CHECK(text.letter_gap.value == Length{});
    CHECK(text.slope_tenths == 50);
    text.letter_gap = measure("1/8");
    arrange(text, Arrangement::Arc, true);
    CHECK(text.letter_gap.value == 0.125_in);  // both are lines
    CHECK(text.arc.follow);
    CHECK(text.slope_tenths == 0);
    arrange(text, Arrangement::Stack, false);
    CHECK(text.letter_gap.value == 0.5625_in);
}

TEST_CASE("bolder adds up, and a form is taken once") {
    Text text;
    make_bolder(text, 0.015625_in);
    make_bolder(text, 0.015625_in);
    CHECK(text.bolder->value == 0.03125_in);
    take_form(text, "ss01", true);
    take_form(text, "ss01", true);
    take_form(text, "swsh", true);
    CHECK(text.alternates == std::vector<std::string>{"ss01", "swsh"});
    take_form(text, "ss01", false);
    CHECK(text.alternates == std::vector<std::string>{"swsh"});
}

TEST_CASE("every way to hang is told from the others, however far off it hangs") {
    Job job = add_text(porch_board(), {});
    Face& face = job.signs.front().faces.front();
    const ThingId last = face.lettering.texts.back().id;
    for (const Axis axis : {Axis::X, Axis::Y}) {
        const auto ways = ways_to_hang(face, last, axis);
        CHECK(ways.size() == 8);  // six of its own, two with the other text
        for (std::size_t i = 0; i < ways.size(); ++i) {
            INFO(ways[i].name.id);
            CHECK(library().catalogue.has(ways[i].name.id));
            std::optional<Hang> hang = ways[i].hang;
            if (hang) hang->by = measure("7");
            CHECK(way_of(hang, ways) == i);
        }
        CHECK_FALSE(way_of(Hang{ThingId{"elsewhere"}, Side::Low, Side::Low, {}}, ways));
    }
}

TEST_CASE("a month board has seven days at most, and a drawing gets its parts back") {
    MonthBoard board;
    name_days(board, "  M T  W\tT F S S extra ");
    CHECK(board.days == std::vector<std::string>{"M", "T", "W", "T", "F", "S", "S"});
    name_days(board, "");
    CHECK(board.days.empty());
    PlacedDrawing drawing;
    drawing.dropped = {0, 2};
    drawing.colours[1] = ColourId{"1.2"};
    const auto shared = drawing.drawing;
    say_licence(drawing, "drawn by ourselves");
    CHECK(drawing.drawing->licence == "drawn by ourselves");
    CHECK(shared->licence.empty());  // whoever else holds it keeps it as it was
    bring_back_parts(drawing);
    CHECK(drawing.dropped.empty());
    CHECK(drawing.colours.empty());
}

TEST_CASE("a favourite is one until it is none") {
    Shop shop = usual_shop();
    const TypefaceName name = typeface("Bebas Neue");
    CHECK_FALSE(is_liked(shop, name));
    like(shop, name, true);
    like(shop, name, true);
    CHECK(shop.favourites.size() == 1);
    CHECK(is_liked(shop, name));
    like(shop, name, false);
    CHECK(shop.favourites.empty());
}
