// values/shared.h
//
// Shared: a value that never changes and that many may hold. A copy costs a pointer; equal means equal in what is held,
// and the same object is equal without a look.
#pragma once

#include <memory>
#include <utility>

namespace skarvel {

template <class T>
class Shared {
  public:
    Shared() = default;
    Shared(T value) : held_(std::make_shared<const T>(std::move(value))) {}  // NOLINT(google-explicit-constructor)

    [[nodiscard]] const T& operator*() const { return *held_; }
    [[nodiscard]] const T* operator->() const { return held_.get(); }
    [[nodiscard]] const T* get() const { return held_.get(); }
    /// False where nothing is held.
    [[nodiscard]] explicit operator bool() const { return held_ != nullptr; }

    friend bool operator==(const Shared& a, const Shared& b) {
        return a.held_ == b.held_ || (a.held_ && b.held_ && *a.held_ == *b.held_);
    }

  private:
    std::shared_ptr<const T> held_;
};

}  // namespace skarvel
