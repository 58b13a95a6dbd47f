#include "blank/post.h"

#include <algorithm>

namespace skarvel {

PostPlan set_on_post(const Post& post, const std::vector<PostSign>& signs) {
    PostPlan plan;
    plan.sawn = post.height.value + post.buried.value;
    Length from_top;
    for (const PostArm& arm : post.arms) {
        const auto sign =
            std::find_if(signs.begin(), signs.end(), [&](const PostSign& s) { return s.sign == arm.sign; });
        if (sign == signs.end()) continue;
        from_top += arm.gap.value;
        plan.arms.push_back(
            {arm.sign, from_top, post.height.value - from_top, post.height.value - from_top - sign->height});
        plan.steps.push_back({"post.mark", {{"sign", sign->name}, {"from_top", from_top}}});
        from_top += sign->height;
    }
    if (from_top > post.height.value) {
        plan.problems.push_back({{"post.too-short", {{"over", from_top - post.height.value}}},
                                 Station::Blank,
                                 {"post.longer", {}},
                                 Mark::Stop});
    }
    // A third of what stands above the ground is the usual depth; a quarter the least (from memory).
    if (post.buried.value > Length{} && post.buried.value * 4 < post.height.value)
        plan.problems.push_back(
            {{"post.shallow", {{"buried", post.buried.value}}}, Station::Blank, {"post.deeper", {}}, Mark::Look});
    if (post.buried.value > Length{}) plan.steps.push_back({"post.dig-caution", {}});
    return plan;
}

}  // namespace skarvel
