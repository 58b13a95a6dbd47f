#include "files/job_file.h"

#include <array>
#include <charconv>
#include <set>

#include "files/format_1.h"
#include "files/job_parts.h"

namespace skarvel {
namespace {

using namespace job_parts;

constexpr std::array<std::pair<const char*, Stands>, 2> stands_names{
    {{"upright", Stands::Upright}, {"level", Stands::Level}}};
constexpr std::array<std::pair<const char*, Edge>, 4> edge_names{
    {{"top", Edge::Top}, {"bottom", Edge::Bottom}, {"left", Edge::Left}, {"right", Edge::Right}}};
constexpr std::array<std::pair<const char*, Way>, 2> way_names{
    {{"decal", Way::Decal}, {"paint-through", Way::PaintThrough}}};
constexpr std::array<std::pair<const char*, Unit>, 2> unit_names{{{"in", Unit::Inch}, {"mm", Unit::Millimetre}}};

constexpr std::array<std::pair<const char*, Kind>, 8> kind_names{{{"board", Kind::Board},
                                                                  {"panel", Kind::Panel},
                                                                  {"canvas", Kind::Canvas},
                                                                  {"round", Kind::Round},
                                                                  {"arrow", Kind::Arrow},
                                                                  {"arch", Kind::Arch},
                                                                  {"field", Kind::Field},
                                                                  {"drawn", Kind::Drawn}}};
constexpr std::array<std::pair<const char*, ArchStyle>, 3> arch_names{
    {{"half-round", ArchStyle::HalfRound}, {"segmental", ArchStyle::Segmental}, {"pointed", ArchStyle::Pointed}}};
constexpr std::array<std::pair<const char*, ZoneShape>, 3> zone_names{
    {{"band", ZoneShape::Band}, {"rectangle", ZoneShape::Rectangle}, {"circle", ZoneShape::Circle}}};
constexpr std::array<std::pair<const char*, FrameKind>, 6> frame_names{{{"none", FrameKind::None},
                                                                        {"butt", FrameKind::Butt},
                                                                        {"mitred", FrameKind::Mitred},
                                                                        {"trim", FrameKind::Trim},
                                                                        {"battens", FrameKind::Battens},
                                                                        {"edging", FrameKind::Edging}}};
constexpr std::array<std::pair<const char*, SizeIs>, 3> size_names{
    {{"over-all", SizeIs::OverAll}, {"bare", SizeIs::Bare}, {"free", SizeIs::Free}}};
constexpr std::array<std::pair<const char*, Holds>, 5> holds_names{{{"hung", Holds::Hung},
                                                                    {"legs", Holds::Legs},
                                                                    {"leaning", Holds::Leaning},
                                                                    {"stake", Holds::Stake},
                                                                    {"in-place", Holds::InPlace}}};
constexpr std::array<const char*, reading_count> reading_keys{"bottom", "middle", "top",    "left",
                                                              "right",  "rising", "falling"};

// ---- sign

Json write_zone(const ClearZone& z) {
    Json j{{"name", z.name}, {"reason", z.reason}, {"shape", name_in(zone_names, z.shape)}};
    if (z.shape == ZoneShape::Band || z.edge != Edge::Top) j["edge"] = name_in(edge_names, z.edge);
    put(j, "depth", z.depth);
    put(j, "x", z.x);
    put(j, "y", z.y);
    put(j, "width", z.width);
    put(j, "height", z.height);
    if (z.mirrored) j["mirrored"] = true;
    if (z.turns != 0) j["turns"] = z.turns;
    put(j, "girth", z.girth);
    return j;
}

ClearZone read_zone(const Object& o) {
    o.only({"edge", "depth", "name", "reason", "shape", "x", "y", "width", "height", "mirrored", "turns", "girth"});
    ClearZone z;
    z.name = o.text("name");
    if (o.has("reason")) z.reason = o.text("reason");
    if (o.has("shape")) z.shape = o.choice("shape", zone_names);
    if (o.has("edge")) z.edge = o.choice("edge", edge_names);
    if (z.shape == ZoneShape::Band && !o.has("turns")) z.depth = o.length("depth");
    for (const auto& [key, value] : {std::pair{"depth", &z.depth},
                                     {"x", &z.x},
                                     {"y", &z.y},
                                     {"width", &z.width},
                                     {"height", &z.height},
                                     {"girth", &z.girth}}) {
        if (o.has(key)) *value = o.length(key);
    }
    if (z.shape != ZoneShape::Band) {
        for (const char* key : {"x", "y", "width"}) (void)o.at(key);
    }
    if (o.has("mirrored")) z.mirrored = o.flag("mirrored");
    if (o.has("turns")) z.turns = o.whole("turns", 0, 1000);
    return z;
}

Json write_field(const PaintedField& f) {
    Json j{{"border", f.border}, {"along", name_in(axis_names, f.along)}};
    put(j, "middle", f.middle);
    put(j, "depth", f.depth);
    j["colour"] = f.colour;
    j["colourName"] = f.colour_name;
    j["lettered"] = f.lettered;
    return j;
}

PaintedField read_field(const Object& o) {
    o.only({"border", "along", "middle", "depth", "colour", "colourName", "lettered"});
    PaintedField f;
    f.border = o.flag("border");
    f.along = o.choice("along", axis_names);
    if (o.has("middle")) f.middle = o.length("middle");
    f.depth = o.length("depth");
    f.colour = o.text("colour");
    f.colour_name = o.text_or("colourName", "");
    f.lettered = o.flag("lettered");
    return f;
}

Json write_tape(const Readings& r) {
    Json j;
    for (std::size_t i = 0; i < reading_count; ++i) put(j, reading_keys.at(i), r.taken.at(i));
    j["tolerance"] = r.tolerance.typed;
    return j;
}

Readings read_tape(const Object& o) {
    o.only({"bottom", "middle", "top", "left", "right", "rising", "falling", "tolerance"});
    Readings r;
    for (std::size_t i = 0; i < reading_count; ++i) r.taken.at(i) = o.length_if(reading_keys.at(i));
    r.tolerance = o.length("tolerance");
    return r;
}

Json write_frame(const Frame& f) {
    return {{"kind", name_in(frame_names, f.kind)},
            {"stock", f.stock},
            {"seen", f.seen.typed},
            {"rebate", f.rebate.typed},
            {"clearance", f.clearance.typed},
            {"sizeIs", name_in(size_names, f.size_is)},
            {"raised", f.raised},
            {"before", f.before}};
}

Frame read_frame(const Object& o) {
    o.only({"kind", "stock", "seen", "rebate", "clearance", "sizeIs", "raised", "before"});
    return {
        o.choice("kind", frame_names),  o.text("stock"),  o.length("seen"), o.length("rebate"), o.length("clearance"),
        o.choice("sizeIs", size_names), o.flag("raised"), o.flag("before")};
}

Json write_holding(const Holding& h) {
    return {{"way", name_in(holds_names, h.way)},
            {"base", h.base.typed},
            {"under", h.under.typed},
            {"ballastGrams", h.ballast_grams}};
}

Holding read_holding(const Object& o) {
    o.only({"way", "base", "under", "ballastGrams"});
    return {o.choice("way", holds_names), o.length("base"), o.length("under"), o.whole("ballastGrams", 0, 10'000'000)};
}

// What is as it comes is left out: a plain board stays a short page.
Json write_blank(const Blank& b) {
    const Blank plain;
    Json j;
    j["kind"] = name_in(kind_names, b.kind);
    j["stock"] = b.stock;
    put(j, "length", b.length);
    put(j, "width", b.width);
    put(j, "thickness", b.thickness);
    j["stands"] = name_in(stands_names, b.stands);
    if (b.head != plain.head) {
        j["head"] = {{"length", b.head.length.typed},
                     {"height", b.head.height.typed},
                     {"overlap", b.head.overlap.typed},
                     {"points", b.head.right ? "right" : "left"}};
    }
    if (b.arch != plain.arch) j["arch"] = {{"style", name_in(arch_names, b.arch.style)}, {"rise", b.arch.rise.typed}};
    if (b.outline) {
        j["outline"] = {{"shape", write_region(b.outline->drawn)},
                        {"known", b.outline->known.typed},
                        {"of", b.outline->by_width ? "width" : "height"},
                        {"source", b.outline->source}};
    }
    put(j, "bars", b.bars);
    put(j, "moulding", b.moulding);
    if (b.backing) {
        j["backing"] = {{"length", b.backing->length.typed},
                        {"width", b.backing->width.typed},
                        {"thickness", b.backing->thickness.typed},
                        {"material", b.backing->material}};
    }
    j["material"] = b.material;
    if (b.grain != plain.grain) j["grain"] = b.grain;
    j["surface"] = b.surface;
    if (b.grit != 0) j["grit"] = b.grit;
    if (b.finished != plain.finished) j["finished"] = b.finished;
    if (b.already != plain.already) j["already"] = b.already;
    if (b.already_hours != 0) j["alreadyHours"] = b.already_hours;
    if (b.from_behind) j["fromBehind"] = true;
    if (b.tape != plain.tape) j["tape"] = write_tape(b.tape);
    j["margin"] = b.margin.typed;
    Json sides = Json::object();
    for (const auto& [name, edge] : edge_names) put(sides, name, b.side_margin.at(static_cast<std::size_t>(edge)));
    if (!sides.empty()) j["margins"] = sides;
    j["clearZones"] = Json::array();
    for (const ClearZone& z : b.clear) j["clearZones"].push_back(write_zone(z));
    for (const PaintedField& f : b.fields) j["fields"].push_back(write_field(f));
    for (const Guide& g : b.guides)
        j["guides"].push_back({{"along", name_in(axis_names, g.along)}, {"where", g.where.typed}, {"name", g.name}});
    if (b.frame != plain.frame) j["frame"] = write_frame(b.frame);
    if (b.holding != plain.holding) j["holding"] = write_holding(b.holding);
    return j;
}

void read_blank_shape(const Object& o, Blank& b) {
    if (o.has("head")) {
        const Object h = o.object("head");
        h.only({"length", "height", "overlap", "points"});
        b.head = {h.length("length"), h.length("height"), h.length("overlap"),
                  one_of(h, "points", {"left", "right"}) == "right"};
    }
    if (o.has("arch")) {
        const Object a = o.object("arch");
        a.only({"style", "rise"});
        b.arch = {a.choice("style", arch_names), a.length("rise")};
    }
    if (o.has("outline")) {
        const Object d = o.object("outline");
        d.only({"shape", "known", "of", "source"});
        b.outline =
            DrawnOutline{read_region(d.at("shape"), d.path("shape")), one_of(d, "of", {"width", "height"}) == "width",
                         d.length("known"), d.text_or("source", "")};
    }
    b.bars = o.length_if("bars");
    b.moulding = o.length_if("moulding");
    if (o.has("backing")) {
        const Object k = o.object("backing");
        k.only({"length", "width", "thickness", "material"});
        b.backing = Backing{k.length("length"), k.length("width"), k.length("thickness"), k.text("material")};
    }
}

Blank read_blank(const Object& o) {
    o.only({"kind",    "stock",   "length",     "width",    "thickness",    "stands",     "head",
            "arch",    "outline", "bars",       "moulding", "backing",      "material",   "grain",
            "surface", "grit",    "finished",   "already",  "alreadyHours", "fromBehind", "tape",
            "margin",  "margins", "clearZones", "fields",   "guides",       "frame",      "holding"});
    Blank b;
    if (o.has("kind")) b.kind = o.choice("kind", kind_names);
    b.stock = o.text_or("stock", "");
    if (b.kind != Kind::Drawn || o.has("length")) b.length = o.length("length");
    b.width = o.length_if("width");
    b.thickness = o.length_if("thickness");
    b.stands = o.choice("stands", stands_names);
    read_blank_shape(o, b);
    b.material = o.text("material");
    if (o.has("grain")) b.grain = one_of(o, "grain", {"length", "across", "none"});
    b.surface = o.text("surface");
    if (o.has("grit")) b.grit = o.whole("grit", 0, 5000);
    if (o.has("finished")) b.finished = one_of(o, "finished", {"face", "face-edges", "all"});
    if (o.has("already")) {
        b.already =
            one_of(o, "already", {"bare", "stained-oil", "stained-water", "painted", "sealed", "old-lettering"});
    }
    if (o.has("alreadyHours")) b.already_hours = o.whole("alreadyHours", 0, 1'000'000);
    if (o.has("fromBehind")) b.from_behind = o.flag("fromBehind");
    if (o.has("tape")) b.tape = read_tape(o.object("tape"));
    b.margin = o.length("margin");
    if (o.has("margins")) {
        const Object m = o.object("margins");
        m.only({"top", "bottom", "left", "right"});
        for (const auto& [name, edge] : edge_names)
            b.side_margin.at(static_cast<std::size_t>(edge)) = m.length_if(name);
    }
    o.each("clearZones", [&](const Json& j, const std::string& where) { b.clear.push_back(read_zone({j, where})); });
    if (o.has("fields"))
        o.each("fields", [&](const Json& j, const std::string& where) { b.fields.push_back(read_field({j, where})); });
    if (o.has("guides")) {
        o.each("guides", [&](const Json& j, const std::string& where) {
            const Object g(j, where);
            g.only({"along", "where", "name"});
            b.guides.push_back({g.choice("along", axis_names), g.length("where"), g.text("name")});
        });
    }
    if (o.has("frame")) b.frame = read_frame(o.object("frame"));
    if (o.has("holding")) b.holding = read_holding(o.object("holding"));
    return b;
}

Json write_coat(const CoatChoice& c) {
    return {{"coat", c.coat}, {"colour", c.colour}, {"colourName", c.colour_name}, {"coats", c.coats}};
}

CoatChoice read_coat(const Object& o) {
    o.only({"coat", "colour", "colourName", "coats"});
    return {o.text("coat"), o.text_or("colour", ""), o.text_or("colourName", ""), o.whole("coats", 0, 20)};
}

Json write_finish(const Finish& f) {
    Json j;
    j["sanded"] = f.sanded;
    if (f.ground) j["ground"] = write_coat(*f.ground);
    j["seal"] = f.seal;
    j["lift"] = f.lift;
    if (f.clear) j["clear"] = write_coat(*f.clear);
    j["clearOver"] = f.clear_over;
    j["outdoors"] = f.outdoors;
    j["safeWaits"] = f.safe_waits;
    if (f.rest_hours) j["restHours"] = *f.rest_hours;
    return j;
}

Finish read_finish(const Object& o) {
    o.only({"sanded", "ground", "seal", "lift", "clear", "clearOver", "outdoors", "safeWaits", "restHours"});
    constexpr std::array<std::pair<const char*, const char*>, 3> seals{
        {{"ground", "ground"}, {"clear", "clear"}, {"none", "none"}}};
    constexpr std::array<std::pair<const char*, const char*>, 3> lifts{
        {{"wet", "wet"}, {"soft", "soft"}, {"dry", "dry"}}};
    Finish f;
    f.sanded = o.flag("sanded");
    if (o.has("ground")) f.ground = read_coat(o.object("ground"));
    f.seal = o.choice("seal", seals);
    f.lift = o.choice("lift", lifts);
    if (o.has("clear")) f.clear = read_coat(o.object("clear"));
    f.clear_over = o.flag("clearOver");
    f.outdoors = o.flag("outdoors");
    f.safe_waits = o.flag("safeWaits");
    if (o.has("restHours")) f.rest_hours = o.whole("restHours", 0, 24 * 60);
    return f;
}

Json write_names(const std::vector<PieceName>& names) {
    Json all = Json::array();
    for (const PieceName& n : names) all.push_back({{"letters", n.letters}, {"first", n.first}, {"nth", n.nth}});
    return all;
}

PieceName read_name(const Object& o) {
    o.only({"letters", "first", "nth"});
    return {o.text("letters"), o.whole("first", 0, 1'000'000), o.whole("nth", 0, 1'000'000)};
}

Json write_wishes(const Wishes& w) {
    Json j = Json::object();
    for (const auto& pieces : w.bound) j["bound"].push_back({{"pieces", write_names(pieces)}});
    if (!w.apart.empty()) j["apart"] = write_names(w.apart);
    for (const SeamWish& s : w.seams) {
        Json seam{{"wish", s.never ? "never" : "here"}, {"along", name_in(axis_names, s.axis)}, {"at", s.at.typed}};
        if (s.never) seam["around"] = measure_of(s.around, {}).typed;
        if (s.from != s.to) {
            seam["from"] = measure_of(s.from, {}).typed;
            seam["to"] = measure_of(s.to, {}).typed;
        }
        j["seams"].push_back(seam);
    }
    if (w.whole_margins) j["wholeMargins"] = true;
    if (w.any_angle) j["anyAngle"] = true;
    if (w.copies > 0) j["copies"] = w.copies;
    return j;
}

Wishes read_wishes(const Object& o) {
    o.only({"bound", "apart", "seams", "wholeMargins", "anyAngle", "copies"});
    Wishes w;
    if (o.has("bound")) {
        o.each("bound", [&](const Json& j, const std::string& where) {
            const Object b(j, where);
            b.only({"pieces"});
            w.bound.emplace_back();
            b.each("pieces", [&](const Json& p, const std::string& at) {
                w.bound.back().push_back(read_name({p, at}));
            });
        });
    }
    if (o.has("apart"))
        o.each("apart", [&](const Json& p, const std::string& where) { w.apart.push_back(read_name({p, where})); });
    if (o.has("seams")) {
        o.each("seams", [&](const Json& j, const std::string& where) {
            const Object s(j, where);
            s.only({"wish", "along", "at", "around", "from", "to"});
            SeamWish seam;
            seam.never = one_of(s, "wish", {"never", "here"}) == "never";
            seam.axis = s.choice("along", axis_names);
            seam.at = s.length("at");
            if (s.has("around")) seam.around = s.length("around").value;
            if (s.has("from")) seam.from = s.length("from").value;
            if (s.has("to")) seam.to = s.length("to").value;
            w.seams.push_back(std::move(seam));
        });
    }
    if (o.has("wholeMargins")) w.whole_margins = o.flag("wholeMargins");
    if (o.has("anyAngle")) w.any_angle = o.flag("anyAngle");
    if (o.has("copies")) w.copies = o.whole("copies", 0, 1000);
    return w;
}

Json write_colour(const Colour& c) {
    Json making{{"way", name_in(way_names, c.making.way)}, {"film", c.making.film}, {"tool", c.making.tool}};
    if (c.making.margin) making["margin"] = c.making.margin->typed;
    making["lap"] = c.making.lap.typed;
    if (c.making.tie) making["tie"] = c.making.tie->typed;
    if (!c.making.bed.empty()) making["bed"] = c.making.bed;
    if (c.making.wishes.any()) making["wishes"] = write_wishes(c.making.wishes);
    return {{"id", c.id.name}, {"making", making}, {"paint", write_coat(c.paint)}};
}

Colour read_colour(const Object& o) {
    o.only({"id", "making", "paint"});
    const Object m = o.object("making");
    m.only({"way", "film", "tool", "margin", "lap", "tie", "bed", "wishes"});
    return {ColourId{o.text("id")},
            {m.choice("way", way_names), m.text("film"), m.text("tool"), m.length_if("margin"), m.length("lap"),
             m.length_if("tie"), m.text_or("bed", {}), m.has("wishes") ? read_wishes(m.object("wishes")) : Wishes{}},
            read_coat(o.object("paint"))};
}

Json write_sign(const Sign& sign) {
    Json j{{"id", sign.id.name}};
    if (!sign.name.empty()) j["name"] = sign.name;
    j.update(Json{{"blank", write_blank(sign.blank)}, {"faces", Json::array()}});
    for (const Face& face : sign.faces) {
        Json colours = Json::array();
        for (const Colour& colour : face.colours) colours.push_back(write_colour(colour));
        Json f{{"id", face.id.name}, {"lettering", write_lettering(face.lettering)}};
        if (!face.art.empty()) f["art"] = write_art(face.art);
        f.update(Json{{"colours", colours}, {"finish", write_finish(face.finish)}});
        if (face.seen != Seen{})
            f["seen"] = {{"distance", face.seen.distance.typed}, {"aboveFloor", face.seen.above_floor.typed}};
        j["faces"].push_back(std::move(f));
    }
    return j;
}

Sign read_sign(const Object& o) {
    o.only({"id", "name", "blank", "faces"});
    Sign sign;
    sign.id.name = o.text("id");
    sign.name = o.text_or("name", "");
    sign.blank = read_blank(o.object("blank"));
    o.each("faces", [&](const Json& j, const std::string& where) {
        const Object f(j, where);
        f.only({"id", "lettering", "art", "colours", "finish", "seen"});
        Face face;
        face.id.name = f.text("id");
        face.lettering = read_lettering(f.object("lettering"));
        f.each("colours", [&](const Json& c, const std::string& at) { face.colours.push_back(read_colour({c, at})); });
        if (face.colours.empty()) refuse("file.empty-list", f.path("colours"));
        if (f.has("art")) {
            f.each("art", [&](const Json& a, const std::string& at) { face.art.push_back(read_art({a, at})); });
        }
        face.finish = read_finish(f.object("finish"));
        if (f.has("seen")) {
            const Object seen = f.object("seen");
            seen.only({"distance", "aboveFloor"});
            face.seen = {seen.length("distance"), seen.length("aboveFloor")};
        }
        sign.faces.push_back(std::move(face));
    });
    if (sign.faces.empty()) refuse("file.empty-list", o.path("faces"));
    return sign;
}

Json write_post(const Post& post) {
    Json arms = Json::array();
    for (const PostArm& arm : post.arms) arms.push_back({{"sign", arm.sign.name}, {"gap", arm.gap.typed}});
    return {{"height", post.height.typed}, {"buried", post.buried.typed}, {"width", post.width.typed}, {"arms", arms}};
}

Post read_post(const Object& o) {
    o.only({"height", "buried", "width", "arms"});
    Post post{o.length("height"), o.length("buried"), o.length("width"), {}};
    o.each("arms", [&](const Json& j, const std::string& where) {
        const Object a(j, where);
        a.only({"sign", "gap"});
        post.arms.push_back({SignId{a.text("sign")}, a.length("gap")});
    });
    return post;
}

// ---- bench record

Json write_section(const Section& s) {
    Json pieces = Json::array();
    for (const Piece& p : s.pieces) {
        pieces.push_back({{"letters", p.letters},
                          {"first", p.first},
                          {"startsWord", p.starts_word},
                          {"line", p.line},
                          {"shape", write_region(p.shape)}});
        if (p.art) pieces.back()["art"] = true;
    }
    Json keepers = Json::array();
    for (const Keeper& k : s.keepers) keepers.push_back({{"letters", k.letters}, {"shape", write_region(k.shape)}});
    Json j{{"letters", s.letters},
           {"letterCount", s.letter_count},
           {"film", write_region(s.film)},
           {"cut", write_region(s.cut)},
           {"pieces", pieces},
           {"keepers", keepers}};
    for (const Region& tie : s.ties) j["ties"].push_back(write_region(tie));
    if (s.pass != 1) j["pass"] = s.pass;
    for (const Motion& m : s.again) {
        j["again"].push_back({{"move", {m.by.x, m.by.y}}});
        if (m.quarters != 0) j["again"].back()["quarters"] = m.quarters;
        if (m.over) j["again"].back()["over"] = true;
    }
    for (const KnifeLine& l : s.lines) {
        j["lines"].push_back({{"kind", l.kind == KnifeLine::Kind::Match ? "match" : "weeding"},
                              {"from", {l.from.x, l.from.y}},
                              {"to", {l.to.x, l.to.y}}});
    }
    return j;
}

Point read_point(const Object& o, const char* key) {
    const Json& j = o.at(key);
    if (!j.is_array() || j.size() != 2 || !j[0].is_number_integer() || !j[1].is_number_integer())
        refuse("file.not-list", o.path(key), key);
    return {j[0].get<std::int64_t>(), j[1].get<std::int64_t>()};
}

Section read_section(const Object& o) {
    o.only({"letters", "letterCount", "film", "cut", "pieces", "keepers", "ties", "lines", "pass", "again"});
    Section s;
    s.letters = o.text("letters");
    s.letter_count = o.whole("letterCount", 0, 100'000);
    s.film = read_region(o.at("film"), o.path("film"));
    s.cut = read_region(o.at("cut"), o.path("cut"));
    o.each("pieces", [&](const Json& j, const std::string& where) {
        const Object p(j, where);
        p.only({"letters", "first", "startsWord", "line", "shape", "art"});
        s.pieces.push_back({read_region(p.at("shape"), p.path("shape")), p.text("letters"),
                            p.whole("first", 0, 1'000'000), p.flag("startsWord"), p.whole("line", 0, 10'000),
                            p.has("art") && p.flag("art")});
    });
    o.each("keepers", [&](const Json& j, const std::string& where) {
        const Object k(j, where);
        k.only({"letters", "shape"});
        s.keepers.push_back({k.text("letters"), read_region(k.at("shape"), k.path("shape"))});
    });
    if (o.has("ties"))
        o.each("ties", [&](const Json& tie, const std::string& where) { s.ties.push_back(read_region(tie, where)); });
    if (o.has("pass")) s.pass = o.whole("pass", 1, 1000);
    if (o.has("again")) {
        o.each("again", [&](const Json& again, const std::string& where) {
            const Object a(again, where);
            a.only({"move", "quarters", "over"});
            s.again.push_back({read_point(a, "move"), a.has("quarters") ? a.whole("quarters", 0, 3) : 0,
                               a.has("over") && a.flag("over")});
        });
    }
    if (o.has("lines")) {
        o.each("lines", [&](const Json& line, const std::string& where) {
            const Object l(line, where);
            l.only({"kind", "from", "to"});
            s.lines.push_back(
                {one_of(l, "kind", {"weeding", "match"}) == "match" ? KnifeLine::Kind::Match : KnifeLine::Kind::Weeding,
                 read_point(l, "from"), read_point(l, "to")});
        });
    }
    return s;
}

Json write_cut(const CutLoad& c) {
    Json sections = Json::array();
    for (const Section& s : c.sections) sections.push_back(write_section(s));
    Json placements = Json::array();
    for (const Placement& p : c.placements) {
        placements.push_back({{"section", p.section}, {"turned", p.turned}, {"x", p.at.x}, {"y", p.at.y}});
        if (p.slant != 0) placements.back()["slant"] = p.slant;
    }
    Json j{{"id", c.id.name},
           {"of", c.of.name},
           {"film", c.film},
           {"mat", c.mat},
           {"at", write_moment(c.at)},
           {"keep", c.keep},
           {"filmLength", measure_of(c.film_length, {}).typed},
           {"placements", placements},
           {"sections", sections}};
    if (!c.carried_by.empty()) j["carriedBy"] = c.carried_by.name;
    if (!c.colour.empty()) j["colour"] = c.colour;
    if (!c.from.empty()) j["from"] = c.from;
    if (c.rest)
        j["rest"] = {{"across", measure_of(c.rest->across, {}).typed}, {"along", measure_of(c.rest->along, {}).typed}};
    if (c.booked) j["booked"] = true;
    return j;
}

CutLoad read_cut(const Object& o) {
    o.only({"id", "of", "film", "mat", "at", "keep", "filmLength", "placements", "sections", "carriedBy", "colour",
            "from", "rest", "booked"});
    CutLoad c;
    c.carried_by.name = o.text_or("carriedBy", "");
    c.id.name = o.text("id");
    c.of.name = o.text("of");
    c.colour = o.text_or("colour", "");
    c.from = o.text_or("from", "");
    if (o.has("rest")) {
        const Object r = o.object("rest");
        r.only({"across", "along"});
        c.rest = Room{r.length("across").value, r.length("along").value};
    }
    c.booked = o.has("booked") && o.flag("booked");
    c.film = o.text("film");
    c.mat = o.text("mat");
    c.at = o.moment("at");
    c.keep = o.flag("keep");
    c.film_length = o.length("filmLength").value;
    o.each("sections", [&](const Json& j, const std::string& where) {
        c.sections.push_back(read_section({j, where}));
    });
    o.each("placements", [&](const Json& j, const std::string& where) {
        const Object p(j, where);
        p.only({"section", "turned", "x", "y", "slant"});
        const int most = static_cast<int>(c.sections.size()) - 1;
        constexpr int farthest = 1'000'000'000;
        c.placements.push_back({static_cast<std::size_t>(p.whole("section", 0, most)),
                                p.flag("turned"),
                                {p.whole("x", -farthest, farthest), p.whole("y", -farthest, farthest)},
                                p.has("slant") ? p.whole("slant", 0, 90'000) : 0});
    });
    return c;
}

Json write_times(const std::map<StepId, Moment>& times) {
    Json j = Json::object();
    for (const auto& [id, at] : times) j[id.name] = write_moment(at);
    return j;
}

std::map<StepId, Moment> read_times(const Object& o) {
    std::map<StepId, Moment> times;
    for (const auto& [id, value] : o.json().items()) times[{id}] = o.moment(id.c_str());
    return times;
}

Json write_bench(const BenchRecord& b) {
    Json cut = Json::array();
    Json spoilt = Json::array();
    for (const CutLoad& c : b.cut) cut.push_back(write_cut(c));
    for (const CutLoad& c : b.spoilt) spoilt.push_back(write_cut(c));
    return {{"ticks", write_times(b.ticks)}, {"held", write_times(b.held)}, {"cut", cut}, {"spoilt", spoilt}};
}

BenchRecord read_bench(const Object& o) {
    o.only({"ticks", "held", "cut", "spoilt"});
    BenchRecord b;
    b.ticks = read_times(o.object("ticks"));
    b.held = read_times(o.object("held"));
    o.each("cut", [&](const Json& j, const std::string& where) { b.cut.push_back(read_cut({j, where})); });
    o.each("spoilt", [&](const Json& j, const std::string& where) { b.spoilt.push_back(read_cut({j, where})); });
    return b;
}

// Ids of one kind are never the same twice.
void check_ids(const Job& job) {
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

Job job_from(const Object& o) {
    o.only(
        {"format", "title", "number", "customer", "deadline", "made", "signs", "post", "proof", "bench", "finished"});
    Job job;
    job.made = o.whole("made", 1, 1'000'000'000);
    job.title = o.text("title");
    job.number = o.text_or("number", "");
    job.customer = o.text_or("customer", "");
    if (o.has("deadline")) job.deadline = o.moment("deadline");
    o.each("signs", [&](const Json& j, const std::string& where) { job.signs.push_back(read_sign({j, where})); });
    if (job.signs.empty()) refuse("file.empty-list", "signs");
    check_ids(job);
    if (o.has("post")) job.post = read_post(o.object("post"));
    if (o.has("proof")) {
        const Object p = o.object("proof");
        p.only({"wording", "at"});
        job.proof = Proof{p.text("wording"), p.moment("at")};
    }
    if (o.has("bench")) job.bench = read_bench(o.object("bench"));
    if (o.has("finished")) {
        const Object f = o.object("finished");
        f.only({"outcome", "note", "at"});
        job.finished = Finished{f.text("outcome"), f.text("note"), f.moment("at")};
    }
    return job;
}

template <class T, class Read>
Expected<T> read_file_of(const std::string& text, void (*from_format_1)(Json&), Read read) {
    Json json = Json::parse(text, nullptr, false);
    if (json.is_discarded()) return refused({"file.not-json", {}}, "file", {"file.damaged-remedy", {}});
    try {
        const Object o(json, "");
        if (!o.has("format") || !o.at("format").is_number_integer()) refuse("file.no-format", "format");
        if (o.at("format").get<std::int64_t>() > job_format) {
            return refused({"file.newer", {{"format", o.at("format").get<std::int64_t>()}}}, "format",
                           {"file.newer-remedy", {}});
        }
        if (o.at("format").get<std::int64_t>() < 1) refuse("file.no-format", "format");
        if (o.at("format").get<std::int64_t>() == 1) from_format_1(json);
        return read(Object(json, ""));
    } catch (const Refusal& refusal) {
        return tl::unexpected(refusal.problem);
    } catch (const nlohmann::json::exception& e) {
        return refused({"file.not-json", {{"detail", std::string(e.what())}}}, "file");
    }
}

}  // namespace

Expected<Moment> read_moment(const std::string& text) {
    const auto wrong = [&] { return refused({"moment.unreadable", {{"text", text}}}, text, {"moment.example", {}}); };
    const auto number = [&](std::size_t from, std::size_t count, int& out) {
        if (text.size() < from + count) return false;
        const auto [end, error] = std::from_chars(text.data() + from, text.data() + from + count, out);
        return error == std::errc{} && end == text.data() + from + count && out >= 0;
    };
    int y = 0, mo = 0, d = 0, h = 0, mi = 0;
    const bool dated = number(0, 4, y) && number(5, 2, mo) && number(8, 2, d) && text[4] == '-' && text[7] == '-';
    if (!dated) return wrong();
    const bool timed = text.size() == 16 && (text[10] == 'T' || text[10] == ' ') && text[13] == ':' &&
                       number(11, 2, h) && number(14, 2, mi);
    if (!timed && text.size() != 10) return wrong();
    const std::chrono::year_month_day date{std::chrono::year(y), std::chrono::month(static_cast<unsigned>(mo)),
                                           std::chrono::day(static_cast<unsigned>(d))};
    if (!date.ok() || h > 23 || mi > 59 || y < 1970 || y > 2200) return wrong();
    return Moment(std::chrono::local_days(date).time_since_epoch() + std::chrono::hours(h) + Minutes(mi));
}

std::string write_moment(Moment moment) {
    const auto day = std::chrono::floor<std::chrono::days>(moment);
    const std::chrono::year_month_day date{day};
    const auto minutes = (moment - day).count();
    return fmt::format("{:04}-{:02}-{:02}T{:02}:{:02}", static_cast<int>(date.year()),
                       static_cast<unsigned>(date.month()), static_cast<unsigned>(date.day()), minutes / 60,
                       minutes % 60);
}

std::string write_job(const Job& job) {
    Json j;
    j["format"] = job_format;
    j["title"] = job.title;
    if (!job.number.empty()) j["number"] = job.number;
    if (!job.customer.empty()) j["customer"] = job.customer;
    if (job.deadline) j["deadline"] = write_moment(*job.deadline);
    j["made"] = job.made;
    j["signs"] = Json::array();
    for (const Sign& sign : job.signs) j["signs"].push_back(write_sign(sign));
    if (job.post) j["post"] = write_post(*job.post);
    if (job.proof) j["proof"] = {{"wording", job.proof->wording}, {"at", write_moment(job.proof->at)}};
    j["bench"] = write_bench(job.bench);
    if (job.finished) {
        j["finished"] = {
            {"outcome", job.finished->outcome}, {"note", job.finished->note}, {"at", write_moment(job.finished->at)}};
    }
    return j.dump(2, ' ', false, Json::error_handler_t::replace) + "\n";
}

Expected<Job> read_job(const std::string& text) { return read_file_of<Job>(text, job_from_format_1, job_from); }

std::string write_shop(const Shop& shop) {
    Json j;
    j["format"] = job_format;
    j["unit"] = name_in(unit_names, shop.display.unit);
    j["fraction"] = shop.display.denominator;
    const Display exact{Unit::Inch, 64};
    j["mat"] = write_mat(shop.mat);
    write_cutting(j, shop);
    j["hours"] = Json::array();
    for (const auto& day : shop.hours.days) {
        Json sittings = Json::array();
        for (const auto& s : day) sittings.push_back({s.from, s.to});
        j["hours"].push_back(sittings);
    }
    for (const StockSize& s : shop.stock) {
        j["stock"].push_back({{"name", s.name},
                              {"nominalThickness", measure_of(s.nominal_thickness, exact).typed},
                              {"nominalWidth", measure_of(s.nominal_width, exact).typed},
                              {"thickness", measure_of(s.thickness, exact).typed},
                              {"width", measure_of(s.width, exact).typed}});
    }
    j["boardLengths"] = Json::array();
    for (const Length l : shop.board_lengths) j["boardLengths"].push_back(measure_of(l, exact).typed);
    j["kerf"] = measure_of(shop.kerf, exact).typed;
    for (const LeftoverWood& l : shop.leftovers) {
        j["leftovers"].push_back({{"name", l.name},
                                  {"material", l.material},
                                  {"length", l.length.typed},
                                  {"width", l.width.typed},
                                  {"thickness", l.thickness.typed}});
    }
    for (const std::string& t : shop.favourites) j["favourites"].push_back(t);
    return j.dump(2) + "\n";
}

Expected<Shop> read_shop(const std::string& text) {
    return read_file_of<Shop>(
        text, [](Json&) {},
        [](const Object& o) {
            o.only({"format", "unit", "fraction", "mat", "hours", "stock", "boardLengths", "kerf", "leftovers",
                    "favourites", "machines", "drawer", "hands"});
            Shop shop;
            shop.display.unit = o.choice("unit", unit_names);
            shop.display.denominator = o.whole("fraction", 16, 64);
            shop.mat = read_mat(o.object("mat"));
            read_cutting(o, shop);
            std::size_t weekday = 0;
            o.each("hours", [&](const Json& day, const std::string& where) {
                if (weekday > 6 || !day.is_array()) refuse("file.bad-hours", where);
                for (const Json& s : day) {
                    if (!s.is_array() || s.size() != 2 || !s[0].is_number_integer() || !s[1].is_number_integer())
                        refuse("file.bad-hours", where);
                    const Hours::Sitting sitting{s[0].get<int>(), s[1].get<int>()};
                    if (sitting.from < 0 || sitting.to > 24 * 60 || sitting.from >= sitting.to)
                        refuse("file.bad-hours", where);
                    shop.hours.days.at(weekday).push_back(sitting);
                }
                ++weekday;
            });
            if (o.has("stock"))
                o.each("stock", [&](const Json& j, const std::string& where) {
                    const Object s(j, where);
                    s.only({"name", "nominalThickness", "nominalWidth", "thickness", "width"});
                    shop.stock.push_back({s.text("name"), s.length("nominalThickness").value,
                                          s.length("nominalWidth").value, s.length("thickness").value,
                                          s.length("width").value});
                });
            if (o.has("boardLengths")) {
                shop.board_lengths.clear();
                o.each("boardLengths", [&](const Json& j, const std::string& where) {
                    const auto read = j.is_string() ? read_measure(j.get<std::string>(), Unit::Inch)
                                                    : tl::expected<Measure, Misread>(tl::unexpect, Misread{});
                    if (!read || read->value <= Length{}) refuse("file.not-measure", where);
                    shop.board_lengths.push_back(read->value);
                });
            }
            if (o.has("kerf")) shop.kerf = o.length("kerf").value;
            if (o.has("favourites")) {
                o.each("favourites", [&](const Json& j, const std::string& where) {
                    if (!j.is_string()) refuse("file.not-text", where, "favourites");
                    shop.favourites.push_back(j.get<std::string>());
                });
            }
            if (o.has("leftovers"))
                o.each("leftovers", [&](const Json& j, const std::string& where) {
                    const Object l(j, where);
                    l.only({"name", "material", "length", "width", "thickness"});
                    shop.leftovers.push_back({l.text("name"), l.text("material"), l.length("length"), l.length("width"),
                                              l.length("thickness")});
                });
            return shop;
        });
}

}  // namespace skarvel
