#include "job/blank_commands.h"

#include <rapidcheck.h>

#include "blank/kinds.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

const Box face_of_board{{0, 0}, at(5.5_in, 60_in)};

Blank board() { return porch_board().signs.front().blank; }

}  // namespace

TEST_CASE("turning a board takes its clear ends with it, and four turns bring it back") {
    Blank blank = board();
    const Blank upright = blank;
    turn(blank, Stands::Upright);
    CHECK(blank == upright);  // it stands already
    turn(blank, Stands::Level);
    CHECK(blank.clear.front().edge == Edge::Left);  // the top is read first
    CHECK(blank.clear.back().edge == Edge::Right);
    turn(blank, Stands::Upright);
    CHECK(blank == upright);
}

TEST_CASE("only clear acrylic is lettered from behind") {
    Blank blank = board();
    make_of(blank, "acrylic");
    blank.from_behind = true;
    make_of(blank, "acrylic");
    CHECK(blank.from_behind);
    make_of(blank, "oak");
    CHECK_FALSE(blank.from_behind);
    CHECK(blank.material == "oak");
}

TEST_CASE("a board that is sold by no name keeps the width that it has") {
    Blank blank = board();
    sell_as(blank, "", 5.5_in, {});
    CHECK(blank.width->value == 5.5_in);
    CHECK(blank.stock.empty());
    sell_as(blank, "", 7_in, {});
    CHECK(blank.width->value == 5.5_in);  // what was measured stays
    sell_as(blank, "1x8", 5.5_in, {});
    CHECK_FALSE(blank.width);
    sell_as(blank, "", Length{}, {});  // nothing is known of it
    CHECK_FALSE(blank.width);
}

TEST_CASE("a clear zone goes from an edge to a shape and back without losing its sizes") {
    Blank blank = board();
    add_zone(blank, "knot");
    const std::size_t last = blank.clear.size() - 1;
    CHECK(place_of(blank.clear[last]) == ZonePlace::Top);
    place_zone(blank, last, ZonePlace::Circle, face_of_board);
    CHECK(blank.clear[last].x.value == 2.75_in);
    CHECK(blank.clear[last].y.value == 30_in);
    blank.clear[last].x = measure("1");
    place_zone(blank, last, ZonePlace::Rectangle, face_of_board);
    CHECK(blank.clear[last].x.value == 1_in);
    place_zone(blank, last, ZonePlace::Right, face_of_board);
    CHECK(blank.clear[last].shape == ZoneShape::Band);
    CHECK(blank.clear[last].edge == Edge::Right);
    CHECK(blank.clear[last].depth.value == 2_in);
    remove_zone(blank, last);
    CHECK(blank == board());

    Blank level = as_kind(board(), Kind::Board);
    level.stands = Stands::Level;
    add_zone(level, "");
    CHECK(level.clear.back().edge == Edge::Left);
}

TEST_CASE("wound rope takes turns and a girth, anything else a depth") {
    Blank blank = board();
    keep_clear_for(blank, 0, ZoneReason::Rope);
    CHECK(blank.clear[0].turns == 1);
    CHECK(blank.clear[0].girth.value == Length::inches(0, 3, 8));
    wind(blank, 0, 6);
    keep_clear_for(blank, 0, ZoneReason::Rope);
    CHECK(blank.clear[0].turns == 6);
    keep_clear_for(blank, 0, ZoneReason::Handle);
    CHECK(blank.clear[0].turns == 0);
    CHECK(blank.clear[0].depth.value == 5_in);
    // A rope round a shape is not wound round the board.
    place_zone(blank, 0, ZonePlace::Circle, face_of_board);
    keep_clear_for(blank, 0, ZoneReason::Rope);
    CHECK(blank.clear[0].turns == 0);
}

TEST_CASE("fields and guides come and go one by one, as many as are wanted") {
    Blank blank = board();
    for (int i = 0; i < 6; ++i) add_field(blank, face_of_board, "brick red");
    CHECK(blank.fields.size() == 6);
    CHECK(blank.fields[5].depth.value == 15_in);
    CHECK(blank.fields[5].middle.value == 30_in);
    for (const FieldRuns runs : {FieldRuns::Up, FieldRuns::AllRound, FieldRuns::Across}) {
        run_field(blank, 2, runs);
        CHECK(runs_of(blank.fields[2]) == runs);
    }
    blank.fields[3].colour = "#000000";
    remove_field(blank, 2);
    CHECK(blank.fields.size() == 5);
    CHECK(blank.fields[2].colour == "#000000");
    add_guide(blank, "glue line");
    add_guide(blank, "hinge");
    remove_guide(blank, 0);
    CHECK(blank.guides.front().name == "hinge");
}

TEST_CASE("a backing is an inch larger on every side") {
    Blank blank = board();
    put_on_backing(blank, true, 60_in, 5.5_in);
    CHECK(blank.backing->length.value == 62_in);
    CHECK(blank.backing->width.value == 7.5_in);
    put_on_backing(blank, false, 60_in, 5.5_in);
    CHECK_FALSE(blank.backing);
}

TEST_CASE("a place that is not there changes nothing") {
    Blank blank = board();
    remove_zone(blank, 2);
    place_zone(blank, 2, ZonePlace::Circle, face_of_board);
    keep_clear_for(blank, 7, ZoneReason::Rope);
    wind(blank, 2, 3);
    run_field(blank, 0, FieldRuns::Up);
    remove_field(blank, 0);
    remove_guide(blank, 0);
    CHECK(blank == board());
}

TEST_CASE("any series of commands leaves a blank that its file gives back") {
    CHECK(rc::check([] {
        Job job = porch_board();
        Blank& blank = job.signs.front().blank;
        const int steps = *rc::gen::inRange(1, 12);
        for (int i = 0; i < steps; ++i) {
            const auto which = *rc::gen::inRange<std::size_t>(0, 4);
            switch (*rc::gen::inRange(0, 8)) {
                case 0:
                    turn(blank, *rc::gen::element(Stands::Upright, Stands::Level));
                    break;
                case 1:
                    add_zone(blank, "x");
                    break;
                case 2:
                    place_zone(blank, which, static_cast<ZonePlace>(*rc::gen::inRange(0, 6)), face_of_board);
                    break;
                case 3:
                    keep_clear_for(blank, which, static_cast<ZoneReason>(*rc::gen::inRange(0, 9)));
                    break;
                case 4:
                    wind(blank, which, *rc::gen::inRange(0, 20));
                    break;
                case 5:
                    add_field(blank, face_of_board, "red");
                    break;
                case 6:
                    run_field(blank, which, static_cast<FieldRuns>(*rc::gen::inRange(0, 3)));
                    break;
                default:
                    blank = as_kind(blank, static_cast<Kind>(*rc::gen::inRange(0, 7)));
            }
        }
        const auto back = read_job(write_job(job));
        if (!back) RC_LOG() << back.error().what.id << " at " << back.error().where.place;
        RC_ASSERT(back.has_value());
        RC_ASSERT(*back == job);
    }));
}
