#include "window/when_field.h"

#include <QCalendarWidget>
#include <QHBoxLayout>
#include <QTextCharFormat>
#include <QToolButton>
#include <QVBoxLayout>

#include "text/when.h"
#include "theme/theme.h"
#include "theme/words.h"
#include "window/fields.h"
#include "window/moments.h"

namespace skarvel {
namespace {

// With the year, so that no moment is another one.
QString in_full(Moment at) {
    const QString shown = text_of(show_moment(at, true));
    const int year = static_cast<int>(std::chrono::year_month_day(std::chrono::floor<std::chrono::days>(at)).year());
    return shown.section(' ', 0, 2) + " " + QString::number(year) + "  " + shown.section(' ', 3);
}

}  // namespace

WhenField::WhenField(Desk& desk, const QString& name, const QString& called, QWidget* parent)
    : QWidget(parent), desk_(desk) {
    auto* rows = new QVBoxLayout(this);
    rows->setContentsMargins(0, 0, 0, 0);
    rows->setSpacing(2);
    auto* line = new QHBoxLayout;
    line->setSpacing(4);
    edit_ = new QLineEdit(this);
    edit_->setObjectName(called);
    edit_->setAccessibleName(name);
    line->addWidget(edit_, 1);
    month_ = button({}, Role::Plain, this);
    month_->setIcon(Theme::icon("chevron-down"));
    month_->setObjectName(called + " month");
    month_->setAccessibleName(in_words("when-field.pick"));
    month_->setToolTip(in_words("when-field.pick"));
    line->addWidget(month_);
    rows->addLayout(line);
    hint_ = label({}, Role::Small, this);
    hint_->setObjectName(called + " read as");
    hint_->setWordWrap(true);
    hint_->hide();
    rows->addWidget(hint_);
    connect(edit_, &QLineEdit::textEdited, this, &WhenField::read);
    connect(edit_, &QLineEdit::returnPressed, this, &WhenField::commit);
    connect(edit_, &QLineEdit::editingFinished, this, [this] {
        // Left without Enter: what could be read counts, what could not goes.
        if (!edit_->isModified()) return;
        if (read_when(edit_->text().toStdString(), desk_.now()))
            commit();
        else
            show_moment_of(at_);
    });
    connect(month_, &QPushButton::clicked, this, &WhenField::pick);
}

void WhenField::show_moment_of(Moment at) {
    at_ = at;
    if (edit_->hasFocus() && edit_->isModified()) return;
    edit_->setText(in_full(at));
    edit_->setModified(false);
    hint_->hide();
    mark_wrong(edit_, false);
}

void WhenField::show_hint(const QString& words, bool wrong) {
    dress(hint_, wrong ? Role::Wrong : Role::Hint);
    hint_->setText(words);
    hint_->show();
    mark_wrong(edit_, wrong);
}

void WhenField::read() {
    const auto at = read_when(edit_->text().toStdString(), desk_.now());
    if (at)
        show_hint(in_words("when-field.read-as", {{"moment", in_full(*at)}}), false);
    else
        show_hint(text_of(desk_.say(at.error())), true);
}

void WhenField::commit() {
    const auto at = read_when(edit_->text().toStdString(), desk_.now());
    if (!at) return show_hint(text_of(desk_.say(at.error())), true);
    edit_->setModified(false);
    show_moment_of(*at);
    Q_EMIT decided(*at);
}

// The hour stays as it is.
void WhenField::pick() {
    auto* popup = new QWidget(this, Qt::Popup);
    popup->setAttribute(Qt::WA_DeleteOnClose);
    dress(popup, Role::Notice);
    auto* rows = new QVBoxLayout(popup);
    rows->setContentsMargins(4, 4, 4, 4);
    auto* month = new QCalendarWidget(popup);
    month->setObjectName("month");
    month->setVerticalHeaderFormat(QCalendarWidget::NoVerticalHeader);
    // Days off are not told by colour: makers work on any day.
    QTextCharFormat day;
    day.setForeground(Theme::tokens().graphite);
    for (const Qt::DayOfWeek of : {Qt::Saturday, Qt::Sunday}) month->setWeekdayTextFormat(of, day);
    for (const auto& [button, icon] :
         {std::pair("qt_calendar_prevmonth", "chevron-left"), std::pair("qt_calendar_nextmonth", "chevron-right")}) {
        if (auto* turns = month->findChild<QToolButton*>(button))
            turns->setIcon(Theme::icon(icon, Theme::tokens().sheet));
    }
    month->setSelectedDate(to_qt(at_).date());
    rows->addWidget(month);
    connect(month, &QCalendarWidget::clicked, popup, [this, popup](const QDate& day) {
        const QDateTime at(day, to_qt(at_).time(), Qt::UTC);
        popup->close();
        edit_->setModified(false);
        show_moment_of(from_qt(at));
        Q_EMIT decided(from_qt(at));
    });
    popup->move(month_->mapToGlobal(QPoint(month_->width() - popup->sizeHint().width(), month_->height() + 2)));
    popup->show();
    month->setFocus();
}

}  // namespace skarvel
