// stations/clock_parts.h
//
// What Clock does when it is asked, and what it takes from the shop: what would make the job ready sooner; days that
// are not as usual, the room that things dry in, and the margin before a deadline.
#pragma once

#include <QCheckBox>
#include <QDateEdit>
#include <QSpinBox>
#include <QTimeEdit>

#include "job/what_helps.h"
#include "stations/tray_part.h"
#include "window/errand.h"

namespace skarvel {

/// Changes that gain time, each planned in full, with what they gain and cost; taken by a click.
class WhatHelps : public TrayPart {
    Q_OBJECT

  public:
    WhatHelps(Desk& desk, QWidget* parent);
    ~WhatHelps() override { seeking_.stop(); }

  protected:
    void forget() override;
    void show_found() override;

  private:
    void seek();
    QPushButton* seek_;
    QWidget* rows_;
    std::optional<std::vector<Help>> found_;
    Errand<std::vector<Help>> seeking_;
};

/// Work that was pinned to a moment, each with a button that takes out its pin.
class PinnedPart : public TrayPart {
    Q_OBJECT

  public:
    PinnedPart(Desk& desk, QWidget* parent);

  protected:
    void forget() override {}
    void show_found() override;

  private:
    QWidget* pins_;
};

/// How the maker is called to the bench: of the shop.
class CallsPart : public TrayPart {
    Q_OBJECT

  public:
    CallsPart(Desk& desk, QWidget* parent);

  protected:
    void forget() override {}
    void show_found() override;

  private:
    std::vector<std::pair<Check*, bool Calls::*>> ways_;
};

/// Days with other hours than usual, the room, and the margin: of the shop, so for all jobs.
class DaysPart : public TrayPart {
    Q_OBJECT

  public:
    DaysPart(Desk& desk, QWidget* parent);

  protected:
    void forget() override {}
    void show_found() override;

  private:
    void change(const std::function<void(Shop&)>& how);
    void read_weather_file();
    void show_weather();
    QWidget* days_;
    QWidget* weather_;
    QDateEdit* day_;
    QTimeEdit *from_, *to_;
    Check *others_, *fan_;
    QSpinBox *celsius_, *humidity_, *margin_, *hands_, *day_celsius_, *day_humidity_;
};

}  // namespace skarvel
