// The build-up: layers picked, put in, moved and taken out in the cut and in the tray, by mouse and by keyboard;
// remedies taken there and undone.
#include <QComboBox>
#include <QLineEdit>
#include <QPushButton>
#include <QSpinBox>
#include <QTest>

#include "stations/views.h"
#include "support_window.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

struct Method {
    Window w;
    MethodView* cut = nullptr;
    explicit Method(const Job& job = porch_board()) : w(job) {
        w.show(Station::Method);
        cut = w.window().findChild<MethodView*>("build-up");
    }
    std::vector<std::string> ids() {
        std::vector<std::string> all;
        for (const Layer& l : w.desk().layers()) all.push_back(l.id.name);
        return all;
    }
    void press(const QRectF& where) {
        QTest::mouseClick(cut, Qt::LeftButton, {}, where.center().toPoint());
        w.settle();
    }
    void key(int key, Qt::KeyboardModifiers with = {}) {
        QTest::keyClick(cut, static_cast<Qt::Key>(key), with);
        w.settle();
    }
    // A layer by its words in the list that puts one in.
    void put_in_above(const QString& words) {
        auto& kind = w.get<QComboBox>("another layer");
        QTest::keyClick(&kind, Qt::Key_Home);
        for (int i = 0; i < kind.count() && kind.currentText() != words; ++i) QTest::keyClick(&kind, Qt::Key_Down);
        CHECK(kind.currentText() == words);
        w.click("Put it in above");
        w.settle();
    }
};

}  // namespace

TEST_CASE("method: a weathered sign is built at the keyboard, from bare to sealed, and undone") {
    Method m;
    const Job before = m.w.job();
    for (int i = 0; i < 6; ++i) m.key(Qt::Key_Down);
    CHECK(m.w.desk().layer_at() == sanding);
    m.put_in_above("gel stain, water-based");
    CHECK(m.ids().size() == 5);
    CHECK(m.w.desk().layer_at().name == m.ids()[1]);
    CHECK(m.w.read().contains("wiped back after"));
    m.key(Qt::Key_Up);
    CHECK(m.w.desk().layer_at() == ground_coat);
    m.put_in_above("dry-brushing");
    m.key(Qt::Key_Up);
    m.put_in_above("rub through");
    const std::string rubbed = m.w.desk().layer_at().name;
    const auto built = m.ids();
    CHECK(built.size() == 7);
    CHECK(built[5] == rubbed);
    // Past the clear coat and back again; lettering cannot be taken out, what was put in can.
    m.key(Qt::Key_Up, Qt::AltModifier);
    CHECK(m.ids()[6] == rubbed);
    m.key(Qt::Key_Down, Qt::AltModifier);
    CHECK(m.ids() == built);
    m.key(Qt::Key_Down);
    m.key(Qt::Key_Delete);
    CHECK(m.ids() == built);
    m.key(Qt::Key_Up);
    m.key(Qt::Key_Delete);
    CHECK(m.ids().size() == 6);
    CHECK(m.w.desk().plan().mark_of(Station::Method) != Mark::Stop);
    while (m.w.desk().can_undo()) QTest::keyClick(&m.w.window(), Qt::Key_Z, Qt::ControlModifier);
    CHECK(m.w.job() == before);
}

TEST_CASE("method: a layer is dragged past its neighbours in the cut, and one undo brings it back") {
    Method m;
    const std::vector<std::string> before = m.ids();
    REQUIRE(before.size() > 3);
    const auto spot = [&](const std::string& layer) {
        for (const auto& s : m.cut->spots()) {
            if (s.layer.name == layer && !s.remedy) return s.where.center().toPoint();
        }
        FAIL("no layer " << layer);
        return QPoint();
    };
    const QPoint from = spot(before.front()), to = spot(before.back());
    QTest::mousePress(m.cut, Qt::LeftButton, {}, from);
    QTest::mouseMove(m.cut, (from + to) / 2);
    QTest::mouseMove(m.cut, to);
    QTest::mouseRelease(m.cut, Qt::LeftButton, {}, to);
    m.w.settle();
    CHECK(m.ids().back() == before.front());
    m.w.desk().undo();
    m.w.settle();
    CHECK(m.ids() == before);
    // A press that hardly moves is a press.
    QTest::mousePress(m.cut, Qt::LeftButton, {}, from);
    QTest::mouseMove(m.cut, from + QPoint(0, 4));
    QTest::mouseRelease(m.cut, Qt::LeftButton, {}, from + QPoint(0, 4));
    m.w.settle();
    CHECK(m.ids() == before);
}

TEST_CASE("method: what was found is mended where it is shown, and the tray offers the same") {
    Job job = porch_board();
    job.signs.front().blank.material = "acrylic";
    Method m(job);
    CHECK(m.w.desk().plan().mark_of(Station::Method) == Mark::Stop);
    const auto spot = [&](const QString& words) {
        for (const MethodView::Spot& s : m.cut->spots()) {
            if (s.remedy && s.says.startsWith(words)) return s.where;
        }
        FAIL("no remedy " << words.toStdString());
        return QRectF();
    };
    CHECK(m.w.find<QPushButton>("Wipe it first  + 5 min") != nullptr);
    m.press(spot("Leave the sanding out"));
    CHECK(m.w.desk().plan().mark_of(Station::Method) == Mark::Look);
    m.press(spot("Wipe it first"));
    CHECK(m.ids().front() == "wipe");
    CHECK(m.w.desk().plan().mark_of(Station::Method) == Mark::None);
    m.w.desk().undo();
    m.w.desk().undo();
    m.w.settle();
    CHECK(m.w.job() == job);
    // The maker's last word is there as well: the rule is told, and stops nothing.
    for (const MethodView::Spot& s : std::vector(m.cut->spots())) {
        if (s.overrules == "sheet-sanded") m.press(s.where);
    }
    CHECK(m.w.desk().plan().mark_of(Station::Method) != Mark::Stop);
    m.w.desk().undo();
    m.w.settle();
    CHECK(m.w.job() == job);
    // A layer is picked by pressing it; its own fields come into the tray.
    for (const MethodView::Spot& s : std::vector(m.cut->spots())) {
        if (s.layer == clear_coat) m.press(s.where);
    }
    CHECK(m.w.desk().layer_at() == clear_coat);
    m.w.get<QSpinBox>("coats of what it is made of").setValue(4);
    m.w.settle();
    CHECK(layer_of(job = m.w.job(), clear_coat).coat.coats == 4);
}

TEST_CASE("method: a rule is looked up, overruled with a note for this job, then in the shop, and holds again") {
    Job job = porch_board();
    making(job).film = "permanent-gloss";
    Method m(job);
    CHECK(m.w.desk().plan().mark_of(Station::Method) == Mark::Stop);
    m.w.click("group Rules of the trade");
    CHECK(m.w.read().contains("rules. Type a word to look through them"));
    auto& sought = m.w.get<QLineEdit>("look for rules");
    QTest::keyClicks(&sought, "permanent film as a mask");
    m.w.settle();
    CHECK(m.w.read().contains("wrong: permanent film as a mask pulls the coat off"));
    m.w.click("overrule permanent-mask-on-paint");
    CHECK(m.w.desk().plan().mark_of(Station::Method) != Mark::Stop);
    m.w.type(m.w.get<QLineEdit>("note on permanent-mask-on-paint"), "held for three years");
    m.w.settle();
    REQUIRE(m.w.job().overruled.size() == 1);
    CHECK(m.w.job().overruled.front().note == "held for three years");
    m.w.click("hold permanent-mask-on-paint");
    CHECK(m.w.job().overruled.empty());
    CHECK(m.w.desk().plan().mark_of(Station::Method) == Mark::Stop);
    m.w.click("overrule permanent-mask-on-paint in the shop");
    CHECK(m.w.desk().shop().overruled.size() == 1);
    CHECK(m.w.job().overruled.empty());
    CHECK(m.w.desk().plan().mark_of(Station::Method) != Mark::Stop);
    QTest::keyClick(&sought, Qt::Key_A, Qt::ControlModifier);
    QTest::keyClicks(&sought, "no such thing");
    m.w.settle();
    CHECK(m.w.read().contains("permanent film as a mask"));  // what is overruled stays in sight
}

TEST_CASE("method: both ways stand side by side, and the other one is taken by a click") {
    Method m;
    m.w.click("group Decal or paint-through");
    m.w.click("compare both ways");
    for (int i = 0; i < 200 && m.w.find<QPushButton>("take the other way") == nullptr; ++i) QTest::qWait(20);
    const QString told = m.w.read();
    for (const char* words : {"no paint to bleed", "Suggested:", "crisp and even", "part of the wood"})
        CHECK(told.contains(words));
    m.w.click("take the other way");
    CHECK(m.w.sign().faces.front().colours.front().making.way == Way::Decal);
    CHECK(m.w.find<QPushButton>("take the other way") == nullptr);  // what was found held for the job as it was
    m.w.desk().undo();
    m.w.settle();
    CHECK(m.w.sign().faces.front().colours.front().making.way == Way::PaintThrough);
}

TEST_CASE("method: the tray changes the layer at hand, says since when it is there, and moves it") {
    Method m;
    m.w.choose("The layer at hand", 2);  // clear, lettering, ground, sanding: from the top
    CHECK(m.w.desk().layer_at() == ground_coat);
    auto& tin = m.w.get<QComboBox>("what it is made of");
    QTest::keyClick(&tin, Qt::Key_End);
    m.w.settle();
    const auto ground = [&] {
        Job job = m.w.job();
        return layer_of(job, ground_coat);
    };
    CHECK(ground().coat.coat == tin.currentData().toString().toStdString());
    CHECK(ground().by_hand);
    m.w.choose("put on with", 1);
    CHECK(ground().how == PutOn::Roller);
    m.w.choose("where", 1);
    CHECK(ground().on == On::Edges);
    m.w.choose("where", 0);
    m.w.get<QSpinBox>("wiped back after").setValue(7);
    m.w.settle();
    CHECK(ground().wiped_after == 7);
    m.w.click("it is there already");
    CHECK(ground().done == m.w.desk().now());
    m.w.click("Earlier");
    CHECK(m.ids().front() == ground_coat.name);
    m.w.click("Later");
    m.w.click("Take out");
    CHECK(m.ids().size() == 3);
    m.w.click("Suggest the rest again");
    CHECK(m.ids().size() == 3);  // what was taken out is not suggested again
    m.w.choose("where it will be", 4);
    CHECK(m.w.sign().faces.front().finish.place == Place::Floor);
    CHECK(m.w.read().contains("underfoot"));
}
