// skarvel: the window.
#include <QAbstractButton>
#include <QApplication>
#include <QCommandLineParser>
#include <QScreen>
#include <QScrollArea>
#include <QScrollBar>
#include <QSettings>
#include <QStandardPaths>
#include <QTimer>
#include <future>
#include <iostream>
#include <memory>
#include <string_view>

#include "files/job_file.h"
#include "theme/theme.h"
#include "theme/words.h"
#include "window/installed.h"
#include "window/main_window.h"
#include "window/rack.h"
#include "window/sheets_view.h"

using namespace skarvel;

namespace {

std::filesystem::path data_folder(const QString& named) {
    return named.isEmpty() ? QStandardPaths::writableLocation(QStandardPaths::AppDataLocation).toStdString()
                           : named.toStdString();
}

}  // namespace

int main(int argc, char** argv) {
    // Typefaces and tables are read while Qt starts.
    const std::filesystem::path assets = find_assets(SKARVEL_SOURCE_ASSETS);
    std::future<Expected<Library>> reading = std::async(std::launch::async, read_library, assets);
    // What only says something needs no display.
    const auto only_says = [&](const char* argument) {
        const std::string_view a(argument);
        return a == "--help" || a == "-h" || a == "--help-all" || a == "--version" || a == "-v";
    };
    const bool no_window = std::any_of(argv + 1, argv + argc, only_says);
    const std::unique_ptr<QCoreApplication> made(no_window ? new QCoreApplication(argc, argv)
                                                           : new QApplication(argc, argv));
    QCoreApplication& app = *made;
    // Not before the tables: those are waited for first.
    std::future<void> looking = std::async(std::launch::async, look_for_typefaces);
    QCoreApplication::setApplicationName("skarvel");
    QCoreApplication::setApplicationVersion("0.1.0");
    // What the options are for is read by nobody else; other sentences come with the library.
    if (no_window) speak_from(read_sentences(assets).value_or(Catalogue{}), {});
    QCommandLineParser parser;
    parser.setApplicationDescription(in_words("command.about"));
    parser.addHelpOption();
    parser.addVersionOption();
    parser.addPositionalArgument("job", in_words("command.job"), "[job]");
    const QCommandLineOption at("at", in_words("command.at"), "moment");
    const QCommandLineOption data("data", in_words("command.data"), "folder");
    const QCommandLineOption picture("picture", in_words("command.picture"), "file");
    const QCommandLineOption station("station", in_words("command.station"), "station", "1");
    const QCommandLineOption sign("sign", in_words("command.sign"), "number", "1");
    const QCommandLineOption size("size", in_words("command.size"), "WxH", "1280x800");
    const QCommandLineOption night("night", in_words("command.night"));
    const QCommandLineOption text("text", in_words("command.text"), "percent");
    const QCommandLineOption close_up("close-up", in_words("command.close-up"));
    const QCommandLineOption done("done", in_words("command.done"), "steps", "0");
    // A person who types and is gone: the crash test needs a program that is killed with unsaved words.
    QCommandLineOption typed("type-for-test", in_words("command.type-for-test"), "words");
    typed.setFlags(QCommandLineOption::HiddenFromHelp);
    QCommandLineOption painted("end-when-painted", in_words("command.end-when-painted"));
    painted.setFlags(QCommandLineOption::HiddenFromHelp);
    QCommandLineOption finishing("finish-for-picture", in_words("command.finish-for-picture"), "note");
    finishing.setFlags(QCommandLineOption::HiddenFromHelp);
    QCommandLineOption then("then", in_words("command.then"), "moment");
    then.setFlags(QCommandLineOption::HiddenFromHelp);
    QCommandLineOption press("press", in_words("command.press"), "name");
    press.setFlags(QCommandLineOption::HiddenFromHelp);
    QCommandLineOption thing("thing", in_words("command.thing"), "number");
    thing.setFlags(QCommandLineOption::HiddenFromHelp);
    QCommandLineOption step_back("step-back", in_words("command.step-back"));
    parser.addOptions({typed, painted, finishing, then, press, thing, step_back});
    parser.addOptions({sign, at, data, picture, station, size, night, text, close_up, done});
    parser.process(app);

    QSettings settings(QString::fromStdString((data_folder(parser.value(data)) / "window.ini").string()),
                       QSettings::IniFormat);
    auto library = reading.get();
    if (!library) {
        std::cerr << "skarvel: " << library.error().what.id << " " << library.error().where.place << '\n';
        return 1;
    }
    speak_from(library->catalogue, {});
    std::optional<Moment> moment;
    if (parser.isSet(at)) {
        const auto read = read_moment(parser.value(at).toStdString());
        if (!read) {
            std::cerr << "skarvel: " << in_words("command.at-wants").toStdString() << '\n';
            return 2;
        }
        moment = *read;
    }
    Desk desk(std::make_shared<const Library>(std::move(*library)), {data_folder(parser.value(data))}, moment);
    // Planned while the window is put together, and what it looks like is read.
    const QStringList named = parser.positionalArguments();
    const std::filesystem::path path = named.isEmpty() ? std::string() : named.front().toStdString();
    const auto opened = named.isEmpty() ? std::nullopt : std::optional(desk.open(path));
    const int percent = parser.isSet(text) ? parser.value(text).toInt() : settings.value("text", 0).toInt();
    looking.get();
    Theme::load(assets);
    Theme::set(parser.isSet(night) || settings.value("night", false).toBool(),
               percent == 125 || percent == 150 ? percent : 100);
    MainWindow window(desk);
    // Until a size of text is chosen it goes by the room.
    if (percent == 0) window.set_look(Theme::night(), 0);
    const bool own_place = !parser.isSet(picture) && !parser.isSet(size) && !parser.isSet(painted);
    QObject::connect(&app, &QCoreApplication::aboutToQuit, [&] {
        settings.setValue("night", Theme::night());
        settings.setValue("text", window.text_chosen());
        if (own_place) settings.setValue("place", window.saveGeometry());
    });
    window.drawing().match_screen(settings.value("dots_per_mm", 0).toDouble());
    QObject::connect(&window.drawing(), &Drawing::screen_matched, &window,
                     [&](double dots) { settings.setValue("dots_per_mm", dots); });
    const QStringList wide = parser.value(size).split('x');
    if (wide.size() == 2) window.resize(wide[0].toInt(), wide[1].toInt());
    // Where it was the last time, and the first time no larger than the screen leaves room for it and its title bar.
    if (own_place && !window.restoreGeometry(settings.value("place").toByteArray())) {
        const QSize room = window.screen()->availableGeometry().size() - QSize(0, 40);
        window.resize(window.size().boundedTo(room));
    }
    if (opened) window.show_opened(path, *opened);
    if (parser.isSet(typed)) {
        Job job = desk.job();
        job.signs.front().faces.front().lettering.main().words = parser.value(typed).toStdString();
        desk.apply(std::move(job));
    }
    for (int i = 0; i < parser.value(done).toInt(); ++i) {
        desk.wait_for_plan();
        if (const Step* next = desk.plan().bench->next())
            desk.apply(tick(desk.job(), desk.plan(), next->id, next->start + next->hands_on, next->start));
    }
    if (const auto later = read_moment(parser.value(then).toStdString())) desk.pretend(*later);
    if (parser.isSet(finishing)) (void)desk.finish_job(Outcome::Good, parser.value(finishing).toStdString());
    if (parser.value(sign) == "all") {
        desk.show_together(true);
    } else if (parser.isSet(sign)) {
        desk.select(static_cast<std::size_t>(std::max(1, parser.value(sign).toInt()) - 1));
    }
    const QString where = parser.value(station);
    if (where == "shop") {
        window.show_shop();
    } else if (where == "rack") {
        window.show_rack();
    } else if (where == "sheets") {
        window.show_sheets();
    } else if (where == "help") {
        window.help();
    } else {
        window.show_station(static_cast<Station>(std::clamp(where.toInt(), 1, 7) - 1));
    }
    if (parser.isSet(thing)) {
        const auto at = static_cast<std::size_t>(std::max(1, parser.value(thing).toInt()) - 1);
        const std::size_t texts = desk.face().lettering.texts.size();
        if (at < texts) {
            desk.select_text(at);
        } else {
            desk.select_art(at - texts);
        }
    }
    if (parser.isSet(close_up)) window.drawing().set_close_up(true);
    if (parser.isSet(step_back)) window.drawing().set_step_back(true);
    const bool nothing_wanted = named.isEmpty() && !parser.isSet(station) && !parser.isSet(typed);
    if (desk.first_start() && nothing_wanted) window.show_first_start();
    window.show();
    if (parser.isSet(painted)) {
        QTimer::singleShot(0, &window, [&] {
            window.repaint();
            QGuiApplication::sync();
            desk.close_without_copy();
            std::_Exit(0);  // what follows is no part of starting
        });
        return QApplication::exec();
    }
    // Once there is something to see.
    if (!parser.isSet(picture)) QTimer::singleShot(0, &window, [&desk] { desk.mind_others(); });
    for (const QString& name : parser.values(press)) {
        QApplication::processEvents();
        for (auto* b : window.findChildren<QAbstractButton*>()) {
            if (b->objectName() != name || !b->isVisible()) continue;
            b->click();
            QApplication::processEvents();
            for (QWidget* w = b->parentWidget(); w != nullptr; w = w->parentWidget()) {
                if (auto* area = qobject_cast<QScrollArea*>(w)) {
                    // So that what it opened is seen as well.
                    area->verticalScrollBar()->setValue(b->mapTo(area->widget(), QPoint()).y() - 40);
                    break;
                }
            }
            break;
        }
    }
    if (!parser.isSet(picture)) window.offer_leftovers();
    if (parser.isSet(picture)) {
        QTimer::singleShot(700, &window, [&] {
            desk.wait_for_plan();
            const auto* rack = window.findChild<Rack*>();
            const auto* pages = window.findChild<SheetsView*>();
            do QApplication::processEvents();
            while ((rack != nullptr && rack->filling()) || (pages != nullptr && pages->drawing()));
            // Nobody points at anything in a picture.
            for (QWidget* w : window.findChildren<QWidget*>()) w->setAttribute(Qt::WA_UnderMouse, false);
            if (!window.grab().save(parser.value(picture)))
                std::cerr << "skarvel: " << in_words("command.no-picture").toStdString() << '\n';
            desk.close_without_copy();
            QApplication::exit(0);
        });
    }
    return QApplication::exec();
}
