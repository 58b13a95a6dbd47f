#include "files/calendar.h"

#include <fmt/format.h>
#include <libical/ical.h>

#include <memory>

#include "files/csv.h"
#include "files/cut_file.h"

namespace skarvel {
namespace {

struct Freed {
    void operator()(icalcomponent* c) const { icalcomponent_free(c); }
};
using Component = std::unique_ptr<icalcomponent, Freed>;

icaltimetype time_of(Moment moment, bool utc) {
    const auto day = std::chrono::floor<std::chrono::days>(moment);
    const std::chrono::year_month_day date{day};
    const auto minutes = static_cast<int>((moment - day).count());
    icaltimetype t = icaltime_null_time();
    t.year = static_cast<int>(date.year());
    t.month = static_cast<int>(static_cast<unsigned>(date.month()));
    t.day = static_cast<int>(static_cast<unsigned>(date.day()));
    t.hour = minutes / 60;
    t.minute = minutes % 60;
    if (utc) t.zone = icaltimezone_get_utc_timezone();
    return t;
}

// The wait that the task ends, and the window that it has: the longest, and the soonest to close.
struct Bound {
    const Wait* wait = nullptr;
    std::optional<Moment> until;
};

Bound bound_of(const Task& task, const std::vector<Slot>& slots) {
    Bound bound;
    for (const Wait& w : task.waits) {
        if (w.by_machine) continue;
        if (w.at_least > Minutes(0) && (bound.wait == nullptr || w.at_least > bound.wait->at_least)) bound.wait = &w;
        if (!w.at_most) continue;
        for (const Slot& slot : slots) {
            if (slot.task == w.after && (!bound.until || slot.end + *w.closes() < *bound.until))
                bound.until = slot.end + *w.closes();
        }
    }
    return bound;
}

// What a calendar knows the job by: it stays when the plan changes.
std::string key_of(const Job& job) { return file_word(job.number.empty() ? job.title : job.number); }

std::string date_of(Moment m) {
    const std::chrono::year_month_day d{std::chrono::floor<std::chrono::days>(m)};
    return fmt::format("{:04}-{:02}-{:02}", static_cast<int>(d.year()), static_cast<unsigned>(d.month()),
                       static_cast<unsigned>(d.day()));
}

std::string hour_of(Moment m) {
    const auto minutes = (m - std::chrono::floor<std::chrono::days>(m)).count();
    return fmt::format("{:02}:{:02}", minutes / 60, minutes % 60);
}

}  // namespace

std::string calendar_of(const Job& job, const Plan& plan, const Catalogue& catalogue, const Display& display,
                        Moment stamp) {
    const Component calendar(icalcomponent_new_vcalendar());
    icalcomponent_add_property(calendar.get(), icalproperty_new_version("2.0"));
    icalcomponent_add_property(calendar.get(), icalproperty_new_prodid("-//Skarvel//Clock//EN"));
    icalcomponent_add_property(calendar.get(), icalproperty_new_method(ICAL_METHOD_PUBLISH));
    for (const Slot& slot : plan.clock->slots) {
        if (slot.done) continue;
        const Task& task = (*plan.tasks)[slot.task];
        const Bound bound = bound_of(task, plan.clock->slots);
        icalcomponent* event = icalcomponent_new_vevent();
        icalcomponent_add_component(calendar.get(), event);
        icalcomponent_set_uid(event, (task.id.name + "@" + key_of(job)).c_str());
        icalcomponent_set_dtstamp(event, time_of(stamp, true));
        icalcomponent_set_dtstart(event, time_of(slot.start, false));
        icalcomponent_set_dtend(event, time_of(slot.end, false));
        icalcomponent_set_summary(event,
                                  fmt::format("{}: {}", job.title, catalogue.say(full_name(task), display)).c_str());
        std::string about = catalogue.say({"step." + task.saying, task.name.arguments}, display);
        if (bound.wait != nullptr) about += "\n" + catalogue.say(bound.wait->why, display);
        if (bound.until) about += "\n" + catalogue.say({"calendar.until", {{"until", *bound.until}}}, display);
        icalcomponent_set_description(event, about.c_str());
        if (bound.wait == nullptr && !bound.until) continue;
        icalcomponent* alarm = icalcomponent_new_valarm();
        icalcomponent_add_component(event, alarm);
        icalcomponent_add_property(alarm, icalproperty_new_action(ICAL_ACTION_DISPLAY));
        icalcomponent_add_property(alarm,
                                   icalproperty_new_description(catalogue.say(full_name(task), display).c_str()));
        icaltriggertype at_start{};
        at_start.time = icaltime_null_time();
        at_start.duration = icaldurationtype_from_int(0);
        icalcomponent_add_property(alarm, icalproperty_new_trigger(at_start));
    }
    const std::unique_ptr<char, decltype(&free)> text(icalcomponent_as_ical_string_r(calendar.get()), &free);
    return text.get();
}

std::string days_csv(const Plan& plan, const Catalogue& catalogue, const Display& display) {
    std::string csv = "day,from,to,minutes,sign,task,after,window_until,done\r\n";
    for (const Slot& slot : plan.clock->slots) {
        const Task& task = (*plan.tasks)[slot.task];
        const Bound bound = bound_of(task, plan.clock->slots);
        csv += fmt::format("{},{},{},{},{},{},{},{},{}\r\n", date_of(slot.start), hour_of(slot.start),
                           hour_of(slot.end), std::chrono::duration_cast<Minutes>(slot.end - slot.start).count(),
                           csv_field(task.of), csv_field(catalogue.say(task.name, display)),
                           csv_field(bound.wait == nullptr ? "" : catalogue.say(bound.wait->why, display)),
                           bound.until ? date_of(*bound.until) + " " + hour_of(*bound.until) : std::string(),
                           slot.done ? 1 : 0);
    }
    return csv;
}

}  // namespace skarvel
