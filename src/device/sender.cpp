#include "device/sender.h"

#include <fmt/format.h>
#include <algorithm>
#include <chrono>
#include <cmath>
#include <optional>
#include <sstream>
#include <thread>
#include <vector>

namespace skarvel {
namespace {

tl::unexpected<Problem> no(const char* id, std::vector<std::pair<std::string, Argument>> arguments = {},
                           const char* remedy = nullptr) {
    return refused({id, std::move(arguments)}, Station::Sections, remedy == nullptr ? Reason{} : Reason{remedy, {}});
}

// What a machine says, as far as it is fit to be shown.
std::string fit(const std::string& line) {
    constexpr std::size_t enough = 80;
    std::string told;
    for (const char c : line.substr(0, enough)) told += c >= ' ' && c <= '~' ? c : '?';
    return told;
}

// How far a load reaches, in the plotter's units: of everything in it, where the knife is led lifted as well.
struct Reach {
    long low_x = 0, low_y = 0, high_x = 0, high_y = 0;
};

Reach reach_of(const std::string& hpgl) {
    Reach reach;
    for (std::size_t at = 0; at + 2 < hpgl.size();) {
        const std::size_t end = std::min(hpgl.find(';', at), hpgl.size());
        if (hpgl.compare(at, 2, "PU") == 0 || hpgl.compare(at, 2, "PD") == 0) {
            std::string numbers = hpgl.substr(at + 2, end - at - 2);
            std::replace(numbers.begin(), numbers.end(), ',', ' ');
            std::istringstream in(numbers);
            for (long x = 0, y = 0; in >> x >> y;) {
                reach.low_x = std::min(reach.low_x, x);
                reach.low_y = std::min(reach.low_y, y);
                reach.high_x = std::max(reach.high_x, x);
                reach.high_y = std::max(reach.high_y, y);
            }
        }
        at = end + 1;
        while (at < hpgl.size() && hpgl[at] == '\n') ++at;
    }
    return reach;
}

// Twice as long as the knife needs for a part at that speed, or at a slow one where the machine has its own.
int time_ms(const std::string& part, int speed_mm_s) {
    constexpr int slow_mm_s = 20;
    constexpr double longest_ms = 3.6e6;
    std::string numbers = part;
    for (char& c : numbers) c = (c >= '0' && c <= '9') || c == '-' ? c : ' ';
    std::istringstream in(numbers);
    double length = 0, x0 = 0, y0 = 0;
    for (double x = 0, y = 0; in >> x >> y; x0 = x, y0 = y) length += std::hypot(x - x0, y - y0);
    const double mm = length / 40;
    return static_cast<int>(std::min(longest_ms, 2000 * mm / (speed_mm_s > 0 ? speed_mm_s : slow_mm_s)));
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
                         SendHold& holding, const std::stop_token& stop) {
    Line line(to, [&] { return stop.stop_requested(); });
    if (stop.stop_requested()) return no("cut.stopped");
    if (!line.good())
        return no("cut.no-answer", {{"host", to.host}, {"port", std::int64_t{to.port}}}, "cut.no-answer-remedy");
    CutResult result;
    line.say("OH;\n");
    const auto limits = line.hear(order.patience_s * 1000);
    if (stop.stop_requested()) return no("cut.stopped");
    if (!limits) return no(line.gone() ? "cut.line-lost" : "cut.silent");
    {
        std::istringstream in(*limits);
        double numbers[4] = {};
        char comma = 0;
        in >> numbers[0] >> comma >> numbers[1] >> comma >> numbers[2] >> comma >> numbers[3];
        // No machine reaches further than a kilometre: what says so speaks another language.
        constexpr double furthest = 4e7;
        const bool sound = std::all_of(std::begin(numbers), std::end(numbers),
                                       [](double n) { return n >= -furthest && n <= furthest; });
        if (!in || !sound) return no("cut.silent");
        result.material_across = Length::nanometres(static_cast<std::int64_t>(numbers[2] - numbers[0]) * 25'000);
        result.material_along = Length::nanometres(static_cast<std::int64_t>(numbers[3] - numbers[1]) * 25'000);
    }
    const Reach reach = reach_of(order.hpgl);
    const Length across = std::max(order.across, Length::nanometres(std::int64_t{reach.high_x} * 25'000));
    const Length along = std::max(order.along, Length::nanometres(std::int64_t{reach.high_y} * 25'000));
    if (across > result.material_across || along > result.material_along) {
        return no("cut.material-short",
                  {{"across", across},
                   {"along", along},
                   {"has_across", result.material_across},
                   {"has_along", result.material_along}},
                  "cut.material-short-remedy");
    }
    if (order.force > 0) line.say(fmt::format("FS{};\n", order.force));
    if (order.speed_mm_s > 0) line.say(fmt::format("VS{};\n", order.speed_mm_s / 10));
    // The machine, too, looks at all of it before the first cut.
    std::vector<std::string> parts = in_parts(order.hpgl);
    const auto begins =
        std::find_if(parts.begin(), parts.end(), [](const std::string& p) { return p.starts_with("IN"); });
    parts.insert(begins == parts.end() ? parts.begin() : std::next(begins),
                 fmt::format("IW{},{},{},{};\n", reach.low_x, reach.low_y, reach.high_x, reach.high_y));
    const auto stopped = [&] {
        line.say_last("PU0,0;SP0;\n");
        return no("cut.stopped");
    };
    for (std::size_t i = 0; i < parts.size(); ++i) {
        while (holding.paused && !stop.stop_requested()) std::this_thread::sleep_for(std::chrono::milliseconds(30));
        if (stop.stop_requested()) return stopped();
        if (parts[i].find("PD") != std::string::npos) holding.begun = true;
        if (!line.say(parts[i])) return stop.stop_requested() ? stopped() : no("cut.line-lost");
        // The machine has read the part when it says where it stands: after it has cut it, as long as that may take.
        line.say("OA;\n");
        const auto here = line.hear(order.patience_s * 1000 + time_ms(parts[i], order.speed_mm_s));
        if (stop.stop_requested()) return stopped();
        if (line.gone()) return no("cut.line-lost");
        if (!here) return no("cut.silent");
        if (here->starts_with("E")) return no("cut.machine-error", {{"detail", fit(*here)}});
        if (progress) progress(static_cast<double>(i + 1) / static_cast<double>(parts.size()));
    }
    line.say("OC;\n");
    const auto outcome = line.hear(order.patience_s * 1000);
    if (stop.stop_requested()) return stopped();
    if (!outcome) return no(line.gone() ? "cut.line-lost" : "cut.silent");
    std::istringstream in(*outcome);
    in >> result.outcome >> result.seconds;
    result.outcome = fit(result.outcome);
    result.seconds = std::max(0, result.seconds);
    return result;
}

}  // namespace skarvel
