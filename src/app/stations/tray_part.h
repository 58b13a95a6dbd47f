// stations/tray_part.h
//
// A part of a tray that does one thing of its own: fields under their names, and what it found, until the job or the
// shop is another.
#pragma once

#include <QVBoxLayout>

#include "window/desk.h"
#include "window/fields.h"

namespace skarvel {

class TrayPart : public QWidget {
    Q_OBJECT

  public:
    TrayPart(Desk& desk, QWidget* parent);
    /// Shows the job and its plan; called whenever either has changed.
    void refresh();
    /// Takes rows away. What was clicked may be among them, so they go once its click is over.
    static void clear(QWidget* rows);

  protected:
    /// What was found holds no longer.
    virtual void forget() = 0;
    virtual void show_found() = 0;

    void add(QWidget* widget) { rows_->addWidget(widget); }
    /// A field under its name.
    template <class T>
    T* field(const QString& name, T* widget) {
        return field_in(rows_, name, widget);
    }
    template <class T>
    T* field_in(QVBoxLayout* rows, const QString& name, T* widget) {
        QLabel* caption = label(name, Role::Small, this);
        caption->setContentsMargins(0, 4, 0, 0);
        rows->addWidget(caption);
        rows->addWidget(widget);
        return widget;
    }
    /// Rows that are made anew each time.
    QWidget* list(const QString& name);
    [[nodiscard]] QString say(const Reason& reason) const;
    [[nodiscard]] QString length(Length l) const;

    Desk& desk_;

  private:
    QVBoxLayout* rows_;
    Job job_;
    Shop shop_;
};

}  // namespace skarvel
