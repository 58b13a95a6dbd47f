// Nothing is lost: saving, other programs, crashes; and the window at every size.
#include <QComboBox>
#include <QLabel>
#include <QSpinBox>
#include <QToolButton>

#include <sys/wait.h>
#include <unistd.h>

#include <csignal>

#include "drawing/face_painter.h"
#include "method/contrast.h"
#include "support_window.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

std::string whole(const std::filesystem::path& path) { return read_file(path).value(); }

}  // namespace

TEST_CASE("save, change, save again; another program's change is not written over") {
    Window w;
    const auto path = w.folder() / "job.skarvel";
    w.type(w.callout("clear-0"), "6");
    CHECK(w.desk().unsaved());
    QTest::keyClick(&w.window(), Qt::Key_S, Qt::ControlModifier);
    w.settle();
    CHECK_FALSE(w.desk().unsaved());
    CHECK(*read_job(whole(path)) == w.job());
    std::ofstream(path) << write_job(long_board());
    w.type(w.callout("clear-0"), "7");
    QTest::keyClick(&w.window(), Qt::Key_S, Qt::ControlModifier);
    w.settle();
    CHECK(w.read().contains("changed by another program"));
    CHECK(read_job(whole(path))->title == "Landing stage");
    CHECK(w.desk().unsaved());
    w.click("Save over it");
    CHECK(*read_job(whole(path)) == w.job());
}

TEST_CASE("a file that cannot be opened says why, and the job stays as it was") {
    Window w;
    const Job before = w.job();
    std::ofstream(w.folder() / "bad.skarvel") << "{ half a";
    w.window().open_path(w.folder() / "bad.skarvel");
    w.settle();
    CHECK(w.read().contains("damaged"));
    CHECK(w.job() == before);
    w.window().open_path(w.folder() / "nowhere.skarvel");
    w.settle();
    CHECK(w.read().contains("cannot read"));
    CHECK(w.desk().path() == w.folder() / "job.skarvel");
}

TEST_CASE("at most two seconds are lost, an untitled job too, and it is offered at the next start") {
    const Folder data;
    const auto shared = std::shared_ptr<const Library>(&library(), [](const Library*) {});
    Job typed;
    const pid_t child = fork();
    if (child == 0) {
        // A process of its own, killed while its job is unsaved.
        setenv("QT_QPA_PLATFORM", "offscreen", 1);
        execl(SKARVEL_WINDOW, "skarvel", "--data", data.path().c_str(), "--type-for-test", "TEA ROOM", nullptr);
        _exit(1);
    }
    QTest::qWait(100);
    bool copied = false;
    for (int i = 0; i < 150 && !copied; ++i) {
        QTest::qWait(100);
        std::error_code error;
        for (const auto& e : std::filesystem::directory_iterator(data / "unsaved", error))
            copied = copied || e.path().extension() == ".unsaved";
    }
    kill(child, SIGKILL);
    int status = 0;
    waitpid(child, &status, 0);
    REQUIRE(copied);
    application();
    Desk next(shared, {data.path()}, std::nullopt);
    const auto left = next.leftovers();
    REQUIRE(left.size() == 1);
    CHECK(left.front().belongs_to.empty());
    MainWindow window(next);
    window.show();
    window.offer_leftovers();
    QPushButton* bring = nullptr;
    for (QPushButton* b : window.findChildren<QPushButton*>()) {
        if (b->text() == "Bring it back") bring = b;
    }
    REQUIRE(bring != nullptr);
    QTest::mouseClick(bring, Qt::LeftButton);
    CHECK(next.job().signs.front().faces.front().lettering.main().words == "TEA ROOM");
    CHECK(next.unsaved());
    CHECK(next.leftovers().empty());
    next.close_without_copy();
}

TEST_CASE("what is behind is dimmed and catches up; the latest job wins") {
    Window w;
    for (int i = 1; i < 30; ++i) {
        Job job = w.job();
        lettering(job).letter_gap = measure_of(Length::sixtyfourths(i), {});
        w.desk().apply(job);
    }
    CHECK_FALSE(w.desk().current());
    w.settle();
    CHECK(w.desk().current());
    CHECK(w.desk().plan() == plan(w.job(), w.desk().shop(), library(), w.desk().now()));
}

TEST_CASE("callouts never overlap, and no text is cut off, at every size") {
    Job sixty = porch_board();
    Job seventy_two = long_board();
    Job plaque = porch_board();
    plaque.signs.front().blank.length = measure("10");
    plaque.signs.front().blank.clear = {{Edge::Top, measure("1"), "hook"}, {Edge::Bottom, measure("1/2"), "foot"}};
    lettering(plaque).words = "TEA";
    lettering(plaque).letter_gap = measure("1/4");
    Job long_names = porch_board();
    long_names.title = "The longest name that anybody ever gave to a board for the porch of a boathouse";
    long_names.customer = "Society for the preservation of lost and found oars at Tern Quay";
    int seen = 0;
    for (const Job& job : {sixty, seventy_two, plaque, long_names}) {
        for (const auto& [size, percent, night] : {std::tuple{QSize(1280, 800), 100, false},
                                                   {QSize(1024, 700), 100, true},
                                                   {QSize(1280, 800), 150, false},
                                                   {QSize(1024, 700), 150, false}}) {
            Window w(job, size, night, percent);
            for (const Station station : {Station::Blank, Station::Lettering, Station::Sections, Station::Method,
                                          Station::Clock, Station::Logbook}) {
                w.show(station);
                INFO(job.title << " at " << size.width() << ", " << percent << " %, station "
                               << static_cast<int>(station) + 1);
                seen += check_layout(w);
            }
        }
    }
    CHECK(seen > 50);
}

TEST_CASE("every control has a name, and can be reached by keyboard") {
    Window w;
    for (const Station station : {Station::Blank, Station::Lettering, Station::Sections, Station::Method,
                                  Station::Clock, Station::Bench, Station::Logbook}) {
        w.show(station);
        for (QWidget* control : w.window().findChildren<QWidget*>()) {
            const bool is_control = qobject_cast<QAbstractButton*>(control) != nullptr ||
                                    qobject_cast<QComboBox*>(control) != nullptr ||
                                    (qobject_cast<QLineEdit*>(control) != nullptr &&
                                     qobject_cast<QAbstractSpinBox*>(control->parentWidget()) == nullptr) ||
                                    qobject_cast<QAbstractSpinBox*>(control) != nullptr;
            if (!is_control || !control->isVisible() || qobject_cast<QToolButton*>(control) != nullptr) continue;
            const auto* box = qobject_cast<QAbstractButton*>(control);
            INFO(control->metaObject()->className()
                 << " " << control->objectName().toStdString() << " at " << static_cast<int>(station));
            CHECK_FALSE((control->accessibleName() + (box != nullptr ? box->text() : QString())).isEmpty());
            CHECK((control->focusPolicy() & Qt::TabFocus) != 0);
        }
    }
}

TEST_CASE("overlays are seen on a white, a black and a chalk-blue sign") {
    application();
    for (const bool night : {false, true}) {
        Theme::set(night, 100);
        for (const char* ground : {"#ffffff", "#000000", "#1d5f7a"}) {
            QImage image(120, 60, QImage::Format_RGB32);
            image.fill(QColor(ground));
            QPainter p(&image);
            QPainterPath line(QPointF(10, 30));
            line.lineTo(110, 30);
            cased(p, line, QPen(Theme::tokens().chalk, 2));
            p.end();
            double best = 0;
            for (int y = 20; y < 40; ++y) {
                best = std::max(best, contrast(image.pixelColor(60, y).name().toStdString(), ground));
            }
            INFO(ground << (night ? " night" : " day"));
            CHECK(best >= 3);
        }
    }
    Theme::set(false, 100);
}
