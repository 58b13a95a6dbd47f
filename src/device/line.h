// device/line.h
//
// Line: a connection to a machine behind a socket, as text goes over it.
#pragma once

#include <functional>
#include <optional>
#include <string>

namespace skarvel {

struct Address {
    std::string host = "127.0.0.1";
    int port = 0;
};

/// "127.0.0.1:9100"; nothing where there is no name or no port.
std::optional<Address> read_address(const std::string& text);

/// Whether it is to be given up, asked several times a second.
using GivenUp = std::function<bool()>;

class Line {
  public:
    /// Not `good` where nobody answers within ten seconds, or where it was given up.
    explicit Line(const Address& to, GivenUp given_up = {});
    ~Line();
    Line(const Line&) = delete;
    Line& operator=(const Line&) = delete;

    [[nodiscard]] bool good() const { return socket_ >= 0; }
    [[nodiscard]] bool gone() const { return gone_; }
    /// False when the machine has gone, takes nothing more for ten seconds, or it was given up.
    bool say(const std::string& text) const;
    /// Once it was given up: without waiting, as far as the line takes it.
    void say_last(const std::string& text) const;
    /// Nothing more will be said.
    void end_saying() const;
    /// One line of what the machine says; nothing when it has said none for so long, has gone, talks without end, or
    /// it was given up.
    std::optional<std::string> hear(int milliseconds);

  private:
    GivenUp given_up_;
    int socket_ = -1;
    std::string heard_;
    bool gone_ = false;
};

}  // namespace skarvel
