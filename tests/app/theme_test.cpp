// How the window's own style draws: what can be done with a button or a field shows on it, and type and colours follow
// the theme at once.
#include <QAbstractItemView>
#include <QPainter>
#include <QStyleOption>

#include "support_window.h"
#include "theme/roles.h"
#include "theme/theme.h"
#include "window/fields.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

// The button as the style draws it in that state.
QImage drawn(const QPushButton& button, QStyle::State state) {
    QImage image(button.size(), QImage::Format_ARGB32_Premultiplied);
    image.fill(Theme::tokens().paper);
    QPainter painter(&image);
    painter.setFont(button.font());
    QStyleOptionButton option;
    option.initFrom(&button);
    option.rect = button.rect();
    option.text = button.text();
    option.icon = button.icon();
    option.iconSize = button.iconSize();
    option.state = state;
    button.style()->drawControl(QStyle::CE_PushButton, &option, &painter, &button);
    return image;
}

// As windows of other tests have it.
struct DayAtHundred {
    DayAtHundred() {
        (void)application();
        Theme::set(false, 100);
    }
    ~DayAtHundred() { Theme::set(false, 100); }
};

}  // namespace

TEST_CASE("a button that is on, held, at hand or of no use looks so, whatever its role") {
    const DayAtHundred day;
    const Role role = GENERATE(Role::Plain, Role::Main, Role::Text, Role::Group, Role::Bar, Role::Job, Role::Segment);
    CAPTURE(static_cast<int>(role));
    QPushButton made("Lay it down");
    made.setIcon(Theme::icon("ruler"));
    dress(&made, role);
    made.resize(made.sizeHint());
    const QImage rest = drawn(made, QStyle::State_Enabled);
    CHECK(drawn(made, QStyle::State_Enabled) == rest);
    CHECK(drawn(made, QStyle::State_Enabled | QStyle::State_HasFocus) != rest);
    CHECK(drawn(made, QStyle::State_Enabled | QStyle::State_Sunken) != rest);
    CHECK(drawn(made, QStyle::State_None) != rest);
    // A group's mark turns; the others are filled.
    const bool filled = drawn(made, QStyle::State_Enabled | QStyle::State_On) != rest;
    CHECK(filled == (role != Role::Group));
}

TEST_CASE("a button has room for its words and its icon, at every size of text") {
    const DayAtHundred day;
    const int percent = GENERATE(100, 125, 150);
    Theme::set(false, percent);
    QPushButton made("Not dry yet");
    for (const Role role : {Role::Plain, Role::Main, Role::Text, Role::Group, Role::Bar, Role::Segment}) {
        dress(&made, role);
        made.setIcon({});
        const QSize words = made.fontMetrics().size(0, made.text());
        CHECK(made.sizeHint().width() >= words.width() + 8);
        CHECK(made.sizeHint().height() >= words.height());
        const int bare = made.sizeHint().width();
        made.setIcon(Theme::icon("ruler"));
        CHECK(made.sizeHint().width() >= bare + Theme::px(16));
    }
}

TEST_CASE("type and colours of what stands in the window follow the theme at once") {
    const DayAtHundred day;
    QWidget room;
    QLabel* small = label("5 keepers", Role::Small, &room);
    QLabel* plain = label("5 keepers", Role::Plain, &room);
    QLabel own("14", &room);
    set_type(&own, Theme::font(32), Theme::tokens().chalk);
    room.show();
    CHECK(small->font().pixelSize() == 13);
    CHECK(plain->font().pixelSize() == 15);
    Theme::set(true, 150);
    const Tokens night = Theme::tokens_for(true);
    CHECK(small->font().pixelSize() == 20);
    CHECK(plain->font().pixelSize() == 23);
    CHECK(own.font().pixelSize() == 32);  // by the view that works it out
    CHECK(small->palette().color(QPalette::WindowText) == night.pencil);
    CHECK(plain->palette().color(QPalette::WindowText) == night.graphite);
    // Another role is another type, and none is the window's again.
    dress(small, Role::Wrong);
    CHECK(small->palette().color(QPalette::WindowText) == night.brick);
    dress(small, Role::Plain);
    CHECK(small->font().pixelSize() == 23);
    CHECK(small->palette().color(QPalette::WindowText) == night.graphite);
}

TEST_CASE("a field that cannot be read, or is at hand, has an edge of its own") {
    const DayAtHundred day;
    const auto look = [](const QLineEdit& edit, QStyle::State state) {
        QImage image(edit.size(), QImage::Format_ARGB32_Premultiplied);
        image.fill(Theme::tokens().paper);
        QPainter painter(&image);
        QStyleOptionFrame option;
        option.initFrom(&edit);
        option.lineWidth = 1;
        option.state = state;
        edit.style()->drawPrimitive(QStyle::PE_PanelLineEdit, &option, &painter, &edit);
        return image;
    };
    QLineEdit edit;
    edit.resize(edit.sizeHint());
    const QImage rest = look(edit, QStyle::State_Enabled);
    const QImage at_hand = look(edit, QStyle::State_Enabled | QStyle::State_HasFocus);
    CHECK(at_hand != rest);
    CHECK(look(edit, QStyle::State_None) != rest);
    mark_wrong(&edit, true);
    CHECK(look(edit, QStyle::State_Enabled) != rest);
    CHECK(look(edit, QStyle::State_Enabled | QStyle::State_HasFocus) != at_hand);
    mark_wrong(&edit, false);
    CHECK(look(edit, QStyle::State_Enabled) == rest);
}

TEST_CASE("a drop-down lists its entries in rows of one line, below or above its field") {
    Window w;
    auto& choice = w.get<Choice>("kind of blank");
    choice.showPopup();
    QApplication::processEvents();
    const auto* list = choice.view();
    REQUIRE(list->isVisible());
    const int line = choice.fontMetrics().height();
    for (int i = 0; i < choice.count(); ++i) {
        const int high = list->visualRect(choice.model()->index(i, 0)).height();
        CHECK(high >= line);
        CHECK(high < 2 * line);
    }
    const QRect field(choice.mapToGlobal(QPoint()), choice.size());
    CHECK_FALSE(QRect(list->mapToGlobal(QPoint()), list->size()).adjusted(1, 1, -1, -1).intersects(field));
    choice.hidePopup();
}
