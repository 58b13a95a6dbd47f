// The days of the clock: blocks where the tasks are, what a task waits for by pointing, and the wheel.
#include <QCalendarWidget>
#include <QTest>
#include <QWheelEvent>

#include "stations/views.h"
#include "support_window.h"

using namespace skarvel;
using namespace skarvel::testing;

TEST_CASE(
    "clock: tasks stand among the days in the order of time, can be pointed at, and the wheel shows more of them") {
    Window w;
    w.show(Station::Clock);
    auto* days = w.window().findChild<ClockView*>("the days");
    days->grab();
    const std::vector<Slot>& slots = w.desk().plan().clock->slots;
    double before = 0;
    for (const Slot& slot : slots) {
        const QRectF block = days->block_of(slot.task);
        CHECK(block.width() > 0);
        CHECK(block.left() >= before - 1);
        CHECK(block.right() <= days->width());
        before = block.left();
    }
    // Work of one pair of hands: no two blocks of a lane lie on one another.
    for (const Slot& a : slots) {
        for (const Slot& b : slots) {
            const QRectF x = days->block_of(a.task);
            const QRectF y = days->block_of(b.task);
            if (a.task >= b.task || x.top() != y.top() || x.width() <= 3 || y.width() <= 3) continue;
            CHECK((x.right() <= y.left() + 1 || y.right() <= x.left() + 1));
        }
    }
    const std::size_t last = slots.back().task;
    QTest::mouseMove(days, days->block_of(last).center().toPoint());
    CHECK(days->pointed_at() == last);
    const double narrow = days->block_of(last).width();
    const QPointF at = days->block_of(slots.front().task).center();
    QWheelEvent turn(at, days->mapToGlobal(at), {}, {0, 240}, Qt::NoButton, Qt::NoModifier, Qt::NoScrollPhase, false);
    QApplication::sendEvent(days, &turn);
    days->grab();
    CHECK(days->block_of(slots.front().task).width() > narrow);
    // What is pointed at stays under the pointer.
    CHECK(std::abs(days->block_of(slots.front().task).center().x() - at.x()) < 40);
}

namespace {

void drag(QWidget* days, const QPointF& from, const QPointF& to) {
    QTest::mousePress(days, Qt::LeftButton, {}, from.toPoint());
    for (int i = 1; i <= 4; ++i) QTest::mouseMove(days, (from + (to - from) * i / 4).toPoint());
    QTest::mouseRelease(days, Qt::LeftButton, {}, to.toPoint());
}

std::size_t task_of(Window& w, const char* id) {
    const auto& tasks = *w.desk().plan().tasks;
    return static_cast<std::size_t>(
        std::find_if(tasks.begin(), tasks.end(), [&](const Task& t) { return t.id.name == id; }) - tasks.begin());
}

}  // namespace

TEST_CASE("clock: work is dragged to another evening, stays pinned there, goes no further than it may, and is undone") {
    Window w;
    w.show(Station::Clock);
    auto* days = w.window().findChild<ClockView*>("the days");
    days->grab();
    const auto start_of = [&](const char* id) {
        const std::size_t task = task_of(w, id);
        for (const Slot& s : w.desk().plan().clock->slots) {
            if (s.task == task) return s.start;
        }
        return Moment{};
    };
    const Moment first = start_of("1/sand");
    const QRectF sand = days->block_of(task_of(w, "1/sand"));
    const QRectF last = days->block_of(w.desk().plan().clock->slots.back().task);
    drag(days, sand.center(), {last.right() - 20, sand.center().y()});
    w.settle();
    REQUIRE(w.job().pinned.size() == 1);
    const Moment later = start_of("1/sand");
    CHECK(later > first + std::chrono::hours(20));
    CHECK(later == w.job().pinned.begin()->second);
    // Its pin is listed in the tray, with a way to take it out.
    w.click("group Pinned work");
    CHECK(w.read().contains("sand the board"));
    w.desk().undo();
    w.settle();
    CHECK(w.job().pinned.empty());
    CHECK(start_of("1/sand") == first);
    // The second coat cannot come before the first is dry: it stops there, and says why.
    days->grab();
    const QRectF second = days->block_of(task_of(w, "1/ground/2"));
    const Moment before = start_of("1/ground/2");
    drag(days, second.center(), {days->block_of(task_of(w, "1/sand")).left(), second.center().y()});
    w.settle();
    CHECK(start_of("1/ground/2") <= before);
    CHECK(start_of("1/ground/2") >= start_of("1/ground/1") + std::chrono::hours(2));
    CHECK(w.read().contains("comes first"));
}

TEST_CASE("clock: by how much a change has moved the day is told on the ribbon's own line, and slack on the ticket") {
    Window w;
    w.show(Station::Clock);
    const Moment before = w.desk().plan().clock->ready;
    REQUIRE(w.desk().plan().clock->slack);
    CHECK(w.find<QWidget>("Days to the deadline") != nullptr);
    Job job = w.job();
    coat_in(job, clear_coat).coats += 2;
    w.desk().apply(job);
    w.settle();
    CHECK(w.desk().plan().clock->ready > before);
    CHECK(w.get<QWidget>("Days to the deadline").accessibleDescription().contains("later than before"));
}

TEST_CASE(
    "clock: a day is typed as it is said, shown as read before Enter, refused where it could be two, and picked") {
    Window w;
    w.show(Station::Clock);
    auto& line = w.get<QLineEdit>("deadline");
    line.setFocus();
    QTest::keyClick(&line, Qt::Key_A, Qt::ControlModifier);
    QTest::keyClicks(&line, "in 8 days 9am");
    CHECK(w.get<QLabel>("deadline read as").text() == "= Tue 12 May 2026  09:00");
    CHECK(w.job().deadline == moment("2026-05-09T12:00"));  // not before Enter
    QTest::keyClick(&line, Qt::Key_Return);
    w.settle();
    CHECK(w.job().deadline == moment("2026-05-12T09:00"));
    w.type(line, "5/9");
    CHECK(w.get<QLabel>("deadline read as").text().contains("two days"));
    CHECK(w.job().deadline == moment("2026-05-12T09:00"));
    w.click("deadline month");
    auto* month = w.window().findChild<QCalendarWidget*>("month");
    REQUIRE(month != nullptr);
    Q_EMIT month->clicked(QDate(2026, 5, 16));
    w.settle();
    CHECK(w.job().deadline == moment("2026-05-16T09:00"));
    w.desk().undo();
    CHECK(w.job().deadline == moment("2026-05-12T09:00"));
}

TEST_CASE("clock: hours of jobs that are wanted sooner are kept free, told in the tray, and given back when asked") {
    Job later = long_board();
    later.deadline = moment("2026-05-30T12:00");
    Window w(later);
    const Moment alone = w.desk().plan().clock->slots.front().start;
    std::ofstream(w.folder() / "sooner.skarvel") << write_job(porch_board());  // wanted on the ninth
    w.show(Station::Clock);
    w.desk().mind_others();
    REQUIRE(QTest::qWaitFor([&] { return !w.desk().present().taken.empty(); }, 20'000));
    w.settle();
    const auto& slots = w.desk().plan().clock->slots;
    CHECK(slots.front().start > alone);
    for (const Slot& s : slots) {
        for (const Interval& i : w.desk().present().taken) CHECK((s.end <= i.from || s.start >= i.to));
    }
    CHECK(w.read().contains("kept free for jobs wanted sooner"));
    Shop shop = w.desk().shop();
    shop.minds_others = false;
    w.desk().set_shop(shop);
    w.settle();
    CHECK(w.desk().plan().clock->slots.front().start == alone);
}
