#include "stations/tray_part.h"

#include "theme/theme.h"

namespace skarvel {

TrayPart::TrayPart(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), rows_(new QVBoxLayout(this)), job_(desk.job()), shop_(desk.shop()) {
    rows_->setContentsMargins(0, 0, 0, 0);
    rows_->setSpacing(4);
}

void TrayPart::refresh() {
    if (job_ != desk_.job() || !(shop_ == desk_.shop())) {
        job_ = desk_.job();
        shop_ = desk_.shop();
        forget();
    }
    show_found();
}

QWidget* TrayPart::list(const QString& name) {
    auto* made = new QWidget(this);
    made->setObjectName(name);
    auto* rows = new QVBoxLayout(made);
    rows->setContentsMargins(0, 0, 0, 0);
    rows->setSpacing(4);
    add(made);
    return made;
}

void TrayPart::clear(QWidget* rows) {
    for (QWidget* child : rows->findChildren<QWidget*>(Qt::FindDirectChildrenOnly)) {
        rows->layout()->removeWidget(child);
        child->hide();
        child->deleteLater();
    }
}

QString TrayPart::say(const Reason& reason) const { return shown(desk_.say(reason)); }
QString TrayPart::length(Length l) const { return shown(skarvel::show(l, desk_.shop().display)); }

}  // namespace skarvel
