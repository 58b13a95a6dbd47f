// Moments as makers type them.
#include "text/when.h"

#include <fmt/format.h>
#include <rapidcheck.h>

#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

const Moment typed_on = moment("2026-05-04T17:40");

std::string read(const std::string& text, Moment now = typed_on) {
    const auto at = read_when(text, now);
    return at ? write_moment(*at) : at.error().id;
}

}  // namespace

TEST_CASE("what makers type is read as they mean it, the next such day or hour") {
    CHECK(read("Sat noon") == "2026-05-09T12:00");
    CHECK(read("saturday") == "2026-05-09T12:00");
    CHECK(read("in 5 days") == "2026-05-09T12:00");
    CHECK(read("in 5 days 9:30") == "2026-05-09T09:30");
    CHECK(read("in 2 weeks") == "2026-05-18T12:00");
    CHECK(read("in 3 hours") == "2026-05-04T20:40");
    CHECK(read("9 May 14:00") == "2026-05-09T14:00");
    CHECK(read("May 9th, 2 pm") == "2026-05-09T14:00");
    CHECK(read("Sat 9 May 2026 12:00") == "2026-05-09T12:00");
    CHECK(read("9.5. 8") == "2026-05-09T08:00");
    CHECK(read("9.5.2027") == "2027-05-09T12:00");
    CHECK(read("2026-05-09 14:00") == "2026-05-09T14:00");
    CHECK(read("2026-05-09T14:00") == "2026-05-09T14:00");
    CHECK(read("31/5") == "2026-05-31T12:00");
    CHECK(read("tomorrow 6pm") == "2026-05-05T18:00");
    CHECK(read("20:00") == "2026-05-04T20:00");
    CHECK(read("9") == "2026-05-05T09:00");  // nine has passed
    CHECK(read("monday 18:00") == "2026-05-04T18:00");
    CHECK(read("monday noon") == "2026-05-11T12:00");  // today's has passed
    CHECK(read("3 May") == "2027-05-03T12:00");        // never a day that has been, and never another month
    CHECK(read("29 Feb") == "2028-02-29T12:00");
    CHECK(read("12 am", typed_on) == "2026-05-05T00:00");
}

TEST_CASE("what could be two things, or is none, is refused with words") {
    CHECK(read("5/9") == "when.two-days");
    CHECK(read("31 April") == "when.no-such-day");
    CHECK(read("25:00") == "when.no-such-day");
    CHECK(read("Sun 9 May 2026") == "when.wrong-weekday");
    for (const char* text : {"", "soon", "in days", "in 5 moons", "sat sun", "May", "9 May 10 11", "99", "-3", "2026",
                             "in 5 days saturday", "noon noon"})
        CHECK(read(text) == "when.unread");
    CHECK(read(std::string(500, '9')) == "when.unread");
    for (const char* id : {"when.unread", "when.two-days", "when.no-such-day", "when.wrong-weekday"})
        CHECK(library().catalogue.has(id));
}

TEST_CASE("property: what is shown in full is read back, from any moment, and no text breaks the reader") {
    CHECK(rc::check([] {
        const Moment now = typed_on + Minutes(*rc::gen::inRange(0, 3 * 365 * 1440));
        const Moment at = typed_on + Minutes(*rc::gen::inRange(0, 3 * 365 * 1440));
        const auto day = std::chrono::year_month_day(std::chrono::floor<std::chrono::days>(at));
        const std::string shown = show_moment(at, true);  // "Sat 9 May 12:00"
        const std::size_t hour = shown.rfind(' ');
        const std::string full =
            fmt::format("{} {}{}", shown.substr(0, hour), static_cast<int>(day.year()), shown.substr(hour));
        RC_ASSERT(read_when(full, now) == at);
    }));
    CHECK(rc::check([] {
        const auto words = *rc::gen::container<std::vector<std::string>>(rc::gen::element<std::string>(
            "sat", "9", "may", "in", "days", "noon", "14:00", "pm", "2026", "/", ".", "5.9", "-", "31", "feb", "x"));
        std::string text;
        for (const std::string& w : words) text += w + " ";
        if (const auto at = read_when(text, typed_on)) RC_ASSERT(*at > typed_on - std::chrono::hours(24 * 366));
    }));
}
