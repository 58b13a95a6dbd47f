#include "files/moment.h"

#include <fmt/format.h>

#include <charconv>

namespace skarvel {

Expected<Moment> read_moment(const std::string& text) {
    const auto wrong = [&] { return refused({"moment.unreadable", {{"text", text}}}, text, {"moment.example", {}}); };
    const auto number = [&](std::size_t from, std::size_t count, int& out) {
        if (text.size() < from + count) return false;
        const auto [end, error] = std::from_chars(text.data() + from, text.data() + from + count, out);
        return error == std::errc{} && end == text.data() + from + count && out >= 0;
    };
    int y = 0, mo = 0, d = 0, h = 0, mi = 0;
    const bool dated = number(0, 4, y) && number(5, 2, mo) && number(8, 2, d) && text[4] == '-' && text[7] == '-';
    if (!dated) return wrong();
    const bool timed = text.size() == 16 && (text[10] == 'T' || text[10] == ' ') && text[13] == ':' &&
                       number(11, 2, h) && number(14, 2, mi);
    if (!timed && text.size() != 10) return wrong();
    const std::chrono::year_month_day date{std::chrono::year(y), std::chrono::month(static_cast<unsigned>(mo)),
                                           std::chrono::day(static_cast<unsigned>(d))};
    if (!date.ok() || h > 23 || mi > 59 || y < 1970 || y > 2200) return wrong();
    return Moment(std::chrono::local_days(date).time_since_epoch() + std::chrono::hours(h) + Minutes(mi));
}

std::string write_moment(Moment moment) {
    const auto day = std::chrono::floor<std::chrono::days>(moment);
    const std::chrono::year_month_day date{day};
    const auto minutes = (moment - day).count();
    return fmt::format("{:04}-{:02}-{:02}T{:02}:{:02}", static_cast<int>(date.year()),
                       static_cast<unsigned>(date.month()), static_cast<unsigned>(date.day()), minutes / 60,
                       minutes % 60);
}

}  // namespace skarvel
