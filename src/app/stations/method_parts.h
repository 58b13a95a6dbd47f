// stations/method_parts.h
//
// What Method does when it is asked: the job both ways, decal and paint-through, side by side; the rules of the trade.
#pragma once

#include "job/variants.h"
#include "stations/tray_part.h"
#include "window/errand.h"

class QLineEdit;

namespace skarvel {

/// This very job with the colour at hand made the one way and the other, each planned whole; taken by a click.
class BothWays : public TrayPart {
    Q_OBJECT

  public:
    BothWays(Desk& desk, QWidget* parent);
    ~BothWays() override { comparing_.stop(); }

  protected:
    void forget() override;
    void show_found() override;

  private:
    void compare();
    [[nodiscard]] QString risk_of(const Risk& risk) const;

    QPushButton* compare_;
    QWidget* ways_;
    std::optional<Comparison> found_;
    Errand<std::optional<Comparison>> comparing_;
};

/// The rules of the trade, to be read and looked through; overruled for this job or in this shop, with a note, and
/// back.
class RulesPart : public TrayPart {
    Q_OBJECT

  public:
    RulesPart(Desk& desk, QWidget* parent);

  protected:
    void forget() override {}
    void show_found() override;

  private:
    void show_overruled(const Rule& rule, const Overruled& now, bool in_shop);

    QLineEdit* sought_;
    QWidget* rows_;
};

}  // namespace skarvel
