#include <QComboBox>
#include <QPlainTextEdit>
#include <QSpinBox>
#include <QTimer>

#include "method/contrast.h"
#include "support_window.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

bool same_but(const Job& a, Job b, const std::function<void(Job&)>& change) {
    change(b);
    return a == b;
}

}  // namespace

TEST_CASE("the colours of the window can be read, by day and by night") {  // WCAG AA, computed
    for (const bool night : {false, true}) {
        const Tokens t = Theme::tokens_for(night);
        const auto ratio = [](const QColor& a, const QColor& b) {
            return contrast(a.name().toStdString(), b.name().toStdString());
        };
        for (const QColor& ink : {t.graphite, t.pencil, t.chalk, t.ochre, t.brick, t.moss}) {
            INFO(ink.name().toStdString() << (night ? " night" : " day"));
            CHECK(ratio(ink, t.paper) >= 4.5);
            CHECK(ratio(ink, t.sheet) >= 4.5);
        }
        for (const QColor& fill : {t.chalk, t.ochre, t.brick, t.moss}) CHECK(ratio(t.sheet, fill) >= 4.5);
        CHECK(ratio(t.pencil, t.paper) >= 3);  // borders of controls, focus and marks are drawn with these
        CHECK(ratio(t.chalk, t.sheet) >= 3);
    }
}

TEST_CASE("all seven stations are reached by mouse and by keyboard") {
    Window w;
    for (int i = 0; i < 7; ++i) {
        w.show(Station::Blank);
        QTest::keyClick(&w.window(), static_cast<Qt::Key>(Qt::Key_1 + i), Qt::ControlModifier);
        w.settle();
        CHECK(static_cast<int>(w.window().station()) == i);
    }
    QTest::keyClick(&w.window(), Qt::Key_Escape);  // leaves the bench
    w.show(Station::Bench);
    QTest::keyClick(w.window().findChild<BenchView*>(), Qt::Key_Escape);
    w.settle();
    CHECK(w.window().station() != Station::Bench);
    for (int i = 1; i <= 7; ++i) {
        auto* station = w.window().findChild<QAbstractButton*>("station-" + QString::number(i));
        if (!station->isVisible()) w.show(Station::Blank);
        QTest::mouseClick(station, Qt::LeftButton);
        w.settle();
        CHECK(static_cast<int>(w.window().station()) == i - 1);
    }
}

TEST_CASE("the ticket carries the live result of each station") {
    Window w;
    const auto says = [&](int station) {
        return w.window().findChild<QAbstractButton*>("station-" + QString::number(station))->accessibleName();
    };
    CHECK(says(1).contains("60 in × 5 1⁄2 in, a 1×6"));
    CHECK(says(3).contains("3 in 2 loads"));
    CHECK(says(4).contains("5 keepers"));
    CHECK(says(5).contains("ready"));
    Job job = w.job();
    making(job).film = "permanent-gloss";
    w.desk().apply(job);
    w.settle();
    CHECK(says(4).contains("stop"));
}

TEST_CASE("every callout changes exactly its own value") {
    Window w;
    struct Row {
        Station station;
        const char* id;
        const char* typed;
        std::function<void(Job&)> changes;
    };
    const std::vector<Row> rows = {
        {Station::Blank, "clear-0", "6", [](Job& j) { j.signs.front().blank.clear[0].depth = measure("6"); }},
        {Station::Blank, "clear-1", "(60 - 2*6)/9",
         [](Job& j) { j.signs.front().blank.clear[1].depth = measure("(60 - 2*6)/9"); }},
        {Station::Blank, "length", "72", [](Job& j) { j.signs.front().blank.length = measure("72"); }},
        {Station::Blank, "width", "5 7/16", [](Job& j) { j.signs.front().blank.width = measure("5 7/16"); }},
        {Station::Blank, "margin", "1/4", [](Job& j) { j.signs.front().blank.margin = measure("1/4"); }},
        {Station::Lettering, "letter-gap", "140 mm / 10",
         [](Job& j) { lettering(j).letter_gap = measure("140 mm / 10"); }},
        {Station::Lettering, "clear-0", "4 1/2",
         [](Job& j) { j.signs.front().blank.clear[0].depth = measure("4 1/2"); }},
        {Station::Lettering, "margin", "1/2", [](Job& j) { j.signs.front().blank.margin = measure("1/2"); }},
    };
    for (const Row& row : rows) {
        INFO(row.id << " at " << static_cast<int>(row.station));
        w.show(row.station);
        const Job before = w.job();
        w.type(w.callout(row.id), row.typed);
        CHECK_FALSE(w.job() == before);
        CHECK(same_but(w.job(), before, row.changes));
        QTest::keyClick(&w.window(), Qt::Key_Z, Qt::ControlModifier);
        w.settle();
        CHECK(w.job() == before);
    }
    w.show(Station::Lettering);
    w.choose("size", 1);  // by cap height
    const Job before = w.job();
    w.type(w.callout("cap-height"), "3");
    CHECK(same_but(w.job(), before, [](Job& j) { lettering(j).size = measure("3"); }));
}

TEST_CASE("a callout says what it changes, how it was read, and keeps the old value when it cannot be read") {
    Window w;
    Callout& clear = w.callout("clear-0");
    const Job before = w.job();
    clear.setFocus();
    w.settle();
    CHECK(w.read().contains("moves the clear zone"));
    QTest::keyClick(&clear, Qt::Key_A, Qt::ControlModifier);
    QTest::keyClicks(&clear, "2 + 1/2");
    CHECK(w.read().contains("= 2 1⁄2 in"));
    QTest::keyClick(&clear, Qt::Key_A, Qt::ControlModifier);
    QTest::keyClicks(&clear, "2 in * 3 in");
    QTest::keyClick(&clear, Qt::Key_Return);
    CHECK(w.read().contains("a length times a length is an area"));
    CHECK(w.job() == before);
    QTest::keyClick(&clear, Qt::Key_Escape);
    w.settle();
    CHECK(w.job() == before);
    CHECK(clear.text() == "5");
}

TEST_CASE("measure fields of the trays do the same") {
    Window w;
    auto& length = w.get<QLineEdit>("length");
    w.type(length, "5' 6");
    CHECK(w.sign().blank.length.value == 66_in);
    const Job before = w.job();
    w.type(length, "nonsense");
    CHECK(w.job() == before);
    CHECK(w.read().contains("a character that belongs to no measure"));
    w.type(w.get<QLineEdit>("width, as the tape says"), "5 1/4");
    CHECK(w.sign().blank.width->value == 5.25_in);
    w.type(w.get<QLineEdit>("width, as the tape says"), " ");
    QTest::keyClick(&w.get<QLineEdit>("width, as the tape says"), Qt::Key_Backspace);
    QTest::keyClick(&w.get<QLineEdit>("width, as the tape says"), Qt::Key_Return);
    w.settle();
    CHECK_FALSE(w.sign().blank.width);
    w.type(length, "-4");
    CHECK(w.sign().blank.length.value == 66_in);
}

TEST_CASE("typing the words is one undo step, and each keystroke plans") {
    Job empty = porch_board();
    lettering(empty).words.clear();
    Window w(empty);
    w.show(Station::Lettering);
    auto& words = w.get<QPlainTextEdit>("words");
    words.setFocus();
    QTest::keyClicks(&words, "TEA");
    w.settle();
    CHECK(w.sign().faces.front().lettering.main().words == "TEA");
    CHECK(w.desk().plan().colours.front().face->lettering->letters.size() == 3);
    w.get<QComboBox>("typeface").setFocus();
    words.setFocus();
    words.moveCursor(QTextCursor::End);
    QTest::keyClicks(&words, "S");
    w.settle();
    w.desk().undo();
    CHECK(w.sign().faces.front().lettering.main().words == "TEA");
    w.desk().undo();
    CHECK(w.sign().faces.front().lettering.main().words.empty());
    w.desk().redo();
    w.desk().redo();
    CHECK(w.sign().faces.front().lettering.main().words == "TEAS");
    CHECK_FALSE(w.desk().can_redo());
}

TEST_CASE("lettering: arrangement, size and offers follow the plan") {
    Job narrow = porch_board();
    lettering(narrow).typeface = typeface("Bebas Neue");
    Window w(narrow);
    w.show(Station::Lettering);
    CHECK(w.read().contains("the most that looks right"));
    QPushButton* offer = nullptr;
    for (QPushButton* b : w.window().findChildren<QPushButton*>()) {
        if (b->isVisible() && b->text().startsWith("Use ")) offer = b;
    }
    REQUIRE(offer != nullptr);
    QTest::mouseClick(offer, Qt::LeftButton);
    w.settle();
    CHECK(w.desk().plan().colours.front().face->lettering->offers.empty());
    w.click("arranged: level lines");
    CHECK(w.sign().faces.front().lettering.main().arrangement == Arrangement::Level);
    CHECK(w.sign().faces.front().lettering.main().letter_gap.value == Length{});
}

TEST_CASE("sections: the way it is made, and what follows with its why") {
    Window w;
    w.show(Station::Sections);
    CHECK(w.read().contains("No plan can do with 1 load: proved."));
    CHECK(w.read().contains("Leave in while weeding: B 2 (from"));
    w.click("how it is made: decal");
    CHECK(w.sign().faces.front().colours.front().making.way == Way::Decal);
    CHECK(w.desk().plan().colours.front().cut.loads->keepers == 0);
    w.click("how it is made: paint-through");
    w.type(w.get<QLineEdit>("mask margin"), "1/2");
    w.show(Station::Method);
    CHECK(w.desk().plan().mark_of(Station::Method) == Mark::Stop);
}

TEST_CASE("method: schools, coats and the proof") {
    Window w;
    w.show(Station::Method);
    w.click("lift the mask: wet");
    w.click("seal its edges: clear");
    w.click("clear coat: under");
    const Finish& f = w.sign().faces.front().finish;
    CHECK(f.lift == Lift::Wet);
    CHECK(f.seal == Seal::Clear);
    CHECK_FALSE(clear_lies_over(w.sign().faces.front(), w.desk().library().trade));
    w.get<QSpinBox>("coats of colour of the lettering").setValue(4);
    w.settle();
    CHECK(w.sign().faces.front().colours.front().paint.coats == 4);
    CHECK(w.read().contains("BOATHOUSE"));
    w.click("I have read every word: sign");
    CHECK(w.desk().plan().proof_signed);
    CHECK(w.read().contains("Read and signed"));
}

TEST_CASE("clock: the deadline and the waits move the start") {
    Window w;
    w.show(Station::Clock);
    const auto start = w.desk().plan().clock->start_by;
    w.type(w.get<QLineEdit>("deadline"), "16 May noon");
    w.settle();
    CHECK(*w.desk().plan().clock->start_by == *start + std::chrono::days(7));
    w.click("waits before film goes on: safe");
    CHECK(*w.desk().plan().clock->start_by < *start + std::chrono::days(7));
    w.click("there is a deadline");
    CHECK_FALSE(w.job().deadline);
    CHECK_FALSE(w.desk().plan().clock->start_by);
}

TEST_CASE("bench: one step at a time; done records the time and moves on, and can be taken back") {
    Window w;
    w.show(Station::Bench);
    CHECK(w.read().contains("saw the board to length"));
    CHECK(w.read().contains("Guards on"));
    CHECK(w.window().findChild<Ticket*>()->isHidden());
    const auto done = [&] { return w.window().findChild<QPushButton*>("done"); };
    CHECK(done()->height() >= 64);
    QTest::mouseClick(done(), Qt::LeftButton);
    w.settle();
    CHECK(w.job().bench.ticks.at(StepId{"1/saw"}) == moment("2026-05-04T17:40"));
    CHECK(w.read().contains("Sanding dust"));
    QTest::mouseClick(w.window().findChild<QPushButton*>("back"), Qt::LeftButton);
    w.settle();
    QTest::qWait(1'050);  // a press within a second is none
    CHECK(done()->text() == "Not done after all");
    QTest::mouseClick(done(), Qt::LeftButton);
    w.settle();
    CHECK(w.job().bench.ticks.empty());
    w.desk().undo();
    CHECK(w.job().bench.ticks.size() == 1);  // ticks stand in the one line of undo
}

TEST_CASE("a cut load that no longer fits is offered to keep or to cut again") {
    Job job = porch_board();
    const Plan plan = plan_of(job);
    job = tick(job, plan, StepId{"1/cut/BOAT+HOUS"}, moment("2026-05-04T17:00"));
    lettering(job).letter_gap = measure("3/8");
    Window w(job);
    w.show(Station::Sections);
    CHECK(w.read().contains("no longer fits"));
    w.click("Keep what is cut (BOAT)");
    CHECK_FALSE(w.read().contains("no longer fits"));
    w.desk().undo();
    w.settle();
    w.click("Cut again (BOAT)");
    CHECK(w.job().bench.cut.empty());
    CHECK(w.job().bench.spoilt.size() == 1);
}

TEST_CASE("logbook: finishing writes a record that is there after a restart") {
    Window w;
    w.show(Station::Logbook);
    w.get<QPlainTextEdit>("note").setPlainText("Thinner coats.");
    w.click("outcome: fair");
    w.click("Finish the job");
    CHECK(w.desk().records().size() == 1);
    CHECK(w.read().contains("Next time: Thinner coats."));
    CHECK(w.job().finished->outcome == Outcome::Fair);
    Desk again(std::shared_ptr<const Library>(&library(), [](const Library*) {}), {w.folder().path()}, std::nullopt);
    REQUIRE(again.records().size() == 1);
    CHECK(again.records().front().note == "Thinner coats.");
}

TEST_CASE("units are switched in one place, everywhere, and plan nothing new") {
    Window w;
    const auto loads = w.desk().plan().colours.front().cut.loads;
    w.window().show_shop();
    w.click("shown in: millimetres");
    CHECK(*w.desk().plan().colours.front().cut.loads == *loads);
    w.show(Station::Blank);
    CHECK(w.callout("clear-0").text() == "127");
    w.type(w.callout("clear-0"), "100");
    CHECK(w.sign().blank.clear.front().depth.typed == "100 mm");
    CHECK(w.window().findChild<QAbstractButton*>("station-1")->accessibleName().contains("1524 × 139.7 mm"));
    Desk again(std::shared_ptr<const Library>(&library(), [](const Library*) {}), {w.folder().path()}, std::nullopt);
    CHECK(again.shop().display.unit == Unit::Millimetre);
}

TEST_CASE("the shop's mat and hours plan again") {
    Window w;
    w.window().show_shop();
    w.type(w.get<QLineEdit>("bed 1 of machine 1 cuts along"), "11 1/2");
    CHECK(w.desk().plan().colours.front().cut.loads->sections.size() > 3);
    w.click("Wednesday");
    const auto works_on = [&](std::chrono::weekday day) {
        const auto& slots = w.desk().plan().clock->slots;
        return std::any_of(slots.begin(), slots.end(), [&](const Slot& slot) {
            return std::chrono::weekday{std::chrono::floor<std::chrono::days>(slot.start)} == day;
        });
    };
    CHECK_FALSE(works_on(std::chrono::Wednesday));
    w.click("Wednesday");
    CHECK(works_on(std::chrono::Wednesday));
}

TEST_CASE("nothing is run while the first plan is waited for; later ones are waited for by a window that paints") {
    (void)application();
    Job job = *read_job(*read_file(std::filesystem::path(SKARVEL_SOURCE) / "demo/mess-room-saying.skarvel"));
    PlanService service;
    for (const bool first : {true, false}) {
        bool ran = false;
        QTimer::singleShot(0, &service, [&] { ran = true; });
        lettering(job).words += " ";
        service.want(std::shared_ptr<const Library>(&library(), [](const Library*) {}), job, usual_shop(),
                     moment("2026-05-04T18:00"), nullptr, std::nullopt);
        service.wait();
        CHECK(service.current());
        CHECK(ran != first);
    }
}

TEST_CASE("a job that takes long to plan is opened over another, and the other again, while the window paints") {
    Job large = *read_job(*read_file(std::filesystem::path(SKARVEL_SOURCE) / "demo/mess-room-saying.skarvel"));
    const std::string words = lettering(large).words;
    for (const char* more : {"A", "B"}) large = copy_sign(large, large.signs.size() - 1, words + more);
    Window w;
    const auto beside = std::filesystem::path(w.desk().path()).parent_path();
    std::ofstream(beside / "large.skarvel") << write_job(large);
    for (const Station s : {Station::Sections, Station::Method, Station::Clock, Station::Bench}) {
        w.show(s);
        w.window().open_path(beside / "large.skarvel");
        w.settle();
        CHECK(w.desk().plan().colours.size() == 3);
        w.desk().select(2);
        w.settle();
        w.window().open_path(beside / "job.skarvel");
        w.settle();
        CHECK(w.desk().plan().colours.size() == 1);
    }
}
