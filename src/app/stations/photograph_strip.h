// stations/photograph_strip.h
//
// The photographs of a step as small pictures, turned upright; one that is missing says so.
#pragma once

#include <QWidget>

#include "window/desk.h"
#include "window/errand.h"

namespace skarvel {

class PhotographStrip : public QWidget {
    Q_OBJECT

  public:
    PhotographStrip(Desk& desk, QWidget* parent);
    ~PhotographStrip() override { reading_.stop(); }
    /// Those of a step; of all steps where it names none.
    void show_step(const StepId& step);

  Q_SIGNALS:
    /// Other pictures stand there, or none.
    void changed();

  private:
    struct Small {
        std::string file;
        QImage picture;
        std::string trouble;
        std::string taken;
    };
    Desk& desk_;
    std::vector<Photograph> shown_;
    Errand<std::vector<Small>> reading_{this};
};

}  // namespace skarvel
