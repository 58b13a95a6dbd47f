#include "job/undo_line.h"

#include <rapidcheck.h>

#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

Job titled(const std::string& title) {
    Job job = porch_board();
    job.title = title;
    return job;
}

}  // namespace

TEST_CASE("steps are taken back and done again, and a new one ends what could be done again") {
    UndoLine line(titled("a"));
    CHECK_FALSE(line.unsaved());
    CHECK_FALSE(line.take(titled("a")));  // nothing changes
    CHECK(line.take(titled("b")));
    CHECK(line.take(titled("c")));
    CHECK(line.unsaved());
    CHECK(line.undo());
    CHECK(line.job().title == "b");
    CHECK(line.redo());
    CHECK(line.job().title == "c");
    CHECK_FALSE(line.redo());
    line.undo();
    line.take(titled("d"));
    CHECK_FALSE(line.can_redo());
    line.undo();
    line.undo();
    CHECK(line.job().title == "a");
    CHECK_FALSE(line.undo());
    CHECK_FALSE(line.unsaved());
}

TEST_CASE("typing is one step until it settles") {
    UndoLine line(titled(""));
    for (const char* typed : {"B", "BO", "BOA"}) line.take(titled(typed), "words a");
    line.settle();
    line.take(titled("BOAT"), "words a");
    line.take(titled("BOAT!"), "words b");
    line.undo();
    CHECK(line.job().title == "BOAT");
    line.undo();
    CHECK(line.job().title == "BOA");
    line.undo();
    CHECK(line.job().title.empty());
    // What was taken back is not gone on with.
    line.redo();
    line.take(titled("BOAR"), "words a");
    line.undo();
    CHECK(line.job().title == "BOA");
}

TEST_CASE("a job counts as saved where its file holds the same") {
    UndoLine line(titled("a"));
    line.take(titled("b"));
    line.mark_saved();
    CHECK_FALSE(line.unsaved());
    line.undo();
    CHECK(line.unsaved());
    line.restart(titled("c"));
    CHECK_FALSE(line.can_undo());
    line.mark_saved_as(titled("on disk"));
    CHECK(line.unsaved());
}

TEST_CASE("the oldest step goes first, and any walk along the line finds its jobs again") {
    CHECK(rc::check([] {
        UndoLine line(titled("0"));
        std::vector<std::string> titles{"0"};
        std::size_t at = 0;
        const int moves = *rc::gen::inRange(1, 60);
        for (int i = 0; i < moves; ++i) {
            const int move = *rc::gen::inRange(0, 3);
            if (move == 0) {
                titles.resize(at + 1);
                titles.push_back(std::to_string(i + 1));
                ++at;
                line.take(titled(titles.back()));
            } else if (move == 1) {
                RC_ASSERT(line.undo() == (at > 0));
                at -= at > 0 ? 1 : 0;
            } else {
                RC_ASSERT(line.redo() == (at + 1 < titles.size()));
                at += at + 1 < titles.size() ? 1 : 0;
            }
            RC_ASSERT(line.job().title == titles[at]);
        }
    }));
    UndoLine line(titled("first"));
    for (std::size_t i = 0; i < UndoLine::longest + 5; ++i) line.take(titled(std::to_string(i)));
    std::size_t back = 0;
    while (line.undo()) ++back;
    CHECK(back == UndoLine::longest);
    CHECK(line.job().title == "4");
}
