// The words of a text, their typeface, the forms that it offers, and what else could be used.
#include <QFocusEvent>
#include <QPlainTextEdit>
#include <algorithm>

#include "job/text_commands.h"
#include "stations/lettering_parts.h"
#include "stations/samples.h"
#include "theme/words.h"

namespace skarvel {
namespace {

class WordsEdit : public QPlainTextEdit {
  public:
    using QPlainTextEdit::QPlainTextEdit;
    std::function<void()> left;

  protected:
    void focusOutEvent(QFocusEvent* event) override {
        QPlainTextEdit::focusOutEvent(event);
        if (left) left();
    }
};

QString full_name(const TypefaceName& name) { return text_of(name.family + " " + name.style); }

// Favourites first, with a star.
void list_typefaces(TextForm& form) {
    auto* list = new Choice(in_words("word.typeface"), form.parent());
    form.row(in_words("word.typeface"), list);
    QObject::connect(list, &QComboBox::activated, &form.tray(), [&form, list] {
        const auto i = static_cast<std::size_t>(list->currentData().toInt());
        form.change([&](Text& t) { t.typeface = form.desk().library().typefaces.at(i).name; });
    });
    struct Shown {
        std::size_t typefaces = 0;
        std::vector<std::string> favourites;
        bool operator==(const Shown&) const = default;
    };
    auto shown_now = std::make_shared<Shown>();
    form.on_refresh([&form, list, shown_now](const Text& t) {
        const auto& typefaces = form.desk().library().typefaces;
        const Shop& shop = form.desk().shop();
        if (const Shown now{typefaces.size(), shop.favourites}; !(*shown_now == now)) {
            *shown_now = now;
            const QSignalBlocker quiet(list);
            list->clear();
            for (const bool liked : {true, false}) {
                for (std::size_t i = 0; i < typefaces.size(); ++i) {
                    if (is_liked(shop, typefaces[i].name) != liked) continue;
                    const QString name = full_name(typefaces[i].name);
                    list->addItem(liked ? "★ " + name : name, static_cast<int>(i));
                }
            }
        }
        if (const Typeface* known = find_typeface(typefaces, t.typeface)) {
            list->setCurrentIndex(list->findData(static_cast<int>(known - typefaces.data())));
        } else {
            list->setCurrentIndex(-1);
            list->setPlaceholderText(full_name(t.typeface) + in_words("lettering-tray.not-here"));
        }
    });
}

void samples(TextForm& form) {
    Desk& desk = form.desk();
    auto* favourite = new Check(in_words("lettering-tray.one-of-my-favourites"), form.parent());
    favourite->setObjectName("favourite");
    form.tray().add_decision(favourite);
    QObject::connect(favourite, &QCheckBox::clicked, &form.tray(), [&form, &desk](bool on) {
        Shop shop = desk.shop();
        like(shop, form.at_hand()->typeface, on);
        desk.set_shop(shop);
    });
    auto* list = new Samples(desk, form.parent());
    form.tray().add_decision(list);
    QObject::connect(list, &Samples::picked, &form.tray(), [&form, &desk](int i) {
        form.change([&](Text& t) { t.typeface = desk.library().typefaces.at(static_cast<std::size_t>(i)).name; });
    });
    auto* installed = new Choice(in_words("lettering-tray.installed-typefaces"), form.parent());
    form.row(in_words("lettering-tray.installed-on-this-computer"), installed);
    installed->setPlaceholderText(in_words("lettering-tray.pick-one-to-use"));
    const auto fill = [&desk, installed] {
        const QSignalBlocker quiet(installed);
        installed->clear();
        for (const TypefaceName& n : desk.installed()) installed->addItem(full_name(n));
        installed->setCurrentIndex(-1);
    };
    fill();
    // What was installed since is there when the list is opened.
    QObject::connect(installed, &Choice::opening, &form.tray(), [&desk, fill] {
        desk.look_for_installed();
        fill();
    });
    QObject::connect(installed, &QComboBox::activated, &form.tray(), [&form, &desk, installed](int i) {
        const auto name = desk.use_installed(desk.installed().at(static_cast<std::size_t>(i)));
        if (name) form.change([&](Text& t) { t.typeface = *name; });
        installed->setCurrentIndex(-1);
    });
    form.on_refresh([&desk, favourite, list](const Text& t) {
        favourite->setChecked(is_liked(desk.shop(), t.typeface));
        list->show_words(t);
    });
}

QString name_of(const Desk& desk, const Alternate& a) {
    if (!a.name.empty()) return text_of(a.name);
    const std::string id = "alternate." + a.feature;
    if (desk.library().catalogue.has(id)) return shown(desk.say({id, {}}));
    if (a.feature.starts_with("ss") && a.feature.find_first_not_of("0123456789", 2) == std::string::npos)
        return in_words("alternate.set", {{"number", std::stoi(a.feature.substr(2))}});
    return in_words("alternate.other", {{"feature", a.feature}});
}

// A tick for each form that the typeface offers for these words.
void other_forms(TextForm& form) {
    const auto offered = [&form](const Text& t) {
        const Typeface* typeface = find_typeface(form.desk().library().typefaces, t.typeface);
        return typeface == nullptr ? std::vector<Alternate>{} : alternates_of(*typeface, t.words);
    };
    QWidget* holder = form.column();
    form.inside(holder, [&form, offered] {
        form.group(in_words("lettering-tray.other-forms-of-letters"), [&form, offered] {
            QWidget* ticks = form.column();
            ticks->setObjectName("alternates");
            auto shown_now = std::make_shared<std::vector<Alternate>>();
            form.on_refresh([&form, ticks, offered, shown_now](const Text& t) {
                if (const auto now = offered(t); *shown_now != now) {
                    *shown_now = now;
                    qDeleteAll(ticks->findChildren<QWidget*>(Qt::FindDirectChildrenOnly));
                    for (const Alternate& a : now) {
                        auto* tick = new Check(name_of(form.desk(), a), ticks);
                        tick->setObjectName("alternate " + text_of(a.feature));
                        tick->setProperty("feature", text_of(a.feature));
                        ticks->layout()->addWidget(tick);
                        QObject::connect(tick, &QCheckBox::clicked, &form.tray(), [&form, a](bool on) {
                            form.change([&](Text& text) { take_form(text, a.feature, on); });
                        });
                    }
                }
                for (auto* tick : ticks->findChildren<QCheckBox*>(Qt::FindDirectChildrenOnly)) {
                    const std::string feature = tick->property("feature").toString().toStdString();
                    tick->setChecked(std::find(t.alternates.begin(), t.alternates.end(), feature) !=
                                     t.alternates.end());
                }
            });
        });
    });
    form.on_refresh([holder, offered](const Text& t) { holder->setVisible(!offered(t).empty()); });
}

}  // namespace

QWidget* words_box(TextForm& form) {
    auto* words = new WordsEdit(form.parent());
    words->setAccessibleName(in_words("lettering-tray.words"));
    words->setObjectName("words");
    words->setTabChangesFocus(true);
    words->setFixedHeight(Theme::px(84));
    words->setPlaceholderText(in_words("lettering-tray.type-the-words-a"));
    form.tray().add_decision(words);
    QObject::connect(words, &QPlainTextEdit::textChanged, &form.tray(), [&form, words] {
        form.change([&](Text& t) { t.words = words->toPlainText().toStdString(); },
                    "words" + text_of(form.at_hand()->id.name));
    });
    words->left = [&form] { form.desk().settle(); };
    form.on_refresh([words](const Text& t) {
        if (const QString now = text_of(t.words); words->toPlainText() != now) {
            const QSignalBlocker quiet(words);
            words->setPlainText(now);
        }
    });
    return words;
}

void typeface_and_samples(TextForm& form) {
    list_typefaces(form);
    form.group(in_words("lettering-tray.your-words-in-each"), [&form] { samples(form); });
    other_forms(form);
}

}  // namespace skarvel
