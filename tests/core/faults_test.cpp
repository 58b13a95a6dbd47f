// What disks, folders and other programs do to everything that is written: each fault against each way of writing. Told
// in words with what to do, the old file as it was, nothing left beside it.
#include <sys/resource.h>
#include <unistd.h>

#include <fmt/format.h>

#include <csignal>
#include <filesystem>
#include <fstream>
#include <functional>

#include <soci/soci.h>
#include <soci/sqlite3/soci-sqlite3.h>

#include "files/exporting.h"
#include "files/job_file.h"
#include "files/photographs.h"
#include "files/save.h"
#include "logbook/logbook.h"
#include "support.h"
#include "values/searches.h"

using namespace skarvel;
using namespace skarvel::testing;
namespace fs = std::filesystem;

namespace {

class Scratch {
  public:
    Scratch() : path_(fs::temp_directory_path() / ("skarvel-faults-" + std::to_string(getpid()))) {
        fs::remove_all(path_);
        fs::create_directories(path_);
    }
    ~Scratch() { fs::remove_all(path_); }
    Scratch(const Scratch&) = delete;
    Scratch& operator=(const Scratch&) = delete;
    fs::path operator/(const std::string& name) const { return path_ / name; }
    [[nodiscard]] std::map<std::string, std::string> holds() const {
        std::map<std::string, std::string> all;
        for (const auto& e : fs::recursive_directory_iterator(path_)) {
            std::error_code unknown;
            if (!e.is_regular_file(unknown)) continue;
            std::ifstream in(e.path(), std::ios::binary);
            all[fs::relative(e.path(), path_).string()] = {std::istreambuf_iterator<char>(in), {}};
        }
        return all;
    }

  private:
    fs::path path_;
};

// No file may grow beyond so many bytes: the same short writes as on a full disk.
class FullDisk {
  public:
    explicit FullDisk(rlim_t bytes) {
        getrlimit(RLIMIT_FSIZE, &old_);
        ignored_ = std::signal(SIGXFSZ, SIG_IGN);
        const struct rlimit small { bytes, old_.rlim_max };
        setrlimit(RLIMIT_FSIZE, &small);
    }
    ~FullDisk() {
        setrlimit(RLIMIT_FSIZE, &old_);
        std::signal(SIGXFSZ, ignored_);
    }
    FullDisk(const FullDisk&) = delete;
    FullDisk& operator=(const FullDisk&) = delete;

  private:
    struct rlimit old_ {};
    void (*ignored_)(int) = nullptr;
};

const std::string& a_picture() {
    static const std::string bytes = std::string("\x89PNG\r\n\x1a\n", 8) + std::string(5000, 'p');
    return bytes;
}

using Write = std::function<std::optional<Problem>(const fs::path& where)>;

// Everything that this program writes, told where.
std::vector<std::pair<std::string, Write>> ways_of_writing() {
    const auto problem = [](const auto& result) -> std::optional<Problem> {
        if (result) return std::nullopt;
        return result.error();
    };
    static const Job job = porch_board();
    static const Plan plan = plan_of(job);
    return {
        {"job", [=](const fs::path& p) { return problem(save_file(p / "job.skarvel", write_job(job))); }},
        {"shop", [=](const fs::path& p) { return problem(save_file(p / "shop.json", write_shop(usual_shop()))); }},
        {"export",
         [=](const fs::path& p) { return problem(export_job(job, plan, usual_shop(), library(), p / "out")); }},
        {"copy",
         [=](const fs::path& p) {
             Recovery copies(p / "copies");
             return problem(copies.keep(p / "job.skarvel", write_job(job)));
         }},
        {"photograph",
         [=](const fs::path& p) {
             return problem(keep_photograph(p / "job.skarvel", a_picture(), StepId{"s"}, moment("2026-05-04")));
         }},
        {"logbook",
         [=](const fs::path& p) -> std::optional<Problem> {
             auto book = Logbook::open(p / "logbook.sqlite");
             if (!book) return book.error();
             return problem(book->add(record_of(job, plan, usual_shop())));
         }},
    };
}

void check_words(const Problem& problem) {
    CHECK(library().catalogue.has(problem.what.id));
    CHECK_FALSE(library().catalogue.say(problem.what, {}).empty());
    CHECK(library().catalogue.has(problem.remedy.id));
}

}  // namespace

TEST_CASE("on a full disk everything that is written says so, and what was there stays as it was") {
    for (const auto& [name, write] : ways_of_writing()) {
        INFO(name);
        const Scratch place;
        REQUIRE_FALSE(write(place / ""));
        const auto before = place.holds();
        std::optional<Problem> problem;
        {
            const FullDisk full(600);
            // A picture that is kept already need not be written again.
            if (name == "photograph") fs::remove_all(place / "job.photographs");
            problem = write(place / "");
        }
        REQUIRE(problem);
        check_words(*problem);
        auto after = place.holds();
        if (name == "logbook") {
            auto book = Logbook::open(place / "logbook.sqlite");
            REQUIRE(book);
            CHECK(book->all()->size() == 1);
            continue;
        }
        // Which program holds a copy, and one that an earlier one left under its own name.
        std::erase_if(after, [](const auto& file) {
            return file.first.ends_with(".lock") || file.first.starts_with("copies/left-");
        });
        for (const auto& [file, bytes] : after) {
            INFO(file);
            CHECK(before.contains(file));
            CHECK(before.at(file) == bytes);
        }
        CHECK_FALSE(write(place / ""));  // and once there is room again
    }
}

TEST_CASE("where a folder is missing, is a file, is far too long a name or a link to nowhere, that is told") {
    const std::string deep(4000, 'd');
    for (const auto& [name, write] : ways_of_writing()) {
        INFO(name);
        const Scratch place;
        std::ofstream(place / "file") << "in the way";
        fs::create_symlink(place / "loop", place / "loop");
        for (const fs::path& where : {place / "file", place / "loop", place / deep, fs::path("/proc/nothing/here")}) {
            INFO(where.string().substr(0, 60));
            const auto problem = write(where);
            REQUIRE(problem);
            check_words(*problem);
        }
        CHECK(place.holds().size() == 1);
        CHECK(place.holds().at("file") == "in the way");
    }
}

TEST_CASE("an export is there whole or not at all; with something in the way of one file no manifest is left") {
    const Scratch place;
    const Job job = porch_board();
    const Plan plan = plan_of(job);
    REQUIRE(export_job(job, plan, usual_shop(), library(), place / "out"));
    CHECK(place.holds().contains("out/manifest.json"));
    fs::remove(place / "out/sheets.pdf");
    fs::create_directories(place / "out/sheets.pdf/held");
    const auto refused = export_job(job, plan, usual_shop(), library(), place / "out");
    REQUIRE_FALSE(refused);
    check_words(refused.error());
    CHECK_FALSE(place.holds().contains("out/manifest.json"));
    for (const auto& [file, bytes] : place.holds()) CHECK(file.find(".part") == std::string::npos);
    // Into a folder that was not there before, nothing is left of it.
    {
        const FullDisk full(600);
        CHECK_FALSE(export_job(job, plan, usual_shop(), library(), place / "new/one"));
    }
    CHECK_FALSE(fs::exists(place / "new/one"));
}

TEST_CASE("two programs with one logbook lose no record, and one that is held is told") {
    const Scratch place;
    auto one = Logbook::open(place / "logbook.sqlite");
    auto other = Logbook::open(place / "logbook.sqlite");
    REQUIRE(one);
    REQUIRE(other);
    LogRecord record = record_of(porch_board(), plan_of(porch_board()), usual_shop());
    for (const char* name : {"'; drop table records; --", "a\"b", "line\nbreak", "%s", "\xE2\x80\xAEright"}) {
        record.title = record.customer = record.note = name;
        REQUIRE(one->add(record));
        REQUIRE(other->add(record));
        CHECK(one->all()->front() == [&] {
            LogRecord kept = record;
            kept.id = one->all()->front().id;
            return kept;
        }());
    }
    CHECK(one->all()->size() == 10);
    soci::session held(soci::sqlite3, (place / "logbook.sqlite").string());
    held << "begin exclusive";
    const auto refused = other->add(record);
    REQUIRE_FALSE(refused);
    check_words(refused.error());
    held << "rollback";
    CHECK(other->add(record));
    CHECK(one->all()->size() == 11);
}

TEST_CASE("a clock that jumps loses no tick and calls nobody twice") {
    Job job = porch_board();
    const Plan first = plan_of(job, "2026-05-04T18:00");
    const StepId step = first.bench->next()->id;
    job.bench.ticks[step] = moment("2026-06-01T12:00");  // ticked while the clock was wrong
    for (const char* now : {"2026-05-04T18:00", "2026-05-30T18:00", "2026-06-02T18:00", "1990-01-01"}) {
        const Plan plan = plan_of(job, now);
        CHECK(plan.bench->done() == 1);
        CHECK(plan.clock->slots.size() == plan.tasks->size());
        for (const Slot& s : plan.clock->slots) CHECK((s.done || s.start >= moment(now)));
    }
    CHECK(read_job(write_job(job)).value() == job);
}

TEST_CASE("what is more than its limit is refused in words that name it, by every reader and by hand") {
    CHECK_FALSE(beyond_limits(porch_board()));
    Job job = porch_board();
    for (std::size_t i = 0; i < limits::letters + 1; ++i) lettering(job).words += "é";
    REQUIRE(beyond_limits(job));
    CHECK(beyond_limits(job)->id == "limit.letters");
    CHECK(library().catalogue.say(*beyond_limits(job), {}).find("2,000") != std::string::npos);
    const auto read = read_job(write_job(job));
    REQUIRE_FALSE(read);
    CHECK(read.error().what.id == "limit.letters");
    Job many = porch_board();
    many.signs.resize(limits::signs + 1, many.signs.front());
    CHECK(beyond_limits(many)->id == "limit.signs");
    Job coloured = porch_board();
    face_of(coloured).colours.resize(limits::colours + 1, face_of(coloured).colours.front());
    CHECK(beyond_limits(coloured)->id == "limit.colours");
    const std::string deep = std::string(limits::nesting + 1, '[') + std::string(limits::nesting + 1, ']');
    CHECK(read_job(deep).error().what.id == "limit.file-of-ours");
    CHECK(read_shop(deep).error().what.id == "limit.file-of-ours");
    CHECK(read_job("\"" + std::string(200, '[') + "\"").error().what.id != "limit.file-of-ours");
    const Scratch place;
    {
        std::ofstream huge(place / "huge");
        huge.seekp(static_cast<std::streamoff>(limits::file_bytes) + 1);
        huge << 'x';
    }
    CHECK(read_file(place / "huge").error().what.id == "limit.file");
    CHECK(read_file("/dev/zero").error().what.id == "limit.file");
    // The page that promises them says the same.
    const auto page = read_file(fs::path(SKARVEL_SOURCE) / "docs/robustness.md");
    REQUIRE(page);
    for (const auto& [of, most] : limits::all) {
        INFO(of);
        CHECK(page->find("| " + std::to_string(most) + " | " + std::string(of) + " |") != std::string::npos);
    }
    const auto bounds = read_file(fs::path(SKARVEL_SOURCE) / "docs/searches.md");
    REQUIRE(bounds);
    for (const searches::Limit* limit : searches::all) {
        INFO(limit->of);
        CHECK(bounds->find(fmt::format("| {} | {} | {} |\n", limit->of, limit->most, limit->basis)) !=
              std::string::npos);
    }
}

TEST_CASE("a shop that two programs changed keeps what each of them changed") {
    const Shop base = usual_shop();
    Shop mine = base, theirs = base;
    mine.pairs_of_hands = 2;
    mine.kerf = 0.25_in;
    theirs.room_celsius = 8;
    theirs.kerf = 0.5_in;
    const Shop both = merged_shop(base, mine, theirs);
    CHECK(both.pairs_of_hands == 2);
    CHECK(both.room_celsius == 8);
    CHECK(both.kerf == 0.25_in);  // changed in both: what was changed last
    Shop taken_back = theirs;
    taken_back.room_celsius = base.room_celsius;
    CHECK(merged_shop(theirs, taken_back, theirs).room_celsius == base.room_celsius);
}
