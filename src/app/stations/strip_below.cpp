#include "stations/strip_below.h"

#include <QPainter>
#include <QTextLayout>

#include "theme/theme.h"
#include "theme/words.h"
#include "ticket/ticket.h"

namespace skarvel {
namespace {

// The first two lines; where there is more, the second ends in dots.
QStringList two_lines(const QString& text, const QFont& font, int width) {
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

StripBelow::StripBelow(QWidget* parent) : QAbstractButton(parent) {
    setObjectName("below");
    setCursor(Qt::PointingHandCursor);
    setFocusPolicy(Qt::TabFocus);
    setFixedHeight(Theme::px(56));
    hide();
}

void StripBelow::show_problem(Mark mark, const QString& what, int more) {
    mark_ = mark;
    what_ = what;
    setText(more > 0 ? in_words("tray.and-more", {{"what", what}, {"more", more}}) : what);
    setToolTip(text());
    setAccessibleName(in_words("tray.further-down", {{"text", text()}}));
    show();
    raise();
    update();
}

void StripBelow::paintEvent(QPaintEvent*) {
    const Tokens& t = Theme::tokens();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), t.sheet);
    p.fillRect(QRectF(0, 0, width(), 1), t.pencil);
    const int side = Theme::px(18);
    paint_mark(p, mark_, QRectF(16, (height() - side) / 2.0, side, side).adjusted(1, 1, -1, -1));
    const QIcon down = Theme::icon("chevron-down");
    down.paint(&p, QRect(width() - 16 - side, (height() - side) / 2, side, side));
    const QFont font = Theme::font(13, QFont::DemiBold);
    p.setFont(font);
    p.setPen(mark_ == Mark::Stop ? t.brick : t.ochre);
    const QRect room(16 + side + 8, 0, width() - 2 * (16 + side + 8), height());
    const QStringList lines = two_lines(text(), font, room.width());
    p.drawText(room, Qt::AlignLeft | Qt::AlignVCenter, lines.join('\n'));
    if (hasFocus()) {
        p.setPen(QPen(t.chalk, 2));
        p.drawRect(QRectF(rect()).adjusted(1, 1, -1, -1));
    }
}

}  // namespace skarvel
