#include "values/lens.h"

#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

TEST_CASE("a lens finds and puts what is there, and leaves alone what is not") {
    Blank blank;
    CHECK(lens(&Blank::head, &ArrowHead::length).put(blank, measure("7")));
    CHECK(blank.head.length.value == 7_in);

    const auto second = lens(&Blank::fields, Nth{1}, &PaintedField::depth);
    const Blank before = blank;
    CHECK(second.in(blank) == nullptr);
    CHECK_FALSE(second.put(blank, measure("2")));
    CHECK(blank == before);
    blank.fields.resize(2);
    CHECK(second.put(blank, measure("2")));
    CHECK(blank.fields[1].depth.value == 2_in);
    CHECK(blank.fields[0] == PaintedField{});

    const auto backing = lens(&Blank::backing, &Backing::width);
    CHECK_FALSE(backing.put(blank, measure("9")));
    blank.backing = Backing{};
    CHECK(backing.put(blank, measure("9")));
    CHECK(blank.backing->width.value == 9_in);

    // A side of an array is there whether it holds something or not; one beyond its end never is.
    CHECK(lens(&Blank::side_margin, Nth{3}).put(blank, measure("1")));
    CHECK_FALSE(lens(&Blank::side_margin, Nth{4}).put(blank, measure("1")));
}

TEST_CASE("a lens into one kind of art does not reach another") {
    Art art;
    art.kind = Figure{};
    const auto inset = lens(&Art::kind, As<Border>{}, &Border::inset);
    const auto width = lens(&Art::kind, As<Figure>{}, &Figure::width);
    CHECK(inset.in(art) == nullptr);
    CHECK_FALSE(inset.put(art, measure("1")));
    CHECK(width.put(art, measure("5")));
    CHECK(std::get<Figure>(art.kind).width.value == 5_in);
    const Art& unchanging = art;
    CHECK(*width.in(unchanging) == measure("5"));
}
