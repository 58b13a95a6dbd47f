// window/errand.h
//
// Errand: work beside the window whose result is wanted once. A new one stops the one before; what comes back from that
// is dropped. The window never waits for work that it has stopped: that ends by itself, a look or two later.
#pragma once

#include <QObject>
#include <atomic>
#include <functional>
#include <list>
#include <memory>
#include <thread>

#include "values/stop.h"
#include "window/hand_over.h"

namespace skarvel {

template <class T>
class Errand {
  public:
    /// Results are handed over in the thread of `home`, which must own the errand.
    explicit Errand(QObject* home) : home_(home) {}

    void run(std::function<T(const std::stop_token&)> work, std::function<void(const T&)> done) {
        run_telling([work = std::move(work)](const std::stop_token& stop,
                                             const std::function<void(T)>& tell) { tell(work(stop)); },
                    [this, done = std::move(done)](const T& result) {
                        busy_ = false;
                        done(result);
                    });
    }
    /// Work that comes to several results, told one by one.
    void run_telling(std::function<void(const std::stop_token&, const std::function<void(T)>&)> work,
                     std::function<void(const T&)> told) {
        stop();
        const std::uint64_t number = ++number_;
        busy_ = true;
        Going& going = going_.emplace_back();
        going.thread = std::jthread([this, number, ended = going.ended, work = std::move(work),
                                     told = std::move(told)](const std::stop_token& stop) {
            const auto tell = [this, number, &told](T result) {
                hand_over(home_, [this, number, told, result = std::make_shared<const T>(std::move(result))] {
                    if (number == number_) told(*result);
                });
            };
            try {
                const WhileStoppable stoppable(stop);
                work(stop, tell);
            } catch (const std::exception&) {  // stopped, or not to be had: either way there is nothing to tell
            }
            hand_over(home_, [this, number] {
                if (number == number_) busy_ = false;
            });
            *ended = true;
        });
    }
    void stop() {
        ++number_;
        busy_ = false;
        for (Going& going : going_) going.thread.request_stop();
        std::erase_if(going_, [](const Going& going) { return going.ended->load(); });
    }
    [[nodiscard]] bool busy() const { return busy_; }

  private:
    struct Going {
        std::shared_ptr<std::atomic<bool>> ended = std::make_shared<std::atomic<bool>>(false);
        std::jthread thread;
    };
    QObject* home_;
    std::uint64_t number_ = 0;
    bool busy_ = false;
    std::list<Going> going_;  // the last one may be wanted; the others are on their way out
};

}  // namespace skarvel
