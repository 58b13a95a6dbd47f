#include "values/work.h"

#include <algorithm>
#include <charconv>

namespace skarvel {
namespace {

StepId made(const std::string& of, Work work, const std::string& which, int time) {
    std::string name = of + "/" + word_of(work);
    if (time > 1) name += "." + std::to_string(time);
    return {which.empty() ? name : name + "/" + which};
}

}  // namespace

bool is_of_face(Work work) {
    switch (work) {
        case Work::Cut:
        case Work::Weed:
        case Work::Tape:
        case Work::Stack:
        case Work::Lay:
        case Work::Seal:
        case Work::Colour:
        case Work::Lift:
            return false;
        default:
            return true;
    }
}

bool is_beside_blank(Work work) {
    return work == Work::Proof || work == Work::Cut || work == Work::Weed || work == Work::Tape || work == Work::Stack;
}

StepId step_id(const FaceId& of, Work work, const std::string& which) { return made(of.name, work, which, 1); }
StepId step_id(const ColourId& of, Work work, const std::string& which, int time) {
    return made(of.name, work, which, time);
}

std::optional<StepName> name_of(const StepId& step) {
    const std::string_view all = step.name;
    const std::size_t first = all.find('/');
    if (first == std::string_view::npos) return std::nullopt;
    const std::size_t second = all.find('/', first + 1);
    const std::string_view kind = all.substr(first + 1, second == std::string_view::npos ? second : second - first - 1);
    const std::size_t dot = kind.find('.');
    const auto work = from_word<Work>(kind.substr(0, dot));
    if (!work) return std::nullopt;
    StepName name{std::string(all.substr(0, first)), *work, 1, {}};
    if (dot != std::string_view::npos) {
        const auto [end, error] = std::from_chars(kind.data() + dot + 1, kind.data() + kind.size(), name.time);
        if (error != std::errc{} || end != kind.data() + kind.size() || name.time < 1) return std::nullopt;
    }
    if (second != std::string_view::npos) name.which = all.substr(second + 1);
    return name;
}

}  // namespace skarvel
