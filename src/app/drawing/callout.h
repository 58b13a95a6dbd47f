// drawing/callout.h
//
// A dimension that can be typed into: it edits exactly one value of the job, and says which when it has the focus.
#pragma once

#include <QLabel>
#include <QLineEdit>
#include <functional>

#include "window/desk.h"

namespace skarvel {

class Callout : public QLineEdit {
    Q_OBJECT

  public:
    /// `does` names what it changes ("moves the clear zone"); `decide` is called with the measure that was typed.
    Callout(Desk& desk, const QString& id, const QString& does, QWidget* parent);
    void show_value(const Measure& value, const QString& prefix = {});
    std::function<void(const Measure&)> decide;
    [[nodiscard]] const QString& does() const { return does_; }

  protected:
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void moveEvent(QMoveEvent* event) override;

  private:
    void rest();
    void tell(const QString& words, bool wrong);
    void commit();

    Desk& desk_;
    QString does_, prefix_;
    Measure value_;
    QLabel* bubble_;
};

}  // namespace skarvel
