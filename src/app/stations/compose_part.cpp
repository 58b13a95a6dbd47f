#include "stations/compose_part.h"

#include <QGridLayout>
#include <algorithm>

#include "lettering/setting.h"
#include "theme/words.h"

namespace skarvel {

ComposePart::ComposePart(Desk& desk, QWidget* parent) : TrayPart(desk, parent) {
    add(label(in_words("compose-part.mark-the-words-that"), Role::Small, this));
    stress_ = list("stress");
    stressed_typeface_ = field(in_words("compose-part.typeface-of-the-marked"),
                               new Choice(in_words("compose-part.typeface-of-the-marked"), this));
    const auto& typefaces = desk_.library().typefaces;
    for (const Typeface& t : typefaces) stressed_typeface_->addItem(text_of(t.name.family + " " + t.name.style));
    const auto script = std::find_if(typefaces.begin(), typefaces.end(), [](const Typeface& t) { return t.script(); });
    stressed_typeface_->setCurrentIndex(script == typefaces.end() ? 0 : static_cast<int>(script - typefaces.begin()));
    connect(stressed_typeface_, &QComboBox::activated, this, [this] { propose(); });
    QPushButton* go = button(in_words("compose-part.propose-lines"), Role::Main, this);
    go->setObjectName("propose");
    add(go);
    connect(go, &QPushButton::clicked, this, [this] { propose(); });
    proposals_ = new ProposalList(desk_, this);
    add(proposals_);
    connect(proposals_, &ProposalList::taken, this, [this](int i) {
        const Proposals& all = proposals_->proposals();
        desk_.apply(take_proposal(desk_.job(), desk_.at(), all.best.at(static_cast<std::size_t>(i)), wish_));
        desk_.select_text(0);
    });
}

QStringList ComposePart::saying() const {
    QStringList words;
    for (const Text& t : desk_.face().lettering.texts) {
        if (t.locked || t.up || t.arrangement == Arrangement::Arc) continue;
        for (const std::string& w : words_of(t.words)) words << text_of(w);
    }
    return words;
}

void ComposePart::show_found() {
    const QStringList words = saying();
    if (words == chips_for_) return;
    chips_for_ = words;
    chips_.clear();
    if (chip_holder_ != nullptr) chip_holder_->deleteLater();
    chip_holder_ = new QWidget(stress_);
    auto* grid = new QGridLayout(chip_holder_);
    grid->setContentsMargins(0, 0, 0, 0);
    grid->setSpacing(4);
    stress_->layout()->addWidget(chip_holder_);
    constexpr int most = 40;
    for (int i = 0; i < words.size() && i < most; ++i) {
        const QFontMetrics m(stress_->font());
        QPushButton* chip = button(m.elidedText(words[i], Qt::ElideRight, 80), Role::Plain, chip_holder_);
        chip->setCheckable(true);
        chip->setAccessibleName(in_words("compose-part.stress", {{"words", words[i]}}));
        chip->setObjectName("stress " + words[i]);
        chip->setToolTip(words[i]);
        grid->addWidget(chip, i / 3, i % 3);
        connect(chip, &QPushButton::clicked, this, [this] {
            if (!proposals_->proposals().best.empty()) propose();
        });
        chips_.push_back(chip);
    }
    proposals_->show_proposals({}, {}, {});
}

void ComposePart::propose() {
    const std::vector<Text>& texts = desk_.face().lettering.texts;
    const Text& at_hand = texts[desk_.text_at()];
    wish_ = {};
    wish_.saying = saying().join(' ').toStdString();
    for (std::size_t i = 0; i < chips_.size(); ++i) {
        if (chips_[i]->isChecked()) wish_.stress.push_back(i);
    }
    wish_.plain = at_hand.typeface;
    for (const Text& t : texts) {
        const Typeface* known = find_typeface(desk_.library().typefaces, t.typeface);
        if (known != nullptr && !known->script()) {
            wish_.plain = t.typeface;
            break;
        }
    }
    const int at = std::max(0, stressed_typeface_->currentIndex());
    wish_.stressed = desk_.library().typefaces.at(static_cast<std::size_t>(at)).name;
    wish_.line_gap = at_hand.line_gap.value > Length{} ? at_hand.line_gap : measure("1/2");
    wish_.like = text_like(desk_.face());
    const Blank& blank = desk_.sign().blank;
    wish_.to_shape =
        blank.kind == Kind::Round || blank.kind == Kind::Arrow || blank.kind == Kind::Arch || blank.kind == Kind::Drawn;
    const ColourPlan* plan = desk_.face_plan();
    if (plan == nullptr) return;
    const LetteringRoom room = room_of(blank, *plan->face->blank);
    proposals_->show_proposals(compose(wish_, room, desk_.library().typefaces), wish_, room);
}

}  // namespace skarvel
