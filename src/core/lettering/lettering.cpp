#include "lettering/lettering.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace skarvel {
namespace {

struct Set {
    std::vector<std::vector<ShapedLetter>> lines;
    std::vector<std::vector<Extent>> boxes;
};

std::vector<std::string> lines_of(const std::string& words) {
    std::vector<std::string> lines(1);
    for (const char c : words) {
        if (c == '\n') {
            lines.emplace_back();
        } else if (c != '\r') {
            lines.back() += c;
        }
    }
    return lines;
}

Set shape_all(const Lettering& lettering, const Typeface& typeface) {
    Set set;
    for (const std::string& line : lines_of(lettering.words)) {
        if (lettering.arrangement == Arrangement::Level) {
            set.lines.push_back(shape(typeface, line));
        } else {
            for (const std::string& letter : letters_of(line)) set.lines.push_back(shape(typeface, letter));
        }
    }
    std::erase_if(set.lines, [&](const std::vector<ShapedLetter>& line) {
        return lettering.arrangement == Arrangement::Level &&
               std::all_of(line.begin(), line.end(), [](const ShapedLetter& l) { return l.blank; });
    });
    for (const auto& line : set.lines) {
        auto& boxes = set.boxes.emplace_back();
        for (const ShapedLetter& letter : line) boxes.push_back(letter.missing ? Extent{} : extent_of(letter.outline));
    }
    return set;
}

// A line's ink in units, and how often the letter gap is added between its first and last ink.
struct LineExtent {
    double x0 = 0, x1 = 0, y0 = 0, y1 = 0;
    int gaps = 0;
    bool ink = false;
};

LineExtent extent(const std::vector<ShapedLetter>& line, const std::vector<Extent>& boxes) {
    LineExtent e;
    int position = 0;
    int first = 0;
    for (std::size_t i = 0; i < line.size(); ++i, ++position) {
        const Extent& b = boxes[i];
        if (b.empty()) continue;
        const double x0 = line[i].x + b.x0;
        const double x1 = line[i].x + b.x1;
        if (!e.ink) {
            e = {x0, x1, b.y0, b.y1, 0, true};
            first = position;
        }
        e.x0 = std::min(e.x0, x0);
        e.x1 = std::max(e.x1, x1);
        e.y0 = std::min(e.y0, b.y0);
        e.y1 = std::max(e.y1, b.y1);
        e.gaps = position - first;
    }
    return e;
}

struct Factors {
    double x = 0, y = 0;  // millimetres for one unit
};

// What the lines ask of the room at one unit to the millimetre, and the gaps that do not scale.
struct Demand {
    double widest = 0;      // units
    double gap_across = 0;  // mm in the widest line
    double tall = 0;        // units, all lines together
    double gap_up = 0;      // mm
};

double gap_between(const Lettering& lettering) {
    return lettering.arrangement == Arrangement::Stack ? lettering.letter_gap.value.in_mm()
                                                       : lettering.line_gap.value.in_mm();
}

Demand demand(const Lettering& lettering, const Set& set) {
    Demand d;
    int rows = 0;
    for (std::size_t i = 0; i < set.lines.size(); ++i) {
        const LineExtent e = extent(set.lines[i], set.boxes[i]);
        if (e.ink) {
            d.widest = std::max(d.widest, e.x1 - e.x0);
            d.tall += e.y1 - e.y0;
        }
        ++rows;  // a space in a stack leaves one more gap
    }
    d.gap_up = std::max(0, rows - 1) * gap_between(lettering);
    return d;
}

// Snug level lines: the scale at which every line and the block fit, gaps not scaled.
double level_scale(const Lettering& lettering, const Set& set, const Demand& d, double width, double height) {
    double scale = (height - d.gap_up) / d.tall;
    for (std::size_t i = 0; i < set.lines.size(); ++i) {
        const LineExtent e = extent(set.lines[i], set.boxes[i]);
        if (e.ink) scale = std::min(scale, (width - e.gaps * lettering.letter_gap.value.in_mm()) / (e.x1 - e.x0));
    }
    return scale;
}

struct Fit {
    Factors factors;
    bool too_narrow = false;  // the letters stop short of the usable width
    bool too_low = false;     // or of its height
};

Fit snug(const Lettering& lettering, const Set& set, const Box& usable) {
    const Demand d = demand(lettering, set);
    const double width = grid_to_mm(usable.width());
    const double height = grid_to_mm(usable.height());
    if (lettering.arrangement == Arrangement::Level) {
        const double scale = level_scale(lettering, set, d, width, height);
        return {{scale, scale}, false, false};
    }
    Fit fit{{width / d.widest, (height - d.gap_up) / d.tall}};
    if (fit.factors.x > fit.factors.y * stretch_limit) {
        fit.factors.x = fit.factors.y * stretch_limit;
        fit.too_narrow = true;
    } else if (fit.factors.y > fit.factors.x * stretch_limit) {
        fit.factors.y = fit.factors.x * stretch_limit;
        fit.too_low = true;
    }
    return fit;
}

// Typefaces whose own proportions come nearest to the room, of those within the limit.
std::vector<TypefaceName> typefaces_that_fill(const Lettering& lettering, const Box& usable,
                                              const std::vector<Typeface>& typefaces) {
    std::vector<std::pair<double, TypefaceName>> found;
    for (const Typeface& typeface : typefaces) {
        if (typeface.name == lettering.typeface) continue;
        const Set set = shape_all(lettering, typeface);
        const bool lacks = std::any_of(set.lines.begin(), set.lines.end(), [](const auto& line) {
            return std::any_of(line.begin(), line.end(), [](const ShapedLetter& l) { return l.missing; });
        });
        const Demand d = demand(lettering, set);
        if (lacks || d.widest <= 0) continue;
        const double ratio =
            (grid_to_mm(usable.width()) / d.widest) / ((grid_to_mm(usable.height()) - d.gap_up) / d.tall);
        if (ratio <= stretch_limit && ratio >= 1 / stretch_limit)
            found.emplace_back(std::abs(std::log(ratio)), typeface.name);
    }
    std::stable_sort(found.begin(), found.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
    std::vector<TypefaceName> names;
    for (std::size_t i = 0; i < found.size() && i < 3; ++i) names.push_back(found[i].second);
    return names;
}

std::int64_t units_to_grid(double mm) { return std::llround(mm * (1e6 / grid_nm)); }

struct Line {
    std::vector<PlacedLetter> letters;
    Box ink;
};

Line build_line(const Lettering& lettering, const std::vector<ShapedLetter>& shaped, Factors f, int line) {
    Line out;
    const bool stack = lettering.arrangement == Arrangement::Stack;
    int position = 0;
    bool starts_word = !stack;
    for (const ShapedLetter& letter : shaped) {
        const std::int64_t extra = position++ * to_grid(lettering.letter_gap.value);
        starts_word = starts_word || letter.blank;
        if (letter.missing || letter.blank) continue;
        const std::int64_t x = units_to_grid(letter.x * f.x) + (stack ? 0 : extra);
        PlacedLetter placed{letter.text, stack ? 0 : line, 0, starts_word,
                            flatten(letter.outline, f.x, f.y).moved({x, 0})};
        if (placed.ink.empty()) continue;
        starts_word = false;
        out.ink = around(out.ink, placed.ink.bounds());
        out.letters.push_back(std::move(placed));
    }
    return out;
}

// Rows from the top down, each centred on its ink; `spare` grid units are spread over the gaps.
void set_rows(const Lettering& lettering, const Box& usable, std::vector<Line> rows, LetteringPlan& plan) {
    const std::int64_t gap = to_grid(Length::from_mm(gap_between(lettering)));
    const auto gaps = static_cast<std::int64_t>(rows.size()) - 1;
    std::int64_t total = gaps * gap;
    for (const Line& row : rows) total += row.ink.empty() ? 0 : row.ink.height();
    const std::int64_t room = usable.height() - total;
    // Rounding and chords leave a few hundredths of a millimetre; more than that is room that stays free.
    const bool filled = gaps > 0 && std::abs(room) <= gaps * 400;
    std::int64_t y = filled ? usable.high.y : usable.high.y - room / 2;
    int index = 0;
    bool after_space = false;
    for (std::size_t i = 0; i < rows.size(); ++i) {
        Line& row = rows[i];
        after_space = after_space || row.ink.empty();
        if (!row.ink.empty()) {
            row.letters.front().starts_word = row.letters.front().starts_word || after_space;
            after_space = false;
            const Point by{(usable.low.x + usable.high.x - row.ink.low.x - row.ink.high.x) / 2, y - row.ink.high.y};
            for (PlacedLetter& letter : row.letters) {
                letter.ink = letter.ink.moved(by);
                letter.index = index++;
                plan.ink = around(plan.ink, letter.ink.bounds());
                plan.letters.push_back(std::move(letter));
            }
            y -= row.ink.height();
        }
        if (static_cast<std::int64_t>(i) < gaps) {
            const auto n = static_cast<std::int64_t>(i);
            y -= gap + (filled ? room * (n + 1) / gaps - room * n / gaps : 0);
        }
    }
}

void name_missing(const Set& set, const Typeface& typeface, LetteringPlan& plan) {
    std::string missing;
    for (const auto& line : set.lines) {
        for (const ShapedLetter& letter : line) {
            if (letter.missing && missing.find(letter.text) == std::string::npos) {
                missing += (missing.empty() ? "" : " ") + letter.text;
            }
        }
    }
    if (!missing.empty()) {
        plan.problems.push_back({{"lettering.missing", {{"letters", missing}, {"typeface", typeface.name.family}}},
                                 "lettering",
                                 {"lettering.other-typeface", {}},
                                 Mark::Stop});
    }
}

void judge_fit(const Lettering& lettering, const Box& usable, const Fit& fit, double largest_cap_mm,
               const std::vector<Typeface>& typefaces, LetteringPlan& plan) {
    plan.free_across = from_grid(usable.width() - plan.ink.width());
    plan.free_up = from_grid(usable.height() - plan.ink.height());
    const Length over = std::max(-plan.free_across, -plan.free_up);
    if (over > Length::nanometres(grid_nm * 8)) {
        const Reason remedy =
            lettering.sizing == Sizing::CapHeight && largest_cap_mm > 0
                ? Reason{"lettering.largest-cap",
                         {{"cap", Length::from_mm(std::floor(largest_cap_mm * 1.6 / 2.54) * 2.54 / 1.6)}}}
                : Reason{"lettering.shorter", {}};
        plan.problems.push_back({{"lettering.too-large", {{"over", over}}}, "lettering", remedy, Mark::Stop});
        return;
    }
    if (lettering.sizing != Sizing::Snug || lettering.arrangement != Arrangement::Stack) return;
    if (!fit.too_narrow && !fit.too_low) {
        if (std::abs(plan.stretch - 1) >= 0.005) {
            plan.notes.push_back({plan.stretch > 1 ? "lettering.wider" : "lettering.narrower",
                                  {{"by", Percent{std::abs(plan.stretch - 1)}}}});
        }
        return;
    }
    plan.offers = typefaces_that_fill(lettering, usable, typefaces);
    plan.notes.push_back(
        {fit.too_narrow ? "lettering.stops-width" : "lettering.stops-height",
         {{"limit", Percent{stretch_limit - 1}}, {"free", fit.too_narrow ? plan.free_across : plan.free_up}}});
    if (plan.offers.empty()) plan.notes.push_back({"lettering.no-offer", {}});
}

}  // namespace

LetteringPlan place(const Lettering& lettering, const Box& usable, const std::vector<Typeface>& typefaces) {
    LetteringPlan plan;
    if (usable.empty() || typefaces.empty()) return plan;
    const Typeface* typeface = find_typeface(typefaces, lettering.typeface);
    if (typeface == nullptr) {
        typeface = &typefaces.front();
        plan.problems.push_back({{"lettering.unknown-typeface",
                                  {{"typeface", lettering.typeface.family + " " + lettering.typeface.style},
                                   {"instead", typeface->name.family}}},
                                 "lettering",
                                 {},
                                 Mark::Look});
    } else if (!lettering.typeface.checksum.empty() && lettering.typeface.checksum != typeface->name.checksum) {
        plan.problems.push_back(
            {{"lettering.typeface-changed", {{"typeface", typeface->name.family}}}, "lettering", {}, Mark::Look});
    }
    const Set set = shape_all(lettering, *typeface);
    name_missing(set, *typeface, plan);
    const Demand d = demand(lettering, set);
    if (d.widest <= 0 || d.tall <= 0) {
        plan.problems.push_back({{"lettering.no-words", {}}, "lettering", {"lettering.type-words", {}}, Mark::Stop});
        return plan;
    }
    Fit fit = snug(lettering, set, usable);
    const double largest = std::min(fit.factors.x, fit.factors.y);
    const double largest_cap_mm = largest * typeface->cap_height;
    if (largest <= 0) {
        plan.problems.push_back({{"lettering.gaps-fill", {}}, "lettering", {"lettering.smaller-gaps", {}}, Mark::Stop});
        return plan;
    }
    if (lettering.sizing == Sizing::CapHeight) {
        const double factor = lettering.cap_height.value.in_mm() / typeface->cap_height;
        if (factor <= 0) {
            plan.problems.push_back({{"lettering.no-cap", {}}, "lettering", {}, Mark::Stop});
            return plan;
        }
        fit = {{factor, factor}, false, false};
    }
    std::vector<Line> rows;
    for (std::size_t i = 0; i < set.lines.size(); ++i) {
        rows.push_back(build_line(lettering, set.lines[i], fit.factors, static_cast<int>(i)));
    }
    set_rows(lettering, usable, std::move(rows), plan);
    plan.cap_height = Length::from_mm(typeface->cap_height * fit.factors.y);
    plan.stretch = fit.factors.x / fit.factors.y;
    judge_fit(lettering, usable, fit, largest_cap_mm, typefaces, plan);
    return plan;
}

}  // namespace skarvel
