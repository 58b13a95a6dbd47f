#include <QDropEvent>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QMimeData>
#include <QScopeGuard>
#include <QUrl>
#include <QVBoxLayout>
#include <QWheelEvent>
#include <algorithm>

#include "bench/calls.h"
#include "drawing/step_painter.h"
#include "stations/views.h"
#include "theme/roles.h"
#include "theme/theme.h"
#include "theme/words.h"
#include "window/fields.h"
#include "window/file_chooser.h"

namespace skarvel {
namespace {

// How long from now, as it is read from afar: "12 min", "1:45", "2 days".
QString countdown(Minutes left) {
    if (left >= std::chrono::days(2))
        return in_words("bench-view.days", {{"days", std::chrono::floor<std::chrono::days>(left).count()}});
    if (left >= std::chrono::hours(10))
        return in_words("bench-view.hours", {{"hours", std::chrono::floor<std::chrono::hours>(left).count()}});
    if (left >= std::chrono::hours(1))
        return in_words("bench-view.hours",
                        {{"hours", QString("%1:%2").arg(left.count() / 60).arg(left.count() % 60, 2, 10, QChar('0'))}});
    return in_words("bench-view.minutes", {{"minutes", left.count()}});
}

void style_big(QPushButton* button, double shrink) {
    const int high = std::max(least_target, static_cast<int>(Theme::px(least_target) * shrink));
    button->setMinimumHeight(high);
    QFont font = Theme::font(24, QFont::DemiBold);
    font.setPixelSize(static_cast<int>(Theme::px(24) * shrink));
    set_type(button, font);
}

QPushButton* big(const QString& text, Role role, QWidget* parent) {
    QPushButton* made = button(text, role, parent);
    style_big(made, 1);
    return made;
}

}  // namespace

BenchView::BenchView(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk), planning_today_(this) {
    setObjectName("bench");
    setAccessibleName(in_words("bench-view.bench"));
    setFocusPolicy(Qt::StrongFocus);
    auto* all = new QVBoxLayout(this);
    all->setContentsMargins(24, 12, 24, 12);
    all->setSpacing(6);
    auto* top = new QHBoxLayout;
    progress_ = label({}, Role::Plain, this);
    leave_ = button(in_words("bench-view.leave-the-bench-esc"), Role::Bar, this);
    leave_->setIcon(Theme::icon("arrow-left"));
    connect(leave_, &QPushButton::clicked, this, &BenchView::left);
    wrong_ = button(in_words("bench-view.something-happened"), Role::Bar, this);
    wrong_->setObjectName("something happened");
    connect(wrong_, &QPushButton::clicked, this, [this] { show_mishaps(mishaps_->isHidden()); });
    photograph_ = button(in_words("bench-view.photograph"), Role::Bar, this);
    photograph_->setObjectName("photograph");
    connect(photograph_, &QPushButton::clicked, this, [this] {
        const QStringList names =
            FileChooser::files(this, in_words("bench-view.which-photographs"), {"*.jpg", "*.jpeg", "*.png"});
        std::vector<std::filesystem::path> paths;
        for (const QString& name : names) paths.emplace_back(name.toStdString());
        if (const Step* s = step(); s != nullptr && !paths.empty()) desk_.keep_photographs(paths, s->id);
    });
    setAcceptDrops(true);
    watch_ = new PhotographWatch(desk_, this);
    top->addWidget(leave_);
    top->addWidget(wrong_);
    top->addWidget(photograph_);
    top->addWidget(progress_, 1);
    progress_->setAlignment(Qt::AlignRight);
    all->addLayout(top);
    name_ = label({}, Role::Plain, this);
    name_->setObjectName("step-name");
    all->addWidget(name_);
    instruction_ = label({}, Role::Plain, this);
    instruction_->setObjectName("instruction");
    all->addWidget(instruction_);
    parts_ = new QWidget(this);
    parts_->setObjectName("round");
    auto* parts = new QHBoxLayout(parts_);
    parts->setContentsMargins(0, 0, 0, 0);
    parts->setSpacing(8);
    parts_->hide();
    all->addWidget(parts_);
    middle_ = new QWidget(this);
    auto* middle = new QHBoxLayout(middle_);
    middle->setContentsMargins(0, 0, 0, 0);
    middle->setSpacing(20);
    picture_ = new StepPictureView([this](const Reason& r) { return shown(desk_.say(r)); }, this);
    picture_->setAccessibleName(in_words("bench-view.where-it-goes"));
    picture_->setMinimumHeight(60);
    middle->addWidget(picture_, 5);
    auto* side = new QVBoxLayout;
    side->setSpacing(4);
    figures_ = label({}, Role::Plain, this);
    figures_->setObjectName("figures");
    timer_ = label({}, Role::Plain, this);
    timer_->setObjectName("timer");
    timer_->setWordWrap(false);
    timer_for_ = label({}, Role::Plain, this);
    timer_for_->setObjectName("timer-for");
    timers_ = label({}, Role::Plain, this);
    timers_->setObjectName("timers");
    photographs_ = new PhotographStrip(desk_, this);
    connect(photographs_, &PhotographStrip::changed, this, &BenchView::lay_out);
    side->addWidget(figures_);
    side->addWidget(photographs_);
    side->addStretch(1);
    side->addWidget(timer_);
    side->addWidget(timer_for_);
    side->addWidget(timers_);
    middle->addLayout(side, 4);
    all->addWidget(middle_, 1);
    mishaps_ = new MishapPanel(desk_, this);
    mishaps_->setObjectName("mishaps");
    mishaps_->hide();
    connect(mishaps_, &MishapPanel::said, this, [this] {
        show_mishaps(false);
        looked_at_.reset();
    });
    all->addWidget(mishaps_, 1);
    check_ = label({}, Role::Plain, this);
    hand_ = label({}, Role::Plain, this);
    hand_->setObjectName("at-hand");
    care_ = label({}, Role::Plain, this);
    care_->setObjectName("care");
    all->addWidget(check_);
    all->addWidget(hand_);
    all->addWidget(care_);
    auto* buttons = new QHBoxLayout;
    buttons->setSpacing(12);
    before_ = big(in_words("bench-view.back"), Role::Plain, this);
    not_dry_ = big(in_words("bench-view.not-dry-yet"), Role::Plain, this);
    dry_ = big(in_words("bench-view.dry-already"), Role::Plain, this);
    dry_->setObjectName("dry");
    after_ = big(in_words("bench-view.look-ahead"), Role::Plain, this);
    done_ = big(in_words("bench-view.done"), Role::Main, this);
    done_->setObjectName("done");
    before_->setObjectName("back");
    after_->setObjectName("ahead");
    not_dry_->setObjectName("not-dry");
    buttons->addWidget(before_, 1);
    buttons->addWidget(after_, 1);
    buttons->addWidget(not_dry_, 1);
    buttons->addWidget(dry_, 1);
    buttons->addWidget(done_, 2);
    all->addLayout(buttons);
    meanwhile_ = big({}, Role::Plain, this);
    meanwhile_->setObjectName("meanwhile");
    meanwhile_->hide();
    connect(meanwhile_, &QPushButton::clicked, this, [this] {
        looked_at_ = StepId{meanwhile_->property("step").toString().toStdString()};
        anyway_ = false;
        refresh();
    });
    next_ = label({}, Role::Small, this);
    auto* last = new QHBoxLayout;
    last->addWidget(meanwhile_);
    last->addWidget(next_, 1);
    today_ = button({}, Role::Bar, this);
    today_->setObjectName("today-at-the-bench");
    today_->setFocusPolicy(Qt::NoFocus);
    today_->hide();
    last->addWidget(today_);
    all->addLayout(last);
    connect(today_, &QPushButton::clicked, this, [this] { Q_EMIT other_wanted(today_->property("file").toString()); });
    connect(&desk_, &Desk::others_known, this, &BenchView::look_at_today);

    flash_ = new QPushButton(this);
    flash_->setObjectName("flash");
    flash_->setFocusPolicy(Qt::NoFocus);
    flash_->hide();
    flash_timer_.setSingleShot(true);
    connect(&flash_timer_, &QTimer::timeout, flash_, &QWidget::hide);
    connect(flash_, &QPushButton::clicked, flash_, &QWidget::hide);
    connect(done_, &QPushButton::clicked, this, &BenchView::press_done);
    connect(not_dry_, &QPushButton::clicked, this, [this] {
        // What the next step waits for is held; its tick stays.
        const Step* last = nullptr;
        for (const Step& s : desk_.plan().bench->steps) {
            if (s.done && s.wait_after.count() > 0) last = &s;
        }
        if (last != nullptr) desk_.apply(hold(desk_.job(), last->id, desk_.now() + Minutes(30)));
    });
    connect(dry_, &QPushButton::clicked, this, [this] {
        const Step* s = step();
        const Timer* wait = s == nullptr ? nullptr : waits_for(*s);
        if (wait != nullptr) desk_.apply(dry_already(desk_.job(), wait->after, desk_.now()));
    });
    connect(before_, &QPushButton::clicked, this, [this] { turn(-1); });
    connect(after_, &QPushButton::clicked, this, [this] { turn(1); });
    seconds_.setInterval(1000);
    connect(&seconds_, &QTimer::timeout, this, &BenchView::tick_timer);
    seconds_.start();
}

void BenchView::flash(const QString& words, bool urgent) {
    constexpr int flash_ms = 4000;
    QFont font = Theme::font(44, QFont::DemiBold);
    // A button does not break its words.
    QString broken;
    const QFontMetrics metrics(font);
    QString line;
    for (const QString& word : words.split(' ')) {
        if (!line.isEmpty() && metrics.horizontalAdvance(line + ' ' + word) > width() - 80) {
            broken += line + '\n';
            line.clear();
        }
        line += (line.isEmpty() ? "" : " ") + word;
    }
    flash_->setText(broken + line);
    flash_->setAccessibleName(words);
    dress(flash_, urgent ? Role::Alarm : Role::Done);
    flash_->setGeometry(rect());
    flash_->show();
    flash_->raise();
    flash_timer_.start(flash_ms);
}

void BenchView::turn(int by) {
    const auto& steps = desk_.plan().bench->steps;
    const Step* now = step();
    const auto at = now == nullptr ? static_cast<long>(steps.size()) : now - steps.data();
    const long to = at + by;
    if (to >= 0 && to < static_cast<long>(steps.size())) looked_at_ = steps[static_cast<std::size_t>(to)].id;
    anyway_ = false;
    show_mishaps(false);
    refresh();
}

// What may have gone wrong at this step, and what else there is to say of it.
void BenchView::show_mishaps(bool shown_now) {
    mishaps_->setVisible(shown_now);
    middle_->setVisible(!shown_now);
    wrong_->setText(in_words(shown_now ? "bench-view.nothing-happened" : "bench-view.something-happened"));
    mishaps_->show_step(shown_now ? step() : nullptr);
    // What there is to say takes their room.
    for (QLabel* l : {check_, hand_, care_}) l->setVisible(!shown_now && !l->text().isEmpty());
    lay_out();
}

// The wait that a step still has to see through.
const Timer* BenchView::waits_for(const Step& s) const {
    const auto& timers = desk_.plan().bench->timers;
    const auto at = std::find_if(timers.rbegin(), timers.rend(),
                                 [&](const Timer& t) { return t.before == s.id && t.from > desk_.now(); });
    return at == timers.rend() ? nullptr : &*at;
}

void BenchView::press_done() {
    // A second press within a second is no press: a wet thumb bounces.
    constexpr int bounce_ms = 1000;
    if (pressed_.isValid() && pressed_.elapsed() < bounce_ms) return;
    desk_.wait_for_plan();
    const Step* s = step();
    if (s == nullptr) {
        if (!desk_.plan().bench->steps.empty()) Q_EMIT logbook_wanted();
        return;
    }
    // Counted from when this press was dealt with: on a slow machine that may take a while.
    const auto dealt_with = qScopeGuard([this] { pressed_.start(); });
    const bool early = waits_for(*s) != nullptr || !not_done_before(desk_.plan(), s->id).empty();
    if (!s->done && early && !anyway_) {
        anyway_ = true;
        return refresh();
    }
    const StepId id = s->id;
    const bool done = s->done;
    const std::vector<std::size_t> together = round();
    looked_at_.reset();
    anyway_ = false;
    Job job = done ? untick(desk_.job(), id) : tick(desk_.job(), desk_.plan(), id, desk_.now(), on_bench_since_);
    // All that is left of a round is done with it.
    for (const std::size_t i : together) {
        const Step& part = desk_.plan().bench->steps[i];
        if (!done && !part.done && waits_for(part) == nullptr) job = tick(job, desk_.plan(), part.id, desk_.now());
    }
    desk_.apply(std::move(job));
}

std::vector<std::size_t> BenchView::round() const {
    const Step* s = step();
    const BenchPlan& bench = *desk_.plan().bench;
    return s == nullptr ? std::vector<std::size_t>{}
                        : round_of(bench, static_cast<std::size_t>(s - bench.steps.data()));
}

// The signs of a round, each to be ticked by itself.
void BenchView::show_round(const Step* s) {
    auto* line = static_cast<QHBoxLayout*>(parts_->layout());
    while (QLayoutItem* item = line->takeAt(0)) {
        if (item->widget() != nullptr) {
            item->widget()->hide();
            item->widget()->deleteLater();
        }
        delete item;
    }
    const std::vector<std::size_t> together = s == nullptr ? std::vector<std::size_t>{} : round();
    parts_->setVisible(!together.empty());
    for (const std::size_t i : together) {
        const Step& part = desk_.plan().bench->steps[i];
        QPushButton* tick_part = big((part.done ? "✓ " : "") + text_of(part.of), Role::Plain, parts_);
        tick_part->setObjectName("part " + text_of(part.of));
        tick_part->setToolTip(shown(desk_.say(part.name)));
        tick_part->setFocusPolicy(Qt::NoFocus);
        line->addWidget(tick_part, 1);
        connect(tick_part, &QPushButton::clicked, this, [this, id = part.id, done = part.done] {
            desk_.wait_for_plan();
            desk_.apply(done ? untick(desk_.job(), id) : tick(desk_.job(), desk_.plan(), id, desk_.now()));
        });
    }
}

// Over all jobs in work: where another one's work comes before this one's next, that is said, and a press goes there.
void BenchView::look_at_today() {
    const auto others = desk_.others();
    if (!isVisible() || !others || others->empty() || !desk_.plan().clock_reads.tasks) return today_->hide();
    auto jobs = std::make_shared<std::vector<RackJob>>(*others);
    jobs->push_back(on_the_rack(desk_.job(), desk_.plan(), desk_.now()));
    jobs->back().rank = desk_.rank_of(desk_.path());
    for (RackJob& job : *jobs) job.clock.now = desk_.now();
    planning_today_.run([jobs, now = desk_.now()](const std::stop_token&) { return today_over_all(*jobs, now); },
                        [this, jobs](const std::vector<OfToday>& today) { show_today(today, *jobs); });
}

void BenchView::show_today(const std::vector<OfToday>& all, const std::vector<RackJob>& jobs) {
    today_->hide();
    for (const OfToday& t : all) {
        // Its own work comes first: there is nothing to go to.
        if (t.job + 1 == jobs.size()) return;
        const RackJob& job = jobs[t.job];
        today_->setText(in_words("bench-view.before-that-today",
                                 {{"start", t.start}, {"what", shown(desk_.say(t.what))}, {"job", text_of(job.name)}}));
        today_->setProperty("file", text_of(job.file));
        return today_->show();
    }
}

const Step* BenchView::step() const {
    const BenchPlan& bench = *desk_.plan().bench;
    if (looked_at_) {
        for (const Step& s : bench.steps) {
            if (s.id == *looked_at_) return &s;
        }
    }
    return bench.next();
}

void BenchView::refresh() {
    const BenchPlan& bench = *desk_.plan().bench;
    const Step* s = step();
    progress_->setText(in_words("bench-view.of-steps-done", {{"done", bench.done()}, {"steps", bench.steps.size()}}));
    StepPicture picture;
    wrong_->setEnabled(s != nullptr);
    if (s == nullptr) {
        name_->setText(bench.steps.empty() ? in_words("bench-view.nothing-to-do-yet")
                                           : in_words("bench-view.everything-is-done"));
        instruction_->setText(bench.steps.empty() ? in_words("bench-view.type-the-words-at")
                                                  : in_words("bench-view.write-it-into-the"));
        for (QLabel* l : {check_, hand_, care_, next_, figures_}) l->clear();
        done_->setEnabled(!bench.steps.empty());
        done_->setText(in_words(bench.steps.empty() ? "bench-view.done" : "bench-view.to-the-logbook"));
    } else {
        picture = picture_of(*s, desk_.job(), desk_.plan(), desk_.shop(), desk_.library().trade);
        const std::size_t signs = round().size();
        name_->setText(shown(desk_.say(s->name)) +
                       (signs > 0 ? in_words("bench-view.round", {{"signs", signs}}) : QString()) +
                       (s->done ? in_words("bench-view.is-done") : QString()));
        instruction_->setText(shown(desk_.say(s->instruction)));
        check_->setText(in_words("bench-view.check", {{"check", shown(desk_.say(s->check))}}));
        hand_->setText(in_words("bench-view.at-hand", {{"things", shown(desk_.say(s->at_hand))}}));
        QStringList care, figures;
        for (const Reason& c : s->cautions) care << shown(desk_.say(c));
        care_->setText(care.join(" "));
        for (const Reason& f : picture.figures) figures << shown(desk_.say(f));
        if (s->work == Work::Mend) figures << in_words("bench-view.point-at-it");
        if (s->work == Work::Proof && desk_.plan().proof_signed && !desk_.job().proof->by.empty())
            figures << in_words("bench-view.said-yes", {{"who", text_of(desk_.job().proof->by)}});
        figures_->setText(figures.join("\n"));
        done_->setEnabled(true);
        done_->setText(s->done                  ? in_words("bench-view.not-done-after-all")
                       : anyway_                ? in_words("bench-view.done-anyway")
                       : s->work == Work::Proof ? in_words("bench-view.read-and-signed")
                       : signs > 0              ? in_words("bench-view.all-done")
                                                : in_words("bench-view.done"));
        // What comes after all of a round.
        const std::vector<std::size_t> together = round();
        const std::size_t at = together.empty() ? static_cast<std::size_t>(s - bench.steps.data()) : together.back();
        next_->setText(at + 1 < bench.steps.size()
                           ? in_words("bench-view.then",
                                      {{"name", shown(desk_.say(bench.steps[at + 1].name))},
                                       {"start", QString::fromStdString(show_moment(bench.steps[at + 1].start, true))}})
                           : in_words("bench-view.then-nothing-this-is"));
    }
    if (s != nullptr && isVisible() && told_ != s->id) {
        told_ = s->id;
        on_bench_since_ = desk_.now();
        Q_EMIT stepped(name_->text() + ". " + instruction_->text());
    }
    // What is to be mended can be pointed at.
    const bool to_place = s != nullptr && s->work == Work::Mend && !picture.on_bed;
    picture_->let_point(to_place ? std::function<void(Point)>([this, number = s->number](Point place) {
        desk_.wait_for_plan();
        desk_.apply(place_mishap(desk_.job(), desk_.plan(), number, place));
    })
                                 : std::function<void(Point)>());
    show_round(s);
    look_at_today();
    photograph_->setEnabled(s != nullptr);
    photographs_->show_step(s == nullptr ? StepId{"-"} : s->id);
    picture_->show_picture(std::move(picture));
    before_->setEnabled(!bench.steps.empty() && s != bench.steps.data());
    after_->setEnabled(s != nullptr && s + 1 < bench.steps.data() + bench.steps.size());
    for (QLabel* l : {check_, hand_, care_}) l->setVisible(mishaps_->isHidden() && !l->text().isEmpty());
    tick_timer();
    lay_out();
}

void BenchView::tick_timer() {
    if (!isVisible()) return;
    const Step* s = step();
    const Tokens& t = Theme::tokens();
    const BenchPlan& bench = *desk_.plan().bench;
    const Moment now = desk_.now();
    const bool after_wait = std::any_of(bench.steps.begin(), bench.steps.end(),
                                        [](const Step& o) { return o.done && o.wait_after.count() > 0; });
    not_dry_->setEnabled(after_wait);
    dry_->setEnabled(s != nullptr && !s->done && waits_for(*s) != nullptr);
    timer_type_ = {height() < Theme::px(650) ? 44 : 56, 500, t.graphite};
    timer_->clear();
    timer_for_->clear();
    const Timer* own = nullptr;
    if (s != nullptr && !s->done) {
        own = waits_for(*s);
        const auto window = std::find_if(bench.timers.begin(), bench.timers.end(),
                                         [&](const Timer& o) { return o.before == s->id && o.until.has_value(); });
        if (own != nullptr) {
            timer_->setText(countdown(own->from - now));
            timer_for_->setText(anyway_ ? in_words("bench-view.still-waits", {{"what", shown(desk_.say(own->what))}})
                                        : shown(desk_.say(own->what)));
        } else if (anyway_ && !not_done_before(desk_.plan(), s->id).empty()) {
            // What that breaks.
            QStringList before;
            for (const StepId& id : not_done_before(desk_.plan(), s->id)) {
                for (const Step& o : bench.steps) {
                    if (o.id == id) before << shown(desk_.say(o.name));
                }
            }
            timer_type_.colour = t.brick;
            timer_->setText(in_words("bench-view.out-of-order"));
            timer_for_->setText(in_words("bench-view.not-done-before", {{"steps", before.join(", ")}}));
        } else if (window != bench.timers.end()) {
            const bool late = now > *window->until;
            timer_type_.colour = late ? t.brick : t.ochre;
            timer_->setText(countdown(late ? now - *window->until : *window->until - now));
            timer_for_->setText(in_words(late ? "bench-view.window-missed" : "bench-view.window-left"));
            own = &*window;
        } else if (s->start > now) {
            timer_->setText(countdown(s->start - now));
            timer_for_->setText(
                in_words("bench-view.until", {{"start", QString::fromStdString(show_moment(s->start, true))}}));
        } else {
            timer_->setText(in_words("word.now"));
            timer_for_->setText(
                in_words("bench-view.about", {{"hands_on", QString::fromStdString(show_minutes(s->hands_on))}}));
        }
    }
    style(timer_, timer_type_);
    // What else runs, the next to end first.
    QStringList others;
    constexpr int most = 3;
    for (const Timer& o : bench.timers) {
        if ((own != nullptr && o.before == own->before && o.after == own->after) || o.from <= now) continue;
        if (others.size() < most)
            others << in_words("bench-view.timer",
                               {{"left", countdown(o.from - now)}, {"what", shown(desk_.say(o.what))}});
    }
    timers_->setText(others.join("\n"));
    timers_->setVisible(!others.isEmpty());
    offer_meanwhile(s, own);
}

// Something else that hands would be done with before this may go on.
void BenchView::offer_meanwhile(const Step* s, const Timer* waits) {
    const BenchPlan& bench = *desk_.plan().bench;
    const Moment now = desk_.now();
    const Step* other = nullptr;
    if (s != nullptr && !s->done && waits != nullptr && waits->from > now) {
        for (const std::size_t i : fits_meanwhile(bench, *desk_.plan().tasks, now, waits->from)) {
            if (bench.steps[i].id == s->id) continue;
            other = &bench.steps[i];
            break;
        }
    }
    const bool changed = meanwhile_->isHidden() == (other != nullptr);
    meanwhile_->setVisible(other != nullptr);
    if (changed) QTimer::singleShot(0, this, &BenchView::lay_out);
    if (other == nullptr) return;
    meanwhile_->setProperty("step", text_of(other->id.name));
    const QString words = in_words("bench-view.meanwhile", {{"step", shown(desk_.say(other->name))},
                                                            {"hands_on", text_of(show_minutes(other->hands_on))}});
    meanwhile_->setAccessibleName(words);
    meanwhile_->setToolTip(words);
    fit_meanwhile();
}

void BenchView::fit_meanwhile() {
    QFont font = Theme::font(24, QFont::DemiBold);
    font.setPixelSize(static_cast<int>(Theme::px(24) * shrink_));
    meanwhile_->setText(QFontMetrics(font).elidedText(meanwhile_->toolTip(), Qt::ElideRight, width() * 6 / 10));
}

int BenchView::px(int size) const { return std::max(12, static_cast<int>(Theme::px(size) * shrink_)); }

void BenchView::style(QLabel* label, const Type& type) const {
    QFont font = Theme::font(type.size, type.weight);
    font.setPixelSize(px(type.size));
    set_type(label, font, type.colour);
}

// How high the words of a label are in that type, broken at that width; none where it is not shown.
int BenchView::needs(const QLabel* label, const Type& type, int wide) const {
    if (label->isHidden() || label->text().isEmpty()) return 0;
    QFont font = Theme::font(type.size, type.weight);
    font.setPixelSize(px(type.size));
    return QFontMetrics(font).boundingRect(QRect(0, 0, wide, 10'000), Qt::TextWordWrap, label->text()).height();
}

// As large as it can be, so that it is read from across the room: the instruction first, then the figures. Where large
// type or a small window leave too little, all of it shrinks together; at last the picture yields.
void BenchView::lay_out() {
    const Tokens& t = Theme::tokens();
    const int wide = width() - 60;
    constexpr int least_picture = 110;
    const auto fitting = [&](const QLabel* l, std::initializer_list<int> sizes, int weight, const QColor& colour,
                             int in, double room) {
        Type type{0, weight, colour};
        for (const int size : sizes) {
            type.size = size;
            if (needs(l, type, in) < room) break;
        }
        return type;
    };
    using Try = std::pair<double, bool>;  // how large, and whether with the picture
    bool with_picture = true;
    for (const auto& [shrink, picture] : {Try{1, true}, Try{0.9, true}, Try{0.8, true}, Try{0.7, true}, Try{0.6, true},
                                          Try{0.5, true}, Try{0.5, false}}) {
        with_picture = picture;
        shrink_ = shrink;
        const Type instruction =
            fitting(instruction_, {56, 44, 36, 32, 28, 24}, QFont::Medium, t.graphite, wide, height() * 0.2);
        const Type check = fitting(check_, {24, 20, 18}, QFont::Normal, t.graphite, wide, height() * 0.09);
        const Type hand{18, QFont::Normal, t.pencil}, care{18, QFont::Medium, t.ochre}, name{24, 600, t.chalk},
            quiet{18, QFont::Normal, t.pencil};
        for (const auto& [l, type] :
             {std::pair(name_, name), std::pair(instruction_, instruction), std::pair(check_, check),
              std::pair(hand_, hand), std::pair(care_, care), std::pair(progress_, quiet), std::pair(next_, quiet),
              std::pair(timer_, timer_type_), std::pair(timer_for_, quiet), std::pair(timers_, quiet)})
            style(l, type);
        for (QPushButton* b : {before_, after_, not_dry_, dry_, done_, meanwhile_}) style_big(b, shrink);
        for (auto* b : parts_->findChildren<QPushButton*>()) {
            if (!b->isHidden()) style_big(b, shrink);
        }
        const int beside = picture ? (wide - 20) * 4 / 9 : wide;
        int left = height() - 24 - 7 * 6 - leave_->sizeHint().height() - done_->minimumHeight() - 12;
        if (!parts_->isHidden()) left -= done_->minimumHeight() + 6;
        if (!meanwhile_->isHidden()) left -= done_->minimumHeight();
        left -= needs(name_, name, wide) + needs(instruction_, instruction, wide) + needs(check_, check, wide) +
                needs(hand_, hand, wide) + needs(care_, care, wide) + needs(next_, quiet, wide);
        const int told = (photographs_->isHidden() ? 0 : 90) + needs(timer_, timer_type_, beside) +
                         needs(timer_for_, quiet, beside) + needs(timers_, quiet, beside);
        const Type figures =
            fitting(figures_, {32, 28, 24, 20, 18}, QFont::DemiBold, t.graphite, beside, left - told - 6);
        style(figures_, figures);
        if (left >= least_picture && needs(figures_, figures, beside) <= left - told - 6) break;
    }
    picture_->setVisible(with_picture);
    fit_meanwhile();
}

void BenchView::resizeEvent(QResizeEvent*) {
    flash_->setGeometry(rect());
    lay_out();
}

void BenchView::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls() && step() != nullptr) event->acceptProposedAction();
}

void BenchView::dropEvent(QDropEvent* event) {
    std::vector<std::filesystem::path> paths;
    for (const QUrl& url : event->mimeData()->urls()) {
        if (url.isLocalFile()) paths.emplace_back(url.toLocalFile().toStdString());
    }
    const Step* s = step();
    if (s == nullptr || paths.empty()) return;
    event->acceptProposedAction();
    desk_.keep_photographs(paths, s->id);
}

// A foot pedal sends one of these keys.
void BenchView::keyPressEvent(QKeyEvent* event) {
    // While something is said of a step, keys belong to what is typed.
    if (!mishaps_->isHidden() && event->key() != Qt::Key_Escape) return QWidget::keyPressEvent(event);
    switch (event->key()) {
        case Qt::Key_Escape:
            Q_EMIT left();
            return;
        case Qt::Key_Space:
        case Qt::Key_Return:
        case Qt::Key_Enter:
        case Qt::Key_PageDown:
            if (!event->isAutoRepeat() && done_->isEnabled()) press_done();
            return;
        case Qt::Key_PageUp:
            return turn(-1);
        default:
            QWidget::keyPressEvent(event);
    }
}

void BenchView::wheelEvent(QWheelEvent* event) {
    turned_ += event->angleDelta().y();
    constexpr int notch = 120;
    if (std::abs(turned_) < notch) return;
    turn(turned_ > 0 ? -1 : 1);
    turned_ = 0;
}

}  // namespace skarvel
