// What must stay clear of lettering on a blank: zones, one row of fields each, and margins.
#include "job/blank_commands.h"
#include "stations/blank_parts.h"
#include "theme/words.h"

namespace skarvel {
namespace {

// One zone: where it lies and how large it is, what it is for, both sides or one, and the turns of a wound rope.
class ZoneRow {
  public:
    ZoneRow(BlankForm& form, std::size_t zone) : form_(form), zone_(zone), is_(form.at_hand()->clear.at(zone)) {
        holder_ = new QWidget(form.parent());
        lines_ = new QVBoxLayout(holder_);
        lines_->setContentsMargins(0, 0, 0, 4);
        lines_->setSpacing(4);
        first_line();
        if (is_.shape != ZoneShape::Band) shape_lines();
        what_for();
        if (is_.shape == ZoneShape::Band && is_.reason == ZoneReason::Rope) rope_line();
        form.tray().add_decision(holder_);
    }

  private:
    QString named(const char* key) const { return in_words(key, {{"number", zone_ + 1}}); }

    QHBoxLayout* line() {
        auto* layout = new QHBoxLayout;
        layout->setSpacing(4);
        lines_->addLayout(layout);
        return layout;
    }

    MeasureField* measure(const char* name, Measure ClearZone::*which) {
        const auto place = lens(&Blank::clear, Nth{zone_}, which);
        auto* made = new MeasureField(form_.desk(), named(name), holder_);
        QObject::connect(made, &MeasureField::decided, &form_.tray(),
                         [&form = form_, place](const Measure& m) { form.change([&](Blank& b) { place.put(b, m); }); });
        form_.on_refresh([made, place](const Blank& b) {
            if (const Measure* m = place.in(b)) made->show_value(*m);
        });
        return made;
    }

    void first_line() {
        auto* first = line();
        auto* place = new Choice(named("blank-tray.edge-of-clear-zone"), holder_);
        place->addItems({in_words("blank-tray.top"), in_words("blank-tray.bottom"), in_words("word.left"),
                         in_words("blank-tray.right"), in_words("word.rectangle"), in_words("blank-tray.circle")});
        place->setMinimumContentsLength(4);
        place->setCurrentIndex(static_cast<int>(place_of(is_)));
        QObject::connect(place, &QComboBox::activated, &form_.tray(), [&form = form_, zone = zone_](int i) {
            const ColourPlan* plan = form.desk().face_plan();
            const skarvel::Box face = plan == nullptr ? skarvel::Box{} : plan->face->blank->face;
            form.change([&](Blank& b) { place_zone(b, zone, static_cast<ZonePlace>(i), face); });
        });
        auto* name = new QLineEdit(text_of(is_.name), holder_);
        name->setAccessibleName(named("blank-tray.what-clear-zone-is"));
        QObject::connect(name, &QLineEdit::editingFinished, &form_.tray(), [&form = form_, zone = zone_, name] {
            form.change(
                [&](Blank& b) { lens(&Blank::clear, Nth{zone}, &ClearZone::name).put(b, name->text().toStdString()); });
        });
        QPushButton* remove = button({}, Role::Text, holder_);
        remove->setIcon(Theme::icon("x"));
        remove->setAccessibleName(named("blank-tray.remove-clear-zone"));
        remove->setToolTip(remove->accessibleName());
        remove->setFixedWidth(Theme::px(26));
        QObject::connect(remove, &QPushButton::clicked, &form_.tray(),
                         [&form = form_, zone = zone_] { form.change([&](Blank& b) { remove_zone(b, zone); }); });
        first->addWidget(place, 1);
        if (is_.shape == ZoneShape::Band) {
            first->addWidget(is_.turns > 0 ? measure("blank-tray.girth-of-the-rope", &ClearZone::girth)
                                           : measure("blank-tray.depth-of-clear-zone", &ClearZone::depth),
                             1);
        }
        first->addWidget(remove);
        name_ = name;
    }

    void shape_lines() {
        QHBoxLayout* now = line();
        const auto part = [&](const QString& short_name, const char* full, Measure ClearZone::*which) {
            now->addWidget(label(short_name, Role::Small, holder_));
            now->addWidget(measure(full, which), 1);
        };
        part(in_words("word.left"), "blank-tray.clear-zone-from-the", &ClearZone::x);
        part(in_words("word.up"), "blank-tray.clear-zone-from-the-bottom", &ClearZone::y);
        now = line();
        part(is_.shape == ZoneShape::Circle ? in_words("word.across") : in_words("word.wide"),
             "blank-tray.width-of-clear-zone", &ClearZone::width);
        if (is_.shape == ZoneShape::Rectangle)
            part(in_words("blank-tray.high"), "blank-tray.height-of-clear-zone", &ClearZone::height);
    }

    void what_for() {
        auto* what = line();
        what->addWidget(name_, 1);
        auto* reason = new Choice(named("blank-tray.reason-of-clear-zone"), holder_);
        reason->addItems({in_words("blank-tray.decoration"), in_words("blank-tray.rope-wound"),
                          in_words("blank-tray.hole"), in_words("blank-tray.handle"), in_words("blank-tray.crack"),
                          in_words("blank-tray.knot"), in_words("blank-tray.write-on-field"),
                          in_words("blank-tray.frame"), in_words("blank-tray.other")});
        reason->setCurrentIndex(static_cast<int>(is_.reason));
        QObject::connect(reason, &QComboBox::activated, &form_.tray(), [&form = form_, zone = zone_](int i) {
            form.change([&](Blank& b) { keep_clear_for(b, zone, static_cast<ZoneReason>(i)); });
        });
        what->addWidget(reason, 1);
        auto* both = new Check(in_words("blank-tray.both-sides"), holder_);
        both->setAccessibleName(named("blank-tray.clear-zone-on-both"));
        both->setObjectName(both->accessibleName());
        const auto mirrored = lens(&Blank::clear, Nth{zone_}, &ClearZone::mirrored);
        both->setChecked(is_.mirrored);
        QObject::connect(both, &QCheckBox::clicked, &form_.tray(),
                         [&form = form_, mirrored](bool on) { form.change([&](Blank& b) { mirrored.put(b, on); }); });
        last_ = line();
        last_->addWidget(both);
        last_->addStretch(1);
    }

    void rope_line() {
        auto* turns = new QSpinBox(holder_);
        turns->setRange(1, 200);
        turns->setSuffix(in_words("blank-tray.turns"));
        turns->setAccessibleName(named("blank-tray.turns-of-rope-of"));
        turns->setObjectName(turns->accessibleName());
        turns->setButtonSymbols(QAbstractSpinBox::NoButtons);
        turns->setKeyboardTracking(false);
        turns->setValue(is_.turns);
        QObject::connect(turns, &QSpinBox::valueChanged, &form_.tray(),
                         [&form = form_, zone = zone_](int n) { form.change([&](Blank& b) { wind(b, zone, n); }); });
        const auto place = lens(&Blank::clear, Nth{zone_}, &ClearZone::turns);
        form_.on_refresh([turns, place](const Blank& b) {
            const QSignalBlocker quiet(turns);
            if (const int* n = place.in(b)) turns->setValue(*n);
        });
        last_->addWidget(label(in_words("blank-tray.rope"), Role::Small, holder_));
        last_->addWidget(turns);
    }

    BlankForm& form_;
    std::size_t zone_;
    const ClearZone is_;
    QWidget* holder_;
    QVBoxLayout* lines_;
    QLineEdit* name_ = nullptr;
    QHBoxLayout* last_ = nullptr;
};

}  // namespace

void keep_clear(BlankForm& form) {
    form.rows(
        [](const Blank& b) {
            std::string made_of;
            for (const ClearZone& z : b.clear) {
                made_of += std::to_string(static_cast<int>(place_of(z))) + z.name + word_of(z.reason) +
                           (z.mirrored ? "m" : "") + (z.turns > 0 ? "t" : "") + "\n";
            }
            return made_of;
        },
        [](const Blank& b) { return b.clear.size(); }, [&form](std::size_t i) { ZoneRow(form, i); });
    QPushButton* add = form.offer(in_words("blank-tray.add-a-clear-zone"), [&form] {
        form.change([](Blank& b) { add_zone(b, in_words("blank-tray.kept-clear").toStdString()); });
    });
    add->setIcon(Theme::icon("plus"));
    const auto board = [](const Blank& b) { return b.kind == Kind::Board; };
    form.measure(in_words("blank-tray.margin-at-both-long"), lens(&Blank::margin), board);
    form.measure(in_words("blank-tray.margin-all-round"), lens(&Blank::margin),
                 [board](const Blank& b) { return !board(b); });
}

void side_margins(BlankForm& form) {
    for (const auto& [name, edge] : {std::pair{"blank-tray.margin-at-the-top", Edge::Top},
                                     {"blank-tray.margin-at-the-bottom", Edge::Bottom},
                                     {"blank-tray.margin-at-the-left", Edge::Left},
                                     {"blank-tray.margin-at-the-right", Edge::Right}}) {
        form.measure(in_words(name), lens(&Blank::side_margin, Nth{static_cast<std::size_t>(edge)}),
                     [] { return in_words("blank-tray.as-above"); });
    }
}

}  // namespace skarvel
