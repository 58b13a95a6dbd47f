// Sections in the window: other ways to cut, the proof, and sending a load to the stand-in.
#include <QCheckBox>
#include <QComboBox>
#include <QProcess>
#include <QPushButton>
#include <QTest>

#include "support_window.h"

using namespace skarvel;
using namespace skarvel::testing;

TEST_CASE("other ways to cut are looked for beside the window, taken by a click and undone") {
    Window w;
    w.show(Station::Sections);
    w.click("group Other ways to cut it");
    w.click("look for other ways");
    auto& seek = w.get<QPushButton>("look for other ways");
    // It says how many it has, and is stopped by the same button.
    CHECK(seek.text().startsWith("Looking"));
    QTest::mouseClick(&seek, Qt::LeftButton);
    CHECK(seek.text().startsWith("Look for"));
    QTest::mouseClick(&seek, Qt::LeftButton);
    CHECK(seek.text().startsWith("Looking"));
    REQUIRE(QTest::qWaitFor([&] { return seek.text().startsWith("Look for"); }, 60'000));
    w.settle();
    REQUIRE(w.find<QPushButton>("alternative 1") != nullptr);
    CHECK(w.read().contains("As drawn: 3 sections, 2 loads"));
    const Job before = w.job();
    w.click("alternative 1");
    CHECK(w.job() != before);
    CHECK(w.find<QPushButton>("alternative 1") == nullptr);  // of another job
    QTest::keyClick(&w.window(), Qt::Key_Z, Qt::ControlModifier);
    w.settle();
    CHECK(w.job() == before);
    check_layout(w);
}

TEST_CASE("the files are read back and laid, and the tray says how it comes out") {
    Window w;
    w.show(Station::Sections);
    w.click("group Does it go together");
    w.click("prove");
    auto& prove = w.get<QPushButton>("prove");
    REQUIRE(QTest::qWaitFor([&] { return prove.isEnabled(); }, 60'000));
    w.settle();
    CHECK(w.read().contains("SVG, as cut: no edge farther off than 0 mm"));
    CHECK(w.read().contains("HPGL, as cut: no edge farther off than 0.0"));
    CHECK(w.read().contains("By hand, HOUS | BOAT"));
    // What is told of each seam stands below the board, by its flag, and not on the letters.
    const QImage drawn = w.window().drawing().grab().toImage();
    const auto seen = [&](const QColor& colour, int y) {
        for (int x = 0; x < drawn.width(); ++x) {
            if (drawn.pixelColor(x, y) == colour) return true;
        }
        return false;
    };
    int top = 0, bottom = 0;  // of the letters on the board, which is above the loads
    for (int y = 0; y < 180; ++y) {
        if (!seen(QColor("#f7f4ec"), y)) continue;
        top = top == 0 ? y : top;
        bottom = y;
    }
    REQUIRE(bottom > top);
    bool told = false;
    for (int y = top; y <= bottom + 46; ++y) {
        if (!seen(Theme::tokens().moss, y)) continue;
        CHECK(y > bottom);
        told = true;
    }
    CHECK(told);
    check_layout(w);
}

TEST_CASE("a mask is cut from the roll, with ties, and the drawing follows") {
    Window w;
    w.show(Station::Sections);
    auto& bed = w.get<QComboBox>("cut on");
    const int roll = bed.findText("12-inch cutter, roll");
    REQUIRE(roll > 0);
    bed.setCurrentIndex(roll);
    Q_EMIT bed.activated(roll);
    w.settle();
    CHECK(w.desk().face_plan()->cut.bed.roll);
    CHECK(w.desk().face_plan()->cut.loads->loads.size() == 1);
    w.type(w.get<QLineEdit>("ties"), "1/8");
    CHECK(w.desk().face_plan()->cut.loads->keepers == 0);
    CHECK(w.read().contains("ties"));
    check_layout(w);
}

TEST_CASE("a load is sent after the checks, its progress seen, and its step ticked") {
    QProcess cutter;
    cutter.start(SKARVEL_CUTTER, {"--across", "300", "--along", "610", "--faster", "100000"});
    REQUIRE(cutter.waitForReadyRead(10'000));
    const QString port = QString::fromUtf8(cutter.readLine()).trimmed().section(' ', -1);
    Window w;
    w.show(Station::Sections);
    w.click("group Send to the cutter");
    auto& send = w.get<QPushButton>("send");
    CHECK_FALSE(send.isEnabled());
    for (const char* check : {"the right blade is in", "rollers where they belong", "film side up, paper side down"})
        QTest::mouseClick(&w.get<QCheckBox>(check), Qt::LeftButton, {}, QPoint(8, 8));
    REQUIRE(send.isEnabled());
    w.type(w.get<QLineEdit>("address"), "127.0.0.1");
    w.click("send");
    CHECK(w.get<QLabel>("outcome").text().contains("An address is"));
    w.type(w.get<QLineEdit>("address"), "127.0.0.1:" + port);
    w.click("send");
    REQUIRE(QTest::qWaitFor([&] { return !w.job().bench.cut.empty(); }, 60'000));
    w.settle();
    CHECK(w.get<QLabel>("outcome").text().contains("no further"));
    CHECK(w.job().bench.ticks.contains(StepId{"1/cut/BOAT+HOUS"}));
    cutter.kill();
    cutter.waitForFinished();
}

TEST_CASE("machines and film are changed on the shop's page, and the loads follow") {
    Window w;
    QTest::keyClick(&w.window(), Qt::Key_0, Qt::ControlModifier);
    w.settle();
    const auto machines = w.desk().shop().machines.size();
    w.type(w.get<QLineEdit>("bed 1 of machine 1 cuts along"), "14");
    CHECK(w.desk().shop().machines.front().beds.front().usable.along == 14_in);
    CHECK(w.desk().face_plan()->cut.bed.usable.along == 14_in);
    CHECK(w.desk().face_plan()->cut.loads->sections.size() > 3);
    for (auto* b : w.window().findChildren<QPushButton*>()) {
        if (b->isVisible() && b->text() == "Add film") QTest::mouseClick(b, Qt::LeftButton);
    }
    w.settle();
    REQUIRE(w.desk().shop().drawer.size() == 1);
    w.type(w.get<QLineEdit>("name of film 1"), "odd bit");
    CHECK(w.desk().shop().drawer.front().name == "odd bit");
    for (auto* b : w.window().findChildren<QPushButton*>()) {
        if (b->isVisible() && b->text() == "Add a machine") QTest::mouseClick(b, Qt::LeftButton);
    }
    w.settle();
    CHECK(w.desk().shop().machines.size() == machines + 1);
    // Kept for the next start.
    const auto kept = read_shop(read_file(w.folder() / "shop.json").value());
    REQUIRE(kept);
    CHECK(*kept == w.desk().shop());
}
