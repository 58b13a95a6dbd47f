#include "files/job_file.h"

#include "files/format_1.h"
#include "files/job_description.h"
#include "files/layer_slots.h"
#include "values/limits.h"

#include <set>

namespace skarvel {
namespace {

using namespace description;

bool nested_too_deep(const std::string& text) {
    std::size_t depth = 0;
    bool quoted = false;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const char c = text[i];
        if (quoted) {
            if (c == '\\') ++i;
            quoted = c != '"';
            continue;
        }
        quoted = c == '"';
        if (c == '[' || c == '{') ++depth;
        if ((c == ']' || c == '}') && depth > 0) --depth;
        if (depth > limits::nesting) return true;
    }
    return false;
}

template <class T>
Expected<T> read_file_of(const std::string& text, int newest, void (*bring_up)(Json&, std::int64_t format)) {
    if (text.size() > limits::file_bytes || nested_too_deep(text)) {
        return refused({"limit.file-of-ours",
                        {{"megabytes", static_cast<std::int64_t>(limits::file_megabytes)},
                         {"nesting", static_cast<std::int64_t>(limits::nesting)}}},
                       "file", {"file.damaged-remedy", {}});
    }
    Json json = Json::parse(text, nullptr, false);
    if (json.is_discarded()) return refused({"file.not-json", {}}, "file", {"file.damaged-remedy", {}});
    try {
        const Object o({json, ""});
        if (!o.has("format") || !o.at("format").json.is_number_integer()) refuse("file.no-format", "format");
        const auto format = o.at("format").json.get<std::int64_t>();
        if (format > newest) return refused({"file.newer", {{"format", format}}}, "format", {"file.newer-remedy", {}});
        if (format < 1) refuse("file.no-format", "format");
        bring_up(json, format);
        return Value<T>::read({json, ""});
    } catch (const Refusal& refusal) {
        return tl::unexpected(refusal.problem);
    } catch (const nlohmann::json::exception& e) {
        return refused({"file.not-json", {{"detail", std::string(e.what())}}}, "file");
    }
}

// Bytes that are no UTF-8 cannot stand in JSON: they become replacement marks.
template <class T>
std::string file_of(const T& value) {
    return Value<T>::write(value).dump(2, ' ', false, Json::error_handler_t::replace) + "\n";
}

}  // namespace

std::string write_job(const Job& job) { return file_of(job); }
Expected<Job> read_job(const std::string& text) {
    return read_file_of<Job>(text, job_format, [](Json& json, std::int64_t format) {
        if (format == 1) job_from_format_1(json);
        layers_from_slots(json);
    });
}
std::string job_schema() { return schema_of<Job>("Skarvel job, format 2").dump(2) + "\n"; }

std::string write_shop(const Shop& shop) { return file_of(shop); }
Expected<Shop> read_shop(const std::string& text) {
    return read_file_of<Shop>(text, shop_format, [](Json&, std::int64_t) {});
}
Shop merged_shop(const Shop& base, const Shop& mine, const Shop& theirs) {
    const Json was = Value<Shop>::write(base);
    const Json here = Value<Shop>::write(mine);
    Json both = Value<Shop>::write(theirs);
    const auto field = [](const Json& of, const std::string& key) { return of.contains(key) ? of.at(key) : Json(); };
    std::set<std::string> keys;
    for (const Json* of : {&was, &here}) {
        for (const auto& [key, value] : of->items()) keys.insert(key);
    }
    for (const std::string& key : keys) {
        if (field(was, key) == field(here, key)) continue;
        if (here.contains(key))
            both[key] = here.at(key);
        else
            both.erase(key);
    }
    const auto read = read_shop(both.dump());
    return read ? *read : mine;
}
std::string shop_schema() { return schema_of<Shop>("Skarvel shop").dump(2) + "\n"; }

}  // namespace skarvel
