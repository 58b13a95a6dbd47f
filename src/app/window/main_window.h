// window/main_window.h
//
// The window: ticket, drawing, tray and ribbon around one desk. It folds the ticket below 1180 px, lets the tray
// slide over below 1000, and folds the ribbon below a height of 720.
#pragma once

#include <QMainWindow>
#include <QStackedWidget>
#include <QTimer>
#include <array>

#include "drawing/drawing.h"
#include "drawing/together.h"
#include "shop/shop_page.h"
#include "stations/order_view.h"
#include "stations/tray.h"
#include "stations/views.h"
#include "ticket/ticket.h"
#include "window/actions.h"
#include "window/alarms.h"
#include "window/desk.h"
#include "window/notices.h"
#include "window/rack.h"
#include "window/ribbon.h"
#include "window/sheets_view.h"
#include "window/signs_row.h"

namespace skarvel {

class HelpPage;

class MainWindow : public QMainWindow {
    Q_OBJECT

  public:
    explicit MainWindow(Desk& desk);
    void show_station(Station station);
    void show_shop();
    void show_rack();
    void show_first_start();
    void show_help();
    /// Of the station at hand; once more leaves it.
    void help();
    void go_to_bench(const QString& path);
    void show_sheets();
    void open_path(const std::filesystem::path& path);
    /// What the desk has opened, or why it has not.
    void show_opened(const std::filesystem::path& path, const Expected<FileStamp>& opened);
    [[nodiscard]] Station station() const { return station_; }
    [[nodiscard]] Drawing& drawing() { return *drawing_; }
    /// Text of 0 per cent is as large as the window has room for, and changes with it.
    void set_look(bool night, int text_percent);
    /// What was chosen: 0 where text follows the room.
    [[nodiscard]] int text_chosen() const;
    /// Shows jobs that a crash left, if there are any.
    void offer_leftovers();

  protected:
    void resizeEvent(QResizeEvent* event) override;
    void showEvent(QShowEvent* event) override;
    void closeEvent(QCloseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    void build_top_bar();
    void build_actions();
    void build_views(Station station);
    void fold();
    void refresh_job();
    void refresh_plan();
    void refresh_middle();
    void set_behind(bool behind);
    void find();
    void new_job();
    void open();
    bool save();
    bool save_as();
    void save_failed(const Problem& problem);
    void export_files();
    bool may_leave();
    [[nodiscard]] QString jobs_folder() const;
    void say(const QString& message, bool trouble = false, const std::vector<Notices::Answer>& answers = {});
    void restyle();
    [[nodiscard]] int text_for_room() const;
    bool text_by_room_ = false, being_shown_ = false;

    Desk& desk_;
    Actions actions_{this};
    Station station_ = Station::Blank;
    bool in_shop_ = false, in_sheets_ = false, in_rack_ = false, tray_open_ = false;
    QWidget* top_bar_;
    Notices* notices_;
    Alarms* alarms_;
    QPushButton *title_, *undo_, *redo_, *laid_down_, *shop_, *sheets_, *find_, *tray_button_;
    Segmented* view_;
    Ticket* ticket_;
    Ribbon* ribbon_;
    QStackedWidget* middle_;
    QScrollArea *drawing_area_, *clock_area_ = nullptr;
    MethodPages* method_pages_ = nullptr;
    QPushButton* measure_;
    SignsRow* signs_row_;
    Rack* rack_ = nullptr;
    HelpPage* help_ = nullptr;
    QWidget* first_ = nullptr;
    [[nodiscard]] bool in_page() const;
    Together* together_ = nullptr;
    QScrollArea* together_area_ = nullptr;
    Drawing* drawing_;
    MethodView* method_ = nullptr;
    ClockView* clock_ = nullptr;
    BenchView* bench_ = nullptr;
    LogbookView* logbook_ = nullptr;
    ShopPage* shop_page_ = nullptr;
    SheetsView* sheets_view_ = nullptr;
    std::array<Tray*, station_count> trays_{};
    QStackedWidget* tray_stack_;
    QTimer behind_timer_;
};

}  // namespace skarvel
