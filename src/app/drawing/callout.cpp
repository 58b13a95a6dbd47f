#include "drawing/callout.h"

#include <QFocusEvent>
#include <QKeyEvent>

#include "theme/roles.h"
#include "theme/theme.h"
#include "window/fields.h"

namespace skarvel {

Callout::Callout(Desk& desk, const QString& id, const QString& does, QWidget* parent)
    : QLineEdit(parent), desk_(desk), does_(does), bubble_(new QLabel(parent)) {
    setObjectName("callout");
    setProperty("callout-id", id);
    dress(this, Role::Callout);
    setAccessibleName(does);
    setAlignment(Qt::AlignCenter);
    setFocusPolicy(Qt::StrongFocus);
    bubble_->setObjectName("notice");
    dress(bubble_, Role::Notice);
    bubble_->setMargin(6);
    bubble_->hide();
    connect(this, &QLineEdit::textEdited, this, [this](const QString& text) {
        const auto read = read_field(desk_, text);
        tell(read ? "= " + shown(skarvel::show(read->value, desk_.shop().display))
                  : QString::fromStdString(read.error()),
             !read);
    });
}

void Callout::show_value(const Measure& value, const QString& prefix) {
    value_ = value;
    prefix_ = prefix;
    if (!hasFocus()) rest();
}

void Callout::rest() {
    setText(prefix_ + shown(show_number(value_.value, desk_.shop().display)));
    setModified(false);
    bubble_->hide();
    const int wide = QFontMetrics(Theme::font(15, QFont::Medium)).horizontalAdvance(text()) + 18;
    resize(std::max(Theme::px(34), wide), Theme::px(24));
}

void Callout::tell(const QString& words, bool wrong) {
    bubble_->setText(words);
    set_type(bubble_, Theme::font(13), wrong ? Theme::tokens().brick : Theme::tokens().graphite);
    bubble_->adjustSize();
    const int left = std::clamp(x(), 4, std::max(4, parentWidget()->width() - bubble_->width() - 4));
    bubble_->move(left, y() + height() + 4);
    bubble_->show();
    bubble_->raise();
}

void Callout::focusInEvent(QFocusEvent* event) {
    QLineEdit::focusInEvent(event);
    setText(shown(show_number(value_.value, desk_.shop().display)));
    const int wide = std::max(width(), Theme::px(110));
    const int left = std::clamp(x(), 4, std::max(4, parentWidget()->width() - wide - 4));
    setGeometry(left, y(), wide, height());
    raise();
    selectAll();
    tell(does_, false);
}

void Callout::focusOutEvent(QFocusEvent* event) {
    QLineEdit::focusOutEvent(event);
    commit();
    rest();
    parentWidget()->update();
}

void Callout::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) {
        const auto read = read_field(desk_, text());
        if (isModified() && !read) return tell(QString::fromStdString(read.error()), true);
        parentWidget()->setFocus();
        return;
    }
    if (event->key() == Qt::Key_Escape) {
        setModified(false);
        parentWidget()->setFocus();
        return;
    }
    QLineEdit::keyPressEvent(event);
}

void Callout::moveEvent(QMoveEvent* event) {
    QLineEdit::moveEvent(event);
    if (bubble_->isVisible()) bubble_->move(bubble_->x(), y() + height() + 4);
}

void Callout::commit() {
    if (!isModified()) return;
    setModified(false);
    const auto read = read_field(desk_, text());
    if (read && decide) decide(*read);
}

}  // namespace skarvel
