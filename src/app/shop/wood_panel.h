// shop/wood_panel.h
//
// The wood of the shop: lengths that boards are sold in, the saw's kerf, sizes of the shop's own beside the standard
// table, and leftovers that a blank may be cut from.
#pragma once

#include <QWidget>

#include "window/fields.h"

namespace skarvel {

class WoodPanel : public QWidget {
    Q_OBJECT

  public:
    WoodPanel(Desk& desk, QWidget* parent);
    void refresh();

  private:
    void edit(const std::function<void(Shop&)>& change);
    void take_lengths();
    QWidget* stock_row(std::size_t i);
    QWidget* leftover_row(std::size_t i);
    QLineEdit* text(const QString& name, const std::string& shown,
                    const std::function<void(Shop&, const std::string&)>& set, QWidget* parent);
    MeasureField* measure(const QString& name, const Measure& shown,
                          const std::function<void(Shop&, const Measure&)>& set, QWidget* parent);

    Desk& desk_;
    QLineEdit* lengths_;
    MeasureField* kerf_;
    QWidget *stock_, *leftovers_;
    std::vector<StockSize> stock_shown_;
    std::vector<LeftoverWood> leftovers_shown_;
    bool built_ = false;
};

}  // namespace skarvel
