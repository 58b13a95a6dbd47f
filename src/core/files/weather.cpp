#include "files/weather.h"

#include <boost/tokenizer.hpp>

#include <charconv>
#include <cmath>
#include <map>
#include <sstream>

#include "files/moment.h"
#include "text/when.h"

namespace skarvel {
namespace {

using std::chrono::days;
using std::chrono::floor;

std::string trimmed(const std::string& text) {
    const auto first = text.find_first_not_of(" \r\t");
    if (first == std::string::npos) return {};
    return text.substr(first, text.find_last_not_of(" \r\t") - first + 1);
}

std::optional<Moment> day_of(const std::string& text, Moment now) {
    if (const auto exact = read_moment(text)) return Moment(floor<days>(*exact));
    if (const auto typed = read_when(text, now)) return Moment(floor<days>(*typed));
    return std::nullopt;
}

// A number, with a decimal comma where no other comma parts the row, and what stands behind it.
std::optional<std::pair<double, std::string>> number_of(std::string text) {
    for (char& c : text) c = c == ',' ? '.' : c;
    double value = 0;
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
    if (error != std::errc{} || !std::isfinite(value)) return std::nullopt;
    return std::pair(value, trimmed(text.substr(static_cast<std::size_t>(end - text.data()))));
}

double celsius(double degrees, bool fahrenheit) { return fahrenheit ? (degrees - 32) / 1.8 : degrees; }

struct Sum {
    double celsius = 0, humidity = 0;
    int rows = 0;
};

}  // namespace

Expected<std::vector<DayRoom>> read_weather(const std::string& text, Moment now) {
    std::map<Moment, Sum> all;
    std::istringstream lines(text);
    std::string line;
    std::int64_t row = 0;
    bool in_fahrenheit = false;
    const auto wrong = [&](const char* why) {
        return refused({why, {{"row", row}, {"days", static_cast<std::int64_t>(most_days_of_weather)}}}, Station::Clock,
                       {"weather.example", {}});
    };
    while (std::getline(lines, line)) {
        ++row;
        if (trimmed(line).empty()) continue;
        // One kind of separator parts a file: a comma may be a decimal one where semicolons or tabs do.
        const bool wide = line.find_first_of(";\t") != std::string::npos;
        std::vector<std::string> fields;
        try {
            const boost::tokenizer<boost::escaped_list_separator<char>> parts(
                line, boost::escaped_list_separator<char>("\\", wide ? ";\t" : ",", "\""));
            for (const std::string& part : parts) fields.push_back(trimmed(part));
        } catch (const boost::escaped_list_error&) {
            return wrong("weather.row");
        }
        const auto day = fields.empty() ? std::nullopt : day_of(fields[0], now);
        if (!day && row == 1) {
            in_fahrenheit = fields.size() > 1 && (fields[1].ends_with('F') || fields[1].ends_with("F)") ||
                                                  fields[1].find("ahrenheit") != std::string::npos);
            continue;
        }
        if (!day || fields.size() < 3) return wrong("weather.row");
        const auto degrees = number_of(fields[1]);
        const auto humidity = number_of(fields[2]);
        if (!degrees || !humidity) return wrong("weather.row");
        const bool fahrenheit = degrees->second.ends_with('F') || (in_fahrenheit && !degrees->second.ends_with('C'));
        const double warm = celsius(degrees->first, fahrenheit);
        if (warm < -50 || warm > 60 || humidity->first < 0 || humidity->first > 100) return wrong("weather.range");
        Sum& sum = all[*day];
        sum.celsius += warm;
        sum.humidity += humidity->first;
        ++sum.rows;
        if (all.size() > most_days_of_weather) return wrong("weather.too-many");
    }
    if (all.empty()) return wrong("weather.none");
    std::vector<DayRoom> out;
    for (const auto& [day, sum] : all)
        out.push_back({day, static_cast<int>(std::lround(sum.celsius / sum.rows)),
                       static_cast<int>(std::lround(sum.humidity / sum.rows))});
    return out;
}

}  // namespace skarvel
