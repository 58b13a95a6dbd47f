#include "stations/mishap_panel.h"

#include <QHBoxLayout>
#include <QLineEdit>
#include <QSpinBox>

#include "cost/film_cost.h"
#include "job/commands.h"
#include "theme/roles.h"
#include "theme/theme.h"
#include "theme/words.h"

namespace skarvel {
namespace {

QPushButton* big(const QString& text, QWidget* parent) {
    QPushButton* made = button(text, Role::Plain, parent);
    made->setMinimumHeight(least_target);
    set_type(made, Theme::font(20, QFont::DemiBold));
    return made;
}

void empty(QLayout* layout) {
    while (QLayoutItem* item = layout->takeAt(0)) {
        if (item->widget() != nullptr) {
            item->widget()->hide();
            item->widget()->deleteLater();
        }
        delete item;
    }
}

// Work that can be done in one way here and in another there.
bool can_be_split(Work work) {
    switch (work) {
        case Work::Sand:
        case Work::Ground:
        case Work::ClearUnder:
        case Work::Clear:
        case Work::Seal:
        case Work::Colour:
        case Work::Lift:
        case Work::DryBrush:
        case Work::Distress:
            return true;
        default:
            return false;
    }
}

bool is_coat(Work work) {
    return work == Work::Colour || work == Work::Ground || work == Work::Clear || work == Work::ClearUnder ||
           work == Work::DryBrush;
}

}  // namespace

MishapPanel::MishapPanel(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk), spoiling_(this) {
    auto* all = new QVBoxLayout(this);
    all->setContentsMargins(0, 0, 0, 0);
    all->setSpacing(8);
    buttons_ = new QGridLayout;
    buttons_->setSpacing(8);
    all->addLayout(buttons_);
    rows_ = new QVBoxLayout;
    rows_->setSpacing(8);
    all->addLayout(rows_);
    all->addStretch(1);
}

void MishapPanel::show_step(const Step* step) {
    spoiling_.stop();
    empty(buttons_);
    empty(rows_);
    place_ = 0;
    step_ = step == nullptr ? StepId{} : step->id;
    if (step == nullptr) return;
    const Step& s = *step;
    for (const std::string& kind : s.may_happen) {
        offer(in_words(("mishap." + kind).c_str()), QString::fromStdString("happened-" + kind),
              [this, kind](const Step& at) {
                  // The machine is set for the next time, and says so.
                  const Shop shop = force_after(desk_.shop(), desk_.plan(), at.id, kind);
                  if (!(shop == desk_.shop())) {
                      desk_.set_shop(shop);
                      Q_EMIT desk_.said(
                          in_words(kind == "not-through" ? "bench-view.more-force" : "bench-view.less-force"), false);
                  }
                  return happened(desk_.job(), desk_.plan(), at.id, kind, desk_.now(), desk_.library().trade);
              });
    }
    if (is_coat(s.work))
        offer(in_words("bench-view.another-coat"), "another-coat",
              [this](const Step& at) { return another_coat(desk_.job(), at); });
    if (!s.done) {
        QPushButton* dark = big(in_words("bench-view.it-got-dark"), this);
        dark->setObjectName("it-got-dark");
        place(dark);
        connect(dark, &QPushButton::clicked, this, [this] {
            Q_EMIT said();
            desk_.set_shop(stop_for_today(desk_.shop(), desk_.now()));
        });
    }
    if (!s.done && s.work != Work::Proof) leave_out();
    if (const auto cut = cut_in_hand(desk_.job(), desk_.plan(), s); !cut.empty()) {
        spoiling_.run(
            [cut, job = desk_.job(), plan = desk_.plan(), shop = desk_.shop(), library = desk_.shared_library(),
             present = desk_.present()](const std::stop_token& stop) {
                std::vector<Spoiling> all;
                for (const CutAt& at : cut) {
                    if (auto one = what_spoiling_costs(job, plan, shop, *library, present, at, stop))
                        all.push_back(std::move(*one));
                }
                return all;
            },
            [this](const std::vector<Spoiling>& all) {
                for (const Spoiling& one : all) offer_spoilt(one);
            });
    }
    if (can_be_split(s.work)) two_ways(s);
    if (s.trial && s.done) judge(s);
    if (s.done && s.hands_on.count() > 0) how_long(s);
    if (s.work == Work::Proof && s.done) who_said_yes();
}

void MishapPanel::apply(const Change& change) {
    desk_.wait_for_plan();
    for (const Step& s : desk_.plan().bench->steps) {
        if (s.id != step_) continue;
        Job changed = change(s);
        Q_EMIT said();
        return desk_.apply(std::move(changed));
    }
}

void MishapPanel::offer(const QString& words, const QString& name, const Change& change) {
    QPushButton* b = big(words, this);
    b->setObjectName(name);
    place(b);
    connect(b, &QPushButton::clicked, this, [this, change] { apply(change); });
}

void MishapPanel::place(QPushButton* b) {
    constexpr int columns = 3;
    buttons_->addWidget(b, place_ / columns, place_ % columns);
    buttons_->setColumnStretch(place_ % columns, 1);
    ++place_;
}

// With its reason, in the maker's own words where there are any.
void MishapPanel::leave_out() {
    QWidget* made = row(in_words("bench-view.leave-it-out"));
    auto* reason = new QLineEdit(made);
    reason->setPlaceholderText(in_words("bench-view.why-left-out"));
    reason->setAccessibleName(in_words("bench-view.why-left-out"));
    reason->setObjectName("why-left-out");
    made->layout()->addWidget(reason);
    QPushButton* out = button(in_words("bench-view.leave-out"), Role::Plain, made);
    out->setObjectName("leave-it-out");
    out->setMinimumHeight(Theme::px(44));
    made->layout()->addWidget(out);
    connect(out, &QPushButton::clicked, this, [this, reason] {
        const QString typed = reason->text().trimmed();
        const std::string why = (typed.isEmpty() ? in_words("bench-view.left-out-at-the-bench") : typed).toStdString();
        apply([this, why](const Step& at) { return skip(desk_.job(), desk_.plan(), at.id, why, desk_.now()); });
    });
}

// What it comes to stands on the button.
void MishapPanel::offer_spoilt(const Spoiling& spoiling) {
    QStringList costs;
    if (spoiling.film > Length{}) {
        QString from;
        for (const FilmFrom& f : spoiling.from) {
            if (!f.roll.empty()) from = text_of(f.roll);
        }
        costs << (from.isEmpty() ? in_words("bench-view.spoilt-film-to-buy", {{"film", spoiling.film}})
                                 : in_words("bench-view.spoilt-film", {{"film", spoiling.film}, {"from", from}}));
    }
    if (spoiling.hands_on > Minutes(0)) costs << in_words("bench-view.spoilt-work", {{"work", spoiling.hands_on}});
    if (spoiling.later > Minutes(0)) costs << in_words("bench-view.spoilt-later", {{"ready", spoiling.ready}});
    if (spoiling.cents && *spoiling.cents > 0)
        costs << in_words("bench-view.spoilt-worth", {{"worth", text_of(money(*spoiling.cents))}});
    auto* made = new QWidget(this);
    auto* line = new QHBoxLayout(made);
    line->setContentsMargins(0, 0, 0, 0);
    line->setSpacing(12);
    QPushButton* again = big(in_words("bench-view.spoilt", {{"letters", text_of(spoiling.letters)}}), made);
    again->setObjectName("spoilt " + text_of(spoiling.letters));
    line->addWidget(again, 1);
    QLabel* told = label(costs.isEmpty() ? in_words("bench-view.spoilt-nothing") : costs.join("\n"), Role::Plain, made);
    told->setWordWrap(true);
    again->setAccessibleDescription(told->text());
    line->addWidget(told, 1);
    rows_->insertWidget(0, made);
    connect(again, &QPushButton::clicked, this,
            [this, job = spoiling.job] { apply([job](const Step&) { return job; }); });
}

QWidget* MishapPanel::row(const QString& name) {
    auto* made = new QWidget(this);
    auto* line = new QHBoxLayout(made);
    line->setContentsMargins(0, 0, 0, 0);
    line->setSpacing(8);
    line->addWidget(label(name, Role::Plain, made));
    rows_->addWidget(made);
    return made;
}

void MishapPanel::two_ways(const Step& s) {
    const SplitTrial now = s.trial.value_or(SplitTrial{s.id, Halves::LeftRight, {}, {}, Better::NotYet});
    QWidget* made = row(in_words("bench-view.two-ways"));
    auto* halves = new Segmented(in_words("bench-view.two-ways"),
                                 {in_words("bench-view.left-and-right"), in_words("bench-view.top-and-bottom")}, made);
    halves->show_choice(static_cast<int>(now.halves));
    made->layout()->addWidget(halves);
    const auto edit = [&](const char* hint, const std::string& words, const char* name) {
        auto* field = new QLineEdit(text_of(words), made);
        field->setPlaceholderText(in_words(hint));
        field->setAccessibleName(in_words(hint));
        field->setObjectName(name);
        made->layout()->addWidget(field);
        return field;
    };
    auto* first = edit("bench-view.one-way", now.first, "first-way");
    auto* second = edit("bench-view.other-way", now.second, "second-way");
    QPushButton* keep = button(in_words("bench-view.try-both"), Role::Plain, made);
    keep->setObjectName("try-both");
    keep->setMinimumHeight(Theme::px(44));
    made->layout()->addWidget(keep);
    auto chosen = std::make_shared<int>(static_cast<int>(now.halves));
    connect(halves, &Segmented::chosen, made, [chosen](int i) { *chosen = i; });
    connect(keep, &QPushButton::clicked, this, [this, first, second, chosen, better = now.better] {
        const SplitTrial trial{step_, static_cast<Halves>(*chosen), first->text().trimmed().toStdString(),
                               second->text().trimmed().toStdString(), better};
        apply([this, trial](const Step&) { return try_two_ways(desk_.job(), desk_.plan(), trial); });
    });
}

void MishapPanel::judge(const Step& s) {
    QWidget* made = row(in_words("bench-view.which-was-better"));
    const QString first = text_of(s.trial->first), second = text_of(s.trial->second);
    auto* which =
        new Segmented(in_words("bench-view.which-was-better"),
                      {in_words("bench-view.not-yet"), first.isEmpty() ? in_words("bench-view.as-usual") : first,
                       second.isEmpty() ? in_words("bench-view.as-usual") : second, in_words("bench-view.alike")},
                      made);
    which->setObjectName("better");
    which->show_choice(static_cast<int>(s.trial->better));
    made->layout()->addWidget(which);
    connect(which, &Segmented::chosen, this, [this](int i) {
        apply([this, i](const Step& at) { return judge_trial(desk_.job(), at.id, static_cast<Better>(i)); });
    });
}

void MishapPanel::how_long(const Step& s) {
    QWidget* made = row(in_words("bench-view.it-took", {{"planned", s.hands_on}}));
    auto* minutes = new QSpinBox(made);
    minutes->setRange(0, 24 * 60);
    minutes->setSuffix(in_words("bench-view.minutes-suffix"));
    minutes->setSpecialValueText(in_words("bench-view.not-measured"));
    minutes->setValue(s.took ? static_cast<int>(s.took->count()) : 0);
    minutes->setAccessibleName(in_words("bench-view.it-took", {{"planned", s.hands_on}}));
    minutes->setObjectName("took");
    minutes->setKeyboardTracking(false);
    made->layout()->addWidget(minutes);
    static_cast<QHBoxLayout*>(made->layout())->addStretch(1);
    connect(minutes, &QSpinBox::editingFinished, this, [this, minutes] {
        const Job changed = took(desk_.job(), step_, minutes->value());
        if (!(changed == desk_.job())) desk_.apply(Job(changed));
    });
}

void MishapPanel::who_said_yes() {
    QWidget* made = row(in_words("tray.who-said-yes"));
    auto* who = new QLineEdit(desk_.job().proof ? text_of(desk_.job().proof->by) : QString(), made);
    who->setAccessibleName(in_words("tray.who-said-yes"));
    who->setObjectName("said-yes");
    made->layout()->addWidget(who);
    connect(who, &QLineEdit::editingFinished, this, [this, who] {
        Job changed = said_yes(desk_.job(), who->text().trimmed().toStdString());
        if (!(changed == desk_.job())) desk_.apply(std::move(changed));
    });
}

}  // namespace skarvel
