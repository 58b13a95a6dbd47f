#include "stations/samples.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <cmath>

#include "drawing/face_painter.h"
#include "theme/theme.h"
#include "theme/words.h"

namespace skarvel {
namespace {

int row_height() { return Theme::px(46); }
int card_height() { return Theme::px(150); }

// Fits a box into a rectangle of the screen, y upwards turned downwards.
QTransform into(const Box& box, const QRectF& room) {
    const double scale =
        std::min(room.width() / static_cast<double>(box.width()), room.height() / static_cast<double>(box.height()));
    const double x = room.left() + (room.width() - scale * static_cast<double>(box.width())) / 2;
    const double y = room.top() + (room.height() - scale * static_cast<double>(box.height())) / 2;
    return {
        scale, 0, 0, -scale, x - scale * static_cast<double>(box.low.x), y + scale * static_cast<double>(box.high.y)};
}

}  // namespace

Samples::Samples(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(in_words("lettering-tray.samples-of-the-words"));
    setObjectName("samples");
}

void Samples::show_words(const Text& like) {
    std::string words = like.words.substr(0, like.words.find('\n'));
    if (words.empty()) words = "Aa";
    now_ = like.typeface;
    const auto& typefaces = desk_.library().typefaces;
    if (words != words_ || drawn_.size() != typefaces.size()) {
        words_ = words;
        drawn_.clear();
        Text text;
        text.words = words;
        text.arrangement = Arrangement::Level;
        text.sizing = Sizing::Snug;
        const Box room{{0, 0}, {to_grid(8_in), to_grid(1_in)}};
        for (const Typeface& t : typefaces) {
            text.typeface = t.name;
            auto& letters = drawn_.emplace_back();
            for (const PlacedLetter& l : place(text, room, typefaces).letters) letters.push_back(l.ink);
        }
        setFixedHeight(static_cast<int>(typefaces.size()) * row_height());
    }
    update();
}

void Samples::paintEvent(QPaintEvent*) {
    const Tokens& t = Theme::tokens();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const auto& typefaces = desk_.library().typefaces;
    for (std::size_t i = 0; i < drawn_.size() && i < typefaces.size(); ++i) {
        const QRectF row(0, static_cast<int>(i) * row_height(), width(), row_height() - 2);
        const bool now = typefaces[i].name.family == now_.family && typefaces[i].name.style == now_.style;
        if (now) {
            QColor wash = t.chalk;
            wash.setAlphaF(0.12F);
            p.fillRect(row, wash);
        }
        p.setPen(QPen(hasFocus() && at_ == i ? t.chalk : t.line, hasFocus() && at_ == i ? 2 : 1));
        p.drawLine(row.bottomLeft(), row.bottomRight());
        p.setPen(t.pencil);
        p.setFont(Theme::font(13));
        const QString name = QString::fromStdString(typefaces[i].name.family + " " + typefaces[i].name.style);
        p.drawText(row.adjusted(4, 0, -4, -2), Qt::AlignRight | Qt::AlignBottom,
                   QFontMetrics(p.font()).elidedText(name, Qt::ElideRight, static_cast<int>(row.width()) - 8));
        Box box;
        for (const Region& r : drawn_[i]) box = around(box, r.bounds());
        if (box.empty()) continue;
        const QTransform fit = into(box, QRectF(row.left() + 4, row.top() + 3, row.width() * 0.72, row.height() - 20));
        p.setPen(Qt::NoPen);
        p.setBrush(t.graphite);
        for (const Region& r : drawn_[i]) p.drawPath(fit.map(path_of(r)));
    }
}

void Samples::mousePressEvent(QMouseEvent* event) {
    const int i = static_cast<int>(event->position().y()) / row_height();
    if (i < 0 || static_cast<std::size_t>(i) >= drawn_.size()) return;
    at_ = static_cast<std::size_t>(i);
    Q_EMIT picked(i);
}

void Samples::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Down && at_ + 1 < drawn_.size()) {
        ++at_;
    } else if (event->key() == Qt::Key_Up && at_ > 0) {
        --at_;
    } else if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Space) {
        Q_EMIT picked(static_cast<int>(at_));
    } else {
        return QWidget::keyPressEvent(event);
    }
    update();
}

ProposalList::ProposalList(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(in_words("lettering-tray.proposals"));
    setObjectName("proposals");
    setFixedHeight(0);
}

void ProposalList::show_proposals(Proposals proposals, const ComposeWish& wish, const LetteringRoom& room) {
    proposals_ = std::move(proposals);
    drawn_.clear();
    usable_ = room.usable;
    shape_ = room.free;
    for (const Proposal& p : proposals_.best)
        drawn_.push_back(place(Lettering{texts_of(p, wish), false}, room, desk_.library().typefaces));
    at_ = 0;
    setFixedHeight(static_cast<int>(drawn_.size()) * (card_height() + 8));
    updateGeometry();
    update();
}

QRectF ProposalList::card(std::size_t i) const {
    return {1.0, static_cast<double>(i) * (card_height() + 8) + 1, width() - 2.0, card_height() - 2.0};
}

void ProposalList::paintEvent(QPaintEvent*) {
    const Tokens& t = Theme::tokens();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    for (std::size_t i = 0; i < drawn_.size(); ++i) {
        const QRectF c = card(i);
        p.setBrush(t.sheet);
        p.setPen(QPen(hasFocus() && at_ == i ? t.chalk : t.pencil, hasFocus() && at_ == i ? 2 : 1));
        p.drawRoundedRect(c, 3, 3);
        QString words;
        for (const Reason& r : proposals_.best[i].why) {
            if (!words.isEmpty()) words += "; ";
            words += shown(desk_.say(r));
        }
        p.setFont(Theme::font(13));
        p.setPen(t.graphite);
        const QRectF below(c.left() + 8, c.bottom() - Theme::px(54), c.width() - 16, Theme::px(50));
        p.drawText(below, Qt::AlignLeft | Qt::AlignBottom | Qt::TextWordWrap, words);
        const QTransform fit =
            into(usable_, QRectF(c.left() + 8, c.top() + 6, c.width() - 16, c.height() - Theme::px(66)));
        p.setPen(QPen(t.line, 1, Qt::DashLine));
        p.setBrush(Qt::NoBrush);
        if (!shape_.empty()) p.drawPath(fit.map(path_of(shape_)));
        p.setPen(Qt::NoPen);
        p.setBrush(t.graphite);
        for (const PlacedLetter& l : drawn_[i].letters) p.drawPath(fit.map(path_of(l.ink)));
    }
}

void ProposalList::mousePressEvent(QMouseEvent* event) {
    for (std::size_t i = 0; i < drawn_.size(); ++i) {
        if (!card(i).contains(event->position())) continue;
        at_ = i;
        Q_EMIT taken(static_cast<int>(i));
        return;
    }
}

void ProposalList::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Down && at_ + 1 < drawn_.size()) {
        ++at_;
    } else if (event->key() == Qt::Key_Up && at_ > 0) {
        --at_;
    } else if ((event->key() == Qt::Key_Return || event->key() == Qt::Key_Space) && at_ < drawn_.size()) {
        Q_EMIT taken(static_cast<int>(at_));
    } else {
        return QWidget::keyPressEvent(event);
    }
    update();
}

}  // namespace skarvel
