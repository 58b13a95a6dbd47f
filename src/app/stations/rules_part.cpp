#include <QLineEdit>

#include "job/layer_commands.h"
#include "stations/method_parts.h"
#include "theme/words.h"

namespace skarvel {
namespace {

constexpr std::size_t most_shown = 30;

// A rule without a job to speak of: what it would name is named by what it is.
QString in_general(Desk& desk, const char* what, const Rule& rule) {
    const auto word = [](const char* key) { return in_words(key).toStdString(); };
    return text_of(desk.say({std::string(what) + rule.id,
                             {{"ground", word("rules.the-ground")},
                              {"top", word("rules.the-ground")},
                              {"colour", word("rules.the-colour")},
                              {"clear", word("rules.the-clear")},
                              {"film", word("rules.the-film")},
                              {"tool", word("rules.the-tool")},
                              {"material", word("rules.the-material")},
                              {"below", word("rules.what-lies-below")},
                              {"above", word("rules.what-comes-on-it")},
                              {"margin", word("rules.less")},
                              {"tool_margin", word("rules.its-margin")},
                              {"rest", word("rules.less")},
                              {"least", word("rules.its-least-wait")},
                              {"safe", word("rules.its-safe-wait")},
                              {"from", word("rules.the-first-moment")},
                              {"to", word("rules.the-last-moment")},
                              {"contrast", 2.0},
                              {"keepers", std::int64_t{2}},
                              {"coats", std::int64_t{2}}}}));
}

}  // namespace

RulesPart::RulesPart(Desk& desk, QWidget* parent, bool page) : TrayPart(desk, parent) {
    sought_ = field(in_words("rules.look-for"), new QLineEdit(this));
    sought_->setAccessibleName(in_words("rules.look-for"));
    sought_->setObjectName(page ? "look-through-rules" : "look for rules");
    if (page) {
        auto* write = button(in_words("rules.own"), Role::Plain, this);
        write->setObjectName("write a rule");
        write->setCheckable(true);
        add(write);
        build_own();
        connect(write, &QPushButton::toggled, own_, &QWidget::setVisible);
        QStringList joints;
        for (const char* word : words_of(Joint{})) joints << in_words((std::string("rules.joint-") + word).c_str());
        joint_ = new Segmented(in_words("rules.joint"), joints, this);
        joint_->show_choice(static_cast<int>(Joint::Film));
        add(joint_);
        connect(joint_, &Segmented::chosen, this, [this](int i) {
            joint_->show_choice(i);
            show_found();
        });
    }
    rows_ = list(page ? "all-rules" : "rules");
    connect(sought_, &QLineEdit::textChanged, this, [this] { show_found(); });
}

// ---- rules of the maker's own

void RulesPart::build_own() {
    constexpr int most_asked = 3;
    own_ = new QWidget(this);
    own_->hide();
    auto* rows = new QVBoxLayout(own_);
    rows->setContentsMargins(0, 0, 0, 12);
    add(own_);
    asked_ = what_can_be_asked(desk_.library().trade);
    for (int i = 0; i < most_asked; ++i) {
        auto* row = new QWidget(own_);
        auto* line = new QHBoxLayout(row);
        line->setContentsMargins(0, 0, 0, 0);
        const QString number = QString::number(i + 1);
        auto* fact = new Choice(in_words("rules.asked", {{"number", number}}), row);
        auto* is = new Choice(in_words("rules.asked-is", {{"number", number}}), row);
        line->addWidget(label(in_words(i == 0 ? "rules.where" : "rules.and"), Role::Plain, row));
        line->addWidget(fact, 1);
        line->addWidget(is, 1);
        rows->addWidget(row);
        fact->addItem(in_words("rules.not-asked"));
        for (const Asked& a : asked_) fact->addItem(say(a.what));
        fact->setCurrentIndex(i == 0 ? 1 : 0);
        const auto values = [this, fact, is] {
            is->clear();
            const int at = fact->currentIndex() - 1;
            is->setEnabled(at >= 0);
            if (at >= 0) {
                for (const auto& [word, told] : asked_[static_cast<std::size_t>(at)].may_be)
                    is->addItem(say(told), text_of(word));
            }
            say_if_whole();
        };
        connect(fact, &QComboBox::currentIndexChanged, this, values);
        asking_.push_back({fact, is});
        values();
    }
    says_ = field_in(rows, in_words("rules.own-says"), new QLineEdit(own_));
    says_->setObjectName("own rule says");
    says_->setAccessibleName(in_words("rules.own-says"));
    says_->setMaxLength(200);
    instead_ = field_in(rows, in_words("rules.own-instead"), new QLineEdit(own_));
    instead_->setObjectName("own rule instead");
    instead_->setAccessibleName(in_words("rules.own-instead"));
    instead_->setMaxLength(200);
    mark_ = new Segmented(in_words("rules.own-is"), {in_words("rules.doubtful"), in_words("rules.wrong")}, own_);
    mark_->show_choice(0);
    connect(mark_, &Segmented::chosen, this, [this](int i) { mark_->show_choice(i); });
    rows->addWidget(mark_);
    add_ = button(in_words("rules.add-own"), Role::Main, own_);
    add_->setObjectName("add own rule");
    rows->addWidget(add_);
    connect(add_, &QPushButton::clicked, this, &RulesPart::add_own);
    connect(says_, &QLineEdit::textChanged, this, &RulesPart::say_if_whole);
    say_if_whole();
}

void RulesPart::say_if_whole() {
    if (add_ == nullptr) return;
    const OwnRule rule = written();
    add_->setEnabled(!rule.when.empty() && !rule.says.empty());
}

OwnRule RulesPart::written() const {
    OwnRule rule;
    for (const Asking& a : asking_) {
        const int at = a.fact->currentIndex() - 1;
        if (at < 0 || a.is->currentIndex() < 0) continue;
        rule.when.push_back({asked_[static_cast<std::size_t>(at)].fact, a.is->currentData().toString().toStdString()});
    }
    rule.says = says_->text().simplified().toStdString();
    rule.instead = instead_->text().simplified().toStdString();
    rule.mark = mark_->choice() == 1 ? Mark::Stop : Mark::Look;
    return rule;
}

void RulesPart::add_own() {
    Shop shop = desk_.shop();
    add_rule(shop.own_rules, written());
    says_->clear();
    instead_->clear();
    desk_.set_shop(shop);
}

void RulesPart::show_own() {
    for (const OwnRule& own : desk_.shop().own_rules) {
        show_rule(as_rule(own), text_of(own.says),
                  in_words("rules.own-rest",
                           {{"when", say(when_told(own, desk_.library().trade))}, {"instead", text_of(own.instead)}}));
        auto* gone = button(in_words("rules.take-out-own"), Role::Plain, rows_);
        gone->setObjectName(QString("take out %1").arg(text_of(own.id)));
        rows_->layout()->addWidget(gone);
        connect(gone, &QPushButton::clicked, this, [this, id = own.id] {
            Shop shop = desk_.shop();
            std::erase_if(shop.own_rules, [&](const OwnRule& r) { return r.id == id; });
            std::erase_if(shop.overruled, [&](const Overruled& o) { return o.rule == id; });
            desk_.set_shop(shop);
        });
    }
}

// What is overruled comes first: with its note, and the way back.
void RulesPart::show_overruled(const Rule& rule, const Overruled& now, bool in_shop) {
    auto* rows = rows_->layout();
    auto* note = new QLineEdit(text_of(now.note), rows_);
    note->setPlaceholderText(in_words("rules.why-not"));
    note->setAccessibleName(in_words("rules.note-on", {{"rule", in_general(desk_, "rule.", rule)}}));
    note->setObjectName(QString("note on %1").arg(text_of(rule.id)));
    rows->addWidget(note);
    const auto change = [this, in_shop](const std::function<void(std::vector<Overruled>&)>& how) {
        if (in_shop) {
            Shop shop = desk_.shop();
            how(shop.overruled);
            desk_.set_shop(shop);
        } else {
            Job job = desk_.job();
            how(job.overruled);
            desk_.apply(std::move(job));
        }
    };
    connect(note, &QLineEdit::editingFinished, this, [note, change, rule, was = now.note] {
        const std::string words = note->text().toStdString();
        if (words != was) change([&](auto& all) { overrule(all, rule.id, words); });
    });
    auto* back =
        button(in_shop ? in_words("rules.holds-in-the-shop-again") : in_words("rules.holds-again"), Role::Plain, rows_);
    back->setObjectName(QString("hold %1").arg(text_of(rule.id)));
    rows->addWidget(back);
    connect(back, &QPushButton::clicked, this,
            [change, rule] { change([&](auto& all) { hold_again(all, rule.id); }); });
}

// With its note where it is overruled, and the ways to overrule it and back.
void RulesPart::show_rule(const Rule& rule, const QString& why, const QString& rest) {
    auto* rows = rows_->layout();
    const auto find = [&](const std::vector<Overruled>& all) -> const Overruled* {
        const auto at = std::find_if(all.begin(), all.end(), [&](const Overruled& o) { return o.rule == rule.id; });
        return at == all.end() ? nullptr : &*at;
    };
    const Overruled* in_job = find(desk_.job().overruled);
    const Overruled* in_shop = find(desk_.shop().overruled);
    const char* mark = rule.mark == Mark::Stop   ? "rules.wrong"
                       : rule.mark == Mark::Look ? "rules.doubtful"
                                                 : "rules.worth-knowing";
    auto* name = label(in_words("rules.row", {{"mark", in_words(mark)}, {"why", why}}), Role::Plain, rows_);
    name->setWordWrap(true);
    rows->addWidget(name);
    auto* more = label(rest, Role::Small, rows_);
    more->setWordWrap(true);
    rows->addWidget(more);
    if (in_job != nullptr) show_overruled(rule, *in_job, false);
    if (in_shop != nullptr) show_overruled(rule, *in_shop, true);
    if (in_job != nullptr || in_shop != nullptr || rule.mark == Mark::None) return;
    auto* both = new QWidget(rows_);
    auto* line = new QHBoxLayout(both);
    line->setContentsMargins(0, 0, 0, 6);
    auto* not_here = button(in_words("rules.not-for-this-job"), Role::Plain, both);
    not_here->setObjectName(QString("overrule %1").arg(text_of(rule.id)));
    auto* nowhere = button(in_words("rules.not-in-this-shop"), Role::Plain, both);
    nowhere->setObjectName(QString("overrule %1 in the shop").arg(text_of(rule.id)));
    line->addWidget(not_here);
    line->addWidget(nowhere);
    line->addStretch(1);
    rows->addWidget(both);
    connect(not_here, &QPushButton::clicked, this, [this, id = rule.id] {
        Job job = desk_.job();
        overrule(job.overruled, id, {});
        desk_.apply(std::move(job));
    });
    connect(nowhere, &QPushButton::clicked, this, [this, id = rule.id] {
        Shop shop = desk_.shop();
        overrule(shop.overruled, id, {});
        desk_.set_shop(shop);
    });
}

void RulesPart::show_found() {
    clear(rows_);
    auto* rows = rows_->layout();
    const QString sought = sought_->text().simplified();
    std::size_t shown_rules = 0;
    std::size_t more = 0;
    const auto overruled = [&](const Rule& rule) {
        const auto is = [&](const Overruled& o) { return o.rule == rule.id; };
        const auto& job = desk_.job().overruled;
        const auto& shop = desk_.shop().overruled;
        return std::any_of(job.begin(), job.end(), is) || std::any_of(shop.begin(), shop.end(), is);
    };
    if (sought.isEmpty()) show_own();
    for (const bool overruled_ones : {true, false}) {
        for (const Rule& rule : desk_.library().trade.rules) {
            const bool is = overruled(rule);
            if (is != overruled_ones) continue;
            const QString why = in_general(desk_, "rule.", rule);
            const QString remedy = in_general(desk_, "remedy.", rule);
            const bool open = joint_ != nullptr && sought.isEmpty();
            const bool found = !sought.isEmpty() &&
                               (why + " " + remedy + " " + text_of(rule.id)).contains(sought, Qt::CaseInsensitive);
            if (open ? rule.joint != static_cast<Joint>(joint_->choice()) : !is && !found) continue;
            if (shown_rules == most_shown && !open) {
                ++more;
                continue;
            }
            ++shown_rules;
            show_rule(rule, why,
                      in_words("rules.remedy-and-basis", {{"remedy", remedy}, {"basis", text_of(rule.basis)}}));
        }
    }
    const std::size_t all = desk_.library().trade.rules.size();
    QString foot = sought.isEmpty()   ? joint_ != nullptr ? QString() : in_words("rules.how-many", {{"rules", all}})
                     : shown_rules == 0 ? in_words("rules.none")
                   : more > 0         ? in_words("rules.and-more", {{"more", more}})
                                      : QString();
    if (!foot.isEmpty()) {
        auto* last = label(foot, Role::Small, rows_);
        last->setWordWrap(true);
        rows->addWidget(last);
    }
}

}  // namespace skarvel
