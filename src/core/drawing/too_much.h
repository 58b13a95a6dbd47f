// drawing/too_much.h
//
// How a drawing or an outline that is larger than it may be is refused.
#pragma once

#include "text/reason.h"
#include "values/limits.h"

namespace skarvel {

inline tl::unexpected<Problem> too_much(const std::string& name, Station where) {
    return refused({"outline.huge",
                    {{"file", name},
                     {"megabytes", static_cast<std::int64_t>(limits::file_megabytes)},
                     {"nodes", static_cast<std::int64_t>(limits::nodes)}}},
                   where, {"outline.simplify", {}});
}

/// The same where paths are too many in and over one another.
inline tl::unexpected<Problem> too_many_corners(const std::string& name, Station where) {
    return refused(
        {"outline.over-one-another", {{"file", name}, {"corners", static_cast<std::int64_t>(limits::corners)}}}, where,
        {"outline.simplify", {}});
}

}  // namespace skarvel
