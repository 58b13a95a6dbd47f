#include <fmt/format.h>

#include <nlohmann/json.hpp>

#include "files/csv.h"
#include "files/cut_file.h"
#include "sheets/sheets.h"

namespace skarvel {
namespace {

using Json = nlohmann::ordered_json;

std::string six_decimals(std::int64_t units) { return fmt::format("{:.6f}", grid_to_mm(units)); }

}  // namespace

std::vector<CutFile> manifests(const Job& job, const Plan& plan, const Shop& shop) {
    Json loads = Json::array();
    std::string csv =
        "load,file,film,way,bed,film_to_cut_mm,of,section,letters,turned,mat_x_mm,mat_y_mm,lay,pass,"
        "quarters,over,face_x_mm,face_y_mm,from_left,from_bottom\r\n";
    for (const LoadToCut& load : loads_to_cut(plan, shop)) {
        const MakingPlan& making = load.colour->cut.making;
        const char* way = making.way == Way::Decal ? "decal" : "paint-through";
        Json sections = Json::array();
        for (const OnMat& s : load.sections) {
            const ColourPlan* colour = plan.of(s.of);
            if (colour == nullptr) continue;
            const Section& section = colour->cut.loads->sections.at(s.section);
            const Box on_face = section.film.bounds();
            // Where it lies, on its own sign or, as a mask that is laid again, on another.
            const auto lays_on = [&](const ColourPlan& on, std::size_t which) {
                const Section& laid = on.cut.loads->sections.at(which);
                Json lays = Json::array();
                int number = 0;
                for (const Lay& lay : lays_of({laid})) {
                    const auto [low, high] = corners(laid, on.face->blank->face, lay.move);
                    const Point at = lay.move(laid.film.bounds()).low;
                    lays.push_back({{"face", {{"x", six_decimals(at.x)}, {"y", six_decimals(at.y)}}},
                                    {"quarters", lay.move.quarters},
                                    {"over", lay.move.over},
                                    {"sheet",
                                     {{"fromLeft", show_number(low.from_left, shop.display)},
                                      {"fromBottom", show_number(low.from_bottom, shop.display)}}}});
                    csv +=
                        fmt::format("{},{},{},{},{},{:.3f},{},{},{},{},{},{},{},{},{},{},{},{},{},{}\r\n", load.number,
                                    csv_field(load.word), csv_field(making.film.name), way, csv_field(load.bed.name),
                                    load.load->film_length.in_mm(), csv_field(on.id.name), which + 1, csv_field(s.name),
                                    s.placement.slant != 0 ? fmt::format("{:.3f}", s.placement.slant / 1000.0)
                                    : s.placement.turned   ? "90"
                                                           : "0",
                                    six_decimals(s.placement.at.x), six_decimals(s.placement.at.y), ++number, lay.pass,
                                    lay.move.quarters, lay.move.over ? 1 : 0, six_decimals(at.x), six_decimals(at.y),
                                    csv_field(show_number(low.from_left, shop.display)),
                                    csv_field(show_number(low.from_bottom, shop.display)));
                }
                return lays;
            };
            const Json lays = lays_on(*colour, s.section);
            Json again = Json::array();
            for (const ColourPlan& other : plan.colours) {
                for (const Lent& lent : other.cut.loads->lent) {
                    if (lent.of != s.of || lent.mask != s.section) continue;
                    const Section& there = other.cut.loads->sections.at(lent.section);
                    again.push_back({{"of", other.id.name},
                                     {"section", lent.section + 1},
                                     {"pass", there.pass},
                                     {"film",
                                      {{"right", six_decimals(there.film.bounds().high.x)},
                                       {"top", six_decimals(there.film.bounds().high.y)}}},
                                     {"lays", lays_on(other, lent.section)}});
                }
            }
            sections.push_back(
                {{"of", s.of.name},
                 {"section", s.section + 1},
                 {"letters", s.name},
                 {"turned", s.placement.turned},
                 {"slant", s.placement.slant},
                 {"mat", {{"x", six_decimals(s.placement.at.x)}, {"y", six_decimals(s.placement.at.y)}}},
                 {"moved", {{"x", six_decimals(s.moved.x)}, {"y", six_decimals(s.moved.y)}}},
                 {"pass", section.pass},
                 {"film", {{"right", six_decimals(on_face.high.x)}, {"top", six_decimals(on_face.high.y)}}},
                 {"lays", lays},
                 {"onOtherSigns", again},
                 {"keepers", section.keepers.size()}});
        }
        loads.push_back({{"number", load.number},
                         {"files", load.word},
                         {"step", load.step.name},
                         {"film", making.film.id},
                         {"way", way},
                         {"machine", load.bed.machine},
                         {"bed", load.bed.name},
                         {"usable",
                          {{"across", six_decimals(to_grid(load.bed.usable.across))},
                           {"along", six_decimals(to_grid(load.bed.usable.along))}}},
                         {"filmToCut", six_decimals(to_grid(load.load->film_length))},
                         {"cutMm", load.way.cut.in_mm()},
                         {"travelMm", load.way.travel.in_mm()},
                         {"seconds", load.way.seconds},
                         {"sections", sections}});
        if (is_printed(making) && load.bed.print) {
            const Length zero = load.bed.print->margin + load.bed.print->mark;
            loads.back()["print"] = {
                {"page", load.word + ".print.pdf"},
                {"zero", {{"x", six_decimals(to_grid(zero))}, {"y", six_decimals(to_grid(zero))}}}};
        }
    }
    const Json all{{"format", 1},
                   {"unit", shop.display.unit == Unit::Inch ? "in" : "mm"},
                   {"fraction", shop.display.denominator},
                   {"job", job.title},
                   {"loads", loads}};
    return {{"manifest.json", all.dump(2) + "\n"}, {"manifest.csv", csv}};
}

}  // namespace skarvel
