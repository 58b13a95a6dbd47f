// window/sheets_view.h
//
// The sheets as they will be printed, page by page: the same pages as values that make the PDF.
#pragma once

#include <QScrollArea>

#include <QLabel>
#include <QPushButton>

#include "sheets/sheets.h"
#include "window/desk.h"
#include "window/errand.h"

class QPrinter;

namespace skarvel {

class SheetsView : public QScrollArea {
    Q_OBJECT

  public:
    SheetsView(Desk& desk, QWidget* parent);
    /// Draws the pages of the plan anew, beside the window; until they are there, that is told.
    void refresh();
    [[nodiscard]] bool drawing() const { return pages_.busy(); }
    /// The pages that are drawn, or those of them that the printer was told.
    void print_on(QPrinter& printer) const;

  Q_SIGNALS:
    void save_wanted();

  protected:
    void resizeEvent(QResizeEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    void show_pages(const std::vector<Page>* pages);
    /// The page that is read, counted from 0.
    [[nodiscard]] int page_at() const;
    void turn(int by);
    void say_page();

    Desk& desk_;
    QWidget* below_ = nullptr;
    QWidget* bar_;
    QPushButton *back_, *on_, *print_;
    QLabel* says_;
    std::vector<QWidget*> shown_;
    std::vector<Page> drawn_;
    Errand<std::vector<Page>> pages_{this};
};

}  // namespace skarvel
