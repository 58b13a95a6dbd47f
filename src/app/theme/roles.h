// theme/roles.h
//
// What a widget is in the window, beside its kind. The theme gives it its type, its colour and its ground, and gives
// them anew when the theme changes; style.h draws it.
#pragma once

#include <QColor>
#include <QFont>

class QLineEdit;
class QWidget;

namespace skarvel {

enum class Role {
    Plain,
    // Words.
    Display,
    Title,
    Value,
    Small,
    Hint,   // what follows from what is typed
    Quiet,  // the name of a fact
    Wrong,  // why what is typed cannot be read
    Good,
    Look,
    Stop,
    // Buttons.
    Main,     // what a maker does next
    Text,     // a deed among words
    Group,    // the head of a group that folds
    Bar,      // on the top bar
    Job,      // the job at hand, on the top bar
    Segment,  // one of a few that belong together
    Done,     // over the whole bench for a moment
    Alarm,    // the same, and urgent
    // Fields.
    Callout,  // a measure on the drawing
    // Grounds.
    Sheet,
    Line,    // a line that parts
    TopBar,  // with a line below
    Edge,    // with a line on the left
    Notice,
    Card
};

void dress(QWidget* widget, Role role);
[[nodiscard]] Role role_of(const QWidget* widget);
/// Type that a view works out itself, in place of that of its role; a colour that is not valid leaves the role's.
void set_type(QWidget* widget, const QFont& font, const QColor& colour = {});
/// Whether what is typed cannot be read.
void mark_wrong(QLineEdit* field, bool wrong);
[[nodiscard]] bool is_wrong(const QWidget* field);
/// For the theme: every widget that has a role is dressed again.
void dress_all();

}  // namespace skarvel
