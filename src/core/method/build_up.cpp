#include "method/build_up.h"

#include <algorithm>
#include <cmath>

#include "method/contrast.h"

namespace skarvel {
namespace {

std::string colour_or(const std::string& colour, const char* otherwise) { return colour.empty() ? otherwise : colour; }

constexpr const char* unknown_bare = "#d8b886";  // as pine, where the job names a material that the tables do not

Facts facts_of(const MethodInput& in, const BuildUp& b, const Trade& trade) {
    const bool mask = in.making.way == Way::PaintThrough;
    const Material* material = material_of(trade, in.material);
    const Material* seen = material_of(trade, in.bare);
    const std::string bare = seen == nullptr ? unknown_bare : seen->colour;
    const std::string ground_colour = colour_or(!in.under.empty()    ? in.under
                                                : b.ground_coats > 0 ? in.finish.ground->colour
                                                                     : "",
                                                bare.c_str());
    const auto hours = [](Minutes m) { return static_cast<double>(m.count()) / 60; };
    Facts f;
    f["way"] = std::string(mask ? "paint-through" : "decal");
    f["film.kind"] = in.making.film.kind;
    f["film.known"] = in.making.film.known;
    f["tool"] = in.making.tool.id;
    f["tool.known"] = in.making.tool.known;
    f["margin.in"] = in.making.margin.in_inches();
    f["tool.margin.in"] = in.making.tool.margin.in_inches();
    f["mask.spans"] = in.spans_face;
    f["material"] = in.material;
    f["material.known"] = material != nullptr;
    f["surface"] = std::string(word_of(in.surface));
    f["sanded"] = in.finish.sanded;
    f["already"] = std::string(word_of(in.already));
    f["already.hours"] = static_cast<double>(in.already_hours);
    f["frame.raised"] = in.raised_frame;
    f["in-place"] = in.in_place;
    f["from-behind"] = in.from_behind;
    f["grain"] = std::string(word_of(in.grain));
    f["ground.kind"] = b.ground.kind;
    f["ground.base"] = b.ground.base;
    f["ground.glossy"] = b.ground.glossy;
    f["ground.coats"] = static_cast<double>(b.ground_coats);
    f["ground.film_least"] = hours(b.ground.film_least);
    f["ground.film_safe"] = hours(b.ground.film_safe);
    f["rest.hours"] = hours(b.rest);
    f["seal"] = std::string(word_of(in.finish.seal));
    f["lift"] = std::string(word_of(in.finish.lift));
    f["keepers"] = static_cast<double>(in.keepers);
    f["colour.coats"] = static_cast<double>(b.colour_coats);
    f["colour.exterior"] = mask ? b.colour.exterior : true;
    f["lightening"] = luminance(in.colour.colour) > luminance(ground_colour) + 0.2;
    f["contrast"] = contrast(in.colour.colour, ground_colour);
    f["outdoors"] = in.finish.outdoors;
    f["clear.coats"] = static_cast<double>(b.clear_coats);
    const std::string& below = mask && in.finish.clear_over ? b.colour.base : b.ground.base;
    f["bases.cross"] = b.clear_coats > 0 && !below.empty() && b.clear.base != below;
    return f;
}

std::vector<std::pair<std::string, Argument>> arguments(const MethodInput& in, const BuildUp& b) {
    return {{"material", in.material},
            {"film", in.making.film.name},
            {"tool", in.making.tool.name},
            {"margin", in.making.margin},
            {"tool_margin", in.making.tool.margin},
            {"ground", b.ground.name},
            {"colour", b.colour.name},
            {"clear", b.clear.name},
            {"rest", b.rest},
            {"least", b.ground.film_least},
            {"safe", b.ground.film_safe},
            {"keepers", std::int64_t{in.keepers}},
            {"contrast", std::get<double>(b.facts.at("contrast"))},
            {"coats", std::int64_t{b.clear_coats}},
            {"from", b.lift.from},
            {"to", b.lift.to}};
}

Reason coats_detail(const Coat& coat, int coats, const char* id) {
    return {id, {{"coat", coat.name}, {"coats", std::int64_t{coats}}}};
}

void add_layers(const MethodInput& in, const Trade& trade, BuildUp& b) {
    const bool mask = in.making.way == Way::PaintThrough;
    const Material* bare = material_of(trade, in.material);
    b.layers.push_back({LayerKind::Bare,
                        {},
                        {"layer.wood", {{"material", bare == nullptr ? in.material : bare->name}}},
                        in.finish.sanded && in.grit > 0
                            ? Reason{"layer.wood-sanded-to", {{"grit", std::int64_t{in.grit}}}}
                        : in.finish.sanded ? Reason{"layer.wood-sanded", {}}
                                           : Reason{"layer.wood-bare", {}},
                        "",
                        0,
                        false,
                        false});
    const auto ground_layer = [&] {
        if (b.ground_coats == 0) return;
        b.layers.push_back({LayerKind::Ground,
                            Joint::Ground,
                            {"layer.ground", {{"colour", in.finish.ground->colour_name}}},
                            coats_detail(b.ground, b.ground_coats, "layer.coats"),
                            colour_or(in.finish.ground->colour, "#7a8288"),
                            b.ground_coats,
                            false,
                            false});
    };
    // On the back of a clear blank the ground comes last: what is laid first is seen in front.
    if (!in.from_behind) ground_layer();
    const auto clear_layer = [&](LayerKind kind, Joint joint) {
        b.layers.push_back({kind,
                            joint,
                            {"layer.clear", {}},
                            coats_detail(b.clear, b.clear_coats, "layer.coats"),
                            "#dbe4e4",
                            b.clear_coats,
                            false,
                            false});
    };
    if (b.clear_coats > 0 && !in.finish.clear_over) clear_layer(LayerKind::ClearUnder, Joint::Clear);
    b.layers.insert(b.layers.end(), in.earlier.begin(), in.earlier.end());
    if (mask) {
        b.layers.push_back({LayerKind::Film,
                            Joint::Film,
                            {"layer.mask", {}},
                            {"layer.film", {{"film", in.making.film.name}}},
                            "#b4bab4",
                            0,
                            false,
                            true});
        if (in.finish.seal != Seal::None) {
            const bool by_ground = in.finish.seal == Seal::Ground;
            b.layers.push_back(
                {LayerKind::Seal,
                 Joint::Seal,
                 {"layer.seal", {}},
                 {by_ground ? "layer.seal-ground" : "layer.seal-clear", {}},
                 by_ground && in.finish.ground ? colour_or(in.finish.ground->colour, "#7a8288") : "#dbe4e4",
                 1,
                 true,
                 false});
        }
        b.layers.push_back({LayerKind::Colour,
                            Joint::Colour,
                            {"layer.colour", {{"colour", in.colour.colour_name}}},
                            coats_detail(b.colour, b.colour_coats, "layer.thin-coats"),
                            colour_or(in.colour.colour, "#ffffff"),
                            b.colour_coats,
                            true,
                            false});
    } else {
        b.layers.push_back({LayerKind::Film,
                            Joint::Film,
                            {"layer.decal", {{"colour", in.colour.colour_name}}},
                            {"layer.film", {{"film", in.making.film.name}}},
                            colour_or(in.colour.colour, "#ffffff"),
                            0,
                            true,
                            false});
    }
    if (in.from_behind) ground_layer();
    if (b.clear_coats > 0 && in.finish.clear_over) clear_layer(LayerKind::Clear, Joint::Clear);
}

void say_sound(const MethodInput& in, BuildUp& b) {
    const auto troubled = [&](Joint joint) {
        return std::any_of(b.findings.begin(), b.findings.end(),
                           [&](const Finding& f) { return f.joint == joint && f.mark != Mark::None; });
    };
    const auto args = arguments(in, b);
    for (const Layer& layer : b.layers) {
        if (!layer.joint || troubled(*layer.joint)) continue;
        std::string id = std::string("sound.") + word_of(*layer.joint);
        if (layer.joint == Joint::Film && b.ground_coats == 0) id = "sound.film-bare";
        if (layer.joint == Joint::Seal && in.finish.seal == Seal::Clear) id = "sound.seal-clear";
        if (layer.joint == Joint::Clear && in.making.way == Way::Decal) id = "sound.clear-decal";
        b.sound.push_back({id, args});
        b.sound_joints.push_back(*layer.joint);
    }
}

}  // namespace

Mark BuildUp::worst() const {
    Mark worst = Mark::None;
    for (const Finding& f : findings) worst = std::max(worst, f.mark);
    return worst;
}

BuildUp build_up(const MethodInput& in, const Trade& trade) {
    BuildUp b;
    const bool mask = in.making.way == Way::PaintThrough;
    if (in.finish.ground && in.finish.ground->coats > 0) {
        b.ground = coat_of(trade, in.finish.ground->coat);
        b.ground_coats = in.finish.ground->coats;
    }
    if (mask) {
        b.colour = coat_of(trade, in.colour.coat);
        b.colour_coats = std::max(1, in.colour.coats);
    }
    if (in.finish.clear && in.finish.clear->coats > 0) {
        b.clear = coat_of(trade, in.finish.clear->coat);
        b.clear_coats = in.finish.clear->coats;
    }
    b.field = b.ground_coats > 0 ? b.ground : mask ? b.colour : coat_of(trade, trade.field_paint);
    b.sprayed = mask && in.making.tool.id == "spray";
    const auto lift = std::find_if(trade.lifts.begin(), trade.lifts.end(),
                                   [&](const LiftWindow& l) { return l.id == in.finish.lift; });
    b.lift = lift != trade.lifts.end() ? *lift : LiftWindow{Lift::Soft, Minutes(15), Minutes(60)};
    if (b.ground_coats > 0) {
        b.rest = in.finish.rest_hours   ? Minutes(*in.finish.rest_hours * 60)
                 : in.finish.safe_waits ? b.ground.film_safe
                                        : b.ground.film_least;
    }
    b.facts = facts_of(in, b, trade);
    const auto args = arguments(in, b);
    for (const Rule& rule : trade.rules) {
        if (!fires(rule, b.facts)) continue;
        b.findings.push_back(
            {rule.id, rule.mark, rule.joint, rule.basis, {"rule." + rule.id, args}, {"remedy." + rule.id, args}});
    }
    for (const Coat* coat : {&b.ground, &b.colour, &b.clear}) {
        if (coat->known) continue;
        b.findings.push_back({"coat-unknown",
                              Mark::Look,
                              coat == &b.clear    ? Joint::Clear
                              : coat == &b.colour ? Joint::Colour
                                                  : Joint::Ground,
                              "from memory",
                              {"rule.coat-unknown", {{"coat", coat->name}, {"wait", trade.unknown_coat}}},
                              {"remedy.coat-unknown", {}}});
    }
    std::stable_sort(b.findings.begin(), b.findings.end(),
                     [](const Finding& a, const Finding& c) { return a.mark > c.mark; });
    add_layers(in, trade, b);
    say_sound(in, b);
    return b;
}

std::vector<Layer> left_on_face(const BuildUp& build_up) {
    std::vector<Layer> left;
    for (const Layer& layer : build_up.layers) {
        const bool of_colour = layer.kind == LayerKind::Film || layer.kind == LayerKind::Colour;
        if (of_colour && !layer.lifted) left.push_back(layer);
    }
    return left;
}

std::string seen_under(const Blank& blank, const Lettering& lettering, const ColourId& colour,
                       const std::function<std::string(const ColourId&)>& colour_of) {
    for (const Text& text : lettering.texts) {
        if (text.colour != colour || !text.rim || text.rim->inner || text.rim->colour == colour) continue;
        const std::string rim = colour_of(text.rim->colour);
        if (!rim.empty()) return rim;
    }
    const auto at =
        std::find_if(blank.fields.begin(), blank.fields.end(), [](const PaintedField& f) { return f.lettered; });
    return at == blank.fields.end() ? std::string() : at->colour;
}

}  // namespace skarvel
