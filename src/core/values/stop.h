// values/stop.h
//
// Stop: how long work is given up. While a WhileStoppable lives, every `look_for_stop` on its thread asks whether to
// go on, and throws Stopped where it is not. Loops and searches look at least every 20 ms of work; every run of the
// boolean library looks, so most of them do by what they call. Work is thus done whole or not at all, and no function
// has to say what it gives when it was stopped (docs/decisions/stopping-by-looking.md).
#pragma once

#include <exception>
#include <functional>
#include <stop_token>

namespace skarvel {

struct Stopped : std::exception {
    [[nodiscard]] const char* what() const noexcept override { return "stopped"; }
};

class WhileStoppable {
  public:
    explicit WhileStoppable(const std::stop_token& token);
    /// `asked` is called at every look; true stops. For tests and measurements.
    explicit WhileStoppable(std::function<bool()> asked);
    ~WhileStoppable();
    WhileStoppable(const WhileStoppable&) = delete;
    WhileStoppable& operator=(const WhileStoppable&) = delete;

  private:
    friend bool stop_asked();
    std::stop_token token_;
    std::function<bool()> asked_;
    const WhileStoppable* before_;  // the one that this one stands in for; both are asked
};

/// Throws Stopped where the work at hand is to stop.
void look_for_stop();
/// The same as a question, for where nothing may be thrown: in the calls of a C library.
bool stop_asked();

}  // namespace skarvel
