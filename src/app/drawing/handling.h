// drawing/handling.h
//
// Handling: texts and art of a face pointed at, dragged and nudged on the drawing. What a drag would do is asked of the
// core (lettering/placing.h) at every step and shown with its lines; the job changes once, when the button is let go.
#pragma once

#include <QKeyEvent>
#include <QPainter>
#include <optional>

#include "drawing/face_painter.h"
#include "window/desk.h"

namespace skarvel {

class Handling {
  public:
    explicit Handling(Desk& desk) : desk_(desk) {}

    /// True when something was there. With `letter` a single letter is taken hold of; with Ctrl or Shift a part of a
    /// drawing is dropped or recoloured.
    bool press(const FaceView& view, QPointF where, Qt::KeyboardModifiers keys, bool letter);
    /// True while something is dragged.
    bool move(const FaceView& view, QPointF where);
    void release();
    void cancel();
    /// Arrow keys move what is at hand; true when the key was one.
    bool key(const QKeyEvent& event);
    [[nodiscard]] bool dragging() const { return snap_.has_value(); }
    /// How far the thing at hand is dragged, grid units.
    [[nodiscard]] Point offset() const { return snap_ ? snap_->move : Point{}; }

    /// The thing at hand with its handles, and the lines it snaps to.
    void paint(QPainter& p, const FaceView& view) const;

  private:
    [[nodiscard]] const ColourPlan* plan() const { return desk_.face_plan(); }
    [[nodiscard]] std::optional<PlacedThing> at_hand() const;
    [[nodiscard]] bool point_at_part(const FaceView& view, QPointF where, Qt::KeyboardModifiers keys);

    Desk& desk_;
    std::optional<QPointF> pressed_;
    std::optional<Snap> snap_;
    std::optional<int> letter_;
};

}  // namespace skarvel
