// Lettering in the window: what a maker does there, and what they then see.
#include <QCheckBox>
#include <QComboBox>
#include <QMouseEvent>
#include <QPushButton>
#include <QSlider>
#include <QTest>

#include "support_window.h"
#include "window/trace_dialog.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

std::vector<std::string> lines(const Window& w, const Job& job) {
    (void)w;
    std::vector<std::string> all;
    for (const Text& t : job.signs.front().faces.front().lettering.texts) all.push_back(t.words);
    return all;
}

}  // namespace

TEST_CASE("a saying is composed: words are marked, lines proposed, one click takes them, one undo gives them back") {
    Window w(panel_job("PULL TOGETHER THEN REST TOGETHER"));
    w.show(Station::Lettering);
    w.click("group Compose a saying");
    w.click("stress TOGETHER");
    w.click("propose");
    auto& list = w.get<QWidget>("proposals");
    REQUIRE(list.height() > 300);  // three of them at least
    const Job before = w.job();
    QTest::mouseClick(&list, Qt::LeftButton, {}, QPoint(80, 60));
    w.settle();
    const auto now = lines(w, w.job());
    CHECK(now.size() >= 2);
    std::string joined;
    for (const std::string& line : now) joined += (joined.empty() ? "" : " ") + line;
    CHECK(joined == "PULL TOGETHER THEN REST TOGETHER");
    CHECK(w.find<QPushButton>("thing 2") != nullptr);
    QTest::keyClick(&w.window(), Qt::Key_Z, Qt::ControlModifier);
    w.settle();
    CHECK(w.job() == before);
}

TEST_CASE("texts are added, dragged to the centre line, nudged by keys, locked and removed") {
    Window w(panel_job("TEA"));
    w.show(Station::Lettering);
    w.click("add text");
    QTest::keyClicks(&w.get<QWidget>("words"), "OARS");
    w.settle();
    REQUIRE(lines(w, w.job()) == std::vector<std::string>{"TEA", "OARS"});
    w.choose("size", 1);
    w.type(w.get<QLineEdit>("cap height"), "1 1/2");
    auto& drawing = w.get<QWidget>("drawing");
    drawing.setFocus();
    w.settle();
    const auto placed = [&] { return w.desk().face_plan()->face->lettering->texts.at(1).ink; };
    const Box before = placed();
    QTest::keyClick(&drawing, Qt::Key_Right);
    w.settle();
    CHECK(placed().low.x - before.low.x == Approx(to_grid(0.0625_in)).margin(to_grid(0.04_in)));
    QTest::keyClick(&drawing, Qt::Key_Up, Qt::ShiftModifier);
    w.settle();
    CHECK(w.sign().faces.front().lettering.texts[1].up.has_value());
    Job locked = w.job();
    locked.signs[0].faces[0].lettering.texts[1].locked = true;
    w.desk().apply(locked);
    w.settle();
    QTest::keyClick(&drawing, Qt::Key_Right);
    w.settle();
    CHECK(w.job() == locked);
    w.click("remove thing");
    CHECK(lines(w, w.job()) == std::vector<std::string>{"TEA"});
}

TEST_CASE("a colour is added with a rim; Sections shows one colour at a time") {
    Window w(panel_job("MOOR HERE"));
    w.show(Station::Lettering);
    w.click("group Colours and rims");
    w.click("rim: behind");
    REQUIRE(w.sign().faces.front().colours.size() == 2);
    REQUIRE(lettering(const_cast<Job&>(w.job())).rim);
    CHECK(w.desk().plan().colours.size() == 2);
    w.show(Station::Sections);
    auto& colour = w.get<QComboBox>("colour at hand");
    CHECK(colour.isVisible());
    const QString first = w.read();
    w.choose("colour at hand", 1);
    Q_EMIT colour.activated(1);
    w.settle();
    CHECK(w.desk().face_plan()->colour == 1);
}

TEST_CASE("a month board and a height ruler are added by a click, and their fields change them") {
    Window w(panel_job(""));
    w.show(Station::Lettering);
    w.click("group Add to the face");
    w.click("add Month board");
    REQUIRE(w.sign().faces.front().art.size() == 1);
    w.type(w.get<QLineEdit>("title"), "TIDES");
    CHECK(std::get<MonthBoard>(w.sign().faces.front().art[0].kind).title == "TIDES");
    CHECK_FALSE(w.desk().face_plan()->cut.pieces->empty());
    w.click("remove thing");
    CHECK(w.sign().faces.front().art.empty());
}

TEST_CASE("step back and as cut are a key away, and nothing overlaps with several texts") {
    Job job = panel_job("PULL TOGETHER");
    job = add_text(job, {0, 0});
    job.signs[0].faces[0].lettering.texts[1].words = "REST";
    Window w(job);
    w.show(Station::Lettering);
    auto& drawing = w.get<Drawing>("drawing");
    drawing.setFocus();
    const QImage finished = drawing.grab().toImage();
    QTest::keyClick(&drawing, Qt::Key_V);
    CHECK(drawing.grab().toImage() != finished);
    QTest::keyClick(&drawing, Qt::Key_V);
    QTest::keyClick(&drawing, Qt::Key_S);
    CHECK(drawing.step_back());
    CHECK(drawing.grab().toImage() != finished);
    QTest::keyClick(&drawing, Qt::Key_Escape);
    CHECK_FALSE(drawing.step_back());
    for (const char* id : {"group Shape of the letters", "group Where it stands", "group Read from where",
                           "group Words in each typeface"})
        w.click(id);
    check_layout(w);
}

TEST_CASE("a drawing that cannot be read changes nothing and says why") {
    Window w(panel_job("TEA"));
    w.show(Station::Lettering);
    const Job before = w.job();
    const auto write = [&](const char* name, const std::string& bytes) {
        const auto path = w.folder() / name;
        FILE* f = fopen(path.c_str(), "wb");
        fwrite(bytes.data(), 1, bytes.size(), f);
        fclose(f);
        return path;
    };
    QStringList said;
    QObject::connect(&w.desk(), &Desk::said, &w.window(), [&](const QString& m, bool) { said << m; });
    CHECK_FALSE(w.desk().read_drawing(write("words.svg", "only words")));
    CHECK_FALSE(w.desk().read_drawing(write("broken.png", "\x89PNG broken")));
    CHECK_FALSE(w.desk().read_drawing(w.folder() / "none.svg"));
    CHECK(said.size() == 3);
    CHECK(w.job() == before);
    CHECK(w.desk().read_drawing(write("gull.svg",
                                      "<svg xmlns='http://www.w3.org/2000/svg' width='900mm' height='90mm' viewBox='0 "
                                      "0 10 1'><rect width='10' height='1'/></svg>")));
    REQUIRE(w.sign().faces.front().art.size() == 1);
    // As wide as the room is, since it came in wider.
    CHECK(std::get<PlacedDrawing>(w.sign().faces.front().art[0].kind).size.value <= 28_in);
}

TEST_CASE("a size that cannot be leaves the old one, says so at the tray, and the nearest is a click away") {
    Window w(panel_job("TEA ROOM"));
    w.show(Station::Lettering);
    w.choose("size", 1);
    w.type(w.get<QLineEdit>("cap height"), "1");
    const Job before = w.job();
    w.type(w.get<QLineEdit>("cap height"), "15");
    CHECK(w.job() == before);
    CHECK(w.read().contains("cannot be"));
    w.click("take nearest");
    const Length nearest = lettering(const_cast<Job&>(w.job())).size.value;
    CHECK(nearest > 1_in);
    CHECK(nearest < 15_in);
    CHECK(w.find<QPushButton>("take nearest") == nullptr);
    CHECK(w.desk().plan().mark_of(Station::Lettering) != Mark::Stop);
    // Who wants it all the same gets it, with its warning.
    w.type(w.get<QLineEdit>("cap height"), "15");
    w.click("use all the same");
    CHECK(lettering(const_cast<Job&>(w.job())).size.value == 15_in);
    CHECK(w.desk().plan().mark_of(Station::Lettering) == Mark::Stop);
}

TEST_CASE("a text is dragged with the mouse: it snaps to the centre line, hangs there, and one undo gives it back") {
    Job job = panel_job("TEA");
    job = add_text(job, {0, 0});
    Text& t = job.signs[0].faces[0].lettering.texts[1];
    t.words = "OARS";
    t.sizing = Sizing::CapHeight;
    t.size = measure("1");
    t.across = Hang{"face", Side::Low, Side::Low, measure("2")};
    t.up = Hang{"face", Side::Low, Side::Low, measure("2")};
    job.signs[0].faces[0].lettering.texts[0].sizing = Sizing::CapHeight;
    job.signs[0].faces[0].lettering.texts[0].size = measure("3");
    Window w(job);
    w.show(Station::Lettering);
    auto& drawing = w.get<Drawing>("drawing");
    const auto ink = [&] { return w.desk().face_plan()->face->lettering->texts.at(1).ink; };
    const Job before = w.job();
    const Box face = w.desk().face_plan()->face->blank->face;
    const auto to_screen = [&](Point p) { return drawing.where(p).toPoint(); };
    const Point from{(ink().low.x + ink().high.x) / 2, (ink().low.y + ink().high.y) / 2};
    // To within a few pixels of the middle of the face.
    const Point to{(face.low.x + face.high.x) / 2 + to_grid(0.125_in), from.y + to_grid(3_in)};
    QTest::mousePress(&drawing, Qt::LeftButton, {}, to_screen(from));
    for (int i = 1; i <= 8; ++i) {
        const QPoint at = to_screen(from) + (to_screen(to) - to_screen(from)) * i / 8;
        QMouseEvent move(QEvent::MouseMove, at, drawing.mapToGlobal(at), Qt::NoButton, Qt::LeftButton, {});
        QApplication::sendEvent(&drawing, &move);
    }
    QTest::mouseRelease(&drawing, Qt::LeftButton, {}, to_screen(to));
    w.settle();
    CHECK(std::abs(ink().low.x + ink().high.x - face.low.x - face.high.x) <= 2);
    CHECK(inches(ink().low.y) == Approx(5).margin(0.2));
    const Hang across = *w.sign().faces[0].lettering.texts[1].across;
    CHECK(across.its == Side::Middle);
    // The arrows stand on the drawing, with the distance to be typed into.
    w.type(w.callout("hang-up"), "6");
    CHECK(inches(ink().low.y) == Approx(6).margin(0.6));
    QTest::keyClick(&w.window(), Qt::Key_Z, Qt::ControlModifier);
    QTest::keyClick(&w.window(), Qt::Key_Z, Qt::ControlModifier);
    w.settle();
    CHECK(w.job() == before);
}

TEST_CASE("other forms of letters are ticked, and the words change") {
    Window w(panel_job("boathouse"));
    w.show(Station::Lettering);
    const auto letters = w.desk().face_plan()->face->lettering->letters;
    w.click("group Other forms of letters");
    auto ticks = w.get<QWidget>("alternates").findChildren<QCheckBox*>();
    REQUIRE_FALSE(ticks.empty());
    QTest::mouseClick(ticks.front(), Qt::LeftButton);
    w.settle();
    CHECK(lettering(const_cast<Job&>(w.job())).alternates.size() == 1);
    CHECK(w.desk().face_plan()->face->lettering->letters != letters);
    check_layout(w);
}

TEST_CASE("a picture is traced beside the window, and can only be taken when what is shown is of the last wish") {
    application();
    GreyPicture disc{400, 400, std::vector<unsigned char>(160'000, 255)};
    for (int y = 0; y < 400; ++y) {
        for (int x = 0; x < 400; ++x) {
            if ((x - 200) * (x - 200) + (y - 200) * (y - 200) < 150 * 150)
                disc.pixels[static_cast<std::size_t>(y * 400 + x)] = static_cast<unsigned char>(x < 200 ? 90 : 160);
        }
    }
    TraceDialog dialog(disc, "disc.png");
    dialog.show();
    const auto take = [&] {
        for (auto* b : dialog.findChildren<QPushButton*>()) {
            if (b->text() == "Put it on the face") return b;
        }
        throw std::runtime_error("no way to take it");
    }();
    CHECK(QTest::qWaitFor([&] { return take->isEnabled(); }, 20'000));
    const double half = bounds_of(*dialog.traced()).width();
    for (QSlider* s : dialog.findChildren<QSlider*>()) {
        if (s->accessibleName() == "darker than this is ink") s->setValue(200);
    }
    CHECK_FALSE(take->isEnabled());
    CHECK(QTest::qWaitFor([&] { return take->isEnabled(); }, 20'000));
    const Box whole = bounds_of(*dialog.traced());
    CHECK(static_cast<double>(whole.width()) / static_cast<double>(whole.height()) == Approx(1).margin(0.01));
    CHECK(half == Approx(static_cast<double>(whole.width())));  // both are as wide as tracing makes them
    for (QSlider* s : dialog.findChildren<QSlider*>()) {
        if (s->accessibleName() == "darker than this is ink") s->setValue(1);
    }
    CHECK_FALSE(QTest::qWaitFor([&] { return take->isEnabled(); }, 1'000));
}

TEST_CASE("favourites come first, a sample is taken by a click, and a typeface installed later can be used") {
    const Folder there;
    std::filesystem::create_directory(there / "typefaces");
    std::ofstream(there / "fonts.conf") << "<?xml version=\"1.0\"?><fontconfig><dir>" << (there / "typefaces").string()
                                        << "</dir><cachedir>" << (there / "cache").string()
                                        << "</cachedir></fontconfig>";
    qputenv("FONTCONFIG_FILE", QByteArray::fromStdString((there / "fonts.conf").string()));
    Window w(panel_job("TEA"));
    w.show(Station::Lettering);
    const auto typeface_now = [&] { return w.job().signs[0].faces[0].lettering.texts[0].typeface; };
    w.click("group Words in each typeface");
    // A sample far down is taken by a click on it, and back again by undo.
    auto& samples = w.get<QWidget>("samples");
    const auto& all = w.desk().library().typefaces;
    const int row = samples.height() / static_cast<int>(all.size());
    const std::size_t which = typeface_now() == all[5].name ? 6 : 5;
    QTest::mouseClick(&samples, Qt::LeftButton, {}, QPoint(30, static_cast<int>(which) * row + row / 2));
    w.settle();
    CHECK(typeface_now() == all[which].name);
    // It becomes a favourite, and stands first from then on.
    const QString name = QString::fromStdString(all[which].name.family + " " + all[which].name.style);
    auto& list = w.get<QComboBox>("typeface");
    CHECK(list.itemText(0) != "★ " + name);
    w.click("favourite");
    CHECK(list.itemText(0) == "★ " + name);
    CHECK(list.currentText() == "★ " + name);
    w.click("favourite");
    CHECK_FALSE(list.itemText(0).startsWith("★"));
    // Installed while the window is open: in the list when that is opened, and used when it is picked.
    auto& installed = w.get<QComboBox>("installed typefaces");
    CHECK(installed.count() == 0);
    std::filesystem::copy(std::filesystem::path(SKARVEL_SOURCE) / "assets/fonts/interface/PlexSans-Regular.ttf",
                          there / "typefaces" / "Later.ttf");
    installed.showPopup();
    w.settle();
    REQUIRE(installed.count() == 1);
    installed.hidePopup();
    const std::size_t before = w.desk().library().typefaces.size();
    installed.setFocus();
    QTest::keyClick(&installed, Qt::Key_Down);
    w.settle();
    CHECK(w.desk().library().typefaces.size() == before + 1);
    CHECK(typeface_now() == w.desk().library().typefaces.back().name);
    CHECK(list.currentText() == QString::fromStdString(typeface_now().family + " " + typeface_now().style));
    qunsetenv("FONTCONFIG_FILE");
}
