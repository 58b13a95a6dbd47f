// What the maker says at the bench beside done, and what of it is taken into the shop: spoilt pieces with what they
// come to, places, two ways on one face, how long it took, the day's end, pictures from a telephone, other jobs of the
// day.
#include <QDateEdit>
#include <QDoubleSpinBox>
#include <QImage>
#include <QLineEdit>
#include <QSpinBox>
#include <fstream>

#include "job/commands.h"
#include "support_window.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

constexpr int bounce_ms = 1'050;  // a press within a second is none

Job cut_already() {
    Job job = porch_board();
    for (const Work work : {Work::Proof, Work::Cut}) {
        const Plan now = plan_of(job, "2026-05-04T17:40");
        for (const Step& s : now.bench->steps) {
            if (s.work == work && !s.done) {
                job = tick(job, now, s.id, moment("2026-05-04T17:30"));
                break;
            }
        }
    }
    return job;
}

void go_to(Window& w, Work work) {
    const auto& steps = w.desk().plan().bench->steps;
    const auto wanted = std::find_if(steps.begin(), steps.end(), [&](const Step& s) { return s.work == work; });
    REQUIRE(wanted != steps.end());
    const QString name = QString::fromStdString(w.desk().say(wanted->name));
    while (w.find<QPushButton>("back")->isEnabled()) w.click("back");
    for (std::size_t i = 0; i <= steps.size(); ++i) {
        if (w.get<QLabel>("step-name").text().startsWith(name)) return;
        w.click("ahead");
    }
    FAIL("no such step is shown");
}

}  // namespace

TEST_CASE("bench: a spoilt piece says what it comes to before it is cut again") {
    Window w(cut_already());
    w.show(Station::Bench);
    go_to(w, Work::Weed);
    w.click("something happened");
    REQUIRE(QTest::qWaitFor([&] { return w.find<QPushButton>("spoilt BOAT") != nullptr; }, 20'000));
    CHECK(w.get<QPushButton>("spoilt BOAT").height() >= 64);
    CHECK(w.read().contains("more work"));
    CHECK(w.read().contains(" in of film"));
    w.click("spoilt BOAT");
    CHECK(w.job().bench.spoilt.size() == 1);
    CHECK(w.job().bench.spoilt.front().sections.front().letters == "BOAT");
    w.desk().undo();
    w.settle();
    CHECK(w.job().bench.spoilt.empty());
}

TEST_CASE("bench: what is to be mended is pointed at on the picture, and found again on the drawing") {
    Window w;
    w.show(Station::Bench);
    go_to(w, Work::Colour);
    w.click("something happened");
    w.click("happened-ran-out");
    go_to(w, Work::Mend);
    CHECK(w.read().contains("Point at the place"));
    auto& picture = w.get<QWidget>("Where it goes");
    QTest::mouseClick(&picture, Qt::LeftButton, {}, picture.rect().center());
    w.settle();
    REQUIRE(w.job().bench.mishaps.size() == 1);
    CHECK(w.job().bench.mishaps.front().place);
    CHECK_FALSE(w.job().bench.mishaps.front().letter.empty());
}

TEST_CASE("bench: a step is done two ways, timed, and judged; what was learned is offered in the shop") {
    Window w;
    w.show(Station::Bench);
    go_to(w, Work::Ground);
    w.click("something happened");
    w.type(w.get<QLineEdit>("first-way"), "brushed");
    w.type(w.get<QLineEdit>("second-way"), "rolled");
    w.click("try-both");
    REQUIRE(w.job().bench.trials.size() == 1);
    CHECK(w.job().bench.trials.front().second == "rolled");
    const StepId ground = w.job().bench.trials.front().step;
    w.desk().apply(tick(w.job(), w.desk().plan(), ground, moment("2026-05-04T17:38")));
    w.settle();
    go_to(w, Work::Ground);
    w.click("something happened");
    w.type(w.get<QSpinBox>("took"), "48");
    CHECK(w.job().bench.took == std::vector<Took>{{ground, 48}});
    auto& better = w.get<QWidget>("better");
    QTest::mouseClick(better.findChildren<QAbstractButton*>().at(2), Qt::LeftButton);
    w.settle();
    CHECK(w.job().bench.trials.front().better == Better::Second);
    REQUIRE(w.desk().finish_job(Outcome::Good, ""));
    w.settle();
    w.show(Station::Logbook);
    CHECK(w.read().contains("brushed or rolled"));
    CHECK(w.read().contains("better: rolled"));
    w.window().show_shop();
    w.settle();
    auto& take = w.get<QPushButton>("take-brush");
    CHECK(take.text().contains("seen once"));
    const Minutes before = w.desk().plan().clock->hands_on;
    QTest::mouseClick(&take, Qt::LeftButton);
    w.settle();
    REQUIRE(w.desk().shop().paces.size() == 1);
    CHECK(w.desk().plan().clock->hands_on > before);
    CHECK(w.find<QPushButton>("take-brush") == nullptr);
    w.type(w.get<QDoubleSpinBox>("pace-brush"), "6");
    CHECK(w.desk().shop().paces.empty());
}

TEST_CASE("bench: out of order says what comes before; a step is left out with its reason; the day can end early") {
    Window w;
    w.show(Station::Bench);
    go_to(w, Work::Clear);
    w.click("done");
    CHECK(w.get<QLabel>("timer").text() == "Out of order");
    CHECK(w.job().bench.ticks.empty());
    QTest::qWait(bounce_ms);
    w.click("done");
    CHECK(w.job().bench.ticks.size() == 1);
    go_to(w, Work::Sand);
    w.click("something happened");
    w.type(w.get<QLineEdit>("why-left-out"), "came sanded");
    w.click("leave-it-out");
    REQUIRE(w.job().bench.skipped.size() == 1);
    CHECK(w.job().bench.skipped.front().reason == "came sanded");
    w.click("something happened");
    w.click("it-got-dark");
    const auto today = std::chrono::floor<std::chrono::days>(w.desk().now());
    for (const Slot& s : w.desk().plan().clock->slots)
        CHECK((s.done || std::chrono::floor<std::chrono::days>(s.start) > today));
}

TEST_CASE("bench: who said yes to the words stands with the proof") {
    Window w;
    w.desk().apply(tick(w.job(), w.desk().plan(), step_id(first_face, Work::Proof), w.desk().now()));
    w.settle();
    w.show(Station::Bench);
    go_to(w, Work::Proof);
    w.click("something happened");
    w.type(w.get<QLineEdit>("said-yes"), "the harbour master");
    CHECK(w.job().proof->by == "the harbour master");
    w.click("something happened");
    CHECK(w.read().contains("Yes by the harbour master"));
    w.show(Station::Method);
    CHECK(w.read().contains("the harbour master said yes"));
}

TEST_CASE("bench: a picture that a telephone puts into the watched folder is kept, and what lay there is left alone") {
    Window w;
    w.show(Station::Bench);
    const auto folder = w.folder() / "telephone";
    std::filesystem::create_directories(folder);
    const auto save = [&](const char* name, QRgb colour) {
        QImage picture(60, 40, QImage::Format_RGB32);
        picture.fill(colour);
        picture.save(QString::fromStdString((folder / name).string()));
    };
    save("old.png", 0xff112233);
    Shop shop = w.desk().shop();
    shop.photograph_folder = folder.string();
    w.desk().set_shop(shop);
    save("new.png", 0xff445566);
    REQUIRE(QTest::qWaitFor([&] { return w.job().bench.photographs.size() == 1; }, 20'000));
    CHECK(w.job().bench.photographs.front().step == w.desk().plan().bench->next()->id);
    CHECK(std::filesystem::exists(folder / "new.png"));
    shop.photograph_folder = (w.folder() / "nowhere").string();
    w.desk().set_shop(shop);
    QApplication::processEvents();
    CHECK(w.read().contains("cannot be watched"));
}

TEST_CASE(
    "bench: where another job's work comes first today, its bench is a press away, and nothing is lost on the way") {
    Window w;
    Job other = panel_job("OAR", "12", "6");
    other.title = "Oar rack";
    other.deadline = moment("2026-05-06T12:00");
    std::ofstream(w.folder() / "other.skarvel") << write_job(other);
    w.desk().mind_others();
    w.show(Station::Bench);
    REQUIRE(QTest::qWaitFor([&] { return w.find<QPushButton>("today-at-the-bench") != nullptr; }, 30'000));
    CHECK(w.get<QPushButton>("today-at-the-bench").text().contains("Oar rack"));
    w.desk().apply(tick(w.job(), w.desk().plan(), w.desk().plan().bench->next()->id, w.desk().now()));
    w.settle();
    REQUIRE(QTest::qWaitFor([&] { return w.find<QPushButton>("today-at-the-bench") != nullptr; }, 30'000));
    w.click("today-at-the-bench");
    CHECK(w.job().title == "Oar rack");
    CHECK(w.find<QWidget>("bench") != nullptr);
    CHECK(read_job(*read_file(w.folder() / "job.skarvel"))->bench.ticks.size() == 1);
}

TEST_CASE("clock: a cold day, or one read from a file, makes what dries then take longer; a fan gains time") {
    Window w;
    w.show(Station::Clock);
    w.click("group Days and room");
    const Moment usual = w.desk().plan().clock->ready;
    w.type(w.get<QSpinBox>("clock-tray.day-warm"), "5");
    w.type(w.get<QSpinBox>("clock-tray.day-damp"), "90");
    for (int day = 0; day < 6; ++day) {
        w.click("that day");
        auto& date = w.get<QDateEdit>("changed-day");
        date.setDate(date.date().addDays(1));
    }
    CHECK(w.desk().shop().weather.size() == 6);
    CHECK(w.desk().plan().clock->ready > usual);
    CHECK(w.read().contains("5 °C, 90 %"));
    QTest::mouseClick(&w.get<QAbstractButton>("fan"), Qt::LeftButton, {}, QPoint(8, 8));
    w.settle();
    CHECK(w.desk().shop().fan);
}
