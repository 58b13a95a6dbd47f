// The drawing in the window: views, pointing, dimensions that follow.
#include <QComboBox>
#include <QContextMenuEvent>
#include <QDialog>
#include <QListWidget>
#include <QMenu>
#include <QPainter>
#include <QPlainTextEdit>
#include <QSpinBox>
#include <QTimer>
#include <QWheelEvent>

#include "drawing/materials.h"
#include "support_window.h"
#include "window/find.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

QImage picture(Window& w) { return w.window().drawing().grab().toImage(); }

// How much of a picture differs from another.
double difference(const QImage& a, const QImage& b) {
    if (a.size() != b.size()) return 1;
    long different = 0;
    for (int y = 0; y < a.height(); y += 2) {
        for (int x = 0; x < a.width(); x += 2) different += a.pixel(x, y) != b.pixel(x, y) ? 1 : 0;
    }
    return static_cast<double>(different) * 4 / (static_cast<double>(a.width()) * a.height());
}

// Columns in which the ink's colour is seen, as a box of the picture.
QRect ink_box(const QImage& image, const QColor& colour, int from_y, int to_y) {
    QRect box;
    for (int y = from_y; y < to_y; ++y) {
        for (int x = 0; x < image.width(); ++x) {
            if (image.pixelColor(x, y) == colour)
                box = box.isNull() ? QRect(x, y, 1, 1) : box.united(QRect(x, y, 1, 1));
        }
    }
    return box;
}

}  // namespace

TEST_CASE("the board is drawn to scale: ink, clear zones and length keep their proportions") {
    Window w;
    w.show(Station::Lettering);
    const QImage image = picture(w);
    const QColor white("#f7f4ec");
    const QRect ink = ink_box(image, white, 60, 180);
    REQUIRE_FALSE(ink.isNull());
    // 51 in of ink on 60 in of board, 4 3/4 in across: the proportion of the drawn ink is that of the plan.
    const Box planned = w.desk().plan().colours.front().face->lettering->ink;
    const double wanted = static_cast<double>(planned.height()) / static_cast<double>(planned.width());
    CHECK(static_cast<double>(ink.width()) / ink.height() == Approx(wanted).epsilon(0.06));
}

TEST_CASE("grain is lines of its own colour, whatever was painted before it") {
    QImage image(200, 60, QImage::Format_RGB32);
    image.fill(Qt::white);
    QPainter p(&image);
    p.setBrush(Qt::magenta);
    paint_grain(p, image.rect(), Qt::black);
    p.end();
    int grey = 0;
    for (int y = 0; y < image.height(); ++y) {
        for (int x = 0; x < image.width(); ++x) {
            const QColor seen = image.pixelColor(x, y);
            REQUIRE(seen.red() == seen.green());
            REQUIRE(seen.green() == seen.blue());
            grey += seen != Qt::white ? 1 : 0;
        }
    }
    CHECK(grey > 500);
}

TEST_CASE("laid down the top is on the left, and letters are turned, not mirrored") {
    Job job = porch_board();
    lettering(job).words = "LI";  // L has its foot at the bottom right, as read
    lettering(job).sizing = Sizing::CapHeight;
    lettering(job).size = measure("4");
    Window w(job);
    w.show(Station::Lettering);
    const QImage image = picture(w);
    const QRect both = ink_box(image, QColor("#f7f4ec"), 60, 180);
    // Turned a quarter to the left: L comes first (left), its stem lies along the bottom edge of the board.
    const auto filled = [&](int x, int from, int to) {
        int n = 0;
        for (int y = from; y <= to; ++y) n += image.pixelColor(x, y) == QColor("#f7f4ec") ? 1 : 0;
        return n;
    };
    const int near_top_of_letter = both.left() + 2;
    const int lower = filled(near_top_of_letter, both.center().y() + 1, both.bottom());
    const int upper = filled(near_top_of_letter, both.top(), both.center().y());
    CHECK(lower > upper);
}

TEST_CASE("whole, close-up and laid down by button and by key") {
    Window w;
    w.show(Station::Lettering);
    Drawing& drawing = w.window().drawing();
    const QImage whole = picture(w);
    w.click("view: Close-up");
    CHECK(drawing.close_up());
    CHECK(difference(whole, picture(w)) > 0.05);
    drawing.setFocus();
    QTest::keyClick(&drawing, Qt::Key_0);
    w.settle();
    CHECK_FALSE(drawing.close_up());
    CHECK(difference(whole, picture(w)) < 0.01);
    QTest::keyClick(&drawing, Qt::Key_L);
    w.settle();
    CHECK_FALSE(drawing.laid_down());
    CHECK(difference(whole, picture(w)) > 0.02);
    QTest::keyClick(&drawing, Qt::Key_L);
    QTest::keyClick(&drawing, Qt::Key_1);
    w.settle();
    CHECK(drawing.close_up());
    w.click("view: Whole");
    CHECK_FALSE(drawing.close_up());
}

TEST_CASE("the wheel zooms about the pointer, a drag pans, and the strip leads anywhere") {
    Window w;
    w.show(Station::Lettering);
    Drawing& drawing = w.window().drawing();
    const QPointF at(300, 120);
    const auto wheel = [&](int notches) {
        QWheelEvent event(at, drawing.mapToGlobal(at), {}, {0, notches * 120}, Qt::NoButton, Qt::NoModifier,
                          Qt::NoScrollPhase, false);
        QApplication::sendEvent(&drawing, &event);
        w.settle();
    };
    wheel(3);
    CHECK(drawing.close_up());
    const QImage before = picture(w);
    QTest::mousePress(&drawing, Qt::MiddleButton, {}, {400, 220});
    QTest::mouseMove(&drawing, {300, 220});
    QTest::mouseRelease(&drawing, Qt::MiddleButton, {}, {300, 220});
    w.settle();
    CHECK(difference(before, picture(w)) > 0.01);
    QTest::mouseClick(&drawing, Qt::LeftButton, {}, {560, 100});
    w.settle();
    CHECK(difference(before, picture(w)) > 0.01);
    wheel(-40);
    CHECK(drawing.close_up());
}

TEST_CASE("a long board is shown whole and nearer at once, and is worked on in both") {
    Window w;
    w.show(Station::Lettering);
    Drawing& drawing = w.window().drawing();
    const QRectF near = drawing.closer_area();
    const Box face = w.desk().plan().colours.front().face->blank->face;
    const double whole_px = std::abs(drawing.where({0, face.high.y}).x() - drawing.where({0, 0}).x());
    const double near_px = std::abs(drawing.where_closer({0, face.high.y}).x() - drawing.where_closer({0, 0}).x());
    CHECK(near_px >= 1.5 * whole_px);
    CHECK(near_px / from_grid(face.height()).in_inches() >= 24);
    // In the room that is free: inside the drawing, under every callout, and most of that room.
    CHECK(QRectF(drawing.rect()).contains(near));
    for (QLineEdit* box : drawing.findChildren<QLineEdit*>()) {
        if (box->isVisible()) CHECK_FALSE(QRectF(box->geometry()).intersects(near));
    }
    CHECK(near.height() > drawing.height() / 4);
    // A click on the whole brings that place to the middle; the wheel comes closer to what is under the pointer.
    const Point foot{face.width() / 2, face.high.y / 4};
    QTest::mouseClick(&drawing, Qt::LeftButton, {}, drawing.where(foot).toPoint());
    w.settle();
    CHECK(std::abs(drawing.where_closer(foot).x() - near.center().x()) < 8);
    const QPointF at = drawing.where_closer(foot);
    QWheelEvent event(at, drawing.mapToGlobal(at), {}, {0, 240}, Qt::NoButton, Qt::NoModifier, Qt::NoScrollPhase,
                      false);
    QApplication::sendEvent(&drawing, &event);
    w.settle();
    CHECK_FALSE(drawing.close_up());
    CHECK(std::abs(drawing.where_closer(foot).x() - at.x()) < 3);
    CHECK(std::abs(drawing.where_closer({0, face.high.y}).x() - drawing.where_closer({0, 0}).x()) > 1.3 * near_px);
    // A free place is dragged along; lettering is dragged as in the whole.
    const Box zone = w.desk().plan().colours.front().face->blank->zones.back().bounds();
    const Point bare{(zone.low.x + zone.high.x) / 2, (zone.low.y + zone.high.y) / 2};
    QTest::mouseClick(&drawing, Qt::LeftButton, {}, drawing.where(bare).toPoint());
    w.settle();
    const QPointF held = drawing.where_closer(bare);
    REQUIRE(drawing.closer_area().contains(held));
    QTest::mousePress(&drawing, Qt::LeftButton, {}, held.toPoint());
    QTest::mouseMove(&drawing, (held + QPointF(60, 0)).toPoint());
    QTest::mouseRelease(&drawing, Qt::LeftButton, {}, (held + QPointF(60, 0)).toPoint());
    w.settle();
    CHECK(std::abs(drawing.where_closer(bare).x() - held.x() - 60) < 4);
    // The close-up alone, and what is close as it is, have none.
    w.click("view: Close-up");
    CHECK(drawing.closer_area().isEmpty());
    Window plaque(panel_job("Tea", "9", "4"));
    plaque.show(Station::Lettering);
    CHECK(plaque.window().drawing().closer_area().isEmpty());
}

TEST_CASE("pointing at a section lights up its twin on the mat and its row in the table") {
    Window w;
    w.show(Station::Sections);
    Drawing& drawing = w.window().drawing();
    QTest::mouseMove(&drawing, {2, 2});
    const QImage dark = picture(w);
    QTest::mouseMove(&drawing, {200, 115});  // on the board, in the first section
    w.settle();
    const QImage lit = picture(w);
    const auto changed_below = [&](int from, int to) {
        for (int y = from; y < to; ++y) {
            for (int x = 0; x < lit.width(); ++x) {
                if (lit.pixel(x, y) != dark.pixel(x, y)) return true;
            }
        }
        return false;
    };
    CHECK(changed_below(85, 145));   // the board
    CHECK(changed_below(210, 340));  // the load
    CHECK(changed_below(400, 520));  // the table
}

TEST_CASE("a dimension that follows opens the one that decides it") {
    Window w;
    w.show(Station::Blank);
    // "51 in for lettering" hangs on the clear zones.
    QTest::mouseClick(&w.window().drawing(), Qt::LeftButton, {}, {333, 166});
    w.settle();
    auto* focused = qobject_cast<Callout*>(QApplication::focusWidget());
    REQUIRE(focused != nullptr);
    CHECK(focused->does().contains("clear zone"));
}

TEST_CASE("a tiny plaque and a 10 ft board are both drawn whole") {
    for (const char* length : {"6", "120"}) {
        Job job = porch_board();
        job.signs.front().blank.length = measure(length);
        job.signs.front().blank.clear.clear();
        lettering(job).words = "TEA";
        lettering(job).letter_gap = measure("1/4");
        Window w(job);
        w.show(Station::Lettering);
        const QRect ink = ink_box(picture(w), QColor("#f7f4ec"), 60, w.window().drawing().height());
        INFO(length);
        CHECK(ink.left() > 10);
        CHECK(ink.right() < w.window().drawing().width() - 10);
    }
}

TEST_CASE("find goes to stations, commands and typefaces by typing") {
    Window w;
    const auto find = [&](const QString& text) {
        QTest::keyClick(&w.window(), Qt::Key_K, Qt::ControlModifier);
        QApplication::processEvents();
        auto* dialog = w.window().findChild<Find*>();
        REQUIRE(dialog != nullptr);
        auto* edit = dialog->findChild<QLineEdit*>();
        QTest::keyClicks(edit, text);
        QTest::keyClick(edit, Qt::Key_Return);
        w.settle();
        QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
    };
    find("clock");
    CHECK(w.window().station() == Station::Clock);
    find("kaushan");
    CHECK(w.sign().faces.front().lettering.main().typeface.family == "Kaushan Script");
    find("undo");
    CHECK(w.sign().faces.front().lettering.main().typeface.family == "League Spartan");
    find("night");
    CHECK(Theme::night());
    find("day");
    CHECK_FALSE(Theme::night());
}

TEST_CASE("a message can be closed") {
    Window w;
    Q_EMIT w.desk().said("The saw is sharp", false);
    w.settle();
    CHECK(w.read().contains("The saw is sharp"));
    w.click("close the message");
    CHECK_FALSE(w.read().contains("The saw is sharp"));
}

TEST_CASE("the job's name opens the rack, where the job is named and others hang") {
    Window w;
    std::ofstream(w.folder() / "other.skarvel") << write_job(long_board());
    std::ofstream(w.folder() / "torn.skarvel") << "{";
    QTest::mouseClick(w.window().findChild<QPushButton*>("job-title"), Qt::LeftButton);
    w.settle();
    w.type(*w.window().findChild<QLineEdit*>("job-name"), "Slipway board");
    CHECK(w.job().title == "Slipway board");
    CHECK(w.window().windowTitle().startsWith("Slipway board"));
    constexpr int long_enough = 60'000;  // ms: a job is planned first
    CHECK(QTest::qWaitFor([&] { return w.find<RackTicket>("Landing stage") != nullptr; }, long_enough));
    CHECK(w.find<RackTicket>("torn") != nullptr);  // hangs there, and says that it cannot be read
    (void)w.desk().save(w.desk().path());
    QTest::keyClick(&w.get<RackTicket>("Landing stage"), Qt::Key_Space);
    w.settle();
    CHECK(w.job().title == "Landing stage");
}

TEST_CASE("narrow windows fold the ticket, hide the tray behind a button, and fold the ribbon") {
    Window w;
    auto* ticket = w.window().findChild<Ticket*>();
    auto* ribbon = w.window().findChild<Ribbon*>();
    CHECK(ticket->width() > 200);
    CHECK(ribbon->height() == 64);
    w.window().resize(1100, 700);
    w.settle();
    // Folded it keeps the stations' names, not bare digits.
    CHECK(ticket->width() < 120);
    CHECK(ticket->width() > QFontMetrics(Theme::font(13, QFont::DemiBold)).horizontalAdvance("Lettering") + 8);
    CHECK(ribbon->height() == 28);
    CHECK(w.find<QLineEdit>("length") != nullptr);
    w.window().resize(960, 700);
    w.settle();
    CHECK(w.find<QLineEdit>("length") == nullptr);
    w.click("Tray");
    CHECK(w.find<QLineEdit>("length") != nullptr);
}

TEST_CASE("on a large screen text grows with the room, until a size is chosen") {
    Window w;
    w.window().set_look(false, 0);
    CHECK(Theme::text_percent() == 100);
    const auto sized = [&](int wide, int high) {
        w.window().resize(wide, high);
        w.settle();
        w.settle();  // once text has another size all is laid out again
        return Theme::text_percent();
    };
    CHECK(sized(1920, 1080) == 125);
    CHECK(sized(2560, 1440) == 150);
    CHECK(sized(1280, 800) == 100);
    check_layout(w);
    w.window().show_shop();
    w.settle();
    auto& size = w.get<Segmented>("size of text");
    QTest::mouseClick(size.button(2), Qt::LeftButton);
    CHECK(Theme::text_percent() == 125);
    CHECK(sized(2560, 1440) == 125);
    QTest::mouseClick(size.button(0), Qt::LeftButton);
    CHECK(Theme::text_percent() == 150);
}

TEST_CASE("clear zones are added, turned with the board, renamed and removed") {
    Window w;
    w.click("Add a clear zone");
    CHECK(w.sign().blank.clear.size() == 3);
    w.type(w.get<QLineEdit>("what clear zone 3 is for"), "hook");
    CHECK(w.sign().blank.clear[2].name == "hook");
    w.click("it will be read: level");
    CHECK(w.sign().blank.clear[0].edge == Edge::Left);
    CHECK(w.sign().blank.clear[1].edge == Edge::Right);
    w.click("it will be read: upright");
    CHECK(w.sign().blank.clear[0].edge == Edge::Top);
    w.click("remove clear zone 3");
    CHECK(w.sign().blank.clear.size() == 2);
    for (int i = 0; i < 5; ++i) w.desk().undo();
    CHECK(w.job() == porch_board());
}

TEST_CASE("a stock size and a measured width are two ways to say how wide it is") {
    Window w;
    auto& stock = w.get<QComboBox>("stock size");
    const auto pick = [&](const QString& data) {
        stock.setCurrentIndex(stock.findData(data));
        Q_EMIT stock.activated(stock.currentIndex());
        w.settle();
    };
    pick("1x10");
    CHECK(w.desk().plan().colours.front().face->blank->width == 9.25_in);
    pick("");
    CHECK(w.desk().plan().colours.front().face->blank->width == 9.25_in);  // what it was, now as measured
    CHECK(w.sign().blank.width);
    pick("1x8");
    CHECK(w.desk().plan().colours.front().face->blank->width == 7.25_in);
    CHECK_FALSE(w.sign().blank.width);
    w.type(w.get<QLineEdit>("width, as the tape says"), "8");
    CHECK(w.read().contains("is 8 in what the tape says?"));
}

TEST_CASE("drawing: the other button offers what can be done there, and takes in hand what lies there") {
    Window w;
    w.show(Station::Lettering);
    Drawing& drawing = w.window().drawing();
    QStringList offered;
    const auto open = [&](const QPoint& at, const QString& choose) {
        offered.clear();
        QTimer::singleShot(0, &drawing, [&] {
            auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
            if (menu == nullptr) return;
            QAction* chosen = nullptr;
            for (QAction* a : menu->actions()) {
                if (!a->text().isEmpty()) offered << a->text();
                if (a->text() == choose) chosen = a;
            }
            if (chosen != nullptr) chosen->trigger();
            menu->close();
        });
        QContextMenuEvent event(QContextMenuEvent::Mouse, at, drawing.mapToGlobal(at));
        QApplication::sendEvent(&drawing, &event);
        w.settle();
    };
    const ColourPlan* plan = w.desk().face_plan();
    const Box letter = plan->cut.pieces->front().shape.bounds();
    const QPoint on_letter =
        drawing.where({(letter.low.x + letter.high.x) / 2, letter.low.y + (letter.high.y - letter.low.y) / 8})
            .toPoint();
    open(on_letter, "locked in place");
    CHECK(offered.contains("Measure"));
    CHECK(offered.contains("Back where it stands by itself"));
    CHECK(w.sign().faces.front().lettering.main().locked);
    w.desk().undo();
    w.settle();
    CHECK_FALSE(w.sign().faces.front().lettering.main().locked);
    open({4, drawing.height() - 4}, "Measure");  // beside the board
    CHECK_FALSE(offered.contains("Back where it stands by itself"));
    CHECK(drawing.measuring());
    QTest::keyClick(&drawing, Qt::Key_Escape);
    CHECK_FALSE(drawing.measuring());
}

TEST_CASE("drawing: every mark says what it is when it is pointed at") {
    Job job = porch_board();
    job.signs.front().blank.holding.way = Holds::Hung;
    PaintedField band;
    band.middle = measure("30");
    band.depth = measure("1");
    band.colour_name = "barn red";
    job.signs.front().blank.fields = {band};
    Window w(job);
    auto& drawing = w.get<Drawing>("drawing");
    const auto told = [&] {
        QSet<QString> all;
        for (int y = 4; y < drawing.height(); y += 3) {
            for (int x = 4; x < drawing.width(); x += 3) {
                const QString words = drawing.mark_told(QPointF(x, y));
                if (!words.isEmpty()) all.insert(words);
            }
        }
        return QStringList(all.begin(), all.end()).join("\n");
    };
    w.show(Station::Blank);
    QString all = told();
    CHECK(all.contains("centre of gravity of the whole"));
    CHECK(all.contains("from the left"));
    CHECK(all.contains("kept free: rope"));
    CHECK(all.contains("painted band 1, 1 in deep, barn red"));
    w.show(Station::Sections);
    all = told();
    CHECK(all.contains("keeper, "));
    CHECK(all.contains("match mark"));
    CHECK_FALSE(all.contains("centre of gravity"));
}
