// Panels of any size, lettered in any way, for properties of cutting; and what a proof has against one, in the log.
#pragma once

#include <rapidcheck.h>

#include "proof/proof.h"
#include "support.h"

namespace skarvel::testing {

// A panel with words of any size, cut in any way on any bed of the usual shop.
inline Job any_panel() {
    Job job = panel_job("");
    Blank& b = job.signs.front().blank;
    b.length = measure_of(Length::sixtyfourths(*rc::gen::inRange(64 * 8, 64 * 60)), {Unit::Inch, 64});
    b.width = measure_of(Length::sixtyfourths(*rc::gen::inRange(64 * 5, 64 * 20)), {Unit::Inch, 64});
    b.stands = *rc::gen::element(Stands::Level, Stands::Upright);
    b.margin = measure("3/4");
    Text& t = lettering(job);
    t.words = *rc::gen::element<std::string>("OAR", "BOATHOUSE", "TEA ROOM", "Low Tide\nSlipway", "A8B%");
    t.typeface =
        *rc::gen::element(typeface("League Spartan", "Bold"), typeface("Lobster Two", "Bold"), typeface("Bebas Neue"));
    t.arrangement = *rc::gen::element(Arrangement::Level, Arrangement::Stack);
    t.letter_gap = measure(t.arrangement == Arrangement::Stack ? "1/2" : "0");
    t.line_gap = measure("1/2");
    making(job).way = *rc::gen::element(Way::Decal, Way::PaintThrough);
    making(job).lap = measure(*rc::gen::element("0", "1/8", "1/4"));
    if (*rc::gen::arbitrary<bool>()) making(job).tie = measure("1/8");
    const auto beds = beds_of(usual_shop().machines);
    making(job).bed = bed_name(beds.at(*rc::gen::inRange<std::size_t>(0, beds.size())));
    return job;
}

inline void log_wrong(const Evidence& e) {
    for (const Problem& problem : e.problems) RC_LOG() << library().catalogue.say(problem.what, {}) << "\n";
    for (const ColourProof& c : e.as_cut) {
        for (const Reason& why : c.wrong) RC_LOG() << library().catalogue.say(why, {}) << "\n";
    }
}

}  // namespace skarvel::testing
