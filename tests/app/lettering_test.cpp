// Lettering in the window: what a maker does there, and what they then see.
#include <QComboBox>
#include <QPushButton>
#include <QTest>

#include "support_window.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

Job panel_job(const std::string& words) {
    Job job = porch_board();
    Blank& b = job.signs.front().blank;
    b.kind = Kind::Panel;
    b.stock.clear();
    b.length = measure("30");
    b.width = measure("20");
    b.stands = Stands::Level;
    b.margin = measure("1");
    b.clear.clear();
    Text& t = lettering(job);
    t.words = words;
    t.arrangement = Arrangement::Level;
    t.letter_gap = measure("0");
    return job;
}

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
    const auto placed = [&] { return w.desk().face_plan()->lettering->texts.at(1).ink; };
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
    CHECK(w.desk().plan().faces.size() == 2);
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
    CHECK_FALSE(w.desk().face_plan()->pieces->empty());
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
                           "group Your words in each typeface"})
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
