#include <fstream>
#include <nlohmann/json.hpp>

#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

Ran cli(const std::string& arguments) { return run(std::string(SKARVEL_CLI) + " " + arguments); }

Ran errors_only(const std::string& arguments) {
    return run("( " + std::string(SKARVEL_CLI) + " " + arguments + " 3>&1 >/dev/null 2>&3 )");
}

std::string saved(const Folder& folder, const Job& job) {
    const std::string path = (folder / "job.skarvel").string();
    std::ofstream(path) << write_job(job);
    return path;
}

}  // namespace

TEST_CASE("help and version are said on standard output with exit 0") {
    CHECK(cli("--help").code == 0);
    CHECK(cli("--help").out.find("plan") != std::string::npos);
    CHECK(errors_only("--help").out.empty());
    CHECK(cli("--version").out.find("skarvel-cli") != std::string::npos);
    CHECK(cli("plan --help").out.find("--json") != std::string::npos);
}

TEST_CASE("a wrong command line is exit 2, on standard error") {
    for (const char* wrong : {"", "fly", "plan", "export job", "measure", "measure 1 --unit ell", "plan a b c"}) {
        INFO(wrong);
        CHECK(cli(wrong).code == 2);
        CHECK_FALSE(errors_only(wrong).out.empty());
    }
}

TEST_CASE("measure reads what makers write, and points at what it cannot read") {
    const Ran good = cli("measure '42 + 3/4 + 3/4'");
    CHECK(good.code == 0);
    CHECK(good.out == "43 1/2 in\n1104.9 mm\n");
    CHECK(cli("measure 140 --unit mm").out == "140 mm\n≈ 5 33/64 in\n");
    const Ran bad = errors_only("measure '60-1/2+3'");
    CHECK(bad.out.find("put spaces round the minus") != std::string::npos);
    CHECK(cli("measure '60-1/2+3'").code == 1);
}

TEST_CASE("plan says the figures of the porch board, and of a second job") {
    const Folder folder;
    const Ran porch = cli("plan " + saved(folder, porch_board()) + " --at 2026-05-04T18:00");
    CHECK(porch.code == 0);
    CHECK(porch.out.find("Sections   3 in 2 loads, 0 seams cross ink") != std::string::npos);
    CHECK(porch.out.find("BOAT") != std::string::npos);
    CHECK(porch.out.find("5 keepers") != std::string::npos);
    const Ran json = cli("plan " + saved(folder, long_board()) + " --at 2026-05-04T18:00 --json");
    const auto plan = nlohmann::json::parse(json.out);
    CHECK(plan["faces"][0]["making"]["way"] == "decal");
    CHECK(plan["faces"][0]["loads"]["crossings"] == 0);
}

TEST_CASE("a job that something stops is exit 3") {
    const Folder folder;
    Job job = porch_board();
    making(job).film = "permanent-gloss";
    const Ran stopped = cli("plan " + saved(folder, job) + " --at 2026-05-04T18:00");
    CHECK(stopped.code == 3);
    CHECK(stopped.out.find("STOP") != std::string::npos);
}

TEST_CASE("export writes the files it names, and says that the proof is not signed") {
    const Folder folder;
    const std::string job = saved(folder, porch_board());
    const std::string to = (folder / "out").string();
    const Ran exported = run("( " + std::string(SKARVEL_CLI) + " export " + job + " --to " + to +
                             " --at 2026-05-04T18:00 2>/dev/null )");
    CHECK(exported.code == 0);
    int lines = 0;
    std::istringstream in(exported.out);
    for (std::string line; std::getline(in, line); ++lines) CHECK(std::filesystem::exists(line));
    CHECK(lines == 12);  // two loads in three formats, two manifests, two of days, the sheets, the bench book
    CHECK(errors_only("export " + job + " --to " + to).out.find("proof") != std::string::npos);
}

TEST_CASE("input that cannot be used is exit 1 with the reason on standard error") {
    const Folder folder;
    std::ofstream(folder / "broken") << "{ \"format\": 1,";
    std::ofstream(folder / "newer") << "{ \"format\": 9 }";
    const auto refused = [&](const std::string& arguments) {
        CHECK(cli(arguments).code == 1);
        return errors_only(arguments).out;
    };
    CHECK(refused("plan " + (folder / "nowhere").string()).find("cannot read") != std::string::npos);
    CHECK(refused("plan " + folder.path().string()).find("folder") != std::string::npos);
    CHECK(refused("plan " + (folder / "broken").string()).find("damaged") != std::string::npos);
    CHECK(refused("plan " + (folder / "newer").string()).find("newer") != std::string::npos);
    const std::string job = saved(folder, porch_board());
    CHECK(refused("plan " + job + " --at yesterday").find("2026-05-09T12:00") != std::string::npos);
    CHECK(refused("export " + job + " --to /proc/nowhere").find("cannot save") != std::string::npos);
    CHECK(refused("plan " + job + " --shop " + job).find("means nothing") != std::string::npos);
}

TEST_CASE("plan tells what is built: pins, cuts, weight, and marks on a post") {
    const std::string demo = std::string(SKARVEL_SOURCE) + "/demo/";
    const std::string at = " --at 2026-05-04T17:40";
    const Ran arch = cli("plan " + demo + "regatta-arch.skarvel" + at);
    CHECK(arch.code == 0);
    CHECK(arch.out.find("string 24 in") != std::string::npos);
    CHECK(arch.out.find("tips at") != std::string::npos);
    const Ran framed = cli("plan " + demo + "mess-room-saying.skarvel" + at);
    CHECK(framed.out.find("1x2: one board, no plan uses fewer") != std::string::npos);
    const Ran post = cli("plan " + demo + "four-arrows.skarvel" + at);
    CHECK(post.out.find("LOST OARS: upper edge 26 3/4 in down") != std::string::npos);
    const auto plan = nlohmann::json::parse(cli("plan " + demo + "four-arrows.skarvel --json" + at).out);
    CHECK(plan["faces"].size() == 4);
    CHECK(plan["faces"][3]["sign"] == 4);
    CHECK(plan["post"]["arms"][3]["fromTop"].get<double>() == Approx(26.75 * 25.4));
    CHECK(plan["faces"][0]["blank"]["rooms"].size() == 2);
}
