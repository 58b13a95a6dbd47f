#include "window/rack.h"

#include <QHBoxLayout>
#include <QLineEdit>
#include <QPainter>
#include <QVBoxLayout>
#include <algorithm>

#include "drawing/face_painter.h"
#include "files/job_file.h"
#include "theme/roles.h"
#include "theme/theme.h"
#include "theme/words.h"
#include "ticket/ticket.h"
#include "window/fields.h"

namespace skarvel {

namespace fs = std::filesystem;

// ---- one ticket

RackTicket::RackTicket(Desk& desk, fs::path path, QWidget* parent)
    : QAbstractButton(parent), desk_(desk), path_(std::move(path)) {
    setFocusPolicy(Qt::StrongFocus);
    setCursor(Qt::PointingHandCursor);
    setAccessibleName(QString::fromStdString(path_.stem().string()));
}

QSize RackTicket::sizeHint() const { return {Theme::px(228), Theme::px(190)}; }

void RackTicket::fill(const Filled& filled) {
    trouble_ = shown(filled.trouble);
    job_ = filled.job;
    plan_ = filled.plan;
    if (job_) setAccessibleName(QString::fromStdString(job_->title));
    update();
}

void RackTicket::paintEvent(QPaintEvent*) {
    const Tokens& t = Theme::tokens();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const QRectF card = QRectF(rect()).adjusted(2, 8, -2, -2);
    const bool at_hand = desk_.path() == path_;
    p.setPen(QPen(at_hand || hasFocus() ? t.chalk
                  : underMouse()        ? t.graphite
                                        : t.pencil,
                  at_hand || hasFocus() ? 2 : 1));
    p.setBrush(t.sheet);
    p.drawRoundedRect(card, 3, 3);
    // The hole that it hangs by.
    p.setBrush(t.paper);
    p.drawEllipse(QPointF(card.center().x(), card.top() + 9), 4, 4);
    const QRectF picture(card.left() + 12, card.top() + 20, card.width() - 24, Theme::px(76));
    const QRectF below(card.left() + 12, picture.bottom() + 6, card.width() - 24,
                       card.bottom() - picture.bottom() - 10);
    p.setPen(t.graphite);
    const auto line = [&](int row, const QString& text, int size, int weight, const QColor& colour, double less = 0) {
        p.setFont(Theme::font(size, weight));
        p.setPen(colour);
        const QFontMetrics m(p.font());
        p.drawText(QRectF(below.left(), below.top() + row * Theme::px(22), below.width() - less, Theme::px(22)),
                   Qt::AlignLeft | Qt::AlignVCenter,
                   m.elidedText(text, Qt::ElideRight, static_cast<int>(below.width() - less)));
    };
    if (!job_) {
        line(0, QString::fromStdString(path_.stem().string()), 18, QFont::DemiBold, t.graphite);
        line(1, trouble_.isEmpty() ? in_words("rack.reading") : trouble_, 13, QFont::Normal,
             trouble_.isEmpty() ? t.pencil : t.brick);
        return;
    }
    const ColourPlan* colour = plan_.of(job_->signs.front().faces.front().id);
    if (colour != nullptr && !colour->face->blank->face.empty()) {
        const FaceView view = FaceView::within(picture, colour->face->blank->face, colour->face->blank->built.whole);
        p.save();
        p.setClipRect(card.adjusted(1, 1, -1, -1));
        const Sign& sign = job_->signs.front();
        const FacePainter painter(sign, sign.faces.front(), *colour, view, &plan_);
        painter.board(p, false);
        painter.all_ink(p);
        p.restore();
    }
    Mark worst = Mark::None;
    for (const Problem& problem : plan_.problems) worst = std::max(worst, problem.mark);
    if (worst != Mark::None)
        paint_mark(p, worst, QRectF(below.right() - Theme::px(18), below.top() + 2, Theme::px(18), Theme::px(18)));
    line(0, QString::fromStdString(job_->title), 18, QFont::DemiBold, t.graphite,
         worst == Mark::None ? 0 : Theme::px(22));
    const QString due =
        job_->finished
            ? in_words("rack.finished", {{"finished", QString::fromStdString(show_moment(job_->finished->at, true))}})
        : job_->deadline
            ? in_words("rack.wanted", {{"deadline", QString::fromStdString(show_moment(*job_->deadline, true))}})
            : in_words("word.no-deadline");
    line(1, due, 15, QFont::Normal, job_->finished ? t.moss : t.graphite);
    const auto& clock = *plan_.clock;
    QString third = job_->signs.size() > 1 ? in_words("rack.signs", {{"signs", job_->signs.size()}})
                                           : QString::fromStdString(job_->number);
    if (!job_->finished && clock.start_by)
        third += (third.isEmpty() ? "" : " · ") +
                 in_words("rack.start-by", {{"start_by", QString::fromStdString(show_moment(*clock.start_by, true))}});
    line(2, third, 13, QFont::Normal, t.pencil);
}

// ---- the rack

Rack::Rack(Desk& desk, QWidget* parent) : QScrollArea(parent), desk_(desk) {
    setWidgetResizable(true);
    setObjectName("rack");
    auto* body = new QWidget(this);
    dress(body, Role::Sheet);
    auto* rows = new QVBoxLayout(body);
    rows->setContentsMargins(24, 12, 24, 24);
    rows->setSpacing(8);
    auto* top = new QHBoxLayout;
    top->addWidget(label(in_words("rack.the-rack"), Role::Title, body));
    top->addStretch(1);
    which_ =
        new Segmented(in_words("rack.what-is-shown"), {in_words("rack.the-jobs"), in_words("rack.their-week")}, body);
    which_->button(1)->setObjectName("their week");
    top->addWidget(which_);
    rows->addLayout(top);
    connect(which_, &Segmented::chosen, this, [this](int page) { show_page(page == 1); });
    auto* head = new QHBoxLayout;
    head->setSpacing(8);
    rows->addLayout(head);
    name_ = new QLineEdit(body);
    name_->setAccessibleName(in_words("rack.name-of-the-job"));
    name_->setObjectName("job-name");
    connect(name_, &QLineEdit::editingFinished, this, [this] {
        const std::string typed = name_->text().trimmed().toStdString();
        if (typed.empty() || typed == desk_.job().title) return;
        Job job = desk_.job();
        job.title = typed;
        desk_.apply(std::move(job));
    });
    head->addWidget(label(in_words("rack.the-job-at-hand"), Role::Small, body));
    head->addWidget(name_, 1);
    auto* actions = new QHBoxLayout;
    actions->setSpacing(8);
    rows->addLayout(actions);
    const auto action = [&](const QString& text, const QString& keys, void (Rack::*signal)()) {
        QPushButton* made = button(text, Role::Plain, body);
        made->setToolTip(keys);
        connect(made, &QPushButton::clicked, this, signal);
        actions->addWidget(made);
    };
    action(in_words("word.new-job"), "Ctrl+N", &Rack::new_wanted);
    action(in_words("rack.open"), "Ctrl+O", &Rack::browse_wanted);
    action(in_words("word.save"), "Ctrl+S", &Rack::save_wanted);
    action(in_words("rack.save-as"), "Ctrl+Shift+S", &Rack::save_as_wanted);
    action(in_words("rack.save-cut-files-and"), "Ctrl+E", &Rack::export_wanted);
    actions->addStretch(1);
    board_ = new QWidget(body);
    grid_ = new QGridLayout(board_);
    grid_->setContentsMargins(0, 8, 0, 0);
    grid_->setSpacing(12);
    rows->addWidget(board_);
    week_ = new WeekView(desk_, body);
    week_->hide();
    rows->addWidget(week_);
    connect(week_, &WeekView::trial_wanted, this, [this](int job) { try_first(static_cast<std::size_t>(job)); });
    connect(week_, &WeekView::first_wanted, this, [this](int job) {
        desk_.put_first(work_paths_.at(static_cast<std::size_t>(job)));
        plan_week();
    });
    connect(week_, &WeekView::bench_wanted, this, [this](int job) {
        Q_EMIT bench_wanted(QString::fromStdString(work_paths_.at(static_cast<std::size_t>(job)).string()));
    });
    rows->addStretch(1);
    setWidget(body);
    show_page(false);
}

void Rack::show_page(bool week) {
    which_->show_choice(week ? 1 : 0);
    board_->setVisible(!week);
    week_->setVisible(week);
}

void Rack::refresh() {
    if (!name_->hasFocus()) name_->setText(QString::fromStdString(desk_.job().title));
    for (RackTicket* ticket : tickets_) {
        ticket->hide();
        ticket->deleteLater();
    }
    tickets_.clear();
    in_work_.clear();
    work_paths_.clear();
    planning_.stop();
    week_->show_week({}, {}, {});
    for (const fs::path& path : desk_.rack()) {
        auto* ticket = new RackTicket(desk_, path, board_);
        connect(ticket, &QAbstractButton::clicked, this,
                [this, path] { Q_EMIT open_wanted(QString::fromStdString(path.string())); });
        tickets_.push_back(ticket);
    }
    arrange();
    // Read and planned beside the window: what is wanted soonest first.
    filling_.run_telling(
        [paths = desk_.rack(), shop = desk_.shop(), library = desk_.shared_library(),
         now = Present(desk_.now(), {}, desk_.present().changes)](const std::stop_token& stop,
                                                                  const std::function<void(RackTicket::Filled)>& tell) {
            std::vector<RackTicket::Filled> read;
            for (const fs::path& path : paths) {
                look_for_stop();
                const auto text = read_file(path);
                auto job = text ? read_job(*text) : tl::unexpected(text.error());
                if (job) {
                    read.push_back({path, std::move(*job), {}, {}});
                } else {
                    tell({path, {}, {}, library->catalogue.say(job.error().what, shop.display)});
                }
            }
            std::stable_sort(read.begin(), read.end(), [](const auto& a, const auto& b) {
                const auto due = [](const Job& job) { return job.deadline.value_or(Moment::max()); };
                return due(*a.job) < due(*b.job);
            });
            for (RackTicket::Filled& ticket : read) {
                auto plan = Planner().plan(*ticket.job, shop, *library, now, stop);
                if (!plan) return;
                ticket.plan = std::move(*plan);
                tell(std::move(ticket));
            }
        },
        [this](const RackTicket::Filled& filled) {
            for (RackTicket* ticket : tickets_) {
                if (ticket->path() == filled.path) ticket->fill(filled);
            }
            if (!filled.job || filled.job->finished || filled.plan.clock->slots.empty()) return;
            work_paths_.push_back(filled.path);
            in_work_.push_back(on_the_rack(*filled.job, filled.plan, desk_.now()));
            plan_week();
        });
}

// Places of the jobs that their maker put in line, in that order.
std::vector<std::size_t> Rack::in_line() const {
    std::vector<std::pair<int, std::size_t>> ranks;
    for (std::size_t i = 0; i < work_paths_.size(); ++i) {
        if (const auto rank = desk_.rank_of(work_paths_[i])) ranks.emplace_back(*rank, i);
    }
    std::sort(ranks.begin(), ranks.end());
    std::vector<std::size_t> first;
    for (const auto& [rank, job] : ranks) first.push_back(job);
    return first;
}

// What it would do to the others, before it is done.
void Rack::try_first(std::size_t job) {
    std::vector<std::size_t> first = in_line();
    if (std::erase(first, job) == 0) first.insert(first.begin(), job);
    trying_.run([jobs = in_work_, first](const std::stop_token&) { return rack_week(jobs, first); },
                [this, job](const RackWeek& week) { week_->show_trial(job, week); });
}

// All jobs in work that have been read so far, on the same hours.
void Rack::plan_week() {
    const std::vector<std::size_t> first = in_line();
    planning_.run([jobs = in_work_, first](const std::stop_token&) { return rack_week(jobs, first); },
                  [this, first](const RackWeek& week) { week_->show_week(in_work_, week, first); });
}

void Rack::arrange() {
    const int columns = std::max(1, (viewport()->width() - 48) / (Theme::px(228) + 12));
    for (std::size_t i = 0; i < tickets_.size(); ++i) {
        grid_->removeWidget(tickets_[i]);
        grid_->addWidget(tickets_[i], static_cast<int>(i) / columns, static_cast<int>(i) % columns,
                         Qt::AlignLeft | Qt::AlignTop);
        tickets_[i]->setFixedSize(tickets_[i]->sizeHint());
        tickets_[i]->show();
    }
    for (int c = 0; c < grid_->columnCount(); ++c) grid_->setColumnStretch(c, 0);
    grid_->setColumnStretch(columns, 1);
}

void Rack::resizeEvent(QResizeEvent* event) {
    QScrollArea::resizeEvent(event);
    arrange();
}

}  // namespace skarvel
