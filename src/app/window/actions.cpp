#include "window/actions.h"

#include "theme/words.h"

namespace skarvel {

QAction* Actions::add(const std::string& id, const QString& name, const QKeySequence& keys,
                      const std::function<void()>& act) {
    auto* action = new QAction(name, home_);
    action->setShortcut(keys);
    QObject::connect(action, &QAction::triggered, home_, act);
    home_->addAction(action);
    all_.push_back(action);
    by_id_.emplace(id, action);
    return action;
}

void Actions::put_on(QPushButton* button, const std::string& id) const {
    QAction* action = at(id);
    button->setAccessibleName(action->text());
    const QString keys = action->shortcut().toString(QKeySequence::NativeText);
    button->setToolTip(keys.isEmpty() ? action->text()
                                      : in_words("window.name-and-keys", {{"name", action->text()}, {"keys", keys}}));
    QObject::connect(button, &QPushButton::clicked, action, &QAction::trigger);
    QObject::connect(action, &QAction::enabledChanged, button, &QPushButton::setEnabled);
}

std::vector<Found> Actions::found() const {
    std::vector<Found> out;
    for (QAction* action : all_) {
        if (action->isEnabled()) out.push_back({action->text(), [action] { action->trigger(); }});
    }
    return out;
}

}  // namespace skarvel
