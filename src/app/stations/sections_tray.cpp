// What Sections lets the maker decide: how the colour is made, what it is cut on, and where it is divided.
#include <QCheckBox>
#include <QHBoxLayout>
#include <QPushButton>
#include <set>
#include <utility>

#include "job/wish_commands.h"
#include "stations/cutting_parts.h"
#include "stations/tray.h"
#include "text/numbering.h"
#include "theme/theme.h"

namespace skarvel {
namespace {

class SectionsTray : public Tray {
  public:
    SectionsTray(Desk& desk, QWidget* parent) : Tray(desk, parent) {
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
        group(tr("Other ways to cut it"), [this] { add_part<OtherWays>(); });
        group(tr("Does it go together"), [this] { add_part<ProofPart>(); });
        group(tr("Send to the cutter"), [this] { add_part<SendingPart>(); });
    }

    void refresh() override {
        show_colour_choice();
        const Making& m = making();
        const bool mask = m.way == Way::PaintThrough;
        way_->show_choice(mask ? 1 : 0);
        film_->show_data(text_of(m.film));
        tool_->show_data(text_of(m.tool));
        of_masks_->setVisible(mask);
        margin_->show_value(m.margin, plan() != nullptr && mask
                                          ? tr("%1, by the tool").arg(length(plan()->cut.making.margin))
                                          : QString());
        lap_->show_value(m.lap);
        tie_->show_value(m.tie, plan() != nullptr && mask && plan()->cut.making.tie > Length{}
                                    ? tr("%1, as the film asks").arg(length(plan()->cut.making.tie))
                                    : tr("keepers stay loose"));
        show_beds();
        show_division();
        for (TrayPart* part : parts_) part->refresh();
        follow();
    }

  private:
    template <class Part>
    void add_part() {
        auto* part = new Part(desk_, widget());
        parts_.push_back(part);
        add_decision(part);
    }

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
        of_masks_ = new QWidget(this);
        auto* rows = new QVBoxLayout(of_masks_);
        rows->setContentsMargins(0, 0, 0, 0);
        rows->setSpacing(4);
        add_decision(of_masks_);
        inside(rows, [this] {
            tool_ = field(tr("painted with"), new Choice(tr("painted with"), this));
            for (const Tool& t : desk_.library().trade.tools)
                tool_->addItem(text_of(t.name) + tr(": margin %1").arg(length(t.margin)), text_of(t.id));
            connect(tool_, &QComboBox::activated, this, [this] {
                edit_making([&](Making& m) { m.tool = tool_->currentData().toString().toStdString(); });
            });
            margin_ = optional_measure(tr("mask margin"), tr("mask margin"), &Making::margin);
            tie_ = optional_measure(tr("keepers held by ties this wide"), tr("ties"), &Making::tie);
        });
        lap_ = field(tr("lap where sections meet"), new MeasureField(desk_, tr("lap"), this));
        connect(lap_, &MeasureField::decided, this,
                [this](const Measure& v) { edit_making([&](Making& m) { m.lap = v; }); });
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
        const Mat& usual = plan() != nullptr && making().bed.empty() ? plan()->cut.bed : desk_.shop().mat;
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
            Seam there = plan()->cut.loads->seams[*seam];
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
        TrayPart::clear(division_);
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
            const Seam& s = plan()->cut.loads->seams[*seam];
            seam_title_->setText(tr("Seam %1, from the %2")
                                     .arg(text_of(letter_for(*seam)))
                                     .arg(s.axis == Axis::Y ? tr("bottom") : tr("left")));
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
            offer_spoilt(picked);
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

    // One letter that is cut may be spoilt: of a decal it is cut again by itself, of a mask with its section.
    void offer_spoilt(const std::vector<PieceName>& picked) {
        if (picked.size() != 1 || plan() == nullptr) return;
        const std::vector<Piece>& pieces = *plan()->cut.pieces;
        const std::vector<PieceName> names = names_of(pieces);
        const auto at = std::find(names.begin(), names.end(), picked.front());
        if (at == names.end()) return;
        const Piece& piece = pieces[static_cast<std::size_t>(at - names.begin())];
        const ColourId& of = desk_.colour().id;
        const std::vector<CutLoad>& cut = desk_.job().bench.cut;
        for (std::size_t i = 0; i < cut.size(); ++i) {
            for (std::size_t k = 0; cut[i].of == of && k < cut[i].sections.size(); ++k) {
                const std::vector<Piece>& on_it = cut[i].sections[k].pieces;
                const auto found = std::find(on_it.begin(), on_it.end(), piece);
                if (found == on_it.end()) continue;
                const auto n = static_cast<std::size_t>(found - on_it.begin());
                const bool alone =
                    cut_letter_again(desk_.job(), i, k, n).bench.spoilt.back().sections.front().letters ==
                    piece.letters;
                const QString words = alone ? tr("%1 is spoilt: cut it again").arg(text_of(piece.letters))
                                            : tr("It is spoilt: cut %1 again").arg(text_of(cut[i].sections[k].letters));
                division_offer(words, [this, i, k, n] {
                    return cut_letter_again(desk_.job(), i, k, n);
                })->setObjectName("spoilt letter");
                return;
            }
        }
    }

    // A place where there is neither ink nor seam.
    void show_place(Point place, const std::function<void(const QString&, const char*)>& words) {
        const Point low = plan()->face->blank->face.low;
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

    // ---- what follows

    void follow() {
        begin_follows(tr("What follows"));
        if (plan() != nullptr) {
            const bool mask = making().way == Way::PaintThrough;
            const LoadsPlan& p = *plan()->cut.loads;
            if (plan()->cut.printed_with) {
                const Colour& with = desk_.face().colours[place_of(desk_.face(), *plan()->cut.printed_with)];
                why(tr("Printed, cut and laid in one with %1: what is decided for that colour counts for this one.")
                        .arg(text_of(with.paint.colour_name.empty() ? with.paint.colour : with.paint.colour_name)));
            }
            fact(tr("sections"), QString::number(p.sections.size()));
            fact(tr("loads"), QString::number(p.loads.size()));
            fact(tr("film to cut"), length(p.film_total));
            fact(tr("share used"), QString("%1 %").arg(std::lround(p.share * 100)));
            film_worth();
            if (desk_.plan().loads_saved > 0) {
                fact(tr("loads of the whole job"), QString::number(figures_of(desk_.plan(), desk_.colour().id).loads));
            }
            if (p.passes > 1) fact(tr("passes"), QString::number(p.passes));
            if (mask) keepers(p);
            cost(p);
            problems(Station::Sections);
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
        const std::string colour = plan()->cut.making.way == Way::PaintThrough || is_printed(plan()->cut.making)
                                       ? std::string()
                                       : desk_.face().colours[desk_.colour_at()].paint.colour;
        for (const FilmCost& film : desk_.plan().film) {
            if (film.film != plan()->cut.making.film.id || film.colour != colour || !film.worth_cents) continue;
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
        const ColourId& of = desk_.colour().id;
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
    Choice *film_ = nullptr, *tool_ = nullptr, *bed_ = nullptr;
    MeasureField *margin_ = nullptr, *lap_ = nullptr, *tie_ = nullptr;
    QWidget *of_masks_ = nullptr, *division_ = nullptr, *seam_row_ = nullptr;
    MeasureField* seam_ = nullptr;
    QLabel* seam_title_ = nullptr;
    Check *whole_ = nullptr, *slant_ = nullptr;
    std::vector<TrayPart*> parts_;
};

}  // namespace

Tray* make_sections_tray(Desk& desk, QWidget* parent) { return new SectionsTray(desk, parent); }

}  // namespace skarvel
