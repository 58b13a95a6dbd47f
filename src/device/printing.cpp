#include "device/printing.h"

#include <sstream>

namespace skarvel {

Expected<std::string> print(const std::string& pdf, const Address& to, const std::stop_token& stop) {
    Line line(to);
    if (!line.good()) {
        return refused({"cut.no-answer", {{"host", to.host}, {"port", std::int64_t{to.port}}}}, Station::Sections,
                       {"cut.no-answer-remedy", {}});
    }
    if (!line.say(pdf)) return refused({"cut.line-lost", {}}, Station::Sections);
    line.end_saying();
    std::optional<std::string> answer;
    while (!answer && !line.gone()) {
        if (stop.stop_requested()) return refused({"cut.stopped", {}}, Station::Sections);
        answer = line.hear(200);
    }
    if (!answer) return refused({"cut.line-lost", {}}, Station::Sections);
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
