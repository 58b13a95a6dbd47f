// The bench as it is used with paint on the hands: pictures, figures, timers, keys that a pedal sends; the order of
// laying at Method; what would help at Clock.
#include "files/save.h"
#include "job/commands.h"
#include "support_window.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

constexpr int second_press_ms = 1'050;  // a press within a second is none

QLabel& named(Window& w, const char* name) { return w.get<QLabel>(name); }

// All of a label's words have room.
bool whole(const QLabel& l) {
    const QRect needed = l.fontMetrics().boundingRect(QRect(0, 0, l.width(), 10'000), Qt::TextWordWrap, l.text());
    return needed.height() <= l.height() + 2 && needed.width() <= l.width() + 2;
}

// Half an hour into the two hours that the first coat dries.
Job first_coat_on() {
    Job job = porch_board();
    job = tick(job, plan_of(job), StepId{"1/sand"}, moment("2026-05-04T16:30"));
    return tick(job, plan_of(job), StepId{"1/ground/1"}, moment("2026-05-04T17:10"));
}

Job small_decal() {
    Job job = panel_job("OAR", "12", "6");
    make_as(making(job), Way::Decal, library().trade);
    job.deadline.reset();
    without(job, clear_coat);
    return job;
}

}  // namespace

TEST_CASE("bench: every step fits its words at both sizes, with large type, whatever it says") {
    for (const auto& [size, percent] : {std::pair(QSize(1280, 800), 100), std::pair(QSize(1024, 700), 100),
                                        std::pair(QSize(1280, 800), 150), std::pair(QSize(1024, 700), 150)}) {
        Window w(porch_board(), size, false, percent);
        w.show(Station::Bench);
        for (std::size_t i = 0; i < w.desk().plan().bench->steps.size(); ++i) {
            INFO(w.desk().plan().bench->steps[i].id.name << " at " << size.width() << ", " << percent << " %");
            QApplication::processEvents();
            for (const char* name : {"instruction", "figures", "at-hand"}) {
                INFO(name);
                CHECK(whole(named(w, name)));
            }
            CHECK(named(w, "instruction").fontInfo().pixelSize() >= 24);
            if (const auto* picture = w.find<QWidget>("Where it goes")) CHECK(picture->height() >= 60);
            QTest::keyClick(&w.get<QWidget>("bench"), Qt::Key_PageUp);  // nothing before the first; back, after it
            w.click("ahead");
            if (i > 0) w.click("ahead");
        }
    }
}

TEST_CASE("bench: a small job from the first step to the last by the space bar alone") {
    Window w(small_decal());
    w.show(Station::Bench);
    auto& bench = w.get<QWidget>("bench");
    const std::size_t steps = w.desk().plan().bench->steps.size();
    REQUIRE(steps > 5);
    std::size_t presses = 0;
    while (w.desk().plan().bench->done() < steps && presses < 3 * steps) {
        QTest::keyClick(&bench, Qt::Key_Space);
        QTest::keyClick(&bench, Qt::Key_Space);  // at once again: no press
        w.settle();
        const std::size_t done = w.desk().plan().bench->done();
        CHECK(done <= ++presses);
        QTest::qWait(second_press_ms);
    }
    CHECK(w.desk().plan().bench->done() == steps);
    CHECK(w.read().contains("Everything is done"));
    CHECK(presses > steps);  // what had to dry was asked about first
    // Done with everything, the same key leads to the logbook.
    QTest::keyClick(&bench, Qt::Key_Space);
    w.settle();
    CHECK(w.find<QWidget>("bench") == nullptr);
    CHECK(w.find<QPushButton>("Finish the job") != nullptr);
}

TEST_CASE("bench: done while a wait runs is asked about; the timer names what dries and for what") {
    Window w(first_coat_on());
    w.show(Station::Bench);
    // What comes next fills the wait; the coat's own wait is told beside it: two hours, half an hour of them gone.
    CHECK(named(w, "timers").text().contains("1:30"));
    CHECK(named(w, "timers").text().contains("chalk-type paint dries before the next coat"));
    while (named(w, "step-name").text() != "ground coat 2 of 2") w.click("ahead");
    CHECK(named(w, "timer").text() == "1:30 h");
    w.click("done");
    CHECK(w.desk().plan().bench->done() == 2);
    CHECK(w.get<QPushButton>("done").text() == "Do it anyway");
    QTest::qWait(second_press_ms);
    w.click("done");
    CHECK(w.desk().plan().bench->done() == 3);
}

TEST_CASE("method: the order of laying is stepped through by keyboard, with a picture for each step") {
    Window w;
    w.show(Station::Method);
    w.click("order of laying");
    CHECK(named(w, "order-name").text().contains("9 steps"));  // 3 laid, a seal, 2 coats, 3 lifted
    auto& order = w.get<QWidget>("order");
    QStringList names;
    for (int i = 0; i < 12; ++i) {
        QTest::keyClick(&order, Qt::Key_Right);
        names << named(w, "order-name").text();
    }
    CHECK(names.front().contains("lay section 1, BOAT"));
    CHECK(names[1].contains("lay section 2, HOUS"));
    CHECK(names.back().contains("lift section 1, BOAT"));  // it stops at the last
    QTest::keyClick(&order, Qt::Key_Left);
    CHECK(named(w, "order-name").text().contains("lift section 2, HOUS"));
    w.click("laying begins: base");
    CHECK(w.sign().faces.front().colours.front().making.lay_from == LayFrom::Base);
    w.desk().undo();
    CHECK(w.sign().faces.front().colours.front().making.lay_from == LayFrom::Top);
}

TEST_CASE("clock: a late job is shown what would help, each tried; one is taken and undone") {
    Job job = porch_board();
    job.deadline = moment("2026-05-07T22:00");
    Window w(job);
    w.show(Station::Clock);
    REQUIRE(w.desk().plan().clock->late);
    w.click("group What would help");
    w.click("look for time");
    REQUIRE(QTest::qWaitFor([&] { return w.find<QPushButton>("A clear coat less") != nullptr; }, 60'000));
    CHECK(w.read().contains("sooner"));
    const Moment before = w.desk().plan().clock->ready;
    w.click("A clear coat less");
    CHECK(w.desk().plan().clock->ready < before);
    w.desk().undo();
    w.settle();
    CHECK(w.desk().plan().clock->ready == before);
}

TEST_CASE("clock: a day off moves the rest, and as usual brings it back") {
    Window w;
    w.show(Station::Clock);
    w.click("group Days and room");
    const Moment before = w.desk().plan().clock->ready;
    w.click("day off");  // today
    CHECK(w.desk().shop().changed_days.size() == 1);
    CHECK(w.desk().plan().clock->begin >= moment("2026-05-05T00:00"));
    CHECK(w.desk().plan().clock->ready >= before);
    w.click("Mon 4 May: day off: As usual");
    CHECK(w.desk().shop().changed_days.empty());
    CHECK(w.desk().plan().clock->ready == before);
}

TEST_CASE("bench: something happened makes the step that mends it; dry already ends the wait; a step can be left out") {
    Window w(first_coat_on());
    w.show(Station::Bench);
    while (named(w, "step-name").text() != "ground coat 2 of 2") w.click("ahead");
    w.click("dry");
    CHECK(w.job().bench.dry.contains(StepId{"1/ground/1"}));
    w.click("back");
    w.click("something happened");
    CHECK(w.get<QPushButton>("happened-ran-out").height() >= 64);
    const std::size_t steps = w.desk().plan().bench->steps.size();
    w.click("happened-ran-out");
    CHECK(w.desk().plan().bench->steps.size() == steps + 1);
    CHECK(w.job().bench.mishaps.size() == 1);
    w.desk().undo();
    w.settle();
    CHECK(w.job().bench.mishaps.empty());
    w.click("something happened");
    w.click("leave-it-out");
    CHECK(w.job().bench.skipped.size() == 1);
}

TEST_CASE("the rack shows the week of all jobs in work, what is late among them, and what to do today") {
    Window w;
    Job other = long_board();
    other.deadline = moment("2026-05-30T12:00");
    std::ofstream(w.folder() / "other.skarvel") << write_job(other);
    w.window().show_rack();
    w.click("their week");
    REQUIRE(QTest::qWaitFor(
        [&] {
            const auto* week = w.find<WeekView>("week");
            return week != nullptr && !w.window().findChild<Rack*>()->filling() &&
                   week->told().indexOf(QRegularExpression("^Landing stage: .*")) >= 0;
        },
        30'000));
    auto& week = w.get<WeekView>("week");
    const auto told = [&] { return week.told().join("\n"); };
    CHECK(told().contains("Porch board: ready"));
    CHECK(told().contains("Landing stage: "));
    CHECK(told().contains("18:30  "));
    const QString before = told();
    // The lane that is second is pressed: it would go first, and the other shows what that would do to it.
    const auto press = [&](int row) {
        QTest::mouseClick(&week, Qt::LeftButton, {}, {60, Theme::px(64) + row * Theme::px(36) + Theme::px(18)});
    };
    press(1);
    REQUIRE(QTest::qWaitFor([&] { return told() != before; }, 10'000));
    CHECK(week.told().front().startsWith("Landing stage"));
    CHECK(QRegularExpression("Porch board: late: ready .*later").match(told()).hasMatch());
    CHECK(w.desk().shop().line.empty());
    w.click("week-leave-it");
    CHECK(told() == before);
    press(1);
    REQUIRE(QTest::qWaitFor([&] { return told() != before; }, 10'000));
    w.click("week-do-it");
    REQUIRE(QTest::qWaitFor([&] { return told().contains("the others make it late"); }, 10'000));
    CHECK(week.told().front().startsWith("Landing stage"));
    CHECK(told().contains("Porch board: the others make it late"));
    press(0);
    REQUIRE(QTest::qWaitFor([&] { return w.find<QPushButton>("week-do-it") != nullptr; }, 10'000));
    w.click("week-do-it");
    REQUIRE(QTest::qWaitFor([&] { return told() == before; }, 10'000));
}

TEST_CASE("bench: a round of four signs is one step with its parts to tick, and done ticks what is left of it") {
    Window w(*read_job(*read_file(std::filesystem::path(SKARVEL_SOURCE) / "demo/four-arrows.skarvel")));
    w.show(Station::Bench);
    const auto& steps = w.desk().plan().bench->steps;
    const auto first = std::find_if(steps.begin(), steps.end(), [&](const Step& s) {
        return !s.done && round_of(*w.desk().plan().bench, static_cast<std::size_t>(&s - steps.data())).size() > 1;
    });
    REQUIRE(first != steps.end());
    const StepId wanted = first->id;
    const std::size_t parts = round_of(*w.desk().plan().bench, static_cast<std::size_t>(first - steps.begin())).size();
    while (w.desk().plan().bench->next() != nullptr && w.desk().plan().bench->next()->id != wanted) {
        const Step& next = *w.desk().plan().bench->next();
        w.desk().apply(tick(w.job(), w.desk().plan(), next.id, next.start + next.hands_on));
        w.settle();
    }
    CHECK(named(w, "step-name").text().contains("a round of " + QString::number(parts)));
    auto* round = w.find<QWidget>("round");
    REQUIRE(round != nullptr);
    QList<QPushButton*> ticks;
    for (auto* b : round->findChildren<QPushButton*>()) {
        if (b->isVisible()) ticks << b;
    }
    REQUIRE(static_cast<std::size_t>(ticks.size()) == parts);
    for (const QPushButton* b : ticks) CHECK(b->height() >= 64);
    const std::size_t before = w.desk().plan().bench->done();
    QTest::mouseClick(ticks.last(), Qt::LeftButton);
    w.settle();
    CHECK(w.desk().plan().bench->done() == before + 1);
    w.click("done");
    if (w.desk().plan().bench->done() == before + 1) {  // it had to wait
        QTest::qWait(second_press_ms);
        w.click("done");
    }
    CHECK(w.desk().plan().bench->done() == before + parts);
}

TEST_CASE("bench: a photograph is kept at its step and shown small, upright; one that is missing says so") {
    Window w;
    w.show(Station::Bench);
    const auto picture = w.folder() / "lift.png";
    QImage(400, 300, QImage::Format_RGB32).save(QString::fromStdString(picture.string()));
    std::ofstream(w.folder() / "notes.txt") << "no picture";
    w.desk().keep_photographs({picture, w.folder() / "notes.txt"}, w.desk().plan().bench->next()->id);
    w.settle();
    REQUIRE(w.job().bench.photographs.size() == 1);
    CHECK(w.read().contains("neither a JPEG nor a PNG"));
    auto* strip = w.window().findChild<QWidget*>("photographs");
    REQUIRE(strip != nullptr);
    const auto shows_picture = [&] {
        const auto all = strip->findChildren<QLabel*>();
        return std::any_of(all.begin(), all.end(), [](const QLabel* l) { return !l->pixmap().isNull(); });
    };
    CHECK(QTest::qWaitFor([&] { return strip->isVisible() && shows_picture(); }, 5000));
    std::filesystem::remove_all(w.folder() / "job.photographs");
    w.click("ahead");
    w.click("back");
    CHECK(QTest::qWaitFor([&] { return w.read().contains("not beside the job any more"); }, 5000));
    CHECK(w.desk().save(w.folder() / "job.skarvel"));
}

TEST_CASE("the figures of a wait are as large at first as they stay, where all type is shrunk to fit") {
    const auto size = [](Window& w) { return named(w, "timer").font().pixelSize(); };
    bool shrunk = false;
    for (const int percent : {100, 150}) {
        Window w(porch_board(), {1024, 700}, false, percent);
        w.window().show_station(Station::Bench);
        QApplication::processEvents();
        const int first = size(w);
        auto& bench = *w.window().findChild<BenchView*>();
        for (int again = 0; again < 3; ++again) bench.refresh();
        CHECK(size(w) == first);
        shrunk = shrunk || first < Theme::px(44);
    }
    CHECK(shrunk);
}
