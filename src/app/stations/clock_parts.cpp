#include "stations/clock_parts.h"

#include <QHBoxLayout>
#include <algorithm>

#include "cost/film_cost.h"
#include "files/save.h"
#include "files/weather.h"
#include "job/commands.h"
#include "theme/theme.h"
#include "theme/words.h"
#include "window/file_chooser.h"

namespace skarvel {

WhatHelps::WhatHelps(Desk& desk, QWidget* parent) : TrayPart(desk, parent), seeking_(this) {
    seek_ = button(in_words("clock-tray.look-for-time"), Role::Plain, this);
    seek_->setObjectName("look for time");
    add(seek_);
    rows_ = list("helps");
    connect(seek_, &QPushButton::clicked, this, &WhatHelps::seek);
}

void WhatHelps::forget() {
    found_.reset();
    seeking_.stop();
}

void WhatHelps::seek() {
    seeking_.run([job = desk_.job(), shop = desk_.shop(), now = desk_.present(), library = desk_.shared_library()](
                     const std::stop_token& stop) { return what_helps(job, shop, *library, now, stop); },
                 [this](const std::vector<Help>& all) {
                     found_ = all;
                     refresh();
                 });
    refresh();
}

void WhatHelps::show_found() {
    seek_->setEnabled(!seeking_.busy());
    seek_->setText(seeking_.busy() ? in_words("clock-tray.trying") : in_words("clock-tray.look-for-time"));
    clear(rows_);
    if (!found_) return;
    auto* rows = rows_->layout();
    if (found_->empty()) rows->addWidget(label(in_words("clock-tray.nothing-gains-time"), Role::Small, rows_));
    int number = 0;
    for (const Help& help : *found_) {
        QPushButton* take = button({}, Role::Plain, rows_);
        take->setText(take->fontMetrics().elidedText(say(help.what), Qt::ElideRight, Theme::px(236)));
        take->setToolTip(say(help.what));
        take->setAccessibleName(say(help.what));
        take->setObjectName(QString("help %1").arg(++number));
        rows->addWidget(take);
        const bool less = help.hands_on < Minutes(0);
        QLabel* figures =
            label(in_words(help.in_window ? "clock-tray.help-in-window"
                           : help.in_time ? "clock-tray.help-in-time"
                                          : "clock-tray.help-late",
                           {{"gained", help.gained}, {"ready", help.ready}}) +
                      (help.hands_on == Minutes(0) ? QString()
                                                   : in_words(less ? "clock-tray.less-work" : "clock-tray.more-work",
                                                              {{"work", less ? -help.hands_on : help.hands_on}})) +
                      (help.cents.value_or(0) == 0
                           ? QString()
                           : in_words(*help.cents < 0 ? "clock-tray.less-money" : "clock-tray.more-money",
                                      {{"money", text_of(money(std::abs(*help.cents)))}})),
                  Role::Small, rows_);
        figures->setWordWrap(true);
        rows->addWidget(figures);
        connect(take, &QPushButton::clicked, this, [this, help] {
            if (help.of_shop)
                desk_.set_shop(help.shop);
            else
                desk_.apply(Job(help.job));
        });
    }
}

PinnedPart::PinnedPart(Desk& desk, QWidget* parent) : TrayPart(desk, parent), pins_(list("pinned-work")) {
    show_found();
}

void PinnedPart::show_found() {
    clear(pins_);
    if (desk_.job().pinned.empty())
        pins_->layout()->addWidget(label(in_words("clock-tray.nothing-pinned"), Role::Small, pins_));
    for (const auto& [id, at] : desk_.job().pinned) {
        const auto& tasks = *desk_.plan().tasks;
        const auto task =
            std::find_if(tasks.begin(), tasks.end(), [&, step = id](const Task& t) { return t.id == step; });
        const QString name = task == tasks.end() ? text_of(id.name) : say(full_name(*task));
        auto* said = label(in_words("clock-tray.pinned-to", {{"task", name}, {"at", at}}), Role::Small, pins_);
        said->setWordWrap(true);
        pins_->layout()->addWidget(said);
        auto* out = button(in_words("clock-tray.take-out-pin"), Role::Plain, pins_);
        out->setAccessibleName(in_words("clock-tray.take-out-pin") + ": " + name);
        pins_->layout()->addWidget(out);
        connect(out, &QPushButton::clicked, this, [this, step = id] {
            Job job = desk_.job();
            pin(job, step, std::nullopt);
            desk_.apply(std::move(job));
        });
    }
}

CallsPart::CallsPart(Desk& desk, QWidget* parent) : TrayPart(desk, parent) {
    for (const auto& [name, way] :
         {std::pair("clock-tray.call-sound", &Calls::sound), std::pair("clock-tray.call-notice", &Calls::notice),
          std::pair("clock-tray.call-flash", &Calls::flash), std::pair("clock-tray.call-aloud", &Calls::aloud)}) {
        auto* tick = new Check(in_words(name), this);
        tick->setObjectName(name);
        add(tick);
        ways_.emplace_back(tick, way);
        connect(tick, &QCheckBox::toggled, this, [this, way = way](bool on) {
            Shop shop = desk_.shop();
            shop.calls.*way = on;
            if (!(shop == desk_.shop())) desk_.set_shop(shop);
        });
    }
    show_found();
}

void CallsPart::show_found() {
    for (const auto& [tick, way] : ways_) {
        const QSignalBlocker quiet(tick);
        tick->setChecked(desk_.shop().calls.*way);
    }
}

DaysPart::DaysPart(Desk& desk, QWidget* parent) : TrayPart(desk, parent) {
    days_ = list("changed-days");
    day_ = field(in_words("clock-tray.another-day"), new QDateEdit(this));
    day_->setCalendarPopup(true);
    day_->setDisplayFormat(in_words("clock-tray.day-format"));
    day_->setAccessibleName(in_words("clock-tray.another-day"));
    day_->setObjectName("changed-day");
    auto* row = new QWidget(this);
    auto* line = new QHBoxLayout(row);
    line->setContentsMargins(0, 0, 0, 0);
    const auto time = [&](const char* name, int hour) {
        auto* made = new QTimeEdit(QTime(hour, 0), row);
        made->setDisplayFormat("HH:mm");
        made->setButtonSymbols(QAbstractSpinBox::NoButtons);
        made->setAccessibleName(in_words(name));
        line->addWidget(made);
        return made;
    };
    from_ = time("clock-tray.work-from", 18);
    to_ = time("clock-tray.work-to", 20);
    add(row);
    auto* work = button(in_words("clock-tray.work-then"), Role::Plain, this);
    work->setObjectName("work then");
    auto* off = button(in_words("clock-tray.day-off"), Role::Plain, this);
    off->setObjectName("day off");
    add(work);
    add(off);
    const auto put = [this](bool works) {
        const int from = QTime(0, 0).secsTo(from_->time()) / 60;
        const int to = QTime(0, 0).secsTo(to_->time()) / 60;
        if (works && from >= to) return Q_EMIT desk_.said(in_words("shop-page.the-hours-end-before"), true);
        const Moment day{std::chrono::days(QDate(1970, 1, 1).daysTo(day_->date()))};
        change([&](Shop& s) {
            std::erase_if(s.changed_days, [&](const ChangedDay& c) { return c.day == day; });
            s.changed_days.push_back({day, works ? from : 0, works ? to : 0});
        });
    };
    connect(work, &QPushButton::clicked, this, [put] { put(true); });
    connect(off, &QPushButton::clicked, this, [put] { put(false); });
    const auto number = [&](const char* name, int least, int most, const char* suffix, const auto& how) {
        auto* made = field(in_words(name), new QSpinBox(this));
        made->setRange(least, most);
        if (suffix != nullptr) made->setSuffix(in_words(suffix));
        made->setAccessibleName(in_words(name));
        made->setKeyboardTracking(false);
        connect(made, &QSpinBox::valueChanged, this,
                [this, how](int value) { change([&](Shop& s) { how(s, value); }); });
        return made;
    };
    celsius_ =
        number("clock-tray.room-warm", -20, 50, "clock-tray.degrees", [](Shop& s, int v) { s.room_celsius = v; });
    humidity_ =
        number("clock-tray.room-damp", 0, 100, "clock-tray.percent", [](Shop& s, int v) { s.room_humidity = v; });
    fan_ = new Check(in_words("clock-tray.fan"), this);
    fan_->setObjectName("fan");
    add(fan_);
    connect(fan_, &QCheckBox::toggled, this, [this](bool on) { change([&](Shop& s) { s.fan = on; }); });
    add(label(in_words("clock-tray.other-days"), Role::Small, this));
    auto* then = new QWidget(this);
    auto* of_day = new QHBoxLayout(then);
    of_day->setContentsMargins(0, 0, 0, 0);
    const auto weather_of = [&](const char* name, int least, int most, int value, const char* suffix) {
        auto* made = new QSpinBox(then);
        made->setRange(least, most);
        made->setValue(value);
        made->setSuffix(in_words(suffix));
        made->setButtonSymbols(QAbstractSpinBox::NoButtons);
        made->setAccessibleName(in_words(name));
        made->setObjectName(name);
        of_day->addWidget(made);
        return made;
    };
    day_celsius_ = weather_of("clock-tray.day-warm", -50, 60, 20, "clock-tray.degrees");
    day_humidity_ = weather_of("clock-tray.day-damp", 0, 100, 50, "clock-tray.percent");
    auto* so = button(in_words("clock-tray.that-day"), Role::Plain, then);
    so->setObjectName("that day");
    of_day->addWidget(so);
    add(then);
    connect(so, &QPushButton::clicked, this, [this] {
        const Moment day{std::chrono::days(QDate(1970, 1, 1).daysTo(day_->date()))};
        change([&](Shop& s) {
            std::erase_if(s.weather, [&](const DayRoom& d) { return d.day == day; });
            s.weather.push_back({day, day_celsius_->value(), day_humidity_->value()});
        });
    });
    auto* read = button(in_words("clock-tray.read-weather"), Role::Plain, this);
    read->setObjectName("read weather");
    add(read);
    connect(read, &QPushButton::clicked, this, &DaysPart::read_weather_file);
    weather_ = list("weather");
    others_ = new Check(in_words("clock-tray.minds-others"), this);
    others_->setObjectName("minds-others");
    add(others_);
    connect(others_, &QCheckBox::toggled, this, [this](bool on) { change([&](Shop& s) { s.minds_others = on; }); });
    hands_ = number("clock-tray.hands", 1, 8, nullptr, [](Shop& s, int v) { s.pairs_of_hands = v; });
    margin_ = number("clock-tray.margin", 0, 240, "clock-tray.hours", [](Shop& s, int v) { s.margin_hours = v; });
    show_found();
}

void DaysPart::change(const std::function<void(Shop&)>& how) {
    Shop shop = desk_.shop();
    how(shop);
    if (!(shop == desk_.shop())) desk_.set_shop(shop);
}

// Days that are read take the place of what was known of them.
void DaysPart::read_weather_file() {
    const QString name = FileChooser::file(this, in_words("clock-tray.which-weather"), {"*.csv", "*.txt", "*.tsv"});
    if (name.isEmpty()) return;
    const auto text = read_file(name.toStdString());
    const auto days = text ? read_weather(*text, desk_.now()) : tl::unexpected(text.error());
    if (!days) return Q_EMIT desk_.said(say(days.error().what) + ": " + say(days.error().remedy), true);
    change([&](Shop& s) {
        for (const DayRoom& d : *days) {
            std::erase_if(s.weather, [&](const DayRoom& known) { return known.day == d.day; });
            s.weather.push_back(d);
        }
    });
    Q_EMIT desk_.said(in_words("clock-tray.weather-read", {{"days", days->size()}}), false);
}

void DaysPart::show_weather() {
    clear(weather_);
    std::vector<DayRoom> days = desk_.shop().weather;
    const Moment today{std::chrono::floor<std::chrono::days>(desk_.now())};
    // What is over makes nothing slower any more.
    std::erase_if(days, [&](const DayRoom& d) { return d.day < today; });
    std::sort(days.begin(), days.end(), [](const DayRoom& a, const DayRoom& b) { return a.day < b.day; });
    for (const DayRoom& d : days) {
        auto* row = new QWidget(weather_);
        auto* line = new QHBoxLayout(row);
        line->setContentsMargins(0, 0, 0, 0);
        const QString words =
            in_words("clock-tray.weather-of", {{"day", text_of(show_moment(d.day, true)).section(' ', 0, 2)},
                                               {"celsius", d.celsius},
                                               {"humidity", d.humidity}});
        line->addWidget(label(words, Role::Small, row), 1);
        auto* away = button(in_words("clock-tray.as-usual"), Role::Plain, row);
        away->setAccessibleName(words + ": " + in_words("clock-tray.as-usual"));
        line->addWidget(away);
        connect(away, &QPushButton::clicked, this,
                [this, d] { change([&](Shop& shop) { std::erase(shop.weather, d); }); });
        weather_->layout()->addWidget(row);
    }
}

void DaysPart::show_found() {
    const Shop& s = desk_.shop();
    for (const auto& [box, value] : {std::pair(celsius_, s.room_celsius), std::pair(humidity_, s.room_humidity),
                                     std::pair(margin_, s.margin_hours), std::pair(hands_, s.pairs_of_hands)}) {
        const QSignalBlocker quiet(box);
        box->setValue(value);
    }
    for (const auto& [box, on] : {std::pair(others_, s.minds_others), std::pair(fan_, s.fan)}) {
        const QSignalBlocker quiet(box);
        box->setChecked(on);
    }
    show_weather();
    if (!day_->hasFocus() && day_->property("set").isNull()) {
        const auto today = std::chrono::floor<std::chrono::days>(desk_.now());
        day_->setDate(QDate(1970, 1, 1).addDays(today.time_since_epoch().count()));
        day_->setProperty("set", true);
    }
    clear(days_);
    for (const ChangedDay& c : s.changed_days) {
        auto* row = new QWidget(days_);
        auto* line = new QHBoxLayout(row);
        line->setContentsMargins(0, 0, 0, 0);
        const QString words =
            c.from < c.to
                ? in_words("clock-tray.changed-hours", {{"from", text_of(show_moment(c.day + Minutes(c.from), true))},
                                                        {"length", Minutes(c.to - c.from)}})
                : in_words("clock-tray.changed-off", {{"day", text_of(show_moment(c.day, true)).section(' ', 0, 2)}});
        auto* said = label(words, Role::Small, row);
        said->setWordWrap(true);
        line->addWidget(said, 1);
        auto* away = button(in_words("clock-tray.as-usual"), Role::Plain, row);
        away->setAccessibleName(words + ": " + in_words("clock-tray.as-usual"));
        line->addWidget(away);
        connect(away, &QPushButton::clicked, this,
                [this, c] { change([&](Shop& shop) { std::erase(shop.changed_days, c); }); });
        days_->layout()->addWidget(row);
    }
}

}  // namespace skarvel
