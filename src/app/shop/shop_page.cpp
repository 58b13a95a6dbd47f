#include "shop/shop_page.h"

#include <QCheckBox>
#include <QFormLayout>
#include <QGridLayout>
#include <QTimeEdit>
#include <QVBoxLayout>

#include "theme/roles.h"
#include "theme/theme.h"
#include "theme/words.h"

namespace skarvel {
namespace {

// Monday first, as a week is worked; the hours count Sunday as 0.
constexpr std::array week = {1, 2, 3, 4, 5, 6, 0};

}  // namespace

ShopPage::ShopPage(Desk& desk, QWidget* parent) : QScrollArea(parent), desk_(desk) {
    setWidgetResizable(true);
    setObjectName("shop");
    auto* body = new QWidget(this);
    dress(body, Role::Sheet);
    auto* columns = new QGridLayout(body);
    columns->setContentsMargins(24, 12, 24, 24);
    columns->setHorizontalSpacing(40);
    columns->setVerticalSpacing(6);
    columns->addWidget(label(in_words("shop-page.the-shop"), Role::Title, body), 0, 0);
    columns->addWidget(label(in_words("shop-page.what-you-have-and"), Role::Small, body), 1, 0, 1, 2);
    auto* left = new QVBoxLayout;
    auto* right = new QVBoxLayout;
    left->setSpacing(4);
    right->setSpacing(4);
    columns->addLayout(left, 2, 0);
    columns->addLayout(right, 2, 1);
    wood_ = new WoodPanel(desk_, body);
    columns->addWidget(wood_, 3, 0, 1, 2);
    cutting_ = new CuttingPanel(desk_, body);
    columns->addWidget(cutting_, 4, 0, 1, 2);
    work_ = new WorkPanel(desk_, body);
    columns->addWidget(work_, 5, 0, 1, 2);
    columns->setRowStretch(6, 1);
    columns->setColumnStretch(0, 1);
    columns->setColumnStretch(1, 1);
    const auto add = [body](QVBoxLayout* to, const QString& name, auto* widget) {
        to->addWidget(label(name, Role::Small, body));
        to->addWidget(widget);
        return widget;
    };

    left->addWidget(label(in_words("shop-page.measures"), Role::Title, body));
    unit_ = add(left, in_words("shop-page.shown-in"),
                new Segmented(in_words("shop-page.shown-in"),
                              {in_words("shop-page.inches"), in_words("shop-page.millimetres")}, body));
    // Millimetres have none.
    fractions_to_ = new QWidget(body);
    auto* fractions = new QVBoxLayout(fractions_to_);
    fractions->setContentsMargins(0, 0, 0, 0);
    fractions->setSpacing(left->spacing());
    fraction_ = add(fractions, in_words("shop-page.fractions-to"),
                    new Segmented(in_words("shop-page.fractions-to"), {"1⁄16", "1⁄32", "1⁄64"}, body));
    left->addWidget(fractions_to_);
    connect(unit_, &Segmented::chosen, this,
            [this](int i) { edit([&](Shop& s) { s.display.unit = i == 0 ? Unit::Inch : Unit::Millimetre; }); });
    connect(fraction_, &Segmented::chosen, this,
            [this](int i) { edit([&](Shop& s) { s.display.denominator = 16 << i; }); });
    left->addSpacing(12);
    left->addWidget(label(in_words("shop-page.what-loads-are-cut"), Role::Title, body));
    left->addWidget(label(in_words("shop-page.where-a-colour-names"), Role::Small, body));
    bed_ = new Choice(in_words("shop-page.usual-bed"), body);
    left->addWidget(bed_);
    connect(bed_, &QComboBox::activated, this, [this](int i) {
        const auto beds = beds_of(desk_.shop().machines);
        if (i >= 0 && static_cast<std::size_t>(i) < beds.size())
            edit([&](Shop& s) { s.mat = beds[static_cast<std::size_t>(i)]; });
    });
    left->addSpacing(12);
    left->addWidget(label(in_words("shop-page.the-window"), Role::Title, body));
    theme_ =
        add(left, in_words("shop-page.light"),
            new Segmented(in_words("shop-page.light"), {in_words("shop-page.day"), in_words("shop-page.night")}, body));
    text_ = add(left, in_words("shop-page.size-of-text"),
                new Segmented(in_words("shop-page.size-of-text"),
                              {in_words("shop-page.by-the-room"), "100 %", "125 %", "150 %"}, body));
    connect(theme_, &Segmented::chosen, this, [this](int i) { Q_EMIT look_changed(i == 1, text_chosen_); });
    connect(text_, &Segmented::chosen, this,
            [this](int i) { Q_EMIT look_changed(Theme::night(), i == 0 ? 0 : 75 + 25 * i); });
    left->addStretch(1);

    right->addWidget(label(in_words("shop-page.your-hours"), Role::Title, body));
    right->addWidget(label(in_words("shop-page.hands-on-work-is"), Role::Small, body));
    auto* grid = new QGridLayout;
    grid->setHorizontalSpacing(8);
    right->addLayout(grid);
    const QStringList names{in_words("shop-page.sunday"),   in_words("shop-page.monday"),
                            in_words("shop-page.tuesday"),  in_words("shop-page.wednesday"),
                            in_words("shop-page.thursday"), in_words("shop-page.friday"),
                            in_words("shop-page.saturday")};
    for (std::size_t row = 0; row < week.size(); ++row) {
        const int day = week.at(row);
        DayRow d{new Check(names.at(day), body), new QTimeEdit(body), new QTimeEdit(body)};
        for (QTimeEdit* t : {d.from, d.to}) {
            t->setDisplayFormat("HH:mm");
            t->setButtonSymbols(QAbstractSpinBox::NoButtons);
            t->setKeyboardTracking(false);
        }
        d.from->setAccessibleName(in_words("shop-page.from", {{"day", names.at(day)}}));
        d.to->setAccessibleName(in_words("shop-page.to", {{"day", names.at(day)}}));
        const auto take = [this, d, day] {
            edit([&](Shop& s) {
                auto& sittings = s.hours.days.at(static_cast<std::size_t>(day));
                const int from = QTime(0, 0).secsTo(d.from->time()) / 60;
                const int to = QTime(0, 0).secsTo(d.to->time()) / 60;
                if (!d.works->isChecked()) {
                    sittings.clear();
                } else if (from < to) {
                    sittings = {{from, to}};
                } else {
                    Q_EMIT desk_.said(in_words("shop-page.the-hours-end-before"), true);
                }
            });
            refresh();
        };
        connect(d.works, &QCheckBox::clicked, this, take);
        connect(d.from, &QTimeEdit::timeChanged, this, take);
        connect(d.to, &QTimeEdit::timeChanged, this, take);
        grid->addWidget(d.works, static_cast<int>(row), 0);
        grid->addWidget(d.from, static_cast<int>(row), 1);
        grid->addWidget(d.to, static_cast<int>(row), 2);
        days_.push_back(d);
    }
    right->addStretch(1);
    setWidget(body);
    refresh();
}

void ShopPage::edit(const std::function<void(Shop&)>& change) {
    Shop shop = desk_.shop();
    change(shop);
    desk_.set_shop(shop);
}

void ShopPage::show_text(int chosen) {
    text_chosen_ = chosen;
    refresh();
}

void ShopPage::refresh() {
    const Shop& s = desk_.shop();
    unit_->show_choice(s.display.unit == Unit::Inch ? 0 : 1);
    fractions_to_->setVisible(s.display.unit == Unit::Inch);
    fraction_->show_choice(s.display.denominator == 16 ? 0 : s.display.denominator == 32 ? 1 : 2);
    theme_->show_choice(Theme::night() ? 1 : 0);
    text_->show_choice(text_chosen_ == 0 ? 0 : (text_chosen_ - 75) / 25);
    wood_->refresh();
    cutting_->refresh();
    work_->refresh();
    {
        const QSignalBlocker quiet(bed_);
        bed_->clear();
        for (const Mat& bed : beds_of(s.machines))
            bed_->addItem(in_words("shop-page.machine-and-bed", {{"machine", QString::fromStdString(bed.machine)},
                                                                 {"name", QString::fromStdString(bed.name)}}),
                          QString::fromStdString(bed_name(bed)));
        bed_->show_data(QString::fromStdString(bed_name(s.mat)));
    }
    for (std::size_t row = 0; row < days_.size(); ++row) {
        const auto& sittings = s.hours.days.at(static_cast<std::size_t>(week.at(row)));
        DayRow& d = days_[row];
        const QSignalBlocker a(d.works), b(d.from), c(d.to);
        d.works->setChecked(!sittings.empty());
        d.from->setEnabled(!sittings.empty());
        d.to->setEnabled(!sittings.empty());
        const Hours::Sitting shown_hours = sittings.empty() ? Hours::Sitting{18 * 60, 21 * 60} : sittings.front();
        d.from->setTime(QTime(0, 0).addSecs(shown_hours.from * 60));
        d.to->setTime(shown_hours.to >= 24 * 60 ? QTime(23, 59) : QTime(0, 0).addSecs(shown_hours.to * 60));
    }
}

}  // namespace skarvel
