#include "files/description.h"

namespace skarvel::description {

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
    return Region::from_rings(rings);
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
