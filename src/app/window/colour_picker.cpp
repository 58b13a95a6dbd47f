#include "window/colour_picker.h"

#include <QImageReader>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QVBoxLayout>
#include <algorithm>

#include "theme/theme.h"
#include "theme/words.h"
#include "window/fields.h"
#include "window/file_chooser.h"

namespace skarvel {
namespace {

constexpr double hue_high = 20;
constexpr double between = 10;

}  // namespace

// ---- ShadeField

ShadeField::ShadeField(QWidget* parent) : QWidget(parent) {
    setFocusPolicy(Qt::StrongFocus);
    setMinimumSize(Theme::px(300), Theme::px(220));
    setCursor(Qt::CrossCursor);
    setAccessibleName(in_words("picker.shades"));
    setObjectName("shades");
}

QRectF ShadeField::shades() const { return QRectF(rect()).adjusted(1, 1, -1, -hue_high - between); }
QRectF ShadeField::hues() const { return {1, height() - hue_high, width() - 2.0, hue_high - 1}; }

void ShadeField::show_colour(const QColor& colour) {
    // Grey has no hue of its own: the last one stays.
    const int hue = colour.hsvHue() >= 0 ? colour.hsvHue() : std::max(0, colour_.hsvHue());
    colour_ = QColor::fromHsv(hue, colour.hsvSaturation(), colour.value());
    update();
}

void ShadeField::show_picture(const QImage& picture) {
    picture_ = picture;
    update();
}

void ShadeField::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = Theme::tokens();
    const QRectF box = shades();
    if (!picture_.isNull()) {
        const QImage shown = picture_.scaled(box.size().toSize(), Qt::KeepAspectRatio, Qt::SmoothTransformation);
        p.drawImage(box.topLeft(), shown);
    } else {
        const int hue = std::max(0, colour_.hsvHue());
        if (hue != shades_hue_ || shades_.size() != box.size().toSize()) {
            shades_ = QImage(box.size().toSize(), QImage::Format_RGB32);
            for (int y = 0; y < shades_.height(); ++y) {
                for (int x = 0; x < shades_.width(); ++x)
                    shades_.setPixelColor(x, y,
                                          QColor::fromHsv(hue, 255 * x / std::max(1, shades_.width() - 1),
                                                          255 - 255 * y / std::max(1, shades_.height() - 1)));
            }
            shades_hue_ = hue;
        }
        p.drawImage(box.topLeft(), shades_);
        const QPointF at(box.left() + colour_.hsvSaturationF() * box.width(),
                         box.top() + (1 - colour_.valueF()) * box.height());
        // A chalk cross on what is taken.
        for (const auto& [wide, with] : {std::pair(4.0, t.sheet), std::pair(1.8, t.graphite)}) {
            p.setPen(QPen(with, wide));
            p.drawLine(at - QPointF(9, 0), at + QPointF(9, 0));
            p.drawLine(at - QPointF(0, 9), at + QPointF(0, 9));
        }
    }
    p.setPen(QPen(t.line, 1));
    p.setBrush(Qt::NoBrush);
    p.drawRect(box);
    QLinearGradient all(hues().topLeft(), hues().topRight());
    for (int i = 0; i <= 6; ++i) all.setColorAt(i / 6.0, QColor::fromHsv(std::min(359, i * 60), 200, 225));
    p.fillRect(hues(), all);
    p.drawRect(hues());
    const double x = hues().left() + std::max(0, colour_.hsvHue()) / 359.0 * hues().width();
    p.setPen(QPen(t.graphite, 3));
    p.drawLine(QPointF(x, hues().top() - 3), QPointF(x, hues().bottom() + 3));
    if (hasFocus()) {
        p.setPen(QPen(t.chalk, 2));
        p.drawRect(QRectF(rect()).adjusted(1, 1, -1, -1));
    }
}

void ShadeField::take(const QPointF& at) {
    if (on_hues_) {
        picture_ = {};
        const int hue = std::clamp(static_cast<int>((at.x() - hues().left()) / hues().width() * 359), 0, 359);
        const bool grey = colour_.hsvSaturation() < 20;
        return Q_EMIT picked(QColor::fromHsv(hue, grey ? 160 : colour_.hsvSaturation(), std::max(60, colour_.value())));
    }
    const QRectF box = shades();
    if (!picture_.isNull()) {
        const QSizeF shown = QSizeF(picture_.size()).scaled(box.size(), Qt::KeepAspectRatio);
        const int x = static_cast<int>((at.x() - box.left()) / shown.width() * picture_.width());
        const int y = static_cast<int>((at.y() - box.top()) / shown.height() * picture_.height());
        if (!picture_.rect().contains(x, y)) return;
        // Around the place, as a speck is not what is meant.
        constexpr int around = 2;
        const QImage part =
            picture_.copy(QRect(x - around, y - around, 2 * around + 1, 2 * around + 1) & picture_.rect());
        return Q_EMIT picked(part.scaled(1, 1, Qt::IgnoreAspectRatio, Qt::SmoothTransformation).pixelColor(0, 0));
    }
    const double s = std::clamp((at.x() - box.left()) / box.width(), 0.0, 1.0);
    const double v = std::clamp(1 - (at.y() - box.top()) / box.height(), 0.0, 1.0);
    Q_EMIT picked(QColor::fromHsv(std::max(0, colour_.hsvHue()), static_cast<int>(s * 255), static_cast<int>(v * 255)));
}

void ShadeField::mousePressEvent(QMouseEvent* event) {
    on_hues_ = event->position().y() > shades().bottom() + between / 2;
    take(event->position());
}

void ShadeField::mouseMoveEvent(QMouseEvent* event) {
    if (event->buttons() & Qt::LeftButton) take(event->position());
}

void ShadeField::keyPressEvent(QKeyEvent* event) {
    constexpr int step = 8;
    int h = std::max(0, colour_.hsvHue()), s = colour_.hsvSaturation(), v = colour_.value();
    const bool hue = event->modifiers() & Qt::ShiftModifier;
    switch (event->key()) {
        case Qt::Key_Left:
            (hue ? h : s) -= step;
            break;
        case Qt::Key_Right:
            (hue ? h : s) += step;
            break;
        case Qt::Key_Up:
            v += step;
            break;
        case Qt::Key_Down:
            v -= step;
            break;
        default:
            return QWidget::keyPressEvent(event);
    }
    Q_EMIT picked(QColor::fromHsv((h + 360) % 360, std::clamp(s, 0, 255), std::clamp(v, 0, 255)));
}

// ---- ColourPicker

ColourPicker::ColourPicker(const QColor& colour, const QString& name, QWidget* parent) : QDialog(parent) {
    setWindowTitle(in_words("picker.title"));
    auto* rows = new QVBoxLayout(this);
    rows->setContentsMargins(20, 16, 20, 16);
    rows->addWidget(label(in_words("picker.title"), Role::Title, this));
    field_ = new ShadeField(this);
    rows->addWidget(field_, 1);
    rows->addWidget(label(in_words("picker.typed"), Role::Small, this));
    auto* line = new QHBoxLayout;
    swatch_ = new QWidget(this);
    swatch_->setFixedSize(Theme::px(34), Theme::px(34));
    swatch_->setAutoFillBackground(true);
    line->addWidget(swatch_);
    typed_ = new QLineEdit(this);
    typed_->setAccessibleName(in_words("picker.typed"));
    typed_->setObjectName("colour typed");
    line->addWidget(typed_, 1);
    auto* picture = button(in_words("picker.from-a-picture"), Role::Plain, this);
    picture->setObjectName("colour from a picture");
    line->addWidget(picture);
    rows->addLayout(line);
    rows->addWidget(label(in_words("picker.called"), Role::Small, this));
    name_ = new QLineEdit(name, this);
    name_->setAccessibleName(in_words("picker.called"));
    name_->setObjectName("colour called");
    name_->setMaxLength(60);
    rows->addWidget(name_);
    keep_ = new Check(in_words("picker.keep"), this);
    keep_->setObjectName("keep colour");
    rows->addWidget(keep_);
    auto* buttons = new QHBoxLayout;
    buttons->addStretch(1);
    auto* leave = button(in_words("picker.leave"), Role::Plain, this);
    take_ = button(in_words("picker.take"), Role::Main, this);
    take_->setObjectName("take colour");
    take_->setDefault(true);
    buttons->addWidget(leave);
    buttons->addWidget(take_);
    rows->addLayout(buttons);
    connect(leave, &QPushButton::clicked, this, &QDialog::reject);
    connect(take_, &QPushButton::clicked, this, &QDialog::accept);
    connect(field_, &ShadeField::picked, this, [this](const QColor& c) { show_colour(c); });
    connect(typed_, &QLineEdit::textEdited, this, [this](const QString& text) {
        const QString full = text.startsWith('#') ? text : "#" + text;
        const QColor read(full.size() == 7 || full.size() == 4 ? full : QString());
        take_->setEnabled(read.isValid());
        if (read.isValid()) show_colour(read, true);
    });
    connect(picture, &QPushButton::clicked, this, &ColourPicker::from_picture);
    show_colour(colour.isValid() ? colour : QColor("#7a7a7a"));
}

QString ColourPicker::name() const {
    const QString typed = name_->text().simplified();
    return typed.isEmpty() ? colour_.name() : typed;
}

void ColourPicker::show_colour(const QColor& colour, bool typed) {
    colour_ = colour;
    QPalette shown = swatch_->palette();
    shown.setColor(QPalette::Window, colour);
    swatch_->setPalette(shown);
    if (!typed) typed_->setText(colour.name());
    take_->setEnabled(true);
    field_->show_colour(colour);
}

void ColourPicker::from_picture() {
    const QString path = FileChooser::file(this, in_words("picker.a-picture"), {"*.png", "*.jpg", "*.jpeg", "*.bmp"});
    if (path.isEmpty()) return;
    QImageReader reader(path);
    reader.setAutoTransform(true);
    const QSize size = reader.size();
    // To be looked at, not to be printed.
    constexpr int enough = 1600;
    if (size.isValid() && std::max(size.width(), size.height()) > enough)
        reader.setScaledSize(size.scaled(enough, enough, Qt::KeepAspectRatio));
    const QImage picture = reader.read();
    if (picture.isNull()) {
        typed_->setText(in_words("picker.no-picture"));
        return take_->setEnabled(false);
    }
    field_->show_picture(picture);
}

}  // namespace skarvel
