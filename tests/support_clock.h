// Tasks as the tests of the clock make them up.
#pragma once

#include "clock/schedule.h"

namespace skarvel::testing {

inline Task task(const std::string& id, int minutes, std::vector<Wait> waits = {}) {
    Task t;
    t.id.name = id;
    t.hands_on = Minutes(minutes);
    t.waits = std::move(waits);
    return t;
}

/// `most`: a window, so long after the end of that task.
inline Wait after(std::size_t i, int least, std::optional<int> most = std::nullopt) {
    Wait w{i, Minutes(least), std::nullopt, {}};
    if (most) w.at_most = Minutes(*most);
    return w;
}

}  // namespace skarvel::testing
