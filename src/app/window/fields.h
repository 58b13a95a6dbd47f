// window/fields.h
//
// Fields: the few controls that every station uses. Each shows one value of the job and tells when the maker has
// decided another; none keeps a value of its own.
#pragma once

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QStringList>
#include <functional>
#include <optional>
#include <vector>

#include "method/trade.h"
#include "theme/roles.h"
#include "window/desk.h"

namespace skarvel {

/// A measure that can be typed as makers write it. Shows how it was read before Enter; keeps the old value when it
/// cannot be read, and says why.
class MeasureField : public QWidget {
    Q_OBJECT

  public:
    MeasureField(Desk& desk, const QString& name, QWidget* parent = nullptr);
    /// `none` shows a placeholder: the value then follows from elsewhere.
    void show_value(const std::optional<Measure>& value, const QString& placeholder = {});
    /// An emptied field is allowed and means "follow again".
    void allow_empty() { may_be_empty_ = true; }
    [[nodiscard]] QLineEdit* edit() { return edit_; }

  Q_SIGNALS:
    void decided(const skarvel::Measure& value);
    void emptied();

  private:
    void read();
    void commit();
    void rest();

    Desk& desk_;
    QLineEdit* edit_;
    QLabel* hint_;
    std::optional<Measure> value_;
    bool may_be_empty_ = false;
};

/// A few exclusive choices side by side.
class Segmented : public QWidget {
    Q_OBJECT

  public:
    Segmented(const QString& name, const QStringList& labels, QWidget* parent = nullptr);
    void show_choice(int index);
    [[nodiscard]] int choice() const;
    [[nodiscard]] QPushButton* button(int index) { return buttons_.at(static_cast<std::size_t>(index)); }

  Q_SIGNALS:
    void chosen(int index);

  private:
    std::vector<QPushButton*> buttons_;
};

/// A drop-down that the wheel does not change by accident.
class Choice : public QComboBox {
    Q_OBJECT

  public:
    explicit Choice(const QString& name, QWidget* parent = nullptr);
    /// Selects the entry with that data; an unknown one is added, marked as not known.
    void show_data(const QString& data);
    void showPopup() override;

  Q_SIGNALS:
    /// Before its list is shown.
    void opening();

  protected:
    void wheelEvent(QWheelEvent* event) override;
};

/// A colour with its name: a swatch that opens a palette of paints.
class ColourButton : public QPushButton {
    Q_OBJECT

  public:
    /// What all of them offer: the maker's tins and the paints on the shelf; and what is done with a colour that is to
    /// be kept.
    static void offer(std::vector<ShelfColour> colours, std::function<void(const ShelfColour&)> keep);
    explicit ColourButton(const QString& name, QWidget* parent = nullptr);
    void show_colour(const std::string& colour, const std::string& name);

  Q_SIGNALS:
    void decided(const QString& colour, const QString& name);

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    void another();
    QColor colour_;
    QString shown_name_;
};

/// A check box whose words, where they have too little room, are shortened.
class Check : public QCheckBox {
    Q_OBJECT

  public:
    explicit Check(const QString& text, QWidget* parent = nullptr);
    [[nodiscard]] QSize minimumSizeHint() const override {
        return {minimumWidth(), QCheckBox::minimumSizeHint().height()};
    }
    [[nodiscard]] QSize sizeHint() const override {
        return {QCheckBox::sizeHint().width() + fontMetrics().horizontalAdvance(full_) -
                    fontMetrics().horizontalAdvance(text()),
                QCheckBox::sizeHint().height()};
    }

  protected:
    void resizeEvent(QResizeEvent* event) override;

  private:
    QString full_;
};

QString text_of(const std::string& words);
QLabel* label(const QString& text, Role role = Role::Plain, QWidget* parent = nullptr);
QPushButton* button(const QString& text, Role role = Role::Plain, QWidget* parent = nullptr);

/// Reads `text` as a field of the desk does: positive lengths in the unit that is shown.
tl::expected<Measure, std::string> read_field(const Desk& desk, const QString& text);

}  // namespace skarvel
