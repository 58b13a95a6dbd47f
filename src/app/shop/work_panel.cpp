#include "shop/work_panel.h"

#include <QDoubleSpinBox>
#include <QGridLayout>
#include <algorithm>
#include <cmath>

#include "theme/theme.h"
#include "theme/words.h"
#include "window/file_chooser.h"

namespace skarvel {
namespace {

QString in_minutes(double minutes) { return QString::number(minutes, 'g', 3); }

void set_pace(Shop& shop, const std::string& name, std::optional<double> minutes) {
    std::erase_if(shop.paces, [&](const Pace& p) { return p.of == name; });
    if (minutes) shop.paces.push_back({name, static_cast<int>(std::lround(*minutes * 60))});
}

}  // namespace

WorkPanel::WorkPanel(Desk& desk, QWidget* parent) : ShopPanel(desk, parent) {
    auto* grid = new QGridLayout(this);
    grid->setContentsMargins(0, 12, 0, 0);
    grid->setHorizontalSpacing(40);
    grid->addWidget(label(in_words("shop-page.how-long-work-takes"), Role::Title, this), 0, 0, 1, 2);
    QLabel* why = label(in_words("shop-page.minutes-of-work-at"), Role::Small, this);
    why->setWordWrap(true);
    grid->addWidget(why, 1, 0, 1, 2);
    auto* left = new QVBoxLayout;
    auto* right = new QVBoxLayout;
    grid->addLayout(left, 2, 0);
    grid->addLayout(right, 2, 1);
    left_ = list(left, this);
    right_ = list(right, this);
    left->addStretch(1);
    right->addStretch(1);
    grid->setColumnStretch(0, 1);
    grid->setColumnStretch(1, 1);
    grid->addWidget(label(in_words("shop-page.photographs"), Role::Title, this), 3, 0, 1, 2);
    QLabel* watched = label(in_words("shop-page.photographs-taken-over"), Role::Small, this);
    watched->setWordWrap(true);
    grid->addWidget(watched, 4, 0, 1, 2);
    auto* row = new QWidget(this);
    auto* line = row_in(row);
    folder_ = text(
        in_words("shop-page.folder-of-photographs"), {},
        [](Shop& s, const std::string& typed) { s.photograph_folder = typed; }, row);
    folder_->setPlaceholderText(in_words("shop-page.no-folder"));
    line->addWidget(folder_, 1);
    auto* choose = button(in_words("shop-page.choose-folder"), Role::Plain, row);
    choose->setObjectName("choose folder");
    line->addWidget(choose);
    connect(choose, &QPushButton::clicked, this, [this] {
        const QString folder = FileChooser::folder(this, in_words("shop-page.folder-of-photographs"), folder_->text());
        if (!folder.isEmpty()) edit([&](Shop& s) { s.photograph_folder = folder.toStdString(); });
    });
    grid->addWidget(row, 5, 0, 1, 2);
    connect(&desk_, &Desk::records_changed, this, &WorkPanel::refresh);
}

void WorkPanel::pace_row(QVBoxLayout* into, const std::string& name, double table) {
    const Shop& shop = desk_.shop();
    const auto own = std::find_if(shop.paces.begin(), shop.paces.end(), [&](const Pace& p) { return p.of == name; });
    const QString what = in_words(("pace." + name).c_str());
    auto* row = new QWidget(this);
    auto* line = row_in(row);
    QLabel* said = label(what, own == shop.paces.end() ? Role::Plain : Role::Good, row);
    said->setMinimumWidth(Theme::px(190));
    line->addWidget(said, 1);
    auto* minutes = new QDoubleSpinBox(row);
    minutes->setRange(0, 600);
    minutes->setDecimals(2);
    minutes->setSingleStep(0.1);
    minutes->setSuffix(in_words("bench-view.minutes-suffix"));
    minutes->setKeyboardTracking(false);
    minutes->setButtonSymbols(QAbstractSpinBox::NoButtons);
    minutes->setValue(own == shop.paces.end() ? table : own->seconds / 60.0);
    minutes->setAccessibleName(what);
    minutes->setObjectName(QString::fromStdString("pace-" + name));
    line->addWidget(minutes);
    connect(minutes, &QDoubleSpinBox::editingFinished, this, [this, minutes, name, table] {
        const double typed = minutes->value();
        Shop changed = desk_.shop();
        set_pace(changed, name, std::abs(typed - table) < 0.005 ? std::nullopt : std::optional(typed));
        if (!(changed == desk_.shop())) edit([&](Shop& s) { s = changed; });
    });
    const auto all = taught(desk_.paces(), desk_.library().trade.hands_on);
    const auto seen = std::find_if(all.begin(), all.end(), [&](const TaughtPace& t) { return t.pace == name; });
    if (seen != all.end() && std::abs(seen->minutes - minutes->value()) >= 0.01) {
        QPushButton* take =
            button(in_words("shop-page.take-seen", {{"minutes", in_minutes(seen->minutes)}, {"times", seen->times}}),
                   Role::Text, row);
        take->setObjectName(QString::fromStdString("take-" + name));
        take->setToolTip(in_words("shop-page.seen-why"));
        line->addWidget(take);
        connect(take, &QPushButton::clicked, this, [this, name, taught_minutes = seen->minutes] {
            edit([&](Shop& s) { set_pace(s, name, taught_minutes); });
        });
    }
    if (own != shop.paces.end()) {
        QPushButton* back =
            button(in_words("shop-page.as-the-table", {{"minutes", in_minutes(table)}}), Role::Text, row);
        back->setAccessibleName(what + ": " + back->text());
        line->addWidget(back);
        connect(back, &QPushButton::clicked, this,
                [this, name] { edit([&](Shop& s) { set_pace(s, name, std::nullopt); }); });
    }
    into->addWidget(row);
}

void WorkPanel::refresh() {
    if (!folder_->hasFocus()) folder_->setText(text_of(desk_.shop().photograph_folder));
    empty(left_);
    empty(right_);
    const HandsOn& table = desk_.library().trade.hands_on;
    std::size_t row = 0;
    for (const auto& [name, minutes] : pace_names) {
        QWidget* side = row++ < (pace_names.size() + 1) / 2 ? left_ : right_;
        pace_row(static_cast<QVBoxLayout*>(side->layout()), std::string(name), table.*minutes);
    }
}

}  // namespace skarvel
