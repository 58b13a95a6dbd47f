// shop/shop_page.h
//
// The shop: units, the mat, the hours, and how the window looks. Changes here are kept at once and plan again.
#pragma once

#include <QScrollArea>

#include "shop/cutting_panel.h"
#include "shop/wood_panel.h"
#include "shop/work_panel.h"
#include "window/desk.h"
#include "window/fields.h"

class QTimeEdit;
class QCheckBox;
class QLineEdit;

namespace skarvel {

class ShopPage : public QScrollArea {
    Q_OBJECT

  public:
    ShopPage(Desk& desk, QWidget* parent);
    void refresh();

    /// What was chosen for the size of text, in per cent; 0: by the room.
    void show_text(int chosen);

  Q_SIGNALS:
    /// 0 per cent: as large as the window has room for.
    void look_changed(bool night, int text_percent);

  private:
    WoodPanel* wood_;
    CuttingPanel* cutting_;
    WorkPanel* work_;
    void edit(const std::function<void(Shop&)>& change);
    Desk& desk_;
    Segmented *unit_, *fraction_, *theme_, *text_;
    QWidget* fractions_to_;
    int text_chosen_ = 100;
    Choice* bed_;
    struct DayRow {
        QCheckBox* works;
        QTimeEdit *from, *to;
    };
    std::vector<DayRow> days_;
};

}  // namespace skarvel
