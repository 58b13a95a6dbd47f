// skarvel-cutter: a stand-in for a cutter, for trying and for tests. It listens on a local socket and reads plotter
// language as a machine would over its port.
//
// It knows how wide and long its material is (OH) and refuses what leaves it (E3): at once where a load tells how far
// it reaches (IW), else where it is led there. Orders that it does not know (E1) and numbers that are none or not in
// pairs (E2) are refused with their place. After an error it moves no more until it begins anew (IN), and says so. It
// follows absolute and relative coordinates (PA, PR), moves at its speed or `--faster` than that, says where it stands
// (OA), and at the end how the cut came out (OC): force against what the film wants, less the wear of the blade, more
// on humid days. A second pass over the same load without unloading deepens the cut.
#include <fmt/format.h>
#include <CLI/CLI.hpp>
#include <chrono>
#include <cmath>
#include <cstdlib>
#include <map>
#include <optional>
#include <set>
#include <string>
#include <thread>
#include <vector>

#include "listening.h"

namespace {

struct Settings {
    int port = 0;
    double across_mm = 292, along_mm = 597;  // of the material that lies in it
    std::string film = "vinyl";
    double wear = 0;       // 0 new, 1 blunt
    double humidity = 50;  // per cent
    double faster = 1;     // times its real speed
    int force = 80;        // grams
    int speed_mm_s = 100;
    int loads = 0;  // stops after so many; 0 never
    int patience_s = 600;
};

// Grams that go through each film with a new blade and just mark the paper (from memory).
double wanted_force(const std::string& film) {
    static const std::map<std::string, double> wants{
        {"vinyl", 80}, {"stencil", 70}, {"metallic", 140}, {"printable", 90}, {"reusable", 180}};
    const auto at = wants.find(film);
    return at == wants.end() ? 80 : at->second;
}

constexpr std::size_t longest_order = 1'000'000;

class Cutter {
  public:
    explicit Cutter(Settings settings) : s_(std::move(settings)) {}

    void serve(int socket) {
        std::string heard;
        char buffer[8192];
        for (ssize_t n = 0; (n = recv(socket, buffer, sizeof buffer, 0)) > 0;) {
            heard.append(buffer, static_cast<std::size_t>(n));
            if (heard.size() > longest_order && heard.find(';') == std::string::npos) return;
            for (std::size_t end = 0; (end = heard.find(';')) != std::string::npos;) {
                std::string order = heard.substr(0, end);
                heard.erase(0, end + 1);
                while (!order.empty() && std::isspace(static_cast<unsigned char>(order.front())) != 0)
                    order.erase(0, 1);
                const std::string answer = obey(order);
                if (!answer.empty() && ::send(socket, answer.data(), answer.size(), MSG_NOSIGNAL) < 0) return;
            }
        }
    }

  private:
    std::string obey(const std::string& order) {
        ++place_;
        if (order.empty()) return {};
        const std::string what = order.substr(0, 2);
        static const std::set<std::string> known{"OH", "IN", "FS", "VS", "PU", "PD",
                                                 "PA", "PR", "SP", "IW", "OA", "OC"};
        const auto read = numbers_in(order.size() < 2 ? std::string() : order.substr(2));
        const bool pairs = what == "PU" || what == "PD" || what == "PA" || what == "PR";
        if (!known.contains(what)) {
            fail("E1", order);
            return {};
        }
        if (!read || (pairs && read->size() % 2 != 0) || (what == "IW" && read->size() != 4)) {
            fail("E2", order);
            return {};
        }
        const std::vector<double>& numbers = *read;
        if (what == "OH") {
            measure();
            return fmt::format("0,0,{},{}\r\n", static_cast<long>(s_.across_mm * 40),
                               static_cast<long>(s_.along_mm * 40));
        }
        if (what == "IN") begin();
        if (what == "FS" && !numbers.empty()) s_.force = static_cast<int>(numbers[0]);
        if (what == "VS" && !numbers.empty()) s_.speed_mm_s = std::max(1, static_cast<int>(numbers[0] * 10));
        if (what == "IW") {
            for (std::size_t i = 0; i < 4; i += 2) {
                if (beyond(numbers[i] / 40, numbers[i + 1] / 40)) fail("E3", order);
            }
        }
        if (what == "PA" || what == "PR") relative_ = what == "PR";
        if (what == "PU" || what == "PD") down_to(what == "PD");
        if (pairs) go(numbers, order);
        if (what == "OA") {
            if (!error_.empty()) return error_ + "\r\n";
            return fmt::format("{},{},{}\r\n", static_cast<long>(x_ * 40), static_cast<long>(y_ * 40), down_ ? 1 : 0);
        }
        if (what == "OC" && !error_.empty()) return "stopped 0\r\n";
        if (what == "OC") return fmt::format("{} {}\r\n", outcome(), static_cast<int>(std::ceil(seconds_)));
        return {};
    }

    // Nothing where something in it is no number.
    static std::optional<std::vector<double>> numbers_in(const std::string& text) {
        std::vector<double> all;
        const char* at = text.c_str();
        while (std::isspace(static_cast<unsigned char>(*at)) != 0) ++at;
        for (char* end = nullptr; *at != '\0'; at = end) {
            const double value = std::strtod(at, &end);
            if (end == at || !std::isfinite(value)) return std::nullopt;
            all.push_back(value);
            while (*end == ',' || std::isspace(static_cast<unsigned char>(*end)) != 0) ++end;
        }
        return all;
    }

    // The first error stands: what comes after follows from it.
    void fail(const char* kind, const std::string& order) {
        if (error_.empty()) error_ = fmt::format("{} at order {}: {}", kind, place_, order.substr(0, 40));
    }

    [[nodiscard]] bool beyond(double x, double y) const {
        return x < 0 || y < 0 || x > s_.across_mm || y > s_.along_mm;
    }

    // The length is run through once, as real ones do.
    void measure() const { rest(s_.along_mm / 300); }

    void rest(double seconds) const {
        std::this_thread::sleep_for(std::chrono::duration<double>(seconds / std::max(1e-6, s_.faster)));
    }

    void begin() {
        path_.clear();
        error_.clear();
        relative_ = false;
        place_ = 1;
        seconds_ = 0;
        x_ = y_ = 0;
    }

    void down_to(bool down) {
        if (!error_.empty()) return;
        if (down != down_) seconds_ += 0.06;
        down_ = down;
    }

    void go(const std::vector<double>& numbers, const std::string& order) {
        for (std::size_t i = 0; i + 1 < numbers.size() && error_.empty(); i += 2) {
            const double x = numbers[i] / 40 + (relative_ ? x_ : 0);
            const double y = numbers[i + 1] / 40 + (relative_ ? y_ : 0);
            if (beyond(x, y)) {
                fail("E3", order);
                down_ = false;
                return;
            }
            const double seconds = std::hypot(x - x_, y - y_) / (down_ ? s_.speed_mm_s : 3.0 * s_.speed_mm_s);
            seconds_ += seconds;
            rest(seconds);
            x_ = x;
            y_ = y;
            if (down_) path_ += fmt::format("{} {} ", x, y);
        }
    }

    // The same path once more over what lies there is a second pass.
    std::string outcome() {
        passes_ = path_ == last_path_ ? passes_ + 1 : 1;
        last_path_ = path_;
        const double softer = 1 + (s_.humidity - 50) / 500;
        const double depth =
            s_.force * (1 - 0.5 * s_.wear) * softer / wanted_force(s_.film) * (1 + 0.4 * (passes_ - 1));
        return depth < 0.9 ? "not-through" : depth > 1.25 ? "into-backing" : "good";
    }

    Settings s_;
    double x_ = 0, y_ = 0, seconds_ = 0;
    bool down_ = false, relative_ = false;
    std::string error_;             // empty while all is well
    long place_ = 0;                // orders since it began
    std::string path_, last_path_;  // where the knife was down
    int passes_ = 1;
};

}  // namespace

int main(int argc, char** argv) {
    CLI::App app{"A stand-in for a cutter: reads plotter language on a local socket.", "skarvel-cutter"};
    Settings s;
    app.add_option("--port", s.port, "To listen on (default: a free one, which it tells)");
    app.add_option("--across", s.across_mm, "Width of the material in it, mm");
    app.add_option("--along", s.along_mm, "Length of the material in it, mm");
    app.add_option("--film", s.film, "vinyl, stencil, metallic, printable, reusable");
    app.add_option("--wear", s.wear, "Of the blade, 0 to 1")->check(CLI::Range(0.0, 1.0));
    app.add_option("--humidity", s.humidity, "Of the air, per cent")->check(CLI::Range(0.0, 100.0));
    app.add_option("--force", s.force, "As it is set, grams");
    app.add_option("--faster", s.faster, "Times its real speed");
    app.add_option("--loads", s.loads, "Stop after so many callers");
    app.add_option("--patience", s.patience_s, "Seconds that a caller may be silent");
    CLI11_PARSE(app, argc, argv);
    Cutter cutter(s);
    return listen_for_callers("skarvel-cutter", s.port, s.loads, s.patience_s,
                              [&](int caller) { cutter.serve(caller); });
}
