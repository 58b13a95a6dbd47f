// standins/listening.h
//
// What the stand-ins share: a local socket that a caller can reach, told on the first line of their output.
#pragma once

#include <netinet/in.h>
#include <sys/socket.h>
#include <sys/time.h>
#include <unistd.h>
#include <functional>
#include <iostream>
#include <string>

/// Listens on a port of this machine (0: a free one) and hands each caller's socket to `serve`, one after the other,
/// `callers` times or for ever where that is 0. One that says nothing for `patience_s`, or takes nothing, is left, so
/// that the next is served. Gives the exit code of the program.
inline int listen_for_callers(const std::string& name, int port, int callers, int patience_s,
                              const std::function<void(int)>& serve) {
    const int listening = socket(AF_INET, SOCK_STREAM, 0);
    const int yes = 1;
    setsockopt(listening, SOL_SOCKET, SO_REUSEADDR, &yes, sizeof yes);
    sockaddr_in here{};
    here.sin_family = AF_INET;
    here.sin_addr.s_addr = htonl(INADDR_LOOPBACK);
    here.sin_port = htons(static_cast<std::uint16_t>(port));
    socklen_t size = sizeof here;
    if (bind(listening, reinterpret_cast<sockaddr*>(&here), size) != 0 || listen(listening, 1) != 0 ||
        getsockname(listening, reinterpret_cast<sockaddr*>(&here), &size) != 0) {
        std::cerr << name << ": cannot listen on port " << port << '\n';
        return 1;
    }
    std::cout << "listening on port " << ntohs(here.sin_port) << std::endl;
    for (int n = 0; callers == 0 || n < callers; ++n) {
        const int caller = accept(listening, nullptr, nullptr);
        if (caller < 0) break;
        const timeval patience{patience_s, 0};
        setsockopt(caller, SOL_SOCKET, SO_RCVTIMEO, &patience, sizeof patience);
        setsockopt(caller, SOL_SOCKET, SO_SNDTIMEO, &patience, sizeof patience);
        serve(caller);
        close(caller);
    }
    close(listening);
    return 0;
}
