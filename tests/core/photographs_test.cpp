// Photographs beside the job: kept once, by what they hold, with the time that the camera wrote.
#include "files/photographs.h"

#include <fstream>

#include "files/save.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

std::string little(std::uint32_t value, int bytes) {
    std::string out;
    for (int i = 0; i < bytes; ++i) out += static_cast<char>(value >> (8 * i) & 0xff);
    return out;
}

// The start of a JPEG with Exif data as the standard has them, written by hand: one directory that points at another,
// which holds the time.
std::string photograph(const std::string& taken) {
    const auto entry = [](std::uint32_t tag, std::uint32_t type, std::uint32_t count, std::uint32_t value) {
        return little(tag, 2) + little(type, 2) + little(count, 4) + little(value, 4);
    };
    std::string tiff = "II" + little(42, 2) + little(8, 4);
    tiff += little(1, 2) + entry(0x8769, 4, 1, 26) + little(0, 4);
    tiff += little(1, 2) + entry(0x9003, 2, 20, 44) + little(0, 4);
    tiff += taken + std::string(1, '\0');
    const std::string exif = std::string("Exif\0\0", 6) + tiff;
    const auto size = static_cast<std::uint32_t>(exif.size() + 2);
    return "\xff\xd8\xff\xe1" + std::string{static_cast<char>(size >> 8), static_cast<char>(size & 0xff)} + exif +
           "\xff\xd9";
}

const Moment evening = moment("2026-05-04T20:00");

}  // namespace

TEST_CASE("a photograph is kept once beside its job, with the time of the camera, and unchanged") {
    const Folder folder;
    const auto job_file = folder / "porch.skarvel";
    const std::string bytes = photograph("2026:05:04 19:12:30");
    const auto kept = keep_photograph(job_file, bytes, StepId{"1/lift/E"}, evening);
    REQUIRE(kept);
    CHECK(kept->taken == moment("2026-05-04T19:12"));
    CHECK(*photograph_bytes(job_file, *kept) == bytes);
    CHECK(keep_photograph(job_file, bytes, StepId{"1/lift/E"}, evening) == kept);
    CHECK(std::distance(std::filesystem::directory_iterator(photographs_of(job_file)), {}) == 1);
    // A camera whose clock is wrong is not believed about what has not been yet.
    CHECK(keep_photograph(job_file, photograph("2031:01:01 00:00:00"), StepId{}, evening)->taken == evening);
    CHECK(keep_photograph(job_file, photograph("no time of any ki"), StepId{}, evening)->taken == evening);
    Job job = porch_board();
    job.bench.photographs = {*kept};
    CHECK(*read_job(write_job(job)) == job);
}

TEST_CASE("what is no picture, too large, missing or changed is told; a name in a job file leads nowhere else") {
    const Folder folder;
    const auto job_file = folder / "porch.skarvel";
    const auto why = [&](const std::string& bytes) {
        return keep_photograph(job_file, bytes, StepId{}, evening).error().what.id;
    };
    CHECK(why("GIF89a") == "photograph.none");
    CHECK(why("") == "photograph.none");
    CHECK(why("\xff\xd8\xff" + std::string(most_photograph_bytes, 'x')) == "photograph.huge");
    CHECK(keep_photograph({}, photograph(""), StepId{}, evening).error().what.id == "photograph.no-file");
    const Photograph kept = *keep_photograph(job_file, photograph("2026:05:04 19:12:30"), StepId{}, evening);
    std::ofstream(photographs_of(job_file) / kept.file) << "something else";
    CHECK(photograph_bytes(job_file, kept).error().what.id == "photograph.changed");
    std::filesystem::remove(photographs_of(job_file) / kept.file);
    CHECK(photograph_bytes(job_file, kept).error().what.id == "photograph.missing");
    std::ofstream(folder / "secret.jpg") << "secret";
    Photograph away = kept;
    away.file = "../secret.jpg";
    CHECK(photograph_bytes(job_file, away).error().what.id == "photograph.missing");
    for (const char* id : {"photograph.none", "photograph.huge", "photograph.no-file", "photograph.changed",
                           "photograph.missing", "photograph.another"})
        CHECK(library().catalogue.has(id));
}
