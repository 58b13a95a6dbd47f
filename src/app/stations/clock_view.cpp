#include <QPainter>
#include <algorithm>

#include "stations/views.h"
#include "theme/theme.h"
#include "theme/words.h"
#include "window/ribbon.h"

namespace skarvel {
namespace {

constexpr double side = 24;

}  // namespace

ClockView::ClockView(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
    setAccessibleName(in_words("clock-view.the-days"));
}

void ClockView::refresh() {
    const Schedule& c = *desk_.plan().clock;
    needed_ = Theme::px(90) + static_cast<int>(c.slots.size()) * Theme::px(30) + Theme::px(60);
    for (std::size_t i = 1; i < c.slots.size(); ++i) {
        if (std::chrono::floor<std::chrono::days>(c.slots[i].start) !=
            std::chrono::floor<std::chrono::days>(c.slots[i - 1].start))
            needed_ += Theme::px(46);
    }
    updateGeometry();
    update();
}

void ClockView::paintEvent(QPaintEvent*) {
    const Tokens& t = Theme::tokens();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), t.sheet);
    const Schedule& c = *desk_.plan().clock;
    const auto lines = summary(desk_.job(), desk_.plan(), 0, desk_.at());
    const StationLine& line = lines.at(static_cast<std::size_t>(Station::Clock));
    QString title = shown(desk_.say(line.first)) + ", " + shown(desk_.say(line.second));
    title[0] = title[0].toUpper();
    paint_heading(p, width(), c.slots.empty() ? in_words("clock-view.nothing-to-plan-yet") : title,
                  in_words("clock-view.hands-on-work-on"));
    if (c.slots.empty()) return;

    const std::vector<Task>& tasks = *desk_.plan().tasks;
    std::vector<Minutes> waits(tasks.size(), Minutes(0));
    std::vector<Reason> whys(tasks.size());
    std::vector<std::optional<Minutes>> windows(tasks.size());
    for (const Task& task : tasks) {
        for (const Wait& w : task.waits) {
            if (w.at_least <= waits[w.after]) continue;
            waits[w.after] = w.at_least;
            whys[w.after] = w.why;
            windows[w.after] = w.at_most;
        }
    }
    const double name_x = side + Theme::px(60);
    const double bar_x = side + (width() - 2 * side) * 0.46;
    const double bar_wide = width() - side - bar_x;
    double y = Theme::px(66);
    std::chrono::local_days day{};
    for (std::size_t i = 0; i < c.slots.size(); ++i) {
        const Slot& slot = c.slots[i];
        const auto slot_day = std::chrono::floor<std::chrono::days>(slot.start);
        if (i == 0 || slot_day != day) {
            day = slot_day;
            if (i != 0) y += Theme::px(10);
            p.setPen(QPen(t.line, 1));
            p.drawLine(QPointF(side, y), QPointF(width() - side, y));
            p.setFont(Theme::font(15, QFont::DemiBold));
            p.setPen(t.graphite);
            const QString name = QString::fromStdString(show_moment(slot.start, true));
            p.drawText(QRectF(side, y + 4, 240, Theme::px(24)), Qt::AlignLeft | Qt::AlignVCenter,
                       name.section(' ', 0, 2));
            y += Theme::px(32);
        }
        const Task& task = tasks[slot.task];
        p.setFont(Theme::font(15));
        p.setPen(slot.done ? t.moss : t.pencil);
        p.drawText(QRectF(side, y, Theme::px(56), Theme::px(24)), Qt::AlignLeft | Qt::AlignVCenter,
                   QString::fromStdString(show_moment(slot.start)).section(' ', 1));
        p.setPen(t.graphite);
        const double name_wide = bar_x - name_x - 12;
        p.drawText(QRectF(name_x, y, name_wide, Theme::px(24)), Qt::AlignLeft | Qt::AlignVCenter,
                   QFontMetrics(p.font()).elidedText((slot.done ? "✓ " : "") + shown(desk_.say(full_name(task))),
                                                     Qt::ElideRight, static_cast<int>(name_wide)));
        // Two pixels a minute of work, as far as there is room; the wait behind it takes what is left.
        const double solid = std::clamp(static_cast<double>(task.hands_on.count()) * 1.6, 3.0, bar_wide * 0.45);
        const QRectF work(bar_x, y + Theme::px(4), solid, Theme::px(17));
        p.fillRect(work, slot.done ? t.moss : t.graphite);
        if (waits[slot.task].count() > 0) {
            const QRectF wait(work.right(), work.top(), bar_wide - solid, work.height());
            p.setPen(QPen(t.pencil, 1));
            p.setBrush(Qt::NoBrush);
            p.drawRoundedRect(wait, 3, 3);
            hatch(p, wait, t.line);
            QString words = QString::fromStdString(show_minutes(waits[slot.task]));
            if (windows[slot.task])
                words =
                    in_words("clock-view.window",
                             {{"name", words}, {"length", QString::fromStdString(show_minutes(*windows[slot.task]))}});
            p.setFont(Theme::font(13, QFont::Medium));
            const QRectF plate(wait.left() + 8, wait.top() + 1, QFontMetrics(p.font()).horizontalAdvance(words) + 10,
                               wait.height() - 2);
            p.fillRect(plate, t.sheet);
            p.setPen(windows[slot.task] ? t.brick : t.graphite);
            p.drawText(plate, Qt::AlignCenter, words);
        } else {
            p.setFont(Theme::font(13));
            p.setPen(t.pencil);
            p.drawText(QRectF(work.right() + 8, work.top(), 120, work.height()), Qt::AlignLeft | Qt::AlignVCenter,
                       QString::fromStdString(show_minutes(task.hands_on)));
        }
        y += Theme::px(30);
    }
}

}  // namespace skarvel
