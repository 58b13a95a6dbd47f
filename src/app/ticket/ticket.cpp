#include "ticket/ticket.h"

#include <QPainter>
#include <QPainterPath>

#include "theme/theme.h"
#include "theme/words.h"

namespace skarvel {
namespace {

constexpr int inner = 12;  // paper around the ticket
constexpr int head = 92;   // number, customer and due date
constexpr int folded_head = 24;

}  // namespace

QString station_name(Station station) { return in_words((std::string("station.") + word_of(station)).c_str()); }

namespace {

// A strip of tape, torn off at both ends.
QPainterPath strip(QPointF middle, double length, double high, double degrees) {
    const double x = length / 2, y = high / 2, tooth = high * 0.22;
    QPolygonF points{{-x, -y}, {x, -y}, {x - tooth, -y / 2}, {x, 0},  {x - tooth, y / 2},
                     {x, y},   {-x, y}, {-x + tooth, y / 2}, {-x, 0}, {-x + tooth, -y / 2}};
    QPainterPath path;
    path.addPolygon(QTransform::fromTranslate(middle.x(), middle.y()).rotate(degrees).map(points));
    path.closeSubpath();
    return path;
}

}  // namespace

void paint_mark(QPainter& painter, Mark mark, const QRectF& at) {
    if (mark == Mark::None) return;
    const Tokens& t = Theme::tokens();
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(Qt::NoPen);
    painter.setBrush(mark == Mark::Look ? t.ochre : t.brick);
    const double side = at.width();
    if (mark == Mark::Stop) {
        // Taped over crosswise: no way through.
        painter.drawPath(strip(at.center(), side * 1.15, side * 0.36, 45));
        painter.drawPath(strip(at.center(), side * 1.15, side * 0.36, -45));
    } else {
        painter.drawPath(strip(at.center(), side * 1.3, side * 0.92, -8));
        painter.setPen(t.sheet);
        QFont font = Theme::font(13, QFont::Bold);
        font.setPixelSize(static_cast<int>(at.height() * 0.84));
        painter.setFont(font);
        painter.drawText(at, Qt::AlignCenter, "?");
    }
    painter.restore();
}

StationButton::StationButton(int number, const QString& name, QWidget* parent)
    : QAbstractButton(parent), number_(number), name_(name) {
    setCheckable(true);
    setAutoExclusive(true);
    setFocusPolicy(Qt::StrongFocus);
    setCursor(Qt::PointingHandCursor);
    setObjectName("station-" + QString::number(number));
}

void StationButton::show_line(const QString& first, const QString& second, Mark mark, bool behind) {
    first_ = first;
    second_ = second;
    mark_ = mark;
    behind_ = behind;
    const QString spoken = mark == Mark::Stop   ? in_words("ticket-view.stop")
                           : mark == Mark::Look ? in_words("ticket-view.look")
                                                : QString();
    setAccessibleName(QString("%1 %2: %3, %4%5").arg(number_).arg(name_, first, second, spoken));
    setToolTip(folded_ ? QString("%1: %2, %3").arg(name_, first, second) : QString());
    update();
}

void StationButton::set_folded(bool folded) {
    folded_ = folded;
    update();
}

QSize StationButton::sizeHint() const { return {200, Theme::px(68)}; }

void StationButton::paintEvent(QPaintEvent*) {
    const Tokens& t = Theme::tokens();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (isChecked()) {
        QColor wash = t.chalk;
        wash.setAlphaF(0.1F);
        p.fillRect(rect(), wash);
        p.fillRect(0, 0, 4, height(), t.chalk);
    } else if (underMouse()) {
        QColor wash = t.pencil;
        wash.setAlphaF(0.1F);
        p.fillRect(rect(), wash);
    }
    if (hasFocus()) {
        p.setPen(QPen(t.chalk, 2));
        p.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 3, 3);
    }
    const int mark_size = Theme::px(16);
    p.setFont(Theme::font(18, QFont::DemiBold));
    p.setPen(isChecked() ? t.chalk : t.pencil);
    if (folded_) {
        const int middle = height() / 2;
        p.drawText(QRect(8, middle - Theme::px(24), Theme::px(20), Theme::px(24)), Qt::AlignLeft | Qt::AlignVCenter,
                   QString::number(number_));
        paint_mark(p, mark_, QRectF(8 + Theme::px(22), middle - Theme::px(20), mark_size, mark_size));
        p.setFont(Theme::font(13, QFont::DemiBold));
        p.setPen(t.graphite);
        p.drawText(QRect(8, middle, width() - 8, Theme::px(20)), Qt::AlignLeft | Qt::AlignVCenter, name_);
        return;
    }
    const int text_x = 12 + Theme::px(24);
    const int name_y = height() < Theme::px(64) ? 0 : Theme::px(4);
    p.drawText(QRect(12, name_y, Theme::px(20), Theme::px(24)), Qt::AlignLeft | Qt::AlignVCenter,
               QString::number(number_));
    p.setPen(t.graphite);
    p.drawText(QRect(text_x, name_y, width() - text_x, Theme::px(24)), Qt::AlignLeft | Qt::AlignVCenter, name_);
    if (behind_) p.setOpacity(0.5);
    const auto line = [&](const QString& text, int y, int size, const QColor& colour) {
        p.setFont(Theme::font(size));
        p.setPen(colour);
        const int room = width() - text_x - 6;
        QFontMetrics metrics(p.font());
        if (metrics.horizontalAdvance(text) > room) {
            p.setFont(Theme::font(size, QFont::Normal, true));
            metrics = QFontMetrics(p.font());
        }
        p.drawText(QRect(text_x, y, room, Theme::px(20)), Qt::AlignLeft | Qt::AlignVCenter,
                   metrics.elidedText(text, Qt::ElideRight, room));
    };
    // Large text in a low window: the second line goes first.
    const bool tight = height() < Theme::px(64);
    if (height() >= Theme::px(42)) line(first_, tight ? Theme::px(23) : Theme::px(27), 15, t.graphite);
    if (!tight) line(second_, Theme::px(45), 13, t.pencil);
    p.setOpacity(1);
    paint_mark(p, mark_, QRectF(width() - mark_size - 10, Theme::px(8), mark_size, mark_size));
}

Ticket::Ticket(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
    setAccessibleName(in_words("ticket-view.job-ticket"));
    for (std::size_t i = 0; i < station_count; ++i) {
        const auto station = static_cast<Station>(i);
        buttons_.at(i) = new StationButton(static_cast<int>(i) + 1, station_name(station), this);
        connect(buttons_.at(i), &QAbstractButton::clicked, this, [this, station] { Q_EMIT chosen(station); });
    }
    buttons_.front()->setChecked(true);
    set_folded(false);
}

void Ticket::set_folded(bool folded) {
    folded_ = folded;
    setFixedWidth(folded ? 16 + Theme::px(60) : 12 + Theme::px(224));
    for (StationButton* b : buttons_) b->set_folded(folded);
    lay_out();
    update();
}

void Ticket::show_station(Station station) { buttons_.at(static_cast<std::size_t>(station))->setChecked(true); }

void Ticket::refresh(bool behind) {
    const auto lines = summary(desk_.job(), desk_.plan(), desk_.records().size(), desk_.at());
    // A job that nobody has touched yet does nothing wrong.
    const bool untouched = desk_.path().empty() && !desk_.can_undo() && !desk_.can_redo();
    for (std::size_t i = 0; i < station_count; ++i) {
        buttons_.at(i)->show_line(shown(desk_.say(lines.at(i).first)), shown(desk_.say(lines.at(i).second)),
                                  untouched ? Mark::None : lines.at(i).mark, behind);
    }
    update();
}

void Ticket::resizeEvent(QResizeEvent*) { lay_out(); }

void Ticket::lay_out() {
    const int top = folded_ ? folded_head : inner + Theme::px(head) + 8;
    const int left = folded_ ? 4 : inner + 2;
    const int wide = width() - (folded_ ? 8 : inner + 4 + inner);
    const int room = height() - top - inner - 4;
    const int each = std::min(Theme::px(76), room / static_cast<int>(station_count));
    int y = top;
    for (StationButton* b : buttons_) {
        b->setGeometry(left, y, wide + (folded_ ? 0 : inner - 4), each);
        y += each;
    }
}

void Ticket::paintEvent(QPaintEvent*) {
    const Tokens& t = Theme::tokens();
    QPainter p(this);
    p.fillRect(rect(), t.paper);
    if (folded_) return;
    p.setRenderHint(QPainter::Antialiasing);
    const QRectF card(inner, inner, width() - inner - 4, height() - 2 * inner);
    p.setPen(QPen(t.line, 1.5));
    p.setBrush(t.sheet);
    p.drawRect(card);
    // The edge where it was torn from the pad.
    p.setBrush(t.paper);
    constexpr double pitch = 11;
    for (double x = card.left() + 8; x < card.right() - 3; x += pitch) p.drawEllipse(QPointF(x, card.top()), 3.2, 3.2);

    const Job& job = desk_.job();
    const int x = inner + 14;
    const int wide = width() - x - 18;
    p.setPen(t.pencil);
    QFont spaced = Theme::font(13, QFont::DemiBold);
    spaced.setLetterSpacing(QFont::AbsoluteSpacing, 1.5);
    p.setFont(spaced);
    p.drawText(QRect(x, inner + Theme::px(14), wide, Theme::px(20)), Qt::AlignLeft | Qt::AlignVCenter,
               in_words("ticket-view.heading"));
    p.setFont(Theme::font(13));
    if (!job.number.empty()) {
        p.drawText(QRect(x, inner + Theme::px(14), wide, Theme::px(20)), Qt::AlignRight | Qt::AlignVCenter,
                   "№ " + QString::fromStdString(job.number));
    }
    p.setFont(Theme::font(15, QFont::Medium));
    p.setPen(t.graphite);
    // Of several signs the one at hand; otherwise who it is for.
    const bool several = job.signs.size() > 1 || desk_.sign().faces.size() > 1;
    const QString who =
        desk_.together() ? in_words("ticket-view.all-signs", {{"signs", job.signs.size()}})
        : several        ? in_words("ticket-view.of", {{"number", desk_.sign_at() + 1},
                                                       {"signs", job.signs.size()},
                                                       {"sign", QString::fromStdString(label_of(desk_.sign()))},
                                                       {"back", desk_.face_at() > 0 ? in_words("word.back") : QString()}})
                         : QString::fromStdString(job.customer.empty() ? job.title : job.customer);
    p.drawText(QRect(x, inner + Theme::px(36), wide, Theme::px(22)), Qt::AlignLeft | Qt::AlignVCenter,
               QFontMetrics(p.font()).elidedText(who, Qt::ElideRight, wide));
    p.setFont(Theme::font(13));
    p.setPen(t.pencil);
    const QString due =
        job.deadline
            ? in_words("ticket-view.wanted", {{"deadline", QString::fromStdString(show_moment(*job.deadline, true))}})
            : in_words("word.no-deadline");
    p.drawText(QRect(x, inner + Theme::px(57), wide, Theme::px(20)), Qt::AlignLeft | Qt::AlignVCenter, due);
    p.setPen(QPen(t.line, 1, Qt::DashLine));
    p.drawLine(QPointF(x, inner + Theme::px(86)), QPointF(x + wide, inner + Theme::px(86)));
}

}  // namespace skarvel
