// drawing/step_painter.h
//
// Paints the picture of a step (picture/step_picture.h) as large as the room allows: every shape, line and number as
// the core gives it, and where only a part of the sign is shown, a small view of the whole with that part framed.
#pragma once

#include <QWidget>
#include <functional>

#include "drawing/face_painter.h"
#include "picture/step_picture.h"

namespace skarvel {

class StepPainter {
  public:
    using Say = std::function<QString(const Reason&)>;
    StepPainter(const StepPicture& picture, const QRectF& room, Say say);
    void paint(QPainter& p);
    /// The place of the picture under a point of the room; nothing where it shows none.
    [[nodiscard]] std::optional<Point> place_at(QPointF point) const;

  private:
    void area(QPainter& p, const PictureMark& m);
    void line(QPainter& p, const PictureMark& m);
    void arrow(QPainter& p, QPointF from, QPointF to, const QPen& pen);
    void label(QPainter& p, const QString& words, QPointF from, QPointF to);
    void overview(QPainter& p) const;
    const StepPicture& picture_;
    QRectF room_;
    Say say_;
    [[nodiscard]] QPointF at(Point p) const;
    QTransform transform_;
    bool part_ = false;          // only a part of the whole is seen
    std::vector<QRectF> taken_;  // by labels and crosses
};

/// A picture of a step as a part of a window.
class StepPictureView : public QWidget {
  public:
    StepPictureView(StepPainter::Say say, QWidget* parent);
    void show_picture(StepPicture picture);
    /// A click on the face is told, where that means something: the cursor shows it.
    void let_point(std::function<void(Point)> at);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

  private:
    StepPainter::Say say_;
    StepPicture picture_;
    std::function<void(Point)> pointed_;
};

}  // namespace skarvel
