#include "stations/tray.h"

#include <QAbstractSpinBox>
#include <QCheckBox>
#include <QComboBox>
#include <QFrame>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QPainter>
#include <QScrollBar>
#include <QTimer>
#include <utility>

#include "job/summary.h"
#include "theme/theme.h"
#include "theme/words.h"
#include "ticket/ticket.h"

namespace skarvel {
namespace {

class MarkIcon : public QWidget {
  public:
    MarkIcon(Mark mark, QWidget* parent) : QWidget(parent), mark_(mark) { setFixedSize(Theme::px(18), Theme::px(18)); }

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        paint_mark(p, mark_, QRectF(rect()).adjusted(1, 1, -1, -1));
    }

  private:
    Mark mark_;
};

QFrame* rule(QWidget* parent) {
    auto* line = new QFrame(parent);
    line->setFixedHeight(1);
    dress(line, Role::Line);
    return line;
}

}  // namespace

Tray::Tray(Station station, Desk& desk, QWidget* parent) : QScrollArea(parent), desk_(desk), station_(station) {
    setObjectName("tray");
    setWidgetResizable(true);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setFocusPolicy(Qt::NoFocus);
    auto* body = new QWidget(this);
    body_ = new QVBoxLayout(body);
    body_->setContentsMargins(16, 12, 16, 16);
    body_->setSpacing(10);
    decisions_ = new QVBoxLayout;
    decisions_->setSpacing(4);
    body_->addLayout(decisions_);
    body_->addStretch(1);
    setWidget(body);
    pinned_ = new Pinned(this);
    // The scroll bar begins below it.
    beside_pinned_ = new QWidget(this);
    addScrollBarWidget(beside_pinned_, Qt::AlignTop);
    connect(pinned_, &QAbstractButton::clicked, this, [this] {
        QWidget* to = follows_;
        Mark worst = Mark::None;
        for (const Found& f : found_) {
            if (f.row == nullptr || f.mark <= worst) continue;
            worst = f.mark;
            to = f.row;
        }
        if (to == follows_ && to != nullptr) {
            verticalScrollBar()->setValue(follows_->y());
        } else if (to != nullptr) {
            ensureWidgetVisible(to, 0, Theme::px(80));
        }
    });
}

void Tray::resizeEvent(QResizeEvent* event) {
    QScrollArea::resizeEvent(event);
    place_pinned();
}

void Tray::place_pinned() {
    if (pinned_ == nullptr || pinned_->isHidden()) return;
    const int high = pinned_->height_for(width());
    if (viewportMargins().top() != high) setViewportMargins(0, high, 0, 0);
    beside_pinned_->setFixedHeight(high);
    pinned_->setGeometry(0, 0, width(), high);
}

// The station's result, and the weightiest of what is to be looked at.
void Tray::pin_result() {
    const StationLine line = what_follows(station_, desk_.job(), desk_.plan(), desk_.records().size(), desk_.at());
    if (line.first.id.empty()) {
        pinned_->hide();
        beside_pinned_->setFixedHeight(0);
        setViewportMargins(0, 0, 0, 0);
        return;
    }
    const Found* worst = nullptr;
    for (const Found& f : found_) {
        if (worst == nullptr || f.mark > worst->mark) worst = &f;
    }
    pinned_->show_result(say(line.first),
                         worst != nullptr         ? worst->what
                         : line.second.id.empty() ? QString()
                                                  : say(line.second),
                         worst == nullptr ? Mark::None : worst->mark,
                         worst == nullptr ? 0 : static_cast<int>(found_.size()) - 1);
    place_pinned();
}

QSize Tray::sizeHint() const { return {312, 600}; }

void Tray::title(const QString& text) { decisions_->addWidget(label(text, Role::Title, widget())); }

void Tray::add_caption(const QString& name) {
    QLabel* caption = label(name, Role::Small, widget());
    caption->setContentsMargins(0, 4, 0, 0);
    decisions_->addWidget(caption);
}

void Tray::group(const QString& name, const std::function<void()>& build) {
    Group& made = groups_[name];
    auto* row = new QHBoxLayout;
    row->setContentsMargins(0, 6, 0, 0);
    made.head = button(name, Role::Group, widget());
    made.head->setCheckable(true);
    made.head->setIcon(Theme::icon("chevron-right"));
    made.head->setObjectName("group " + name);
    made.says = label({}, Role::Small, widget());
    made.says->setWordWrap(false);
    made.says->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    row->addWidget(made.head, 0);
    row->addWidget(made.says, 1);
    decisions_->addLayout(row);
    made.build = build;
    made.body = new QWidget(widget());
    made.body->hide();
    auto* inside = new QVBoxLayout(made.body);
    inside->setContentsMargins(0, 0, 0, 6);
    inside->setSpacing(4);
    decisions_->addWidget(made.body);
    connect(made.head, &QPushButton::toggled, this, [this, name, build, inside](bool open) {
        const Group& g = groups_.at(name);
        g.head->setIcon(Theme::icon(open ? "chevron-down" : "chevron-right"));
        if (open && inside->count() == 0) {
            this->inside(inside, build);
            refresh();
        }
        g.body->setVisible(open);
        if (!open) return;
        // As much of it as can be comes into sight, its head first.
        QTimer::singleShot(0, this, [this, name] {
            const Group& opened = groups_.at(name);
            const int head = opened.head->mapTo(widget(), QPoint()).y();
            const int foot = opened.body->mapTo(widget(), QPoint(0, opened.body->height())).y();
            const int seen = viewport()->height();
            QScrollBar* bar = verticalScrollBar();
            bar->setValue(std::min(head - Theme::px(8), std::max(bar->value(), foot - seen)));
        });
    });
}

void Tray::inside(QVBoxLayout* layout, const std::function<void()>& build) {
    QVBoxLayout* outer = std::exchange(decisions_, layout);
    build();
    decisions_ = outer;
}

// What folded groups hold is built, and stays folded.
void Tray::build_all() {
    for (auto& [name, group] : groups_) {
        auto* into = static_cast<QVBoxLayout*>(group.body->layout());
        if (into->count() == 0) inside(into, group.build);
    }
    refresh();
}

namespace {

bool is_field(const QWidget* w) {
    return !w->accessibleName().isEmpty() &&
           (qobject_cast<const QLineEdit*>(w) != nullptr || qobject_cast<const QComboBox*>(w) != nullptr ||
            qobject_cast<const QAbstractSpinBox*>(w) != nullptr || qobject_cast<const QCheckBox*>(w) != nullptr ||
            qobject_cast<const Segmented*>(w) != nullptr);
}

}  // namespace

QStringList Tray::fields() {
    build_all();
    QStringList names;
    for (const auto& [name, group] : groups_) names << name;
    for (const QWidget* w : widget()->findChildren<QWidget*>()) {
        if (is_field(w) && !names.contains(w->accessibleName())) names << w->accessibleName();
    }
    return names;
}

void Tray::show_field(const QString& name) {
    build_all();
    const auto open = [](const Group& group) {
        if (!group.head->isChecked()) group.head->setChecked(true);
    };
    if (const auto group = groups_.find(name); group != groups_.end()) {
        open(group->second);
        return group->second.head->setFocus();
    }
    for (QWidget* w : widget()->findChildren<QWidget*>()) {
        if (!is_field(w) || w->accessibleName() != name) continue;
        for (const auto& [of, group] : groups_) {
            if (group.body->isAncestorOf(w)) open(group);
        }
        // Once it has been laid out.
        QTimer::singleShot(0, w, [this, w] {
            ensureWidgetVisible(w, 20, 60);
            QWidget* in = w->focusPolicy() == Qt::NoFocus ? w->findChild<QAbstractButton*>() : w;
            if (in != nullptr) in->setFocus(Qt::ShortcutFocusReason);
        });
        return;
    }
}

void Tray::group_says(const QString& name, const QString& words) {
    const Group& g = groups_.at(name);
    const QFontMetrics m(g.says->font());
    // What the name leaves of the tray: a word too long must not make all of it wider than it is.
    const int room = width() - g.head->sizeHint().width() - Theme::px(48);
    g.says->setText(room < m.averageCharWidth() * 4 ? QString() : m.elidedText(words, Qt::ElideRight, room));
    g.says->setToolTip(words);
}

void Tray::gap() { decisions_->addSpacing(8); }

void Tray::begin_follows(const QString& heading_text) {
    if (follows_ != nullptr) {
        body_->removeWidget(follows_);
        follows_->hide();
        follows_->deleteLater();
    }
    found_.clear();
    follows_ = new QWidget(widget());
    follows_layout_ = new QVBoxLayout(follows_);
    follows_layout_->setContentsMargins(0, 0, 0, 0);
    follows_layout_->setSpacing(6);
    follows_layout_->addWidget(rule(follows_));
    follows_layout_->addWidget(label(heading_text, Role::Title, follows_));
}

void Tray::fact(const QString& name, const QString& value) {
    auto* row = new QHBoxLayout;
    QLabel* left = label(name, Role::Quiet, follows_);
    QLabel* right = label(value, Role::Value, follows_);
    right->setAlignment(Qt::AlignRight);
    // A long value takes two lines rather than more room than there is.
    const bool long_value = right->fontMetrics().horizontalAdvance(value) > width() / 2;
    row->addWidget(left, 1);
    row->addWidget(right, long_value ? 1 : 0);
    right->setWordWrap(long_value);
    follows_layout_->addLayout(row);
}

void Tray::why(const QString& text) {
    if (!text.isEmpty()) follows_layout_->addWidget(label(text, Role::Plain, follows_));
}

void Tray::good(const QString& text) { follows_layout_->addWidget(label(text, Role::Good, follows_)); }

void Tray::heading(const QString& text) {
    follows_layout_->addSpacing(4);
    follows_layout_->addWidget(rule(follows_));
    follows_layout_->addWidget(label(text, Role::Title, follows_));
}

void Tray::problem(const Problem& p) {
    auto* row = new QHBoxLayout;
    row->setSpacing(8);
    auto* mark = new MarkIcon(p.mark, follows_);
    if (p.mark != Mark::None) found_.push_back({mark, p.mark, say(p.what)});
    row->addWidget(mark, 0, Qt::AlignTop);
    auto* words = new QVBoxLayout;
    words->setSpacing(0);
    words->addWidget(label(say(p.what), p.mark == Mark::Stop ? Role::Stop : Role::Look, follows_));
    if (!p.remedy.id.empty()) words->addWidget(label(say(p.remedy), Role::Plain, follows_));
    row->addLayout(words, 1);
    follows_layout_->addLayout(row);
}

void Tray::problems(Station station) {
    for (const Problem& p : desk_.plan().problems) {
        if (p.where == station) problem(p);
    }
}

void Tray::add_colour_choice() {
    auto* holder = new QWidget(this);
    auto* rows = new QVBoxLayout(holder);
    rows->setContentsMargins(0, 0, 0, 6);
    add_decision(holder);
    inside(rows,
           [&] { colour_choice_ = field(in_words("tray.colour"), new Choice(in_words("tray.colour-at-hand"), this)); });
    connect(colour_choice_, &QComboBox::activated, this,
            [this](int i) { desk_.select_colour(static_cast<std::size_t>(i)); });
}

void Tray::show_colour_choice() {
    const auto& colours = face().colours;
    const QSignalBlocker quiet(colour_choice_);
    colour_choice_->clear();
    for (const Colour& c : colours)
        colour_choice_->addItem(
            QString::fromStdString(c.paint.colour_name.empty() ? c.paint.colour : c.paint.colour_name));
    colour_choice_->setCurrentIndex(static_cast<int>(desk_.colour_at()));
    colour_choice_->parentWidget()->setVisible(colours.size() > 1);
}

QPushButton* Tray::offer(const QString& text, const std::function<void()>& take) {
    QPushButton* made = button(text, Role::Plain, follows_);
    connect(made, &QPushButton::clicked, this, take);
    follows_layout_->addWidget(made);
    return made;
}

void Tray::end_follows() {
    body_->insertWidget(1, follows_);
    pin_result();
}

void Tray::edit(const std::function<void(Job&)>& change, const QString& merge) {
    Job job = desk_.job();
    change(job);
    desk_.apply(std::move(job), merge);
}

void Tray::edit_sign(const std::function<void(Sign&)>& change, const QString& merge) {
    edit([&](Job& job) { change(job.signs[desk_.sign_at()]); }, merge);
}

void Tray::edit_face(const std::function<void(Face&)>& change, const QString& merge) {
    edit([&](Job& job) { change(job.signs[desk_.sign_at()].faces[desk_.face_at()]); }, merge);
}

QString Tray::say(const Reason& reason) const { return shown(desk_.say(reason)); }
QString Tray::length(Length l) const { return shown(skarvel::show(l, desk_.shop().display)); }

}  // namespace skarvel
