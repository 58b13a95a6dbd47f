#include "clock/passing.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace skarvel {

Passing::Passing(const std::vector<ClockChange>& changes, const std::vector<SlowDay>& days) : changes_(changes) {
    using std::chrono::hours;
    std::set<Moment> edges;
    // An hour that is left out passes in no time; one that comes twice takes two.
    const auto skipped = [](const ClockChange& c) {
        return c.by > Minutes(0) ? std::pair(c.at, c.at + c.by) : std::pair(c.at + c.by, c.at);
    };
    for (const ClockChange& c : changes) {
        const auto [from, to] = skipped(c);
        edges.insert({from, to});
    }
    for (const SlowDay& d : days) {
        if (d.slower <= 0) continue;
        edges.insert({d.day, d.day + hours(24)});
        fastest_ = std::max(fastest_, 1 / d.slower);
    }
    for (auto from = edges.begin(); from != edges.end() && std::next(from) != edges.end(); ++from) {
        Stretch s{*from, *std::next(from)};
        for (const ClockChange& c : changes) {
            const auto [first, last] = skipped(c);
            if (first <= s.from && s.to <= last && first < last) s.real = c.by > Minutes(0) ? 0 : 2;
        }
        s.drying = s.real;
        for (const SlowDay& d : days) {
            if (d.slower > 0 && d.day <= s.from && s.to <= d.day + hours(24)) s.drying = s.real / d.slower;
        }
        if (s.real != 1 || s.drying != 1) stretches_.push_back(s);
    }
}

Moment Passing::after(Moment from, Minutes wait, bool dries) const {
    if (stretches_.empty() || wait <= Minutes(0)) return from + std::max(wait, Minutes(0));
    auto left = static_cast<double>(wait.count());
    auto at = std::upper_bound(stretches_.begin(), stretches_.end(), from,
                               [](Moment m, const Stretch& s) { return m < s.to; });
    for (; at != stretches_.end(); ++at) {
        if (at->from > from) {
            const auto plain = static_cast<double>((at->from - from).count());
            if (left <= plain) break;
            left -= plain;
            from = at->from;
        }
        const double rate = dries ? at->drying : at->real;
        const double passes = static_cast<double>((at->to - from).count()) * rate;
        if (left <= passes) return from + Minutes(static_cast<int>(std::ceil(left / rate)));
        left -= passes;
        from = at->to;
    }
    return from + Minutes(static_cast<int>(std::ceil(left)));
}

Moment Passing::before(Moment until, Minutes wait, bool dries) const {
    if (stretches_.empty() || wait <= Minutes(0)) return until - std::max(wait, Minutes(0));
    // A later beginning is never over sooner, so the search halves.
    Minutes back = wait;
    while (after(until - back, wait, dries) > until) back *= 2;
    Minutes least{0}, most = back;
    while (least < most) {
        const Minutes middle = (least + most) / 2;
        if (after(until - middle, wait, dries) <= until)
            most = middle;
        else
            least = middle + Minutes(1);
    }
    return until - most;
}

Minutes Passing::least(Minutes wait, bool dries) const {
    if (!dries || fastest_ == 1) return wait;
    return Minutes(static_cast<int>(std::floor(static_cast<double>(wait.count()) / fastest_)));
}

Minutes Passing::put_back(Moment from, Moment until) const {
    Minutes all{0};
    for (const ClockChange& c : changes_) {
        if (c.by < Minutes(0) && c.at > from && c.at <= until) all -= c.by;
    }
    return all;
}

}  // namespace skarvel
