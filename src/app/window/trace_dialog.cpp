#include "window/trace_dialog.h"

#include <QCheckBox>
#include <QHBoxLayout>
#include <QPainter>
#include <QPushButton>
#include <QSlider>
#include <QVBoxLayout>

#include "drawing/face_painter.h"
#include "theme/theme.h"
#include "window/fields.h"

namespace skarvel {
namespace {

class Preview : public QWidget {
  public:
    Preview(const Expected<FileDrawing>& drawing, QWidget* parent) : QWidget(parent), drawing_(drawing) {
        setMinimumSize(520, 420);
        setAccessibleName(tr("the traced outlines"));
    }

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        p.fillRect(rect(), Theme::tokens().sheet);
        p.setRenderHint(QPainter::Antialiasing);
        if (!drawing_) {
            p.setPen(Theme::tokens().graphite);
            p.drawText(rect(), Qt::AlignCenter, tr("Nothing here is dark enough."));
            return;
        }
        const Box box = bounds_of(*drawing_);
        const double scale = std::min((width() - 24.0) / static_cast<double>(box.width()),
                                      (height() - 24.0) / static_cast<double>(box.height()));
        const QTransform fit(scale, 0, 0, -scale, (width() - scale * static_cast<double>(box.width())) / 2,
                             (height() + scale * static_cast<double>(box.height())) / 2);
        p.setPen(Qt::NoPen);
        p.setBrush(Theme::tokens().graphite);
        for (const DrawingPart& part : drawing_->parts) p.drawPath(fit.map(path_of(part.shape)));
    }

  private:
    const Expected<FileDrawing>& drawing_;
};

}  // namespace

TraceDialog::TraceDialog(GreyPicture picture, const std::string& name)
    : picture_(std::move(picture)), traced_(trace(picture_, wish_, 4_in)) {
    setWindowTitle(tr("Trace %1").arg(QString::fromStdString(name)));
    auto* across = new QHBoxLayout(this);
    preview_ = new Preview(traced_, this);
    across->addWidget(preview_, 1);
    auto* side = new QVBoxLayout;
    side->setSpacing(6);
    across->addLayout(side);
    const auto slider = [&](const QString& what, int least, int most, int now, int TraceWish::*field) {
        side->addWidget(label(what, "small", this));
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
    slider(tr("darker than this is ink"), 1, 255, wish_.threshold, &TraceWish::threshold);
    slider(tr("speckles dropped, up to this many dots"), 0, 200, wish_.speckles, &TraceWish::speckles);
    slider(tr("corners, from sharp to round"), 0, 133, wish_.corners, &TraceWish::corners);
    auto* inverted = new Check(tr("the light parts are ink"), this);
    side->addWidget(inverted);
    connect(inverted, &QCheckBox::toggled, this, [this](bool on) {
        wish_.inverted = on;
        again();
    });
    side->addStretch(1);
    QPushButton* take = button(tr("Put it on the face"), "primary", this);
    side->addWidget(take);
    connect(take, &QPushButton::clicked, this, &QDialog::accept);
    QPushButton* keep = button(tr("Keep the picture, and cut round it"), nullptr, this);
    side->addWidget(keep);
    connect(keep, &QPushButton::clicked, this, [this] {
        keep_ = true;
        accept();
    });
    QPushButton* leave = button(tr("Leave it"), nullptr, this);
    side->addWidget(leave);
    connect(leave, &QPushButton::clicked, this, &QDialog::reject);
}

void TraceDialog::again() {
    traced_ = trace(picture_, wish_, 4_in);
    preview_->update();
}

}  // namespace skarvel
