#include <QHBoxLayout>
#include <QLineEdit>
#include <QProgressBar>
#include <QSpinBox>

#include "files/print_page.h"
#include "stations/cutting_parts.h"
#include "theme/words.h"
#include "window/hand_over.h"

namespace skarvel {

SendingPart::SendingPart(Desk& desk, QWidget* parent) : TrayPart(desk, parent), sending_(this), printing_(this) {
    load_ = field(in_words("word.load"), new Choice(in_words("sending.load-to-send"), this));
    address_ = field(in_words("sending.where-the-cutter-listens"), new QLineEdit(this));
    address_->setAccessibleName(in_words("sending.address-of-the-cutter"));
    address_->setObjectName("address");
    address_->setPlaceholderText("127.0.0.1:9100");
    force_ = field(in_words("word.force"), new QSpinBox(this));
    force_->setAccessibleName(in_words("word.force"));
    force_->setObjectName("force");
    force_->setRange(0, 2000);
    force_->setSuffix(in_words("word.g"));
    force_->setSpecialValueText(in_words("sending.as-the-machine-is"));
    test_ = button(in_words("sending.test-cut"), Role::Plain, this);
    test_->setObjectName("test cut");
    test_->setToolTip(in_words("sending.a-square-with-a"));
    connect(test_, &QPushButton::clicked, this, [this] { send_load(true); });
    page_ = new QWidget(this);
    auto* page = new QVBoxLayout(page_);
    page->setContentsMargins(0, 0, 0, 0);
    page->setSpacing(4);
    add(page_);
    printer_ = field_in(page, in_words("sending.where-the-printer-listens"), new QLineEdit(page_));
    printer_->setAccessibleName(in_words("sending.address-of-the-printer"));
    printer_->setObjectName("printer");
    printer_->setPlaceholderText("127.0.0.1:9101");
    print_ = button(in_words("sending.print-its-page-first"), Role::Plain, page_);
    print_->setObjectName("print");
    page->addWidget(print_);
    connect(print_, &QPushButton::clicked, this, [this] { print_load(); });
    connect(load_, &QComboBox::activated, this, [this] { refresh(); });
    for (const QString& check : {in_words("sending.the-right-blade-is"), in_words("sending.rollers-where-they-belong"),
                                 in_words("sending.film-side-up-paper")}) {
        auto* tick = new Check(check, this);
        tick->setObjectName(check);
        add(tick);
        checks_.push_back(tick);
        connect(tick, &QCheckBox::toggled, this, [this] { refresh(); });
    }
    add(test_);
    send_ = button(in_words("sending.send-the-load"), Role::Main, this);
    send_->setObjectName("send");
    add(send_);
    auto* row = new QWidget(this);
    auto* layout = new QHBoxLayout(row);
    layout->setContentsMargins(0, 0, 0, 0);
    pause_ = button(in_words("sending.pause"), Role::Plain, row);
    pause_->setCheckable(true);
    stop_ = button(in_words("word.stop"), Role::Plain, row);
    layout->addWidget(pause_);
    layout->addWidget(stop_);
    add(row);
    progress_ = new QProgressBar(this);
    progress_->setRange(0, 100);
    progress_->setTextVisible(false);
    progress_->setAccessibleName(in_words("sending.share-that-is-cut"));
    add(progress_);
    outcome_ = label({}, Role::Small, this);
    outcome_->setObjectName("outcome");
    outcome_->setWordWrap(true);
    add(outcome_);
    connect(send_, &QPushButton::clicked, this, [this] { send_load(false); });
    connect(pause_, &QPushButton::toggled, this, [this](bool on) { holding_->paused = on; });
    connect(stop_, &QPushButton::clicked, this, [this] { stopping_.request_stop(); });
}

SendingPart::~SendingPart() {
    sending_.stop();
    printing_.stop();
}

// The knife's way is long to find where there are many letters: once for each plan.
void SendingPart::list_loads() {
    if (!desk_.current() || listed_) return;
    listed_ = true;
    const auto loads = loads_to_cut(desk_.plan(), desk_.shop());
    const QSignalBlocker quiet(load_);
    const int at = load_->currentIndex();
    load_->clear();
    for (const LoadToCut& l : loads) {
        load_->addItem(
            in_words("sending.load-about-min",
                     {{"number", l.number}, {"name", text_of(l.load->name)}, {"seconds", (l.way.seconds + 59) / 60}}),
            text_of(l.step.name));
    }
    load_->setCurrentIndex(std::clamp(at, 0, std::max(0, load_->count() - 1)));
    if (!address_->isModified() && !loads.empty()) address_->setText(text_of(loads.front().machine.address));
    if (!force_->hasFocus() && !loads.empty()) force_->setValue(loads.front().machine.force);
    printed_.clear();
    for (const LoadToCut& l : loads) printed_.push_back(is_printed(l.colour->cut.making));
}

void SendingPart::show_found() {
    list_loads();
    const auto chosen = static_cast<std::size_t>(std::max(0, load_->currentIndex()));
    page_->setVisible(chosen < printed_.size() && printed_[chosen]);
    print_->setEnabled(!printing_.busy());
    const bool checked = std::all_of(checks_.begin(), checks_.end(), [](const Check* c) { return c->isChecked(); });
    send_->setEnabled(checked && !sending_.busy() && load_->count() > 0);
    test_->setEnabled(checked && !sending_.busy() && load_->count() > 0);
    send_->setToolTip(checked ? QString() : in_words("sending.tick-what-has-been"));
    pause_->setEnabled(sending_.busy());
    stop_->setEnabled(sending_.busy());
    progress_->setVisible(sending_.busy());
}

void SendingPart::print_load() {
    const auto loads = loads_to_cut(desk_.plan(), desk_.shop());
    const auto i = static_cast<std::size_t>(load_->currentIndex());
    if (i >= loads.size()) return;
    const auto to = read_address(printer_->text().trimmed().toStdString());
    if (!to) return outcome_->setText(in_words("sending.an-address-is-a"));
    auto page = print_page(desk_.job(), desk_.plan(), loads[i]);
    if (!page) return outcome_->setText(say(page.error().what) + ": " + say(page.error().remedy));
    outcome_->setText(in_words("sending.the-page-is-being"));
    printing_.run([to = *to, pdf = page->pdf](const std::stop_token& stop) { return print(pdf, to, stop); },
                  [this, name = page->name](const Expected<std::string>& answer) {
                      if (answer) {
                          outcome_->setText(in_words("sending.printed-let-the-ink"));
                      } else {
                          const QString remedy =
                              answer.error().remedy.id.empty() ? QString() : ": " + say(answer.error().remedy);
                          outcome_->setText(say(answer.error().what) + remedy);
                      }
                      refresh();
                  });
    refresh();
}

void SendingPart::send_load(bool only_test) {
    const auto loads = loads_to_cut(desk_.plan(), desk_.shop());
    const auto i = static_cast<std::size_t>(load_->currentIndex());
    if (i >= loads.size()) return;
    const LoadToCut& load = loads[i];
    // Each test stands beside the one before.
    int tests = 0;
    for (const CutRecord& r : desk_.cuts()) tests += r.what.empty() ? 1 : 0;
    const int which = tests % test_cuts_on(load.bed);
    auto hpgl = only_test ? Expected<std::string>(test_cut(which)) : hpgl_of(load);
    if (!hpgl) return outcome_->setText(say(hpgl.error().what));
    const auto to = read_address(address_->text().trimmed().toStdString());
    if (!to) return outcome_->setText(in_words("sending.an-address-is-a-name"));
    skarvel::Box reach{{0, 0}, {to_grid(Length::from_mm(25 + which * 22)), to_grid(1_in)}};
    if (!only_test) {
        reach = {};
        for (const OnMat& s : load.sections) reach = around(reach, s.laid.film.bounds());
    }
    CutOrder order;
    order.hpgl = *hpgl;
    order.across = from_grid(reach.high.x);
    order.along = from_grid(reach.high.y);
    order.force = force_->value();
    order.speed_mm_s = load.machine.knife.speed_mm_s;
    CutRecord record;
    record.job = desk_.job().title;
    record.what = only_test ? std::string() : load.load->name;
    record.machine = load.machine.name;
    record.film = load.colour->cut.making.film.name;
    record.force = order.force;
    record.speed_mm_s = order.speed_mm_s;
    const StepId step = load.step;
    stopping_ = std::stop_source();
    holding_ = std::make_shared<SendHold>();
    pause_->setChecked(false);
    progress_->setValue(0);
    outcome_->setText(in_words("sending.the-cutter-measures-its"));
    sending_.run(
        [order, to = *to, holding = holding_, stop = stopping_.get_token(), this](const std::stop_token& closing) {
            // Closing the window stops the knife as the button does.
            const std::stop_callback both(closing, [source = stopping_]() mutable { source.request_stop(); });
            return send(
                order, to,
                [this](double share) {
                    hand_over(this, [this, share] { show_progress(static_cast<int>(share * 100)); });
                },
                *holding, stop);
        },
        [this, step, record](const Expected<CutResult>& result) { sent(step, record, result); });
    refresh();
}

void SendingPart::show_progress(int percent) {
    progress_->setValue(percent);
    outcome_->setText(holding_->paused ? in_words("sending.held-is-cut", {{"percent", percent}})
                                       : in_words("sending.the-knife-is-at", {{"percent", percent}}));
}

void SendingPart::sent(const StepId& step, CutRecord record, const Expected<CutResult>& result) {
    const bool test = record.what.empty();
    if (result) {
        record.outcome = result->outcome;
        record.seconds = result->seconds;
        desk_.record_cut(record);
    }
    if (!result) {
        const QString remedy = say(result.error().remedy);
        outcome_->setText(say(result.error().what) + (result.error().remedy.id.empty() ? QString() : ": " + remedy) +
                          ". " + in_words(holding_->begun ? "sending.perhaps-cut" : "sending.not-cut"));
        record.outcome = holding_->begun ? "perhaps-cut" : "not-cut";
        desk_.record_cut(record);
        if (holding_->begun && !test) desk_.apply(perhaps_cut(desk_.job(), step));
    } else if (result->outcome == "good" && test) {
        outcome_->setText(in_words("sending.a-good-cut-through"));
        // What came out well is what the machine is set to from now on.
        Shop shop = desk_.shop();
        for (Machine& m : shop.machines) {
            if (m.name == record.machine && record.force > 0) m.force = record.force;
        }
        desk_.set_shop(shop);
    } else if (result->outcome == "good") {
        outcome_->setText(in_words("sending.cut-in-s-through", {{"seconds", result->seconds}}));
        desk_.apply(tick(desk_.job(), desk_.plan(), step, desk_.now()));
    } else if (result->outcome == "not-through") {
        outcome_->setText(in_words("sending.not-through-leave-it"));
    } else if (result->outcome == "into-backing") {
        outcome_->setText(in_words("sending.cut-into-the-backing"));
    } else {
        outcome_->setText(in_words("sending.the-cutter-says", {{"outcome", text_of(result->outcome)}}));
    }
    refresh();
}

}  // namespace skarvel
