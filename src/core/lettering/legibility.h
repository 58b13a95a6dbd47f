// lettering/legibility.h
//
// Legibility: can it be read from where people stand? A verdict in words, never a refusal.
//
// Two opinions. The 2010 ADA Standards for Accessible Design, 703.5, for visual characters: least height by height
// above the floor and viewing distance (table 703.5.5), the width of O, the stroke of I, spacing of characters and of
// lines; values as handed down, from memory. And the sign makers' rule: one inch of letter height for every 10 ft reads
// with comfort, and for 25 to 30 ft at most (from memory). Contrast by WCAG 2.1: 4.5 to 1 is asked of text, 3 to 1 of
// large text; a sign is large text.
#pragma once

#include "lettering/lettering.h"

namespace skarvel {

/// Where it is read from.
struct Seen {
    Measure distance{"10 ft", Length::inches(120)};
    Measure above_floor{"60 in", Length::inches(60)};  ///< of the lettering's base line
    friend bool operator==(const Seen&, const Seen&) = default;
};

/// Least height of capitals (703.5.5), for a base line at that height above the floor; zero below 40 in, which the
/// table does not cover.
Length least_height(Length above_floor, Length distance);

/// How far capitals of this height are read with comfort, and at most.
struct Reach {
    Length comfortable, most;
    friend bool operator==(const Reach&, const Reach&) = default;
};
Reach reach_of(Length cap_height);

/// Proportions of a typeface as 703.5 reckons them, in shares of the height of I.
struct Proportions {
    double width_of_o = 0, stroke_of_i = 0;
    friend bool operator==(const Proportions&, const Proportions&) = default;
};
Proportions proportions_of(const Typeface& typeface, double stretch = 1);

struct Verdict {
    enum class Says { Good, Fair, Poor };
    Says says = Says::Good;
    Reason why;
    std::string basis;  ///< ADA 703.5.5, WCAG 2.1, from memory
    friend bool operator==(const Verdict&, const Verdict&) = default;
};

struct Legibility {
    std::vector<Verdict> verdicts;  ///< the poorest first
    Length smallest;                ///< capitals (or lower case, for a text without any) of the smallest text
    Reach reach;
    friend bool operator==(const Legibility&, const Legibility&) = default;
};

/// `contrast`: ratio of the ink to the ground it is seen against.
Legibility judge_reading(const Lettering& lettering, const LetteringPlan& plan, const Seen& seen, double contrast,
                         const std::vector<Typeface>& typefaces);

/// The height on a screen, in its own units of length, of something `size` high that is seen from `distance`, when the
/// eye is `eye` away from the screen: equal visual angles.
Length on_screen(Length size, Length distance, Length eye);

}  // namespace skarvel
