// The fields of trays over their form: lists that grow, fields that come and go with what they are for, one undo step
// for each decision; what can be done from the keyboard, a button and Find alike; and work beside the window.
#include <QAction>
#include <QComboBox>
#include <QListWidget>
#include <QProgressDialog>
#include <QSpinBox>
#include <QTimer>

#include "support_window.h"
#include "window/plan_service.h"
#include "window/waited.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

void unfold(Window& w, const QString& group) {
    auto& head = w.get<QPushButton>(group);
    if (!head.isChecked()) w.click(group);
}

void clear(Window& w, const QString& field) {
    auto& edit = w.get<QLineEdit>(field);
    edit.setFocus();
    QTest::keyClick(&edit, Qt::Key_A, Qt::ControlModifier);
    QTest::keyClick(&edit, Qt::Key_Delete);
    QTest::keyClick(&edit, Qt::Key_Return);
    w.settle();
}

int undo_steps(Window& w) {
    int steps = 0;
    while (w.desk().can_undo()) {
        w.desk().undo();
        ++steps;
    }
    w.settle();
    return steps;
}

}  // namespace

TEST_CASE("painted fields and guides grow without a limit, and any of them is taken out") {
    Window w;
    unfold(w, "Painted fields");
    for (int i = 0; i < 5; ++i) w.click("Add a painted field");
    CHECK(w.job().signs.front().blank.fields.size() == 5);
    w.type(w.get<QLineEdit>("depth of field 5"), "1 1/2");
    CHECK(w.job().signs.front().blank.fields[4].depth.value == 1.5_in);
    w.choose("field 5", 2);
    CHECK(w.job().signs.front().blank.fields[4].border);
    CHECK(w.find<QLineEdit>("middle of field 5") == nullptr);  // all round has none
    w.click("Remove field 2");
    CHECK(w.job().signs.front().blank.fields.size() == 4);
    CHECK(w.get<QLineEdit>("depth of field 4").text() == shown("1 1/2 in"));
    CHECK(w.find<QLineEdit>("depth of field 5") == nullptr);
    unfold(w, "Guides");
    for (int i = 0; i < 6; ++i) w.click("Add a guide");
    w.type(w.get<QLineEdit>("guide 6 lies at"), "3");
    w.click("Remove guide 1");
    CHECK(w.job().signs.front().blank.guides.size() == 5);
    CHECK(w.job().signs.front().blank.guides.back().where.value == 3_in);
    CHECK(undo_steps(w) == 5 + 1 + 2 + 1 + 6 + 1 + 1);
    CHECK(w.job() == porch_board());
    CHECK(w.find<QLineEdit>("depth of field 1") == nullptr);
}

TEST_CASE("a clear zone is changed field by field, and its row follows what it is") {
    Window w;
    w.click("Add a clear zone");
    w.choose("edge of clear zone 3", 4);
    CHECK(w.job().signs.front().blank.clear[2].shape == ZoneShape::Rectangle);
    w.type(w.get<QLineEdit>("clear zone 3 from the left"), "2");
    w.type(w.get<QLineEdit>("height of clear zone 3"), "1");
    w.choose("edge of clear zone 3", 5);
    CHECK(w.find<QLineEdit>("height of clear zone 3") == nullptr);
    CHECK(w.get<QLineEdit>("clear zone 3 from the left").text() == "2 in");
    w.choose("reason of clear zone 1", static_cast<int>(ZoneReason::Rope));
    auto& turns = w.get<QSpinBox>("turns of rope of clear zone 1");
    turns.setFocus();
    QTest::keyClick(&turns, Qt::Key_Up);
    w.settle();
    CHECK(w.job().signs.front().blank.clear[0].turns == 2);
    w.click("remove clear zone 1");
    CHECK(w.job().signs.front().blank.clear.size() == 2);
    CHECK(w.find<QSpinBox>("turns of rope of clear zone 1") == nullptr);
}

TEST_CASE("a field that may be left out follows again when it is emptied") {
    Window w;
    auto& thickness = w.get<QLineEdit>("thickness");
    CHECK(thickness.placeholderText() == shown("3/4 in"));
    w.type(thickness, "1");
    CHECK(w.job().signs.front().blank.thickness->value == 1_in);
    clear(w, "thickness");
    CHECK_FALSE(w.job().signs.front().blank.thickness);
    w.type(thickness, "no measure");
    CHECK_FALSE(w.job().signs.front().blank.thickness);
}

TEST_CASE("each kind of art has its own fields, and none of another's") {
    Job job = add_art(porch_board(), {}, Border{}, library().typefaces);
    job = add_art(job, {}, Figure{}, library().typefaces);
    Window w(job);
    w.show(Station::Lettering);
    w.desk().select_art(0);
    w.settle();
    w.click("corners: notched");
    w.type(w.get<QLineEdit>("inside the edge by"), "3/4");
    CHECK(w.find<QLineEdit>("only its outline, this thick") == nullptr);
    w.desk().select_art(1);
    w.settle();
    CHECK(w.find<QLineEdit>("inside the edge by") == nullptr);
    auto& line = w.get<QLineEdit>("only its outline, this thick");
    CHECK(line.placeholderText() == "filled");
    w.type(line, "1/4");
    const auto& art = w.job().signs.front().faces.front().art;
    CHECK(std::get<Border>(art[0].kind).corner == Corner::Notched);
    CHECK(std::get<Border>(art[0].kind).inset.value == 0.75_in);
    CHECK(std::get<Figure>(art[1].kind).line.value == 0.25_in);
    clear(w, "only its outline, this thick");
    CHECK(std::get<Figure>(w.job().signs.front().faces.front().art[1].kind).line.value == Length{});
}

TEST_CASE("what can be done is the same by key, by button and in Find") {
    Window w;
    w.click("Add a clear zone");
    CHECK(w.get<QPushButton>("undo").toolTip() == "Undo (Ctrl+Z)");
    CHECK(w.get<QPushButton>("undo").isEnabled());
    CHECK_FALSE(w.get<QPushButton>("redo").isEnabled());
    QTest::keyClick(&w.window(), Qt::Key_Z, Qt::ControlModifier);
    w.settle();
    CHECK_FALSE(w.get<QPushButton>("undo").isEnabled());
    CHECK(w.get<QPushButton>("redo").isEnabled());
    QTest::keyClick(&w.window(), Qt::Key_K, Qt::ControlModifier);
    QApplication::processEvents();
    QStringList names;
    for (auto* list : w.window().findChildren<QListWidget*>()) {
        for (int i = 0; i < list->count(); ++i) names << list->item(i)->text();
    }
    CHECK(names.contains("Redo"));
    CHECK_FALSE(names.contains("Undo"));  // nothing is left to take back
    CHECK(names.contains("3  Sections"));
    // No two do the same by the same keys.
    QStringList keys;
    for (const QAction* action : w.window().actions()) {
        if (!action->shortcut().isEmpty()) keys << action->shortcut().toString();
    }
    CHECK(keys.size() > 14);
    CHECK(keys.removeDuplicates() == 0);
}

TEST_CASE("of several wishes the last is planned") {
    (void)application();
    PlanService service;
    const std::shared_ptr<const Library> shared(&library(), [](const Library*) {});
    for (const char* words : {"ONE", "TWO", "THREE", "OARS"}) {
        Job job = porch_board();
        lettering(job).words = words;
        service.want(shared, job, usual_shop(), moment("2026-05-04T17:40"), nullptr, std::nullopt);
        CHECK_FALSE(service.current());
    }
    service.wait();
    CHECK(service.current());
    CHECK(service.plan().colours.front().face->lettering->letters.size() == 4);
}

TEST_CASE("work that is waited for answers, refuses or breaks without harm to the window") {
    (void)application();
    const auto answer = waited<int>("x", [](const std::stop_token&, const ToldShare& told) -> Expected<int> {
        told(0.5);
        return 7;
    });
    CHECK(answer.value() == 7);
    const auto broken = waited<int>("x", [](const std::stop_token&, const ToldShare&) -> Expected<int> {
        throw std::runtime_error("no such luck");
    });
    REQUIRE_FALSE(broken.has_value());
    CHECK(library().catalogue.say(broken.error().what, {}).find("no such luck") != std::string::npos);
    // What takes longer is told and can be stopped, though it does not say how much of it is done.
    bool told = false;
    QTimer look;
    QObject::connect(&look, &QTimer::timeout, [&] {
        for (QWidget* w : QApplication::topLevelWidgets()) {
            auto* progress = qobject_cast<QProgressDialog*>(w);
            if (progress == nullptr || !progress->isVisible() || told) continue;
            told = true;
            progress->cancel();
        }
    });
    look.start(20);
    constexpr int soon = 2'000;  // ms: far more than the moment after which it is told
    const auto given_up = waited<int>("x", [](const std::stop_token& stop, const ToldShare&) -> Expected<int> {
        for (int ms = 0; ms < soon; ms += 10) {
            if (stop.stop_requested()) throw Stopped{};
            std::this_thread::sleep_for(std::chrono::milliseconds(10));
        }
        return 7;
    });
    CHECK(told);
    CHECK_FALSE(given_up.has_value());
    const auto stopped =
        waited<int>("x", [](const std::stop_token&, const ToldShare&) -> Expected<int> { throw Stopped{}; });
    CHECK(stopped.error().what.id == "work.stopped");
}

TEST_CASE("the sheets are drawn beside the window, and again when the plan is another") {
    Window w;
    w.click("sheets-button");
    const auto pages = [&](const QString& title) {
        int count = 0;
        for (QWidget* page : w.window().findChildren<QWidget*>()) count += page->accessibleName() == title ? 1 : 0;
        return count;
    };
    // They are turned by button and by key from the moment they stand there, and say which one it is.
    while (pages("Placement") == 0) QCoreApplication::processEvents(QEventLoop::WaitForMoreEvents);
    CHECK_FALSE(w.read().contains("being drawn"));
    const auto says = [&] {
        for (QLabel* l : w.window().findChildren<QLabel*>()) {
            if (l->isVisible() && l->toolTip().contains(" of ")) return l->toolTip();
        }
        return QString();
    };
    CHECK(says().startsWith("Placement, 1 of "));
    w.click("page on");
    CHECK(says().contains(", 2 of "));
    QTest::keyClick(w.window().findChild<QScrollArea*>("sheets"), Qt::Key_PageDown);
    CHECK(says().contains(", 3 of "));
    w.click("page back");
    w.click("page back");
    CHECK(says().startsWith("Placement, 1 of "));
    CHECK_FALSE(w.get<QAbstractButton>("page back").isEnabled());
    Job job = w.job();
    job.signs.front().faces.front().colours.front().making.way = Way::Decal;
    job = copy_sign(job, 0, "OARS");
    w.desk().apply(job);
    QTRY_COMPARE(pages("Placement, OARS"), 1);
    CHECK(pages("Placement") == 0);
}

TEST_CASE("words are as high as they stand there now, however often they were asked before") {
    (void)application();
    QWidget room;
    QLabel* words = label("one word", Role::Plain, &room);
    const int one = words->heightForWidth(120);
    CHECK(words->heightForWidth(120) == one);
    words->setText("so many words that they do not stand in one line of this width");
    const int many = words->heightForWidth(120);
    CHECK(many >= 3 * one);
    CHECK(words->heightForWidth(1200) == one);
    QFont larger = words->font();
    larger.setPixelSize(2 * larger.pixelSize());
    words->setFont(larger);
    CHECK(words->heightForWidth(120) > many);
    const int wide = words->heightForWidth(1200);
    words->setContentsMargins(0, 20, 0, 20);
    CHECK(words->heightForWidth(1200) == wide + 40);
}

TEST_CASE("icons are drawn in the colour that is asked for, at any size, and fainter where nothing can be done") {
    (void)application();
    const auto strongest = [](const QImage& image) {
        int alpha = 0;
        QColor seen(Qt::transparent);
        for (int y = 0; y < image.height(); ++y) {
            for (int x = 0; x < image.width(); ++x) {
                if (const QColor c = image.pixelColor(x, y); c.alpha() > alpha) {
                    alpha = c.alpha();
                    seen = c;
                }
            }
        }
        return seen;
    };
    for (const int size : {16, 23, 64}) {
        const QImage drawn = Theme::icon("plus", Qt::red).pixmap(size).toImage();
        CHECK(drawn.size() == QSize(size, size));
        CHECK(strongest(drawn).red() > 200);
        CHECK(strongest(drawn).green() < 20);
        CHECK(strongest(Theme::icon("plus", Qt::red).pixmap(size, QIcon::Disabled).toImage()) != strongest(drawn));
    }
    CHECK(strongest(Theme::icon("there is no such drawing").pixmap(16).toImage()).alpha() == 0);
}
