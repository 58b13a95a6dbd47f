// stations/compose_part.h
//
// Composing a saying: the words that matter most are marked, and lines are proposed; one is taken by pointing.
#pragma once

#include "lettering/compose.h"
#include "stations/samples.h"
#include "stations/tray_part.h"

namespace skarvel {

class ComposePart : public TrayPart {
    Q_OBJECT

  public:
    ComposePart(Desk& desk, QWidget* parent);

  protected:
    void forget() override {}  // proposals hold until the words are others
    void show_found() override;

  private:
    /// The words of the column, whatever lines they stand in.
    [[nodiscard]] QStringList saying() const;
    void propose();

    QWidget *stress_, *chip_holder_ = nullptr;
    std::vector<QPushButton*> chips_;
    QStringList chips_for_{"?"};
    Choice* stressed_typeface_;
    ProposalList* proposals_;
    ComposeWish wish_;
};

}  // namespace skarvel
