#include "job/blank_commands.h"

#include <algorithm>

#include "job/job.h"

namespace skarvel {
namespace {

constexpr Display sixtyfourths{Unit::Inch, 64};

template <class T>
void remove(std::vector<T>& from, std::size_t place) {
    if (place < from.size()) from.erase(from.begin() + static_cast<std::ptrdiff_t>(place));
}

void begin_at(Measure& measure, const Measure& from) {
    if (measure.typed.empty()) measure = from;
}

}  // namespace

void turn(Blank& blank, Stands stands) {
    if (blank.stands == stands) return;
    blank.stands = stands;
    for (ClearZone& zone : blank.clear) {
        switch (zone.edge) {
            case Edge::Top:
                zone.edge = Edge::Left;
                break;
            case Edge::Bottom:
                zone.edge = Edge::Right;
                break;
            case Edge::Left:
                zone.edge = Edge::Top;
                break;
            case Edge::Right:
                zone.edge = Edge::Bottom;
                break;
        }
    }
}

void make_of(Blank& blank, const std::string& material) {
    blank.material = material;
    if (material != "acrylic") blank.from_behind = false;
}

void sell_as(Blank& blank, const std::string& stock, Length width, const Display& display) {
    blank.stock = stock;
    if (!stock.empty()) {
        blank.width.reset();
    } else if (!blank.width && width > Length{}) {
        blank.width = measure_of(width, display);
    }
}

void take_outline(Blank& blank, Region outline, Length width, const std::string& source) {
    const Measure known = blank.outline ? blank.outline->known : measure_of(width > Length{} ? width : 12_in, {});
    const bool by_width = !blank.outline || blank.outline->by_width;
    blank.kind = Kind::Drawn;
    blank.outline = DrawnOutline{std::move(outline), by_width, known, source};
}

ZonePlace place_of(const ClearZone& zone) {
    if (zone.shape == ZoneShape::Rectangle) return ZonePlace::Rectangle;
    if (zone.shape == ZoneShape::Circle) return ZonePlace::Circle;
    return static_cast<ZonePlace>(zone.edge);
}

void add_zone(Blank& blank, const std::string& name) {
    const bool four_sided = blank.kind == Kind::Board || blank.kind == Kind::Panel || blank.kind == Kind::Canvas ||
                            blank.kind == Kind::Field;
    blank.clear.push_back(
        {blank.stands == Stands::Upright || !four_sided ? Edge::Top : Edge::Left, measure("2"), name});
}

void remove_zone(Blank& blank, std::size_t zone) { remove(blank.clear, zone); }

void place_zone(Blank& blank, std::size_t zone, ZonePlace place, const Box& face) {
    if (zone >= blank.clear.size()) return;
    ClearZone& z = blank.clear[zone];
    if (place < ZonePlace::Rectangle) {
        z.shape = ZoneShape::Band;
        z.edge = static_cast<Edge>(place);
        begin_at(z.depth, measure("2"));
        return;
    }
    z.shape = place == ZonePlace::Rectangle ? ZoneShape::Rectangle : ZoneShape::Circle;
    begin_at(z.x, measure_of(from_grid((face.low.x + face.high.x) / 2), sixtyfourths));
    begin_at(z.y, measure_of(from_grid((face.low.y + face.high.y) / 2), sixtyfourths));
    begin_at(z.width, measure("2"));
    begin_at(z.height, measure("2"));
    z.turns = 0;
}

void keep_clear_for(Blank& blank, std::size_t zone, ZoneReason reason) {
    if (zone >= blank.clear.size()) return;
    ClearZone& z = blank.clear[zone];
    z.reason = reason;
    const bool wound = reason == ZoneReason::Rope && z.shape == ZoneShape::Band;
    if (wound) {
        wind(blank, zone, std::max(1, z.turns));
    } else {
        z.turns = 0;
        begin_at(z.depth, measure("2"));
    }
}

void wind(Blank& blank, std::size_t zone, int turns) {
    if (zone >= blank.clear.size()) return;
    blank.clear[zone].turns = turns;
    if (turns > 0) begin_at(blank.clear[zone].girth, measure("3/8"));
}

FieldRuns runs_of(const PaintedField& field) {
    if (field.border) return FieldRuns::AllRound;
    return field.along == Axis::X ? FieldRuns::Across : FieldRuns::Up;
}

void add_field(Blank& blank, const Box& face, const std::string& colour_name) {
    PaintedField field;
    field.middle = measure_of(from_grid(face.height() / 2), sixtyfourths);
    field.depth = measure_of(from_grid(face.height() / 4), {Unit::Inch, 16});
    field.colour_name = colour_name;
    blank.fields.push_back(std::move(field));
}

void run_field(Blank& blank, std::size_t field, FieldRuns runs) {
    if (field >= blank.fields.size()) return;
    blank.fields[field].border = runs == FieldRuns::AllRound;
    blank.fields[field].along = runs == FieldRuns::Up ? Axis::Y : Axis::X;
}

void remove_field(Blank& blank, std::size_t field) { remove(blank.fields, field); }

void add_guide(Blank& blank, const std::string& name) { blank.guides.push_back({Axis::Y, measure("2"), name}); }

void remove_guide(Blank& blank, std::size_t guide) { remove(blank.guides, guide); }

void put_on_backing(Blank& blank, bool backed, Length length, Length width) {
    if (!backed) return blank.backing.reset();
    constexpr Display sixteenths{Unit::Inch, 16};
    blank.backing =
        Backing{measure_of(length + 2_in, sixteenths), measure_of(width + 2_in, sixteenths), measure("3/4"), "pine"};
}

}  // namespace skarvel
