#include "cost/shopping.h"

#include "cost/film_cost.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <set>

namespace skarvel {
namespace {

// Common practice: 120 and 220 on bare wood, 400 over paint, 320 to rub through, 600 between clear coats.
constexpr std::array<std::int64_t, 2> bare_wood{120, 220};
constexpr double ml_per_pint = 473.176;
constexpr std::int64_t between_coats = 400, rubbing = 320, between_clear = 600;

const char* heading_of(const Coat& coat) {
    if (coat.kind == "clear") return "buy.clear";
    if (coat.kind == "primer" || coat.kind == "filler" || coat.kind == "glaze" || coat.kind == "stain")
        return "buy.coat";
    return "buy.ground";
}

// Paper by grit, what coats are put on with, and what a surface is wiped, chalked and hung with.
void to_have_ready(const ShoppingInput& in, const Trade& trade, std::vector<ShoppingItem>& items) {
    std::set<std::int64_t> grits;
    std::set<PutOn> tools;
    bool coated = false;
    bool wiped = false;
    bool chalked = false;
    bool hardware = false;
    bool decorated = false;
    for (const Layer& layer : in.layers) {
        if (is_coat(layer) && layer.coat.coats > 0) coated = true;
        if (layer.done) continue;
        switch (layer.kind) {
            case LayerKind::Sand:
                if (layer.grit > 0)
                    grits.insert(layer.grit);
                else if (coated)
                    grits.insert(between_coats);
                else
                    grits.insert(bare_wood.begin(), bare_wood.end());
                break;
            case LayerKind::Distress:
                grits.insert(layer.grit > 0 ? layer.grit : rubbing);
                break;
            case LayerKind::Coat:
                tools.insert(layer.how);
                if (is_clear(trade, layer) && layer.coat.coats > 1) grits.insert(between_clear);
                break;
            case LayerKind::DryBrush:
                tools.insert(PutOn::Brush);
                break;
            case LayerKind::Wipe:
                wiped = true;
                break;
            case LayerKind::Chalk:
                chalked = true;
                break;
            case LayerKind::Hardware:
                hardware = true;
                break;
            case LayerKind::Decorate:
                decorated = true;
                break;
            default:
                break;
        }
    }
    for (const std::int64_t grit : grits) items.push_back({{"buy.paper", {{"grit", grit}}}, {"buy.one-sheet", {}}});
    for (const PutOn tool : tools) {
        // A can brings its own.
        if (tool != PutOn::Spray) items.push_back({{std::string("buy.put-on-") + word_of(tool), {}}, {"buy.one", {}}});
    }
    if (wiped) items.push_back({{"buy.alcohol", {}}, {"buy.a-little", {}}});
    if (chalked) items.push_back({{"buy.chalk", {}}, {"buy.a-little", {}}});
    if (decorated) items.push_back({{"buy.decoration", {}}, {"buy.as-drawn", {}}});
    if (hardware) items.push_back({{"buy.hardware", {}}, {"buy.as-marked", {}}});
}

}  // namespace

std::optional<ShoppingItem> boards_to_buy(const std::string& stock, const std::vector<Cut>& cuts,
                                          const CuttingPlan& cutting) {
    const bool only_blanks =
        std::all_of(cuts.begin(), cuts.end(), [](const Cut& c) { return c.what.id == "cuts.blank"; });
    if (only_blanks || cutting.used == 0) return std::nullopt;
    std::vector<Reason> lengths;
    for (const SawnBoard& board : cutting.boards) {
        for (int n = 0; n < board.boards; ++n) lengths.push_back({"buy.one-length", {{"length", board.from}}});
    }
    return ShoppingItem{{"buy.frame", {{"stock", shown_name(stock)}}},
                        {"buy.boards", {{"boards", std::int64_t{cutting.used}}, {"lengths", lengths}}}};
}

std::vector<ShoppingItem> shopping(const ShoppingInput& in, const Trade& trade) {
    std::vector<ShoppingItem> items;
    if (in.first)
        items.push_back(in.board.empty() ? ShoppingItem{{"buy.blank", {}},
                                                        {"buy.size", {{"length", in.length}, {"width", in.width}}}}
                                         : ShoppingItem{{"buy.board", {{"stock", shown_name(in.board)}}},
                                                        {"buy.length", {{"length", in.length}}}});
    Length film;
    for (const Load& load : in.loads->loads) {
        if (!load.cut && load.from.empty()) film += load.film_length;
    }
    if (film > Length{}) {
        Reason much{"buy.roll", {{"length", film}, {"width", in.film_width}}};
        if (in.film_cents) {
            much.id = "buy.roll-priced";
            much.arguments.emplace_back("cost", money(*in.film_cents));
        }
        items.push_back({{"buy.film", {{"film", in.making.film.name}}}, std::move(much)});
    }
    Length tape;
    for (const Section& section : in.loads->sections) {
        const Box box = section.cut.bounds();
        tape += from_grid(std::max(box.width(), box.height()));
    }
    if (tape > Length{}) items.push_back({{"buy.tape", {}}, {"buy.tape-length", {{"length", film_to_cut(tape)}}}});
    const auto coat = [&](const Coat& c, int coats, const char* id) {
        if (c.kind == "none" || coats <= 0) return;
        items.push_back({{id, {{"coat", c.name}}},
                         {"buy.coats",
                          {{"coats", std::int64_t{coats}},
                           {"area", in.area_sqft * coats},
                           {"ml", std::llround(in.area_sqft * coats / c.sqft_per_pint * ml_per_pint)},
                           {"ounces", in.area_sqft * coats / c.sqft_per_pint * 16}}}});
    };
    // Of the face's layers what is still to be put on; under one heading what comes out of one tin.
    const auto to_put_on = [&](bool clear) {
        std::vector<std::pair<Coat, int>> tins;
        for (const Layer& layer : in.layers) {
            if (!is_coat(layer) || layer.done || is_clear(trade, layer) != clear) continue;
            const Coat tin = coat_of(trade, layer);
            const auto same = std::find_if(tins.begin(), tins.end(), [&](const auto& t) { return t.first == tin; });
            if (same == tins.end())
                tins.emplace_back(tin, layer.coat.coats);
            else
                same->second += layer.coat.coats;
        }
        for (const auto& [tin, coats] : tins) coat(tin, coats, heading_of(tin));
    };
    if (in.first) to_put_on(false);
    coat(in.method->colour, in.method->colour_coats, "buy.colour");
    if (in.first) to_put_on(true);
    if (in.making.way == Way::PaintThrough)
        items.push_back({{"buy.tool", {{"tool", in.making.tool.name}}}, {"buy.one", {}}});
    if (in.rope > Length{})
        items.push_back({{"buy.rope", {}}, {"buy.rope-length", {{"length", film_to_cut(in.rope)}}}});
    if (in.first) to_have_ready(in, trade, items);
    return items;
}

}  // namespace skarvel
