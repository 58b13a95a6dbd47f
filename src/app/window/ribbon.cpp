#include "window/ribbon.h"

#include <QPainter>
#include <QPainterPath>

#include "theme/theme.h"
#include "theme/words.h"

namespace skarvel {

TimeSpan span_of(const Schedule& clock, const std::optional<Moment>& deadline, Moment now) {
    using std::chrono::days;
    // What was done long ago, or begins far ahead, would squeeze the rest to nothing.
    constexpr days back{30}, ahead{60}, most{400};
    Moment from = now;
    if (!clock.slots.empty() && clock.begin > now + ahead) from = clock.begin - days(1);
    Moment to = from + days(3);
    for (const Slot& slot : clock.slots) {
        if (slot.start > now - back) from = std::min(from, slot.start);
        to = std::max(to, slot.end);
    }
    to = std::min(to, from + most);
    // A deadline months away would squeeze the work to a line.
    if (deadline && *deadline - from < days(21)) to = std::max(to, *deadline);
    return {std::chrono::floor<days>(from), std::chrono::floor<days>(to) + days(1)};
}

namespace {
constexpr int moved_for_ms = 12'000;
}

void hatch(QPainter& painter, const QRectF& where, const QColor& colour) {
    painter.save();
    painter.setClipRect(where.toAlignedRect(), Qt::IntersectClip);
    painter.setPen(QPen(colour, 1));
    for (double x = where.left() - where.height(); x < where.right(); x += 7) {
        painter.drawLine(QPointF(x, where.bottom()), QPointF(x + where.height(), where.top()));
    }
    painter.restore();
}

namespace {

// What dries, as far as there is room: the first words of the reason.
void label_wait(QPainter& p, const QRectF& where, const QString& why) {
    const QFontMetrics m(p.font());
    const QStringList words = why.split(' ');
    QString label;
    for (int n = 1; n <= words.size(); ++n) {
        const QString longer = words.mid(0, n).join(' ');
        if (m.horizontalAdvance(longer) + 18 > where.width()) break;
        if (words[n - 1] == "before" || words[n - 1] == "and") break;
        label = longer;
    }
    if (!label.endsWith("dries") && !label.endsWith("cures") && !label.endsWith("settles")) return;
    const QRectF plate(where.center().x() - m.horizontalAdvance(label) / 2.0 - 4, where.top() + 2,
                       m.horizontalAdvance(label) + 8, where.height() - 4);
    p.fillRect(plate, Theme::tokens().sheet);
    p.setPen(Theme::tokens().graphite);
    p.drawText(plate, Qt::AlignCenter, label);
}

}  // namespace

Ribbon::Ribbon(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
    setAccessibleName(in_words("ribbon.days-to-the-deadline"));
    said_.setSingleShot(true);
    connect(&said_, &QTimer::timeout, this, [this] {
        moved_.reset();
        update();
    });
    set_folded(false);
}

void Ribbon::set_folded(bool folded) {
    folded_ = folded;
    setFixedHeight(Theme::px(folded ? 28 : 64));
    update();
}

void Ribbon::refresh(bool behind) {
    behind_ = behind;
    const Schedule& c = *desk_.plan().clock;
    // By how much the last change has moved the day.
    if (!behind && desk_.path() != of_) {
        of_ = desk_.path();
        ready_.reset();
        moved_.reset();
    }
    if (!behind && !c.slots.empty()) {
        if (ready_ && std::chrono::abs(c.ready - *ready_) >= Minutes(5)) {
            moved_ = std::chrono::duration_cast<Minutes>(c.ready - *ready_);
            said_.start(moved_for_ms);
        }
        ready_ = c.ready;
    }
    if (!c.slots.empty())
        setAccessibleDescription(
            in_words("ribbon.ready", {{"ready", QString::fromStdString(show_moment(c.ready, true))}}) +
            (moved_ ? " · " + moved_told() : QString()));
    update();
}

QString Ribbon::moved_told() const {
    const bool later = *moved_ > Minutes(0);
    return in_words(later ? "ribbon.later" : "ribbon.sooner", {{"by", later ? *moved_ : -*moved_}});
}

void Ribbon::paintEvent(QPaintEvent*) {
    const Tokens& t = Theme::tokens();
    QPainter p(this);
    p.fillRect(rect(), t.sheet);
    p.setPen(t.line);
    p.drawLine(0, 0, width(), 0);
    if (!desk_.plan().clock) return;
    const Schedule& c = *desk_.plan().clock;
    if (behind_) p.setOpacity(0.5);
    p.setRenderHint(QPainter::Antialiasing);
    const int left = 12 + Theme::px(224);
    if (c.slots.empty()) {
        p.setPen(t.pencil);
        p.setFont(Theme::font(15));
        p.drawText(rect().adjusted(16, 0, 0, 0), Qt::AlignVCenter, in_words("ribbon.nothing-to-plan-yet"));
        return;
    }
    const bool late = c.late;
    p.setPen(late ? t.brick : t.graphite);
    p.setFont(Theme::font(folded_ ? 15 : 18, QFont::DemiBold));
    const QString ready =
        in_words("ribbon.ready-with-ready", {{"ready", QString::fromStdString(show_moment(c.ready, true))}});
    p.drawText(QRect(16, folded_ ? 0 : Theme::px(8), left - 20, folded_ ? height() : Theme::px(26)), Qt::AlignVCenter,
               ready);
    if (!folded_) {
        p.setFont(Theme::font(13, QFont::Normal, true));
        p.setPen(!moved_ ? t.pencil : *moved_ > Minutes(0) ? t.brick : t.moss);
        const QString hands = QString::fromStdString(show_minutes(c.hands_on));
        const QString under = moved_ ? moved_told()
                              : c.start_by
                                  ? in_words(desk_.job().begin_on ? "ribbon.begun-then" : "ribbon.start-by",
                                             {{"start_by", QString::fromStdString(show_moment(*c.start_by, true))},
                                              {"begin", QString::fromStdString(show_moment(c.begin))},
                                              {"hands", hands}})
                              : c.hands_on == Minutes(0) ? in_words("ribbon.nothing-left")
                                                         : in_words("ribbon.by-hand", {{"hands", hands}});
        p.drawText(QRect(16, Theme::px(35), left - 20, Theme::px(20)), Qt::AlignVCenter, under);
    }

    const TimeSpan span = span_of(c, desk_.job().deadline, desk_.now());
    const double minutes = static_cast<double>((span.to - span.from).count());
    const double wide = width() - left - 12;
    const auto x_of = [&](Moment m) { return left + static_cast<double>((m - span.from).count()) / minutes * wide; };
    const double bar_top = folded_ ? 6 : Theme::px(30);
    const double bar_height = folded_ ? height() - 12 : Theme::px(24);
    const auto day_count = (span.to - span.from) / std::chrono::days(1);
    const double day_wide = wide / static_cast<double>(day_count);
    p.setFont(Theme::font(13));
    for (Moment day = span.from; day < span.to; day += std::chrono::days(1)) {
        p.setPen(t.line);
        p.drawLine(QPointF(x_of(day), 1), QPointF(x_of(day), height()));
        if (folded_) continue;
        p.setPen(t.pencil);
        const QString full = QString::fromStdString(show_moment(day, true))
                                 .section(' ', 0,
                                          day_wide > Theme::px(80)   ? 2
                                          : day_wide > Theme::px(48) ? 1
                                                                     : 0);
        const QString name = day_wide > Theme::px(26) ? full : full.left(1);
        p.drawText(QRectF(x_of(day) + 4, Theme::px(6), day_wide, Theme::px(20)), Qt::AlignLeft | Qt::AlignVCenter,
                   name);
    }
    // Waits behind, hands-on before.
    p.setFont(Theme::font(13, QFont::Medium, true));
    const std::vector<Task>& tasks = *desk_.plan().tasks;
    std::vector<const Slot*> by_task(tasks.size(), nullptr);
    for (const Slot& slot : c.slots) by_task.at(slot.task) = &slot;
    for (std::size_t i = 0; i < tasks.size(); ++i) {
        for (const Wait& w : tasks[i].waits) {
            if (w.at_least.count() < 30 || by_task[w.after] == nullptr || by_task[i] == nullptr) continue;
            const Moment from = by_task[w.after]->end;
            const QRectF where(x_of(from), bar_top, x_of(from + w.at_least) - x_of(from), bar_height);
            p.setPen(QPen(t.pencil, 1));
            p.setBrush(t.sheet);
            p.drawRoundedRect(where, 3, 3);
            hatch(p, where, t.line);
            label_wait(p, where, shown(desk_.say(w.why)));
        }
    }
    p.setPen(Qt::NoPen);
    for (const Slot& slot : c.slots) {
        p.setBrush(slot.done ? t.moss : t.graphite);
        p.drawRect(QRectF(x_of(slot.start), bar_top, std::max(1.5, x_of(slot.end) - x_of(slot.start)), bar_height));
    }
    p.setPen(QPen(t.chalk, 2));
    const double now = x_of(desk_.now());
    if (now >= left) p.drawLine(QPointF(now, folded_ ? 0 : Theme::px(24)), QPointF(now, height()));
    if (!folded_ && now >= left) {
        p.setFont(Theme::font(13, QFont::DemiBold));
        const int room = Theme::px(36);
        const double label_x = now - left < room ? now + 4 : now - room;
        p.drawText(QRectF(label_x, Theme::px(44), room, Theme::px(20)),
                   now - left < room ? Qt::AlignLeft : Qt::AlignRight, in_words("word.now"));
    }
    if (const auto& deadline = desk_.job().deadline; deadline && *deadline < span.to && *deadline >= span.from) {
        const double x = x_of(*deadline);
        p.setPen(QPen(t.brick, 2));
        p.drawLine(QPointF(x, folded_ ? 2 : Theme::px(6)), QPointF(x, height()));
        QPainterPath flag;
        const double top = folded_ ? 2 : Theme::px(6);
        flag.moveTo(x, top);
        flag.lineTo(x - 16, top + 6);
        flag.lineTo(x, top + 12);
        p.fillPath(flag, t.brick);
    }
}

}  // namespace skarvel
