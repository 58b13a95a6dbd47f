#include "files/job_description.h"

#include <boost/beast/core/detail/base64.hpp>

#include "geometry/tangle.h"

namespace skarvel::description {

namespace base64 = boost::beast::detail::base64;

std::map<std::size_t, ColourId> Value<std::map<std::size_t, ColourId>>::read(const Spot& spot, const Limits&) {
    if (!spot.json.is_array()) refuse("file.not-list", spot.where);
    std::map<std::size_t, ColourId> colours;
    for (const Json& pair : spot.json) {
        if (!pair.is_array() || pair.size() != 2) refuse("file.not-list", spot.where);
        colours[Value<std::size_t>::read({pair[0], spot.where})] = Value<ColourId>::read({pair[1], spot.where});
    }
    return colours;
}

Json Value<std::map<std::size_t, ColourId>>::write(const std::map<std::size_t, ColourId>& colours) {
    Json all = Json::array();
    for (const auto& [part, colour] : colours) all.push_back({part, colour.name});
    return all;
}

std::vector<std::vector<PieceName>> Value<std::vector<std::vector<PieceName>>>::read(const Spot& spot, const Limits&) {
    if (!spot.json.is_array()) refuse("file.not-list", spot.where);
    std::vector<std::vector<PieceName>> lists;
    for (const Json& item : spot.json) {
        const Object o({item, fmt::format("{}/{}", spot.where, lists.size())});
        o.only({"pieces"});
        lists.push_back(Value<std::vector<PieceName>>::read(o.at("pieces")));
    }
    return lists;
}

Json Value<std::vector<std::vector<PieceName>>>::write(const std::vector<std::vector<PieceName>>& lists) {
    Json all = Json::array();
    for (const auto& pieces : lists) all.push_back({{"pieces", Value<std::vector<PieceName>>::write(pieces)}});
    return all;
}

Hours Value<Hours>::read(const Spot& spot, const Limits&) {
    if (!spot.json.is_array()) refuse("file.not-list", spot.where);
    Hours hours;
    std::size_t weekday = 0;
    for (const Json& day : spot.json) {
        const std::string where = fmt::format("{}/{}", spot.where, weekday);
        if (weekday > 6 || !day.is_array()) refuse("file.bad-hours", where);
        for (const Json& s : day) {
            if (!s.is_array() || s.size() != 2 || !s[0].is_number_integer() || !s[1].is_number_integer())
                refuse("file.bad-hours", where);
            const Hours::Sitting sitting{s[0].get<int>(), s[1].get<int>()};
            if (sitting.from < 0 || sitting.to > 24 * 60 || sitting.from >= sitting.to) refuse("file.bad-hours", where);
            hours.days.at(weekday).push_back(sitting);
        }
        ++weekday;
    }
    return hours;
}

Json Value<Hours>::write(const Hours& hours) {
    Json days = Json::array();
    for (const auto& day : hours.days) {
        Json sittings = Json::array();
        for (const auto& s : day) sittings.push_back({s.from, s.to});
        days.push_back(std::move(sittings));
    }
    return days;
}

void KeptDrawing::read(const Object& o, PlacedDrawing& into) {
    FileDrawing drawing;
    read_fields(o, drawing);
    try {
        look_for_tangles(shapes_of(drawing));
    } catch (const Tangled&) {
        refuse("file.tangled", o.path("parts"));
    }
    if (o.has("picture")) {
        const Object p(o.at("picture"));
        p.only({"bytes", "frame", "around"});
        const std::string text = Value<std::string>::read(p.at("bytes"));
        std::string bytes(base64::decoded_size(text.size()), '\0');
        const auto [written, read] = base64::decode(bytes.data(), text.data(), text.size());
        // Only the padding may be left over.
        if (text.find_first_not_of('=', read) != std::string::npos) refuse("file.bad-shape", p.path("bytes"));
        bytes.resize(written);
        drawing.picture.bytes = std::make_shared<const std::string>(std::move(bytes));
        const auto frame = Value<std::vector<std::int64_t>>::read(p.at("frame"), {}, from_to(-farthest, farthest));
        if (frame.size() != 4) refuse("file.bad-shape", p.path("frame"));
        drawing.picture.frame = {{frame[0], frame[1]}, {frame[2], frame[3]}};
        into.around = Value<Measure>::read(p.at("around"));
    }
    into.drawing = std::move(drawing);
}

void KeptDrawing::write(const PlacedDrawing& from, Json& into) {
    write_fields(*from.drawing, into);
    const KeptPicture& p = from.drawing->picture;
    if (!p.bytes) return;
    std::string text(base64::encoded_size(p.bytes->size()), '=');
    text.resize(base64::encode(text.data(), p.bytes->data(), p.bytes->size()));
    into["picture"] = {{"bytes", text},
                       {"frame", {p.frame.low.x, p.frame.low.y, p.frame.high.x, p.frame.high.y}},
                       {"around", Value<Measure>::write(from.around)}};
}

void KeptDrawing::add_keys(std::set<std::string>& keys) {
    description::add_keys<FileDrawing>(keys);
    keys.insert("picture");
}

void KeptDrawing::add_schema(Schema& s, Json& object) {
    description::add_schema<FileDrawing>(s, object);
    const Json frame{{"type", "array"}, {"items", {{"type", "integer"}}}, {"minItems", 4}, {"maxItems", 4}};
    add_property(object, "picture",
                 {{"type", "object"},
                  {"additionalProperties", false},
                  {"required", {"bytes", "frame", "around"}},
                  {"properties",
                   {{"bytes", {{"type", "string"}, {"contentEncoding", "base64"}}},
                    {"frame", frame},
                    {"around", Value<Measure>::schema(s)}}}},
                 false);
}

// Ids of one kind are never the same twice.
void Described<Job>::settle(const Object&, const Job& job) {
    if (const auto more = beyond_limits(job)) throw Refusal{Problem{*more, "signs", {"limit.remedy", {}}, Mark::Stop}};
    std::set<SignId> signs;
    std::set<FaceId> faces;
    std::set<ColourId> colours;
    const auto check = [](auto& known, const auto& id, const std::string& where) {
        if (id.empty() || !known.insert(id).second) refuse("file.same-id", where, id.name);
    };
    for (std::size_t s = 0; s < job.signs.size(); ++s) {
        const std::string where = fmt::format("signs/{}", s);
        check(signs, job.signs[s].id, where);
        for (const Face& face : job.signs[s].faces) {
            check(faces, face.id, where + "/faces");
            for (const Colour& colour : face.colours) check(colours, colour.id, where + "/colours");
        }
    }
}

void Described<Shop>::settle(const Object& o, Shop& shop) {
    // None is not the same as never asked.
    if (!o.has("machines")) shop.machines = usual_machines();
    for (const Length l : shop.board_lengths) {
        if (l <= Length{}) refuse("file.not-measure", o.path("boardLengths"));
    }
}

}  // namespace skarvel::description
