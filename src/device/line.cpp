#include "device/line.h"

#include <netdb.h>
#include <poll.h>
#include <sys/socket.h>
#include <unistd.h>

#include <cerrno>
#include <charconv>
#include <chrono>
#include <memory>

namespace skarvel {
namespace {

using Clock = std::chrono::steady_clock;

constexpr auto patience = std::chrono::seconds(10);  // with a machine that takes nothing
constexpr int look_ms = 50;                          // whether it was given up
constexpr std::size_t longest_line = 64 * 1024;      // no machine says more in one go

// Until the socket can be used, in short looks; false where it was given up or the time is over.
bool ready(int s, short events, Clock::time_point until, const GivenUp& given_up) {
    while (!given_up || !given_up()) {
        pollfd waiting{s, events, 0};
        const int n = poll(&waiting, 1, look_ms);
        if (n > 0) return true;
        if (n < 0 && errno != EINTR) return false;
        if (Clock::now() >= until) return false;
    }
    return false;
}

int connected(const Address& to, const GivenUp& given_up) {
    addrinfo wanted{};
    wanted.ai_family = AF_UNSPEC;
    wanted.ai_socktype = SOCK_STREAM;
    addrinfo* found = nullptr;
    if (getaddrinfo(to.host.c_str(), std::to_string(to.port).c_str(), &wanted, &found) != 0) return -1;
    const std::unique_ptr<addrinfo, decltype(&freeaddrinfo)> all(found, freeaddrinfo);
    const auto until = Clock::now() + patience;
    for (const addrinfo* a = found; a != nullptr; a = a->ai_next) {
        const int s = socket(a->ai_family, a->ai_socktype | SOCK_NONBLOCK | SOCK_CLOEXEC, a->ai_protocol);
        if (s < 0) continue;
        if (connect(s, a->ai_addr, a->ai_addrlen) == 0) return s;
        int error = 0;
        socklen_t size = sizeof error;
        if (errno == EINPROGRESS && ready(s, POLLOUT, until, given_up) &&
            getsockopt(s, SOL_SOCKET, SO_ERROR, &error, &size) == 0 && error == 0)
            return s;
        close(s);
    }
    return -1;
}

}  // namespace

std::optional<Address> read_address(const std::string& text) {
    const std::size_t colon = text.rfind(':');
    if (colon == std::string::npos || colon == 0) return std::nullopt;
    Address to{text.substr(0, colon), 0};
    const char* end = text.data() + text.size();
    const auto read = std::from_chars(text.data() + colon + 1, end, to.port);
    if (read.ec != std::errc() || read.ptr != end || to.port <= 0 || to.port > 65'535) return std::nullopt;
    return to;
}

Line::Line(const Address& to, GivenUp given_up) : given_up_(std::move(given_up)), socket_(connected(to, given_up_)) {}

Line::~Line() {
    if (socket_ >= 0) close(socket_);
}

bool Line::say(const std::string& text) const {
    for (std::size_t at = 0; at < text.size();) {
        if (!ready(socket_, POLLOUT, Clock::now() + patience, given_up_)) return false;
        const ssize_t n = ::send(socket_, text.data() + at, text.size() - at, MSG_NOSIGNAL);
        if (n < 0 && (errno == EAGAIN || errno == EINTR)) continue;
        if (n <= 0) return false;
        at += static_cast<std::size_t>(n);
    }
    return true;
}

void Line::say_last(const std::string& text) const {
    (void)::send(socket_, text.data(), text.size(), MSG_NOSIGNAL | MSG_DONTWAIT);
}

void Line::end_saying() const { shutdown(socket_, SHUT_WR); }

std::optional<std::string> Line::hear(int milliseconds) {
    const auto until = Clock::now() + std::chrono::milliseconds(milliseconds);
    for (;;) {
        if (const auto end = heard_.find('\n'); end != std::string::npos) {
            std::string line = heard_.substr(0, end);
            heard_.erase(0, end + 1);
            while (!line.empty() && line.back() == '\r') line.pop_back();
            return line;
        }
        if (heard_.size() > longest_line) {
            gone_ = true;  // what talks without end says nothing
            return std::nullopt;
        }
        if (!ready(socket_, POLLIN, until, given_up_)) return std::nullopt;
        char buffer[4096];
        const ssize_t n = recv(socket_, buffer, sizeof buffer, 0);
        if (n < 0 && (errno == EAGAIN || errno == EINTR)) continue;
        if (n <= 0) {
            gone_ = true;
            return std::nullopt;
        }
        heard_.append(buffer, static_cast<std::size_t>(n));
    }
}

}  // namespace skarvel
