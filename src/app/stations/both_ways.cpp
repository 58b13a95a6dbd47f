#include <QGridLayout>
#include <cmath>

#include "stations/method_parts.h"
#include "theme/roles.h"
#include "theme/theme.h"
#include "theme/words.h"

namespace skarvel {

BothWays::BothWays(Desk& desk, QWidget* parent) : TrayPart(desk, parent), comparing_(this) {
    compare_ = button(in_words("both-ways.compare"), Role::Plain, this);
    compare_->setObjectName("compare both ways");
    add(compare_);
    ways_ = list("both-ways");
    connect(compare_, &QPushButton::clicked, this, &BothWays::compare);
}

void BothWays::forget() {
    found_.reset();
    comparing_.stop();
}

void BothWays::compare() {
    comparing_.run([job = desk_.job(), shop = desk_.shop(), colour = desk_.colour().id, now = desk_.now(),
                    library = desk_.shared_library()](
                       const std::stop_token& stop) { return compare_ways(job, colour, shop, *library, now, stop); },
                   [this](const std::optional<Comparison>& both) {
                       found_ = both;
                       refresh();
                   });
    refresh();
}

QString BothWays::risk_of(const Risk& risk) const {
    const std::string level = std::string("risk-level.") + word_of(risk.level);
    return in_words("method-view.risk-band", {{"level", in_words(level.c_str())},
                                              {"from", static_cast<int>(std::lround(risk.from * 100))},
                                              {"to", static_cast<int>(std::lround(risk.to * 100))}});
}

void BothWays::show_found() {
    compare_->setEnabled(!comparing_.busy());
    compare_->setText(comparing_.busy() ? in_words("both-ways.comparing") : in_words("both-ways.compare"));
    clear(ways_);
    if (!found_) return;
    auto* table = new QWidget(ways_);
    auto* grid = new QGridLayout(table);
    grid->setContentsMargins(0, 4, 0, 4);
    grid->setHorizontalSpacing(8);
    grid->setVerticalSpacing(2);
    grid->setColumnStretch(1, 1);
    grid->setColumnStretch(2, 1);
    int row = 0;
    const auto line = [&](const QString& name, const std::function<QString(const Variant&)>& tell,
                          bool strong = false) {
        auto* caption = label(name, Role::Small, table);
        caption->setWordWrap(true);
        grid->addWidget(caption, row, 0, Qt::AlignTop);
        for (int i = 0; i < 2; ++i) {
            auto* cell =
                label(tell(found_->ways[static_cast<std::size_t>(i)]), strong ? Role::Plain : Role::Small, table);
            cell->setWordWrap(true);
            if (strong) set_type(cell, Theme::font(15, QFont::DemiBold));
            grid->addWidget(cell, row, i + 1, Qt::AlignTop);
        }
        ++row;
    };
    line(
        {},
        [](const Variant& v) { return v.way == Way::Decal ? in_words("word.decal") : in_words("word.paint-through"); },
        true);
    line(in_words("both-ways.hands-on"), [](const Variant& v) { return text_of(show_minutes(v.hands_on)); });
    line(in_words("both-ways.ready"), [](const Variant& v) {
        return v.ready ? text_of(show_moment(*v.ready, true)) : in_words("both-ways.not-yet");
    });
    line(in_words("both-ways.film"), [this](const Variant& v) {
        return v.cents ? in_words("both-ways.film-worth", {{"film", length(v.film)}, {"worth", money(*v.cents)}})
                       : length(v.film);
    });
    line(in_words("method-view.may-bleed"), [this](const Variant& v) {
        return v.way == Way::Decal ? in_words("both-ways.no-paint") : risk_of(v.risks.bleed);
    });
    line(in_words("method-view.may-lift"), [this](const Variant& v) { return risk_of(v.risks.lift); });
    line(in_words("both-ways.joints"), [](const Variant& v) {
        return in_words("both-ways.found", {{"stops", v.stops}, {"looks", v.looks}});
    });
    line(in_words("both-ways.looks"), [this](const Variant& v) { return say(v.look); });
    line(in_words("both-ways.lasts"), [this](const Variant& v) { return say(v.life); });
    line(in_words("both-ways.buy-besides"), [this](const Variant& v) {
        QStringList items;
        for (const Reason& item : v.buy) items << say(item);
        return items.isEmpty() ? in_words("word.nothing") : items.join(", ");
    });
    ways_->layout()->addWidget(table);
    const bool decal = found_->suggested == Way::Decal;
    auto* why =
        label(in_words(decal ? "both-ways.suggest-decal" : "both-ways.suggest-paint", {{"why", say(found_->why)}}),
              Role::Plain, ways_);
    why->setWordWrap(true);
    ways_->layout()->addWidget(why);
    const Way now = desk_.colour().making.way;
    const Variant& other = found_->ways[now == Way::Decal ? 1 : 0];
    auto* take = button(now == Way::Decal ? in_words("both-ways.make-it-paint") : in_words("both-ways.make-it-decal"),
                        Role::Plain, ways_);
    take->setObjectName("take the other way");
    ways_->layout()->addWidget(take);
    connect(take, &QPushButton::clicked, this, [this, job = other.job] { desk_.apply(Job(job)); });
}

}  // namespace skarvel
