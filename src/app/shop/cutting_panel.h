// shop/cutting_panel.h
//
// The machines of the shop with their beds, the film in its drawer, and how exactly sections are laid by hand.
#pragma once

#include <QWidget>

#include "window/fields.h"

class QSpinBox;

namespace skarvel {

class CuttingPanel : public QWidget {
    Q_OBJECT

  public:
    CuttingPanel(Desk& desk, QWidget* parent);
    void refresh();

  private:
    void edit(const std::function<void(Shop&)>& change);
    QWidget* machine_rows(std::size_t i);
    QWidget* bed_row(std::size_t machine, std::size_t bed, QWidget* parent);
    QWidget* film_row(std::size_t i);
    QLineEdit* text(const QString& name, const std::string& shown,
                    const std::function<void(Shop&, const std::string&)>& set, QWidget* parent);
    MeasureField* measure(const QString& name, Length shown, const std::function<void(Shop&, Length)>& set,
                          QWidget* parent);
    QSpinBox* number(const QString& name, int shown, int least, int most, const QString& suffix,
                     const std::function<void(Shop&, int)>& set, QWidget* parent);
    QPushButton* remover(const QString& name, const std::function<void(Shop&)>& remove, QWidget* parent);

    Desk& desk_;
    QWidget *machines_, *films_;
    MeasureField* shift_;
    QSpinBox* turn_;
    std::vector<Machine> machines_shown_;
    std::vector<FilmStock> films_shown_;
    bool built_ = false;
};

}  // namespace skarvel
