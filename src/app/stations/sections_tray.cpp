// What Sections lets the maker decide: how the colour is made, what it is cut on, and where it is divided.
#include <QCheckBox>
#include <QHBoxLayout>
#include <QPushButton>
#include <map>
#include <set>
#include <utility>

#include "job/wish_commands.h"
#include "sections/keepers.h"
#include "stations/cutting_parts.h"
#include "stations/form.h"
#include "text/numbering.h"
#include "theme/theme.h"
#include "theme/words.h"

namespace skarvel {
namespace {

using MakingForm = Form<Making>;

class SectionsTray : public Tray {
  public:
    SectionsTray(Desk& desk, QWidget* parent)
        : Tray(Station::Sections, desk, parent),
          form_(
              *this, [this] { return &desk_.colour().making; },
              [this](const MakingForm::Change& change, const QString& merge) {
                  edit_face([&](Face& f) { change(f.colours[desk_.colour_at()].making); }, merge);
              }) {
        add_colour_choice();
        title(in_words("word.how-it-is-made"));
        build_making();
        gap();
        title(in_words("sections-tray.how-it-is-cut"));
        bed_ = field(in_words("sections-tray.cut-on"), new Choice(in_words("sections-tray.cut-on"), this));
        connect(bed_, &QComboBox::activated, this, [this] {
            form_.change([&](Making& m) { lens(&Making::bed).put(m, bed_->currentData().toString().toStdString()); });
        });
        gap();
        title(in_words("sections-tray.where-it-is-divided"));
        build_division();
        group(in_words("sections-tray.other-ways-to-cut"), [this] { add_part<OtherWays>(); });
        group(in_words("sections-tray.does-it-go-together"), [this] { add_part<ProofPart>(); });
        group(in_words("sections-tray.send-to-the-cutter"), [this] { add_part<SendingPart>(); });
    }

    void refresh() override {
        show_colour_choice();
        form_.refresh();
        show_beds();
        show_division();
        refresh_parts();
        follow();
    }

  private:
    [[nodiscard]] const Making& making() const { return face().colours[desk_.colour_at()].making; }

    void build_making() {
        auto* way = new Segmented(in_words("sections-tray.how-it-is-made"),
                                  {in_words("word.decal"), in_words("word.paint-through")}, this);
        add_decision(way);
        connect(way, &Segmented::chosen, this, [this](int i) {
            form_.change([&](Making& m) { make_as(m, static_cast<Way>(i), desk_.library().trade); });
        });
        form_.on_refresh([way](const Making& m) { way->show_choice(static_cast<int>(m.way)); });
        const Trade& trade = desk_.library().trade;
        MakingForm::Ids films;
        for (const Film& f : trade.films) films.emplace_back(f.id, text_of(f.name));
        form_.choice(in_words("word.film"), films, lens(&Making::film));
        const auto mask = [](const Making& m) { return m.way == Way::PaintThrough; };
        MakingForm::Ids tools;
        for (const Tool& t : trade.tools)
            tools.emplace_back(t.id,
                               text_of(t.name) + in_words("sections-tray.margin", {{"margin", length(t.margin)}}));
        form_.choice(in_words("sections-tray.painted-with"), tools, lens(&Making::tool), mask);
        form_.measure(
            in_words("sections-tray.mask-margin"), lens(&Making::margin),
            [this] {
                return plan() == nullptr || making().way != Way::PaintThrough
                           ? QString()
                           : in_words("sections-tray.by-the-tool", {{"margin", length(plan()->cut.making.margin)}});
            },
            mask);
        auto* ties = form_.measure(
            in_words("sections-tray.keepers-held-by-ties"), lens(&Making::tie),
            [this] {
                return plan() != nullptr && plan()->cut.making.tie > Length{}
                           ? in_words("sections-tray.as-the-film-asks", {{"tie", length(plan()->cut.making.tie)}})
                           : in_words("sections-tray.keepers-stay-loose");
            },
            mask);
        ties->edit()->setAccessibleName(in_words("sections-tray.ties"));
        ties->edit()->setObjectName(in_words("sections-tray.ties"));
        auto* lap = form_.measure(in_words("sections-tray.lap-where-sections-meet"), lens(&Making::lap));
        lap->edit()->setAccessibleName(in_words("sections-tray.lap"));
        lap->edit()->setObjectName(in_words("sections-tray.lap"));
    }

    void show_beds() {
        const QSignalBlocker quiet(bed_);
        bed_->clear();
        // What is printed goes on a page of its own accord.
        const Mat& usual = plan() != nullptr && making().bed.empty() ? plan()->cut.bed : desk_.shop().mat;
        bed_->addItem(in_words("sections-tray.the-usual", {{"name", text_of(usual.name)}}), QString());
        for (const Mat& bed : beds_of(desk_.shop().machines))
            bed_->addItem(
                in_words("sections-tray.bed", {{"machine", text_of(bed.machine)}, {"name", text_of(bed.name)}}),
                text_of(bed_name(bed)));
        bed_->show_data(text_of(making().bed));
    }

    // ---- the maker's wishes

    void build_division() {
        seam_row_ = new QWidget(this);
        auto* seam_rows = new QVBoxLayout(seam_row_);
        seam_rows->setContentsMargins(0, 0, 0, 0);
        add_decision(seam_row_);
        seam_title_ = label({}, Role::Plain, seam_row_);
        seam_rows->addWidget(seam_title_);
        seam_ = new MeasureField(desk_, in_words("sections-tray.seam"), seam_row_);
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
        const auto mask = [](const Making& m) { return m.way == Way::PaintThrough; };
        form_.tick(in_words("sections-tray.every-mask-keeps-its"), lens(&Making::wishes, &Wishes::whole_margins), mask);
        form_.tick(in_words("sections-tray.long-sections-may-lie"), lens(&Making::wishes, &Wishes::any_angle));
        form_.tick(in_words("sections-tray.short-films-rather"), lens(&Making::wishes, &Wishes::laid_soonest));
        form_.tick(in_words("sections-tray.masks-laid-again"), lens(&Making::wishes, &Wishes::masks_again),
                   [this, mask](const Making& m) {
                       return mask(m) &&
                              (m.wishes.masks_again || (plan() != nullptr && plan()->cut.loads->had_before > 0));
                   });
        // What the shop does always is no decision here.
        const auto part_words = lens(&Making::wishes, &Wishes::part_words);
        Check* parted = form_.tick_of(
            in_words("sections-tray.words-may-be-parted"),
            [this](const Making& m) { return m.wishes.part_words || desk_.shop().part_words; },
            [part_words](Making& m, bool on) { part_words.put(m, on); });
        form_.on_refresh([this, parted](const Making&) { parted->setEnabled(!desk_.shop().part_words); });
    }

    [[nodiscard]] ColourAt colour_now() const { return {desk_.at(), desk_.colour_at()}; }

    QPushButton* division_offer(const QString& text, const std::function<Job()>& take) {
        QPushButton* made = button(text, Role::Plain, division_);
        division_->layout()->addWidget(made);
        connect(made, &QPushButton::clicked, this, [this, take] { desk_.apply(take()); });
        return made;
    }

    void show_division() {
        TrayPart::clear(division_);
        const auto words = [&](const QString& text, Role role) {
            QLabel* made = label(text, role, division_);
            made->setWordWrap(true);
            division_->layout()->addWidget(made);
        };
        const auto seam = desk_.seam_at();
        const std::vector<PieceName> picked = desk_.picked().pieces;
        seam_row_->setVisible(seam.has_value());
        if (seam && plan() != nullptr) {
            const Seam& s = plan()->cut.loads->seams[*seam];
            seam_title_->setText(
                in_words("sections-tray.seam-from-the",
                         {{"letter", text_of(letter_for(*seam))},
                          {"edge", s.axis == Axis::Y ? in_words("sections-tray.bottom") : in_words("word.left")}}));
            words(say(s.why) + ".", Role::Small);
            seam_->show_value(measure_of(place_of(*plan(), s), desk_.shop().display));
            division_offer(in_words("sections-tray.no-seam-here"), [this, i = *seam] {
                return desk_.current() ? forbid_seam(desk_.job(), colour_now(), *plan(), i, desk_.shop().display)
                                       : desk_.job();
            });
            if (const auto wish = wish_for(desk_.job(), colour_now(), *plan(), s)) {
                division_offer(in_words("sections-tray.let-this-seam-be"),
                               [this, w = *wish] { return free_seam(desk_.job(), colour_now(), w); });
            }
        } else if (!picked.empty()) {
            QStringList names;
            for (const PieceName& n : picked) names << text_of(n.letters.empty() ? "mark" : n.letters);
            words(in_words("sections-tray.picked", {{"names", names.join(", ")}}), Role::Plain);
            if (picked.size() > 1) {
                division_offer(in_words("sections-tray.cut-these-as-one"),
                               [this, picked] { return bind_pieces(desk_.job(), colour_now(), picked); });
            } else {
                words(in_words("sections-tray.shift-and-click-adds"), Role::Small);
            }
            division_offer(picked.size() > 1 ? in_words("sections-tray.each-in-a-section")
                                             : in_words("sections-tray.in-a-section-of"),
                           [this, picked] { return set_apart(desk_.job(), colour_now(), picked); });
            offer_spoilt(picked);
            if (free_pieces(desk_.job(), colour_now(), picked) != desk_.job()) {
                division_offer(in_words("sections-tray.let-it-be-found"),
                               [this, picked] { return free_pieces(desk_.job(), colour_now(), picked); });
            }
        } else if (const auto place = desk_.picked().place; place && plan() != nullptr) {
            show_place(*place, words);
        } else {
            words(in_words("sections-tray.drag-a-seam-or"), Role::Small);
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
                const QString words =
                    alone ? in_words("sections-tray.is-spoilt-cut-it", {{"letters", text_of(piece.letters)}})
                          : in_words("sections-tray.it-is-spoilt-cut",
                                     {{"letters", text_of(cut[i].sections[k].letters)}});
                division_offer(words, [this, i, k, n] {
                    return cut_letter_again(desk_.job(), i, k, n);
                })->setObjectName("spoilt letter");
                return;
            }
        }
    }

    // A place where there is neither ink nor seam.
    void show_place(Point place, const std::function<void(const QString&, Role)>& words) {
        const Point low = plan()->face->blank->face.low;
        words(in_words("sections-tray.here-from-the-left",
                       {{"left", length(from_grid(place.x - low.x))}, {"bottom", length(from_grid(place.y - low.y))}}),
              Role::Plain);
        const auto offer = [&](const QString& text, Axis axis, bool wanted) {
            division_offer(text, [this, place, axis, wanted] {
                if (!desk_.current() || plan() == nullptr) return desk_.job();
                const auto command = wanted ? want_seam : forbid_seams_at;
                return command(desk_.job(), colour_now(), *plan(), axis, along(axis, place), desk_.shop().display);
            });
        };
        offer(in_words("sections-tray.a-level-seam-here"), Axis::Y, true);
        offer(in_words("sections-tray.an-upright-seam-here"), Axis::X, true);
        offer(in_words("sections-tray.no-level-seam-here"), Axis::Y, false);
        offer(in_words("sections-tray.no-upright-seam-here"), Axis::X, false);
    }

    // What is wished, in words, with a way back.
    void show_wishes(const std::function<void(const QString&, Role)>& words) {
        const Wishes& w = making().wishes;
        const auto spelt = [](const std::vector<PieceName>& names) {
            QStringList all;
            for (const PieceName& n : names) all << text_of(n.letters.empty() ? "mark" : n.letters);
            return all.join(", ");
        };
        for (const auto& group : w.bound)
            words(in_words("sections-tray.as-one", {{"pieces", spelt(group)}}), Role::Small);
        if (!w.apart.empty()) words(in_words("sections-tray.by-itself", {{"pieces", spelt(w.apart)}}), Role::Small);
        for (std::size_t i = 0; i < w.seams.size(); ++i) {
            const SeamWish& s = w.seams[i];
            const QString edge =
                s.axis == Axis::Y ? in_words("sections-tray.from-the-bottom") : in_words("sections-tray.from-the-left");
            const QString at = length(s.at.value);
            auto* row = new QWidget(division_);
            auto* cells = new QHBoxLayout(row);
            cells->setContentsMargins(0, 0, 0, 0);
            QLabel* what = label(s.never ? in_words("sections-tray.no-seam-near", {{"at", at}, {"edge", edge}})
                                         : in_words("sections-tray.seam-at", {{"at", at}, {"edge", edge}}),
                                 Role::Small, row);
            what->setWordWrap(true);
            cells->addWidget(what, 1);
            QPushButton* back = button(in_words("sections-tray.take-back"), Role::Plain, row);
            back->setObjectName(QString("wish %1").arg(i + 1));
            back->setAccessibleName(in_words("sections-tray.take-back-with-what", {{"what", what->text()}}));
            cells->addWidget(back);
            division_->layout()->addWidget(row);
            connect(back, &QPushButton::clicked, this,
                    [this, i] { desk_.apply(free_seam(desk_.job(), colour_now(), i)); });
        }
        if (w.copies > 0) words(in_words("sections-tray.of-what-repeats-cut", {{"copies", w.copies}}), Role::Small);
        if (w.any()) {
            division_offer(in_words("sections-tray.everything-as-found"), [this] {
                return forget_wishes(desk_.job(), colour_now());
            })->setObjectName("everything as found");
        }
    }

    // What the wishes cost against what was found.
    void cost(const CutPlan& p) {
        if (!p.without_wishes) return;
        const AsFound now = as_found(*p.loads);
        const AsFound& was = *p.without_wishes;
        QStringList parts;
        const auto count = [&](int by, const char* more, const char* fewer) {
            if (by != 0) parts << in_words(by > 0 ? more : fewer, {{"by", std::abs(by)}});
        };
        count(static_cast<int>(now.loads) - static_cast<int>(was.loads), "other-ways.more-loads",
              "other-ways.fewer-loads");
        count(static_cast<int>(now.sections) - static_cast<int>(was.sections), "other-ways.more-sections",
              "other-ways.fewer-sections");
        count(now.crossings - was.crossings, "other-ways.more-crossings", "other-ways.fewer-crossings");
        count(now.passes - was.passes, "other-ways.more-passes", "other-ways.fewer-passes");
        if (now.film != was.film)
            parts << (now.film > was.film
                          ? in_words("sections-tray.of-film-more", {{"film", length(now.film - was.film)}})
                          : in_words("sections-tray.of-film-less", {{"film", length(was.film - now.film)}}));
        if (now.crossed > was.crossed)
            parts << in_words("sections-tray.of-ink-crossed", {{"crossed", length(now.crossed - was.crossed)}});
        heading(in_words("sections-tray.what-your-wishes-cost"));
        if (parts.isEmpty()) {
            good(in_words("sections-tray.nothing-against-what-was"));
        } else {
            why(parts.join(", ") + ".");
        }
    }

    // ---- what follows

    void follow() {
        begin_follows(in_words("word.what-follows"));
        if (plan() != nullptr) {
            const bool mask = making().way == Way::PaintThrough;
            const LoadsPlan& p = *plan()->cut.loads;
            if (plan()->cut.printed_with) {
                const Colour& with = desk_.face().colours[place_of(desk_.face(), *plan()->cut.printed_with)];
                why(in_words("sections-tray.printed-cut-and-laid",
                             {{"colour_name",
                               text_of(with.paint.colour_name.empty() ? with.paint.colour : with.paint.colour_name)}}));
            }
            fact(in_words("word.sections"), QString::number(p.sections.size()));
            fact(in_words("word.loads"), QString::number(p.loads.size()));
            fact(in_words("sections-tray.film-to-cut"), length(p.film_total));
            fact(in_words("sections-tray.share-used"), QString("%1 %").arg(std::lround(p.share * 100)));
            lent(p);
            rolls();
            film_worth();
            if (desk_.plan().loads_saved > 0) {
                fact(in_words("sections-tray.loads-of-the-whole"),
                     QString::number(figures_of(desk_.plan(), desk_.colour().id).loads));
            }
            if (p.passes > 1) fact(in_words("sections-tray.passes"), QString::number(p.passes));
            if (mask) keepers(p);
            cost(plan()->cut);
            problems();
            misfits(p);
            spoilt();
            lost();
            heading(p.loads.size() == 1 ? in_words("sections-tray.why-one-load")
                                        : in_words("sections-tray.why-loads", {{"loads", p.loads.size()}}));
            for (const Reason& reason : p.why) {
                if (reason.id.ends_with("proved")) {
                    good(say(reason));
                } else {
                    why(say(reason));
                }
            }
            std::set<std::string> seams;
            for (const Seam& s : p.seams) {
                if (seams.insert(s.why.id).second) why(in_words("sections-tray.seams") + say(s.why) + ".");
            }
        }
        end_follows();
    }

    // Masks of other signs that are laid again here.
    void lent(const LoadsPlan& p) {
        std::map<std::string, int> signs;
        for (const Lent& l : p.lent) {
            if (const ColourPlan* from = desk_.plan().of(l.of))
                ++signs[label_of(desk_.job().signs[from->face->at.sign])];
        }
        QStringList names;
        for (const auto& [sign, masks] : signs)
            names << in_words("sections-tray.masks-of", {{"masks", masks}, {"sign", text_of(sign)}});
        if (!names.isEmpty()) fact(in_words("sections-tray.laid-again"), names.join(", "));
    }

    // Which roll of the drawer it is cut from, or that one has to be bought.
    void rolls() {
        QStringList names;
        bool bought = false;
        for (const FilmFrom& from : plan()->cut.film) {
            bought = bought || from.bought;
            if (!from.roll.empty() && !names.contains(text_of(from.roll))) names << text_of(from.roll);
        }
        if (bought) names << in_words("sections-tray.a-roll-to-buy");
        if (!names.isEmpty()) fact(in_words("sections-tray.cut-from"), names.join(", "));
    }

    // Of this film, over the whole job, where the drawer knows its price.
    void film_worth() {
        const std::string colour = plan()->cut.making.way == Way::PaintThrough || is_printed(plan()->cut.making)
                                       ? std::string()
                                       : desk_.face().colours[desk_.colour_at()].paint.colour;
        for (const FilmCost& film : desk_.plan().film) {
            if (film.film != plan()->cut.making.film.id || film.colour != colour || !film.worth_cents) continue;
            fact(in_words("sections-tray.worth-for-the-whole"), text_of(money(*film.worth_cents)));
        }
    }

    void keepers(const LoadsPlan& p) {
        std::size_t ties = 0;
        for (const Section& s : p.sections) ties += s.ties.size();
        fact(in_words("word.keepers"), QString::number(p.keepers));
        if (ties > 0) fact(in_words("sections-tray.ties"), QString::number(ties));
        QStringList names;
        for (const Reason& row : keepers_told(p.sections)) names << say(row);
        if (!names.isEmpty()) why(in_words("sections-tray.leave-in-while-weeding", {{"names", names.join("; ")}}));
    }

    // What is cut of this colour, section by section: a spoilt one is cut again alone.
    void spoilt() {
        const ColourId& of = desk_.colour().id;
        bool first = true;
        for (std::size_t i = 0; i < desk_.job().bench.cut.size(); ++i) {
            const CutLoad& load = desk_.job().bench.cut[i];
            if (load.of != of) continue;
            if (std::exchange(first, false)) heading(in_words("sections-tray.cut-and-spoilt"));
            if (!load.booked && load.carried_by.empty()) {
                QString words =
                    load.from.empty()
                        ? in_words("sections-tray.book-its-film-off", {{"film_length", length(load.film_length)}})
                        : in_words("sections-tray.book-its-film-is", {{"from", text_of(leftovers_of(load))}});
                if (load.rest)
                    words += in_words("sections-tray.keep",
                                      {{"across", length(load.rest->across)}, {"along", length(load.rest->along)}});
                offer(words, [this, i] { desk_.book(i); })->setObjectName(QString("book %1").arg(i + 1));
            }
            for (std::size_t k = 0; k < load.sections.size(); ++k) {
                const QString letters = text_of(load.sections[k].letters);
                offer(in_words("sections-tray.is-spoilt-cut-it", {{"letters", letters}}), [this, i, k] {
                    desk_.apply(cut_section_again(desk_.job(), i, k));
                })->setObjectName("spoilt " + letters);
            }
        }
    }

    // Film that is lost, and what of it is not yet taken from the drawer.
    void lost() {
        const BenchRecord& bench = desk_.job().bench;
        const Length film = spoilt_film(bench);
        if (film > Length{}) fact(in_words("sections-tray.film-spoilt-of-the"), length(film));
        for (std::size_t i = 0; i < bench.spoilt.size(); ++i) {
            const CutLoad& load = bench.spoilt[i];
            if (load.booked || !load.carried_by.empty()) continue;
            offer(in_words("sections-tray.book-the-spoilt-film", {{"film_length", length(load.film_length)}}), [this,
                                                                                                                i] {
                desk_.book_spoilt(i);
            })->setObjectName(QString("book spoilt %1").arg(i + 1));
        }
    }

    void misfits(const LoadsPlan& p) {
        std::set<std::size_t> asked;
        for (const Misfit& misfit : p.misfits) {
            if (misfit.kept || !asked.insert(misfit.cut_load).second) continue;
            offer(in_words("sections-tray.keep-what-is-cut", {{"letters", text_of(misfit.letters)}}),
                  [this, i = misfit.cut_load] { desk_.apply(keep_cut(desk_.job(), i)); });
            offer(in_words("sections-tray.cut-again", {{"letters", text_of(misfit.letters)}}),
                  [this, i = misfit.cut_load] { desk_.apply(cut_again(desk_.job(), i)); });
        }
    }

    MakingForm form_;
    Choice* bed_ = nullptr;
    QWidget *division_ = nullptr, *seam_row_ = nullptr;
    MeasureField* seam_ = nullptr;
    QLabel* seam_title_ = nullptr;
};

}  // namespace

Tray* make_sections_tray(Desk& desk, QWidget* parent) { return new SectionsTray(desk, parent); }

}  // namespace skarvel
