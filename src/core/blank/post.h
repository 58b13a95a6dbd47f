// blank/post.h
//
// Post: several signs one above the other on a post, from the top down, and the marks to make on the post.
#pragma once

#include <string>
#include <vector>

#include "measure/reading.h"
#include "text/reason.h"
#include "values/id.h"

namespace skarvel {

struct PostArm {
    SignId sign;
    Measure gap{"1 in", Length::inches(1)};  ///< to the arm above; of the first to the top of the post
    friend bool operator==(const PostArm&, const PostArm&) = default;
};

struct Post {
    Measure height{"72 in", Length::inches(72)};  ///< above the ground
    Measure buried{"24 in", Length::inches(24)};
    Measure width{"3 1/2 in", Length::sixtyfourths(224)};
    std::vector<PostArm> arms;
    friend bool operator==(const Post&, const Post&) = default;
};

struct PostSign {
    SignId sign;
    std::string name;
    Length height;
};

struct ArmPlan {
    SignId sign;
    Length from_top;     ///< of the post, to its upper edge: the mark to make
    Length top, bottom;  ///< above the ground
    friend bool operator==(const ArmPlan&, const ArmPlan&) = default;
};

struct PostPlan {
    std::vector<ArmPlan> arms;
    Length sawn;  ///< how long the post is cut
    std::vector<Reason> steps;
    std::vector<Problem> problems;
    friend bool operator==(const PostPlan&, const PostPlan&) = default;
};

/// Arms of signs that are not there are left out.
PostPlan set_on_post(const Post& post, const std::vector<PostSign>& signs);

}  // namespace skarvel
