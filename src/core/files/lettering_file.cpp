#include <boost/beast/core/detail/base64.hpp>

#include "files/job_parts.h"

namespace skarvel::job_parts {
namespace {

namespace base64 = boost::beast::detail::base64;

constexpr std::array<std::pair<const char*, Arrangement>, 3> arrangement_names{
    {{"stack", Arrangement::Stack}, {"level", Arrangement::Level}, {"arc", Arrangement::Arc}}};
constexpr std::array<std::pair<const char*, Sizing>, 5> sizing_names{{{"snug", Sizing::Snug},
                                                                      {"capHeight", Sizing::CapHeight},
                                                                      {"xHeight", Sizing::XHeight},
                                                                      {"overall", Sizing::Overall},
                                                                      {"width", Sizing::Width}}};
constexpr std::array<std::pair<const char*, Side>, 3> side_names{
    {{"low", Side::Low}, {"middle", Side::Middle}, {"high", Side::High}}};
constexpr std::array<std::pair<const char*, Corner>, 3> corner_names{
    {{"square", Corner::Square}, {"round", Corner::Round}, {"notched", Corner::Notched}}};

Json write_typeface(const TypefaceName& t) {
    return {{"family", t.family}, {"style", t.style}, {"checksum", t.checksum}};
}
TypefaceName read_typeface_name(const Object& o) {
    o.only({"family", "style", "checksum"});
    return {o.text("family"), o.text("style"), o.text_or("checksum", "")};
}

Json write_hang(const Hang& h) {
    return {{"on", h.on.name},
            {"its", name_in(side_names, h.its)},
            {"mine", name_in(side_names, h.mine)},
            {"by", h.by.typed}};
}
Hang read_hang(const Object& o) {
    o.only({"on", "its", "mine", "by"});
    return {ThingId{o.text("on")}, o.choice("its", side_names), o.choice("mine", side_names), o.length("by")};
}
std::optional<Hang> hang_if(const Object& o, const char* key) {
    return o.has(key) ? std::optional(read_hang(o.object(key))) : std::nullopt;
}

ColourId colour_of(const Object& o) { return {o.text("colour")}; }

Length exact(const Object& o, const char* key) { return o.length(key).value; }

// Exact in either unit: a nudge may be a millimetre or a sixteenth.
std::string typed(Length l) {
    return l.nm() % 396'875 == 0 ? measure_of(l, {Unit::Inch, 64}).typed
                                 : fmt::format("{} mm", static_cast<double>(l.nm()) / 1e6);
}

Json write_text(const Text& t) {
    const Text plain;
    Json j{{"id", t.id.name},
           {"words", t.words},
           {"typeface", write_typeface(t.typeface)},
           {"arrangement", name_in(arrangement_names, t.arrangement)},
           {"sizing", name_in(sizing_names, t.sizing)},
           {"size", t.size.typed},
           {"letterGap", t.letter_gap.typed},
           {"lineGap", t.line_gap.typed}};
    if (t.width_percent != 100) j["widthPercent"] = t.width_percent;
    if (!t.alternates.empty()) j["alternates"] = t.alternates;
    put(j, "bolder", t.bolder);
    if (t.even) j["even"] = true;
    if (t.least_gap != plain.least_gap) j["leastGap"] = t.least_gap.typed;
    if (t.slope_tenths != 0) j["slopeTenths"] = t.slope_tenths;
    if (t.arc != plain.arc) {
        j["arc"] = {{"side", t.arc.below ? "below" : "above"},
                    {"follow", t.arc.follow},
                    {"distance", t.arc.distance.typed},
                    {"radius", t.arc.radius.typed},
                    {"sweep", t.arc.sweep}};
    }
    if (t.to_shape) j["toShape"] = true;
    if (t.across) j["across"] = write_hang(*t.across);
    if (t.up) j["up"] = write_hang(*t.up);
    if (t.locked) j["locked"] = true;
    for (const Nudge& n : t.nudges) j["nudges"].push_back({{"letter", n.letter}, {"x", typed(n.x)}, {"y", typed(n.y)}});
    j["colour"] = t.colour.name;
    if (t.rim) {
        j["rim"] = {{"width", t.rim->width.typed},
                    {"colour", t.rim->colour.name},
                    {"under", t.rim->under},
                    {"overlap", t.rim->overlap.typed},
                    {"inner", t.rim->inner}};
    }
    return j;
}

Text read_text(const Object& o) {
    o.only({"id",           "words",  "typeface", "arrangement", "sizing",      "size",      "letterGap", "lineGap",
            "widthPercent", "bolder", "even",     "leastGap",    "slopeTenths", "arc",       "toShape",   "across",
            "up",           "locked", "nudges",   "colour",      "rim",         "alternates"});
    Text t;
    t.id.name = o.text("id");
    t.words = o.text("words");
    t.typeface = read_typeface_name(o.object("typeface"));
    t.arrangement = o.choice("arrangement", arrangement_names);
    t.sizing = o.choice("sizing", sizing_names);
    t.size = o.length("size");
    t.letter_gap = o.length("letterGap");
    t.line_gap = o.length("lineGap");
    if (o.has("widthPercent")) t.width_percent = o.whole("widthPercent", 10, 1000);
    if (o.has("alternates")) t.alternates = o.texts("alternates");
    t.bolder = o.length_if("bolder");
    if (o.has("even")) t.even = o.flag("even");
    if (o.has("leastGap")) t.least_gap = o.length("leastGap");
    if (o.has("slopeTenths")) t.slope_tenths = o.whole("slopeTenths", -900, 900);
    if (o.has("arc")) {
        const Object a = o.object("arc");
        a.only({"side", "follow", "distance", "radius", "sweep"});
        t.arc = {one_of(a, "side", {"above", "below"}) == "below", a.flag("follow"), a.length("distance"),
                 a.length("radius"), a.whole("sweep", 5, 350)};
    }
    if (o.has("toShape")) t.to_shape = o.flag("toShape");
    t.across = hang_if(o, "across");
    t.up = hang_if(o, "up");
    if (o.has("locked")) t.locked = o.flag("locked");
    if (o.has("nudges")) {
        o.each("nudges", [&](const Json& j, const std::string& where) {
            const Object n(j, where);
            n.only({"letter", "x", "y"});
            t.nudges.push_back({n.whole("letter", 0, 1'000'000), exact(n, "x"), exact(n, "y")});
        });
    }
    t.colour = colour_of(o);
    if (o.has("rim")) {
        const Object r = o.object("rim");
        r.only({"width", "colour", "under", "overlap", "inner"});
        t.rim = Rim{r.length("width"), colour_of(r), r.flag("under"), r.length("overlap"), r.flag("inner")};
    }
    return t;
}

// ---- art, kind by kind

Json write_kind(const Border& b) {
    return {{"inset", b.inset.typed},
            {"thickness", b.thickness.typed},
            {"corner", name_in(corner_names, b.corner)},
            {"cornerSize", b.corner_size.typed},
            {"twice", b.twice}};
}
Json write_kind(const Corners& c) {
    return {{"inset", c.inset.typed}, {"size", c.size.typed}, {"thickness", c.thickness.typed}, {"style", c.style}};
}
Json write_kind(const RuledLine& r) {
    Json j{{"thickness", r.thickness.typed}, {"ends", r.ends}};
    put(j, "length", r.length);
    return j;
}
Json write_kind(const Banner& r) {
    Json j{{"height", r.height.typed}, {"tails", r.tails.typed}};
    put(j, "length", r.length);
    return j;
}
Json write_kind(const Figure& f) {
    Json j{{"shape", f.shape}, {"width", f.width.typed}, {"height", f.height.typed}};
    put(j, "line", f.line);
    return j;
}
Json write_kind(const HeightRuler& r) {
    return {{"aboveFloor", r.above_floor.typed},
            {"metric", r.metric},
            {"right", r.right},
            {"longMark", r.long_mark.typed},
            {"middleMark", r.middle_mark.typed},
            {"shortMark", r.short_mark.typed},
            {"thickness", r.thickness.typed},
            {"numbers", r.numbers},
            {"typeface", write_typeface(r.typeface)},
            {"numberHeight", r.number_height.typed}};
}
Json write_kind(const MonthBoard& m) {
    return {{"title", m.title},
            {"days", m.days},
            {"typeface", write_typeface(m.typeface)},
            {"titleHeight", m.title_height.typed},
            {"dayHeight", m.day_height.typed},
            {"gap", m.gap.typed},
            {"line", m.line.typed},
            {"boxes", m.boxes}};
}
Json write_kind(const PlacedDrawing& d) {
    Json parts = Json::array();
    for (const DrawingPart& p : d.drawing->parts)
        parts.push_back({{"shape", write_region(p.shape)}, {"colour", p.colour}, {"name", p.name}});
    Json j{{"parts", parts},
           {"source", d.drawing->source},
           {"licence", d.drawing->licence},
           {"checksum", d.drawing->checksum},
           {"of", d.by_width ? "width" : "height"},
           {"size", d.size.typed},
           {"mirrored", d.mirrored},
           {"fourCorners", d.four_corners}};
    if (const KeptPicture& p = d.drawing->picture; p.bytes) {
        std::string text(base64::encoded_size(p.bytes->size()), '=');
        text.resize(base64::encode(text.data(), p.bytes->data(), p.bytes->size()));
        j["picture"] = {{"bytes", text},
                        {"frame", {p.frame.low.x, p.frame.low.y, p.frame.high.x, p.frame.high.y}},
                        {"around", d.around.typed}};
    }
    for (const auto& [part, colour] : d.colours) j["colours"].push_back({part, colour.name});
    if (!d.dropped.empty()) j["dropped"] = d.dropped;
    return j;
}

ArtKind read_kind(const std::string& kind, const Object& o) {
    if (kind == "border") {
        o.only({"inset", "thickness", "corner", "cornerSize", "twice"});
        return Border{o.length("inset"), o.length("thickness"), o.choice("corner", corner_names),
                      o.length("cornerSize"), o.flag("twice")};
    }
    if (kind == "corners") {
        o.only({"inset", "size", "thickness", "style"});
        return Corners{o.length("inset"), o.length("size"), o.length("thickness"),
                       one_of(o, "style", {"angle", "steps", "fan"})};
    }
    if (kind == "line") {
        o.only({"length", "thickness", "ends"});
        return RuledLine{o.length_if("length").value_or(Measure{}), o.length("thickness"),
                         one_of(o, "ends", {"plain", "pointed", "dots"})};
    }
    if (kind == "ribbon") {
        o.only({"length", "height", "tails"});
        return Banner{o.length_if("length").value_or(Measure{}), o.length("height"), o.length("tails")};
    }
    if (kind == "figure") {
        o.only({"shape", "width", "height", "line"});
        return Figure{one_of(o, "shape", {"rectangle", "oval", "diamond", "star", "heart", "pennant"}),
                      o.length("width"), o.length("height"), o.length_if("line").value_or(Measure{})};
    }
    if (kind == "height-ruler") {
        o.only({"aboveFloor", "metric", "right", "longMark", "middleMark", "shortMark", "thickness", "numbers",
                "typeface", "numberHeight"});
        return HeightRuler{o.length("aboveFloor"),  o.flag("metric"),       o.flag("right"),
                           o.length("longMark"),    o.length("middleMark"), o.length("shortMark"),
                           o.length("thickness"),   o.flag("numbers"),      read_typeface_name(o.object("typeface")),
                           o.length("numberHeight")};
    }
    if (kind == "month-board") {
        o.only({"title", "days", "typeface", "titleHeight", "dayHeight", "gap", "line", "boxes"});
        MonthBoard m;
        m.title = o.text("title");
        m.days.clear();
        o.each("days", [&](const Json& j, const std::string& where) {
            if (!j.is_string()) refuse("file.not-text", where, "days");
            m.days.push_back(j.get<std::string>());
        });
        m.typeface = read_typeface_name(o.object("typeface"));
        m.title_height = o.length("titleHeight");
        m.day_height = o.length("dayHeight");
        m.gap = o.length("gap");
        m.line = o.length("line");
        m.boxes = o.flag("boxes");
        return m;
    }
    o.only({"parts", "source", "licence", "checksum", "of", "size", "mirrored", "fourCorners", "colours", "dropped",
            "picture"});
    PlacedDrawing d;
    FileDrawing drawing;
    o.each("parts", [&](const Json& j, const std::string& where) {
        const Object p(j, where);
        p.only({"shape", "colour", "name"});
        drawing.parts.push_back({read_region(p.at("shape"), p.path("shape")), p.text("colour"), p.text("name")});
    });
    drawing.source = o.text("source");
    drawing.licence = o.text("licence");
    drawing.checksum = o.text("checksum");
    d.by_width = one_of(o, "of", {"width", "height"}) == "width";
    d.size = o.length("size");
    d.mirrored = o.flag("mirrored");
    d.four_corners = o.flag("fourCorners");
    if (o.has("picture")) {
        const Object p = o.object("picture");
        p.only({"bytes", "frame", "around"});
        const std::string text = p.text("bytes");
        std::string bytes(base64::decoded_size(text.size()), '\0');
        const auto [written, read] = base64::decode(bytes.data(), text.data(), text.size());
        // Only the padding may be left over.
        if (text.find_first_not_of('=', read) != std::string::npos) refuse("file.bad-shape", p.path("bytes"));
        bytes.resize(written);
        drawing.picture.bytes = std::make_shared<const std::string>(std::move(bytes));
        std::vector<std::int64_t> frame;
        p.each("frame", [&](const Json& j, const std::string& where) {
            if (!j.is_number_integer() || std::abs(j.get<double>()) > 1e9) refuse("file.not-number", where);
            frame.push_back(j.get<std::int64_t>());
        });
        if (frame.size() != 4) refuse("file.bad-shape", p.path("frame"));
        drawing.picture.frame = {{frame[0], frame[1]}, {frame[2], frame[3]}};
        d.around = p.length("around");
    }
    d.drawing = std::move(drawing);
    const auto place = [&](const Json& j, const std::string& where) {
        if (!j.is_number_integer() || j.get<std::int64_t>() < 0) refuse("file.not-number", where);
        return j.get<std::size_t>();
    };
    if (o.has("colours")) {
        o.each("colours", [&](const Json& j, const std::string& where) {
            if (!j.is_array() || j.size() != 2) refuse("file.not-list", where);
            if (!j[1].is_string()) refuse("file.not-text", where);
            d.colours[place(j[0], where)] = {j[1].get<std::string>()};
        });
    }
    if (o.has("dropped"))
        o.each("dropped", [&](const Json& j, const std::string& where) { d.dropped.push_back(place(j, where)); });
    return d;
}

}  // namespace

Json write_lettering(const Lettering& l) {
    Json texts = Json::array();
    for (const Text& t : l.texts) texts.push_back(write_text(t));
    Json j{{"texts", texts}};
    if (l.optical_centre) j["opticalCentre"] = true;
    return j;
}

Lettering read_lettering(const Object& o) {
    o.only({"texts", "opticalCentre"});
    Lettering l;
    l.texts.clear();
    o.each("texts", [&](const Json& j, const std::string& where) {
        l.texts.push_back(read_text({j, where}));
        for (std::size_t i = 0; i + 1 < l.texts.size(); ++i) {
            if (l.texts[i].id == l.texts.back().id) refuse("file.same-id", where, l.texts.back().id.name);
        }
    });
    if (l.texts.empty()) refuse("file.empty-list", o.path("texts"));
    if (o.has("opticalCentre")) l.optical_centre = o.flag("opticalCentre");
    return l;
}

Json write_art(const std::vector<Art>& art) {
    Json all = Json::array();
    for (const Art& a : art) {
        Json j{{"id", a.id.name}, {"kind", kind_of(a)}};
        j["is"] = std::visit([](const auto& kind) { return write_kind(kind); }, a.kind);
        j["colour"] = a.colour.name;
        if (a.across) j["across"] = write_hang(*a.across);
        if (a.up) j["up"] = write_hang(*a.up);
        if (a.locked) j["locked"] = true;
        all.push_back(std::move(j));
    }
    return all;
}

Art read_art(const Object& o) {
    o.only({"id", "kind", "is", "colour", "across", "up", "locked"});
    Art a;
    a.id.name = o.text("id");
    const std::string kind =
        one_of(o, "kind", {"border", "corners", "line", "ribbon", "figure", "height-ruler", "month-board", "drawing"});
    a.kind = read_kind(kind, o.object("is"));
    a.colour = colour_of(o);
    a.across = hang_if(o, "across");
    a.up = hang_if(o, "up");
    if (o.has("locked")) a.locked = o.flag("locked");
    return a;
}

}  // namespace skarvel::job_parts
