// stations/pinned.h
//
// What follows from the tray's decisions, pinned at its top: the result in a line, and below it the weightiest thing to
// look at, or what is free. A click goes to where the tray says more.
#pragma once

#include <QAbstractButton>

#include "text/reason.h"

namespace skarvel {

class Pinned : public QAbstractButton {
    Q_OBJECT

  public:
    explicit Pinned(QWidget* parent);
    /// `more`: how many other things there are to look at. Its height follows from what it says.
    void show_result(const QString& first, const QString& second, Mark mark, int more);
    /// Where its words go, as wide as it is.
    [[nodiscard]] int height_for(int width) const;

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    [[nodiscard]] QStringList under(int width) const;
    [[nodiscard]] int room_of(int width) const;
    QString first_, second_;
    Mark mark_ = Mark::None;
};

}  // namespace skarvel
