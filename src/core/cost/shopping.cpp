#include "cost/shopping.h"

#include "cost/film_cost.h"

#include <algorithm>

namespace skarvel {

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

std::vector<ShoppingItem> shopping(const ShoppingInput& in) {
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
                         {"buy.coats", {{"coats", std::int64_t{coats}}, {"area", in.area_sqft * coats}}}});
    };
    if (in.first) coat(in.method->ground, in.method->ground_coats, "buy.ground");
    coat(in.method->colour, in.method->colour_coats, "buy.colour");
    if (in.first) coat(in.method->clear, in.method->clear_coats, "buy.clear");
    if (in.making.way == Way::PaintThrough)
        items.push_back({{"buy.tool", {{"tool", in.making.tool.name}}}, {"buy.one", {}}});
    if (in.rope > Length{})
        items.push_back({{"buy.rope", {}}, {"buy.rope-length", {{"length", film_to_cut(in.rope)}}}});
    if (in.first) items.push_back({{"buy.paper", {}}, {"buy.sheets", {}}});
    return items;
}

}  // namespace skarvel
