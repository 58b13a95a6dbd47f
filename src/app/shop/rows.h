// shop/rows.h
//
// Lists of rows on the pages of the shop.
#pragma once

#include <QHBoxLayout>
#include <QVBoxLayout>
#include <QWidget>

namespace skarvel::shop_rows {

inline QWidget* list(QVBoxLayout* into, QWidget* parent) {
    auto* made = new QWidget(parent);
    auto* rows = new QVBoxLayout(made);
    rows->setContentsMargins(0, 0, 0, 0);
    rows->setSpacing(4);
    into->addWidget(made);
    return made;
}

inline void empty(QWidget* holder) {
    while (QLayoutItem* item = holder->layout()->takeAt(0)) {
        if (item->widget() != nullptr) {
            item->widget()->hide();
            item->widget()->deleteLater();
        }
        delete item;
    }
}

inline QHBoxLayout* row_in(QWidget* row) {
    auto* layout = new QHBoxLayout(row);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(4);
    return layout;
}

}  // namespace skarvel::shop_rows
