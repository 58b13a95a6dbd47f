#include "window/first_start.h"

#include <QVBoxLayout>

#include "theme/theme.h"
#include "theme/words.h"
#include "window/fields.h"

namespace skarvel {
namespace {

// Evenings and Saturday morning, all day on weekdays, mornings.
Hours hours_like(int choice) {
    Hours hours = usual_shop().hours;
    if (choice == 0) return hours;
    for (auto& day : hours.days) day.clear();
    for (std::size_t day = 1; day <= 5; ++day)
        hours.days.at(day) = {choice == 1 ? Hours::Sitting{8 * 60, 17 * 60} : Hours::Sitting{8 * 60, 12 * 60}};
    return hours;
}

}  // namespace

FirstStart::FirstStart(Desk& desk, const std::filesystem::path& samples, QWidget* parent) : QWidget(parent) {
    setObjectName("first start");
    auto* all = new QVBoxLayout(this);
    all->setContentsMargins(Theme::px(60), Theme::px(40), Theme::px(60), Theme::px(40));
    all->setSpacing(Theme::px(10));
    all->addWidget(label(in_words("first.welcome"), Role::Display, this));
    all->addWidget(label(in_words("first.two-questions"), Role::Small, this));
    all->addSpacing(Theme::px(14));
    const auto ask = [&](const char* question, const QStringList& answers, const std::function<void(Shop&, int)>& set) {
        all->addWidget(label(in_words(question), Role::Title, this));
        auto* made = new Segmented(in_words(question), answers, this);
        made->setMaximumWidth(Theme::px(620));
        made->show_choice(0);
        made->setObjectName(question);
        all->addWidget(made);
        all->addSpacing(Theme::px(8));
        connect(made, &Segmented::chosen, this, [&desk, set](int i) {
            Shop shop = desk.shop();
            set(shop, i);
            desk.set_shop(shop);
        });
    };
    ask("first.how-do-you-measure", {in_words("shop-page.inches"), in_words("shop-page.millimetres")},
        [](Shop& s, int i) { s.display.unit = i == 0 ? Unit::Inch : Unit::Millimetre; });
    ask("first.when-do-you-work", {in_words("first.evenings"), in_words("first.all-day"), in_words("first.mornings")},
        [](Shop& s, int i) { s.hours = hours_like(i); });
    all->addWidget(label(in_words("first.all-can-be-changed"), Role::Small, this));
    all->addSpacing(Theme::px(18));
    const auto offer = [&](const QString& words, Role role, const char* name) {
        QPushButton* made = button(words, role, this);
        made->setObjectName(name);
        made->setMinimumHeight(Theme::px(48));
        made->setMaximumWidth(Theme::px(620));
        all->addWidget(made);
        return made;
    };
    QPushButton* board = offer(in_words("first.start-with-a-board"), Role::Main, "start-with-a-board");
    setFocusProxy(board);
    connect(board, &QPushButton::clicked, this, &FirstStart::board_wanted);
    all->addSpacing(Theme::px(10));
    all->addWidget(label(in_words("first.or-look-at-one"), Role::Small, this));
    for (const auto& [file, words] : {std::pair("boathouse-porch-board.skarvel", "first.sample-board"),
                                      std::pair("mess-room-saying.skarvel", "first.sample-saying"),
                                      std::pair("four-arrows.skarvel", "first.sample-arrows")}) {
        const std::filesystem::path path = samples / file;
        std::error_code error;
        if (!std::filesystem::exists(path, error)) continue;
        connect(offer(in_words(words), Role::Plain, words), &QPushButton::clicked, this,
                [this, path] { Q_EMIT sample_wanted(QString::fromStdString(path.string())); });
    }
    all->addStretch(1);
}

}  // namespace skarvel
