#include "shop/shop_panel.h"

#include "theme/theme.h"

namespace skarvel {

void ShopPanel::edit(const std::function<void(Shop&)>& change) {
    Shop shop = desk_.shop();
    change(shop);
    desk_.set_shop(shop);
    refresh();
}

QLineEdit* ShopPanel::text(const QString& name, const std::string& shown_text,
                           const std::function<void(Shop&, const std::string&)>& set, QWidget* parent) {
    auto* made = new QLineEdit(QString::fromStdString(shown_text), parent);
    made->setAccessibleName(name);
    made->setObjectName(name);
    made->setCursorPosition(0);
    connect(made, &QLineEdit::editingFinished, this, [this, made, set] {
        const std::string typed = made->text().trimmed().toStdString();
        edit([&](Shop& s) { set(s, typed); });
    });
    return made;
}

MeasureField* ShopPanel::measure(const QString& name, const Measure& value,
                                 const std::function<void(Shop&, const Measure&)>& set, QWidget* parent) {
    auto* made = new MeasureField(desk_, name, parent);
    made->show_value(value);
    connect(made, &MeasureField::decided, this, [this, set](const Measure& m) {
        if (m.value > Length{}) edit([&](Shop& s) { set(s, m); });
    });
    return made;
}

QPushButton* ShopPanel::remover(const QString& name, const std::function<void(Shop&)>& remove, QWidget* parent) {
    QPushButton* made = button({}, Role::Text, parent);
    made->setIcon(Theme::icon("x"));
    made->setAccessibleName(name);
    made->setFixedWidth(Theme::px(26));
    connect(made, &QPushButton::clicked, this, [this, remove] { edit(remove); });
    return made;
}

QWidget* ShopPanel::list(QVBoxLayout* into, QWidget* parent) {
    auto* made = new QWidget(parent);
    auto* rows = new QVBoxLayout(made);
    rows->setContentsMargins(0, 0, 0, 0);
    rows->setSpacing(4);
    into->addWidget(made);
    return made;
}

void ShopPanel::empty(QWidget* holder) {
    while (QLayoutItem* item = holder->layout()->takeAt(0)) {
        if (item->widget() != nullptr) {
            item->widget()->hide();
            item->widget()->deleteLater();
        }
        delete item;
    }
}

QHBoxLayout* ShopPanel::row_in(QWidget* row) {
    auto* layout = new QHBoxLayout(row);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(4);
    return layout;
}

std::pair<QHBoxLayout*, QHBoxLayout*> ShopPanel::two_lines_in(QWidget* row) {
    auto* lines = new QVBoxLayout(row);
    lines->setContentsMargins(0, 0, 0, 6);
    lines->setSpacing(4);
    auto* first = new QHBoxLayout;
    auto* second = new QHBoxLayout;
    first->setSpacing(4);
    second->setSpacing(4);
    lines->addLayout(first);
    lines->addLayout(second);
    return {first, second};
}

}  // namespace skarvel
