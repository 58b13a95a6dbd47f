// The first minutes: what the very first start asks, help, what Find finds, choosing a file, and a shop that is
// damaged.
#include <QLineEdit>
#include <QListWidget>
#include <QScrollBar>
#include <QSpinBox>
#include <QTextBlock>
#include <fstream>

#include "support_window.h"
#include "theme/words.h"
#include "window/file_chooser.h"
#include "window/find.h"
#include "window/first_start.h"
#include "window/help_page.h"
#include "window/shop_store.h"

using namespace skarvel;
using namespace skarvel::testing;

TEST_CASE("the first start asks how one measures and when one works, shows no mark, and leads to a board") {
    Window w;
    w.desk().start_new();
    CHECK(w.desk().first_start());
    w.window().show_first_start();
    w.settle();
    auto& page = w.get<FirstStart>("first start");
    CHECK(page.isVisible());
    CHECK(w.find<QWidget>("tray") == nullptr);
    for (const auto* button : w.window().findChildren<QAbstractButton*>())
        CHECK_FALSE(button->accessibleName().contains(in_words("ticket-view.stop")));
    QTest::mouseClick(w.get<QWidget>("first.how-do-you-measure").findChildren<QAbstractButton*>().at(1),
                      Qt::LeftButton);
    QTest::mouseClick(w.get<QWidget>("first.when-do-you-work").findChildren<QAbstractButton*>().at(1), Qt::LeftButton);
    w.settle();
    CHECK(w.desk().shop().display.unit == Unit::Millimetre);
    CHECK(w.desk().shop().hours.days[1] == std::vector<Hours::Sitting>{{8 * 60, 17 * 60}});
    check_layout(w);
    w.click("first.sample-arrows");
    CHECK(w.job().signs.size() == 4);
    CHECK(w.desk().path().empty());  // a job of its own
    CHECK(w.find<FirstStart>("first start") == nullptr);
    CHECK(std::filesystem::exists(w.folder() / "shop.json"));
}

TEST_CASE("the first start is whole with the largest type in the smallest window") {
    Window w(porch_board(), {1024, 700}, true, 150);
    w.desk().start_new();
    w.window().show_first_start();
    w.settle();
    check_layout(w);
    auto& page = w.get<FirstStart>("first start");
    CHECK(page.width() <= page.parentWidget()->width());
    for (const QWidget* c : page.findChildren<QWidget*>()) CHECK(c->height() >= c->minimumSizeHint().height());
}

TEST_CASE("help says for each station what it is for, and F1 leaves it again") {
    Window w(porch_board(), {1024, 700});
    for (const Station station : {Station::Blank, Station::Sections, Station::Bench}) {
        w.show(station);
        QTest::keyClick(&w.window(), Qt::Key_F1);
        w.settle();
        auto& page = w.get<HelpPage>("help page");
        CHECK(page.toPlainText().size() > 300);
        CHECK(page.horizontalScrollBar()->maximum() == 0);
        // Most of it is no heading, also where it is opened again.
        int plain = 0;
        int bold = 0;
        for (QTextBlock block = page.document()->begin(); block.isValid(); block = block.next()) {
            for (auto at = block.begin(); !at.atEnd(); ++at)
                (at.fragment().charFormat().font().bold() ? bold : plain) += at.fragment().length();
        }
        CHECK(plain > 2 * bold);
        QTest::keyClick(&w.window(), Qt::Key_F1);
        w.settle();
        CHECK(w.find<HelpPage>("help page") == nullptr);
    }
    // Every page has its picture, and every picture is there.
    const auto help = std::filesystem::path(SKARVEL_SOURCE) / "assets/help";
    int pages = 0;
    for (const auto& e : std::filesystem::directory_iterator(help / "en")) {
        const QString text = QString::fromStdString(*read_file(e.path()));
        const auto at = QRegularExpression("\\((pictures/[^)]+)\\)").match(text);
        INFO(e.path().string());
        REQUIRE(at.hasMatch());
        CHECK(std::filesystem::exists(help / at.captured(1).toStdString()));
        ++pages;
    }
    CHECK(pages == 7);
}

TEST_CASE("find finds fields of every station, folded away or not, and what help says") {
    Window w;
    const auto find = [&](const QString& typed) {
        QTest::keyClick(&w.window(), Qt::Key_K, Qt::ControlModifier);
        QApplication::processEvents();
        auto* dialog = w.window().findChild<Find*>();
        REQUIRE(dialog != nullptr);
        auto* line = dialog->findChild<QLineEdit*>();
        QTest::keyClicks(line, typed);
        auto* list = dialog->findChild<QListWidget*>();
        const QString first = list->count() > 0 ? list->item(0)->text() : QString();
        QTest::keyClick(line, Qt::Key_Return);
        QApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
        w.settle();
        return first;
    };
    CHECK(find("lap").contains("lap"));
    CHECK(w.desk().job() == w.job());
    CHECK(find("how damp it dries").startsWith("Clock"));
    CHECK(QTest::qWaitFor([&] { return w.find<QSpinBox>("how damp it dries") != nullptr; }, 3000));
    CHECK(find("Your own seams").startsWith("Help"));
    CHECK(w.find<HelpPage>("help page") != nullptr);
}

TEST_CASE(
    "a file is chosen by typing or by pressing, a folder is opened, and what is there is replaced by a second press") {
    Window w;
    const auto folder = w.folder() / "jobs";
    std::filesystem::create_directories(folder / "older");
    std::ofstream(folder / "a.skarvel") << "x";
    std::ofstream(folder / "notes.txt") << "x";
    const QString at = QString::fromStdString(folder.string());
    {
        FileChooser chooser(FileChooser::For::File, "Open", {"*.skarvel"}, at, &w.window());
        chooser.show();
        auto* list = chooser.findChild<QListView*>();
        REQUIRE(QTest::qWaitFor([&] { return list->model()->rowCount(list->rootIndex()) == 2; }, 5000));
        auto* name = chooser.findChild<QLineEdit*>("name");
        QTest::keyClicks(name, "older");
        QTest::keyClick(name, Qt::Key_Return);
        CHECK(chooser.isVisible());  // a drawer was opened
        CHECK(chooser.findChild<QLineEdit*>("folder")->text().endsWith("older"));
        QTest::mouseClick(chooser.findChild<QPushButton*>("folder above"), Qt::LeftButton);
        QTest::keyClicks(name, "nothing.skarvel");
        QTest::keyClick(name, Qt::Key_Return);
        CHECK(chooser.isVisible());  // no such file
        name->setText("a.skarvel");
        QTest::mouseClick(chooser.findChild<QPushButton*>("take"), Qt::LeftButton);
        CHECK(chooser.chosen() == QStringList{at + "/a.skarvel"});
    }
    FileChooser saving(FileChooser::For::Saving, "Save", {"*.skarvel"}, at + "/a", &w.window());
    saving.show();
    auto* take = saving.findChild<QPushButton*>("take");
    QTest::mouseClick(take, Qt::LeftButton);
    CHECK(saving.isVisible());
    CHECK(take->text() == "Replace it");
    QTest::mouseClick(take, Qt::LeftButton);
    CHECK(saving.chosen() == QStringList{at + "/a.skarvel"});
}

TEST_CASE("a shop's file that cannot be read is put aside and told; two windows with one shop keep both changes") {
    Window w;
    const auto file = w.folder() / "other-shop.json";
    std::ofstream(file) << "{ broken";
    ShopStore store(file);
    REQUIRE(store.damaged());
    CHECK(library().catalogue.has(store.damaged()->what.id));
    CHECK(*read_file(w.folder() / "other-shop.json.damaged-1") == "{ broken");
    Shop shop = store.shop();
    shop.pairs_of_hands = 2;
    REQUIRE(store.set(shop));
    ShopStore second(file);
    CHECK(second.shop().pairs_of_hands == 2);
    Shop theirs = second.shop();
    theirs.fan = true;
    REQUIRE(second.set(theirs));
    shop.room_celsius = 9;
    REQUIRE(store.set(shop));
    CHECK(store.shop().fan);
    CHECK(ShopStore(file).shop().room_celsius == 9);
    CHECK(ShopStore(file).shop().fan);
}
