#include "device/sender.h"

#include <fmt/format.h>
#include <chrono>
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
    Line line(to);
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
                   {"has_across", result.material_across},
                   {"has_along", result.material_along}},
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
