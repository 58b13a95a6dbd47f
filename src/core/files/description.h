// files/description.h
//
// One description for each struct of a file: its keys in the order in which they are written, each with the member that
// it stands for. Reading, writing and the JSON Schema all follow from it, so that a new field is one line.
//
//     template <> struct Described<Backing> {
//         static constexpr const char* name = "backing";
//         static constexpr std::tuple fields{must("length", &Backing::length), may("material", &Backing::material)};
//     };
//
// `must`: the key is always written, and missed. `may`: what is as it comes is not written, so that a plain board stays
// a short page. `always`: written, but not missed. A description may also have `settle(const Object&, T&)`, which looks
// at the whole once it is read, and refuses what does not go together.
//
// Unknown keys are refused, and every refusal says where in the file it stands.
#pragma once

#include <fmt/format.h>

#include <chrono>
#include <limits>
#include <map>
#include <nlohmann/json.hpp>
#include <optional>
#include <set>
#include <string>
#include <tuple>
#include <variant>
#include <vector>

#include "files/moment.h"
#include "geometry/region.h"
#include "measure/reading.h"
#include "text/reason.h"
#include "values/id.h"
#include "values/shared.h"
#include "values/words.h"

namespace skarvel::description {

using Json = nlohmann::ordered_json;

struct Refusal {
    Problem problem;
};

[[noreturn]] inline void refuse(const std::string& id, const std::string& where, const std::string& detail = {}) {
    const std::string place = where.empty() ? "file" : where;
    throw Refusal{Problem{{id, {{"where", place}, {"detail", detail}}}, place, {}, Mark::Stop}};
}

/// A value of the file and where it stands.
struct Spot {
    const Json& json;
    std::string where;
};

/// An object of the file and where it stands.
class Object {
  public:
    explicit Object(Spot spot) : spot_(std::move(spot)) {
        if (!spot_.json.is_object()) refuse("file.not-object", spot_.where);
    }
    [[nodiscard]] std::string path(const std::string& key) const {
        return spot_.where.empty() ? key : spot_.where + "/" + key;
    }
    /// What is null counts as missing.
    [[nodiscard]] bool has(const std::string& key) const {
        const auto at = spot_.json.find(key);
        return at != spot_.json.end() && !at->is_null();
    }
    [[nodiscard]] Spot at(const std::string& key) const {
        const auto found = spot_.json.find(key);
        if (found == spot_.json.end() || found->is_null()) refuse("file.missing-key", path(key), key);
        return {*found, path(key)};
    }
    void only(const std::set<std::string>& keys) const {
        for (const auto& [key, value] : spot_.json.items()) {
            if (!keys.contains(key)) refuse("file.unknown-key", path(key), key);
        }
    }
    [[nodiscard]] const Json& json() const { return spot_.json; }
    [[nodiscard]] const std::string& where() const { return spot_.where; }

  private:
    Spot spot_;
};

/// What a number may be, or how long a list; or that a text is a colour.
struct Limits {
    std::int64_t least = 0, most = std::numeric_limits<std::int64_t>::max();
    bool colour = false;  ///< "#rrggbb", or empty
};

/// The schema as it grows: each struct becomes a definition.
class Schema {
  public:
    template <class T>
    Json definition();
    [[nodiscard]] const Json& definitions() const { return definitions_; }

  private:
    Json definitions_ = Json::object();
};

template <class T>
struct Described;

template <class T>
concept Struct = requires {
    Described<T>::fields;
};

template <class V>
struct Value;

// ---- structs

template <class T, class Act>
void each_field(Act act) {
    std::apply([&](const auto&... field) { (act(field), ...); }, Described<T>::fields);
}

template <Struct T>
void read_fields(const Object& o, T& into) {
    each_field<T>([&](const auto& field) { field.read(o, into); });
    if constexpr (requires { Described<T>::settle(o, into); }) Described<T>::settle(o, into);
}

template <Struct T>
void write_fields(const T& from, Json& into) {
    each_field<T>([&](const auto& field) { field.write(from, into); });
}

template <Struct T>
void add_keys(std::set<std::string>& keys) {
    each_field<T>([&](const auto& field) { field.add_keys(keys); });
}

template <Struct T>
void add_schema(Schema& schema, Json& object) {
    each_field<T>([&](const auto& field) { field.add_schema(schema, object); });
}

/// What a field of that key adds to the schema of its struct.
inline void add_property(Json& object, const char* key, Json is, bool required) {
    object["properties"][key] = std::move(is);
    if (required) object["required"].push_back(key);
}

template <class T>
Json Schema::definition() {
    const char* name = Described<T>::name;
    if (!definitions_.contains(name)) {
        definitions_[name] = nullptr;  // its place, where structs hold one another
        Json object{{"type", "object"}, {"additionalProperties", false}, {"required", Json::array()}};
        object["properties"] = Json::object();
        add_schema<T>(*this, object);
        if (object["required"].empty()) object.erase("required");
        definitions_[name] = std::move(object);
    }
    return {{"$ref", fmt::format("#/definitions/{}", name)}};
}

template <Struct T>
struct Value<T> {
    static T read(const Spot& spot, const Limits& = {}) {
        const Object o(spot);
        static const std::set<std::string> keys = [] {
            std::set<std::string> all;
            add_keys<T>(all);
            return all;
        }();
        o.only(keys);
        T read{};
        read_fields(o, read);
        return read;
    }
    static Json write(const T& value) {
        Json j = Json::object();
        write_fields(value, j);
        return j;
    }
    static Json schema(Schema& s, const Limits& = {}) { return s.definition<T>(); }
};

// ---- plain values

template <>
struct Value<std::string> {
    static std::string read(const Spot& spot, const Limits& limits = {});
    static Json write(const std::string& text) { return text; }
    static Json schema(Schema&, const Limits& limits = {}) {
        if (limits.colour) return {{"type", "string"}, {"pattern", "^(#[0-9a-fA-F]{6})?$"}};
        return {{"type", "string"}};
    }
};

template <>
struct Value<bool> {
    static bool read(const Spot& spot, const Limits& = {}) {
        if (!spot.json.is_boolean()) refuse("file.not-flag", spot.where);
        return spot.json.get<bool>();
    }
    static Json write(bool flag) { return flag; }
    static Json schema(Schema&, const Limits& = {}) { return {{"type", "boolean"}}; }
};

template <class V>
requires std::is_integral_v<V>
struct Value<V> {
    static V read(const Spot& spot, const Limits& limits = {}) {
        if (!spot.json.is_number_integer()) refuse("file.not-number", spot.where);
        // A number beyond the signed range is beyond all others as well.
        const bool vast = spot.json.is_number_unsigned() && spot.json.get<std::uint64_t>() > std::uint64_t{1} << 62U;
        const auto number = vast ? std::numeric_limits<std::int64_t>::max() : spot.json.get<std::int64_t>();
        const Limits held = within(limits);
        if (vast || number < held.least || number > held.most) refuse("file.out-of-range", spot.where);
        return static_cast<V>(number);
    }
    static Json write(V number) { return number; }
    static Json schema(Schema&, const Limits& limits = {}) {
        Json j{{"type", "integer"}, {"minimum", limits.least}};
        if (limits.most != Limits{}.most) j["maximum"] = limits.most;
        return j;
    }

  private:
    static Limits within(Limits limits) {
        if constexpr (sizeof(V) < sizeof(std::int64_t)) {
            limits.least = std::max<std::int64_t>(limits.least, std::numeric_limits<V>::min());
            limits.most = std::min<std::int64_t>(limits.most, std::numeric_limits<V>::max());
        }
        return limits;
    }
};

template <Worded E>
struct Value<E> {
    static E read(const Spot& spot, const Limits& = {}) {
        const std::string word = Value<std::string>::read(spot);
        const auto value = from_word<E>(word);
        if (!value) refuse("file.unknown-word", spot.where, word);
        return *value;
    }
    static Json write(E value) { return word_of(value); }
    static Json schema(Schema&, const Limits& = {}) { return {{"enum", words_of(E{})}}; }
};

template <class Of>
struct Value<Id<Of>> {
    static Id<Of> read(const Spot& spot, const Limits& = {}) { return {Value<std::string>::read(spot)}; }
    static Json write(const Id<Of>& id) { return id.name; }
    static Json schema(Schema&, const Limits& = {}) { return {{"type", "string"}}; }
};

/// As it was typed. Bare numbers do not occur in files that were written; read as inches they still mean something.
template <>
struct Value<Measure> {
    static Measure read(const Spot& spot, const Limits& = {});
    static Json write(const Measure& m) { return m.typed.empty() ? measure_of(m.value, {}).typed : m.typed; }
    static Json schema(Schema&, const Limits& = {}) {
        return {{"type", "string"},
                {"minLength", 1},
                {"maxLength", 200},
                {"description", "a length with its unit, as typed: (60 in - 2*6 in)/9"}};
    }
};

/// Exact, in whichever unit it is.
template <>
struct Value<Length> {
    static Length read(const Spot& spot, const Limits& = {}) { return Value<Measure>::read(spot).value; }
    static Json write(Length length) { return measure_of(length, {Unit::Inch, 64}).typed; }
    static Json schema(Schema& s, const Limits& = {}) { return Value<Measure>::schema(s); }
};

template <>
struct Value<Moment> {
    static Moment read(const Spot& spot, const Limits& = {});
    static Json write(Moment moment) { return write_moment(moment); }
    static Json schema(Schema&, const Limits& = {}) {
        return {{"type", "string"}, {"pattern", "^[0-9]{4}-[0-9]{2}-[0-9]{2}([T ][0-9]{2}:[0-9]{2})?$"}};
    }
};

// ---- lists and the like

template <class V>
struct Value<std::vector<V>> {
    static std::vector<V> read(const Spot& spot, const Limits& limits = {}, const Limits& each = {}) {
        if (!spot.json.is_array()) refuse("file.not-list", spot.where);
        if (limits.least > 0 && spot.json.empty()) refuse("file.empty-list", spot.where);
        std::vector<V> all;
        all.reserve(spot.json.size());
        for (const Json& item : spot.json)
            all.push_back(Value<V>::read({item, fmt::format("{}/{}", spot.where, all.size())}, each));
        return all;
    }
    static Json write(const std::vector<V>& all) {
        Json j = Json::array();
        for (const V& item : all) j.push_back(Value<V>::write(item));
        return j;
    }
    static Json schema(Schema& s, const Limits& limits = {}) {
        Json j{{"type", "array"}, {"items", Value<V>::schema(s)}};
        if (limits.least > 0) j["minItems"] = limits.least;
        return j;
    }
};

template <class V>
struct Value<std::optional<V>> {
    static std::optional<V> read(const Spot& spot, const Limits& limits = {}) { return Value<V>::read(spot, limits); }
    static Json write(const std::optional<V>& value) { return value ? Value<V>::write(*value) : Json(); }
    static Json schema(Schema& s, const Limits& limits = {}) { return Value<V>::schema(s, limits); }
};

template <class Of>
struct Value<std::map<Id<Of>, Moment>> {
    static std::map<Id<Of>, Moment> read(const Spot& spot, const Limits& = {}) {
        const Object o(spot);
        std::map<Id<Of>, Moment> all;
        for (const auto& [id, value] : o.json().items()) all[{id}] = Value<Moment>::read({value, o.path(id)});
        return all;
    }
    static Json write(const std::map<Id<Of>, Moment>& all) {
        Json j = Json::object();
        for (const auto& [id, at] : all) j[id.name] = write_moment(at);
        return j;
    }
    static Json schema(Schema& s, const Limits& = {}) {
        return {{"type", "object"}, {"additionalProperties", Value<Moment>::schema(s)}};
    }
};

/// 125 m in steps of the grid: no shape of a job is further away.
constexpr std::int64_t farthest = 1'000'000'000;

template <>
struct Value<Point> {
    static Point read(const Spot& spot, const Limits& = {});
    static Json write(Point p) { return Json::array({p.x, p.y}); }
    static Json schema(Schema&, const Limits& = {}) {
        return {{"type", "array"}, {"items", {{"type", "integer"}}}, {"minItems", 2}, {"maxItems", 2}};
    }
};

/// Rings as [x, y, x, y, ...] in steps of the grid.
template <>
struct Value<Region> {
    static Region read(const Spot& spot, const Limits& = {});
    static Json write(const Region& region);
    static Json schema(Schema&, const Limits& = {}) {
        return {{"type", "array"}, {"items", {{"type", "array"}, {"items", {{"type", "integer"}}}}}};
    }
};

// ---- fields

enum class Kept { Must, May, Always };

/// A T that nobody has changed: what is the same there need not be written.
template <class T>
const T& as_it_comes() {
    static const T plain{};
    return plain;
}

/// A key and the member that it stands for.
template <class T, class V>
struct Field {
    const char* key;
    V T::*member;
    Kept kept;
    Limits limits;

    void read(const Object& o, T& into) const {
        if (kept != Kept::Must && !o.has(key)) return;
        into.*member = Value<V>::read(o.at(key), limits);
    }
    void write(const T& from, Json& into) const {
        if (kept == Kept::May && from.*member == as_it_comes<T>().*member) return;
        into[key] = Value<V>::write(from.*member);
    }
    void add_keys(std::set<std::string>& keys) const { keys.insert(key); }
    void add_schema(Schema& s, Json& object) const {
        add_property(object, key, Value<V>::schema(s, limits), kept == Kept::Must);
    }
};

template <class T, class V>
constexpr Field<T, V> must(const char* key, V T::*member, Limits limits = {}) {
    return {key, member, Kept::Must, limits};
}
template <class T, class V>
constexpr Field<T, V> may(const char* key, V T::*member, Limits limits = {}) {
    return {key, member, Kept::May, limits};
}
template <class T, class V>
constexpr Field<T, V> always(const char* key, V T::*member, Limits limits = {}) {
    return {key, member, Kept::Always, limits};
}
constexpr Limits from_to(std::int64_t least, std::int64_t most) { return {least, most, false}; }
constexpr Limits a_colour{0, 0, true};
constexpr Limits not_empty{1, std::numeric_limits<std::int64_t>::max(), false};

/// A yes or no that the file says in words.
template <class T>
struct Either {
    const char* key;
    bool T::*member;
    const char* no;
    const char* yes;

    void read(const Object& o, T& into) const {
        const std::string word = Value<std::string>::read(o.at(key));
        if (word != no && word != yes) refuse("file.unknown-word", o.path(key), word);
        into.*member = word == yes;
    }
    void write(const T& from, Json& into) const { into[key] = from.*member ? yes : no; }
    void add_keys(std::set<std::string>& keys) const { keys.insert(key); }
    void add_schema(Schema&, Json& object) const { add_property(object, key, {{"enum", {no, yes}}}, true); }
};
template <class T>
constexpr Either<T> either(const char* key, bool T::*member, const char* no, const char* yes) {
    return {key, member, no, yes};
}

/// A member whose own fields stand among those of the struct that holds it.
template <class T, class V, class... Fields>
struct Inside {
    V T::*member;
    std::tuple<Fields...> fields;

    void read(const Object& o, T& into) const {
        std::apply([&](const auto&... field) { (field.read(o, into.*member), ...); }, fields);
    }
    void write(const T& from, Json& into) const {
        std::apply([&](const auto&... field) { (field.write(from.*member, into), ...); }, fields);
    }
    void add_keys(std::set<std::string>& keys) const {
        std::apply([&](const auto&... field) { (field.add_keys(keys), ...); }, fields);
    }
    void add_schema(Schema& s, Json& object) const {
        std::apply([&](const auto&... field) { (field.add_schema(s, object), ...); }, fields);
    }
};
template <class T, class V, class... Fields>
constexpr Inside<T, V, Fields...> inside(V T::*member, Fields... fields) {
    return {member, {fields...}};
}

/// Values that may be missing, one for each value of an enumeration, under its words.
template <class T, class E, class V, std::size_t n>
struct ByWord {
    std::array<std::optional<V>, n> T::*member;

    void read(const Object& o, T& into) const {
        for (std::size_t i = 0; i < n; ++i) {
            if (const char* key = word_of(static_cast<E>(i)); o.has(key))
                (into.*member).at(i) = Value<V>::read(o.at(key));
        }
    }
    void write(const T& from, Json& into) const {
        for (std::size_t i = 0; i < n; ++i) {
            if (const auto& value = (from.*member).at(i)) into[word_of(static_cast<E>(i))] = Value<V>::write(*value);
        }
    }
    void add_keys(std::set<std::string>& keys) const {
        for (const char* word : words_of(E{})) keys.insert(word);
    }
    void add_schema(Schema& s, Json& object) const {
        for (const char* word : words_of(E{})) add_property(object, word, Value<V>::schema(s), false);
    }
};
template <class E, class T, class V, std::size_t n>
constexpr ByWord<T, E, V, n> by_word(std::array<std::optional<V>, n> T::*member) {
    return {member};
}

/// The same under a key of its own.
template <class T, class E, class V, std::size_t n>
struct Under {
    const char* key;
    ByWord<T, E, V, n> inner;

    void read(const Object& o, T& into) const {
        if (!o.has(key)) return;
        const Object below(o.at(key));
        std::set<std::string> keys;
        inner.add_keys(keys);
        below.only(keys);
        inner.read(below, into);
    }
    void write(const T& from, Json& into) const {
        Json below = Json::object();
        inner.write(from, below);
        if (!below.empty()) into[key] = std::move(below);
    }
    void add_keys(std::set<std::string>& keys) const { keys.insert(key); }
    void add_schema(Schema& s, Json& object) const {
        Json below{{"type", "object"}, {"additionalProperties", false}};
        inner.add_schema(s, below);
        add_property(object, key, std::move(below), false);
    }
};
template <class T, class E, class V, std::size_t n>
constexpr Under<T, E, V, n> under(const char* key, ByWord<T, E, V, n> inner) {
    return {key, inner};
}

/// One of several structs: its name under one key, its fields under another.
template <class T, class... Kinds>
struct OneOf {
    const char* kind_key;
    const char* key;
    std::variant<Kinds...> T::*member;

    void read(const Object& o, T& into) const {
        const std::string kind = Value<std::string>::read(o.at(kind_key));
        const bool known = (read_as<Kinds>(kind, o, into) || ...);
        if (!known) refuse("file.unknown-word", o.path(kind_key), kind);
    }
    void write(const T& from, Json& into) const {
        std::visit(
            [&]<class K>(const K& kind) {
                into[kind_key] = Described<K>::name;
                into[key] = Value<K>::write(kind);
            },
            from.*member);
    }
    void add_keys(std::set<std::string>& keys) const { keys.insert({kind_key, key}); }
    void add_schema(Schema& s, Json& object) const {
        add_property(object, kind_key, {{"enum", {Described<Kinds>::name...}}}, true);
        add_property(object, key, {{"anyOf", {Value<Kinds>::schema(s)...}}}, true);
    }

  private:
    template <class K>
    bool read_as(const std::string& kind, const Object& o, T& into) const {
        if (kind != Described<K>::name) return false;
        into.*member = Value<K>::read(o.at(key));
        return true;
    }
};
template <class T, class... Kinds>
constexpr OneOf<T, Kinds...> one_of(const char* kind_key, const char* key, std::variant<Kinds...> T::*member) {
    return {kind_key, key, member};
}

/// The JSON Schema of a file that is one T.
template <Struct T>
Json schema_of(const std::string& title) {
    Schema schema;
    const Json top = schema.definition<T>();
    Json j{{"$schema", "http://json-schema.org/draft-07/schema#"}, {"title", title}};
    j.update(top);
    j["definitions"] = schema.definitions();
    return j;
}

}  // namespace skarvel::description
