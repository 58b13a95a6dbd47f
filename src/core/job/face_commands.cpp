#include "job/face_commands.h"

#include <algorithm>

namespace skarvel {
namespace {

Face* face_of(Job& job, FaceAt at) {
    if (at.sign >= job.signs.size() || at.face >= job.signs[at.sign].faces.size()) return nullptr;
    return &job.signs[at.sign].faces[at.face];
}

template <class Change>
Job changed(const Job& job, FaceAt at, Change change) {
    Job out = job;
    if (Face* face = face_of(out, at)) change(*face);
    return out;
}

// The hangs of a thing, whichever kind it is.
struct Hangs {
    std::optional<Hang>*across = nullptr, *up = nullptr;
    bool locked = false;
};

Hangs hangs_of(Face& face, const std::string& id) {
    for (Text& t : face.lettering.texts) {
        if (t.id == id) return {&t.across, &t.up, t.locked};
    }
    for (Art& a : face.art) {
        if (a.id == id) return {&a.across, &a.up, a.locked};
    }
    return {};
}

void recolour(Face& face, const std::vector<std::size_t>& to) {
    const auto change = [&](std::size_t& colour) {
        if (colour < to.size()) colour = to[colour];
    };
    for (Text& t : face.lettering.texts) {
        change(t.colour);
        if (t.rim) change(t.rim->colour);
    }
    for (Art& a : face.art) {
        change(a.colour);
        if (auto* d = std::get_if<PlacedDrawing>(&a.kind)) {
            for (auto& [part, colour] : d->colours) change(colour);
        }
    }
}

}  // namespace

std::vector<PlacedThing> things_on(const Face& face, const FacePlan& plan) {
    std::vector<PlacedThing> things;
    for (const PlacedText& t : plan.lettering->texts) {
        if (!t.ink.empty()) things.push_back({t.id, t.ink});
    }
    for (std::size_t i = 0; i < face.art.size() && i < plan.art->boxes.size(); ++i) {
        if (!plan.art->boxes[i].empty()) things.push_back({face.art[i].id, plan.art->boxes[i]});
    }
    return things;
}

Job add_text(const Job& job, FaceAt at) {
    return changed(job, at, [](Face& face) {
        Text text = face.lettering.texts.back();
        text.id = unused_text_id(face.lettering);
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

Job remove_text(const Job& job, FaceAt at, std::size_t text, const FacePlan* plan) {
    return changed(job, at, [&](Face& face) {
        auto& texts = face.lettering.texts;
        if (texts.size() < 2 || text >= texts.size()) return;
        const std::string id = texts[text].id;
        texts.erase(texts.begin() + static_cast<long>(text));
        const auto stay = [&](std::optional<Hang>& hang, Axis axis, const std::string& who) {
            if (!hang || hang->on != id) return;
            hang.reset();
            if (plan == nullptr) return;
            for (const PlacedText& placed : plan->lettering->texts) {
                if (placed.id == who && !placed.ink.empty())
                    hang = moved_by(std::nullopt, placed.ink, plan->blank->face, axis, {}, {});
            }
        };
        for (Text& t : texts) {
            stay(t.across, Axis::X, t.id);
            stay(t.up, Axis::Y, t.id);
        }
    });
}

Job add_art(const Job& job, FaceAt at, ArtKind kind, const std::vector<Typeface>& typefaces) {
    return changed(job, at, [&](Face& face) {
        Art art;
        art.id = unused_art_id(face.art);
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

Job remove_art(const Job& job, FaceAt at, std::size_t art) {
    return changed(job, at, [&](Face& face) {
        if (art < face.art.size()) face.art.erase(face.art.begin() + static_cast<long>(art));
    });
}

Job raise_art(const Job& job, FaceAt at, std::size_t art, bool to_front) {
    return changed(job, at, [&](Face& face) {
        const std::size_t other = to_front ? art + 1 : art - 1;
        if (art >= face.art.size() || other >= face.art.size()) return;
        std::swap(face.art[art], face.art[other]);
    });
}

Job add_colour(const Job& job, FaceAt at) {
    return changed(job, at, [](Face& face) {
        Colour colour = face.colours.back();
        // Told apart at once; the maker picks what it really is.
        colour.paint.colour = "#b8862b";
        colour.paint.colour_name = "ochre";
        face.colours.push_back(std::move(colour));
    });
}

Job remove_colour(const Job& job, FaceAt at, std::size_t colour) {
    return changed(job, at, [&](Face& face) {
        if (face.colours.size() < 2 || colour >= face.colours.size()) return;
        std::vector<std::size_t> to(face.colours.size());
        for (std::size_t i = 0; i < to.size(); ++i) to[i] = i == colour ? 0 : i > colour ? i - 1 : i;
        face.colours.erase(face.colours.begin() + static_cast<long>(colour));
        recolour(face, to);
        // A rim in the colour of its own ink is none.
        for (Text& t : face.lettering.texts) {
            if (t.rim && t.rim->colour == t.colour) t.rim.reset();
        }
    });
}

Job lay_earlier(const Job& job, FaceAt at, std::size_t colour) {
    return changed(job, at, [&](Face& face) {
        if (colour == 0 || colour >= face.colours.size()) return;
        std::swap(face.colours[colour], face.colours[colour - 1]);
        std::vector<std::size_t> to(face.colours.size());
        for (std::size_t i = 0; i < to.size(); ++i) to[i] = i;
        std::swap(to[colour], to[colour - 1]);
        recolour(face, to);
    });
}

Job take_proposal(const Job& job, FaceAt at, const Proposal& proposal, const ComposeWish& wish) {
    return changed(job, at, [&](Face& face) {
        auto& texts = face.lettering.texts;
        const auto goes = [](const Text& t) { return !t.locked && !t.up && t.arrangement != Arrangement::Arc; };
        const auto first = std::find_if(texts.begin(), texts.end(), goes);
        const Text like = first == texts.end() ? texts.front() : *first;
        std::vector<Text> kept;
        std::copy_if(texts.begin(), texts.end(), std::back_inserter(kept), [&](const Text& t) { return !goes(t); });
        std::vector<Text> lines = texts_of(proposal, wish, like);
        Lettering all{lines, false};
        for (Text& k : kept) {
            if (std::any_of(all.texts.begin(), all.texts.end(), [&](const Text& t) { return t.id == k.id; }))
                k.id = unused_text_id(all);
            all.texts.push_back(k);
        }
        if (!all.texts.empty()) texts = all.texts;
    });
}

Job hang_thing(const Job& job, FaceAt at, const std::string& id, std::optional<Hang> across, std::optional<Hang> up) {
    return changed(job, at, [&](Face& face) {
        const Hangs h = hangs_of(face, id);
        if (h.across == nullptr) return;
        if (across) *h.across = std::move(across);
        if (up) *h.up = std::move(up);
    });
}

Job unhang_thing(const Job& job, FaceAt at, const std::string& id) {
    return changed(job, at, [&](Face& face) {
        const Hangs h = hangs_of(face, id);
        if (h.across == nullptr) return;
        h.across->reset();
        h.up->reset();
    });
}

bool is_locked(const Face& face, const std::string& id) {
    Face copy = face;
    return hangs_of(copy, id).locked;
}

Job nudge_thing(const Job& job, FaceAt at, const FacePlan& plan, const std::string& id, Length across, Length up,
                const Display& display) {
    return changed(job, at, [&](Face& face) {
        const Hangs h = hangs_of(face, id);
        if (h.across == nullptr || h.locked) return;
        for (const PlacedThing& thing : things_on(face, plan)) {
            if (thing.id != id) continue;
            if (across != Length{})
                *h.across = moved_by(*h.across, thing.box, plan.blank->face, Axis::X, across, display);
            if (up != Length{}) *h.up = moved_by(*h.up, thing.box, plan.blank->face, Axis::Y, up, display);
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

Job spread_things(const Job& job, FaceAt at, const FacePlan& plan, Axis axis, const Display& display) {
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
            const Box face_box = plan.blank->face;
            const Hang hang = moved_by(std::nullopt, outer->box, face_box, axis, {}, display);
            const std::int64_t off =
                side_of(face_box, axis, hang.its) + to_grid(hang.by.value) - side_of(outer->box, axis, hang.mine);
            const Point by = axis == Axis::X ? Point{off, 0} : Point{0, off};
            outer->box = {outer->box.low + by, outer->box.high + by};
            const Hangs h = hangs_of(face, outer->id);
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
