#include "files/moment.h"

#include <fmt/format.h>
#include <unicode/basictz.h>
#include <unicode/timezone.h>
#include <unicode/tztrans.h>

#include <charconv>
#include <memory>

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

std::vector<ClockChange> clock_changes(Moment from, Moment until, const std::string& zone) {
    const std::unique_ptr<icu::TimeZone> own(zone.empty()
                                                 ? icu::TimeZone::createDefault()
                                                 : icu::TimeZone::createTimeZone(icu::UnicodeString::fromUTF8(zone)));
    const auto* rules = dynamic_cast<const icu::BasicTimeZone*>(own.get());
    if (rules == nullptr) return {};
    constexpr double ms_per_minute = 60'000;
    constexpr int most_changes = 100;
    const auto minutes_of = [](const icu::TimeZoneRule* rule) {
        return (rule->getRawOffset() + rule->getDSTSavings()) / ms_per_minute;
    };
    std::vector<ClockChange> changes;
    // A day sooner, whatever the zone.
    double at = static_cast<double>((from - std::chrono::hours(24)).time_since_epoch().count()) * ms_per_minute;
    icu::TimeZoneTransition next;
    for (int i = 0; i < most_changes && rules->getNextTransition(at, false, next) != 0; ++i) {
        at = next.getTime();
        const double before = minutes_of(next.getFrom());
        const double by = minutes_of(next.getTo()) - before;
        const Moment shown{Minutes(static_cast<int>(at / ms_per_minute + before))};
        if (shown > until) break;
        if (shown >= from && by != 0) changes.push_back({shown, Minutes(static_cast<int>(by))});
    }
    return changes;
}

}  // namespace skarvel
