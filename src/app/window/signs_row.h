// window/signs_row.h
//
// The row of signs under the top bar: one small ticket with a picture for each face, and all of them together at the
// end. Shown where a job has more than one sign or face.
#pragma once

#include <QWidget>

#include "window/desk.h"

namespace skarvel {

class SignsRow : public QWidget {
    Q_OBJECT

  public:
    SignsRow(Desk& desk, QWidget* parent);
    void refresh();
    /// More than one face, or a post: worth a row.
    [[nodiscard]] bool wanted() const;

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

  private:
    struct Card {
        QRectF where;
        std::size_t sign = 0, face = 0;
        bool all = false;
    };
    void lay_out();
    void choose(const Card& card);
    [[nodiscard]] std::optional<std::size_t> chosen() const;
    void paint_card(QPainter& p, const Card& card, bool chosen) const;

    Desk& desk_;
    std::vector<Card> cards_;
    double offset_ = 0;
};

}  // namespace skarvel
