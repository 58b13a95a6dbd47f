#include "device/sender.h"

#include <fmt/format.h>
#include <netdb.h>
#include <poll.h>
#include <sys/socket.h>
#include <unistd.h>

#include <chrono>
#include <cstdlib>
#include <memory>
#include <optional>
#include <sstream>
#include <thread>
#include <vector>

namespace skarvel {
namespace {

tl::unexpected<Problem> no(const char* id, std::vector<std::pair<std::string, Argument>> arguments = {},
                           const char* remedy = nullptr) {
    return refused({id, std::move(arguments)}, "sections", remedy == nullptr ? Reason{} : Reason{remedy, {}});
}

class Line {
  public:
    explicit Line(int socket) : socket_(socket) {}
    ~Line() {
        if (socket_ >= 0) close(socket_);
    }
    Line(const Line&) = delete;
    Line& operator=(const Line&) = delete;

    [[nodiscard]] bool good() const { return socket_ >= 0; }

    bool say(const std::string& text) const {
        for (std::size_t at = 0; at < text.size();) {
            const ssize_t n = ::send(socket_, text.data() + at, text.size() - at, MSG_NOSIGNAL);
            if (n <= 0) return false;
            at += static_cast<std::size_t>(n);
        }
        return true;
    }

    // One line of what the machine says; nothing when it has said none for so long, or has gone.
    std::optional<std::string> hear(int milliseconds) {
        for (;;) {
            if (const auto end = heard_.find('\n'); end != std::string::npos) {
                std::string line = heard_.substr(0, end);
                heard_.erase(0, end + 1);
                while (!line.empty() && line.back() == '\r') line.pop_back();
                return line;
            }
            pollfd waiting{socket_, POLLIN, 0};
            if (poll(&waiting, 1, milliseconds) <= 0) return std::nullopt;
            char buffer[4096];
            const ssize_t n = recv(socket_, buffer, sizeof buffer, 0);
            if (n <= 0) {
                gone_ = true;
                return std::nullopt;
            }
            heard_.append(buffer, static_cast<std::size_t>(n));
        }
    }
    [[nodiscard]] bool gone() const { return gone_; }

  private:
    int socket_;
    std::string heard_;
    bool gone_ = false;
};

int open_line(const Address& to) {
    addrinfo wanted{};
    wanted.ai_family = AF_UNSPEC;
    wanted.ai_socktype = SOCK_STREAM;
    addrinfo* found = nullptr;
    if (getaddrinfo(to.host.c_str(), std::to_string(to.port).c_str(), &wanted, &found) != 0) return -1;
    const std::unique_ptr<addrinfo, decltype(&freeaddrinfo)> all(found, freeaddrinfo);
    for (const addrinfo* a = found; a != nullptr; a = a->ai_next) {
        const int s = socket(a->ai_family, a->ai_socktype, a->ai_protocol);
        if (s < 0) continue;
        if (connect(s, a->ai_addr, a->ai_addrlen) == 0) return s;
        close(s);
    }
    return -1;
}

// Whole orders of the plotter language, a path at a time, so that a pause falls between paths.
std::vector<std::string> in_parts(const std::string& hpgl) {
    std::vector<std::string> parts;
    std::istringstream in(hpgl);
    for (std::string line; std::getline(in, line);) {
        if (!line.empty()) parts.push_back(line + "\n");
    }
    return parts;
}

}  // namespace

Expected<CutResult> send(const CutOrder& order, const Address& to, const std::function<void(double)>& progress,
                         const SendHold& holding, const std::stop_token& stop) {
    Line line(open_line(to));
    if (!line.good())
        return no("cut.no-answer", {{"host", to.host}, {"port", std::int64_t{to.port}}}, "cut.no-answer-remedy");
    CutResult result;
    line.say("OH;\n");
    const auto limits = line.hear(10'000);
    if (!limits) return no("cut.silent");
    {
        std::istringstream in(*limits);
        double numbers[4] = {};
        char comma = 0;
        in >> numbers[0] >> comma >> numbers[1] >> comma >> numbers[2] >> comma >> numbers[3];
        if (!in) return no("cut.silent");
        result.material_across = Length::nanometres(static_cast<std::int64_t>(numbers[2] - numbers[0]) * 25'000);
        result.material_along = Length::nanometres(static_cast<std::int64_t>(numbers[3] - numbers[1]) * 25'000);
    }
    if (order.across > result.material_across || order.along > result.material_along) {
        return no("cut.material-short",
                  {{"across", order.across},
                   {"along", order.along},
                   {"has-across", result.material_across},
                   {"has-along", result.material_along}},
                  "cut.material-short-remedy");
    }
    if (order.force > 0) line.say(fmt::format("FS{};\n", order.force));
    if (order.speed_mm_s > 0) line.say(fmt::format("VS{};\n", order.speed_mm_s / 10));
    const std::vector<std::string> parts = in_parts(order.hpgl);
    for (std::size_t i = 0; i < parts.size(); ++i) {
        while (holding.paused && !stop.stop_requested()) std::this_thread::sleep_for(std::chrono::milliseconds(30));
        if (stop.stop_requested()) {
            line.say("PU0,0;SP0;\n");
            return no("cut.stopped");
        }
        if (!line.say(parts[i])) return no("cut.line-lost");
        // The machine has read the part when it says where it stands.
        line.say("OA;\n");
        std::optional<std::string> here;
        while (!here && !line.gone()) {
            here = line.hear(200);
            if (stop.stop_requested()) break;
        }
        if (line.gone()) return no("cut.line-lost");
        if (here && here->starts_with("E")) return no("cut.machine-error", {{"detail", *here}});
        if (progress) progress(static_cast<double>(i + 1) / static_cast<double>(parts.size()));
    }
    line.say("OC;\n");
    const auto outcome = line.hear(30'000);
    if (!outcome) return no("cut.silent");
    std::istringstream in(*outcome);
    in >> result.outcome >> result.seconds;
    return result;
}

}  // namespace skarvel
