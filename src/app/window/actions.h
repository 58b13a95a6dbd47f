// window/actions.h
//
// Actions: what can be done in the window, each once: its name, its keys, and doing it. Shortcuts, buttons and Find
// share them.
#pragma once

#include <QAction>
#include <QPushButton>
#include <QWidget>
#include <functional>
#include <map>
#include <string>
#include <vector>

#include "window/find.h"

namespace skarvel {

class Actions {
  public:
    /// Their keys work while `home` or something in it has the focus.
    explicit Actions(QWidget* home) : home_(home) {}

    /// \param id of the action, for buttons; none is given twice.
    QAction* add(const std::string& id, const QString& name, const QKeySequence& keys,
                 const std::function<void()>& act);
    [[nodiscard]] QAction* at(const std::string& id) const { return by_id_.at(id); }
    /// A button that does it, and says its keys.
    void put_on(QPushButton* button, const std::string& id) const;
    /// Those that can be done now, in their order, for Find.
    [[nodiscard]] std::vector<Found> found() const;

  private:
    QWidget* home_;
    std::vector<QAction*> all_;
    std::map<std::string, QAction*> by_id_;
};

}  // namespace skarvel
