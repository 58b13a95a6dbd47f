// stations/form.h
//
// A form: the fields of a tray over one thing of the job (its blank, the text at hand, ...). A field is a place in that
// thing (values/lens.h) or a getter with a command, and when it shows. Nothing is kept here: fields show what the job
// has whenever it has changed, and what the maker decides becomes an undo step.
#pragma once

#include <QHBoxLayout>
#include <QSpinBox>
#include <QVBoxLayout>
#include <memory>

#include "stations/tray.h"
#include "theme/theme.h"
#include "values/lens.h"
#include "window/when_field.h"

namespace skarvel {

template <class T>
class Form {
  public:
    using Ids = std::vector<std::pair<std::string, QString>>;
    using When = std::function<bool(const T&)>;
    using Otherwise = std::function<QString()>;
    using Change = std::function<void(T&)>;
    /// The thing at hand; nullptr where there is none of its kind.
    using Get = std::function<const T*()>;
    /// Makes an undo step of a change; steps with the same words that follow one another are one.
    using Edit = std::function<void(const Change&, const QString& merge)>;

    Form(Tray& tray, Get get, Edit edit) : tray_(tray), get_(std::move(get)), edit_(std::move(edit)) {}
    virtual ~Form() = default;
    Form(const Form&) = delete;
    Form& operator=(const Form&) = delete;

    /// A typed dimension is tried first, by that: what cannot be is not taken.
    using SetMeasure = std::function<void(T&, const Measure&)>;
    void type_by(std::function<void(const SetMeasure& set, const Measure& was, const Measure& typed)> type) {
        type_ = std::move(type);
    }

    /// Shows what the job has now. Showing may build what is wanted for the first time, with refreshers of its own.
    void refresh() { run(refreshers_); }

    [[nodiscard]] const T* at_hand() const { return get_(); }
    void change(const Change& how, const QString& merge = {}) const { edit_(how, merge); }
    [[nodiscard]] Tray& tray() const { return tray_; }
    [[nodiscard]] Desk& desk() const { return tray_.desk(); }
    [[nodiscard]] QWidget* parent() const { return tray_.widget(); }

    // ---- holders

    QWidget* column() {
        auto* made = new QWidget(parent());
        auto* layout = new QVBoxLayout(made);
        layout->setContentsMargins(0, 0, 0, 0);
        layout->setSpacing(4);
        tray_.add_decision(made);
        return made;
    }
    void inside(QWidget* holder, const std::function<void()>& build) {
        tray_.inside(static_cast<QVBoxLayout*>(holder->layout()), build);
    }
    /// A part that opens and closes.
    void group(const QString& name, const std::function<void()>& build) { tray_.group(name, build); }
    /// A part that only some have: built when one of those is first shown.
    void part(const When& wanted, const std::function<void()>& build) {
        QWidget* holder = column();
        auto built = std::make_shared<bool>(false);
        on_refresh([this, holder, wanted, build, built](const T& t) {
            const bool now = wanted(t);
            if (now && !*built) {
                *built = true;
                inside(holder, build);
            }
            holder->setVisible(now);
        });
    }
    /// A field with its name above it, hidden together.
    QWidget* row(const QString& name, QWidget* field) {
        auto* made = new QWidget(parent());
        auto* layout = new QVBoxLayout(made);
        layout->setContentsMargins(0, 4, 0, 0);
        layout->setSpacing(2);
        layout->addWidget(label(name, Role::Small, made));
        layout->addWidget(field);
        tray_.add_decision(made);
        return made;
    }
    /// Rows of a list, as many as it has: made anew when their number, or what they are made of, has changed.
    void rows(const std::function<std::string(const T&)>& made_of, const std::function<std::size_t(const T&)>& count,
              const std::function<void(std::size_t)>& build) {
        QWidget* holder = column();
        auto shown = std::make_shared<std::string>();
        auto inner = std::make_shared<std::vector<std::function<void(const T&)>>>();
        on_refresh([this, holder, made_of, count, build, shown, inner](const T& t) {
            const std::string now = std::to_string(count(t)) + made_of(t);
            if (now != *shown) {
                *shown = now;
                inner->clear();
                empty(holder);
                auto* outer = std::exchange(collecting_, inner.get());
                inside(holder, [&] {
                    for (std::size_t i = 0; i < count(t); ++i) build(i);
                });
                collecting_ = outer;
            }
            for (std::size_t i = 0; i < inner->size(); ++i) (*inner)[i](t);
        });
    }

    // ---- fields

    MeasureField* measure(const QString& name, const Lens<T, Measure>& place, const When& when = {}) {
        return measure_of(
            name,
            [place](const T& t) {
                const Measure* m = place.in(t);
                return m == nullptr ? std::nullopt : std::optional(*m);
            },
            [place](T& t, const Measure& m) { place.put(t, m); }, when);
    }
    /// One that may be left out; then it follows from elsewhere, as `otherwise` says.
    MeasureField* measure(const QString& name, const Lens<T, std::optional<Measure>>& place, const Otherwise& otherwise,
                          const When& when = {}) {
        auto* made = measure_of(
            name,
            [place](const T& t) {
                const auto* m = place.in(t);
                return m == nullptr ? std::nullopt : *m;
            },
            [place](T& t, const Measure& m) { place.put(t, m); }, when, otherwise);
        made->allow_empty();
        QObject::connect(made, &MeasureField::emptied, &tray_,
                         [this, place] { change([&](T& t) { place.put(t, std::nullopt); }); });
        return made;
    }
    /// One of nothing, where that means that it follows from elsewhere.
    MeasureField* measure_or_none(const QString& name, const Lens<T, Measure>& place, const QString& none) {
        auto* made = measure_of(
            name,
            [place](const T& t) {
                const Measure* m = place.in(t);
                return m == nullptr || m->value == Length{} ? std::nullopt : std::optional(*m);
            },
            [place](T& t, const Measure& m) { place.put(t, m); }, {}, [none] { return none; });
        made->allow_empty();
        QObject::connect(made, &MeasureField::emptied, &tray_,
                         [this, place] { change([&](T& t) { place.put(t, Measure{}); }); });
        return made;
    }
    MeasureField* measure_of(const QString& name, const std::function<std::optional<Measure>(const T&)>& get,
                             const std::function<void(T&, const Measure&)>& command, const When& when = {},
                             const Otherwise& otherwise = {}) {
        auto* made = new MeasureField(desk(), name, parent());
        QWidget* holder = row(name, made);
        QObject::connect(made, &MeasureField::decided, &tray_, [this, get, command](const Measure& m) {
            const T* now = at_hand();
            if (type_ && now != nullptr) return type_(command, get(*now).value_or(Measure{}), m);
            change([&](T& t) { command(t, m); });
        });
        on_refresh(
            [made, get, otherwise](const T& t) { made->show_value(get(t), otherwise ? otherwise() : QString()); });
        show_if(holder, when);
        return made;
    }

    Choice* choice(const QString& name, const Ids& ids, const Lens<T, std::string>& place, const When& when = {}) {
        return choice_of(
            name, ids,
            [place](const T& t) {
                const std::string* id = place.in(t);
                return id == nullptr ? std::string() : *id;
            },
            [place](T& t, const std::string& id) { place.put(t, id); }, when);
    }
    Choice* choice_of(const QString& name, const Ids& ids, const std::function<std::string(const T&)>& get,
                      const std::function<void(T&, const std::string&)>& command, const When& when = {}) {
        auto* made = new Choice(name, parent());
        for (const auto& [id, shown_as] : ids) made->addItem(shown_as, text_of(id));
        QWidget* holder = row(name, made);
        QObject::connect(made, &QComboBox::activated, &tray_, [this, made, command] {
            change([&](T& t) { command(t, made->currentData().toString().toStdString()); });
        });
        on_refresh([made, get](const T& t) { made->show_data(text_of(get(t))); });
        show_if(holder, when);
        return made;
    }
    /// The values of an enumeration, in their order.
    template <class E>
    requires std::is_enum_v<E> Choice* choice(const QString& name, const QStringList& labels, const Lens<T, E>& place,
                                              const When& when = {}) {
        return nth_choice(
            name, labels,
            [place](const T& t) {
                const E* value = place.in(t);
                return value == nullptr ? 0 : static_cast<int>(*value);
            },
            [place](T& t, int i) { place.put(t, static_cast<E>(i)); }, when);
    }
    /// A no or a yes in words of its own, in that order.
    Choice* choice(const QString& name, const QStringList& labels, const Lens<T, bool>& place, const When& when = {}) {
        return nth_choice(
            name, labels,
            [place](const T& t) {
                const bool* yes = place.in(t);
                return yes != nullptr && *yes ? 1 : 0;
            },
            [place](T& t, int i) { place.put(t, i == 1); }, when);
    }
    Choice* nth_choice(const QString& name, const QStringList& labels, const std::function<int(const T&)>& get,
                       const std::function<void(T&, int)>& command, const When& when = {}) {
        Ids ids;
        for (int i = 0; i < labels.size(); ++i) ids.emplace_back(std::to_string(i), labels[i]);
        return choice_of(
            name, ids, [get](const T& t) { return std::to_string(get(t)); },
            [command](T& t, const std::string& id) { command(t, std::stoi(id)); }, when);
    }
    /// A few that exclude one another, side by side.
    Segmented* segmented(const QString& name, const QStringList& labels, const std::function<int(const T&)>& get,
                         const std::function<void(T&, int)>& command, const When& when = {}) {
        auto* made = new Segmented(name, labels, parent());
        QWidget* holder = row(name, made);
        QObject::connect(made, &Segmented::chosen, &tray_,
                         [this, command](int i) { change([&](T& t) { command(t, i); }); });
        on_refresh([made, get](const T& t) { made->show_choice(get(t)); });
        show_if(holder, when);
        return made;
    }

    Check* tick(const QString& name, const Lens<T, bool>& place, const When& when = {}) {
        return tick_of(
            name,
            [place](const T& t) {
                const bool* on = place.in(t);
                return on != nullptr && *on;
            },
            [place](T& t, bool on) { place.put(t, on); }, when);
    }
    Check* tick_of(const QString& name, const std::function<bool(const T&)>& get,
                   const std::function<void(T&, bool)>& command, const When& when = {}) {
        auto* made = new Check(name, parent());
        made->setObjectName(name);
        tray_.add_decision(made);
        QObject::connect(made, &QCheckBox::clicked, &tray_,
                         [this, command](bool on) { change([&](T& t) { command(t, on); }); });
        on_refresh([made, get](const T& t) { made->setChecked(get(t)); });
        show_if(made, when);
        return made;
    }

    struct Range {
        int least = 0, most = 0;
        QString suffix{};
        QString none{};  ///< shown for the least, where that means that nothing is said
    };
    QSpinBox* number(const QString& name, const Range& range, const Lens<T, int>& place, const When& when = {}) {
        return number_of(
            name, range,
            [place](const T& t) {
                const int* n = place.in(t);
                return n == nullptr ? 0 : *n;
            },
            [place](T& t, int n) { place.put(t, n); }, when);
    }
    QSpinBox* number_of(const QString& name, const Range& range, const std::function<int(const T&)>& get,
                        const std::function<void(T&, int)>& command, const When& when = {}) {
        auto* made = new QSpinBox(parent());
        made->setRange(range.least, range.most);
        made->setSuffix(range.suffix);
        made->setSpecialValueText(range.none);
        made->setAccessibleName(name);
        made->setObjectName(name);
        made->setButtonSymbols(QAbstractSpinBox::NoButtons);
        made->setKeyboardTracking(false);
        QWidget* holder = row(name, made);
        QObject::connect(made, &QSpinBox::valueChanged, &tray_,
                         [this, command, name](int n) { change([&](T& t) { command(t, n); }, name); });
        on_refresh([made, get](const T& t) {
            const QSignalBlocker quiet(made);
            made->setValue(get(t));
        });
        show_if(holder, when);
        return made;
    }

    /// A moment that may be missing: then it is out of the way.
    WhenField* moment_of(const QString& name, const char* called,
                         const std::function<std::optional<Moment>(const T&)>& get,
                         const std::function<void(T&, Moment)>& command) {
        auto* made = new WhenField(desk(), name, called, parent());
        tray_.add_decision(made);
        QObject::connect(made, &WhenField::decided, &tray_,
                         [this, command](Moment at) { change([&](T& value) { command(value, at); }); });
        on_refresh([made, get](const T& t) {
            const std::optional<Moment> now = get(t);
            made->setVisible(now.has_value());
            if (now) made->show_moment_of(*now);
        });
        return made;
    }

    /// Words on one line; typing them is one undo step.
    QLineEdit* line(const QString& name, const std::function<QString(const T&)>& get,
                    const std::function<void(T&, const std::string&)>& command) {
        auto* made = new QLineEdit(parent());
        made->setAccessibleName(name);
        made->setObjectName(name);
        row(name, made);
        QObject::connect(made, &QLineEdit::textEdited, &tray_, [this, command, name](const QString& words) {
            change([&](T& t) { command(t, words.toStdString()); }, name);
        });
        QObject::connect(made, &QLineEdit::editingFinished, &tray_, [this] { desk().settle(); });
        on_refresh([made, get](const T& t) {
            if (!made->hasFocus()) made->setText(get(t));
        });
        return made;
    }
    /// One of the typefaces that are here.
    Choice* typeface(const QString& name, const QString& called, const Lens<T, TypefaceName>& place) {
        auto* made = new Choice(called, parent());
        row(name, made);
        QObject::connect(made, &QComboBox::activated, &tray_, [this, place](int i) {
            change([&](T& t) { place.put(t, desk().library().typefaces.at(static_cast<std::size_t>(i)).name); });
        });
        on_refresh([this, made, place](const T& t) {
            const auto& typefaces = desk().library().typefaces;
            if (made->count() != static_cast<int>(typefaces.size())) {
                made->clear();
                for (const Typeface& known : typefaces)
                    made->addItem(text_of(known.name.family + " " + known.name.style));
            }
            if (const TypefaceName* now = place.in(t)) {
                const Typeface* known = find_typeface(typefaces, *now);
                made->setCurrentIndex(known == nullptr ? -1 : static_cast<int>(known - typefaces.data()));
            }
        });
        return made;
    }

    ColourButton* colour(const QString& name, const Lens<T, std::string>& colour, const Lens<T, std::string>& called,
                         const When& when = {}) {
        auto* made = new ColourButton(name, parent());
        QObject::connect(made, &ColourButton::decided, &tray_,
                         [this, colour, called](const QString& picked, const QString& picked_name) {
                             change([&](T& t) {
                                 colour.put(t, picked.toStdString());
                                 called.put(t, picked_name.toStdString());
                             });
                         });
        QWidget* holder = row(name, made);
        on_refresh([made, colour, called](const T& t) {
            if (const std::string* now = colour.in(t)) made->show_colour(*now, *called.in(t));
        });
        show_if(holder, when);
        return made;
    }

    QPushButton* offer(const QString& text, const std::function<void()>& act, const When& when = {}) {
        QPushButton* made = button(text, Role::Plain, parent());
        QObject::connect(made, &QPushButton::clicked, &tray_, act);
        tray_.add_decision(made);
        show_if(made, when);
        return made;
    }

    // ---- what is shown when

    void on_refresh(const std::function<void(const T&)>& show) {
        (collecting_ != nullptr ? *collecting_ : refreshers_).push_back(show);
    }
    void show_if(QWidget* what, const When& wanted) {
        if (wanted) on_refresh([what, wanted](const T& t) { what->setVisible(wanted(t)); });
    }

    /// Takes rows away. What was clicked may be among them, so they go once its click is over.
    static void empty(QWidget* holder) {
        while (QLayoutItem* item = holder->layout()->takeAt(0)) {
            if (item->widget() != nullptr) {
                item->widget()->hide();
                item->widget()->deleteLater();
            }
            delete item;
        }
    }

  private:
    using Refreshers = std::vector<std::function<void(const T&)>>;
    void run(Refreshers& all) {
        for (std::size_t i = 0; i < all.size(); ++i) {
            const auto show = all[i];
            if (const T* t = get_()) show(*t);
        }
    }

    Tray& tray_;
    Get get_;
    Edit edit_;
    std::function<void(const SetMeasure&, const Measure&, const Measure&)> type_;
    Refreshers refreshers_;
    Refreshers* collecting_ = nullptr;  // those of the rows that are being made
};

}  // namespace skarvel
