// window/find.h
//
// Find: commands, stations and typefaces, by typing.
#pragma once

#include <QDialog>
#include <QLineEdit>
#include <QListWidget>
#include <functional>
#include <vector>

namespace skarvel {

struct Found {
    QString name;
    std::function<void()> act;
};

class Find : public QDialog {
    Q_OBJECT

  public:
    Find(std::vector<Found> all, QWidget* parent);

  protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

  private:
    void narrow(const QString& text);
    void take();
    std::vector<Found> all_;
    QLineEdit* text_;
    QListWidget* list_;
};

}  // namespace skarvel
