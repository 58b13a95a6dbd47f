#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>
#include <set>

#include "stations/views.h"
#include "theme/theme.h"
#include "theme/words.h"
#include "window/fields.h"
#include "window/ribbon.h"

namespace skarvel {
namespace {

constexpr double side = 24;
constexpr double empty_day = 22;  // pixels of a day without work
constexpr double most_zoom = 16;

int lane_high() { return Theme::px(46); }
int head_high() { return Theme::px(42); }
double lanes_wide() { return Theme::px(118); }

int minute_of(Moment m) { return static_cast<int>((m - std::chrono::floor<std::chrono::days>(m)).count()); }

// Of one sign alone, its work by what it is done on.
std::size_t kind_of(Work work) {
    switch (work) {
        case Work::Proof:
        case Work::Cut:
        case Work::Weed:
            return 0;
        case Work::Lay:
        case Work::Seal:
        case Work::Colour:
        case Work::Lift:
            return 2;
        case Work::Clear:
        case Work::Final:
        case Work::Distress:
        case Work::Chalk:
            return 3;
        default:
            return 1;
    }
}

}  // namespace

ClockView::ClockView(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
    setAccessibleName(in_words("clock-view.the-days"));
    setObjectName("the days");
    setMouseTracking(true);
}

double ClockView::chart_high() const {
    return head_high() + static_cast<double>(lanes_.size()) * lane_high() + Theme::px(30);
}

void ClockView::refresh() {
    const Schedule& c = *desk_.plan().clock;
    pointed_.reset();
    lay_out();
    needed_ = Theme::px(66) + static_cast<int>(chart_high() + static_cast<double>(c.slots.size()) * Theme::px(28)) +
              Theme::px(60);
    for (std::size_t i = 1; i < c.slots.size(); ++i) {
        if (std::chrono::floor<std::chrono::days>(c.slots[i].start) !=
            std::chrono::floor<std::chrono::days>(c.slots[i - 1].start))
            needed_ += Theme::px(46);
    }
    updateGeometry();
    update();
}

// Which days, which of their hours, and which lane each task is in.
void ClockView::lay_out() {
    columns_.clear();
    lanes_.clear();
    lane_of_.assign(desk_.plan().tasks->size(), 0);
    const Schedule& c = *desk_.plan().clock;
    if (c.slots.empty()) return;
    const TimeSpan span = span_of(c, desk_.job().deadline, desk_.now());
    for (Moment at = span.from; at < span.to; at += std::chrono::days(1)) {
        Column column{std::chrono::floor<std::chrono::days>(at), 24 * 60, 0, 0, 0};
        const auto take = [&](int from, int to) {
            column.open = std::min(column.open, from);
            column.close = std::max(column.close, to);
        };
        for (const Hours::Sitting& s : sittings_on(desk_.shop().hours, desk_.shop().changed_days, column.day))
            take(s.from, s.to);
        for (const Slot& slot : c.slots) {
            if (std::chrono::floor<std::chrono::days>(slot.start) == column.day)
                take(minute_of(slot.start),
                     std::chrono::floor<std::chrono::days>(slot.end) == column.day ? minute_of(slot.end) : 24 * 60);
        }
        if (column.close <= column.open) column.open = column.close = 12 * 60;
        columns_.push_back(column);
    }
    double minutes = 0;
    double taken = 0;
    for (const Column& column : columns_) {
        minutes += column.close - column.open;
        taken += column.close == column.open ? empty_day : 8;
    }
    const double room = std::max(100.0, (width() - 2 * side - lanes_wide()) * zoom_ - taken);
    const double scale = minutes > 0 ? room / minutes : 1;
    double x = 0;
    for (Column& column : columns_) {
        column.left = x;
        column.wide = column.close == column.open ? empty_day : (column.close - column.open) * scale + 8;
        x += column.wide;
    }
    from_ = std::clamp(from_, 0.0, std::max(0.0, 1 - 1 / zoom_));
    const double off = from_ * x;
    for (Column& column : columns_) column.left += side + lanes_wide() - off;
    // Signs as lanes; of one sign alone, the kinds of its work.
    const std::vector<Task>& tasks = *desk_.plan().tasks;
    const bool several = desk_.job().signs.size() > 1;
    if (!several)
        lanes_ = {in_words("clock-view.at-the-cutter"), in_words("clock-view.surface"),
                  in_words("clock-view.lettering"), in_words("clock-view.to-the-end")};
    for (std::size_t i = 0; i < tasks.size(); ++i) {
        if (!several) {
            lane_of_[i] = kind_of(tasks[i].work);
            continue;
        }
        const QString name = text_of(tasks[i].of);
        const auto at = std::find(lanes_.begin(), lanes_.end(), name);
        lane_of_[i] = static_cast<std::size_t>(at - lanes_.begin());
        if (at == lanes_.end()) lanes_.push_back(name);
    }
}

double ClockView::x_of(Moment m) const {
    const auto day = std::chrono::floor<std::chrono::days>(m);
    for (const Column& column : columns_) {
        if (column.day != day) continue;
        if (column.close == column.open) return column.left + column.wide * minute_of(m) / (24 * 60);
        const double share =
            std::clamp(static_cast<double>(minute_of(m) - column.open) / (column.close - column.open), 0.0, 1.0);
        return column.left + 4 + share * (column.wide - 8);
    }
    if (columns_.empty()) return 0;
    return day < columns_.front().day ? columns_.front().left : columns_.back().left + columns_.back().wide;
}

QRectF ClockView::block_of(std::size_t task) const {
    for (std::size_t i = 0; i < in_chart_ && i < blocks_.size(); ++i) {
        if (blocks_[i].second == task) return blocks_[i].first;
    }
    return {};
}

// What dries after a task, and the window that it opens.
void ClockView::wait_of(QPainter& p, const QRectF& block, std::size_t task) {
    const Tokens& t = Theme::tokens();
    const Schedule& c = *desk_.plan().clock;
    const auto slot = std::find_if(c.slots.begin(), c.slots.end(), [&](const Slot& s) { return s.task == task; });
    if (slot == c.slots.end()) return;
    Minutes longest{0};
    for (const Task& other : *desk_.plan().tasks) {
        for (const Wait& w : other.waits) {
            if (w.after != task) continue;
            longest = std::max(longest, w.at_least);
            if (!w.at_most) continue;
            const double from = x_of(slot->end + w.at_least);
            const double to = x_of(slot->end + *w.at_most);
            p.setPen(QPen(t.brick, 1.6));
            const double y = block.top() - 5;
            p.drawLine(QPointF(from, y), QPointF(std::max(to, from + 3), y));
            p.drawLine(QPointF(from, y), QPointF(from, y + 5));
            p.drawLine(QPointF(std::max(to, from + 3), y), QPointF(std::max(to, from + 3), y + 5));
        }
    }
    if (longest == Minutes(0)) return;
    const QRectF wait(block.right(), block.center().y() - 4, std::max(0.0, x_of(slot->end + longest) - block.right()),
                      8);
    if (wait.width() < 1) return;
    p.setPen(QPen(t.line, 1));
    p.setBrush(Qt::NoBrush);
    p.drawRect(wait);
    hatch(p, wait, t.pencil);
}

void ClockView::chart(QPainter& p, double top) {
    const Tokens& t = Theme::tokens();
    const Schedule& c = *desk_.plan().clock;
    const std::vector<Task>& tasks = *desk_.plan().tasks;
    const double left = side + lanes_wide();
    const double bottom = top + head_high() + static_cast<double>(lanes_.size()) * lane_high();
    p.save();
    p.setClipRect(QRectF(left, top, width() - side - left, bottom - top + Theme::px(20)));
    for (const Column& column : columns_) {
        const QRectF where(column.left, top, column.wide, bottom - top);
        const bool works = column.close > column.open;
        if (!works) hatch(p, where.adjusted(0, head_high(), 0, 0), t.line);
        p.setPen(QPen(t.line, 1));
        p.drawLine(where.topLeft(), where.bottomLeft());
        const QString name = text_of(show_moment(Moment(column.day), true)).section(' ', 0, 2);
        p.setFont(Theme::font(14, QFont::DemiBold));
        p.setPen(works ? t.graphite : t.pencil);
        const double room = where.width() - 8;
        QString shown_name = name;
        if (QFontMetrics(p.font()).horizontalAdvance(shown_name) > room) shown_name = name.section(' ', 0, 1);
        if (QFontMetrics(p.font()).horizontalAdvance(shown_name) > room) shown_name = name.section(' ', 1, 1);
        if (works)
            p.drawText(QRectF(where.left() + 5, top, room, Theme::px(20)), Qt::AlignLeft | Qt::AlignVCenter,
                       shown_name);
        else
            p.drawText(QRectF(where.left(), top, where.width(), Theme::px(20)), Qt::AlignCenter,
                       name.section(' ', 1, 1));
        if (works && room > Theme::px(88)) {
            p.setFont(Theme::font(12));
            p.setPen(t.pencil);
            const auto hour = [](int minute) {
                return QString("%1:%2").arg(minute / 60).arg(minute % 60, 2, 10, QChar('0'));
            };
            const QRectF line(where.left() + 5, top + Theme::px(20), room, Theme::px(18));
            p.drawText(line, Qt::AlignLeft | Qt::AlignVCenter, hour(column.open));
            p.drawText(line, Qt::AlignRight | Qt::AlignVCenter, hour(column.close));
        }
    }
    blocks_.clear();
    std::set<std::size_t> earlier;
    std::set<std::size_t> later;
    if (pointed_ && *pointed_ < tasks.size()) {
        for (const Wait& w : tasks[*pointed_].waits) earlier.insert(w.after);
        for (std::size_t i = 0; i < tasks.size(); ++i) {
            for (const Wait& w : tasks[i].waits) {
                if (w.after == *pointed_) later.insert(i);
            }
        }
    }
    std::set<std::size_t> deciding;
    for (const Wait& w : c.chain) deciding.insert(w.after);
    for (const Slot& slot : c.slots) {
        const double y = top + head_high() + static_cast<double>(lane_of_[slot.task]) * lane_high() + Theme::px(12);
        const double x = x_of(slot.start);
        const QRectF block(x, y, std::max(3.0, x_of(slot.end) - x), Theme::px(24));
        wait_of(p, block, slot.task);
        const bool at = pointed_ == slot.task;
        const bool near = earlier.contains(slot.task) || later.contains(slot.task);
        QColor ink = slot.done ? t.moss : at ? t.chalk : t.graphite;
        if (pointed_ && !at && !near) ink.setAlphaF(0.35F);
        p.setPen(Qt::NoPen);
        p.setBrush(ink);
        p.drawRect(block.adjusted(0.5, 0, -0.5, 0));
        if (deciding.contains(slot.task)) {
            p.setPen(QPen(t.ochre, 2));
            p.drawLine(block.bottomLeft() + QPointF(0, 3), block.bottomRight() + QPointF(0, 3));
        }
        if (near) {
            p.setPen(QPen(t.chalk, 2));
            p.setBrush(Qt::NoBrush);
            p.drawRect(block.adjusted(-2, -2, 2, 2));
        }
        blocks_.emplace_back(block, slot.task);
    }
    in_chart_ = blocks_.size();
    const double now = x_of(desk_.now());
    p.setPen(QPen(t.chalk, 2));
    p.drawLine(QPointF(now, top + head_high() - 4), QPointF(now, bottom));
    const bool deadline_shown =
        desk_.job().deadline && std::chrono::floor<std::chrono::days>(*desk_.job().deadline) <= columns_.back().day;
    if (deadline_shown) {
        const double flag = x_of(*desk_.job().deadline);
        p.setPen(QPen(t.brick, 2));
        p.drawLine(QPointF(flag, top + head_high() - 10), QPointF(flag, bottom));
        QPainterPath cloth(QPointF(flag, top + head_high() - 10));
        cloth.lineTo(flag - 14, top + head_high() - 5);
        cloth.lineTo(flag, top + head_high());
        p.fillPath(cloth, t.brick);
    }
    p.restore();
    p.setFont(Theme::font(14, QFont::Medium));
    for (std::size_t i = 0; i < lanes_.size(); ++i) {
        const double y = top + head_high() + static_cast<double>(i) * lane_high();
        p.setPen(QPen(t.line, 1));
        p.drawLine(QPointF(side, y), QPointF(width() - side, y));
        p.setPen(t.graphite);
        p.drawText(QRectF(side, y, lanes_wide() - 8, lane_high()), Qt::AlignLeft | Qt::AlignVCenter,
                   QFontMetrics(p.font()).elidedText(shown(lanes_[i].toStdString()), Qt::ElideRight,
                                                     static_cast<int>(lanes_wide()) - 8));
    }
    p.setPen(QPen(t.line, 1));
    p.drawLine(QPointF(side, bottom), QPointF(width() - side, bottom));
    // What is pointed at, in words.
    if (!pointed_ || *pointed_ >= tasks.size()) return;
    const auto names = [&](const std::set<std::size_t>& which) {
        QStringList all;
        for (const std::size_t i : which) all << shown(desk_.say(full_name(tasks[i])));
        return all.join(", ");
    };
    QString words = shown(desk_.say(full_name(tasks[*pointed_])));
    if (!earlier.empty()) words += " · " + in_words("clock-view.waits-for", {{"tasks", names(earlier)}});
    if (!later.empty()) words += " · " + in_words("clock-view.waited-for-by", {{"tasks", names(later)}});
    p.setFont(Theme::font(13));
    p.setPen(t.chalk);
    const QRectF line(side, bottom + 4, width() - 2 * side, Theme::px(20));
    p.drawText(line, Qt::AlignLeft | Qt::AlignVCenter,
               QFontMetrics(p.font()).elidedText(words, Qt::ElideRight, static_cast<int>(line.width())));
}

void ClockView::rows(QPainter& p, double y) {
    const Tokens& t = Theme::tokens();
    const Schedule& c = *desk_.plan().clock;
    const std::vector<Task>& tasks = *desk_.plan().tasks;
    std::vector<const Wait*> waits(tasks.size(), nullptr);
    for (const Task& task : tasks) {
        for (const Wait& w : task.waits) {
            if (w.at_least > (waits[w.after] == nullptr ? Minutes(0) : waits[w.after]->at_least)) waits[w.after] = &w;
        }
    }
    const double name_x = side + Theme::px(60);
    const double more_x = side + (width() - 2 * side) * 0.56;
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
            p.drawText(QRectF(side, y + 4, 240, Theme::px(24)), Qt::AlignLeft | Qt::AlignVCenter,
                       text_of(show_moment(slot.start, true)).section(' ', 0, 2));
            y += Theme::px(32);
        }
        const Task& task = tasks[slot.task];
        const QRectF row(side - 8, y, width() - 2 * side + 16, Theme::px(26));
        if (pointed_ == slot.task) {
            QColor wash = t.chalk;
            wash.setAlphaF(0.1F);
            p.fillRect(row, wash);
        }
        p.setFont(Theme::font(15));
        p.setPen(slot.done ? t.moss : t.pencil);
        p.drawText(QRectF(side, y, Theme::px(56), row.height()), Qt::AlignLeft | Qt::AlignVCenter,
                   text_of(show_moment(slot.start)).section(' ', 1));
        p.setPen(t.graphite);
        const double name_wide = more_x - name_x - 12;
        p.drawText(QRectF(name_x, y, name_wide, row.height()), Qt::AlignLeft | Qt::AlignVCenter,
                   QFontMetrics(p.font()).elidedText((slot.done ? "✓ " : "") + shown(desk_.say(full_name(task))),
                                                     Qt::ElideRight, static_cast<int>(name_wide)));
        QString more = text_of(show_minutes(std::chrono::duration_cast<Minutes>(slot.end - slot.start)));
        const Wait* wait = waits[slot.task];
        p.setPen(t.pencil);
        if (wait != nullptr) {
            QString words = text_of(show_minutes(wait->at_least));
            if (wait->at_most)
                words =
                    in_words("clock-view.window", {{"name", words}, {"length", text_of(show_minutes(*wait->at_most))}});
            more = in_words("clock-view.then-wait", {{"hands", more}, {"wait", words}});
            if (wait->at_most) p.setPen(t.brick);
        }
        p.setFont(Theme::font(14));
        const double more_wide = width() - side - more_x;
        p.drawText(QRectF(more_x, y, more_wide, row.height()), Qt::AlignLeft | Qt::AlignVCenter,
                   QFontMetrics(p.font()).elidedText(more, Qt::ElideRight, static_cast<int>(more_wide)));
        blocks_.emplace_back(row, slot.task);
        y += Theme::px(28);
    }
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
    blocks_.clear();
    in_chart_ = 0;
    if (c.slots.empty()) return;
    lay_out();
    chart(p, Theme::px(66));
    rows(p, Theme::px(66) + chart_high());
}

void ClockView::wheelEvent(QWheelEvent* event) {
    const double x = event->position().x() - side - lanes_wide();
    const double room = width() - 2 * side - lanes_wide();
    // Over the list, and without turning, the wheel scrolls as ever.
    if (event->position().y() > Theme::px(66) + chart_high() || room <= 0 || event->angleDelta().y() == 0)
        return event->ignore();
    const double at = from_ + std::clamp(x / room, 0.0, 1.0) / zoom_;
    zoom_ = std::clamp(zoom_ * std::pow(1.2, event->angleDelta().y() / 120.0), 1.0, most_zoom);
    from_ = at - std::clamp(x / room, 0.0, 1.0) / zoom_;
    update();
    event->accept();
}

void ClockView::mouseMoveEvent(QMouseEvent* event) {
    const auto at = std::find_if(blocks_.begin(), blocks_.end(), [&](const auto& block) {
        return block.first.adjusted(-2, -4, 2, 4).contains(event->position());
    });
    const std::optional<std::size_t> now = at == blocks_.end() ? std::nullopt : std::optional(at->second);
    if (now == pointed_) return;
    pointed_ = now;
    update();
}

void ClockView::leaveEvent(QEvent*) {
    pointed_.reset();
    update();
}

}  // namespace skarvel
