// files/job_parts.h
//
// What readers and writers of the job file share: an object of the file that knows where it stands, so that a refusal
// can say what is wrong and where; and the parts that have files of their own.
#pragma once

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <initializer_list>
#include <nlohmann/json.hpp>
#include <string>
#include <vector>

#include "files/job_file.h"
#include "job/job.h"

namespace skarvel::job_parts {

using Json = nlohmann::ordered_json;

struct Refusal {
    Problem problem;
};

[[noreturn]] inline void refuse(const std::string& id, const std::string& where, const std::string& detail = {}) {
    throw Refusal{Problem{
        {id, {{"where", where.empty() ? std::string("file") : where}, {"detail", detail}}}, where, {}, Mark::Stop}};
}

// An object of the file with the place where it stands; `done` refuses keys that nothing asked for.
class Object {
  public:
    Object(const Json& json, std::string where) : json_(json), where_(std::move(where)) {
        if (!json.is_object()) refuse("file.not-object", where_);
    }

    void only(std::initializer_list<const char*> keys) const {
        for (const auto& [key, value] : json_.items()) {
            if (std::none_of(keys.begin(), keys.end(), [&](const char* k) { return key == k; })) {
                refuse("file.unknown-key", path(key.c_str()), key);
            }
        }
    }
    [[nodiscard]] std::string path(const char* key) const { return where_.empty() ? key : where_ + "/" + key; }
    [[nodiscard]] bool has(const char* key) const { return json_.contains(key) && !json_.at(key).is_null(); }
    [[nodiscard]] const Json& at(const char* key) const {
        if (!json_.contains(key)) refuse("file.missing-key", path(key), key);
        return json_.at(key);
    }
    [[nodiscard]] std::string text(const char* key) const {
        if (!at(key).is_string()) refuse("file.not-text", path(key), key);
        return at(key).get<std::string>();
    }
    [[nodiscard]] std::vector<std::string> texts(const char* key) const {
        std::vector<std::string> all;
        each(key, [&](const Json& item, const std::string& where) {
            if (!item.is_string()) refuse("file.not-text", where, key);
            all.push_back(item.get<std::string>());
        });
        return all;
    }
    [[nodiscard]] std::string text_or(const char* key, const std::string& otherwise) const {
        return has(key) ? text(key) : otherwise;
    }
    [[nodiscard]] int whole(const char* key, int least, int most) const {
        if (!at(key).is_number_integer()) refuse("file.not-number", path(key), key);
        const auto value = at(key).get<std::int64_t>();
        if (value < least || value > most) refuse("file.out-of-range", path(key), key);
        return static_cast<int>(value);
    }
    [[nodiscard]] bool flag(const char* key) const {
        if (!at(key).is_boolean()) refuse("file.not-flag", path(key), key);
        return at(key).get<bool>();
    }
    [[nodiscard]] Measure length(const char* key) const {
        // Bare numbers do not occur in files that were written; read as inches they still mean something.
        auto read = read_measure(text(key), Unit::Inch);
        if (!read) refuse("file.not-measure", path(key), text(key));
        return *read;
    }
    [[nodiscard]] std::optional<Measure> length_if(const char* key) const {
        return has(key) ? std::optional(length(key)) : std::nullopt;
    }
    [[nodiscard]] Moment moment(const char* key) const {
        auto read = read_moment(text(key));
        if (!read) refuse("file.not-moment", path(key), text(key));
        return *read;
    }
    template <class T, std::size_t n>
    [[nodiscard]] T choice(const char* key, const std::array<std::pair<const char*, T>, n>& table) const {
        const std::string word = text(key);
        for (const auto& [name, value] : table) {
            if (word == name) return value;
        }
        refuse("file.unknown-word", path(key), word);
    }
    template <class F>
    void each(const char* key, F read) const {
        if (!at(key).is_array()) refuse("file.not-list", path(key), key);
        int i = 0;
        for (const Json& item : at(key)) read(item, fmt::format("{}/{}", path(key), i++));
    }
    [[nodiscard]] Object object(const char* key) const { return {at(key), path(key)}; }
    [[nodiscard]] const Json& json() const { return json_; }

  private:
    const Json& json_;
    std::string where_;
};

template <class T, std::size_t n>
std::string name_in(const std::array<std::pair<const char*, T>, n>& table, T value) {
    for (const auto& [name, v] : table) {
        if (v == value) return name;
    }
    return {};
}

inline Json write_region(const Region& region) {
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

inline Region read_region(const Json& json, const std::string& where) {
    if (!json.is_array()) refuse("file.not-list", where);
    constexpr std::int64_t farthest = 1'000'000'000;  // 125 m
    std::vector<Ring> rings;
    for (const Json& flat : json) {
        if (!flat.is_array() || flat.size() % 2 != 0) refuse("file.bad-shape", where);
        Ring ring;
        for (std::size_t i = 0; i < flat.size(); i += 2) {
            if (!flat[i].is_number_integer() || !flat[i + 1].is_number_integer()) refuse("file.bad-shape", where);
            const Point p{flat[i].get<std::int64_t>(), flat[i + 1].get<std::int64_t>()};
            if (std::abs(p.x) > farthest || std::abs(p.y) > farthest) refuse("file.bad-shape", where);
            ring.push_back(p);
        }
        rings.push_back(std::move(ring));
    }
    return Region::from_rings(rings);
}

inline void put(Json& j, const char* key, const Measure& m) {
    if (!m.typed.empty()) j[key] = m.typed;
}
inline void put(Json& j, const char* key, const std::optional<Measure>& m) {
    if (m) j[key] = m->typed;
}

inline std::string one_of(const Object& o, const char* key, std::initializer_list<const char*> words) {
    const std::string word = o.text(key);
    if (std::none_of(words.begin(), words.end(), [&](const char* w) { return word == w; }))
        refuse("file.unknown-word", o.path(key), word);
    return word;
}

constexpr std::array<std::pair<const char*, Axis>, 2> axis_names{{{"across", Axis::X}, {"up", Axis::Y}}};

Json write_mat(const Mat& mat);
Mat read_mat(const Object& o);
/// Machines, films in the drawer, and hands of a shop.
void write_cutting(Json& j, const Shop& shop);
void read_cutting(const Object& o, Shop& shop);
Json write_lettering(const Lettering& lettering);
Lettering read_lettering(const Object& o);
Json write_art(const std::vector<Art>& art);
Art read_art(const Object& o);

}  // namespace skarvel::job_parts
