// Film on the screen: prices and patterns in the shop, what a job's film is worth, what is spoilt, what is printed in
// one.
#include <QPushButton>
#include <QSpinBox>
#include <QTest>

#include "drawing/drawing.h"
#include "job/commands.h"
#include "job/face_commands.h"
#include "support_window.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

Shop with_roll(const char* film, int cents, Length sold_by) {
    Shop shop = usual_shop();
    shop.drawer = {{film, "", "a roll", 12_in, 600_in, true}};
    shop.drawer.front().price_cents = cents;
    shop.drawer.front().sold_by = sold_by;
    return shop;
}

// A sticker of letters with a rim, both printed.
Job sticker() {
    Job job = panel_job("TEA", "9", "6");
    making(job).way = Way::Decal;
    making(job).film = "printable";
    job = add_colour(job, {});
    Face& face = job.signs.front().faces.front();
    face.colours.front().paint.colour = "#1030c0";
    face.colours.front().paint.colour_name = "deep blue";
    face.colours.back().paint.colour = "#e0b020";
    face.colours.back().paint.colour_name = "straw";
    lettering(job).rim = Rim{};
    lettering(job).rim->width = measure("1/8");
    lettering(job).rim->colour = first_colour;
    lettering(job).rim->under = true;
    lettering(job).colour = face.colours.back().id;
    return job;
}

int pixels_like(const QImage& picture, const QColor& colour) {
    int count = 0;
    for (int y = 0; y < picture.height(); ++y) {
        for (int x = 0; x < picture.width(); ++x) {
            const QColor c = picture.pixelColor(x, y);
            const int off = std::abs(c.red() - colour.red()) + std::abs(c.green() - colour.green()) +
                            std::abs(c.blue() - colour.blue());
            count += off < 12 ? 1 : 0;
        }
    }
    return count;
}

}  // namespace

TEST_CASE("the price of film, what it is sold by and its pattern are edited in the shop") {
    Window w;
    w.desk().set_shop(with_roll("removable-matt", 0, 1_in));
    w.window().show_shop();
    w.settle();
    auto& price = w.get<QSpinBox>("price of film 1, in cents");
    price.setFocus();
    QTest::keyClick(&price, Qt::Key_A, Qt::ControlModifier);
    QTest::keyClicks(&price, "1200");
    QTest::keyClick(&price, Qt::Key_Return);
    w.settle();
    CHECK(w.desk().shop().drawer.front().price_cents == 1200);
    w.type(w.get<QLineEdit>("film 1 is sold by"), "10 ft");
    CHECK(w.desk().shop().drawer.front().sold_by == 120_in);
    // What is no length keeps what was there.
    w.type(w.get<QLineEdit>("film 1 is sold by"), "a roll");
    CHECK(w.desk().shop().drawer.front().sold_by == 120_in);
    CHECK(w.find<QLineEdit>("pattern of film 1 repeats along") == nullptr);
    w.click("film 1 has a direction");
    w.type(w.get<QLineEdit>("pattern of film 1 repeats along"), "6");
    w.type(w.get<QLineEdit>("pattern of film 1 repeats across"), "4 1/2");
    CHECK(w.desk().shop().drawer.front().repeat_along == 6_in);
    CHECK(w.desk().shop().drawer.front().repeat_across == 4.5_in);
    // It is kept.
    Desk again(std::shared_ptr<const Library>(&library(), [](const Library*) {}), {w.folder().path()}, std::nullopt);
    CHECK(again.shop().drawer == w.desk().shop().drawer);
}

TEST_CASE("Sections says what the film is worth, and what of it is spoilt and not yet booked") {
    Job job = porch_board();
    const Plan plan = plan_of(job);
    job = tick(job, plan, StepId{"1/cut/BOAT+HOUS"}, moment("2026-05-04T17:00"));
    Window w(job);
    w.desk().set_shop(with_roll("removable-matt", 1200, 120_in));
    w.show(Station::Sections);
    REQUIRE(w.desk().plan().film.size() == 1);
    CHECK(w.read().contains("worth, for the whole job"));
    CHECK(w.read().contains(QString::fromStdString(money(*w.desk().plan().film.front().worth_cents))));
    CHECK_FALSE(w.read().contains("film spoilt"));
    // One section: lost with the load that is still to be booked.
    w.click("spoilt HOUS");
    CHECK(w.read().contains("film spoilt"));
    CHECK(w.find<QPushButton>("book spoilt 1") == nullptr);
    const Length before = w.desk().shop().drawer.front().left;
    w.click("spoilt BOAT");
    const Length load = w.job().bench.spoilt.back().film_length;
    REQUIRE(load > Length{});
    w.click("book spoilt 2");
    CHECK(w.desk().shop().drawer.front().left == before - load);
    CHECK(w.find<QPushButton>("book spoilt 2") == nullptr);
}

TEST_CASE("letters and rim that are printed in one are shown in one, on the board and on the page") {
    Window w(sticker());
    w.show(Station::Sections);
    const QImage picture = w.window().findChild<Drawing*>()->grab().toImage();
    // Each colour twice: as it is laid, and as it lies on the page.
    CHECK(pixels_like(picture, QColor("#e0b020")) > 4'000);
    CHECK(pixels_like(picture, QColor("#1030c0")) > 1'000);
    // The colour that comes with it says so, and has no steps.
    w.desk().select_colour(1);
    w.settle();
    CHECK(w.read().contains("Printed, cut and laid in one with deep blue"));
    for (const Task& t : *w.desk().plan().tasks) CHECK_FALSE(t.id.name.starts_with("1.2/"));
}

TEST_CASE("the corner of a border is offered cut once, and each lay is numbered on the board") {
    Job job = panel_job("TIDE TABLES", "40", "30");
    job = add_art(job, {0, 0}, Corners{}, library().typefaces);
    lettering(job).sizing = Sizing::CapHeight;
    lettering(job).size = measure("3");
    making(job).film = "reusable-sheet";
    making(job).margin = measure("3/4");
    making(job).wishes.copies = 1;
    Window w(job);
    w.show(Station::Sections);
    const LoadsPlan& plan = *w.desk().face_plan()->cut.loads;
    CHECK(plan.repeats == 4);
    CHECK(lays_of(plan.sections).size() == plan.sections.size() + 3);
    CHECK(w.read().contains("turned over"));
    CHECK(check_layout(w) >= 0);
}
