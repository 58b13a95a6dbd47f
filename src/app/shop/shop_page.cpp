#include "shop/shop_page.h"

#include <QCheckBox>
#include <QFormLayout>
#include <QGridLayout>
#include <QTimeEdit>
#include <QVBoxLayout>

#include "theme/theme.h"

namespace skarvel {
namespace {

// Monday first, as a week is worked; the hours count Sunday as 0.
constexpr std::array week = {1, 2, 3, 4, 5, 6, 0};

}  // namespace

ShopPage::ShopPage(Desk& desk, QWidget* parent) : QScrollArea(parent), desk_(desk) {
    setWidgetResizable(true);
    setObjectName("shop");
    auto* body = new QWidget(this);
    body->setObjectName("middle");
    auto* columns = new QGridLayout(body);
    columns->setContentsMargins(24, 12, 24, 24);
    columns->setHorizontalSpacing(40);
    columns->setVerticalSpacing(6);
    columns->addWidget(label(tr("The shop"), "title", body), 0, 0);
    columns->addWidget(
        label(tr("What you have and when you work. Every plan reads it; changes count at once."), "small", body), 1, 0,
        1, 2);
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
    columns->setRowStretch(5, 1);
    columns->setColumnStretch(0, 1);
    columns->setColumnStretch(1, 1);
    const auto add = [body](QVBoxLayout* to, const QString& name, auto* widget) {
        to->addWidget(label(name, "small", body));
        to->addWidget(widget);
        return widget;
    };

    left->addWidget(label(tr("Measures"), "title", body));
    unit_ = add(left, tr("shown in"), new Segmented(tr("shown in"), {tr("inches"), tr("millimetres")}, body));
    fraction_ = add(left, tr("fractions to"), new Segmented(tr("fractions to"), {"1⁄16", "1⁄32", "1⁄64"}, body));
    connect(unit_, &Segmented::chosen, this,
            [this](int i) { edit([&](Shop& s) { s.display.unit = i == 0 ? Unit::Inch : Unit::Millimetre; }); });
    connect(fraction_, &Segmented::chosen, this,
            [this](int i) { edit([&](Shop& s) { s.display.denominator = 16 << i; }); });
    left->addSpacing(12);
    left->addWidget(label(tr("What loads are cut on"), "title", body));
    left->addWidget(
        label(tr("Where a colour names no other bed. Beds are changed below, with their machines."), "small", body));
    bed_ = new Choice(tr("usual bed"), body);
    left->addWidget(bed_);
    connect(bed_, &QComboBox::activated, this, [this](int i) {
        const auto beds = beds_of(desk_.shop().machines);
        if (i >= 0 && static_cast<std::size_t>(i) < beds.size())
            edit([&](Shop& s) { s.mat = beds[static_cast<std::size_t>(i)]; });
    });
    left->addStretch(1);

    right->addWidget(label(tr("Your hours"), "title", body));
    right->addWidget(label(tr("Hands-on work is laid on these; waits run day and night."), "small", body));
    auto* grid = new QGridLayout;
    grid->setHorizontalSpacing(8);
    right->addLayout(grid);
    const QStringList names{tr("Sunday"),   tr("Monday"), tr("Tuesday"), tr("Wednesday"),
                            tr("Thursday"), tr("Friday"), tr("Saturday")};
    for (std::size_t row = 0; row < week.size(); ++row) {
        const int day = week.at(row);
        DayRow d{new Check(names.at(day), body), new QTimeEdit(body), new QTimeEdit(body)};
        for (QTimeEdit* t : {d.from, d.to}) {
            t->setDisplayFormat("HH:mm");
            t->setButtonSymbols(QAbstractSpinBox::NoButtons);
            t->setKeyboardTracking(false);
        }
        d.from->setAccessibleName(tr("%1 from").arg(names.at(day)));
        d.to->setAccessibleName(tr("%1 to").arg(names.at(day)));
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
                    Q_EMIT desk_.said(tr("The hours end before they begin: kept as they were."), true);
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
    right->addSpacing(12);
    right->addWidget(label(tr("The window"), "title", body));
    theme_ = add(right, tr("light"), new Segmented(tr("light"), {tr("day"), tr("night")}, body));
    text_ = add(right, tr("size of text"), new Segmented(tr("size of text"), {"100 %", "125 %", "150 %"}, body));
    connect(theme_, &Segmented::chosen, this, [this](int i) { Q_EMIT look_changed(i == 1, Theme::text_percent()); });
    connect(text_, &Segmented::chosen, this, [this](int i) { Q_EMIT look_changed(Theme::night(), 100 + 25 * i); });
    left->addStretch(1);
    right->addStretch(1);
    setWidget(body);
    refresh();
}

void ShopPage::edit(const std::function<void(Shop&)>& change) {
    Shop shop = desk_.shop();
    change(shop);
    desk_.set_shop(shop);
}

void ShopPage::refresh() {
    const Shop& s = desk_.shop();
    unit_->show_choice(s.display.unit == Unit::Inch ? 0 : 1);
    fraction_->show_choice(s.display.denominator == 16 ? 0 : s.display.denominator == 32 ? 1 : 2);
    theme_->show_choice(Theme::night() ? 1 : 0);
    text_->show_choice((Theme::text_percent() - 100) / 25);
    wood_->refresh();
    cutting_->refresh();
    {
        const QSignalBlocker quiet(bed_);
        bed_->clear();
        for (const Mat& bed : beds_of(s.machines))
            bed_->addItem(tr("%1, %2").arg(QString::fromStdString(bed.machine), QString::fromStdString(bed.name)),
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
