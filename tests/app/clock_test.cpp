// The days of the clock: blocks where the tasks are, what a task waits for by pointing, and the wheel.
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
