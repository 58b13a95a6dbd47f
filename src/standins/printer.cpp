// skarvel-printer: a stand-in for a printer that prints film before it is cut. It listens on a local socket for a PDF,
// as printers do on their raw port, refuses a page that is wider or longer than it can print, and says what it printed.
#include <fmt/format.h>
#include <CLI/CLI.hpp>
#include <chrono>
#include <optional>
#include <regex>
#include <string>
#include <thread>
#include <utility>
#include <vector>

#include "listening.h"

namespace {

struct Settings {
    int port = 0;
    double widest_mm = 216, longest_mm = 1200;  // 47 1/4 in, a common limit
    double mm_s = 20;
    double faster = 1;
    int pages = 0;  // stops after so many callers; 0 never
    int patience_s = 600;
};

// Sizes of the pages, in millimetres, as the file tells them.
std::vector<std::pair<double, double>> pages_in(const std::string& pdf) {
    static const std::regex box(R"(/MediaBox\s*\[\s*([\d.]+)\s+([\d.]+)\s+([\d.]+)\s+([\d.]+)\s*\])");
    std::vector<std::pair<double, double>> pages;
    for (auto at = std::sregex_iterator(pdf.begin(), pdf.end(), box); at != std::sregex_iterator(); ++at) {
        const auto number = [&](std::size_t i) { return std::stod((*at)[i].str()); };
        pages.emplace_back((number(3) - number(1)) * 25.4 / 72, (number(4) - number(2)) * 25.4 / 72);
    }
    return pages;
}

std::string print(const Settings& s, const std::string& pdf) {
    if (!pdf.starts_with("%PDF-")) return "refused no-pdf\n";
    const auto pages = pages_in(pdf);
    if (pages.empty()) return "refused no-page\n";
    for (const auto& [width, height] : pages) {
        constexpr double slack = 0.5;
        if (width > s.widest_mm + slack) return fmt::format("refused too-wide {:.1f} {:.1f}\n", width, s.widest_mm);
        if (height > s.longest_mm + slack) return fmt::format("refused too-long {:.1f} {:.1f}\n", height, s.longest_mm);
    }
    double length = 0;
    for (const auto& [width, height] : pages) length += height;
    std::this_thread::sleep_for(std::chrono::duration<double>(length / s.mm_s / std::max(1e-6, s.faster)));
    return fmt::format("printed {} {:.1f} {:.1f}\n", pages.size(), pages.front().first, pages.front().second);
}

constexpr std::size_t longest_page = 256'000'000;

}  // namespace

int main(int argc, char** argv) {
    CLI::App app{"A stand-in for a printer: takes a PDF on a local socket.", "skarvel-printer"};
    Settings s;
    app.add_option("--port", s.port, "To listen on (default: a free one, which it tells)");
    app.add_option("--widest", s.widest_mm, "Page, mm");
    app.add_option("--longest", s.longest_mm, "Page, mm");
    app.add_option("--faster", s.faster, "Times its real speed");
    app.add_option("--pages", s.pages, "Stop after so many callers");
    app.add_option("--patience", s.patience_s, "Seconds that a caller may be silent");
    CLI11_PARSE(app, argc, argv);
    return listen_for_callers("skarvel-printer", s.port, s.pages, s.patience_s, [&](int caller) {
        std::string heard;
        char buffer[65536];
        for (ssize_t got = 0; (got = recv(caller, buffer, sizeof buffer, 0)) > 0;)
            if (heard.size() < longest_page) heard.append(buffer, static_cast<std::size_t>(got));
        const std::string answer = print(s, heard);
        ::send(caller, answer.data(), answer.size(), MSG_NOSIGNAL);
    });
}
