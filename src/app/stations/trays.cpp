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

QString text_of(const std::string& s) { return QString::fromStdString(s); }

void select_or_add(Choice* choice, const std::string& id) { choice->show_data(text_of(id)); }

// Each way starts with the film that suits it; another one is a click away.
void make(Making& making, Way way) {
    if (making.way == way) return;
    making.way = way;
    making.film = way == Way::Decal ? "permanent-gloss" : "removable-matt";
}

// Which colour of the face is at hand; out of the way where there is one.
void show_colours(Choice* choice, const Desk& desk) {
    const auto& colours = desk.face().colours;
    const QSignalBlocker quiet(choice);
    choice->clear();
    for (const Colour& c : colours)
        choice->addItem(text_of(c.paint.colour_name.empty() ? c.paint.colour : c.paint.colour_name));
    choice->setCurrentIndex(static_cast<int>(desk.colour_at()));
    choice->parentWidget()->setVisible(colours.size() > 1);
}

// ---- 3 Sections

class SectionsTray : public Tray {
  public:
    SectionsTray(Desk& desk, QWidget* parent) : Tray(desk, parent) {
        auto* holder = new QWidget(this);
        auto* rows = new QVBoxLayout(holder);
        rows->setContentsMargins(0, 0, 0, 6);
        add_decision(holder);
        inside(rows, [&] { colour_choice_ = field(tr("colour"), new Choice(tr("colour at hand"), this)); });
        connect(colour_choice_, &QComboBox::activated, this,
                [this](int i) { desk_.select_colour(static_cast<std::size_t>(i)); });
        title(tr("How it is made"));
        way_ = new Segmented(tr("how it is made"), {tr("decal"), tr("paint-through")}, this);
        add_decision(way_);
        connect(way_, &Segmented::chosen, this,
                [this](int i) { edit_making([&](Making& m) { make(m, i == 0 ? Way::Decal : Way::PaintThrough); }); });
        film_ = field(tr("film"), new Choice(tr("film"), this));
        for (const Film& f : desk.library().trade.films) film_->addItem(text_of(f.name), text_of(f.id));
        connect(film_, &QComboBox::activated, this,
                [this] { edit_making([&](Making& m) { m.film = film_->currentData().toString().toStdString(); }); });
        tool_ = field(tr("painted with"), new Choice(tr("painted with"), this));
        for (const Tool& t : desk.library().trade.tools)
            tool_->addItem(text_of(t.name) + tr(": margin %1").arg(length(t.margin)), text_of(t.id));
        connect(tool_, &QComboBox::activated, this,
                [this] { edit_making([&](Making& m) { m.tool = tool_->currentData().toString().toStdString(); }); });
        margin_ = field(tr("mask margin"), new MeasureField(desk, tr("mask margin"), this));
        margin_->allow_empty();
        connect(margin_, &MeasureField::decided, this,
                [this](const Measure& v) { edit_making([&](Making& m) { m.margin = v; }); });
        connect(margin_, &MeasureField::emptied, this, [this] { edit_making([](Making& m) { m.margin.reset(); }); });
        lap_ = field(tr("lap where sections meet"), new MeasureField(desk, tr("lap"), this));
        connect(lap_, &MeasureField::decided, this,
                [this](const Measure& v) { edit_making([&](Making& m) { m.lap = v; }); });
    }

    void refresh() override {
        show_colours(colour_choice_, desk_);
        const Making& m = face().colours[desk_.colour_at()].making;
        const bool mask = m.way == Way::PaintThrough;
        way_->show_choice(mask ? 1 : 0);
        select_or_add(film_, m.film);
        select_or_add(tool_, m.tool);
        tool_->setEnabled(mask);
        margin_->setEnabled(mask);
        margin_->show_value(
            m.margin, plan() != nullptr && mask ? tr("%1, by the tool").arg(length(plan()->making.margin)) : QString());
        lap_->show_value(m.lap);
        begin_follows(tr("What follows"));
        if (plan() != nullptr) {
            const LoadsPlan& p = *plan()->loads;
            fact(tr("sections"), QString::number(p.sections.size()));
            fact(tr("loads"), QString::number(p.loads.size()));
            fact(tr("film to cut"), length(p.film_total));
            fact(tr("share used"), QString("%1 %").arg(std::lround(p.share * 100)));
            if (mask) {
                fact(tr("keepers"), QString::number(p.keepers));
                std::vector<std::pair<std::string, int>> by_letter;
                for (const Section& s : p.sections) {
                    for (const Keeper& k : s.keepers) {
                        if (!by_letter.empty() && by_letter.back().first == k.letters) {
                            ++by_letter.back().second;
                        } else {
                            by_letter.emplace_back(k.letters, 1);
                        }
                    }
                }
                QStringList names;
                for (const auto& [letters, n] : by_letter)
                    names << (n == 1 ? text_of(letters) : QString("%1 %2").arg(text_of(letters)).arg(n));
                if (!names.isEmpty()) why(tr("Leave in while weeding: %1").arg(names.join(", ")));
            }
            problems("sections");
            misfits(p);
            heading(p.loads.size() == 1 ? tr("Why one load") : tr("Why %1 loads").arg(p.loads.size()));
            for (const Reason& reason : p.why) {
                if (reason.id.ends_with("proved")) {
                    good(say(reason));
                } else {
                    why(say(reason));
                }
            }
            std::set<std::string> seams;
            for (const Seam& s : p.seams) {
                if (seams.insert(s.why.id).second) why(tr("Seams: ") + say(s.why) + ".");
            }
        }
        end_follows();
    }

  private:
    void edit_making(const std::function<void(Making&)>& change) {
        edit_face([&](Face& f) { change(f.colours[desk_.colour_at()].making); });
    }

    void misfits(const LoadsPlan& p) {
        std::set<std::size_t> asked;
        for (const Misfit& misfit : p.misfits) {
            if (misfit.kept || !asked.insert(misfit.cut_load).second) continue;
            offer(tr("Keep what is cut (%1)").arg(text_of(misfit.letters)),
                  [this, i = misfit.cut_load] { desk_.apply(keep_cut(desk_.job(), i)); });
            offer(tr("Cut again (%1)").arg(text_of(misfit.letters)),
                  [this, i = misfit.cut_load] { desk_.apply(cut_again(desk_.job(), i)); });
        }
    }

    Segmented* way_;
    Choice *film_, *tool_;
    MeasureField *margin_, *lap_;
    Choice* colour_choice_ = nullptr;
};

// ---- 4 Method

class MethodTray : public Tray {
  public:
    MethodTray(Desk& desk, QWidget* parent) : Tray(desk, parent) {
        auto* holder = new QWidget(this);
        auto* rows = new QVBoxLayout(holder);
        rows->setContentsMargins(0, 0, 0, 6);
        add_decision(holder);
        inside(rows, [&] { colour_choice_ = field(tr("colour"), new Choice(tr("colour at hand"), this)); });
        connect(colour_choice_, &QComboBox::activated, this,
                [this](int i) { desk_.select_colour(static_cast<std::size_t>(i)); });
        title(tr("How it is made"));
        making_ = new Segmented(tr("made as"), {tr("decal"), tr("paint-through")}, this);
        add_decision(making_);
        connect(making_, &Segmented::chosen, this, [this](int i) {
            edit_face(
                [&](Face& f) { make(f.colours[desk_.colour_at()].making, i == 0 ? Way::Decal : Way::PaintThrough); });
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
        lift_ = schools(tr("lift the mask"), {"wet", "soft", "dry"}, {tr("wet"), tr("soft"), tr("dry")},
                        [](Face& f, const char* id) { f.finish.lift = id; });
        seal_ = schools(tr("seal its edges"), {"ground", "clear", "none"}, {tr("ground"), tr("clear"), tr("none")},
                        [](Face& f, const char* id) { f.finish.seal = id; });
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
        show_colours(colour_choice_, desk_);
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
        const auto index = [](const std::string& id, std::initializer_list<const char*> ids) {
            int i = 0;
            for (const char* known : ids) {
                if (id == known) return i;
                ++i;
            }
            return 0;
        };
        lift_->setEnabled(mask);
        seal_->setEnabled(mask);
        lift_->show_choice(index(f.finish.lift, {"wet", "soft", "dry"}));
        seal_->show_choice(index(f.finish.seal, {"ground", "clear", "none"}));
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
                const std::string step = face_id(desk_.sign(), desk_.face_at()) + "/proof";
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

    Segmented* schools(const QString& name, std::vector<const char*> ids, const QStringList& labels,
                       std::function<void(Face&, const char*)> set) {
        auto* made = field(name, new Segmented(name, labels, this));
        connect(made, &Segmented::chosen, this,
                [this, ids, set](int i) { edit_face([&](Face& f) { set(f, ids.at(static_cast<std::size_t>(i))); }); });
        return made;
    }

    Choice* film_;
    CoatRow ground_, colour_, clear_;
    Segmented *making_, *outdoors_, *lift_, *seal_, *over_;
    QCheckBox* sanded_;
    QLabel* note_;
    Choice* colour_choice_ = nullptr;
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
        problems("clock");
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
            static const char* const outcomes[] = {"good", "fair", "poor"};
            const auto added = desk_.finish_job(outcomes[chosen_], note_->toPlainText().toStdString());
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
            good(
                tr("Finished %1, %2")
                    .arg(text_of(show_moment(desk_.job().finished->at, true)), text_of(desk_.job().finished->outcome)));
        } else {
            fact(tr("steps done"), tr("%1 of %2").arg(bench.done()).arg(bench.steps.size()));
            if (bench.done() < bench.steps.size())
                why(tr("Finishing now keeps what was ticked, and leaves the rest open."));
        }
        finish_->setEnabled(!desk_.job().finished && !bench.steps.empty());
        problems("bench");
        for (const std::string& id : bench.orphans) why(tr("Ticked, no longer in the plan: %1").arg(text_of(id)));
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
            return new SectionsTray(desk, parent);
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
