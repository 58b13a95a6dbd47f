// Saves a job over and over until it is killed: what the torture test kills. With --once it writes one well-used job.
#include <cstring>

#include "files/job_file.h"
#include "files/save.h"
#include "job/commands.h"

int main(int argc, char** argv) {
    using namespace skarvel;
    if (argc < 2) return 2;
    auto library = read_library(std::filesystem::path(SKARVEL_SOURCE) / "assets");
    if (!library) return 1;
    Job job = new_job(*library);
    job.signs.front().faces.front().lettering.main().words = "BOATHOUSE";
    const Shop shop = usual_shop();
    const Moment at = *read_moment("2026-05-04T19:00");
    const Plan planned = plan(job, shop, *library, at);
    for (const Task& task : *planned.tasks) {
        if (task.work == Work::Cut || task.work == Work::Proof) job = tick(job, planned, task.id, at);
    }
    if (argc > 2 && std::strcmp(argv[2], "--once") == 0)
        return save_file(argv[1], write_job(finish(job, Outcome::Good, "", at))) ? 0 : 1;
    for (int i = 0;; ++i) {
        job.title = "round " + std::to_string(i);
        if (!save_file(argv[1], write_job(job))) return 1;
    }
}
