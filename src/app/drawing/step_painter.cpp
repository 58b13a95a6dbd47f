#include "drawing/step_painter.h"

#include <QMouseEvent>
#include <algorithm>
#include <cmath>

#include "theme/theme.h"

namespace skarvel {
namespace {

QColor with_alpha(QColor colour, double alpha) {
    colour.setAlphaF(static_cast<float>(alpha));
    return colour;
}

QColor colour_of(const PictureMark& m, const QColor& otherwise) {
    const QColor own(QString::fromStdString(m.colour));
    return m.colour.empty() || !own.isValid() ? otherwise : own;
}

// A window of a picture at a corner of the room, laid down or not.
QTransform onto(const Box& window, bool laid_down, QPointF corner, double scale) {
    FaceView view;
    view.face = window;
    view.laid_down = laid_down;
    view.scale = scale;
    view.origin = corner;
    return QTransform::fromTranslate(-static_cast<double>(window.low.x), -static_cast<double>(window.low.y)) *
           view.transform();
}

QSizeF size_of(const Box& window, bool laid_down) {
    const QSizeF size(static_cast<double>(window.width()), static_cast<double>(window.height()));
    return laid_down ? size.transposed() : size;
}

QRectF rect_of(const QTransform& transform, const Box& box) {
    return transform.mapRect(QRectF(static_cast<double>(box.low.x), static_cast<double>(box.low.y),
                                    static_cast<double>(box.width()), static_cast<double>(box.height())));
}

}  // namespace

StepPainter::StepPainter(const StepPicture& picture, const QRectF& room, Say say)
    : picture_(picture), room_(room), say_(std::move(say)) {
    const QSizeF window = size_of(picture.window, picture.laid_down);
    if (window.isEmpty()) return;
    // Callouts and numbers stand beside what is measured.
    const double beside = Theme::px(30);
    QRectF drawn = room_.adjusted(beside, beside, -beside, -beside);
    const QSizeF whole = size_of(picture.whole, picture.laid_down);
    part_ = whole.width() > window.width() * 1.25 || whole.height() > window.height() * 1.25;
    if (part_) drawn.setTop(drawn.top() + Theme::px(30));
    const double scale = std::min(drawn.width() / window.width(), drawn.height() / window.height());
    transform_ = onto(picture.window, picture.laid_down,
                      drawn.center() - QPointF(window.width() / 2, window.height() / 2) * scale, scale);
}

QPointF StepPainter::at(Point p) const {
    return transform_.map(QPointF(static_cast<double>(p.x), static_cast<double>(p.y)));
}

void StepPainter::paint(QPainter& p) {
    if (picture_.window.empty()) return;
    p.setRenderHint(QPainter::Antialiasing);
    // Words keep off crosses.
    for (const PictureMark& m : picture_.marks) {
        if (m.shows == Shows::Corner) taken_.emplace_back(at(m.from) - QPointF(11, 11), QSizeF(22, 22));
    }
    for (const PictureMark& m : picture_.marks) {
        if (!m.area.empty()) area(p, m);
    }
    for (const PictureMark& m : picture_.marks) {
        if (m.area.empty()) line(p, m);
    }
    if (part_) overview(p);
}

std::optional<Point> StepPainter::place_at(QPointF point) const {
    bool there = false;
    const QTransform back = transform_.inverted(&there);
    if (picture_.window.empty() || picture_.on_bed || !there) return std::nullopt;
    const QPointF at = back.map(point);
    const Point place{std::llround(at.x()), std::llround(at.y())};
    const Box& w = picture_.window;
    if (place.x < w.low.x || place.x > w.high.x || place.y < w.low.y || place.y > w.high.y) return std::nullopt;
    return place;
}

// All of the sign, small, with what is seen of it framed.
void StepPainter::overview(QPainter& p) const {
    const Tokens& t = Theme::tokens();
    const QSizeF whole = size_of(picture_.whole, picture_.laid_down);
    const double scale = std::min(room_.width() * 0.5 / whole.width(), Theme::px(34) / whole.height());
    const QTransform transform = onto(picture_.whole, picture_.laid_down, room_.topLeft() + QPointF(4, 4), scale);
    p.setPen(QPen(t.pencil, 1.2));
    p.setBrush(t.paper);
    p.drawRect(rect_of(transform, picture_.whole));
    for (const PictureMark& m : picture_.marks) {
        if (m.shows == Shows::Film) p.fillPath(transform.map(path_of(m.area)), with_alpha(t.chalk, 0.55));
        if (m.shows == Shows::Neighbour) p.fillPath(transform.map(path_of(m.area)), with_alpha(t.pencil, 0.35));
    }
    p.setPen(QPen(t.chalk, 2));
    p.setBrush(Qt::NoBrush);
    p.drawRect(rect_of(transform, common(picture_.window, picture_.whole)));
}

void StepPainter::area(QPainter& p, const PictureMark& m) {
    const Tokens& t = Theme::tokens();
    const QPainterPath path = transform_.map(path_of(m.area));
    const auto filled = [&](const QBrush& brush) {
        p.setPen(Qt::NoPen);
        p.setBrush(brush);
        p.drawPath(path);
    };
    const auto outlined = [&](const QPen& pen) { cased(p, path, pen); };
    switch (m.shows) {
        case Shows::Board:
            filled(colour_of(m, t.sheet));
            return outlined(QPen(t.graphite, 1.5));
        case Shows::Bed:
            filled(t.paper);
            return outlined(QPen(t.pencil, 1.5, Qt::DashLine));
        case Shows::Leftover:
            return outlined(QPen(t.graphite, 2.5));
        case Shows::Coated:
            filled(m.colour.empty() ? QBrush(with_alpha(t.chalk, 0.2), Qt::BDiagPattern)
                                    : QBrush(colour_of(m, t.chalk)));
            return;
        case Shows::Edge:
            return filled(with_alpha(t.ochre, 0.5));
        case Shows::Frame:
            filled(with_alpha(t.pencil, 0.35));
            return outlined(QPen(t.graphite, 1.2));
        case Shows::Cover:
            filled(QBrush(with_alpha(t.pencil, 0.5), Qt::FDiagPattern));
            outlined(QPen(t.pencil, 1.5, Qt::DashLine));
            return label(p, say_(m.says), path.boundingRect().center(), path.boundingRect().center());
        case Shows::Neighbour:
            filled(with_alpha(section_tint(static_cast<std::size_t>(std::max(1, m.number)) - 1), 0.55));
            return outlined(QPen(t.pencil, 1));
        case Shows::Film:
            filled(with_alpha(section_tint(static_cast<std::size_t>(std::max(1, m.number)) - 1), 0.8));
            return outlined(QPen(t.chalk, 2.5));
        case Shows::Guest:
            return outlined(QPen(t.pencil, 1.2, Qt::DashLine));
        case Shows::FirstHalf:
            return filled(QBrush(with_alpha(t.chalk, 0.4), Qt::BDiagPattern));
        case Shows::Ink:
            return filled(colour_of(m, t.graphite));
        case Shows::Opening:
            return m.colour.empty() ? filled(with_alpha(t.graphite, 0.35)) : filled(colour_of(m, t.graphite));
        case Shows::Waste:
            return filled(with_alpha(t.ochre, 0.55));
        case Shows::Keeper: {
            filled(t.moss);
            const QRectF b = path.boundingRect();
            QPainterPath ring;
            const double r = std::max(b.width(), b.height()) / 2 + Theme::px(5);
            ring.addEllipse(b.center(), r, r);
            return cased(p, ring, QPen(t.moss, 2.5));
        }
        case Shows::Patch:
            filled(with_alpha(t.ochre, 0.35));
            return outlined(QPen(t.ochre, 2, Qt::DashLine));
        case Shows::Tape:
            return outlined(QPen(t.graphite, 1.5, Qt::DashLine));
        default:
            return;
    }
}

void StepPainter::line(QPainter& p, const PictureMark& m) {
    const Tokens& t = Theme::tokens();
    const QPointF a = at(m.from), b = at(m.to);
    QPainterPath path(a);
    path.lineTo(b);
    switch (m.shows) {
        case Shows::SawLine:
            return cased(p, path, QPen(t.brick, 3, Qt::DashLine));
        case Shows::TapeLine:
            return cased(p, path, QPen(t.chalk, 5));
        case Shows::Middle:
            return cased(p, path, QPen(t.pencil, 1.5, Qt::DashDotLine));
        case Shows::Hinge:
            cased(p, path, QPen(t.chalk, 4, Qt::DashLine));
            return label(p, say_(m.says), a, a);
        case Shows::MatchMark:
            return cased(p, path, QPen(t.graphite, 1.5));
        case Shows::WeedingLine:
            return cased(p, path, QPen(t.pencil, 1));
        case Shows::FilmEnd:
            cased(p, path, QPen(t.graphite, 2.5));
            return label(p, say_(m.says), a, b);
        case Shows::Distance: {
            cased(p, path, QPen(t.graphite, 1.5));
            const QPointF way = b - a;
            const double far = std::hypot(way.x(), way.y());
            if (far < 1) return;
            const QPointF tick(-way.y() / far * 6, way.x() / far * 6);
            for (const QPointF& end : {a, b}) {
                QPainterPath mark(end - tick);
                mark.lineTo(end + tick);
                cased(p, mark, QPen(t.graphite, 1.5));
            }
            return label(p, say_(m.says), a, b);
        }
        case Shows::Split:
            return cased(p, path, QPen(t.chalk, 2.5, Qt::DashLine));
        case Shows::Half:
            return label(p, say_(m.says), a, a);
        case Shows::Spot: {
            QPainterPath ring;
            ring.addEllipse(a, Theme::px(9), Theme::px(9));
            cased(p, ring, QPen(t.brick, 2.5));
            return label(p, say_(m.says), a, a);
        }
        case Shows::Stroke:
            return arrow(p, a, b, QPen(t.graphite, 2.5));
        case Shows::Burnish:
            return arrow(p, a, b, QPen(t.chalk, 2.5));
        case Shows::Pull:
            arrow(p, a, b, QPen(t.chalk, 6));
            return label(p, say_(m.says), a, b);
        case Shows::Feed:
            arrow(p, a, b, QPen(t.graphite, 3));
            // Beside what lies on the bed, not on it.
            for (const PictureMark& other : picture_.marks) {
                if (other.shows == Shows::Film) taken_.push_back(transform_.map(path_of(other.area)).boundingRect());
            }
            return label(p, say_(m.says), b, a);
        case Shows::Over:
            arrow(p, a, b, QPen(t.chalk, 4));
            return arrow(p, b, a, QPen(t.chalk, 4));
        case Shows::Order:
            return number_disc(p, a, m.number);
        case Shows::Fixing:
            return number_disc(p, a, m.number, true);
        case Shows::Corner: {
            QPainterPath cross;
            for (const QPointF& arm : {QPointF(9, 0), QPointF(0, 9)}) {
                cross.moveTo(a - arm);
                cross.lineTo(a + arm);
            }
            return cased(p, cross, QPen(t.brick, 2.5));
        }
        default:
            return;
    }
}

void StepPainter::arrow(QPainter& p, QPointF from, QPointF to, const QPen& pen) {
    const double angle = std::atan2(to.y() - from.y(), to.x() - from.x());
    const double head = 8 + pen.widthF() * 2;
    QPainterPath path(from);
    path.lineTo(to);
    for (const double side : {-0.5, 0.5}) {
        path.moveTo(to);
        path.lineTo(to - QPointF(std::cos(angle + side), std::sin(angle + side)) * head);
    }
    cased(p, path, QPen(pen.color(), pen.widthF(), Qt::SolidLine, Qt::RoundCap));
}

// Beside the middle of a line, or further along or away from it where others stand there; within the room.
void StepPainter::label(QPainter& p, const QString& words, QPointF from, QPointF to) {
    if (words.isEmpty()) return;
    const Tokens& t = Theme::tokens();
    // Large type beside a small picture would hide it.
    QFont font = Theme::font(18, QFont::DemiBold);
    font.setPixelSize(std::clamp(static_cast<int>(room_.height() / 14), 12, font.pixelSize()));
    p.setFont(font);
    const QSizeF size = QFontMetricsF(p.font()).size(0, words) + QSizeF(10, 2);
    const bool level = std::abs(to.x() - from.x()) >= std::abs(to.y() - from.y());
    QRectF best;
    double least = -1;
    for (const double along : {0.5, 0.25, 0.75, 0.0, 1.0}) {
        const QPointF at = from + (to - from) * along;
        for (int step = 0; step < 6; ++step) {
            const double away = (step / 2 + 0.62) * (step % 2 == 0 ? -1 : 1);
            const QPointF middle = at + (level ? QPointF(0, away * size.height()) : QPointF(away * size.width(), 0));
            QRectF box(middle - QPointF(size.width() / 2, size.height() / 2), size);
            box.moveLeft(std::clamp(box.left(), room_.left(), std::max(room_.left(), room_.right() - size.width())));
            box.moveTop(std::clamp(box.top(), room_.top(), std::max(room_.top(), room_.bottom() - size.height())));
            double over = std::abs(along - 0.5) + step * 0.2;
            for (const QRectF& other : taken_) {
                const QRectF both = other.intersected(box);
                over += both.isEmpty() ? 0 : both.width() * both.height();
            }
            if (least < 0 || over < least) {
                least = over;
                best = box;
            }
        }
    }
    taken_.push_back(best);
    p.setPen(QPen(t.pencil, 1));
    p.setBrush(t.sheet);
    p.drawRoundedRect(best, 3, 3);
    p.setPen(t.graphite);
    p.drawText(best, Qt::AlignCenter, words);
}

StepPictureView::StepPictureView(StepPainter::Say say, QWidget* parent) : QWidget(parent), say_(std::move(say)) {}

void StepPictureView::show_picture(StepPicture picture) {
    picture_ = std::move(picture);
    update();
}

void StepPictureView::let_point(std::function<void(Point)> at) {
    pointed_ = std::move(at);
    setCursor(pointed_ ? Qt::CrossCursor : Qt::ArrowCursor);
}

void StepPictureView::mousePressEvent(QMouseEvent* event) {
    if (!pointed_ || event->button() != Qt::LeftButton) return QWidget::mousePressEvent(event);
    if (const auto place =
            StepPainter(picture_, QRectF(rect()).adjusted(4, 4, -4, -4), say_).place_at(event->position()))
        pointed_(*place);
}

void StepPictureView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.fillRect(rect(), Theme::tokens().sheet);
    StepPainter(picture_, QRectF(rect()).adjusted(4, 4, -4, -4), say_).paint(p);
}

}  // namespace skarvel
