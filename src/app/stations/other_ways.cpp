#include <QEvent>

#include "stations/cutting_parts.h"
#include "theme/theme.h"
#include "theme/words.h"

namespace skarvel {

OtherWays::OtherWays(Desk& desk, QWidget* parent) : TrayPart(desk, parent), seeking_(this) {
    seek_ = button(in_words("other-ways.look-for-other-ways"), Role::Plain, this);
    seek_->setObjectName("look for other ways");
    add(seek_);
    ways_ = list("alternatives");
    connect(seek_, &QPushButton::clicked, this, [this] {
        if (!seeking_.busy()) return seek();
        // What was found until now stays.
        seeking_.stop();
        refresh();
    });
}

void OtherWays::forget() {
    found_.reset();
    desk_.look_at(nullptr);
    seeking_.stop();
}

void OtherWays::seek() {
    found_.reset();
    seeking_.run_telling(
        [job = desk_.job(), shop = desk_.shop(), colour = desk_.colour().id, now = desk_.now(),
         library = desk_.shared_library()](const std::stop_token& stop, const std::function<void(Sought)>& tell) {
            const auto told = [&](const std::vector<Alternative>& some) { tell({some, false}); };
            tell({alternatives(job, colour, shop, *library, now, stop, told), true});
        },
        [this](const Sought& sought) {
            found_ = sought.ways;
            if (sought.all) seeking_.stop();
            refresh();
        });
    refresh();
}

void OtherWays::show_found() {
    seek_->setText(seeking_.busy() ? in_words("other-ways.looking", {{"found", found_ ? found_->size() : 0}})
                                   : in_words("other-ways.look-for-other-ways"));
    clear(ways_);
    if (!found_) return;
    auto* rows = ways_->layout();
    const CutFigures now = figures_of(desk_.plan(), desk_.colour().id);
    QLabel* as_drawn = label(in_words("other-ways.as-drawn", {{"numbers", words_of(now)}}), Role::Small, ways_);
    as_drawn->setWordWrap(true);
    rows->addWidget(as_drawn);
    if (found_->empty() && !seeking_.busy())
        rows->addWidget(label(in_words("other-ways.nothing-else-comes-out"), Role::Small, ways_));
    for (std::size_t i = 0; i < found_->size(); ++i) {
        const Alternative& a = (*found_)[i];
        QPushButton* take = button({}, Role::Plain, ways_);
        // What is too long for the tray is read on the drawing, while it is pointed at.
        take->setText(take->fontMetrics().elidedText(say(a.what), Qt::ElideRight, Theme::px(236)));
        take->setAccessibleName(say(a.what));
        take->setObjectName(QString("alternative %1").arg(i + 1));
        take->setProperty("way", static_cast<int>(i));
        take->installEventFilter(this);
        rows->addWidget(take);
        QLabel* figures = label(compared(a.figures, now), Role::Small, ways_);
        figures->setWordWrap(true);
        rows->addWidget(figures);
        connect(take, &QPushButton::clicked, this, [this, job = a.job] {
            desk_.look_at(nullptr);
            desk_.apply(Job(job));
        });
    }
}

// Pointing at another way, or coming to it by keyboard, shows it on the drawing.
bool OtherWays::eventFilter(QObject* watched, QEvent* event) {
    const QVariant way = watched->property("way");
    if (way.isValid() && found_ && way.toInt() < static_cast<int>(found_->size())) {
        if (event->type() == QEvent::Enter || event->type() == QEvent::FocusIn)
            desk_.look_at(std::make_shared<const Alternative>((*found_)[static_cast<std::size_t>(way.toInt())]));
        if (event->type() == QEvent::Leave || event->type() == QEvent::FocusOut || event->type() == QEvent::Hide)
            desk_.look_at(nullptr);
    }
    return TrayPart::eventFilter(watched, event);
}

QString OtherWays::words_of(const CutFigures& f) const {
    return in_words("other-ways.of-film-by-hand", {{"sections", f.sections},
                                                   {"loads", f.loads},
                                                   {"film", length(f.film)},
                                                   {"hands_on", text_of(show_minutes(f.hands_on))}});
}

// Only what differs, with by how much.
QString OtherWays::compared(const CutFigures& f, const CutFigures& now) const {
    QStringList parts;
    const auto count = [&](int is, int was, const char* fewer, const char* more) {
        if (is != was) parts << in_words(is < was ? fewer : more, {{"by", std::abs(is - was)}});
    };
    count(f.loads, now.loads, "other-ways.fewer-loads", "other-ways.more-loads");
    count(f.sections, now.sections, "other-ways.fewer-sections", "other-ways.more-sections");
    count(f.words, now.words, "other-ways.fewer-words", "other-ways.more-words");
    count(f.crossings, now.crossings, "other-ways.fewer-crossings", "other-ways.more-crossings");
    if (f.crossed > now.crossed)
        parts << in_words("other-ways.of-ink-crossed", {{"crossed", length(f.crossed - now.crossed)}});
    if (f.film != now.film) {
        parts << (f.film < now.film ? in_words("other-ways.less-film", {{"film", length(now.film - f.film)}})
                                    : in_words("other-ways.more-film", {{"film", length(f.film - now.film)}}));
    }
    if (f.to_buy < now.to_buy) parts << in_words("other-ways.less-to-buy", {{"film", length(now.to_buy - f.to_buy)}});
    if (f.to_buy > now.to_buy) parts << in_words("other-ways.more-to-buy", {{"film", length(f.to_buy - now.to_buy)}});
    if (f.hands_on != now.hands_on) {
        const auto by = Minutes(std::abs((f.hands_on - now.hands_on).count()));
        parts << in_words(f.hands_on < now.hands_on ? "other-ways.less-work" : "other-ways.more-work",
                          {{"time", text_of(show_minutes(by))}});
    }
    return parts.isEmpty() ? in_words("other-ways.comes-out-the-same") : parts.join(", ");
}

}  // namespace skarvel
