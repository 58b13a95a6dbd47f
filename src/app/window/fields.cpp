#include "window/fields.h"

#include <QAbstractItemView>
#include <QButtonGroup>
#include <QHBoxLayout>
#include <QMenu>
#include <QPainter>
#include <QStyle>
#include <QStyleOptionButton>
#include <QVBoxLayout>
#include <QWheelEvent>
#include <algorithm>
#include <array>
#include <map>

#include "theme/theme.h"
#include "theme/words.h"
#include "window/colour_picker.h"

namespace skarvel {

tl::expected<Measure, std::string> read_field(const Desk& desk, const QString& text) {
    const auto read = read_measure(text.toStdString(), desk.shop().display.unit);
    if (!read) return tl::unexpected(desk.library().catalogue.say(read.error()));
    if (read->value < Length{}) return tl::unexpected(desk.say({"measure.negative", {}}));
    return *read;
}

QString text_of(const std::string& words) { return QString::fromStdString(words); }

namespace {

// Layouts ask for the height of the same words many times over, and each time the words would be set anew.
class Words : public QLabel {
  public:
    using QLabel::QLabel;

    [[nodiscard]] int heightForWidth(int width) const override {
        if (text() != measured_) heights_.clear();
        measured_ = text();
        const auto [at, fresh] = heights_.try_emplace(width);
        if (fresh) at->second = QLabel::heightForWidth(width);
        return at->second;
    }

  protected:
    bool event(QEvent* event) override {
        switch (event->type()) {
            case QEvent::Polish:
            case QEvent::FontChange:
            case QEvent::StyleChange:
            case QEvent::ContentsRectChange:
                heights_.clear();
                break;
            default:
                break;
        }
        return QLabel::event(event);
    }

  private:
    mutable QString measured_;
    mutable std::map<int, int> heights_;  // pixels, by width
};

}  // namespace

QLabel* label(const QString& text, Role role, QWidget* parent) {
    auto* made = new Words(text, parent);
    made->setWordWrap(true);
    dress(made, role);
    return made;
}

QPushButton* button(const QString& text, Role role, QWidget* parent) {
    auto* made = new QPushButton(text, parent);
    dress(made, role);
    made->setAccessibleName(text);
    return made;
}

// ---- MeasureField

MeasureField::MeasureField(Desk& desk, const QString& name, QWidget* parent)
    : QWidget(parent), desk_(desk), edit_(new QLineEdit(this)), hint_(label({}, Role::Hint, this)) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(0);
    layout->addWidget(edit_);
    layout->addWidget(hint_);
    hint_->hide();
    edit_->setAccessibleName(name);
    edit_->setObjectName(name);
    connect(edit_, &QLineEdit::textEdited, this, &MeasureField::read);
    connect(edit_, &QLineEdit::returnPressed, this, &MeasureField::commit);
    connect(edit_, &QLineEdit::editingFinished, this, &MeasureField::commit);
}

void MeasureField::show_value(const std::optional<Measure>& value, const QString& placeholder) {
    value_ = value;
    edit_->setPlaceholderText(placeholder);
    if (!edit_->hasFocus() || !edit_->isModified()) rest();
}

void MeasureField::rest() {
    edit_->setText(value_ ? shown(skarvel::show(value_->value, desk_.shop().display)) : QString());
    edit_->setToolTip(value_ ? shown(value_->typed) : QString());
    edit_->setModified(false);
    hint_->hide();
    mark_wrong(edit_, false);
}

void MeasureField::read() {
    const auto read = read_field(desk_, edit_->text());
    const bool empty = may_be_empty_ && edit_->text().trimmed().isEmpty();
    dress(hint_, read || empty ? Role::Hint : Role::Wrong);
    hint_->setText(read    ? "= " + shown(skarvel::show(read->value, desk_.shop().display))
                   : empty ? QString()
                           : QString::fromStdString(read.error()));
    hint_->setVisible(!empty);
    mark_wrong(edit_, !read && !empty);
}

void MeasureField::commit() {
    if (!edit_->isModified()) return;
    if (may_be_empty_ && edit_->text().trimmed().isEmpty()) {
        edit_->setModified(false);
        Q_EMIT emptied();
        return;
    }
    const auto read = read_field(desk_, edit_->text());
    if (!read) {
        MeasureField::read();  // the old value stays in the job until this can be read
        return;
    }
    value_ = *read;
    rest();
    Q_EMIT decided(*read);
}

// ---- Segmented

Segmented::Segmented(const QString& name, const QStringList& labels, QWidget* parent) : QWidget(parent) {
    setAccessibleName(name);
    setObjectName(name);
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(1, 0, 0, 0);
    layout->setSpacing(0);
    auto* group = new QButtonGroup(this);
    group->setExclusive(true);
    for (const QString& text : labels) {
        auto* segment = new QPushButton(text, this);
        dress(segment, Role::Segment);
        segment->setCheckable(true);
        segment->setAccessibleName(name + ": " + text);
        segment->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
        const int index = static_cast<int>(buttons_.size());
        group->addButton(segment, index);
        layout->addWidget(segment);
        buttons_.push_back(segment);
    }
    connect(group, &QButtonGroup::idClicked, this, &Segmented::chosen);
}

int Segmented::choice() const {
    const auto at = std::find_if(buttons_.begin(), buttons_.end(), [](const QPushButton* b) { return b->isChecked(); });
    return static_cast<int>(at - buttons_.begin());
}

void Segmented::show_choice(int index) {
    if (index >= 0 && index < static_cast<int>(buttons_.size()))
        buttons_[static_cast<std::size_t>(index)]->setChecked(true);
}

// ---- Choice

Choice::Choice(const QString& name, QWidget* parent) : QComboBox(parent) {
    setAccessibleName(name);
    setObjectName(name);
    setFocusPolicy(Qt::StrongFocus);
    setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    setMinimumContentsLength(5);
}

void Choice::show_data(const QString& data) {
    int index = findData(data);
    if (index < 0) {
        addItem(data.isEmpty() ? in_words("word.none") : in_words("field.not-in-the-shop", {{"name", data}}), data);
        index = count() - 1;
    }
    const QSignalBlocker quiet(this);
    setCurrentIndex(index);
}

void Choice::showPopup() {
    Q_EMIT opening();
    // Entries are whole where they are chosen, however little room the field has.
    int widest = width();
    for (int i = 0; i < count(); ++i)
        widest = std::max(widest, fontMetrics().horizontalAdvance(itemText(i)) + Theme::px(28));
    view()->setMinimumWidth(std::min(widest, window()->width() / 2));
    QComboBox::showPopup();
}

void Choice::wheelEvent(QWheelEvent* event) { event->ignore(); }

// ---- Check

Check::Check(const QString& text, QWidget* parent) : QCheckBox(text, parent), full_(text) {
    setAccessibleName(text);
    setMinimumWidth(Theme::px(90));
}

// Words that have too little room are shortened, and whole on pointing.
void Check::resizeEvent(QResizeEvent* event) {
    QCheckBox::resizeEvent(event);
    QStyleOptionButton option;
    initStyleOption(&option);
    const int room = style()->subElementRect(QStyle::SE_CheckBoxContents, &option, this).width();
    const QString fitting = fontMetrics().elidedText(full_, Qt::ElideRight, room + 2);
    if (fitting == text()) return;
    setText(fitting);
    setToolTip(fitting == full_ ? QString() : full_);
}

// ---- ColourButton

namespace {

struct Offered {
    std::vector<ShelfColour> colours;
    std::function<void(const ShelfColour&)> keep;
};
Offered& on_the_shelf() {
    static Offered offered;
    return offered;
}

}  // namespace

void ColourButton::offer(std::vector<ShelfColour> colours, std::function<void(const ShelfColour&)> keep) {
    on_the_shelf() = {std::move(colours), std::move(keep)};
}

void ColourButton::another() {
    ColourPicker picker(colour_, {}, this);
    if (picker.exec() != QDialog::Accepted) return;
    if (picker.keeps() && on_the_shelf().keep)
        on_the_shelf().keep({picker.colour().toStdString(), picker.name().toStdString()});
    Q_EMIT decided(picker.colour(), picker.name());
}

ColourButton::ColourButton(const QString& name, QWidget* parent) : QPushButton(parent) {
    setAccessibleName(name);
    setObjectName(name);
    connect(this, &QPushButton::clicked, this, [this] {
        QMenu menu(this);
        QAction* now = nullptr;
        for (const ShelfColour& p : on_the_shelf().colours) {
            const QString colour = QString::fromStdString(p.colour);
            const QString called = QString::fromStdString(p.name);
            QPixmap swatch(16, 16);
            swatch.fill(QColor(colour));
            QAction* action = menu.addAction(QIcon(swatch), called);
            if (QColor(colour) == colour_ && (now == nullptr || called == shown_name_)) now = action;
            connect(action, &QAction::triggered, this, [this, colour, called] { Q_EMIT decided(colour, called); });
        }
        menu.addSeparator();
        QAction* other = menu.addAction(in_words("picker.another"));
        other->setObjectName("another colour");
        connect(other, &QAction::triggered, this, &ColourButton::another);
        if (now != nullptr) menu.setActiveAction(now);
        menu.exec(mapToGlobal(QPoint(0, height())));
    });
}

void ColourButton::show_colour(const std::string& colour, const std::string& name) {
    colour_ = QColor(QString::fromStdString(colour));
    shown_name_ = QString::fromStdString(name.empty() ? colour : name);
    setText("");
    setToolTip(shown_name_);
    update();
}

void ColourButton::paintEvent(QPaintEvent* event) {
    QPushButton::paintEvent(event);
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const QRectF swatch(8, height() / 2.0 - 8, 16, 16);
    painter.setPen(Theme::tokens().pencil);
    painter.setBrush(colour_);
    painter.drawRoundedRect(swatch, 3, 3);
    painter.setPen(Theme::tokens().graphite);
    painter.drawText(rect().adjusted(32, 0, -4, 0), Qt::AlignVCenter | Qt::AlignLeft,
                     fontMetrics().elidedText(shown_name_, Qt::ElideRight, width() - 38));
}

}  // namespace skarvel
