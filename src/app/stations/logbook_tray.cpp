// The tray of Logbook: how the job turned out.
#include <QPlainTextEdit>

#include "stations/tray.h"
#include "theme/theme.h"
#include "theme/words.h"

namespace skarvel {
namespace {

class LogbookTray : public Tray {
  public:
    LogbookTray(Desk& desk, QWidget* parent) : Tray(Station::Logbook, desk, parent) {
        title(in_words("tray.how-did-it-turn"));
        outcome_ = new Segmented(in_words("word.outcome"),
                                 {in_words("word.good"), in_words("tray.fair"), in_words("tray.poor")}, this);
        outcome_->show_choice(0);
        connect(outcome_, &Segmented::chosen, this, [this](int i) { chosen_ = i; });
        add_decision(outcome_);
        note_ = field(in_words("tray.what-to-do-next"), new QPlainTextEdit(this));
        note_->setAccessibleName(in_words("tray.note"));
        note_->setObjectName("note");
        note_->setTabChangesFocus(true);
        note_->setFixedHeight(Theme::px(96));
        finish_ = button(in_words("tray.finish-the-job"), Role::Main, this);
        finish_->setObjectName("finish");
        connect(finish_, &QPushButton::clicked, this, [this] {
            const auto added = desk_.finish_job(static_cast<Outcome>(chosen_), note_->toPlainText().toStdString());
            if (!added) {
                Q_EMIT desk_.said(say(added.error().what), true);
            } else {
                note_->clear();
                Q_EMIT desk_.said(in_words("tray.written-into-the-logbook"), false);
            }
        });
        add_decision(finish_);
    }

    void refresh() override {
        begin_follows(in_words("tray.this-job"));
        const auto& bench = *desk_.plan().bench;
        if (desk_.job().finished) {
            good(in_words("tray.finished", {{"finished", text_of(show_moment(desk_.job().finished->at, true))},
                                            {"outcome", text_of(word_of(desk_.job().finished->outcome))}}));
        } else {
            fact(in_words("tray.steps-done"),
                 in_words("tray.of", {{"done", bench.done()}, {"steps", bench.steps.size()}}));
            if (bench.done() < bench.steps.size()) why(in_words("tray.finishing-now-keeps-what"));
        }
        finish_->setEnabled(!desk_.job().finished && !bench.steps.empty());
        problems(Station::Bench);
        for (const StepId& id : bench.orphans) why(in_words("tray.ticked-no-longer-in", {{"name", text_of(id.name)}}));
        end_follows();
    }

  private:
    Segmented* outcome_;
    QPlainTextEdit* note_;
    QPushButton* finish_;
    int chosen_ = 0;
};

}  // namespace

Tray* make_logbook_tray(Desk& desk, QWidget* parent) { return new LogbookTray(desk, parent); }

}  // namespace skarvel
