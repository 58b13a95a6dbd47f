#include "device/line.h"

#include <netdb.h>
#include <poll.h>
#include <sys/socket.h>
#include <unistd.h>

#include <charconv>
#include <memory>

namespace skarvel {
namespace {

int connected(const Address& to) {
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

Line::Line(const Address& to) : socket_(connected(to)) {}

Line::~Line() {
    if (socket_ >= 0) close(socket_);
}

bool Line::say(const std::string& text) const {
    for (std::size_t at = 0; at < text.size();) {
        const ssize_t n = ::send(socket_, text.data() + at, text.size() - at, MSG_NOSIGNAL);
        if (n <= 0) return false;
        at += static_cast<std::size_t>(n);
    }
    return true;
}

void Line::end_saying() const { shutdown(socket_, SHUT_WR); }

std::optional<std::string> Line::hear(int milliseconds) {
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

}  // namespace skarvel
