// What the window says: slips that wait for one another, alarms by every way that the machine has, two windows at one
// job.
#include "window/notices.h"
#include "job/commands.h"
#include "support_window.h"
#include "window/alarms.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

struct Heard {
    int knocks = 0;
    QStringList notices, said;
    bool awake = false;
};

// Records what the machine would have done.
class StandIn : public Caller {
  public:
    explicit StandIn(Heard& heard) : heard_(heard) {}
    void knock() override { ++heard_.knocks; }
    void notice(const QString&, const QString& words, bool) override { heard_.notices << words; }
    void say(const QString& words) override { heard_.said << words; }
    void keep_awake(bool awake) override { heard_.awake = awake; }

  private:
    Heard& heard_;
};

}  // namespace

TEST_CASE("notices: the second of two is as readable as the first, questions wait, and a fourth has its turn") {
    Window w;
    auto& notices = *w.window().findChild<Notices*>();
    int answered = 0;
    notices.say("plain", false, {});
    notices.say("trouble", true, {});
    notices.say("a question", false, {{"Yes", [&] { ++answered; }}});
    CHECK(notices.standing() == QStringList{"plain", "trouble", "a question"});
    QApplication::processEvents();
    const auto slips = notices.findChildren<QLabel*>("notice-text");
    REQUIRE(slips.size() == 3);
    for (const QLabel* a : slips) {
        CHECK(a->isVisible());
        for (const QLabel* b : slips) {
            if (a != b)
                CHECK_FALSE(
                    QRect(a->mapToGlobal(QPoint()), a->size()).intersects({b->mapToGlobal(QPoint()), b->size()}));
        }
    }
    // Over the ribbon, inside of the window.
    CHECK(notices.geometry().bottom() < w.window().height());
    CHECK(notices.geometry().top() > 0);
    notices.say("trouble", true, {});  // still stands: not said twice
    CHECK(notices.standing().size() == 3);
    notices.say("another", true, {});  // the plain one makes room
    CHECK(notices.standing() == QStringList{"trouble", "a question", "another"});
    notices.say("a last one", true, {});  // waits
    CHECK(notices.standing().size() == 3);
    w.click("Yes");
    CHECK(answered == 1);
    CHECK(notices.standing() == QStringList{"trouble", "another", "a last one"});
}

TEST_CASE("alarms: what is dry, and what is about to be too late, knocks, shows on the desktop, flashes, is read out") {
    Job job = porch_board();
    job = tick(job, plan_of(job), StepId{"1/sand"}, moment("2026-05-04T16:30"));
    job = tick(job, plan_of(job), StepId{"1/ground/1"}, moment("2026-05-04T17:10"));
    Window w(job);
    w.show(Station::Bench);
    Heard heard;
    Alarms alarms(w.desk(), std::make_unique<StandIn>(heard), nullptr);
    QStringList flashed;
    QObject::connect(&alarms, &Alarms::flashed, [&](const QString& words, bool) { flashed << words; });
    alarms.look();
    CHECK(heard.knocks == 0);
    // The first coat is dry two hours after ten past five; the machine slept from six to eight.
    w.desk().pretend(moment("2026-05-04T20:00"));
    w.settle();
    alarms.look();
    CHECK(heard.knocks == 1);
    REQUIRE(heard.notices.size() == 1);
    CHECK(heard.notices.front().contains("dries before the next coat"));
    CHECK(flashed == heard.notices);
    CHECK(heard.said.isEmpty());
    CHECK(w.read().contains("dries before the next coat"));
    alarms.look();
    CHECK(heard.knocks == 1);
    // Each way can be switched off, and reading on.
    Shop shop = w.desk().shop();
    shop.calls = {false, false, false, true};
    w.desk().set_shop(shop);
    alarms.read_aloud("Lift it");
    CHECK(heard.said == QStringList{"Lift it"});
    alarms.keep_awake(true);
    CHECK(heard.awake);
}

TEST_CASE("bench: a flash covers the view with its words, at 1024 x 700 with large type too, and goes at a touch") {
    Window w(porch_board(), {1024, 700}, true, 150);
    w.show(Station::Bench);
    auto* bench = w.window().findChild<BenchView*>();
    bench->flash("Ready: the chalk-type paint of the porch board dries before the next coat; then: ground coat 2 of 2",
                 false);
    auto& flash = w.get<QPushButton>("flash");
    CHECK(flash.size() == bench->size());
    const QRect words = flash.fontMetrics().boundingRect(QRect(0, 0, 10'000, 10'000), Qt::AlignLeft, flash.text());
    CHECK(words.width() <= flash.width());
    CHECK(words.height() <= flash.height());
    QTest::mouseClick(&flash, Qt::LeftButton);
    CHECK(flash.isHidden());
}

TEST_CASE("two windows at one job: the second is told, and what is ticked in both is kept") {
    Window w;
    const auto path = w.folder() / "job.skarvel";
    Desk other(std::shared_ptr<const Library>(&library(), [](const Library*) {}), {w.folder() / "other"},
               moment("2026-05-04T17:40"));
    QStringList told;
    QObject::connect(&other, &Desk::said, [&](const QString& words, bool) { told << words; });
    REQUIRE(other.open(path));
    REQUIRE(told.size() == 1);
    CHECK(told.front().contains("open elsewhere"));
    other.wait_for_plan();
    other.apply(tick(other.job(), other.plan(), StepId{"1/sand"}, moment("2026-05-04T17:50")));
    REQUIRE(other.save(path));
    w.desk().apply(tick(w.job(), w.desk().plan(), StepId{"1/ground/1"}, moment("2026-05-04T18:20")));
    REQUIRE(w.desk().save(path));
    CHECK(w.job().bench.ticks.size() == 2);
    CHECK(w.read().contains("what was done at the bench there is taken over"));
    // Where more than ticks differ, nothing is taken over, and saving is refused.
    Job renamed = w.job();
    renamed.title = "Another title";
    w.desk().apply(renamed);
    REQUIRE(w.desk().save(path));
    renamed = other.job();
    renamed.customer = "The rowing club";
    other.apply(renamed);
    CHECK_FALSE(other.save(path));
}
