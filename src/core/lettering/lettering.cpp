#include "lettering/lettering.h"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <set>

#include "lettering/column.h"
#include "lettering/setting.h"
#include "text/numbering.h"

namespace skarvel {
namespace {

// Rounding and chords leave a few hundredths of a millimetre between two lines; more is room that stays free.
constexpr std::int64_t rounding_per_gap = 400;

struct Setup {
    const Text* text = nullptr;
    const Typeface* typeface = nullptr;
    SetText set;
    Demand demand;
    Factors factors;
    double largest = 0;  // factor that would just fit the room
    bool too_narrow = false, too_low = false;
    bool in_column = true, follows = false;
    BuiltText built;
    [[nodiscard]] bool ink() const { return typeface != nullptr && demand.widest > 0 && demand.tall > 0; }
    [[nodiscard]] bool snug() const { return text->sizing == Sizing::Snug; }
};

class Placer {
  public:
    Placer(const Lettering& lettering, const LetteringRoom& room, const std::vector<Typeface>& typefaces)
        : lettering_(lettering), room_(room), typefaces_(typefaces) {}

    LetteringPlan run() {
        for (const Text& text : lettering_.texts) set_up(text);
        if (std::none_of(texts_.begin(), texts_.end(), [](const Setup& s) { return s.ink(); })) {
            if (plan_.problems.empty() || plan_.problems.back().what.id != "lettering.missing")
                problem({"lettering.no-words", {}}, {"lettering.type-words", {}}, Mark::Stop);
            return std::move(plan_);
        }
        size_all();
        for (Setup& s : texts_) {
            if (s.ink() && s.factors.y > 0) build(s);
        }
        stand_column();
        hang_rest();
        nudge();
        gather();
        judge();
        return std::move(plan_);
    }

  private:
    void problem(Reason what, Reason remedy, Mark mark) {
        plan_.problems.push_back({std::move(what), Station::Lettering, std::move(remedy), mark});
    }

    // ---- typefaces and shapes

    const Typeface* typeface_of(const Text& text) {
        const Typeface* typeface = find_typeface(typefaces_, text.typeface);
        if (typeface == nullptr) {
            typeface = &typefaces_.front();
            problem(
                {"lettering.unknown-typeface",
                 {{"typeface", text.typeface.family + " " + text.typeface.style}, {"instead", typeface->name.family}}},
                {}, Mark::Look);
        } else if (!text.typeface.checksum.empty() && text.typeface.checksum != typeface->name.checksum) {
            problem({"lettering.typeface-changed", {{"typeface", typeface->name.family}}}, {}, Mark::Look);
        }
        return typeface;
    }

    void set_up(const Text& text) {
        Setup s;
        s.text = &text;
        s.typeface = typeface_of(text);
        s.set = shape_text(text, *s.typeface);
        s.follows = follows_edge(text, edge());
        s.in_column = (!text.up || text.keeps_place) && !s.follows;
        name_missing(s);
        s.demand = demand(text, s.set);
        texts_.push_back(std::move(s));
    }

    void name_missing(const Setup& s) {
        std::string missing;
        for (const auto& line : s.set.lines) {
            for (const ShapedLetter& letter : line.letters) {
                if (letter.missing && missing.find(letter.text) == std::string::npos) {
                    missing += (missing.empty() ? "" : " ") + letter.text;
                }
            }
        }
        if (!missing.empty()) {
            problem({"lettering.missing", {{"letters", missing}, {"typeface", s.typeface->name.family}}},
                    {"lettering.other-typeface", {}}, Mark::Stop);
        }
    }

    // ---- sizes

    // Stands in the column; what keeps its place there may hang elsewhere.
    static bool stays(const Setup& s) { return s.in_column && !s.text->up; }

    [[nodiscard]] double edge() const { return room_.edge ? room_.edge->in_mm() : 0; }
    [[nodiscard]] double width() const { return grid_to_mm(room_.usable.width()); }
    [[nodiscard]] double height() const { return grid_to_mm(room_.usable.height()); }
    static double wide(const Text& text) { return text.width_percent / 100.0; }
    static double bolder(const Text& text) { return text.bolder ? std::max(0.0, text.bolder->value.in_mm()) : 0; }

    static double tallest_line(const Setup& s) {
        double tallest = 0;
        for (const SetLine& line : s.set.lines) {
            double low = 0;
            double high = 0;
            for (const Extent& e : line.boxes) {
                if (e.empty()) continue;
                low = std::min(low, e.y0);
                high = std::max(high, e.y1);
            }
            tallest = std::max(tallest, high - low);
        }
        return tallest;
    }

    // What the text's own size makes of it; nothing for snug.
    static std::optional<double> decided(const Setup& s) {
        const double size = s.text->size.value.in_mm();
        switch (s.text->sizing) {
            case Sizing::CapHeight:
                return size / s.typeface->cap_height;
            case Sizing::XHeight:
                return size / s.typeface->x_height;
            case Sizing::Overall:
                return (size - 2 * bolder(*s.text)) / tallest_line(s);
            case Sizing::Width:
                return s.text->arrangement == Arrangement::Stack
                           ? (size - 2 * bolder(*s.text)) / (s.demand.widest * wide(*s.text))
                           : scale_for_width(*s.text, s.set, size);
            case Sizing::Snug:
                break;
        }
        return std::nullopt;
    }

    void size_all() {
        // Spacing asks for a size and size for the spacing: two rounds bring both within the grid's reach.
        for (int round = 0; round < 2; ++round) {
            size_once();
            bool spaced = false;
            for (Setup& s : texts_) {
                const bool wants = s.ink() && (s.text->even || s.typeface->script()) && s.factors.y > 0;
                if (!wants) continue;
                s.set = shape_text(*s.text, *s.typeface);
                space_text(s.set, *s.text, *s.typeface, s.factors.y);
                s.demand = demand(*s.text, s.set);
                spaced = true;
            }
            if (!spaced) return;
        }
        size_once();
    }

    void size_once() {
        std::vector<Setup*> column;
        for (Setup& s : texts_) {
            if (!s.ink()) continue;
            if (s.in_column) {
                column.push_back(&s);
            } else {
                size_alone(s);
            }
        }
        if (column.size() == 1 && !to_shape(*column.front())) {
            size_alone(*column.front());
        } else if (!column.empty()) {
            size_column(column);
        }
        for (Setup* s : column) {
            if (const auto f = decided(*s)) s->factors = {*f * wide(*s->text), *f};
        }
    }

    // One text that has the usable room to itself.
    void size_alone(Setup& s) {
        const Text& text = *s.text;
        s.too_narrow = s.too_low = false;
        if (text.arrangement == Arrangement::Arc) {
            s.largest = scale_for_sweep(text, s.set, *s.typeface, edge());
            s.factors = {s.largest * wide(text), s.largest};
        } else if (text.arrangement == Arrangement::Level) {
            const double b = 2 * bolder(text);
            double scale = (height() - s.demand.gap_up - b) / s.demand.tall;
            scale = std::min(scale, scale_for_width(text, s.set, width()));
            if (text.slope_tenths != 0) scale *= sloped_share(s, scale);
            s.largest = scale;
            s.factors = {scale * wide(text), scale};
        } else {
            const double b = 2 * bolder(text);
            const double rows = static_cast<double>(s.set.lines.size());
            s.factors = {(width() - b) / s.demand.widest, (height() - s.demand.gap_up - b * rows) / s.demand.tall};
            const double asked = wide(text);
            if (s.factors.x > s.factors.y * stretch_limit * asked) {
                s.factors.x = s.factors.y * stretch_limit * asked;
                s.too_narrow = true;
            } else if (s.factors.y * asked > s.factors.x * stretch_limit) {
                s.factors.y = s.factors.x * stretch_limit / asked;
                s.too_low = true;
            }
            s.largest = std::min(s.factors.x, s.factors.y);
        }
        if (const auto f = decided(s)) s.factors = {*f * wide(text), *f};
    }

    // By how much sloped lines must be smaller than level ones: their ink is built once and measured.
    double sloped_share(const Setup& s, double scale) const {
        if (scale <= 0) return 1;
        const BuiltText built = build_text(*s.text, s.set, *s.typeface, {scale * wide(*s.text), scale}, 0, 0);
        if (built.ink.empty()) return 1;
        return std::min({1.0, static_cast<double>(room_.usable.width()) / static_cast<double>(built.ink.width()),
                         static_cast<double>(room_.usable.height()) / static_cast<double>(built.ink.height())}) *
               0.9995;
    }

    bool to_shape(const Setup& s) const { return s.text->to_shape && !room_.free.empty() && s.snug(); }

    void size_column(std::vector<Setup*>& column) {
        Column c;
        for (Setup* s : column) {
            ColumnLine line;
            line.gap_before = s->text->line_gap.value.in_mm();
            line.to_shape = to_shape(*s);
            const double b = 2 * bolder(*s->text);
            const auto given = decided(*s);
            if (s->text->arrangement == Arrangement::Arc) {
                const double f = given ? *given : scale_for_sweep(*s->text, s->set, *s->typeface, 0);
                s->factors = {f * wide(*s->text), f};
                build(*s);
                line.fixed = grid_to_mm(s->built.ink.height());
            } else if (given) {
                line.fixed = *given * s->demand.tall + s->demand.gap_up + b;
            } else {
                line.widest = s->demand.widest * wide(*s->text);
                line.tall = s->demand.tall;
                line.gap_across = s->text->arrangement == Arrangement::Stack ? b : s->demand.gap_across + b;
                line.gap_up = s->demand.gap_up + b;
            }
            c.lines.push_back(line);
        }
        const std::vector<ColumnSlot> slots = fit_column(c, room_.usable, room_.free);
        for (std::size_t i = 0; i < column.size(); ++i) {
            Setup& s = *column[i];
            slots_.resize(texts_.size());
            slots_[static_cast<std::size_t>(&s - texts_.data())] = slots[i];
            if (c.lines[i].fixed > 0) continue;
            s.largest = slots[i].scale;
            if (s.text->arrangement == Arrangement::Level && !c.lines[i].to_shape)
                s.largest = std::min(s.largest, scale_for_width(*s.text, s.set, width()));
            s.factors = {s.largest * wide(*s.text), s.largest};
            if (s.text->slope_tenths != 0) {
                const double share = sloped_share(s, s.largest);
                s.factors = {s.factors.x * share, s.factors.y * share};
            }
        }
    }

    void build(Setup& s) { s.built = build_text(*s.text, s.set, *s.typeface, s.factors, 0, edge()); }

    // ---- standing

    void move(Setup& s, Point by) {
        for (PlacedLetter& letter : s.built.letters) letter.ink = letter.ink.moved(by);
        if (!s.built.ink.empty()) s.built.ink = {s.built.ink.low + by, s.built.ink.high + by};
    }

    // From the top down, each text centred; a stack that fills the room takes up what rounding left over.
    void stand_column() {
        std::vector<Setup*> column;
        for (Setup& s : texts_) {
            if (s.in_column && !s.built.ink.empty()) column.push_back(&s);
        }
        if (column.empty()) return;
        if (column.size() == 1) {
            Setup& s = *column.front();
            const auto gaps = static_cast<std::int64_t>(s.set.lines.size()) - 1;
            const std::int64_t room = room_.usable.height() - s.built.ink.height();
            if (s.text->slope_tenths == 0 && s.text->arrangement != Arrangement::Arc && gaps > 0 && room != 0 &&
                std::abs(room) <= gaps * rounding_per_gap) {
                s.built = build_text(*s.text, s.set, *s.typeface, s.factors, room, edge());
            }
        }
        std::int64_t total = 0;
        for (std::size_t i = 0; i < column.size(); ++i) {
            total += column[i]->built.ink.height();
            if (i > 0) total += to_grid(column[i]->text->line_gap.value);
        }
        const std::int64_t room = room_.usable.height() - total;
        const bool shaped = std::any_of(column.begin(), column.end(), [&](const Setup* s) { return to_shape(*s); });
        // What the eye takes for the middle lies a little higher.
        std::int64_t y = room_.usable.high.y - (lettering_.optical_centre && room > 0 ? room * 9 / 20 : room / 2);
        const std::int64_t middle = (room_.usable.low.x + room_.usable.high.x) / 2;
        for (Setup* s : column) {
            std::int64_t x = middle;
            std::int64_t top = y;
            if (shaped) {
                const ColumnSlot& slot = slots_[static_cast<std::size_t>(s - texts_.data())];
                x = slot.middle;
                top = slot.top - (slot.height - s->built.ink.height()) / 2;
            }
            const Box& ink = s->built.ink;
            y -= ink.height() + next_gap(column, s);
            move(*s, {x - (ink.low.x + ink.high.x) / 2, top - ink.high.y});
        }
    }

    static std::int64_t next_gap(const std::vector<Setup*>& column, const Setup* s) {
        const auto at = std::find(column.begin(), column.end(), s);
        return at + 1 == column.end() ? 0 : to_grid((*(at + 1))->text->line_gap.value);
    }

    void hang_rest() {
        std::vector<Hanging> things;
        std::vector<std::size_t> which;
        const Point round_middle{(room_.face.low.x + room_.face.high.x) / 2,
                                 (room_.face.low.y + room_.face.high.y) / 2};
        for (std::size_t i = 0; i < texts_.size(); ++i) {
            Setup& s = texts_[i];
            if (s.built.ink.empty()) continue;
            if (s.follows) {
                move(s, round_middle);
            } else if (!s.in_column) {
                const Box& ink = s.built.ink;
                move(s, {(room_.usable.low.x + room_.usable.high.x - ink.low.x - ink.high.x) / 2,
                         (room_.usable.low.y + room_.usable.high.y - ink.low.y - ink.high.y) / 2});
            }
            things.push_back({s.text->id, s.built.ink, s.text->across, s.text->up});
            which.push_back(i);
        }
        const Hung hung = hang(things, room_.face, room_.usable);
        for (std::size_t i = 0; i < which.size(); ++i) {
            if (hung.moves[i] != Point{}) move(texts_[which[i]], hung.moves[i]);
        }
        for (const ThingId& id : hung.circles)
            problem({"lettering.hangs-on-itself", {{"text", words_of(id)}}}, {"lettering.hang-elsewhere", {}},
                    Mark::Look);
        for (const ThingId& id : hung.lost)
            problem({"lettering.hangs-on-nothing", {{"text", words_of(id)}}}, {"lettering.hang-elsewhere", {}},
                    Mark::Look);
    }

    // By hand, last of all: what is nudged moves alone.
    void nudge() {
        for (Setup& s : texts_) {
            if (s.text->nudges.empty()) continue;
            s.built.ink = {};
            for (std::size_t i = 0; i < s.built.letters.size(); ++i) {
                Region& ink = s.built.letters[i].ink;
                for (const Nudge& n : s.text->nudges) {
                    if (n.letter == static_cast<int>(i)) ink = ink.moved(at(n.x, n.y));
                }
                s.built.ink = around(s.built.ink, ink.bounds());
            }
        }
    }

    std::string words_of(const ThingId& id) const {
        for (const Text& t : lettering_.texts) {
            if (t.id == id) return first_words(t);
        }
        return id.name;
    }
    static std::string first_words(const Text& t) { return t.words.substr(0, t.words.find('\n')); }

    // ---- what became of it

    void gather() {
        int index = 0;
        int line = 0;
        for (std::size_t i = 0; i < texts_.size(); ++i) {
            Setup& s = texts_[i];
            PlacedText placed;
            placed.id = s.text->id;
            placed.in_column = stays(s);
            int last_line = -1;
            int in_text = 0;
            for (PlacedLetter& letter : s.built.letters) {
                last_line = std::max(last_line, letter.line);
                letter.line += line;
                letter.index = index;
                index += std::max(1, static_cast<int>(letters_of(letter.text).size()));  // a ligature is several
                letter.of = static_cast<int>(i);
                letter.in_text = in_text++;
                plan_.ink = around(plan_.ink, letter.ink.bounds());
                plan_.letters.push_back(std::move(letter));
            }
            line += last_line + 1;
            if (s.typeface != nullptr && s.factors.y > 0) {
                placed.ink = s.built.ink;
                placed.cap_height = Length::from_mm(s.typeface->cap_height * s.factors.y);
                placed.x_height = Length::from_mm(s.typeface->x_height * s.factors.y);
                placed.stretch = s.factors.x / s.factors.y;
                placed.gaps_were = s.set.gaps_were;
                placed.gaps_are = s.set.gaps_are;
                placed.gaps_held = s.set.gaps_held;
                placed.closed = s.set.closed + s.built.closed;
                placed.slivers = s.built.slivers;
            }
            plan_.texts.push_back(std::move(placed));
        }
        plan_.cap_height = plan_.texts.front().cap_height;
        plan_.stretch = plan_.texts.front().stretch;
        plan_.free_across = from_grid(room_.usable.width() - plan_.ink.width());
        plan_.free_up = from_grid(room_.usable.height() - plan_.ink.height());
    }

    void judge() {
        for (Setup& s : texts_) {
            if (!s.ink()) continue;
            if (s.factors.y <= 0 || s.factors.x <= 0) {
                const bool arc = s.text->arrangement == Arrangement::Arc;
                if (arc && first_radius(*s.text, *s.typeface, 0, edge()) <= 0) {
                    problem({"lettering.arc-no-circle", {{"text", first_words(*s.text)}}}, {"lettering.arc-larger", {}},
                            Mark::Stop);
                } else if (s.snug()) {
                    problem({"lettering.gaps-fill", {}}, {"lettering.smaller-gaps", {}}, Mark::Stop);
                } else {
                    problem({"lettering.no-cap", {}}, {}, Mark::Stop);
                }
                continue;
            }
            judge_fit(s);
            judge_shape(s);
        }
        judge_overlaps();
    }

    // What a text may be sized to at most, by what it is sized by, in the marks of a tape.
    Reason size_that_fits(const Setup& s, double scale) const {
        const auto on_tape = [](double mm) { return Length::from_mm(std::floor(mm * 1.6 / 2.54) * 2.54 / 1.6); };
        const double grown = 2 * bolder(*s.text);
        switch (s.text->sizing) {
            case Sizing::XHeight:
                return {"lettering.largest-x", {{"height", on_tape(scale * s.typeface->x_height)}}};
            case Sizing::Overall:
                return {"lettering.largest-overall", {{"height", on_tape(scale * tallest_line(s) + grown)}}};
            case Sizing::Width:
                return {"lettering.largest-width",
                        {{"width", on_tape(scale * wide(*s.text) * s.demand.widest + s.demand.gap_across + grown)}}};
            case Sizing::CapHeight:
            case Sizing::Snug:
                break;
        }
        return {"lettering.largest-cap", {{"cap", on_tape(scale * s.typeface->cap_height)}}};
    }
    Reason smaller(const Setup& s) const {
        if (s.snug() || s.largest <= 0) return {"lettering.shorter", {}};
        return size_that_fits(s, s.largest);
    }

    void judge_fit(const Setup& s) {
        const Box& ink = s.built.ink;
        constexpr Length grain = Length::nanometres(grid_nm * 8);
        if (stays(s) && !s.text->across) {
            // The column as a whole says it once, for the text that is first.
            const bool first = &s == &first_of_column();
            Box all;
            for (const Setup& t : texts_) {
                if (stays(t) && !t.text->across) all = around(all, t.built.ink);
            }
            const Length across = from_grid(ink.width() - room_.usable.width());
            const Length up = first ? from_grid(all.height() - room_.usable.height()) : Length{};
            const Length over = std::max(across, up);
            const bool curved = s.text->arrangement == Arrangement::Arc && !room_.free.empty();
            if (over > grain && !to_shape(s) && !curved) {
                problem({"lettering.too-large", {{"over", over}}}, smaller(s), Mark::Stop);
                return;
            }
        }
        if (!outside(s) && column_alone(s) && s.snug() && s.text->arrangement == Arrangement::Stack) note_stack(s);
    }

    const Setup& first_of_column() const {
        return *std::find_if(texts_.begin(), texts_.end(), [](const Setup& t) { return stays(t) && t.ink(); });
    }
    bool column_alone(const Setup& s) const {
        return s.in_column && std::none_of(texts_.begin(), texts_.end(),
                                           [&](const Setup& t) { return &t != &s && t.in_column && t.ink(); });
    }

    // Ink that leaves the free part of the face: said with the zone that it enters. True when something was said.
    bool outside(const Setup& s) {
        const Region face = room_.outline.empty() ? Region::rectangle(room_.face) : room_.outline;
        const Region free = room_.free.empty() ? Region::rectangle(room_.usable) : room_.free;
        const Box free_box = free.bounds();
        Region out;
        const bool rectangle = free.rings().size() == 1 && free.rings().front().size() == 4;
        if (rectangle && free_box.holds(s.built.ink)) return false;
        std::vector<Region> shapes;
        for (const PlacedLetter& letter : plan_.letters) {
            if (&lettering_.texts[static_cast<std::size_t>(letter.of)] == s.text) shapes.push_back(letter.ink);
        }
        if (room_.in_field && !stays(s)) {
            // Only the face's own edge and the clear zones bind it.
            std::vector<Region> zones;
            for (const LetteringRoom::Zone& zone : room_.zones) zones.push_back(zone.region);
            const Region ink = merge(shapes);
            const std::vector<Region> both{subtract(ink, face),
                                           zones.empty() ? Region() : intersect(ink, merge(zones))};
            out = merge(both);
        } else {
            out = subtract(merge(shapes), grow(free, Length::nanometres(20'000)));
        }
        if (out.area_mm2() < 0.01) return false;
        for (const LetteringRoom::Zone& zone : room_.zones) {
            const Region in = intersect(out, zone.region);
            if (in.area_mm2() < 0.01) continue;
            const Box b = in.bounds();
            problem({"lettering.enters-zone",
                     {{"text", first_words(*s.text)},
                      {"zone", zone.name},
                      {"by", from_grid(std::min(b.width(), b.height()))}}},
                    {"lettering.move-off", {}}, Mark::Look);
            return true;
        }
        if (const Length over = reach_over(out, face); over > Length{}) {
            problem({room_.cut_at_edge ? "lettering.cut-at-edge" : "lettering.off-face",
                     {{"text", first_words(*s.text)}, {"by", over}}},
                    {room_.cut_at_edge ? "lettering.see-the-rest" : "lettering.move-or-cut", {}},
                    room_.cut_at_edge ? Mark::Look : Mark::Stop);
            return true;
        }
        const Box b = out.bounds();
        problem({"lettering.in-margin",
                 {{"text", first_words(*s.text)}, {"by", from_grid(std::min(b.width(), b.height()))}}},
                {"lettering.move-off", {}}, Mark::Look);
        return true;
    }

    void note_stack(const Setup& s) {
        const double stretch = s.factors.x / s.factors.y;
        if (!s.too_narrow && !s.too_low) {
            if (std::abs(stretch - 1) >= 0.005) {
                plan_.notes.push_back(
                    {stretch > 1 ? "lettering.wider" : "lettering.narrower", {{"by", Percent{std::abs(stretch - 1)}}}});
            }
            return;
        }
        plan_.offers = typefaces_that_fill(s);
        plan_.notes.push_back(
            {s.too_narrow ? "lettering.stops-width" : "lettering.stops-height",
             {{"limit", Percent{stretch_limit - 1}}, {"free", s.too_narrow ? plan_.free_across : plan_.free_up}}});
        if (plan_.offers.empty()) plan_.notes.push_back({"lettering.no-offer", {}});
    }

    // Typefaces whose own proportions come nearest to the room, of those within the limit.
    std::vector<TypefaceName> typefaces_that_fill(const Setup& s) const {
        std::vector<std::pair<double, TypefaceName>> found;
        for (const Typeface& typeface : typefaces_) {
            if (typeface.name == s.text->typeface) continue;
            const SetText set = shape_text(*s.text, typeface);
            const Demand d = demand(*s.text, set);
            if (set.lacks() || d.widest <= 0) continue;
            const double ratio = (width() / d.widest) / ((height() - d.gap_up) / d.tall);
            if (ratio <= stretch_limit && ratio >= 1 / stretch_limit)
                found.emplace_back(std::abs(std::log(ratio)), typeface.name);
        }
        std::stable_sort(found.begin(), found.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
        std::vector<TypefaceName> names;
        for (std::size_t i = 0; i < found.size() && i < 3; ++i) names.push_back(found[i].second);
        return names;
    }

    void judge_shape(const Setup& s) {
        const double asked = std::abs(wide(*s.text) - 1);
        if (asked > stretch_limit - 1 + 1e-9) {
            problem({wide(*s.text) > 1 ? "lettering.too-wide" : "lettering.too-thin",
                     {{"text", first_words(*s.text)}, {"by", Percent{asked}}, {"limit", Percent{stretch_limit - 1}}}},
                    {"lettering.other-width", {}}, Mark::Look);
        }
        for (const std::string& pair : s.set.open) {
            problem({"lettering.break", {{"text", first_words(*s.text)}, {"letters", pair}}},
                    {"lettering.break-remedy", {}}, Mark::Look);
        }
        for (const BuiltText::Joint& joint : s.built.open) {
            problem(
                {"lettering.arc-joint", {{"text", first_words(*s.text)}, {"letters", joint.letters}, {"by", joint.by}}},
                {"lettering.arc-joint-remedy", {}}, Mark::Look);
        }
        if (const int closed = s.set.closed + s.built.closed; closed > 0)
            plan_.notes.push_back(
                {"lettering.closed", {{"text", first_words(*s.text)}, {"breaks", std::int64_t{closed}}}});
        if (s.set.gaps_were > 0) {
            plan_.notes.push_back({s.set.gaps_held.empty() ? "lettering.evened" : "lettering.evened-bound",
                                   {{"text", first_words(*s.text)},
                                    {"was", fmt::format("{:.2f}", s.set.gaps_were)},
                                    {"is", fmt::format("{:.2f}", s.set.gaps_are)},
                                    {"pairs", fmt::format("{}", fmt::join(s.set.gaps_held, ", "))},
                                    {"least", s.text->least_gap.value}}});
        }
        if (s.text->arrangement == Arrangement::Arc) judge_arc(s);
        if (s.built.slivers > 0)
            plan_.notes.push_back(
                {"lettering.slivers", {{"text", first_words(*s.text)}, {"slivers", std::int64_t{s.built.slivers}}}});
    }

    // What an arc asks of its circle.
    void judge_arc(const Setup& s) {
        const std::string name = first_words(*s.text);
        constexpr double most = 0.97;  // of the circle: its ends do not meet
        if (s.text->arc.sweep < 5 || s.text->arc.sweep > 350)
            problem({"lettering.arc-sweep", {{"text", name}}}, {"lettering.arc-sweep-remedy", {}}, Mark::Look);
        if (s.built.lost_lines > 0)
            problem({"lettering.arc-lines", {{"text", name}, {"lines", std::int64_t{s.built.lost_lines}}}},
                    {"lettering.arc-larger", {}}, Mark::Stop);
        if (s.built.farthest <= most) return;
        const double fits = scale_for_circle(*s.text, s.set, *s.typeface, edge(), most);
        problem({"lettering.arc-round", {{"text", name}, {"share", Percent{s.built.farthest}}}},
                fits > 0 ? size_that_fits(s, fits) : Reason{"lettering.arc-larger", {}}, Mark::Stop);
    }

    void judge_overlaps() {
        for (std::size_t i = 0; i < texts_.size(); ++i) {
            for (std::size_t k = i + 1; k < texts_.size(); ++k) {
                if (texts_[i].built.ink.empty() || texts_[k].built.ink.empty()) continue;
                if (stays(texts_[i]) && stays(texts_[k]) && texts_[i].text->nudges.empty() &&
                    texts_[k].text->nudges.empty())
                    continue;
                if (!texts_[i].built.ink.meets(texts_[k].built.ink)) continue;
                if (!any_touch(static_cast<int>(i), static_cast<int>(k))) continue;
                problem({"lettering.texts-touch",
                         {{"text", first_words(*texts_[i].text)}, {"other", first_words(*texts_[k].text)}}},
                        {"lettering.move-apart", {}}, Mark::Look);
            }
        }
    }

    bool any_touch(int i, int k) const {
        for (const PlacedLetter& a : plan_.letters) {
            if (a.of != i) continue;
            for (const PlacedLetter& b : plan_.letters) {
                if (b.of == k && a.ink.bounds().meets(b.ink.bounds()) && touch(a.ink, b.ink)) return true;
            }
        }
        return false;
    }

    const Lettering& lettering_;
    const LetteringRoom& room_;
    const std::vector<Typeface>& typefaces_;
    std::vector<Setup> texts_;
    std::vector<ColumnSlot> slots_;
    LetteringPlan plan_;
};

}  // namespace

LetteringRoom room_of(const Blank& blank, const BlankPlan& plan) {
    LetteringRoom room{plan.usable, plan.free, plan.face, false, {}, {}, plan.outline};
    room.in_field =
        std::any_of(blank.fields.begin(), blank.fields.end(), [](const PaintedField& f) { return f.lettered; });
    if (blank.kind == Kind::Round) room.edge = from_grid(plan.face.width() / 2);
    for (std::size_t i = 0; i < plan.zones.size() && i < blank.clear.size(); ++i)
        room.zones.push_back({blank.clear[i].name, plan.zones[i]});
    return room;
}

LetteringPlan place(const Lettering& lettering, const LetteringRoom& room, const std::vector<Typeface>& typefaces) {
    if (room.usable.empty() || typefaces.empty() || lettering.texts.empty()) return {};
    return Placer(lettering, room, typefaces).run();
}

LetteringPlan place(const Text& text, const Box& usable, const std::vector<Typeface>& typefaces) {
    return place(Lettering{{text}, false}, LetteringRoom{usable, {}, usable, false, {}, {}}, typefaces);
}

std::vector<std::size_t> touched_by(const LetteringPlan& plan, const ThingId& moved, Point by) {
    const auto text = std::find_if(plan.texts.begin(), plan.texts.end(), [&](const auto& t) { return t.id == moved; });
    std::set<std::size_t> touched;
    if (text == plan.texts.end()) return {};
    const int of = static_cast<int>(text - plan.texts.begin());
    for (const PlacedLetter& a : plan.letters) {
        if (a.of != of) continue;
        const Region ink = a.ink.moved(by);
        for (const PlacedLetter& b : plan.letters) {
            if (b.of != of && ink.bounds().meets(b.ink.bounds()) && touch(ink, b.ink))
                touched.insert(static_cast<std::size_t>(b.of));
        }
    }
    return {touched.begin(), touched.end()};
}

ThingId unused_text_id(const Lettering& lettering) {
    for (std::size_t n = 0;; ++n) {
        ThingId id{letter_for(n)};
        if (std::none_of(lettering.texts.begin(), lettering.texts.end(), [&](const Text& t) { return t.id == id; }))
            return id;
    }
}

}  // namespace skarvel
