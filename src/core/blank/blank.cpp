#include "blank/blank.h"

#include <algorithm>
#include <numbers>

#include "blank/room.h"
#include "blank/sound.h"

namespace skarvel {
namespace {

constexpr Length longest_asked = 240_in;

void problem(BlankPlan& plan, Mark mark, Reason what, Reason remedy = {}) {
    plan.problems.push_back({std::move(what), Station::Blank, std::move(remedy), mark});
}

bool four_sided(Kind kind) {
    return kind == Kind::Board || kind == Kind::Panel || kind == Kind::Canvas || kind == Kind::Field;
}

void take_sizes(BlankPlan& plan, const Blank& blank) {
    plan.length = blank.length.value;
    plan.width = blank.width ? blank.width->value : plan.stock ? plan.stock->width : Length{};
    if (blank.kind == Kind::Round) plan.width = plan.length;
    plan.thickness = blank.thickness ? blank.thickness->value : plan.stock ? plan.stock->thickness : 0.75_in;
}

// What was typed may be the size with the frame on, or inside it.
FramePlan take_frame(BlankPlan& plan, const Blank& blank) {
    const bool upright = blank.stands == Stands::Upright || !four_sided(blank.kind);
    const Length across = upright ? plan.width : plan.length;
    const Length up = upright ? plan.length : plan.width;
    if (blank.backing && goes_round(blank.frame.kind)) {
        const Backing& b = *blank.backing;
        FramePlan frame = frame_sizes(blank.frame, upright ? b.width.value : b.length.value,
                                      upright ? b.length.value : b.width.value);
        frame.on_backing = true;
        frame.cover_across = frame.cover_up = {};
        return frame;
    }
    if (!four_sided(blank.kind)) return {across, up, across, up, across, up, {}, {}, false, {}, {}};
    FramePlan frame = frame_sizes(blank.frame, across, up);
    plan.width = upright ? frame.bare_across : frame.bare_up;
    plan.length = upright ? frame.bare_up : frame.bare_across;
    return frame;
}

void say_tape(BlankPlan& plan, const Blank& blank) {
    plan.problems.insert(plan.problems.end(), plan.tape->problems.begin(), plan.tape->problems.end());
    if (plan.tape->cannot_be.empty() || plan.tape->refused) return;
    std::vector<Reason> names;
    const std::string level = blank.stands == Stands::Level ? "-level" : "";
    for (const Reading r : plan.tape->cannot_be) names.push_back({name_of(r) + level, {}});
    const auto first = static_cast<std::size_t>(plan.tape->cannot_be.front());
    problem(plan, Mark::Look,
            {names.size() == 1 ? "tape.cannot-be" : "tape.cannot-all-be",
             {{"reading", names}, {"read", blank.tape.taken.at(first)->value}, {"should", *plan.tape->should_be}}},
            {"tape.measure-again", {}});
}

// The outline, and where its edges run if it has four.
std::optional<Edges> take_outline(BlankPlan& plan, const Blank& blank) {
    const bool typed = blank.length.value > Length{} && (blank.width || plan.stock);
    if (four_sided(blank.kind) && blank.frame.kind != FrameKind::None && typed &&
        std::min(plan.length, plan.width) <= Length{}) {
        problem(plan, Mark::Stop, {"frame.nothing-left", {}}, {"frame.larger", {}});
        return std::nullopt;
    }
    const Expected<Region> shape =
        shape_of({blank.kind, plan.length, plan.width, blank.stands, blank.head, blank.arch, blank.outline});
    if (!shape) {
        plan.problems.push_back(shape.error());
        return std::nullopt;
    }
    plan.outline = *shape;
    if (!four_sided(blank.kind)) return std::nullopt;
    if (!blank.tape.any()) return edges_of(plan.outline.bounds());
    plan.tape = reconstruct(blank.tape, plan.length, plan.width);
    say_tape(plan, blank);
    Edges real = edges_of(*plan.tape, blank.stands == Stands::Level);
    const Region outline = within(real);
    if (outline.empty()) return edges_of(plan.outline.bounds());
    plan.outline = outline;
    return real;
}

// A band at one side of the face; along the edge as it really runs where the face has four.
Region band(const BlankPlan& plan, const std::optional<Edges>& edges, Edge edge, std::int64_t depth) {
    if (depth <= 0) return {};
    if (edges && plan.tape) return strip_along(*edges, edge, depth);
    Box box = plan.face;
    switch (edge) {
        case Edge::Top:
            box.low.y = box.high.y - depth;
            break;
        case Edge::Bottom:
            box.high.y = box.low.y + depth;
            break;
        case Edge::Left:
            box.high.x = box.low.x + depth;
            break;
        case Edge::Right:
            box.low.x = box.high.x - depth;
            break;
    }
    return Region::rectangle(box);
}

Length depth_of(const ClearZone& zone) { return zone.turns > 0 ? zone.girth.value * zone.turns : zone.depth.value; }

Edge across_from(Edge edge) {
    switch (edge) {
        case Edge::Top:
            return Edge::Bottom;
        case Edge::Bottom:
            return Edge::Top;
        case Edge::Left:
            return Edge::Right;
        case Edge::Right:
            break;
    }
    return Edge::Left;
}

Region shape_anywhere(const ClearZone& zone) {
    const Point middle{to_grid(zone.x.value), to_grid(zone.y.value)};
    if (zone.shape == ZoneShape::Circle)
        return zone.width.value > Length{} ? circle(middle, zone.width.value / 2) : Region{};
    const Point half{to_grid(zone.width.value) / 2, to_grid(zone.height.value) / 2};
    const Box box{middle - half, middle + half};
    return box.empty() ? Region{} : Region::rectangle(box);
}

void take_zones(BlankPlan& plan, const Blank& blank, const std::optional<Edges>& edges) {
    for (const ClearZone& zone : blank.clear) {
        const bool is_band = zone.shape == ZoneShape::Band;
        const std::int64_t depth = to_grid(depth_of(zone));
        Region region = is_band ? band(plan, edges, zone.edge, depth) : shape_anywhere(zone);
        if (zone.mirrored) {
            region = merge(region, is_band ? band(plan, edges, across_from(zone.edge), depth)
                                           : region.mirrored(plan.face.low.x + plan.face.high.x));
        }
        // A strip along a real edge reaches out beyond it, and where the zone lies is told by its bounds.
        if (is_band && plan.tape) region = intersect(region, plan.outline);
        plan.zones.push_back(region);
        if (zone.turns > 0) {
            // Once round the board for each turn.
            const Length across = zone.edge == Edge::Top || zone.edge == Edge::Bottom ? from_grid(plan.face.width())
                                                                                      : from_grid(plan.face.height());
            plan.rope += (across + plan.thickness) * 2 * zone.turns * (zone.mirrored ? 2 : 1);
        }
        if (!is_band && !region.empty() && intersect(region, plan.outline).empty())
            problem(plan, Mark::Look, {"blank.zone-outside", {{"name", zone.name}}});
    }
}

// Bands at the sides that the margin takes; shapes that are no rectangle are drawn in all round instead.
struct Margins {
    std::array<std::int64_t, 4> side{};
    Length round;
};

Margins margins_of(const Blank& blank, const FramePlan& frame) {
    Margins m;
    const bool upright = blank.stands == Stands::Upright;
    const bool sides_only = blank.kind == Kind::Board;
    for (const Edge edge : {Edge::Top, Edge::Bottom, Edge::Left, Edge::Right}) {
        const auto i = static_cast<std::size_t>(edge);
        const bool end = (edge == Edge::Top || edge == Edge::Bottom) == upright;
        const auto& own = blank.side_margin.at(i);
        Length margin = own                       ? own->value
                        : !four_sided(blank.kind) ? Length{}
                        : sides_only && end       ? Length{}
                                                  : blank.margin.value;
        margin += edge == Edge::Top || edge == Edge::Bottom ? frame.cover_up : frame.cover_across;
        m.side.at(i) = to_grid(margin);
    }
    if (!four_sided(blank.kind)) m.round = blank.margin.value;
    return m;
}

bool is_rectangle(const Region& region) {
    return region.rings().size() == 1 && region == Region::rectangle(region.bounds());
}

void take_free(BlankPlan& plan, const Blank& blank, const std::optional<Edges>& edges) {
    const Margins margins = margins_of(blank, plan.frame);
    std::vector<Region> taken;
    for (const Edge edge : {Edge::Top, Edge::Bottom, Edge::Left, Edge::Right}) {
        const std::int64_t depth = margins.side.at(static_cast<std::size_t>(edge));
        taken.push_back(band(plan, edges, edge, depth));
    }
    taken.insert(taken.end(), plan.zones.begin(), plan.zones.end());
    std::erase_if(taken, [](const Region& r) { return r.empty(); });
    Region open = margins.round > Length{} ? grow(plan.outline, -margins.round) : plan.outline;
    bool lettered = false;
    Region inside_fields;
    for (std::size_t i = 0; i < blank.fields.size(); ++i) {
        if (!blank.fields[i].lettered) continue;
        lettered = true;
        inside_fields = merge(inside_fields, plan.fields[i].region);
    }
    if (lettered) open = intersect(open, inside_fields);
    plan.free = taken.empty() || open.empty() ? open : subtract(open, merge(taken));
    plan.usable = is_rectangle(plan.free) ? plan.free.bounds() : largest_rectangle(plan.free);
    if (plan.usable.empty()) {
        problem(plan, Mark::Stop, {"blank.no-room", {}}, {"blank.less-clear", {}});
        plan.usable = {};
    }
}

void take_fields(BlankPlan& plan, const Blank& blank) {
    for (const PaintedField& field : blank.fields) {
        FieldPlan made;
        const Length depth = field.depth.value;
        const auto tape_line = [&](std::int64_t where) {
            const bool level = field.along == Axis::X;
            Box line = plan.face;
            (level ? line.low.y : line.low.x) = where;
            (level ? line.high.y : line.high.x) = where + 8;
            for (const Region& part : islands(intersect(Region::rectangle(line), plan.outline))) {
                const Box b = part.bounds();
                made.tape.emplace_back(Point{level ? b.low.x : where, level ? where : b.low.y},
                                       Point{level ? b.high.x : where, level ? where : b.high.y});
            }
        };
        if (depth > Length{} && field.border) {
            const Region inside = grow(plan.outline, -depth);
            made.region = inside.empty() ? plan.outline : subtract(plan.outline, inside);
            for (const Ring& ring : inside.rings()) {
                if (ring.size() > 12) continue;  // a curve is taped as it bends, not by lines
                for (std::size_t i = 0; i < ring.size(); ++i)
                    made.tape.emplace_back(ring[i], ring[(i + 1) % ring.size()]);
            }
        } else if (depth > Length{}) {
            const std::int64_t low = to_grid(field.middle.value) - to_grid(depth) / 2;
            Box box = plan.face;
            (field.along == Axis::X ? box.low.y : box.low.x) = low;
            (field.along == Axis::X ? box.high.y : box.high.x) = low + to_grid(depth);
            made.region = intersect(Region::rectangle(box), plan.outline);
            tape_line(low);
            tape_line(low + to_grid(depth));
        }
        if (made.region.empty()) problem(plan, Mark::Look, {"blank.field-outside", {}});
        plan.fields.push_back(std::move(made));
    }
}

void name_rooms(BlankPlan& plan, const Blank& blank) {
    for (std::size_t i = 0; i < blank.fields.size(); ++i) {
        if (blank.fields[i].border || plan.fields[i].region.empty()) continue;
        const Box box = largest_rectangle(plan.fields[i].region);
        const Box bounds = plan.fields[i].region.bounds();
        // The room of the whole band: as long as its shorter edge.
        Box room = box;
        if (blank.fields[i].along == Axis::X) {
            room = {{box.low.x, bounds.low.y}, {box.high.x, bounds.high.y}};
            if (!lies_in(room, plan.fields[i].region)) room = box;
        }
        if (!room.empty()) plan.rooms.push_back({{"room.band", {{"depth", blank.fields[i].depth.value}}}, room});
    }
    if (blank.kind == Kind::Arrow) {
        const std::int64_t body = to_grid(plan.length);
        const std::int64_t off = (plan.face.height() - to_grid(plan.width)) / 2;
        const std::int64_t from = blank.head.right ? 0 : plan.face.high.x - body;
        plan.rooms.push_back({{"room.body", {}},
                              {{from, std::max<std::int64_t>(off, 0)},
                               {from + body, std::max<std::int64_t>(off, 0) + to_grid(plan.width)}}});
        if (const Box both = largest_rectangle(plan.outline); !both.empty())
            plan.rooms.push_back({{"room.body-and-head", {}}, both});
    }
    if (plan.tape) {
        if (const Box box = largest_rectangle(plan.outline); !box.empty())
            plan.rooms.push_back({{"room.true-rectangle", {}}, box});
    }
}

// Frame, backing and cut list: of the panel as it really is.
void build(BlankPlan& plan, const Blank& blank, const std::optional<Edges>& edges,
           const std::vector<StockSize>& sizes) {
    const bool upright = plan.face.height() >= plan.face.width();
    const bool bent = plan.tape && !plan.tape->refused && !is_rectangle(plan.outline);
    plan.built = build_up_blank({plan.outline, edges, bent, plan.thickness, blank.frame, blank.backing, upright},
                                plan.frame, sizes);
    if (blank.kind == Kind::Field && blank.moulding)
        plan.built.whole = around(plan.built.whole, grown(plan.face, blank.moulding->value));
    if (blank.kind == Kind::Board && !blank.stock.empty())
        plan.cuts.push_back({{"cuts.blank", {}}, blank.stock, 1, plan.length, {}, 90});
    else if (blank.kind != Kind::Canvas && blank.kind != Kind::Field)
        plan.cuts.push_back({{"cuts.blank", {}},
                             blank.material,
                             1,
                             from_grid(std::max(plan.face.width(), plan.face.height())),
                             from_grid(std::min(plan.face.width(), plan.face.height())),
                             90});
    plan.cuts.insert(plan.cuts.end(), plan.frame.cuts.begin(), plan.frame.cuts.end());
    if (blank.backing) {
        const Backing& b = *blank.backing;
        plan.cuts.push_back({{"cuts.backing", {{"thickness", b.thickness.value}}},
                             b.material,
                             1,
                             std::max(b.length.value, b.width.value),
                             std::min(b.length.value, b.width.value),
                             90});
        const Length over = (b.width.value - from_grid(upright ? plan.face.width() : plan.face.height())) / 2;
        const Length under = (b.length.value - from_grid(upright ? plan.face.height() : plan.face.width())) / 2;
        if (std::min(over, under) < Length{})
            problem(plan, Mark::Look, {"blank.backing-small", {}});
        else
            plan.order.push_back({"blank.backing-shows", {{"sides", over}, {"ends", under}}});
    }
    plan.order.insert(plan.order.end(), plan.frame.notes.begin(), plan.frame.notes.end());
}

void weigh_all(BlankPlan& plan, const Blank& blank, const std::vector<Density>& densities,
               const std::vector<HangingRule>& hanging) {
    ToWeigh what{plan.outline, plan.thickness, blank.material, plan.built, blank.holding};
    if (blank.kind == Kind::Canvas) {
        // Cloth weighs next to nothing; the bars are 3/4 in wide (from memory).
        what.thickness = 0.0625_in;
        if (blank.bars) {
            what.built.frame.cm3 += round_edge(plan.outline).in_mm() * 19.05 * blank.bars->value.in_mm() * 1e-3;
            what.built.frame.material = "pine";
            if (what.built.frame.where.empty()) what.built.frame.where = plan.outline;
        }
    }
    if (blank.kind == Kind::Field) what.holding.way = Holds::InPlace;
    plan.weight = weigh(what, densities, hanging);
    plan.problems.insert(plan.problems.end(), plan.weight.problems.begin(), plan.weight.problems.end());
    if (blank.kind == Kind::Field) plan.weight.cautions.push_back({"blank.in-place", {}});
}

void note(BlankPlan& plan, const Blank& blank) {
    const Length longest = std::max(from_grid(plan.face.width()), from_grid(plan.face.height()));
    if (longest > longest_asked) problem(plan, Mark::Look, {"blank.very-long", {{"length", longest}}});
    if (plan.stock && blank.width && blank.width->value == plan.stock->nominal_width) {
        problem(plan, Mark::Look,
                {"blank.nominal-typed",
                 {{"stock", shown_name(blank.stock)}, {"typed", plan.width}, {"real", plan.stock->width}}});
    }
    if (blank.from_behind && blank.material != "acrylic")
        problem(plan, Mark::Look, {"blank.behind-opaque", {}}, {"blank.behind-clear-only", {}});
    if (blank.kind == Kind::Round && blank.grain != Grain::None) plan.notes.push_back({"blank.round-grain", {}});
}

// Boards are sawn and planed narrower than they are called, never wider: what is wider is another board, as `sound`
// says.
void drop_wrong_stock(BlankPlan& plan, Blank& blank) {
    constexpr Length swollen = 0.25_in;
    if (!plan.stock || plan.width <= plan.stock->nominal_width + swollen) return;
    plan.stock.reset();
    blank.stock.clear();
}

}  // namespace

bool is_sawn_here(const Blank& blank) {
    const bool of_a_length = blank.kind == Kind::Board || blank.kind == Kind::Arrow;
    // Sheets of plastic are cut with a knife, or come as they are.
    const bool of_wood = blank.material != "acrylic" && blank.material != "foam";
    return of_a_length && of_wood && !blank.stock.empty() && !blank.sawn && blank.already == Already::Bare &&
           blank.tape == Readings{};
}

BlankPlan measure_up(const Blank& typed, const std::vector<StockSize>& sizes, const std::vector<Density>& densities,
                     const std::vector<HangingRule>& hanging) {
    BlankPlan plan;
    Blank blank = sound(typed, sizes, plan.problems);
    if (const StockSize* size = find_stock(sizes, blank.stock); size != nullptr && blank.kind == Kind::Board)
        plan.stock = *size;
    if (!blank.stock.empty() && !plan.stock && blank.kind == Kind::Board) {
        problem(plan, Mark::Look, {"blank.unknown-stock", {{"stock", shown_name(blank.stock)}}},
                {"blank.measure-it", {}});
    }
    take_sizes(plan, blank);
    drop_wrong_stock(plan, blank);
    plan.frame = take_frame(plan, blank);
    const std::optional<Edges> edges = take_outline(plan, blank);
    if (plan.outline.empty()) return plan;
    plan.face = plan.outline.bounds();
    plan.area_sqft = plan.outline.area_mm2() / (304.8 * 304.8);
    const double edges_sqft = round_edge(plan.outline).in_mm() * plan.thickness.in_mm() / (304.8 * 304.8);
    plan.coat_sqft =
        plan.area_sqft * (blank.finished == Coated::All ? 2 : 1) + (blank.finished == Coated::Face ? 0 : edges_sqft);
    const bool frame_in_the_way = blank.frame.before && plan.frame.cover_across + plan.frame.cover_up > Length{};
    plan.straight_sides = four_sided(blank.kind) && blank.kind != Kind::Field && !frame_in_the_way &&
                          !(blank.frame.before && blank.frame.raised) && (!plan.tape || !plan.tape->from_centre);
    take_zones(plan, blank, edges);
    take_fields(plan, blank);
    take_free(plan, blank, edges);
    name_rooms(plan, blank);
    build(plan, blank, edges, sizes);
    weigh_all(plan, blank, densities, hanging);
    note(plan, blank);
    return plan;
}

}  // namespace skarvel
