// The trays of the stations after Blank, which has a file of its own.
#include <QCheckBox>
#include <QDateTimeEdit>
#include <QHBoxLayout>
#include <QPlainTextEdit>
#include <QSpinBox>
#include <set>

#include "stations/tray.h"
#include "theme/theme.h"

namespace skarvel {
namespace {

// ---- 4 Method

class MethodTray : public Tray {
  public:
    MethodTray(Desk& desk, QWidget* parent) : Tray(desk, parent) {
        add_colour_choice();
        title(tr("How it is made"));
        making_ = new Segmented(tr("made as"), {tr("decal"), tr("paint-through")}, this);
        add_decision(making_);
        connect(making_, &Segmented::chosen, this, [this](int i) {
            edit_face([&](Face& f) {
                make_as(f.colours[desk_.colour_at()].making, i == 0 ? Way::Decal : Way::PaintThrough);
            });
        });
        film_ = field(tr("film"), new Choice(tr("film of the method"), this));
        for (const Film& f : desk.library().trade.films) film_->addItem(text_of(f.name), text_of(f.id));
        connect(film_, &QComboBox::activated, this, [this] {
            edit_face([&](Face& f) {
                f.colours[desk_.colour_at()].making.film = film_->currentData().toString().toStdString();
            });
        });
        gap();
        title(tr("Coats"));
        ground_ = coat_row(
            tr("ground"), {"paint", "wash", "stain", "chalkboard"}, true,
            [](Face& f) -> CoatChoice& {
                if (!f.finish.ground) f.finish.ground = CoatChoice{"chalk-paint", "#2f4558", "deep blue", 2};
                return *f.finish.ground;
            },
            [](Face& f) { f.finish.ground.reset(); }, true);
        colour_ = coat_row(
            tr("colour of the lettering"), {"paint"}, false,
            [this](Face& f) -> CoatChoice& { return f.colours[desk_.colour_at()].paint; }, {}, true);
        clear_ = coat_row(
            tr("clear"), {"clear"}, true,
            [](Face& f) -> CoatChoice& {
                if (!f.finish.clear) f.finish.clear = CoatChoice{"water-clear", "", "satin", 2};
                return *f.finish.clear;
            },
            [](Face& f) { f.finish.clear.reset(); }, false);
        outdoors_ = field(tr("it will hang"), new Segmented(tr("it will hang"), {tr("outdoors"), tr("indoors")}, this));
        connect(outdoors_, &Segmented::chosen, this,
                [this](int i) { edit_face([&](Face& f) { f.finish.outdoors = i == 0; }); });
        gap();
        title(tr("Where makers differ"));
        lift_ = schools(tr("lift the mask"), {tr("wet"), tr("soft"), tr("dry")},
                        [](Face& f, int i) { f.finish.lift = static_cast<Lift>(i); });
        seal_ = schools(tr("seal its edges"), {tr("ground"), tr("clear"), tr("none")},
                        [](Face& f, int i) { f.finish.seal = static_cast<Seal>(i); });
        over_ = field(tr("clear coat"), new Segmented(tr("clear coat"), {tr("under"), tr("over all")}, this));
        connect(over_, &Segmented::chosen, this,
                [this](int i) { edit_face([&](Face& f) { f.finish.clear_over = i == 1; }); });
        sanded_ = new Check(tr("sanded before the first coat"), this);
        connect(sanded_, &QCheckBox::clicked, this,
                [this](bool on) { edit_face([&](Face& f) { f.finish.sanded = on; }); });
        add_decision(sanded_);
        note_ = label({}, "small", this);
        add_decision(note_);
    }

    void refresh() override {
        show_colour_choice();
        const Face& f = face();
        making_->show_choice(f.colours[desk_.colour_at()].making.way == Way::Decal ? 0 : 1);
        film_->show_data(text_of(f.colours[desk_.colour_at()].making.film));
        show_coat(ground_, f.finish.ground ? &*f.finish.ground : nullptr);
        show_coat(colour_, &f.colours[desk_.colour_at()].paint);
        show_coat(clear_, f.finish.clear ? &*f.finish.clear : nullptr);
        const bool mask = f.colours[desk_.colour_at()].making.way == Way::PaintThrough;
        colour_.coat->setVisible(mask);
        colour_.coats->setVisible(mask);
        outdoors_->show_choice(f.finish.outdoors ? 0 : 1);
        lift_->setEnabled(mask);
        seal_->setEnabled(mask);
        lift_->show_choice(static_cast<int>(f.finish.lift));
        seal_->show_choice(static_cast<int>(f.finish.seal));
        over_->show_choice(f.finish.clear_over ? 1 : 0);
        sanded_->setChecked(f.finish.sanded);
        note_->setText(mask ? tr("Soft is our default: the evidence is mixed, and keepers hold until then. Ground "
                                 "colour makes a bleed invisible on paint; clear medium serves on stain and grain.")
                            : tr("Decal, then clear over all after 72 hours, lasts longest outdoors."));
        begin_follows(tr("Proof of the wording"));
        if (desk_.plan().proof_signed) {
            good(tr("Read and signed: %1").arg(text_of(show_moment(desk_.job().proof->at, true))));
        } else {
            QString words = text_of(wording(desk_.job()));
            if (words.size() > 200) words = words.left(200) + "…";
            why(tr("“%1”").arg(words));
            QPushButton* sign = offer(tr("I have read every word: sign"), [this] {
                const StepId step = step_id(desk_.face().id, Work::Proof);
                desk_.apply(tick(desk_.job(), desk_.plan(), step, desk_.now()));
            });
            sign->setEnabled(!face().lettering.main().words.empty());
        }
        heading(tr("Take care"));
        std::set<std::string> said;
        for (const Step& step : desk_.plan().bench->steps) {
            for (const Reason& caution : step.cautions) {
                if (said.insert(caution.id).second) why(say(caution));
            }
        }
        end_follows();
    }

  private:
    struct CoatRow {
        Choice* coat = nullptr;
        ColourButton* colour = nullptr;
        QSpinBox* coats = nullptr;
    };

    CoatRow coat_row(const QString& name, const std::set<std::string>& kinds, bool may_be_none,
                     std::function<CoatChoice&(Face&)> of, std::function<void(Face&)> drop, bool coloured) {
        CoatRow row;
        row.coat = field(name, new Choice(name, this));
        if (may_be_none) row.coat->addItem(tr("none"), "");
        for (const Coat& c : desk_.library().trade.coats) {
            if (kinds.contains(c.kind)) row.coat->addItem(text_of(c.name), text_of(c.id));
        }
        connect(row.coat, &QComboBox::activated, this, [this, coat = row.coat, of, drop] {
            const std::string id = coat->currentData().toString().toStdString();
            edit_face([&](Face& f) {
                if (id.empty() && drop) {
                    drop(f);
                } else {
                    of(f).coat = id;
                }
            });
        });
        auto* second = new QWidget(this);
        auto* layout = new QHBoxLayout(second);
        layout->setContentsMargins(0, 0, 0, 0);
        layout->setSpacing(4);
        if (coloured) {
            row.colour = new ColourButton(tr("colour of the %1").arg(name), second);
            connect(row.colour, &ColourButton::decided, this,
                    [this, of](const QString& colour, const QString& colour_name) {
                        edit_face([&](Face& f) {
                            of(f).colour = colour.toStdString();
                            of(f).colour_name = colour_name.toStdString();
                        });
                    });
            layout->addWidget(row.colour, 2);
        }
        row.coats = new QSpinBox(second);
        row.coats->setRange(1, 9);
        row.coats->setAccessibleName(tr("coats of %1").arg(name));
        row.coats->setObjectName(tr("coats of %1").arg(name));
        row.coats->setSuffix(tr(" coats"));
        row.coats->setButtonSymbols(QAbstractSpinBox::NoButtons);
        row.coats->setKeyboardTracking(false);
        connect(row.coats, &QSpinBox::valueChanged, this,
                [this, of](int n) { edit_face([&](Face& f) { of(f).coats = n; }); });
        layout->addWidget(row.coats, 1);
        add_decision(second);
        return row;
    }

    void show_coat(CoatRow& row, const CoatChoice* choice) {
        row.coat->show_data(choice == nullptr ? QString() : text_of(choice->coat));
        row.coats->setEnabled(choice != nullptr);
        const QSignalBlocker quiet(row.coats);
        if (choice != nullptr) {
            row.coats->setValue(choice->coats);
            row.coats->setSuffix(choice->coats == 1 ? tr(" coat") : tr(" coats"));
        }
        if (row.colour != nullptr) {
            row.colour->setEnabled(choice != nullptr);
            row.colour->show_colour(choice != nullptr ? choice->colour : "",
                                    choice != nullptr ? choice->colour_name : "");
        }
    }

    Segmented* schools(const QString& name, const QStringList& labels, const std::function<void(Face&, int)>& set) {
        auto* made = field(name, new Segmented(name, labels, this));
        connect(made, &Segmented::chosen, this, [this, set](int i) { edit_face([&](Face& f) { set(f, i); }); });
        return made;
    }

    Choice* film_;
    CoatRow ground_, colour_, clear_;
    Segmented *making_, *outdoors_, *lift_, *seal_, *over_;
    QCheckBox* sanded_;
    QLabel* note_;
};

// ---- 5 Clock

QDateTime to_qt(Moment m) {
    return QDateTime::fromSecsSinceEpoch(std::chrono::duration_cast<std::chrono::seconds>(m.time_since_epoch()).count(),
                                         Qt::UTC);
}
Moment from_qt(const QDateTime& t) {
    const QDateTime utc(t.date(), t.time(), Qt::UTC);
    return Moment(std::chrono::floor<Minutes>(std::chrono::seconds(utc.toSecsSinceEpoch())));
}

class ClockTray : public Tray {
  public:
    ClockTray(Desk& desk, QWidget* parent) : Tray(desk, parent) {
        title(tr("When it is wanted"));
        wanted_ = new Check(tr("there is a deadline"), this);
        add_decision(wanted_);
        connect(wanted_, &QCheckBox::clicked, this, [this](bool on) {
            edit([&](Job& job) {
                if (!on) {
                    job.deadline.reset();
                } else if (!job.deadline) {
                    job.deadline = std::chrono::floor<std::chrono::days>(desk_.now()) + std::chrono::days(7) +
                                   std::chrono::hours(12);
                }
            });
        });
        deadline_ = new QDateTimeEdit(this);
        deadline_->setAccessibleName(tr("deadline"));
        deadline_->setObjectName("deadline");
        deadline_->setDisplayFormat("ddd d MMM yyyy  HH:mm");
        deadline_->setKeyboardTracking(false);
        deadline_->setTimeSpec(Qt::UTC);
        deadline_->setLocale(QLocale::c());
        add_decision(deadline_);
        connect(deadline_, &QDateTimeEdit::dateTimeChanged, this,
                [this](const QDateTime& t) { edit([&](Job& job) { job.deadline = from_qt(t); }); });
        waits_ = field(tr("waits before film goes on"),
                       new Segmented(tr("waits before film goes on"), {tr("least"), tr("safe")}, this));
        connect(waits_, &Segmented::chosen, this,
                [this](int i) { edit_face([&](Face& f) { f.finish.safe_waits = i == 1; }); });
        number_ = field(tr("job number"), new QLineEdit(this));
        number_->setAccessibleName(tr("job number"));
        connect(number_, &QLineEdit::editingFinished, this,
                [this] { edit([&](Job& job) { job.number = number_->text().toStdString(); }); });
        customer_ = field(tr("customer"), new QLineEdit(this));
        customer_->setAccessibleName(tr("customer"));
        connect(customer_, &QLineEdit::editingFinished, this,
                [this] { edit([&](Job& job) { job.customer = customer_->text().toStdString(); }); });
    }

    void refresh() override {
        const Job& job = desk_.job();
        wanted_->setChecked(job.deadline.has_value());
        deadline_->setVisible(job.deadline.has_value());
        if (job.deadline && !deadline_->hasFocus()) {
            const QSignalBlocker quiet(deadline_);
            deadline_->setDateTime(to_qt(*job.deadline));
        }
        waits_->show_choice(face().finish.safe_waits ? 1 : 0);
        if (!number_->hasFocus()) number_->setText(text_of(job.number));
        if (!customer_->hasFocus()) customer_->setText(text_of(job.customer));
        const Schedule& c = *desk_.plan().clock;
        begin_follows(tr("What follows"));
        if (!c.slots.empty()) {
            if (c.start_by) fact(tr("start by"), text_of(show_moment(*c.start_by, true)));
            fact(tr("ready"), text_of(show_moment(c.ready, true)));
            fact(tr("hands-on"), text_of(show_minutes(c.hands_on)));
            fact(tr("waits in a row"), text_of(show_minutes(c.chain_waits)));
        }
        problems(Station::Clock);
        heading(tr("What each wait is for"));
        for (const Wait& w : c.chain) why(tr("%1: %2").arg(text_of(show_minutes(w.at_least)), say(w.why)));
        end_follows();
    }

  private:
    QCheckBox* wanted_;
    QDateTimeEdit* deadline_;
    Segmented* waits_;
    QLineEdit *number_, *customer_;
};

// ---- 7 Logbook

class LogbookTray : public Tray {
  public:
    LogbookTray(Desk& desk, QWidget* parent) : Tray(desk, parent) {
        title(tr("How did it turn out"));
        outcome_ = new Segmented(tr("outcome"), {tr("good"), tr("fair"), tr("poor")}, this);
        outcome_->show_choice(0);
        connect(outcome_, &Segmented::chosen, this, [this](int i) { chosen_ = i; });
        add_decision(outcome_);
        note_ = field(tr("what to do next time"), new QPlainTextEdit(this));
        note_->setAccessibleName(tr("note"));
        note_->setObjectName("note");
        note_->setTabChangesFocus(true);
        note_->setFixedHeight(Theme::px(96));
        finish_ = button(tr("Finish the job"), "main", this);
        finish_->setObjectName("finish");
        connect(finish_, &QPushButton::clicked, this, [this] {
            const auto added = desk_.finish_job(static_cast<Outcome>(chosen_), note_->toPlainText().toStdString());
            if (!added) {
                Q_EMIT desk_.said(say(added.error().what), true);
            } else {
                note_->clear();
                Q_EMIT desk_.said(tr("Written into the logbook."), false);
            }
        });
        add_decision(finish_);
    }

    void refresh() override {
        begin_follows(tr("This job"));
        const auto& bench = *desk_.plan().bench;
        if (desk_.job().finished) {
            good(tr("Finished %1, %2")
                     .arg(text_of(show_moment(desk_.job().finished->at, true)),
                          text_of(word_of(desk_.job().finished->outcome))));
        } else {
            fact(tr("steps done"), tr("%1 of %2").arg(bench.done()).arg(bench.steps.size()));
            if (bench.done() < bench.steps.size())
                why(tr("Finishing now keeps what was ticked, and leaves the rest open."));
        }
        finish_->setEnabled(!desk_.job().finished && !bench.steps.empty());
        problems(Station::Bench);
        for (const StepId& id : bench.orphans) why(tr("Ticked, no longer in the plan: %1").arg(text_of(id.name)));
        end_follows();
    }

  private:
    Segmented* outcome_;
    QPlainTextEdit* note_;
    QPushButton* finish_;
    int chosen_ = 0;
};

}  // namespace

Tray* make_tray(Station station, Desk& desk, QWidget* parent) {
    switch (station) {
        case Station::Blank:
            return make_blank_tray(desk, parent);
        case Station::Lettering:
            return make_lettering_tray(desk, parent);
        case Station::Sections:
            return make_sections_tray(desk, parent);
        case Station::Method:
            return new MethodTray(desk, parent);
        case Station::Clock:
            return new ClockTray(desk, parent);
        case Station::Bench:
            return nullptr;
        case Station::Logbook:
            return new LogbookTray(desk, parent);
    }
    return nullptr;
}

}  // namespace skarvel
