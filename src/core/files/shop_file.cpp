// The machines, the drawer of films and the hands of a shop, as its file holds them.
#include "files/job_parts.h"
#include "job/job.h"

namespace skarvel::job_parts {
namespace {

const Display exact{Unit::Inch, 64};

constexpr std::array<std::pair<const char*, Tack>, 3> tack_names{
    {{"fresh", Tack::Fresh}, {"good", Tack::Good}, {"worn", Tack::Worn}}};

std::string typed(Length l) { return measure_of(l, exact).typed; }

Machine read_machine(const Object& o) {
    o.only({"name", "beds", "speed", "travel", "lift", "knifeOffset", "overcut", "longestUnits", "prints", "address",
            "force"});
    Machine m;
    m.name = o.text("name");
    o.each("beds", [&](const Json& j, const std::string& where) { m.beds.push_back(read_mat({j, where})); });
    m.knife = {o.whole("speed", 1, 5000), o.whole("travel", 1, 5000), o.whole("lift", 0, 10'000),
               o.length("knifeOffset").value, o.length("overcut").value};
    m.longest_units = o.whole("longestUnits", 0, 100'000'000);
    m.address = o.text_or("address", "");
    if (o.has("force")) m.force = o.whole("force", 0, 5000);
    if (o.has("prints")) {
        const Object p = o.object("prints");
        p.only({"across", "along", "margin", "mark"});
        m.prints = PrintArea{
            {p.length("across").value, p.length("along").value}, p.length("margin").value, p.length("mark").value};
    }
    return m;
}

Json write_machine(const Machine& m) {
    Json beds = Json::array();
    for (const Mat& bed : m.beds) beds.push_back(write_mat(bed));
    Json j{{"name", m.name},
           {"beds", beds},
           {"speed", m.knife.speed_mm_s},
           {"travel", m.knife.travel_mm_s},
           {"lift", m.knife.lift_ms},
           {"knifeOffset", typed(m.knife.offset)},
           {"overcut", typed(m.knife.overcut)},
           {"longestUnits", m.longest_units}};
    if (!m.address.empty()) j["address"] = m.address;
    if (m.force != 0) j["force"] = m.force;
    if (m.prints) {
        j["prints"] = {{"across", typed(m.prints->page.across)},
                       {"along", typed(m.prints->page.along)},
                       {"margin", typed(m.prints->margin)},
                       {"mark", typed(m.prints->mark)}};
    }
    return j;
}

}  // namespace

Json write_mat(const Mat& mat) {
    Json j{{"name", mat.name},
           {"width", typed(mat.width)},
           {"length", typed(mat.length)},
           {"usableAcross", typed(mat.usable.across)},
           {"usableAlong", typed(mat.usable.along)}};
    if (mat.roll) j["roll"] = true;
    if (mat.count != 1) j["count"] = mat.count;
    if (mat.taped) j["taped"] = true;
    if (mat.grip != "standard") j["grip"] = mat.grip;
    if (mat.tack != Tack::Good) j["tack"] = name_in(tack_names, mat.tack);
    if (!mat.machine.empty()) j["machine"] = mat.machine;
    return j;
}

Mat read_mat(const Object& o) {
    o.only({"name", "width", "length", "usableAcross", "usableAlong", "roll", "count", "taped", "grip", "tack",
            "machine"});
    Mat mat{o.text("name"),
            o.length("width").value,
            o.length("length").value,
            {o.length("usableAcross").value, o.length("usableAlong").value}};
    if (o.has("roll")) mat.roll = o.flag("roll");
    if (o.has("count")) mat.count = o.whole("count", 1, 99);
    if (o.has("taped")) mat.taped = o.flag("taped");
    if (o.has("grip")) mat.grip = one_of(o, "grip", {"light", "standard", "strong"});
    if (o.has("tack")) mat.tack = o.choice("tack", tack_names);
    mat.machine = o.text_or("machine", "");
    return mat;
}

void write_cutting(Json& j, const Shop& shop) {
    j["machines"] = Json::array();  // none is not the same as never asked
    for (const Machine& m : shop.machines) j["machines"].push_back(write_machine(m));
    for (const FilmStock& f : shop.drawer) {
        Json film{{"film", f.film}, {"name", f.name}, {"width", typed(f.width)}, {"left", typed(f.left)}};
        if (!f.colour.empty()) film["colour"] = f.colour;
        if (!f.roll) film["roll"] = false;
        if (f.patterned) film["patterned"] = true;
        if (f.price_cents != 0) film["priceCents"] = f.price_cents;
        if (f.sold_by != 1_in) film["soldBy"] = typed(f.sold_by);
        if (f.repeat_across != Length{}) film["repeatAcross"] = typed(f.repeat_across);
        if (f.repeat_along != Length{}) film["repeatAlong"] = typed(f.repeat_along);
        j["drawer"].push_back(film);
    }
    j["hands"] = {{"shift", typed(shop.hands.shift)},
                  {"turn", shop.hands.turn_hundredths},
                  {"stretch", shop.hands.stretch_per_mille10}};
}

void read_cutting(const Object& o, Shop& shop) {
    if (o.has("machines")) {
        o.each("machines", [&](const Json& j, const std::string& where) {
            shop.machines.push_back(read_machine({j, where}));
        });
    } else {
        shop.machines = usual_machines();
    }
    if (o.has("drawer")) {
        o.each("drawer", [&](const Json& j, const std::string& where) {
            const Object f(j, where);
            f.only({"film", "name", "width", "left", "colour", "roll", "patterned", "priceCents", "soldBy",
                    "repeatAcross", "repeatAlong"});
            const auto length_or = [&](const char* key, Length usual) {
                return f.has(key) ? f.length(key).value : usual;
            };
            shop.drawer.push_back(
                {f.text("film"), f.text_or("colour", ""), f.text("name"), f.length("width").value,
                 f.length("left").value, !f.has("roll") || f.flag("roll"), f.has("patterned") && f.flag("patterned"),
                 f.has("priceCents") ? f.whole("priceCents", 0, 10'000'000) : 0,
                 std::max(length_or("soldBy", 1_in), Length::sixtyfourths(1)),
                 std::max(length_or("repeatAcross", {}), Length{}), std::max(length_or("repeatAlong", {}), Length{})});
        });
    }
    if (o.has("hands")) {
        const Object h = o.object("hands");
        h.only({"shift", "turn", "stretch"});
        shop.hands = {h.length("shift").value, h.whole("turn", 0, 1000), h.whole("stretch", 0, 1000)};
    }
}

}  // namespace skarvel::job_parts
