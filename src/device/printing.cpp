#include "device/printing.h"

#include <sstream>

namespace skarvel {

Expected<std::string> print(const std::string& pdf, const Address& to, const std::stop_token& stop) {
    constexpr int patience_ms = 120'000;  // that a page may take
    const auto stopped = [&] { return refused({"cut.stopped-page", {}}, Station::Sections); };
    Line line(to, [&] { return stop.stop_requested(); });
    if (stop.stop_requested()) return stopped();
    if (!line.good()) {
        return refused({"cut.no-answer", {{"host", to.host}, {"port", std::int64_t{to.port}}}}, Station::Sections,
                       {"cut.no-answer-remedy", {}});
    }
    if (!line.say(pdf)) return stop.stop_requested() ? stopped() : refused({"cut.line-lost", {}}, Station::Sections);
    line.end_saying();
    const auto answer = line.hear(patience_ms);
    if (stop.stop_requested()) return stopped();
    if (!answer) return refused({line.gone() ? "cut.line-lost" : "cut.silent", {}}, Station::Sections);
    std::istringstream in(*answer);
    std::string what;
    std::string why;
    double has = 0;
    double most = 0;
    in >> what >> why >> has >> most;
    if (what == "printed") return *answer;
    if (why == "too-long" || why == "too-wide") {
        return refused({"print." + why, {{"has", Length::from_mm(has)}, {"most", Length::from_mm(most)}}},
                       Station::Sections, {"print.shorter", {}});
    }
    return refused({"cut.machine-error", {{"detail", *answer}}}, Station::Sections);
}

}  // namespace skarvel
