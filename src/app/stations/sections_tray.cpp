// What Sections lets the maker decide: how the colour is made, what it is cut on; and other ways to cut it, whether the
// files go together again, and sending a load.
#include <QCheckBox>
#include <QEvent>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QProgressBar>
#include <QPushButton>
#include <QSpinBox>
#include <set>
#include <utility>

#include "device/printing.h"
#include "device/sender.h"
#include "files/print_page.h"
#include "job/alternatives.h"
#include "job/wish_commands.h"
#include "proof/proof.h"
#include "stations/tray.h"
#include "theme/theme.h"
#include "window/errand.h"

namespace skarvel {
namespace {

QString text_of(const std::string& s) { return QString::fromStdString(s); }

class SectionsTray : public Tray {
  public:
    SectionsTray(Desk& desk, QWidget* parent)
        : Tray(desk, parent), seeking_(this), proving_(this), sending_(this), printing_(this) {
        add_colour_choice();
        title(tr("How it is made"));
        build_making();
        gap();
        title(tr("How it is cut"));
        bed_ = field(tr("cut on"), new Choice(tr("cut on"), this));
        connect(bed_, &QComboBox::activated, this,
                [this] { edit_making([&](Making& m) { m.bed = bed_->currentData().toString().toStdString(); }); });
        gap();
        title(tr("Where it is divided"));
        build_division();
        group(tr("Other ways to cut it"), [this] { build_alternatives(); });
        group(tr("Does it go together"), [this] { build_proof(); });
        group(tr("Send to the cutter"), [this] { build_sending(); });
    }

    ~SectionsTray() override {
        seeking_.stop();
        proving_.stop();
        sending_.stop();
        printing_.stop();
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
        show_division();
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
        // What is printed goes on a page of its own accord.
        const Mat& usual = plan() != nullptr && making().bed.empty() ? plan()->bed : desk_.shop().mat;
        bed_->addItem(tr("the usual: %1").arg(text_of(usual.name)), QString());
        for (const Mat& bed : beds_of(desk_.shop().machines))
            bed_->addItem(tr("%1, %2").arg(text_of(bed.machine), text_of(bed.name)), text_of(bed_name(bed)));
        bed_->show_data(text_of(making().bed));
    }

    // ---- the maker's wishes

    void build_division() {
        seam_row_ = new QWidget(this);
        auto* seam_rows = new QVBoxLayout(seam_row_);
        seam_rows->setContentsMargins(0, 0, 0, 0);
        add_decision(seam_row_);
        seam_title_ = label({}, nullptr, seam_row_);
        seam_rows->addWidget(seam_title_);
        seam_ = new MeasureField(desk_, tr("seam"), seam_row_);
        seam_rows->addWidget(seam_);
        division_ = new QWidget(this);
        division_->setObjectName("division");
        auto* rows = new QVBoxLayout(division_);
        rows->setContentsMargins(0, 0, 0, 0);
        rows->setSpacing(4);
        add_decision(division_);
        connect(seam_, &MeasureField::decided, this, [this](const Measure& to) {
            const auto seam = desk_.seam_at();
            if (!seam || plan() == nullptr || !desk_.current()) return;
            Seam there = plan()->loads->seams[*seam];
            there.where += to_grid(to.value - place_of(*plan(), there));
            desk_.apply(move_seam(desk_.job(), colour_now(), *plan(), *seam, to));
            desk_.pick({{}, there});
        });
        whole_ = new Check(tr("every mask keeps its whole margin"), this);
        whole_->setObjectName("whole margins");
        add_decision(whole_);
        connect(whole_, &QCheckBox::clicked, this,
                [this](bool on) { edit_making([&](Making& m) { m.wishes.whole_margins = on; }); });
        slant_ = new Check(tr("long sections may lie at a slant"), this);
        slant_->setObjectName("any angle");
        add_decision(slant_);
        connect(slant_, &QCheckBox::clicked, this,
                [this](bool on) { edit_making([&](Making& m) { m.wishes.any_angle = on; }); });
    }

    [[nodiscard]] ColourAt colour_now() const { return {desk_.at(), desk_.colour_at()}; }

    QPushButton* division_offer(const QString& text, const std::function<Job()>& take) {
        QPushButton* made = button(text, nullptr, division_);
        division_->layout()->addWidget(made);
        connect(made, &QPushButton::clicked, this, [this, take] { desk_.apply(take()); });
        return made;
    }

    void show_division() {
        clear(division_);
        const bool mask = making().way == Way::PaintThrough;
        whole_->setVisible(mask);
        slant_->setChecked(making().wishes.any_angle);
        whole_->setChecked(making().wishes.whole_margins);
        const auto words = [&](const QString& text, const char* role) {
            QLabel* made = label(text, role, division_);
            made->setWordWrap(true);
            division_->layout()->addWidget(made);
        };
        const auto seam = desk_.seam_at();
        const std::vector<PieceName> picked = desk_.picked().pieces;
        seam_row_->setVisible(seam.has_value());
        if (seam && plan() != nullptr) {
            const Seam& s = plan()->loads->seams[*seam];
            const char letter = static_cast<char>('a' + static_cast<char>(*seam % 26));
            seam_title_->setText(
                tr("Seam %1, from the %2").arg(QChar(letter)).arg(s.axis == Axis::Y ? tr("bottom") : tr("left")));
            words(say(s.why) + ".", "small");
            seam_->show_value(measure_of(place_of(*plan(), s), desk_.shop().display));
            division_offer(tr("No seam here"), [this, i = *seam] {
                return desk_.current() ? forbid_seam(desk_.job(), colour_now(), *plan(), i, desk_.shop().display)
                                       : desk_.job();
            });
            if (const auto wish = wish_for(desk_.job(), colour_now(), *plan(), s)) {
                division_offer(tr("Let this seam be found"),
                               [this, w = *wish] { return free_seam(desk_.job(), colour_now(), w); });
            }
        } else if (!picked.empty()) {
            QStringList names;
            for (const PieceName& n : picked) names << text_of(n.letters.empty() ? "mark" : n.letters);
            words(tr("Picked: %1").arg(names.join(", ")), nullptr);
            if (picked.size() > 1) {
                division_offer(tr("Cut these as one"),
                               [this, picked] { return bind_pieces(desk_.job(), colour_now(), picked); });
            } else {
                words(tr("Shift and click adds another one."), "small");
            }
            division_offer(picked.size() > 1 ? tr("Each in a section of its own") : tr("In a section of its own"),
                           [this, picked] { return set_apart(desk_.job(), colour_now(), picked); });
            if (free_pieces(desk_.job(), colour_now(), picked) != desk_.job()) {
                division_offer(tr("Let it be found"),
                               [this, picked] { return free_pieces(desk_.job(), colour_now(), picked); });
            }
        } else if (const auto place = desk_.picked().place; place && plan() != nullptr) {
            show_place(*place, words);
        } else {
            words(tr("Drag a seam, or click a seam, a letter or a free place, to have it your way."), "small");
        }
        show_wishes(words);
    }

    // A place where there is neither ink nor seam.
    void show_place(Point place, const std::function<void(const QString&, const char*)>& words) {
        const Point low = plan()->blank->face.low;
        words(tr("Here: %1 from the left, %2 from the bottom")
                  .arg(length(from_grid(place.x - low.x)), length(from_grid(place.y - low.y))),
              nullptr);
        const auto offer = [&](const QString& text, Axis axis, bool wanted) {
            division_offer(text, [this, place, axis, wanted] {
                if (!desk_.current() || plan() == nullptr) return desk_.job();
                const auto command = wanted ? want_seam : forbid_seams_at;
                return command(desk_.job(), colour_now(), *plan(), axis, along(axis, place), desk_.shop().display);
            });
        };
        offer(tr("A level seam here"), Axis::Y, true);
        offer(tr("An upright seam here"), Axis::X, true);
        offer(tr("No level seam here"), Axis::Y, false);
        offer(tr("No upright seam here"), Axis::X, false);
    }

    // What is wished, in words, with a way back.
    void show_wishes(const std::function<void(const QString&, const char*)>& words) {
        const Wishes& w = making().wishes;
        const auto spelt = [](const std::vector<PieceName>& names) {
            QStringList all;
            for (const PieceName& n : names) all << text_of(n.letters.empty() ? "mark" : n.letters);
            return all.join(", ");
        };
        for (const auto& group : w.bound) words(tr("As one: %1").arg(spelt(group)), "small");
        if (!w.apart.empty()) words(tr("By itself: %1").arg(spelt(w.apart)), "small");
        for (std::size_t i = 0; i < w.seams.size(); ++i) {
            const SeamWish& s = w.seams[i];
            const QString edge = s.axis == Axis::Y ? tr("from the bottom") : tr("from the left");
            const QString at = length(s.at.value);
            auto* row = new QWidget(division_);
            auto* cells = new QHBoxLayout(row);
            cells->setContentsMargins(0, 0, 0, 0);
            QLabel* what = label(s.never ? tr("No seam near %1 %2").arg(at, edge) : tr("Seam at %1 %2").arg(at, edge),
                                 "small", row);
            what->setWordWrap(true);
            cells->addWidget(what, 1);
            QPushButton* back = button(tr("Take back"), nullptr, row);
            back->setObjectName(QString("wish %1").arg(i + 1));
            back->setAccessibleName(tr("take back: %1").arg(what->text()));
            cells->addWidget(back);
            division_->layout()->addWidget(row);
            connect(back, &QPushButton::clicked, this,
                    [this, i] { desk_.apply(free_seam(desk_.job(), colour_now(), i)); });
        }
        if (w.copies > 0) words(tr("Of what repeats, cut: %1").arg(w.copies), "small");
        if (w.any()) {
            division_offer(tr("Everything as found"), [this] {
                return forget_wishes(desk_.job(), colour_now());
            })->setObjectName("everything as found");
        }
    }

    // What the wishes cost against what was found.
    void cost(const LoadsPlan& p) {
        if (!p.without_wishes) return;
        const AsFound now = as_found(p);
        const AsFound& was = *p.without_wishes;
        QStringList parts;
        const auto more = [&](int by, const QString& one, const QString& many) {
            if (by != 0)
                parts << QString("%1 %2 %3")
                             .arg(std::abs(by))
                             .arg(std::abs(by) == 1 ? one : many, by > 0 ? tr("more") : tr("fewer"));
        };
        more(static_cast<int>(now.loads) - static_cast<int>(was.loads), tr("load"), tr("loads"));
        more(static_cast<int>(now.sections) - static_cast<int>(was.sections), tr("section"), tr("sections"));
        more(now.crossings - was.crossings, tr("seam across ink"), tr("seams across ink"));
        more(now.passes - was.passes, tr("pass"), tr("passes"));
        if (now.film != was.film)
            parts << (now.film > was.film ? tr("%1 of film more").arg(length(now.film - was.film))
                                          : tr("%1 of film less").arg(length(was.film - now.film)));
        if (now.crossed > was.crossed) parts << tr("%1 of ink crossed").arg(length(now.crossed - was.crossed));
        heading(tr("What your wishes cost"));
        if (parts.isEmpty()) {
            good(tr("Nothing, against what was found."));
        } else {
            why(parts.join(", ") + ".");
        }
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
        QLabel* as_drawn = label(tr("As drawn: %1").arg(words_of(now)), "small", alternatives_);
        as_drawn->setWordWrap(true);
        rows->addWidget(as_drawn);
        if (found_->empty())
            rows->addWidget(label(tr("Nothing else comes out better or different."), "small", alternatives_));
        for (std::size_t i = 0; i < found_->size(); ++i) {
            const Alternative& a = (*found_)[i];
            QPushButton* take = button({}, nullptr, alternatives_);
            // What is too long for the tray is read on the drawing, while it is pointed at.
            take->setText(take->fontMetrics().elidedText(say(a.what), Qt::ElideRight, Theme::px(236)));
            take->setAccessibleName(say(a.what));
            take->setObjectName(QString("alternative %1").arg(i + 1));
            take->setProperty("way", static_cast<int>(i));
            take->installEventFilter(this);
            rows->addWidget(take);
            QLabel* figures = label(compared(a.figures, now), "small", alternatives_);
            figures->setWordWrap(true);
            rows->addWidget(figures);
            connect(take, &QPushButton::clicked, this, [this, job = a.job] {
                desk_.look_at(nullptr);
                desk_.apply(Job(job));
            });
        }
    }

    // Pointing at another way, or coming to it by keyboard, shows it on the drawing.
    bool eventFilter(QObject* watched, QEvent* event) override {
        const QVariant way = watched->property("way");
        if (way.isValid() && found_ && way.toInt() < static_cast<int>(found_->size())) {
            if (event->type() == QEvent::Enter || event->type() == QEvent::FocusIn)
                desk_.look_at(std::make_shared<const Alternative>((*found_)[static_cast<std::size_t>(way.toInt())]));
            if (event->type() == QEvent::Leave || event->type() == QEvent::FocusOut || event->type() == QEvent::Hide)
                desk_.look_at(nullptr);
        }
        return Tray::eventFilter(watched, event);
    }

    [[nodiscard]] QString words_of(const CutFigures& f) const {
        return tr("%1, %2, %3 of film, %4 by hand")
            .arg(f.sections == 1 ? tr("1 section") : tr("%1 sections").arg(f.sections),
                 f.loads == 1 ? tr("1 load") : tr("%1 loads").arg(f.loads), length(f.film),
                 text_of(show_minutes(f.hands_on)));
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
        if (f.crossed > now.crossed) parts << tr("%1 of ink crossed").arg(length(f.crossed - now.crossed));
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
                    desk_.show_evidence(std::make_shared<const Evidence>(all.begin()->second));
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
        if (!first.by_hand.empty())
            line(tr("On the drawing: each seam, and one bad try of your hands, dashed, eight times as far off as it "
                    "is."),
                 "small");
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
        force_ = field(tr("force"), new QSpinBox(widget()));
        force_->setAccessibleName(tr("force"));
        force_->setObjectName("force");
        force_->setRange(0, 2000);
        force_->setSuffix(tr(" g"));
        force_->setSpecialValueText(tr("as the machine is set"));
        test_ = button(tr("Test cut"), nullptr, widget());
        test_->setObjectName("test cut");
        test_->setToolTip(tr("A square with a triangle in it, in a corner of the film"));
        connect(test_, &QPushButton::clicked, this, [this] { send_load(true); });
        page_ = new QWidget(widget());
        auto* page = new QVBoxLayout(page_);
        page->setContentsMargins(0, 0, 0, 0);
        add_decision(page_);
        inside(page, [&] {
            printer_ = field(tr("where the printer listens"), new QLineEdit(page_));
            printer_->setAccessibleName(tr("address of the printer"));
            printer_->setObjectName("printer");
            printer_->setPlaceholderText("127.0.0.1:9101");
            print_ = button(tr("Print its page first"), nullptr, page_);
            print_->setObjectName("print");
            add_decision(print_);
        });
        connect(print_, &QPushButton::clicked, this, [this] { print_load(); });
        connect(load_, &QComboBox::activated, this, [this] { show_sending(); });
        for (const QString& check :
             {tr("the right blade is in"), tr("rollers where they belong"), tr("film side up, paper side down")}) {
            auto* tick = new Check(check, widget());
            tick->setObjectName(check);
            add_decision(tick);
            checks_.push_back(tick);
            connect(tick, &QCheckBox::toggled, this, [this] { show_sending(); });
        }
        add_decision(test_);
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
        progress_->setTextVisible(false);
        progress_->setAccessibleName(tr("share that is cut"));
        add_decision(progress_);
        outcome_ = label({}, "small", widget());
        outcome_->setObjectName("outcome");
        outcome_->setWordWrap(true);
        add_decision(outcome_);
        connect(send_, &QPushButton::clicked, this, [this] { send_load(false); });
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
            if (!force_->hasFocus() && !loads.empty()) force_->setValue(loads.front().machine.force);
            printed_.clear();
            for (const LoadToCut& l : loads) printed_.push_back(is_printed(desk_.plan().faces[l.face].making));
        }
        const auto chosen = static_cast<std::size_t>(std::max(0, load_->currentIndex()));
        page_->setVisible(chosen < printed_.size() && printed_[chosen]);
        print_->setEnabled(!printing_.busy());
        const bool checked = std::all_of(checks_.begin(), checks_.end(), [](const Check* c) { return c->isChecked(); });
        send_->setEnabled(checked && !sending_.busy() && load_->count() > 0);
        test_->setEnabled(checked && !sending_.busy() && load_->count() > 0);
        send_->setToolTip(checked ? QString() : tr("Tick what has been looked at first"));
        pause_->setEnabled(sending_.busy());
        stop_->setEnabled(sending_.busy());
        progress_->setVisible(sending_.busy());
    }

    void print_load() {
        const auto loads = loads_to_cut(desk_.job(), desk_.plan(), desk_.shop());
        const auto i = static_cast<std::size_t>(load_->currentIndex());
        if (i >= loads.size()) return;
        const auto to = read_address(printer_->text().trimmed().toStdString());
        if (!to) return outcome_->setText(tr("An address is a name and a port, as 127.0.0.1:9101."));
        auto page = print_page(desk_.job(), desk_.plan(), loads[i]);
        if (!page) return outcome_->setText(say(page.error().what) + ": " + say(page.error().remedy));
        outcome_->setText(tr("The page is being printed ..."));
        printing_.run(
            [to = *to, pdf = page->pdf](const std::stop_token& stop) { return print(pdf, to, stop); },
            [this, name = page->name](const Expected<std::string>& answer) {
                if (answer) {
                    outcome_->setText(tr("Printed. Let the ink dry, then lay the film on with its marks in sight."));
                } else {
                    const QString remedy =
                        answer.error().remedy.id.empty() ? QString() : ": " + say(answer.error().remedy);
                    outcome_->setText(say(answer.error().what) + remedy);
                }
                refresh();
            });
        show_sending();
    }

    void send_load(bool only_test) {
        const auto loads = loads_to_cut(desk_.job(), desk_.plan(), desk_.shop());
        const auto i = static_cast<std::size_t>(load_->currentIndex());
        if (i >= loads.size()) return;
        const LoadToCut& load = loads[i];
        // Each test stands beside the one before.
        int tests = 0;
        for (const CutRecord& r : desk_.cuts()) tests += r.what.empty() ? 1 : 0;
        const int which = tests % test_cuts_on(load.bed);
        auto hpgl = only_test ? Expected<std::string>(test_cut(which)) : hpgl_of(load);
        if (!hpgl) return outcome_->setText(say(hpgl.error().what));
        const auto to = read_address(address_->text().trimmed().toStdString());
        if (!to) return outcome_->setText(tr("An address is a name and a port, as 127.0.0.1:9100."));
        skarvel::Box reach{{0, 0}, {to_grid(Length::from_mm(25 + which * 22)), to_grid(1_in)}};
        if (!only_test) {
            reach = {};
            for (const OnMat& s : load.sections) reach = around(reach, s.laid.film.bounds());
        }
        CutOrder order;
        order.hpgl = *hpgl;
        order.across = from_grid(reach.high.x);
        order.along = from_grid(reach.high.y);
        order.force = force_->value();
        order.speed_mm_s = load.machine.knife.speed_mm_s;
        CutRecord record;
        record.job = desk_.job().title;
        record.what = only_test ? std::string() : load.load->name;
        record.machine = load.machine.name;
        record.film = desk_.plan().faces[load.face].making.film.name;
        record.force = order.force;
        record.speed_mm_s = order.speed_mm_s;
        const std::string step = load.step;
        stopping_ = std::stop_source();
        holding_ = std::make_shared<SendHold>();
        pause_->setChecked(false);
        progress_->setValue(0);
        outcome_->setText(tr("The cutter measures its material ..."));
        sending_.run(
            [order, to = *to, holding = holding_, stop = stopping_.get_token(), this](const std::stop_token& closing) {
                // Closing the window stops the knife as the button does.
                const std::stop_callback both(closing, [source = stopping_]() mutable { source.request_stop(); });
                return send(
                    order, to,
                    [this](double share) {
                        QMetaObject::invokeMethod(
                            this, [this, share] { show_progress(static_cast<int>(share * 100)); },
                            Qt::QueuedConnection);
                    },
                    *holding, stop);
            },
            [this, step, record](const Expected<CutResult>& result) { sent(step, record, result); });
        show_sending();
    }

    void show_progress(int percent) {
        progress_->setValue(percent);
        outcome_->setText(holding_->paused ? tr("Held: %1 % is cut.").arg(percent)
                                           : tr("The knife is at work: %1 % is cut.").arg(percent));
    }

    void sent(const std::string& step, CutRecord record, const Expected<CutResult>& result) {
        const bool test = record.what.empty();
        if (result) {
            record.outcome = result->outcome;
            record.seconds = result->seconds;
            desk_.record_cut(record);
        }
        if (!result) {
            const QString remedy = say(result.error().remedy);
            outcome_->setText(say(result.error().what) +
                              (result.error().remedy.id.empty() ? QString() : ": " + remedy));
        } else if (result->outcome == "good" && test) {
            outcome_->setText(tr("A good cut: through the film, and the paper is just marked."));
            // What came out well is what the machine is set to from now on.
            Shop shop = desk_.shop();
            for (Machine& m : shop.machines) {
                if (m.name == record.machine && record.force > 0) m.force = record.force;
            }
            desk_.set_shop(shop);
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
        desk_.show_evidence(nullptr);
        desk_.look_at(nullptr);
        seeking_.stop();
        proving_.stop();
    }

    // ---- what follows

    void follow() {
        begin_follows(tr("What follows"));
        if (plan() != nullptr) {
            const bool mask = making().way == Way::PaintThrough;
            const LoadsPlan& p = *plan()->loads;
            if (plan()->printed_with) {
                const Colour& with = desk_.face().colours[*plan()->printed_with];
                why(tr("Printed, cut and laid in one with %1: what is decided for that colour counts for this one.")
                        .arg(text_of(with.paint.colour_name.empty() ? with.paint.colour : with.paint.colour_name)));
            }
            fact(tr("sections"), QString::number(p.sections.size()));
            fact(tr("loads"), QString::number(p.loads.size()));
            fact(tr("film to cut"), length(p.film_total));
            fact(tr("share used"), QString("%1 %").arg(std::lround(p.share * 100)));
            film_worth();
            if (desk_.plan().loads_saved > 0) {
                fact(tr("loads of the whole job"),
                     QString::number(
                         figures_of(desk_.plan(), desk_.sign_at(), desk_.face_at(), desk_.colour_at()).loads));
            }
            if (p.passes > 1) fact(tr("passes"), QString::number(p.passes));
            if (mask) keepers(p);
            cost(p);
            problems("sections");
            misfits(p);
            spoilt();
            lost();
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

    // Of this film, over the whole job, where the drawer knows its price.
    void film_worth() {
        const std::string colour = plan()->making.way == Way::PaintThrough || is_printed(plan()->making)
                                       ? std::string()
                                       : desk_.face().colours[desk_.colour_at()].paint.colour;
        for (const FilmCost& film : desk_.plan().film) {
            if (film.film != plan()->making.film.id || film.colour != colour || !film.worth_cents) continue;
            fact(tr("worth, for the whole job"), text_of(money(*film.worth_cents)));
        }
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
            if (!load.booked && load.carried_by.empty()) {
                QString words = load.from.empty() ? tr("Book its film: %1 off the roll").arg(length(load.film_length))
                                                  : tr("Book its film: %1 is used").arg(text_of(load.from));
                if (load.rest) words += tr(", keep %1 × %2").arg(length(load.rest->across), length(load.rest->along));
                offer(words, [this, i] { desk_.book(i); })->setObjectName(QString("book %1").arg(i + 1));
            }
            for (std::size_t k = 0; k < load.sections.size(); ++k) {
                const QString letters = text_of(load.sections[k].letters);
                offer(tr("%1 is spoilt: cut it again").arg(letters), [this, i, k] {
                    desk_.apply(cut_section_again(desk_.job(), i, k));
                })->setObjectName("spoilt " + letters);
            }
        }
    }

    // Film that is lost, and what of it is not yet taken from the drawer.
    void lost() {
        const BenchRecord& bench = desk_.job().bench;
        const Length film = spoilt_film(bench);
        if (film > Length{}) fact(tr("film spoilt, of the whole job"), length(film));
        for (std::size_t i = 0; i < bench.spoilt.size(); ++i) {
            const CutLoad& load = bench.spoilt[i];
            if (load.booked || !load.carried_by.empty()) continue;
            offer(tr("Book the spoilt film: %1 off the roll").arg(length(load.film_length)), [this, i] {
                desk_.book_spoilt(i);
            })->setObjectName(QString("book spoilt %1").arg(i + 1));
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
    QWidget *alternatives_ = nullptr, *evidence_ = nullptr, *division_ = nullptr, *seam_row_ = nullptr;
    MeasureField* seam_ = nullptr;
    QLabel* seam_title_ = nullptr;
    Check *whole_ = nullptr, *slant_ = nullptr;
    QLineEdit *address_ = nullptr, *printer_ = nullptr;
    QWidget* page_ = nullptr;
    QSpinBox* force_ = nullptr;
    QPushButton *test_ = nullptr, *print_ = nullptr;
    std::vector<bool> printed_;  // of the loads listed
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
    Errand<Expected<std::string>> printing_;
};

}  // namespace

Tray* make_sections_tray(Desk& desk, QWidget* parent) { return new SectionsTray(desk, parent); }

}  // namespace skarvel
