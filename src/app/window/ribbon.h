// window/ribbon.h
//
// The ribbon: the days to the deadline at every station. Hands-on work is solid, waits hatched, a window a bracket, the
// deadline a flag, the present a line.
#pragma once

#include <QTimer>
#include <QWidget>
#include <filesystem>

#include "window/desk.h"

namespace skarvel {

class Ribbon : public QWidget {
    Q_OBJECT

  public:
    Ribbon(Desk& desk, QWidget* parent);
    void set_folded(bool folded);
    void refresh(bool behind);

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    Desk& desk_;
    [[nodiscard]] QString moved_told() const;
    std::filesystem::path of_;      ///< the file whose job was shown last
    std::optional<Moment> ready_;   ///< and when that was ready
    std::optional<Minutes> moved_;  ///< by so much, just now
    QTimer said_;
    bool folded_ = false, behind_ = false;
};

/// What lies between the first and the last moment of a plan, for the ribbon and the Clock station.
struct TimeSpan {
    Moment from{}, to{};
};
TimeSpan span_of(const Schedule& clock, const std::optional<Moment>& deadline, Moment now);
/// Diagonal strokes in a rectangle: a wait.
void hatch(QPainter& painter, const QRectF& where, const QColor& colour);

}  // namespace skarvel
