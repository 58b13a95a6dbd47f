// An empty window that ends once it has been painted: the base line for starting.
#include <QApplication>
#include <QTimer>
#include <QWidget>
#include <cstdlib>

namespace {

class Empty : public QWidget {
  protected:
    void paintEvent(QPaintEvent*) override {
        QTimer::singleShot(0, qApp, [] {
            QGuiApplication::sync();
            std::_Exit(0);
        });
    }
};

}  // namespace

int main(int argc, char** argv) {
    QApplication app(argc, argv);
    Empty window;
    window.resize(1280, 800);
    window.show();
    return QApplication::exec();
}
