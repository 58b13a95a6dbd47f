#include <sys/resource.h>
#include <sys/stat.h>
#include <sys/wait.h>
#include <unistd.h>

#include <csignal>
#include <fstream>
#include <nlohmann/json.hpp>
#include <numbers>
#include <set>

#include "files/cut_file.h"
#include "files/exporting.h"
#include "files/job_file.h"
#include "files/plan_json.h"
#include "files/save.h"
#include "job/commands.h"
#include "logbook/logbook.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;
namespace fs = std::filesystem;

namespace {

std::string whole(const fs::path& path) { return read_file(path).value(); }

void put(const fs::path& path, const std::string& text) { std::ofstream(path) << text; }

Job well_used() {
    Job job = porch_board();
    job.number = "0014";
    job.customer = "Tern Quay rowing club";
    const Shop shop = usual_shop();
    const Plan plan = plan_of(job);
    job = tick(job, plan, StepId{"1/proof"}, moment("2026-05-04T18:31"));
    job = tick(job, plan, StepId{"1/cut/BOAT+HOUS"}, moment("2026-05-04T19:00"));
    job = hold(job, StepId{"1/cut/BOAT+HOUS"}, moment("2026-05-04T20:00"));
    job = tick(job, plan, StepId{"1/cut/E"}, moment("2026-05-04T19:10"));
    job = cut_again(job, 1);
    return finish(job, Outcome::Good, "Thinner coats.\n\"Two\" of them.", moment("2026-05-09T11:20"));
}

// The file with one thing changed.
std::string with(const std::function<void(nlohmann::json&)>& change, const Job& job = well_used()) {
    nlohmann::json json = nlohmann::json::parse(write_job(job));
    change(json);
    return json.dump();
}

}  // namespace

TEST_CASE("a saved job reads back equal") {
    for (const Job& job : {porch_board(), long_board(), well_used(), new_job(library())}) {
        const auto read = read_job(write_job(job));
        REQUIRE(read);
        CHECK(*read == job);
        CHECK(plan_of(*read) == plan_of(job));
    }
    CHECK(rc::check("whatever was typed", [](const std::string& words, const std::string& title) {
        Job job = porch_board();
        // A text that is not UTF-8 cannot be typed; what is replaced on the way to the file stays replaced.
        job.title = title;
        lettering(job).words = words;
        const auto once = read_job(write_job(job));
        RC_ASSERT(once.has_value());
        RC_ASSERT(*read_job(write_job(*once)) == *once);
    }));
}

TEST_CASE("lengths stand in the file as they were typed") {
    Job job = porch_board();
    job.signs.front().blank.length = *read_measure("(60 - 2*6)/9 + 54", Unit::Inch);
    const auto json = nlohmann::json::parse(write_job(job));
    CHECK(json["format"] == 2);
    CHECK(json["signs"][0]["blank"]["length"] == "(60 in - 2*6 in)/9 + 54 in");
    CHECK(json["signs"][0]["faces"][0]["colours"].is_array());
    CHECK(json["signs"][0]["faces"][0]["lettering"]["texts"][0]["typeface"]["checksum"].get<std::string>().starts_with(
        "crc32:"));
}

TEST_CASE("a file that is not right is refused with the place") {
    const std::string& good = write_job(well_used());
    const auto [text, id] = GENERATE_COPY(table<std::string, std::string>({
        {"", "file.not-json"},
        {"{", "file.not-json"},
        {good.substr(0, good.size() / 2), "file.not-json"},
        {"[]", "file.not-object"},
        {"{}", "file.no-format"},
        {with([](auto& j) { j["format"] = 3; }), "file.newer"},
        {with([](auto& j) { j["format"] = "1"; }), "file.no-format"},
        {with([](auto& j) { j["format"] = 0; }), "file.no-format"},
        {with([](auto& j) { j["colour"] = "blue"; }), "file.unknown-key"},
        {with([](auto& j) { j["signs"][0]["blank"]["weight"] = 3; }), "file.unknown-key"},
        {with([](auto& j) { j["signs"][0]["blank"].erase("length"); }), "file.missing-key"},
        {with([](auto& j) { j["signs"][0]["blank"]["length"] = "sixty"; }), "file.not-measure"},
        {with([](auto& j) { j["signs"][0]["blank"]["length"] = 60; }), "file.not-text"},
        {with([](auto& j) { j["signs"][0]["blank"]["stands"] = "sideways"; }), "file.unknown-word"},
        {with([](auto& j) { j["signs"] = nlohmann::json::array(); }), "file.empty-list"},
        {with([](auto& j) { j["signs"][0]["faces"][0]["colours"] = nlohmann::json::array(); }), "file.empty-list"},
        {with([](auto& j) { j["signs"] = 7; }), "file.not-list"},
        {with([](auto& j) { j["deadline"] = "tomorrow"; }), "file.not-moment"},
        {with([](auto& j) { j["signs"][0]["faces"][0]["layers"][0]["byHand"] = "yes"; }), "file.not-flag"},
        {with([](auto& j) { j["signs"][0]["faces"][0]["layers"][1]["coat"]["coats"] = 9999; }), "file.out-of-range"},
        {with([](auto& j) {
             j["bench"]["cut"][0]["sections"][0]["film"] = {{1, 2, 3}};
         }),
         "file.bad-shape"},
        {with([](auto& j) { j["bench"]["cut"][0]["placements"][0]["section"] = 44; }), "file.out-of-range"},
    }));
    const auto read = read_job(text);
    REQUIRE_FALSE(read);
    CHECK(read.error().what.id == id);
    const std::string words = library().catalogue.say(read.error().what, {});
    CHECK(words.find('?') == std::string::npos);
}

TEST_CASE("unknown materials do not refuse a file") {
    const auto read = read_job(with([](auto& j) {
        j["signs"][0]["faces"][0]["colours"][0]["making"]["film"] = "velvet flock";
        j["signs"][0]["blank"]["stock"] = "3x9";
    }));
    REQUIRE(read);
    CHECK(read->signs.front().faces.front().colours.front().making.film == "velvet flock");
    CHECK(*read_job(write_job(*read)) == *read);
}

TEST_CASE("moments are local time to the minute") {
    CHECK(write_moment(moment("2026-05-09T12:00")) == "2026-05-09T12:00");
    CHECK(moment("2026-05-09") == moment("2026-05-09T00:00"));
    CHECK(std::chrono::weekday{std::chrono::floor<std::chrono::days>(moment("2026-05-09"))} == std::chrono::Saturday);
    for (const char* bad :
         {"", "2026-5-9", "2026-13-01", "2026-02-30", "2026-05-09T24:00", "2026-05-09T12:00:00", "9999-01-01"}) {
        INFO(bad);
        CHECK_FALSE(read_moment(bad));
    }
}

TEST_CASE("the shop's file round trips and refuses nonsense") {
    Shop shop = usual_shop();
    shop.display = {Unit::Millimetre, 32};
    shop.hours.days[0] = {{540, 720}, {780, 1020}};
    CHECK(*read_shop(write_shop(shop)) == shop);
    shop.stock.push_back({"20x150", 20_mm, 150_mm, 18_mm, 145_mm});
    shop.board_lengths = {2400_mm, 3000_mm};
    shop.kerf = 3_mm;
    shop.leftovers.push_back({"oak behind the door", "oak", measure("24"), measure("5 1/2"), measure("3/4")});
    CHECK(*read_shop(write_shop(shop)) == shop);
    auto json = nlohmann::json::parse(write_shop(shop));
    auto bad = json;
    bad["boardLengths"] = {"a tree"};
    CHECK_FALSE(read_shop(bad.dump()));
    json["hours"][0] = {{700, 600}};
    CHECK_FALSE(read_shop(json.dump()));
}

TEST_CASE("saving writes beside and renames; the old file is there until the new one is whole") {
    const Folder folder;
    const fs::path path = folder / "job.skarvel";
    const auto first = save_file(path, "one");
    REQUIRE(first);
    CHECK(whole(path) == "one");
    REQUIRE(save_file(path, "two", *first));
    CHECK(whole(path) == "two");
    CHECK(std::distance(fs::directory_iterator(folder.path()), fs::directory_iterator{}) == 1);

    SECTION("a file that another program changed is not written over") {
        const auto opened = stamp_of(path);
        put(path, "somebody else's");
        const auto refused_save = save_file(path, "mine", opened);
        REQUIRE_FALSE(refused_save);
        CHECK(refused_save.error().what.id == "file.changed");
        CHECK(whole(path) == "somebody else's");
    }
    SECTION("a folder that is not there") {
        const auto missing = save_file(folder / "no/such/job", "x");
        REQUIRE_FALSE(missing);
        CHECK(missing.error().what.id == "file.cannot-save");
    }
    SECTION("a link keeps pointing at its file") {
        fs::create_symlink(path, folder / "link");
        REQUIRE(save_file(folder / "link", "three"));
        CHECK(fs::is_symlink(folder / "link"));
        CHECK(whole(path) == "three");
    }
    SECTION("a disk that is full: the old file stays, nothing is left beside it") {
        // A file size limit gives the same short write as a full disk.
        struct rlimit old {};
        getrlimit(RLIMIT_FSIZE, &old);
        const auto ignored = std::signal(SIGXFSZ, SIG_IGN);
        const struct rlimit small { 4, old.rlim_max };
        setrlimit(RLIMIT_FSIZE, &small);
        const auto full = save_file(path, "far more than four bytes");
        setrlimit(RLIMIT_FSIZE, &old);
        std::signal(SIGXFSZ, ignored);
        REQUIRE_FALSE(full);
        CHECK(whole(path) == "two");
        CHECK(std::distance(fs::directory_iterator(folder.path()), fs::directory_iterator{}) == 1);
    }
    SECTION("a device that takes nothing is a full disk") {
        if (fs::exists("/dev/full")) {
            std::ofstream probe("/dev/full");
            probe << "x" << std::flush;
            CHECK(probe.fail());
        }
    }
    SECTION("a folder that may not be written") {
        if (geteuid() == 0) return;  // root may write anywhere
        fs::permissions(folder.path(), fs::perms::owner_read | fs::perms::owner_exec);
        const auto denied = save_file(path, "three");
        fs::permissions(folder.path(), fs::perms::owner_all);
        REQUIRE_FALSE(denied);
        CHECK(denied.error().remedy.id == "file.read-only-remedy");
        CHECK(whole(path) == "two");
    }
}

TEST_CASE("what a crash left is offered, what a running program holds is not") {
    const Folder folder;
    {
        Recovery running(folder.path());
        REQUIRE(running.keep("", write_job(porch_board())));
        const Recovery other(folder.path());
        CHECK(other.leftovers().empty());
        running.discard();
    }
    const pid_t child = fork();
    if (child == 0) {
        Recovery crashed(folder.path());
        (void)crashed.keep("/somewhere/job.skarvel", write_job(porch_board()));
        _exit(0);  // no destructor, as at a kill
    }
    int status = 0;
    waitpid(child, &status, 0);
    Recovery next(folder.path());
    const auto left = next.leftovers();
    REQUIRE(left.size() == 1);
    CHECK(left.front().belongs_to == "/somewhere/job.skarvel");
    CHECK(*read_job(left.front().job_text) == porch_board());
    Recovery::forget(left.front());
    CHECK(next.leftovers().empty());
}

TEST_CASE("export writes a cut file for each load and the sheets") {
    const Folder folder;
    const Job job = porch_board();
    const auto written = export_job(job, plan_of(job), usual_shop(), library(), folder / "out");
    REQUIRE(written);
    std::vector<std::string> names;
    for (const fs::path& p : *written) names.push_back(p.filename().string());
    CHECK(names == std::vector<std::string>{"01-BOAT+HOUS.svg", "02-E.svg", "01-BOAT+HOUS.dxf", "02-E.dxf",
                                            "01-BOAT+HOUS.plt", "02-E.plt", "manifest.json", "manifest.csv", "days.csv",
                                            "calendar.ics", "sheets.pdf", "bench-book.pdf"});
    CHECK(whole(written->back()).starts_with("%PDF-"));

    Job empty = job;
    lettering(empty).words.clear();
    const auto nothing = export_job(empty, plan_of(empty), usual_shop(), library(), folder / "none");
    REQUIRE_FALSE(nothing);
    CHECK(nothing.error().what.id == "export.nothing");
    put(folder / "file", "in the way");
    CHECK_FALSE(export_job(job, plan_of(job), usual_shop(), library(), folder / "file"));
}

namespace {

std::vector<std::string> fields_of(const std::string& line) {
    std::vector<std::string> fields(1);
    bool quoted = false;
    for (std::size_t i = 0; i < line.size(); ++i) {
        if (line[i] == '"') {
            // Two of them within quotes are one of the text.
            if (quoted && i + 1 < line.size() && line[i + 1] == '"')
                fields.back() += line[i++];
            else
                quoted = !quoted;
        } else if (line[i] == ',' && !quoted) {
            fields.emplace_back();
        } else {
            fields.back() += line[i];
        }
    }
    return fields;
}

void keys_of(const nlohmann::json& json, std::set<std::string>& keys) {
    if (json.is_object()) {
        for (const auto& [key, value] : json.items()) keys.insert(key);
    }
    for (const auto& value : json) {
        if (value.is_structured()) keys_of(value, keys);
    }
}

}  // namespace

TEST_CASE("both manifests say where every section lies, as the plan has it") {
    Job job = porch_board();
    job = copy_sign(job, 0, "Say \"ahoy\", twice");
    const Shop shop = usual_shop();
    const Plan plan = plan_of(job);
    const auto files = manifests(job, plan, shop);
    REQUIRE(files.size() == 2);
    const auto json = nlohmann::json::parse(files[0].bytes);
    std::vector<std::vector<std::string>> rows;
    std::size_t from = 0;
    for (std::size_t end = files[1].bytes.find("\r\n"); end != std::string::npos;
         end = files[1].bytes.find("\r\n", from)) {
        rows.push_back(fields_of(files[1].bytes.substr(from, end - from)));
        from = end + 2;
    }
    CHECK(from == files[1].bytes.size());
    std::size_t row = 1;
    std::size_t sections = 0;
    for (const ColourPlan& face : plan.colours) sections += face.cut.loads->sections.size();
    CHECK(rows.size() == sections + 1);
    for (const auto& load : json["loads"]) {
        for (const auto& section : load["sections"]) {
            const std::vector<std::string>& r = rows.at(row++);
            REQUIRE(r.size() == rows[0].size());
            CHECK(r[1] == load["files"]);
            CHECK(r[6] == section["of"]);
            CHECK(r[7] == std::to_string(section["section"].get<int>()));
            CHECK(r[8] == section["letters"]);
            CHECK(r[9] == (section["turned"].get<bool>() ? "90" : "0"));
            CHECK(r[10] == section["mat"]["x"]);
            CHECK(r[11] == section["mat"]["y"]);
            CHECK(r[16] == section["lays"][0]["face"]["x"]);
            CHECK(r[17] == section["lays"][0]["face"]["y"]);
            const ColourPlan& face = *plan.of(ColourId{section["of"].get<std::string>()});
            const Box film = face.cut.loads->sections.at(section["section"].get<std::size_t>() - 1).film.bounds();
            CHECK(std::stod(r[16]) == Approx(grid_to_mm(film.low.x)));
            CHECK(std::stod(section["film"]["top"].get<std::string>()) == Approx(grid_to_mm(film.high.y)));
        }
    }
    CHECK(row == rows.size());
}

TEST_CASE("every key of the plan as JSON is in its description") {
    const std::string described = whole(fs::path(SKARVEL_SOURCE) / "docs/plan-json.md");
    std::set<std::string> keys;
    Job framed = panel_job("TEA ROOM");
    framed.signs.front().blank.frame.kind = FrameKind::Butt;
    for (const Job& job : {porch_board(), long_board(), framed, well_used()})
        keys_of(nlohmann::json::parse(write_plan(job, plan_of(job), usual_shop(), library())), keys);
    for (const std::string& key : keys) {
        CAPTURE(key);
        CHECK(described.find(key) != std::string::npos);
    }
    CHECK(keys.size() > 60);
}

TEST_CASE("the plan as JSON is whole and valid") {
    const Job job = porch_board();
    const auto json = nlohmann::json::parse(write_plan(job, plan_of(job), usual_shop(), library()));
    CHECK(json["faces"][0]["loads"]["sections"].size() == 3);
    CHECK(json["faces"][0]["loads"]["keepers"] == 5);
    CHECK(json["clock"]["steps"].size() == plan_of(job).bench->steps.size());
    CHECK(json["faces"][0]["blank"]["width"] == Approx(139.7));
    CHECK(json["problems"].is_array());
}

TEST_CASE("a finished job is one record in the logbook, there after a restart") {
    const Folder folder;
    const Job job = well_used();
    const LogRecord record = record_of(job, plan_of(job, "2026-05-09T11:20"), usual_shop());
    CHECK(record.words == "BOATHOUSE");
    CHECK(record.sections == 3);
    CHECK(record.outcome == "good");
    CHECK(record.elapsed_minutes == 4 * 24 * 60 + 16 * 60 + 20);
    {
        auto book = Logbook::open(folder / "logbook.sqlite");
        REQUIRE(book);
        REQUIRE(book->add(record));
        REQUIRE(book->add(record));
    }
    const auto again = Logbook::open(folder / "logbook.sqlite");
    REQUIRE(again);
    const auto all = again->all();
    REQUIRE(all);
    REQUIRE(all->size() == 2);
    LogRecord read = all->back();
    CHECK(read.id == 1);
    read.id = 0;
    CHECK(read == record);

    put(folder / "broken.sqlite", "this is no database, whatever its name says, and it is long enough to be looked at");
    const auto broken = Logbook::open(folder / "broken.sqlite");
    REQUIRE_FALSE(broken);
    CHECK(broken.error().what.id == "logbook.failed");
}

TEST_CASE("a blank that makes no sense refuses the file with its place") {
    const auto good = nlohmann::json::parse(write_job(porch_board()));
    const auto refused_at = [&](const char* pointer, const nlohmann::json& value) {
        auto json = good;
        json[nlohmann::json::json_pointer(pointer)] = value;
        const auto read = read_job(json.dump());
        return read ? std::string("read") : read.error().where.place;
    };
    CHECK(refused_at("/signs/0/blank/kind", "cloud") == "signs/0/blank/kind");
    CHECK(refused_at("/signs/0/blank/length", "a hand") == "signs/0/blank/length");
    CHECK(refused_at("/signs/0/blank/grain", "sideways") == "signs/0/blank/grain");
    CHECK(refused_at("/signs/0/blank/clearZones/0", {{"name", "x"}, {"shape", "circle"}}) ==
          "signs/0/blank/clearZones/0/x");
    CHECK(refused_at("/signs/0/blank/tape", {{"bottom", "5 in"}}) == "signs/0/blank/tape/tolerance");
    CHECK(refused_at("/signs/0/blank/frame", {{"kind", "gilded"}}) == "signs/0/blank/frame/kind");
    CHECK(refused_at("/signs/0/blank/outline", {{"shape", {{1, 2, 3}}}, {"known", "1 in"}, {"of", "width"}}) ==
          "signs/0/blank/outline/shape");
    nlohmann::json star;
    for (int i = 0; i < 2001; ++i) {
        star.push_back(std::lround(1e6 + 1e6 * std::cos(i * 1000 * 2 * std::numbers::pi / 2001)));
        star.push_back(std::lround(1e6 + 1e6 * std::sin(i * 1000 * 2 * std::numbers::pi / 2001)));
    }
    CHECK(refused_at("/signs/0/blank/outline",
                     {{"shape", nlohmann::json::array({star})}, {"known", "1 in"}, {"of", "width"}}) ==
          "signs/0/blank/outline/shape");
    CHECK(refused_at("/post", {{"height", "6 ft"}, {"buried", "2 ft"}, {"width", "4 in"}, {"arms", "none"}}) ==
          "post/arms");
    CHECK(refused_at("/signs/0/blank/material", "driftwood") == "read");  // unknown materials are kept
}
