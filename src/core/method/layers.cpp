#include "method/layers.h"

#include <algorithm>
#include <set>

#include "method/contrast.h"

namespace skarvel {
namespace {

Layer plain(const LayerId& id, LayerKind kind) {
    Layer layer;
    layer.id = id;
    layer.kind = kind;
    return layer;
}

Layer coat(const LayerId& id, const CoatChoice& choice, int coats) {
    Layer layer = plain(id, LayerKind::Coat);
    layer.coat = choice;
    layer.coat.coats = coats;
    return layer;
}

bool is_lettering(const Layer& layer) { return layer.kind == LayerKind::Lettering; }

// Sheet that is slick all through: paper would only scratch it.
bool is_slick(const std::string& material) { return material == "acrylic" || material == "foam"; }
// Pressed boards drink at their edges, and foam lets go of paint that has no primer below.
bool wants_primer(const std::string& material) {
    return material == "hardboard" || material == "fibreboard" || material == "foam";
}

int clear_coats_for(Place place, int usual) {
    switch (place) {
        case Place::Weather:
        case Place::Floor:
        case Place::Wet:
            return std::max(usual, 3);
        default:
            return usual;
    }
}

}  // namespace

bool is_outdoors(Place place) { return place == Place::Porch || place == Place::Weather; }

bool is_coat(const Layer& layer) { return layer.kind == LayerKind::Coat || layer.kind == LayerKind::DryBrush; }

Coat coat_of(const Trade& trade, const Layer& layer) {
    return is_coat(layer) ? coat_of(trade, layer.coat.coat) : Coat{};
}

bool is_clear(const Trade& trade, const Layer& layer) {
    return layer.kind == LayerKind::Coat && coat_of(trade, layer.coat.coat).kind == "clear";
}

std::vector<Layer> through_mask(const std::vector<Layer>& in_order, const ColourId& colour) {
    std::vector<Layer> through;
    auto at = std::find_if(in_order.begin(), in_order.end(),
                           [&](const Layer& l) { return is_lettering(l) && l.colour == colour; });
    if (at == in_order.end()) return through;
    for (++at; at != in_order.end() && at->kind == LayerKind::Coat && at->on == On::Openings; ++at) {
        if (at->coat.coats > 0) through.push_back(*at);
    }
    return through;
}

std::vector<Layer> in_order(const std::vector<Layer>& layers, const std::vector<ColourId>& colours, bool from_behind,
                            const Trade& trade) {
    std::vector<ColourId> named;
    std::vector<Layer> order;
    for (const Layer& layer : layers) {
        if (is_lettering(layer)) {
            const bool known = std::find(colours.begin(), colours.end(), layer.colour) != colours.end();
            if (!known || std::find(named.begin(), named.end(), layer.colour) != named.end()) continue;
            named.push_back(layer.colour);
        }
        order.push_back(layer);
    }
    // Those that are named take the places there are, in the order of laying.
    std::vector<ColourId> waiting = colours;
    std::erase_if(waiting, [&](const ColourId& c) { return std::find(named.begin(), named.end(), c) == named.end(); });
    auto next = waiting.begin();
    for (Layer& layer : order) {
        if (is_lettering(layer)) layer.colour = *next++;
    }
    // Each of the others stands beside the one that is laid before it; the first of all below the clear coats.
    for (std::size_t i = 0; i < colours.size(); ++i) {
        if (std::find(named.begin(), named.end(), colours[i]) != named.end()) continue;
        Layer missing = plain({"lettering-" + colours[i].name}, LayerKind::Lettering);
        missing.colour = colours[i];
        auto at = std::find_if(order.begin(), order.end(), is_lettering);
        if (i > 0) {
            at = std::find_if(order.begin(), order.end(),
                              [&](const Layer& l) { return is_lettering(l) && l.colour == colours[i - 1]; });
            ++at;
        } else if (at == order.end()) {
            while (at != order.begin() && (is_clear(trade, *(at - 1)) || (at - 1)->kind == LayerKind::Hardware ||
                                           (at - 1)->kind == LayerKind::Decorate || (at - 1)->kind == LayerKind::Chalk))
                --at;
        }
        order.insert(at, std::move(missing));
    }
    // Two of one name would be one step: what a job from elsewhere calls twice is told apart.
    std::set<LayerId> used;
    for (Layer& layer : order) {
        if (layer.id.empty()) layer.id.name = word_of(layer.kind);
        while (!used.insert(layer.id).second) layer.id.name += "+";
    }
    if (!from_behind) return order;
    const auto first = std::find_if(order.begin(), order.end(), is_lettering);
    std::vector<Layer> behind;
    std::vector<Layer> turned;
    for (auto at = order.begin(); at != first; ++at) {
        const bool moves = is_coat(*at) && at->on == On::Face && !is_clear(trade, *at);
        (moves ? behind : turned).push_back(*at);
    }
    std::reverse(behind.begin(), behind.end());
    const auto last = std::find_if(order.rbegin(), order.rend(), is_lettering).base();
    turned.insert(turned.end(), first, last);
    turned.insert(turned.end(), behind.begin(), behind.end());
    turned.insert(turned.end(), last, order.end());
    return turned;
}

int coats_to_hide(const std::string& below, const std::string& above) {
    constexpr double nearly_black = 0.03;
    constexpr double light_over_dark = 3;  // as contrast
    const double top = luminance(above);
    if (top < nearly_black) return 1;
    return top > luminance(below) && contrast(above, below) >= light_over_dark ? 3 : 2;
}

std::vector<Layer> suggested_layers(const Suggesting& in, const Trade& trade) {
    const NewJob& usual = trade.new_job;
    std::vector<Layer> layers;
    const bool slick = is_slick(in.material);
    const bool sheet = in.material == "acrylic";
    const bool canvas = in.material == "canvas";
    if (slick)
        layers.push_back(plain(wiping, LayerKind::Wipe));
    else if (!canvas)
        layers.push_back(plain(sanding, LayerKind::Sand));
    // Clear sheet shows its own; a decal stands on it as it is, and so it does on what is painted already.
    const bool shows_itself = sheet && in.decals_alone && in.already == Already::Bare;
    const bool grounded = !shows_itself && !(in.material == "foam" && in.decals_alone && in.already == Already::Bare);
    if (grounded && wants_primer(in.material)) layers.push_back(coat(priming, {"primer", "#ecebe6", "white", 1}, 1));
    if (grounded) {
        const std::string below = in.already == Already::Bare ? in.bare : std::string();
        int coats = usual.ground.coats;
        if (!below.empty()) coats = std::max(coats, coats_to_hide(below, usual.ground.colour));
        if (in.already == Already::OldLettering) coats = std::max(coats, 3);
        layers.push_back(coat(ground_coat, usual.ground, coats));
    }
    for (const ColourId& colour : in.colours) {
        layers.push_back(plain({"lettering-" + colour.name}, LayerKind::Lettering));
        layers.back().colour = colour;
    }
    if (!shows_itself) layers.push_back(coat(clear_coat, usual.clear, clear_coats_for(in.place, usual.clear.coats)));
    return layers;
}

std::vector<Layer> suggested_again(const std::vector<Layer>& now, const std::vector<LayerId>& left_out,
                                   const Suggesting& in, const Trade& trade) {
    std::vector<Layer> layers = suggested_layers(in, trade);
    const auto place_in = [](std::vector<Layer>& list, const Layer& like) {
        return std::find_if(list.begin(), list.end(), [&](const Layer& l) {
            return is_lettering(like) ? is_lettering(l) && l.colour == like.colour : l.id == like.id;
        });
    };
    std::erase_if(layers, [&](const Layer& l) {
        return !is_lettering(l) && std::find(left_out.begin(), left_out.end(), l.id) != left_out.end();
    });
    // A layer of the maker's own stands after the nearest one below it that is there as well.
    for (std::size_t i = 0; i < now.size(); ++i) {
        if (!now[i].by_hand || is_lettering(now[i])) continue;
        const auto same = place_in(layers, now[i]);
        if (same != layers.end()) {
            *same = now[i];
            continue;
        }
        auto at = layers.begin();
        for (std::size_t below = i; below-- > 0;) {
            const auto known = place_in(layers, now[below]);
            if (known == layers.end()) continue;
            at = known + 1;
            break;
        }
        layers.insert(at, now[i]);
    }
    return layers;
}

}  // namespace skarvel
