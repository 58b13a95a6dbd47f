// window/week_view.h
//
// The week of the rack: all jobs in work as lanes on the maker's hours, each with its deadline and how it stands among
// the others; below, what is to be done today. A lane that is pressed takes its hours first, and the others show at
// once what that does to them.
#pragma once

#include <QWidget>

#include "job/on_the_rack.h"
#include "window/desk.h"

namespace skarvel {

class WeekView : public QWidget {
    Q_OBJECT

  public:
    WeekView(Desk& desk, QWidget* parent);
    void show_week(std::vector<RackJob> jobs, RackWeek week, std::vector<std::size_t> first);
    [[nodiscard]] QSize sizeHint() const override;
    /// What is told of the lanes and of today, line by line.
    [[nodiscard]] QStringList told() const;

  Q_SIGNALS:
    void first_wanted(int job);
    /// Work of today is to be done at the bench of its job.
    void bench_wanted(int job);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    bool event(QEvent* event) override;

  private:
    [[nodiscard]] QString standing_told(const Standing& standing) const;
    [[nodiscard]] QStringList today() const;
    [[nodiscard]] double lane_high() const;
    [[nodiscard]] QRectF lane(std::size_t row) const;
    [[nodiscard]] QRectF today_row(std::size_t row) const;
    [[nodiscard]] double x_of(Moment at) const;
    Desk& desk_;
    std::vector<RackJob> jobs_;
    RackWeek week_;
    std::vector<std::size_t> first_;
};

}  // namespace skarvel
