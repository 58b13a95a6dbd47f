// stations/views.h
//
// What Method, Clock, Bench and Logbook show in the middle.
#pragma once

#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QTimer>
#include <QWidget>
#include <optional>
#include <vector>

#include "window/desk.h"

namespace skarvel {

/// The build-up as a cut through the finished sign; joints are sound, doubtful or wrong, with the reason.
class MethodView : public QWidget {
    Q_OBJECT

  public:
    MethodView(Desk& desk, QWidget* parent);
    void refresh();
    [[nodiscard]] QSize minimumSizeHint() const override { return {420, needed_}; }

  protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

  private:
    double draw(QPainter* painter) const;  // the height that it takes
    Desk& desk_;
    int needed_ = 400;
};

/// Days as rows on the maker's hours, work as blocks, waits hatched.
class ClockView : public QWidget {
    Q_OBJECT

  public:
    ClockView(Desk& desk, QWidget* parent);
    void refresh();
    [[nodiscard]] QSize minimumSizeHint() const override { return {420, needed_}; }

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    Desk& desk_;
    int needed_ = 400;
};

/// One step at a time, large: instruction, picture, timer, check. Uses the whole window.
class BenchView : public QWidget {
    Q_OBJECT

  public:
    BenchView(Desk& desk, QWidget* parent);
    void refresh();

  Q_SIGNALS:
    void left();

  protected:
    void keyPressEvent(QKeyEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

  private:
    void tick_timer();
    void lay_out();
    [[nodiscard]] const Step* step() const;
    Desk& desk_;
    QLabel *progress_, *name_, *instruction_, *check_, *care_, *timer_, *timer_for_, *next_;
    QWidget* picture_;
    QPushButton *done_, *not_dry_, *before_, *after_, *leave_;
    std::optional<StepId> looked_at_;  // a step that was turned to, else the next one
    QTimer seconds_;
};

class LogbookView : public QScrollArea {
    Q_OBJECT

  public:
    LogbookView(Desk& desk, QWidget* parent);
    void refresh();

  private:
    Desk& desk_;
};

}  // namespace skarvel
