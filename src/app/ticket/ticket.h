// ticket/ticket.h
//
// The job ticket: seven stations in the order of work, each with its live result and its mark. Folds to a strip of
// numbers, names and marks where the window is narrow.
#pragma once

#include <QAbstractButton>
#include <QWidget>
#include <array>

#include "window/desk.h"

namespace skarvel {

class StationButton : public QAbstractButton {
    Q_OBJECT

  public:
    StationButton(int number, const QString& name, QWidget* parent);
    void show_line(const QString& first, const QString& second, Mark mark, bool behind);
    void set_folded(bool folded);
    [[nodiscard]] QSize sizeHint() const override;

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    int number_;
    QString name_, first_, second_;
    Mark mark_ = Mark::None;
    bool folded_ = false, behind_ = false;
};

class Ticket : public QWidget {
    Q_OBJECT

  public:
    Ticket(Desk& desk, QWidget* parent);
    void set_folded(bool folded);
    void show_station(Station station);
    void refresh(bool behind);

  Q_SIGNALS:
    void chosen(skarvel::Station station);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

  private:
    void lay_out();
    Desk& desk_;
    std::array<StationButton*, station_count> buttons_{};
    bool folded_ = false;
};

/// The shape of a mark: a torn strip of tape with a question to look, two of them crossed to stop.
void paint_mark(QPainter& painter, Mark mark, const QRectF& at);
QString station_name(Station station);

}  // namespace skarvel
