// shop/wood_panel.h
//
// The wood of the shop: lengths that boards are sold in, the saw's kerf, sizes of the shop's own beside the standard
// table, and leftovers that a blank may be cut from; and tins, the colours that its maker has by their own names.
#pragma once

#include "shop/shop_panel.h"

namespace skarvel {

class WoodPanel : public ShopPanel {
    Q_OBJECT

  public:
    WoodPanel(Desk& desk, QWidget* parent);
    void refresh() override;

  private:
    void take_lengths();
    QWidget* stock_row(std::size_t i);
    QWidget* leftover_row(std::size_t i);
    QWidget* tin_row(std::size_t i);

    QLineEdit* lengths_;
    MeasureField* kerf_;
    QWidget *stock_, *leftovers_, *tins_;
    std::vector<StockSize> stock_shown_;
    std::vector<LeftoverWood> leftovers_shown_;
    std::vector<ShelfColour> tins_shown_;
    bool built_ = false;
};

}  // namespace skarvel
