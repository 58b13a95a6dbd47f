#include "stations/pinned.h"

#include <QPainter>
#include <QTextLayout>

#include "theme/theme.h"
#include "theme/words.h"
#include "ticket/ticket.h"

namespace skarvel {
namespace {

constexpr int paper_side = 16;  // paper left and right

QFont first_font() { return Theme::font(15, QFont::DemiBold); }
QFont under_font(Mark mark) { return Theme::font(13, mark == Mark::None ? QFont::Normal : QFont::DemiBold); }

// The first two lines; where there is more, the second ends in dots.
QStringList two_lines(const QString& text, const QFont& font, int width) {
    if (text.isEmpty()) return {};
    QTextLayout layout(text, font);
    layout.beginLayout();
    QTextLine first = layout.createLine();
    if (first.isValid()) first.setLineWidth(width);
    layout.endLayout();
    if (!first.isValid()) return {};
    const QString rest = text.mid(first.textLength()).trimmed();
    QStringList lines{text.left(first.textLength()).trimmed()};
    if (!rest.isEmpty()) lines << QFontMetrics(font).elidedText(rest, Qt::ElideRight, width);
    return lines;
}

}  // namespace

Pinned::Pinned(QWidget* parent) : QAbstractButton(parent) {
    setObjectName("pinned");
    setCursor(Qt::PointingHandCursor);
    setFocusPolicy(Qt::TabFocus);
    hide();
}

void Pinned::show_result(const QString& first, const QString& second, Mark mark, int more) {
    first_ = first;
    second_ = more > 0 ? in_words("tray.and-more", {{"what", second}, {"more", more}}) : second;
    mark_ = mark;
    setText(second_.isEmpty() ? first_ : first_ + "\n" + second_);
    setToolTip(text());
    setAccessibleName(in_words("tray.pinned", {{"first", first_}, {"second", second_}}));
    show();
    raise();
    update();
}

// Beside the mark.
int Pinned::room_of(int width) const { return width - 2 * paper_side - Theme::px(26); }

QStringList Pinned::under(int width) const { return two_lines(second_, under_font(mark_), room_of(width)); }

int Pinned::height_for(int width) const {
    const int lines = static_cast<int>(under(width).size());
    return Theme::px(16) + QFontMetrics(first_font()).height() + lines * QFontMetrics(under_font(mark_)).height();
}

void Pinned::paintEvent(QPaintEvent*) {
    const Tokens& t = Theme::tokens();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), t.sheet);
    p.fillRect(QRectF(0, height() - 1, width(), 1), t.pencil);
    const int icon = Theme::px(18);
    const QRectF at(paper_side, Theme::px(9), icon, icon);
    if (mark_ == Mark::None) {
        // Nothing yet is nothing sound.
        if (!second_.isEmpty()) Theme::icon("check").paint(&p, at.toRect());
    } else {
        paint_mark(p, mark_, at.adjusted(1, 1, -1, -1));
    }
    const int x = paper_side + Theme::px(26);
    const QFontMetrics first(first_font());
    p.setFont(first_font());
    p.setPen(t.graphite);
    p.drawText(QRect(x, Theme::px(8), room_of(width()), first.height()), Qt::AlignLeft | Qt::AlignVCenter,
               first.elidedText(first_, Qt::ElideRight, room_of(width())));
    p.setFont(under_font(mark_));
    p.setPen(mark_ == Mark::Stop ? t.brick : mark_ == Mark::Look ? t.ochre : t.pencil);
    p.drawText(QRect(x, Theme::px(8) + first.height(), room_of(width()), height()), Qt::AlignLeft | Qt::AlignTop,
               under(width()).join('\n'));
    if (hasFocus()) {
        p.setPen(QPen(t.chalk, 2));
        p.setBrush(Qt::NoBrush);
        p.drawRect(QRectF(rect()).adjusted(1, 1, -1, -1));
    }
}

}  // namespace skarvel
