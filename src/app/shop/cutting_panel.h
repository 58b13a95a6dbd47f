// shop/cutting_panel.h
//
// The machines of the shop with their beds, the film in its drawer, and how exactly sections are laid by hand.
#pragma once

#include "shop/shop_panel.h"

class QSpinBox;

namespace skarvel {

class CuttingPanel : public ShopPanel {
    Q_OBJECT

  public:
    CuttingPanel(Desk& desk, QWidget* parent);
    void refresh() override;

  private:
    QWidget* machine_rows(std::size_t i);
    QWidget* print_row(std::size_t machine, QWidget* parent);
    QWidget* knife_rows(std::size_t machine, QWidget* parent);
    static QWidget* bed_head(QWidget* parent);
    QWidget* bed_row(std::size_t machine, std::size_t bed, QWidget* parent);
    QWidget* film_row(std::size_t i);
    QSpinBox* number(const QString& name, int shown, int least, int most, const QString& suffix,
                     const std::function<void(Shop&, int)>& set, QWidget* parent);

    QWidget *machines_, *films_;
    MeasureField *shift_, *hinge_from_ = nullptr;
    Check* part_words_ = nullptr;
    QSpinBox* turn_;
    std::vector<Machine> machines_shown_;
    std::vector<FilmStock> films_shown_;
    bool built_ = false;
};

}  // namespace skarvel
