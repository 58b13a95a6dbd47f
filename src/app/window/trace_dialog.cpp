#include "window/trace_dialog.h"

#include <QCheckBox>
#include <QHBoxLayout>
#include <QPainter>
#include <QPushButton>
#include <QSlider>
#include <QVBoxLayout>

#include <utility>

#include "drawing/face_painter.h"
#include "theme/theme.h"
#include "theme/words.h"
#include "window/fields.h"
#include "window/hand_over.h"

namespace skarvel {
namespace {

class Preview : public QWidget {
  public:
    Preview(const Expected<FileDrawing>& drawing, const bool& behind, QWidget* parent)
        : QWidget(parent), drawing_(drawing), behind_(behind) {
        setMinimumSize(520, 420);
        setAccessibleName(in_words("trace.the-traced-outlines"));
    }

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        p.fillRect(rect(), Theme::tokens().sheet);
        p.setRenderHint(QPainter::Antialiasing);
        if (!drawing_) {
            p.setPen(Theme::tokens().graphite);
            p.drawText(rect(), Qt::AlignCenter,
                       behind_ ? in_words("trace.tracing") : in_words("trace.nothing-here-is-dark"));
            return;
        }
        const Box box = bounds_of(*drawing_);
        const double scale = std::min((width() - 24.0) / static_cast<double>(box.width()),
                                      (height() - 24.0) / static_cast<double>(box.height()));
        const QTransform fit(scale, 0, 0, -scale, (width() - scale * static_cast<double>(box.width())) / 2,
                             (height() + scale * static_cast<double>(box.height())) / 2);
        p.setPen(Qt::NoPen);
        p.setOpacity(behind_ ? 0.4 : 1);
        p.setBrush(Theme::tokens().graphite);
        for (const DrawingPart& part : drawing_->parts) p.drawPath(fit.map(path_of(part.shape)));
    }

  private:
    const Expected<FileDrawing>& drawing_;
    const bool& behind_;
};

}  // namespace

TraceDialog::TraceDialog(GreyPicture picture, const std::string& name)
    : picture_(std::move(picture)), traced_(refused({"drawing.nothing-dark", {}}, Station::Lettering)) {
    setWindowTitle(in_words("trace.trace", {{"name", QString::fromStdString(name)}}));
    auto* across = new QHBoxLayout(this);
    preview_ = new Preview(traced_, behind_, this);
    across->addWidget(preview_, 1);
    auto* side = new QVBoxLayout;
    side->setSpacing(6);
    across->addLayout(side);
    const auto slider = [&](const QString& what, int least, int most, int now, int TraceWish::*field) {
        side->addWidget(label(what, Role::Small, this));
        auto* made = new QSlider(Qt::Horizontal, this);
        made->setRange(least, most);
        made->setValue(now);
        made->setAccessibleName(what);
        made->setObjectName(what);
        made->setMinimumWidth(220);
        side->addWidget(made);
        connect(made, &QSlider::valueChanged, this, [this, field](int v) {
            wish_.*field = v;
            again();
        });
    };
    slider(in_words("trace.darker-than-this-is"), 1, 255, wish_.threshold, &TraceWish::threshold);
    slider(in_words("trace.speckles-dropped-up-to"), 0, 200, wish_.speckles, &TraceWish::speckles);
    slider(in_words("trace.corners-from-sharp-to"), 0, 133, wish_.corners, &TraceWish::corners);
    auto* inverted = new Check(in_words("trace.the-light-parts-are"), this);
    side->addWidget(inverted);
    connect(inverted, &QCheckBox::toggled, this, [this](bool on) {
        wish_.inverted = on;
        again();
    });
    side->addStretch(1);
    QPushButton* take = button(in_words("trace.put-it-on-the"), Role::Main, this);
    side->addWidget(take);
    connect(take, &QPushButton::clicked, this, &QDialog::accept);
    QPushButton* keep = button(in_words("trace.keep-the-picture-and"), Role::Plain, this);
    side->addWidget(keep);
    connect(keep, &QPushButton::clicked, this, [this] {
        keep_ = true;
        accept();
    });
    QPushButton* leave = button(in_words("trace.leave-it"), Role::Plain, this);
    side->addWidget(leave);
    connect(leave, &QPushButton::clicked, this, &QDialog::reject);
    takers_ = {take, keep};
    worker_ = std::jthread([this](const std::stop_token& stop) { work(stop); });
    again();
}

void TraceDialog::again() {
    behind_ = true;
    for (QWidget* taker : takers_) taker->setEnabled(false);
    preview_->update();
    const std::scoped_lock lock(mutex_);
    next_ = wish_;
    waiting_.notify_one();
}

void TraceDialog::work(const std::stop_token& stop) {
    while (true) {
        TraceWish wish;
        {
            std::unique_lock lock(mutex_);
            if (!waiting_.wait(lock, stop, [this] { return next_.has_value(); })) return;
            wish = *std::exchange(next_, std::nullopt);
        }
        auto traced = trace(picture_, wish, 4_in);
        hand_over(this, [this, wish, traced = std::move(traced)] { show_traced(wish, traced); });
    }
}

void TraceDialog::show_traced(const TraceWish& of, Expected<FileDrawing> traced) {
    traced_ = std::move(traced);
    behind_ = of != wish_;
    for (QWidget* taker : takers_) taker->setEnabled(!behind_ && traced_.has_value());
    preview_->update();
}

}  // namespace skarvel
