#include "drawing/drawing.h"

#include <QKeyEvent>
#include <QPainter>
#include <QScreen>

#include "drawing/scale.h"
#include "theme/theme.h"
#include "theme/words.h"

namespace skarvel {

void Drawing::set_step_back(bool on) {
    step_back_ = on;
    lay_out();
    Q_EMIT view_changed();
}

// The sign as it is seen from where it is read, beside somebody who stands there: all at one scale, so that equal
// angles of sight stay equal; and how large that is on this screen.
void Drawing::paint_step_back(QPainter& p) {
    const Tokens& t = Theme::tokens();
    const Length distance = desk_.face().seen.distance.value;
    const Length eye = eye_distance_;
    const double dots_per_mm = matched_dots_per_mm_ > 0 ? matched_dots_per_mm_
                               : screen() != nullptr    ? screen()->physicalDotsPerInch() / 25.4
                                                        : 96 / 25.4;
    // Pixels for a millimetre of the sign.
    const double scale = dots_per_mm * on_screen(Length::from_mm(1000), distance, eye).in_mm() / 1000;
    const double floor = height() - Theme::px(90);
    const double base = desk_.face().seen.above_floor.value.in_mm();
    p.setRenderHint(QPainter::Antialiasing);
    FaceView view;
    view.face = face()->face->blank->face;
    view.scale = scale * grid_nm * 1e-6;
    const QSizeF size = view.size();
    const double figure = 1700 * scale;  // somebody of 5 ft 7 in
    const double middle = width() / 2.0 + std::min(figure * 0.2, width() * 0.1);
    // The lettering's base line stands where it will hang; what the window cannot hold is cut off, not shrunk.
    const double foot =
        face()->face->lettering->ink.empty() ? 0 : static_cast<double>(face()->face->lettering->ink.low.y) * view.scale;
    const double above = base * scale - foot;  // the lower edge of the sign above the floor
    double top = floor - above - size.height();
    double ground = floor;
    if (top < Theme::px(70)) {
        top = std::max(Theme::px(70) * 1.0, (floor - size.height()) / 2);
        ground = top + size.height() + above;
    }
    view.origin = QPointF(middle - size.width() / 2, top);
    // The figure: head, body and legs, no more than a shape.
    const double x = std::max(Theme::px(24) * 1.0, view.origin.x() - figure * 0.16);
    QPainterPath body;
    body.addEllipse(QPointF(x, ground - figure * 0.925), figure * 0.062, figure * 0.075);
    body.addRoundedRect(QRectF(x - figure * 0.12, ground - figure * 0.835, figure * 0.24, figure * 0.40), figure * 0.07,
                        figure * 0.07);
    body.addRoundedRect(QRectF(x - figure * 0.105, ground - figure * 0.47, figure * 0.095, figure * 0.47),
                        figure * 0.03, figure * 0.03);
    body.addRoundedRect(QRectF(x + figure * 0.01, ground - figure * 0.47, figure * 0.095, figure * 0.47), figure * 0.03,
                        figure * 0.03);
    body.setFillRule(Qt::WindingFill);
    p.setPen(Qt::NoPen);
    p.setBrush(t.pencil);
    p.save();
    p.setClipRect(QRectF(0, Theme::px(56), width(), floor - Theme::px(56)));
    p.drawPath(body);
    p.restore();
    p.fillRect(QRectF(0, floor, width(), height() - floor), t.paper);
    p.setPen(QPen(ground <= floor + 1 ? t.graphite : t.line, 1));
    p.drawLine(QPointF(0, floor), QPointF(width(), floor));
    const FacePainter painter(sign(), desk_.face(), *face(), view, &desk_.plan());
    p.save();
    p.setClipRect(QRectF(0, Theme::px(56), width(), floor - Theme::px(56)));
    painter.board(p, false);
    painter.all_ink(p);
    p.restore();
    p.setPen(t.graphite);
    p.setFont(Theme::font(15, QFont::DemiBold));
    const Display& display = desk_.shop().display;
    p.drawText(
        QRectF(paper_side, floor + 8, width() - 2 * paper_side, Theme::px(24)), Qt::AlignLeft | Qt::AlignVCenter,
        in_words("on-drawing.seen-from-with-the",
                 {{"distance", QString::fromStdString(show_far(distance, display))},
                  {"eye", shown(skarvel::show(eye, display))},
                  {"matched", matched_dots_per_mm_ > 0 ? QString() : in_words("on-drawing.screen-not-matched")}}));
    p.setPen(t.pencil);
    p.setFont(Theme::font(15));
    p.drawText(QRectF(paper_side, floor + Theme::px(32), width() - 2 * paper_side, Theme::px(50)),
               Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap,
               matching_ ? in_words("on-drawing.lay-a-rule-on") : in_words("on-drawing.s-goes-back-m"));
    if (matching_) {
        const double length = dots_per_mm * 101.6;
        const QPointF a(paper_side, Theme::px(80));
        QPainterPath line(a);
        line.lineTo(a + QPointF(length, 0));
        for (int i = 0; i <= 4; ++i) {
            line.moveTo(a + QPointF(length * i / 4, -10));
            line.lineTo(a + QPointF(length * i / 4, 10));
        }
        cased(p, line, QPen(t.chalk, 2));
    }
}

bool Drawing::step_back_key(QKeyEvent* event) {
    const double now = matched_dots_per_mm_ > 0 ? matched_dots_per_mm_
                       : screen() != nullptr    ? screen()->physicalDotsPerInch() / 25.4
                                                : 96 / 25.4;
    switch (event->key()) {
        case Qt::Key_M:
            matching_ = !matching_;
            if (matching_) matched_dots_per_mm_ = now;
            break;
        case Qt::Key_Plus:
        case Qt::Key_Minus:
            if (!matching_) return false;
            matched_dots_per_mm_ = std::clamp(now * (event->key() == Qt::Key_Plus ? 1.005 : 1 / 1.005), 1.0, 40.0);
            break;
        case Qt::Key_Return:
        case Qt::Key_Enter:
            if (!matching_) return false;
            matching_ = false;
            Q_EMIT screen_matched(matched_dots_per_mm_);
            break;
        case Qt::Key_Comma:
        case Qt::Key_Period:
            eye_distance_ = std::clamp(eye_distance_ + (event->key() == Qt::Key_Comma ? -2_in : 2_in), 8_in, 120_in);
            break;
        case Qt::Key_Escape:
            matching_ = false;
            set_step_back(false);
            break;
        default:
            return false;
    }
    update();
    return true;
}

}  // namespace skarvel
