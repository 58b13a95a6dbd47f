#include "lettering/legibility.h"

#include <algorithm>
#include <cmath>

#include "lettering/setting.h"

namespace skarvel {
namespace {

// Steps of table 703.5.5: from a height above the floor; up to a distance one height does, then 1/8 in more for each
// further foot.
struct ReadFrom {
    Length from, height, up_to;
};

constexpr ReadFrom table[] = {{120_in, 3_in, 252_in}, {70_in, 2_in, 180_in}, {40_in, 0.625_in, 72_in}};

Extent extent_of_letter(const Typeface& typeface, const char* letter) {
    const auto shaped = shape(typeface, letter);
    return shaped.empty() ? Extent{} : extent_of(shaped.front().outline);
}

class Judge {
  public:
    Judge(const Lettering& lettering, const LetteringPlan& plan, const Seen& seen,
          const std::vector<Typeface>& typefaces)
        : lettering_(lettering), plan_(plan), seen_(seen), typefaces_(typefaces) {}

    Legibility run(double contrast) {
        heights();
        if (out_.smallest > Length{}) {
            distance();
            shapes();
            spacing();
            contrasts(contrast);
        }
        std::stable_sort(out_.verdicts.begin(), out_.verdicts.end(),
                         [](const Verdict& a, const Verdict& b) { return a.says > b.says; });
        return std::move(out_);
    }

  private:
    using Says = Verdict::Says;
    void say(Says says, const char* id, std::vector<std::pair<std::string, Argument>> arguments, const char* basis) {
        out_.verdicts.push_back({says, {id, std::move(arguments)}, basis});
    }

    void heights() {
        for (std::size_t i = 0; i < plan_.texts.size(); ++i) {
            const PlacedText& t = plan_.texts[i];
            if (t.ink.empty()) continue;
            const Length high = t.cap_height;
            if (out_.smallest == Length{} || high < out_.smallest) {
                out_.smallest = high;
                which_ = i;
            }
        }
        out_.reach = reach_of(out_.smallest);
    }

    void distance() {
        const Length far = seen_.distance.value;
        const Says by_rule = far <= out_.reach.comfortable ? Says::Good
                             : far <= out_.reach.most      ? Says::Fair
                                                           : Says::Poor;
        say(by_rule,
            by_rule == Says::Good   ? "reading.comfortable"
            : by_rule == Says::Fair ? "reading.at-most"
                                    : "reading.too-far",
            {{"cap", out_.smallest},
             {"distance", far},
             {"comfortable", out_.reach.comfortable},
             {"most", out_.reach.most},
             {"needed", Length::nanometres(far.nm() / 120)}},
            "from memory");
        const Length least = least_height(seen_.above_floor.value, far);
        if (least == Length{}) return;
        say(out_.smallest >= least ? Says::Good : Says::Fair,
            out_.smallest >= least ? "reading.ada-high" : "reading.ada-low",
            {{"least", least}, {"distance", far}, {"floor", seen_.above_floor.value}, {"cap", out_.smallest}},
            "ADA 703.5.5, from memory");
    }

    const Typeface* typeface_of(std::size_t text) const {
        const Typeface* t = find_typeface(typefaces_, lettering_.texts[text].typeface);
        return t == nullptr && !typefaces_.empty() ? &typefaces_.front() : t;
    }

    void shapes() {
        const Typeface* typeface = typeface_of(which_);
        if (typeface == nullptr) return;
        if (typeface->script()) {
            say(Says::Fair, "reading.script", {{"typeface", typeface->name.family}}, "ADA 703.5.3, from memory");
        }
        const double stretch = plan_.texts[which_].stretch;
        const Proportions p = proportions_of(*typeface, stretch);
        const auto within = [](double v, double low, double high) { return v >= low && v <= high; };
        if (p.width_of_o > 0 && !within(p.width_of_o, 0.55, 1.10)) {
            say(Says::Fair, p.width_of_o < 0.55 ? "reading.narrow" : "reading.broad",
                {{"share", Percent{p.width_of_o}}, {"typeface", typeface->name.family}}, "ADA 703.5.4, from memory");
        }
        if (p.stroke_of_i > 0 && !within(p.stroke_of_i, 0.10, 0.30)) {
            say(Says::Fair, p.stroke_of_i < 0.10 ? "reading.thin" : "reading.heavy",
                {{"share", Percent{p.stroke_of_i}}, {"typeface", typeface->name.family}}, "ADA 703.5.7, from memory");
        }
    }

    // Characters of one line: between the two closest points of neighbours.
    void spacing() {
        const Typeface* typeface = typeface_of(which_);
        if (typeface != nullptr && typeface->script()) return;
        if (lettering_.texts[which_].arrangement != Arrangement::Level || lettering_.texts[which_].slope_tenths != 0)
            return;
        double least = 0;
        double most = 0;
        bool any = false;
        const PlacedLetter* last = nullptr;
        const double cap = out_.smallest.in_mm();
        for (const PlacedLetter& letter : plan_.letters) {
            if (letter.of != static_cast<int>(which_)) continue;
            if (last != nullptr && last->line == letter.line && !letter.starts_word) {
                const double gap = apart(last->ink, letter.ink).in_mm() / cap;
                least = any ? std::min(least, gap) : gap;
                most = any ? std::max(most, gap) : gap;
                any = true;
            }
            last = &letter;
        }
        if (!any) return;
        constexpr double tight = 0.10, loose = 0.35;
        if (least < tight) say(Says::Fair, "reading.tight", {{"share", Percent{least}}}, "ADA 703.5.8, from memory");
        if (most > loose) say(Says::Fair, "reading.loose", {{"share", Percent{most}}}, "ADA 703.5.8, from memory");
        lines();
    }

    void lines() {
        // From base line to base line, of lines of one text.
        const Text& text = lettering_.texts[which_];
        std::vector<std::int64_t> bases;
        int line = -1;
        for (const PlacedLetter& letter : plan_.letters) {
            if (letter.of != static_cast<int>(which_)) continue;
            if (letter.line != line) {
                bases.push_back(letter.ink.bounds().low.y);
                line = letter.line;
            } else {
                bases.back() = std::max(bases.back(), letter.ink.bounds().low.y);  // above descenders
            }
        }
        if (bases.size() < 2 || text.arrangement != Arrangement::Level) return;
        const double step = grid_to_mm(bases[0] - bases[1]) / out_.smallest.in_mm();
        if (step < 1.35) say(Says::Fair, "reading.lines-close", {{"share", Percent{step}}}, "ADA 703.5.9, from memory");
        if (step > 1.70) say(Says::Fair, "reading.lines-far", {{"share", Percent{step}}}, "ADA 703.5.9, from memory");
    }

    void contrasts(double contrast) {
        if (contrast <= 0) return;
        const Says says = contrast >= 4.5 ? Says::Good : contrast >= 3 ? Says::Fair : Says::Poor;
        say(says,
            says == Says::Good   ? "reading.contrast"
            : says == Says::Fair ? "reading.contrast-low"
                                 : "reading.contrast-poor",
            {{"contrast", std::floor(contrast * 10) / 10}}, "WCAG 2.1, 1.4.3");
    }

    const Lettering& lettering_;
    const LetteringPlan& plan_;
    const Seen& seen_;
    const std::vector<Typeface>& typefaces_;
    std::size_t which_ = 0;
    Legibility out_;
};

}  // namespace

Length least_height(Length above_floor, Length distance) {
    for (const ReadFrom& row : table) {
        // "40 to 70", "over 70 to 120", "over 120".
        if (row.from == 40_in ? above_floor < row.from : above_floor <= row.from) continue;
        if (distance <= row.up_to) return row.height;
        // "Plus 1/8 inch per foot of viewing distance above": a part of a foot counts as its part.
        return row.height + Length::nanometres((distance - row.up_to).nm() / 96);
    }
    return {};
}

Reach reach_of(Length cap_height) { return {cap_height * 120, cap_height * 300}; }

Proportions proportions_of(const Typeface& typeface, double stretch) {
    Proportions p;
    const Extent i = extent_of_letter(typeface, "I");
    const Extent o = extent_of_letter(typeface, "O");
    const double high = i.y1 - i.y0;
    if (i.empty() || o.empty() || high <= 0) return p;
    p.width_of_o = (o.x1 - o.x0) / high * stretch;
    // Half way up, where a serif does not reach: the outline of I crosses there twice.
    const auto shaped = shape(typeface, "I");
    const double mm = 100 / high;
    const Region ink = flatten(shaped.front().outline, mm, mm);
    const Box box = ink.bounds();
    p.stroke_of_i = crossed(ink, Axis::Y, (box.low.y + box.high.y) / 2).in_mm() / 100 * stretch;
    return p;
}

Legibility judge_reading(const Lettering& lettering, const LetteringPlan& plan, const Seen& seen, double contrast,
                         const std::vector<Typeface>& typefaces) {
    return Judge(lettering, plan, seen, typefaces).run(contrast);
}

Length on_screen(Length size, Length distance, Length eye) {
    if (distance <= Length{}) return {};
    return Length::from_mm(size.in_mm() * eye.in_mm() / distance.in_mm());
}

}  // namespace skarvel
