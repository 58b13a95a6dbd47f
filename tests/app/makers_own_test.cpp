// What a maker adds to the shop: rules of the maker's own and tins of colour; and a drawing that comes from a file with
// colours and parts of its own.
#include <QMenu>
#include <QTimer>

#include "job/drawing_commands.h"
#include "support_window.h"
#include "window/colour_picker.h"

using namespace skarvel;
using namespace skarvel::testing;

TEST_CASE("rules: the page shows them joint by joint; one of the maker's own is written, marked, and taken out") {
    Window w;
    w.show(Station::Method);
    w.click("page of rules");
    CHECK(w.read().contains("permanent film as a mask"));
    w.click("write a rule");
    CHECK_FALSE(w.get<QPushButton>("add own rule").isEnabled());  // it says nothing yet
    w.choose("What is asked, 1", 1);
    CHECK(w.get<QComboBox>("What is asked, 1").currentText() == "place");
    w.choose("What it is to be, 1", 1);
    w.choose("What is asked, 2", 5);
    w.choose("What it is to be, 2", 1);
    auto& says = w.get<QLineEdit>("own rule says");
    says.setFocus();
    QTest::keyClicks(&says, "salt creeps under the mask");
    QTest::keyClicks(&w.get<QLineEdit>("own rule instead"), "rinse and wipe first");
    w.click("That is: wrong");
    w.click("add own rule");
    REQUIRE(w.desk().shop().own_rules.size() == 1);
    CHECK(w.desk().shop().own_rules.front().mark == Mark::Stop);
    CHECK(w.desk().plan().mark_of(Station::Method) == Mark::Stop);
    CHECK(w.read().contains("wrong: salt creeps under the mask"));
    CHECK(w.read().contains("place: on a porch, made as: paint-through"));
    w.click("overrule own-1");
    CHECK(w.desk().plan().mark_of(Station::Method) != Mark::Stop);
    w.click("hold own-1");
    CHECK(w.desk().plan().mark_of(Station::Method) == Mark::Stop);
    w.click("take out own-1");
    CHECK(w.desk().shop().own_rules.empty());
    CHECK(w.desk().plan().mark_of(Station::Method) != Mark::Stop);
}

TEST_CASE("a colour is mixed, typed, named and kept as a tin that every menu offers") {
    Window w;
    w.show(Station::Lettering);
    w.click("group Colours and rims");
    ColourButton* swatch = w.find<ColourButton>("colour 1");
    REQUIRE(swatch != nullptr);
    QStringList offered;
    const auto open = [&](const std::function<void(ColourPicker&)>& mix) {
        offered.clear();
        QTimer::singleShot(0, swatch, [&] {
            auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
            REQUIRE(menu != nullptr);
            for (const QAction* a : menu->actions()) offered << a->text();
            QTimer::singleShot(0, swatch, [&] {
                auto* picker = qobject_cast<ColourPicker*>(QApplication::activeModalWidget());
                if (picker != nullptr) mix(*picker);
            });
            QAction* other = menu->actions().back();
            menu->close();
            other->trigger();
        });
        QTest::mouseClick(swatch, Qt::LeftButton);
        w.settle();
    };
    open([&](ColourPicker& picker) {
        auto* typed = picker.findChild<QLineEdit*>("colour typed");
        typed->clear();
        QTest::keyClicks(typed, "#12z");
        CHECK_FALSE(picker.findChild<QPushButton*>("take colour")->isEnabled());
        typed->clear();
        QTest::keyClicks(typed, "#2f6f5e");
        QTest::keyClicks(picker.findChild<QLineEdit*>("colour called"), "tern green");
        QTest::mouseClick(picker.findChild<QCheckBox*>("keep colour"), Qt::LeftButton, {}, QPoint(8, 8));
        QTest::mouseClick(picker.findChild<QPushButton*>("take colour"), Qt::LeftButton);
    });
    CHECK_FALSE(offered.contains("tern green"));
    CHECK(w.desk().face().colours.front().paint.colour == "#2f6f5e");
    CHECK(w.desk().face().colours.front().paint.colour_name == "tern green");
    REQUIRE(w.desk().shop().tins.size() == 1);
    swatch = w.find<ColourButton>("colour 1");
    open([&](ColourPicker& picker) {
        // A press in the field of shades, at its upper right: the full hue.
        auto* field = picker.findChild<ShadeField*>("shades");
        QTest::mouseClick(field, Qt::LeftButton, {}, QPoint(field->width() - 3, 3));
        CHECK(QColor(picker.colour()).hsvSaturation() > 245);
        CHECK(QColor(picker.colour()).value() > 245);
        const QString before = picker.colour();
        QTest::keyClick(field, Qt::Key_Left);
        CHECK(picker.colour() != before);
        // From a picture: where it is pressed.
        QImage picture(40, 20, QImage::Format_RGB32);
        picture.fill(QColor("#102030"));
        field->show_picture(picture);
        QTest::mouseClick(field, Qt::LeftButton, {}, QPoint(20, 10));
        CHECK(picker.colour() == "#102030");
        QTest::mouseClick(picker.findChild<QPushButton*>("take colour"), Qt::LeftButton);
    });
    CHECK(offered.front() == "tern green");
    CHECK(w.desk().face().colours.front().paint.colour_name == "#102030");
    // Another colour is another one, however many there are.
    w.click("add colour");
    w.click("add colour");
    std::set<std::string> shades;
    for (const Colour& c : w.desk().face().colours) shades.insert(c.paint.colour);
    CHECK(shades.size() == 3);
}

TEST_CASE("a drawing with several colours says so at once, and its parts are a list") {
    Window w;
    w.show(Station::Lettering);
    std::ofstream(w.folder() / "boat.svg")
        << "<svg xmlns='http://www.w3.org/2000/svg' width='60mm' height='30mm' viewBox='0 0 60 30'>"
           "<rect width='30' height='30' fill='#112233'/><rect x='35' width='20' height='10' fill='#aa3311'/></svg>";
    REQUIRE(w.desk().read_drawing(w.folder() / "boat.svg"));
    w.desk().select_art(w.desk().face().art.size() - 1);
    w.settle();
    CHECK(w.read().contains("2 colours found"));
    CHECK(w.desk().face().colours.size() == 1);
    w.click("Its colours: its own colours");
    CHECK(w.desk().face().colours.size() == 3);
    const auto drawing = [&] { return std::get<PlacedDrawing>(w.desk().face().art.back().kind); };
    CHECK(drawing().colours.size() == 2);
    w.click("part 2");
    CHECK(drawing().dropped == std::vector<std::size_t>{1});
    w.click("part 2");
    CHECK(drawing().dropped.empty());
    w.choose("colour of part 1", 0);
    CHECK(drawing().colours.size() == 1);
    w.click("Its colours: one colour");
    CHECK(drawing().colours.empty());
    w.desk().undo();
    CHECK(drawing().colours.size() == 1);
}
