// stations/views.h
//
// What Method, Clock, Bench and Logbook show in the middle.
#pragma once

#include <QElapsedTimer>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QTimer>
#include <QWidget>
#include <optional>
#include <vector>

#include "drawing/step_painter.h"
#include "job/method_reads.h"
#include "job/on_the_rack.h"
#include "stations/mishap_panel.h"
#include "stations/photograph_strip.h"
#include "window/desk.h"
#include "window/errand.h"
#include "window/photograph_watch.h"

namespace skarvel {

/// Pixels that a middle view keeps free at its sides.
inline constexpr double view_side = 24;

/// The build-up as a cut through the finished sign; joints are sound, doubtful or wrong, with the reason and what can
/// be done about it. A layer is picked, moved (dragged, or Alt with up and down) and taken out (Delete) right there.
class MethodView : public QWidget {
    Q_OBJECT

  public:
    MethodView(Desk& desk, QWidget* parent);
    void refresh();
    [[nodiscard]] QSize minimumSizeHint() const override { return {420, needed_}; }

    /// Where a layer, or a remedy, is pressed.
    struct Spot {
        QRectF where;
        LayerId layer{};
        std::optional<Remedy> remedy{};
        QString says{};
        std::string overrules{};  ///< that rule, for this job
    };
    [[nodiscard]] const std::vector<Spot>& spots() const { return spots_; }

  protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;

  private:
    double draw(QPainter* painter);  // the height that it takes
    double layer(QPainter* painter, const ShownLayer& layer, double y);
    double finding(QPainter* painter, const Finding& finding, double y);
    double offers(QPainter* painter, const std::vector<const Remedy*>& remedies, double x, double y);
    double risks(QPainter* painter, double y);
    void order(QPainter* painter, double y, double& bottom);
    /// The layer there; nothing where there is none.
    [[nodiscard]] const Spot* layer_at(QPointF where) const;
    Desk& desk_;
    int needed_ = 400;
    QPointF pressed_;
    LayerId dragged_;               // empty: none
    std::optional<double> drop_y_;  // where it would go
    std::vector<Spot> spots_;
    std::vector<Remedy> remedies_;
    Lowering lowering_;
};

/// Takes a remedy of the colour at hand: one undo step.
void take_remedy(Desk& desk, const Remedy& remedy);
/// What a remedy does, and what it costs in time at hand.
QString says(const Remedy& remedy);

/// Days as columns on the maker's hours, signs or kinds of work as lanes, work as blocks, waits hatched, windows in
/// brackets; below it the same as a list. Pointing at a task shows what it waits for and what waits for it; the wheel
/// shows more or less of the days.
class ClockView : public QWidget {
    Q_OBJECT

  public:
    ClockView(Desk& desk, QWidget* parent);
    void refresh();
    [[nodiscard]] QSize minimumSizeHint() const override { return {420, needed_}; }
    /// Where a task's block is drawn among the days; empty for one that is out of sight.
    [[nodiscard]] QRectF block_of(std::size_t task) const;
    [[nodiscard]] std::optional<std::size_t> pointed_at() const { return pointed_; }

  protected:
    void paintEvent(QPaintEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void leaveEvent(QEvent* event) override;

  private:
    /// A task on its way to another moment.
    struct Dragging {
        std::size_t task = 0;
        double grip = 0;  ///< from the left of its block
        QPointF from;
        bool moving = false;
        Moment wanted{};
        std::optional<Moved> moved;
    };
    struct Column {
        std::chrono::local_days day;
        int open = 0, close = 0;  ///< minutes of the day that are shown; equal where there is no work
        double left = 0, wide = 0;
    };
    void lay_out();
    [[nodiscard]] double x_of(Moment moment) const;
    [[nodiscard]] Moment moment_at(double x) const;
    [[nodiscard]] double chart_high() const;
    [[nodiscard]] int lane_high() const;
    [[nodiscard]] QString told(std::size_t task) const;
    void drag_to(const QPointF& where);
    [[nodiscard]] int columns_of_rows() const;
    void chart(QPainter& painter, double top);
    void rows(QPainter& painter, double top);
    void wait_of(QPainter& painter, const QRectF& block, std::size_t task);
    Desk& desk_;
    int needed_ = 400;
    double zoom_ = 1, from_ = 0;  ///< how many times wider than the view, and from which share of it
    std::vector<Column> columns_;
    std::vector<QString> lanes_;
    std::vector<std::size_t> lane_of_;                    ///< of each task
    std::vector<std::pair<QRectF, std::size_t>> blocks_;  ///< where tasks are drawn, in the days and in the list
    std::size_t in_chart_ = 0;                            ///< so many of those are in the days
    std::optional<std::size_t> pointed_;
    std::optional<Dragging> dragging_;
};

/// One step at a time, large: instruction, picture, timer, check. Uses the whole window.
class BenchView : public QWidget {
    Q_OBJECT

  public:
    BenchView(Desk& desk, QWidget* parent);
    ~BenchView() override { planning_today_.stop(); }
    void refresh();

    /// The whole view lights up with these words, and goes out by itself or at a touch.
    void flash(const QString& words, bool urgent);

  Q_SIGNALS:
    void left();
    /// Everything is done, and is to be written down.
    void logbook_wanted();
    /// The next thing today is another job's: its bench is wanted.
    void other_wanted(const QString& path);
    /// Another step is shown: its name and what to do.
    void stepped(const QString& words);

  protected:
    void keyPressEvent(QKeyEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

  private:
    void tick_timer();
    void offer_meanwhile(const Step* step, const Timer* waits);
    void fit_meanwhile();
    struct Type {
        int size, weight;
        QColor colour;
    };
    [[nodiscard]] int px(int size) const;
    void style(QLabel* label, const Type& type) const;
    [[nodiscard]] int needs(const QLabel* label, const Type& type, int wide) const;
    void lay_out();
    void press_done();
    void turn(int by);
    void show_mishaps(bool shown);
    void show_round(const Step* step);
    void look_at_today();
    void show_today(const std::vector<OfToday>& all, const std::vector<RackJob>& jobs);
    [[nodiscard]] std::vector<std::size_t> round() const;
    [[nodiscard]] const Step* step() const;
    [[nodiscard]] const Timer* waits_for(const Step& step) const;
    Desk& desk_;
    QLabel *progress_, *name_, *instruction_, *figures_, *check_, *hand_, *care_, *timer_, *timer_for_, *timers_,
        *next_;
    StepPictureView* picture_;
    QPushButton *done_, *not_dry_, *dry_, *before_, *after_, *leave_, *wrong_;
    QWidget *middle_, *parts_;
    MishapPanel* mishaps_;
    PhotographStrip* photographs_;
    QPushButton* photograph_;
    QPushButton* flash_;
    QTimer flash_timer_;
    std::optional<StepId> told_;  // the step that was read out last
    std::optional<Moment> on_bench_since_;
    PhotographWatch* watch_;
    QPushButton* today_;
    QPushButton* meanwhile_;  // what fits into the wait
    Errand<std::vector<OfToday>> planning_today_;
    std::optional<StepId> looked_at_;  // a step that was turned to, else the next one
    double shrink_ = 1;                // of all type, where there is too little room
    Type timer_type_{56, 500, {}};
    bool anyway_ = false;  // done was pressed while it had to wait
    QElapsedTimer pressed_;
    int turned_ = 0;  // of the wheel, less than a notch
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
