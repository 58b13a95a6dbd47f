#include "files/description.h"

#include "geometry/tangle.h"

namespace skarvel::description {

void refuse(const char* id, const std::string& where, const std::string& detail) {
    const std::string place = where.empty() ? "file" : where;
    throw Refusal{Problem{{id, {{"where", place}, {"detail", detail}}}, place, {}, Mark::Stop}};
}

Object::Object(Spot spot) : spot_(std::move(spot)) {
    if (!spot_.json.is_object()) refuse("file.not-object", spot_.where);
}

std::string Object::path(const std::string& key) const { return spot_.where.empty() ? key : spot_.where + "/" + key; }

bool Object::has(const char* key) const {
    const auto at = spot_.json.find(key);
    return at != spot_.json.end() && !at->is_null();
}

Spot Object::at(const char* key) const {
    const auto found = spot_.json.find(key);
    if (found == spot_.json.end() || found->is_null()) refuse("file.missing-key", path(key), key);
    return {*found, path(key)};
}

void Object::only(const std::set<std::string>& keys) const {
    for (const auto& [key, value] : spot_.json.items()) {
        if (!keys.contains(key)) refuse("file.unknown-key", path(key), key);
    }
}

std::optional<Json> Schema::begun(const char* name) {
    if (definitions_.contains(name)) return std::nullopt;
    definitions_[name] = nullptr;
    Json object{{"type", "object"}, {"additionalProperties", false}, {"required", Json::array()}};
    object["properties"] = Json::object();
    return object;
}

void Schema::ended(const char* name, Json object) {
    if (object["required"].empty()) object.erase("required");
    definitions_[name] = std::move(object);
}

void put(Json& into, const char* key, Json value) { into[key] = std::move(value); }

void add_key(std::set<std::string>& keys, const char* key) { keys.insert(key); }

void add_property(Json& object, const char* key, Json is, bool required) {
    object["properties"][key] = std::move(is);
    if (required) object["required"].push_back(key);
}

Json reference_to(const char* name) { return {{"$ref", fmt::format("#/definitions/{}", name)}}; }

Json schema_of_text(const Limits& limits) {
    if (limits.colour) return {{"type", "string"}, {"pattern", "^(#[0-9a-fA-F]{6})?$"}};
    return {{"type", "string"}};
}

Json schema_of_flag() { return {{"type", "boolean"}}; }

Json schema_of_integer(const Limits& limits) {
    Json j{{"type", "integer"}, {"minimum", limits.least}};
    if (limits.most != Limits{}.most) j["maximum"] = limits.most;
    return j;
}

Json schema_of_words(const std::vector<std::string>& words) { return {{"enum", words}}; }

Json schema_of_list(Json items, const Limits& limits) {
    Json j{{"type", "array"}, {"items", std::move(items)}};
    if (limits.least > 0) j["minItems"] = limits.least;
    return j;
}

std::int64_t read_integer(const Spot& spot, const Limits& held) {
    if (!spot.json.is_number_integer()) refuse("file.not-number", spot.where);
    // A number beyond the signed range is beyond all others as well.
    const bool vast = spot.json.is_number_unsigned() && spot.json.get<std::uint64_t>() > std::uint64_t{1} << 62U;
    const auto number = vast ? std::numeric_limits<std::int64_t>::max() : spot.json.get<std::int64_t>();
    if (vast || number < held.least || number > held.most) refuse("file.out-of-range", spot.where);
    return number;
}

void check_list(const Spot& spot, const Limits& limits) {
    if (!spot.json.is_array()) refuse("file.not-list", spot.where);
    if (limits.least > 0 && spot.json.empty()) refuse("file.empty-list", spot.where);
}

Spot item_of(const Spot& list, std::size_t at) { return {list.json[at], fmt::format("{}/{}", list.where, at)}; }

Json Value<std::string>::write(const std::string& text) { return text; }

bool Value<bool>::read(const Spot& spot, const Limits&) {
    if (!spot.json.is_boolean()) refuse("file.not-flag", spot.where);
    return spot.json.get<bool>();
}

Json Value<bool>::write(bool flag) { return flag; }

Json Value<Measure>::write(const Measure& m) { return m.typed.empty() ? measure_of(m.value, {}).typed : m.typed; }

Json Value<Measure>::schema(Schema&, const Limits&) {
    return {{"type", "string"},
            {"minLength", 1},
            {"maxLength", 200},
            {"description", "a length with its unit, as typed: (60 in - 2*6 in)/9"}};
}

Length Value<Length>::read(const Spot& spot, const Limits&) { return Value<Measure>::read(spot).value; }

Json Value<Length>::write(Length length) { return measure_of(length, {Unit::Inch, 64}).typed; }

Json Value<Length>::schema(Schema& s, const Limits&) { return Value<Measure>::schema(s); }

Json Value<Moment>::write(Moment moment) { return write_moment(moment); }

Json Value<Moment>::schema(Schema&, const Limits&) {
    return {{"type", "string"}, {"pattern", "^[0-9]{4}-[0-9]{2}-[0-9]{2}([T ][0-9]{2}:[0-9]{2})?$"}};
}

Json Value<Point>::write(Point p) { return Json::array({p.x, p.y}); }

Json Value<Point>::schema(Schema&, const Limits&) {
    return {{"type", "array"}, {"items", {{"type", "integer"}}}, {"minItems", 2}, {"maxItems", 2}};
}

Json Value<Region>::schema(Schema&, const Limits&) {
    return {{"type", "array"}, {"items", {{"type", "array"}, {"items", {{"type", "integer"}}}}}};
}

std::string Value<std::string>::read(const Spot& spot, const Limits& limits) {
    if (!spot.json.is_string()) refuse("file.not-text", spot.where);
    auto text = spot.json.get<std::string>();
    const bool colour = text.empty() || (text.size() == 7 && text[0] == '#' &&
                                         text.find_first_not_of("0123456789abcdefABCDEF", 1) == std::string::npos);
    if (limits.colour && !colour) refuse("file.not-colour", spot.where, text);
    return text;
}

Measure Value<Measure>::read(const Spot& spot, const Limits&) {
    const std::string text = Value<std::string>::read(spot);
    auto read = read_measure(text, Unit::Inch);
    if (!read) refuse("file.not-measure", spot.where, text);
    return *read;
}

Moment Value<Moment>::read(const Spot& spot, const Limits&) {
    const std::string text = Value<std::string>::read(spot);
    const auto read = read_moment(text);
    if (!read) refuse("file.not-moment", spot.where, text);
    return *read;
}

Point Value<Point>::read(const Spot& spot, const Limits&) {
    const auto xy = Value<std::vector<std::int64_t>>::read(spot, {}, from_to(-farthest, farthest));
    if (xy.size() != 2) refuse("file.not-list", spot.where);
    return {xy[0], xy[1]};
}

Region Value<Region>::read(const Spot& spot, const Limits&) {
    if (!spot.json.is_array()) refuse("file.not-list", spot.where);
    std::vector<Ring> rings;
    for (const Json& flat : spot.json) {
        if (!flat.is_array() || flat.size() % 2 != 0) refuse("file.bad-shape", spot.where);
        Ring ring;
        for (std::size_t i = 0; i < flat.size(); i += 2) {
            if (!flat[i].is_number_integer() || !flat[i + 1].is_number_integer()) refuse("file.bad-shape", spot.where);
            const Point p{flat[i].get<std::int64_t>(), flat[i + 1].get<std::int64_t>()};
            if (p.x > farthest || p.x < -farthest || p.y > farthest || p.y < -farthest)
                refuse("file.bad-shape", spot.where);
            ring.push_back(p);
        }
        rings.push_back(std::move(ring));
    }
    try {
        return Region::from_rings(rings);
    } catch (const Tangled&) {
        refuse("file.tangled", spot.where);
    }
}

Json Value<Region>::write(const Region& region) {
    Json rings = Json::array();
    for (const Ring& ring : region.rings()) {
        Json flat = Json::array();
        for (const Point& p : ring) {
            flat.push_back(p.x);
            flat.push_back(p.y);
        }
        rings.push_back(std::move(flat));
    }
    return rings;
}

}  // namespace skarvel::description
