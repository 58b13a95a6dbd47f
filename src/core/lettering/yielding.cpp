#include "lettering/yielding.h"

#include <algorithm>

namespace skarvel {
namespace {

std::vector<Problem> stops_of(const LetteringPlan& plan) {
    std::vector<Problem> stops;
    std::copy_if(plan.problems.begin(), plan.problems.end(), std::back_inserter(stops),
                 [](const Problem& p) { return p.mark == Mark::Stop; });
    return stops;
}

}  // namespace

TriedDimension try_dimension(const Lettering& lettering, std::size_t text, const LetteringRoom& room,
                             const std::vector<Typeface>& typefaces,
                             const std::function<void(Text&, const Measure&)>& set, const Measure& was,
                             const Measure& typed, const Display& display) {
    const std::size_t before = stops_of(place(lettering, room, typefaces)).size();
    const auto stops_with = [&](const Measure& m) {
        Lettering tried = lettering;
        set(tried.texts.at(text), m);
        return stops_of(place(tried, room, typefaces));
    };
    TriedDimension out;
    const std::vector<Problem> stops = stops_with(typed);
    if (stops.size() <= before) return out;
    out.fits = false;
    out.hurts = stops.back();
    // Steps of the tape from the old value towards the typed one; the old one is known to be no worse than now.
    const Length step = display.unit == Unit::Inch ? Length::inches(1) / display.denominator : Length::from_mm(1);
    const bool upwards = typed.value > was.value;
    const Length way = upwards ? typed.value - was.value : was.value - typed.value;
    std::int64_t good = 0;
    std::int64_t bad = way.nm() / step.nm() + 1;
    const std::int64_t below = was.value.nm() / step.nm() - (was.value.nm() % step.nm() < 0 ? 1 : 0);
    const std::int64_t above = step * below == was.value ? below : below + 1;
    const auto at = [&](std::int64_t steps) {
        return measure_of(step * (upwards ? below + steps : above - steps), display);
    };
    while (bad - good > 1) {
        const std::int64_t half = (good + bad) / 2;
        (stops_with(at(half)).size() <= before ? good : bad) = half;
    }
    out.nearest = good == 0 ? was : at(good);
    out.over = upwards ? typed.value - out.nearest.value : out.nearest.value - typed.value;
    return out;
}

}  // namespace skarvel
