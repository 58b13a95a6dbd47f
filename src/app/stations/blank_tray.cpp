// The tray of Blank: what lies on the bench, and what must stay clear.
#include <QCheckBox>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QSpinBox>

#include "blank/kinds.h"
#include "stations/tray.h"
#include "theme/theme.h"

namespace skarvel {
namespace {

using Ids = std::vector<std::pair<std::string, QString>>;

class BlankTray : public Tray {
  public:
    BlankTray(Desk& desk, QWidget* parent) : Tray(desk, parent) {
        title(tr("What is it"));
        build_kind();
        build_sizes();
        build_matter();
        gap();
        title(tr("Keep clear"));
        zones_ = column();
        add_zone_button();
        measure(
            tr("margin at both long sides"), [](const Blank& b) { return std::optional(b.margin); },
            [](Blank& b, const Measure& m) { b.margin = m; }, [](const Blank& b) { return b.kind == Kind::Board; });
        measure(
            tr("margin all round"), [](const Blank& b) { return std::optional(b.margin); },
            [](Blank& b, const Measure& m) { b.margin = m; }, [](const Blank& b) { return b.kind != Kind::Board; });
        group(tr("Margin side by side"), [this] { build_side_margins(); });
        group(tr("What the tape says"), [this] { build_tape(); });
        group(tr("Painted fields"), [this] { build_fields(); });
        group(tr("Frame and backing"), [this] { build_frame(); });
        group(tr("Hang or stand"), [this] { build_holding(); });
        group(tr("Guides"), [this] { build_guides(); });
        group(tr("Signs of this job"), [this] { build_signs(); });
    }

    void refresh() override {
        // Showing may build what is wanted for the first time, with refreshers of its own.
        for (std::size_t i = 0; i < refreshers_.size(); ++i) {
            const auto show = refreshers_[i];
            show();
        }
        refresh_zones();
        say_groups();
        begin_follows(tr("What follows"));
        if (plan() != nullptr) follow(*plan());
        problems(Station::Blank);
        end_follows();
    }

  private:
    // ---- small makers: each field shows one value of the blank and changes it

    void edit_blank(const std::function<void(Blank&)>& change, const QString& merge = {}) {
        edit_sign([&](Sign& s) { change(s.blank); }, merge);
    }

    QWidget* column() {
        auto* made = new QWidget(widget());
        auto* layout = new QVBoxLayout(made);
        layout->setContentsMargins(0, 0, 0, 0);
        layout->setSpacing(4);
        add_decision(made);
        return made;
    }

    // Fields that only some blanks have: built when one of those is first shown.
    void part(const std::function<bool(const Blank&)>& wanted, const std::function<void()>& build) {
        QWidget* holder = column();
        auto built = std::make_shared<bool>(false);
        refreshers_.push_back([this, holder, wanted, build, built] {
            const bool now = wanted(sign().blank);
            if (now && !*built) {
                *built = true;
                inside(static_cast<QVBoxLayout*>(holder->layout()), build);
            }
            holder->setVisible(now);
        });
    }

    // A name over its field, hidden together.
    QWidget* row(const QString& name, QWidget* field) {
        auto* made = new QWidget(widget());
        auto* layout = new QVBoxLayout(made);
        layout->setContentsMargins(0, 4, 0, 0);
        layout->setSpacing(2);
        layout->addWidget(label(name, "small", made));
        layout->addWidget(field);
        add_decision(made);
        return made;
    }

    void show_if(QWidget* what, const std::function<bool(const Blank&)>& wanted) {
        refreshers_.push_back([this, what, wanted] { what->setVisible(wanted(sign().blank)); });
    }

    MeasureField* measure(const QString& name, const std::function<std::optional<Measure>(const Blank&)>& get,
                          const std::function<void(Blank&, const Measure&)>& set,
                          const std::function<bool(const Blank&)>& wanted = {},
                          const std::function<QString()>& otherwise = {}) {
        auto* made = new MeasureField(desk_, name, widget());
        QWidget* holder = row(name, made);
        connect(made, &MeasureField::decided, this,
                [this, set](const Measure& m) { edit_blank([&](Blank& b) { set(b, m); }); });
        refreshers_.push_back(
            [this, made, get, otherwise] { made->show_value(get(sign().blank), otherwise ? otherwise() : QString()); });
        if (wanted) show_if(holder, wanted);
        return made;
    }

    void may_be_empty(MeasureField* field, const std::function<void(Blank&)>& empty) {
        field->allow_empty();
        connect(field, &MeasureField::emptied, this, [this, empty] { edit_blank(empty); });
    }

    Choice* choice(const QString& name, const Ids& ids, const std::function<std::string(const Blank&)>& get,
                   const std::function<void(Blank&, const std::string&)>& set,
                   const std::function<bool(const Blank&)>& wanted = {}) {
        auto* made = new Choice(name, widget());
        for (const auto& [id, shown_as] : ids) made->addItem(shown_as, text_of(id));
        QWidget* holder = row(name, made);
        connect(made, &QComboBox::activated, this, [this, made, set] {
            edit_blank([&](Blank& b) { set(b, made->currentData().toString().toStdString()); });
        });
        refreshers_.push_back([this, made, get] { made->show_data(text_of(get(sign().blank))); });
        if (wanted) show_if(holder, wanted);
        return made;
    }

    template <class T>
    Choice* choice_of(const QString& name, const QStringList& labels, T Blank::*which,
                      const std::function<bool(const Blank&)>& wanted = {}) {
        return number_choice(
            name, labels, [which](const Blank& b) { return static_cast<int>(b.*which); },
            [which](Blank& b, int i) { b.*which = static_cast<T>(i); }, wanted);
    }

    Choice* number_choice(const QString& name, const QStringList& labels, const std::function<int(const Blank&)>& get,
                          const std::function<void(Blank&, int)>& set,
                          const std::function<bool(const Blank&)>& wanted = {}) {
        Ids ids;
        for (int i = 0; i < labels.size(); ++i) ids.emplace_back(std::to_string(i), labels[i]);
        return choice(
            name, ids, [get](const Blank& b) { return std::to_string(get(b)); },
            [set](Blank& b, const std::string& id) { set(b, std::stoi(id)); }, wanted);
    }

    Check* tick(const QString& name, const std::function<bool(const Blank&)>& get,
                const std::function<void(Blank&, bool)>& set, const std::function<bool(const Blank&)>& wanted = {}) {
        auto* made = new Check(name, widget());
        made->setObjectName(name);
        add_decision(made);
        connect(made, &QCheckBox::clicked, this, [this, set](bool on) { edit_blank([&](Blank& b) { set(b, on); }); });
        refreshers_.push_back([this, made, get] { made->setChecked(get(sign().blank)); });
        if (wanted) show_if(made, wanted);
        return made;
    }

    QSpinBox* number(const QString& name, int most, const QString& suffix, const std::function<int(const Blank&)>& get,
                     const std::function<void(Blank&, int)>& set,
                     const std::function<bool(const Blank&)>& wanted = {}) {
        auto* made = new QSpinBox(widget());
        made->setRange(0, most);
        made->setSuffix(suffix);
        if (suffix.isEmpty()) made->setSpecialValueText(tr("not said"));
        made->setAccessibleName(name);
        made->setObjectName(name);
        made->setButtonSymbols(QAbstractSpinBox::NoButtons);
        made->setKeyboardTracking(false);
        QWidget* holder = row(name, made);
        connect(made, &QSpinBox::valueChanged, this, [this, set](int n) { edit_blank([&](Blank& b) { set(b, n); }); });
        refreshers_.push_back([this, made, get] {
            const QSignalBlocker quiet(made);
            made->setValue(get(sign().blank));
        });
        if (wanted) show_if(holder, wanted);
        return made;
    }

    static bool four_sided(const Blank& b) {
        return b.kind == Kind::Board || b.kind == Kind::Panel || b.kind == Kind::Canvas || b.kind == Kind::Field;
    }

    // ---- what it is

    void build_kind() {
        number_choice(
            tr("kind of blank"),
            {tr("board"), tr("panel"), tr("canvas"), tr("round"), tr("arrow"), tr("arch"), tr("field in mouldings"),
             tr("outline from a file")},
            [](const Blank& b) { return static_cast<int>(b.kind); },
            [](Blank& b, int i) { b = as_kind(b, static_cast<Kind>(i)); });
        stock_ = new Choice(tr("stock size"), widget());
        QWidget* holder = row(tr("stock size"), stock_);
        show_if(holder, [](const Blank& b) { return b.kind == Kind::Board; });
        connect(stock_, &QComboBox::activated, this, [this] {
            edit_blank([&](Blank& b) {
                b.stock = stock_->currentData().toString().toStdString();
                if (b.stock.empty() && !b.width && plan() != nullptr)
                    b.width = measure_of(plan()->face->blank->width, desk_.shop().display);
                if (!b.stock.empty()) b.width.reset();
            });
        });
        refreshers_.push_back([this] {
            const auto& own = desk_.shop().stock;
            if (stock_->count() == 0 || own != own_shown_) {
                own_shown_ = own;
                stock_->clear();
                stock_->addItem(tr("measured, no stock size"), "");
                for (const StockSize& s : own)
                    stock_->addItem(tr("%1, ours").arg(text_of(shown_name(s.name))), text_of(s.name));
                for (const StockSize& s : desk_.library().trade.stock)
                    stock_->addItem(text_of(shown_name(s.name)), text_of(s.name));
            }
            stock_->show_data(text_of(sign().blank.stock));
        });
    }

    void build_sizes() {
        const auto is = [](Kind kind) { return [kind](const Blank& b) { return b.kind == kind; }; };
        const auto long_side = [this](const QString& name) {
            measure(
                name, [](const Blank& b) { return std::optional(b.length); },
                [](Blank& b, const Measure& m) { b.length = m; });
        };
        const auto short_side = [this](const QString& name) {
            return measure(
                name, [](const Blank& b) { return b.width; }, [](Blank& b, const Measure& m) { b.width = m; }, {},
                [this] {
                    return plan() != nullptr && plan()->face->blank->stock
                               ? tr("%1, from the table").arg(length(plan()->face->blank->width))
                               : QString();
                });
        };
        part(four_sided, [this, long_side, short_side] {
            long_side(tr("length"));
            may_be_empty(short_side(tr("width, as the tape says")), [](Blank& b) { b.width.reset(); });
        });
        part(is(Kind::Round), [long_side] { long_side(tr("diameter")); });
        part(is(Kind::Arrow), [this, long_side, short_side] {
            long_side(tr("body, length"));
            short_side(tr("body, height"));
            build_arrow();
        });
        part(is(Kind::Arch), [this, long_side, short_side] {
            long_side(tr("height of the arch"));
            short_side(tr("span"));
            build_arch();
        });
        part(is(Kind::Drawn), [this] { build_drawn(); });
        part([](const Blank& b) { return b.kind != Kind::Canvas && b.kind != Kind::Field; },
             [this] {
                 auto* thickness = measure(
                     tr("thickness"), [](const Blank& b) { return b.thickness; },
                     [](Blank& b, const Measure& m) { b.thickness = m; }, {},
                     [this] { return plan() != nullptr ? length(plan()->face->blank->thickness) : QString(); });
                 may_be_empty(thickness, [](Blank& b) { b.thickness.reset(); });
             });
        part(is(Kind::Canvas), [this] {
            auto* bars = measure(
                tr("depth of its bars"), [](const Blank& b) { return b.bars; },
                [](Blank& b, const Measure& m) { b.bars = m; }, {}, [] { return tr("flat, no bars"); });
            may_be_empty(bars, [](Blank& b) { b.bars.reset(); });
        });
        part(is(Kind::Field), [this] {
            auto* moulding = measure(
                tr("width of the mouldings"), [](const Blank& b) { return b.moulding; },
                [](Blank& b, const Measure& m) { b.moulding = m; }, {}, [] { return tr("none drawn"); });
            may_be_empty(moulding, [](Blank& b) { b.moulding.reset(); });
        });
        stands_ = new Segmented(tr("it will be read"), {tr("upright"), tr("level")}, widget());
        show_if(row(tr("it will be read"), stands_), four_sided);
        connect(stands_, &Segmented::chosen, this, [this](int i) { turn(i == 0 ? Stands::Upright : Stands::Level); });
        refreshers_.push_back([this] { stands_->show_choice(sign().blank.stands == Stands::Upright ? 0 : 1); });
    }

    void build_drawn() {
        auto* read = button(tr("Read an outline…"), nullptr, widget());
        add_decision(read);
        connect(read, &QPushButton::clicked, this, [this] { read_outline(); });
        measure(
            tr("its one known dimension"),
            [](const Blank& b) { return b.outline ? std::optional(b.outline->known) : std::nullopt; },
            [](Blank& b, const Measure& m) {
                if (b.outline) b.outline->known = m;
            });
        number_choice(
            tr("that dimension is"), {tr("the width over all"), tr("the height over all")},
            [](const Blank& b) { return b.outline && !b.outline->by_width ? 1 : 0; },
            [](Blank& b, int i) {
                if (b.outline) b.outline->by_width = i == 0;
            });
    }

    void build_arrow() {
        const auto head = [this](const QString& name, Measure ArrowHead::*which) {
            measure(
                name, [which](const Blank& b) { return std::optional(b.head.*which); },
                [which](Blank& b, const Measure& m) { b.head.*which = m; });
        };
        head(tr("head, length"), &ArrowHead::length);
        head(tr("head, height"), &ArrowHead::height);
        head(tr("head overlaps the body by"), &ArrowHead::overlap);
        number_choice(
            tr("it points"), {tr("left"), tr("right")}, [](const Blank& b) { return b.head.right ? 1 : 0; },
            [](Blank& b, int i) { b.head.right = i == 1; });
    }

    void build_arch() {
        number_choice(
            tr("top of the arch"), {tr("half round"), tr("segmental"), tr("pointed")},
            [](const Blank& b) { return static_cast<int>(b.arch.style); },
            [](Blank& b, int i) { b = with_top(b, static_cast<ArchStyle>(i)); });
        measure(
            tr("rise"), [](const Blank& b) { return std::optional(b.arch.rise); },
            [](Blank& b, const Measure& m) { b.arch.rise = m; },
            [](const Blank& b) { return b.arch.style != ArchStyle::HalfRound; });
    }

    void build_matter() {
        Ids materials;
        for (const Material& m : desk_.library().trade.materials) materials.emplace_back(m.id, text_of(m.name));
        choice(
            tr("material"), materials, [](const Blank& b) { return b.material; },
            [](Blank& b, const std::string& id) {
                b.material = id;
                if (id != "acrylic") b.from_behind = false;
            });
        choice_of(tr("surface"), {tr("rough"), tr("open grain"), tr("sanded"), tr("smooth"), tr("glossy")},
                  &Blank::surface);
        number(
            tr("sanded to grit"), 5000, {}, [](const Blank& b) { return b.grit; }, [](Blank& b, int n) { b.grit = n; },
            [](const Blank& b) { return b.surface == Surface::Sanded; });
        tick(
            tr("lettered from behind"), [](const Blank& b) { return b.from_behind; },
            [](Blank& b, bool on) { b.from_behind = on; }, [](const Blank& b) { return b.material == "acrylic"; });
        group(tr("More about it"), [this] {
            choice_of(tr("grain runs"), {tr("along its length"), tr("across"), tr("it has none")}, &Blank::grain);
            choice_of(tr("finished"), {tr("the face"), tr("face and edges"), tr("all round")}, &Blank::finished);
            choice_of(tr("what is on it already"),
                      {tr("nothing, it is bare"), tr("oil stain"), tr("water-based stain"), tr("paint"), tr("a sealer"),
                       tr("old lettering to hide")},
                      &Blank::already);
            number(
                tr("since"), 100'000, tr(" hours"), [](const Blank& b) { return b.already_hours; },
                [](Blank& b, int n) { b.already_hours = n; },
                [](const Blank& b) { return b.already != Already::Bare; });
        });
    }

    void read_outline() {
        const QString name =
            QFileDialog::getOpenFileName(this, tr("Read an outline"), {}, tr("Drawings (*.svg *.dxf)"));
        if (name.isEmpty()) return;
        const auto problem = desk_.read_outline(name.toStdString());
        if (!problem.empty()) Q_EMIT desk_.said(text_of(problem), true);
    }

    // Clear zones at the ends go with the board when it is turned.
    void turn(Stands stands) {
        edit_blank([&](Blank& b) {
            if (b.stands == stands) return;
            b.stands = stands;
            for (ClearZone& z : b.clear) {
                switch (z.edge) {
                    case Edge::Top:
                        z.edge = Edge::Left;
                        break;
                    case Edge::Bottom:
                        z.edge = Edge::Right;
                        break;
                    case Edge::Left:
                        z.edge = Edge::Top;
                        break;
                    case Edge::Right:
                        z.edge = Edge::Bottom;
                        break;
                }
            }
        });
    }

    // ---- clear zones

    void add_zone_button() {
        QPushButton* add = button(tr("Add a clear zone"), nullptr, widget());
        add->setIcon(Theme::icon("plus"));
        connect(add, &QPushButton::clicked, this, [this] {
            edit_blank([&](Blank& b) {
                b.clear.push_back({b.stands == Stands::Upright || !four_sided(b) ? Edge::Top : Edge::Left,
                                   skarvel::measure("2"), "kept clear"});
            });
        });
        add_decision(add);
    }

    // What the drop-down of a zone offers: bands at an edge, turns of rope there, shapes anywhere.
    static int place_of(const ClearZone& z) {
        if (z.shape == ZoneShape::Rectangle) return 4;
        if (z.shape == ZoneShape::Circle) return 5;
        return static_cast<int>(z.edge);
    }

    void move_zone(Blank& b, std::size_t i, int place) {
        ClearZone& z = b.clear.at(i);
        if (place < 4) {
            z.shape = ZoneShape::Band;
            z.edge = static_cast<Edge>(place);
            if (z.depth.typed.empty()) z.depth = skarvel::measure("2");
            return;
        }
        z.shape = place == 4 ? ZoneShape::Rectangle : ZoneShape::Circle;
        const skarvel::Box bounds = plan() != nullptr ? plan()->face->blank->face : skarvel::Box{};
        if (z.x.typed.empty()) z.x = measure_of(from_grid((bounds.low.x + bounds.high.x) / 2), {Unit::Inch, 64});
        if (z.y.typed.empty()) z.y = measure_of(from_grid((bounds.low.y + bounds.high.y) / 2), {Unit::Inch, 64});
        if (z.width.typed.empty()) z.width = skarvel::measure("2");
        if (z.height.typed.empty()) z.height = skarvel::measure("2");
        z.turns = 0;
    }

    static void empty(QWidget* holder) {
        while (QLayoutItem* item = holder->layout()->takeAt(0)) {
            if (item->widget() != nullptr) {
                item->widget()->hide();
                item->widget()->deleteLater();
            }
            delete item;
        }
    }

    void refresh_zones() {
        const auto& clear = sign().blank.clear;
        std::vector<std::string> now;
        for (const ClearZone& z : clear)
            now.push_back(std::to_string(place_of(z)) + z.name + word_of(z.reason) + (z.mirrored ? "m" : "") +
                          (z.turns > 0 ? "t" : ""));
        if (now != zones_shown_) {
            zones_shown_ = now;
            zone_refreshers_.clear();
            empty(zones_);
            for (std::size_t i = 0; i < clear.size(); ++i) zones_->layout()->addWidget(zone_row(i, clear[i]));
        }
        for (const auto& show : zone_refreshers_) show();
    }

    MeasureField* zone_measure(std::size_t i, const QString& name, Measure ClearZone::*which, QWidget* parent) {
        auto* made = new MeasureField(desk_, name, parent);
        connect(made, &MeasureField::decided, this,
                [this, i, which](const Measure& m) { edit_blank([&](Blank& b) { b.clear.at(i).*which = m; }); });
        zone_refreshers_.push_back([this, made, i, which] {
            if (i < sign().blank.clear.size()) made->show_value(sign().blank.clear[i].*which);
        });
        return made;
    }

    QWidget* zone_row(std::size_t i, const ClearZone& zone) {
        auto* holder = new QWidget(zones_);
        auto* lines = new QVBoxLayout(holder);
        lines->setContentsMargins(0, 0, 0, 4);
        lines->setSpacing(4);
        const auto line = [&] {
            auto* layout = new QHBoxLayout;
            layout->setSpacing(4);
            lines->addLayout(layout);
            return layout;
        };
        auto* first = line();
        auto* edge = new Choice(tr("edge of clear zone %1").arg(i + 1), holder);
        const QStringList places{tr("top"), tr("bottom"), tr("left"), tr("right"), tr("rectangle"), tr("circle")};
        for (int place = 0; place < places.size(); ++place) edge->addItem(places[place], place);
        edge->setMinimumContentsLength(4);
        edge->setCurrentIndex(edge->findData(place_of(zone)));
        connect(edge, &QComboBox::activated, this,
                [this, i, edge] { edit_blank([&](Blank& b) { move_zone(b, i, edge->currentData().toInt()); }); });
        auto* name = new QLineEdit(text_of(zone.name), holder);
        name->setAccessibleName(tr("what clear zone %1 is for").arg(i + 1));
        connect(name, &QLineEdit::editingFinished, this, [this, i, name] {
            edit_blank([&](Blank& b) {
                if (i < b.clear.size()) b.clear[i].name = name->text().toStdString();
            });
        });
        QPushButton* remove = button({}, "text", holder);
        remove->setIcon(Theme::icon("x"));
        remove->setAccessibleName(tr("remove clear zone %1").arg(i + 1));
        remove->setToolTip(remove->accessibleName());
        remove->setFixedWidth(Theme::px(26));
        connect(remove, &QPushButton::clicked, this,
                [this, i] { edit_blank([&](Blank& b) { b.clear.erase(b.clear.begin() + static_cast<long>(i)); }); });
        first->addWidget(edge, 4);
        if (zone.shape == ZoneShape::Band)
            first->addWidget(
                zone.turns > 0
                    ? zone_measure(i, tr("girth of the rope of clear zone %1").arg(i + 1), &ClearZone::girth, holder)
                    : zone_measure(i, tr("depth of clear zone %1").arg(i + 1), &ClearZone::depth, holder),
                3);
        first->addWidget(name, 4);
        first->addWidget(remove);
        if (zone.shape != ZoneShape::Band) {
            auto* second = line();
            const auto part = [&](const QString& short_name, const QString& full, Measure ClearZone::*which) {
                second->addWidget(label(short_name, "small", holder));
                second->addWidget(zone_measure(i, full.arg(i + 1), which, holder), 1);
            };
            part(tr("left"), tr("clear zone %1 from the left"), &ClearZone::x);
            part(tr("up"), tr("clear zone %1 from the bottom"), &ClearZone::y);
            second = line();
            part(zone.shape == ZoneShape::Circle ? tr("across") : tr("wide"), tr("width of clear zone %1"),
                 &ClearZone::width);
            if (zone.shape == ZoneShape::Rectangle) part(tr("high"), tr("height of clear zone %1"), &ClearZone::height);
        }
        auto* last = line();
        auto* reason = new Choice(tr("reason of clear zone %1").arg(i + 1), holder);
        reason->addItems({tr("decoration"), tr("rope, wound"), tr("hole"), tr("handle"), tr("crack"), tr("knot"),
                          tr("write-on field"), tr("frame"), tr("other")});
        reason->setCurrentIndex(static_cast<int>(zone.reason));
        connect(reason, &QComboBox::activated, this, [this, i, reason] {
            edit_blank([&](Blank& b) {
                ClearZone& z = b.clear.at(i);
                z.reason = static_cast<ZoneReason>(reason->currentIndex());
                // Wound rope takes turns x girth; anything else a depth.
                z.turns = z.reason == ZoneReason::Rope && z.shape == ZoneShape::Band ? std::max(1, z.turns) : 0;
                if (z.turns > 0 && z.girth.typed.empty()) z.girth = skarvel::measure("3/8");
                if (z.turns == 0 && z.depth.typed.empty()) z.depth = skarvel::measure("2");
            });
        });
        last->addWidget(reason, 3);
        auto* both = new Check(tr("both sides"), holder);
        both->setAccessibleName(tr("clear zone %1 on both sides").arg(i + 1));
        both->setObjectName(both->accessibleName());
        both->setChecked(zone.mirrored);
        connect(both, &QCheckBox::clicked, this,
                [this, i](bool on) { edit_blank([&](Blank& b) { b.clear.at(i).mirrored = on; }); });
        last->addWidget(both, 2);
        if (zone.shape == ZoneShape::Band && zone.reason == ZoneReason::Rope) {
            auto* turns = new QSpinBox(holder);
            turns->setRange(1, 200);
            turns->setSuffix(tr(" turns"));
            turns->setAccessibleName(tr("turns of rope of clear zone %1").arg(i + 1));
            turns->setObjectName(turns->accessibleName());
            turns->setButtonSymbols(QAbstractSpinBox::NoButtons);
            turns->setKeyboardTracking(false);
            turns->setValue(zone.turns);
            connect(turns, &QSpinBox::valueChanged, this, [this, i](int n) {
                edit_blank([&](Blank& b) {
                    b.clear.at(i).turns = n;
                    if (n > 0 && b.clear.at(i).girth.typed.empty()) b.clear.at(i).girth = skarvel::measure("3/8");
                });
            });
            zone_refreshers_.push_back([this, turns, i] {
                const QSignalBlocker quiet(turns);
                if (i < sign().blank.clear.size()) turns->setValue(sign().blank.clear[i].turns);
            });
            auto* rope = line();
            rope->addWidget(label(tr("rope"), "small", holder));
            rope->addWidget(turns, 1);
            rope->addStretch(1);
        }
        return holder;
    }

    // ---- parts that open

    void build_side_margins() {
        for (const auto& [name, edge] : {std::pair{tr("margin at the top"), Edge::Top},
                                         {tr("margin at the bottom"), Edge::Bottom},
                                         {tr("margin at the left"), Edge::Left},
                                         {tr("margin at the right"), Edge::Right}}) {
            const auto i = static_cast<std::size_t>(edge);
            auto* made = measure(
                name, [i](const Blank& b) { return b.side_margin.at(i); },
                [i](Blank& b, const Measure& m) { b.side_margin.at(i) = m; }, {}, [] { return tr("as above"); });
            may_be_empty(made, [i](Blank& b) { b.side_margin.at(i).reset(); });
        }
    }

    void build_tape() {
        add_decision(label(tr("As many as you care to take. The second diagonal and the middle check the others."),
                           "small", widget()));
        for (std::size_t i = 0; i < reading_count; ++i) {
            const std::string id = name_of(static_cast<Reading>(i));
            auto* made = measure(
                say({id, {}}), [i](const Blank& b) { return b.tape.taken.at(i); },
                [i](Blank& b, const Measure& m) { b.tape.taken.at(i) = m; }, four_sided,
                [] { return tr("not measured"); });
            may_be_empty(made, [i](Blank& b) { b.tape.taken.at(i).reset(); });
        }
        measure(
            tr("the tape is good to"), [](const Blank& b) { return std::optional(b.tape.tolerance); },
            [](Blank& b, const Measure& m) { b.tape.tolerance = m; });
    }

    // Rows of a list that are built anew when its length changes.
    void list(QWidget* holder, const std::function<std::size_t()>& count,
              const std::function<QWidget*(std::size_t)>& make) {
        auto shown = std::make_shared<std::size_t>(0);
        refreshers_.push_back([holder, count, make, shown] {
            if (*shown == count()) return;
            *shown = count();
            empty(holder);
            for (std::size_t i = 0; i < *shown; ++i) holder->layout()->addWidget(make(i));
        });
    }

    QPushButton* small_button(const QString& text, const std::function<void()>& act) {
        QPushButton* made = button(text, nullptr, widget());
        connect(made, &QPushButton::clicked, this, act);
        add_decision(made);
        return made;
    }

    void build_fields() {
        for (std::size_t i = 0; i < 3; ++i) {
            const auto there = [i](const Blank& b) { return i < b.fields.size(); };
            number_choice(
                tr("field %1").arg(i + 1), {tr("band across"), tr("band upwards"), tr("border all round")},
                [i](const Blank& b) {
                    if (i >= b.fields.size()) return 0;
                    return b.fields[i].border ? 2 : b.fields[i].along == Axis::X ? 0 : 1;
                },
                [i](Blank& b, int n) {
                    if (i >= b.fields.size()) return;
                    b.fields[i].border = n == 2;
                    b.fields[i].along = n == 1 ? Axis::Y : Axis::X;
                },
                there);
            measure(
                tr("depth of field %1").arg(i + 1),
                [i](const Blank& b) { return i < b.fields.size() ? std::optional(b.fields[i].depth) : std::nullopt; },
                [i](Blank& b, const Measure& m) {
                    if (i < b.fields.size()) b.fields[i].depth = m;
                },
                there);
            measure(
                tr("middle of field %1").arg(i + 1),
                [i](const Blank& b) { return i < b.fields.size() ? std::optional(b.fields[i].middle) : std::nullopt; },
                [i](Blank& b, const Measure& m) {
                    if (i < b.fields.size()) b.fields[i].middle = m;
                },
                [i](const Blank& b) { return i < b.fields.size() && !b.fields[i].border; });
            auto* colour = new ColourButton(tr("colour of field %1").arg(i + 1), widget());
            connect(colour, &ColourButton::decided, this, [this, i](const QString& c, const QString& name) {
                edit_blank([&](Blank& b) {
                    if (i >= b.fields.size()) return;
                    b.fields[i].colour = c.toStdString();
                    b.fields[i].colour_name = name.toStdString();
                });
            });
            show_if(row(tr("colour of field %1").arg(i + 1), colour), there);
            refreshers_.push_back([this, colour, i] {
                const auto& fields = sign().blank.fields;
                if (i < fields.size()) colour->show_colour(fields[i].colour, fields[i].colour_name);
            });
            tick(
                tr("lettering stays inside field %1").arg(i + 1),
                [i](const Blank& b) { return i < b.fields.size() && b.fields[i].lettered; },
                [i](Blank& b, bool on) {
                    if (i < b.fields.size()) b.fields[i].lettered = on;
                },
                there);
        }
        QPushButton* add = small_button(tr("Add a painted field"), [this] {
            const skarvel::Box bounds = plan() != nullptr ? plan()->face->blank->face : skarvel::Box{};
            edit_blank([&](Blank& b) {
                PaintedField field;
                field.middle = measure_of(from_grid(bounds.height() / 2), {Unit::Inch, 64});
                field.depth = measure_of(from_grid(bounds.height() / 4), {Unit::Inch, 16});
                field.colour_name = "brick red";
                b.fields.push_back(field);
            });
        });
        show_if(add, [](const Blank& b) { return b.fields.size() < 3; });
        QPushButton* remove =
            small_button(tr("Remove the last field"), [this] { edit_blank([](Blank& b) { b.fields.pop_back(); }); });
        show_if(remove, [](const Blank& b) { return !b.fields.empty(); });
    }

    void build_frame() {
        const auto framed = [](const Blank& b) { return b.frame.kind != FrameKind::None; };
        const auto mitred = [](const Blank& b) { return b.frame.kind == FrameKind::Mitred; };
        number_choice(
            tr("frame"),
            {tr("none"), tr("butt, round the edge"), tr("mitred, round the edge"), tr("trim on the face"),
             tr("battens at top and bottom"), tr("edging strip")},
            [](const Blank& b) { return static_cast<int>(b.frame.kind); },
            [](Blank& b, int i) { b.frame.kind = static_cast<FrameKind>(i); });
        number_choice(
            tr("length and width are"),
            {tr("over all, frame on"), tr("of the bare panel"), tr("free, inside the frame")},
            [](const Blank& b) { return static_cast<int>(b.frame.size_is); },
            [](Blank& b, int i) { b.frame.size_is = static_cast<SizeIs>(i); }, framed);
        Ids stocks;
        for (const StockSize& s : desk_.library().trade.stock) stocks.emplace_back(s.name, text_of(shown_name(s.name)));
        choice(
            tr("cut from"), stocks, [](const Blank& b) { return b.frame.stock; },
            [](Blank& b, const std::string& id) { b.frame.stock = id; }, framed);
        measure(
            tr("seen from the front"), [](const Blank& b) { return std::optional(b.frame.seen); },
            [](Blank& b, const Measure& m) { b.frame.seen = m; }, framed);
        measure(
            tr("rebate"), [](const Blank& b) { return std::optional(b.frame.rebate); },
            [](Blank& b, const Measure& m) { b.frame.rebate = m; }, mitred);
        measure(
            tr("clearance in the rebate"), [](const Blank& b) { return std::optional(b.frame.clearance); },
            [](Blank& b, const Measure& m) { b.frame.clearance = m; }, mitred);
        tick(
            tr("stands above the face"), [](const Blank& b) { return b.frame.raised; },
            [](Blank& b, bool on) { b.frame.raised = on; }, framed);
        tick(
            tr("goes on before the lettering"), [](const Blank& b) { return b.frame.before; },
            [](Blank& b, bool on) { b.frame.before = on; }, framed);
        tick(
            tr("glued on a larger backing"), [](const Blank& b) { return b.backing.has_value(); },
            [this](Blank& b, bool on) {
                if (!on) return b.backing.reset();
                const Display exact{Unit::Inch, 16};
                const BlankPlan* p = plan() != nullptr ? plan()->face->blank.get() : nullptr;
                b.backing = Backing{measure_of((p ? p->length : 24_in) + 2_in, exact),
                                    measure_of((p ? p->width : 12_in) + 2_in, exact), skarvel::measure("3/4"), "pine"};
            });
        const auto backed = [](const Blank& b) { return b.backing.has_value(); };
        for (const auto& [name, which] : {std::pair{tr("length of the backing"), &Backing::length},
                                          {tr("width of the backing"), &Backing::width},
                                          {tr("thickness of the backing"), &Backing::thickness}}) {
            measure(
                name,
                [which = which](const Blank& b) { return b.backing ? std::optional(*b.backing.*which) : std::nullopt; },
                [which = which](Blank& b, const Measure& m) {
                    if (b.backing) *b.backing.*which = m;
                },
                backed);
        }
    }

    void build_holding() {
        const auto stands = [](const Blank& b) {
            return b.holding.way == Holds::Legs || b.holding.way == Holds::Stake || b.holding.way == Holds::Leaning;
        };
        number_choice(
            tr("it is held"),
            {tr("hung on a wall"), tr("on legs or feet"), tr("leaning"), tr("on a stake in a pot"), tr("where it is")},
            [](const Blank& b) { return static_cast<int>(b.holding.way); },
            [](Blank& b, int i) { b.holding.way = static_cast<Holds>(i); });
        measure(
            tr("depth of its base"), [](const Blank& b) { return std::optional(b.holding.base); },
            [](Blank& b, const Measure& m) { b.holding.base = m; }, stands);
        measure(
            tr("lower edge above the ground"), [](const Blank& b) { return std::optional(b.holding.under); },
            [](Blank& b, const Measure& m) { b.holding.under = m; },
            [](const Blank& b) { return b.holding.way == Holds::Legs || b.holding.way == Holds::Stake; });
        const bool pounds = desk_.shop().display.unit == Unit::Inch;
        const double each = pounds ? 453.59237 : 1000.0;
        number(
            tr("weight laid low down"), 2000, pounds ? tr(" lb") : tr(" kg"),
            [each](const Blank& b) { return static_cast<int>(std::lround(b.holding.ballast_grams / each)); },
            [each](Blank& b, int n) { b.holding.ballast_grams = static_cast<int>(std::lround(n * each)); },
            [](const Blank& b) { return b.holding.way == Holds::Legs || b.holding.way == Holds::Stake; });
    }

    void build_guides() {
        for (std::size_t i = 0; i < 4; ++i) {
            const auto there = [i](const Blank& b) { return i < b.guides.size(); };
            number_choice(
                tr("guide %1 runs").arg(i + 1), {tr("across"), tr("upwards")},
                [i](const Blank& b) { return i < b.guides.size() && b.guides[i].along == Axis::Y ? 1 : 0; },
                [i](Blank& b, int n) {
                    if (i < b.guides.size()) b.guides[i].along = n == 1 ? Axis::Y : Axis::X;
                },
                there);
            measure(
                tr("guide %1 lies at").arg(i + 1),
                [i](const Blank& b) { return i < b.guides.size() ? std::optional(b.guides[i].where) : std::nullopt; },
                [i](Blank& b, const Measure& m) {
                    if (i < b.guides.size()) b.guides[i].where = m;
                },
                there);
        }
        QPushButton* add = small_button(tr("Add a guide"), [this] {
            edit_blank([](Blank& b) { b.guides.push_back({Axis::Y, skarvel::measure("2"), "glue line"}); });
        });
        show_if(add, [](const Blank& b) { return b.guides.size() < 4; });
        QPushButton* remove =
            small_button(tr("Remove the last guide"), [this] { edit_blank([](Blank& b) { b.guides.pop_back(); }); });
        show_if(remove, [](const Blank& b) { return !b.guides.empty(); });
    }

    // ---- signs

    void build_signs() {
        auto* name = new QLineEdit(widget());
        name->setAccessibleName(tr("name of the sign"));
        name->setPlaceholderText(tr("its words name it"));
        row(tr("this sign is called"), name);
        connect(name, &QLineEdit::editingFinished, this,
                [this, name] { edit_sign([&](Sign& s) { s.name = name->text().toStdString(); }); });
        refreshers_.push_back([this, name] {
            if (!name->hasFocus()) name->setText(text_of(sign().name));
        });
        small_button(tr("Another like it"), [this] {
            const std::size_t at = desk_.sign_at();
            desk_.apply(copy_sign(desk_.job(), at, face().lettering.main().words));
            desk_.select(at + 1);
        });
        QPushButton* back = small_button(tr("Letter its back"), [this] {
            desk_.apply(letter_back(desk_.job(), desk_.sign_at()));
            desk_.select(desk_.sign_at(), 1);
        });
        show_if(back, [this](const Blank&) { return sign().faces.size() < 2; });
        QPushButton* bare = small_button(tr("Leave its back bare"), [this] {
            desk_.apply(bare_back(desk_.job(), desk_.sign_at()));
            desk_.select(desk_.sign_at());
        });
        show_if(bare, [this](const Blank&) { return sign().faces.size() > 1; });
        QPushButton* remove = small_button(tr("Take this sign out"), [this] {
            desk_.apply(remove_sign(desk_.job(), desk_.sign_at()));
            desk_.select(desk_.sign_at());
        });
        show_if(remove, [this](const Blank&) { return desk_.job().signs.size() > 1; });
        QPushButton* post = small_button(tr("Set them on a post"), [this] {
            desk_.apply(set_on_post(desk_.job()));
            desk_.show_together(true);
        });
        show_if(post, [this](const Blank&) { return !desk_.job().post; });
        QPushButton* off =
            small_button(tr("Take them off the post"), [this] { edit([](Job& job) { job.post.reset(); }); });
        show_if(off, [this](const Blank&) { return desk_.job().post.has_value(); });
        for (const auto& [called, which] : {std::pair{tr("post above the ground"), &Post::height},
                                            {tr("post in the ground"), &Post::buried},
                                            {tr("width of the post"), &Post::width}}) {
            auto* made = new MeasureField(desk_, called, widget());
            QWidget* holder = row(called, made);
            connect(made, &MeasureField::decided, this, [this, which = which](const Measure& m) {
                edit([&](Job& job) {
                    if (job.post) *job.post.*which = m;
                });
            });
            refreshers_.push_back([this, made, which = which] {
                if (desk_.job().post) made->show_value(*desk_.job().post.*which);
            });
            show_if(holder, [this](const Blank&) { return desk_.job().post.has_value(); });
        }
    }

    void say_groups() {
        const Blank& b = sign().blank;
        const auto count = [](std::size_t n) { return n == 0 ? tr("none") : QString::number(n); };
        std::size_t readings = 0;
        for (const auto& taken : b.tape.taken) readings += taken ? 1 : 0;
        std::size_t sides = 0;
        for (const auto& m : b.side_margin) sides += m ? 1 : 0;
        static const QStringList frames{tr("none"), tr("butt"), tr("mitred"), tr("trim"), tr("battens"), tr("edging")};
        static const QStringList holds{tr("hung"), tr("on legs"), tr("leaning"), tr("on a stake"), tr("in place")};
        group_says(tr("More about it"), b.already == Already::Bare ? tr("bare") : tr("not bare"));
        group_says(tr("Margin side by side"), count(sides));
        group_says(tr("What the tape says"), readings == 0 ? tr("not measured") : tr("%1 readings").arg(readings));
        group_says(tr("Painted fields"), count(b.fields.size()));
        group_says(tr("Frame and backing"),
                   frames[static_cast<int>(b.frame.kind)] + (b.backing ? tr(", backed") : QString()));
        group_says(tr("Hang or stand"), holds[static_cast<int>(b.holding.way)]);
        group_says(tr("Guides"), count(b.guides.size()));
        group_says(tr("Signs of this job"), QString::number(desk_.job().signs.size()));
    }

    // ---- what follows

    QString size(const skarvel::Box& box) const {
        return QString("%1 × %2").arg(shown(show_number(from_grid(box.width()), desk_.shop().display)),
                                      length(from_grid(box.height())));
    }

    void follow(const ColourPlan& face_plan) {
        const BlankPlan& p = *face_plan.face->blank;
        if (p.face.empty()) return;
        const Display& display = desk_.shop().display;
        fact(tr("real size"), QString("%1 × %2").arg(shown(show_number(p.length, display)), length(p.width)));
        if (p.stock) fact(tr("sold as"), text_of(shown_name(p.stock->name)));
        if (!p.usable.empty()) fact(tr("for lettering"), size(p.usable));
        for (const NamedRoom& room : p.rooms) fact(say(room.what), size(room.box));
        if (sign().blank.frame.kind != FrameKind::None)
            fact(tr("with its frame"),
                 QString("%1 × %2").arg(shown(show_number(p.frame.over_across, display)), length(p.frame.over_up)));
        if (p.weight.total() > 0) fact(tr("weighs"), text_of(show_weight(p.weight.total(), display)));
        if (p.rope > Length{}) fact(tr("rope"), length(p.rope));
        if (p.tape) {
            heading(tr("What the tape tells"));
            for (const Reason& words : p.tape->words) why(say(words));
        }
        for (const Reason& note : p.notes) why(say(note));
        follow_weight(p.weight);
        follow_saw();
        if (!face_plan.face->marking.steps.empty()) {
            heading(tr("Marking out"));
            for (const Reason& step : face_plan.face->marking.steps) why(say(step));
        }
        for (const Reason& order : p.order) why(say(order));
        if (desk_.plan().post && desk_.job().post) {
            heading(tr("On the post"));
            for (const Reason& step : desk_.plan().post->steps) why(say(step));
        }
        follow_leftovers(p);
    }

    void follow_weight(const Weighed& w) {
        if (!w.hardware && !w.tipping && w.cautions.empty()) return;
        heading(tr("How it holds"));
        if (w.hardware) why(say(*w.hardware));
        for (const HangPoint& point : w.points)
            fact(say(point.what), tr("%1 in, %2 up").arg(length(from_grid(point.at.x)), length(from_grid(point.at.y))));
        if (w.tipping) {
            const Display& display = desk_.shop().display;
            fact(tr("goes over at"), tr("%1°").arg(static_cast<int>(std::lround(w.tipping->angle_degrees))));
            fact(tr("or by a push of"), text_of(show_force(w.tipping->push_newton, display)));
            if (w.tipping->needed_grams > sign().blank.holding.ballast_grams)
                fact(tr("low down it wants"), text_of(show_weight(w.tipping->needed_grams, display)));
        }
        for (const Reason& caution : w.cautions) why(say(caution));
    }

    void follow_saw() {
        const auto& all = desk_.plan().saw;
        const bool frames = std::any_of(all.begin(), all.end(), [](const SawPlan& s) {
            return std::any_of(s.cuts.begin(), s.cuts.end(),
                               [](const Cut& c) { return c.what.id.starts_with("frame."); });
        });
        if (!frames) return;
        heading(tr("Cut list"));
        for (const SawPlan& s : all) {
            for (std::size_t i = 0; i < s.cuts.size(); ++i) {
                const Cut& cut = s.cuts[i];
                const QString what = (s.of[i].empty() ? QString() : text_of(s.of[i]) + ": ") + say(cut.what);
                fact(tr("%1 × %2").arg(cut.count).arg(what),
                     length(cut.length) + (cut.angle == 90 ? QString() : tr(", %1°").arg(cut.angle)));
            }
            why(s.cutting.proved
                    ? tr("%1 of %2: no plan uses fewer.").arg(s.cutting.used).arg(text_of(shown_name(s.stock)))
                    : tr("%1 of %2.").arg(s.cutting.used).arg(text_of(shown_name(s.stock))));
            for (const SawnBoard& board : s.cutting.boards) {
                QStringList pieces;
                for (const std::size_t i : board.pieces) pieces << length(s.cuts[i].length);
                why(tr("From %1: %2; %3 over.").arg(length(board.from), pieces.join(" + "), length(board.offcut)));
            }
        }
    }

    void follow_leftovers(const BlankPlan& p) {
        const auto found = leftovers_that_do(sign().blank, p, desk_.shop().leftovers);
        if (found.empty()) return;
        heading(tr("Leftover wood that would do"));
        for (const std::size_t i : found) {
            const LeftoverWood& l = desk_.shop().leftovers[i];
            fact(text_of(l.name),
                 tr("%1 × %2").arg(shown(show_number(l.length.value, desk_.shop().display)), length(l.width.value)));
        }
    }

    std::vector<std::function<void()>> refreshers_, zone_refreshers_;
    Choice* stock_ = nullptr;
    std::vector<StockSize> own_shown_;
    Segmented* stands_ = nullptr;
    QWidget* zones_ = nullptr;
    std::vector<std::string> zones_shown_;
};

}  // namespace

Tray* make_blank_tray(Desk& desk, QWidget* parent) { return new BlankTray(desk, parent); }

}  // namespace skarvel
