// stations/samples.h
//
// Samples: the maker's own words in each typeface, and proposals for a saying, drawn as they would stand. Pointing at
// one takes it.
#pragma once

#include <QWidget>

#include "lettering/compose.h"
#include "window/desk.h"

namespace skarvel {

class Samples : public QWidget {
    Q_OBJECT

  public:
    Samples(Desk& desk, QWidget* parent);
    void show_words(const Text& like);

  Q_SIGNALS:
    void picked(int typeface);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    Desk& desk_;
    std::string words_;
    TypefaceName now_;
    std::vector<std::vector<Region>> drawn_;
    std::size_t at_ = 0;
};

class ProposalList : public QWidget {
    Q_OBJECT

  public:
    ProposalList(Desk& desk, QWidget* parent);
    void show_proposals(Proposals proposals, const ComposeWish& wish, const LetteringRoom& room);
    [[nodiscard]] const Proposals& proposals() const { return proposals_; }

  Q_SIGNALS:
    void taken(int proposal);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    [[nodiscard]] QRectF card(std::size_t i) const;
    Desk& desk_;
    Proposals proposals_;
    std::vector<LetteringPlan> drawn_;
    Region shape_;
    Box usable_;
    std::size_t at_ = 0;
};

}  // namespace skarvel
