// shop/work_panel.h
//
// How long work takes here: every pace that hands-on times are reckoned from, as the table has it, as the maker set it,
// and as the logbook has seen it; and the folder from which photographs are taken over.
#pragma once

#include "shop/shop_panel.h"

namespace skarvel {

class WorkPanel : public ShopPanel {
    Q_OBJECT

  public:
    WorkPanel(Desk& desk, QWidget* parent);
    void refresh() override;

  private:
    void pace_row(QVBoxLayout* into, const std::string& name, double table);
    QWidget* left_;
    QWidget* right_;
    QLineEdit* folder_;
};

}  // namespace skarvel
