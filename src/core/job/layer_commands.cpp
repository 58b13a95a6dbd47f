#include "job/layer_commands.h"

#include <algorithm>

namespace skarvel {
namespace {

// The list with every colour in it, as it is laid on a face that is not lettered from behind.
void name_all(Face& face, const Trade& trade) { face.layers = in_order(face.layers, colours_of(face), false, trade); }

Layer by_hand(const LayerId& id, LayerKind kind) {
    Layer layer;
    layer.id = id;
    layer.kind = kind;
    layer.by_hand = true;
    return layer;
}

// Ids of layers that mending puts in: one of a kind, so that it is not put in twice.
const LayerId clear_below{"clear-below"};

auto at(std::vector<Layer>& layers, std::size_t place) { return layers.begin() + static_cast<std::ptrdiff_t>(place); }

std::size_t lettering_of(const Face& face, std::size_t colour) {
    const auto found = std::find_if(face.layers.begin(), face.layers.end(), [&](const Layer& l) {
        return l.kind == LayerKind::Lettering && l.colour == face.colours[colour].id;
    });
    return static_cast<std::size_t>(found - face.layers.begin());
}

void allow(Face& face, const LayerId& id) { std::erase(face.finish.left_out, id); }

void put(Face& face, std::size_t place, Layer layer) {
    if (place_of(face.layers, layer.id) < face.layers.size()) return;
    allow(face, layer.id);
    face.layers.insert(at(face.layers, std::min(place, face.layers.size())), std::move(layer));
}

Layer coat_like(const LayerId& id, const CoatChoice& choice, int coats) {
    Layer layer = by_hand(id, LayerKind::Coat);
    layer.coat = choice;
    layer.coat.coats = coats;
    return layer;
}

// The clear coat of that base that the tables have first; the usual one where they have none.
std::string clear_of(const std::string& base, const Trade& trade) {
    const auto found = std::find_if(trade.coats.begin(), trade.coats.end(),
                                    [&](const Coat& c) { return c.kind == "clear" && c.base == base; });
    return found == trade.coats.end() ? trade.new_job.clear.coat : found->id;
}

void drop(Face& face, const std::function<bool(const Layer&)>& which) {
    for (const Layer& l : face.layers) {
        const bool twice =
            std::find(face.finish.left_out.begin(), face.finish.left_out.end(), l.id) != face.finish.left_out.end();
        if (which(l) && l.kind != LayerKind::Lettering && !twice) face.finish.left_out.push_back(l.id);
    }
    std::erase_if(face.layers, [&](const Layer& l) { return l.kind != LayerKind::Lettering && which(l); });
}

// Each clear coat, the last one first.
void with_last_clear(Face& face, const Trade& trade, const std::function<void(Layer&)>& how) {
    const auto last =
        std::find_if(face.layers.rbegin(), face.layers.rend(), [&](const Layer& l) { return is_clear(trade, l); });
    if (last == face.layers.rend()) return;
    how(*last);
    last->by_hand = true;
}

}  // namespace

void overrule(std::vector<Overruled>& all, const std::string& rule, const std::string& note) {
    hold_again(all, rule);
    all.push_back({rule, note});
}

void hold_again(std::vector<Overruled>& all, const std::string& rule) {
    std::erase_if(all, [&](const Overruled& o) { return o.rule == rule; });
}

std::size_t place_of(const std::vector<Layer>& layers, const LayerId& id) {
    return static_cast<std::size_t>(
        std::find_if(layers.begin(), layers.end(), [&](const Layer& l) { return l.id == id; }) - layers.begin());
}

Layer new_layer(Job& job, LayerKind kind, const std::string& coat, const Trade& trade) {
    Layer layer = by_hand(new_layer_id(job), kind);
    if (!is_coat(layer)) return layer;
    const NewJob& usual = trade.new_job;
    layer.coat.coat = coat.empty() ? usual.ground.coat : coat;
    const Coat tin = coat_of(trade, layer.coat.coat);
    layer.coat.coats = 1;
    if (tin.kind == "clear") {
        layer.coat.colour_name = usual.clear.colour_name;
        layer.coat.coats = usual.clear.coats;
    } else if (tin.kind == "primer" || tin.kind == "filler") {
        layer.coat.colour = trade.shelf.empty() ? std::string() : trade.shelf.front().colour;
        layer.coat.colour_name = trade.shelf.empty() ? std::string() : trade.shelf.front().name;
    } else {
        layer.coat.colour = usual.ground.colour;
        layer.coat.colour_name = usual.ground.colour_name;
    }
    if (tin.kind == "chalkboard") layer.coat.coats = 3;
    if (tin.kind == "stain" || tin.kind == "glaze") {
        layer.how = PutOn::Cloth;
        layer.wiped_after = tin.kind == "glaze" ? 2 : 5;
    }
    return layer;
}

void put_in(Face& face, Layer layer, std::size_t before, const Trade& trade) {
    name_all(face, trade);
    put(face, before, std::move(layer));
}

void take_out(Face& face, const LayerId& layer, const Trade& trade) {
    name_all(face, trade);
    drop(face, [&](const Layer& l) { return l.id == layer; });
}

void change_layer(Face& face, const LayerId& layer, const std::function<void(Layer&)>& how, const Trade& trade) {
    name_all(face, trade);
    const std::size_t place = place_of(face.layers, layer);
    if (place == face.layers.size()) return;
    Layer& l = face.layers[place];
    const LayerKind kind = l.kind;
    how(l);
    l.kind = kind;
    l.id = layer;
    l.by_hand = true;
}

void move_layer(Face& face, const LayerId& layer, bool up, const Trade& trade) {
    name_all(face, trade);
    const std::size_t place = place_of(face.layers, layer);
    if (place == face.layers.size() || (up ? place + 1 == face.layers.size() : place == 0)) return;
    Layer& moved = face.layers[place];
    Layer& other = face.layers[up ? place + 1 : place - 1];
    if (moved.kind == LayerKind::Lettering && other.kind == LayerKind::Lettering) {
        const std::size_t a = place_of(face, moved.colour);
        const std::size_t b = place_of(face, other.colour);
        std::swap(face.colours[a], face.colours[b]);
    }
    std::swap(moved, other);
    other.by_hand = other.by_hand || other.kind != LayerKind::Lettering;
}

void lay_clear(Face& face, bool over, const Trade& trade) {
    name_all(face, trade);
    if (clear_lies_over(face, trade) == over) return;
    std::vector<Layer> clear;
    std::copy_if(face.layers.begin(), face.layers.end(), std::back_inserter(clear),
                 [&](const Layer& l) { return is_clear(trade, l); });
    for (Layer& l : clear) l.by_hand = true;
    std::erase_if(face.layers, [&](const Layer& l) { return is_clear(trade, l); });
    const auto lettered = [](const Layer& l) { return l.kind == LayerKind::Lettering; };
    const auto first = std::find_if(face.layers.begin(), face.layers.end(), lettered);
    const auto last = std::find_if(face.layers.rbegin(), face.layers.rend(), lettered).base();
    face.layers.insert(over ? last : first, clear.begin(), clear.end());
}

bool clear_lies_over(const Face& face, const Trade& trade) {
    bool lettered = false;
    for (const Layer& l : in_order(face.layers, colours_of(face), false, trade)) {
        if (l.kind == LayerKind::Lettering) lettered = true;
        if (is_clear(trade, l)) return lettered;
    }
    return true;
}

void suggest_layers(Face& face, const Blank& blank, const Trade& trade) {
    name_all(face, trade);
    face.layers = suggested_again(face.layers, face.finish.left_out, suggesting(blank, face, trade), trade);
}

void mend(Face& face, std::size_t colour, const BuildUp& build_up, const Finding& finding, Fix fix,
          const Trade& trade) {
    if (colour >= face.colours.size()) return;
    name_all(face, trade);
    Colour& own = face.colours[colour];
    const std::size_t lettered = lettering_of(face, colour);
    const LayerId found = finding.at < build_up.layers.size() ? build_up.layers[finding.at].of : LayerId{};
    const std::size_t at_found = place_of(face.layers, found);
    const NewJob& usual = trade.new_job;
    switch (fix) {
        case Fix::SandFirst:
            return put(face, 0, by_hand(sanding, LayerKind::Sand));
        case Fix::SandBetween:
            return put(face, at_found, by_hand({"sand-below-" + found.name}, LayerKind::Sand));
        case Fix::WipeFirst:
            return put(face, 0, by_hand(wiping, LayerKind::Wipe));
        case Fix::NoSanding:
            return drop(face, [&](const Layer& l) {
                return l.kind == LayerKind::Sand && place_of(face.layers, l.id) < lettered;
            });
        case Fix::SealGround:
            face.finish.seal = Seal::Ground;
            return;
        case Fix::SealClear:
            face.finish.seal = Seal::Clear;
            return;
        case Fix::NoSeal:
            face.finish.seal = Seal::None;
            return;
        case Fix::UsualFilm:
            own.making.film = film_for(trade, own.making.way);
            return;
        case Fix::TexturedFilm:
            own.making.film = "stencil-textured";
            return;
        case Fix::RemovableFilm:
            own.making.film = "removable-matt";
            return;
        case Fix::PermanentFilm:
            own.making.film = "permanent-gloss";
            return;
        case Fix::ToolMargin:
            own.making.margin.reset();
            return;
        case Fix::LeastRest:
        case Fix::SafeRest:
            face.finish.rest_hours.reset();
            face.finish.safe_waits = fix == Fix::SafeRest;
            return;
        case Fix::ClearUnder:
            return put(face, lettered,
                       coat_like(clear_below, {clear_of("water", trade), "", usual.clear.colour_name, 2}, 2));
        case Fix::ClearOver:
            return put(face, face.layers.size(), coat_like(clear_coat, usual.clear, usual.clear.coats));
        case Fix::NoClear:
            return drop(face, [&](const Layer& l) { return is_clear(trade, l); });
        case Fix::MoreClear: {
            const int least = face.finish.place == Place::Indoors ? 2 : 3;
            return with_last_clear(face, trade, [&](Layer& l) { l.coat.coats = std::max(l.coat.coats + 1, least); });
        }
        case Fix::SameBaseClear: {
            const std::string& base = build_up.colour.base.empty() ? build_up.ground.base : build_up.colour.base;
            return with_last_clear(face, trade, [&](Layer& l) { l.coat.coat = clear_of(base, trade); });
        }
        case Fix::MoreColour:
            own.paint.coats = std::max(own.paint.coats + 1, 2);
            return;
        case Fix::MoreGround:
            for (Layer& l : face.layers) {
                if (!is_coat(l) || is_clear(trade, l) || coat_of(trade, l).id != build_up.ground.id) continue;
                l.coat.coats = std::max(l.coat.coats + 1, 3);
                l.by_hand = true;
            }
            return;
        case Fix::PrimeFirst: {
            const auto first = std::find_if(face.layers.begin(), face.layers.end(), [](const Layer& l) {
                return is_coat(l) || l.kind == LayerKind::Lettering;
            });
            return put(face, static_cast<std::size_t>(first - face.layers.begin()),
                       coat_like(priming, {"primer", "#ecebe6", "white", 1}, 1));
        }
        case Fix::TakeOut:
            return drop(face, [&](const Layer& l) { return l.id == found; });
        case Fix::RubBeforeClear: {
            const auto rubbed = std::find_if(face.layers.begin(), face.layers.end(),
                                             [](const Layer& l) { return l.kind == LayerKind::Distress; });
            const auto clear = std::find_if(face.layers.begin(), face.layers.end(),
                                            [&](const Layer& l) { return is_clear(trade, l); });
            if (clear < rubbed && rubbed != face.layers.end()) std::rotate(clear, rubbed, rubbed + 1);
            return;
        }
        case Fix::ChalkIt:
            return put(face, face.layers.size(), by_hand(chalking, LayerKind::Chalk));
        case Fix::WipeBack:
            if (at_found < face.layers.size()) face.layers[at_found].wiped_after = 2;
            return;
        case Fix::CoatEdges: {
            const auto ground = std::find_if(face.layers.begin(), face.layers.end(),
                                             [&](const Layer& l) { return is_coat(l) && !is_clear(trade, l); });
            const bool painted = ground != face.layers.end();
            Layer edges = coat_like({"edges"}, painted ? ground->coat : usual.clear, painted ? ground->coat.coats : 3);
            edges.on = On::Edges;
            return put(face, painted ? static_cast<std::size_t>(ground - face.layers.begin()) + 1 : face.layers.size(),
                       std::move(edges));
        }
        case Fix::LiftSoft:
            face.finish.lift = Lift::Soft;
            return;
        case Fix::TryFirst:
            return put(face, 0, by_hand({"trial"}, LayerKind::Trial));
        case Fix::AsDecal:
            return make_as(own.making, Way::Decal, trade);
    }
}

}  // namespace skarvel
