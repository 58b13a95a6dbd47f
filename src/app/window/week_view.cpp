#include "window/week_view.h"

#include <QHelpEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>
#include <algorithm>

#include "theme/theme.h"
#include "theme/words.h"
#include "window/fields.h"

namespace skarvel {
namespace {

using std::chrono::days;
using std::chrono::floor;

constexpr int days_shown = 10;
constexpr std::size_t most_today = 8;

QString moment_of(Moment at) { return QString::fromStdString(show_moment(at, true)); }

}  // namespace

WeekView::WeekView(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
    setObjectName("week");
    setAccessibleName(in_words("week.title"));
    setCursor(Qt::PointingHandCursor);
    setFocusPolicy(Qt::ClickFocus);
    do_it_ = button(QString(), Role::Main, this);
    do_it_->setObjectName("week-do-it");
    leave_it_ = button(in_words("week.leave-it"), Role::Plain, this);
    leave_it_->setObjectName("week-leave-it");
    connect(do_it_, &QPushButton::clicked, this, [this] {
        if (!trial_) return;
        const int job = static_cast<int>(*trial_);
        leave();
        Q_EMIT first_wanted(job);
    });
    connect(leave_it_, &QPushButton::clicked, this, &WeekView::leave);
    leave();
}

void WeekView::leave() {
    trial_.reset();
    shifts_.clear();
    do_it_->hide();
    leave_it_->hide();
    setAccessibleDescription(told().join("\n"));
    update();
}

void WeekView::show_trial(std::size_t job, RackWeek week) {
    if (job >= jobs_.size()) return;
    trial_ = job;
    shifts_ = shifts_between(week_, week);
    trial_week_ = std::move(week);
    const bool first = std::find(first_.begin(), first_.end(), job) != first_.end();
    do_it_->setText(in_words(first ? "week.no-longer-first" : "week.put-first", {{"job", text_of(jobs_[job].name)}}));
    place_buttons();
    do_it_->show();
    leave_it_->show();
    setAccessibleDescription(told().join("\n"));
    update();
}

// At the right of the title.
void WeekView::place_buttons() {
    do_it_->setMaximumWidth(std::max(Theme::px(160), width() - Theme::px(360) - leave_it_->sizeHint().width()));
    do_it_->resize(do_it_->sizeHint().boundedTo({do_it_->maximumWidth(), Theme::px(34)}));
    leave_it_->resize(leave_it_->sizeHint().width(), do_it_->height());
    leave_it_->move(width() - leave_it_->width(), 0);
    do_it_->move(leave_it_->x() - do_it_->width() - 8, 0);
}

void WeekView::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    place_buttons();
}

void WeekView::keyPressEvent(QKeyEvent* event) {
    if (trial_ && event->key() == Qt::Key_Escape) return leave();
    QWidget::keyPressEvent(event);
}

const Shifted* WeekView::shift_of(std::size_t job) const {
    const auto at = std::find_if(shifts_.begin(), shifts_.end(), [&](const Shifted& s) { return s.job == job; });
    return at == shifts_.end() ? nullptr : &*at;
}

void WeekView::show_week(std::vector<RackJob> jobs, RackWeek week, std::vector<std::size_t> first) {
    jobs_ = std::move(jobs);
    week_ = std::move(week);
    first_ = std::move(first);
    leave();
    setFixedHeight(sizeHint().height());
    update();
}

double WeekView::lane_high() const { return Theme::px(36); }

QSize WeekView::sizeHint() const {
    const auto rows = static_cast<double>(week_.standings.size());
    return {600, static_cast<int>(Theme::px(64) + rows * lane_high() + Theme::px(40) +
                                  static_cast<double>(today().size()) * Theme::px(24))};
}

QString WeekView::standing_told(const Standing& s) const {
    if (!s.open) return in_words("week.nothing-left");
    if (const Shifted* shift = shift_of(s.job)) {
        const bool later = shift->after > shift->before;
        const QString told = in_words(s.late ? "week.late" : "week.ready", {{"ready", s.ready}});
        return told + ", " +
               in_words(later ? "week.later" : "week.sooner",
                        {{"by", later ? shift->after - shift->before : shift->before - shift->after}});
    }
    if (s.crowded_out) return in_words("week.crowded-out", {{"ready", s.ready}});
    return in_words(s.late ? "week.late" : "week.ready", {{"ready", s.ready}});
}

QStringList WeekView::today() const {
    QStringList rows;
    const RackWeek& week = seen();
    const auto places = of_the_day(week, desk_.now());
    for (const std::size_t i : places) {
        if (rows.size() == static_cast<int>(most_today)) {
            rows << in_words("week.more-today", {{"more", places.size() - most_today}});
            break;
        }
        const RackSlot& s = week.slots[i];
        const Task& task = (*jobs_[s.job].clock.tasks)[s.slot.task];
        rows << in_words("week.row", {{"at", text_of(show_moment(s.slot.start)).section(' ', 1)},
                                      {"job", text_of(jobs_[s.job].name)},
                                      {"task", shown(desk_.say(full_name(task)))}});
    }
    if (rows.isEmpty() && !week_.standings.empty()) rows << in_words("week.nothing-today");
    return rows;
}

QStringList WeekView::told() const {
    QStringList all;
    for (const Standing& s : seen().standings) all << text_of(jobs_[s.job].name) + ": " + standing_told(s);
    return all + today();
}

QRectF WeekView::lane(std::size_t row) const {
    return {0, Theme::px(64) + static_cast<double>(row) * lane_high(), static_cast<double>(width()), lane_high()};
}

QRectF WeekView::today_row(std::size_t row) const {
    const double top = lane(0).top() + static_cast<double>(week_.standings.size()) * lane_high() + Theme::px(40);
    return {8, top + static_cast<double>(row) * Theme::px(24), width() - 8.0, static_cast<double>(Theme::px(24))};
}

// Whole days, as wide as there is room between the names and what is told.
double WeekView::x_of(Moment at) const {
    const Moment begin = floor<days>(desk_.now());
    const double left = Theme::px(190), right = width() - Theme::px(230);
    const double share = static_cast<double>((at - begin).count()) / static_cast<double>(days_shown * 24 * 60);
    return std::clamp(left + share * (right - left), left, right);
}

void WeekView::paintEvent(QPaintEvent*) {
    const Tokens& t = Theme::tokens();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(t.graphite);
    p.setFont(Theme::font(24, QFont::DemiBold));
    p.drawText(QRectF(0, 0, width(), Theme::px(32)), Qt::AlignLeft | Qt::AlignVCenter,
               in_words(trial_ ? "week.tried" : "week.title"));
    const double top = lane(0).top();
    const double bottom = top + static_cast<double>(week_.standings.size()) * lane_high();
    const auto today_is = floor<days>(desk_.now());
    p.setFont(Theme::font(13));
    for (int d = 0; d <= days_shown; ++d) {
        const double x = x_of(today_is + days(d));
        p.setPen(QPen(t.line, 1));
        p.drawLine(QPointF(x, top - Theme::px(22)), QPointF(x, bottom));
        if (d == days_shown) break;
        p.setPen(t.pencil);
        const QString day = moment_of(today_is + days(d)).section(' ', 0, 1);
        p.drawText(QRectF(x + 4, top - Theme::px(22), x_of(today_is + days(d + 1)) - x - 6, Theme::px(20)),
                   Qt::AlignLeft | Qt::AlignVCenter, day);
    }
    for (std::size_t row = 0; row < seen().standings.size(); ++row) {
        const Standing& s = seen().standings[row];
        const QRectF where = lane(row);
        const bool first = std::find(first_.begin(), first_.end(), s.job) != first_.end();
        p.setPen(QPen(t.line, 1));
        p.drawLine(where.topLeft(), where.topRight());
        if (first) p.fillRect(QRectF(0, where.top() + 4, 3, where.height() - 8), t.chalk);
        p.setFont(Theme::font(15, first ? QFont::DemiBold : QFont::Normal));
        p.setPen(t.graphite);
        p.drawText(where.adjusted(8, 0, Theme::px(182) - width(), 0), Qt::AlignLeft | Qt::AlignVCenter,
                   QFontMetrics(p.font()).elidedText(text_of(jobs_[s.job].name), Qt::ElideRight, Theme::px(174)));
        // Where it is now, while another order is tried.
        if (trial_ && shift_of(s.job) != nullptr) {
            p.setBrush(Qt::NoBrush);
            p.setPen(QPen(t.pencil, 1, Qt::DashLine));
            for (const RackSlot& slot : week_.slots) {
                if (slot.job != s.job || slot.slot.start >= today_is + days(days_shown)) continue;
                const double from = x_of(slot.slot.start);
                p.drawRect(
                    QRectF(from, where.top() + 5, std::max(3.0, x_of(slot.slot.end) - from), where.height() - 10));
            }
        }
        const QColor work = s.late ? t.brick : t.graphite;
        for (const RackSlot& slot : seen().slots) {
            if (slot.job != s.job || slot.slot.start >= today_is + days(days_shown)) continue;
            const double from = x_of(slot.slot.start);
            p.fillRect(QRectF(from, where.top() + 8, std::max(2.0, x_of(slot.slot.end) - from), where.height() - 16),
                       work);
        }
        const auto& deadline = jobs_[s.job].clock.deadline;
        if (deadline && *deadline < today_is + days(days_shown)) {
            const double x = x_of(*deadline);
            p.setPen(QPen(t.brick, 2));
            p.drawLine(QPointF(x, where.top() + 3), QPointF(x, where.bottom() - 3));
            QPolygonF flag(
                {QPointF(x, where.top() + 3), QPointF(x - 9, where.top() + 8), QPointF(x, where.top() + 13)});
            p.setBrush(t.brick);
            p.setPen(Qt::NoPen);
            p.drawPolygon(flag);
        }
        p.setFont(Theme::font(13, s.late ? QFont::DemiBold : QFont::Normal));
        p.setPen(s.late ? t.brick : t.pencil);
        p.drawText(QRectF(width() - Theme::px(222), where.top(), Theme::px(222), where.height()),
                   Qt::AlignLeft | Qt::AlignVCenter | Qt::TextWordWrap, standing_told(s));
    }
    p.setPen(QPen(t.chalk, 2));
    const double now = x_of(desk_.now());
    p.drawLine(QPointF(now, top), QPointF(now, bottom));
    const double y = bottom + Theme::px(14);
    p.setFont(Theme::font(18, QFont::DemiBold));
    p.setPen(t.graphite);
    p.drawText(QRectF(0, y, width(), Theme::px(24)), Qt::AlignLeft | Qt::AlignVCenter, in_words("week.today"));
    p.setFont(Theme::font(15));
    std::size_t number = 0;
    for (const QString& row : today()) {
        p.drawText(today_row(number++), Qt::AlignLeft | Qt::AlignVCenter,
                   QFontMetrics(p.font()).elidedText(row, Qt::ElideRight, width() - 16));
    }
}

void WeekView::mousePressEvent(QMouseEvent* event) {
    for (std::size_t row = 0; row < seen().standings.size(); ++row) {
        if (lane(row).contains(event->position()))
            return Q_EMIT trial_wanted(static_cast<int>(seen().standings[row].job));
    }
    const auto places = of_the_day(seen(), desk_.now());
    for (std::size_t row = 0; row < std::min(places.size(), most_today); ++row) {
        if (today_row(row).contains(event->position()))
            return Q_EMIT bench_wanted(static_cast<int>(seen().slots[places[row]].job));
    }
}

// Pointing at work says what it is.
bool WeekView::event(QEvent* event) {
    if (event->type() != QEvent::ToolTip) return QWidget::event(event);
    const auto* help = static_cast<QHelpEvent*>(event);
    for (std::size_t row = 0; row < seen().standings.size(); ++row) {
        if (!lane(row).contains(help->pos())) continue;
        for (const RackSlot& s : seen().slots) {
            if (s.job != seen().standings[row].job) continue;
            if (help->pos().x() < x_of(s.slot.start) - 1 || help->pos().x() > x_of(s.slot.end) + 2) continue;
            const Task& task = (*jobs_[s.job].clock.tasks)[s.slot.task];
            QToolTip::showText(help->globalPos(), moment_of(s.slot.start) + "  " + shown(desk_.say(full_name(task))),
                               this);
            return true;
        }
        QToolTip::showText(help->globalPos(), in_words("week.press"), this);
        return true;
    }
    QToolTip::hideText();
    return true;
}

}  // namespace skarvel
