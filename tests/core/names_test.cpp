// Whatever a maker calls things, it goes into files escaped: no name breaks out of its field, its tag or its folder.
#include <rapidcheck.h>
#include <nlohmann/json.hpp>

#include <set>

#include "files/calendar.h"
#include "files/cut_file.h"
#include "files/exporting.h"
#include "job/commands.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

const std::vector<std::string>& hostile() {
    static const std::vector<std::string> names{"../../etc/board",
                                                "a/b\\c",
                                                "\"quoted\" & <tagged>",
                                                "=HYPERLINK(\"x\")",
                                                "-1+2",
                                                "line\r\nbreak",
                                                "; DROP TABLE x;",
                                                "BEGIN:VEVENT",
                                                "\xE2\x80\xAEright",
                                                "]]>",
                                                std::string(300, 'n'),
                                                "0\nLAYER\n2\nink",
                                                "%s%n{}",
                                                "\x01\x1b[2J",
                                                "."};
    return names;
}

Job named(const std::string& name) {
    Job job = porch_board();
    job.title = job.number = job.customer = name;
    job.signs.front().name = name;
    for (Colour& c : face_of(job).colours) c.paint.colour_name = name;
    return job;
}

}  // namespace

TEST_CASE("hostile names reach no file but as text") {
    const Shop shop = usual_shop();
    for (const std::string& name : hostile()) {
        INFO(name);
        const Job job = named(name);
        const Plan plan = plan_of(job);
        const std::size_t plain = cut_files(plan_of(porch_board()), shop, CutFormat::Svg).size();
        std::set<std::string> files;
        for (const CutFormat format : {CutFormat::Svg, CutFormat::Dxf, CutFormat::Hpgl}) {
            const std::vector<CutFile> written = cut_files(plan, shop, format);
            CHECK(written.size() == plain);
            for (const CutFile& f : written) {
                CHECK(files.insert(f.name).second);
                CHECK(f.name.find_first_of("/\\\r\n") == std::string::npos);
                CHECK_FALSE(f.name.starts_with("."));
                if (format == CutFormat::Svg) {
                    CHECK(f.bytes.find("<tagged>") == std::string::npos);
                    CHECK(std::none_of(f.bytes.begin(), f.bytes.end(),
                                       [](char c) { return static_cast<unsigned char>(c) < 0x20 && c != '\n'; }));
                }
                if (format == CutFormat::Dxf) {
                    // Pairs of lines: a code, and its value; layers only of letters, digits, dashes.
                    std::istringstream lines(f.bytes);
                    std::string code;
                    std::string value;
                    while (std::getline(lines, code) && std::getline(lines, value)) {
                        CHECK(code.find_first_not_of(" 0123456789") == std::string::npos);
                        if (std::stoi(code) == 8)
                            CHECK(value.find_first_not_of("abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ"
                                                          "0123456789-") == std::string::npos);
                    }
                }
            }
        }
        // One row for each task, as many fields as the head has.
        const std::string rows = days_csv(plan, library().catalogue, {});
        std::size_t fields = 0;
        bool quoted = false;
        std::size_t here = 1;
        std::size_t count = 0;
        for (const char c : rows) {
            if (c == '"') quoted = !quoted;
            if (c == ',' && !quoted) ++here;
            if (c != '\n') continue;
            CHECK_FALSE(quoted);
            if (count++ == 0) fields = here;
            CHECK(here == fields);
            here = 1;
        }
        CHECK(count == plan.clock->slots.size() + 1);
        const std::string ics = calendar_of(job, plan, library().catalogue, {}, moment("2026-05-04T18:00"));
        std::size_t events = 0;
        for (std::size_t at = ics.find("\r\nBEGIN:VEVENT\r\n"); at != std::string::npos;
             at = ics.find("\r\nBEGIN:VEVENT\r\n", at + 1))
            ++events;
        CHECK(events == plan.clock->slots.size());
        CHECK(*read_job(write_job(job)) == job);
    }
}

TEST_CASE("an export of a job with a hostile name stays in its folder") {
    for (const std::string& name : {hostile()[0], hostile()[1], hostile()[5]}) {
        const Folder folder;
        const Job job = named(name);
        std::filesystem::create_directory(folder / "out");
        const auto written = export_job(job, plan_of(job), usual_shop(), library(), folder / "out");
        REQUIRE(written);
        std::size_t inside = 0;
        for (const auto& entry : std::filesystem::directory_iterator(folder / "out")) {
            CHECK(entry.is_regular_file());
            ++inside;
        }
        CHECK(inside == written->size());
        std::size_t beside = 0;
        for ([[maybe_unused]] const auto& entry : std::filesystem::directory_iterator(folder / "")) ++beside;
        CHECK(beside == 1);
    }
}

TEST_CASE(
    "any layers make tasks that can be done in their order: every coat once, and nothing waits for what comes later") {
    REQUIRE(rc::check([] {
        Job job = porch_board();
        Face& face = face_of(job);
        const auto& tins = library().trade.coats;
        const int more = *rc::gen::inRange(0, 6);
        for (int i = 0; i < more; ++i) {
            const auto kind = *rc::gen::element(LayerKind::Coat, LayerKind::Coat, LayerKind::DryBrush, LayerKind::Sand,
                                                LayerKind::Wipe, LayerKind::Distress);
            Layer layer =
                new_layer(job, kind, tins[*rc::gen::inRange<std::size_t>(0, tins.size())].id, library().trade);
            layer.on = *rc::gen::element(On::Face, On::Face, On::Edges, On::Back);
            put_in(face, layer, *rc::gen::inRange<std::size_t>(0, 8), library().trade);
        }
        job.signs.front().blank.from_behind = *rc::gen::arbitrary<bool>();
        const Plan plan = plan_of(job);
        std::map<LayerId, int> times;
        std::set<StepId> ids;
        for (std::size_t i = 0; i < plan.tasks->size(); ++i) {
            const Task& t = (*plan.tasks)[i];
            RC_ASSERT(ids.insert(t.id).second);
            for (const Wait& w : t.waits) RC_ASSERT(w.after < i);
            if (!t.layer.empty()) ++times[t.layer];
        }
        for (const Layer& l : face.layers) {
            const int wanted = l.kind == LayerKind::Lettering ? 0 : is_coat(l) ? l.coat.coats : 1;
            RC_ASSERT(times[l.id] == wanted);
        }
        // The schedule keeps each wait, and what is bought holds every tin.
        std::vector<Moment> end(plan.tasks->size()), start(plan.tasks->size());
        for (const Slot& s : plan.clock->slots) {
            start[s.task] = s.start;
            end[s.task] = s.end;
        }
        for (std::size_t i = 0; i < plan.tasks->size(); ++i) {
            for (const Wait& w : (*plan.tasks)[i].waits) RC_ASSERT(start[i] >= end[w.after] + w.at_least);
        }
    }));
}
