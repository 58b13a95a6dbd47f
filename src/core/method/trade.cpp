#include "method/trade.h"

#include <algorithm>
#include <nlohmann/json.hpp>
#include <stdexcept>

#include "values/work.h"

namespace skarvel {
namespace {

using Json = nlohmann::json;

Length length_of(const std::string& text) {
    const auto measure = read_measure(text, Unit::Inch);
    if (!measure) throw std::runtime_error("measure " + text);
    return measure->value;
}

Minutes hours(const Json& row, const char* key) { return Minutes(static_cast<int>(row.value(key, 0.0) * 60 + 0.5)); }

std::vector<StockSize> read_stock(const Json& json) {
    std::vector<StockSize> sizes;
    for (const std::string name : json.at("sold")) {
        const std::size_t x = name.find('x');
        const std::string thick = name.substr(0, x);
        const std::string wide = name.substr(x + 1);
        sizes.push_back({name, length_of(thick), length_of(wide), length_of(json.at("thickness").at(thick)),
                         length_of(json.at("width").at(wide))});
    }
    return sizes;
}

Coat read_coat(const Json& row) {
    Coat coat;
    coat.id = row.at("id");
    coat.name = row.at("name");
    coat.kind = row.at("kind");
    coat.base = row.at("base");
    coat.next_coat = hours(row, "next_coat");
    coat.paint_over = hours(row, "paint_over");
    coat.film_least = hours(row, "film_least");
    coat.film_safe = hours(row, "film_safe");
    coat.before_use = hours(row, "before_use");
    coat.exterior = row.value("exterior", false);
    coat.glossy = row.value("glossy", false);
    return coat;
}

HandsOn read_hands_on(const Json& row) {
    HandsOn h;
    for (const auto& [name, minutes] : pace_names) h.*minutes = row.at("minutes").at(std::string(name));
    h.weed_large_from = length_of(row.at("weed_large_from"));
    h.hinged_from = length_of(row.at("hinged_from"));
    h.alone_to_grams = static_cast<int>(row.at("alone_to_kg").get<double>() * 1000);
    h.prior_tasks = row.at("prior_tasks");
    return h;
}

Fact fact_of(const Json& value) {
    if (value.is_boolean()) return value.get<bool>();
    if (value.is_number()) return value.get<double>();
    return value.get<std::string>();
}

std::vector<Fact> facts_of(const Json& value) {
    std::vector<Fact> facts;
    if (value.is_array()) {
        for (const Json& v : value) facts.push_back(fact_of(v));
    } else {
        facts.push_back(fact_of(value));
    }
    return facts;
}

std::variant<std::monostate, double, std::string> bound_of(const Json& value) {
    if (value.is_number()) return value.get<double>();
    return value.get<std::string>();
}

Condition read_condition(const std::string& fact, const Json& value) {
    Condition c{fact, {}, {}, {}, {}};
    if (!value.is_object()) {
        c.one_of = facts_of(value);
        return c;
    }
    for (const auto& [key, v] : value.items()) {
        if (key == "not") {
            c.none_of = facts_of(v);
        } else if (key == "below") {
            c.below = bound_of(v);
        } else if (key == "least") {
            c.least = bound_of(v);
        } else {
            throw std::runtime_error("condition " + key);
        }
    }
    return c;
}

template <Worded E>
E value_of(const std::string& word) {
    const auto value = from_word<E>(word);
    if (!value) throw std::runtime_error("unknown word " + word);
    return *value;
}

Measure measure_of_row(const Json& row, const char* key) {
    auto read = read_measure(row.at(key).get<std::string>(), Unit::Inch);
    if (!read) throw std::runtime_error(std::string("measure ") + key);
    return *read;
}

NewJob read_new_job(const Json& row) {
    const auto coat = [&](const char* key) {
        const Json& c = row.at(key);
        return CoatChoice{c.at("coat"), c.at("colour"), c.at("name"), c.at("coats")};
    };
    NewJob made;
    made.stock = row.at("stock");
    made.family = row.at("typeface").at("family");
    made.style = row.at("typeface").at("style");
    made.length = measure_of_row(row, "length");
    made.margin = measure_of_row(row, "margin");
    made.size = measure_of_row(row, "size");
    made.letter_gap = measure_of_row(row, "letter_gap");
    made.line_gap = measure_of_row(row, "line_gap");
    made.lap = measure_of_row(row, "lap");
    for (const Json& zone : row.at("clear_zones"))
        made.clear_zones.push_back({value_of<Edge>(zone.at("edge")), measure_of_row(zone, "depth"), zone.at("name")});
    made.ground = coat("ground");
    made.paint = coat("paint");
    made.clear = coat("clear");
    return made;
}

RiskModel read_risk_model(const Json& row) {
    RiskModel model{row.at("base"), row.at("basis"), {}};
    for (const Json& f : row.at("factors")) {
        WeighedFactor factor{f.at("id"), {}, f.at("weight")};
        for (const auto& [fact, value] : f.at("when").items()) factor.when.push_back(read_condition(fact, value));
        model.factors.push_back(std::move(factor));
    }
    return model;
}

RiskTable read_risk(const Json& row) {
    return {row.at("prior_strength"), row.at("levels").at("fair"), row.at("levels").at("high"),
            read_risk_model(row.at("bleed")), read_risk_model(row.at("lift"))};
}

std::optional<double> number_of(const Facts& facts, const std::variant<std::monostate, double, std::string>& bound) {
    if (const auto* number = std::get_if<double>(&bound)) return *number;
    const auto* name = std::get_if<std::string>(&bound);
    const auto at = name == nullptr ? facts.end() : facts.find(*name);
    if (at == facts.end() || !std::holds_alternative<double>(at->second)) return std::nullopt;
    return std::get<double>(at->second);
}

bool holds(const Condition& c, const Facts& facts) {
    const auto at = facts.find(c.fact);
    if (at == facts.end()) return false;
    const Fact& fact = at->second;
    const auto among = [&](const std::vector<Fact>& list) {
        return std::find(list.begin(), list.end(), fact) != list.end();
    };
    if (!c.one_of.empty() && !among(c.one_of)) return false;
    if (among(c.none_of)) return false;
    for (const bool upper : {true, false}) {
        const auto& bound = upper ? c.below : c.least;
        if (std::holds_alternative<std::monostate>(bound)) continue;
        const auto* value = std::get_if<double>(&fact);
        const std::optional<double> limit = number_of(facts, bound);
        if (value == nullptr || !limit) return false;
        constexpr double slack = 1e-9;
        if (upper ? *value >= *limit - slack : *value < *limit - slack) return false;
    }
    return true;
}

}  // namespace

Expected<Trade> read_trade(const std::string& stock, const std::string& materials, const std::string& rules,
                           const std::string& cautions) {
    try {
        Trade trade;
        trade.stock = read_stock(Json::parse(stock));
        const Json m = Json::parse(materials);
        for (const Json& row : m.at("materials")) {
            trade.materials.push_back({row.at("id"), row.at("name"), row.at("colour"), row.at("grain")});
            trade.densities.push_back({row.at("id"), row.at("kg_m3"), row.at("basis")});
        }
        for (const Json& row : m.at("hanging")) {
            trade.hanging.push_back(
                {row.at("id"), row.at("most_kg"), length_of(row.at("most_width")), row.at("points"), row.at("basis")});
        }
        for (const Json& row : m.at("films"))
            trade.films.push_back({row.at("id"), row.at("name"), row.at("kind"), true});
        for (const Json& row : m.at("tools")) {
            trade.tools.push_back({row.at("id"), row.at("name"), length_of(row.at("margin")), true});
        }
        for (const Json& row : m.at("coats")) trade.coats.push_back(read_coat(row));
        for (const Json& row : m.at("lift")) {
            trade.lifts.push_back(
                {value_of<Lift>(row.at("id")), Minutes(row.at("from_min")), Minutes(row.at("to_min"))});
        }
        trade.new_job = read_new_job(m.at("new_job"));
        for (const Json& row : m.at("shelf")) trade.shelf.push_back({row.at("colour"), row.at("name")});
        trade.decal_film = m.at("film_for").at("decal");
        trade.mask_film = m.at("film_for").at("paint-through");
        trade.section_gap = length_of(m.at("between_sections").at("gap"));
        trade.field_paint = m.at("field_paint").at("coat");
        trade.seal_dry = hours(m.at("waits").at("seal_dry"), "hours");
        trade.colour_through_mask = hours(m.at("waits").at("colour_through_mask"), "hours");
        trade.clear_over_vinyl = hours(m.at("waits").at("clear_over_vinyl"), "hours");
        trade.unknown_coat = hours(m.at("waits").at("unknown_coat"), "hours");
        trade.hands_on = read_hands_on(m.at("hands_on"));
        for (const Json& row : m.at("mishaps").at("rows")) {
            MishapKind kind{
                row.at("id"), Minutes(row.at("hands_on_min")), Minutes(row.at("wait_min")), row.at("at_once"), {}};
            for (const Json& work : row.value("works", Json::array()))
                kind.works.emplace_back(word_of(value_of<Work>(work)));
            trade.mishaps.push_back(std::move(kind));
        }
        for (const Json& row : m.at("slowing").at("rows"))
            trade.slowing.push_back({row.at("celsius"), row.at("humidity"), row.at("factor")});
        trade.fan = m.at("slowing").at("fan");
        const Json& laying = m.at("laying");
        const auto habit = [&](const char* key) { return length_of(laying.at(key)); };
        trade.laying = {habit("helper_from"), habit("slip_from"), habit("tape_close"), habit("cover"), habit("patch")};
        const Json& thin = m.at("thin");
        trade.thin = {length_of(thin.at("stroke")), length_of(thin.at("gap")), length_of(thin.at("keeper"))};
        const Json all = Json::parse(rules);
        for (const Json& row : all.at("rules")) {
            Rule rule{row.at("id"),
                      value_of<Mark>(row.at("mark")),
                      value_of<Joint>(row.at("joint")),
                      row.at("basis"),
                      {},
                      {}};
            for (const auto& [fact, value] : row.at("when").items()) rule.when.push_back(read_condition(fact, value));
            for (const Json& fix : row.value("fix", Json::array())) rule.fixes.push_back(value_of<Fix>(fix));
            trade.rules.push_back(std::move(rule));
        }
        trade.risk = read_risk(all.at("risk"));
        const Json care = Json::parse(cautions);
        trade.step_cautions = care.at("steps");
        trade.product_cautions = care.at("products");
        return trade;
    } catch (const std::exception& e) {
        return refused({"file.trade-damaged", {{"detail", std::string(e.what())}}}, "trade");
    }
}

const std::string& film_for(const Trade& trade, Way way) {
    return way == Way::Decal ? trade.decal_film : trade.mask_film;
}

void coat_with(std::optional<CoatChoice>& coat, const std::string& id, const CoatChoice& usual) {
    if (id.empty()) return coat.reset();
    if (!coat) coat = usual;
    coat->coat = id;
}

void make_as(Making& making, Way way, const Trade& trade) {
    if (making.way == way) return;
    making.way = way;
    making.film = film_for(trade, way);
}

const Material* material_of(const Trade& trade, const std::string& id) {
    const auto at =
        std::find_if(trade.materials.begin(), trade.materials.end(), [&](const Material& m) { return m.id == id; });
    return at == trade.materials.end() ? nullptr : &*at;
}

Coat coat_of(const Trade& trade, const std::string& id) {
    if (id.empty()) return {};
    const auto at = std::find_if(trade.coats.begin(), trade.coats.end(), [&](const Coat& c) { return c.id == id; });
    if (at != trade.coats.end()) return *at;
    Coat coat;
    coat.id = coat.name = id;
    coat.kind = "paint";
    coat.base = "water";
    coat.next_coat = coat.paint_over = coat.film_least = coat.film_safe = coat.before_use = trade.unknown_coat;
    coat.known = false;
    return coat;
}

std::optional<double> pace_of(const HandsOn& hands_on, std::string_view name) {
    for (const auto& [known, minutes] : pace_names) {
        if (known == name) return hands_on.*minutes;
    }
    return std::nullopt;
}

HandsOn paced(HandsOn hands_on, const std::vector<Pace>& own) {
    for (const Pace& pace : own) {
        for (const auto& [name, minutes] : pace_names) {
            if (name == pace.of) hands_on.*minutes = pace.seconds / 60.0;
        }
    }
    return hands_on;
}

LayingTakes laying_takes(const HandsOn& h, Way way) {
    const double beside = h.tape + (way == Way::PaintThrough ? h.lift : 0);
    return {beside + h.lay, beside + h.lay_hinged, h.hinged_from};
}

bool fires(const std::vector<Condition>& when, const Facts& facts) {
    return std::all_of(when.begin(), when.end(), [&](const Condition& c) { return holds(c, facts); });
}

}  // namespace skarvel
