// What the tests of blanks share.
#pragma once

#include "blank/blank.h"
#include "support.h"

namespace skarvel::testing {

inline BlankPlan measured(const Blank& b) {
    return measure_up(b, library().trade.stock, library().trade.densities, library().trade.hanging);
}

inline Blank blank_of(Kind kind, const char* length, const char* width) {
    Blank b;
    b.kind = kind;
    b.length = measure(length);
    b.width = measure(width);
    b.margin = measure("0");
    return b;
}

}  // namespace skarvel::testing
