// A walk over all trays, in inches and millimetres, at every size of type, in the states that a job comes through:
// nothing is wider than the tray, nothing is cut off or lies over another, and Tab goes in reading order.
#include <QComboBox>
#include <QLineEdit>
#include <QScrollBar>

#include "job/commands.h"
#include "stations/tray.h"
#include "support_window.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

Tray* tray_of(Window& w) {
    for (Tray* t : w.window().findChildren<Tray*>()) {
        if (t->isVisible()) return t;
    }
    return nullptr;
}

void open_all(Window& w) {
    for (int round = 0; round < 2; ++round) {
        Tray* tray = tray_of(w);
        for (auto* head : tray->findChildren<QPushButton*>()) {
            if (head->objectName().startsWith("group ") && head->isVisible() && !head->isChecked())
                head->setChecked(true);
        }
        w.settle();
    }
}

bool is_leaf(const QWidget* w) {
    return qobject_cast<const QLabel*>(w) != nullptr || qobject_cast<const QAbstractButton*>(w) != nullptr ||
           qobject_cast<const QLineEdit*>(w) != nullptr || qobject_cast<const QComboBox*>(w) != nullptr ||
           qobject_cast<const QAbstractSpinBox*>(w) != nullptr;
}

// Names of what is cut off, too wide, or lies over another.
QStringList wrong_in(Tray* tray) {
    QStringList wrong;
    const QWidget* body = tray->widget();
    const auto name = [](const QWidget* w) {
        const QString own = w->accessibleName().isEmpty() ? w->objectName() : w->accessibleName();
        const auto* l = qobject_cast<const QLabel*>(w);
        const auto* b = qobject_cast<const QAbstractButton*>(w);
        return own.isEmpty() ? (l != nullptr ? l->text() : b != nullptr ? b->text() : QString("?")) : own;
    };
    const auto at = [&](const QWidget* w) { return QRect(w->mapTo(body, QPoint()), w->size()); };
    std::vector<const QWidget*> leaves;
    for (const QWidget* w : body->findChildren<QWidget*>()) {
        if (!w->isVisible() || !is_leaf(w)) continue;
        // Inside of another one, as the line of a spin box.
        bool inner = false;
        for (const QWidget* p = w->parentWidget(); p != nullptr && p != body; p = p->parentWidget())
            inner = inner || is_leaf(p);
        if (!inner) leaves.push_back(w);
    }
    for (const QWidget* w : leaves) {
        const QRect r = at(w);
        if (r.right() > tray->viewport()->width() + 1 || r.left() < 0) wrong << "wider than the tray: " + name(w);
        if (const auto* b = qobject_cast<const QAbstractButton*>(w); b != nullptr && !b->text().isEmpty()) {
            if (QFontMetrics(b->font()).horizontalAdvance(b->text()) > b->width()) wrong << "cut off: " + b->text();
        }
        if (const auto* l = qobject_cast<const QLabel*>(w); l != nullptr && !l->text().isEmpty()) {
            const bool cut = l->wordWrap() ? l->heightForWidth(l->width()) > l->height() + 2
                                           : l->sizeHint().width() > l->width() + 2 && l->toolTip().isEmpty();
            if (cut) wrong << "cut off: " + l->text();
        }
        // A measure is read whole; a name may be longer than its field.
        if (const auto* e = qobject_cast<const QLineEdit*>(w);
            e != nullptr && qobject_cast<const MeasureField*>(e->parentWidget()) != nullptr) {
            constexpr int wide_by_default = 17;  // letters, QLineEdit::sizeHint
            const QFontMetrics type(e->font());
            const int around = e->sizeHint().width() - type.horizontalAdvance('x') * wide_by_default;
            const QString read = e->text().isEmpty() ? e->placeholderText() : e->text();
            if (type.horizontalAdvance(read) > e->width() - around) wrong << name(e) + " shows half of " + read;
        }
        if (const auto* c = qobject_cast<const QComboBox*>(w); c != nullptr && c->isEnabled()) {
            // A long entry is shortened, and whole where the list is open.
            if (c->minimumContentsLength() == 0 && c->sizeHint().width() > c->width() + 2 &&
                c->view()->width() < c->width())
                wrong << "half an entry: " + name(c);
        }
    }
    for (std::size_t i = 0; i < leaves.size(); ++i) {
        for (std::size_t k = i + 1; k < leaves.size(); ++k) {
            const QRect both = at(leaves[i]).intersected(at(leaves[k]));
            if (both.width() > 2 && both.height() > 2) wrong << name(leaves[i]) + " lies over " + name(leaves[k]);
        }
    }
    return wrong;
}

Job in_state(int state) {
    Job job = *read_job(*read_file(std::filesystem::path(SKARVEL_SOURCE) /
                                   (state == 2 ? "demo/mooring-rules.skarvel" : "demo/boathouse-porch-board.skarvel")));
    if (state == 1) {  // after a cut, with a word that no longer fits
        for (int i = 0; i < 5; ++i) {
            const Plan now = plan_of(job, "2026-05-04T17:40");
            if (const Step* next = now.bench->next()) job = tick(job, now, next->id, moment("2026-05-04T17:30"));
        }
        lettering(job).words = "BOATHOUSES AND LANDING STAGES";
        for (ClearZone& zone : job.signs[0].blank.clear) zone.depth = measure("4 13/16");
    }
    return job;
}

}  // namespace

TEST_CASE("no tray holds anything that is cut off, too wide or covered, at any size of type, in any state") {
    for (const int percent : {100, 125, 150}) {
        for (const Unit unit : {Unit::Inch, Unit::Millimetre}) {
            for (const int state : {0, 1, 2}) {
                if (percent == 125 && state != 0) continue;
                Window w(in_state(state), {1280, 800}, false, percent);
                Shop shop = w.desk().shop();
                shop.display.unit = unit;
                w.desk().set_shop(shop);
                w.settle();
                for (const Station s : {Station::Blank, Station::Lettering, Station::Sections, Station::Method,
                                        Station::Clock, Station::Logbook}) {
                    w.show(s);
                    if (tray_of(w) == nullptr) continue;
                    open_all(w);
                    INFO(word_of(s) << ", " << percent << " %, " << (unit == Unit::Inch ? "inches" : "millimetres")
                                    << ", state " << state);
                    CHECK(wrong_in(tray_of(w)).join("\n").toStdString().empty());
                    INFO(wrong_in(tray_of(w)).join("\n").toStdString());
                    CHECK(tray_of(w)->horizontalScrollBar()->maximum() == 0);
                }
            }
        }
    }
}

TEST_CASE("tab goes through every tray in reading order, first to last, at the first pass too") {
    Window w(in_state(0));
    for (const Station s : {Station::Blank, Station::Lettering, Station::Sections, Station::Method, Station::Clock}) {
        w.show(s);
        Tray* tray = tray_of(w);
        REQUIRE(tray != nullptr);
        QWidget* first = nullptr;
        for (QWidget* c : tray->widget()->findChildren<QWidget*>()) {
            if (!c->isVisible() || !c->isEnabled() || (c->focusPolicy() & Qt::TabFocus) == 0) continue;
            const int y = c->mapTo(tray->widget(), QPoint()).y();
            if (first == nullptr || y < first->mapTo(tray->widget(), QPoint()).y()) first = c;
        }
        REQUIRE(first != nullptr);
        first->setFocus();
        QWidget* before = first;
        for (int i = 0; i < 200; ++i) {
            QTest::keyClick(QApplication::focusWidget(), Qt::Key_Tab);
            QWidget* now = QApplication::focusWidget();
            if (now == nullptr || !tray->widget()->isAncestorOf(now) || now == first) break;
            const QPoint a = before->mapTo(tray->widget(), QPoint()), b = now->mapTo(tray->widget(), QPoint());
            INFO(word_of(s) << ": " << before->accessibleName().toStdString() << ", then "
                            << now->accessibleName().toStdString());
            const bool same_line = b.y() < a.y() + before->height();
            CHECK((b.y() >= a.y() - 8 && (!same_line || b.x() > a.x() || b.y() > a.y())));
            before = now;
        }
        CHECK(before != first);
    }
}
