// window/rack.h
//
// The rack: all jobs as small tickets with picture, due date and marks. What hangs on it: the job at hand, the ones
// that were open lately, and the others in its folder. Each is read and planned when the window has nothing else to do.
#pragma once

#include <QAbstractButton>
#include <QGridLayout>
#include <QLineEdit>
#include <QScrollArea>
#include <QTimer>
#include <filesystem>

#include "window/desk.h"
#include "window/errand.h"
#include "window/fields.h"
#include "window/week_view.h"

namespace skarvel {

class RackTicket : public QAbstractButton {
    Q_OBJECT

  public:
    RackTicket(Desk& desk, std::filesystem::path path, QWidget* parent);
    [[nodiscard]] const std::filesystem::path& path() const { return path_; }
    /// What was read and planned; a file that cannot be read says so on its ticket.
    struct Filled {
        std::filesystem::path path;
        std::optional<Job> job;
        Plan plan;
        std::string trouble;
    };
    void fill(const Filled& filled);
    [[nodiscard]] QSize sizeHint() const override;

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    Desk& desk_;
    std::filesystem::path path_;
    std::optional<Job> job_;
    Plan plan_;
    QString trouble_;
};

class Rack : public QScrollArea {
    Q_OBJECT

  public:
    Rack(Desk& desk, QWidget* parent);
    void refresh();
    /// Tickets are still being read and planned.
    [[nodiscard]] bool filling() const { return filling_.busy() || planning_.busy(); }

  Q_SIGNALS:
    void open_wanted(const QString& path);
    void bench_wanted(const QString& path);
    void new_wanted();
    void browse_wanted();
    void save_wanted();
    void save_as_wanted();
    void export_wanted();

  protected:
    void resizeEvent(QResizeEvent* event) override;

  private:
    void arrange();
    Desk& desk_;
    QLineEdit* name_;
    QWidget* board_;
    QGridLayout* grid_;
    void plan_week();
    [[nodiscard]] std::vector<std::size_t> in_line() const;
    void try_first(std::size_t job);
    void show_page(bool week);
    Segmented* which_;
    WeekView* week_;
    std::vector<RackTicket*> tickets_;
    std::vector<RackJob> in_work_;
    std::vector<std::filesystem::path> work_paths_;  // of those
    Errand<RackWeek> planning_{this}, trying_{this};
    Errand<RackTicket::Filled> filling_{this};
};

}  // namespace skarvel
