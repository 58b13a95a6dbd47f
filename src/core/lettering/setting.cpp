#include "lettering/setting.h"

#include "lettering/flattened.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace skarvel {
namespace {

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

// A line's ink in units, and how often the letter gap is added between its first and last ink.
struct LineExtent {
    double x0 = 0, x1 = 0, y0 = 0, y1 = 0;
    int gaps = 0;
    bool ink = false;
};

LineExtent extent(const SetLine& line) {
    LineExtent e;
    int position = 0;
    int first = 0;
    for (std::size_t i = 0; i < line.letters.size(); ++i, ++position) {
        const Extent& b = line.boxes[i];
        if (b.empty()) continue;
        const double x0 = line.letters[i].x + b.x0;
        const double x1 = line.letters[i].x + b.x1;
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

double gap_between(const Text& text) {
    return text.arrangement == Arrangement::Stack ? text.letter_gap.value.in_mm() : text.line_gap.value.in_mm();
}

double bolder_mm(const Text& text) { return text.bolder ? std::max(0.0, text.bolder->value.in_mm()) : 0; }

Outline turned(const Outline& outline, Factors f, double angle) {
    const double c = std::cos(angle);
    const double s = std::sin(angle);
    const auto turn = [&](Outline::Node n) {
        const double x = n.x * f.x;
        const double y = n.y * f.y;
        return Outline::Node{c * x - s * y, s * x + c * y};
    };
    Outline out = outline;
    for (Outline::Contour& contour : out.contours) {
        contour.start = turn(contour.start);
        for (auto& curve : contour.curves) {
            for (Outline::Node& n : curve) n = turn(n);
        }
    }
    return out;
}

// Islands and holes that are no more than a scratch beside the letter: they would be lost in weeding.
Region without_slivers(const Region& ink, const Typeface& typeface, Factors f, int& dropped) {
    if (ink.rings().size() < 2) return ink;
    const double em_mm2 = typeface.cap_height * f.x * typeface.cap_height * f.y;
    const Length thin = Length::from_mm(0.004 * typeface.cap_height * f.y);
    std::vector<Region> kept;
    const std::vector<Region> parts = islands(ink);
    const auto is_sliver = [&](const Region& part) {
        return part.area_mm2() < em_mm2 / 1500 && grow(part, Length{} - thin).empty();
    };
    bool changed = false;
    for (const Region& part : parts) {
        if (parts.size() > 1 && is_sliver(part)) {
            ++dropped;
            changed = true;
        } else {
            kept.push_back(part);
        }
    }
    for (const Region& hole : holes(ink)) {
        if (!is_sliver(hole)) continue;
        kept.push_back(hole);
        ++dropped;
        changed = true;
    }
    return changed && !kept.empty() ? merge(kept) : ink;
}

Region finished(Region ink, const Text& text, const Typeface& typeface, Factors f, int& slivers) {
    ink = without_slivers(ink, typeface, f, slivers);
    const double by = bolder_mm(text);
    return by > 0 ? grow(ink, Length::from_mm(by)) : ink;
}

struct Row {
    std::vector<PlacedLetter> letters;
    Box ink;
};

struct Finished {
    Region ink;
    int slivers = 0;
};

Row build_row(const Text& text, const SetLine& line, Flattened<Finished>& letters, Factors f, int number,
              int& slivers) {
    Row out;
    const bool stack = text.arrangement == Arrangement::Stack;
    int position = 0;
    bool starts_word = !stack;
    for (const ShapedLetter& letter : line.letters) {
        const std::int64_t extra = position++ * to_grid(text.letter_gap.value);
        starts_word = starts_word || letter.blank;
        if (letter.missing || letter.blank) continue;
        const std::int64_t x = mm_to_grid(letter.x * f.x) + (stack ? 0 : extra);
        const Finished& shape = letters.of(letter.outline);
        slivers += shape.slivers;
        PlacedLetter placed{letter.text, stack ? 0 : number, 0, starts_word, shape.ink.moved({x, 0}), 0, 0, stack};
        if (placed.ink.empty()) continue;
        starts_word = false;
        out.ink = around(out.ink, placed.ink.bounds());
        out.letters.push_back(std::move(placed));
    }
    return out;
}

BuiltText straight(const Text& text, const SetText& set, const Typeface& typeface, Factors f, std::int64_t spare) {
    BuiltText out;
    const std::int64_t gap = to_grid(Length::from_mm(gap_between(text)));
    const auto gaps = static_cast<std::int64_t>(set.lines.size()) - 1;
    std::int64_t y = 0;
    bool after_space = false;
    Flattened<Finished> letters([&](const Outline& outline) {
        Finished shape;
        shape.ink = finished(flatten(outline, f.x, f.y), text, typeface, f, shape.slivers);
        return shape;
    });
    for (std::size_t i = 0; i < set.lines.size(); ++i) {
        Row row = build_row(text, set.lines[i], letters, f, static_cast<int>(i), out.slivers);
        after_space = after_space || row.ink.empty();
        if (!row.ink.empty()) {
            row.letters.front().starts_word = row.letters.front().starts_word || after_space;
            after_space = false;
            const std::int64_t down = mm_to_grid(set.lines[i].down * f.y);
            const Point by{-(row.ink.low.x + row.ink.high.x) / 2, y - down - row.ink.high.y};
            for (PlacedLetter& letter : row.letters) {
                letter.ink = letter.ink.moved(by);
                out.ink = around(out.ink, letter.ink.bounds());
                out.letters.push_back(std::move(letter));
            }
            y -= row.ink.height();
        }
        if (static_cast<std::int64_t>(i) < gaps) {
            const auto n = static_cast<std::int64_t>(i);
            y -= gap + spare * (n + 1) / gaps - spare * n / gaps;
        }
    }
    return out;
}

// Lines that rise: laid level first, then turned about the middle of the text.
BuiltText sloped(const Text& text, const SetText& set, const Typeface& typeface, Factors f) {
    BuiltText out;
    const double angle = text.slope_tenths * std::numbers::pi / 1800;
    const double gap = gap_between(text);
    double y = 0;
    for (std::size_t i = 0; i < set.lines.size(); ++i) {
        const LineExtent e = extent(set.lines[i]);
        if (!e.ink) continue;
        const double width = (e.x1 - e.x0) * f.x + e.gaps * text.letter_gap.value.in_mm();
        const double base = y - e.y1 * f.y;
        int position = 0;
        int first = -1;
        bool starts_word = true;
        for (const ShapedLetter& letter : set.lines[i].letters) {
            const int at = position++;
            starts_word = starts_word || letter.blank;
            if (letter.missing || letter.blank) continue;
            if (first < 0) first = at;
            const double x = -width / 2 + (letter.x - e.x0) * f.x + (at - first) * text.letter_gap.value.in_mm();
            const Point to{mm_to_grid(std::cos(angle) * x - std::sin(angle) * base),
                           mm_to_grid(std::sin(angle) * x + std::cos(angle) * base)};
            PlacedLetter placed{
                letter.text,
                static_cast<int>(i),
                0,
                starts_word,
                finished(flatten(turned(letter.outline, f, angle), 1, 1), text, typeface, f, out.slivers).moved(to),
                0,
                0};
            if (placed.ink.empty()) continue;
            starts_word = false;
            out.ink = around(out.ink, placed.ink.bounds());
            out.letters.push_back(std::move(placed));
        }
        y -= (e.y1 - e.y0) * f.y + gap;
    }
    return out;
}

}  // namespace

double first_radius(const Text& text, const Typeface& typeface, double fy, double edge) {
    if (!follows_edge(text, edge)) return text.arc.radius.value.in_mm();
    const double inside = edge - text.arc.distance.value.in_mm();
    // Above, the tops of capitals keep the distance; below, their feet do.
    return text.arc.below ? inside : inside - typeface.cap_height * fy;
}

namespace {

// Each letter stands on the circle at the middle of its ink. The letters of a script that the curve parts are drawn
// together along it until they meet, and all after them with them.
BuiltText curved(const Text& text, const SetText& set, const Typeface& typeface, Factors f, double edge) {
    BuiltText out;
    const double first = first_radius(text, typeface, f.y, edge);
    const double step = typeface.cap_height * f.y + text.line_gap.value.in_mm();
    int number = 0;
    for (std::size_t i = 0; i < set.lines.size(); ++i) {
        const LineExtent e = extent(set.lines[i]);
        if (!e.ink) continue;
        const double radius = first - step * number;
        if (radius <= 0) {
            ++out.lost_lines;
            continue;
        }
        const double width = (e.x1 - e.x0) * f.x + e.gaps * text.letter_gap.value.in_mm();
        out.farthest = std::max(out.farthest, width / (2 * std::numbers::pi * radius));
        const bool joined = typeface.script() && text.letter_gap.value <= Length{};
        const double reach = typeface.cap_height * f.y;
        struct Stood {
            std::size_t letter;
            double along;
            bool starts_word;
        };
        std::vector<Stood> stood;
        double pulled = 0;
        const auto shape_at = [&](std::size_t k, double along) {
            const Extent& box = set.lines[i].boxes[k];
            const double round = along / radius;
            const double angle = text.arc.below ? round : -round;
            // The letter's foot, under the middle of its ink, comes to lie on the circle.
            const double foot_x = radius * std::sin(round);
            const double foot_y = text.arc.below ? -radius * std::cos(round) : radius * std::cos(round);
            const double back = (box.x0 + box.x1) / 2 * f.x;
            int slivers = 0;
            Region ink =
                finished(flatten(turned(set.lines[i].letters[k].outline, f, angle), 1, 1), text, typeface, f, slivers);
            return std::pair(
                ink.moved({mm_to_grid(foot_x - std::cos(angle) * back), mm_to_grid(foot_y - std::sin(angle) * back)}),
                slivers);
        };
        int position = 0;
        int first_at = -1;
        bool starts_word = true;
        Region last;
        for (std::size_t k = 0; k < set.lines[i].letters.size(); ++k) {
            const ShapedLetter& letter = set.lines[i].letters[k];
            const int at = position++;
            starts_word = starts_word || letter.blank;
            const Extent& box = set.lines[i].boxes[k];
            if (letter.missing || letter.blank || box.empty()) continue;
            if (first_at < 0) first_at = at;
            double along = -width / 2 + (letter.x + (box.x0 + box.x1) / 2 - e.x0) * f.x +
                           (at - first_at) * text.letter_gap.value.in_mm() - pulled;
            if (joined) {
                Region here = shape_at(k, along).first;
                if (!starts_word && !touch(last, here)) {
                    const double step = 0.02 * reach;
                    double by = step;
                    while (by <= 0.4 * reach && !touch(last, shape_at(k, along - by).first)) by += step;
                    if (by <= 0.4 * reach) {
                        by += step;  // held by more than a point
                        pulled += by;
                        along -= by;
                        here = shape_at(k, along).first;
                        ++out.closed;
                    } else {
                        out.open.push_back(
                            {set.lines[i].letters[stood.back().letter].text + letter.text, apart(last, here)});
                    }
                }
                last = std::move(here);
            }
            stood.push_back({k, along, starts_word});
            starts_word = false;
        }
        for (const Stood& s : stood) {
            auto [ink, slivers] = shape_at(s.letter, s.along + pulled / 2);
            if (ink.empty()) continue;
            out.slivers += slivers;
            out.ink = around(out.ink, ink.bounds());
            out.letters.push_back(
                {set.lines[i].letters[s.letter].text, number, 0, s.starts_word, std::move(ink), 0, 0});
        }
        ++number;
    }
    return out;
}

}  // namespace

bool SetText::lacks() const {
    return std::any_of(lines.begin(), lines.end(), [](const SetLine& line) {
        return std::any_of(line.letters.begin(), line.letters.end(), [](const ShapedLetter& l) { return l.missing; });
    });
}

SetText shape_text(const Text& text, const Typeface& typeface) {
    SetText set;
    const bool stack = text.arrangement == Arrangement::Stack;
    for (const std::string& line : lines_of(text.words)) {
        if (!stack) {
            set.lines.push_back({shape(typeface, line, text.alternates), {}, 0});
        } else {
            for (const std::string& letter : letters_of(line))
                set.lines.push_back({shape(typeface, letter, text.alternates), {}, 0});
        }
    }
    std::erase_if(set.lines, [&](const SetLine& line) {
        return !stack &&
               std::all_of(line.letters.begin(), line.letters.end(), [](const ShapedLetter& l) { return l.blank; });
    });
    for (SetLine& line : set.lines) {
        for (const ShapedLetter& letter : line.letters)
            line.boxes.push_back(letter.missing ? Extent{} : extent_of(letter.outline));
    }
    return set;
}

void space_text(SetText& set, const Text& text, const Typeface& typeface, double mm) {
    if (mm <= 0) return;
    // An outline that is grown comes nearer from both sides.
    const double least = (std::max(0.0, text.least_gap.value.in_mm()) + 2 * bolder_mm(text)) / mm;
    const double extra = text.letter_gap.value.in_mm() / mm;
    const auto note = [&](const Evened& e, const auto& letter) {
        set.gaps_were = std::max(set.gaps_were, e.were);
        set.gaps_are = std::max(set.gaps_are, e.are);
        for (const std::size_t i : e.held) set.gaps_held.push_back(letter(i - 1).text + letter(i).text);
    };
    if (text.arrangement == Arrangement::Stack) {
        if (!text.even) return;
        std::vector<const ShapedLetter*> stack;
        for (const SetLine& line : set.lines) {
            static const ShapedLetter space{" ", {}, 0, 0, false, true};
            stack.push_back(line.letters.size() == 1 ? &line.letters.front() : &space);
        }
        const Evened e = even_stack(stack, typeface, extra, least);
        for (std::size_t i = 0; i < set.lines.size(); ++i) set.lines[i].down = e.shift[i];
        return note(e, [&](std::size_t i) -> const ShapedLetter& { return *stack[i]; });
    }
    for (SetLine& line : set.lines) {
        std::vector<double> shift;
        // A gap typed between the letters of a script says that they are to stand apart.
        if (typeface.script() && text.letter_gap.value <= Length{}) {
            Joined j = join_line(line.letters, typeface, extra);
            set.closed += j.closed;
            set.open.insert(set.open.end(), j.open.begin(), j.open.end());
            shift = std::move(j.shift);
        } else if (text.even && !typeface.script()) {
            Evened e = even_line(line.letters, typeface, extra, least);
            note(e, [&](std::size_t i) -> const ShapedLetter& { return line.letters[i]; });
            shift = std::move(e.shift);
        }
        for (std::size_t i = 0; i < shift.size(); ++i) line.letters[i].x += shift[i];
    }
}

Demand demand(const Text& text, const SetText& set) {
    Demand d;
    int rows = 0;
    for (const SetLine& line : set.lines) {
        const LineExtent e = extent(line);
        if (e.ink) {
            if (e.x1 - e.x0 > d.widest) {
                d.widest = e.x1 - e.x0;
                d.gap_across = e.gaps * text.letter_gap.value.in_mm();
            }
            d.tall += e.y1 - e.y0;
        }
        ++rows;  // a space in a stack leaves one more gap
    }
    d.gap_up = std::max(0, rows - 1) * gap_between(text);
    return d;
}

double scale_for_width(const Text& text, const SetText& set, double width) {
    double scale = 0;
    const double wide = text.width_percent / 100.0;
    for (const SetLine& line : set.lines) {
        const LineExtent e = extent(line);
        if (!e.ink) continue;
        const double gaps = text.arrangement == Arrangement::Stack ? 0 : e.gaps * text.letter_gap.value.in_mm();
        const double s = (width - gaps - 2 * bolder_mm(text)) / ((e.x1 - e.x0) * wide);
        scale = scale == 0 ? s : std::min(scale, s);
    }
    return scale;
}

double scale_for_circle(const Text& text, const SetText& set, const Typeface& typeface, double edge, double most) {
    double scale = 0;
    for (const SetLine& line : set.lines) {
        const LineExtent e = extent(line);
        if (!e.ink) continue;
        const double round = 2 * std::numbers::pi * most;
        const bool shrinks = follows_edge(text, edge) && !text.arc.below;
        const double s = (first_radius(text, typeface, 0, edge) * round - e.gaps * text.letter_gap.value.in_mm()) /
                         ((e.x1 - e.x0) * text.width_percent / 100.0 + (shrinks ? typeface.cap_height * round : 0));
        scale = scale == 0 ? s : std::min(scale, s);
    }
    return std::max(0.0, scale);
}

double scale_for_sweep(const Text& text, const SetText& set, const Typeface& typeface, double edge) {
    const double sweep = std::clamp(text.arc.sweep, 5, 350) * std::numbers::pi / 180;
    const double wide = text.width_percent / 100.0;
    double scale = 0;
    for (const SetLine& line : set.lines) {
        const LineExtent e = extent(line);
        if (!e.ink) continue;
        const double units = (e.x1 - e.x0) * wide;
        const double gaps = e.gaps * text.letter_gap.value.in_mm();
        const double radius = first_radius(text, typeface, 0, edge);
        const bool shrinks = follows_edge(text, edge) && !text.arc.below;
        const double s = (radius * sweep - gaps) / (units + (shrinks ? typeface.cap_height * sweep : 0));
        scale = scale == 0 ? s : std::min(scale, s);
    }
    return scale;
}

BuiltText build_text(const Text& text, const SetText& set, const Typeface& typeface, Factors f, std::int64_t spare,
                     double edge) {
    return text.arrangement == Arrangement::Arc                               ? curved(text, set, typeface, f, edge)
           : text.arrangement == Arrangement::Level && text.slope_tenths != 0 ? sloped(text, set, typeface, f)
                                                                              : straight(text, set, typeface, f, spare);
}

}  // namespace skarvel
