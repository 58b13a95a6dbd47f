// stations/order_view.h
//
// What Method shows beside the cut: the order in which a face is taped, laid, painted and lifted, all films numbered,
// and each step of it to turn through with its own picture.
#pragma once

#include <QLabel>
#include <QPushButton>
#include <QStackedWidget>

#include "drawing/step_painter.h"
#include "stations/method_parts.h"
#include "stations/views.h"
#include "window/fields.h"

namespace skarvel {

class OrderView : public QWidget {
    Q_OBJECT

  public:
    OrderView(Desk& desk, QWidget* parent);
    void refresh();

  protected:
    void keyPressEvent(QKeyEvent* event) override;

  private:
    void turn(int by);
    Desk& desk_;
    QLabel *name_, *instruction_, *figures_;
    StepPictureView* picture_;
    QPushButton *before_, *after_;
    std::size_t at_ = 0;  // 0: all of them; then the steps from 1
    FaceId face_;
};

/// The cut through the sign, the order of laying, or the rules that all of it is judged by.
class MethodPages : public QWidget {
    Q_OBJECT

  public:
    MethodPages(Desk& desk, QWidget* cut, QWidget* parent);
    void refresh();

  private:
    Segmented* which_;
    QStackedWidget* pages_;
    OrderView* order_;
    RulesPart* rules_;
};

}  // namespace skarvel
