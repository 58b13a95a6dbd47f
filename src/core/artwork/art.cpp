#include "artwork/art.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

#include "artwork/figures.h"

namespace skarvel {
namespace {

std::int64_t g(const Measure& m) { return to_grid(m.value); }

ArtPart part(Region shape, std::string name, const Art& art) {
    return {std::move(shape), std::move(name), art.colour, 0};
}

// ---- words inside generated art

// One line with its ink's cap height as typed, about its own middle at 0, 0.
Region words_at(const std::string& words, const TypefaceName& typeface, Length cap,
                const std::vector<Typeface>& typefaces, std::vector<Region>* letters = nullptr) {
    Text text;
    text.words = words;
    text.typeface = typeface;
    text.arrangement = Arrangement::Level;
    text.sizing = Sizing::CapHeight;
    text.size = measure_of(cap, {});
    const std::int64_t far = to_grid(Length::inches(200));
    const LetteringPlan plan = place(text, Box{{-far, -far}, {far, far}}, typefaces);
    std::vector<Region> shapes;
    for (const PlacedLetter& l : plan.letters) shapes.push_back(l.ink);
    if (letters != nullptr) *letters = shapes;
    return shapes.empty() ? Region() : merge(shapes);
}

class Maker {
  public:
    Maker(const LetteringRoom& room, const Region& outline, const std::vector<Typeface>& typefaces, ArtPlan& plan)
        : room_(room), outline_(outline), typefaces_(typefaces), plan_(plan) {}

    std::vector<ArtPart> make(const Art& art) {
        art_ = &art;
        parts_.clear();
        stays_ = false;
        picture_ = {};
        std::visit([&](const auto& kind) { draw(kind); }, art.kind);
        if (!stays_) hang_parts();
        judge_edge();
        return std::move(parts_);
    }

    /// Where the picture of the last art lies; empty where it had none.
    [[nodiscard]] const Box& picture() const { return picture_; }

  private:
    void add(Region shape, const std::string& name) {
        if (!shape.empty()) parts_.push_back(part(std::move(shape), name, *art_));
    }
    void problem(Reason what, Reason remedy = {}, Mark mark = Mark::Look) {
        plan_.problems.push_back({std::move(what), Station::Lettering, std::move(remedy), mark});
    }

    void judge_edge() {
        std::vector<Region> shapes;
        for (const ArtPart& p : parts_) shapes.push_back(p.shape);
        if (outline_.empty() || shapes.empty()) return;
        const Length over = reach_over(merge(shapes), outline_);
        if (over <= Length{}) return;
        const std::vector<Reason> art{{std::string("art.") + kind_of(*art_), {}}};
        if (std::holds_alternative<HeightRuler>(art_->kind) && !room_.cut_at_edge) {
            // Its marks run out at the edge, which they follow as far as the board is true: each foot stays the same.
            problem({"art.ruler-over-edge", {{"by", over}}}, {"art.ruler-trim", {}});
        } else if (room_.cut_at_edge) {
            problem({"art.cut-at-edge", {{"art", art}, {"by", over}}}, {"lettering.see-the-rest", {}});
        } else {
            problem({"art.off-face", {{"art", art}, {"by", over}}}, {"lettering.move-or-cut", {}}, Mark::Stop);
        }
    }

    [[nodiscard]] Box all() const {
        Box box;
        for (const ArtPart& p : parts_) box = around(box, p.shape.bounds());
        return box;
    }

    void hang_parts() {
        const Box box = all();
        if (box.empty()) return;
        const Box& u = room_.usable;
        const Point to_middle{(u.low.x + u.high.x - box.low.x - box.high.x) / 2,
                              (u.low.y + u.high.y - box.low.y - box.high.y) / 2};
        const Box middle{box.low + to_middle, box.high + to_middle};
        const Hung hung = hang({{art_->id, middle, art_->across, art_->up}}, room_.face, room_.usable);
        const Point by = to_middle + hung.moves.front();
        for (ArtPart& p : parts_) p.shape = p.shape.moved(by);
        if (!picture_.empty()) picture_ = {picture_.low + by, picture_.high + by};
    }

    // ---- round the face

    void draw(const Border& b) {
        stays_ = true;
        const Region outer = cornered(grow(outline_, Length{} - b.inset.value), b);
        const Region inner = grow(outer, Length{} - b.thickness.value);
        if (inner.empty()) {
            problem({"art.border-fills", {}}, {"art.thinner", {}});
            return;
        }
        add(subtract(outer, inner), "border");
        if (!b.twice) return;
        const Region second = grow(inner, Length{} - b.thickness.value);
        const Region rest = grow(second, Length::nanometres(-b.thickness.value.nm() / 2));
        if (!rest.empty()) add(subtract(second, rest), "border");
    }

    // Corners of a straight-sided border; a curved one keeps its own.
    Region cornered(const Region& shape, const Border& b) const {
        if (b.corner == Corner::Square || shape.empty()) return shape;
        if (b.corner == Corner::Round) return grow(grow(shape, Length{} - b.corner_size.value), b.corner_size.value);
        std::vector<Region> cuts;
        const Box box = shape.bounds();
        const std::int64_t size = g(b.corner_size);
        for (const Point corner : {box.low, Point{box.high.x, box.low.y}, box.high, Point{box.low.x, box.high.y}})
            cuts.push_back(circle(corner, from_grid(size)));
        return subtract(shape, merge(cuts));
    }

    void draw(const Corners& c) {
        stays_ = true;
        const Box box = grown(room_.face, Length{} - c.inset.value);
        if (box.empty()) return;
        const Region one = corner_piece(c.style, c.size.value, c.thickness.value);
        in_corners(one, box, "corner");
    }

    // `one` as it lies in the lower left corner, its corner at 0, 0.
    void in_corners(const Region& one, const Box& box, const std::string& name,
                    const std::optional<ColourId>& colour = {}, std::size_t of_drawing = 0) {
        const Region mirrored = one.mirrored(0);
        const Region upside = one.turned().turned();  // lower left to upper right
        const Region upside_mirrored = upside.mirrored(0);
        const auto put = [&](const Region& r, Point to) {
            if (!r.empty()) parts_.push_back({r.moved(to), name, colour.value_or(art_->colour), of_drawing});
        };
        put(one, box.low);
        put(mirrored, {box.high.x, box.low.y});
        put(upside_mirrored, {box.low.x, box.high.y});
        put(upside, box.high);
    }

    void draw(const RuledLine& r) {
        const std::int64_t length = r.length.value > Length{} ? g(r.length) : room_.usable.width();
        add(ruled_line(from_grid(length), r.thickness.value, r.ends), "line");
    }

    void draw(const Banner& r) {
        const std::int64_t length = r.length.value > Length{} ? g(r.length) : room_.usable.width();
        add(ribbon(from_grid(length), r.height.value, r.tails.value), "ribbon");
    }

    void draw(const Figure& f) {
        Region shape = figure(f.shape, f.width.value, f.height.value);
        if (f.line.value > Length{}) {
            const Region inside = grow(shape, Length{} - f.line.value);
            if (!inside.empty()) shape = subtract(shape, inside);
        }
        add(std::move(shape), word_of(f.shape));
    }

    // ---- height ruler

    void draw(const HeightRuler& r) {
        stays_ = true;
        const Box& face = room_.face;
        const auto [first, last] = ruler_range(r, from_grid(face.height()));
        if (last < first) {
            problem({"art.ruler-short", {}});
            return;
        }
        const Length unit = r.metric ? Length::from_mm(10) : Length::inches(1);
        const int large = r.metric ? 10 : 12;
        const std::int64_t half = g(r.thickness) / 2;
        for (int n = first; n <= last; ++n) {
            const Length above = unit * n - r.above_floor.value;
            const std::int64_t y = face.low.y + to_grid(above);
            const bool is_long = n % large == 0;
            const bool is_middle = r.metric ? n % 5 == 0 : n % 3 == 0;
            const std::int64_t reach = g(is_long ? r.long_mark : is_middle ? r.middle_mark : r.short_mark);
            // A mark at the very end of the board stays on it.
            const std::int64_t low = std::clamp(y - half, face.low.y, face.high.y - 2 * half);
            const Box box = r.right ? Box{{face.high.x - reach, low}, {face.high.x, low + 2 * half}}
                                    : Box{{face.low.x, low}, {face.low.x + reach, low + 2 * half}};
            add(Region::rectangle(box), "");
            if (is_long && r.numbers) number(r, n / large * (r.metric ? 10 : 1), y);
        }
        plan_.notes.push_back(
            {r.metric ? "art.ruler-metric" : "art.ruler-marks",
             {{"first", std::int64_t{first}}, {"last", std::int64_t{last}}, {"floor", r.above_floor.value}}});
    }

    void number(const HeightRuler& r, int value, std::int64_t y) {
        std::vector<Region> letters;
        const std::string words = std::to_string(value);
        const Region all = words_at(words, r.typeface, r.number_height.value, typefaces_, &letters);
        if (all.empty()) return;
        const Box box = all.bounds();
        const std::int64_t gap = g(r.long_mark) + to_grid(Length::sixtyfourths(32));
        const std::int64_t x = r.right ? room_.face.high.x - gap - box.high.x : room_.face.low.x + gap - box.low.x;
        std::int64_t up = y - (box.low.y + box.high.y) / 2;
        up = std::clamp(up, room_.face.low.y - box.low.y,
                        std::max(room_.face.low.y - box.low.y, room_.face.high.y - box.high.y));
        for (std::size_t i = 0; i < letters.size(); ++i)
            add(letters[i].moved({x, up}), i < words.size() ? std::string(1, words[i]) : "");
    }

    // ---- month board

    void draw(const MonthBoard& m) {
        stays_ = true;
        const Box& u = room_.usable;
        const std::int64_t gap = g(m.gap);
        const std::int64_t title = m.title.empty() ? 0 : g(m.title_height) + gap;
        const std::int64_t names = m.days.empty() ? 0 : g(m.day_height) + gap;
        const Box days{u.low, {u.high.x, u.high.y - title - names}};
        const std::int64_t line = g(m.line);
        if (days.height() < 6 * (gap + 4 * line) || days.width() < 7 * (gap + 4 * line)) {
            problem({"art.month-small", {}}, {"art.month-remedy", {}});
            return;
        }
        if (title > 0)
            centred(m.title, m.typeface, m.title_height.value, (u.low.x + u.high.x) / 2, u.high.y, u.width());
        for (int c = 0; c < 7; ++c) {
            const std::int64_t x0 = days.low.x + days.width() * c / 7;
            const std::int64_t x1 = days.low.x + days.width() * (c + 1) / 7;
            if (static_cast<std::size_t>(c) < m.days.size())
                centred(m.days[static_cast<std::size_t>(c)], m.typeface, m.day_height.value, (x0 + x1) / 2,
                        days.high.y + gap + g(m.day_height), x1 - x0);
        }
        if (m.boxes) {
            for (int r = 0; r < 6; ++r) {
                for (int c = 0; c < 7; ++c) {
                    const Box cell{
                        {split(days.low.x, days.width() + gap, 7, c), split(days.low.y, days.height() + gap, 6, r)},
                        {split(days.low.x, days.width() + gap, 7, c + 1) - gap,
                         split(days.low.y, days.height() + gap, 6, r + 1) - gap}};
                    const Region outer = Region::rectangle(cell);
                    add(subtract(outer, Region::rectangle(grown(cell, Length{} - m.line.value))), "");
                }
            }
            return;
        }
        // One piece: all lines cross.
        std::vector<Region> lines;
        for (int c = 0; c <= 7; ++c) {
            const std::int64_t x = split(days.low.x, days.width() - line, 7, c);
            lines.push_back(Region::rectangle({{x, days.low.y}, {x + line, days.high.y}}));
        }
        for (int r = 0; r <= 6; ++r) {
            const std::int64_t y = split(days.low.y, days.height() - line, 6, r);
            lines.push_back(Region::rectangle({{days.low.x, y}, {days.high.x, y + line}}));
        }
        add(merge(lines), "grid");
    }

    static std::int64_t split(std::int64_t from, std::int64_t whole, int parts, int n) {
        return from + whole * n / parts;
    }

    void centred(const std::string& words, const TypefaceName& typeface, Length cap, std::int64_t x, std::int64_t top,
                 std::int64_t room) {
        std::vector<Region> letters;
        const Region all = words_at(words, typeface, cap, typefaces_, &letters);
        if (all.empty()) return;
        const Box box = all.bounds();
        if (box.width() > room)
            problem({"art.words-wide", {{"words", words}, {"by", from_grid(box.width() - room)}}},
                    {"art.words-lower", {}});
        std::vector<std::string> names = letters_of(words);
        std::erase(names, " ");
        // Round letters reach a little over flat ones: the highest of them keeps to `top`.
        for (std::size_t i = 0; i < letters.size(); ++i)
            add(letters[i].moved({x - (box.low.x + box.high.x) / 2, top - box.high.y}),
                i < names.size() ? names[i] : "");
    }

    // ---- drawings

    void draw(const PlacedDrawing& d) {
        const Box box = bounds_of(*d.drawing);
        if (box.empty()) return;
        const double asked = static_cast<double>(g(d.size));
        const double factor = asked / static_cast<double>(d.by_width ? box.width() : box.height());
        if (factor <= 0) {
            problem({"art.no-size", {}});
            return;
        }
        if (d.drawing->picture.bytes) return picture(d, box, factor);
        const Box corners = grown(room_.usable, {});
        for (std::size_t i = 0; i < d.drawing->parts.size(); ++i) {
            if (std::find(d.dropped.begin(), d.dropped.end(), i) != d.dropped.end()) continue;
            const DrawingPart& p = d.drawing->parts[i];
            Region shape = scaled(p.shape.moved(Point{} - box.low), factor);
            if (d.mirrored) shape = shape.mirrored(std::llround(static_cast<double>(box.width()) * factor));
            const auto colour = d.colours.find(i);
            const ColourId in = colour == d.colours.end() ? art_->colour : colour->second;
            if (d.four_corners) {
                in_corners(shape, corners, p.name, in, i);
            } else if (!shape.empty()) {
                parts_.push_back({std::move(shape), p.name, in, i});
            }
        }
        stays_ = d.four_corners;
    }

    // Printed, then cut: one outline round what the picture shows, without its holes.
    void picture(const PlacedDrawing& d, const Box& box, double factor) {
        std::vector<Region> shapes;
        for (const DrawingPart& p : d.drawing->parts)
            shapes.push_back(scaled(p.shape.moved(Point{} - box.low), factor));
        for (const Region& part : islands(grow(merge(shapes), d.around.value))) {
            for (const Region& hole : holes(part)) shapes.push_back(hole);
        }
        shapes.push_back(grow(merge(shapes), d.around.value));
        Region cut = merge(shapes);
        const std::int64_t width = std::llround(static_cast<double>(box.width()) * factor);
        if (d.mirrored) cut = cut.mirrored(width);
        add(std::move(cut), "picture");
        const auto at = [&](Point p) {
            return Point{std::llround(static_cast<double>(p.x - box.low.x) * factor),
                         std::llround(static_cast<double>(p.y - box.low.y) * factor)};
        };
        const Box& frame = d.drawing->picture.frame;
        picture_ = {at(frame.low), at(frame.high)};
        if (d.mirrored)
            picture_ = {{width - picture_.high.x, picture_.low.y}, {width - picture_.low.x, picture_.high.y}};
    }

    static Region scaled(const Region& shape, double factor) {
        std::vector<Ring> rings;
        for (const Ring& ring : shape.rings()) {
            Ring out;
            for (const Point p : ring)
                out.push_back(
                    {std::llround(static_cast<double>(p.x) * factor), std::llround(static_cast<double>(p.y) * factor)});
            rings.push_back(std::move(out));
        }
        return Region::from_rings(rings);
    }

    const LetteringRoom& room_;
    const Region& outline_;
    const std::vector<Typeface>& typefaces_;
    ArtPlan& plan_;
    const Art* art_ = nullptr;
    std::vector<ArtPart> parts_;
    Box picture_;
    bool stays_ = false;
};

}  // namespace

ArtPlan make_art(const std::vector<Art>& art, const LetteringRoom& room, const Region& outline,
                 const std::vector<Typeface>& typefaces) {
    ArtPlan plan;
    Maker maker(room, outline, typefaces, plan);
    for (const Art& one : art) {
        plan.parts.push_back(maker.make(one));
        Box box;
        for (const ArtPart& p : plan.parts.back()) box = around(box, p.shape.bounds());
        plan.boxes.push_back(box);
        plan.pictures.push_back(maker.picture());
    }
    return plan;
}

const char* kind_of(const Art& art) {
    static constexpr std::array names{"border", "corners",      "line",        "ribbon",
                                      "figure", "height-ruler", "month-board", "drawing"};
    return names.at(art.kind.index());
}

std::pair<int, int> ruler_range(const HeightRuler& ruler, Length board) {
    const std::int64_t unit = (ruler.metric ? Length::from_mm(10) : Length::inches(1)).nm();
    const std::int64_t from = ruler.above_floor.value.nm();
    const std::int64_t to = from + board.nm();
    return {static_cast<int>((from + unit - 1) / unit), static_cast<int>(to / unit)};
}

}  // namespace skarvel
