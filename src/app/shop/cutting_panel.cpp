#include "shop/cutting_panel.h"

#include <QCheckBox>
#include <QColor>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QSpinBox>
#include <QVBoxLayout>

#include "job/method_reads.h"
#include "theme/roles.h"
#include "theme/theme.h"
#include "theme/words.h"

namespace skarvel {

CuttingPanel::CuttingPanel(Desk& desk, QWidget* parent) : ShopPanel(desk, parent) {
    auto* columns = new QHBoxLayout(this);
    columns->setContentsMargins(0, 12, 0, 0);
    columns->setSpacing(40);
    auto* left = new QVBoxLayout;
    auto* right = new QVBoxLayout;
    left->setSpacing(4);
    right->setSpacing(4);
    columns->addLayout(left, 1);
    columns->addLayout(right, 1);
    left->addWidget(label(in_words("shop-page.machines"), Role::Title, this));
    left->addWidget(label(in_words("shop-page.each-with-its-beds"), Role::Small, this));
    machines_ = list(left, this);
    auto* add_machine = button(in_words("shop-page.add-a-machine"), Role::Plain, this);
    add_machine->setIcon(Theme::icon("plus"));
    connect(add_machine, &QPushButton::clicked, this, [this] {
        edit([](Shop& s) {
            Machine m = usual_machines().front();
            m.name = "cutter " + std::to_string(s.machines.size() + 1);
            m.beds.resize(1);
            s.machines.push_back(std::move(m));
        });
    });
    left->addWidget(add_machine);
    left->addStretch(1);
    right->addWidget(label(in_words("shop-page.film-in-the-drawer"), Role::Title, this));
    right->addWidget(label(in_words("shop-page.rolls-narrow-what-a"), Role::Small, this));
    films_ = list(right, this);
    auto* add_film = button(in_words("shop-page.add-film"), Role::Plain, this);
    add_film->setIcon(Theme::icon("plus"));
    connect(add_film, &QPushButton::clicked, this, [this] {
        edit([](Shop& s) {
            s.drawer.push_back(
                {"removable-matt", "", "piece " + std::to_string(s.drawer.size() + 1), 12_in, 12_in, false, false, 0});
        });
    });
    right->addWidget(add_film);
    right->addSpacing(12);
    right->addWidget(label(in_words("shop-page.laying-by-hand"), Role::Title, this));
    right->addWidget(label(in_words("shop-page.how-far-sections-come"), Role::Small, this));
    auto* hands = new QHBoxLayout;
    shift_ = measure(
        in_words("shop-page.off-its-place"), exactly(desk_.shop().hands.shift),
        [](Shop& s, const Measure& m) { s.hands.shift = m.value; }, this);
    turn_ = number(
        in_words("shop-page.turned-by-hundredths-of"), desk_.shop().hands.turn_hundredths, 0, 500,
        in_words("shop-page.100"), [](Shop& s, int v) { s.hands.turn_hundredths = v; }, this);
    hands->addWidget(shift_);
    hands->addWidget(turn_);
    right->addLayout(hands);
    right->addWidget(label(in_words("shop-page.films-are-hinged-from"), Role::Small, this));
    hinge_from_ = measure(
        in_words("shop-page.films-are-hinged-from"),
        exactly(hands_on_in(desk_.shop(), desk_.library().trade).hinged_from),
        [](Shop& s, const Measure& m) { s.hands.hinge_from = m.value; }, this);
    right->addWidget(hinge_from_);
    right->addSpacing(12);
    part_words_ = new Check(in_words("shop-page.words-may-be-parted"), this);
    part_words_->setObjectName("part words");
    connect(part_words_, &QCheckBox::clicked, this, [this](bool on) { edit([on](Shop& s) { s.part_words = on; }); });
    right->addWidget(part_words_);
    right->addStretch(1);
    refresh();
}

QSpinBox* CuttingPanel::number(const QString& name, int shown_value, int least, int most, const QString& suffix,
                               const std::function<void(Shop&, int)>& set, QWidget* parent) {
    auto* made = new QSpinBox(parent);
    made->setRange(least, most);
    made->setSuffix(suffix);
    made->setValue(shown_value);
    made->setAccessibleName(name);
    made->setObjectName(name);
    connect(made, &QSpinBox::editingFinished, this,
            [this, made, set] { edit([&](Shop& s) { set(s, made->value()); }); });
    return made;
}

QWidget* CuttingPanel::machine_rows(std::size_t i) {
    auto* holder = new QWidget(machines_);
    auto* lines = new QVBoxLayout(holder);
    lines->setContentsMargins(0, 4, 0, 8);
    lines->setSpacing(4);
    const Machine& m = desk_.shop().machines[i];
    auto* head = new QHBoxLayout;
    head->setSpacing(4);
    head->addWidget(text(
                        in_words("shop-page.name-of-machine", {{"number", i + 1}}), m.name,
                        [i](Shop& s, const std::string& typed) {
                            if (typed.empty() || i >= s.machines.size()) return;
                            // The usual mat goes with its machine.
                            if (s.mat.machine == s.machines[i].name) s.mat.machine = typed;
                            s.machines[i].name = typed;
                        },
                        holder),
                    3);
    head->addWidget(
        number(
            in_words("shop-page.speed-of-machine", {{"number", i + 1}}), m.knife.speed_mm_s, 1, 2000,
            in_words("shop-page.mm-s"), [i](Shop& s, int v) { s.machines.at(i).knife.speed_mm_s = v; }, holder),
        2);
    head->addWidget(remover(
        in_words("shop-page.remove-machine", {{"number", i + 1}}),
        [i](Shop& s) {
            if (s.machines.size() > 1) s.machines.erase(s.machines.begin() + static_cast<long>(i));
        },
        holder));
    lines->addLayout(head);
    auto* sends = new QHBoxLayout;
    sends->setSpacing(4);
    auto* address = text(
        in_words("shop-page.address-of-machine", {{"number", i + 1}}), m.address,
        [i](Shop& s, const std::string& typed) { s.machines.at(i).address = typed; }, holder);
    address->setPlaceholderText(in_words("shop-page.where-it-listens"));
    sends->addWidget(address, 3);
    auto* force = number(
        in_words("shop-page.force-of-machine", {{"number", i + 1}}), m.force, 0, 2000, in_words("word.g"),
        [i](Shop& s, int v) { s.machines.at(i).force = v; }, holder);
    force->setSpecialValueText(in_words("shop-page.force-as-set"));
    sends->addWidget(force, 2);
    lines->addLayout(sends);
    lines->addWidget(knife_rows(i, holder));
    lines->addWidget(bed_head(holder));
    for (std::size_t b = 0; b < m.beds.size(); ++b) lines->addWidget(bed_row(i, b, holder));
    lines->addWidget(print_row(i, holder));
    auto* more = new QHBoxLayout;
    for (const bool roll : {false, true}) {
        auto* add =
            button(roll ? in_words("shop-page.add-a-roll") : in_words("shop-page.add-a-mat"), Role::Plain, holder);
        add->setObjectName(in_words(roll ? "shop-page.add-a-roll-to" : "shop-page.add-a-mat-to", {{"number", i + 1}}));
        more->addWidget(add);
        connect(add, &QPushButton::clicked, this, [this, i, roll] {
            edit([&](Shop& s) {
                Mat bed{roll ? "roll" : "12 × 12", 12_in, roll ? 144_in : 12_in, {11.5_in, roll ? 144_in : 11.5_in}};
                bed.roll = roll;
                s.machines.at(i).beds.push_back(bed);
            });
        });
    }
    more->addStretch(1);
    lines->addLayout(more);
    return holder;
}

// How the knife moves, each with its name above.
QWidget* CuttingPanel::knife_rows(std::size_t i, QWidget* parent) {
    auto* holder = new QWidget(parent);
    auto* grid = new QGridLayout(holder);
    grid->setContentsMargins(0, 2, 0, 2);
    grid->setHorizontalSpacing(4);
    grid->setVerticalSpacing(0);
    const Machine& m = desk_.shop().machines[i];
    int column = 0;
    const auto add = [&](const char* what, QWidget* field) {
        grid->addWidget(label(in_words(what), Role::Small, holder), 0, column);
        grid->addWidget(field, 1, column);
        grid->setColumnStretch(column++, 1);
    };
    const auto named = [&](const char* what) { return in_words(what, {{"number", i + 1}}); };
    add("shop-page.lifted-speed",
        number(
            named("shop-page.lifted-speed-of"), m.knife.travel_mm_s, 1, 5'000, in_words("shop-page.mm-s"),
            [i](Shop& s, int v) { s.machines.at(i).knife.travel_mm_s = v; }, holder));
    add("shop-page.up-and-down",
        number(
            named("shop-page.up-and-down-of"), m.knife.lift_ms, 0, 10'000, in_words("shop-page.ms"),
            [i](Shop& s, int v) { s.machines.at(i).knife.lift_ms = v; }, holder));
    add("shop-page.edge-behind",
        measure(
            named("shop-page.edge-behind-of"), exactly(m.knife.offset),
            [i](Shop& s, const Measure& l) { s.machines.at(i).knife.offset = l.value; }, holder));
    add("shop-page.runs-on", measure(
                                 named("shop-page.runs-on-of"), exactly(m.knife.overcut),
                                 [i](Shop& s, const Measure& l) { s.machines.at(i).knife.overcut = l.value; }, holder));
    // In the plotter's own units in the file; a length for people.
    constexpr std::int64_t unit_nm = 25'000;
    add("shop-page.counts-to",
        measure(
            named("shop-page.counts-to-of"), exactly(Length::nanometres(std::int64_t{m.longest_units} * unit_nm)),
            [i](Shop& s, const Measure& l) {
                s.machines.at(i).longest_units = static_cast<int>(l.value.nm() / unit_nm);
            },
            holder));
    return holder;
}

QWidget* CuttingPanel::bed_head(QWidget* parent) {
    auto* row = new QWidget(parent);
    auto* layout = row_in(row);
    layout->addWidget(label(in_words("shop-page.bed"), Role::Small, row), 3);
    for (const QString& what : {in_words("shop-page.film-across"), in_words("shop-page.along"),
                                in_words("shop-page.cut-across"), in_words("shop-page.along")})
        layout->addWidget(label(what, Role::Small, row), 2);
    // As wide as what removes a bed.
    layout->addSpacing(Theme::px(26));
    return row;
}

QWidget* CuttingPanel::bed_row(std::size_t machine, std::size_t bed, QWidget* parent) {
    auto* row = new QWidget(parent);
    const auto [layout, second] = two_lines_in(row);
    const Mat& mat = desk_.shop().machines[machine].beds[bed];
    const auto named = [&](const char* what) { return in_words(what, {{"bed", bed + 1}, {"machine", machine + 1}}); };
    // The usual bed is one of these, kept by itself: it changes with them.
    const auto with = [machine, bed](Shop& s, const std::function<void(Mat&)>& change) {
        if (machine >= s.machines.size() || bed >= s.machines[machine].beds.size()) return;
        Mat& m = s.machines[machine].beds[bed];
        const bool usual = s.mat.name == m.name && s.mat.machine == s.machines[machine].name;
        change(m);
        if (!usual) return;
        s.mat = m;
        s.mat.machine = s.machines[machine].name;
    };
    layout->addWidget(text(
                          named("shop-page.name-of-bed-of"), mat.name,
                          [with](Shop& s, const std::string& typed) {
                              if (!typed.empty()) with(s, [&](Mat& m) { m.name = typed; });
                          },
                          row),
                      3);
    const auto add = [&](const char* what, Length value, const std::function<Length&(Mat&)>& of) {
        layout->addWidget(
            measure(
                named(what), exactly(value),
                [with, of](Shop& s, const Measure& l) { with(s, [&](Mat& m) { of(m) = l.value; }); }, row),
            2);
    };
    add("shop-page.width-of-bed-of", mat.width, [](Mat& m) -> Length& { return m.width; });
    add("shop-page.length-of-bed-of", mat.length, [](Mat& m) -> Length& { return m.length; });
    add("shop-page.bed-of-machine-cuts", mat.usable.across, [](Mat& m) -> Length& { return m.usable.across; });
    add("shop-page.bed-of-machine-cuts-along", mat.usable.along, [](Mat& m) -> Length& { return m.usable.along; });
    layout->addWidget(remover(
        named("shop-page.remove-bed-of-machine"),
        [machine, bed](Shop& s) {
            auto& beds = s.machines.at(machine).beds;
            if (beds.size() > 1) beds.erase(beds.begin() + static_cast<long>(bed));
        },
        row));
    if (!mat.roll) {
        second->addSpacing(Theme::px(26));
        second->addWidget(number(
                              named("shop-page.how-many-of"), mat.count, 1, 99, in_words("shop-page.of-these"),
                              [with](Shop& s, int v) { with(s, [&](Mat& m) { m.count = v; }); }, row),
                          2);
        const auto choice = [&](const char* what, auto now, const char* words, auto Mat::*of) {
            auto* made = new Choice(named(what), row);
            for (const char* word : words_of(now))
                made->addItem(in_words((std::string(words) + word).c_str()), QString(word));
            made->show_data(QString(word_of(now)));
            connect(made, &QComboBox::activated, this, [this, made, with, of, now] {
                const std::string chosen = made->currentData().toString().toStdString();
                edit([&](Shop& s) {
                    with(s, [&](Mat& m) { m.*of = from_word<std::decay_t<decltype(now)>>(chosen).value_or(now); });
                });
            });
            second->addWidget(made, 2);
        };
        choice("shop-page.holds-of", mat.tack, "tack.", &Mat::tack);
        choice("shop-page.grip-of", mat.grip, "grip.", &Mat::grip);
        second->addSpacing(Theme::px(26));
    }
    return row;
}

QWidget* CuttingPanel::print_row(std::size_t machine, QWidget* parent) {
    auto* row = new QWidget(parent);
    auto* layout = row_in(row);
    const Machine& m = desk_.shop().machines[machine];
    auto* prints = new Check(in_words("shop-page.finds-printed-marks"), row);
    prints->setObjectName(in_words("shop-page.machine-finds-printed-marks", {{"number", machine + 1}}));
    prints->setChecked(m.prints.has_value());
    connect(prints, &QCheckBox::clicked, this, [this, machine](bool on) {
        edit([&](Shop& s) {
            s.machines.at(machine).prints = on ? std::optional(PrintArea{{8.5_in, 11_in}}) : std::nullopt;
        });
    });
    layout->addWidget(prints, 4);
    if (!m.prints) return row;
    const auto add = [&](const char* what, Length value, const std::function<Length&(PrintArea&)>& of) {
        auto* made = measure(
            in_words(what, {{"number", machine + 1}}), exactly(value),
            [machine, of](Shop& s, const Measure& l) {
                if (s.machines.at(machine).prints) of(*s.machines.at(machine).prints) = l.value;
            },
            row);
        made->setToolTip(made->accessibleName());
        layout->addWidget(made, 2);
    };
    add("shop-page.width-of-the-printed", m.prints->page.across, [](PrintArea& p) -> Length& { return p.page.across; });
    add("shop-page.longest-printed-page-of", m.prints->page.along,
        [](PrintArea& p) -> Length& { return p.page.along; });
    add("shop-page.margin-of-the-printed", m.prints->margin, [](PrintArea& p) -> Length& { return p.margin; });
    return row;
}

QWidget* CuttingPanel::film_row(std::size_t i) {
    auto* row = new QWidget(films_);
    const auto [first, second] = two_lines_in(row);
    const FilmStock& f = desk_.shop().drawer[i];
    first->addWidget(text(
                         in_words("shop-page.name-of-film", {{"number", i + 1}}), f.name,
                         [i](Shop& s, const std::string& typed) {
                             if (i < s.drawer.size()) s.drawer[i].name = typed;
                         },
                         row),
                     3);
    auto* kind = new Choice(in_words("shop-page.kind-of-film", {{"number", i + 1}}), row);
    for (const Film& film : desk_.library().trade.films)
        kind->addItem(QString::fromStdString(film.name), QString::fromStdString(film.id));
    kind->show_data(QString::fromStdString(f.film));
    connect(kind, &QComboBox::activated, this, [this, i, kind] {
        edit([&](Shop& s) { s.drawer.at(i).film = kind->currentData().toString().toStdString(); });
    });
    first->addWidget(kind, 3);
    auto* sold = new Choice(in_words("shop-page.film-is-a", {{"number", i + 1}}), row);
    sold->addItem(in_words("shop-page.roll"));
    sold->addItem(in_words("shop-page.sheet-or-leftover"));
    sold->setCurrentIndex(f.roll ? 0 : 1);
    connect(sold, &QComboBox::activated, this,
            [this, i](int at) { edit([&](Shop& s) { s.drawer.at(i).roll = at == 0; }); });
    second->addWidget(sold, 3);
    second->addWidget(measure(
                          in_words("shop-page.width-of-film", {{"number", i + 1}}), exactly(f.width),
                          [i](Shop& s, const Measure& m) { s.drawer.at(i).width = m.value; }, row),
                      2);
    second->addWidget(label(in_words("word.wide"), Role::Small, row));
    second->addWidget(measure(
                          in_words("shop-page.length-of-film-left", {{"number", i + 1}}), exactly(f.left),
                          [i](Shop& s, const Measure& m) { s.drawer.at(i).left = m.value; }, row),
                      2);
    second->addWidget(label(in_words("word.left"), Role::Small, row));
    auto* colour = text(
        in_words("shop-page.colour-of-film", {{"number", i + 1}}), f.colour,
        [i](Shop& s, const std::string& typed) {
            // "#1d5f7a", or nothing for any; anything else leaves it as it is.
            const bool named = typed.size() == 7 && QColor::isValidColor(QString::fromStdString(typed));
            if (i < s.drawer.size() && (typed.empty() || named)) s.drawer[i].colour = typed;
        },
        row);
    colour->setPlaceholderText(in_words("shop-page.any-colour"));
    auto* more = new QWidget(row);
    row->layout()->addWidget(more);
    auto* third = row_in(more);
    third->addWidget(colour, 2);
    third->addWidget(number(
                         in_words("shop-page.price-of-film-in", {{"number", i + 1}}), f.price_cents, 0, 100'000,
                         in_words("shop-page.cents"), [i](Shop& s, int v) { s.drawer.at(i).price_cents = v; }, row),
                     2);
    third->addWidget(label(in_words("shop-page.for"), Role::Small, row));
    auto* each = measure(
        in_words("shop-page.film-is-sold-by", {{"number", i + 1}}), exactly(f.sold_by),
        [i](Shop& s, const Measure& m) { s.drawer.at(i).sold_by = std::max(m.value, Length::sixtyfourths(1)); }, row);
    each->setToolTip(in_words("shop-page.what-the-price-is"));
    third->addWidget(each, 2);
    auto* pattern = new Check(in_words("shop-page.has-a-direction"), row);
    pattern->setObjectName(in_words("shop-page.film-has-a-direction", {{"number", i + 1}}));
    pattern->setChecked(f.patterned);
    connect(pattern, &QCheckBox::clicked, this,
            [this, i](bool on) { edit([&](Shop& s) { s.drawer.at(i).patterned = on; }); });
    third->addWidget(pattern, 3);
    if (f.patterned) {
        auto* repeats = new QWidget(row);
        row->layout()->addWidget(repeats);
        auto* fourth = row_in(repeats);
        auto* say = new QLabel(in_words("shop-page.the-pattern-repeats-along"), repeats);
        dress(say, Role::Small);
        say->setWordWrap(true);
        fourth->addWidget(say, 4);
        const auto add = [&](const QString& name, Length value, Length FilmStock::*of) {
            fourth->addWidget(
                measure(
                    name, exactly(value),
                    [i, of](Shop& s, const Measure& m) { s.drawer.at(i).*of = std::max(m.value, Length{}); }, repeats),
                2);
        };
        add(in_words("shop-page.pattern-of-film-repeats", {{"number", i + 1}}), f.repeat_along,
            &FilmStock::repeat_along);
        add(in_words("shop-page.pattern-of-film-repeats-across", {{"number", i + 1}}), f.repeat_across,
            &FilmStock::repeat_across);
    }
    second->addWidget(remover(
        in_words("shop-page.remove-film", {{"number", i + 1}}),
        [i](Shop& s) { s.drawer.erase(s.drawer.begin() + static_cast<long>(i)); }, row));
    return row;
}

void CuttingPanel::refresh() {
    const Shop& shop = desk_.shop();
    part_words_->setChecked(shop.part_words);
    if (!shift_->hasFocus()) shift_->show_value(exactly(shop.hands.shift));
    if (!hinge_from_->hasFocus())
        hinge_from_->show_value(exactly(hands_on_in(shop, desk_.library().trade).hinged_from));
    if (!turn_->hasFocus()) turn_->setValue(shop.hands.turn_hundredths);
    // Rows are made anew only when there is something else to show: a field that is typed into stays.
    if (!built_ || machines_shown_ != shop.machines) {
        machines_shown_ = shop.machines;
        empty(machines_);
        for (std::size_t i = 0; i < shop.machines.size(); ++i) machines_->layout()->addWidget(machine_rows(i));
    }
    if (!built_ || films_shown_ != shop.drawer) {
        films_shown_ = shop.drawer;
        empty(films_);
        for (std::size_t i = 0; i < shop.drawer.size(); ++i) films_->layout()->addWidget(film_row(i));
    }
    built_ = true;
}

}  // namespace skarvel
