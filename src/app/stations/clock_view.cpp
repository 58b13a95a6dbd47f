#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>
#include <set>

#include "job/commands.h"
#include "job/on_the_rack.h"
#include "stations/views.h"
#include "theme/theme.h"
#include "theme/words.h"
#include "window/fields.h"
#include "window/ribbon.h"

namespace skarvel {
namespace {

constexpr double empty_day = 22;  // pixels of a day without work
constexpr double most_zoom = 16;

int head_high() { return Theme::px(42); }
double lanes_wide() { return Theme::px(118); }

int minute_of(Moment m) { return static_cast<int>((m - std::chrono::floor<std::chrono::days>(m)).count()); }

// Of one sign alone, its work by what it is done on.
std::size_t kind_of(Work work) {
    switch (work) {
        case Work::Proof:
        case Work::Cut:
        case Work::Weed:
        case Work::Tape:
        case Work::Stack:
            return 0;
        case Work::Lay:
        case Work::Seal:
        case Work::Colour:
        case Work::Lift:
            return 2;
        case Work::Clear:
        case Work::Final:
        case Work::Hang:
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
    setFocusPolicy(Qt::ClickFocus);
}

// In a high window lanes are higher.
int ClockView::lane_high() const {
    constexpr int usual_window = 800;
    const int more = std::max(0, window()->height() - usual_window) * 2 / 5;
    return Theme::px(46) + std::min(Theme::px(46), more / std::max(1, static_cast<int>(lanes_.size())));
}

double ClockView::chart_high() const {
    return head_high() + static_cast<double>(lanes_.size()) * lane_high() + Theme::px(30);
}

void ClockView::refresh() {
    const Schedule& c = *desk_.plan().clock;
    pointed_.reset();
    dragging_.reset();
    lay_out();
    double rows_high = 0;
    std::chrono::local_days day{};
    for (std::size_t i = 0; i < c.slots.size(); ++i) {
        const auto of = std::chrono::floor<std::chrono::days>(c.slots[i].start);
        if (i == 0 || of != day) rows_high += Theme::px(46);
        day = of;
        rows_high += Theme::px(28);
    }
    // Days are not parted between columns, so that one may be longer than the other.
    needed_ = Theme::px(66) + static_cast<int>(chart_high() + rows_high / columns_of_rows()) +
              Theme::px(columns_of_rows() > 1 ? 260 : 60);
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
    const double room = std::max(100.0, (width() - 2 * view_side - lanes_wide()) * zoom_ - taken);
    const double scale = minutes > 0 ? room / minutes : 1;
    double x = 0;
    for (Column& column : columns_) {
        column.left = x;
        column.wide = column.close == column.open ? empty_day : (column.close - column.open) * scale + 8;
        x += column.wide;
    }
    from_ = std::clamp(from_, 0.0, std::max(0.0, 1 - 1 / zoom_));
    const double off = from_ * x;
    for (Column& column : columns_) column.left += view_side + lanes_wide() - off;
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

Moment ClockView::moment_at(double x) const {
    for (const Column& column : columns_) {
        if (x > column.left + column.wide && &column != &columns_.back()) continue;
        if (column.close == column.open) return Moment(column.day) + Minutes(12 * 60);
        const double share = std::clamp((x - column.left - 4) / (column.wide - 8), 0.0, 1.0);
        return Moment(column.day) + Minutes(5 * std::lround((column.open + share * (column.close - column.open)) / 5));
    }
    return desk_.now();
}

// On a wide window the list stands in two columns.
int ClockView::columns_of_rows() const { return width() > Theme::px(1000) ? 2 : 1; }

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
            const double to = x_of(slot->end + *w.closes());
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
    const double left = view_side + lanes_wide();
    const double bottom = top + head_high() + static_cast<double>(lanes_.size()) * lane_high();
    p.save();
    p.setClipRect(QRectF(left, top, width() - view_side - left, bottom - top + Theme::px(20)));
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
    // What other jobs have taken.
    for (const Interval& taken : desk_.present().taken) {
        const double x = x_of(taken.from);
        const QRectF where(x, top + head_high(), std::max(2.0, x_of(taken.to) - x), bottom - top - head_high());
        p.fillRect(where, t.paper);
        hatch(p, where, t.line);
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
        if (desk_.job().pinned.contains(tasks[slot.task].id) && !slot.done) {
            // A pin through it.
            const QPointF head(block.center().x(), block.top() - 3);
            p.setPen(QPen(t.sheet, 1.5));
            p.setBrush(t.ochre);
            p.drawEllipse(head, 4.5, 4.5);
            p.setPen(QPen(t.ochre, 2));
            p.drawLine(head + QPointF(0, 4.5), head + QPointF(0, 12));
        }
        blocks_.emplace_back(block, slot.task);
    }
    in_chart_ = blocks_.size();
    if (dragging_ && dragging_->moving && dragging_->moved) {
        const Task& task = tasks[dragging_->task];
        const double y =
            top + head_high() + static_cast<double>(lane_of_[dragging_->task]) * lane_high() + Theme::px(12);
        const double x = x_of(dragging_->moved->at);
        const QRectF there(x, y, std::max(6.0, x_of(dragging_->moved->at + task.hands_on) - x), Theme::px(24));
        p.setPen(QPen(dragging_->moved->stopped_by ? t.brick : t.chalk, 2, Qt::DashLine));
        p.setBrush(Qt::NoBrush);
        p.drawRect(there);
    }
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
        p.drawLine(QPointF(view_side, y), QPointF(width() - view_side, y));
        p.setPen(t.graphite);
        p.drawText(QRectF(view_side, y, lanes_wide() - 8, lane_high()), Qt::AlignLeft | Qt::AlignVCenter,
                   QFontMetrics(p.font()).elidedText(shown(lanes_[i].toStdString()), Qt::ElideRight,
                                                     static_cast<int>(lanes_wide()) - 8));
    }
    p.setPen(QPen(t.line, 1));
    p.drawLine(QPointF(view_side, bottom), QPointF(width() - view_side, bottom));
    // What is pointed at, or where it goes, in words.
    QString words = in_words("clock-view.how-to-move");
    p.setFont(Theme::font(13));
    p.setPen(t.pencil);
    if (dragging_ && dragging_->moving && dragging_->moved) {
        const Moved& m = *dragging_->moved;
        p.setPen(m.stopped_by ? t.brick : t.chalk);
        words = shown(desk_.say(full_name(tasks[dragging_->task]))) + " " +
                (m.stopped_by ? in_words("clock-view.moved-stopped",
                                         {{"at", m.at}, {"ready", m.ready}, {"why", desk_.say(*m.stopped_by)}})
                              : in_words("clock-view.moved", {{"at", m.at}, {"ready", m.ready}}));
    } else if (pointed_ && *pointed_ < tasks.size()) {
        p.setPen(t.chalk);
        const auto names = [&](const std::set<std::size_t>& which) {
            QStringList all;
            for (const std::size_t i : which) all << shown(desk_.say(full_name(tasks[i])));
            return all.join(", ");
        };
        words = told(*pointed_);
        if (!earlier.empty()) words += " · " + in_words("clock-view.waits-for", {{"tasks", names(earlier)}});
        if (!later.empty()) words += " · " + in_words("clock-view.waited-for-by", {{"tasks", names(later)}});
    }
    const QRectF line(view_side, bottom + 4, width() - 2 * view_side, Theme::px(20));
    p.drawText(line, Qt::AlignLeft | Qt::AlignVCenter,
               QFontMetrics(p.font()).elidedText(words, Qt::ElideRight, static_cast<int>(line.width())));
}

// A task with the moments between which it may begin.
QString ClockView::told(std::size_t task) const {
    const Schedule& c = *desk_.plan().clock;
    const Task& of = (*desk_.plan().tasks)[task];
    QString words = shown(desk_.say(full_name(of)));
    const auto slot = std::find_if(c.slots.begin(), c.slots.end(), [&](const Slot& s) { return s.task == task; });
    if (slot == c.slots.end() || slot->done || task >= c.leeway.size()) return words;
    const Leeway& leeway = c.leeway[task];
    if (desk_.job().pinned.contains(of.id)) words += " · " + in_words("clock-view.pinned");
    return words + " · " +
           (leeway.latest
                ? in_words("clock-view.leeway-latest", {{"earliest", leeway.earliest}, {"latest", *leeway.latest}})
                : in_words("clock-view.leeway", {{"earliest", leeway.earliest}}));
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
    const int columns = columns_of_rows();
    const double wide = (width() - 2 * view_side - (columns - 1) * 32) / columns;
    double left = view_side;
    const double top = y;
    int column = 0;
    std::chrono::local_days day{};
    for (std::size_t i = 0; i < c.slots.size(); ++i) {
        const Slot& slot = c.slots[i];
        const auto slot_day = std::chrono::floor<std::chrono::days>(slot.start);
        if (i == 0 || slot_day != day) {
            day = slot_day;
            if (i != 0) y += Theme::px(10);
            // The next day goes into the next column where this one holds its share.
            const bool full = column + 1 < columns && i * static_cast<std::size_t>(columns) >=
                                                          c.slots.size() * static_cast<std::size_t>(column + 1);
            if (full) {
                ++column;
                left += wide + 32;
                y = top;
            }
            p.setPen(QPen(t.line, 1));
            p.drawLine(QPointF(left, y), QPointF(left + wide, y));
            p.setFont(Theme::font(15, QFont::DemiBold));
            p.setPen(t.graphite);
            p.drawText(QRectF(left, y + 4, 240, Theme::px(24)), Qt::AlignLeft | Qt::AlignVCenter,
                       text_of(show_moment(slot.start, true)).section(' ', 0, 2));
            y += Theme::px(32);
        }
        const Task& task = tasks[slot.task];
        const double name_x = left + Theme::px(60);
        const double more_x = left + wide * 0.56;
        const QRectF row(left - 8, y, wide + 16, Theme::px(26));
        if (pointed_ == slot.task) {
            QColor wash = t.chalk;
            wash.setAlphaF(0.1F);
            p.fillRect(row, wash);
        }
        p.setFont(Theme::font(15));
        p.setPen(slot.done ? t.moss : t.pencil);
        p.drawText(QRectF(left, y, Theme::px(56), row.height()), Qt::AlignLeft | Qt::AlignVCenter,
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
                words = in_words("clock-view.window",
                                 {{"name", words}, {"length", text_of(show_minutes(*wait->closes()))}});
            more = in_words("clock-view.then-wait", {{"hands", more}, {"wait", words}});
            if (wait->at_most) p.setPen(t.brick);
        }
        p.setFont(Theme::font(14));
        const double more_wide = left + wide - more_x;
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
    // Two plans: the one that is shown, begun now or then, and the latest that is in time.
    QString title = in_words("clock-view.nothing-to-plan-yet");
    QStringList under;
    if (!c.slots.empty()) {
        title = in_words(desk_.job().begin_on ? "clock-view.begun-then" : "clock-view.begun-now",
                         {{"ready", c.ready}, {"begin", c.begin}});
        if (c.late && desk_.job().deadline)
            under << in_words("clock-view.late-by",
                              {{"by", std::chrono::duration_cast<Minutes>(c.ready - *desk_.job().deadline)}});
        if (c.start_by && c.slack && *c.slack > Minutes(0))
            under << in_words("clock-view.to-spare", {{"start_by", *c.start_by}, {"slack", *c.slack}});
        else if (c.start_by)
            under << in_words("clock-view.not-to-spare", {{"start_by", *c.start_by}});
        under << (c.best ? in_words("clock-view.best") : in_words("clock-view.near-best", {{"bound", c.bound}}));
    } else {
        under << in_words("clock-view.hands-on-work-on");
    }
    paint_heading(p, width(), title, under.join(" · "));
    blocks_.clear();
    in_chart_ = 0;
    if (c.slots.empty()) return;
    lay_out();
    chart(p, Theme::px(66));
    rows(p, Theme::px(66) + chart_high());
}

void ClockView::wheelEvent(QWheelEvent* event) {
    const double x = event->position().x() - view_side - lanes_wide();
    const double room = width() - 2 * view_side - lanes_wide();
    // Over the list, and without turning, the wheel scrolls as ever.
    if (event->position().y() > Theme::px(66) + chart_high() || room <= 0 || event->angleDelta().y() == 0)
        return event->ignore();
    const double at = from_ + std::clamp(x / room, 0.0, 1.0) / zoom_;
    zoom_ = std::clamp(zoom_ * std::pow(1.2, event->angleDelta().y() / 120.0), 1.0, most_zoom);
    from_ = at - std::clamp(x / room, 0.0, 1.0) / zoom_;
    update();
    event->accept();
}

void ClockView::drag_to(const QPointF& where) {
    Dragging& d = *dragging_;
    if (!d.moving && (where - d.from).manhattanLength() < 6) return;
    const Moment wanted = moment_at(where.x() - d.grip);
    if (d.moving && wanted == d.wanted) return;
    d.moving = true;
    d.wanted = wanted;
    d.moved = move_work(desk_.plan(), desk_.present(), (*desk_.plan().tasks)[d.task].id, wanted);
    setCursor(Qt::ClosedHandCursor);
    update();
}

void ClockView::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return QWidget::mousePressEvent(event);
    for (std::size_t i = 0; i < in_chart_ && i < blocks_.size(); ++i) {
        const auto& [block, task] = blocks_[i];
        if (!block.adjusted(-2, -4, 2, 4).contains(event->position())) continue;
        if (desk_.current())
            dragging_ = Dragging{task, event->position().x() - block.left(), event->position(), {}, {}, {}};
        return;
    }
}

void ClockView::mouseReleaseEvent(QMouseEvent*) {
    unsetCursor();
    if (!dragging_) return;
    const Dragging dragged = *dragging_;
    dragging_.reset();
    update();
    if (!dragged.moving || !dragged.moved) return;
    Job job = desk_.job();
    pin(job, (*desk_.plan().tasks)[dragged.task].id, dragged.moved->at);
    desk_.apply(std::move(job));
    if (dragged.moved->stopped_by)
        Q_EMIT desk_.said(in_words("clock-view.moved-stopped", {{"at", dragged.moved->at},
                                                                {"ready", dragged.moved->ready},
                                                                {"why", desk_.say(*dragged.moved->stopped_by)}}),
                          false);
}

// Takes a pin out again.
void ClockView::mouseDoubleClickEvent(QMouseEvent* event) {
    for (std::size_t i = 0; i < in_chart_ && i < blocks_.size(); ++i) {
        const auto& [block, task] = blocks_[i];
        const StepId id = (*desk_.plan().tasks)[task].id;
        if (!block.adjusted(-2, -8, 2, 4).contains(event->position()) || !desk_.job().pinned.contains(id)) continue;
        Job job = desk_.job();
        pin(job, id, std::nullopt);
        return desk_.apply(std::move(job));
    }
}

void ClockView::keyPressEvent(QKeyEvent* event) {
    if (event->key() != Qt::Key_Escape || !dragging_) return QWidget::keyPressEvent(event);
    dragging_.reset();
    unsetCursor();
    update();
}

void ClockView::mouseMoveEvent(QMouseEvent* event) {
    if (dragging_) return drag_to(event->position());
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
