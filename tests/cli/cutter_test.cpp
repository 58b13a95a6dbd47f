// Loads sent to the stand-in for a cutter, a program of its own behind a socket.
#include <fmt/format.h>

#include <netinet/in.h>
#include <sys/socket.h>
#include <unistd.h>

#include <csignal>
#include <cstdio>
#include <functional>
#include <thread>

#include "device/printing.h"
#include "device/sender.h"
#include "files/print_page.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

// The stand-in, started on a port of its own; ends with this.
class StandIn {
  public:
    explicit StandIn(const std::string& options, const char* program = SKARVEL_CUTTER) {
        const std::string command = fmt::format("{} --faster 100000 {} & echo $!; wait", program, options);
        pipe_ = popen(command.c_str(), "r");
        char line[200];
        for (int i = 0; i < 2 && fgets(line, sizeof line, pipe_) != nullptr; ++i) {
            int number = 0;
            if (sscanf(line, "listening on port %d", &number) == 1) port_ = number;
            if (sscanf(line, "%d", &number) == 1) pid_ = number;
        }
    }
    ~StandIn() {
        if (pid_ > 0) kill(pid_, SIGTERM);
        pclose(pipe_);
    }
    StandIn(const StandIn&) = delete;
    StandIn& operator=(const StandIn&) = delete;
    [[nodiscard]] Address address() const { return {"127.0.0.1", port_}; }

  private:
    FILE* pipe_;
    int port_ = 0, pid_ = 0;
};

CutOrder first_load() {
    static const Job job = porch_board();
    static const Plan plan = plan_of(job);
    const auto loads = loads_to_cut(plan, usual_shop());
    CutOrder order;
    order.hpgl = hpgl_of(loads.front()).value();
    order.across = 11.5_in;
    order.along = 23_in;
    return order;
}

Expected<CutResult> cut(const StandIn& cutter, const CutOrder& order, double* last = nullptr) {
    SendHold hold;
    return send(order, cutter.address(),
                [&](double share) {
                    if (last != nullptr) *last = share;
                },
                hold, {});
}

}  // namespace

TEST_CASE("a load is cut by the stand-in: good, not through with a blunt blade, into the backing with too much force") {
    double progress = 0;
    {
        const StandIn cutter("--across 300 --along 610 --force 80");
        const auto good = cut(cutter, first_load(), &progress);
        REQUIRE(good);
        CHECK(good->outcome == "good");
        CHECK(progress == 1);
        CHECK(good->seconds > 10);
        CHECK(good->material_across.in_mm() == Approx(300));
    }
    {
        const StandIn cutter("--across 300 --along 610 --force 80 --wear 0.4");
        const auto first = cut(cutter, first_load());
        REQUIRE(first);
        CHECK(first->outcome == "not-through");
        // The same again without unloading goes deeper.
        const auto second = cut(cutter, first_load());
        REQUIRE(second);
        CHECK(second->outcome == "good");
    }
    const StandIn hard("--across 300 --along 610");
    CutOrder order = first_load();
    order.force = 160;
    const auto deep = cut(hard, order);
    REQUIRE(deep);
    CHECK(deep->outcome == "into-backing");
}

TEST_CASE("material that is too short is measured first, and nothing is cut") {
    const StandIn cutter("--across 300 --along 400");
    const auto refused = cut(cutter, first_load());
    REQUIRE_FALSE(refused);
    CHECK(refused.error().what.id == "cut.material-short");
    CHECK(library().catalogue.has(refused.error().what.id));
}

TEST_CASE("the stand-in follows both kinds of coordinates, refuses what it does not know, and then moves no more") {
    const StandIn cutter("--across 300 --along 610");
    const auto said = [&](const std::string& orders) {
        Line line(cutter.address());
        REQUIRE(line.good());
        REQUIRE(line.say(orders));
        return line.hear(5'000).value_or("nothing");
    };
    CHECK(said("IN;SP1;PU400,400;PD800,400;OA;") == "800,400,1");
    CHECK(said("IN;SP1;PA400,400;PR;PD100,50,100,-50;OA;") == "600,400,1");
    CHECK(said("IN;PU400,400;XX9;OA;") == "E1 at order 3: XX9");
    CHECK(said("IN;PU400,400;PD10,what;OA;") == "E2 at order 3: PD10,what");
    CHECK(said("IN;PU400;OA;") == "E2 at order 2: PU400");
    CHECK(said("IN;PU400,400;PD-1,0;PU9,9;OA;") == "E3 at order 3: PD-1,0");
    CHECK(said("IN;PU400,400;PD99999,0;OC;") == "stopped 0");
    CHECK(said("IN;IW0,0,99999,10;OA;").starts_with("E3 at order 2"));
    CHECK(said("IN;PU40,40;OA;") == "40,40,0");  // begins anew
    // A load that reaches farther than its order says is not begun.
    CutOrder order;
    order.hpgl = "IN;\nSP1;\nPU0,0;PD400,400;\nPU0,0;PD400,24500;\nPU0,0;SP0;\n";
    order.across = order.along = 1_in;
    const auto refused = cut(cutter, order);
    REQUIRE_FALSE(refused);
    CHECK(refused.error().what.id == "cut.material-short");
}

namespace {

// A machine that does to its caller what it is told to.
class BadMachine {
  public:
    explicit BadMachine(std::function<void(int)> serve) {
        listening_ = socket(AF_INET, SOCK_STREAM, 0);
        sockaddr_in here{};
        here.sin_family = AF_INET;
        here.sin_addr.s_addr = htonl(INADDR_LOOPBACK);
        socklen_t size = sizeof here;
        REQUIRE(bind(listening_, reinterpret_cast<sockaddr*>(&here), size) == 0);
        REQUIRE(listen(listening_, 4) == 0);
        REQUIRE(getsockname(listening_, reinterpret_cast<sockaddr*>(&here), &size) == 0);
        port_ = ntohs(here.sin_port);
        thread_ = std::jthread([this, serve = std::move(serve)] {
            const int caller = accept(listening_, nullptr, nullptr);
            if (caller < 0) return;
            serve(caller);
            close(caller);
        });
    }
    ~BadMachine() {
        shutdown(listening_, SHUT_RDWR);
        close(listening_);
    }
    BadMachine(const BadMachine&) = delete;
    BadMachine& operator=(const BadMachine&) = delete;
    [[nodiscard]] Address address() const { return {"127.0.0.1", port_}; }

  private:
    int listening_ = -1, port_ = 0;
    std::jthread thread_;
};

void tell(int caller, const std::string& words) { (void)::send(caller, words.data(), words.size(), MSG_NOSIGNAL); }

// Whatever comes, until the caller has gone.
void swallow(int caller) {
    char buffer[4096];
    while (recv(caller, buffer, sizeof buffer, 0) > 0) {
    }
}

// Answers as a cutter does, so many questions about where it stands, then no more; or it breaks off.
void answer(int caller, int questions, bool breaks_off = false) {
    std::string heard;
    char buffer[4096];
    for (ssize_t n = 0; (n = recv(caller, buffer, sizeof buffer, 0)) > 0;) {
        heard.append(buffer, static_cast<std::size_t>(n));
        for (std::size_t end = 0; (end = heard.find(';')) != std::string::npos;) {
            if (heard.compare(0, end, "OH") == 0) tell(caller, "0,0,12000,24400\n");
            if (heard.substr(0, end).ends_with("OA") && questions-- > 0) tell(caller, "0,0,0\n");
            heard.erase(0, end + 1);
            if (breaks_off && questions <= 0) return;
        }
    }
}

std::string said_of(const BadMachine& machine, bool begun, std::stop_token stop = {}) {
    CutOrder order = first_load();
    order.patience_s = 1;
    order.speed_mm_s = 100'000;
    SendHold hold;
    const auto result = send(order, machine.address(), {}, hold, stop);
    CHECK(hold.begun == begun);
    REQUIRE_FALSE(result);
    CHECK(library().catalogue.has(result.error().what.id));
    return result.error().what.id;
}

}  // namespace

TEST_CASE("a machine that hangs, breaks off, floods or talks nonsense is told in words, and whether it may have cut") {
    CHECK(said_of(BadMachine(swallow), false) == "cut.silent");
    CHECK(said_of(BadMachine([](int c) { answer(c, 3); }), true) == "cut.silent");
    CHECK(said_of(BadMachine([](int c) { answer(c, 4, true); }), true) == "cut.line-lost");
    CHECK(said_of(BadMachine([](int c) { tell(c, "what do you want\n"); }), false) == "cut.silent");
    CHECK(said_of(BadMachine([](int c) { tell(c, "0,0,1e300,-1e300\n"); }), false) == "cut.silent");
    CHECK(said_of(BadMachine([](int c) {
                      const std::string flood(8192, 'x');
                      for (int i = 0; i < 2000; ++i) tell(c, flood);
                  }),
                  false) == "cut.line-lost");
    CHECK(said_of(BadMachine([](int) {}), false) == "cut.line-lost");
}

TEST_CASE("a stop is heard at once, whatever the machine does") {
    // Each would otherwise be waited for far longer than this test may take.
    const auto stopped = [](std::function<void(int)> serve) {
        const auto stop = std::make_unique<std::stop_source>();
        const BadMachine machine(std::move(serve));
        std::jthread later([&] {
            std::this_thread::sleep_for(std::chrono::milliseconds(200));
            stop->request_stop();
        });
        CutOrder order = first_load();
        order.patience_s = 3600;
        for (int i = 0; i < 8; ++i) order.hpgl += order.hpgl;  // more than any socket takes unread
        SendHold hold;
        const auto result = send(order, machine.address(), {}, hold, stop->get_token());
        REQUIRE_FALSE(result);
        return result.error().what.id;
    };
    CHECK(stopped(swallow) == "cut.stopped");
    CHECK(stopped([](int c) { answer(c, 2); }) == "cut.stopped");
    CHECK(stopped([](int c) {
              tell(c, "0,0,12000,24400\n");
              std::this_thread::sleep_for(std::chrono::milliseconds(600));  // reads nothing
          }) == "cut.stopped");
}

TEST_CASE("the stand-ins outlive callers that are silent, flood or talk nonsense, and serve the next one") {
    const StandIn cutter("--across 300 --along 610 --patience 1");
    {
        const Line silent(cutter.address());
        REQUIRE(silent.good());
        CHECK(cut(cutter, first_load())->outcome == "good");
    }
    {
        const Line flood(cutter.address());
        for (int i = 0; i < 300; ++i) (void)flood.say(std::string(8192, static_cast<char>('a' + i % 26)));
    }
    {
        Line nonsense(cutter.address());
        (void)nonsense.say(std::string("\0\xff;PU;;;OA;", 11));
        CHECK(nonsense.hear(5'000).value_or("E").starts_with("E"));
    }
    CHECK(cut(cutter, first_load()));
}

TEST_CASE("a stopped load lifts the knife, and a cutter that is not there is told") {
    const StandIn cutter("--across 300 --along 610");
    std::stop_source stop;
    SendHold hold;
    const auto stopped = send(
        first_load(), cutter.address(),
        [&](double share) {
            if (share > 0.2) stop.request_stop();
        },
        hold, stop.get_token());
    REQUIRE_FALSE(stopped);
    CHECK(stopped.error().what.id == "cut.stopped");
    SendHold paused;
    paused.paused = true;
    std::jthread later([&] {
        std::this_thread::sleep_for(std::chrono::milliseconds(150));
        paused.paused = false;
    });
    CHECK(send(first_load(), cutter.address(), {}, paused, {}));
    const auto nobody = send(first_load(), {"127.0.0.1", 1}, {}, hold, {});
    REQUIRE_FALSE(nobody);
    CHECK(nobody.error().what.id == "cut.no-answer");
}

TEST_CASE("the stand-in for a printer prints a page, and refuses one that is longer than it can print") {
    Job job = panel_job("TEA", "9", "6");
    making(job).way = Way::Decal;
    making(job).film = "printable";
    const Plan plan = plan_of(job);
    const auto pages = print_pages(job, plan, usual_shop(), nullptr);
    REQUIRE(pages.size() == 1);
    {
        const StandIn printer("", SKARVEL_PRINTER);
        const auto printed = print(pages.front().pdf, printer.address(), {});
        REQUIRE(printed);
        CHECK(printed->starts_with("printed 1 215.9 279.4"));
    }
    const StandIn small("--longest 200", SKARVEL_PRINTER);
    const auto refused = print(pages.front().pdf, small.address(), {});
    REQUIRE_FALSE(refused);
    CHECK(refused.error().what.id == "print.too-long");
    const auto no_pdf = print("hello", small.address(), {});
    REQUIRE_FALSE(no_pdf);
    CHECK_FALSE(print("x", Address{"127.0.0.1", 1}, {}));
}

TEST_CASE("an address is a name and a port") {
    CHECK(read_address("127.0.0.1:9100")->port == 9100);
    CHECK(read_address("cutter.local:1")->host == "cutter.local");
    for (const char* wrong : {"", "9100", ":9100", "host:", "host:0", "host:70000", "host:12x"})
        CHECK_FALSE(read_address(wrong));
}
