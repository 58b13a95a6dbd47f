#include "window/signs_row.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>

#include "drawing/face_painter.h"
#include "theme/theme.h"
#include "theme/words.h"

namespace skarvel {

SignsRow::SignsRow(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
    setObjectName("signs-row");
    setAccessibleName(in_words("word.signs-of-this-job"));
    setFocusPolicy(Qt::StrongFocus);
    setFixedHeight(Theme::px(60));
}

bool SignsRow::wanted() const {
    const Job& job = desk_.job();
    return job.signs.size() > 1 || job.signs.front().faces.size() > 1 || job.post;
}

void SignsRow::refresh() {
    setFixedHeight(Theme::px(60));
    setVisible(wanted());
    lay_out();
    const Sign& sign = desk_.sign();
    setAccessibleDescription(desk_.together() ? in_words("signs-row.all-together")
                                              : QString::fromStdString(label_of(sign)) +
                                                    (desk_.face_at() > 0 ? in_words("word.back") : QString()));
    update();
}

void SignsRow::resizeEvent(QResizeEvent*) { lay_out(); }

void SignsRow::lay_out() {
    cards_.clear();
    const QFontMetrics m(Theme::font(15, QFont::Medium));
    double x = 12 - offset_;
    const double high = height() - 10.0;
    const Job& job = desk_.job();
    for (std::size_t s = 0; s < job.signs.size(); ++s) {
        for (std::size_t f = 0; f < job.signs[s].faces.size(); ++f) {
            const QString name = QString::fromStdString(label_of(job.signs[s]));
            const double wide =
                std::clamp(m.horizontalAdvance(name) + Theme::px(96) * 1.0, Theme::px(120) * 1.0, Theme::px(210) * 1.0);
            cards_.push_back({QRectF(x, 5, wide, high), s, f, false});
            x += wide + 6;
        }
    }
    if (job.signs.size() > 1 || job.post) {
        cards_.push_back({QRectF(x, 5, Theme::px(64), high), 0, 0, true});
        x += Theme::px(64) + 6;
    }
    const double beyond = std::max(0.0, x + offset_ - width());
    if (offset_ > beyond) {
        offset_ = beyond;
        lay_out();  // once more, from where the row now begins
    }
}

std::optional<std::size_t> SignsRow::chosen() const {
    for (std::size_t i = 0; i < cards_.size(); ++i) {
        const Card& c = cards_[i];
        if (c.all ? desk_.together() : !desk_.together() && c.sign == desk_.sign_at() && c.face == desk_.face_at())
            return i;
    }
    return std::nullopt;
}

void SignsRow::choose(const Card& card) {
    if (card.all) {
        desk_.show_together(true);
    } else {
        desk_.select(card.sign, card.face);
    }
}

void SignsRow::mousePressEvent(QMouseEvent* event) {
    for (const Card& card : cards_) {
        if (card.where.contains(event->position())) return choose(Card(card));
    }
}

void SignsRow::keyPressEvent(QKeyEvent* event) {
    const int step = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    if (step == 0 || cards_.empty()) return QWidget::keyPressEvent(event);
    const auto now = static_cast<int>(chosen().value_or(0));
    const auto next = static_cast<std::size_t>(std::clamp(now + step, 0, static_cast<int>(cards_.size()) - 1));
    const QRectF where = cards_[next].where;
    if (where.right() > width()) offset_ += where.right() - width() + 12;
    if (where.left() < 0) offset_ = std::max(0.0, offset_ + where.left() - 12);
    choose(Card(cards_[next]));
}

void SignsRow::wheelEvent(QWheelEvent* event) {
    offset_ = std::max(0.0, offset_ - event->angleDelta().y() / 2.0 - event->angleDelta().x() / 2.0);
    lay_out();
    update();
    event->accept();
}

void SignsRow::paint_card(QPainter& p, const Card& card, bool is_chosen) const {
    const Tokens& t = Theme::tokens();
    p.setPen(QPen(is_chosen ? t.chalk : t.pencil, is_chosen ? 2 : 1));
    p.setBrush(t.sheet);
    p.drawRoundedRect(card.where.adjusted(0.5, 0.5, -0.5, -0.5), 3, 3);
    p.setPen(is_chosen ? t.chalk : t.graphite);
    p.setFont(Theme::font(15, is_chosen ? QFont::DemiBold : QFont::Medium));
    if (card.all) {
        p.drawText(card.where, Qt::AlignCenter, in_words("signs-row.all"));
        return;
    }
    const Job& job = desk_.job();
    const Sign& sign = job.signs[card.sign];
    const QRectF picture(card.where.left() + 6, card.where.top() + 5, Theme::px(58), card.where.height() - 10);
    const ColourPlan* plan = desk_.plan().of(job.signs[card.sign].faces[card.face].id);
    if (plan != nullptr && !plan->face->blank->face.empty()) {
        const Box& face = plan->face->blank->face;
        const FaceView view = FaceView::within(picture, face, face);
        p.save();
        p.setClipRect(card.where);
        const FacePainter painter(sign, sign.faces[card.face], *plan, view, &desk_.plan());
        painter.board(p, false);
        painter.all_ink(p);
        p.restore();
    }
    const QRectF text(picture.right() + 8, card.where.top(), card.where.right() - picture.right() - 14,
                      card.where.height());
    p.setPen(is_chosen ? t.chalk : t.graphite);
    const QString name = QFontMetrics(p.font()).elidedText(QString::fromStdString(label_of(sign)), Qt::ElideRight,
                                                           static_cast<int>(text.width()));
    if (sign.faces.size() > 1) {
        p.drawText(text.adjusted(0, 4, 0, -text.height() / 2), Qt::AlignLeft | Qt::AlignVCenter, name);
        p.setFont(Theme::font(13));
        p.setPen(t.pencil);
        p.drawText(text.adjusted(0, text.height() / 2 - 2, 0, -4), Qt::AlignLeft | Qt::AlignVCenter,
                   card.face == 0 ? in_words("signs-row.front") : in_words("signs-row.back"));
    } else {
        p.drawText(text, Qt::AlignLeft | Qt::AlignVCenter, name);
    }
}

void SignsRow::paintEvent(QPaintEvent*) {
    const Tokens& t = Theme::tokens();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), t.paper);
    const auto now = chosen();
    for (std::size_t i = 0; i < cards_.size(); ++i) {
        if (cards_[i].where.right() < 0 || cards_[i].where.left() > width()) continue;
        paint_card(p, cards_[i], now == i);
    }
    p.setPen(QPen(t.line, 1));
    p.drawLine(0, height() - 1, width(), height() - 1);
    if (hasFocus()) {
        p.setPen(QPen(t.chalk, 2));
        p.setBrush(Qt::NoBrush);
        p.drawRect(rect().adjusted(1, 1, -1, -1));
    }
}

}  // namespace skarvel
