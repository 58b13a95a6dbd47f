#include "making/making.h"

#include <algorithm>

namespace skarvel {
namespace {

constexpr Length decal_border = 0.125_in;  // from memory: enough to pull the waste off by
constexpr Length usual_tie = 0.125_in;     // from memory
constexpr Length margin_unknown_tool = 1_in;

template <class T>
T found_or(const std::vector<T>& known, const std::string& id, T otherwise) {
    const auto at = std::find_if(known.begin(), known.end(), [&](const T& t) { return t.id == id; });
    return at == known.end() ? otherwise : *at;
}

}  // namespace

bool is_printed(const MakingPlan& making) { return making.way == Way::Decal && making.film.kind == "printable"; }

MakingPlan resolve(const Making& making, const std::vector<Film>& films, const std::vector<Tool>& tools) {
    MakingPlan plan;
    plan.way = making.way;
    plan.film = found_or(films, making.film, Film{making.film, making.film, "", false});
    plan.tool = found_or(tools, making.tool, Tool{making.tool, making.tool, margin_unknown_tool, false});
    plan.margin = plan.way == Way::Decal ? decal_border : making.margin ? making.margin->value : plan.tool.margin;
    plan.lap = making.lap.value;
    // Less than none is none: film that ends within its ink could not be painted.
    plan.margin = std::max(plan.margin, Length{});
    plan.lap = std::max(plan.lap, Length{});
    plan.wishes = making.wishes;
    plan.lay_from = making.lay_from;
    // A decal is used up where it is laid, and its border comes off before.
    if (plan.way == Way::Decal) {
        plan.wishes.whole_margins = false;
        plan.wishes.copies = 0;
        plan.wishes.masks_again = false;
    }
    // A mask that is used again must come off and go on in one.
    if (plan.way == Way::PaintThrough)
        plan.tie = making.tie ? making.tie->value : plan.film.kind == "reusable" ? usual_tie : Length{};
    plan.tie = std::max(plan.tie, Length{});
    return plan;
}

}  // namespace skarvel
