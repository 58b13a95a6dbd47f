#include "stations/order_view.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QVBoxLayout>
#include <algorithm>

#include "theme/roles.h"
#include "theme/theme.h"
#include "theme/words.h"

namespace skarvel {

OrderView::OrderView(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
    setObjectName("order");
    setAccessibleName(in_words("order-view.order-of-laying"));
    setFocusPolicy(Qt::StrongFocus);
    auto* all = new QVBoxLayout(this);
    all->setContentsMargins(20, 8, 20, 12);
    all->setSpacing(6);
    name_ = label({}, Role::Plain, this);
    name_->setObjectName("order-name");
    instruction_ = label({}, Role::Plain, this);
    picture_ = new StepPictureView([this](const Reason& r) { return shown(desk_.say(r)); }, this);
    picture_->setAccessibleName(in_words("order-view.order-of-laying"));
    picture_->setMinimumHeight(Theme::px(160));
    figures_ = label({}, Role::Plain, this);
    all->addWidget(name_);
    all->addWidget(instruction_);
    all->addWidget(picture_, 1);
    all->addWidget(figures_);
    auto* buttons = new QHBoxLayout;
    before_ = button(in_words("order-view.before"), Role::Plain, this);
    before_->setObjectName("order-before");
    after_ = button(in_words("order-view.after"), Role::Main, this);
    after_->setObjectName("order-after");
    buttons->addWidget(before_);
    buttons->addStretch(1);
    buttons->addWidget(after_);
    all->addLayout(buttons);
    connect(before_, &QPushButton::clicked, this, [this] { turn(-1); });
    connect(after_, &QPushButton::clicked, this, [this] { turn(1); });
}

void OrderView::turn(int by) {
    const std::size_t steps = order_of_laying(*desk_.plan().bench, desk_.face().id).size();
    const auto to = static_cast<long>(at_) + by;
    at_ = static_cast<std::size_t>(std::clamp<long>(to, 0, static_cast<long>(steps)));
    refresh();
}

void OrderView::refresh() {
    const Tokens& t = Theme::tokens();
    const FaceId face = desk_.face().id;
    if (face != face_) at_ = 0;
    face_ = face;
    const BenchPlan& bench = *desk_.plan().bench;
    const std::vector<std::size_t> order = order_of_laying(bench, face);
    at_ = std::min(at_, order.size());
    set_type(name_, Theme::font(24, QFont::DemiBold), t.chalk);
    set_type(instruction_, Theme::font(18), t.graphite);
    set_type(figures_, Theme::font(18, QFont::DemiBold), t.graphite);
    before_->setEnabled(at_ > 0);
    after_->setEnabled(at_ < order.size());
    QStringList figures;
    if (at_ == 0) {
        picture_->show_picture(picture_of_order(face, desk_.job(), desk_.plan(), desk_.library().trade));
        name_->setText(order.empty() ? in_words("order-view.nothing-to-lay")
                                     : in_words("order-view.in-all", {{"steps", order.size()}}));
        QStringList why;
        for (const ColourPlan& c : desk_.plan().colours) {
            if (c.face->id != face) continue;
            for (const Reason& r : c.laying->why) {
                if (const QString said = shown(desk_.say(r)); !why.contains(said)) why << said;
            }
        }
        instruction_->setText(why.join(" "));
    } else {
        const Step& step = bench.steps[order[at_ - 1]];
        StepPicture picture = picture_of(step, desk_.job(), desk_.plan(), desk_.shop(), desk_.library().trade);
        for (const Reason& f : picture.figures) figures << shown(desk_.say(f));
        picture_->show_picture(std::move(picture));
        name_->setText(in_words("order-view.step",
                                {{"number", at_}, {"of", order.size()}, {"name", shown(desk_.say(step.name))}}));
        instruction_->setText(shown(desk_.say(step.instruction)));
    }
    figures_->setText(figures.join("   ·   "));
    figures_->setVisible(!figures.isEmpty());
}

void OrderView::keyPressEvent(QKeyEvent* event) {
    switch (event->key()) {
        case Qt::Key_Right:
        case Qt::Key_PageDown:
        case Qt::Key_Space:
            return turn(1);
        case Qt::Key_Left:
        case Qt::Key_PageUp:
            return turn(-1);
        default:
            QWidget::keyPressEvent(event);
    }
}

MethodPages::MethodPages(Desk& desk, QWidget* cut, QWidget* parent) : QWidget(parent) {
    auto* all = new QVBoxLayout(this);
    all->setContentsMargins(0, 0, 0, 0);
    all->setSpacing(0);
    which_ = new Segmented(
        in_words("order-view.what-is-shown"),
        {in_words("order-view.cut-through"), in_words("order-view.order-of-laying"), in_words("order-view.rules")},
        this);
    auto* bar = new QHBoxLayout;
    bar->setContentsMargins(20, 8, 20, 0);
    bar->addWidget(which_);
    bar->addStretch(1);
    all->addLayout(bar);
    pages_ = new QStackedWidget(this);
    pages_->addWidget(cut);
    order_ = new OrderView(desk, pages_);
    pages_->addWidget(order_);
    auto* scroll = new QScrollArea(pages_);
    scroll->setObjectName("rules page");
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setWidgetResizable(true);
    rules_ = new RulesPart(desk, scroll, true);
    rules_->setContentsMargins(20, 8, 20, 12);
    dress(rules_, Role::Sheet);
    scroll->setWidget(rules_);
    pages_->addWidget(scroll);
    all->addWidget(pages_, 1);
    which_->button(1)->setObjectName("order of laying");
    which_->button(2)->setObjectName("page of rules");
    which_->show_choice(0);
    connect(which_, &Segmented::chosen, this, [this](int page) {
        which_->show_choice(page);
        pages_->setCurrentIndex(page);
        refresh();
        if (page == 1) order_->setFocus();
    });
}

void MethodPages::refresh() {
    if (pages_->currentWidget() == order_) order_->refresh();
    if (pages_->currentIndex() == 2) rules_->refresh();
}

}  // namespace skarvel
