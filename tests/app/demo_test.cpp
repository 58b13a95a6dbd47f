// The demo jobs in the real window: each kind of blank at every size, by day and by night.
#include <QPlainTextEdit>
#include <set>

#include "drawing/face_painter.h"
#include "support_window.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

std::vector<std::filesystem::path> demo_files() {
    std::vector<std::filesystem::path> files;
    for (const auto& entry : std::filesystem::directory_iterator(std::filesystem::path(SKARVEL_SOURCE) / "demo")) {
        if (entry.path().extension() == ".skarvel") files.push_back(entry.path());
    }
    std::sort(files.begin(), files.end());
    return files;
}

Job demo(const std::string& name) {
    return *read_job(*read_file(std::filesystem::path(SKARVEL_SOURCE) / "demo" / (name + ".skarvel")));
}

// Nothing runs out of the drawing on its right.
bool reaches_the_right_edge(Window& w) {
    const QImage drawn = w.window().drawing().grab().toImage();
    for (int y = 100; y < drawn.height(); ++y) {
        for (int x = drawn.width() - 6; x < drawn.width(); ++x) {
            if (drawn.pixel(x, y) != drawn.pixel(drawn.width() - 1, 100)) return true;
        }
    }
    return false;
}

}  // namespace

TEST_CASE("every demo job is read, planned without a stop, and drawn without overlaps at every size") {
    REQUIRE(demo_files().size() == 9);
    CHECK(read_shop(*read_file(std::filesystem::path(SKARVEL_SOURCE) / "demo/shop.json")));
    for (const auto& file : demo_files()) {
        const auto job = read_job(*read_file(file));
        REQUIRE(job);
        for (const auto& [size, percent, night] : {std::tuple{QSize(1280, 800), 100, false},
                                                   {QSize(1024, 700), 100, true},
                                                   {QSize(1280, 800), 150, false}}) {
            Window w(*job, size, night, percent);
            for (const Station station : {Station::Blank, Station::Lettering, Station::Sections}) {
                w.show(station);
                INFO(file.stem().string()
                     << " at " << size.width() << ", " << percent << " %, station " << static_cast<int>(station) + 1);
                check_layout(w);
                CHECK_FALSE((station == Station::Sections && reaches_the_right_edge(w)));
            }
            for (const Problem& p : w.desk().plan().problems) {
                INFO(file.stem().string() << ": " << w.desk().say(p.what));
                CHECK(p.mark != Mark::Stop);
            }
        }
    }
}

TEST_CASE("the flags of seams hide no ink and none another, lying or standing") {
    const Window w;  // for the application's typefaces and colours
    std::size_t flags = 0;
    for (const auto& file : demo_files()) {
        INFO(file.stem().string());
        const Job job = *read_job(*read_file(file));
        const Plan plan = plan_of(job);
        const ColourPlan& colour = plan.colours.front();
        const Box& board = colour.face->blank->face;
        QImage drawn(1200, 900, QImage::Format_RGB32);
        for (const QRectF& picture : {QRectF(20, 20, 800, 300), QRectF(20, 20, 300, 600)}) {
            const FaceView view = FaceView::within(picture, board, board);
            QPainter p(&drawn);
            const Sign& sign = job.signs.front();
            const auto rooms = FacePainter(sign, sign.faces.front(), colour, view).seams(p);
            CHECK(rooms.size() == colour.cut.loads->seams.size());
            for (std::size_t i = 0; i < rooms.size(); ++i) {
                for (const Piece& piece : *colour.cut.pieces)
                    CHECK_FALSE(view.rect(piece.shape.bounds()).intersects(rooms[i]));
                for (std::size_t j = 0; j < i; ++j) CHECK_FALSE(rooms[i].intersects(rooms[j]));
            }
            flags += rooms.size();
        }
    }
    CHECK(flags > 20);
}

TEST_CASE("a job of several signs shows all of them together, and a click takes one in hand") {
    Window w(demo("four-arrows"));
    auto* row = w.window().findChild<SignsRow*>();
    REQUIRE(row->isVisible());
    QTest::mouseClick(row, Qt::LeftButton, {}, {row->width() * 55 / 100, row->height() / 2});
    w.settle();
    CHECK((w.desk().sign_at() > 0 || w.desk().together()));
    w.desk().show_together(true);
    w.settle();
    auto* together = w.window().findChild<Together*>();
    REQUIRE(together->isVisible());
    const int before = check_layout(w);
    CHECK(before >= 5);  // four gaps and the height of the post
    // Somewhere on the post lies each sign.
    std::set<std::size_t> taken;
    for (int y = 60; y < together->height(); y += 8) {
        for (const int share : {36, 42, 48}) {
            w.desk().show_together(true);
            QTest::mouseClick(together, Qt::LeftButton, {}, {together->width() * share / 100, y});
            if (!w.desk().together()) taken.insert(w.desk().sign_at());
        }
    }
    CHECK(taken.size() == 4);
    Job off = w.job();
    off.post.reset();
    w.desk().apply(off);
    w.desk().show_together(true);
    w.settle();
    CHECK(together->isVisible());  // side by side now
}

TEST_CASE("the ticket and the trays follow the sign at hand") {
    Window w(demo("four-arrows"));
    w.desk().select(2);
    w.settle();
    w.show(Station::Lettering);
    CHECK(w.window().findChild<QPlainTextEdit*>("words")->toPlainText() == "CHANDLERY");
    w.show(Station::Method);
    CHECK(w.desk().face_plan()->face->at.sign == 2);
    // Signing the proof signs it for all of them: it is one proof.
    w.click("I have read every word: sign");
    CHECK(w.desk().plan().proof_signed);
    w.show(Station::Clock);
    CHECK(w.read().contains("begin by"));
    w.show(Station::Bench);
    CHECK(w.desk().plan().bench->done() == 4);
    // A sign that is taken out takes the hand to one that is there.
    w.show(Station::Blank);
    w.desk().apply(remove_sign(w.job(), 3));
    w.desk().select(2);
    w.desk().apply(remove_sign(w.job(), 2));
    w.settle();
    CHECK(w.desk().sign_at() == 1);
    CHECK(w.desk().face_plan() != nullptr);
}

TEST_CASE("forty signs are scrolled through in their row") {
    Job job = demo("four-arrows");
    job.post.reset();
    while (job.signs.size() < 40)
        job = copy_sign(job, job.signs.size() - 1, "SIGN " + std::to_string(job.signs.size() + 1));
    Window w(job);
    auto* row = w.window().findChild<SignsRow*>();
    row->setFocus();
    for (int i = 0; i < 39; ++i) QTest::keyClick(row, Qt::Key_Right);
    w.settle();
    CHECK(w.desk().sign_at() == 39);
    CHECK(label_of(w.desk().sign()) == "SIGN 40");
    w.show(Station::Lettering);
    auto* words = w.window().findChild<QPlainTextEdit*>("words");
    words->setFocus();
    QTest::keyClicks(words, "X");
    w.settle();
    CHECK(w.job().signs[39].faces.front().lettering.main().words.find('X') != std::string::npos);
    CHECK(w.job().signs[38].faces.front().lettering.main().words == "SIGN 39");
}
