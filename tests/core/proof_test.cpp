// What the proof must notice, in all three formats: whatever single thing is missing, doubled or said wrongly.
#include "proof/proof.h"

#include <rapidcheck.h>

#include <fstream>

#include "job/face_commands.h"
#include "support.h"
#include "support_panel.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

Job demo(const std::string& name) {
    std::ifstream in(std::filesystem::path(SKARVEL_SOURCE) / "demo" / name, std::ios::binary);
    const auto job = read_job(std::string(std::istreambuf_iterator<char>(in), std::istreambuf_iterator<char>()));
    REQUIRE(job);
    return *job;
}

// Where each single thing that is cut stands in a file: from, to.
std::vector<std::pair<std::size_t, std::size_t>> things_in(const std::string& bytes, CutFormat format) {
    std::vector<std::pair<std::size_t, std::size_t>> things;
    if (format == CutFormat::Dxf) {
        for (const auto& [begin, end] :
             {std::pair{"  0\nPOLYLINE\n", "SEQEND\n"}, std::pair{"  0\nLINE\n", "\n  0\n"}}) {
            for (auto at = bytes.find(begin); at != std::string::npos; at = bytes.find(begin, at + 1)) {
                auto to = bytes.find(end, at + 5);
                to = std::string(end) == "SEQEND\n" ? to + 7 : to + 1;
                things.emplace_back(at, to);
            }
        }
        return things;
    }
    // By hand: a regular expression of the standard library takes stack for each letter that it passes.
    const auto runs = [&](std::string_view begin, const char* letters, char end) {
        for (auto at = bytes.find(begin); at != std::string::npos; at = bytes.find(begin, at + 1)) {
            const auto to = bytes.find_first_not_of(letters, at + begin.size());
            if (to != std::string::npos && bytes[to] == end) things.emplace_back(at, to + 1);
        }
    };
    if (format == CutFormat::Svg) {
        runs("M", "0123456789. L-", 'Z');
        runs("<line ", "abcdefghijklmnopqrstuvwxyz0123456789=.\"#-/ ", '>');
    } else {
        runs("PU", "0123456789,;PD", '\n');
        std::erase_if(things, [&](const auto& thing) { return bytes.find(";PD", thing.first) >= thing.second; });
    }
    return things;
}

const char* ending(CutFormat format) {
    return format == CutFormat::Svg ? ".svg" : format == CutFormat::Dxf ? ".dxf" : ".plt";
}

std::vector<std::string> of_format(const FileSet& files, CutFormat format) {
    std::vector<std::string> names;
    for (const auto& [name, bytes] : files) {
        if (name.ends_with(ending(format))) names.push_back(name);
    }
    return names;
}

void check_noticed(const Job& job, const Shop& shop, int tries) {
    const Plan p = plan(job, shop, library(), moment("2026-05-04T17:40"));
    RC_PRE(p.mark_of(Station::Sections) != Mark::Stop && p.mark_of(Station::Lettering) != Mark::Stop);
    const FileSet good = files_of(job, p, shop);
    for (const CutFormat format : {CutFormat::Svg, CutFormat::Dxf, CutFormat::Hpgl}) {
        const std::vector<std::string> names = of_format(good, format);
        if (names.empty()) continue;
        for (int n = 0; n < tries; ++n) {
            const std::string name = names[*rc::gen::inRange<std::size_t>(0, names.size())];
            const auto things = things_in(good.at(name), format);
            RC_ASSERT(!things.empty());
            const auto [from, to] = things[*rc::gen::inRange<std::size_t>(0, things.size())];
            FileSet spoilt = good;
            const std::string thing = spoilt[name].substr(from, to - from);
            const bool twice = *rc::gen::arbitrary<bool>();
            if (twice) {
                spoilt[name].insert(to, (format == CutFormat::Svg && thing.front() == 'M' ? " " : "") + thing);
            } else {
                spoilt[name].erase(from, to - from);
            }
            RC_LOG() << (twice ? "doubled " : "dropped ") << thing.substr(0, 60) << " in " << name << "\n";
            RC_ASSERT(!prove(p, shop, spoilt, format).good());
        }
    }
}

}  // namespace

TEST_CASE("whatever single path, line or mark is dropped or cut twice is noticed, in every format") {
    CHECK(rc::check([] {
        const Job job = *rc::gen::arbitrary<bool>()
                            ? any_panel()
                            : demo(*rc::gen::element("boathouse-porch-board.skarvel", "four-arrows.skarvel",
                                                     "tea-room-canvas.skarvel", "boathouse-door-round.skarvel"));
        check_noticed(job, usual_shop(), 1);
    }));
}

TEST_CASE(
    "a knife that trails behind its pivot: its files are good, lie where the machine reaches, and spoilt are noticed") {
    Shop shop = usual_shop();
    for (Machine& m : shop.machines) {
        m.knife.offset = Length::nanometres(250'000);
        m.knife.overcut = Length::nanometres(500'000);
    }
    for (const char* name : {"boathouse-porch-board.skarvel", "boathouse-door-round.skarvel"}) {
        const Job job = demo(name);
        CAPTURE(name);
        const Plan p = plan(job, shop, library(), moment("2026-05-04T17:40"));
        const FileSet good = files_of(job, p, shop);
        const Evidence e = prove(p, shop, good, CutFormat::Hpgl);
        for (const Problem& problem : e.problems) WARN(library().catalogue.say(problem.what, {}));
        for (const ColourProof& c : e.as_cut) {
            for (const Reason& why : c.wrong) WARN(library().catalogue.say(why, {}));
        }
        CHECK(e.good());
        for (const std::string& file : of_format(good, CutFormat::Hpgl))
            CHECK(good.at(file).find('-') == std::string::npos);
        const std::string file = of_format(good, CutFormat::Hpgl).front();
        for (const auto& [from, to] : things_in(good.at(file), CutFormat::Hpgl)) {
            FileSet spoilt = good;
            spoilt[file].erase(from, to - from);
            CHECK_FALSE(prove(p, shop, spoilt, CutFormat::Hpgl).good());
            if (from > 4'000) break;
        }
    }
}

TEST_CASE("a load is divided at the longest coordinate of its machine, and a file beyond it is told, not left out") {
    Shop shop = usual_shop();
    for (Machine& m : shop.machines) m.longest_units = 16'000;  // 15 3/4 in
    const Job job = demo("boathouse-porch-board.skarvel");
    const Plan p = plan(job, shop, library(), moment("2026-05-04T17:40"));
    const FileSet files = files_of(job, p, shop);
    CHECK(of_format(files, CutFormat::Hpgl).size() == of_format(files, CutFormat::Svg).size());
    CHECK(prove(p, shop, files, CutFormat::Hpgl).good());
    // Planned before the machine was known to be so short.
    Shop shorter = shop;
    for (Machine& m : shorter.machines) m.longest_units = 8'000;
    std::vector<Problem> left_out;
    CHECK(cut_files(p, shorter, CutFormat::Hpgl, &left_out).size() < of_format(files, CutFormat::Svg).size());
    REQUIRE_FALSE(left_out.empty());
    CHECK(left_out.front().what.id == "cut.beyond-machine");
}

TEST_CASE("a table that says something else than the manifest is noticed") {
    const Job job = demo("boathouse-porch-board.skarvel");
    const Shop shop = usual_shop();
    const Plan p = plan(job, shop, library(), moment("2026-05-04T17:40"));
    const FileSet good = files_of(job, p, shop);
    REQUIRE(prove(p, shop, good, CutFormat::Svg).good());
    FileSet files = good;
    std::string& csv = files["manifest.csv"];
    const auto at = csv.rfind("\"", csv.size() - 4);
    REQUIRE(at != std::string::npos);
    csv.insert(at + 1, "1 ");
    CHECK_FALSE(prove(p, shop, files, CutFormat::Svg).good());
    files = good;
    files["manifest.csv"].resize(good.at("manifest.csv").rfind("\r\n", good.at("manifest.csv").size() - 3) + 2);
    CHECK_FALSE(prove(p, shop, files, CutFormat::Svg).good());
    files.erase("manifest.csv");
    CHECK_FALSE(prove(p, shop, files, CutFormat::Svg).good());
}

TEST_CASE("the halves of crossed ink stand out of line by hand, and an eye sees it from so far") {
    Job job = panel_job("I", "50", "14");
    lettering(job).sizing = Sizing::Snug;
    making(job).bed.clear();
    const Shop shop = usual_shop();
    Job ring = add_art(job, {0, 0}, Border{}, library().typefaces);
    const Plan p = plan(ring, shop, library(), moment("2026-05-04T17:40"));
    REQUIRE(p.colours.front().cut.loads->crossings > 0);
    const Evidence e = prove(p, shop, files_of(ring, p, shop), CutFormat::Svg);
    CHECK(e.good());
    bool stepped = false;
    for (const SeamByHand& s : e.by_hand) {
        if (s.step <= Length{}) continue;
        stepped = true;
        // Snellen: a minute of arc is 1 in 3438.
        CHECK(s.seen_from.in_mm() == Approx(std::max(s.step, s.often).in_mm() * 3437.75).epsilon(1e-3));
    }
    CHECK(stepped);
}
