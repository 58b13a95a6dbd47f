// window/sheets_view.h
//
// The sheets as they will be printed, page by page: the same pages as values that make the PDF.
#pragma once

#include <QScrollArea>

#include "window/desk.h"

namespace skarvel {

class SheetsView : public QScrollArea {
    Q_OBJECT

  public:
    SheetsView(Desk& desk, QWidget* parent);
    void refresh();

  Q_SIGNALS:
    void save_wanted();

  private:
    Desk& desk_;
};

}  // namespace skarvel
