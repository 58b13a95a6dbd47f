#include <rapidcheck.h>
#include <fstream>

#include "files/calendar.h"
#include "files/csv.h"
#include "job/commands.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

// Read back by a parser that shares nothing with the writer.
std::string read_by_icalendar(const std::string& ics, const std::string& ask) {
    Folder folder;
    std::ofstream(folder / "a.ics", std::ios::binary) << ics;
    const std::string code = "from icalendar import Calendar\nc=Calendar.from_ical(open('" +
                             (folder / "a.ics").string() + "','rb').read())\nevents=[e for e in c.walk('VEVENT')]\n" +
                             ask;
    std::ofstream(folder / "a.py") << code;
    return run(std::string(SKARVEL_PYTHON) + " " + (folder / "a.py").string()).out;
}

}  // namespace

TEST_CASE("the calendar holds every task that is to be done, at its time, with alarms where waits end") {
    Job job = porch_board();
    job.title = "Commas, semicolons; back\\slashes and\nlines, long enough that RFC 5545 asks to fold the line here";
    const Plan plan = plan_of(job);
    const std::string ics = calendar_of(job, plan, library().catalogue, {}, moment("2026-05-04T18:00"));
    CHECK(ics.find("BEGIN:VCALENDAR\r\n") == 0);
    std::size_t from = 0;
    for (std::size_t end = ics.find("\r\n"); end != std::string::npos; from = end + 2, end = ics.find("\r\n", from))
        CHECK(end - from <= 75);  // RFC 5545, 3.1
    std::string expected;
    std::size_t alarms = 0;
    for (const Slot& slot : plan.clock->slots) {
        const Task& task = (*plan.tasks)[slot.task];
        expected += task.id.name + "\n";
        alarms += std::any_of(task.waits.begin(), task.waits.end(),
                              [](const Wait& w) { return !w.by_machine && (w.at_least > Minutes(0) || w.at_most); })
                      ? 1
                      : 0;
    }
    CHECK(read_by_icalendar(ics, "for e in events: print(str(e['UID']).split('@')[0])") == expected);
    CHECK(read_by_icalendar(ics, "print(sum(len(e.walk('VALARM')) for e in events))") == std::to_string(alarms) + "\n");
    CHECK(read_by_icalendar(ics, "d=events[0]['DTSTART'].dt\nprint(d.strftime('%a %H:%M'), d.tzinfo)") ==
          show_moment(plan.clock->slots.front().start) + " None\n");
    CHECK(read_by_icalendar(ics, "print('semicolons; back\\\\slashes' in str(events[0]['SUMMARY']))") == "True\n");
    // Planned again an hour later: the same events, moved.
    const Plan later = plan_of(job, "2026-05-05T18:00");
    const std::string again = calendar_of(job, later, library().catalogue, {}, moment("2026-05-05T18:00"));
    CHECK(read_by_icalendar(again, "for e in events: print(str(e['UID']).split('@')[0])") == expected);
    // What is done is no longer in it; the rows for a spreadsheet have it, as done.
    const Job sanded = tick(job, plan, StepId{"1/sand"}, moment("2026-05-04T18:20"));
    const Plan after = plan_of(sanded);
    CHECK(read_by_icalendar(calendar_of(sanded, after, library().catalogue, {}, moment("2026-05-04T18:20")),
                            "print(sum('1/sand@' in str(e['UID']) for e in events))") == "0\n");
    const std::string rows = days_csv(after, library().catalogue, {});
    CHECK(std::count(rows.begin(), rows.end(), '\n') == static_cast<long>(after.clock->slots.size()) + 1);
    CHECK(rows.find("\"sand the board\",\"\",,1\r\n") != std::string::npos);
}

TEST_CASE("a field of a spreadsheet is text whatever it holds, on one line") {
    CHECK(csv_field("plain") == "\"plain\"");
    CHECK(csv_field("=1+1") == "\"'=1+1\"");
    CHECK(csv_field("a \"b\"\r\nc") == "\"a \"\"b\"\"  c\"");
    REQUIRE(rc::check([](const std::string& any) {
        const std::string field = csv_field(any);
        RC_ASSERT(field.front() == '"' && field.back() == '"');
        RC_ASSERT(field.find('\n') == std::string::npos);
        RC_ASSERT(std::count(field.begin(), field.end(), '"') % 2 == 0);
        RC_ASSERT(std::string("=+-@").find(field[1]) == std::string::npos);
    }));
}
