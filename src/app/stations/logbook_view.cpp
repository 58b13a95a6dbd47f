#include <QFrame>
#include <QGridLayout>
#include <QVBoxLayout>

#include "stations/views.h"
#include "theme/roles.h"
#include "theme/theme.h"
#include "theme/words.h"
#include "window/fields.h"

namespace skarvel {
namespace {

QWidget* card(const LogRecord& r, QWidget* parent) {
    auto* frame = new QFrame(parent);
    frame->setObjectName("record");
    dress(frame, Role::Card);
    auto* layout = new QGridLayout(frame);
    layout->setContentsMargins(16, 12, 16, 12);
    layout->setHorizontalSpacing(20);
    const auto text = [](const std::string& s) { return shown(s); };
    layout->addWidget(label(text(r.title), Role::Title, frame), 0, 0);
    QLabel* when = label(text(r.finished).replace('T', "  "), Role::Small, frame);
    when->setAlignment(Qt::AlignRight);
    layout->addWidget(when, 0, 1);
    QString words = text(r.words).replace('\n', " / ");
    layout->addWidget(label(words + ", " + text(r.size), Role::Plain, frame), 1, 0, 1, 2);
    const QString made = r.paint.empty() ? text(r.making) : text(r.making) + ", " + text(r.paint);
    layout->addWidget(label(in_words("logbook-view.sections-in-loads-keepers", {{"made", made},
                                                                                {"film", text(r.film)},
                                                                                {"film_length", text(r.film_length)},
                                                                                {"sections", r.sections},
                                                                                {"loads", r.loads},
                                                                                {"keepers", r.keepers}}),
                            Role::Plain, frame),
                      2, 0, 1, 2);
    QString times = in_words("logbook-view.hands-on-as-planned",
                             {{"hands_on_minutes", text(show_minutes(Minutes(r.hands_on_minutes)))}});
    if (r.elapsed_minutes > 0)
        times += in_words("logbook-view.from-first-tick-to",
                          {{"elapsed_minutes", text(show_minutes(Minutes(r.elapsed_minutes)))}});
    layout->addWidget(label(times, Role::Small, frame), 3, 0, 1, 2);
    const Role role = r.outcome == "good" ? Role::Good : r.outcome == "poor" ? Role::Stop : Role::Look;
    layout->addWidget(label(text(r.outcome), role, frame), 4, 0);
    if (!r.note.empty())
        layout->addWidget(label(in_words("logbook-view.next-time", {{"note", text(r.note)}}), Role::Plain, frame), 5, 0,
                          1, 2);
    return frame;
}

// Test cuts and loads, a row each: which force came out how.
QWidget* cuts_table(const std::vector<CutRecord>& cuts, QWidget* parent) {
    auto* table = new QWidget(parent);
    table->setObjectName("cuts");
    auto* grid = new QGridLayout(table);
    grid->setContentsMargins(0, 0, 0, 0);
    grid->setHorizontalSpacing(20);
    grid->setVerticalSpacing(4);
    const QStringList heads{in_words("logbook-view.when"),    in_words("logbook-view.what"),
                            in_words("logbook-view.machine"), in_words("word.film"),
                            in_words("word.force"),           in_words("word.outcome"),
                            in_words("logbook-view.time")};
    for (int c = 0; c < heads.size(); ++c) grid->addWidget(label(heads[c], Role::Small, table), 0, c);
    constexpr std::size_t most = 40;
    for (std::size_t i = 0; i < std::min(most, cuts.size()); ++i) {
        const CutRecord& r = cuts[i];
        const int row = static_cast<int>(i) + 1;
        const auto put = [&](int column, const QString& words, Role role = Role::Plain) {
            grid->addWidget(label(words, role, table), row, column);
        };
        put(0, shown(r.at).replace('T', "  "), Role::Small);
        put(1, r.what.empty() ? in_words("logbook-view.test-cut")
                              : in_words("logbook-view.what-job", {{"what", shown(r.what)}, {"job", shown(r.job)}}));
        put(2, shown(r.machine));
        put(3, shown(r.film));
        put(4, r.force > 0 ? in_words("logbook-view.g", {{"force", r.force}}) : in_words("logbook-view.as-set"));
        put(5,
            r.outcome == "good"           ? in_words("word.good")
            : r.outcome == "not-through"  ? in_words("logbook-view.not-through")
            : r.outcome == "into-backing" ? in_words("logbook-view.into-the-backing")
            : r.outcome == "perhaps-cut"  ? in_words("logbook-view.perhaps-cut")
            : r.outcome == "not-cut"      ? in_words("logbook-view.not-cut")
                                          : shown(r.outcome),
            r.outcome == "good" ? Role::Good : Role::Look);
        put(6, in_words("logbook-view.s", {{"seconds", r.seconds}}), Role::Small);
    }
    grid->setColumnStretch(1, 1);
    return table;
}

// What was tried two ways, and what came out better.
QWidget* trials_table(const std::vector<TrialRecord>& trials, QWidget* parent) {
    auto* table = new QWidget(parent);
    auto* grid = new QGridLayout(table);
    grid->setContentsMargins(0, 0, 0, 0);
    grid->setHorizontalSpacing(18);
    constexpr std::size_t most = 40;
    for (std::size_t i = 0; i < std::min(most, trials.size()); ++i) {
        const TrialRecord& r = trials[i];
        const int row = static_cast<int>(i);
        const auto way = [](const std::string& words) {
            return words.empty() ? in_words("bench-view.as-usual") : shown(words);
        };
        grid->addWidget(label(shown(r.at).section('T', 0, 0), Role::Small, table), row, 0);
        grid->addWidget(label(in_words("logbook-view.what-job", {{"what", shown(r.step)}, {"job", shown(r.job)}}),
                              Role::Plain, table),
                        row, 1);
        grid->addWidget(
            label(in_words("logbook-view.this-or-that", {{"first", way(r.first)}, {"second", way(r.second)}}),
                  Role::Plain, table),
            row, 2);
        const QString better = r.better == "first"    ? in_words("logbook-view.better", {{"way", way(r.first)}})
                               : r.better == "second" ? in_words("logbook-view.better", {{"way", way(r.second)}})
                               : r.better == "alike"  ? in_words("bench-view.alike")
                                                      : in_words("bench-view.not-yet");
        grid->addWidget(label(better, r.better == "first" || r.better == "second" ? Role::Good : Role::Small, table),
                        row, 3);
    }
    grid->setColumnStretch(2, 1);
    return table;
}

}  // namespace

LogbookView::LogbookView(Desk& desk, QWidget* parent) : QScrollArea(parent), desk_(desk) {
    setWidgetResizable(true);
    setObjectName("logbook");
    setAccessibleName(in_words("logbook-view.logbook"));
}

void LogbookView::refresh() {
    auto* body = new QWidget;
    dress(body, Role::Sheet);
    auto* layout = new QVBoxLayout(body);
    layout->setContentsMargins(24, 10, 24, 24);
    layout->setSpacing(10);
    layout->addWidget(label(in_words("logbook-view.what-happened"), Role::Title, body));
    const auto& records = desk_.records();
    layout->addWidget(label(records.empty() ? in_words("logbook-view.nothing-yet-finish-a")
                                            : in_words("logbook-view.newest-first-what-you"),
                            Role::Small, body));
    if (!desk_.job().bench.photographs.empty()) {
        layout->addWidget(label(in_words("logbook-view.photographs"), Role::Plain, body));
        auto* strip = new PhotographStrip(desk_, body);
        strip->show_step({});
        layout->addWidget(strip);
    }
    for (const LogRecord& r : records) layout->addWidget(card(r, body));
    if (!desk_.trials().empty()) {
        layout->addSpacing(12);
        layout->addWidget(label(in_words("logbook-view.tried-two-ways"), Role::Title, body));
        layout->addWidget(trials_table(desk_.trials(), body));
    }
    if (!desk_.cuts().empty()) {
        layout->addSpacing(12);
        layout->addWidget(label(in_words("logbook-view.what-went-to-a"), Role::Title, body));
        layout->addWidget(cuts_table(desk_.cuts(), body));
    }
    layout->addStretch(1);
    setWidget(body);
}

}  // namespace skarvel
