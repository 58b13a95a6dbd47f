// The tray of Clock: when the job is wanted, and what each wait is for.
#include "stations/clock_parts.h"
#include "stations/form.h"
#include "theme/words.h"

namespace skarvel {
namespace {

using JobForm = Form<Job>;

class ClockTray : public Tray {
  public:
    ClockTray(Desk& desk, QWidget* parent)
        : Tray(Station::Clock, desk, parent),
          form_(
              *this, [this] { return &desk_.job(); },
              [this](const JobForm::Change& change, const QString& merge) { edit(change, merge); }) {
        title(in_words("tray.when-it-is-wanted"));
        form_.tick_of(
            in_words("tray.there-is-a-deadline"), [](const Job& job) { return job.deadline.has_value(); },
            [this](Job& job, bool wanted) { want(job, wanted, desk_.now()); });
        form_.moment_of(
            in_words("tray.deadline"), "deadline", [](const Job& job) { return job.deadline; },
            [](Job& job, Moment at) { lens(&Job::deadline).put(job, at); });
        form_.tick_of(
            in_words("clock-tray.begins-later"), [](const Job& job) { return job.begin_on.has_value(); },
            [this](Job& job, bool later) { begin_later(job, later, desk_.now()); });
        form_.moment_of(
            in_words("clock-tray.begin-on"), "begin-on", [](const Job& job) { return job.begin_on; },
            [](Job& job, Moment at) { lens(&Job::begin_on).put(job, at); });
        auto* waits = new Segmented(in_words("tray.waits-before-film-goes"),
                                    {in_words("tray.least"), in_words("tray.safe")}, this);
        form_.row(in_words("tray.waits-before-film-goes"), waits);
        connect(waits, &Segmented::chosen, this, [this](int i) {
            edit_face([&](Face& f) { lens(&Face::finish, &Finish::safe_waits).put(f, i == 1); });
        });
        form_.on_refresh([this, waits](const Job&) { waits->show_choice(face().finish.safe_waits ? 1 : 0); });
        form_.line(
            in_words("tray.job-number"), [](const Job& job) { return text_of(job.number); },
            [](Job& job, const std::string& words) { lens(&Job::number).put(job, words); });
        form_.line(
            in_words("tray.customer"), [](const Job& job) { return text_of(job.customer); },
            [](Job& job, const std::string& words) { lens(&Job::customer).put(job, words); });
        group(in_words("clock-tray.what-would-help"), [this] { add_part<WhatHelps>(); });
        group(in_words("clock-tray.pinned-work"), [this] { add_part<PinnedPart>(); });
        group(in_words("clock-tray.calls"), [this] { add_part<CallsPart>(); });
        group(in_words("clock-tray.days-and-room"), [this] { add_part<DaysPart>(); });
    }

    void refresh() override {
        form_.refresh();
        refresh_parts();
        const Schedule& c = *desk_.plan().clock;
        begin_follows(in_words("word.what-follows"));
        if (!c.slots.empty()) {
            fact(in_words(desk_.job().begin_on ? "clock-tray.begun-then" : "clock-tray.begun-now"),
                 text_of(show_moment(c.begin, true)));
            if (c.start_by) fact(in_words("tray.start-by"), text_of(show_moment(*c.start_by, true)));
            fact(in_words("tray.ready"), text_of(show_moment(c.ready, true)));
            if (c.slack && *c.slack > Minutes(0)) fact(in_words("tray.slack"), text_of(show_minutes(*c.slack)));
            Minutes taken{0};
            for (const Interval& i : desk_.present().taken) {
                if (i.from < c.ready) taken += i.to - i.from;
            }
            if (taken > Minutes(0)) fact(in_words("clock-tray.kept-free"), text_of(show_minutes(taken)));
            fact(in_words("clock-tray.the-best"),
                 c.best ? in_words("clock-tray.is-best")
                        : in_words("clock-tray.may-be-better",
                                   {{"by", std::chrono::duration_cast<Minutes>(c.ready - c.bound)}}));
            fact(in_words("tray.hands-on"), text_of(show_minutes(c.hands_on)));
            if (c.setup_saved > Minutes(0))
                fact(in_words("clock-tray.saved-by-rounds"), text_of(show_minutes(c.setup_saved)));
            fact(in_words("tray.waits-in-a-row"), text_of(show_minutes(c.chain_waits)));
        }
        problems();
        heading(in_words("tray.what-each-wait-is"));
        for (const Wait& w : c.chain) why(in_words("tray.wait-and-why", {{"wait", w.at_least}, {"why", w.why}}));
        end_follows();
    }

  private:
    JobForm form_;
};

}  // namespace

Tray* make_clock_tray(Desk& desk, QWidget* parent) { return new ClockTray(desk, parent); }

}  // namespace skarvel
