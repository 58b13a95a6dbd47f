// stations/cutting_parts.h
//
// What Sections does when it is asked: other ways to cut, whether the files go together again, and sending a load.
#pragma once

#include <map>
#include <memory>

#include "device/printing.h"
#include "device/sender.h"
#include "job/alternatives.h"
#include "proof/proof.h"
#include "stations/tray_part.h"
#include "window/errand.h"

class QLineEdit;
class QProgressBar;
class QSpinBox;

namespace skarvel {

/// Other ways to cut, with what each saves and costs: shown on the drawing by pointing, taken by a click.
class OtherWays : public TrayPart {
    Q_OBJECT

  public:
    OtherWays(Desk& desk, QWidget* parent);
    ~OtherWays() override { seeking_.stop(); }

  protected:
    void forget() override;
    void show_found() override;
    bool eventFilter(QObject* watched, QEvent* event) override;

  private:
    void seek();
    [[nodiscard]] QString words_of(const CutFigures& f) const;
    [[nodiscard]] QString compared(const CutFigures& f, const CutFigures& now) const;

    QPushButton* seek_;
    QWidget* ways_;
    struct Sought {
        std::vector<Alternative> ways;
        bool all = false;
    };
    std::optional<std::vector<Alternative>> found_;
    Errand<Sought> seeking_;
};

/// The files are written, read back, cut, weeded and laid; what comes of it stands here and on the drawing.
class ProofPart : public TrayPart {
    Q_OBJECT

  public:
    ProofPart(Desk& desk, QWidget* parent);
    ~ProofPart() override { proving_.stop(); }

  protected:
    void forget() override;
    void show_found() override;

  private:
    void read_back();

    QPushButton* prove_;
    QWidget* evidence_;
    std::optional<std::map<CutFormat, Evidence>> proven_;
    Errand<std::map<CutFormat, Evidence>> proving_;
};

/// A load goes to the cutter once what has to be looked at is ticked; with pause and stop, and a record of each cut.
class SendingPart : public TrayPart {
    Q_OBJECT

  public:
    SendingPart(Desk& desk, QWidget* parent);
    ~SendingPart() override;

  protected:
    void forget() override { listed_ = false; }
    void show_found() override;

  private:
    void list_loads();
    void print_load();
    void send_load(bool only_test);
    void show_progress(int percent);
    void sent(const StepId& step, CutRecord record, const Expected<CutResult>& result);

    Choice* load_;
    QLineEdit *address_, *printer_;
    QSpinBox* force_;
    QPushButton *test_, *print_, *send_, *pause_, *stop_;
    QWidget* page_;
    std::vector<bool> printed_;  // of the loads listed
    std::vector<Check*> checks_;
    bool listed_ = false;  // the loads of the plan at hand
    QProgressBar* progress_;
    QLabel* outcome_;
    std::shared_ptr<SendHold> holding_ = std::make_shared<SendHold>();
    std::stop_source stopping_;
    Errand<Expected<CutResult>> sending_;
    Errand<Expected<std::string>> printing_;
};

}  // namespace skarvel
