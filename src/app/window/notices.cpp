#include "window/notices.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>

#include "theme/roles.h"
#include "theme/theme.h"
#include "theme/words.h"
#include "window/fields.h"

namespace skarvel {
namespace {

constexpr int plain_ms = 8000;
constexpr std::size_t most_slips = 3;

}  // namespace

Notices::Notices(QWidget* parent) : QWidget(parent) {
    setObjectName("notices");
    auto* rows = new QVBoxLayout(this);
    rows->setContentsMargins(0, 0, 0, 0);
    rows->setSpacing(6);
    hide();
}

void Notices::say(const QString& message, bool trouble, const std::vector<Answer>& answers) {
    const auto same = [&](const QWidget* slip) { return slip->property("said").toString() == message; };
    if (answers.empty() && std::any_of(slips_.begin(), slips_.end(), same)) return;
    waiting_.push_back({message, trouble, answers});
    // Plain ones make room for what is new.
    for (auto slip = slips_.begin(); slips_.size() >= most_slips && slip != slips_.end(); ++slip) {
        if ((*slip)->property("stays").toBool()) continue;
        take_off(*slip);
        break;
    }
    show_next();
}

void Notices::show_next() {
    while (!waiting_.empty() && slips_.size() < most_slips) {
        const Waiting next = std::move(waiting_.front());
        waiting_.pop_front();
        auto* slip = new QWidget(this);
        slip->setObjectName("notice");
        dress(slip, Role::Notice);
        slip->setProperty("said", next.message);
        const bool stays = next.trouble || !next.answers.empty();
        slip->setProperty("stays", stays);
        auto* line = new QHBoxLayout(slip);
        QLabel* words = label(next.message, next.trouble ? Role::Stop : Role::Plain, slip);
        words->setMinimumWidth(
            std::min(560, QFontMetrics(Theme::font(15, QFont::DemiBold)).horizontalAdvance(next.message) + 8));
        words->setObjectName("notice-text");
        line->addWidget(words, 1);
        for (const auto& [name, act] : next.answers) {
            QPushButton* answer = button(name, Role::Plain, slip);
            connect(answer, &QPushButton::clicked, this, [this, slip, act = act] {
                take_off(slip);
                show_next();
                act();
            });
            line->addWidget(answer);
        }
        QPushButton* close = button({}, Role::Text, slip);
        close->setIcon(Theme::icon("x"));
        close->setAccessibleName(in_words("window.close-the-message"));
        const auto go = [this, slip] {
            take_off(slip);
            show_next();
        };
        connect(close, &QPushButton::clicked, this, go);
        line->addWidget(close);
        if (!stays) QTimer::singleShot(plain_ms, slip, go);
        layout()->addWidget(slip);
        slip->show();
        slips_.push_back(slip);
    }
    setVisible(!slips_.empty());
    place();
}

void Notices::take_off(QWidget* slip) {
    std::erase(slips_, slip);
    layout()->removeWidget(slip);
    slip->hide();
    slip->deleteLater();
    setVisible(!slips_.empty());
    place();
}

void Notices::stand(int middle, int bottom, int widest) {
    middle_ = middle;
    bottom_ = bottom;
    widest_ = widest;
    place();
}

void Notices::place() {
    setFixedWidth(std::min(widest_, 780));
    adjustSize();
    const int high = layout()->hasHeightForWidth() ? layout()->heightForWidth(width()) : sizeHint().height();
    resize(width(), high);
    move(middle_ - width() / 2, bottom_ - high);
    raise();
}

QStringList Notices::standing() const {
    QStringList all;
    for (const QWidget* slip : slips_) all << slip->property("said").toString();
    return all;
}

}  // namespace skarvel
