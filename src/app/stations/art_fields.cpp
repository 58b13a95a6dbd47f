#include "stations/art_fields.h"

#include "job/drawing_commands.h"
#include "job/text_commands.h"
#include "stations/lettering_parts.h"
#include "theme/words.h"

namespace skarvel {
namespace {

template <class Kind, class V>
auto its(V Kind::*member) {
    return lens(&Art::kind, As<Kind>{}, member);
}

template <class Kind>
ArtForm::When is() {
    return [](const Art& art) { return std::holds_alternative<Kind>(art.kind); };
}

void border(ArtForm& f) {
    f.measure(in_words("art-tray.inside-the-edge-by"), its(&Border::inset));
    f.measure(in_words("art-tray.thickness-of-the-line"), its(&Border::thickness));
    const auto corner = its(&Border::corner);
    f.segmented(
        in_words("art-tray.corners"),
        {in_words("art-tray.square"), in_words("word.round"), in_words("art-tray.notched")},
        [corner](const Art& a) { return corner.in(a) == nullptr ? 0 : static_cast<int>(*corner.in(a)); },
        [corner](Art& a, int i) { corner.put(a, static_cast<Corner>(i)); });
    f.measure(in_words("art-tray.size-of-the-corners"), its(&Border::corner_size));
    f.tick(in_words("art-tray.a-second-line-inside"), its(&Border::twice));
}

void corner_pieces(ArtForm& f) {
    f.measure(in_words("art-tray.inside-the-edge-by"), its(&Corners::inset));
    f.measure(in_words("word.size"), its(&Corners::size));
    f.measure(in_words("art-tray.thickness-of-the-line"), its(&Corners::thickness));
    f.choice(in_words("art-tray.drawn-as"),
             {in_words("art-tray.an-angle"), in_words("art-tray.steps"), in_words("art-tray.a-fan")},
             its(&Corners::style));
}

void ruled_line(ArtForm& f) {
    f.measure_or_none(in_words("word.length"), its(&RuledLine::length), in_words("art-tray.the-usable-width"));
    f.measure(in_words("word.thickness"), its(&RuledLine::thickness));
    f.choice(in_words("art-tray.its-ends"),
             {in_words("art-tray.plain"), in_words("word.pointed"), in_words("art-tray.with-dots")},
             its(&RuledLine::ends));
}

void ribbon(ArtForm& f) {
    f.measure_or_none(in_words("word.length"), its(&Banner::length), in_words("art-tray.the-usable-width"));
    f.measure(in_words("art-tray.height-of-the-band"), its(&Banner::height));
    f.measure(in_words("art-tray.length-of-the-tails"), its(&Banner::tails));
}

void shape(ArtForm& f) {
    f.choice(in_words("art-tray.shape"),
             {in_words("word.rectangle"), in_words("art-tray.oval"), in_words("art-tray.diamond"),
              in_words("art-tray.star"), in_words("art-tray.heart"), in_words("art-tray.pennant")},
             its(&Figure::shape));
    f.measure(in_words("art-tray.width"), its(&Figure::width));
    f.measure(in_words("art-tray.height"), its(&Figure::height));
    f.measure_or_none(in_words("art-tray.only-its-outline-this"), its(&Figure::line), in_words("art-tray.filled"));
}

void height_ruler(ArtForm& f) {
    f.measure(in_words("art-tray.lower-edge-above-the"), its(&HeightRuler::above_floor));
    f.tick(in_words("art-tray.in-centimetres"), its(&HeightRuler::metric));
    f.tick(in_words("art-tray.marks-start-at-the"), its(&HeightRuler::right));
    f.measure(in_words("art-tray.long-marks"), its(&HeightRuler::long_mark));
    f.measure(in_words("art-tray.middle-marks"), its(&HeightRuler::middle_mark));
    f.measure(in_words("art-tray.short-marks"), its(&HeightRuler::short_mark));
    f.measure(in_words("art-tray.thickness-of-the-marks"), its(&HeightRuler::thickness));
    f.tick(in_words("art-tray.numbers-at-the-long"), its(&HeightRuler::numbers));
    f.measure(in_words("art-tray.height-of-the-numbers"), its(&HeightRuler::number_height));
    f.typeface(in_words("word.typeface"), in_words("art-tray.typeface-of-the-numbers"), its(&HeightRuler::typeface));
}

void month_board(ArtForm& f) {
    const auto board = lens(&Art::kind, As<MonthBoard>{});
    f.line(
        in_words("art-tray.title"),
        [board](const Art& a) { return board.in(a) == nullptr ? QString() : text_of(board.in(a)->title); },
        [](Art& a, const std::string& words) { its(&MonthBoard::title).put(a, words); });
    f.line(
        in_words("art-tray.day-names-with-spaces"),
        [board](const Art& a) {
            QStringList all;
            if (const MonthBoard* m = board.in(a)) {
                for (const std::string& day : m->days) all << text_of(day);
            }
            return all.join(' ');
        },
        [board](Art& a, const std::string& words) {
            if (MonthBoard* m = board.in(a)) name_days(*m, words);
        });
    f.typeface(in_words("word.typeface"), in_words("art-tray.typeface-of-the-numbers"), its(&MonthBoard::typeface));
    f.measure(in_words("art-tray.height-of-the-title"), its(&MonthBoard::title_height));
    f.measure(in_words("art-tray.height-of-the-day"), its(&MonthBoard::day_height));
    f.measure(in_words("art-tray.gaps"), its(&MonthBoard::gap));
    f.measure(in_words("art-tray.thickness-of-the-lines"), its(&MonthBoard::line));
    f.tick(in_words("art-tray.each-day-a-box"), its(&MonthBoard::boxes));
}

const PlacedDrawing* drawing_of(const Art& a) { return std::get_if<PlacedDrawing>(&a.kind); }

// The colours that it came with, taken over or all made one.
void drawing_colours(ArtForm& f) {
    Desk& desk = f.desk();
    auto* ask = label({}, Role::Plain, f.parent());
    f.tray().add_decision(ask);
    auto* which = new Segmented(in_words("art-tray.its-colours"),
                                {in_words("art-tray.one-colour"), in_words("art-tray.its-own-colours")}, f.parent());
    f.tray().add_decision(which);
    QObject::connect(which, &Segmented::chosen, &f.tray(), [&desk](int i) {
        if (!desk.art_at()) return;
        desk.apply(i == 0 ? make_one_colour(desk.job(), desk.at(), *desk.art_at())
                          : take_over_colours(desk.job(), desk.at(), *desk.art_at(), desk.colours_at_hand()));
    });
    f.on_refresh([ask, which](const Art& a) {
        const PlacedDrawing* d = drawing_of(a);
        const std::size_t colours = d == nullptr ? 0 : colours_found(*d->drawing).size();
        ask->setVisible(colours > 1);
        which->setVisible(colours > 1);
        if (colours < 2) return;
        ask->setText(in_words("art-tray.colours-found", {{"colours", colours}}));
        which->show_choice(d->colours.empty() ? 0 : 1);
    });
}

// Its parts, each left out or in a colour of the face; of many, those of one colour together.
void drawing_parts(ArtForm& f) {
    Desk& desk = f.desk();
    constexpr std::size_t most_rows = 24;
    QWidget* rows = f.column();
    const auto listed_of = std::make_shared<std::optional<std::pair<Art, std::vector<Colour>>>>();
    f.on_refresh([&f, &desk, rows, listed_of](const Art& a) {
        const auto now = std::pair(a, desk.face().colours);
        if (*listed_of == now) return;
        *listed_of = now;
        ArtForm::empty(rows);
        const PlacedDrawing* d = drawing_of(a);
        if (d == nullptr || !desk.art_at()) return;
        const std::size_t art = *desk.art_at();
        std::vector<std::pair<QString, std::vector<std::size_t>>> listed;
        const auto& parts = d->drawing->parts;
        if (parts.size() <= most_rows) {
            for (std::size_t i = 0; i < parts.size(); ++i) {
                const QString name = text_of(parts[i].name);
                listed.emplace_back(name.isEmpty()
                                        ? in_words("art-tray.part", {{"number", i + 1}})
                                        : in_words("art-tray.part-named", {{"number", i + 1}, {"name", name}}),
                                    std::vector{i});
            }
        } else {
            for (const FoundColour& c : colours_found(*d->drawing))
                listed.emplace_back(in_words(c.colour.empty() ? "art-tray.parts-without-colour" : "art-tray.parts-in",
                                             {{"parts", c.parts.size()}, {"colour", text_of(c.colour)}}),
                                    c.parts);
        }
        for (std::size_t row = 0; row < listed.size() && row < most_rows; ++row) {
            const auto& [name, which] = listed[row];
            auto* line = new QWidget(rows);
            auto* layout = new QHBoxLayout(line);
            layout->setContentsMargins(0, 0, 0, 0);
            auto* there = new Check(name, line);
            there->setObjectName(QString("part %1").arg(row + 1));
            there->setChecked(std::any_of(which.begin(), which.end(), [&](std::size_t part) {
                return std::find(d->dropped.begin(), d->dropped.end(), part) == d->dropped.end();
            }));
            layout->addWidget(there, 1);
            auto* colour = new Choice(in_words("art-tray.colour-of-part", {{"part", name}}), line);
            colour->setObjectName(QString("colour of part %1").arg(row + 1));
            for (const Colour& c : desk.face().colours) colour->addItem(name_of(c), text_of(c.id.name));
            const auto own = d->colours.find(which.front());
            colour->setCurrentIndex(
                static_cast<int>(place_of(desk.face(), own == d->colours.end() ? a.colour : own->second)));
            layout->addWidget(colour, 1);
            rows->layout()->addWidget(line);
            QObject::connect(there, &QCheckBox::toggled, &f.tray(), [&desk, art, which = which](bool on) {
                desk.apply(leave_out_parts(desk.job(), desk.at(), art, which, !on));
            });
            QObject::connect(colour, &QComboBox::activated, &f.tray(), [&desk, art, which = which, colour] {
                desk.apply(colour_parts(desk.job(), desk.at(), art, which,
                                        ColourId{colour->currentData().toString().toStdString()}));
            });
        }
        if (listed.size() > most_rows)
            rows->layout()->addWidget(
                label(in_words("art-tray.more-parts", {{"more", listed.size() - most_rows}}), Role::Small, rows));
    });
}

void drawing(ArtForm& f) {
    const auto placed = lens(&Art::kind, As<PlacedDrawing>{});
    auto* source = label({}, Role::Small, f.parent());
    f.tray().add_decision(source);
    const auto by_width = its(&PlacedDrawing::by_width);
    f.segmented(
        in_words("art-tray.sized-by"), {in_words("art-tray.width"), in_words("art-tray.height")},
        [by_width](const Art& a) { return by_width.in(a) != nullptr && !*by_width.in(a) ? 1 : 0; },
        [by_width](Art& a, int i) { by_width.put(a, i == 0); });
    f.measure(in_words("art-tray.its-width-or-height"), its(&PlacedDrawing::size));
    f.tick(in_words("art-tray.mirrored"), its(&PlacedDrawing::mirrored));
    f.measure(in_words("art-tray.a-kept-picture-is"), its(&PlacedDrawing::around));
    f.tick(in_words("art-tray.mirrored-copies-in-all"), its(&PlacedDrawing::four_corners));
    f.line(
        in_words("art-tray.licence-and-where-it"),
        [placed](const Art& a) {
            return placed.in(a) == nullptr ? QString() : text_of(placed.in(a)->drawing->licence);
        },
        [placed](Art& a, const std::string& words) {
            if (PlacedDrawing* d = placed.in(a)) say_licence(*d, words);
        });
    drawing_colours(f);
    drawing_parts(f);
    f.tray().add_decision(label(in_words("art-tray.point-at-a-part"), Role::Small, f.parent()));
    f.offer(
        in_words("art-tray.all-parts-back"),
        [&f, placed] {
            f.change([placed](Art& a) {
                if (PlacedDrawing* d = placed.in(a)) bring_back_parts(*d);
            });
        },
        [placed](const Art& a) {
            const PlacedDrawing* d = placed.in(a);
            return d != nullptr && (!d->dropped.empty() || !d->colours.empty());
        });
    f.on_refresh([source, placed](const Art& a) {
        if (const PlacedDrawing* d = placed.in(a))
            source->setText(in_words("art-tray.source-and-parts",
                                     {{"source", d->drawing->source}, {"parts", d->drawing->parts.size()}}));
    });
}

}  // namespace

void art_fields(ArtForm& form) {
    form.part(is<Border>(), [&form] { border(form); });
    form.part(is<Corners>(), [&form] { corner_pieces(form); });
    form.part(is<RuledLine>(), [&form] { ruled_line(form); });
    form.part(is<Banner>(), [&form] { ribbon(form); });
    form.part(is<Figure>(), [&form] { shape(form); });
    form.part(is<HeightRuler>(), [&form] { height_ruler(form); });
    form.part(is<MonthBoard>(), [&form] { month_board(form); });
    form.part(is<PlacedDrawing>(), [&form] { drawing(form); });
    // What every kind has.
    form.tick(in_words("word.locked-in-place"), lens(&Art::locked));
    Desk& desk = form.desk();
    form.offer(
        in_words("word.back-where-it-stands"),
        [&desk] { desk.apply(unhang_thing(desk.job(), desk.at(), desk.thing_at())); },
        [](const Art& a) { return a.across || a.up; });
    const auto last = [&desk] { return !desk.art_at() || *desk.art_at() + 1 >= desk.face().art.size(); };
    form.offer(
        in_words("art-tray.nearer-to-the-front"),
        [&desk, last] {
            if (last()) return;
            const std::size_t at = *desk.art_at();
            desk.apply(raise_art(desk.job(), desk.at(), at, true));
            desk.select_art(at + 1);
        },
        [last](const Art&) { return !last(); });
}

}  // namespace skarvel
