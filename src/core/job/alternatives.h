// job/alternatives.h
//
// Alternatives: other ways to cut one colour of a face, each planned in full beside the job as it is: another mat, two
// mats taped together, a length of roll; lettering smaller by the least that saves a load, all of it or only the line
// that is too long; other laps; what repeats cut once or a few times and laid again; letters crossed where that saves a
// load; another film that lies in the drawer, where the one wanted has to be bought. Each is a changed job, so taking
// one is a command like any other. Kept are those that can be done, and that come out differently; best first: fewest
// seams across ink, fewest loads, least film, least time.
#pragma once

#include <functional>
#include <stop_token>

#include "job/face_commands.h"

namespace skarvel {

struct CutFigures {
    int sections = 0, loads = 0, crossings = 0,
        words = 0;         ///< loads of the whole job; the others, and words parted, of the colour
    Length film, crossed;  ///< film of the whole job
    Length to_buy{};       ///< of that, what no roll of the drawer holds
    Minutes hands_on{0};   ///< of the whole job
    friend bool operator==(const CutFigures&, const CutFigures&) = default;
};

struct Alternative {
    Reason what;
    CutFigures figures;
    Job job;
    Shared<Plan> plan{};  ///< of that job, for looking at it
    friend bool operator==(const Alternative&, const Alternative&) = default;
};

CutFigures figures_of(const Plan& plan, const ColourId& colour);

/// Told whenever another one is found: all so far, best first.
using ToldWays = std::function<void(const std::vector<Alternative>&)>;

/// Empty where the job has no such colour or cannot be planned as it is, or `stop` was requested.
std::vector<Alternative> alternatives(const Job& job, const ColourId& colour, const Shop& shop, const Library& library,
                                      const Present& present, const std::stop_token& stop = {},
                                      const ToldWays& told = {});

}  // namespace skarvel
