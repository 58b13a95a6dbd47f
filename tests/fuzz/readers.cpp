#include "fuzz/readers.h"

#include <arpa/inet.h>
#include <poll.h>
#include <sys/socket.h>
#include <unistd.h>

#include <algorithm>
#include <array>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <thread>

#include "device/sender.h"
#include "files/job_file.h"
#include "files/pdf.h"
#include "files/photographs.h"
#include "files/plan_json.h"
#include "job/plan.h"
#include "logbook/logbook.h"
#include "proof/proof.h"
#include "sheets/sheets.h"

namespace skarvel::fuzz {
namespace {

const Library& library() {
    static const Library shared = read_library(std::filesystem::path(SKARVEL_SOURCE) / "assets").value();
    return shared;
}

void job(const std::string& bytes) {
    const auto read = read_job(bytes);
    if (!read) return must(library().catalogue.has(read.error().what.id));
    const std::string written = write_job(*read);
    const auto again = read_job(written);
    must(again && write_job(*again) == written);
}

void shop(const std::string& bytes) {
    const auto read = read_shop(bytes);
    if (!read) return must(library().catalogue.has(read.error().what.id));
    const std::string written = write_shop(*read);
    const auto again = read_shop(written);
    must(again && write_shop(*again) == written);
}

// From a job to all that comes out of it.
void plan(const std::string& bytes) {
    const auto read = read_job(bytes);
    if (!read) return;
    const Shop shop = usual_shop();
    const Plan made = skarvel::plan(*read, shop, library(), some_evening());
    (void)write_plan(*read, made, shop, library());
    (void)write_pdf(sheets(*read, made, shop, library()), library(), read->title);
    (void)prove(made, shop, files_of(*read, made, shop), CutFormat::Svg);
    for (const Problem& problem : made.problems) must(!library().catalogue.say(problem.what, {}).empty());
}

// A shop with the usual job.
void bed(const std::string& bytes) {
    const auto read = read_shop(bytes);
    if (!read) return;
    Job job = new_job(library());
    job.signs.front().faces.front().lettering.main().words = "TERN QUAY";
    const Plan made = skarvel::plan(job, *read, library(), some_evening());
    (void)files_of(job, made, *read);
}

// Fuzzers of one reader run side by side, and none takes another's file.
std::filesystem::path own_file(const std::string& name) {
    return std::filesystem::temp_directory_path() / ("skarvel-fuzz-" + std::to_string(::getpid()) + "-" + name);
}

void logbook(const std::string& bytes) {
    const auto file = own_file(std::to_string(std::hash<std::string>{}(bytes)));
    std::ofstream(file, std::ios::binary) << bytes;
    if (auto book = Logbook::open(file)) {
        (void)book->all();
        (void)book->cuts();
        (void)book->add({});
    }
    for (const char* beside : {"", "-journal", "-wal", "-shm"}) std::filesystem::remove(file.string() + beside);
}

void photograph(const std::string& bytes) {
    const auto job = own_file("job.skarvel");
    const auto kept = keep_photograph(job, bytes, StepId{"step"}, some_evening());
    if (kept) must(photograph_bytes(job, *kept) == bytes);
    std::filesystem::remove_all(photographs_of(job));
}

// One ear for all runs: with one each, the system has no port left after some ten thousand.
struct Ear {
    int socket = ::socket(AF_INET, SOCK_STREAM | SOCK_CLOEXEC, 0);
    sockaddr_in at{};
    Ear() {
        at.sin_family = AF_INET;
        at.sin_addr.s_addr = htonl(INADDR_LOOPBACK);
        socklen_t size = sizeof at;
        must(::bind(socket, reinterpret_cast<const sockaddr*>(&at), sizeof at) == 0 && ::listen(socket, 1) == 0);
        must(::getsockname(socket, reinterpret_cast<sockaddr*>(&at), &size) == 0);
    }
};

// A machine that says this whatever it is asked, and hangs up.
void reply(const std::string& bytes) {
    static const Ear ear;
    std::thread machine([&] {
        pollfd called{ear.socket, POLLIN, 0};
        if (::poll(&called, 1, 2'000) <= 0) return;
        const int line = ::accept(ear.socket, nullptr, nullptr);
        for (std::size_t said = 0; said < bytes.size();) {
            const auto n = ::send(line, bytes.data() + said, bytes.size() - said, MSG_NOSIGNAL);
            if (n <= 0) break;
            said += static_cast<std::size_t>(n);
        }
        ::shutdown(line, SHUT_WR);
        for (std::array<char, 4096> heard{}; ::recv(line, heard.data(), heard.size(), 0) > 0;) {
        }
        ::close(line);
    });
    CutOrder order;
    order.hpgl = "IN;SP1;\nPU0,0;PD400,0,400,400;\nPU0,0;SP0;\n";
    order.patience_s = 1;
    SendHold holding;
    const auto result = send(order, {"127.0.0.1", ntohs(ear.at.sin_port)},
                             [](double share) { must(share >= 0 && share <= 1); }, holding, {});
    machine.join();
    if (result) must(result->outcome.size() <= 80 && result->seconds >= 0);
}

}  // namespace

const std::vector<Reader>& readers() {
    static const std::vector<Reader> all = [] {
        std::vector<Reader> of = readers_of_bytes();
        of.insert(of.end(), {{"job", job},
                             {"shop", shop},
                             {"plan", plan},
                             {"bed", bed},
                             {"logbook", logbook},
                             {"photograph", photograph},
                             {"reply", reply}});
        return of;
    }();
    return all;
}

}  // namespace skarvel::fuzz
