// window/week_view.h
//
// The week of the rack: all jobs in work as lanes on the maker's hours, each with its deadline and how it stands among
// the others; below, what is to be done today. A lane that is pressed would take its hours
// first: it is shown what that does to the others, and asked before it is done.
#pragma once

#include <QPushButton>
#include <QWidget>
#include <optional>

#include "job/on_the_rack.h"
#include "window/desk.h"

namespace skarvel {

class WeekView : public QWidget {
    Q_OBJECT

  public:
    WeekView(Desk& desk, QWidget* parent);
    void show_week(std::vector<RackJob> jobs, RackWeek week, std::vector<std::size_t> first);
    /// The week as it would be if that job changed its place in line.
    void show_trial(std::size_t job, RackWeek week);
    [[nodiscard]] QSize sizeHint() const override;
    /// What is told of the lanes and of today, line by line.
    [[nodiscard]] QStringList told() const;

  Q_SIGNALS:
    /// That job would take its hours first, or no longer: what does it do?
    void trial_wanted(int job);
    void first_wanted(int job);
    /// Work of today is to be done at the bench of its job.
    void bench_wanted(int job);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    bool event(QEvent* event) override;

  private:
    void leave();
    void place_buttons();
    [[nodiscard]] const RackWeek& seen() const { return trial_ ? trial_week_ : week_; }
    [[nodiscard]] const Shifted* shift_of(std::size_t job) const;
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
    std::optional<std::size_t> trial_;  // job that is tried
    RackWeek trial_week_;
    std::vector<Shifted> shifts_;
    QPushButton* do_it_;
    QPushButton* leave_it_;
};

}  // namespace skarvel
