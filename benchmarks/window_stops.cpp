// How long the window does not answer while work goes on: a timer that is due at once ticks as long as it does, and the
// longest time between two ticks is told for each work. Usage: window-stops
#include <QApplication>
#include <QElapsedTimer>
#include <QPushButton>
#include <QTimer>
#include <cstdio>
#include <filesystem>
#include <functional>

#include "files/job_file.h"
#include "job/commands.h"
#include "job/library.h"
#include "theme/theme.h"
#include "window/main_window.h"

using namespace skarvel;

namespace {

class Heart {
  public:
    Heart() {
        QObject::connect(&timer_, &QTimer::timeout, [this] { beat(); });
        timer_.start(0);
    }
    /// The longest stop while `begun` is done and until `ended` holds, in milliseconds.
    double longest(const std::function<void()>& begun, const std::function<bool()>& ended) {
        QApplication::processEvents();
        longest_ = 0;
        since_.start();
        begun();
        beat();
        QElapsedTimer all;
        all.start();
        while (!ended() && all.elapsed() < 120'000) QApplication::processEvents(QEventLoop::AllEvents, 1);
        beat();
        return static_cast<double>(longest_) / 1e6;
    }

  private:
    void beat() {
        longest_ = std::max(longest_, since_.nsecsElapsed());
        since_.restart();
    }
    QTimer timer_;
    QElapsedTimer since_;
    qint64 longest_ = 0;
};

// Twelve signs of some forty letters.
Job many_signs(const Job& one) {
    Job job = one;
    for (int i = 1; i < 12; ++i)
        job = copy_sign(job, 0, "when the tide runs out we pull together " + std::to_string(i));
    return job;
}

}  // namespace

int main(int argc, char** argv) {
    qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication app(argc, argv);
    const std::filesystem::path source(SKARVEL_SOURCE);
    const std::filesystem::path data = std::filesystem::temp_directory_path() / "skarvel-window-stops";
    std::filesystem::remove_all(data);
    std::filesystem::create_directories(data);
    Theme::load(source / "assets");
    Desk desk(std::make_shared<const Library>(read_library(source / "assets").value()), {data},
              read_moment("2026-05-04T17:40").value());
    MainWindow window(desk);
    window.open_path(source / "demo/crew-height-ruler.skarvel");
    window.show();
    desk.wait_for_plan();
    QApplication::processEvents();
    Heart heart;
    const auto told = [](const char* what, double ms) { std::printf("%-40s %6.0f ms\n", what, ms); };

    const Job saying = read_job(read_file(source / "demo/mess-room-saying.skarvel").value()).value();
    told("planning twelve signs for the first time",
         heart.longest([&] { desk.apply(many_signs(saying)); }, [&] { return desk.current(); }));
    told("writing their files", heart.longest([&] { (void)desk.export_to(data / "files"); }, [] { return true; }));
    desk.undo();
    desk.wait_for_plan();
    window.show_station(Station::Sections);
    QApplication::processEvents();
    const auto button = [&](const char* name) {
        auto* found = window.findChild<QPushButton*>(name);
        if (found == nullptr) std::printf("nothing is called %s\n", name);
        return found;
    };
    if (auto* group = button("group Other ways to cut it")) group->click();
    QApplication::processEvents();
    if (auto* seek = button("look for other ways")) {
        const QString idle = seek->text();
        told("other ways to cut the height ruler",
             heart.longest([&] { seek->click(); }, [&] { return seek->text() == idle; }));
    }
    told("another theme", heart.longest([&] { window.set_look(true, 100); }, [] { return true; }));
    told("text at 150 %", heart.longest([&] { window.set_look(true, 150); }, [] { return true; }));
    desk.close_without_copy();
    std::filesystem::remove_all(data);
    return 0;
}
