#include "job/job.h"
#include "values/limits.h"

#include <algorithm>
#include <map>
#include <stdexcept>

namespace skarvel {

Measure measure(const char* typed) {
    auto read = read_measure(typed, Unit::Inch);
    if (!read) throw std::logic_error(std::string("not a measure: ") + typed);
    return *read;
}

Job new_job(const Library& library) {
    const NewJob& usual = library.trade.new_job;
    Sign sign;
    sign.blank.stock = usual.stock;
    sign.blank.length = usual.length;
    sign.blank.margin = usual.margin;
    sign.blank.clear = usual.clear_zones;
    Face face;
    Text& text = face.lettering.main();
    if (const Typeface* known = find_typeface(library.typefaces, {usual.family, usual.style, ""})) {
        text.typeface = known->name;
    } else if (!library.typefaces.empty()) {
        text.typeface = library.typefaces.front().name;
    }
    text.size = usual.size;
    text.letter_gap = usual.letter_gap;
    text.line_gap = usual.line_gap;
    Colour colour;
    colour.making.film = film_for(library.trade, colour.making.way);
    colour.making.lap = usual.lap;
    colour.paint = usual.paint;
    face.colours.push_back(std::move(colour));
    face.layers = suggested_layers(suggesting(sign.blank, face, library.trade), library.trade);
    sign.faces.push_back(std::move(face));
    Job job;
    job.signs.push_back(std::move(sign));
    return job;
}

std::string bed_name(const Mat& bed) { return bed.machine.empty() ? bed.name : bed.machine + " / " + bed.name; }

Machine machine_of(const Shop& shop, const Mat& bed) {
    const auto at = std::find_if(shop.machines.begin(), shop.machines.end(),
                                 [&](const Machine& m) { return m.name == bed.machine; });
    return at == shop.machines.end() ? Machine{bed.machine, {bed}, {}, 0, {}, 0, {}} : *at;
}

Mat bed_for(const Shop& shop, const Making& making, bool printed, const std::string& colour) {
    Mat bed = shop.mat;
    bool found = false;
    for (const Mat& known : beds_of(shop.machines)) {
        const bool named = bed_name(known) == making.bed;
        if (!named && !(printed && making.bed.empty() && known.print && !found)) continue;
        bed = known;
        found = true;
    }
    if (!found) bed = as_moved(bed, machine_of(shop, bed));  // the usual one is kept by itself
    // The widest roll of that film decides, in its colour where there is one; sheets and leftovers are looked at once
    // loads are known.
    std::optional<FilmStock> film;
    const auto rank = [&](const FilmStock& f) {
        return std::tuple(colour.empty() || f.colour.empty() || f.colour == colour, f.left > Length{}, f.width);
    };
    for (const FilmStock& f : shop.drawer) {
        if (f.film == making.film && f.roll && (!film || rank(f) > rank(*film))) film = f;
    }
    return narrowed(bed, film, making.way == Way::Decal);
}

Shop usual_shop() {
    Shop shop;
    shop.machines = usual_machines();
    shop.mat = beds_of(shop.machines).front();
    for (const std::size_t weekday : {1U, 2U, 3U, 4U, 5U}) shop.hours.days.at(weekday) = {{18 * 60 + 30, 21 * 60 + 30}};
    shop.hours.days[6] = {{8 * 60, 12 * 60}};
    return shop;
}

SignId new_sign_id(Job& job) { return {std::to_string(++job.made)}; }
FaceId new_face_id(Job& job, const SignId& of) { return {of.name + "b" + std::to_string(++job.made)}; }
ColourId new_colour_id(Job& job, const FaceId& of) { return {of.name + "." + std::to_string(++job.made)}; }
ThingId new_thing_id(Job& job) { return {"t" + std::to_string(++job.made)}; }
LayerId new_layer_id(Job& job) { return {"l" + std::to_string(++job.made)}; }

void make_new(Job& job, Face& face, FaceId id) {
    face.id = std::move(id);
    std::map<ColourId, ColourId> now;
    for (Colour& colour : face.colours) {
        const bool first = &colour == &face.colours.front();
        const ColourId fresh = first ? ColourId{face.id.name} : new_colour_id(job, face.id);
        now[std::exchange(colour.id, fresh)] = fresh;
    }
    recolour(face, [&](const ColourId& was) {
        const auto at = now.find(was);
        return at == now.end() ? was : at->second;
    });
}

void make_new(Job& job, Sign& sign) {
    sign.id = new_sign_id(job);
    for (Face& face : sign.faces)
        make_new(job, face, &face == &sign.faces.front() ? FaceId{sign.id.name} : new_face_id(job, sign.id));
}

Suggesting suggesting(const Blank& blank, const Face& face, const Trade& trade) {
    const Material* seen = material_of(trade, shown_material(blank));
    Suggesting in;
    in.material = blank.kind == Kind::Canvas ? "canvas" : blank.material;
    in.bare = seen == nullptr ? std::string() : seen->colour;
    in.already = blank.already;
    in.place = face.finish.place;
    in.from_behind = blank.from_behind;
    in.decals_alone = !face.colours.empty() && std::all_of(face.colours.begin(), face.colours.end(),
                                                           [](const Colour& c) { return c.making.way == Way::Decal; });
    in.colours = colours_of(face);
    return in;
}

void recolour(Face& face, const std::function<ColourId(const ColourId&)>& to) {
    for (Layer& l : face.layers) {
        if (l.kind == LayerKind::Lettering) l.colour = to(l.colour);
    }
    for (Text& t : face.lettering.texts) {
        t.colour = to(t.colour);
        if (t.rim) t.rim->colour = to(t.rim->colour);
    }
    for (Art& a : face.art) {
        a.colour = to(a.colour);
        if (auto* d = std::get_if<PlacedDrawing>(&a.kind)) {
            for (auto& [part, colour] : d->colours) colour = to(colour);
        }
    }
}

std::optional<FaceAt> place_of(const Job& job, const FaceId& id) {
    for (std::size_t s = 0; s < job.signs.size(); ++s) {
        for (std::size_t f = 0; f < job.signs[s].faces.size(); ++f) {
            if (job.signs[s].faces[f].id == id) return FaceAt{s, f};
        }
    }
    return std::nullopt;
}

std::optional<ColourAt> place_of(const Job& job, const ColourId& id) {
    for (std::size_t s = 0; s < job.signs.size(); ++s) {
        for (std::size_t f = 0; f < job.signs[s].faces.size(); ++f) {
            const auto& colours = job.signs[s].faces[f].colours;
            const auto at = std::find_if(colours.begin(), colours.end(), [&](const Colour& c) { return c.id == id; });
            if (at != colours.end()) return ColourAt{{s, f}, static_cast<std::size_t>(at - colours.begin())};
        }
    }
    return std::nullopt;
}

const Colour* find_colour(const Face& face, const ColourId& id) {
    const auto at = std::find_if(face.colours.begin(), face.colours.end(), [&](const Colour& c) { return c.id == id; });
    return at == face.colours.end() ? nullptr : &*at;
}

std::size_t place_of(const Face& face, const ColourId& id) {
    const Colour* colour = find_colour(face, id);
    return colour == nullptr ? 0 : static_cast<std::size_t>(colour - face.colours.data());
}

const Face& face_at(const Job& job, const FaceAt& at) { return job.signs.at(at.sign).faces.at(at.face); }
const Colour& colour_at(const Job& job, const ColourAt& at) { return face_at(job, at.face).colours.at(at.colour); }

std::vector<ColourId> colours_of(const Face& face) {
    std::vector<ColourId> ids;
    for (const Colour& colour : face.colours) ids.push_back(colour.id);
    return ids;
}

std::optional<Reason> beyond_limits(const Job& job) {
    const auto over = [](const char* of, std::size_t there, std::size_t most) -> std::optional<Reason> {
        if (there <= most) return std::nullopt;
        return Reason{of, {{"there", static_cast<std::int64_t>(there)}, {"most", static_cast<std::int64_t>(most)}}};
    };
    // Letters as they are seen: bytes that go on with one are none of their own.
    const auto letters = [](const std::string& words) {
        return static_cast<std::size_t>(std::count_if(
            words.begin(), words.end(), [](char c) { return (static_cast<unsigned char>(c) & 0xC0U) != 0x80U; }));
    };
    if (auto more = over("limit.signs", job.signs.size(), limits::signs)) return more;
    for (const Sign& sign : job.signs) {
        for (const Face& face : sign.faces) {
            if (auto more = over("limit.texts", face.lettering.texts.size(), limits::texts)) return more;
            if (auto more = over("limit.art", face.art.size(), limits::art)) return more;
            if (auto more = over("limit.colours", face.colours.size(), limits::colours)) return more;
            for (const Text& text : face.lettering.texts) {
                if (auto more = over("limit.letters", letters(text.words), limits::letters)) return more;
            }
        }
    }
    return std::nullopt;
}

std::string label_of(const Sign& sign) {
    if (!sign.name.empty()) return sign.name;
    for (const Face& face : sign.faces) {
        const std::string& words = face.lettering.main().words;
        std::string first = words.substr(0, words.find('\n'));
        if (first.find_first_not_of(" \t\r") != std::string::npos) return first;
    }
    return sign.id.name;
}

Blank seen_from_behind(const Blank& blank, Length across) {
    Blank back = blank;
    back.head.right = !back.head.right;
    std::swap(back.side_margin.at(static_cast<std::size_t>(Edge::Left)),
              back.side_margin.at(static_cast<std::size_t>(Edge::Right)));
    const auto mirror = [&](Measure& x) { x = measure_of(across - x.value, {Unit::Inch, 64}); };
    for (ClearZone& zone : back.clear) {
        if (zone.edge == Edge::Left || zone.edge == Edge::Right)
            zone.edge = zone.edge == Edge::Left ? Edge::Right : Edge::Left;
        if (zone.shape != ZoneShape::Band) mirror(zone.x);
    }
    for (PaintedField& field : back.fields) {
        if (!field.border && field.along == Axis::Y) mirror(field.middle);
    }
    for (Guide& guide : back.guides) {
        if (guide.along == Axis::Y) mirror(guide.where);
    }
    auto& taken = back.tape.taken;
    const auto change = [&](Reading a, Reading b) {
        std::swap(taken.at(static_cast<std::size_t>(a)), taken.at(static_cast<std::size_t>(b)));
    };
    if (blank.stands == Stands::Upright) {
        change(Reading::Left, Reading::Right);
    } else {
        change(Reading::Bottom, Reading::Top);
    }
    change(Reading::Rising, Reading::Falling);
    if (back.outline) back.outline->drawn = back.outline->drawn.mirrored(0);
    return back;
}

std::vector<std::size_t> leftovers_that_do(const Blank& blank, const BlankPlan& plan,
                                           const std::vector<LeftoverWood>& leftovers) {
    const Length a = from_grid(std::max(plan.face.width(), plan.face.height()));
    const Length b = from_grid(std::min(plan.face.width(), plan.face.height()));
    std::vector<std::size_t> found;
    for (std::size_t i = 0; i < leftovers.size(); ++i) {
        const LeftoverWood& l = leftovers[i];
        const Length off = l.thickness.value - plan.thickness;
        if (l.material == blank.material && a > Length{} && std::max(l.length.value, l.width.value) >= a &&
            std::min(l.length.value, l.width.value) >= b && off >= -0.0625_in && off <= 0.0625_in)
            found.push_back(i);
    }
    std::stable_sort(found.begin(), found.end(), [&](std::size_t x, std::size_t y) {
        return leftovers[x].length.value.in_mm() * leftovers[x].width.value.in_mm() <
               leftovers[y].length.value.in_mm() * leftovers[y].width.value.in_mm();
    });
    return found;
}

std::string wording(const Job& job) {
    std::string words;
    for (const Sign& sign : job.signs) {
        for (const Face& face : sign.faces) {
            const auto add = [&](const std::string& line) { words += (words.empty() ? "" : "\n") + line; };
            for (const Text& text : face.lettering.texts) {
                if (!text.words.empty() || face.art.empty()) add(text.words);
            }
            for (const Art& art : face.art) {
                const auto* month = std::get_if<MonthBoard>(&art.kind);
                if (month == nullptr) continue;
                add(month->title);
                std::string days;
                for (const std::string& day : month->days) days += (days.empty() ? "" : " ") + day;
                add(days);
            }
        }
    }
    return words;
}

}  // namespace skarvel
