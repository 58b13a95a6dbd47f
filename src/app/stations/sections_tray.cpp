// What Sections lets the maker decide: how the colour is made, what it is cut on; and other ways to cut it, whether the
// files go together again, and sending a load.
#include <QCheckBox>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QProgressBar>
#include <QPushButton>
#include <set>
#include <utility>

#include "device/sender.h"
#include "job/alternatives.h"
#include "proof/proof.h"
#include "stations/tray.h"
#include "theme/theme.h"
#include "window/errand.h"

namespace skarvel {
namespace {

QString text_of(const std::string& s) { return QString::fromStdString(s); }

class SectionsTray : public Tray {
  public:
    SectionsTray(Desk& desk, QWidget* parent) : Tray(desk, parent), seeking_(this), proving_(this), sending_(this) {
        add_colour_choice();
        title(tr("How it is made"));
        build_making();
        gap();
        title(tr("How it is cut"));
        bed_ = field(tr("cut on"), new Choice(tr("cut on"), this));
        connect(bed_, &QComboBox::activated, this,
                [this] { edit_making([&](Making& m) { m.bed = bed_->currentData().toString().toStdString(); }); });
        group(tr("Other ways to cut it"), [this] { build_alternatives(); });
        group(tr("Does it go together"), [this] { build_proof(); });
        group(tr("Send to the cutter"), [this] { build_sending(); });
    }

    ~SectionsTray() override {
        seeking_.stop();
        proving_.stop();
        sending_.stop();
    }
    SectionsTray(const SectionsTray&) = delete;
    SectionsTray& operator=(const SectionsTray&) = delete;

    void refresh() override {
        show_colour_choice();
        const Making& m = making();
        const bool mask = m.way == Way::PaintThrough;
        way_->show_choice(mask ? 1 : 0);
        film_->show_data(text_of(m.film));
        tool_->show_data(text_of(m.tool));
        tool_->setEnabled(mask);
        margin_->setEnabled(mask);
        margin_->show_value(
            m.margin, plan() != nullptr && mask ? tr("%1, by the tool").arg(length(plan()->making.margin)) : QString());
        lap_->show_value(m.lap);
        tie_->setEnabled(mask);
        tie_->show_value(m.tie, plan() != nullptr && mask && plan()->making.tie > Length{}
                                    ? tr("%1, as the film asks").arg(length(plan()->making.tie))
                                    : tr("keepers stay loose"));
        show_beds();
        if (current_ != desk_.job() || !(shop_ == desk_.shop())) forget();
        if (alternatives_ != nullptr) show_alternatives();
        if (evidence_ != nullptr) show_evidence();
        if (send_ != nullptr) show_sending();
        follow();
    }

  private:
    [[nodiscard]] const Making& making() const { return face().colours[desk_.colour_at()].making; }
    void edit_making(const std::function<void(Making&)>& change) {
        edit_face([&](Face& f) { change(f.colours[desk_.colour_at()].making); });
    }

    void build_making() {
        way_ = new Segmented(tr("how it is made"), {tr("decal"), tr("paint-through")}, this);
        add_decision(way_);
        connect(way_, &Segmented::chosen, this, [this](int i) {
            edit_making([&](Making& m) { make_as(m, i == 0 ? Way::Decal : Way::PaintThrough); });
        });
        film_ = field(tr("film"), new Choice(tr("film"), this));
        for (const Film& f : desk_.library().trade.films) film_->addItem(text_of(f.name), text_of(f.id));
        connect(film_, &QComboBox::activated, this,
                [this] { edit_making([&](Making& m) { m.film = film_->currentData().toString().toStdString(); }); });
        tool_ = field(tr("painted with"), new Choice(tr("painted with"), this));
        for (const Tool& t : desk_.library().trade.tools)
            tool_->addItem(text_of(t.name) + tr(": margin %1").arg(length(t.margin)), text_of(t.id));
        connect(tool_, &QComboBox::activated, this,
                [this] { edit_making([&](Making& m) { m.tool = tool_->currentData().toString().toStdString(); }); });
        margin_ = optional_measure(tr("mask margin"), tr("mask margin"), &Making::margin);
        lap_ = field(tr("lap where sections meet"), new MeasureField(desk_, tr("lap"), this));
        connect(lap_, &MeasureField::decided, this,
                [this](const Measure& v) { edit_making([&](Making& m) { m.lap = v; }); });
        tie_ = optional_measure(tr("keepers held by ties this wide"), tr("ties"), &Making::tie);
    }

    MeasureField* optional_measure(const QString& caption, const QString& name, std::optional<Measure> Making::*value) {
        auto* made = field(caption, new MeasureField(desk_, name, this));
        made->allow_empty();
        connect(made, &MeasureField::decided, this,
                [this, value](const Measure& v) { edit_making([&](Making& m) { m.*value = v; }); });
        connect(made, &MeasureField::emptied, this,
                [this, value] { edit_making([&](Making& m) { (m.*value).reset(); }); });
        return made;
    }

    void show_beds() {
        const QSignalBlocker quiet(bed_);
        bed_->clear();
        bed_->addItem(tr("the usual: %1").arg(text_of(desk_.shop().mat.name)), QString());
        for (const Mat& bed : beds_of(desk_.shop().machines))
            bed_->addItem(tr("%1, %2").arg(text_of(bed.machine), text_of(bed.name)), text_of(bed_name(bed)));
        bed_->show_data(text_of(making().bed));
    }

    // What was clicked may be among them, so they go once its click is over.
    static void clear(QWidget* rows) {
        for (QWidget* child : rows->findChildren<QWidget*>(Qt::FindDirectChildrenOnly)) {
            rows->layout()->removeWidget(child);
            child->hide();
            child->deleteLater();
        }
    }

    // ---- other ways

    void build_alternatives() {
        seek_ = button(tr("Look for other ways"), nullptr, widget());
        seek_->setObjectName("look for other ways");
        add_decision(seek_);
        alternatives_ = new QWidget(widget());
        alternatives_->setObjectName("alternatives");
        auto* rows = new QVBoxLayout(alternatives_);
        rows->setContentsMargins(0, 0, 0, 0);
        rows->setSpacing(4);
        add_decision(alternatives_);
        connect(seek_, &QPushButton::clicked, this, [this] {
            const Library* library = &desk_.library();
            seeking_.run(
                [job = desk_.job(), shop = desk_.shop(), sign = desk_.sign_at(), face = desk_.face_at(),
                 colour = desk_.colour_at(), now = desk_.now(), library](const std::stop_token& stop) {
                    return alternatives(job, sign, face, colour, shop, *library, now, stop);
                },
                [this](const std::vector<Alternative>& all) {
                    found_ = all;
                    refresh();
                });
            refresh();
        });
    }

    void show_alternatives() {
        seek_->setEnabled(!seeking_.busy());
        seek_->setText(seeking_.busy() ? tr("Looking ...") : tr("Look for other ways"));
        clear(alternatives_);
        if (!found_) return;
        auto* rows = alternatives_->layout();
        const CutFigures now = figures_of(desk_.plan(), desk_.sign_at(), desk_.face_at(), desk_.colour_at());
        rows->addWidget(label(tr("As drawn: %1").arg(words_of(now)), "small", alternatives_));
        if (found_->empty())
            rows->addWidget(label(tr("Nothing else comes out better or different."), "small", alternatives_));
        for (std::size_t i = 0; i < found_->size(); ++i) {
            const Alternative& a = (*found_)[i];
            QPushButton* take = button(say(a.what), nullptr, alternatives_);
            take->setObjectName(QString("alternative %1").arg(i + 1));
            take->setToolTip(words_of(a.figures));
            rows->addWidget(take);
            QLabel* figures = label(compared(a.figures, now), "small", alternatives_);
            figures->setWordWrap(true);
            rows->addWidget(figures);
            connect(take, &QPushButton::clicked, this, [this, job = a.job] { desk_.apply(Job(job)); });
        }
    }

    [[nodiscard]] QString words_of(const CutFigures& f) const {
        return tr("%1 sections, %2 loads, %3 of film, %4 by hand")
            .arg(f.sections)
            .arg(f.loads)
            .arg(length(f.film), text_of(show_minutes(f.hands_on)));
    }

    // Only what differs, with by how much.
    [[nodiscard]] QString compared(const CutFigures& f, const CutFigures& now) const {
        QStringList parts;
        const auto count = [&](int is, int was, const QString& one, const QString& many) {
            if (is == was) return;
            const int by = std::abs(is - was);
            parts << (is < was ? tr("%1 %2 fewer") : tr("%1 %2 more")).arg(by).arg(by == 1 ? one : many);
        };
        count(f.loads, now.loads, tr("load"), tr("loads"));
        count(f.sections, now.sections, tr("section"), tr("sections"));
        count(f.crossings, now.crossings, tr("seam across ink"), tr("seams across ink"));
        if (f.film != now.film) {
            parts << (f.film < now.film ? tr("%1 less film").arg(length(now.film - f.film))
                                        : tr("%1 more film").arg(length(f.film - now.film)));
        }
        if (f.hands_on != now.hands_on) {
            const auto by = Minutes(std::abs((f.hands_on - now.hands_on).count()));
            parts
                << (f.hands_on < now.hands_on ? tr("%1 less work") : tr("%1 more work")).arg(text_of(show_minutes(by)));
        }
        return parts.isEmpty() ? tr("comes out the same") : parts.join(", ");
    }

    // ---- the proof

    void build_proof() {
        prove_ = button(tr("Read the files back and lay them"), nullptr, widget());
        prove_->setObjectName("prove");
        add_decision(prove_);
        evidence_ = new QWidget(widget());
        evidence_->setObjectName("evidence");
        auto* rows = new QVBoxLayout(evidence_);
        rows->setContentsMargins(0, 0, 0, 0);
        rows->setSpacing(4);
        add_decision(evidence_);
        connect(prove_, &QPushButton::clicked, this, [this] {
            proving_.run(
                [job = desk_.job(), shop = desk_.shop(), plan = desk_.plan()](const std::stop_token& stop) {
                    std::map<CutFormat, Evidence> all;
                    const FileSet files = files_of(job, plan, shop);
                    for (const CutFormat format : {CutFormat::Svg, CutFormat::Dxf, CutFormat::Hpgl}) {
                        if (!stop.stop_requested()) all[format] = prove(job, plan, shop, files, format);
                    }
                    return all;
                },
                [this](const std::map<CutFormat, Evidence>& all) {
                    proven_ = all;
                    refresh();
                });
            refresh();
        });
    }

    void show_evidence() {
        prove_->setEnabled(!proving_.busy() && desk_.current());
        prove_->setText(proving_.busy() ? tr("Cutting, weeding, laying ...") : tr("Read the files back and lay them"));
        clear(evidence_);
        if (!proven_) return;
        auto* rows = evidence_->layout();
        const auto line = [&](const QString& text, const char* role) {
            QLabel* made = label(text, role, evidence_);
            made->setWordWrap(true);
            rows->addWidget(made);
        };
        static const std::map<CutFormat, QString> names{
            {CutFormat::Svg, "SVG"}, {CutFormat::Dxf, "DXF"}, {CutFormat::Hpgl, "HPGL"}};
        for (const auto& [format, e] : *proven_) {
            double farthest = 0;
            for (const ColourProof& c : e.as_cut) farthest = std::max(farthest, c.deviation.in_mm());
            line(tr("%1, as cut: %2")
                     .arg(names.at(format),
                          e.good() ? tr("no edge farther off than %1 mm").arg(std::ceil(farthest * 1000) / 1000)
                                   : tr("does not go together")),
                 e.good() ? "good" : "stop");
            for (const Problem& p : e.problems) line(say(p.what), "small");
            for (const auto* all : {&e.as_cut, &e.as_measured}) {
                for (const ColourProof& c : *all) {
                    for (const Reason& why : c.wrong) line(say(why), "small");
                }
            }
        }
        const Evidence& first = proven_->begin()->second;
        Length shift;
        for (const ColourProof& c : first.as_measured) shift = std::max(shift, c.largest_shift);
        line(tr("As measured: the sheet's rounding moves no section by more than %1 mm.")
                 .arg(std::ceil(shift.in_mm() * 100) / 100),
             "small");
        for (const SeamByHand& s : first.by_hand) {
            const bool safe = s.share_open <= 0.05;
            line(tr("By hand, %1 | %2: opens in %3 of 100 tries%4.")
                     .arg(text_of(s.lower), text_of(s.upper))
                     .arg(std::lround(s.share_open * 100))
                     .arg(safe ? QString()
                               : tr(", once in twenty by %1 mm; a lap of %2 would be safe")
                                     .arg(std::ceil(s.often.in_mm() * 10) / 10)
                                     .arg(length(s.safer_lap))),
                 safe ? "small" : "look");
        }
    }

    // ---- sending

    void build_sending() {
        load_ = field(tr("load"), new Choice(tr("load to send"), widget()));
        address_ = field(tr("where the cutter listens"), new QLineEdit(widget()));
        address_->setAccessibleName(tr("address of the cutter"));
        address_->setObjectName("address");
        address_->setPlaceholderText("127.0.0.1:9100");
        for (const QString& check :
             {tr("the right blade is in"), tr("rollers where they belong"), tr("film side up, paper side down")}) {
            auto* tick = new Check(check, widget());
            tick->setObjectName(check);
            add_decision(tick);
            checks_.push_back(tick);
            connect(tick, &QCheckBox::toggled, this, [this] { show_sending(); });
        }
        send_ = button(tr("Send the load"), "primary", widget());
        send_->setObjectName("send");
        add_decision(send_);
        auto* row = new QWidget(widget());
        auto* layout = new QHBoxLayout(row);
        layout->setContentsMargins(0, 0, 0, 0);
        pause_ = button(tr("Pause"), nullptr, row);
        pause_->setCheckable(true);
        stop_ = button(tr("Stop"), nullptr, row);
        layout->addWidget(pause_);
        layout->addWidget(stop_);
        add_decision(row);
        progress_ = new QProgressBar(widget());
        progress_->setRange(0, 100);
        progress_->setAccessibleName(tr("share that is cut"));
        add_decision(progress_);
        outcome_ = label({}, "small", widget());
        outcome_->setObjectName("outcome");
        outcome_->setWordWrap(true);
        add_decision(outcome_);
        connect(send_, &QPushButton::clicked, this, [this] { send_load(); });
        connect(pause_, &QPushButton::toggled, this, [this](bool on) { holding_->paused = on; });
        connect(stop_, &QPushButton::clicked, this, [this] { stopping_.request_stop(); });
    }

    void show_sending() {
        // The knife's way is long to find where there are many letters: once for each plan.
        if (desk_.current() && !listed_) {
            listed_ = true;
            const auto loads = loads_to_cut(desk_.job(), desk_.plan(), desk_.shop());
            const QSignalBlocker quiet(load_);
            const int at = load_->currentIndex();
            load_->clear();
            for (const LoadToCut& l : loads) {
                load_->addItem(tr("load %1: %2, about %3 min")
                                   .arg(l.number)
                                   .arg(text_of(l.load->name))
                                   .arg((l.way.seconds + 59) / 60),
                               text_of(l.step));
            }
            load_->setCurrentIndex(std::clamp(at, 0, std::max(0, load_->count() - 1)));
            if (!address_->isModified() && !loads.empty()) address_->setText(text_of(loads.front().machine.address));
        }
        const bool checked = std::all_of(checks_.begin(), checks_.end(), [](const Check* c) { return c->isChecked(); });
        send_->setEnabled(checked && !sending_.busy() && load_->count() > 0);
        send_->setToolTip(checked ? QString() : tr("Tick what has been looked at first"));
        pause_->setEnabled(sending_.busy());
        stop_->setEnabled(sending_.busy());
        progress_->setVisible(sending_.busy());
    }

    void send_load() {
        const auto loads = loads_to_cut(desk_.job(), desk_.plan(), desk_.shop());
        const auto i = static_cast<std::size_t>(load_->currentIndex());
        if (i >= loads.size()) return;
        const LoadToCut& load = loads[i];
        auto hpgl = hpgl_of(load);
        if (!hpgl) return outcome_->setText(say(hpgl.error().what));
        const QStringList parts = address_->text().trimmed().split(':');
        const int port = parts.size() == 2 ? parts[1].toInt() : 0;
        if (port <= 0) return outcome_->setText(tr("An address is a name and a port, as 127.0.0.1:9100."));
        skarvel::Box reach;
        for (const OnMat& s : load.sections) reach = around(reach, s.laid.film.bounds());
        CutOrder order;
        order.hpgl = *hpgl;
        order.across = from_grid(reach.high.x);
        order.along = from_grid(reach.high.y);
        order.force = load.machine.force;
        order.speed_mm_s = load.machine.knife.speed_mm_s;
        const std::string step = load.step;
        stopping_ = std::stop_source();
        holding_ = std::make_shared<SendHold>();
        pause_->setChecked(false);
        progress_->setValue(0);
        outcome_->setText(tr("The cutter measures its material ..."));
        sending_.run(
            [order, to = Address{parts[0].toStdString(), port}, holding = holding_, stop = stopping_.get_token(),
             this](const std::stop_token& closing) {
                // Closing the window stops the knife as the button does.
                const std::stop_callback both(closing, [source = stopping_]() mutable { source.request_stop(); });
                return send(
                    order, to,
                    [this](double share) {
                        QMetaObject::invokeMethod(
                            this, [this, share] { progress_->setValue(static_cast<int>(share * 100)); },
                            Qt::QueuedConnection);
                    },
                    *holding, stop);
            },
            [this, step](const Expected<CutResult>& result) { sent(step, result); });
        show_sending();
    }

    void sent(const std::string& step, const Expected<CutResult>& result) {
        if (!result) {
            const QString remedy = say(result.error().remedy);
            outcome_->setText(say(result.error().what) +
                              (result.error().remedy.id.empty() ? QString() : ": " + remedy));
        } else if (result->outcome == "good") {
            outcome_->setText(
                tr("Cut in %1 s, through the film and no further. The step is ticked.").arg(result->seconds));
            desk_.apply(tick(desk_.job(), desk_.plan(), step, desk_.now()));
        } else if (result->outcome == "not-through") {
            outcome_->setText(
                tr("Not through. Leave it where it lies and send it again: the second pass goes deeper."));
        } else if (result->outcome == "into-backing") {
            outcome_->setText(tr("Cut into the backing: less force, or a newer blade set less far out."));
        } else {
            outcome_->setText(tr("The cutter says: %1").arg(text_of(result->outcome)));
        }
        refresh();
    }

    // What was found out holds for the job as it was then.
    void forget() {
        current_ = desk_.job();
        shop_ = desk_.shop();
        found_.reset();
        proven_.reset();
        listed_ = false;
        seeking_.stop();
        proving_.stop();
    }

    // ---- what follows

    void follow() {
        begin_follows(tr("What follows"));
        if (plan() != nullptr) {
            const bool mask = making().way == Way::PaintThrough;
            const LoadsPlan& p = *plan()->loads;
            fact(tr("sections"), QString::number(p.sections.size()));
            fact(tr("loads"), QString::number(p.loads.size()));
            fact(tr("film to cut"), length(p.film_total));
            fact(tr("share used"), QString("%1 %").arg(std::lround(p.share * 100)));
            if (desk_.plan().loads_saved > 0) {
                fact(tr("loads of the whole job"),
                     QString::number(
                         figures_of(desk_.plan(), desk_.sign_at(), desk_.face_at(), desk_.colour_at()).loads));
            }
            if (mask) keepers(p);
            problems("sections");
            misfits(p);
            spoilt();
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

    void keepers(const LoadsPlan& p) {
        std::size_t ties = 0;
        for (const Section& s : p.sections) ties += s.ties.size();
        fact(tr("keepers"), QString::number(p.keepers));
        if (ties > 0) fact(tr("ties"), QString::number(ties));
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

    // What is cut of this colour, section by section: a spoilt one is cut again alone.
    void spoilt() {
        const std::string of = face_id(sign(), desk_.face_at(), desk_.colour_at());
        bool first = true;
        for (std::size_t i = 0; i < desk_.job().bench.cut.size(); ++i) {
            const CutLoad& load = desk_.job().bench.cut[i];
            if (load.of != of) continue;
            if (std::exchange(first, false)) heading(tr("Cut, and spoilt?"));
            for (std::size_t k = 0; k < load.sections.size(); ++k) {
                const QString letters = text_of(load.sections[k].letters);
                offer(tr("%1 is spoilt: cut it again").arg(letters), [this, i, k] {
                    desk_.apply(cut_section_again(desk_.job(), i, k));
                })->setObjectName("spoilt " + letters);
            }
        }
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

    Segmented* way_ = nullptr;
    Choice *film_ = nullptr, *tool_ = nullptr, *bed_ = nullptr, *load_ = nullptr;
    MeasureField *margin_ = nullptr, *lap_ = nullptr, *tie_ = nullptr;
    QPushButton *seek_ = nullptr, *prove_ = nullptr, *send_ = nullptr, *pause_ = nullptr, *stop_ = nullptr;
    QWidget *alternatives_ = nullptr, *evidence_ = nullptr;
    QLineEdit* address_ = nullptr;
    std::vector<Check*> checks_;
    bool listed_ = false;  // the loads of the plan at hand
    QProgressBar* progress_ = nullptr;
    QLabel* outcome_ = nullptr;
    Job current_;
    Shop shop_;
    std::optional<std::vector<Alternative>> found_;
    std::optional<std::map<CutFormat, Evidence>> proven_;
    std::shared_ptr<SendHold> holding_ = std::make_shared<SendHold>();
    std::stop_source stopping_;
    Errand<std::vector<Alternative>> seeking_;
    Errand<std::map<CutFormat, Evidence>> proving_;
    Errand<Expected<CutResult>> sending_;
};

}  // namespace

Tray* make_sections_tray(Desk& desk, QWidget* parent) { return new SectionsTray(desk, parent); }

}  // namespace skarvel
