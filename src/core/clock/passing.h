// clock/passing.h
//
// Passing: how waits pass on the clock on the wall. Hours of drying run by night as by day; where the clock is put
// forward or back in between, and on days that are colder, damper or warmer than the room usually is, they end at
// another hour than their length says.
#pragma once

#include <vector>

#include "text/reason.h"

namespace skarvel {

/// The clock on the wall is put on by so much at that moment, as it showed before; back where that is negative.
struct ClockChange {
    Moment at{};
    Minutes by{0};
    friend bool operator==(const ClockChange&, const ClockChange&) = default;
};

/// A day on which what dries takes so many times as long as it was planned with.
struct SlowDay {
    Moment day{};  ///< its midnight
    double slower = 1;
    friend bool operator==(const SlowDay&, const SlowDay&) = default;
};

class Passing {
  public:
    Passing() = default;
    Passing(const std::vector<ClockChange>& changes, const std::vector<SlowDay>& days);

    /// When a wait from that moment is over. `dries`: it is one that slow days make longer.
    [[nodiscard]] Moment after(Moment from, Minutes wait, bool dries) const;
    /// The latest moment from which a wait is over by `until`.
    [[nodiscard]] Moment before(Moment until, Minutes wait, bool dries) const;
    /// No wait of that length is shorter than this, but for clocks that are put back.
    [[nodiscard]] Minutes least(Minutes wait, bool dries) const;
    /// By so much are clocks put back between the two.
    [[nodiscard]] Minutes put_back(Moment from, Moment until) const;

  private:
    // In order; apart from them a minute is a minute.
    struct Stretch {
        Moment from{}, to{};
        double real = 1, drying = 1;  // minutes that pass, and that count, in one of the clock
    };
    std::vector<Stretch> stretches_;
    std::vector<ClockChange> changes_;
    double fastest_ = 1;
};

}  // namespace skarvel
