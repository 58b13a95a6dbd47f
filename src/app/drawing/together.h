// drawing/together.h
//
// All signs of a job together, at one scale: side by side, or on their post with the marks to make and gaps that can be
// typed into. A click on a sign takes it in hand.
#pragma once

#include <QWidget>
#include <map>

#include "drawing/callout.h"
#include "drawing/face_painter.h"
#include "window/desk.h"

namespace skarvel {

class Together : public QWidget {
    Q_OBJECT

  public:
    Together(Desk& desk, QWidget* parent);
    void refresh();
    [[nodiscard]] QSize minimumSizeHint() const override { return {400, needed_height_}; }

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

  private:
    struct Shown {
        const ColourPlan* plan = nullptr;
        FaceView view;
    };
    struct Text {
        QRectF where;
        QString words;
        bool strong = false;
        Qt::Alignment align = Qt::AlignLeft | Qt::AlignVCenter;
    };
    void lay_out();
    void lay_out_side_by_side();
    void lay_out_post();
    Callout& callout(const QString& id, const QString& does, const Measure& value, const QString& prefix);

    Desk& desk_;
    std::vector<Shown> shown_;
    std::vector<Text> texts_;
    std::vector<QLineF> lines_;
    QRectF post_;
    double ground_ = 0;
    std::map<QString, Callout*> callouts_;
    std::vector<QString> used_;
    int needed_height_ = 300;
};

}  // namespace skarvel
