#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPainter>
#include <QVBoxLayout>
#include <algorithm>

#include "drawing/face_painter.h"
#include "stations/views.h"
#include "theme/theme.h"
#include "theme/words.h"
#include "window/fields.h"

namespace skarvel {
namespace {

// The board laid down, with the section that the step is about lit.
class StepPicture : public QWidget {
  public:
    StepPicture(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
        setAccessibleName(in_words("bench-view.where-it-goes"));
    }
    std::optional<std::size_t> lit;
    StepId step;

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        p.fillRect(rect(), Theme::tokens().sheet);
        const ColourPlan* planned = desk_.plan().of(step);
        if (planned == nullptr || planned->face->blank->face.empty()) return;
        const ColourPlan& plan = *planned;
        const auto of = place_of(desk_.job(), plan.face->id);
        if (!of) return;
        const Sign& sign = desk_.job().signs[of->sign];
        FaceView view;
        view.face = plan.face->blank->face;
        view.laid_down = view.face.height() > view.face.width();
        const double length = static_cast<double>(std::max(view.face.width(), view.face.height()));
        const double across = static_cast<double>(std::min(view.face.width(), view.face.height()));
        view.scale = std::min((width() - 32) / length, (height() - 40) / across);
        const QSizeF size = view.size();
        view.origin = QPointF((width() - size.width()) / 2, (height() - size.height()) / 2);
        const FacePainter painter(sign, sign.faces[of->face], plan, view);
        painter.board(p, false);
        if (lit) painter.sections(p, lit);
        painter.ink(p);
        if (lit) {
            painter.seams(p);
            for (std::size_t i = 0; i < plan.cut.loads->sections.size(); ++i) {
                const QRectF film = view.rect(plan.cut.loads->sections[i].film.bounds());
                number_disc(p, QPointF(film.center().x(), film.top()), static_cast<int>(i) + 1, i == *lit);
            }
        }
    }

  private:
    Desk& desk_;
};

QPushButton* big(const QString& text, const char* role, QWidget* parent) {
    QPushButton* made = button(text, role, parent);
    made->setMinimumHeight(Theme::px(64));
    made->setFont(Theme::font(24, QFont::DemiBold));
    made->setStyleSheet(QString("font-size:%1px; min-height:%2px;").arg(Theme::px(24)).arg(Theme::px(64)));
    return made;
}

}  // namespace

BenchView::BenchView(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
    setObjectName("bench");
    setAccessibleName(in_words("bench-view.bench"));
    setFocusPolicy(Qt::StrongFocus);
    auto* all = new QVBoxLayout(this);
    all->setContentsMargins(32, 16, 32, 16);
    all->setSpacing(8);
    auto* top = new QHBoxLayout;
    progress_ = label({}, nullptr, this);
    leave_ = button(in_words("bench-view.leave-the-bench-esc"), "bar", this);
    leave_->setIcon(Theme::icon("arrow-left"));
    connect(leave_, &QPushButton::clicked, this, &BenchView::left);
    top->addWidget(leave_);
    top->addWidget(progress_, 1);
    progress_->setAlignment(Qt::AlignRight);
    all->addLayout(top);
    name_ = label({}, nullptr, this);
    all->addWidget(name_);
    instruction_ = label({}, nullptr, this);
    instruction_->setObjectName("instruction");
    all->addWidget(instruction_, 2);
    picture_ = new StepPicture(desk, this);
    picture_->setMinimumHeight(Theme::px(110));
    all->addWidget(picture_, 2);
    auto* facts = new QHBoxLayout;
    facts->setSpacing(24);
    auto* left_side = new QVBoxLayout;
    check_ = label({}, nullptr, this);
    care_ = label({}, nullptr, this);
    left_side->addWidget(check_);
    left_side->addWidget(care_);
    left_side->addStretch(1);
    facts->addLayout(left_side, 3);
    auto* right_side = new QVBoxLayout;
    timer_ = label({}, nullptr, this);
    timer_->setObjectName("timer");
    timer_->setWordWrap(false);
    timer_for_ = label({}, nullptr, this);
    timer_->setAlignment(Qt::AlignRight);
    timer_for_->setAlignment(Qt::AlignRight);
    right_side->addWidget(timer_);
    right_side->addWidget(timer_for_);
    right_side->addStretch(1);
    facts->addLayout(right_side, 2);
    all->addLayout(facts, 1);
    auto* buttons = new QHBoxLayout;
    buttons->setSpacing(12);
    before_ = big(in_words("bench-view.back"), nullptr, this);
    not_dry_ = big(in_words("bench-view.not-dry-yet"), nullptr, this);
    after_ = big(in_words("bench-view.look-ahead"), nullptr, this);
    done_ = big(in_words("bench-view.done"), "main", this);
    done_->setObjectName("done");
    before_->setObjectName("back");
    not_dry_->setObjectName("not-dry");
    buttons->addWidget(before_, 1);
    buttons->addWidget(after_, 1);
    buttons->addWidget(not_dry_, 1);
    buttons->addWidget(done_, 2);
    all->addLayout(buttons);
    next_ = label({}, "small", this);
    all->addWidget(next_);

    connect(done_, &QPushButton::clicked, this, [this] {
        desk_.wait_for_plan();
        const Step* s = step();
        if (s == nullptr) return;
        const StepId id = s->id;
        looked_at_.reset();
        desk_.apply(s->done ? untick(desk_.job(), id) : tick(desk_.job(), desk_.plan(), id, desk_.now()));
    });
    connect(not_dry_, &QPushButton::clicked, this, [this] {
        // What the next step waits for is held; its tick stays.
        const Step* last = nullptr;
        for (const Step& s : desk_.plan().bench->steps) {
            if (s.done && s.wait_after.count() > 0) last = &s;
        }
        if (last != nullptr) desk_.apply(hold(desk_.job(), last->id, desk_.now() + Minutes(30)));
    });
    const auto turn = [this](int by) {
        const auto& steps = desk_.plan().bench->steps;
        const Step* now = step();
        const auto at = now == nullptr ? static_cast<long>(steps.size()) : now - steps.data();
        const long to = at + by;
        if (to >= 0 && to < static_cast<long>(steps.size())) looked_at_ = steps[static_cast<std::size_t>(to)].id;
        refresh();
    };
    connect(before_, &QPushButton::clicked, this, [turn] { turn(-1); });
    connect(after_, &QPushButton::clicked, this, [turn] { turn(1); });
    seconds_.setInterval(1000);
    connect(&seconds_, &QTimer::timeout, this, &BenchView::tick_timer);
    seconds_.start();
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
    const Tokens& t = Theme::tokens();
    const BenchPlan& bench = *desk_.plan().bench;
    const Step* s = step();
    name_->setStyleSheet(QString("font-size:%1px; font-weight:600; color:%2;").arg(Theme::px(24)).arg(t.chalk.name()));
    check_->setStyleSheet(QString("font-size:%1px;").arg(Theme::px(24)));
    care_->setStyleSheet(QString("font-size:%1px; color:%2; font-weight:500;").arg(Theme::px(18)).arg(t.ochre.name()));
    progress_->setStyleSheet(QString("font-size:%1px; color:%2;").arg(Theme::px(18)).arg(t.pencil.name()));
    timer_for_->setStyleSheet(QString("font-size:%1px; color:%2;").arg(Theme::px(18)).arg(t.pencil.name()));
    next_->setStyleSheet(QString("font-size:%1px; color:%2;").arg(Theme::px(18)).arg(t.pencil.name()));
    progress_->setText(in_words("bench-view.of-steps-done", {{"done", bench.done()}, {"steps", bench.steps.size()}}));
    auto* picture = static_cast<StepPicture*>(picture_);
    picture->lit.reset();
    picture->step = s == nullptr ? StepId{} : s->id;
    if (s == nullptr) {
        name_->setText(bench.steps.empty() ? in_words("bench-view.nothing-to-do-yet")
                                           : in_words("bench-view.everything-is-done"));
        instruction_->setText(bench.steps.empty() ? in_words("bench-view.type-the-words-at")
                                                  : in_words("bench-view.write-it-into-the"));
        check_->clear();
        care_->clear();
        next_->clear();
        done_->setEnabled(false);
    } else {
        name_->setText(shown(desk_.say(s->name)) + (s->done ? in_words("bench-view.is-done") : QString()));
        instruction_->setText(shown(desk_.say(s->instruction)));
        check_->setText(in_words("bench-view.check", {{"check", shown(desk_.say(s->check))}}));
        QStringList care;
        for (const Reason& c : s->cautions) care << shown(desk_.say(c));
        care_->setText(care.join(" "));
        done_->setEnabled(true);
        done_->setText(s->done                  ? in_words("bench-view.not-done-after-all")
                       : s->work == Work::Proof ? in_words("bench-view.read-and-signed")
                                                : in_words("bench-view.done"));
        if (s->work == Work::Lay || s->work == Work::Lift)
            picture->lit = static_cast<std::size_t>(std::max(0, s->number - 1));
        const auto at = static_cast<std::size_t>(s - bench.steps.data());
        next_->setText(at + 1 < bench.steps.size()
                           ? in_words("bench-view.then",
                                      {{"name", shown(desk_.say(bench.steps[at + 1].name))},
                                       {"start", QString::fromStdString(show_moment(bench.steps[at + 1].start))}})
                           : in_words("bench-view.then-nothing-this-is"));
    }
    before_->setEnabled(!bench.steps.empty() && s != bench.steps.data());
    after_->setEnabled(s != nullptr && s + 1 < bench.steps.data() + bench.steps.size());
    picture_->update();
    tick_timer();
    lay_out();
}

void BenchView::tick_timer() {
    if (!isVisible()) return;
    const Step* s = step();
    const Tokens& t = Theme::tokens();
    not_dry_->setEnabled(false);
    timer_->setStyleSheet(
        QString("font-size:%1px; font-weight:500; color:%2;").arg(Theme::px(72)).arg(t.graphite.name()));
    if (s == nullptr || s->done) {
        timer_->clear();
        timer_for_->clear();
        return;
    }
    const auto left = s->start - desk_.now();
    if (left.count() > 0) {
        const auto h = left.count() / 60;
        timer_->setText(h >= 24 ? QString::fromStdString(show_minutes(left))
                                : QString("%1:%2").arg(h).arg(left.count() % 60, 2, 10, QChar('0')));
        timer_for_->setText(in_words("bench-view.until", {{"start", QString::fromStdString(show_moment(s->start))}}));
        not_dry_->setEnabled(std::any_of(desk_.plan().bench->steps.begin(), desk_.plan().bench->steps.end(),
                                         [](const Step& other) { return other.done && other.wait_after.count() > 0; }));
    } else {
        timer_->setText(in_words("word.now"));
        timer_for_->setText(
            in_words("bench-view.about", {{"hands_on", QString::fromStdString(show_minutes(s->hands_on))}}));
        not_dry_->setEnabled(s->work != Work::Proof && desk_.plan().bench->done() > 0);
    }
}

void BenchView::lay_out() {
    // The instruction is as large as it can be, 56 at most, so that it is read from across the room.
    for (const int size : {56, 44, 36, 32, 26, 22}) {
        instruction_->setStyleSheet(QString("font-size:%1px; font-weight:500;").arg(Theme::px(size)));
        const QFontMetrics m(Theme::font(size, QFont::Medium));
        const QRect needed = m.boundingRect(QRect(0, 0, width() - 72, 4000), Qt::TextWordWrap, instruction_->text());
        if (needed.height() < height() * 0.30) break;
    }
}

void BenchView::resizeEvent(QResizeEvent*) { lay_out(); }

void BenchView::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape) {
        Q_EMIT left();
        return;
    }
    QWidget::keyPressEvent(event);
}

}  // namespace skarvel
