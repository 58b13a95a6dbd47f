#include "text/catalogue.h"

#include <fmt/format.h>
#include <unicode/msgfmt.h>
#include <unicode/smpdtfmt.h>
#include <unicode/strenum.h>

#include <mutex>
#include <nlohmann/json.hpp>

namespace skarvel {
namespace {

// Of the sentences that ship.
const icu::Locale& language() {
    static const icu::Locale english("en");
    return english;
}

std::string utf8(const icu::UnicodeString& text) {
    std::string out;
    return text.toUTF8String(out);
}

// Ready to be said: ICU reads a pattern once. The names are of its arguments.
template <typename Sentence>
Sentence made_ready(const std::string& pattern) {
    UErrorCode status = U_ZERO_ERROR;
    Sentence out;
    out.format = std::make_unique<icu::MessageFormat>(icu::UnicodeString::fromUTF8(pattern), language(), status);
    const std::unique_ptr<icu::StringEnumeration> names(U_SUCCESS(status) ? out.format->getFormatNames(status)
                                                                          : nullptr);
    while (names != nullptr && U_SUCCESS(status)) {
        const icu::UnicodeString* name = names->snext(status);
        if (name == nullptr) break;
        out.names.push_back(*name);
    }
    if (U_FAILURE(status)) out.format.reset();
    return out;
}

// An object of sentences and nothing else, read into a table as it comes.
class ReadSentences : public nlohmann::json_sax<nlohmann::json> {
  public:
    std::map<std::string, std::string> patterns;
    std::string at;  // what was read last, where something else stands in its place

    bool start_object(std::size_t) override { return depth_++ == 0; }
    bool key(string_t& id) override {
        at = std::move(id);
        return true;
    }
    bool string(string_t& text) override {
        if (depth_ == 1) patterns[std::move(at)] = std::move(text);
        return depth_ == 1;
    }
    bool end_object() override { return true; }
    bool null() override { return false; }
    bool boolean(bool) override { return false; }
    bool number_integer(number_integer_t) override { return false; }
    bool number_unsigned(number_unsigned_t) override { return false; }
    bool number_float(number_float_t, const string_t&) override { return false; }
    bool binary(binary_t&) override { return false; }
    bool start_array(std::size_t) override { return false; }
    bool end_array() override { return false; }
    bool parse_error(std::size_t, const std::string&, const nlohmann::json::exception&) override { return false; }

  private:
    int depth_ = 0;
};

// What an argument is in a sentence: a count stays a number, so that its noun can follow it.
struct Said {
    const Catalogue& catalogue;
    const Display& display;

    icu::Formattable operator()(const std::string& words) const { return text(words); }
    icu::Formattable operator()(std::int64_t count) const { return {count}; }
    icu::Formattable operator()(double number) const { return text(fmt::format("{:.1f}", number)); }
    icu::Formattable operator()(Percent share) const { return text(fmt::format("{:.0f} %", share.of_one * 100)); }
    // Too small to be shown, it is still something.
    icu::Formattable operator()(Length length) const {
        if (show_number(length, display) != "≈ 0") return text(show(length, display));
        const Length least = display.unit == Unit::Inch ? Length::nanometres(Length::nm_per_inch / display.denominator)
                                                        : Length::nanometres(100'000);
        return text(catalogue.say({"length.under", {{"least", least}}}, display));
    }
    // A weekday alone would be read as one of this week.
    icu::Formattable operator()(Moment moment) const { return text(show_moment(moment, true)); }
    icu::Formattable operator()(Minutes minutes) const { return text(show_minutes(minutes)); }
    icu::Formattable operator()(const std::vector<Reason>& reasons) const {
        std::string all;
        for (const Reason& reason : reasons) all += (all.empty() ? "" : ", ") + catalogue.say(reason, display);
        return text(all);
    }
    static icu::Formattable text(const std::string& words) { return {icu::UnicodeString::fromUTF8(words)}; }
};

}  // namespace

struct Catalogue::Sentences {
    struct Sentence {
        std::unique_ptr<icu::MessageFormat> format;
        std::vector<icu::UnicodeString> names;
    };

    std::map<std::string, std::string> patterns;
    std::mutex mutex;  // ICU's own say that they are for one thread at a time
    std::map<std::string, Sentence> ready;
};

Catalogue::Catalogue() : Catalogue(std::map<std::string, std::string>{}) {}
Catalogue::Catalogue(std::map<std::string, std::string> patterns) : sentences_(std::make_shared<Sentences>()) {
    sentences_->patterns = std::move(patterns);
}

bool Catalogue::has(std::string_view id) const { return sentences_->patterns.contains(std::string(id)); }
const std::map<std::string, std::string>& Catalogue::patterns() const { return sentences_->patterns; }

std::string Catalogue::say(const Reason& reason, const Display& display) const {
    if (reason.id.empty()) return {};
    const auto pattern = sentences_->patterns.find(reason.id);
    if (pattern == sentences_->patterns.end()) return reason.id;
    // Most words take no argument and no quoting: there is nothing to make ready.
    if (pattern->second.find_first_of("{}'") == std::string::npos) return pattern->second;
    // Arguments that are sentences themselves are said first: the lock is not held twice.
    std::vector<std::pair<std::string, icu::Formattable>> said;
    for (const auto& [name, value] : reason.arguments) {
        said.emplace_back(name, std::visit(Said{*this, display}, value));
        if (const auto* length = std::get_if<Length>(&value);
            length != nullptr && pattern->second.find("_far}") != std::string::npos)
            said.emplace_back(name + "_far", Said::text(show_far(*length, display)));
        // The first of two that stand together: in millimetres the unit is said once, behind the second.
        if (const auto* length = std::get_if<Length>(&value);
            length != nullptr && pattern->second.find("_first}") != std::string::npos)
            said.emplace_back(
                name + "_first",
                Said::text(display.unit == Unit::Millimetre ? show_number(*length, display) : show(*length, display)));
    }
    const std::scoped_lock lock(sentences_->mutex);
    auto [at, fresh] = sentences_->ready.try_emplace(reason.id);
    if (fresh) at->second = made_ready<Sentences::Sentence>(pattern->second);
    const Sentences::Sentence& sentence = at->second;
    if (sentence.format == nullptr) return reason.id;
    // What is missing is a question mark; a count that is missing can only be none.
    for (const icu::Formattable& missing : {Said::text("?"), icu::Formattable(std::int64_t{0})}) {
        std::vector<icu::Formattable> values;
        for (const icu::UnicodeString& name : sentence.names) {
            const std::string wanted = utf8(name);
            const auto has = std::find_if(said.begin(), said.end(), [&](const auto& s) { return s.first == wanted; });
            values.push_back(has == said.end() ? missing : has->second);
        }
        UErrorCode status = U_ZERO_ERROR;
        icu::UnicodeString out;
        sentence.format->format(sentence.names.data(), values.data(), static_cast<int32_t>(values.size()), out, status);
        if (U_SUCCESS(status)) return utf8(out);
    }
    return reason.id;
}

Expected<Catalogue> read_catalogue(std::string_view json) {
    ReadSentences read;
    if (!nlohmann::json::sax_parse(json, &read))
        return refused({"file.not-json", {}}, read.at.empty() ? "text" : "text/" + read.at);
    return Catalogue(std::move(read.patterns));
}

std::string show_moment(Moment moment, bool with_date) {
    const auto pattern = [](const char* text) {
        UErrorCode status = U_ZERO_ERROR;
        auto made = std::make_unique<icu::SimpleDateFormat>(icu::UnicodeString(text), language(), status);
        // Moments are local already.
        made->adoptTimeZone(icu::TimeZone::getGMT()->clone());
        return made;
    };
    thread_local const auto day = pattern("EEE HH:mm");
    thread_local const auto date = pattern("EEE d MMM HH:mm");
    icu::UnicodeString out;
    const auto since = std::chrono::duration_cast<std::chrono::milliseconds>(moment.time_since_epoch());
    (with_date ? date : day)->format(static_cast<UDate>(since.count()), out);
    return utf8(out);
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
