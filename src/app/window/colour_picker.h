// window/colour_picker.h
//
// A colour that is on no shelf: typed, picked by hand, or taken from a picture; with the maker's own name, and kept
// among the tins of the shop when that is wanted.
#pragma once

#include <QCheckBox>
#include <QDialog>
#include <QImage>
#include <QLineEdit>
#include <QPushButton>

namespace skarvel {

/// Shades of one hue as a field, paler to the left and darker to the bottom; where it is pressed is taken. With a
/// picture it shows that instead, and what is pressed is taken from it.
class ShadeField : public QWidget {
    Q_OBJECT

  public:
    explicit ShadeField(QWidget* parent);
    void show_colour(const QColor& colour);
    void show_picture(const QImage& picture);

  Q_SIGNALS:
    void picked(const QColor& colour);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    void take(const QPointF& at);
    [[nodiscard]] QRectF shades() const;
    [[nodiscard]] QRectF hues() const;
    QColor colour_;
    QImage picture_;
    QImage shades_;
    int shades_hue_ = -1;
    bool on_hues_ = false;
};

class ColourPicker : public QDialog {
    Q_OBJECT

  public:
    ColourPicker(const QColor& colour, const QString& name, QWidget* parent);
    [[nodiscard]] QString colour() const { return colour_.name(); }
    [[nodiscard]] QString name() const;
    [[nodiscard]] bool keeps() const { return keep_->isChecked(); }

  private:
    void show_colour(const QColor& colour, bool typed = false);
    void from_picture();

    QColor colour_;
    ShadeField* field_;
    QLineEdit *typed_, *name_;
    QWidget* swatch_;
    QCheckBox* keep_;
    QPushButton* take_;
};

}  // namespace skarvel
