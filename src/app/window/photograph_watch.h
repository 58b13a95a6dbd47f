// window/photograph_watch.h
//
// Watches the folder into which a telephone puts its pictures: what comes there while a job is open is kept with the
// step that was at the bench when it was taken. What lay there before is left alone, and nothing there is ever changed.
#pragma once

#include <QFileSystemWatcher>
#include <QTimer>
#include <map>
#include <set>

#include "window/desk.h"

namespace skarvel {

class PhotographWatch : public QObject {
    Q_OBJECT

  public:
    PhotographWatch(Desk& desk, QObject* parent);

  private:
    void follow();
    void look();
    [[nodiscard]] std::map<std::filesystem::path, std::uintmax_t> pictures() const;
    Desk& desk_;
    QFileSystemWatcher watcher_;
    QTimer settle_;
    std::string folder_;
    std::set<std::filesystem::path> known_;
    std::map<std::filesystem::path, std::uintmax_t> coming_;  // how large each was at the last look
};

}  // namespace skarvel
