// shop/shop_panel.h
//
// What the panels of the shop's page share: fields that each change one thing of the shop, and lists of rows.
#pragma once

#include <QHBoxLayout>
#include <QPushButton>
#include <QVBoxLayout>
#include <QWidget>
#include <utility>

#include "window/fields.h"

namespace skarvel {

class ShopPanel : public QWidget {
    Q_OBJECT

  public:
    ShopPanel(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {}
    virtual void refresh() = 0;

  protected:
    void edit(const std::function<void(Shop&)>& change);
    QLineEdit* text(const QString& name, const std::string& shown,
                    const std::function<void(Shop&, const std::string&)>& set, QWidget* parent);
    /// Only lengths above nothing are taken.
    MeasureField* measure(const QString& name, const Measure& shown,
                          const std::function<void(Shop&, const Measure&)>& set, QWidget* parent);
    QPushButton* remover(const QString& name, const std::function<void(Shop&)>& remove, QWidget* parent);

    static QWidget* list(QVBoxLayout* into, QWidget* parent);
    static void empty(QWidget* holder);
    static QHBoxLayout* row_in(QWidget* row);
    /// Two lines of fields, one under the other.
    static std::pair<QHBoxLayout*, QHBoxLayout*> two_lines_in(QWidget* row);
    /// To the sixty-fourth, as sizes of things are kept.
    static Measure exactly(Length length) { return measure_of(length, {Unit::Inch, 64}); }

    Desk& desk_;
};

}  // namespace skarvel
