// What each mark on the drawing says when it is pointed at: rings, crosses, diamonds, discs, lines and zones.
#include "drawing/drawing.h"
#include "theme/theme.h"
#include "theme/words.h"

namespace skarvel {
namespace {

constexpr double near_px = 10;

bool near_to(QPointF a, QPointF b) { return std::hypot(a.x() - b.x(), a.y() - b.y()) <= near_px; }

bool near_line(QPointF a, QPointF b, QPointF where) {
    const QPointF way = b - a;
    const double far = way.x() * way.x() + way.y() * way.y();
    if (far < 1) return near_to(a, where);
    const double at = std::clamp(QPointF::dotProduct(where - a, way) / far, 0.0, 1.0);
    return near_to(a + way * at, where);
}

}  // namespace

QString Drawing::mark_told(QPointF where) const {
    if (face() == nullptr) return {};
    if (station_ == Station::Sections || station_ == Station::Lettering) {
        if (const QString told = mark_of_cut(where); !told.isEmpty()) return told;
    }
    if (station_ == Station::Blank || station_ == Station::Lettering) return mark_of_blank(where);
    return {};
}

QString Drawing::mark_of_blank(QPointF where) const {
    const BlankPlan& plan = *face()->face->blank;
    const FaceView& view = under(where);
    const Box& f = plan.face;
    if (station_ == Station::Blank) {
        for (const HangPoint& point : plan.weight.points) {
            if (near_to(view.at(point.at), where))
                return in_words("mark.hang-point", {{"what", shown(desk_.say(point.what))},
                                                    {"across", from_grid(point.at.x - f.low.x)},
                                                    {"up", from_grid(point.at.y - f.low.y)}});
        }
        if (plan.weight.total() > 0 && near_to(view.at(plan.weight.centre), where))
            return in_words("mark.centre-of-gravity", {{"across", from_grid(plan.weight.centre.x - f.low.x)},
                                                       {"up", from_grid(plan.weight.centre.y - f.low.y)}});
        for (const Pin& pin : face()->face->marking.pins) {
            if (near_to(view.at(pin.at), where))
                return in_words("on-drawing.pin-string", {{"pin", shown(desk_.say(pin.what))}, {"string", pin.string}});
        }
        for (const MarkLine& line : face()->face->marking.lines) {
            if (near_line(view.at(line.from), view.at(line.to), where)) return shown(desk_.say(line.what));
        }
    }
    for (const Guide& guide : sign().blank.guides) {
        const bool level = guide.along == Axis::X;
        const std::int64_t at = to_grid(guide.where.value) + (level ? f.low.y : f.low.x);
        const Point a = level ? Point{f.low.x, at} : Point{at, f.low.y};
        const Point b = level ? Point{f.high.x, at} : Point{at, f.high.y};
        if (near_line(view.at(a), view.at(b), where))
            return in_words("mark.guide", {{"name", guide.name}, {"at", guide.where.value}});
    }
    const auto holds = [&](const Region& region) { return view.transform().map(path_of(region)).contains(where); };
    for (std::size_t i = 0; i < plan.zones.size() && i < sign().blank.clear.size(); ++i) {
        if (!holds(plan.zones[i])) continue;
        const ClearZone& zone = sign().blank.clear[i];
        return zone.name.empty() ? in_words("mark.zone-unnamed") : in_words("mark.zone", {{"name", zone.name}});
    }
    for (std::size_t i = 0; i < plan.fields.size() && i < sign().blank.fields.size(); ++i) {
        if (!holds(plan.fields[i].region)) continue;
        const PaintedField& field = sign().blank.fields[i];
        return in_words(field.border ? "mark.border" : "mark.band",
                        {{"number", i + 1}, {"depth", field.depth.value}, {"colour", field.colour_name}});
    }
    return {};
}

// Of every colour of the face: what is thin, what is ringed; at Sections what the knife leaves as well.
QString Drawing::mark_of_cut(QPointF where) const {
    const FaceView& view = under(where);
    const std::int64_t twice = face()->face->blank->face.low.x + face()->face->blank->face.high.x;
    for (const ColourPlan& lane : desk_.plan().colours) {
        if (lane.face->id != face()->face->id || !lane.cut.thin) continue;
        for (const ThinPlace& place : lane.cut.thin->places) {
            const Point at = lane.face->mirrored ? Point{twice - place.at.x, place.at.y} : place.at;
            if (near_to(view.at(at), where))
                return in_words((std::string("mark.thin-") + word_of(place.what)).c_str(),
                                {{"letters", place.letters}, {"width", place.width}});
        }
    }
    if (station_ != Station::Sections) return {};
    for (const Section& section : face()->cut.loads->sections) {
        for (const Keeper& keeper : section.keepers) {
            const Box box = keeper.shape.bounds();
            const QRectF seen = view.rect(box).adjusted(-4, -4, 4, 4);
            if (seen.contains(where))
                return in_words("mark.keeper", {{"across", from_grid(box.width())}, {"up", from_grid(box.height())}});
        }
        for (const KnifeLine& line : section.lines) {
            if (line.kind == KnifeLine::Kind::Match && near_line(view.at(line.from), view.at(line.to), where))
                return in_words("mark.match");
        }
    }
    return {};
}

}  // namespace skarvel
