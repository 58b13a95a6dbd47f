// stations/method_parts.h
//
// What Method does when it is asked: the job both ways, decal and paint-through, side by side; the rules of the trade.
#pragma once

#include "job/variants.h"
#include "method/own_rules.h"
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

/// The rules of the trade and the maker's own, to be read and looked through; overruled for this job or in this shop,
/// with a note, and back. As a page of its own it shows them joint by joint, and takes rules of the maker's own.
class RulesPart : public TrayPart {
    Q_OBJECT

  public:
    RulesPart(Desk& desk, QWidget* parent, bool page = false);

  protected:
    void forget() override {}
    void show_found() override;

  private:
    void show_overruled(const Rule& rule, const Overruled& now, bool in_shop);
    void show_rule(const Rule& rule, const QString& why, const QString& rest);
    void show_own();
    void build_own();
    void add_own();
    void say_if_whole();
    [[nodiscard]] OwnRule written() const;

    // What is asked, and what it is to be.
    struct Asking {
        Choice* fact;
        Choice* is;
    };
    std::vector<Asked> asked_;
    std::vector<Asking> asking_;
    QWidget* own_ = nullptr;
    Segmented* joint_ = nullptr;
    Segmented* mark_ = nullptr;
    QLineEdit* says_ = nullptr;
    QLineEdit* instead_ = nullptr;
    QPushButton* add_ = nullptr;

    QLineEdit* sought_;
    QWidget* rows_;
};

}  // namespace skarvel
