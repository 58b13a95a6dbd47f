// Blank in the real window: every kind by keyboard alone, typed dimensions, several signs.
#include <QComboBox>
#include <QPlainTextEdit>
#include <QSpinBox>

#include "support_window.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

// Chooses by keyboard: the arrow keys until the entry shows.
void pick(Window& w, const QString& field, const QString& entry) {
    auto& choice = w.get<QComboBox>(field);
    choice.setFocus();
    QTest::keyClick(&choice, Qt::Key_Home);
    for (int i = 0; i < choice.count() && choice.currentText() != entry; ++i) QTest::keyClick(&choice, Qt::Key_Down);
    w.settle();
    REQUIRE(w.get<QComboBox>(field).currentText() == entry);
}

void open(Window& w, const QString& group) {
    auto& head = w.get<QPushButton>(group);
    head.setFocus();
    QTest::keyClick(&head, Qt::Key_Space);
    w.settle();
}

void type_in(Window& w, const QString& field, const QString& text) { w.type(w.get<QLineEdit>(field), text); }

const BlankPlan& blank(Window& w) { return *w.desk().face_plan()->face->blank; }

Job arrows() {
    Job job = porch_board();
    Blank& b = job.signs.front().blank;
    b.kind = Kind::Arrow;
    b.stock.clear();
    b.length = measure("14");
    b.width = measure("4 1/2");
    b.stands = Stands::Level;
    b.clear.clear();
    Text& l = job.signs.front().faces.front().lettering.main();
    l.arrangement = Arrangement::Level;
    l.words = "SLIPWAY";
    return job;
}

}  // namespace

TEST_CASE("each kind of blank is entered by keyboard alone") {
    Window w;
    pick(w, "kind of blank", "panel");
    type_in(w, "length", "42");
    type_in(w, "width, as the tape says", "16");
    CHECK(from_grid(blank(w).face.width()) == 42_in);
    pick(w, "kind of blank", "round");
    type_in(w, "diameter", "15 1/2");
    CHECK(from_grid(blank(w).face.width()) == 15.5_in);
    pick(w, "kind of blank", "arrow");
    type_in(w, "body, length", "9 1/4");
    type_in(w, "body, height", "3");
    type_in(w, "head, length", "2 3/4");
    type_in(w, "head, height", "4 1/2");
    type_in(w, "head overlaps the body by", "1/4");
    pick(w, "it points", "left");
    CHECK(from_grid(blank(w).face.width()) == 11.75_in);
    CHECK(from_grid(blank(w).face.height()) == 4.5_in);
    pick(w, "kind of blank", "arch");
    type_in(w, "height of the arch", "7'");
    type_in(w, "span", "4'");
    pick(w, "top of the arch", "pointed");
    type_in(w, "rise", "36");
    CHECK(from_grid(blank(w).face.height()) == 84_in);
    CHECK(w.desk().face_plan()->face->marking.pins.size() == 2);
    pick(w, "kind of blank", "canvas");
    type_in(w, "depth of its bars", "3/4");
    CHECK(w.sign().blank.bars->value == 0.75_in);
    pick(w, "kind of blank", "field in mouldings");
    type_in(w, "width of the mouldings", "2 1/4");
    CHECK(w.sign().blank.moulding->value == 2.25_in);
    // All of it goes back, one step at a time.
    for (int i = 0; i < 60 && w.desk().can_undo(); ++i) QTest::keyClick(&w.window(), Qt::Key_Z, Qt::ControlModifier);
    w.settle();
    CHECK(w.job() == porch_board());
}

TEST_CASE("wrong measures are told at the field, and the job stays as it was") {
    Window w;
    pick(w, "kind of blank", "arrow");
    const Job before = w.job();
    for (const char* wrong : {"a hand", "3 * 4 in * 2 in", "-4"}) {
        auto& field = w.get<QLineEdit>("head, length");
        field.setFocus();
        field.selectAll();
        QTest::keyClicks(&field, wrong);
        QTest::keyClick(&field, Qt::Key_Return);
        w.settle();
        INFO(wrong);
        CHECK(w.job() == before);
        QTest::keyClick(&field, Qt::Key_Escape);
    }
    type_in(w, "head overlaps the body by", "5");
    CHECK(w.read().contains("overlap"));
    QTest::keyClick(&w.window(), Qt::Key_Z, Qt::ControlModifier);
    w.settle();
    CHECK_FALSE(blank(w).face.empty());
}

TEST_CASE("the tape's readings are typed, told in words, and the wrong one named") {
    Window w;
    open(w, "What the tape says");
    for (const auto& [field, text] : {std::pair{"the bottom width", "5 1/2"},
                                      {"the middle width", "5 1/2"},
                                      {"the top width", "5 1/2"},
                                      {"the left side", "60"},
                                      {"the right side", "60"},
                                      {"the diagonal that rises to the right", "60 1/4"},
                                      {"the diagonal that falls to the right", "60 1/4"}})
        type_in(w, field, text);
    CHECK(w.read().contains("Square and straight"));
    w.callout("tape-3");  // stands on the drawing, and edits the same reading
    type_in(w, "the left side", "60 1/2");
    CHECK(w.read().contains("the left side cannot be"));
}

TEST_CASE("every dimension of an arrow is typed on the drawing, and changes that one value") {
    Window w(arrows());
    const auto change = [&](const char* id, const char* text, const std::function<Length(const Blank&)>& value,
                            Length now) {
        const Job before = w.job();
        w.type(w.callout(id), text);
        CHECK(value(w.sign().blank) == now);
        QTest::keyClick(&w.window(), Qt::Key_Z, Qt::ControlModifier);
        w.settle();
        CHECK(w.job() == before);
    };
    change(
        "length", "15", [](const Blank& b) { return b.length.value; }, 15_in);
    change(
        "width", "5", [](const Blank& b) { return b.width->value; }, 5_in);
    change(
        "head-length", "3", [](const Blank& b) { return b.head.length.value; }, 3_in);
    change(
        "head-height", "7", [](const Blank& b) { return b.head.height.value; }, 7_in);
    change(
        "margin", "1/2", [](const Blank& b) { return b.margin.value; }, 0.5_in);
}

TEST_CASE("every dimension of a round, an arch, a framed panel and a painted band is typed on the drawing") {
    struct Change {
        const char *id, *text;
        std::function<Length(const Blank&)> value;
        Length now;
    };
    const auto try_all = [](const Job& job, const std::vector<Change>& changes) {
        Window w(job);
        for (const Change& c : changes) {
            const Job before = w.job();
            INFO(c.id);
            w.type(w.callout(c.id), c.text);
            CHECK(c.value(w.sign().blank) == c.now);
            CHECK_FALSE(w.callout(c.id).does().isEmpty());
            w.desk().undo();
            w.settle();
            CHECK(w.job() == before);
        }
    };
    const auto length = [](const Blank& b) { return b.length.value; };
    const auto width = [](const Blank& b) { return b.width->value; };
    Job round = arrows();
    Blank& b = round.signs.front().blank;
    b.kind = Kind::Round;
    b.length = measure("18");
    b.fields.push_back({.middle = measure("9"), .depth = measure("5")});
    try_all(round, {{"length", "15", length, 15_in},
                    {"field-0", "4", [](const Blank& x) { return x.fields[0].depth.value; }, 4_in},
                    {"field-0-middle", "8", [](const Blank& x) { return x.fields[0].middle.value; }, 8_in}});
    Job arch = arrows();
    arch.signs.front().blank.kind = Kind::Arch;
    arch.signs.front().blank.stands = Stands::Upright;
    arch.signs.front().blank.length = measure("84");
    arch.signs.front().blank.width = measure("48");
    arch.signs.front().blank.arch = {ArchStyle::Pointed, measure("36")};
    try_all(arch, {{"length", "80", length, 80_in},
                   {"width", "44", width, 44_in},
                   {"rise", "30", [](const Blank& x) { return x.arch.rise.value; }, 30_in}});
    Job panel = arrows();
    panel.signs.front().blank.kind = Kind::Panel;
    panel.signs.front().blank.length = measure("43 1/2");
    panel.signs.front().blank.width = measure("17 1/2");
    panel.signs.front().blank.frame.kind = FrameKind::Butt;
    panel.signs.front().blank.frame.size_is = SizeIs::OverAll;
    try_all(panel, {{"length", "40", length, 40_in}, {"width", "16", width, 16_in}});
    Window w(panel);  // the dimension says which size it is
    CHECK(w.callout("length").text().startsWith("over all"));
    CHECK(blank(w).length == 42_in);
}

TEST_CASE("a knot is kept clear where it lies, and moved on the drawing") {
    Window w;
    pick(w, "kind of blank", "panel");
    w.click("Add a clear zone");
    pick(w, "edge of clear zone 1", "circle");
    w.type(w.get<QLineEdit>("what clear zone 1 is for"), "knot");
    type_in(w, "clear zone 1 from the left", "4");
    type_in(w, "clear zone 1 from the bottom", "8");
    CHECK(w.sign().blank.clear.front().name == "knot");
    // A click on it brings its dimensions.
    Drawing& drawing = w.window().drawing();
    bool found = false;
    for (int x = 20; x < drawing.width() && !found; x += 12) {
        for (int y = 100; y < 500 && !found; y += 12) {
            QTest::mouseClick(&drawing, Qt::LeftButton, {}, {x, y});
            for (Callout* c : w.callouts()) found = found || c->property("callout-id") == "clear-0-x";
        }
    }
    REQUIRE(found);
    w.type(w.callout("clear-0-x"), "6");
    CHECK(w.sign().blank.clear.front().x.value == 6_in);
    w.click("clear zone 1 on both sides");
    CHECK(islands(blank(w).zones.front()).size() == 2);
}

TEST_CASE("rope takes its turns times its girth, and says how much of it is needed") {
    Window w;
    pick(w, "reason of clear zone 1", "rope, wound");
    auto& turns = w.get<QSpinBox>("turns of rope of clear zone 1");
    turns.setFocus();
    turns.selectAll();
    QTest::keyClicks(&turns, "8");
    QTest::keyClick(&turns, Qt::Key_Return);
    w.settle();
    type_in(w, "girth of the rope of clear zone 1", "1/2");
    CHECK(blank(w).usable.high.y == to_grid(56_in));
    CHECK(blank(w).rope == (5.5_in + 0.75_in) * 2 * 8);
    w.type(w.callout("clear-0"), "5/8");  // the callout changes how thick the rope is
    CHECK(blank(w).usable.high.y == to_grid(55_in));
    pick(w, "reason of clear zone 1", "other");
    CHECK(blank(w).rope == Length{});
}

TEST_CASE("a frame, a painted field and a stand are decided in their parts of the tray") {
    Window w;
    pick(w, "kind of blank", "panel");
    type_in(w, "length", "42");
    type_in(w, "width, as the tape says", "16");
    open(w, "Frame and backing");
    pick(w, "frame", "butt, round the edge");
    CHECK(w.read().contains("43 1⁄2 in"));
    CHECK(w.read().contains("no plan uses fewer"));
    open(w, "Painted fields");
    w.click("Add a painted field");
    type_in(w, "depth of field 1", "5");
    CHECK(blank(w).fields.size() == 1);
    open(w, "Hang or stand");
    pick(w, "it is held", "on legs or feet");
    CHECK(w.read().contains("goes over at"));
}

TEST_CASE("four arrows are made from one, lettered apart, and set on a post") {
    Window w(arrows());
    open(w, "Signs of this job");
    for (const char* words : {"TEA ROOM", "CHANDLERY", "LOST OARS"}) {
        w.click("Another like it");
        w.show(Station::Lettering);
        auto& field = w.get<QWidget>("words");
        field.setFocus();
        QTest::keyClick(&field, Qt::Key_A, Qt::ControlModifier);
        QTest::keyClicks(&field, words);
        w.settle();
        w.show(Station::Blank);
    }
    REQUIRE(w.job().signs.size() == 4);
    CHECK(wording(w.job()) == "SLIPWAY\nTEA ROOM\nCHANDLERY\nLOST OARS");
    // The row takes one in hand; edits go to that one alone.
    auto* row = w.window().findChild<SignsRow*>();
    REQUIRE(row->isVisible());
    row->setFocus();
    for (int i = 0; i < 4; ++i) QTest::keyClick(row, Qt::Key_Left);
    w.settle();
    CHECK(w.desk().sign_at() == 0);
    QTest::keyClick(row, Qt::Key_Right);
    w.settle();
    pick(w, "it points", "left");
    CHECK_FALSE(w.job().signs[1].blank.head.right);
    CHECK(w.job().signs[0].blank.head.right);
    w.click("Set them on a post");
    REQUIRE(w.desk().plan().post);
    w.type(w.callout("gap-1"), "3");
    CHECK(w.job().post->arms[1].gap.value == 3_in);
    CHECK(w.desk().plan().post->arms[1].from_top == 1_in + 4.5_in + 3_in);
    CHECK(w.desk().plan().bench->steps.size() > 40);
}

TEST_CASE("a sign with two faces shows each, and the back points the other way") {
    Window w(arrows());
    open(w, "Signs of this job");
    w.click("Letter its back");
    CHECK(w.desk().face_at() == 1);
    CHECK(w.desk().face_plan()->face->blank->outline != w.desk().plan().of(first_face)->face->blank->outline);
    w.click("Leave its back bare");
    CHECK(w.sign().faces.size() == 1);
    CHECK_FALSE(w.window().findChild<SignsRow*>()->isVisible());
}

TEST_CASE("the tape measure reads the board's own length between its corners") {
    Window w;
    Drawing& drawing = w.window().drawing();
    drawing.setFocus();
    QTest::keyClick(&drawing, Qt::Key_T);
    REQUIRE(drawing.measuring());
    // Near the two ends of the board's upper edge: snapped to its corners.
    const QImage image = drawing.grab().toImage();
    int left = 0, right = 0, top = 0;
    for (int y = 60; y < image.height() && top == 0; ++y) {
        if (image.pixelColor(image.width() / 3, y) == QColor("#d8b886")) top = y;
    }
    for (int x = 0; x < image.width(); ++x) {
        if (image.pixelColor(x, top + 2) != image.pixelColor(2, image.height() - 2) && left == 0 && x > 20) left = x;
    }
    for (int x = 0; x < image.width(); ++x) {
        const QColor c = image.pixelColor(x, top + 3);
        if (c.red() > 150 && c.blue() < 190) right = x;
    }
    QTest::mouseClick(&drawing, Qt::LeftButton, {}, {left, top});
    QTest::mouseClick(&drawing, Qt::LeftButton, {}, {right, top});
    CHECK(drawing.measured_text().startsWith("60 in"));
    QTest::keyClick(&drawing, Qt::Key_Escape);
    CHECK_FALSE(drawing.measuring());
}

TEST_CASE("an outline file is read, and a bad one is told without touching the job") {
    Window w;
    const auto path = w.folder() / "gull.svg";
    std::ofstream(path) << "<svg xmlns='http://www.w3.org/2000/svg'><path d='M0 0 L40 0 L20 30 Z'/></svg>";
    CHECK(w.desk().read_outline(path).empty());
    w.settle();
    CHECK(w.sign().blank.kind == Kind::Drawn);
    type_in(w, "its one known dimension", "20");
    CHECK(from_grid(blank(w).face.width()).in_inches() == Approx(20));
    const Job before = w.job();
    std::ofstream(path) << "<svg xmlns='http://www.w3.org/2000/svg'><path d='M0 0 L40 0 L20 30'/></svg>";
    CHECK(QString::fromStdString(w.desk().read_outline(path)).contains("open"));
    CHECK(w.job() == before);
}

TEST_CASE("leftover wood that would do is named at Blank") {
    Window w;
    w.window().show_shop();
    w.settle();
    w.click("Add a piece");
    type_in(w, "length of leftover 1", "61");
    w.type(w.get<QLineEdit>("board lengths"), "8 ft; 10 ft");
    CHECK(w.desk().shop().board_lengths == std::vector<Length>{96_in, 120_in});
    w.type(w.get<QLineEdit>("board lengths"), "8 ft; a tree");
    CHECK(w.desk().shop().board_lengths.size() == 2);
    w.show(Station::Blank);
    CHECK(w.read().contains("behind the door"));
    type_in(w, "length", "62");
    CHECK_FALSE(w.read().contains("behind the door"));
}

TEST_CASE("blank: lines that are pasted make signs at one cap height, and one step takes them back") {
    Job job = panel_job("", "24", "6");
    Window w(job);
    w.show(Station::Blank);
    w.click("group Signs of this job");
    auto& lines = w.get<QPlainTextEdit>("sign lines");
    lines.setPlainText("SLIPWAY\nTEA ROOM\nCHANDLERY\nLOST OARS");
    w.click("make signs of lines");
    REQUIRE(w.job().signs.size() == 4);
    CHECK(w.job().signs[1].faces.front().lettering.main().words == "TEA ROOM");
    std::set<Length> caps;
    for (const ColourPlan& c : w.desk().plan().colours) caps.insert(c.face->lettering->cap_height);
    CHECK(caps.size() == 1);
    w.desk().undo();
    CHECK(w.job().signs.size() == 1);
}
