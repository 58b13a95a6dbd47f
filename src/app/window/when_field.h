// window/when_field.h
//
// A moment that is typed as makers say it (text/when.h), shown as it was read before Enter, with a month to pick from.
#pragma once

#include <QCalendarWidget>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QWidget>

#include "window/desk.h"

namespace skarvel {

class WhenField : public QWidget {
    Q_OBJECT

  public:
    /// `called` names the line that is typed into.
    WhenField(Desk& desk, const QString& name, const QString& called, QWidget* parent = nullptr);
    void show_moment_of(Moment at);

  Q_SIGNALS:
    void decided(skarvel::Moment at);

  private:
    void read();
    void commit();
    void pick();
    void show_hint(const QString& words, bool wrong);

    Desk& desk_;
    QLineEdit* edit_;
    QPushButton* month_;
    QLabel* hint_;
    Moment at_{};
};

}  // namespace skarvel
