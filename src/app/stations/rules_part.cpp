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

RulesPart::RulesPart(Desk& desk, QWidget* parent) : TrayPart(desk, parent) {
    sought_ = field(in_words("rules.look-for"), new QLineEdit(this));
    sought_->setAccessibleName(in_words("rules.look-for"));
    sought_->setObjectName("look for rules");
    rows_ = list("rules");
    connect(sought_, &QLineEdit::textChanged, this, [this] { show_found(); });
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
        button(in_shop ? in_words("rules.holds-in-the-shop-again") : in_words("rules.holds-again"), nullptr, rows_);
    back->setObjectName(QString("hold %1").arg(text_of(rule.id)));
    rows->addWidget(back);
    connect(back, &QPushButton::clicked, this,
            [change, rule] { change([&](auto& all) { hold_again(all, rule.id); }); });
}

void RulesPart::show_found() {
    clear(rows_);
    auto* rows = rows_->layout();
    const QString sought = sought_->text().simplified();
    std::size_t shown_rules = 0;
    std::size_t more = 0;
    const auto find = [](const std::vector<Overruled>& all, const Rule& rule) -> const Overruled* {
        const auto at = std::find_if(all.begin(), all.end(), [&](const Overruled& o) { return o.rule == rule.id; });
        return at == all.end() ? nullptr : &*at;
    };
    for (const bool overruled_ones : {true, false}) {
        for (const Rule& rule : desk_.library().trade.rules) {
            const Overruled* in_job = find(desk_.job().overruled, rule);
            const Overruled* in_shop = find(desk_.shop().overruled, rule);
            const bool is = in_job != nullptr || in_shop != nullptr;
            if (is != overruled_ones) continue;
            const QString why = in_general(desk_, "rule.", rule);
            const QString remedy = in_general(desk_, "remedy.", rule);
            const bool fits =
                is || (!sought.isEmpty() &&
                       (why + " " + remedy + " " + text_of(rule.id)).contains(sought, Qt::CaseInsensitive));
            if (!fits) continue;
            if (shown_rules == most_shown) {
                ++more;
                continue;
            }
            ++shown_rules;
            const char* mark = rule.mark == Mark::Stop   ? "rules.wrong"
                               : rule.mark == Mark::Look ? "rules.doubtful"
                                                         : "rules.worth-knowing";
            auto* name = label(in_words("rules.row", {{"mark", in_words(mark)}, {"why", why}}), nullptr, rows_);
            name->setWordWrap(true);
            rows->addWidget(name);
            auto* rest = label(in_words("rules.remedy-and-basis", {{"remedy", remedy}, {"basis", text_of(rule.basis)}}),
                               "small", rows_);
            rest->setWordWrap(true);
            rows->addWidget(rest);
            if (in_job != nullptr) show_overruled(rule, *in_job, false);
            if (in_shop != nullptr) show_overruled(rule, *in_shop, true);
            if (is || rule.mark == Mark::None) continue;
            auto* both = new QWidget(rows_);
            auto* line = new QHBoxLayout(both);
            line->setContentsMargins(0, 0, 0, 6);
            auto* not_here = button(in_words("rules.not-for-this-job"), nullptr, both);
            not_here->setObjectName(QString("overrule %1").arg(text_of(rule.id)));
            auto* nowhere = button(in_words("rules.not-in-this-shop"), nullptr, both);
            nowhere->setObjectName(QString("overrule %1 in the shop").arg(text_of(rule.id)));
            line->addWidget(not_here);
            line->addWidget(nowhere);
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
    }
    const std::size_t all = desk_.library().trade.rules.size();
    QString foot = sought.isEmpty()   ? in_words("rules.how-many", {{"rules", all}})
                   : shown_rules == 0 ? in_words("rules.none")
                   : more > 0         ? in_words("rules.and-more", {{"more", more}})
                                      : QString();
    if (!foot.isEmpty()) {
        auto* last = label(foot, "small", rows_);
        last->setWordWrap(true);
        rows->addWidget(last);
    }
}

}  // namespace skarvel
