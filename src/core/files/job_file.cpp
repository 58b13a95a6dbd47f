#include "files/job_file.h"

#include "files/format_1.h"
#include "files/job_description.h"
#include "files/layer_slots.h"

namespace skarvel {
namespace {

using namespace description;

template <class T>
Expected<T> read_file_of(const std::string& text, int newest, void (*bring_up)(Json&, std::int64_t format)) {
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
std::string shop_schema() { return schema_of<Shop>("Skarvel shop").dump(2) + "\n"; }

}  // namespace skarvel
