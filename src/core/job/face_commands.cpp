#include "job/face_commands.h"

#include <algorithm>
#include <sstream>
#include <type_traits>

namespace skarvel {
namespace {

Face* face_of(Job& job, FaceAt at) {
    if (at.sign >= job.signs.size() || at.face >= job.signs[at.sign].faces.size()) return nullptr;
    return &job.signs[at.sign].faces[at.face];
}

// `change` takes the face, or the face and the job that it makes ids from.
template <class Change>
Job changed(const Job& job, FaceAt at, Change change) {
    Job out = job;
    Face* face = face_of(out, at);
    if (face == nullptr) return out;
    if constexpr (std::is_invocable_v<Change, Face&, Job&>) {
        change(*face, out);
    } else {
        change(*face);
    }
    return out;
}

// The hangs of a thing, whichever kind it is.
struct Hangs {
    std::optional<Hang>*across = nullptr, *up = nullptr;
    bool locked = false;
};

Hangs hangs_of(Face& face, const ThingId& id) {
    for (Text& t : face.lettering.texts) {
        if (t.id == id) return {&t.across, &t.up, t.locked};
    }
    for (Art& a : face.art) {
        if (a.id == id) return {&a.across, &a.up, a.locked};
    }
    return {};
}

// What leaves the column for the first time leaves its place there free: the others stay where they are.
void leave_column(Face& face, const ThingId& id) {
    for (Text& t : face.lettering.texts) {
        if (t.id == id && !t.up) t.keeps_place = true;
    }
}

}  // namespace

std::vector<PlacedThing> things_on(const Face& face, const ColourPlan& plan) {
    std::vector<PlacedThing> things;
    for (const PlacedText& t : plan.face->lettering->texts) {
        if (!t.ink.empty()) things.push_back({t.id, t.ink});
    }
    for (std::size_t i = 0; i < face.art.size() && i < plan.face->art->boxes.size(); ++i) {
        if (!plan.face->art->boxes[i].empty()) things.push_back({face.art[i].id, plan.face->art->boxes[i]});
    }
    return things;
}

Job add_text(const Job& job, FaceAt at) {
    return changed(job, at, [](Face& face, Job& out) {
        Text text = face.lettering.texts.back();
        text.id = new_thing_id(out);
        text.words.clear();
        text.nudges.clear();
        text.across.reset();
        text.up.reset();
        text.locked = false;
        if (text.arrangement == Arrangement::Stack) {
            text.arrangement = Arrangement::Level;
            text.letter_gap = Measure{"0 in", {}};
            text.line_gap = measure("3/4");
        }
        face.lettering.texts.push_back(std::move(text));
    });
}

Job split_off_line(const Job& job, FaceAt at, std::size_t text, std::size_t line) {
    return changed(job, at, [&](Face& face, Job& out) {
        auto& texts = face.lettering.texts;
        if (text >= texts.size()) return;
        const Text whole = texts[text];
        std::vector<std::string> lines;
        std::istringstream words(whole.words);
        for (std::string each; std::getline(words, each);) lines.push_back(each);
        const bool plain = whole.arrangement == Arrangement::Level && whole.slope_tenths == 0 && !whole.locked &&
                           !whole.across && !whole.up && whole.nudges.empty();
        if (!plain || lines.size() < 2 || line >= lines.size() ||
            std::any_of(lines.begin(), lines.end(), [](const std::string& l) { return l.empty(); }))
            return;
        const auto joined = [&](std::size_t from, std::size_t to) {
            std::string all;
            for (std::size_t i = from; i < to; ++i) all += (i == from ? "" : "\n") + lines[i];
            return all;
        };
        std::vector<Text> parts;
        for (const auto& [from, to] :
             {std::pair(std::size_t{0}, line), std::pair(line, line + 1), std::pair(line + 1, lines.size())}) {
            if (from == to) continue;
            Text part = whole;
            if (!parts.empty()) part.id = new_thing_id(out);
            part.words = joined(from, to);
            parts.push_back(std::move(part));
        }
        const auto place = texts.begin() + static_cast<long>(text);
        texts.insert(texts.erase(place), parts.begin(), parts.end());
    });
}

namespace {

// What hung on a thing that goes hangs where it stood; without a plan, by itself.
void let_hang_where_it_stood(Face& face, const ThingId& gone, const ColourPlan* plan) {
    const std::vector<PlacedThing> placed = plan == nullptr ? std::vector<PlacedThing>{} : things_on(face, *plan);
    const auto stay = [&](std::optional<Hang>& hang, Axis axis, const ThingId& who) {
        if (!hang || hang->on != gone) return;
        hang.reset();
        for (const PlacedThing& thing : placed) {
            if (thing.id == who) hang = moved_by(std::nullopt, thing.box, plan->face->blank->face, axis, {}, {});
        }
    };
    const auto both = [&](auto& thing) {
        stay(thing.across, Axis::X, thing.id);
        stay(thing.up, Axis::Y, thing.id);
    };
    for (Text& t : face.lettering.texts) both(t);
    for (Art& a : face.art) both(a);
}

}  // namespace

Job remove_text(const Job& job, FaceAt at, std::size_t text, const ColourPlan* plan) {
    return changed(job, at, [&](Face& face) {
        auto& texts = face.lettering.texts;
        if (texts.size() < 2 || text >= texts.size()) return;
        const ThingId gone = texts[text].id;
        let_hang_where_it_stood(face, gone, plan);
        texts.erase(texts.begin() + static_cast<long>(text));
    });
}

Job set_in(const Job& job, FaceAt at, const TypefaceName& typeface) {
    return changed(job, at, [&](Face& face) { face.lettering.main().typeface = typeface; });
}

Job add_art(const Job& job, FaceAt at, ArtKind kind, const std::vector<Typeface>& typefaces) {
    return changed(job, at, [&](Face& face, Job& out) {
        Art art;
        art.id = new_thing_id(out);
        art.kind = std::move(kind);
        art.colour = face.lettering.main().colour;
        const TypefaceName plain = face.lettering.main().typeface.family.empty() && !typefaces.empty()
                                       ? typefaces.front().name
                                       : face.lettering.main().typeface;
        if (auto* r = std::get_if<HeightRuler>(&art.kind)) r->typeface = plain;
        if (auto* m = std::get_if<MonthBoard>(&art.kind)) m->typeface = plain;
        face.art.push_back(std::move(art));
    });
}

Job remove_art(const Job& job, FaceAt at, std::size_t art, const ColourPlan* plan) {
    return changed(job, at, [&](Face& face) {
        if (art >= face.art.size()) return;
        const ThingId gone = face.art[art].id;
        let_hang_where_it_stood(face, gone, plan);
        face.art.erase(face.art.begin() + static_cast<long>(art));
    });
}

Job raise_art(const Job& job, FaceAt at, std::size_t art, bool to_front) {
    return changed(job, at, [&](Face& face) {
        const std::size_t other = to_front ? art + 1 : art - 1;
        if (art >= face.art.size() || other >= face.art.size()) return;
        std::swap(face.art[art], face.art[other]);
    });
}

Job add_colour(const Job& job, FaceAt at, const std::vector<ShelfColour>& offered) {
    return changed(job, at, [&](Face& face, Job& out) {
        Colour colour = face.colours.back();
        colour.id = new_colour_id(out, face.id);
        // Told apart at once; the maker picks what it really is.
        const auto is_there = [&](const std::string& shade) {
            return std::any_of(face.colours.begin(), face.colours.end(),
                               [&](const Colour& c) { return c.paint.colour == shade; });
        };
        colour.paint.colour = "#b8862b";
        colour.paint.colour_name = "ochre";
        const auto another =
            std::find_if(offered.begin(), offered.end(), [&](const ShelfColour& c) { return !is_there(c.colour); });
        if (is_there(colour.paint.colour) && another != offered.end()) {
            colour.paint.colour = another->colour;
            colour.paint.colour_name = another->name;
        }
        // What was wished about the pieces of the other is not about these.
        colour.making.wishes.bound.clear();
        colour.making.wishes.apart.clear();
        colour.making.wishes.seams.clear();
        face.colours.push_back(std::move(colour));
    });
}

Job remove_colour(const Job& job, FaceAt at, std::size_t colour) {
    return changed(job, at, [&](Face& face) {
        if (face.colours.size() < 2 || colour >= face.colours.size()) return;
        const ColourId gone = face.colours[colour].id;
        face.colours.erase(face.colours.begin() + static_cast<long>(colour));
        std::erase_if(face.layers, [&](const Layer& l) { return l.kind == LayerKind::Lettering && l.colour == gone; });
        const ColourId instead = face.colours.front().id;
        recolour(face, [&](const ColourId& was) { return was == gone ? instead : was; });
        // A rim in the colour of its own ink is none.
        for (Text& t : face.lettering.texts) {
            if (t.rim && t.rim->colour == t.colour) t.rim.reset();
        }
    });
}

Job lay_earlier(const Job& job, FaceAt at, std::size_t colour) {
    return changed(job, at, [&](Face& face) {
        if (colour > 0 && colour < face.colours.size()) std::swap(face.colours[colour], face.colours[colour - 1]);
    });
}

Job put_in_colour(const Job& job, FaceAt at, const ThingId& thing, const ColourId& colour) {
    return changed(job, at, [&](Face& face) {
        if (find_colour(face, colour) == nullptr) return;
        for (Text& t : face.lettering.texts) {
            if (t.id != thing) continue;
            t.colour = colour;
            if (t.rim && t.rim->colour == colour) t.rim.reset();
        }
        for (Art& a : face.art) {
            if (a.id == thing) a.colour = colour;
        }
    });
}

Job set_rim(const Job& job, FaceAt at, std::size_t text, RimIs is) {
    Job out = job;
    const Face* now = face_of(out, at);
    if (now == nullptr || text >= now->lettering.texts.size()) return out;
    if (is != RimIs::None && now->colours.size() < 2) out = add_colour(out, at);
    Face& face = *face_of(out, at);
    Text& t = face.lettering.texts[text];
    if (is == RimIs::None) {
        t.rim.reset();
        return out;
    }
    if (!t.rim) {
        if (is == RimIs::Behind && t.colour == face.colours[0].id) std::swap(face.colours[0], face.colours[1]);
        Rim rim;
        rim.width = measure(is == RimIs::Behind ? "1/8" : "1/16");
        rim.colour = face.colours[t.colour == face.colours[0].id ? 1 : 0].id;
        t.rim = rim;
    }
    t.rim->inner = is == RimIs::Inside;
    return out;
}

Job put_rim_in_colour(const Job& job, FaceAt at, std::size_t text, const ColourId& colour) {
    return changed(job, at, [&](Face& face) {
        if (text >= face.lettering.texts.size() || find_colour(face, colour) == nullptr) return;
        Text& t = face.lettering.texts[text];
        if (t.rim && t.colour != colour) t.rim->colour = colour;
    });
}

namespace {

PlacedDrawing* drawing_at(Face& face, std::size_t art) {
    return art < face.art.size() ? std::get_if<PlacedDrawing>(&face.art[art].kind) : nullptr;
}

}  // namespace

Job drop_part(const Job& job, FaceAt at, std::size_t art, std::size_t part) {
    return changed(job, at, [&](Face& face) {
        PlacedDrawing* drawing = drawing_at(face, art);
        if (drawing == nullptr) return;
        if (std::find(drawing->dropped.begin(), drawing->dropped.end(), part) == drawing->dropped.end())
            drawing->dropped.push_back(part);
    });
}

Job recolour_part(const Job& job, FaceAt at, std::size_t art, std::size_t part, const ColourId& now) {
    return changed(job, at, [&](Face& face) {
        if (PlacedDrawing* drawing = drawing_at(face, art))
            drawing->colours[part] = face.colours[(place_of(face, now) + 1) % face.colours.size()].id;
    });
}

namespace {

// What a proposal takes the place of.
bool gives_way(const Text& t) { return !t.locked && !t.up && t.arrangement != Arrangement::Arc; }

}  // namespace

const Text& text_like(const Face& face) {
    const auto& texts = face.lettering.texts;
    const auto first = std::find_if(texts.begin(), texts.end(), gives_way);
    return first == texts.end() ? texts.front() : *first;
}

Job take_proposal(const Job& job, FaceAt at, const Proposal& proposal, const ComposeWish& wish) {
    return changed(job, at, [&](Face& face, Job& out) {
        auto& texts = face.lettering.texts;
        const auto first = std::find_if(texts.begin(), texts.end(), gives_way);
        ComposeWish as = wish;
        as.like = text_like(face);
        std::vector<Text> kept;
        std::copy_if(texts.begin(), texts.end(), std::back_inserter(kept),
                     [&](const Text& t) { return !gives_way(t); });
        std::vector<Text> lines = texts_of(proposal, as);
        // The first line goes on as the text that it takes the place of, the others are new.
        for (Text& line : lines)
            line.id = first != texts.end() && &line == &lines.front() ? as.like.id : new_thing_id(out);
        lines.insert(lines.end(), kept.begin(), kept.end());
        if (!lines.empty()) texts = std::move(lines);
    });
}

Job hang_thing(const Job& job, FaceAt at, const ThingId& id, std::optional<Hang> across, std::optional<Hang> up) {
    return changed(job, at, [&](Face& face) {
        const Hangs h = hangs_of(face, id);
        if (h.across == nullptr) return;
        if (across) *h.across = std::move(across);
        if (!up) return;
        leave_column(face, id);
        *h.up = std::move(up);
    });
}

Job unhang_thing(const Job& job, FaceAt at, const ThingId& id) {
    return changed(job, at, [&](Face& face) {
        const Hangs h = hangs_of(face, id);
        if (h.across == nullptr) return;
        h.across->reset();
        h.up->reset();
        for (Text& t : face.lettering.texts) {
            if (t.id == id) t.keeps_place = false;
        }
    });
}

bool is_locked(const Face& face, const ThingId& id) {
    Face copy = face;
    return hangs_of(copy, id).locked;
}

Job nudge_thing(const Job& job, FaceAt at, const ColourPlan& plan, const ThingId& id, Length across, Length up,
                const Display& display) {
    return changed(job, at, [&](Face& face) {
        const Hangs h = hangs_of(face, id);
        if (h.across == nullptr || h.locked) return;
        for (const PlacedThing& thing : things_on(face, plan)) {
            if (thing.id != id) continue;
            if (across != Length{})
                *h.across = moved_by(*h.across, thing.box, plan.face->blank->face, Axis::X, across, display);
            if (up == Length{}) continue;
            leave_column(face, id);
            *h.up = moved_by(*h.up, thing.box, plan.face->blank->face, Axis::Y, up, display);
        }
    });
}

Job nudge_letter(const Job& job, FaceAt at, std::size_t text, int letter, Length across, Length up) {
    return changed(job, at, [&](Face& face) {
        if (letter < 0 || text >= face.lettering.texts.size() || face.lettering.texts[text].locked) return;
        auto& nudges = face.lettering.texts[text].nudges;
        auto found = std::find_if(nudges.begin(), nudges.end(), [&](const Nudge& n) { return n.letter == letter; });
        if (found == nudges.end()) found = nudges.insert(nudges.end(), Nudge{letter, {}, {}});
        found->x += across;
        found->y += up;
        if (found->x == Length{} && found->y == Length{}) nudges.erase(found);
    });
}

Job spread_things(const Job& job, FaceAt at, const ColourPlan& plan, Axis axis, const Display& display) {
    return changed(job, at, [&](Face& face) {
        std::vector<PlacedThing> things;
        for (const PlacedThing& t : things_on(face, plan)) {
            if (!hangs_of(face, t.id).locked) things.push_back(t);
        }
        if (things.size() < 3) return;
        // The outer two keep their places, to the tape's marks, for good: what is in between hangs on them.
        const auto by_middle = [&](const PlacedThing& a, const PlacedThing& b) {
            return side_of(a.box, axis, Side::Middle) < side_of(b.box, axis, Side::Middle);
        };
        const auto [low, high] = std::minmax_element(things.begin(), things.end(), by_middle);
        for (const auto outer : {low, high}) {
            const Box face_box = plan.face->blank->face;
            const Hang hang = moved_by(std::nullopt, outer->box, face_box, axis, {}, display);
            const std::int64_t off =
                side_of(face_box, axis, hang.its) + to_grid(hang.by.value) - side_of(outer->box, axis, hang.mine);
            const Point by = axis == Axis::X ? Point{off, 0} : Point{0, off};
            outer->box = {outer->box.low + by, outer->box.high + by};
            const Hangs h = hangs_of(face, outer->id);
            if (axis == Axis::Y) leave_column(face, outer->id);
            (axis == Axis::X ? *h.across : *h.up) = hang;
        }
        const auto hangs = spread(things, axis, display);
        for (std::size_t i = 0; i < things.size(); ++i) {
            const Hangs h = hangs_of(face, things[i].id);
            if (hangs[i]) (axis == Axis::X ? *h.across : *h.up) = hangs[i];
        }
    });
}

}  // namespace skarvel
