#include "theme/roles.h"

#include <QApplication>
#include <QLabel>
#include <QLineEdit>
#include <QPalette>

#include "theme/theme.h"

namespace skarvel {
namespace {

constexpr const char* role_key = "role";
constexpr const char* own_type_key = "own-type";
constexpr const char* wrong_key = "wrong";

struct Type {
    Role role;
    int size;
    int weight;
    QColor Tokens::*colour;
};

// In the order of the roles; a button's colours depend on what is done with it (style.cpp).
constexpr Type types[] = {{Role::Display, 32, QFont::DemiBold, &Tokens::graphite},
                          {Role::Title, 18, QFont::DemiBold, &Tokens::graphite},
                          {Role::Value, 18, QFont::Medium, &Tokens::graphite},
                          {Role::Small, 13, QFont::Normal, &Tokens::pencil},
                          {Role::Hint, 13, QFont::Normal, &Tokens::pencil},
                          {Role::Quiet, 15, QFont::Normal, &Tokens::pencil},
                          {Role::Wrong, 13, QFont::Normal, &Tokens::brick},
                          {Role::Good, 15, QFont::DemiBold, &Tokens::moss},
                          {Role::Look, 15, QFont::DemiBold, &Tokens::ochre},
                          {Role::Stop, 15, QFont::DemiBold, &Tokens::brick},
                          {Role::Main, 15, QFont::DemiBold, nullptr},
                          {Role::Text, 15, QFont::DemiBold, nullptr},
                          {Role::Group, 15, QFont::DemiBold, nullptr},
                          {Role::Job, 18, QFont::DemiBold, nullptr},
                          {Role::Done, 44, QFont::DemiBold, nullptr},
                          {Role::Alarm, 44, QFont::DemiBold, nullptr},
                          {Role::Callout, 15, QFont::Medium, nullptr}};

void colour_words(QWidget* widget, const QColor& colour) {
    QPalette palette = widget->palette();
    palette.setColor(QPalette::WindowText, colour);
    widget->setPalette(palette);
}

void apply(QWidget* widget, Role role) {
    if (role >= Role::Sheet) widget->setAttribute(Qt::WA_StyledBackground);
    if (widget->property(own_type_key).toBool()) return;
    for (const Type& type : types) {
        if (type.role != role) continue;
        widget->setFont(Theme::font(type.size, type.weight));
        if (type.colour != nullptr) colour_words(widget, Theme::tokens().*type.colour);
    }
}

}  // namespace

void dress(QWidget* widget, Role role) {
    const QVariant before = widget->property(role_key);
    if (before.isValid() && before.toInt() == static_cast<int>(role)) return;
    if (role == Role::Plain && !before.isValid()) return;
    widget->setProperty(role_key, static_cast<int>(role));
    if (role == Role::Plain) {
        widget->setFont({});
        widget->setPalette({});
    }
    apply(widget, role);
    widget->updateGeometry();
    widget->update();
}

Role role_of(const QWidget* widget) {
    return widget == nullptr ? Role::Plain : static_cast<Role>(widget->property(role_key).toInt());
}

void set_type(QWidget* widget, const QFont& font, const QColor& colour) {
    widget->setProperty(own_type_key, true);
    widget->setFont(font);
    if (colour.isValid()) colour_words(widget, colour);
}

void mark_wrong(QLineEdit* field, bool wrong) {
    if (is_wrong(field) == wrong) return;
    field->setProperty(wrong_key, wrong);
    field->update();
}

bool is_wrong(const QWidget* field) { return field != nullptr && field->property(wrong_key).toBool(); }

void dress_all() {
    for (QWidget* widget : QApplication::allWidgets()) apply(widget, role_of(widget));
}

}  // namespace skarvel
