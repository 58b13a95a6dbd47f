#include "files/layer_slots.h"

#include "method/layers.h"

namespace skarvel {
namespace {

using Json = nlohmann::ordered_json;

Json layer(const LayerId& id, LayerKind kind) { return {{"id", id.name}, {"kind", word_of(kind)}}; }

void face_from_slots(Json& face) {
    Json& finish = face["finish"];
    if (!finish["sanded"].is_boolean() || !finish.value("clearOver", Json(true)).is_boolean() ||
        !finish.value("outdoors", Json(true)).is_boolean())
        return;
    Json layers = Json::array();
    if (finish["sanded"] == true) layers.push_back(layer(sanding, LayerKind::Sand));
    const auto coat = [&](const char* slot, const LayerId& id) {
        if (!finish.contains(slot)) return;
        layers.push_back(layer(id, LayerKind::Coat));
        layers.back()["coat"] = finish[slot];
    };
    const bool over = finish.value("clearOver", true);
    coat("ground", ground_coat);
    if (!over) coat("clear", clear_coat);
    if (face.contains("colours") && face["colours"].is_array()) {
        for (const Json& colour : face["colours"]) {
            if (!colour.is_object() || !colour.value("id", Json()).is_string()) continue;
            const auto id = colour["id"].get<std::string>();
            layers.push_back(layer({"lettering-" + id}, LayerKind::Lettering));
            layers.back()["colour"] = id;
        }
    }
    if (over) coat("clear", clear_coat);
    finish["place"] = word_of(finish.value("outdoors", true) ? Place::Porch : Place::Indoors);
    for (const char* slot : {"sanded", "ground", "clear", "clearOver", "outdoors"}) finish.erase(slot);
    face["layers"] = std::move(layers);
}

}  // namespace

void layers_from_slots(nlohmann::ordered_json& job) {
    if (!job.contains("signs") || !job["signs"].is_array()) return;
    for (Json& sign : job["signs"]) {
        if (!sign.is_object() || !sign.contains("faces") || !sign["faces"].is_array()) continue;
        for (Json& face : sign["faces"]) {
            const bool slots = face.is_object() && !face.contains("layers") && face.contains("finish") &&
                               face["finish"].is_object() && face["finish"].contains("sanded");
            if (slots) face_from_slots(face);
        }
    }
}

}  // namespace skarvel
