// stations/strip_below.h
//
// A strip at the foot of a tray: the weightiest thing to look at that lies further down, out of sight. A click goes
// there.
#pragma once

#include <QAbstractButton>

#include "text/reason.h"

namespace skarvel {

class StripBelow : public QAbstractButton {
    Q_OBJECT

  public:
    explicit StripBelow(QWidget* parent);
    /// `more`: how many others lie there.
    void show_problem(Mark mark, const QString& what, int more);
    [[nodiscard]] const QString& what() const { return what_; }

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    Mark mark_ = Mark::None;
    QString what_;
};

}  // namespace skarvel
