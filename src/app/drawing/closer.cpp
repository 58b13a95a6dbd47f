// The closer look: in the room that the whole leaves free, a part of it several times as large, to work in as in the
// whole. On the whole a frame shows which part.
#include <QPainter>
#include <cmath>

#include "drawing/drawing.h"
#include "drawing/scale.h"
#include "theme/theme.h"
#include "theme/words.h"

namespace skarvel {
namespace {

constexpr double least_gain = 1.5;      // less than that shows nothing new
constexpr double large_enough = 60;     // pixels for an inch: the whole is close as it is
constexpr double usual_least = 24;      // pixels for an inch of a closer look
constexpr double least_part = 1.0 / 4;  // of the length is seen at once
constexpr double least_zoom = 4, most_zoom = 400;

}  // namespace

// What the whole takes with its dimensions and the end of the board.
QRectF Drawing::taken_room() const {
    QRectF taken =
        view_.rect(view_.face).adjusted(-around_.width(), -around_.height(), around_.width(), around_.height());
    for (const QString& id : used_callouts_) taken |= QRectF(callouts_.at(id)->geometry());
    for (const Dimension& d : dimensions_) {
        taken |= QRectF(d.from, d.to).normalized().adjusted(-1, -4, 1, 4);
        taken |= d.text_rect;
    }
    const QRectF end = board_end();
    if (!end.isEmpty()) taken |= end.adjusted(0, 0, 0, Theme::px(24));
    return taken;
}

// Of the thing at hand, or of the face.
Point Drawing::centre_of_interest() const {
    Box box = view_.face;
    if (station_ == Station::Lettering) {
        for (const PlacedThing& thing : things_on(desk_.face(), *face())) {
            if (thing.id == desk_.thing_at() && !thing.box.empty()) box = thing.box;
        }
    }
    return {(box.low.x + box.high.x) / 2, (box.low.y + box.high.y) / 2};
}

// Pixels for a grid unit: as high as the room is, a quarter of the length still in sight, 24 pixels for an inch or
// more.
double Drawing::closer_scale(const QRectF& room) const {
    if (closer_zoom_ > 0) return closer_zoom_ / units_per_inch;
    const QSizeF size = view_.size() / view_.scale;
    const bool along_x = view_.lengthwise();
    const double fits = along_x ? room.height() / size.height() : room.width() / size.width();
    const double part =
        along_x ? room.width() / (size.width() * least_part) : room.height() / (size.height() * least_part);
    return std::max({std::min(fits, part), usual_least / units_per_inch, view_.scale * least_gain});
}

void Drawing::lay_out_closer() {
    closer_area_ = {};
    if (close_up_ || station_ == Station::Sections || (step_back_ && station_ == Station::Lettering)) return;
    if (face() == nullptr || face()->face->blank->face.empty()) return;
    // Frames and readings of the tape have drawings of their own there.
    const Blank& blank = sign().blank;
    if (station_ == Station::Blank && (blank.frame.kind != FrameKind::None || face()->face->blank->tape)) return;
    if (view_.scale * units_per_inch >= large_enough) return;
    const int seen = parentWidget() != nullptr ? std::min(height(), parentWidget()->height()) : height();
    const QRectF taken = taken_room();
    const double head = Theme::px(view_.lengthwise() ? 60 : 36);
    const QRectF below(paper_side, taken.bottom() + head, width() - 2 * paper_side,
                       seen - paper_side - taken.bottom() - head);
    const double beside_x = taken.right() + Theme::px(36) + (view_.lengthwise() ? 0 : Theme::px(28));
    const double top = board_area_.top() - around_.height();
    const QRectF beside(beside_x, top, width() - paper_side - beside_x, seen - paper_side - top);
    const auto size = [](const QRectF& r) { return r.width() > 0 && r.height() > 0 ? r.width() * r.height() : 0.0; };
    const QRectF room = size(below) >= size(beside) ? below : beside;
    if (room.width() < Theme::px(200) || room.height() < Theme::px(110)) return;

    closer_ = view_;
    closer_.scale = closer_scale(room);
    const QSizeF large = closer_.size();
    closer_area_ =
        QRectF(room.topLeft(), QSizeF(std::min(room.width(), large.width()), std::min(room.height(), large.height())));
    if (closer_of_ != desk_.thing_at()) closer_at_.reset();
    closer_of_ = desk_.thing_at();
    closer_.origin = {};
    const Point at = closer_at_.value_or(centre_of_interest());
    const QPointF middle = closer_.at(at);
    closer_.origin =
        QPointF(std::clamp(closer_area_.width() / 2 - middle.x(), closer_area_.width() - large.width(), 0.0),
                std::clamp(closer_area_.height() / 2 - middle.y(), closer_area_.height() - large.height(), 0.0)) +
        closer_area_.topLeft();
}

void Drawing::paint_closer(QPainter& p) {
    const Tokens& t = Theme::tokens();
    p.setFont(Theme::font(13));
    p.setPen(t.pencil);
    const QFontMetrics m(p.font());
    // The marks of the ruler stand between.
    const double above = Theme::px(closer_.lengthwise() ? 50 : 24);
    const QString words = in_words("on-drawing.closer");
    p.drawText(QRectF(closer_area_.left(), closer_area_.top() - above, closer_area_.width(), Theme::px(20)),
               Qt::AlignLeft | Qt::AlignVCenter,
               m.horizontalAdvance(words) <= closer_area_.width() ? words : in_words("on-drawing.closer-short"));
    p.save();
    p.setClipRect(closer_area_);
    paint_face(p, closer_);
    p.restore();
    p.setPen(QPen(t.chalk, 1.5));
    p.setBrush(Qt::NoBrush);
    p.drawRect(closer_area_);
    paint_ruler(p, closer_, closer_area_, {});
    paint_seen(p, view_, closer_, closer_area_);
}

// Of the whole, the part that is seen nearer.
void Drawing::paint_seen(QPainter& p, const FaceView& whole, const FaceView& near, const QRectF& area) const {
    const QRectF part(near.transform().inverted().mapRect(area));
    const QRectF frame =
        whole.transform().mapRect(part).intersected(QRectF(whole.origin, whole.size()).adjusted(-2, -2, 2, 2));
    QPainterPath path;
    path.addRect(frame);
    cased(p, path, QPen(Theme::tokens().chalk, 2));
}

void Drawing::look_closer_at(QPointF where) {
    if (closer_area_.isEmpty() || !view_.rect(view_.face).contains(where)) return;
    const QPointF q = view_.transform().inverted().map(where);
    closer_at_ = Point{std::llround(q.x()), std::llround(q.y())};
    closer_of_ = desk_.thing_at();
}

void Drawing::pan_closer(QPointF by) {
    const QPointF q = closer_.transform().inverted().map(closer_area_.center() - by);
    closer_at_ = Point{std::llround(q.x()), std::llround(q.y())};
    lay_out();
}

// What was under the pointer stays under it.
void Drawing::zoom_closer(QPointF where, double by) {
    const double now = closer_.scale * units_per_inch;
    closer_zoom_ = std::clamp(now * by, least_zoom, most_zoom);
    const double gain = closer_zoom_ / now;
    const QPointF q = closer_.transform().inverted().map(where + (closer_area_.center() - where) / gain);
    closer_at_ = Point{std::llround(q.x()), std::llround(q.y())};
    lay_out();
}

}  // namespace skarvel
