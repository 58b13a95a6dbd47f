#include "job/sign_commands.h"

#include <algorithm>

#include "job/commands.h"

namespace skarvel {

Job signs_for_lines(const Job& job, std::size_t sign, const std::vector<std::string>& lines) {
    Job out = job;
    std::size_t at = sign;
    bool first = true;
    for (const std::string& line : lines) {
        const auto from = line.find_first_not_of(" \t\r");
        if (from == std::string::npos || at >= out.signs.size()) continue;
        const std::string words = line.substr(from, line.find_last_not_of(" \t\r") - from + 1);
        if (first)
            out.signs[at].faces.front().lettering.main().words = words;
        else
            out = copy_sign(out, at++, words);
        first = false;
    }
    return out;
}

Job at_one_cap_height(const Job& job, const Plan& plan, const Display& display) {
    const auto cap_of = [&](const Face& face) {
        const ColourPlan* planned = plan.of(face.id);
        return planned == nullptr || face.lettering.main().words.empty() ? Length{}
                                                                         : planned->face->lettering->cap_height;
    };
    Length least;
    for (const Sign& sign : job.signs) {
        for (const Face& face : sign.faces) {
            const Length cap = cap_of(face);
            if (cap > Length{} && (least == Length{} || cap < least)) least = cap;
        }
    }
    if (least == Length{}) return job;
    // Down to what a tape measure shows, so that it fits everywhere.
    const Length step = display.unit == Unit::Inch ? Length::inches(0, 1, 16) : Length::millimetres(1);
    if (least > step) least = Length::nanometres(least.nm() / step.nm() * step.nm());
    Job out = job;
    for (Sign& sign : out.signs) {
        for (Face& face : sign.faces) {
            if (cap_of(face) == Length{}) continue;
            Text& text = face.lettering.main();
            text.sizing = Sizing::CapHeight;
            text.size = measure_of(least, display);
        }
    }
    return out;
}

}  // namespace skarvel
