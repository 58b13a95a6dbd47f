// files/description.h
//
// One description for each struct of a file: its keys in the order in which they are written, each with the member that
// it stands for. Reading, writing and the JSON Schema all follow from it, so that a new field is one line.
//
//     template <> struct Described<Backing> {
//         static constexpr const char* name = "backing";
//         static constexpr Listed fields{must("length", &Backing::length), may("material", &Backing::material)};
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
#include <utility>
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

[[noreturn]] void refuse(const char* id, const std::string& where, const std::string& detail = {});

/// A value of the file and where it stands.
struct Spot {
    const Json& json;
    std::string where;
};

/// An object of the file and where it stands.
class Object {
  public:
    explicit Object(Spot spot);
    [[nodiscard]] std::string path(const std::string& key) const;
    /// What is null counts as missing.
    [[nodiscard]] bool has(const char* key) const;
    [[nodiscard]] Spot at(const char* key) const;
    void only(const std::set<std::string>& keys) const;
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
    // An object to be filled, unless it has been: its place is kept where structs hold one another.
    std::optional<Json> begun(const char* name);
    void ended(const char* name, Json object);

    Json definitions_ = Json::object();
};

// What every description shares is compiled once: hundreds of fields lean on it.

void put(Json& into, const char* key, Json value);
void add_key(std::set<std::string>& keys, const char* key);
/// What a field of that key adds to the schema of its struct.
void add_property(Json& object, const char* key, Json is, bool required);
Json reference_to(const char* name);
Json schema_of_text(const Limits& limits);
Json schema_of_flag();
Json schema_of_integer(const Limits& limits);
Json schema_of_words(const std::vector<std::string>& words);
Json schema_of_list(Json items, const Limits& limits);
std::int64_t read_integer(const Spot& spot, const Limits& held);
/// Refused where it is no list, or empty though it may not be.
void check_list(const Spot& spot, const Limits& limits);
Spot item_of(const Spot& list, std::size_t at);

/// The fields of a struct, each of a type of its own, in their order. A tuple would do, but takes the compiler a
/// quarter of a minute more for those of the job.
template <std::size_t, class F>
struct Listing {
    F field;
};
template <class Numbers, class... F>
struct Listings;
template <std::size_t... number, class... F>
struct Listings<std::index_sequence<number...>, F...> : Listing<number, F>... {
    template <class Act>
    constexpr void each(Act&& act) const {
        (act(static_cast<const Listing<number, F>&>(*this).field), ...);
    }
};
template <class... F>
struct Listed : Listings<std::index_sequence_for<F...>, F...> {
    constexpr Listed(F... fields) : Listings<std::index_sequence_for<F...>, F...>{{fields}...} {}
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
    Described<T>::fields.each(act);
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

template <class T>
Json Schema::definition() {
    const char* name = Described<T>::name;
    if (auto object = begun(name)) {
        add_schema<T>(*this, *object);
        ended(name, std::move(*object));
    }
    return reference_to(name);
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
    static Json write(const std::string& text);
    static Json schema(Schema&, const Limits& limits = {}) { return schema_of_text(limits); }
};

template <>
struct Value<bool> {
    static bool read(const Spot& spot, const Limits& = {});
    static Json write(bool flag);
    static Json schema(Schema&, const Limits& = {}) { return schema_of_flag(); }
};

template <class V>
requires std::is_integral_v<V>
struct Value<V> {
    static V read(const Spot& spot, const Limits& limits = {}) {
        return static_cast<V>(read_integer(spot, within(limits)));
    }
    static Json write(V number) { return number; }
    static Json schema(Schema&, const Limits& limits = {}) { return schema_of_integer(limits); }

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
    static Json schema(Schema&, const Limits& = {}) {
        const auto& words = words_of(E{});
        return schema_of_words({std::begin(words), std::end(words)});
    }
};

template <class Of>
struct Value<Id<Of>> {
    static Id<Of> read(const Spot& spot, const Limits& = {}) { return {Value<std::string>::read(spot)}; }
    static Json write(const Id<Of>& id) { return Value<std::string>::write(id.name); }
    static Json schema(Schema&, const Limits& = {}) { return schema_of_text({}); }
};

/// As it was typed. Bare numbers do not occur in files that were written; read as inches they still mean something.
template <>
struct Value<Measure> {
    static Measure read(const Spot& spot, const Limits& = {});
    static Json write(const Measure& m);
    static Json schema(Schema&, const Limits& = {});
};

/// Exact, in whichever unit it is.
template <>
struct Value<Length> {
    static Length read(const Spot& spot, const Limits& = {});
    static Json write(Length length);
    static Json schema(Schema& s, const Limits& = {});
};

template <>
struct Value<Moment> {
    static Moment read(const Spot& spot, const Limits& = {});
    static Json write(Moment moment);
    static Json schema(Schema&, const Limits& = {});
};

// ---- lists and the like

template <class V>
struct Value<std::vector<V>> {
    static std::vector<V> read(const Spot& spot, const Limits& limits = {}, const Limits& each = {}) {
        check_list(spot, limits);
        std::vector<V> all;
        all.reserve(spot.json.size());
        for (std::size_t i = 0; i < spot.json.size(); ++i) all.push_back(Value<V>::read(item_of(spot, i), each));
        return all;
    }
    static Json write(const std::vector<V>& all) {
        Json j = Json::array();
        for (const V& item : all) j.push_back(Value<V>::write(item));
        return j;
    }
    static Json schema(Schema& s, const Limits& limits = {}) { return schema_of_list(Value<V>::schema(s), limits); }
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
    static Json write(Point p);
    static Json schema(Schema&, const Limits& = {});
};

/// Rings as [x, y, x, y, ...] in steps of the grid.
template <>
struct Value<Region> {
    static Region read(const Spot& spot, const Limits& = {});
    static Json write(const Region& region);
    static Json schema(Schema&, const Limits& = {});
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
        put(into, key, Value<V>::write(from.*member));
    }
    void add_keys(std::set<std::string>& keys) const { add_key(keys, key); }
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
    void write(const T& from, Json& into) const { put(into, key, from.*member ? yes : no); }
    void add_keys(std::set<std::string>& keys) const { add_key(keys, key); }
    void add_schema(Schema&, Json& object) const { add_property(object, key, schema_of_words({no, yes}), true); }
};
template <class T>
constexpr Either<T> either(const char* key, bool T::*member, const char* no, const char* yes) {
    return {key, member, no, yes};
}

/// A member whose own fields stand among those of the struct that holds it.
template <class T, class V, class... Fields>
struct Inside {
    V T::*member;
    Listed<Fields...> fields;

    void read(const Object& o, T& into) const {
        fields.each([&](const auto& field) { field.read(o, into.*member); });
    }
    void write(const T& from, Json& into) const {
        fields.each([&](const auto& field) { field.write(from.*member, into); });
    }
    void add_keys(std::set<std::string>& keys) const {
        fields.each([&](const auto& field) { field.add_keys(keys); });
    }
    void add_schema(Schema& s, Json& object) const {
        fields.each([&](const auto& field) { field.add_schema(s, object); });
    }
};
template <class T, class V, class... Fields>
constexpr Inside<T, V, Fields...> inside(V T::*member, Fields... fields) {
    return {member, Listed<Fields...>(fields...)};
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
            if (const auto& value = (from.*member).at(i))
                put(into, word_of(static_cast<E>(i)), Value<V>::write(*value));
        }
    }
    void add_keys(std::set<std::string>& keys) const {
        for (const char* word : words_of(E{})) add_key(keys, word);
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
