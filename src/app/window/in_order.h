// window/in_order.h
//
// InOrder: small work beside the window, done one after the other as it came. What was begun is done before it ends.
#pragma once

#include <condition_variable>
#include <functional>
#include <mutex>
#include <queue>
#include <thread>

namespace skarvel {

class InOrder {
  public:
    InOrder() : worker_([this] { work(); }) {}
    ~InOrder() {
        const std::lock_guard held(lock_);
        closing_ = true;
        changed_.notify_all();
    }
    InOrder(const InOrder&) = delete;
    InOrder& operator=(const InOrder&) = delete;

    /// `task` must not throw.
    void start(std::function<void()> task) {
        const std::lock_guard held(lock_);
        waiting_.push(std::move(task));
        changed_.notify_all();
    }
    /// Until all that was started is done.
    void wait() {
        std::unique_lock held(lock_);
        changed_.wait(held, [this] { return waiting_.empty(); });
    }

  private:
    void work() {
        std::unique_lock held(lock_);
        while (true) {
            changed_.wait(held, [this] { return closing_ || !waiting_.empty(); });
            if (waiting_.empty()) return;
            const std::function<void()>& task = waiting_.front();
            held.unlock();
            task();
            held.lock();
            waiting_.pop();
            changed_.notify_all();
        }
    }

    std::mutex lock_;
    std::condition_variable changed_;
    std::queue<std::function<void()>> waiting_;
    bool closing_ = false;
    std::jthread worker_;  // last, so that it ends before what it works with
};

}  // namespace skarvel
