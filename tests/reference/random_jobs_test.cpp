// Jobs of every kind, exported, and read back by tools that share nothing with the program: ezdxf and shapely.
#include <fstream>
#include <nlohmann/json.hpp>

#include "proof/proof.h"
#include "support_jobs.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

using Json = nlohmann::json;

Json rings_of(const Region& region) {
    Json rings = Json::array();
    for (const Ring& ring : region.rings()) {
        Json points = Json::array();
        for (const Point& p : ring) points.push_back({grid_to_mm(p.x), grid_to_mm(p.y)});
        rings.push_back(points);
    }
    return rings;
}

// The design, and what the plan itself says of margin that stays bare.
Json design_of(const Plan& plan) {
    Json colours = Json::array();
    for (const ColourPlan& c : plan.colours) {
        std::vector<Region> ink;
        for (const Piece& p : *c.cut.pieces) ink.push_back(p.shape);
        double bare = 0;
        for (const Problem& p : plan.problems) {
            if (p.what.id != "sections.bare-margin") continue;
            for (const auto& [name, value] : p.what.arguments) {
                if (name == "inches") bare += static_cast<double>(std::get<std::int64_t>(value)) * 645.16;
            }
        }
        const Box& face = c.face->blank->face;
        colours.push_back(
            {{"of", c.id.name},
             {"mask", c.cut.making.way == Way::PaintThrough},
             {"ink", rings_of(merge(ink))},
             {"margin", c.cut.making.margin.in_mm()},
             {"bare", bare},
             {"lap", c.cut.making.lap.in_mm()},
             {"face",
              {grid_to_mm(face.low.x), grid_to_mm(face.low.y), grid_to_mm(face.high.x), grid_to_mm(face.high.y)}}});
    }
    return {{"gap", library().trade.section_gap.in_mm()}, {"colours", colours}};
}

}  // namespace

TEST_CASE("whatever the job, its files give the design back to tools of another make") {
    const Folder folder;
    int jobs = 0;
    constexpr int enough = 40;  // for the tests; scripts/explore goes on for as long as it is let
    CHECK(rc::check([&] {
        if (jobs >= enough) return;
        const Job job = any_job();
        const Shop shop = usual_shop();
        const Plan p = plan(job, shop, library(), moment("2026-05-04T18:00"));
        RC_PRE(p.mark_of(Station::Sections) != Mark::Stop && p.mark_of(Station::Lettering) != Mark::Stop);
        const std::filesystem::path into = folder / std::to_string(1000 + jobs++);
        std::filesystem::create_directory(into);
        const auto write = [&](const std::string& name, const std::string& bytes) {
            std::ofstream(into / name, std::ios::binary) << bytes;
        };
        for (const auto& [name, bytes] : files_of(job, p, shop)) write(name, bytes);
        write("design.json", design_of(p).dump());
        write("job.skarvel", write_job(job));
    }));
    CHECK(jobs >= 20);
    const Ran read = run(std::string(SKARVEL_PYTHON) + " " SKARVEL_SOURCE "/tests/reference/read_cut_files.py " +
                         folder.path().string());
    INFO(read.out);
    CHECK(read.out.empty());
    CHECK(read.code == 0);
}
