// Seams and pieces on the drawing of Sections, by mouse and by keyboard; what the tray says of them; looking at another
// way to cut; test cuts and film booked.
#include <QCheckBox>
#include <QProcess>
#include <QPushButton>
#include <QSpinBox>
#include <QTest>

#include "drawing/drawing.h"
#include "job/wish_commands.h"
#include "support_window.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

struct Bench {
    Window w;
    Drawing* drawing = nullptr;
    explicit Bench(const Job& job = porch_board()) : w(job) {
        w.show(Station::Sections);
        drawing = w.window().findChild<Drawing*>();
    }
    [[nodiscard]] const LoadsPlan& loads() { return *w.desk().face_plan()->cut.loads; }
    QPoint on_seam(std::size_t i, std::int64_t by = 0) {
        const Seam& s = loads().seams.at(i);
        const std::int64_t middle = (s.from + s.to) / 2;
        return drawing->where(s.axis == Axis::Y ? Point{middle, s.where + by} : Point{s.where + by, middle}).toPoint();
    }
    QPoint on_piece(const std::string& letters) {
        for (const Piece& p : *w.desk().face_plan()->cut.pieces) {
            if (p.letters != letters) continue;
            // Ink near its middle.
            const Box b = p.shape.bounds();
            const Point middle{(b.low.x + b.high.x) / 2, (b.low.y + b.high.y) / 2};
            for (std::int64_t off = 0; off < b.width() / 2; off += b.width() / 40) {
                for (const Point at : {Point{middle.x + off, middle.y}, Point{middle.x, middle.y + off}}) {
                    if (touch(p.shape, Region::rectangle({at, {at.x + 8, at.y + 8}})))
                        return drawing->where(at).toPoint();
                }
            }
        }
        throw std::runtime_error("no piece " + letters);
    }
    void drag(QPoint from, QPoint to) {
        QTest::mousePress(drawing, Qt::LeftButton, {}, from);
        QTest::mouseMove(drawing, (from + to) / 2);
        QTest::mouseMove(drawing, to);
        QTest::mouseRelease(drawing, Qt::LeftButton, {}, to);
        w.settle();
    }
};

}  // namespace

TEST_CASE("a seam is dragged with the mouse, its cost is told, and undo puts it back") {
    Bench b;
    const Job before = b.w.job();
    const Length was = place_of(*b.w.desk().face_plan(), b.loads().seams.front());
    b.drag(b.on_seam(0), b.on_seam(0, -to_grid(3_in)));
    REQUIRE(b.w.job() != before);
    const Wishes& wishes = wishes_of(b.w.job(), {});
    REQUIRE(wishes.seams.size() == 1);
    CHECK(was - wishes.seams.front().at.value > 2.5_in);
    CHECK(b.w.read().contains("What your wishes cost"));
    CHECK(b.loads().crossings == 1);
    CHECK(b.w.read().contains("of ink crossed"));
    check_layout(b.w);
    // The seam is at hand: its place can be typed, and arrow keys move it on.
    b.w.type(b.w.get<QLineEdit>("seam"), "28");
    CHECK(wishes_of(b.w.job(), {}).seams.front().at.value == 28_in);
    b.drawing->setFocus();
    QTest::keyClick(b.drawing, Qt::Key_Left);  // laid down, the top is to the left
    b.w.settle();
    CHECK(wishes_of(b.w.job(), {}).seams.front().at.value == 28.0625_in);
    b.w.click("everything as found");
    CHECK_FALSE(wishes_of(b.w.job(), {}).any());
    for (int i = 0; i < 4; ++i) QTest::keyClick(&b.w.window(), Qt::Key_Z, Qt::ControlModifier);
    b.w.settle();
    CHECK(b.w.job() == before);
}

TEST_CASE("a seam that is not wanted goes, and letters are bound and set apart") {
    Bench b;
    const std::int64_t was = b.loads().seams.front().where;
    QTest::mouseClick(b.drawing, Qt::LeftButton, {}, b.on_seam(0));
    b.w.settle();
    CHECK(b.w.read().contains("Seam a, from the bottom"));
    QTest::keyClick(b.drawing, Qt::Key_Delete);
    b.w.settle();
    for (const Seam& s : b.loads().seams) CHECK(std::abs(s.where - was) > to_grid(0.25_in));
    b.w.click("wish 1");
    CHECK_FALSE(wishes_of(b.w.job(), {}).any());
    QTest::mouseClick(b.drawing, Qt::LeftButton, {}, b.on_piece("T"));
    QTest::mouseClick(b.drawing, Qt::LeftButton, Qt::ShiftModifier, b.on_piece("H"));
    b.w.settle();
    CHECK(b.w.read().contains("Picked: T, H"));
    for (auto* button : b.w.window().findChildren<QPushButton*>()) {
        if (button->isVisible() && button->text() == "Cut these as one") QTest::mouseClick(button, Qt::LeftButton);
    }
    b.w.settle();
    REQUIRE(wishes_of(b.w.job(), {}).bound.size() == 1);
    CHECK(b.w.read().contains("As one: "));
    const bool together = std::any_of(b.loads().sections.begin(), b.loads().sections.end(),
                                      [](const Section& s) { return s.letters.find("TH") != std::string::npos; });
    CHECK(together);
    QTest::keyClick(b.drawing, Qt::Key_Escape);
    b.w.settle();
    CHECK_FALSE(b.w.read().contains("Picked:"));
    check_layout(b.w);
}

TEST_CASE("another way to cut is looked at by pointing, without changing the job") {
    Bench b;
    b.w.click("group Other ways to cut it");
    b.w.click("look for other ways");
    auto& seek = b.w.get<QPushButton>("look for other ways");
    REQUIRE(QTest::qWaitFor([&] { return seek.text().startsWith("Look for"); }, 60'000));
    b.w.settle();
    auto& first = b.w.get<QPushButton>("alternative 1");
    const Job before = b.w.job();
    const QImage as_it_is = b.drawing->grab().toImage();
    QEvent enter(QEvent::Enter);
    QApplication::sendEvent(&first, &enter);
    CHECK(b.w.desk().looked_at() != nullptr);
    CHECK(b.drawing->grab().toImage() != as_it_is);
    CHECK(b.w.job() == before);
    QEvent leave(QEvent::Leave);
    QApplication::sendEvent(&first, &leave);
    CHECK(b.drawing->grab().toImage() == as_it_is);
}

TEST_CASE("a test cut fills the logbook and sets the machine's force, and cut film is booked") {
    QProcess cutter;
    cutter.start(SKARVEL_CUTTER, {"--across", "300", "--along", "610", "--faster", "100000"});
    REQUIRE(cutter.waitForReadyRead(10'000));
    const QString port = QString::fromUtf8(cutter.readLine()).trimmed().section(' ', -1);
    Bench b;
    Shop shop = b.w.desk().shop();
    shop.drawer = {{"removable-matt", "", "roll", 12_in, 60_in, true, false, 0}};
    b.w.desk().set_shop(shop);
    b.w.settle();
    b.w.click("group Send to the cutter");
    for (const char* check : {"the right blade is in", "rollers where they belong", "film side up, paper side down"})
        QTest::mouseClick(&b.w.get<QCheckBox>(check), Qt::LeftButton, {}, QPoint(8, 8));
    b.w.type(b.w.get<QLineEdit>("address"), "127.0.0.1:" + port);
    auto& outcome = b.w.get<QLabel>("outcome");
    const auto test_with = [&](int force, const QString& says) {
        b.w.get<QSpinBox>("force").setValue(force);
        b.w.click("test cut");
        const bool said = QTest::qWaitFor([&] { return outcome.text().contains(says); }, 60'000);
        b.w.settle();
        return said;
    };
    CHECK(test_with(40, "Not through"));
    CHECK(test_with(80, "A good cut"));
    CHECK(b.w.desk().shop().machines.front().force == 80);
    REQUIRE(b.w.desk().cuts().size() == 2);
    CHECK(b.w.desk().cuts().front().outcome == "good");
    CHECK(b.w.job().bench.cut.empty());
    b.w.show(Station::Logbook);
    CHECK(b.w.read().contains("What went to a cutter"));
    CHECK(b.w.read().contains("80 g"));
    b.w.show(Station::Sections);
    b.w.click("send");
    REQUIRE(QTest::qWaitFor([&] { return !b.w.job().bench.cut.empty(); }, 60'000));
    b.w.settle();
    const Length left = 60_in - b.w.job().bench.cut.front().film_length;
    b.w.click("book 1");
    CHECK(b.w.desk().shop().drawer.front().left == left);
    CHECK(b.w.find<QPushButton>("book 1") == nullptr);
    cutter.kill();
    cutter.waitForFinished();
}

TEST_CASE("a free place on the face is clicked, and a seam wanted or ruled out there") {
    Bench b;
    const ColourPlan& face = *b.w.desk().face_plan();
    const Box first = face.cut.pieces->at(0).shape.bounds();
    const Box second = face.cut.pieces->at(1).shape.bounds();
    const QPoint gap =
        b.drawing->where({face.face->blank->face.low.x + 80'000, (first.low.y + second.high.y) / 2}).toPoint();
    QTest::mouseClick(b.drawing, Qt::LeftButton, {}, gap);
    b.w.settle();
    const auto button = [&](const QString& text) {
        for (auto* made : b.w.window().findChildren<QPushButton*>()) {
            if (made->isVisible() && made->text() == text) return made;
        }
        return static_cast<QPushButton*>(nullptr);
    };
    REQUIRE(button("A level seam here") != nullptr);
    const std::size_t sections = b.loads().sections.size();
    QTest::mouseClick(button("A level seam here"), Qt::LeftButton);
    b.w.settle();
    CHECK(b.loads().sections.size() > sections);
    CHECK(b.w.job().signs[0].faces[0].colours[0].making.wishes.seams.size() == 1);
    // Picked anew, since the seam now lies there; beside the ink the other wish is offered too.
    QTest::keyClick(b.drawing, Qt::Key_Escape);
    QTest::mouseClick(
        b.drawing, Qt::LeftButton, {},
        b.drawing->where({face.face->blank->face.low.x + 80'000, face.face->blank->face.low.y + 80'000}).toPoint());
    b.w.settle();
    REQUIRE(button("No level seam here") != nullptr);
    QTest::mouseClick(button("No level seam here"), Qt::LeftButton);
    b.w.settle();
    CHECK(b.w.job().signs[0].faces[0].colours[0].making.wishes.seams.back().never);
}

TEST_CASE("a letter of a decal that is cut and spoilt is clicked, and cut again alone") {
    Job job = long_board();
    const Plan drawn = plan_of(job);
    Bench b(tick(job, drawn, StepId{"1/cut/" + drawn.colours.front().cut.loads->loads.front().name},
                 moment("2026-05-04T19:00")));
    const std::size_t sections = b.loads().sections.size();
    const Piece letter = b.w.job().bench.cut.front().sections.front().pieces[1];
    const Box box = letter.shape.bounds();
    std::optional<QPoint> on_it;
    for (std::int64_t y = box.low.y; y < box.high.y && !on_it; y += box.height() / 30) {
        for (std::int64_t x = box.low.x; x < box.high.x && !on_it; x += box.width() / 30) {
            if (intersect(letter.shape, Region::rectangle({{x - 4000, y - 4000}, {x + 4000, y + 4000}})).area_mm2() >
                0.99)
                on_it = b.drawing->where({x, y}).toPoint();
        }
    }
    REQUIRE(on_it);
    QTest::mouseClick(b.drawing, Qt::LeftButton, {}, *on_it);
    b.w.settle();
    CHECK(b.w.read().contains("Picked: " + QString::fromStdString(letter.letters)));
    b.w.click("spoilt letter");
    REQUIRE(b.w.job().bench.spoilt.size() == 1);
    CHECK(b.w.job().bench.spoilt.front().sections.front().letters == letter.letters);
    CHECK(b.loads().sections.size() == sections + 1);
    CHECK(b.w.read().contains("film spoilt"));
    check_layout(b.w);
}

TEST_CASE("a letter larger than the mat is told at the top of the tray, and a click shows what would help") {
    Job job = panel_job("EGGS", "40", "20");
    making(job).bed = "narrow cutter / 4 1/2 × 12";
    Bench b(job);
    auto& pinned = b.w.get<QAbstractButton>("pinned");
    CHECK(pinned.text().contains("E, G, S: larger than one load holds"));
    CHECK(pinned.text().contains("load"));
    const auto in_sight = [&] {
        for (QLabel* l : b.w.window().findChildren<QLabel*>()) {
            if (l->text().endsWith("keeps it whole")) return !l->visibleRegion().isEmpty();
        }
        return false;
    };
    CHECK_FALSE(in_sight());
    QTest::mouseClick(&pinned, Qt::LeftButton);
    b.w.settle();
    CHECK(in_sight());
    CHECK_FALSE(pinned.visibleRegion().isEmpty());
    // The bed that is named does it.
    b.w.choose("cut on", b.w.get<QComboBox>("cut on").findText("16-inch cutter, roll"));
    CHECK_FALSE(b.w.read().contains("larger than one load holds"));
    CHECK_FALSE(pinned.text().contains("larger than one load holds"));
    CHECK(b.loads().crossings == 0);
}

TEST_CASE("signs that are alike lay one another's masks at a tick, and each says whose they are") {
    Job job = porch_board();
    for (const char* words : {"BOATHOUSE", "TEA ROOM"}) job = copy_sign(job, job.signs.size() - 1, words);
    Window w(job);
    w.show(Station::Sections);
    const QString again = "lay masks of a sign before again";
    CHECK(w.find<QCheckBox>(again) == nullptr);  // nothing lies before the first
    w.desk().select(1);
    w.settle();
    w.click(again);
    CHECK(w.job().signs[1].faces[0].colours[0].making.wishes.masks_again);
    CHECK(w.read().contains("3 masks of BOATHOUSE"));
    CHECK(w.get<QAbstractButton>("station-3").accessibleName().contains("masks of another sign, laid again"));
    w.desk().select(2);
    w.settle();
    CHECK(w.find<QCheckBox>(again) == nullptr);  // other words
    w.desk().select(1);
    w.settle();
    w.click("everything as found");
    CHECK_FALSE(w.read().contains("masks of BOATHOUSE"));
}
