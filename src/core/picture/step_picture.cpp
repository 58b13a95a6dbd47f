#include "picture/step_picture.h"

#include <algorithm>
#include <cmath>
#include <sstream>

#include "loads/machines.h"

namespace skarvel {
namespace {

Point point_on(Axis axis, std::int64_t on_axis, std::int64_t on_other) {
    return axis == Axis::X ? Point{on_axis, on_other} : Point{on_other, on_axis};
}

std::int64_t part_of(std::int64_t from, std::int64_t to, double share) {
    return from + std::llround(static_cast<double>(to - from) * share);
}

class Picture {
  public:
    Picture(const Step& step, const Job& job, const Plan& plan, const Shop& shop, const Trade& trade,
            const ColourPlan& colour)
        : step_(step),
          job_(job),
          plan_(plan),
          shop_(shop),
          trade_(trade),
          colour_(colour),
          face_(*colour.face),
          sign_(job.signs[face_.at.sign]),
          decided_(sign_.faces[face_.at.face]),
          board_(face_.blank->face) {}

    StepPicture run() {
        if (board_.empty()) return {};
        out_.whole = out_.window = face_.blank->built.whole.empty() ? board_ : face_.blank->built.whole;
        out_.laid_down = board_.height() > board_.width();
        draw();
        if (!out_.on_bed) {
            for (PictureMark& m : marks_of_bench(face_.id, job_, plan_, &step_.id)) out_.marks.push_back(std::move(m));
        }
        if (step_.work == Work::Proof) words();
        if (step_.hands_on.count() > 0) figure("figure.minutes", {{"minutes", step_.hands_on}});
        if (step_.wait_after.count() > 0) figure("figure.then-wait", {{"wait", step_.wait_after}});
        keep_to_window();
        return std::move(out_);
    }

  private:
    // What is read and signed, line by line.
    void words() {
        for (const Text& text : decided_.lettering.texts) {
            std::istringstream lines(text.words);
            for (std::string line; std::getline(lines, line);) {
                if (!line.empty()) figure("figure.words", {{"words", line}});
            }
        }
    }

    void draw() {
        switch (step_.work) {
            case Work::Cut:
            case Work::Weed:
            case Work::Tape:
                return load();
            case Work::Stack:
                return stacking();
            case Work::Lay:
            case Work::Lift:
                return with_film();
            case Work::Seal:
            case Work::Colour:
                return paint();
            case Work::Field:
                return field();
            default:
                break;
        }
        board();
        const Box box = board_;
        switch (step_.work) {
            case Work::Sand:
                coated({});
                strokes(grain(), box, 3);
                grit();
                return;
            case Work::Wipe:
                coated({});
                strokes(grain(), box, 2);
                return;
            case Work::Ground:
            case Work::ClearUnder:
            case Work::Clear:
                if (step_.work == Work::Clear) lettering(true);
                if (const Layer* l = layer(); l != nullptr && l->on == On::Edges)
                    edge();
                else if (l != nullptr && l->on == On::Field)
                    coated_field(*l);
                else
                    coated(l == nullptr ? std::string() : l->coat.colour);
                strokes(grain(), box, 2);
                coat_figure();
                return;
            case Work::DryBrush:
                lettering(false);
                coated(layer() == nullptr ? std::string() : layer()->coat.colour);
                strokes(Axis::X, box, 3);
                return;
            case Work::Distress:
                lettering(false);
                edge();
                strokes(grain(), box, 2);
                return;
            case Work::Chalk:
                coated("#ffffff");
                strokes(Axis::X, box, 2);
                strokes(Axis::Y, box, 2);
                return;
            case Work::Frame:
                area(Shows::Frame, face_.blank->built.frame.where);
                for (const auto& [from, to] : face_.blank->built.joints) line(Shows::TapeLine, from, to);
                return;
            case Work::Saw:
                return sawing();
            case Work::Decorate:
                lettering(true);
                for (const Region& zone : face_.blank->zones) area(Shows::Patch, zone);
                return;
            case Work::Hang:
                lettering(true);
                return hardware();
            case Work::Hardware:
                lettering(false);
                return hardware();
            case Work::Trial:
                return trial();
            case Work::Mend:
                return lettering(true);
            case Work::Turn: {
                const Point m = middle_of(board_);
                line(Shows::Over, point_on(across(), along(across(), board_.low), along(length(), m)),
                     point_on(across(), along(across(), board_.high), along(length(), m)));
                return;
            }
            default:  // proof, final
                return lettering(true);
        }
    }

    // What lies outside of what is to be seen is cut off, so that whoever draws it need not look.
    void keep_to_window() {
        const Box& w = out_.window;
        const Region seen = Region::rectangle(w);
        std::erase_if(out_.marks, [&](PictureMark& m) {
            if (!m.area.empty()) {
                if (!w.holds(m.area.bounds())) m.area = intersect(m.area, seen);
                return m.area.empty();
            }
            return !clip(m.from, m.to, w);
        });
    }

    // The part of a line within a box (Liang and Barsky, A new concept and method for line clipping, 1984).
    static bool clip(Point& from, Point& to, const Box& box) {
        double begin = 0, end = 1;
        for (const Axis axis : {Axis::X, Axis::Y}) {
            const auto start = static_cast<double>(along(axis, from));
            const auto way = static_cast<double>(along(axis, to)) - start;
            for (const bool low : {true, false}) {
                const double room = low ? start - static_cast<double>(along(axis, box.low))
                                        : static_cast<double>(along(axis, box.high)) - start;
                const double p = low ? -way : way;
                if (p == 0) {
                    if (room < 0) return false;
                } else if (p < 0) {
                    begin = std::max(begin, room / p);
                } else {
                    end = std::min(end, room / p);
                }
            }
        }
        if (begin > end) return false;
        const Point a = from, b = to;
        if (begin > 0) from = {part_of(a.x, b.x, begin), part_of(a.y, b.y, begin)};
        if (end < 1) to = {part_of(a.x, b.x, end), part_of(a.y, b.y, end)};
        return true;
    }

    // ---- what is drawn again and again

    PictureMark& add(Shows what) {
        out_.marks.push_back({what, {}, {}, {}, 0, {}, {}});
        return out_.marks.back();
    }
    void area(Shows what, Region region, std::string colour = {}, int number = 0) {
        if (region.empty()) return;
        PictureMark& m = add(what);
        m.area = std::move(region);
        m.colour = std::move(colour);
        m.number = number;
    }
    void line(Shows what, Point from, Point to, Reason says = {}, int number = 0) {
        PictureMark& m = add(what);
        m.from = from;
        m.to = to;
        m.says = std::move(says);
        m.number = number;
    }
    void point(Shows what, Point where, int number = 0, Reason says = {}) {
        line(what, where, where, std::move(says), number);
    }
    void figure(const char* id, std::vector<std::pair<std::string, Argument>> arguments) {
        out_.figures.push_back({id, std::move(arguments)});
    }

    [[nodiscard]] Axis length() const { return board_.height() > board_.width() ? Axis::Y : Axis::X; }
    [[nodiscard]] Axis across() const { return other(length()); }
    [[nodiscard]] Axis grain() const { return sign_.blank.grain == Grain::Across ? across() : length(); }

    [[nodiscard]] const Layer* layer() const {
        const auto at = std::find_if(decided_.layers.begin(), decided_.layers.end(),
                                     [&](const Layer& l) { return l.id == step_.layer; });
        return at == decided_.layers.end() ? nullptr : &*at;
    }
    void grit() {
        const Layer* l = layer();
        if (l != nullptr && l->grit > 0)
            figure("figure.grit", {{"grit", std::to_string(l->grit)}});
        else
            figure(step_.layer == sanding ? "figure.usual-grit" : "figure.fine-grit", {});
    }

    // The face as it looks when the step begins: with what hides of the layers before it.
    void board() {
        std::vector<Layer> before;
        for (const Layer& l : in_order(decided_.layers, colours_of(decided_), sign_.blank.from_behind, trade_)) {
            const bool here = !step_.layer.empty() ? l.id == step_.layer
                                                   : l.kind == LayerKind::Lettering &&
                                                         (step_.colour.empty() || l.colour == step_.colour);
            if (step_.work == Work::Saw) break;
            if (here && step_.work != Work::Final && step_.work != Work::Hang && step_.work != Work::Proof &&
                step_.work != Work::Turn && step_.work != Work::Mend)
                break;
            before.push_back(l);
        }
        std::string colour = ground_of(before, trade_);
        if (colour.empty()) {
            const Material* m = material_of(trade_, shown_material(sign_.blank));
            if (m != nullptr) colour = m->colour;
        }
        area(Shows::Board, face_.blank->outline, colour);
        const bool fields_done = step_.work != Work::Field && lettered_or_later();
        for (std::size_t i = 0; i < face_.blank->fields.size() && i < sign_.blank.fields.size(); ++i) {
            const bool there = fields_done || (step_.work == Work::Field && static_cast<int>(i) + 1 < step_.number);
            if (there) area(Shows::Coated, face_.blank->fields[i].region, sign_.blank.fields[i].colour);
        }
    }
    [[nodiscard]] bool lettered_or_later() const {
        const Step* first = nullptr;
        for (const Step& s : plan_.bench->steps) {
            if (s.face != step_.face) continue;
            if (first == nullptr && s.work == Work::Lay) first = &s;
        }
        return first != nullptr && step_.start >= first->start;
    }

    void coated(std::string colour) { area(Shows::Coated, face_.blank->outline, std::move(colour)); }
    void coated_field(const Layer& on) {
        const auto which = static_cast<std::size_t>(std::max(1, on.field)) - 1;
        if (which >= face_.blank->fields.size()) return coated(on.coat.colour);
        area(Shows::Coated, face_.blank->fields[which].region, on.coat.colour);
        for (const auto& [from, to] : face_.blank->fields[which].tape) line(Shows::TapeLine, from, to);
    }
    void edge() {
        constexpr Length rim = 0.5_in;
        area(Shows::Edge, subtract(face_.blank->outline, grow(face_.blank->outline, -rim)));
    }

    // Arrows along an axis, evenly across the box.
    void strokes(Axis axis, const Box& box, int count) {
        for (int i = 1; i <= count; ++i) {
            const std::int64_t beside = part_of(along(other(axis), box.low), along(other(axis), box.high),
                                                static_cast<double>(i) / (count + 1));
            line(Shows::Stroke, point_on(axis, part_of(along(axis, box.low), along(axis, box.high), 0.15), beside),
                 point_on(axis, part_of(along(axis, box.low), along(axis, box.high), 0.85), beside));
        }
    }

    // Lettering as it is seen: of all colours, or of those that come before this one.
    void lettering(bool all) {
        for (const ColourPlan& c : plan_.colours) {
            if (c.face->id != face_.id || (!all && !step_.colour.empty() && c.colour >= colour_.colour)) continue;
            const Colour* decided = find_colour(decided_, c.id);
            std::vector<Region> shapes;
            for (const Piece& p : *c.ink) shapes.push_back(p.shape);
            area(Shows::Ink, merge(shapes), decided == nullptr ? std::string() : decided->paint.colour);
        }
    }

    void coat_figure() {
        for (const auto& [name, value] : step_.instruction.arguments) {
            if (name != "coats") continue;
            const auto* coats = std::get_if<std::int64_t>(&value);
            if (coats != nullptr && *coats > 1)
                figure("figure.coat", {{"coat", std::int64_t{step_.number}}, {"coats", *coats}});
        }
    }

    // ---- loads on their beds

    void load() {
        const LoadsPlan& loads = *colour_.cut.loads;
        const auto which = static_cast<std::size_t>(std::max(1, step_.number)) - 1;
        if (which >= loads.loads.size()) return void(out_.window = {});
        const Load& load = loads.loads[which];
        const Mat& bed = colour_.cut.bed;
        out_.on_bed = true;
        out_.laid_down = false;
        const Length long_enough = bed.roll ? load.film_length : bed.usable.along;
        out_.whole = {{0, 0}, at(bed.usable.across, long_enough)};
        out_.window = out_.whole;
        area(Shows::Bed, Region::rectangle(out_.whole));
        const bool weeding = step_.work == Work::Weed;
        if (step_.work == Work::Tape) return taping(load);
        const bool mask = colour_.cut.making.way == Way::PaintThrough;
        int letters = 0, keepers = 0;
        std::vector<Region> pulled;
        Box films;
        for (const Placement& p : load.placements) {
            const Section& section = loads.sections[p.section];
            const LaidSection laid = lay_on_mat(section, p);
            films = around(films, laid.film.bounds());
            letters += section.letter_count;
            keepers += static_cast<int>(section.keepers.size());
            area(Shows::Film, laid.film, film_colour(), static_cast<int>(p.section) + 1);
            if (!weeding) {
                area(Shows::Opening, laid.cut);
            } else if (mask) {
                area(Shows::Waste, laid.cut);
                pulled.push_back(laid.cut);
                for (const Keeper& k : section.keepers) area(Shows::Keeper, on_mat(section, p, k.shape));
            } else {
                area(Shows::Waste, subtract(laid.film, laid.cut));
                area(Shows::Ink, laid.cut, film_colour());
            }
            for (const KnifeLine& l : laid.lines)
                line(l.kind == KnifeLine::Kind::Match ? Shows::MatchMark : Shows::WeedingLine, l.from, l.to);
            point(Shows::Order, middle_of(laid.film.bounds()), static_cast<int>(p.section) + 1);
        }
        if (weeding) {
            out_.window = films;
            std::erase_if(out_.marks,
                          [](const PictureMark& m) { return m.shows == Shows::Order || m.shows == Shows::Bed; });
            if (mask)
                number_outwards(pulled, films);
            else
                number_decal();
            figure("figure.letters", {{"letters", std::int64_t{letters}}});
            if (mask) figure("figure.keepers", {{"keepers", std::int64_t{keepers}}});
            return;
        }
        for (const Guest& g : load.guests) area(Shows::Guest, lay_on_mat(g.section, g.placement).film, {});
        for (const Box& piece : leftovers_on_bed(shop_.drawer, load, loads.sections, bed))
            area(Shows::Leftover, Region::rectangle(piece));
        if (load.from.empty()) {
            const std::int64_t end = std::min(to_grid(load.film_length), out_.whole.high.y);
            line(Shows::FilmEnd, {0, end}, {out_.whole.high.x, end}, {"picture.film", {{"film", load.film_length}}});
            figure("figure.film", {{"film", load.film_length}});
        } else {
            figure("figure.from-drawer", {{"from", leftovers_of(load)}});
        }
        // Beside the bed, where it hides nothing.
        const std::int64_t beside = to_grid(1_in);
        const std::int64_t feed = out_.whole.high.x + beside / 2;
        out_.window.high.x += beside;
        line(Shows::Feed, {feed, std::min(2 * beside, out_.whole.high.y)}, {feed, 0}, {"picture.feed", {}});
        figure("figure.sections",
               {{"sections", static_cast<std::int64_t>(load.placements.size() + load.guests.size())}});
    }

    // Each film of the load under its tape, as large as the plan of laying wants it.
    void taping(const Load& load) {
        const LoadsPlan& loads = *colour_.cut.loads;
        const bool mask = colour_.cut.making.way == Way::PaintThrough;
        Box all;
        for (const Placement& p : load.placements) {
            const LaidSection laid = lay_on_mat(loads.sections[p.section], p);
            area(Shows::Film, laid.film, film_colour(), static_cast<int>(p.section) + 1);
            if (mask)
                area(Shows::Opening, laid.cut);
            else
                area(Shows::Ink, laid.cut, film_colour());
            const PlacedLay* lay = colour_.laying ? lay_of(*colour_.laying, p.section, 0) : nullptr;
            Box tape = laid.film.bounds();
            if (lay != nullptr) {
                // Turned with its film on the mat.
                const bool turned = p.turned;
                const std::int64_t across = to_grid(turned ? lay->tape_up : lay->tape_across);
                const std::int64_t up = to_grid(turned ? lay->tape_across : lay->tape_up);
                const Point m = middle_of(tape);
                tape = {{m.x - across / 2, m.y - up / 2}, {m.x + across / 2, m.y + up / 2}};
                figure("figure.tape", {{"across", lay->tape_across}, {"up", lay->tape_up}});
            }
            area(Shows::Tape, Region::rectangle(tape));
            all = around(all, around(tape, laid.film.bounds()));
        }
        std::erase_if(out_.marks, [](const PictureMark& m) { return m.shows == Shows::Bed; });
        out_.window = out_.whole = all;
    }

    [[nodiscard]] std::string film_colour() const {
        return colour_.cut.making.way == Way::Decal ? decided_.colours[colour_.colour].paint.colour : std::string();
    }

    static Region on_mat(const Section& section, const Placement& placement, const Region& shape) {
        Section one;
        one.film = section.film;
        one.cut = shape;
        return lay_on_mat(one, placement).cut;
    }

    // From the middle of the load outwards, letter by letter.
    void number_outwards(const std::vector<Region>& pulled, const Box& films) {
        std::vector<std::pair<double, Point>> places;
        const Point m = middle_of(films);
        for (const Region& cut : pulled) {
            for (const Region& part : islands(cut)) {
                const Point p = middle_of(part.bounds());
                places.emplace_back(std::hypot(static_cast<double>(p.x - m.x), static_cast<double>(p.y - m.y)), p);
            }
        }
        std::sort(places.begin(), places.end());
        // Many letters: the way is enough.
        constexpr std::size_t most_numbers = 12;
        if (places.size() > most_numbers) {
            const Axis way = films.width() >= films.height() ? Axis::X : Axis::Y;
            for (const double share : {0.08, 0.92})
                line(
                    Shows::Stroke, m,
                    point_on(way, part_of(along(way, films.low), along(way, films.high), share), along(other(way), m)));
            return;
        }
        int number = 0;
        for (const auto& place : places) point(Shows::Order, place.second, ++number);
    }

    // Insides of the letters first, then the large outside.
    void number_decal() {
        std::vector<std::pair<Point, int>> places;
        for (const PictureMark& m : out_.marks) {
            if (m.shows != Shows::Waste) continue;
            for (const Region& part : islands(m.area)) {
                const bool outside = part.bounds() == m.area.bounds();
                const Box b = part.bounds();
                places.emplace_back(outside ? Point{b.low.x, b.high.y} : middle_of(b), outside ? 2 : 1);
            }
        }
        for (const auto& [where, number] : places) point(Shows::Order, where, number);
    }

    // ---- on the blank

    [[nodiscard]] const PlacedLay* placed() const {
        return colour_.laying ? lay_of(*colour_.laying, static_cast<std::size_t>(std::max(1, step_.number)) - 1,
                                       static_cast<std::size_t>(step_.time) - 1)
                              : nullptr;
    }
    [[nodiscard]] Region film_of(const PlacedLay& l) const {
        return colour_.cut.loads->sections[l.lay.section].film.laid(l.lay.move);
    }
    [[nodiscard]] Region cut_of(const PlacedLay& l) const {
        return colour_.cut.loads->sections[l.lay.section].cut.laid(l.lay.move);
    }

    // Around the film; as far as the sides of the blank where they are near.
    void look_at(const Box& film) {
        const std::int64_t longest = std::max(film.width(), film.height());
        const std::int64_t room = std::max(to_grid(1_in), longest * 15 / 100);
        Box w{{film.low.x - room, film.low.y - room}, {film.high.x + room, film.high.y + room}};
        const std::int64_t near = longest * 60 / 100;
        const auto reach = [&](std::int64_t& edge, std::int64_t side, int way) {
            if (way * (side - edge) < near) edge = side + way * room / 3;
        };
        reach(w.low.x, board_.low.x, -1);
        reach(w.low.y, board_.low.y, -1);
        reach(w.high.x, board_.high.x, 1);
        reach(w.high.y, board_.high.y, 1);
        out_.window = w;
    }

    void measured(const MeasuredCorner& corner, bool with_across, bool with_up) {
        const auto draw = [&](Axis axis, const Distance& d) {
            const std::int64_t low = along(axis, board_.low);
            const std::int64_t high = along(axis, board_.high);
            const bool far = d.from == MeasuredFrom::Right || d.from == MeasuredFrom::Top;
            const bool middle = d.from == MeasuredFrom::UprightMiddle || d.from == MeasuredFrom::LevelMiddle;
            const std::int64_t line_at = middle ? (low + high) / 2 : far ? high : low;
            const Length shown = d.marked < Length{} ? -d.marked : d.marked;
            line(Shows::Distance, point_on(axis, line_at, along(other(axis), corner.at)), corner.at,
                 {"picture.distance", {{"length", shown}}});
            if (middle) {
                const bool there = std::any_of(out_.marks.begin(), out_.marks.end(), [&](const PictureMark& m) {
                    return m.shows == Shows::Middle && along(axis, m.from) == line_at;
                });
                if (!there)
                    line(Shows::Middle, point_on(axis, line_at, along(other(axis), board_.low)),
                         point_on(axis, line_at, along(other(axis), board_.high)), {"picture.middle", {}});
            }
        };
        if (with_across) draw(Axis::X, corner.across);
        if (with_up) draw(Axis::Y, corner.up);
        point(Shows::Corner, corner.at);
    }

    // The board with what is lettered already, and the film of the step on it.
    void with_film() {
        const PlacedLay* l = placed();
        if (l == nullptr) return void(out_.window = {});
        board();
        lettering(false);
        const Region film = film_of(*l);
        look_at(film.bounds());
        if (step_.work == Work::Lay)
            lay(*l, film);
        else
            lift(*l, film);
    }

    // On the bench: the film that is taken up, and those that are on the tape already.
    void stacking() {
        const Section& own = colour_.cut.loads->sections.front();
        Box films = own.film.bounds();
        area(Shows::Film, own.film, film_colour(), 1);
        area(Shows::Ink, own.cut, film_colour());
        for (const ColourPlan& c : plan_.colours) {
            if (c.face->id != face_.id || c.colour <= colour_.colour || c.cut.making.way != Way::Decal ||
                c.cut.loads->sections.size() != 1)
                continue;
            const Section& above = c.cut.loads->sections.front();
            films = around(films, above.film.bounds());
            const Colour* decided = find_colour(decided_, c.id);
            area(Shows::Ink, above.cut, decided == nullptr ? std::string() : decided->paint.colour);
        }
        for (const KnifeLine& k : own.lines) {
            if (k.kind == KnifeLine::Kind::Match) line(Shows::MatchMark, k.from, k.to);
        }
        look_at(films);
        out_.window = around(films, films);
    }

    void lay(const PlacedLay& l, const Region& film) {
        for (const std::size_t i : l.down) {
            const PlacedLay& there = colour_.laying->lays[i];
            area(Shows::Neighbour, film_of(there), film_colour(), static_cast<int>(there.lay.section) + 1);
        }
        area(Shows::Film, film, film_colour(), static_cast<int>(l.lay.section) + 1);
        const bool mask = colour_.cut.making.way == Way::PaintThrough;
        area(mask ? Shows::Opening : Shows::Ink, cut_of(l), film_colour());
        if (l.close) area(Shows::Tape, Region::rectangle(l.tape));
        for (const KnifeLine& k : colour_.cut.loads->sections[l.lay.section].lines) {
            if (k.kind == KnifeLine::Kind::Match) line(Shows::MatchMark, l.lay.move(k.from), l.lay.move(k.to));
        }
        measured(l.low, l.across_counts, l.up_counts);
        measured(l.high, l.across_counts, l.up_counts);
        for (Reason& told : distances_told(l)) out_.figures.push_back(std::move(told));
        const Box box = film.bounds();
        if (l.hinge) {
            area(Shows::FirstHalf, intersect(film, Region::rectangle(l.hinge->first)));
            line(Shows::Hinge, l.hinge->from, l.hinge->to, {"picture.hinge", {}});
        }
        const Axis way = box.width() >= box.height() ? Axis::X : Axis::Y;
        for (const double share : {0.1, 0.9}) {
            line(Shows::Burnish, l.burnish_from,
                 point_on(way, part_of(along(way, box.low), along(way, box.high), share),
                          along(other(way), l.burnish_from)));
        }
        figure("figure.tape", {{"across", l.tape_across}, {"up", l.tape_up}});
        if (l.two_people) figure("figure.two-people", {});
    }

    void lift(const PlacedLay& l, const Region& film) {
        int last = 0;
        for (const PlacedLay& other_lay : colour_.laying->lays) {
            if (other_lay.lay.pass != l.lay.pass) continue;
            last = std::max(last, other_lay.lifted);
            const std::string paint = decided_.colours[colour_.colour].paint.colour;
            if (other_lay.lifted < l.lifted) area(Shows::Ink, cut_of(other_lay), paint);
            if (other_lay.lifted > l.lifted)
                area(Shows::Neighbour, film_of(other_lay), {}, static_cast<int>(other_lay.lay.section) + 1);
        }
        area(Shows::Film, film, {}, static_cast<int>(l.lay.section) + 1);
        area(Shows::Ink, cut_of(l), decided_.colours[colour_.colour].paint.colour);
        for (const Keeper& k : colour_.cut.loads->sections[l.lay.section].keepers)
            area(Shows::Keeper, k.shape.laid(l.lay.move));
        line(Shows::Pull, l.pull_from, l.pull_to, {"picture.pull", {}});
        point(Shows::Corner, l.pull_from);
        if (last > 1) figure("figure.lifted", {{"number", std::int64_t{l.lifted}}, {"of", std::int64_t{last}}});
        const LiftWindow& window = colour_.method->lift;
        figure("figure.window", {{"from", window.from}, {"to", window.to}});
    }

    // Through the masks of this pass: those first that come off first.
    void paint() {
        board();
        lettering(false);
        const Layer* through = layer();
        const std::string paint =
            through != nullptr ? through->coat.colour : decided_.colours[colour_.colour].paint.colour;
        Box films;
        int letters = 0;
        for (const PlacedLay& l : colour_.laying->lays) {
            if (l.lay.pass != step_.time) continue;
            if (step_.section > 0 && l.lay.section + 1 != static_cast<std::size_t>(step_.section)) continue;
            const Region film = film_of(l);
            films = around(films, film.bounds());
            letters += colour_.cut.loads->sections[l.lay.section].letter_count;
            area(Shows::Film, film, {}, static_cast<int>(l.lay.section) + 1);
            area(Shows::Opening, cut_of(l), step_.work == Work::Colour ? paint : std::string());
            const Box ink = cut_of(l).bounds();
            // Up and down, never wiping.
            const Point low{middle_of(ink).x, part_of(ink.low.y, ink.high.y, 0.3)};
            const Point high{low.x, part_of(ink.low.y, ink.high.y, 0.7)};
            line(Shows::Stroke, low, high);
            line(Shows::Stroke, high, low);
            point(Shows::Order, {l.tape.low.x, l.tape.high.y}, l.lifted);
        }
        if (films.empty()) return;
        look_at(films);
        figure("figure.letters", {{"letters", std::int64_t{letters}}});
        if (step_.work == Work::Colour) coat_figure();
        if (colour_.method->sprayed && step_.work == Work::Colour) cover(films);
    }

    // Paper on what spray would reach beside the films.
    void cover(const Box& films) {
        const std::int64_t by = to_grid(trade_.laying.cover);
        const Box reach{{films.low.x - by, films.low.y - by}, {films.high.x + by, films.high.y + by}};
        const Box all = common(reach, out_.whole);
        const Box strips[] = {{{all.low.x, films.high.y}, all.high},
                              {all.low, {all.high.x, films.low.y}},
                              {{all.low.x, films.low.y}, {films.low.x, films.high.y}},
                              {{films.high.x, films.low.y}, {all.high.x, films.high.y}}};
        for (const Box& strip : strips) {
            if (strip.empty()) continue;
            area(Shows::Cover, Region::rectangle(strip));
            out_.marks.back().says = {"picture.cover",
                                      {{"across", from_grid(strip.width())}, {"up", from_grid(strip.height())}}};
        }
        figure("figure.cover", {{"by", trade_.laying.cover}});
    }

    // Tape first, then from the tape into the field.
    void field() {
        board();
        const auto which = static_cast<std::size_t>(std::max(1, step_.number)) - 1;
        if (which >= face_.blank->fields.size()) return void(out_.window = {});
        const FieldPlan& f = face_.blank->fields[which];
        area(Shows::Coated, f.region, sign_.blank.fields[which].colour);
        Length taped;
        const Point inside = middle_of(f.region.bounds());
        int number = 0;
        for (const auto& [from, to] : f.tape) {
            line(Shows::TapeLine, from, to, {}, ++number);
            const Point m{(from.x + to.x) / 2, (from.y + to.y) / 2};
            taped += from_grid(
                std::llround(std::hypot(static_cast<double>(to.x - from.x), static_cast<double>(to.y - from.y))));
            // From the side of the face to the line.
            const bool level = std::abs(to.y - from.y) <= std::abs(to.x - from.x);
            const Axis axis = level ? Axis::Y : Axis::X;
            const std::int64_t beside = part_of(along(other(axis), from), along(other(axis), to), 0.06 * number);
            line(Shows::Distance, point_on(axis, along(axis, board_.low), beside),
                 point_on(axis, along(axis, from), beside),
                 {"picture.distance", {{"length", from_grid(along(axis, from) - along(axis, board_.low))}}});
            const bool border = sign_.blank.fields[which].border;
            const std::int64_t depth = to_grid(sign_.blank.fields[which].depth.value);
            const std::int64_t toward = along(axis, inside) > along(axis, m) ? 1 : -1;
            const std::int64_t reach = border ? -toward * depth : (along(axis, inside) - along(axis, m));
            line(Shows::Stroke, m, point_on(axis, along(axis, m) + reach * 8 / 10, along(other(axis), m)));
        }
        figure("figure.tape-lines", {{"lines", std::int64_t{number}}, {"length", taped}});
    }

    // Square at the one end, and off at its length on the other.
    void sawing() {
        const Axis axis = length();
        const std::int64_t low = along(axis, board_.low), high = along(axis, board_.high);
        const std::int64_t near = along(other(axis), board_.low), far = along(other(axis), board_.high);
        for (const std::int64_t end : {low, high})
            line(Shows::SawLine, point_on(axis, end, near), point_on(axis, end, far));
        const std::int64_t beside = part_of(near, far, 0.5);
        const Length from_end = from_grid(high - low);
        line(Shows::Distance, point_on(axis, low, beside), point_on(axis, high, beside),
             {"picture.distance", {{"length", from_end}}});
        figure("figure.saw", {{"length", from_end}});
    }

    void hardware() {
        int number = 0;
        for (const HangPoint& p : face_.blank->weight.points) {
            point(Shows::Fixing, p.at, ++number, p.what);
            const std::int64_t side = p.at.x * 2 <= board_.low.x + board_.high.x ? board_.low.x : board_.high.x;
            line(Shows::Distance, {side, p.at.y}, p.at,
                 {"picture.distance", {{"length", from_grid(std::abs(p.at.x - side))}}});
            line(Shows::Distance, {p.at.x, board_.high.y}, p.at,
                 {"picture.distance", {{"length", from_grid(board_.high.y - p.at.y)}}});
        }
        if (number > 0) figure("figure.fixings", {{"fixings", std::int64_t{number}}});
    }

    void trial() {
        const std::int64_t side = std::min({to_grid(trade_.laying.patch), board_.width(), board_.height()});
        area(Shows::Patch, Region::rectangle({board_.low, {board_.low.x + side, board_.low.y + side}}));
        figure("figure.patch", {{"side", from_grid(side)}});
    }

    const Step& step_;
    const Job& job_;
    const Plan& plan_;
    const Shop& shop_;
    const Trade& trade_;
    const ColourPlan& colour_;
    const FacePlan& face_;
    const Sign& sign_;
    const Face& decided_;
    Box board_;
    StepPicture out_;
};

}  // namespace

namespace {

void add_halves(std::vector<PictureMark>& marks, const SplitTrial& trial, const Box& face) {
    const Axis axis = trial.halves == Halves::LeftRight ? Axis::X : Axis::Y;
    const std::int64_t middle = part_of(along(axis, face.low), along(axis, face.high), 0.5);
    const auto at = [&](double along_it, double across_it) {
        return point_on(axis, part_of(along(axis, face.low), along(axis, face.high), along_it),
                        part_of(along(other(axis), face.low), along(other(axis), face.high), across_it));
    };
    marks.push_back({Shows::Split,
                     {},
                     point_on(axis, middle, along(other(axis), face.low)),
                     point_on(axis, middle, along(other(axis), face.high)),
                     0,
                     {},
                     {}});
    // The first half is the left one, or the upper one.
    const bool upwards = axis == Axis::Y;
    for (const auto& [way, first] : {std::pair(&trial.first, true), std::pair(&trial.second, false)}) {
        if (way->empty()) continue;
        const Point where = at(first != upwards ? 0.25 : 0.75, 0.5);
        marks.push_back({Shows::Half, {}, where, where, first ? 1 : 2, {"figure.words", {{"words", *way}}}, {}});
    }
}

}  // namespace

std::vector<PictureMark> marks_of_bench(const FaceId& face, const Job& job, const Plan& plan, const StepId* step) {
    std::vector<PictureMark> marks;
    const ColourPlan* any = plan.of(face);
    if (any == nullptr) return marks;
    for (const SplitTrial& trial : job.bench.trials) {
        const ColourPlan* of = plan.of(trial.step);
        if (of != nullptr && of->face->id == face && (step == nullptr || *step == trial.step))
            add_halves(marks, trial, any->face->blank->face);
    }
    for (const Mishap& m : job.bench.mishaps) {
        const ColourPlan* of = plan.of(m.at);
        if (!m.place || of == nullptr || of->face->id != face) continue;
        if (step != nullptr && *step != m.at && *step != step_id(face, Work::Mend, std::to_string(m.number))) continue;
        marks.push_back({Shows::Spot,
                         {},
                         *m.place,
                         *m.place,
                         m.number,
                         {m.letter.empty() ? "figure.spot" : "figure.spot-letter",
                          {{"what", std::vector<Reason>{{"mishap." + m.kind, {}}}}, {"letter", m.letter}}},
                         {}});
    }
    return marks;
}

StepPicture picture_of(const Step& step, const Job& job, const Plan& plan, const Shop& shop, const Trade& trade) {
    const ColourPlan* colour = step.colour.empty() ? plan.of(step.face) : plan.of(step.face, step.colour);
    if (colour == nullptr || colour->face->at.sign >= job.signs.size() ||
        colour->face->at.face >= job.signs[colour->face->at.sign].faces.size())
        return {};
    const Face& face = face_at(job, colour->face->at);
    if (face.id != colour->face->id || colour->colour >= face.colours.size()) return {};
    return Picture(step, job, plan, shop, trade, *colour).run();
}

StepPicture picture_of_order(const FaceId& face, const Job& job, const Plan& plan, const Trade& trade) {
    StepPicture out;
    int number = 0;
    std::vector<PictureMark> numbers;
    const Shop any_shop;
    for (const ColourPlan& c : plan.colours) {
        if (c.face->id != face || !c.laying) continue;
        if (out.marks.empty()) {
            Step begin;
            begin.face = face;
            begin.work = Work::Proof;
            begin.hands_on = Minutes(0);
            out = picture_of(begin, job, plan, any_shop, trade);
            std::erase_if(out.marks, [](const PictureMark& m) { return m.shows == Shows::Ink; });
            out.figures.clear();
        }
        for (const PlacedLay& l : c.laying->lays) {
            const Section& section = c.cut.loads->sections[l.lay.section];
            PictureMark film{Shows::Neighbour, section.film.laid(l.lay.move), {}, {}, ++number, {}, {}};
            const Box box = film.area.bounds();
            out.marks.push_back(std::move(film));
            PictureMark disc{Shows::Order, {}, {box.low.x, box.high.y}, {box.low.x, box.high.y}, number, {}, {}};
            numbers.push_back(std::move(disc));
        }
        const auto at = place_of(job, c.id);
        std::vector<Region> ink;
        for (const Piece& p : *c.cut.pieces) ink.push_back(p.shape);
        if (at && !ink.empty())
            out.marks.push_back({Shows::Ink, merge(ink), {}, {}, 0, {}, colour_at(job, *at).paint.colour});
    }
    out.marks.insert(out.marks.end(), numbers.begin(), numbers.end());
    return out;
}

std::vector<std::size_t> order_of_laying(const BenchPlan& bench, const FaceId& face) {
    std::vector<std::size_t> order;
    for (std::size_t i = 0; i < bench.steps.size(); ++i) {
        const Step& s = bench.steps[i];
        if (s.face != face) continue;
        switch (s.work) {
            case Work::Field:
            case Work::Stack:
            case Work::Lay:
            case Work::Seal:
            case Work::Colour:
            case Work::Lift:
                order.push_back(i);
                break;
            default:
                break;
        }
    }
    return order;
}

}  // namespace skarvel
