// A real window on an offscreen screen, with a data folder of its own.
#pragma once

#include <QApplication>
#include <QTest>
#include <fstream>

#include "support.h"
#include "theme/theme.h"
#include "window/main_window.h"

namespace skarvel::testing {

/// One application for all tests of the program.
inline QApplication& application() {
    static int argc = 1;
    static char name[] = "window-tests";
    static char* argv[] = {name, nullptr};
    // Not destroyed: what tests leave in static storage must not outlive it.
    static auto& app = *new QApplication(argc, argv);
    static const bool loaded = [] {
        Theme::load(std::filesystem::path(SKARVEL_SOURCE) / "assets");
        return true;
    }();
    (void)loaded;
    return app;
}

class Window {
  public:
    explicit Window(const Job& job = porch_board(), const QSize& size = {1280, 800}, bool night = false,
                    int percent = 100)
        : app_(application()),
          desk_(std::shared_ptr<const Library>(&library(), [](const Library*) {}), {folder_.path()},
                moment("2026-05-04T17:40")) {
        Theme::set(night, percent);
        std::ofstream(folder_ / "job.skarvel") << write_job(job);
        window_ = std::make_unique<MainWindow>(desk_);
        window_->set_look(night, percent);
        window_->resize(size);
        window_->open_path(folder_ / "job.skarvel");
        window_->show();
        settle();
    }

    void settle() {
        desk_.wait_for_plan();
        QApplication::processEvents();
        QApplication::processEvents();
    }

    /// The visible widget of that kind whose accessible name, or else own name, is `name`.
    template <class T>
    T* find(const QString& name) {
        for (T* widget : window_->findChildren<T*>()) {
            if ((widget->accessibleName() == name || widget->objectName() == name) && widget->isVisible())
                return widget;
        }
        return nullptr;
    }
    template <class T>
    T& get(const QString& name) {
        T* widget = find<T>(name);
        if (widget == nullptr) throw std::runtime_error("nothing is called " + name.toStdString());
        return *widget;
    }
    void click(const QString& name) {
        QTest::mouseClick(&get<QAbstractButton>(name), Qt::LeftButton);
        settle();
    }
    /// Picks an entry of a drop-down with the keyboard.
    void choose(const QString& name, int entry) {
        auto& box = get<QComboBox>(name);
        box.setFocus();
        while (box.currentIndex() > entry) QTest::keyClick(&box, Qt::Key_Up);
        while (box.currentIndex() < entry) QTest::keyClick(&box, Qt::Key_Down);
        settle();
    }
    /// Types into a field as a person does: all of it anew, then Enter.
    void type(QWidget& field, const QString& text) {
        field.setFocus();
        QApplication::processEvents();
        QTest::keyClick(&field, Qt::Key_A, Qt::ControlModifier);
        QTest::keyClicks(&field, text);
        QTest::keyClick(&field, Qt::Key_Return);
        settle();
    }
    Callout& callout(const QString& id) {
        for (Callout* c : window_->findChildren<Callout*>()) {
            if (c->property("callout-id") == id && c->isVisible()) return *c;
        }
        throw std::runtime_error("no callout " + id.toStdString());
    }
    std::vector<Callout*> callouts() {
        std::vector<Callout*> all;
        for (Callout* c : window_->findChildren<Callout*>()) {
            if (c->isVisible()) all.push_back(c);
        }
        return all;
    }
    void show(Station s) {
        window_->show_station(s);
        settle();
    }
    /// What the user can read: the texts of all visible labels.
    QString read() {
        QString all;
        for (QLabel* l : window_->findChildren<QLabel*>()) {
            if (l->isVisible()) all += l->text() + "\n";
        }
        return all;
    }

    Desk& desk() { return desk_; }
    MainWindow& window() { return *window_; }
    const Job& job() { return desk_.job(); }
    const Sign& sign() { return desk_.job().signs.front(); }
    Folder& folder() { return folder_; }

  private:
    QApplication& app_;
    Folder folder_;
    Desk desk_;
    std::unique_ptr<MainWindow> window_;
};

/// Callouts do not overlap and lie inside, and no text of a button or label is cut off. How many callouts there were.
inline int check_layout(Window& w) {
    const auto boxes = w.callouts();
    for (std::size_t i = 0; i < boxes.size(); ++i) {
        for (std::size_t j = i + 1; j < boxes.size(); ++j)
            CHECK_FALSE(boxes[i]->geometry().intersects(boxes[j]->geometry()));
        CHECK(QFontMetrics(boxes[i]->font()).horizontalAdvance(boxes[i]->text()) <= boxes[i]->width());
        CHECK(boxes[i]->geometry().left() >= 0);
        CHECK(boxes[i]->geometry().right() <= boxes[i]->parentWidget()->width());
    }
    for (QPushButton* b : w.window().findChildren<QPushButton*>()) {
        if (!b->isVisible() || b->text().isEmpty()) continue;
        INFO(b->text().toStdString());
        CHECK(QFontMetrics(b->font()).horizontalAdvance(b->text()) <= b->width());
    }
    for (QLabel* l : w.window().findChildren<QLabel*>()) {
        if (!l->isVisible() || l->text().isEmpty()) continue;
        INFO(l->text().toStdString());
        if (l->wordWrap()) {
            CHECK(l->heightForWidth(l->width()) <= l->height() + 2);
        } else {
            CHECK(l->sizeHint().width() <= l->width() + 2);
        }
    }
    return static_cast<int>(boxes.size());
}

}  // namespace skarvel::testing
