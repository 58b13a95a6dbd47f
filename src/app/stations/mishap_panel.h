// stations/mishap_panel.h
//
// What may be said of a step at the bench beside done: what went wrong, that a piece is spoilt and what that comes to,
// a coat more, leaving it out, two ways of doing it, how long it took, who said yes. As large as the rest of the bench.
#pragma once

#include <QGridLayout>
#include <QVBoxLayout>

#include "job/spoiling.h"
#include "window/desk.h"
#include "window/errand.h"
#include "window/fields.h"

namespace skarvel {

class MishapPanel : public QWidget {
    Q_OBJECT

  public:
    MishapPanel(Desk& desk, QWidget* parent);
    ~MishapPanel() override { spoiling_.stop(); }
    void show_step(const Step* step);

  Q_SIGNALS:
    /// Something was said, and the job is as it then is.
    void said();

  private:
    using Change = std::function<Job(const Step&)>;
    void offer(const QString& words, const QString& name, const Change& change);
    void offer_spoilt(const Spoiling& spoiling);
    void place(QPushButton* button);
    void leave_out();
    void two_ways(const Step& step);
    void judge(const Step& step);
    void how_long(const Step& step);
    void who_said_yes();
    void apply(const Change& change);
    QWidget* row(const QString& name);

    Desk& desk_;
    StepId step_;
    QGridLayout* buttons_;
    QVBoxLayout* rows_;
    int place_ = 0;
    Errand<std::vector<Spoiling>> spoiling_;
};

}  // namespace skarvel
