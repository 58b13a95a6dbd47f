// window/alarms.h
//
// Alarms: calls the maker to the bench when something is dry or a window is about to close, wherever the window shows:
// by a knock, a notice of the desktop, and a flash at the bench, as the shop has it. What there is no device or
// desktop for stays away without a word; what is called for is told in the window in any case.
#pragma once

#include <QTimer>
#include <memory>

#include "bench/calls.h"
#include "window/desk.h"

namespace skarvel {

/// The ways by which the machine can make itself noticed; a test puts another in its place.
class Caller {
  public:
    virtual ~Caller() = default;
    virtual void knock() = 0;
    virtual void notice(const QString& title, const QString& words, bool urgent) = 0;
    virtual void say(const QString& words) = 0;
    /// The screen stays as it is while that is asked for.
    virtual void keep_awake(bool awake) = 0;
};
/// What this machine has: its sound, its desktop, its speech.
std::unique_ptr<Caller> machine_caller(const std::filesystem::path& assets);

class Alarms : public QObject {
    Q_OBJECT

  public:
    Alarms(Desk& desk, std::unique_ptr<Caller> caller, QObject* parent);
    /// Looks at the clock now; it does so every second by itself.
    void look();
    void read_aloud(const QString& words);
    void keep_awake(bool awake) { caller_->keep_awake(awake); }

  Q_SIGNALS:
    void flashed(const QString& words, bool urgent);

  private:
    Desk& desk_;
    std::unique_ptr<Caller> caller_;
    QTimer seconds_;
    std::filesystem::path of_;  ///< the job that was looked at last
    std::optional<Moment> looked_;
};

}  // namespace skarvel
