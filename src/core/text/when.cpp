#include "text/when.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <charconv>
#include <optional>
#include <string>
#include <vector>

namespace skarvel {
namespace {

using std::chrono::days;
using std::chrono::floor;

constexpr std::array weekdays{"sunday", "monday", "tuesday", "wednesday", "thursday", "friday", "saturday"};
constexpr std::array months{"january", "february", "march",     "april",   "may",      "june",
                            "july",    "august",   "september", "october", "november", "december"};
constexpr std::size_t longest = 60;

struct Refused {
    Reason why;
};
[[noreturn]] void refuse(const char* id) { throw Refused{{id, {}}}; }

std::vector<std::string> words_in(std::string_view text) {
    std::vector<std::string> words(1);
    for (const char c : text) {
        const auto low = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
        if (c == ' ' || c == ',' || c == '\t')
            words.emplace_back();
        else
            words.back() += low;
    }
    std::erase(words, std::string());
    return words;
}

// By its first three letters or more.
template <class Names>
std::optional<unsigned> place_of(const std::string& word, const Names& names) {
    if (word.size() < 3) return std::nullopt;
    for (std::size_t i = 0; i < names.size(); ++i) {
        if (std::string_view(names[i]).starts_with(word)) return static_cast<unsigned>(i);
    }
    return std::nullopt;
}

std::optional<int> number_in(std::string_view word) {
    int value = 0;
    const auto [end, error] = std::from_chars(word.data(), word.data() + word.size(), value);
    if (error != std::errc{} || end != word.data() + word.size() || value < 0) return std::nullopt;
    return value;
}

// Numbers between signs of one kind: 9.5.2026, 2026-05-09, 14:30; a last sign may stand alone.
std::optional<std::vector<int>> parts(const std::string& word, char sign) {
    std::vector<int> all;
    std::size_t at = 0;
    while (at < word.size()) {
        const std::size_t end = std::min(word.find(sign, at), word.size());
        const auto value = number_in(std::string_view(word).substr(at, end - at));
        if (!value) return std::nullopt;
        all.push_back(*value);
        at = end + 1;
    }
    return word.find(sign) == std::string::npos ? std::nullopt : std::optional(all);
}

class Reader {
  public:
    Reader(std::string_view text, Moment now) : words_(words_in(text)), now_(now), today_(floor<days>(now)) {
        has_month_ = std::any_of(words_.begin(), words_.end(),
                                 [](const std::string& w) { return place_of(w, months).has_value(); });
    }

    Moment run() {
        if (words_.empty()) refuse("when.unread");
        for (at_ = 0; at_ < words_.size(); ++at_) {
            if (!word(words_[at_])) refuse("when.unread");
        }
        return moment();
    }

  private:
    bool word(const std::string& w) {
        if (w == "in") return after();
        if (w == "at" || w == "on" || w == "of") return true;
        if (w == "today") return say(exact_, today_);
        if (w == "tomorrow") return say(exact_, today_ + days(1));
        if (w == "noon") return say(time_, Minutes(12 * 60));
        if (const auto day = place_of(w, weekdays)) return say(weekday_, std::chrono::weekday(*day));
        if (const auto m = place_of(w, months)) return say(month_, *m + 1);
        if (const auto t = w.find('t'); t == 10 && w.size() > 11) return date(w.substr(0, t)) && clock(w.substr(t + 1));
        return clock(w) || date(w) || plain(w);
    }

    // "in 5 days", "in 3 hours".
    bool after() {
        if (at_ + 2 >= words_.size()) return false;
        const auto count = number_in(words_[at_ + 1]);
        std::string unit = words_[at_ + 2];
        if (unit.ends_with('s')) unit.pop_back();
        if (!count || *count > 1000) return false;
        at_ += 2;
        if (unit == "day") return say(exact_, today_ + days(*count));
        if (unit == "week") return say(exact_, today_ + days(7 * *count));
        if (unit == "hour") return say(later_, now_ + std::chrono::hours(*count));
        if (unit == "minute" || unit == "min") return say(later_, now_ + Minutes(*count));
        return false;
    }

    // "14:30", "6pm", "6 pm", "6:30pm".
    bool clock(std::string w) {
        const bool apart = at_ + 1 < words_.size() && (words_[at_ + 1] == "am" || words_[at_ + 1] == "pm");
        std::string half = apart ? words_[at_ + 1] : w.size() > 2 ? w.substr(w.size() - 2) : std::string();
        if (half != "am" && half != "pm") half.clear();
        if (!half.empty() && !apart) w = w.substr(0, w.size() - half.size());
        auto numbers = parts(w, ':');
        if (!numbers && !half.empty()) {
            if (const auto hour = number_in(w)) numbers = std::vector{*hour, 0};
        }
        if (!numbers || numbers->size() != 2) return false;
        int hour = (*numbers)[0];
        if (!half.empty()) {
            if (hour < 1 || hour > 12) refuse("when.no-such-day");
            hour = hour % 12 + (half == "pm" ? 12 : 0);
        }
        if (hour > 23 || (*numbers)[1] > 59) refuse("when.no-such-day");
        if (apart) ++at_;
        return say(time_, Minutes(hour * 60 + (*numbers)[1]));
    }

    // "2026-05-09", "9.5.", "9.5.2026", "31/5".
    bool date(const std::string& w) {
        if (const auto iso = parts(w, '-'); iso && iso->size() == 3)
            return say(year_, (*iso)[0]) && say(month_, static_cast<unsigned>((*iso)[1])) && say(day_, (*iso)[2]);
        if (const auto dots = parts(w, '.'); dots && dots->size() >= 2 && dots->size() <= 3) {
            if (dots->size() == 3) say(year_, (*dots)[2]);
            return say(day_, (*dots)[0]) && say(month_, static_cast<unsigned>((*dots)[1]));
        }
        if (auto slashes = parts(w, '/'); slashes && slashes->size() >= 2 && slashes->size() <= 3) {
            if (slashes->size() == 3) say(year_, (*slashes)[2]);
            const int a = (*slashes)[0], b = (*slashes)[1];
            if (a <= 12 && b <= 12 && a != b) refuse("when.two-days");
            return say(day_, std::max(a, b)) && say(month_, static_cast<unsigned>(std::min(a, b)));
        }
        return false;
    }

    // A number alone: a year, the day of a month that is named, or an hour.
    bool plain(std::string w) {
        for (const char* ending : {"st", "nd", "rd", "th", "."}) {
            if (w.size() > 1 && w.ends_with(ending)) {
                w = w.substr(0, w.size() - std::string_view(ending).size());
                break;
            }
        }
        const auto value = number_in(w);
        if (!value) return false;
        if (*value >= 1900 && *value <= 2999) return say(year_, *value);
        if (has_month_ && !day_) return say(day_, *value);
        if (*value > 23) return false;
        return say(time_, Minutes(*value * 60));
    }

    // What is said twice is not understood.
    template <class T, class V>
    static bool say(std::optional<T>& what, const V& value) {
        if (what) refuse("when.unread");
        what = value;
        return true;
    }

    Moment moment() const {
        if (later_) {
            if (exact_ || weekday_ || month_ || day_ || year_ || time_) refuse("when.unread");
            return *later_;
        }
        if (month_.has_value() != day_.has_value() || (year_ && !month_)) refuse("when.unread");
        if (exact_ && (weekday_ || month_)) refuse("when.unread");
        const Minutes time = time_.value_or(Minutes(12 * 60));
        if (exact_) return *exact_ + time;
        if (month_) return dated(time);
        if (weekday_) {
            auto day = today_ + (*weekday_ - std::chrono::weekday(today_));
            if (day + time <= now_) day += days(7);
            return day + time;
        }
        if (!time_) refuse("when.unread");
        return (today_ + time > now_ ? today_ : today_ + days(1)) + time;
    }

    Moment dated(Minutes time) const {
        const auto this_year = std::chrono::year_month_day(today_).year();
        const auto in = [&](std::chrono::year y) {
            return std::chrono::year_month_day(y, std::chrono::month(*month_),
                                               std::chrono::day(static_cast<unsigned>(*day_)));
        };
        if (*month_ < 1 || *month_ > 12 || *day_ < 1 || *day_ > 31) refuse("when.no-such-day");
        std::chrono::year_month_day date = in(year_ ? std::chrono::year(*year_) : this_year);
        if (!year_) {
            // The next such day: of a leap day the next one that there is.
            constexpr int most_years = 8;
            for (int i = 1; i <= most_years && (!date.ok() || std::chrono::local_days(date) < today_); ++i)
                date = in(this_year + std::chrono::years(i));
        }
        if (!date.ok()) refuse("when.no-such-day");
        const std::chrono::local_days day(date);
        if (weekday_ && std::chrono::weekday(day) != *weekday_) refuse("when.wrong-weekday");
        return day + time;
    }

    std::vector<std::string> words_;
    Moment now_;
    std::chrono::local_days today_;
    std::size_t at_ = 0;
    bool has_month_ = false;
    std::optional<std::chrono::local_days> exact_;
    std::optional<std::chrono::weekday> weekday_;
    std::optional<unsigned> month_;
    std::optional<int> day_, year_;
    std::optional<Minutes> time_;
    std::optional<Moment> later_;
};

}  // namespace

tl::expected<Moment, Reason> read_when(std::string_view text, Moment now) {
    if (text.size() > longest) return tl::unexpected(Reason{"when.unread", {}});
    try {
        return Reader(text, now).run();
    } catch (const Refused& refused) {
        return tl::unexpected(refused.why);
    }
}

}  // namespace skarvel
