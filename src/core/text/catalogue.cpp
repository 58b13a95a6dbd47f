#include "text/catalogue.h"

#include <fmt/format.h>
#include <array>
#include <nlohmann/json.hpp>

namespace skarvel {
namespace {

struct Say {
    const Catalogue& catalogue;
    const Display& display;

    std::string operator()(const std::string& text) const { return text; }
    std::string operator()(std::int64_t count) const { return fmt::format("{}", count); }
    std::string operator()(double number) const { return fmt::format("{:.1f}", number); }
    std::string operator()(Percent share) const { return fmt::format("{:.0f} %", share.of_one * 100); }
    // Too small to be shown, it is still something.
    std::string operator()(Length length) const {
        if (show_number(length, display) != "≈ 0") return show(length, display);
        const Length least = display.unit == Unit::Inch ? Length::nanometres(Length::nm_per_inch / display.denominator)
                                                        : Length::nanometres(100'000);
        return catalogue.say({"length.under", {{"least", least}}}, display);
    }
    // A weekday alone would be read as one of this week.
    std::string operator()(Moment moment) const { return show_moment(moment, true); }
    std::string operator()(Minutes minutes) const { return show_minutes(minutes); }
    std::string operator()(const std::vector<Reason>& reasons) const {
        std::string all;
        for (const Reason& reason : reasons) all += (all.empty() ? "" : ", ") + catalogue.say(reason, display);
        return all;
    }
};

const Argument* find(const Reason& reason, std::string_view name) {
    for (const auto& [key, value] : reason.arguments) {
        if (key == name) return &value;
    }
    return nullptr;
}

}  // namespace

std::string Catalogue::say(const Reason& reason, const Display& display) const {
    if (reason.id.empty()) return {};
    const auto pattern = patterns_.find(reason.id);
    if (pattern == patterns_.end()) return reason.id;
    std::string out;
    const std::string& text = pattern->second;
    for (std::size_t i = 0; i < text.size();) {
        const std::size_t close = text[i] == '{' ? text.find('}', i) : std::string::npos;
        if (close == std::string::npos) {
            out += text[i++];
            continue;
        }
        const std::string inside = text.substr(i + 1, close - i - 1);
        const std::size_t hash = inside.find('#');
        const std::size_t at = inside.find('@');
        const Argument* argument = find(reason, inside.substr(0, std::min(hash, at)));
        const auto* far = argument != nullptr && at != std::string::npos ? std::get_if<Length>(argument) : nullptr;
        out += argument == nullptr ? "?"
               : far != nullptr    ? show_far(*far, display)
                                   : std::visit(Say{*this, display}, *argument);
        if (hash != std::string::npos) {
            const std::size_t bar = inside.find('|', hash);
            const auto* count = argument == nullptr ? nullptr : std::get_if<std::int64_t>(argument);
            const bool one = count != nullptr && *count == 1;
            out += " " + (one ? inside.substr(hash + 1, bar - hash - 1) : inside.substr(bar + 1));
        }
        i = close + 1;
    }
    return out;
}

Expected<Catalogue> read_catalogue(std::string_view json) {
    const auto parsed = nlohmann::json::parse(json, nullptr, false);
    if (!parsed.is_object()) return refused({"file.not-json", {}}, "text");
    std::map<std::string, std::string> patterns;
    for (const auto& [id, text] : parsed.items()) {
        if (!text.is_string()) return refused({"file.not-json", {}}, "text/" + id);
        patterns[id] = text.get<std::string>();
    }
    return Catalogue(std::move(patterns));
}

std::string show_moment(Moment moment, bool with_date) {
    static constexpr std::array days = {"Sun", "Mon", "Tue", "Wed", "Thu", "Fri", "Sat"};
    static constexpr std::array months = {"Jan", "Feb", "Mar", "Apr", "May", "Jun",
                                          "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"};
    const auto day = std::chrono::floor<std::chrono::days>(moment);
    const std::chrono::year_month_day date{day};
    const auto minutes = (moment - day).count();
    const unsigned weekday = std::chrono::weekday{day}.c_encoding();
    if (!with_date) return fmt::format("{} {:02}:{:02}", days.at(weekday), minutes / 60, minutes % 60);
    return fmt::format("{} {} {} {:02}:{:02}", days.at(weekday), static_cast<unsigned>(date.day()),
                       months.at(static_cast<unsigned>(date.month()) - 1), minutes / 60, minutes % 60);
}

std::string show_far(Length length, const Display& display) {
    if (display.unit == Unit::Millimetre) return fmt::format("{:.3g} m", length.in_mm() / 1000);
    return fmt::format("{:.3g} ft", length.in_inches() / 12);
}

std::string show_weight(int grams, const Display& display) {
    if (display.unit == Unit::Millimetre) return fmt::format("{:.1f} kg", grams / 1000.0);
    return fmt::format("{:.1f} lb", grams / 453.59237);
}

std::string show_force(double newton, const Display& display) {
    if (display.unit == Unit::Millimetre) return fmt::format("{:.0f} N", newton);
    return fmt::format("{:.1f} lbf", newton / 4.4482216);
}

std::string show_minutes(Minutes minutes) {
    const auto all = minutes.count();
    const auto h = all / 60;
    const auto m = all % 60;
    if (all < 60) return fmt::format("{} min", all);
    if (h >= 72) return h % 24 == 0 ? fmt::format("{} d", h / 24) : fmt::format("{} d {} h", h / 24, h % 24);
    return m == 0 ? fmt::format("{} h", h) : fmt::format("{} h {} min", h, m);
}

}  // namespace skarvel
