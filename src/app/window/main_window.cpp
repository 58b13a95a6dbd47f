#include "window/main_window.h"

#include <QApplication>
#include <QCloseEvent>
#include <QHBoxLayout>
#include <QMessageBox>
#include <QSettings>
#include <QShortcut>
#include <QVBoxLayout>

#include "files/cut_file.h"
#include "theme/roles.h"
#include "theme/theme.h"
#include "theme/words.h"
#include "window/file_chooser.h"
#include "window/find.h"
#include "window/first_start.h"
#include "window/help_page.h"

namespace skarvel {
namespace {

constexpr int behind_after_ms = 150;

QScrollArea* scrolling(QWidget* inside, QWidget* parent) {
    auto* area = new QScrollArea(parent);
    area->setWidgetResizable(true);
    area->setWidget(inside);
    area->setFocusPolicy(Qt::NoFocus);
    return area;
}

}  // namespace

MainWindow::MainWindow(Desk& desk) : desk_(desk) {
    setWindowTitle("Skarvel");
    setMinimumSize(880, 600);
    resize(1280, 800);
    auto* body = new QWidget(this);
    auto* rows = new QVBoxLayout(body);
    rows->setContentsMargins(0, 0, 0, 0);
    rows->setSpacing(0);
    build_actions();
    build_top_bar();
    rows->addWidget(top_bar_);
    signs_row_ = new SignsRow(desk_, body);
    rows->addWidget(signs_row_);
    auto* columns = new QHBoxLayout;
    columns->setContentsMargins(0, 0, 0, 0);
    columns->setSpacing(0);
    rows->addLayout(columns, 1);
    ticket_ = new Ticket(desk_, body);
    columns->addWidget(ticket_);
    middle_ = new QStackedWidget(body);
    dress(middle_, Role::Sheet);
    columns->addWidget(middle_, 1);
    tray_stack_ = new QStackedWidget(body);
    tray_stack_->setContentsMargins(1, 0, 0, 0);
    dress(tray_stack_, Role::Edge);
    columns->addWidget(tray_stack_);
    ribbon_ = new Ribbon(desk_, body);
    rows->addWidget(ribbon_);
    setCentralWidget(body);

    drawing_ = new Drawing(desk_, this);
    drawing_area_ = scrolling(drawing_, middle_);
    middle_->addWidget(drawing_area_);
    notices_ = new Notices(body);
    alarms_ = new Alarms(desk_, machine_caller(find_assets(SKARVEL_SOURCE_ASSETS)), this);
    connect(alarms_, &Alarms::flashed, this, [this](const QString& words, bool urgent) {
        if (bench_ != nullptr && middle_->currentWidget() == bench_) bench_->flash(words, urgent);
        QApplication::alert(this);
    });

    connect(ticket_, &Ticket::chosen, this, &MainWindow::show_station);
    connect(drawing_, &Drawing::view_changed, this, &MainWindow::refresh_job);
    connect(drawing_, &Drawing::decider_wanted, this, [this](const QString& field) {
        const Tray* tray = trays_.at(static_cast<std::size_t>(station_));
        auto* decider = tray == nullptr ? nullptr : tray->findChild<Segmented*>(field);
        if (decider != nullptr) decider->button(0)->setFocus();
    });
    connect(&desk_, &Desk::job_changed, this, &MainWindow::refresh_job);
    connect(&desk_, &Desk::selection_changed, this, [this] {
        drawing_->start_over();
        if (!in_page()) show_station(station_);
        refresh_job();
        set_behind(!desk_.current());
    });
    connect(&desk_, &Desk::marks_changed, this,
            [this] { drawing_->refresh(!desk_.current() && !behind_timer_.isActive()); });
    connect(&desk_, &Desk::plan_changed, this, &MainWindow::refresh_plan);
    connect(&desk_, &Desk::shop_changed, this, &MainWindow::refresh_job);
    connect(&desk_, &Desk::records_changed, this, &MainWindow::refresh_plan);
    connect(&desk_, &Desk::said, this, [this](const QString& message, bool trouble) { say(message, trouble); });
    behind_timer_.setSingleShot(true);
    behind_timer_.setInterval(behind_after_ms);
    connect(&behind_timer_, &QTimer::timeout, this, [this] { set_behind(!desk_.current()); });
    show_station(Station::Blank);
    drawing_->setFocus();
    if (const auto& damaged = desk_.shop_damaged())
        say(QString::fromStdString(desk_.say(damaged->what) + ": " + desk_.say(damaged->remedy)), true);
}

// Nothing is filled in before it can be seen: a job opened at the start is planned and shown once.
void MainWindow::showEvent(QShowEvent* event) {
    being_shown_ = true;
    // Needs no plan, which is still worked out.
    for (QWidget* widget : findChildren<QWidget*>()) widget->ensurePolished();
    desk_.wait_for_plan();
    being_shown_ = false;
    restyle();
    QMainWindow::showEvent(event);
}

void MainWindow::build_top_bar() {
    top_bar_ = new QWidget(this);
    top_bar_->setObjectName("top-bar");
    dress(top_bar_, Role::TopBar);
    auto* bar = new QHBoxLayout(top_bar_);
    bar->setContentsMargins(8, 0, 12, 0);
    bar->setSpacing(4);
    const auto add = [&](const QString& text, const QString& name) {
        QPushButton* made = button(text, Role::Bar, top_bar_);
        made->setObjectName(name);
        bar->addWidget(made);
        return made;
    };
    title_ = add({}, "job-title");
    dress(title_, Role::Job);
    title_->setLayoutDirection(Qt::RightToLeft);
    connect(title_, &QPushButton::clicked, this, &MainWindow::show_rack);
    undo_ = add({}, "undo");
    redo_ = add({}, "redo");
    actions_.put_on(undo_, "undo");
    actions_.put_on(redo_, "redo");
    bar->addStretch(1);
    view_ = new Segmented(in_words("window.view"), {in_words("window.whole"), in_words("window.close-up")}, top_bar_);
    view_->setFixedWidth(Theme::px(172));
    connect(view_, &Segmented::chosen, this, [this](int i) { drawing_->set_close_up(i == 1); });
    bar->addWidget(view_);
    bar->addSpacing(8);
    laid_down_ = button(in_words("window.laid-down"), Role::Plain, top_bar_);
    laid_down_->setObjectName("laid-down");
    laid_down_->setCheckable(true);
    dress(laid_down_, Role::Segment);
    laid_down_->setMinimumWidth(Theme::px(92));
    connect(laid_down_, &QPushButton::clicked, this, [this](bool on) { drawing_->set_laid_down(on); });
    bar->addWidget(laid_down_);
    measure_ = button(in_words("window.measure"), Role::Bar, top_bar_);
    measure_->setObjectName("measure");
    measure_->setCheckable(true);
    actions_.put_on(measure_, "measure");
    measure_->setToolTip(in_words("window.tape-measure-between-two"));
    bar->addWidget(measure_);
    bar->addStretch(1);
    tray_button_ = add(in_words("window.tray"), "tray-button");
    connect(tray_button_, &QPushButton::clicked, this, [this] {
        tray_open_ = !tray_open_;
        fold();
    });
    shop_ = add(in_words("window.shop"), "shop-button");
    sheets_ = add(in_words("word.sheets"), "sheets-button");
    find_ = add(in_words("word.find"), "find-button");
    actions_.put_on(shop_, "shop");
    actions_.put_on(sheets_, "sheets");
    actions_.put_on(find_, "find");
}

void MainWindow::build_actions() {
    const auto add = [this](const char* id, const char* name, const QKeySequence& keys, auto act) {
        return actions_.add(id, in_words(name), keys, act);
    };
    for (int i = 0; i < static_cast<int>(station_count); ++i) {
        const auto station = static_cast<Station>(i);
        actions_.add(word_of(station), QString("%1  %2").arg(i + 1).arg(station_name(station)),
                     QKeySequence(Qt::CTRL | static_cast<Qt::Key>(Qt::Key_1 + i)),
                     [this, station] { show_station(station); });
    }
    add("shop", "window.shop", QKeySequence(Qt::CTRL | Qt::Key_0), [this] { show_shop(); });
    add("rack", "window.the-rack-all-jobs", {}, [this] { show_rack(); });
    add("measure", "window.tape-measure", {}, [this] {
        drawing_->set_measuring(!drawing_->measuring());
        drawing_->setFocus();
    });
    add("copy-sign", "window.another-sign-like-this", {}, [this] {
        const std::size_t at = desk_.sign_at();
        desk_.apply(copy_sign(desk_.job(), at, desk_.face().lettering.main().words));
        desk_.select(at + 1);
    });
    add("together", "window.all-signs-together", {}, [this] { desk_.show_together(true); });
    add("sheets", "word.sheets", QKeySequence::Print, [this] { show_sheets(); });
    add("undo", "window.undo", QKeySequence::Undo, [this] { desk_.undo(); });
    add("redo", "window.redo", QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_Z), [this] { desk_.redo(); });
    add("new", "word.new-job", QKeySequence::New, [this] { new_job(); });
    add("open", "window.open-a-job", QKeySequence::Open, [this] { open(); });
    add("save", "word.save", QKeySequence::Save, [this] { save(); });
    add("save-as", "window.save-elsewhere", QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_S), [this] { save_as(); });
    add("export", "window.save-cut-files-and", QKeySequence(Qt::CTRL | Qt::Key_E), [this] { export_files(); });
    add("whole", "window.whole-board", {}, [this] { drawing_->set_close_up(false); });
    add("close-up", "window.close-up", {}, [this] { drawing_->set_close_up(true); });
    add("night", "window.night", {}, [this] { set_look(true, text_chosen()); });
    add("day", "window.day", {}, [this] { set_look(false, text_chosen()); });
    add("help", "window.help-for-this-station", QKeySequence(Qt::Key_F1), [this] { help(); });
    add("find", "word.find", QKeySequence(Qt::CTRL | Qt::Key_K), [this] { find(); });
}

// ---- what is shown

void MainWindow::show_station(Station station) {
    station_ = station;
    in_shop_ = in_sheets_ = in_rack_ = false;
    ticket_->show_station(station);
    build_views(station);
    fold();
    const Station s = station;
    if (s == Station::Blank || s == Station::Lettering || s == Station::Sections) {
        if (desk_.together() && together_ == nullptr) {
            together_ = new Together(desk_, this);
            middle_->addWidget(together_area_ = scrolling(together_, middle_));
        }
        middle_->setCurrentWidget(desk_.together() ? together_area_ : drawing_area_);
        drawing_->set_station(s);
    } else if (s == Station::Method) {
        middle_->setCurrentWidget(method_pages_);
    } else if (s == Station::Clock) {
        middle_->setCurrentWidget(clock_area_);
    } else if (s == Station::Bench) {
        middle_->setCurrentWidget(bench_);
        bench_->setFocus();
    } else {
        middle_->setCurrentWidget(logbook_);
    }
    Tray*& tray = trays_.at(static_cast<std::size_t>(station));
    if (tray != nullptr) tray_stack_->setCurrentWidget(tray);
    alarms_->keep_awake(s == Station::Bench);
    refresh_middle();
}

// Views and trays are built when they are first wanted: starting is quicker for it.
void MainWindow::build_views(Station station) {
    const auto page = [&](auto*& view) {
        using View = std::remove_reference_t<decltype(*view)>;
        if (view != nullptr) return false;
        view = new View(desk_, this);
        return true;
    };
    const auto add = [&](QWidget* widget) { middle_->addWidget(widget); };
    switch (station) {
        case Station::Method:
            if (page(method_)) add(method_pages_ = new MethodPages(desk_, scrolling(method_, middle_), middle_));
            break;
        case Station::Clock:
            if (page(clock_)) add(clock_area_ = scrolling(clock_, middle_));
            break;
        case Station::Bench:
            if (page(bench_)) {
                add(bench_);
                connect(bench_, &BenchView::left, this, [this] { show_station(Station::Clock); });
                connect(bench_, &BenchView::logbook_wanted, this, [this] { show_station(Station::Logbook); });
                connect(bench_, &BenchView::stepped, alarms_, &Alarms::read_aloud);
                connect(bench_, &BenchView::other_wanted, this, &MainWindow::go_to_bench);
            }
            break;
        case Station::Logbook:
            if (page(logbook_)) add(logbook_);
            break;
        default:
            break;
    }
    Tray*& tray = trays_.at(static_cast<std::size_t>(station));
    if (tray != nullptr) return;
    tray = make_tray(station, desk_, tray_stack_);
    if (tray != nullptr) tray_stack_->addWidget(tray);
}

void MainWindow::show_shop() {
    in_shop_ = true;
    in_sheets_ = in_rack_ = false;
    if (shop_page_ == nullptr) {
        shop_page_ = new ShopPage(desk_, this);
        connect(shop_page_, &ShopPage::look_changed, this, &MainWindow::set_look);
        shop_page_->show_text(text_chosen());
        middle_->addWidget(shop_page_);
    }
    shop_page_->refresh();
    middle_->setCurrentWidget(shop_page_);
    fold();
}

void MainWindow::show_sheets() {
    in_sheets_ = true;
    in_shop_ = in_rack_ = false;
    if (sheets_view_ == nullptr) {
        sheets_view_ = new SheetsView(desk_, this);
        connect(sheets_view_, &SheetsView::save_wanted, this, &MainWindow::export_files);
        middle_->addWidget(sheets_view_);
    }
    sheets_view_->refresh();
    middle_->setCurrentWidget(sheets_view_);
    fold();
}

void MainWindow::refresh_job() {
    const QString name = QString::fromStdString(desk_.job().title);
    title_->setText(
        QFontMetrics(Theme::font(18, QFont::DemiBold)).elidedText(name, Qt::ElideRight, std::max(100, width() / 5)) +
        (desk_.unsaved() ? in_words("window.not-saved") : QString()));
    title_->setAccessibleName(in_words("window.job", {{"name", name}}));
    title_->setToolTip(name);
    setWindowTitle(name + (desk_.unsaved() ? in_words("window.not-saved") : QString()) + " – Skarvel");
    actions_.at("undo")->setEnabled(desk_.can_undo());
    actions_.at("redo")->setEnabled(desk_.can_redo());
    actions_.at("together")->setEnabled(signs_row_->wanted());
    view_->show_choice(drawing_->close_up() ? 1 : 0);
    laid_down_->setChecked(drawing_->laid_down());
    measure_->setChecked(drawing_->measuring());
    if (!desk_.current() && !behind_timer_.isActive()) behind_timer_.start();
    refresh_middle();
    ribbon_->update();
}

void MainWindow::refresh_plan() {
    behind_timer_.stop();
    set_behind(!desk_.current());
    refresh_middle();
}

void MainWindow::set_behind(bool behind) {
    if (!isVisible() || being_shown_) return;
    ticket_->refresh(behind);
    ribbon_->refresh(behind);
    drawing_->refresh(behind);
}

void MainWindow::refresh_middle() {
    if (!isVisible() || being_shown_) return;
    signs_row_->refresh();
    if (together_ != nullptr) together_->refresh();
    Tray* tray = trays_.at(static_cast<std::size_t>(station_));
    if (tray != nullptr) tray->refresh();
    if (in_shop_) shop_page_->refresh();
    switch (station_) {
        case Station::Method:
            method_->refresh();
            method_pages_->refresh();
            break;
        case Station::Clock:
            clock_->refresh();
            break;
        case Station::Bench:
            bench_->refresh();
            break;
        case Station::Logbook:
            logbook_->refresh();
            break;
        default:
            break;
    }
}

// Something else than a station is shown.
bool MainWindow::in_page() const {
    const QWidget* shown_now = middle_->currentWidget();
    return in_shop_ || in_sheets_ || in_rack_ || (help_ != nullptr && shown_now == help_) ||
           (first_ != nullptr && shown_now == first_);
}

void MainWindow::fold() {
    const bool page = in_page();
    const bool bench = station_ == Station::Bench && !page;
    const bool narrow = width() < std::max(1180, Theme::px(1000));
    const bool very_narrow = width() < 1000;
    ticket_->setVisible(!bench);
    ticket_->set_folded(narrow);
    ribbon_->set_folded(height() < 720);
    const bool has_tray = !bench && !page;
    tray_button_->setVisible(very_narrow && has_tray);
    tray_stack_->setVisible(has_tray && (!very_narrow || tray_open_));
    tray_stack_->setFixedWidth(std::min(Theme::px(312), std::max(312, width() * 35 / 100)));
    // Large text in a narrow window: icons say what these buttons do.
    const bool bare = width() < Theme::px(1000);
    shop_->setText(bare ? QString() : in_words("window.shop"));
    sheets_->setText(bare ? QString() : in_words("word.sheets"));
    find_->setText(bare ? QString() : in_words("word.find"));
    view_->setFixedWidth(Theme::px(180));
    laid_down_->setMinimumWidth(Theme::px(96));
    const bool drawn =
        has_tray && (station_ == Station::Blank || station_ == Station::Lettering || station_ == Station::Sections);
    view_->setVisible(drawn);
    laid_down_->setVisible(drawn);
    measure_->setVisible(drawn);
    measure_->setText(bare ? QString() : in_words("window.measure"));
    top_bar_->setFixedHeight(Theme::px(44));
}

void MainWindow::resizeEvent(QResizeEvent* event) {
    QMainWindow::resizeEvent(event);
    fold();
    notices_->stand(width() / 2, height() - ribbon_->height() - 12, width() - 80);
    if (!text_by_room_ || text_for_room() == Theme::text_percent()) return;
    // Once the new size has settled.
    QTimer::singleShot(0, this, [this] {
        if (text_by_room_ && text_for_room() != Theme::text_percent()) set_look(Theme::night(), 0);
    });
}

void MainWindow::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape && in_page() && first_ == nullptr) return show_station(station_);
    QMainWindow::keyPressEvent(event);
}

void MainWindow::set_look(bool night, int text_percent) {
    text_by_room_ = text_percent == 0;
    Theme::set(night, text_by_room_ ? text_for_room() : text_percent);
    if (shop_page_ != nullptr) shop_page_->show_text(text_chosen());
    restyle();
}

int MainWindow::text_chosen() const { return text_by_room_ ? 0 : Theme::text_percent(); }

// A large screen is read from farther away.
int MainWindow::text_for_room() const {
    if (width() >= 2400 && height() >= 1300) return 150;
    return width() >= 1800 && height() >= 1000 ? 125 : 100;
}

void MainWindow::restyle() {
    title_->setIcon(Theme::icon("chevron-down"));
    undo_->setIcon(Theme::icon("undo-2"));
    redo_->setIcon(Theme::icon("redo-2"));
    shop_->setIcon(Theme::icon("store"));
    sheets_->setIcon(Theme::icon("file-text"));
    find_->setIcon(Theme::icon("search"));
    measure_->setIcon(Theme::icon("ruler"));
    // A little air before their words.
    for (QPushButton* b : {shop_, sheets_, find_, measure_}) b->setIconSize({Theme::px(20), Theme::px(16)});
    fold();
    set_behind(!desk_.current());
    refresh_job();
}

// ---- menu, find, help

void MainWindow::show_rack() {
    in_rack_ = true;
    in_shop_ = in_sheets_ = false;
    if (rack_ == nullptr) {
        rack_ = new Rack(desk_, this);
        connect(rack_, &Rack::open_wanted, this, [this](const QString& path) {
            if (std::filesystem::path(path.toStdString()) == desk_.path()) return show_station(station_);
            if (!may_leave()) return;
            open_path(path.toStdString());
            show_station(station_);
        });
        connect(rack_, &Rack::bench_wanted, this, &MainWindow::go_to_bench);
        connect(rack_, &Rack::new_wanted, this, [this] {
            new_job();
            show_station(Station::Blank);
        });
        connect(rack_, &Rack::browse_wanted, this, &MainWindow::open);
        connect(rack_, &Rack::save_wanted, this, [this] { save(); });
        connect(rack_, &Rack::save_as_wanted, this, [this] { save_as(); });
        connect(rack_, &Rack::export_wanted, this, &MainWindow::export_files);
        middle_->addWidget(rack_);
    }
    rack_->refresh();
    middle_->setCurrentWidget(rack_);
    fold();
}

void MainWindow::find() {
    std::vector<Found> all = actions_.found();
    if (signs_row_->wanted()) {
        for (std::size_t i = 0; i < desk_.job().signs.size(); ++i)
            all.push_back(
                {in_words("window.sign", {{"sign", label_of(desk_.job().signs[i])}}), [this, i] { desk_.select(i); }});
    }
    // Every field of every tray, folded away or not, and what help says.
    for (std::size_t i = 0; i < trays_.size(); ++i) {
        const auto station = static_cast<Station>(i);
        build_views(station);
        Tray* tray = trays_.at(i);
        if (tray == nullptr) continue;
        for (const QString& name : tray->fields()) {
            all.push_back({in_words("window.find-field", {{"station", station_name(station)}, {"field", name}}),
                           [this, station, tray, name] {
                               show_station(station);
                               tray->show_field(name);
                           }});
        }
    }
    for (const auto& [station, heading] : HelpPage(find_assets(SKARVEL_SOURCE_ASSETS), nullptr).headings()) {
        all.push_back(
            {in_words("window.find-help", {{"heading", heading}}), [this, station = station, heading = heading] {
                 show_help();
                 help_->show_heading(station, heading);
             }});
    }
    for (const Typeface& t : desk_.library().typefaces) {
        all.push_back({in_words("window.typeface", {{"family", t.name.family}, {"style", t.name.style}}),
                       [this, name = t.name] { desk_.apply(set_in(desk_.job(), desk_.at(), name)); }});
    }
    auto* dialog = new Find(std::move(all), this);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->move(mapToGlobal(QPoint(width() - 450, top_bar_->height() + 4)));
    dialog->show();
}

// Once more leaves it again.
void MainWindow::help() {
    if (help_ != nullptr && middle_->currentWidget() == help_) return show_station(station_);
    show_help();
    help_->show_station(station_);
}

void MainWindow::show_help() {
    if (help_ == nullptr) {
        help_ = new HelpPage(find_assets(SKARVEL_SOURCE_ASSETS), this);
        middle_->addWidget(help_);
    }
    in_shop_ = in_sheets_ = in_rack_ = false;
    middle_->setCurrentWidget(help_);
    fold();
}

void MainWindow::show_first_start() {
    const std::filesystem::path samples = find_assets(SKARVEL_SOURCE_ASSETS).parent_path() / "demo";
    auto* first = new FirstStart(desk_, samples, this);
    // With large type in a small window it is scrolled.
    auto* page = scrolling(first, middle_);
    first_ = page;
    middle_->addWidget(page);
    middle_->setCurrentWidget(page);
    fold();
    first->setFocus();
    const auto leave = [this, page] {
        // What was answered, or not, is how it is from now on.
        desk_.keep_shop();
        first_ = nullptr;
        show_station(Station::Blank);
        fold();
        middle_->removeWidget(page);
        page->deleteLater();
    };
    connect(first, &FirstStart::board_wanted, this, leave);
    connect(first, &FirstStart::sample_wanted, this, [this, leave](const QString& path) {
        if (const auto begun = desk_.begin_from(path.toStdString()); !begun)
            say(QString::fromStdString(desk_.say(begun.error().what)), true);
        leave();
    });
}

// ---- files

// Where the job at hand lies, else the one that was open last.
QString MainWindow::jobs_folder() const {
    const auto recent = desk_.recent();
    const std::filesystem::path known = !desk_.path().empty() ? desk_.path()
                                        : recent.empty()      ? std::filesystem::path()
                                                              : recent.front();
    return QString::fromStdString(known.parent_path().string());
}

bool MainWindow::may_leave() {
    if (!desk_.unsaved()) return true;
    QMessageBox box(this);
    box.setWindowTitle("Skarvel");
    box.setText(in_words("window.has-changes-that-are", {{"title", QString::fromStdString(desk_.job().title)}}));
    QPushButton* save_button = box.addButton(in_words("word.save"), QMessageBox::AcceptRole);
    QPushButton* drop = box.addButton(in_words("window.do-not-save"), QMessageBox::DestructiveRole);
    box.addButton(in_words("window.stay"), QMessageBox::RejectRole);
    box.exec();
    if (box.clickedButton() == save_button) return save();
    return box.clickedButton() == drop;
}

void MainWindow::new_job() {
    if (!may_leave()) return;
    desk_.start_new();
    show_station(Station::Blank);
}

void MainWindow::open() {
    if (!may_leave()) return;
    const QString path = FileChooser::file(this, in_words("window.open-a-job"), {"*.skarvel"}, jobs_folder());
    if (!path.isEmpty()) open_path(path.toStdString());
}

void MainWindow::go_to_bench(const QString& path) {
    if (std::filesystem::path(path.toStdString()) != desk_.path()) {
        // What was ticked here is written down before the other job is taken up.
        if (desk_.unsaved() && !desk_.path().empty() && !save()) return;
        if (!may_leave()) return;
        open_path(path.toStdString());
    }
    show_station(Station::Bench);
}

void MainWindow::open_path(const std::filesystem::path& path) { show_opened(path, desk_.open(path)); }

void MainWindow::show_opened(const std::filesystem::path& path, const Expected<FileStamp>& opened) {
    if (!opened) {
        const Problem& p = opened.error();
        QString message = QString::fromStdString(path.filename().string() + ": " + desk_.say(p.what));
        if (!p.remedy.id.empty()) message += ". " + QString::fromStdString(desk_.say(p.remedy));
        return say(message, true);
    }
    show_station(station_);
}

bool MainWindow::save() {
    if (desk_.path().empty()) return save_as();
    const auto saved = desk_.save(desk_.path());
    if (!saved) {
        save_failed(saved.error());
        return false;
    }
    say(in_words("window.saved"));
    return true;
}

bool MainWindow::save_as() {
    const QString named = QString::fromStdString(file_word(desk_.job().title)) + ".skarvel";
    QString path = FileChooser::saving(this, in_words("window.save-the-job"), {"*.skarvel"},
                                       jobs_folder().isEmpty() ? named : jobs_folder() + "/" + named);
    if (path.isEmpty()) return false;
    const std::filesystem::path file = path.toStdString();
    if (!file.has_extension()) path += ".skarvel";
    // A job that nobody has named yet is called as its file is.
    if (desk_.job().title == Job().title) {
        Job job = desk_.job();
        job.title = file.stem().string();
        desk_.apply(std::move(job));
    }
    const auto saved = desk_.save(path.toStdString());
    if (!saved) {
        save_failed(saved.error());
        return false;
    }
    say(in_words("window.saved"));
    return true;
}

void MainWindow::save_failed(const Problem& problem) {
    std::vector<Notices::Answer> answers{{in_words("window.save-elsewhere"), [this] { save_as(); }}};
    if (problem.what.id == "file.changed") {
        answers.emplace_back(in_words("window.save-over-it"), [this] {
            if (const auto saved = desk_.save(desk_.path(), true); !saved) save_failed(saved.error());
        });
    }
    say(QString::fromStdString(desk_.say(problem.what) + ": " + desk_.say(problem.remedy)), true, answers);
}

void MainWindow::export_files() {
    const QString folder = FileChooser::folder(this, in_words("window.where-the-cut-files"), jobs_folder());
    if (folder.isEmpty()) return;
    const auto written = desk_.export_to(folder.toStdString());
    if (!written)
        return say(QString::fromStdString(desk_.say(written.error().what) + ": " + desk_.say(written.error().remedy)),
                   true);
    QString message = in_words("window.files-written-to", {{"files", written->size()}, {"folder", folder}});
    if (!desk_.plan().proof_signed) message += in_words("window.the-proof-has-not");
    say(message);
}

void MainWindow::offer_leftovers() {
    const auto left = desk_.leftovers();
    if (left.empty()) return;
    const Recovery::Leftover leftover = left.front();
    const QString name = leftover.belongs_to.empty() ? in_words("window.an-untitled-job")
                                                     : QString::fromStdString(leftover.belongs_to.filename().string());
    say(in_words("window.skarvel-ended-without-saving", {{"name", name}}), true,
        {{in_words("window.bring-it-back"),
          [this, leftover] {
              if (const auto job = desk_.recover(leftover); !job)
                  say(QString::fromStdString(desk_.say(job.error().what)), true);
              show_station(station_);
          }},
         {in_words("window.forget-it"), [this, leftover] { desk_.forget(leftover); }}});
}

void MainWindow::closeEvent(QCloseEvent* event) {
    if (!may_leave()) return event->ignore();
    desk_.close_without_copy();
    QMainWindow::closeEvent(event);
}

void MainWindow::say(const QString& message, bool trouble, const std::vector<Notices::Answer>& answers) {
    notices_->say(message, trouble, answers);
}

}  // namespace skarvel
