#include "window/find.h"
#include "theme/words.h"

#include <QKeyEvent>
#include <QVBoxLayout>

namespace skarvel {

Find::Find(std::vector<Found> all, QWidget* parent) : QDialog(parent, Qt::Popup), all_(std::move(all)) {
    setAccessibleName(in_words("word.find"));
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(8, 8, 8, 8);
    text_ = new QLineEdit(this);
    text_->setPlaceholderText(in_words("find.a-command-a-station"));
    text_->setAccessibleName(in_words("find.find"));
    list_ = new QListWidget(this);
    list_->setFrameShape(QFrame::NoFrame);
    layout->addWidget(text_);
    layout->addWidget(list_);
    resize(420, 320);
    connect(text_, &QLineEdit::textEdited, this, &Find::narrow);
    connect(text_, &QLineEdit::returnPressed, this, &Find::take);
    connect(list_, &QListWidget::itemClicked, this, &Find::take);
    text_->installEventFilter(this);
    narrow({});
    text_->setFocus();
}

void Find::narrow(const QString& text) {
    list_->clear();
    for (std::size_t i = 0; i < all_.size(); ++i) {
        if (!all_[i].name.contains(text.trimmed(), Qt::CaseInsensitive)) continue;
        auto* item = new QListWidgetItem(all_[i].name, list_);
        item->setData(Qt::UserRole, static_cast<int>(i));
    }
    list_->setCurrentRow(0);
}

void Find::take() {
    const QListWidgetItem* item = list_->currentItem();
    if (item == nullptr) return;
    const auto act = all_.at(static_cast<std::size_t>(item->data(Qt::UserRole).toInt())).act;
    accept();
    act();
}

bool Find::eventFilter(QObject* watched, QEvent* event) {
    if (watched == text_ && event->type() == QEvent::KeyPress) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        if (key == Qt::Key_Down || key == Qt::Key_Up) {
            const int row = list_->currentRow() + (key == Qt::Key_Down ? 1 : -1);
            list_->setCurrentRow(std::clamp(row, 0, std::max(0, list_->count() - 1)));
            return true;
        }
    }
    return QDialog::eventFilter(watched, event);
}

}  // namespace skarvel
