#include "laying/laying.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "values/stop.h"

namespace skarvel {
namespace {

constexpr Length true_within = 0.015625_in;  // a side that leans less over its length is straight to a tape
constexpr Length beyond_side = 1_in;         // a tape laid square still finds it there
constexpr Length shortest_side = 0.5_in;     // to hold a tape to; flattened curves have shorter ones

Length rounded(Length exact, Length fraction) {
    const double units = static_cast<double>(exact.nm()) / static_cast<double>(fraction.nm());
    return fraction * std::llround(units);
}

// Whether a straight side of the outline lies on `where`, beside `at`.
bool has_side(const Region& outline, Axis axis, std::int64_t where, std::int64_t at) {
    const Axis other_axis = other(axis);
    const std::int64_t near = to_grid(true_within);
    const std::int64_t reach = to_grid(beyond_side);
    for (const Ring& ring : outline.rings()) {
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point a = ring[i];
            const Point b = ring[(i + 1) % ring.size()];
            if (std::abs(along(axis, a) - where) > near || std::abs(along(axis, b) - where) > near) continue;
            const std::int64_t low = std::min(along(other_axis, a), along(other_axis, b));
            const std::int64_t high = std::max(along(other_axis, a), along(other_axis, b));
            if (high - low >= to_grid(shortest_side) && at >= low - reach && at <= high + reach) return true;
        }
    }
    return false;
}

Point nearest_corner(const Region& film, Point to) {
    Point best = to;
    double least = -1;
    for (const Ring& ring : film.rings()) {
        for (const Point& p : ring) {
            const double away = std::hypot(static_cast<double>(p.x - to.x), static_cast<double>(p.y - to.y));
            if (least < 0 || away < least) {
                least = away;
                best = p;
            }
        }
    }
    return best;
}

Axis longer_of(const Box& box) { return box.width() >= box.height() ? Axis::X : Axis::Y; }

Box ink_of(const Section& section, const Motion& move) {
    Box ink;
    for (const Piece& p : section.pieces) ink = around(ink, p.shape.bounds());
    return ink.empty() ? ink : move(ink);
}

class LayingOut {
  public:
    LayingOut(const LayingInput& in, const LayingHabits& habits)
        : in_(in), habits_(habits), face_(in.blank->face), board_(longer_of(face_)) {}

    LayingPlan run() {
        LayingPlan plan;
        std::vector<Region> films;
        for (const Lay& lay : lays_of(in_.loads->sections)) {
            look_for_stop();
            const Section& section = in_.loads->sections[lay.section];
            films.push_back(section.film.laid(lay.move));
            PlacedLay placed;
            placed.lay = lay;
            placed.number = static_cast<int>(plan.lays.size()) + 1;
            beside(placed, plan.lays, films);
            measure(placed, films.back());
            hinge(placed, section, films.back());
            tape(placed, section, films.back());
            pull(placed, ink_of(section, lay.move), films);
            plan.lays.push_back(std::move(placed));
        }
        if (in_.way == Way::PaintThrough) {
            for (PlacedLay& one : plan.lays) {
                one.lifted =
                    static_cast<int>(std::count_if(plan.lays.begin(), plan.lays.end(), [&](const PlacedLay& o) {
                        return o.lay.pass == one.lay.pass && o.number >= one.number;
                    }));
            }
        }
        if (!plan.lays.empty()) explain(plan);
        return plan;
    }

  private:
    // Films that lie there, and the one of them that it meets along the most.
    void beside(PlacedLay& placed, const std::vector<PlacedLay>& before, const std::vector<Region>& films) const {
        const Box own = films.back().bounds();
        std::int64_t most = 0;
        for (std::size_t i = 0; i < before.size(); ++i) {
            // A mask of an earlier pass has been lifted by then.
            if (in_.way == Way::PaintThrough && before[i].lay.pass != placed.lay.pass) continue;
            placed.down.push_back(i);
            const Box met = common(own, films[i].bounds());
            if (met.width() < 0 || met.height() < 0) continue;
            const std::int64_t meeting = std::max(met.width(), met.height());
            if (meeting <= most || !touch(films.back(), films[i])) continue;
            most = meeting;
            placed.against = i;
            const Point way = middle_of(films[i].bounds()) - middle_of(own);
            // They meet along a line that runs square to the way from one to the other.
            const bool upright = met.height() >= met.width();
            placed.at_edge = upright ? (way.x < 0 ? Edge::Left : Edge::Right) : (way.y < 0 ? Edge::Bottom : Edge::Top);
        }
    }

    [[nodiscard]] Distance distance(Axis axis, Point at, bool low) {
        const bool x = axis == Axis::X;
        const std::int64_t begin = along(axis, face_.low);
        const std::int64_t end = along(axis, face_.high);
        const std::int64_t beside =
            std::clamp(along(other(axis), at), along(other(axis), face_.low), along(other(axis), face_.high));
        // Across a board that is out of true its middle line counts, not the edges.
        const bool leans = in_.blank->tape && in_.blank->tape->from_centre && axis != board_;
        const auto from = [&](MeasuredFrom line, std::int64_t exact) {
            const Length length = from_grid(exact);
            return Distance{line, length, rounded(length, in_.fraction)};
        };
        const auto side = [&](bool lower) -> std::optional<Distance> {
            if (leans || !has_side(in_.blank->outline, axis, lower ? begin : end, beside)) return std::nullopt;
            return lower ? from(x ? MeasuredFrom::Left : MeasuredFrom::Bottom, along(axis, at) - begin)
                         : from(x ? MeasuredFrom::Right : MeasuredFrom::Top, end - along(axis, at));
        };
        if (const auto near = side(low)) return *near;
        if (const auto far = side(!low)) return *far;
        (leans ? out_of_true_ : no_side_) = true;
        return from(x ? MeasuredFrom::UprightMiddle : MeasuredFrom::LevelMiddle, along(axis, at) - (begin + end) / 2);
    }

    void measure(PlacedLay& placed, const Region& film) {
        const Box box = film.bounds();
        const auto corner = [&](Point wanted, bool low) {
            const Point at = nearest_corner(film, wanted);
            return MeasuredCorner{at, distance(Axis::X, at, low), distance(Axis::Y, at, low)};
        };
        placed.low = corner(box.low, true);
        placed.high = corner(box.high, false);
        // Where a corner comes to lie when the tape is read to its fraction.
        const auto moved = [](const Distance& d) {
            const double by = (d.marked - d.exact).in_mm();
            return d.from == MeasuredFrom::Right || d.from == MeasuredFrom::Top ? -by : by;
        };
        const double ax = moved(placed.low.across), ay = moved(placed.low.up);
        const double bx = moved(placed.high.across), by = moved(placed.high.up);
        for (const MeasuredCorner* c : {&placed.low, &placed.high}) {
            for (const Distance* d : {&c->across, &c->up})
                placed.off = std::max({placed.off, d->marked - d->exact, d->exact - d->marked});
        }
        const double dx = grid_to_mm(placed.high.at.x - placed.low.at.x);
        const double dy = grid_to_mm(placed.high.at.y - placed.low.at.y);
        const double apart_mm2 = dx * dx + dy * dy;
        if (apart_mm2 > 0) {
            const double turn = (dx * (by - ay) - dy * (bx - ax)) / apart_mm2;
            placed.turn_hundredths = static_cast<int>(std::lround(std::abs(turn) * 180 / std::numbers::pi * 100));
        }
        if (placed.lay.time > 0) {
            placed.on = Registers::PaintedMark;
        } else if (in_.loads->spans_face && !leans_across() && (spans(box, Axis::X) || spans(box, Axis::Y))) {
            placed.on = Registers::Sides;
            placed.across_counts = !spans(box, Axis::X);
            placed.up_counts = !spans(box, Axis::Y);
        }
    }

    [[nodiscard]] bool leans_across() const { return in_.blank->tape && in_.blank->tape->from_centre; }
    [[nodiscard]] bool spans(const Box& film, Axis axis) const {
        const std::int64_t near = to_grid(true_within);
        return along(axis, film.low) <= along(axis, face_.low) + near &&
               along(axis, film.high) >= along(axis, face_.high) - near;
    }

    void hinge(PlacedLay& placed, const Section& section, const Region& film) const {
        const Box box = film.bounds();
        const Axis axis = longer_of(box);
        const std::int64_t length = axis == Axis::X ? box.width() : box.height();
        placed.two_people = from_grid(length) >= habits_.helper_from;
        if (from_grid(length) < in_.hinged_from) {
            placed.slip_sheet = from_grid(length) >= habits_.slip_from;
            return;
        }
        // Within the middle third, where tape lies over the least ink; nearest to the middle of those.
        constexpr std::int64_t tries = 33;
        const std::int64_t low = along(axis, box.low) + length / 3;
        std::vector<std::int64_t> places;
        for (std::int64_t i = 0; i < tries; ++i) places.push_back(low + length * i / (3 * (tries - 1)));
        const std::vector<Length> ink = crossed(section.cut.laid(placed.lay.move), axis, places);
        const std::int64_t middle = along(axis, middle_of(box));
        std::size_t best = tries / 2;
        for (std::size_t i = 0; i < places.size(); ++i) {
            const auto rank = [&](std::size_t k) { return std::pair(ink[k], std::abs(places[k] - middle)); };
            if (rank(i) < rank(best)) best = i;
        }
        const std::int64_t at = places[best];
        Hinge h;
        // The half that meets what lies there already goes first, else the one where laying begins.
        const Edge low_end = axis == Axis::X ? Edge::Left : Edge::Bottom;
        const Edge high_end = axis == Axis::X ? Edge::Right : Edge::Top;
        const bool meets = placed.at_edge && (*placed.at_edge == low_end || *placed.at_edge == high_end);
        const bool lower = meets ? *placed.at_edge == low_end : axis == Axis::X || in_.start == LayFrom::Base;
        h.first = box;
        h.half = lower ? low_end : high_end;
        if (axis == Axis::X) {
            h.from = {at, box.low.y};
            h.to = {at, box.high.y};
            (lower ? h.first.high.x : h.first.low.x) = at;
        } else {
            h.from = {box.low.x, at};
            h.to = {box.high.x, at};
            (lower ? h.first.high.y : h.first.low.y) = at;
        }
        placed.hinge = h;
    }

    void tape(PlacedLay& placed, const Section& section, const Region& film) const {
        const Box ink = ink_of(section, placed.lay.move);
        placed.close = in_.tender && !ink.empty();
        placed.tape = placed.close ? common(grown(ink, habits_.tape_close), film.bounds()) : film.bounds();
        // Cut a little larger rather than too small.
        const auto up_to = [&](std::int64_t grid) {
            const std::int64_t nm = from_grid(grid).nm();
            const std::int64_t step = in_.fraction.nm();
            return Length::nanometres((nm + step - 1) / step * step);
        };
        placed.tape_across = up_to(placed.tape.width());
        placed.tape_up = up_to(placed.tape.height());
        placed.ink_edges_only = in_.way == Way::PaintThrough && in_.tender;
        placed.burnish_from = placed.hinge ? Point{(placed.hinge->from.x + placed.hinge->to.x) / 2,
                                                   (placed.hinge->from.y + placed.hinge->to.y) / 2}
                                           : middle_of(film.bounds());
    }

    // Across the grain from one long edge to the other, beginning where the most film is free to hold; without grain
    // the short way.
    void pull(PlacedLay& placed, const Box& ink, const std::vector<Region>& films) const {
        const Box box = films.back().bounds();
        const Axis grain = in_.grain == Grain::None     ? longer_of(box)
                           : in_.grain == Grain::Length ? board_
                                                        : other(board_);
        placed.across_grain = in_.grain != Grain::None;
        const Axis way = other(grain);
        const std::int64_t before = along(way, ink.low) - along(way, box.low);
        const std::int64_t behind = along(way, box.high) - along(way, ink.high);
        const bool from_low = ink.empty() || before >= behind;
        // At the end away from what it meets.
        bool high_end = true;
        if (placed.against) {
            const Point there = middle_of(films[*placed.against].bounds());
            high_end = along(grain, there) <= along(grain, middle_of(box));
        }
        const auto point = [&](bool low_on_way) {
            const std::int64_t w = low_on_way ? along(way, box.low) : along(way, box.high);
            const std::int64_t g = high_end ? along(grain, box.high) : along(grain, box.low);
            return way == Axis::X ? Point{w, g} : Point{g, w};
        };
        placed.pull_from = point(from_low);
        placed.pull_to = point(!from_low);
        const bool left = placed.pull_from.x == box.low.x;
        const bool bottom = placed.pull_from.y == box.low.y;
        placed.corner = bottom ? (left ? FilmCorner::LowerLeft : FilmCorner::LowerRight)
                               : (left ? FilmCorner::UpperLeft : FilmCorner::UpperRight);
    }

    void explain(LayingPlan& plan) const {
        if (plan.lays.size() > 1) plan.why.push_back({std::string("laying.start-") + word_of(in_.start), {}});
        if (out_of_true_) plan.why.push_back({"laying.out-of-true", {}});
        if (no_side_) plan.why.push_back({"laying.no-side", {}});
        if (in_.tender) plan.why.push_back({"laying.tender", {}});
        Length most;
        for (const PlacedLay& l : plan.lays) most = std::max(most, l.off);
        if (most > Length{}) plan.why.push_back({"laying.rounding", {{"off", most}, {"fraction", in_.fraction}}});
    }

    const LayingInput& in_;
    const LayingHabits& habits_;
    Box face_;
    Axis board_;  // along its length
    bool out_of_true_ = false, no_side_ = false;
};

}  // namespace

LayingPlan lay_out(const LayingInput& input, const LayingHabits& habits) { return LayingOut(input, habits).run(); }

std::vector<Reason> distances_told(const PlacedLay& lay) {
    const auto size = [](const Distance& d) { return d.marked < Length{} ? -d.marked : d.marked; };
    const auto side = [](const Distance& d) {
        std::string id = std::string("line.") + word_of(d.from);
        if (d.from == MeasuredFrom::UprightMiddle || d.from == MeasuredFrom::LevelMiddle)
            id += d.marked < Length{} ? "-before" : "-beyond";
        return std::vector<Reason>{{id, {}}};
    };
    std::vector<Reason> told;
    for (const auto& [corner, name] :
         {std::pair(&lay.low, "corner.lower-left"), std::pair(&lay.high, "corner.upper-right")}) {
        std::vector<std::pair<std::string, Argument>> arguments{{"corner", std::vector<Reason>{{name, {}}}}};
        if (lay.across_counts && lay.up_counts) {
            arguments.insert(arguments.end(), {{"across", size(corner->across)},
                                               {"side", side(corner->across)},
                                               {"up", size(corner->up)},
                                               {"end", side(corner->up)}});
            told.push_back({"laying.corner", std::move(arguments)});
        } else if (lay.across_counts || lay.up_counts) {
            const Distance& d = lay.across_counts ? corner->across : corner->up;
            arguments.insert(arguments.end(), {{"length", size(d)}, {"side", side(d)}});
            told.push_back({"laying.end", std::move(arguments)});
        }
    }
    return told;
}

const PlacedLay* lay_of(const LayingPlan& plan, std::size_t section, std::size_t time) {
    const auto at = std::find_if(plan.lays.begin(), plan.lays.end(),
                                 [&](const PlacedLay& l) { return l.lay.section == section && l.lay.time == time; });
    return at == plan.lays.end() ? nullptr : &*at;
}

}  // namespace skarvel
