// window/errand.h
//
// Errand: work beside the window whose result is wanted once. A new one stops the one before; what comes back from that
// is dropped.
#pragma once

#include <QObject>
#include <functional>
#include <memory>
#include <thread>

namespace skarvel {

template <class T>
class Errand {
  public:
    /// Results are handed over in the thread of `home`, which must own the errand.
    explicit Errand(QObject* home) : home_(home) {}

    void run(std::function<T(const std::stop_token&)> work, std::function<void(const T&)> done) {
        stop();
        const std::uint64_t number = ++number_;
        busy_ = true;
        thread_ =
            std::jthread([this, number, work = std::move(work), done = std::move(done)](const std::stop_token& s) {
                auto result = std::make_shared<const T>(work(s));
                QMetaObject::invokeMethod(
                    home_,
                    [this, number, result, done] {
                        if (number != number_) return;
                        busy_ = false;
                        done(*result);
                    },
                    Qt::QueuedConnection);
            });
    }
    void stop() {
        ++number_;
        busy_ = false;
        if (thread_.joinable()) {
            thread_.request_stop();
            thread_.join();
        }
    }
    [[nodiscard]] bool busy() const { return busy_; }

  private:
    QObject* home_;
    std::uint64_t number_ = 0;
    bool busy_ = false;
    std::jthread thread_;
};

}  // namespace skarvel
