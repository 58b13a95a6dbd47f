// drawing/parting.h
//
// Parting: pieces picked and seams moved on the drawing of Sections. What a seam would cross elsewhere is asked of the
// core while it is dragged (job/wish_commands.h); the job changes once, when the button is let go.
#pragma once

#include <QKeyEvent>
#include <QPainter>
#include <optional>

#include "drawing/face_painter.h"
#include "job/wish_commands.h"
#include "window/desk.h"

namespace skarvel {

class Parting {
  public:
    explicit Parting(Desk& desk) : desk_(desk) {}

    /// True when a seam or a piece was there. Shift or Ctrl adds a piece to those picked, or leaves it out.
    bool press(const FaceView& view, QPointF where, Qt::KeyboardModifiers keys);
    /// True while a seam is held.
    bool move(const FaceView& view, QPointF where);
    void release();
    /// Arrow keys move the seam at hand, Delete wants none there, Escape lets go; true when the key was one.
    bool key(const QKeyEvent& event);
    /// Whether a seam lies there, for the pointer's shape: along which axis it can be dragged.
    [[nodiscard]] std::optional<Axis> seam_under(const FaceView& view, QPointF where) const;

    void paint(QPainter& p, const FaceView& view) const;

  private:
    [[nodiscard]] const ColourPlan* plan() const { return desk_.current() ? desk_.face_plan() : nullptr; }
    [[nodiscard]] ColourAt at() const { return {desk_.at(), desk_.colour_at()}; }
    [[nodiscard]] std::optional<std::size_t> seam_at(const FaceView& view, QPointF where) const;

    Desk& desk_;
    std::optional<QPointF> pressed_;
    std::optional<TriedSeam> tried_;
};

}  // namespace skarvel
