#include "shop/wood_panel.h"

#include <QHBoxLayout>
#include <QVBoxLayout>

#include "theme/theme.h"
#include "theme/words.h"

namespace skarvel {

WoodPanel::WoodPanel(Desk& desk, QWidget* parent) : ShopPanel(desk, parent) {
    auto* columns = new QHBoxLayout(this);
    columns->setContentsMargins(0, 12, 0, 0);
    columns->setSpacing(40);
    auto* left = new QVBoxLayout;
    auto* right = new QVBoxLayout;
    left->setSpacing(4);
    right->setSpacing(4);
    columns->addLayout(left, 1);
    columns->addLayout(right, 1);
    left->addWidget(label(in_words("shop-page.boards"), Role::Title, this));
    left->addWidget(label(in_words("shop-page.sold-in-these-lengths"), Role::Small, this));
    lengths_ = new QLineEdit(this);
    lengths_->setAccessibleName(in_words("shop-page.board-lengths"));
    lengths_->setObjectName("board lengths");
    connect(lengths_, &QLineEdit::editingFinished, this, &WoodPanel::take_lengths);
    left->addWidget(lengths_);
    left->addWidget(label(in_words("shop-page.the-saw-takes"), Role::Small, this));
    kerf_ = new MeasureField(desk_, in_words("shop-page.kerf-of-the-saw"), this);
    connect(kerf_, &MeasureField::decided, this,
            [this](const Measure& m) { edit([&](Shop& s) { s.kerf = m.value; }); });
    left->addWidget(kerf_);
    left->addSpacing(12);
    left->addWidget(label(in_words("shop-page.sizes-of-our-own"), Role::Title, this));
    left->addWidget(label(in_words("shop-page.name-real-thickness-and"), Role::Small, this));
    stock_ = list(left, this);
    auto* add_size = button(in_words("shop-page.add-a-size"), Role::Plain, this);
    add_size->setIcon(Theme::icon("plus"));
    connect(add_size, &QPushButton::clicked, this, [this] {
        edit([](Shop& s) {
            s.stock.push_back({"own " + std::to_string(s.stock.size() + 1), Length::millimetres(20),
                               Length::millimetres(150), Length::millimetres(18), Length::millimetres(145)});
        });
    });
    left->addWidget(add_size);
    left->addStretch(1);
    right->addWidget(label(in_words("shop-page.leftover-wood"), Role::Title, this));
    right->addWidget(label(in_words("shop-page.what-it-is-length"), Role::Small, this));
    leftovers_ = list(right, this);
    auto* add_piece = button(in_words("shop-page.add-a-piece"), Role::Plain, this);
    add_piece->setIcon(Theme::icon("plus"));
    connect(add_piece, &QPushButton::clicked, this, [this] {
        edit([](Shop& s) {
            s.leftovers.push_back({in_words("shop-page.new-leftover").toStdString(), "pine", skarvel::measure("24"),
                                   skarvel::measure("5 1/2"), skarvel::measure("3/4")});
        });
    });
    right->addWidget(add_piece);
    right->addSpacing(12);
    right->addWidget(label(in_words("shop-page.tins"), Role::Title, this));
    right->addWidget(label(in_words("shop-page.tins-are"), Role::Small, this));
    tins_ = list(right, this);
    auto* add_tin = button(in_words("shop-page.add-a-tin"), Role::Plain, this);
    add_tin->setObjectName("add a tin");
    add_tin->setIcon(Theme::icon("plus"));
    connect(add_tin, &QPushButton::clicked, this, [this] {
        edit([](Shop& s) { s.tins.push_back({"#7c8f6a", in_words("shop-page.new-tin").toStdString()}); });
    });
    right->addWidget(add_tin);
    right->addStretch(1);
    refresh();
}

void WoodPanel::take_lengths() {
    std::vector<Length> lengths;
    for (const QString& part : lengths_->text().split(';', Qt::SkipEmptyParts)) {
        const auto read = read_field(desk_, part.trimmed());
        if (!read || read->value <= Length{}) {
            Q_EMIT desk_.said(in_words("shop-page.is-not-a-length", {{"trimmed", part.trimmed()}}), true);
            return refresh();
        }
        lengths.push_back(read->value);
    }
    if (lengths.empty() || lengths == desk_.shop().board_lengths) return;
    edit([&](Shop& s) { s.board_lengths = lengths; });
}

QWidget* WoodPanel::stock_row(std::size_t i) {
    auto* row = new QWidget(stock_);
    auto* layout = row_in(row);
    const StockSize& size = desk_.shop().stock[i];
    layout->addWidget(text(
                          in_words("shop-page.name-of-size", {{"number", i + 1}}), size.name,
                          [i](Shop& s, const std::string& typed) {
                              if (!typed.empty() && i < s.stock.size()) s.stock[i].name = typed;
                          },
                          row),
                      3);
    layout->addWidget(
        measure(
            in_words("shop-page.thickness-of-size", {{"number", i + 1}}), exactly(size.thickness),
            [i](Shop& s, const Measure& m) { s.stock[i].thickness = s.stock[i].nominal_thickness = m.value; }, row),
        2);
    layout->addWidget(
        measure(
            in_words("shop-page.width-of-size", {{"number", i + 1}}), exactly(size.width),
            [i](Shop& s, const Measure& m) { s.stock[i].width = s.stock[i].nominal_width = m.value; }, row),
        2);
    layout->addWidget(remover(
        in_words("shop-page.remove-size", {{"number", i + 1}}),
        [i](Shop& s) { s.stock.erase(s.stock.begin() + static_cast<long>(i)); }, row));
    return row;
}

QWidget* WoodPanel::tin_row(std::size_t i) {
    auto* row = new QWidget(tins_);
    auto* layout = row_in(row);
    const ShelfColour& tin = desk_.shop().tins[i];
    auto* colour = new ColourButton(in_words("shop-page.colour-of-tin", {{"number", i + 1}}), row);
    colour->show_colour(tin.colour, tin.colour);
    connect(colour, &ColourButton::decided, this, [this, i](const QString& picked, const QString&) {
        edit([&](Shop& s) {
            if (i < s.tins.size()) s.tins[i].colour = picked.toStdString();
        });
    });
    layout->addWidget(colour, 2);
    layout->addWidget(text(
                          in_words("shop-page.name-of-tin", {{"number", i + 1}}), tin.name,
                          [i](Shop& s, const std::string& typed) {
                              if (!typed.empty() && i < s.tins.size()) s.tins[i].name = typed;
                          },
                          row),
                      3);
    layout->addWidget(remover(
        in_words("shop-page.remove-tin", {{"number", i + 1}}),
        [i](Shop& s) { s.tins.erase(s.tins.begin() + static_cast<long>(i)); }, row));
    return row;
}

QWidget* WoodPanel::leftover_row(std::size_t i) {
    auto* row = new QWidget(leftovers_);
    const auto [layout, sizes] = two_lines_in(row);
    const LeftoverWood& piece = desk_.shop().leftovers[i];
    layout->addWidget(text(
                          in_words("shop-page.what-leftover-is", {{"number", i + 1}}), piece.name,
                          [i](Shop& s, const std::string& typed) {
                              if (i < s.leftovers.size()) s.leftovers[i].name = typed;
                          },
                          row),
                      3);
    auto* material = new Choice(in_words("shop-page.material-of-leftover", {{"number", i + 1}}), row);
    for (const Material& m : desk_.library().trade.materials)
        material->addItem(QString::fromStdString(m.name), QString::fromStdString(m.id));
    material->show_data(QString::fromStdString(piece.material));
    connect(material, &QComboBox::activated, this, [this, i, material] {
        edit([&](Shop& s) { s.leftovers.at(i).material = material->currentData().toString().toStdString(); });
    });
    layout->addWidget(material, 2);
    for (const auto& [name, which] : {std::pair{"shop-page.length-of-leftover", &LeftoverWood::length},
                                      {"shop-page.width-of-leftover", &LeftoverWood::width},
                                      {"shop-page.thickness-of-leftover", &LeftoverWood::thickness}}) {
        sizes->addWidget(measure(
                             in_words(name, {{"number", i + 1}}), piece.*which,
                             [i, which = which](Shop& s, const Measure& m) { s.leftovers.at(i).*which = m; }, row),
                         2);
    }
    layout->addWidget(remover(
        in_words("shop-page.remove-leftover", {{"number", i + 1}}),
        [i](Shop& s) { s.leftovers.erase(s.leftovers.begin() + static_cast<long>(i)); }, row));
    return row;
}

void WoodPanel::refresh() {
    const Shop& s = desk_.shop();
    if (!lengths_->hasFocus()) {
        QStringList all;
        for (const Length l : s.board_lengths) all << QString::fromStdString(skarvel::show(l, {s.display.unit, 64}));
        lengths_->setText(all.join("; "));
    }
    kerf_->show_value(measure_of(s.kerf, {s.display.unit, 64}));
    if (built_ && stock_shown_ == s.stock && leftovers_shown_ == s.leftovers && tins_shown_ == s.tins) return;
    built_ = true;
    stock_shown_ = s.stock;
    leftovers_shown_ = s.leftovers;
    tins_shown_ = s.tins;
    empty(stock_);
    empty(leftovers_);
    empty(tins_);
    for (std::size_t i = 0; i < s.stock.size(); ++i) stock_->layout()->addWidget(stock_row(i));
    for (std::size_t i = 0; i < s.leftovers.size(); ++i) leftovers_->layout()->addWidget(leftover_row(i));
    for (std::size_t i = 0; i < s.tins.size(); ++i) tins_->layout()->addWidget(tin_row(i));
}

}  // namespace skarvel
