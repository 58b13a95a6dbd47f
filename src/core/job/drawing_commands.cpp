#include "job/drawing_commands.h"

#include <algorithm>
#include <cmath>

#include "blank/room.h"
#include "job/face_commands.h"
#include "values/limits.h"

namespace skarvel {
namespace {

template <class Change>
Job with_drawing(const Job& job, FaceAt at, std::size_t art, const Change& change) {
    if (at.sign >= job.signs.size() || at.face >= job.signs[at.sign].faces.size()) return job;
    Job out = job;
    Face& face = out.signs[at.sign].faces[at.face];
    if (art >= face.art.size()) return job;
    if (auto* drawing = std::get_if<PlacedDrawing>(&face.art[art].kind)) change(out, face, face.art[art], *drawing);
    return out;
}

std::string called(const std::string& colour, const std::vector<ShelfColour>& names) {
    const auto known =
        std::find_if(names.begin(), names.end(), [&](const ShelfColour& n) { return n.colour == colour; });
    return known == names.end() ? colour : known->name;
}

}  // namespace

std::vector<FoundColour> colours_found(const FileDrawing& drawing) {
    std::vector<FoundColour> found;
    for (std::size_t i = 0; i < drawing.parts.size(); ++i) {
        const DrawingPart& part = drawing.parts[i];
        auto at =
            std::find_if(found.begin(), found.end(), [&](const FoundColour& f) { return f.colour == part.colour; });
        if (at == found.end()) at = found.insert(found.end(), {part.colour, {}, 0});
        at->parts.push_back(i);
        at->mm2 += part.shape.area_mm2();
    }
    std::stable_sort(found.begin(), found.end(),
                     [](const FoundColour& a, const FoundColour& b) { return a.mm2 > b.mm2; });
    return found;
}

Job take_over_colours(const Job& job, FaceAt at, std::size_t art, const std::vector<ShelfColour>& names) {
    return with_drawing(job, at, art, [&](Job& out, Face& face, const Art&, PlacedDrawing& drawing) {
        for (const FoundColour& found : colours_found(*drawing.drawing)) {
            if (found.colour.empty()) continue;
            auto same = std::find_if(face.colours.begin(), face.colours.end(),
                                     [&](const Colour& c) { return c.paint.colour == found.colour; });
            if (same == face.colours.end()) {
                if (face.colours.size() >= limits::colours) return;
                Colour made = face.colours.back();
                made.id = new_colour_id(out, face.id);
                made.paint.colour = found.colour;
                made.paint.colour_name = called(found.colour, names);
                made.making.wishes.bound.clear();
                made.making.wishes.apart.clear();
                made.making.wishes.seams.clear();
                face.colours.push_back(std::move(made));
                same = face.colours.end() - 1;
            }
            for (const std::size_t part : found.parts) drawing.colours[part] = same->id;
        }
    });
}

Job make_one_colour(const Job& job, FaceAt at, std::size_t art) {
    return with_drawing(job, at, art, [](Job&, Face&, const Art&, PlacedDrawing& drawing) { drawing.colours.clear(); });
}

Job leave_out_parts(const Job& job, FaceAt at, std::size_t art, const std::vector<std::size_t>& parts, bool out) {
    return with_drawing(job, at, art, [&](Job&, Face&, const Art&, PlacedDrawing& drawing) {
        std::erase_if(drawing.dropped,
                      [&](std::size_t part) { return std::find(parts.begin(), parts.end(), part) != parts.end(); });
        if (out) drawing.dropped.insert(drawing.dropped.end(), parts.begin(), parts.end());
    });
}

Job colour_parts(const Job& job, FaceAt at, std::size_t art, const std::vector<std::size_t>& parts,
                 const ColourId& colour) {
    return with_drawing(job, at, art, [&](Job&, Face& face, const Art& its, PlacedDrawing& drawing) {
        if (find_colour(face, colour) == nullptr) return;
        for (const std::size_t part : parts) {
            if (colour == its.colour)
                drawing.colours.erase(part);
            else
                drawing.colours[part] = colour;
        }
    });
}

Job place_clear(const Job& job, FaceAt at, std::size_t art, const ColourPlan& plan, const Display& display) {
    return with_drawing(job, at, art, [&](Job&, Face& face, Art& its, PlacedDrawing& drawing) {
        const std::int64_t gap = to_grid(0.25_in), least = to_grid(1_in);
        Region room = intersect(plan.face->blank->free, plan.face->blank->outline);
        for (const PlacedThing& thing : things_on(face, plan)) {
            if (thing.id == its.id || thing.box.empty()) continue;
            room = subtract(room, Region::rectangle({{thing.box.low.x - gap, thing.box.low.y - gap},
                                                     {thing.box.high.x + gap, thing.box.high.y + gap}}));
        }
        const Box place = largest_rectangle(room);
        const Box own = bounds_of(*drawing.drawing);
        if (place.empty() || own.empty()) return;
        const double side = static_cast<double>(drawing.by_width ? own.width() : own.height());
        const double scale = static_cast<double>(to_grid(drawing.size.value)) / side;
        const double fits = std::min({scale, static_cast<double>(place.width()) / static_cast<double>(own.width()),
                                      static_cast<double>(place.height()) / static_cast<double>(own.height())});
        const double wide = static_cast<double>(own.width()) * fits, high = static_cast<double>(own.height()) * fits;
        if (std::max(wide, high) < static_cast<double>(least)) return;
        if (fits < scale) {
            // Down to what the tape shows, so that it still fits.
            const Length eighth = 0.125_in;
            const Length size = from_grid(static_cast<std::int64_t>(side * fits));
            if (size > eighth)
                drawing.size = measure_of(eighth * (size.nm() / eighth.nm()), display);
            else
                return;
        }
        const Point middle{(place.low.x + place.high.x) / 2, (place.low.y + place.high.y) / 2};
        its.across = Hang{on_face, Side::Low, Side::Middle,
                          measure_of(from_grid(middle.x - plan.face->blank->face.low.x), display)};
        its.up = Hang{on_face, Side::Low, Side::Middle,
                      measure_of(from_grid(middle.y - plan.face->blank->face.low.y), display)};
    });
}

}  // namespace skarvel
