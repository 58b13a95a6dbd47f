#include "files/format_1.h"

#include <algorithm>
#include <charconv>
#include <string>
#include <vector>

#include "values/work.h"

namespace skarvel {
namespace {

using Json = nlohmann::ordered_json;

std::string text_in(const Json& object, const char* key) {
    const auto at = object.find(key);
    return at != object.end() && at->is_string() ? at->get<std::string>() : std::string();
}

// The items of a list in an object; nothing where there is none.
Json* list_in(Json& object, const char* key) {
    if (!object.is_object() || !object.contains(key)) return nullptr;
    Json& list = object[key];
    return list.is_array() ? &list : nullptr;
}

template <class Do>
void each(Json& object, const char* key, Do act) {
    if (Json* list = list_in(object, key)) {
        for (Json& item : *list) {
            if (item.is_object()) act(item);
        }
    }
}

// A colour by its place, as its id; without one it was the first. A place that the face does not have is left, and
// refused as what it is.
void name_colour(Json& thing, const std::vector<std::string>& ids) {
    if (!thing.contains("colour")) {
        if (!ids.empty()) thing["colour"] = ids.front();
        return;
    }
    Json& colour = thing["colour"];
    if (!colour.is_number_unsigned() || colour.get<std::size_t>() >= ids.size()) return;
    colour = std::string(ids[colour.get<std::size_t>()]);
}

void name_parts(Json& art, const std::vector<std::string>& ids) {
    if (!art.contains("is") || !art["is"].is_object()) return;
    Json* colours = list_in(art["is"], "colours");
    if (colours == nullptr) return;
    for (Json& pair : *colours) {
        if (!pair.is_array() || pair.size() != 2 || !pair[1].is_number_unsigned()) continue;
        if (const auto place = pair[1].get<std::size_t>(); place < ids.size()) pair[1] = std::string(ids[place]);
    }
}

void name_face(Json& face, const std::string& id) {
    face["id"] = id;
    std::vector<std::string> ids;
    each(face, "colours", [&](Json& colour) {
        ids.push_back(ids.empty() ? id : id + "." + std::to_string(ids.size() + 1));
        colour["id"] = ids.back();
    });
    if (face.contains("lettering") && face["lettering"].is_object()) {
        each(face["lettering"], "texts", [&](Json& text) {
            name_colour(text, ids);
            if (text.contains("rim") && text["rim"].is_object()) name_colour(text["rim"], ids);
        });
    }
    each(face, "art", [&](Json& art) {
        name_colour(art, ids);
        name_parts(art, ids);
    });
}

// "<which> again 2" is the third lay of a section, "1 pass 2" or "pass 2" what is done in the second pass.
std::string new_step(const std::string& step) {
    const auto number_after = [](std::string& which, const std::string& word) {
        const std::size_t at = which.rfind(word);
        if (at == std::string::npos) return 0;
        const std::string digits = which.substr(at + word.size());
        int number = 0;
        const auto [end, error] = std::from_chars(digits.data(), digits.data() + digits.size(), number);
        if (error != std::errc{} || end != digits.data() + digits.size()) return 0;
        which.erase(at);
        return number;
    };
    auto name = name_of(StepId{step});
    if (!name) return step;
    const bool laid = name->work == Work::Lay || name->work == Work::Lift;
    const bool painted = name->work == Work::Colour || name->work == Work::Seal;
    int time = 0;
    if (laid) time = number_after(name->which, " again ") + 1;
    if (painted) time = number_after(name->which, name->which.starts_with("pass ") ? "pass " : " pass ");
    if (time < 2) return step;
    return step_id(ColourId{name->of}, name->work, name->which, time).name;
}

void name_steps(Json& bench, const char* key) {
    if (!bench.contains(key) || !bench[key].is_object()) return;
    Json renamed = Json::object();
    for (const auto& [step, at] : bench[key].items()) renamed[new_step(step)] = at;
    bench[key] = std::move(renamed);
}

// A load was named after what lay on it, in the order in which it lay.
void name_cut(Json& load) {
    std::vector<std::string> letters;
    each(load, "sections", [&](Json& section) { letters.push_back(text_in(section, "letters")); });
    std::string name;
    each(load, "placements", [&](Json& placement) {
        if (!placement.contains("section") || !placement["section"].is_number_unsigned()) return;
        const auto at = placement["section"].get<std::size_t>();
        if (at < letters.size()) name += (name.empty() ? "" : "+") + letters[at];
    });
    load["id"] = name;
    if (!load.contains("of")) load["of"] = "1";
}

// The largest number that any of these names begins or ends with: later ids count on from there.
int highest_in(const std::string& name) {
    int highest = 0;
    for (std::size_t i = 0; i < name.size();) {
        int number = 0;
        const auto [end, error] = std::from_chars(name.data() + i, name.data() + name.size(), number);
        const bool read = error == std::errc{} && name[i] != '-';
        if (read && number < 1'000'000) highest = std::max(highest, number);
        i = read ? static_cast<std::size_t>(end - name.data()) : i + 1;
    }
    return highest;
}

}  // namespace

void job_from_format_1(Json& job) {
    job["format"] = 2;
    int made = 1;
    const auto saw = [&](const std::string& name) { made = std::max(made, highest_in(name)); };
    each(job, "signs", [&](Json& sign) {
        const std::string id = text_in(sign, "id");
        saw(id);
        int face = 0;
        each(sign, "faces", [&](Json& f) {
            std::string of = id;
            if (face > 0) of.push_back('b');
            if (face > 1) of.append(std::to_string(face));
            ++face;
            name_face(f, of);
            each(f, "colours", [&](Json& colour) { saw(text_in(colour, "id")); });
        });
    });
    if (job.contains("bench") && job["bench"].is_object()) {
        Json& bench = job["bench"];
        for (const char* key : {"ticks", "held"}) {
            name_steps(bench, key);
            if (bench.contains(key) && bench[key].is_object()) {
                for (const auto& [step, at] : bench[key].items()) saw(step.substr(0, step.find('/')));
            }
        }
        for (const char* key : {"cut", "spoilt"}) {
            each(bench, key, [&](Json& load) {
                name_cut(load);
                saw(text_in(load, "of"));
            });
        }
    }
    job["made"] = made;
}

}  // namespace skarvel
