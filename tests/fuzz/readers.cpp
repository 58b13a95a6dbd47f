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
#include "drawing/drawing_file.h"
#include "drawing/outline_file.h"
#include "files/job_file.h"
#include "files/moment.h"
#include "files/pdf.h"
#include "files/photographs.h"
#include "files/plan_json.h"
#include "files/weather.h"
#include "job/plan.h"
#include "lettering/typeface.h"
#include "logbook/logbook.h"
#include "measure/reading.h"
#include "proof/proof.h"
#include "proof/reading.h"
#include "sheets/sheets.h"
#include "text/when.h"

namespace skarvel::fuzz {
namespace {

// What has to hold of whatever was read: a fuzzer notices the end of the program.
void must(bool holds) {
    if (!holds) std::abort();
}

const Library& library() {
    static const Library shared = read_library(std::filesystem::path(SKARVEL_SOURCE) / "assets").value();
    return shared;
}

Moment some_evening() { return read_moment("2026-05-04T18:00").value(); }

void measure(const std::string& bytes) {
    for (const Unit unit : {Unit::Inch, Unit::Millimetre}) {
        const auto read = read_measure(bytes, unit);
        if (!read) continue;
        const auto again = read_measure(read->typed, unit);
        must(again && again->value == read->value);
        (void)show(read->value, {});
        (void)measure_of(read->value, {});
    }
}

void weather(const std::string& bytes) {
    const auto days = read_weather(bytes, some_evening());
    if (!days) return;
    must(!days->empty() && days->size() <= most_days_of_weather);
    for (const DayRoom& d : *days) must(d.celsius >= -50 && d.celsius <= 60 && d.humidity >= 0 && d.humidity <= 100);
}

// Moments as they are typed, and what a plan makes of a clock that shows them.
void when(const std::string& bytes) {
    const auto read = read_when(bytes, some_evening());
    if (!read) return;
    std::string written = write_moment(*read);
    std::replace(written.begin(), written.end(), 'T', ' ');
    const auto again = read_when(written, some_evening());
    must(!again || *again == *read);
}

void drawing(const std::string& bytes) { (void)read_drawing_file(bytes, "drawing"); }

void outline(const std::string& bytes) { (void)read_outline(bytes, "outline"); }

void picture(const std::string& bytes) {
    if (bytes.size() < 4) return;
    const int width = 1 + static_cast<unsigned char>(bytes[0]);
    GreyPicture grey{width, static_cast<int>(bytes.size() - 4) / width, {bytes.begin() + 4, bytes.end()}};
    const TraceWish wish{static_cast<unsigned char>(bytes[1]), static_cast<unsigned char>(bytes[2]),
                         static_cast<unsigned char>(bytes[3]) / 2, (bytes[3] & 1) != 0};
    (void)trace(grey, wish, Length::from_mm(100));
}

void typeface(const std::string& bytes) { (void)read_typeface(std::make_shared<const std::string>(bytes)); }

void cut_file(const std::string& bytes) {
    if (bytes.empty()) return;
    // The first byte says which kind, and whether the knife trails.
    const auto kind = static_cast<unsigned char>(bytes.front());
    Knife trailing;
    trailing.offset = Length::from_mm(0.25);
    trailing.overcut = Length::from_mm(0.5);
    (void)read_cut_file(bytes.substr(1), "cut", static_cast<CutFormat>(kind % 3), kind >= 128 ? trailing : Knife{});
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

void logbook(const std::string& bytes) {
    const auto file =
        std::filesystem::temp_directory_path() / ("skarvel-fuzz-" + std::to_string(std::hash<std::string>{}(bytes)));
    std::ofstream(file, std::ios::binary) << bytes;
    if (auto book = Logbook::open(file)) {
        (void)book->all();
        (void)book->cuts();
        (void)book->add({});
    }
    for (const char* beside : {"", "-journal", "-wal", "-shm"}) std::filesystem::remove(file.string() + beside);
}

void photograph(const std::string& bytes) {
    const auto job = std::filesystem::temp_directory_path() / "skarvel-fuzz.skarvel";
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
    static const std::vector<Reader> all{{"measure", measure}, {"drawing", drawing},   {"outline", outline},
                                         {"picture", picture}, {"typeface", typeface}, {"cut-file", cut_file},
                                         {"job", job},         {"shop", shop},         {"plan", plan},
                                         {"bed", bed},         {"logbook", logbook},   {"photograph", photograph},
                                         {"weather", weather}, {"when", when},         {"reply", reply}};
    return all;
}

}  // namespace skarvel::fuzz
